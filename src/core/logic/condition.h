// SPDX-License-Identifier: GPL-3.0-or-later
//! Conditions on the variables of a machine, put together with and, or, not: what a contact, a rung, an event
//! asks for. Kept as they were built: written out as alternatives they would grow without bound.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <string>
#include <vector>

namespace kranich::logic {

//! Allowed values of some variables, by name; others may be anything.
using Pattern = std::map<std::string, std::vector<std::string>>;
//! What each variable is.
using State = std::map<std::string, std::string>;

class Condition {
 public:
  struct Node {
    enum class Sort { always, value, both, either, opposite };
    Sort sort = Sort::always;
    std::string variable{};
    std::vector<std::string> values{};  //!< any of them
    std::shared_ptr<const Node> a{}, b{};
  };

  Condition();  //!< always
  static Condition always() { return {}; }
  static Condition never() { return !Condition(); }
  //! A variable that has one of some of its values.
  static Condition is(std::string variable, std::vector<std::string> values);
  static Condition all_of(const Pattern& pattern);
  static Condition any_of(const std::vector<Pattern>& patterns);

  friend Condition operator&&(const Condition& a, const Condition& b);
  friend Condition operator||(const Condition& a, const Condition& b);
  friend Condition operator!(const Condition& a);

  //! Plainly so, whatever the variables are.
  bool is_always() const;
  bool is_never() const;
  bool holds(const State& state) const;
  //! Every variable with the values that are asked of it.
  void each_value(const std::function<void(const Node&)>& look) const;
  const Node& node() const { return *node_; }

 private:
  explicit Condition(std::shared_ptr<const Node> node) : node_(std::move(node)) {}
  explicit Condition(Node node) : node_(std::make_shared<const Node>(std::move(node))) {}
  std::shared_ptr<const Node> node_;
};

}  // namespace kranich::logic
