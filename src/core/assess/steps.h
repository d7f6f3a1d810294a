// SPDX-License-Identifier: GPL-3.0-or-later
//! The steps of an assessment that take time. Each declares what of the design it reads and what it makes of
//! that; where an assessment before had the same inputs, by value, its result is taken over. So a drag works
//! out only what it moves, and the answer is the same as without.
#pragma once

#include <memory>
#include <typeindex>
#include <utility>
#include <vector>

namespace kranich {

//! A step `S` is a type with `From` (a value that can be compared), `Made`, and `static Made make(const
//! From&)`, a pure function of it.
class Steps {
 public:
  Steps() = default;
  //! Takes over from those of an assessment before; null: from none. It must outlive what is asked here.
  explicit Steps(const Steps* before) : before_(before) {}

  //! What the step makes of its inputs: found among what was asked here or before, or made now.
  template <class S>
  const typename S::Made& get(typename S::From from) {
    if (const auto* known = find<S>(from)) return *known;
    if (before_)
      for (const auto& row : before_->rows_)
        if (const auto* known = match<S>(row, from)) {
          rows_.push_back(row);
          return *known;
        }
    auto made = S::make(from);
    auto row = std::make_shared<const Row<S>>(std::move(from), std::move(made));
    rows_.emplace_back(typeid(S), row);
    return row->made;
  }
  //! The same where it has been made; null where it has not.
  template <class S>
  const typename S::Made* find(const typename S::From& from) const {
    for (const auto& row : rows_)
      if (const auto* known = match<S>(row, from)) return known;
    return nullptr;
  }
  //! How many steps have been made or taken over.
  size_t size() const { return rows_.size(); }
  //! How many of them are the very ones of another assessment.
  size_t shared_with(const Steps& other) const {
    size_t n = 0;
    for (const auto& row : rows_)
      for (const auto& theirs : other.rows_) n += row.second == theirs.second;
    return n;
  }
  //! Once all is asked: what came before may go.
  void done() { before_ = nullptr; }

 private:
  template <class S>
  struct Row {
    Row(typename S::From f, typename S::Made m) : from(std::move(f)), made(std::move(m)) {}
    typename S::From from;
    typename S::Made made;
  };
  using Kept = std::pair<std::type_index, std::shared_ptr<const void>>;

  template <class S>
  static const typename S::Made* match(const Kept& row, const typename S::From& from) {
    if (row.first != typeid(S)) return nullptr;
    const auto& kept = *static_cast<const Row<S>*>(row.second.get());
    return kept.from == from ? &kept.made : nullptr;
  }

  const Steps* before_ = nullptr;
  std::vector<Kept> rows_;
};

}  // namespace kranich
