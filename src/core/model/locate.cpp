// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/locate.h"

#include <fmt/format.h>

#include <charconv>
#include <cstddef>
#include <type_traits>

#include "core/base/text.h"

namespace kranich {
namespace {

//! What may be done to a list that a path names.
struct ListChange {
  bool add = false;
  std::optional<size_t> remove;
};

//! Walks one path down the description and stops at what it names. Of a const design nothing is changed.
template <class D>
class Locator {
  static constexpr bool writes = !std::is_const_v<D>;
  template <class T>
  using As = std::conditional_t<writes, T, const T>;

 public:
  explicit Locator(std::string_view path, int new_choice = -1, ListChange change = {})
      : rest_(path), new_choice_(new_choice), change_(change) {
    descend();
  }

  void given(std::string_view key, As<Given>& g, const Spec& spec) {
    if (!is_leaf(key)) return;
    found_given = &g;
    found_spec = spec;
  }
  void text(std::string_view key, As<std::string>& s, std::string_view) {
    if (is_leaf(key)) found_text = &s;
  }
  void flag(std::string_view key, As<bool>& b, std::string_view) {
    if (is_leaf(key)) found_flag = &b;
  }
  template <class E>
  void choice(std::string_view key, E& e, Names names, std::string_view) {
    if (!is_leaf(key)) return;
    if constexpr (writes)
      if (new_choice_ >= 0 && new_choice_ < static_cast<int>(names.size())) {
        e = static_cast<E>(new_choice_);
        changed = true;
      }
    found_choice = LocatedChoice{static_cast<int>(e), {names.begin(), names.end()}};
  }
  template <class T>
  void object(std::string_view key, T& t, std::string_view) {
    if (done_ || head_ != key || rest_.empty()) return;
    descend();
    describe(*this, t);
    done_ = true;
  }
  void project(std::string_view, As<std::string>&, std::string_view) {}
  template <class L>
  void list(std::string_view key, L& items, std::string_view, size_t most) {
    if (done_ || head_ != key) return;
    if (rest_.empty()) {
      done_ = true;
      found_size = items.size();
      if constexpr (writes) {
        if (change_.add && items.size() < most) {
          items.emplace_back();
          changed = true;
        }
        if (change_.remove && *change_.remove < items.size()) {
          items.erase(items.begin() + static_cast<std::ptrdiff_t>(*change_.remove));
          changed = true;
        }
      }
      return;
    }
    descend();
    const size_t index = index_of(items, head_);
    if (index < items.size() && !rest_.empty()) {
      descend();
      describe(*this, items[index]);
    }
    done_ = true;
  }

  As<Given>* found_given = nullptr;
  Spec found_spec;
  std::optional<LocatedChoice> found_choice;
  std::optional<size_t> found_size;
  As<std::string>* found_text = nullptr;
  As<bool>* found_flag = nullptr;
  bool changed = false;

 private:
  //! An entry is named by its place in the list, or by its id where its kind has one.
  template <class T>
  static size_t index_of(const std::vector<T>& items, std::string_view head) {
    size_t index = 0;
    const auto [end, error] = std::from_chars(head.data(), head.data() + head.size(), index);
    if (error == std::errc() && end == head.data() + head.size()) return index;
    if constexpr (requires { items[0].id; })
      for (index = 0; index < items.size(); ++index)
        if (items[index].id == head) return index;
    return items.size();
  }
  bool is_leaf(std::string_view key) const { return !done_ && head_ == key && rest_.empty(); }
  void descend() {
    if (rest_.empty() || rest_.front() != '/') {
      head_ = rest_ = {};
      return;
    }
    rest_.remove_prefix(1);
    const auto slash = rest_.find('/');
    head_ = rest_.substr(0, slash);
    rest_.remove_prefix(slash == std::string_view::npos ? rest_.size() : slash);
  }

  std::string_view head_, rest_;
  int new_choice_;
  ListChange change_;
  bool done_ = false;
};

template <class D>
Locator<D> locate(D& design, std::string_view path, int new_choice = -1, ListChange change = {}) {
  Locator<D> at(path, new_choice, change);
  describe(at, design);
  return at;
}

}  // namespace

std::optional<LocatedGiven> locate_given(Design& design, std::string_view path) {
  const auto at = locate(design, path);
  return at.found_given ? std::optional(LocatedGiven{at.found_given, at.found_spec}) : std::nullopt;
}

std::optional<Given> given_at(const Design& design, std::string_view path) {
  const auto* found = locate(design, path).found_given;
  return found ? std::optional(*found) : std::nullopt;
}
const std::string* text_at(const Design& design, std::string_view path) {
  return locate(design, path).found_text;
}
const bool* flag_at(const Design& design, std::string_view path) { return locate(design, path).found_flag; }

double value_at(const Design& design, std::string_view path) {
  const auto* found = locate(design, path).found_given;
  return found ? found->si : std::numeric_limits<double>::quiet_NaN();
}

std::optional<Spec> spec_at(const Design& design, std::string_view path) {
  const auto at = locate(design, path);
  return at.found_given ? std::optional(at.found_spec) : std::nullopt;
}

std::optional<size_t> list_size_at(const Design& design, std::string_view path) {
  return locate(design, path).found_size;
}
bool add_to_list(Design& design, std::string_view path) {
  return locate(design, path, -1, {true, {}}).changed;
}
bool remove_from_list(Design& design, std::string_view path, size_t index) {
  return locate(design, path, -1, {false, index}).changed;
}

namespace {

//! Walks a whole design in the order of the description and hands each value to `sink`, with its path and the
//! titles of the groups it stands in. Only what lies under `within`, or leads there, is entered.
template <class Sink>
class Walker {
 public:
  Walker(const Design& design, Sink& sink, std::string_view within, std::string path = {},
         std::string title = {})
      : design_(design), sink_(sink), within_(within), path_(std::move(path)), title_(std::move(title)) {}
  void given(std::string_view key, const Given& g, const Spec& spec) { put(key, spec.title, g, spec); }
  void text(std::string_view key, const std::string& s, std::string_view title) { put(key, title, s); }
  void flag(std::string_view key, const bool& b, std::string_view title) { put(key, title, b); }
  template <class E>
  void choice(std::string_view key, E& e, Names names, std::string_view title) {
    put(key, title, names[static_cast<size_t>(e)]);
  }
  template <class T>
  void object(std::string_view key, T& t, std::string_view title) {
    const std::string path = path_ + "/" + std::string(key);
    if (!on_the_way(path)) return;
    // "Gear" adds nothing to "Main leg, starboard".
    Walker inner(design_, sink_, within_, path, key == "gear" ? title_ : title_ + std::string(title) + ", ");
    describe(inner, t);
  }
  template <class T>
  void list(std::string_view key, const std::vector<T>& items, std::string_view, size_t) {
    for (size_t i = 0; i < items.size(); ++i) {
      const std::string path = fmt::format("{}/{}/{}", path_, key, address_of(items[i], i));
      if (!on_the_way(path)) continue;
      Walker inner(design_, sink_, within_, path, name_of(items[i], i) + ", ");
      describe(inner, items[i]);
    }
  }
  void project(std::string_view, const std::string&, std::string_view) {}

 private:
  template <class... Value>
  void put(std::string_view key, std::string_view title, const Value&... value) {
    std::string path = path_ + "/" + std::string(key);
    if (on_the_way(path)) sink_(std::move(path), title_, title, value...);
  }
  //! Whether one of the two paths lies under the other.
  bool on_the_way(std::string_view path) const {
    const auto& [shorter, longer] =
        path.size() < within_.size() ? std::pair(path, within_) : std::pair(within_, path);
    return longer.substr(0, shorter.size()) == shorter;
  }
  template <class T>
  static std::string address_of(const T& t, size_t i) {
    if constexpr (requires { t.id; })
      if (!t.id.empty()) return t.id;
    return std::to_string(i);
  }
  template <class T>
  std::string name_of(const T& t, size_t i) const {
    if constexpr (std::is_same_v<T, Leg>) {
      return capitalised(in_words(design_.leg_word(t)));
    } else if constexpr (requires { t.name; }) {
      return t.name;
    } else {
      return std::to_string(i + 1);
    }
  }
  const Design& design_;
  Sink& sink_;
  std::string_view within_;
  std::string path_, title_;
};

struct Quantities {
  std::vector<NamedGiven> found;
  void operator()(std::string path, const std::string& before, std::string_view, const Given& g,
                  const Spec& spec) {
    found.push_back({std::move(path), before, g, spec});
  }
  template <class Other>
  void operator()(std::string, const std::string&, std::string_view, const Other&) {}
};

struct Values {
  std::vector<NamedValue> found;
  void operator()(std::string path, const std::string& before, std::string_view title, const Given& g,
                  const Spec& spec) {
    put(std::move(path), before, title, g.known() ? shortest(g.si) : "", spec.kind);
  }
  void operator()(std::string path, const std::string& before, std::string_view title,
                  const std::string& text) {
    put(std::move(path), before, title, text, {});
  }
  void operator()(std::string path, const std::string& before, std::string_view title, const bool& flag) {
    put(std::move(path), before, title, flag ? "yes" : "no", {});
  }
  void operator()(std::string path, const std::string& before, std::string_view title,
                  const std::string_view& word) {
    put(std::move(path), before, title, std::string(word), {});
  }
  void put(std::string path, const std::string& before, std::string_view title, std::string written,
           std::optional<Kind> kind) {
    found.push_back({std::move(path), before + std::string(title), std::move(written), kind});
  }
};

}  // namespace

std::vector<NamedGiven> all_given(const Design& design) {
  Quantities sink;
  Walker walker(design, sink, "");
  describe(walker, design);
  return std::move(sink.found);
}

std::vector<NamedValue> all_values(const Design& design, std::string_view within) {
  Values sink;
  Walker walker(design, sink, within);
  describe(walker, design);
  return std::move(sink.found);
}

std::string* locate_text(Design& design, std::string_view path) { return locate(design, path).found_text; }
bool* locate_flag(Design& design, std::string_view path) { return locate(design, path).found_flag; }

std::optional<LocatedChoice> choice_at(const Design& design, std::string_view path) {
  return locate(design, path).found_choice;
}

bool set_choice(Design& design, std::string_view path, int index) {
  return index >= 0 && locate(design, path, index).changed;
}

std::optional<std::string> refusal(double si, const Spec& spec, UnitSystem system) {
  const auto say = [&](double v) { return format_quantity(v, spec.kind, system); };
  if (!std::isfinite(si)) return "must be a number";
  if (spec.too_low(si))
    return fmt::format("must be {} {}, is {}", spec.above_least ? "above" : "at least", say(spec.least),
                       say(si));
  if (spec.too_high(si)) return fmt::format("must be at most {}, is {}", say(spec.most), say(si));
  return std::nullopt;
}

}  // namespace kranich
