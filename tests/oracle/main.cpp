// SPDX-License-Identifier: GPL-3.0-or-later
//! reference_cases: drives the core with every case of every *.json in KRANICH_REFERENCE_DIR (default: the
//! tree's tests/reference) and compares. Exits 1 if a case fails. Closing line: "N passed, N failed, N
//! skipped".
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iostream>

#include "case.h"

namespace {

using kranich::oracle::Json;

bool near(double want, double got, const Json& e) {
  if (!std::isfinite(got)) return false;
  if (e.contains("tol_abs")) return std::abs(got - want) <= e["tol_abs"].get<double>() + 1e-15;
  return std::abs(got - want) <= e.value("tol_rel", 1e-9) * std::abs(want) + 1e-15;
}

bool agrees(const Json& want, const Json& got, const Json& e) {
  if (want.is_boolean() || got.is_boolean()) {
    const auto truth = [](const Json& j) { return j.is_boolean() ? j.get<bool>() : j.get<double>() != 0; };
    return truth(want) == truth(got);
  }
  if (want.is_number() && got.is_number()) return near(want.get<double>(), got.get<double>(), e);
  if (want.is_array() && got.is_array()) {
    if (want.size() != got.size()) return false;
    for (size_t i = 0; i < want.size(); ++i)
      if (!agrees(want[i], got[i], e)) return false;
    return true;
  }
  return want == got;
}

//! The driver of a kind, or of the wider kind whose name begins its: wire_leg_one_loop is a wire_leg.
const kranich::oracle::Driver* driver_of(const std::map<std::string, kranich::oracle::Driver>& drivers,
                                         std::string kind) {
  for (;;) {
    if (const auto found = drivers.find(kind); found != drivers.end()) return &found->second;
    const auto cut = kind.rfind('_');
    if (cut == std::string::npos) return nullptr;
    kind.resize(cut);
  }
}

}  // namespace

int main() {
  namespace fs = std::filesystem;
  const char* chosen = std::getenv("KRANICH_REFERENCE_DIR");
  const fs::path directory = chosen && *chosen ? chosen : KRANICH_TREE_REFERENCE_DIR;
  std::map<std::string, kranich::oracle::Driver> drivers;
  kranich::oracle::add_place_kinds(drivers);
  kranich::oracle::add_spring_kinds(drivers);
  kranich::oracle::add_leg_kinds(drivers);
  kranich::oracle::add_many_kinds(drivers);
  kranich::oracle::add_retract_kinds(drivers);
  add_swing_kinds(drivers);
  add_drive_kinds(drivers);
  add_door_kinds(drivers);
  add_circuit_kinds(drivers);

  std::vector<fs::path> files;
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(directory, error))
    if (entry.path().extension() == ".json") files.push_back(entry.path());
  std::sort(files.begin(), files.end());
  if (files.empty()) {
    std::cout << "no reference files in " << directory << "\n0 passed, 1 failed, 0 skipped\n";
    return 1;
  }
  int passed = 0;
  int failed = 0;
  int skipped = 0;
  std::map<std::string, int> uncovered;
  for (const auto& file : files) {
    const Json root = Json::parse(std::ifstream(file));
    for (const auto& c : root.at("cases")) {
      const auto kind = c.at("kind").get<std::string>();
      const auto id = c.at("id").get<std::string>();
      const auto* driver = driver_of(drivers, kind);
      if (!driver) {
        ++uncovered[kind];
        ++skipped;
        continue;
      }
      std::string misses;
      try {
        const auto answers = (*driver)(kranich::oracle::Given(c.at("given")));
        for (const auto& [name, e] : c.at("expect").items()) {
          const auto answer = answers.find(name);
          if (answer == answers.end())
            misses += fmt::format("\n    {}: wanted {}, got nothing", name, e.at("value").dump());
          else if (!agrees(e.at("value"), answer->second, e))
            misses += fmt::format("\n    {}: wanted {} ({}), got {}", name, e.at("value").dump(),
                                  e.contains("tol_abs") ? "± " + e["tol_abs"].dump()
                                                        : "rel " + e.value("tol_rel", Json(1e-9)).dump(),
                                  answer->second.dump());
        }
      } catch (const std::exception& problem) {
        misses += fmt::format("\n    {}", problem.what());
      }
      if (misses.empty()) {
        ++passed;
      } else {
        ++failed;
        std::cout << "FAILED " << file.filename().string() << ' ' << id << ' ' << kind << misses
                  << "\n    given " << c.at("given").dump() << '\n';
      }
    }
  }
  if (!uncovered.empty()) {
    std::cout << "kinds not yet covered:";
    for (const auto& [kind, count] : uncovered) std::cout << ' ' << kind << " (" << count << ")";
    std::cout << '\n';
  }
  std::cout << passed << " passed, " << failed << " failed, " << skipped << " skipped\n";
  return failed == 0 ? 0 : 1;
}
