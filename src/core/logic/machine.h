// SPDX-License-Identifier: GPL-3.0-or-later
//! A gear's switches, relays, drives and legs as a state machine, and every state that it can reach: nothing
//! is timed, events happen one at a time in any order, the operator's and the machine's own are told apart.
//! Source: handbook, Doors and sequence, Logic.
//!
//! What a proof covers is this model: no mechanics, no voltages, no time beyond it.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <string>
#include <vector>

namespace kranich::logic {

//! A part that is in one of a few states.
struct Variable {
  std::string name;
  std::vector<std::string> values;
};

//! Allowed values of some variables or outputs, by name; others may be anything. Outputs are "true" or
//! "false".
using Pattern = std::map<std::string, std::vector<std::string>>;

struct Event {
  std::string name;
  bool by_operator = false;   //!< else by the machine itself
  std::vector<Pattern> when;  //!< any of them; empty: always
  std::map<std::string, std::string> set;
};

//! A lamp or a horn: true where any of its patterns holds.
struct Output {
  std::string name;
  std::vector<Pattern> when;
};

enum class Demand {
  never,    //!< no reachable state matches
  ends,     //!< with the operator doing nothing more, the machine does not stay within the pattern
  settles,  //!< no reachable cycle of the machine's own events
};
struct Property {
  std::string name;
  Demand demand = Demand::never;
  std::vector<Pattern> pattern;  //!< any of them
};

//! Something broken: a variable that stays as it is, whatever would set it; events that cannot happen.
struct Fault {
  std::string name;
  std::map<std::string, std::string> hold;
  std::vector<std::string> removed;
};

struct Machine {
  std::vector<Variable> variables;
  std::map<std::string, std::string> initial;
  std::vector<Event> events;
  std::vector<Output> outputs;
  std::vector<Property> properties;
  std::vector<Fault> faults;
};

//! What a property came to under a fault.
struct Outcome {
  std::string property;
  bool violated = false;
  std::vector<std::string>
      run;                //!< events from the start to the first violating state; the shortest there is
  bool by_cycle = false;  //!< of `ends` and `settles`: it goes round for ever; else it stands still
};
struct Exploration {
  std::string fault;
  size_t states = 0;  //!< reachable, the initial one included
  size_t depth = 0;   //!< most events that a reachable state needs
  bool complete = true;
  std::vector<Outcome> outcomes;
};

//! Names of variables, values, outputs and events that do not exist, in words; empty where all is well.
std::vector<std::string> faults_in(const Machine& machine);

//! Explores a machine with some faults at once. `keep_going` is asked now and then: where it says no, what
//! was found so far is returned, not complete. No more than `most` states: beyond it the answer says so as
//! well. Errors: a machine with faults_in gives nothing but states = 0, not complete.
Exploration explore(const Machine& machine, const std::vector<const Fault*>& faults,
                    const std::function<bool()>& keep_going = {}, size_t most = 4'000'000);

}  // namespace kranich::logic
