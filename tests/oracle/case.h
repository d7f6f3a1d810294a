// SPDX-License-Identifier: GPL-3.0-or-later
//! One worked case of a reference file and what the core answers to it.
#pragma once

#include <functional>
#include <map>
#include <nlohmann/json.hpp>
#include <stdexcept>
#include <string>
#include <vector>

#include "core/base/geometry.h"

namespace kranich::oracle {

using Json = nlohmann::json;

//! Reads the given values of a case; a missing one is an error that names it.
class Given {
 public:
  explicit Given(const Json& j) : j_(j) {}
  double operator[](const char* key) const { return at(key).get<double>(); }
  double deg(const char* key) const { return at(key).get<double>() * 3.14159265358979323846 / 180; }
  bool has(const char* key) const { return j_.contains(key); }
  std::string text(const char* key) const { return at(key).get<std::string>(); }
  std::vector<double> list(const char* key) const { return at(key).get<std::vector<double>>(); }
  Vec3 vec(const char* key) const {
    const auto v = list(key);
    if (v.size() != 3) throw std::runtime_error(std::string(key) + " is no vector");
    return {v[0], v[1], v[2]};
  }
  const Json& at(const char* key) const {
    if (!j_.contains(key)) throw std::runtime_error(std::string("the case gives no ") + key);
    return j_[key];
  }

 private:
  const Json& j_;
};

//! The core's answers by the names of the case's expectations.
using Answers = std::map<std::string, Json>;
using Driver = std::function<Answers(const Given&)>;

inline Json to_json(const Vec3& v) { return Json::array({v.x(), v.y(), v.z()}); }
inline double to_deg(double rad) { return rad * 180 / 3.14159265358979323846; }

//! Kinds by name, a file for each reference file.
void add_place_kinds(std::map<std::string, Driver>& drivers);
void add_spring_kinds(std::map<std::string, Driver>& drivers);
//! Gear of any number of legs.
void add_many_kinds(std::map<std::string, Driver>& drivers);
void add_leg_kinds(std::map<std::string, Driver>& drivers);
void add_retract_kinds(std::map<std::string, Driver>& drivers);

}  // namespace kranich::oracle
