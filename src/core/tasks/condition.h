// SPDX-License-Identifier: GPL-3.0-or-later
//! When a task of the shop work applies to a design: words about it joined by "and", "or", "not" and
//! brackets, three-valued. A word is unknown while the field or list that it asks is empty.
#pragma once

#include <array>
#include <memory>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/assess/assess.h"

namespace kranich::tasks {

enum class Truth { no, yes, unknown };
Truth both(Truth a, Truth b);
Truth either(Truth a, Truth b);
Truth opposite(Truth a);

//! One question to the builder where words are unknown: asked once, whatever hangs on it.
struct Question {
  std::string_view key;      //!< stable: what Design::without holds when the answer is "there are none"
  std::string_view words;    //!< "How are the legs moved?"
  std::string_view none;     //!< how "no" reads: "By hand or not decided"; empty: there is no such answer
  std::string_view station;  //!< id of the station where it is entered
};

//! A word that a condition may use.
struct Word {
  std::string_view name;      //!< as it is written: "full-size"
  std::string_view meaning;   //!< when it is true, for docs/steps.md
  std::string_view question;  //!< key of the question that is asked where it is unknown; empty: never is
};
const std::vector<Word>& all_words();
const std::vector<Question>& all_questions();
const Question& question(std::string_view key);

//! What every word says of a design: worked out once, asked by every condition.
class Facts {
 public:
  //! Of the assessment only what `takes-set` asks. A question that the design says "there are none" to makes
  //! its unknown words false.
  Facts(const Design& design, const Assessment& assessment);
  Truth of(size_t word) const { return said_[word]; }
  Truth of(std::string_view word) const;

 private:
  std::vector<Truth> said_;
};

//! "full-size and (tubes or not gas)", read once. Binds as usual: not, and, or.
class Condition {
 public:
  //! The condition, or what is wrong with it: "the word "tricyle" is none of: any, full-size, …".
  static std::variant<Condition, std::string> read(std::string_view text);
  Truth of(const Facts& facts) const;
  //! The questions whose answers would decide it where it is unknown, each once.
  std::vector<std::string_view> asks(const Facts& facts) const;

 private:
  enum class Sort { word, no, both, either };
  struct Node {
    Sort sort;
    size_t a = 0, b = 0;  //!< a word's number, or the places of what is joined
  };
  Truth of(const Facts& facts, size_t at) const;
  std::vector<Node> nodes_;  //!< the last one is the whole
  friend class Reader;
};

}  // namespace kranich::tasks
