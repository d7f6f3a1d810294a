// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shop/drawing.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/text.h"

namespace kranich::shop {
namespace {

//! Length of a line of text with capitals of a height: a wide letter for each.
double length_of(const std::string& text, double height) {
  return 0.85 * height * static_cast<double>(letters_in(text));
}

std::string escaped(const std::string& s) {
  std::string out;
  for (const char c : printable(s)) switch (c) {
      case '&':
        out += "&amp;";
        break;
      case '<':
        out += "&lt;";
        break;
      case '>':
        out += "&gt;";
        break;
      case '"':
        out += "&quot;";
        break;
      default:
        out += c;
    }
  return out;
}

//! Release 12 knows no Unicode: what stands outside of ASCII is written in its own words or as a code.
//! A line of text holds 255 letters.
std::string for_dxf(const std::string& said) {
  const std::string s = shortened(printable(said), 250);
  std::string out;
  for (size_t i = 0; i < s.size();) {
    const auto c = static_cast<unsigned char>(s[i]);
    if (c < 0x80) {
      out += s[i];
      ++i;
      continue;
    }
    const int more = c >= 0xF0 ? 3 : c >= 0xE0 ? 2 : 1;
    unsigned code = c & (0x3Fu >> more);
    for (int k = 1; k <= more && i + static_cast<size_t>(k) < s.size(); ++k)
      code = code << 6 | (static_cast<unsigned char>(s[i + static_cast<size_t>(k)]) & 0x3Fu);
    i += static_cast<size_t>(more) + 1;
    if (code == 0xB0)
      out += "%%d";
    else if (code == 0xB1)
      out += "%%p";
    else if (code == 0x2300 || code == 0xD8)
      out += "%%c";
    else if (code == 0xA0 || code == 0x2009 || code == 0x202F)
      out += ' ';
    else if (code == 0x2212 || code == 0x2013)
      out += '-';
    else if (code == 0xD7)
      out += 'x';
    else if (code == 0x201C || code == 0x201D)
      out += '"';
    else if (code == 0x2026)
      out += "...";
    else
      out += fmt::format("\\U+{:04X}", code);
  }
  return out;
}

struct Look {
  const char* name;
  const char* dash;  //!< of an SVG
  double width;      //!< mm
  int colour;        //!< of a DXF layer
};
constexpr std::array<Look, line_kinds> looks{{{"cut", "", 0.35, 7},
                                              {"bend", "4,1.5", 0.25, 3},
                                              {"centre", "8,1.5,1,1.5", 0.18, 1},
                                              {"mark", "", 0.18, 5},
                                              {"dimension", "", 0.13, 8}}};
constexpr double note_height = 2.2;

const Look& look(Line line) { return looks[static_cast<size_t>(line)]; }

}  // namespace

const char* line_name(Line line) { return look(line).name; }

void Drawing::write(const Vec2& at, double height, std::string text, bool centred) {
  if (text.empty()) return;  // no letters: nothing for a reader of SVG or DXF to stumble over
  Lettering& t = texts.emplace_back();
  t.at = at;
  t.height = height;
  t.text = std::move(text);
  t.centred = centred;
}

void Drawing::rectangle(const Vec2& low, const Vec2& high, Line kind) {
  paths.push_back({{low, {high.x(), low.y()}, high, {low.x(), high.y()}}, true, kind});
}

void Drawing::hole(const Vec2& c, double diameter, const std::string& drill) {
  circles.push_back({c, diameter / 2, Line::cut});
  const double arm = diameter / 2 + 2;
  line(c - Vec2(arm, 0), c + Vec2(arm, 0), Line::centre);
  line(c - Vec2(0, arm), c + Vec2(0, arm), Line::centre);
  if (!drill.empty()) write(c + Vec2(arm, 1), 2.2, drill);
}

void Drawing::dimension(const Vec2& a, const Vec2& b, double off, const std::string& text) {
  const Vec2 along = (b - a).normalized();
  const Vec2 left(-along.y(), along.x());
  const Vec2 p = a + off * left;
  const Vec2 q = b + off * left;
  line(a, p + (off > 0 ? 1.5 : -1.5) * left, Line::dimension);
  line(b, q + (off > 0 ? 1.5 : -1.5) * left, Line::dimension);
  line(p, q, Line::dimension);
  for (const auto& [end, sign] : {std::pair{p, 1.0}, {q, -1.0}})
    line(end, end + sign * 2.2 * along + 0.7 * left, Line::dimension),
        line(end, end + sign * 2.2 * along - 0.7 * left, Line::dimension);
  // Beside an upright line, above a level one.
  const bool upright = std::abs(along.y()) > std::abs(along.x());
  const double half = 0.43 * 2.6 * static_cast<double>(letters_in(text));
  write((p + q) / 2 + (upright ? Vec2(-half - 1.5, -1) : Vec2(0, 1.2)), 2.6, text, true);
}

double Drawing::table(const Vec2& corner, const std::vector<double>& wanted,
                      const std::vector<std::vector<std::string>>& rows, double letters) {
  // No cell runs into the next: columns grow with what stands in them, and what is then wider than a sheet is
  // written smaller.
  constexpr double widest = 186;
  constexpr double smallest = 1.4;
  std::vector<double> widths;
  double width = 0;
  for (;; letters = std::max(smallest, letters * 0.95)) {
    widths = wanted;
    for (const auto& cells : rows)
      for (size_t c = 0; c < cells.size() && c < widths.size(); ++c)
        widths[c] = std::max(widths[c], 2 + length_of(cells[c], letters));
    width = 0;
    for (const double w : widths) width += w;
    if (width <= widest || letters <= smallest) break;
    double given = 0;
    for (const double w : wanted) given += w;
    if (width <= given) break;
  }
  const double row = 2.1 * letters;
  double y = corner.y();
  line({corner.x(), y}, {corner.x() + width, y}, Line::mark);
  for (const auto& cells : rows) {
    double x = corner.x();
    for (size_t c = 0; c < cells.size() && c < widths.size(); ++c) {
      write({x + 1, y - 1.5 * letters}, letters, cells[c]);
      x += widths[c];
    }
    y -= row;
    line({corner.x(), y}, {corner.x() + width, y}, &cells == &rows.front() ? Line::mark : Line::dimension);
  }
  return y;
}

Box Drawing::bounds() const {
  Box b{{1e9, 1e9}, {-1e9, -1e9}};
  const auto see = [&](const Vec2& p) {
    b.low = b.low.cwiseMin(p);
    b.high = b.high.cwiseMax(p);
  };
  for (const auto& p : paths)
    for (const auto& q : p.points) see(q);
  for (const auto& c : circles) {
    see(c.centre - Vec2(c.radius, c.radius));
    see(c.centre + Vec2(c.radius, c.radius));
  }
  for (const auto& t : texts) {
    const double length = length_of(t.text, t.height);
    const Vec2 from = t.centred ? t.at - Vec2(length / 2, 0) : t.at;
    see(from - Vec2(0, 0.3 * t.height));
    see(from + Vec2(length, 1.1 * t.height));
  }
  return b.high.x() < b.low.x() ? Box{} : b;
}

Drawing on_pages_of(Drawing d, double width) {
  // What is cut or measured stays where it is; letters alone need no further page.
  Drawing bare = d;
  bare.texts.clear();
  if (bare.paths.empty() && bare.circles.empty()) return d;
  const Box hard = bare.bounds();
  const double low = std::min(hard.low.x(), hard.high.x() - width);
  const double high = std::max(hard.high.x(), hard.low.x() + width);
  for (auto& t : d.texts) {
    const double length = length_of(t.text, t.height);
    const double from = t.centred ? t.at.x() - length / 2 : t.at.x();
    if (from + length > high) t.at.x() -= std::min(from + length - high, std::max(0.0, from - low));
    if (from < low) t.at.x() += low - from;
  }
  return d;
}

Drawing mirrored(const Drawing& drawing) {
  Drawing m = drawing;
  const auto other = [](const Vec2& p) { return Vec2(-p.x(), p.y()); };
  for (Path& p : m.paths)
    for (Vec2& q : p.points) q = other(q);
  for (Circle& c : m.circles) c.centre = other(c.centre);
  for (Lettering& t : m.texts) {
    t.at = other(t.at);
    if (!t.centred) t.at.x() -= length_of(t.text, t.height);
  }
  return m;
}

namespace {

//! What is cut, bent, drilled or marked, as points from the lower left corner of it all, in an order of their
//! own: two drawings of one part give the same list.
std::vector<std::array<double, 3>> lines_of(const Drawing& drawing) {
  std::vector<std::array<double, 3>> list;
  Vec2 low(1e300, 1e300);
  const auto see = [&](const Vec2& at, double kind) {
    low = low.cwiseMin(at);
    list.push_back({at.x(), at.y(), kind});
  };
  for (const Path& p : drawing.paths)
    if (p.line != Line::dimension)
      for (const Vec2& q : p.points) see(q, static_cast<double>(p.line));
  for (const Circle& c : drawing.circles)
    if (c.line != Line::dimension) see(c.centre, 10 + c.radius);
  // To a hundredth of a millimetre: nobody cuts closer.
  for (auto& [x, y, kind] : list) {
    x = std::round((x - low.x()) * 100);
    y = std::round((y - low.y()) * 100);
  }
  std::sort(list.begin(), list.end());
  return list;
}

}  // namespace

bool same_both_hands(const Drawing& drawing) {
  const auto here = lines_of(drawing), there = lines_of(mirrored(drawing));
  if (here.size() != there.size()) return false;
  for (size_t i = 0; i < here.size(); ++i)
    for (size_t k = 0; k < 3; ++k)
      if (std::abs(here[i][k] - there[i][k]) > 1.5) return false;
  return true;
}

std::string to_svg(const Drawing& d, const Stamp& stamp) {
  const Box b = d.bounds();
  const double margin = 8;
  const double width = std::max(150.0, b.size().x() + 2 * margin);
  std::vector<std::string> notes;
  for (const auto& n : d.notes)
    for (auto& line : wrapped(n, static_cast<size_t>((width - 2 * margin) / length_of("x", note_height))))
      notes.push_back(std::move(line));
  const double foot = 12 + 4.5 * static_cast<double>(notes.size());
  const double height = b.size().y() + 2 * margin + foot;
  const auto x = [&](double v) { return v - b.low.x() + margin; };
  const auto y = [&](double v) { return b.high.y() - v + margin; };
  std::string s = fmt::format(
      "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" version=\"1.1\" "
      "width=\"{0:.3f}mm\" height=\"{1:.3f}mm\" viewBox=\"0 0 {0:.3f} {1:.3f}\">\n<title>{2}</title>\n",
      width, height, escaped(stamp.project + " – " + d.title));
  for (int k = 0; k < line_kinds; ++k) {
    const auto kind = static_cast<Line>(k);
    const std::string dash = *look(kind).dash ? fmt::format(" stroke-dasharray=\"{}\"", look(kind).dash) : "";
    s += fmt::format("<g id=\"{}\" fill=\"none\" stroke=\"black\" stroke-width=\"{}\"{}>\n", look(kind).name,
                     look(kind).width, dash);
    for (const auto& p : d.paths) {
      if (p.line != kind) continue;
      s += p.closed ? "<polygon points=\"" : "<polyline points=\"";
      for (const auto& q : p.points) s += fmt::format("{:.4f},{:.4f} ", x(q.x()), y(q.y()));
      s += "\"/>\n";
    }
    for (const auto& c : d.circles)
      if (c.line == kind)
        s += fmt::format("<circle cx=\"{:.4f}\" cy=\"{:.4f}\" r=\"{:.4f}\"/>\n", x(c.centre.x()),
                         y(c.centre.y()), c.radius);
    s += "</g>\n";
  }
  // A white rim keeps letters readable where a line runs beneath.
  s += "<g id=\"letters\" fill=\"black\" font-family=\"B612, sans-serif\" stroke=\"white\" "
       "stroke-width=\"0.7\" "
       "stroke-linejoin=\"round\" paint-order=\"stroke\">\n";
  const auto letters = [&](double px, double py, double size, const std::string& text, bool centred) {
    s += fmt::format("<text x=\"{:.3f}\" y=\"{:.3f}\" font-size=\"{:.2f}\"{}>{}</text>\n", px, py, 1.4 * size,
                     centred ? " text-anchor=\"middle\"" : "", escaped(text));
  };
  for (const auto& t : d.texts) letters(x(t.at.x()), y(t.at.y()), t.height, t.text, t.centred);
  double line_y = height - foot + 4;
  letters(margin, line_y, 3,
          d.title + (d.scale == 1 ? " – full size" : fmt::format(" – 1:{:.0f}", 1 / d.scale)), false);
  letters(margin, line_y += 5, 2.4,
          stamp.project + ", change " + stamp.revision + ", " + stamp.date + "; " + d.state, false);
  for (const auto& n : notes) letters(margin, line_y += 4.5, note_height, n, false);
  return s + "</g>\n</svg>\n";
}

std::string to_dxf(const Drawing& d, const Stamp& stamp) {
  std::string s;
  const auto pair = [&](int code, const std::string& value) { s += fmt::format("{:3}\n{}\n", code, value); };
  const auto number = [&](int code, double v) { pair(code, fmt::format("{:.6f}", v)); };
  const Box b = d.bounds();
  pair(999, for_dxf(stamp.project + " - " + d.title + ", change " + stamp.revision + ", " + stamp.date));
  pair(0, "SECTION");
  pair(2, "HEADER");
  pair(9, "$ACADVER");
  pair(1, "AC1009");
  pair(9, "$EXTMIN");
  number(10, b.low.x());
  number(20, b.low.y());
  pair(9, "$EXTMAX");
  number(10, b.high.x());
  number(20, b.high.y());
  pair(0, "ENDSEC");
  pair(0, "SECTION");
  pair(2, "TABLES");
  pair(0, "TABLE");
  pair(2, "LTYPE");
  pair(70, "1");
  pair(0, "LTYPE");
  pair(2, "CONTINUOUS");
  pair(70, "64");
  pair(3, "Solid line");
  pair(72, "65");
  pair(73, "0");
  number(40, 0);
  pair(0, "ENDTAB");
  pair(0, "TABLE");
  pair(2, "LAYER");
  pair(70, fmt::format("{}", line_kinds + 1));
  for (int k = 0; k <= line_kinds; ++k) {
    pair(0, "LAYER");
    pair(2, k < line_kinds ? looks[static_cast<size_t>(k)].name : "letters");
    pair(70, "64");
    pair(62, fmt::format("{}", k < line_kinds ? looks[static_cast<size_t>(k)].colour : 7));
    pair(6, "CONTINUOUS");
  }
  pair(0, "ENDTAB");
  pair(0, "ENDSEC");
  pair(0, "SECTION");
  pair(2, "ENTITIES");
  for (const auto& p : d.paths) {
    if (p.points.size() == 2 && !p.closed) {
      pair(0, "LINE");
      pair(8, look(p.line).name);
      number(10, p.points[0].x());
      number(20, p.points[0].y());
      number(11, p.points[1].x());
      number(21, p.points[1].y());
      continue;
    }
    pair(0, "POLYLINE");
    pair(8, look(p.line).name);
    pair(66, "1");
    pair(70, p.closed ? "1" : "0");
    for (const auto& q : p.points) {
      pair(0, "VERTEX");
      pair(8, look(p.line).name);
      number(10, q.x());
      number(20, q.y());
    }
    pair(0, "SEQEND");
    pair(8, look(p.line).name);
  }
  for (const auto& c : d.circles) {
    pair(0, "CIRCLE");
    pair(8, look(c.line).name);
    number(10, c.centre.x());
    number(20, c.centre.y());
    number(40, c.radius);
  }
  const auto letters = [&](const Vec2& at, double height, const std::string& text, bool centred) {
    pair(0, "TEXT");
    pair(8, "letters");
    number(10, at.x());
    number(20, at.y());
    number(40, height);
    pair(1, for_dxf(text));
    if (centred) {
      pair(72, "1");
      number(11, at.x());
      number(21, at.y());
    }
  };
  for (const auto& t : d.texts) letters(t.at, t.height, t.text, t.centred);
  double y = b.low.y() - 6;
  letters({b.low.x(), y}, 3,
          d.title + (d.scale == 1 ? ", full size" : fmt::format(", 1:{:.0f}", 1 / d.scale)), false);
  letters({b.low.x(), y -= 5}, 2.4,
          stamp.project + ", change " + stamp.revision + ", " + stamp.date + "; " + d.state, false);
  const double broad = std::max(150.0, b.size().x());
  for (const auto& n : d.notes)
    for (const auto& line : wrapped(n, static_cast<size_t>(broad / length_of("x", note_height))))
      letters({b.low.x(), y -= 4.5}, note_height, line, false);
  pair(0, "ENDSEC");
  pair(0, "EOF");
  return s;
}

}  // namespace kranich::shop
