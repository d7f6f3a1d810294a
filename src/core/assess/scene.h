// SPDX-License-Identifier: GPL-3.0-or-later
//! What stands and moves about the gear as solids in space, at one place of its way: for the shaded view and
//! for files. Starboard and port, SI, aircraft axes.
#pragma once

#include <algorithm>
#include <optional>
#include <vector>

#include "core/assess/assess.h"
#include "core/base/say.h"
#include "core/model/design.h"
#include "core/motion/mesh.h"

namespace kranich {

enum class SceneKind { wheel, leg, unit, door, keep_out };

//! How far a moving part is from what it comes nearest to.
struct NearMiss {
  double distance, wanted;  //!< m; negative: depth of overlap
  double seen_from;         //!< from here on it counts as near
  Text to;
  bool too_near() const { return distance < std::max(0.0, wanted); }
  //! 0 far, 1 as near as is wanted, or nearer.
  double share() const { return std::clamp((seen_from - distance) / (seen_from - wanted), 0.0, 1.0); }
};

struct ScenePart {
  Text name;
  SceneKind kind = SceneKind::leg;
  motion::Mesh mesh;
  std::optional<NearMiss> near;  //!< nothing where nothing near it is known
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
