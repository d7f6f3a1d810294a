// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/say.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>

namespace kranich {

bool Text::operator==(const Text& o) const {
  const bool same_number = number_ == o.number_ || (std::isnan(number_) && std::isnan(o.number_));
  return sort_ == o.sort_ && words_ == o.words_ && path_ == o.path_ && same_number && kind_ == o.kind_ &&
         decimals_ == o.decimals_ && parts_ == o.parts_;
}

Text& Text::also(Text more) {
  if (more.empty()) return *this;
  if (empty())
    *this = std::move(more);
  else
    *this = say("{}; {}", std::move(*this), std::move(more));
  return *this;
}

Text sentence(const char* words, std::vector<Text> parts) {
  Text text(words);
  text.parts_ = std::move(parts);
  return text;
}

Text entry(std::string path, Text name) {
  name.path_ = std::move(path);
  return name;
}

Text enumerated(std::vector<Text> things) {
  if (things.empty()) return {};
  Text all = std::move(things.front());
  for (size_t i = 1; i < things.size(); ++i)
    all = i + 1 == things.size() ? say("{} and {}", std::move(all), std::move(things[i]))
                                 : say("{}, {}", std::move(all), std::move(things[i]));
  return all;
}

//! Walks a text and says it piece by piece.
class Speaker {
 public:
  explicit Speaker(const Tongue& tongue) : tongue_(tongue) {}

  void speak(const Text& text, const std::string& within = {}) {
    const std::string& path = text.path_.empty() ? within : text.path_;
    switch (text.sort_) {
      case Text::Sort::own:
        return put(text.words_, path);
      case Text::Sort::amount:
        return put(with_decimal(format_quantity(text.number_, text.kind_, tongue_.units), tongue_.decimal),
                   path);
      case Text::Sort::figure:
        return put(with_decimal(fmt::format("{:.{}f}", text.number_, text.decimals_), tongue_.decimal), path);
      case Text::Sort::sentence:
        break;
    }
    const std::string_view words = looked_up(text.words_);
    if (text.parts_.empty()) return put(words, path);  // a {} in it is then just that
    size_t next = 0;
    for (size_t at = 0; at < words.size();) {
      const size_t open = words.find('{', at);
      const size_t close = open == std::string_view::npos ? open : words.find('}', open);
      if (close == std::string_view::npos) return put(words.substr(at), path);
      put(words.substr(at, open - at), path);
      size_t which = next++;
      if (close > open + 1) which = static_cast<size_t>(words[open + 1] - '1');
      if (which < text.parts_.size()) speak(text.parts_[which], path);
      at = close + 1;
    }
  }

  std::string_view looked_up(std::string_view words) const {
    if (!tongue_.catalogue) return words;
    const auto found = tongue_.catalogue->find(words);
    return found == tongue_.catalogue->end() ? words : std::string_view(found->second);
  }

  static void paths(const Text& text, std::vector<std::string>& found) {
    if (!text.path_.empty() && std::find(found.begin(), found.end(), text.path_) == found.end())
      found.push_back(text.path_);
    for (const auto& p : text.parts_) paths(p, found);
  }

  std::vector<SaidPiece> pieces;

 private:
  void put(std::string_view words, const std::string& path) {
    if (words.empty()) return;
    if (!pieces.empty() && pieces.back().path == path)
      pieces.back().words += words;
    else
      pieces.push_back({std::string(words), path});
  }

  const Tongue& tongue_;
};

std::string with_decimal(std::string number, char mark) {
  if (mark == '.') return number;
  const auto digit = [&](size_t i) { return std::isdigit(static_cast<unsigned char>(number[i])) != 0; };
  for (size_t i = 1; i + 1 < number.size(); ++i)
    if (number[i] == '.' && digit(i - 1) && digit(i + 1)) number[i] = mark;
  return number;
}

std::vector<SaidPiece> in_pieces(const Text& text, const Tongue& tongue) {
  Speaker speaker(tongue);
  speaker.speak(text);
  return std::move(speaker.pieces);
}

std::string in_words(const Text& text, const Tongue& tongue) {
  if (text.is_plain() && (!tongue.catalogue || text.sort_ == Text::Sort::own)) return text.words_;
  std::string all;
  for (auto& piece : in_pieces(text, tongue)) all += piece.words;
  return all;
}

std::string in_words(std::string_view sentence, const Tongue& tongue) {
  return std::string(Speaker(tongue).looked_up(sentence));
}

std::vector<std::string> paths_in(const Text& text) {
  std::vector<std::string> found;
  Speaker::paths(text, found);
  return found;
}

}  // namespace kranich
