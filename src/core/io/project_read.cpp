// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <nlohmann/json.hpp>
#include <set>

#include "core/assess/settle.h"
#include "core/base/measure.h"
#include "core/io/project_file.h"
#include "core/io/project_upgrade.h"
#include "core/model/describe.h"
#include "core/model/locate.h"

namespace kranich {
namespace {

using Json = nlohmann::ordered_json;

std::string shown(const Json& j) {
  std::string s = j.dump(-1, ' ', false, Json::error_handler_t::replace);
  if (s.size() > 40) s = s.substr(0, 37) + "...";
  return s;
}

std::string join_names(Names names) {
  std::string s;
  for (const auto n : names) s += (s.empty() ? "\"" : ", \"") + std::string(n) + "\"";
  return s;
}

bool ends_with(std::string_view s, std::string_view tail) {
  return s.size() >= tail.size() && s.substr(s.size() - tail.size()) == tail;
}

//! Letters to be put in, left out or changed to make one word of another.
size_t letters_apart(std::string_view a, std::string_view b) {
  std::vector<size_t> row(b.size() + 1);
  for (size_t j = 0; j <= b.size(); ++j) row[j] = j;
  for (size_t i = 1; i <= a.size(); ++i) {
    size_t corner = row[0];
    row[0] = i;
    for (size_t j = 1; j <= b.size(); ++j) {
      const size_t change = corner + (a[i - 1] == b[j - 1] ? 0 : 1);
      corner = row[j];
      row[j] = std::min({change, row[j] + 1, row[j - 1] + 1});
    }
  }
  return row[b.size()];
}

//! Fills one described structure from one JSON object.
class Reader {
 public:
  Reader(const Json& object, std::string path, std::vector<Fault>& faults, std::vector<Fault>& strange)
      : object_(object), path_(std::move(path)), faults_(faults), strange_(strange) {}

  void given(std::string_view key, Given& g, const Spec& spec) {
    const Json* j = find(key);
    if (!j) return;
    if (j->is_null()) {  // said to be unknown, though it may have a default
      g = Given();
      return;
    }
    const double factor = spec.kind == Kind::angle && ends_with(key, "_deg") ? radians(1) : 1;
    Given result;
    result.origin = Origin::plan;
    const Json* number = j;
    if (j->is_object()) {
      number = j->contains("value") ? &(*j)["value"] : nullptr;
      for (const auto& [name, value] : j->items()) {
        if (name == "tolerance") {
          if (!value.is_number() || !(value.get<double>() >= 0) ||
              !(value.get<double>() <= spec.largest_tolerance() / factor))
            return fault(key,
                         fmt::format("tolerance must be a number from 0 to {}, is {}",
                                     shortest(rounded(spec.largest_tolerance() / factor)), shown(value)));
          result.tolerance = value.get<double>() * factor;
        } else if (name == "origin") {
          const auto word = value.is_string() ? value.get<std::string>() : std::string();
          const auto at = std::find(origin_names.begin() + 1, origin_names.end(), word);
          if (at == origin_names.end())
            return fault(key, "origin must be one of " + join_names(Names(origin_names).subspan(1)) +
                                  ", is " + shown(value));
          result.origin = static_cast<Origin>(at - origin_names.begin());
        } else if (name != "value") {
          return fault(key, "may hold value, tolerance and origin, not " + name);
        }
      }
    }
    if (!number || !number->is_number())
      return fault(key, fmt::format("must be a number ({}), is {}", kind_name(spec.kind),
                                    shown(number ? *number : *j)));
    const double value = number->get<double>();
    result.si = value * factor;
    if (!std::isfinite(value) || spec.too_low(result.si))
      return fault(key, fmt::format("must be {} {}, is {}", spec.above_least ? "above" : "at least",
                                    shortest(rounded(spec.least / factor)), shortest(value)));
    if (spec.too_high(result.si))
      return fault(key, fmt::format("must be at most {}, is {}", shortest(rounded(spec.most / factor)),
                                    shortest(value)));
    g = result;
  }

  void text(std::string_view key, std::string& s, std::string_view) {
    const Json* j = find(key);
    if (!j) return;
    if (!j->is_string()) return fault(key, "must be a text, is " + shown(*j));
    if (j->get_ref<const std::string&>().size() > longest_text)
      return fault(key, "is longer than 20,000 characters");
    s = j->get<std::string>();
  }

  void flag(std::string_view key, bool& b, std::string_view) {
    const Json* j = find(key);
    if (!j) return;
    if (!j->is_boolean()) return fault(key, "must be true or false, is " + shown(*j));
    b = j->get<bool>();
  }

  template <class E>
  void choice(std::string_view key, E& e, Names names, std::string_view) {
    const Json* j = find(key);
    if (!j) return;
    if (j->is_string())
      for (size_t i = 0; i < names.size(); ++i)
        if (j->get_ref<const std::string&>() == names[i]) {
          e = static_cast<E>(i);
          return;
        }
    fault(key, "must be one of " + join_names(names) + ", is " + shown(*j));
  }

  template <class T>
  void object(std::string_view key, T& t, std::string_view) {
    const Json* j = find(key);
    if (!j) return;
    if (!j->is_object()) return fault(key, "must be an object, is " + shown(*j));
    read_into(*j, child(key), t);
  }

  template <class T>
  void list(std::string_view key, std::vector<T>& items, std::string_view, size_t most) {
    const Json* j = find(key);
    if (!j) return;
    if (!j->is_array()) return fault(key, "must be a list, is " + shown(*j));
    if (j->size() > most) return fault(key, fmt::format("may hold {} entries, has {}", most, j->size()));
    items.clear();
    for (size_t i = 0; i < j->size(); ++i) {
      const auto path = fmt::format("{}/{}", child(key), i);
      items.emplace_back();
      if ((*j)[i].is_object())
        read_into((*j)[i], path, items.back());
      else
        faults_.push_back({path, "must be an object, is " + shown((*j)[i])});
    }
  }

  //! A project within the project: read on its own, its faults told by their place here.
  void project(std::string_view key, std::string& text, std::string_view) {
    const Json* j = find(key);
    if (!j) return;
    if (!j->is_object()) return fault(key, "must be a project, is " + shown(*j));
    if (j->contains("variants")) return fault(key, "a variant holds no variants of its own");
    const auto inner = read_project(j->dump());
    for (const auto& f : inner.faults) faults_.push_back({child(key) + f.where, f.what});
    if (inner.design) text = write_project(*inner.design);
  }

  template <class T>
  void read_into(const Json& j, const std::string& path, T& t) {
    Reader inner(j, path, faults_, strange_);
    describe(inner, t);
    inner.keep_unknown(t);
  }

  void keep_unknown(Kept& kept) const {
    for (const auto& [key, value] : object_.items())
      if (!known_.count(key) && !(path_.empty() && key == "kranich")) {
        kept.unknown_keys.emplace_back(key, value.dump());
        strange_.push_back({child(key), "is no key of this place; " + nearest_to(key) + " comes nearest"});
      }
  }

 private:
  //! Undoes the radian's rounding in a limit shown in degrees.
  static double rounded(double v) { return std::round(v * 1e9) / 1e9; }
  std::string child(std::string_view key) const { return fmt::format("{}/{}", path_, key); }
  const Json* find(std::string_view key) {
    known_.emplace(key);
    const auto it = object_.find(std::string(key));
    return it == object_.end() ? nullptr : &*it;
  }
  void fault(std::string_view key, std::string what) { faults_.push_back({child(key), std::move(what)}); }

  //! The known key that the fewest letters set apart.
  std::string nearest_to(std::string_view key) const {
    std::string_view nearest;
    size_t least = std::numeric_limits<size_t>::max();
    for (const auto& known : known_)
      if (const size_t apart = letters_apart(key.substr(0, 60), known); apart < least) {
        least = apart;
        nearest = known;
      }
    return fmt::format("\"{}\"", nearest);
  }

  const Json& object_;
  std::string path_;
  std::vector<Fault>& faults_;
  std::vector<Fault>& strange_;
  std::set<std::string, std::less<>> known_;
};

constexpr int deepest = 64;
static_assert(longest_text == 20000);  // as the fault says

//! Whether brackets are nested deeper than allowed: told before the parser builds what nothing can walk
//! again.
bool too_deep(std::string_view text) {
  int depth = 0;
  bool quoted = false;
  for (size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (quoted) {
      if (c == '\\')
        ++i;
      else if (c == '"')
        quoted = false;
    } else if (c == '"') {
      quoted = true;
    } else if (c == '{' || c == '[') {
      if (++depth > deepest) return true;
    } else if (c == '}' || c == ']') {
      --depth;
    }
  }
  return false;
}

//! What the JSON library lets pass and we do not: a key twice in one object.
class Strictness {
 public:
  bool operator()(int, Json::parse_event_t event, Json& parsed) {
    using Event = Json::parse_event_t;
    if (event == Event::object_start) keys_.emplace_back();
    if (event == Event::object_end && !keys_.empty()) keys_.pop_back();
    if (event == Event::key && !keys_.empty()) {
      const auto key = parsed.get<std::string>();
      if (!keys_.back().insert(key).second && fault_.empty())
        fault_ = fmt::format("the key \"{}\" stands twice", key);
    }
    return true;
  }
  const std::string& fault() const { return fault_; }

 private:
  std::vector<std::set<std::string>> keys_;
  std::string fault_;
};

}  // namespace

ReadResult read_project(std::string_view text) {
  ReadResult result;
  if (text.size() > largest_file) {
    result.faults.push_back(
        {"file", fmt::format("is {} bytes long; {} are allowed", text.size(), largest_file)});
    return result;
  }
  if (too_deep(text)) {
    result.faults.push_back({"file", fmt::format("objects are nested more than {} deep", deepest)});
    return result;
  }
  Json root;
  Strictness strictness;
  try {
    root = Json::parse(text, std::ref(strictness));
  } catch (const Json::exception& e) {
    // "[json.exception.parse_error.101] parse error at line 3, column 7: syntax error ..."
    std::string what = e.what();
    std::string where = "file";
    if (const auto at = what.find("line "); at != std::string::npos) {
      const auto colon = what.find(':', at);
      where = what.substr(at, colon - at);
      what = what.substr(std::min(what.size(), colon + 2));
    } else if (const auto bracket = what.find("] "); bracket != std::string::npos) {
      what = what.substr(bracket + 2);
    }
    if (text.find_first_not_of(" \t\r\n") == std::string_view::npos) what = "the file is empty";
    std::string clean;  // a damaged byte quoted by the parser must not damage the message
    for (const char c : what) clean += static_cast<unsigned char>(c) < 0x80 && c >= ' ' ? c : '?';
    result.faults.push_back({where, "not readable as JSON: " + clean});
    return result;
  }
  if (!strictness.fault().empty()) {
    result.faults.push_back({"file", strictness.fault()});
    return result;
  }
  if (!root.is_object() || root.empty() || root.begin().key() != "kranich") {
    result.faults.push_back(
        {"/kranich", "a Kranich project starts with the key \"kranich\" and its version"});
    return result;
  }
  const Json& version = root["kranich"];
  if (!version.is_number_integer() || version.get<double>() < 1 || version.get<double>() > 1e6) {
    result.faults.push_back({"/kranich", fmt::format("must be the file's version, 1 to {}, is {}",
                                                     file_version, shown(version))});
    return result;
  }
  const int written_as = version.get<int>();
  result.newer = written_as > file_version;
  result.older = written_as < file_version;
  const Upgrade upgrade = upgrade_project(root, written_as, result.faults);
  Design design;
  Reader top(root, "", result.faults, result.strange);
  describe(top, design);
  top.keep_unknown(design);
  const auto relations = relation_faults(design);
  result.faults.insert(result.faults.end(), relations.begin(), relations.end());
  for (size_t i = 0; i < design.own_limits.size(); ++i)
    if (!find_measure(design.own_limits[i].measure))
      result.strange.push_back(
          {fmt::format("/own_limits/{}/measure", i),
           fmt::format("\"{}\" is no measure: the limit is never used", design.own_limits[i].measure)});
  for (auto* list : {&result.faults, &result.strange})
    for (auto& f : *list) f.where = upgrade.as_written(f.where);
  if (result.faults.empty()) {
    settle(design);
    result.design = std::move(design);
  }
  return result;
}

}  // namespace kranich
