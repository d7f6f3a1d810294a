// SPDX-License-Identifier: GPL-3.0-or-later
//! A door's panel about its hinge, whichever way that lies: where it is at any opening. SI, rad, aircraft
//! axes; opening counts from closed, positive the way the free edge goes down. Source: handbook, Doors.
//!
//! With h along the hinge, the closed panel of no tilt lies level, along ±(z × h); n is square to that and to
//! the hinge, downward. Tilted by τ its way across is cos τ·level − sin τ·n; it opens about level × n.
#pragma once

#include <array>
#include <limits>
#include <optional>
#include <variant>
#include <vector>

#include "core/model/design.h"
#include "core/motion/frame.h"
#include "core/motion/shape.h"

namespace kranich::motion {

//! A solid and a ball round it: what lies further off than another is needs no closer look.
struct BoundSolid {
  std::variant<RoundedWheel, Capsule> solid;
  Vec3 centre;
  double radius;

  explicit BoundSolid(const RoundedWheel& wheel);
  explicit BoundSolid(const Capsule& capsule);
};

struct DoorPanel {
  Axis hinge;      //!< right-handed for opening, through the front end
  Vec3 rear;       //!< other end of the hinge
  Vec3 out, down;  //!< unit, square to the hinge: level on the closed panel's side, and downward
  double tilt;     //!< by which the closed panel's free edge lies higher
  double width, thickness, open;
  //! A ramp on its inside, over all its length: from nothing at `ramp_from` out from the hinge to its height
  //! at `ramp_to`. Distances see it as eight steps, each as high as its outer end: never too far.
  double ramp_from = 0, ramp_to = 0, ramp_height = 0;

  //! Way from the hinge to the free edge, unit, at an opening.
  Vec3 across(double opening) const;
  //! Where what lies at `closed` on the closed door is then.
  Vec3 carried(const Vec3& closed, double opening) const { return hinge.turn(opening) * closed; }
  //! Hinge's ends, then the free edge from the second to the first; on the outer face.
  std::array<Vec3, 4> corners(double opening) const;
  //! A point in the panel's own plane square to the hinge: out and up from the hinge.
  Eigen::Vector2d in_plane(const Vec3& p) const;
  //! Least distance from a solid of the aircraft to the panel at an opening; overlapping: less than nothing.
  double clearance(const RoundedWheel& wheel, double opening) const;
  double clearance(const Capsule& capsule, double opening) const;
  //! The same of the nearest of several; and without telling how deep they overlap (motion::apart).
  double clearance(const std::vector<BoundSolid>& solids, double opening) const;
  double apart_from(const std::vector<BoundSolid>& solids, double opening,
                    double enough = std::numeric_limits<double>::infinity()) const;
};

//! A door's panel; nothing where its hinge, width or opening is unknown, or the hinge stands upright. A
//! thickness or tilt that is not known counts as none.
std::optional<DoorPanel> panel_of(const Door& door);
//! That of the other side.
DoorPanel mirrored(const DoorPanel& panel);

//! How far open a door stands with the gear down: as its last step leaves it (left ajar where it closes
//! again); one that nothing moves hangs open.
double opening_down(const Design& design, const Door& door);

}  // namespace kranich::motion
