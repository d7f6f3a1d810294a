// SPDX-License-Identifier: GPL-3.0-or-later
//! A gear's switches, relays, lamps and horn as they are wired: from the parts chosen to the rungs of its
//! diagram, and from those to the machine that is explored. The diagram and the proof are one and the same:
//! a relay pulls in where its rung lets current through. Source: handbook, Doors and sequence, Logic.
//!
//! What it covers: contacts, relays, motors, locks, doors, legs in four places (locked down, at the down
//! stop, on the way, up), one thing after the other in any order, the pilot's and the machine's. What it does
//! not: times and voltages (Sequence, Circuit), mechanics beyond the places, a second breaker's own failing.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "core/logic/condition.h"
#include "core/logic/machine.h"
#include "core/model/systems.h"

namespace kranich::logic {

//! A leg as its wiring sees it.
struct WiredLeg {
  std::string key;     //!< "main/port", "nose"
  std::string word;    //!< "port main leg"
  bool hook = false;   //!< an up-lock holds it: it does not sink where pressure is lost
  bool falls = false;  //!< by itself, to its lock
  bool door = false;   //!< a door, or several together, that a drive of its own moves
  std::string door_word;
  bool closes_down = false;  //!< closes again on the gear down
  bool closes_up = true;
  //! In each other's way: leg down, on the way, up, against door closed, on the way, open.
  std::array<std::array<bool, 3>, 3> clash{};
  bool operator==(const WiredLeg&) const = default;
};

//! All that its logic follows from.
struct Fitted {
  Logic parts;
  std::vector<WiredLeg> legs;
  bool operator==(const Fitted&) const = default;
};

//! A contact of the diagram.
struct Contact {
  std::string part;   //!< the variable that says whether it works; empty: it cannot break
  std::string label;  //!< "selector: up"
  Condition closed;
  bool makes = true;  //!< drawn open where it rests open; else it breaks
};
//! Contacts side by side, one after the other.
using Series = std::vector<std::vector<Contact>>;
struct Rung {
  enum class Load { relay, lamp, horn, valve };
  std::string load;  //!< "relay: raise"
  Load sort = Load::relay;
  std::string colour{};  //!< of a lamp
  Series series;
  Condition lit;  //!< its series, of all contacts
};

//! A part that can break, with the faults that it has.
struct Part {
  std::string name;                 //!< and that of its variable; its first value is "works"
  std::vector<std::string> faults;  //!< names of faults of the machine, in the order of its other values
};

//! What must hold, and what it is called where it does not.
enum class Rule { door, motor, lamp, horn, fall, ground, settles, comes };
inline constexpr int rule_count = 8;

struct Wiring {
  Machine machine;
  std::vector<Rung> rungs;
  std::vector<Part> parts;
  std::vector<Rule> rules;  //!< of each of the machine's properties, in its order
};
Wiring wire(const Fitted& fitted);

//! A line of the table of states: selector, what the legs and switches do, which rungs then let current
//! through. In the air, throttle back, breaker in.
struct StateRow {
  std::string selector, situation;
  bool broken = false;
  std::vector<bool> lit;  //!< of the wiring's rungs
};
//! All legs down, on the way, up; each leg the odd one out; each switch of an end stuck closed and broken
//! where it lies: with the selector both ways.
std::vector<StateRow> state_table(const Wiring& wiring, const Fitted& fitted);

//! Words that stand for parts of every wiring: no leg and no door may be called so in it.
std::vector<std::string> taken_words();

//! Name of the machine's variable for a leg or its door.
std::string leg_variable(const WiredLeg& leg);
std::string door_variable(const WiredLeg& leg);
//! Where a leg or door is drawn, of its travel: 0 down or closed, 1 up or open.
double leg_place(const std::string& value);
double door_place(const std::string& value);

}  // namespace kranich::logic
