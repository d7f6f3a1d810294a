// SPDX-License-Identifier: GPL-3.0-or-later
//! Tapped holes: pitch, tap drill and how deep to drill. SI. Source: metric coarse threads (the standard
//! series, 2 to 16 mm) and unified coarse threads (No. 4 to 1/2 in), both open standards; shop practice for
//! lead and point.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/model/workshop.h"

namespace kranich::leg {

struct Thread {
  std::string name;  //!< "M6", "1/4-20"
  double diameter, pitch;
  //! About three quarters of the full thread's height.
  double tap_drill() const { return diameter - pitch; }
  //! Of the rod before a die cuts the thread: a tenth of the pitch less, the die raises its crests.
  double rod() const { return diameter - 0.1 * pitch; }
};
//! Every coarse thread that is known, metric first, by size.
const std::vector<Thread>& coarse_threads();
//! The coarse thread of a fastener's diameter, nearest within 2 %; nothing where none is that near.
std::optional<Thread> coarse_thread(double diameter);

//! What a thread holds in by its depth over the diameter: 1 in steel, 1.5 in light metals, 2 in what is
//! softer (wood, printed parts, laminates).
double engagement_in(const Material& material);

//! A hole that does not go through: full thread, the tap's lead (three pitches of a second tap) and the
//! drill's point (118°: 0.3 of its diameter). `depth` is to the point's tip: it must be less than the part is
//! thick.
struct BlindHole {
  double thread, lead, point, depth;
};
BlindHole blind_hole(const Thread& thread, double engagement);

}  // namespace kranich::leg
