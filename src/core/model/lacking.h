// SPDX-License-Identifier: GPL-3.0-or-later
//! Says all that a calculation lacks, each number by a name that leads to its entry.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/base/say.h"
#include "core/model/airframe.h"

namespace kranich {

class Lacking {
 public:
  Lacking() = default;
  //! Paths are told within `root`, "/airframe/wing/".
  explicit Lacking(std::string root) : root_(std::move(root)) {}

  //! Notes a number if it is not known.
  Lacking& number(const Given& given, const std::string& path, Text name) {
    if (!given.known()) things_.push_back(entry(root_ + path, std::move(name)));
    return *this;
  }
  //! A place: by the first of its coordinates that is not known.
  Lacking& place(const Point& point, const std::string& path, Text name) {
    const char* first = !point.x.known()   ? "/x_m"
                        : !point.y.known() ? "/y_m"
                        : !point.z.known() ? "/z_m"
                                           : nullptr;
    if (first) things_.push_back(entry(root_ + path + first, std::move(name)));
    return *this;
  }
  //! What is no number, or whatever else was found to be missing.
  Lacking& that(bool is_missing, Text name) {
    if (is_missing) things_.push_back(std::move(name));
    return *this;
  }
  bool nothing() const { return things_.empty(); }
  //! "the span, the root chord and the sweep"; empty where nothing is missing.
  Text text() const { return enumerated(things_); }

 private:
  std::string root_;
  std::vector<Text> things_;
};

//! Where a leg's numbers stand: "/gear/legs/main/".
inline std::string leg_root(const std::string& id) { return "/gear/legs/" + id + "/"; }

//! Span, chords and sweep of a wing or tailplane without which it has no area.
inline void note_panels(Lacking& lacks, const Surface& s, const std::string& path, const char* whose) {
  lacks.number(s.span, path + "span_m", say("the span of the {}", whose))
      .number(s.root_chord, path + "root_chord_m", say("the root chord of the {}", whose))
      .number(s.tip_chord, path + "tip_chord_m", say("the tip chord of the {}", whose))
      .number(s.sweep, path + "leading_edge_sweep_deg", say("the leading edge's sweep of the {}", whose));
}

}  // namespace kranich
