// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logic/condition.h"

#include <algorithm>

namespace kranich::logic {
namespace {

using Node = Condition::Node;

bool look_at(const Node& n, const State& state) {
  switch (n.sort) {
    case Node::Sort::always:
      return true;
    case Node::Sort::value: {
      const auto it = state.find(n.variable);
      return it != state.end() && std::find(n.values.begin(), n.values.end(), it->second) != n.values.end();
    }
    case Node::Sort::both:
      return look_at(*n.a, state) && look_at(*n.b, state);
    case Node::Sort::either:
      return look_at(*n.a, state) || look_at(*n.b, state);
    case Node::Sort::opposite:
      return !look_at(*n.a, state);
  }
  return false;
}

void each(const Node& n, const std::function<void(const Node&)>& look) {
  if (n.sort == Node::Sort::value) look(n);
  if (n.a) each(*n.a, look);
  if (n.b) each(*n.b, look);
}

}  // namespace

Condition::Condition() : node_(std::make_shared<const Node>()) {}

Condition Condition::is(std::string variable, std::vector<std::string> values) {
  return Condition(Node{Node::Sort::value, std::move(variable), std::move(values)});
}

Condition Condition::all_of(const Pattern& pattern) {
  Condition all;
  for (const auto& [variable, values] : pattern) all = all && is(variable, values);
  return all;
}

Condition Condition::any_of(const std::vector<Pattern>& patterns) {
  Condition any = never();
  for (const auto& p : patterns) any = any || all_of(p);
  return any;
}

bool Condition::is_always() const { return node_->sort == Node::Sort::always; }
bool Condition::is_never() const {
  return node_->sort == Node::Sort::opposite && node_->a->sort == Node::Sort::always;
}

Condition operator&&(const Condition& a, const Condition& b) {
  if (a.is_never() || b.is_always()) return a;
  if (b.is_never() || a.is_always()) return b;
  return Condition(Node{Node::Sort::both, {}, {}, a.node_, b.node_});
}

Condition operator||(const Condition& a, const Condition& b) {
  if (a.is_always() || b.is_never()) return a;
  if (b.is_always() || a.is_never()) return b;
  return Condition(Node{Node::Sort::either, {}, {}, a.node_, b.node_});
}

Condition operator!(const Condition& a) { return Condition(Node{Node::Sort::opposite, {}, {}, a.node_, {}}); }

bool Condition::holds(const State& state) const { return look_at(*node_, state); }

void Condition::each_value(const std::function<void(const Node&)>& look) const { each(*node_, look); }

}  // namespace kranich::logic
