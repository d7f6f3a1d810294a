// SPDX-License-Identifier: GPL-3.0-or-later
//! Drawings for the bench: lines and letters in millimetres on paper, x to the right, y up. What a sheet
//! shows full size has scale 1; a floor plan says 1:10 and carries its numbers.
#pragma once

#include <Eigen/Core>
#include <string>
#include <vector>

namespace kranich::shop {

using Vec2 = Eigen::Vector2d;

//! What a line is for: where to cut, to bend, a centre line, a mark for a hole or an edge, a dimension.
enum class Line { cut, bend, centre, mark, dimension };
inline constexpr int line_kinds = 5;
//! "cut", "bend", …: the layer in a DXF, the class in an SVG.
const char* line_name(Line line);

struct Path {
  std::vector<Vec2> points;
  bool closed = false;
  Line line = Line::cut;
};
struct Circle {
  Vec2 centre;
  double radius;
  Line line = Line::cut;
};
struct Lettering {
  Vec2 at{0, 0};      //!< left end of the base line
  double height = 0;  //!< of capitals
  std::string text;
  bool centred = false;  //!< `at` is the middle of the base line
};

struct Box {
  Vec2 low{0, 0}, high{0, 0};
  Vec2 size() const { return high - low; }
};

//! Whose drawing it is and when: on every sheet.
struct Stamp {
  std::string project, revision, date;
};

struct Drawing {
  std::string title;
  std::string state;  //!< loading and state of the gear it was made for
  double scale = 1;   //!< paper over world
  std::vector<std::string> notes;
  std::vector<Path> paths;
  std::vector<Circle> circles;
  std::vector<Lettering> texts;

  //! Letters with their base line's left end (or middle) at a place.
  void write(const Vec2& at, double height, std::string text, bool centred = false);
  void line(const Vec2& a, const Vec2& b, Line kind) { paths.push_back({{a, b}, false, kind}); }
  void rectangle(const Vec2& low, const Vec2& high, Line kind);
  //! A hole: its edge, a cross through its centre and what drill.
  void hole(const Vec2& centre, double diameter, const std::string& drill);
  //! A dimension between two points, its line set off square to them by so much (to the left of a → b).
  void dimension(const Vec2& a, const Vec2& b, double off, const std::string& text);
  //! A table from its top left corner downward; the first row is the heading. Columns are as wide as wanted
  //! or as what stands in them needs. Returns the y below it.
  double table(const Vec2& corner, const std::vector<double>& widths,
               const std::vector<std::vector<std::string>>& rows, double letters = 3);
  //! Everything drawn, letters by their height and an estimate of their length.
  Box bounds() const;
};

//! The same drawing for the other side: its lines mirrored left to right, its letters readable.
Drawing mirrored(const Drawing& drawing);
//! Whether a drawing's lines are those of its mirrored one, laid over it: left and right parts are then truly
//! identical. Dimensions and letters do not count.
bool same_both_hands(const Drawing& drawing);

//! The same drawing with its letters kept off a page that they alone would need, for pages that show so much
//! of it in width (mm): moved sideways, nothing else.
Drawing on_pages_of(Drawing drawing, double width);

//! SVG 1.1, one user unit a millimetre of paper, lines in groups by kind.
std::string to_svg(const Drawing& drawing, const Stamp& stamp);
//! DXF of release 12, millimetres, a layer for each kind of line; circles as circles, paths as polylines.
std::string to_dxf(const Drawing& drawing, const Stamp& stamp);

}  // namespace kranich::shop
