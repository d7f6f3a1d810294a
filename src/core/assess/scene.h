// SPDX-License-Identifier: GPL-3.0-or-later
//! What stands and moves about the gear as solids in space, at one place of its way: for the shaded view and
//! for files. Starboard and port, SI, aircraft axes.
#pragma once

#include <limits>
#include <vector>

#include "core/assess/assess.h"
#include "core/base/say.h"
#include "core/model/design.h"
#include "core/motion/mesh.h"

namespace kranich {

enum class SceneKind { wheel, leg, unit, door, keep_out };

struct ScenePart {
  Text name;
  SceneKind kind = SceneKind::leg;
  motion::Mesh mesh;
  //! Least distance to what it comes nearest to of the airframe, NaN where nothing is known; and to what.
  double distance = std::numeric_limits<double>::quiet_NaN();
  Text to;
  double wanted = 0;  //!< distance
};
struct SceneLine {
  Vec3 from, to;
  bool well;  //!< an edge of a well, else of a body
};
struct Scene {
  std::vector<ScenePart> parts;
  std::vector<SceneLine> lines;  //!< edges of wells; of fuselage and other bodies rings and stringers
};

//! The gear at a share of its travel (0 down, 1 stowed), each leg with its doors: standing as the steps going
//! down leave them, open while the leg is on its way, shut over it. Parts that lack a number are left out.
Scene scene_of(const Design& design, const Assessment& assessment, double share);

//! What a leg's wheel and strut pass through from down to stowed: their solids, one beside the other every so
//! many rad. Nothing where its motion is unknown.
std::vector<motion::Mesh> swept(const Leg& leg, double each);

}  // namespace kranich
