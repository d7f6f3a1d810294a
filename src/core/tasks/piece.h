// SPDX-License-Identifier: GPL-3.0-or-later
//! What a task is ticked for where it is ticked more than once: a leg on its side, a joint, a door. Known by
//! keys that stay when the builder renames things; and where the paths of the table lead for it.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/say.h"
#include "core/model/design.h"
#include "core/tasks/task.h"

namespace kranich::tasks {

struct Piece {
  std::string key;  //!< "main/port", "main/joint:rear plate", "door:nose-left"; empty: the aircraft
  Text words;       //!< "port main leg"
  std::string leg;  //!< id of the leg it is or belongs to; of the port side the one that stands there
  bool port = false;
  bool has_twin = false;  //!< there is one like it on the other side
  std::string twin;       //!< its key
  std::string at;  //!< path of its own part of the design, "/doors/nose-left/"; empty: its leg's, or none
  bool operator==(const Piece& other) const { return key == other.key; }
};

//! All that a task is ticked for in a design, in the order of its lists; of a task that is ticked once the
//! aircraft.
std::vector<Piece> pieces_of(const Design& design, Per per);
//! The aircraft as a whole.
Piece whole();

//! A path of the table for a piece: "/gear/*/wheel/pressure_Pa" of the port main wheel, "/gear/main/axle/x_m"
//! of the leg that speaks for the mains (on the piece's side where the sides are unlinked). Nothing where a
//! star has nothing to stand for.
std::optional<std::string> path_for(const Design& design, const Piece& piece, const std::string& path);

}  // namespace kranich::tasks
