// SPDX-License-Identifier: GPL-3.0-or-later
//! One worked case of a reference file and what the core answers to it.
#pragma once

#include <functional>
#include <map>
#include <nlohmann/json.hpp>
#include <optional>
#include <stdexcept>
#include <string>
#include <vector>

#include "core/base/geometry.h"
#include "core/force/leg_law.h"

namespace kranich::oracle {

using Json = nlohmann::json;

//! Reads the given values of a case; a missing one is an error that names it.
class Given {
 public:
  explicit Given(const Json& j) : j_(j) {}
  double operator[](const std::string& key) const { return at(key).get<double>(); }
  double deg(const std::string& key) const { return at(key).get<double>() * 3.14159265358979323846 / 180; }
  bool has(const std::string& key) const { return j_.contains(key); }
  //! The first of several names under which a case may give a number, or nothing.
  std::optional<double> any(std::initializer_list<std::string> keys) const {
    for (const auto& key : keys)
      if (has(key)) return at(key).get<double>();
    return std::nullopt;
  }
  //! The same, and an error that names them where none is given.
  double one(std::initializer_list<std::string> keys) const {
    if (const auto found = any(keys)) return *found;
    std::string names;
    for (const auto& key : keys) names += (names.empty() ? "" : ", ") + key;
    throw std::runtime_error("the case gives none of " + names);
  }
  //! The first of several stems that begins the name of anything given; empty where none does.
  std::string stem(std::initializer_list<std::string> stems) const {
    for (const auto& stem : stems)
      for (const auto& [key, value] : j_.items())
        if (key.starts_with(stem + "_")) return stem;
    return "";
  }
  //! What stands before an ending in the names of all that is given.
  std::vector<std::string> before(const std::string& ending) const {
    std::vector<std::string> found;
    for (const auto& [key, value] : j_.items())
      if (key.ends_with(ending)) found.push_back(key.substr(0, key.size() - ending.size()));
    return found;
  }
  std::string text(const std::string& key) const { return at(key).get<std::string>(); }
  std::vector<double> list(const std::string& key) const { return at(key).get<std::vector<double>>(); }
  Vec3 vec(const std::string& key) const {
    const auto v = list(key);
    if (v.size() != 3) throw std::runtime_error(key + " is no vector");
    return {v[0], v[1], v[2]};
  }
  const Json& at(const std::string& key) const {
    if (!j_.contains(key)) throw std::runtime_error("the case gives no " + key);
    return j_[key];
  }

 private:
  const Json& j_;
};

//! The core's answers by the names of the case's expectations.
using Answers = std::map<std::string, Json>;
using Driver = std::function<Answers(const Given&)>;

inline Json to_json(const Vec3& v) { return Json::array({v.x(), v.y(), v.z()}); }
//! A number as it stands in the names of answers: without zeros at its end.
inline std::string in_a_name(double v) {
  std::string number = std::to_string(v);
  number.erase(number.find_last_not_of('0') + 1);
  if (number.back() == '.') number.pop_back();
  return number;
}
inline double to_deg(double rad) { return rad * 180 / 3.14159265358979323846; }

//! A gas leg, however the case names its parts; charged absolute or gauge.
force::LegLaw gas_law(const Given& g, double travel);

//! Kinds by name, a file for each reference file.
void add_place_kinds(std::map<std::string, Driver>& drivers);
void add_spring_kinds(std::map<std::string, Driver>& drivers);
//! Gear of any number of legs.
void add_many_kinds(std::map<std::string, Driver>& drivers);
void add_leg_kinds(std::map<std::string, Driver>& drivers);
void add_retract_kinds(std::map<std::string, Driver>& drivers);
void add_swing_kinds(std::map<std::string, Driver>& drivers);
void add_drive_kinds(std::map<std::string, Driver>& drivers);
//! Doors, circuits, logic, steering.
void add_door_kinds(std::map<std::string, Driver>& drivers);
void add_circuit_kinds(std::map<std::string, Driver>& drivers);

}  // namespace kranich::oracle
