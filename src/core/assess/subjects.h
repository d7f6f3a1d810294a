// SPDX-License-Identifier: GPL-3.0-or-later
//! Parts of a design as subjects of findings: known by their ids, whatever a builder calls them.
#pragma once

#include <string>
#include <vector>

#include "core/base/finding.h"
#include "core/model/design.h"

namespace kranich {

//! "main leg"; on one side of a pair "port main leg"; all that stand in its line "main legs".
Subject about_leg(const Design& design, const Leg& leg);
Subject about_leg_on(const Design& design, const Leg& leg, bool port);
Subject about_legs(const Design& design, const Leg& leg);
//! "nose leg, going up": all that stand in its line.
Subject about_leg_way(const Design& design, const Leg& leg, bool up);
//! "nose wheel", "nose unit".
Subject about_wheel(const Design& design, const Leg& leg);
Subject about_unit(const Design& design, const Leg& leg);
//! A member of a leg or a joint of it: "main leg, front leg".
Subject about_member(const Design& design, const Leg& leg, const std::string& part);
//! "nose door"; "nose door, going up".
Subject about_door(const Design& design, const std::string& id);
Subject about_door(const Design& design, const std::string& id, bool up);
//! One of a list whose entries have names and no ids: a point, a propeller. Of several of one name the second
//! is known as such.
template <class T>
Subject about_one(const std::vector<T>& list, const T& one) {
  int nth = 1;
  for (const T* t = list.data(); t != &one; ++t) nth += t->name == one.name;
  return {one.name, nth == 1 ? one.name : one.name + "#" + std::to_string(nth)};
}

}  // namespace kranich
