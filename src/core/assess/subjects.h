// SPDX-License-Identifier: GPL-3.0-or-later
//! Parts of a design as subjects of findings: known by their ids, whatever a builder calls them.
#pragma once

#include <string>

#include "core/base/finding.h"
#include "core/model/design.h"

namespace kranich {

//! "main leg"; on one side of a pair "port main leg"; all that stand in its line "main legs".
Subject about_leg(const Design& design, const Leg& leg);
Subject about_leg_on(const Design& design, const Leg& leg, bool port);
Subject about_legs(const Design& design, const Leg& leg);
//! "nose wheel", "nose unit".
Subject about_wheel(const Design& design, const Leg& leg);
Subject about_unit(const Design& design, const Leg& leg);
//! A member of a leg or a joint of it: "main leg, front leg".
Subject about_member(const Design& design, const Leg& leg, const std::string& part);
//! "nose door, going up".
Subject about_door(const Design& design, const std::string& id, bool up);
//! What is known by its name alone: a point, a propeller.
Subject about_one(const std::string& name);

}  // namespace kranich
