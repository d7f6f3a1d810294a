// SPDX-License-Identifier: GPL-3.0-or-later
//! What the core says, as a value: a sentence with the numbers, names and further sentences that stand in it.
//! It is put into words at the edge, in the language and the units that are set there; until then nothing in
//! it is rounded, glued or cut.
#pragma once

#include <map>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/base/quantity.h"

namespace kranich {

//! A quantity (SI), shown in the reader's units.
struct Amount {
  double si;
  Kind kind;
};
//! A plain number to so many decimals: "N 2.31", "loop 3".
struct Figure {
  double value;
  int decimals = 0;
};

//! A number of things, or which of them.
constexpr Figure counted(size_t n) { return {static_cast<double>(n), 0}; }

struct Tongue;

class Text {
 public:
  Text() = default;
  //! A sentence of Kranich's own: what the catalogue knows it by.
  Text(const char* words) : words_(words) {}
  //! A word of the user's: a name, a note. Shown as it is, never looked up.
  Text(std::string own) : words_(std::move(own)), sort_(Sort::own) {}
  Text(const Amount& amount) : sort_(Sort::amount), number_(amount.si), kind_(amount.kind) {}
  Text(const Figure& f) : sort_(Sort::figure), number_(f.value), decimals_(f.decimals) {}

  bool empty() const { return words_.empty() && sort_ != Sort::amount && sort_ != Sort::figure; }
  bool operator==(const Text& other) const;

  //! Says more behind it; alone where nothing has been said.
  Text& also(Text more);

 private:
  enum class Sort { sentence, own, amount, figure };
  std::string words_;
  std::vector<Text> parts_;  //!< what stands for each {} of the words
  std::string path_;         //!< of the number in the design that the words name, if they do
  Sort sort_ = Sort::sentence;
  double number_ = 0;
  Kind kind_ = Kind::factor;
  int decimals_ = 0;

  //! Nothing to be put in.
  bool is_plain() const { return parts_.empty() && (sort_ == Sort::sentence || sort_ == Sort::own); }

  friend std::string in_words(const Text& text, const Tongue& tongue);
  friend Text sentence(const char* words, std::vector<Text> parts);
  friend Text entry(std::string path, Text name);
  friend class Speaker;
};

Text sentence(const char* words, std::vector<Text> parts);

//! A sentence of Kranich's own out of one of its tables: a title, a word of a choice. Asks for a literal,
//! whose view ends where its text does.
inline Text ours(std::string_view literal) { return Text(literal.data()); }

//! A sentence with as many {} as there are things to stand in them; the count is checked where it is
//! compiled.
template <size_t count>
struct Words {
  const char* text;
  consteval Words(const char* s) : text(s) {
    size_t marks = 0;
    for (const char* c = s; *c; ++c) marks += c[0] == '{' && c[1] == '}' ? 1u : 0u;
    if (marks != count) throw "as many {} as there are things to stand in them";
  }
};
template <class... Part>
Text say(Words<sizeof...(Part)> words, Part&&... parts) {
  return sentence(words.text, {Text(std::forward<Part>(parts))...});
}

//! The name of a number of the design, by which an interface leads to its entry ("/airframe/wing/span_m").
Text entry(std::string path, Text name);

//! "a", "a and b", "a, b and c"; empty of nothing.
Text enumerated(std::vector<Text> things);

//! Sentences in another language, by the English ones they stand for, with the same {} (or {2}, {1} … where
//! their order is another). What it does not hold stays English.
using Catalogue = std::map<std::string, std::string, std::less<>>;

//! How a reader is spoken to.
struct Tongue {
  UnitSystem units = UnitSystem::metric;
  const Catalogue* catalogue = nullptr;
  char decimal = '.';  //!< mark before the decimals of a number
};

//! A number or quantity as it was formatted, its point written as another mark.
std::string with_decimal(std::string number, char mark);

//! In words.
std::string in_words(const Text& text, const Tongue& tongue = {});
//! A sentence without parts: a title, a meaning.
std::string in_words(std::string_view sentence, const Tongue& tongue);

//! A piece of a text in words; with a path where it names a number of the design.
struct SaidPiece {
  std::string words, path;
};
std::vector<SaidPiece> in_pieces(const Text& text, const Tongue& tongue = {});
//! The numbers of the design that a text names.
std::vector<std::string> paths_in(const Text& text);

}  // namespace kranich
