// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/project_upgrade.h"

#include <algorithm>
#include <cctype>
#include <map>
#include <set>

namespace kranich {
namespace {

using Json = nlohmann::ordered_json;

//! Members of an object, null where there are none of that name and type.
Json* object_at(Json& j, const char* key) {
  return j.is_object() && j.contains(key) && j[key].is_object() ? &j[key] : nullptr;
}
Json* list_at(Json& j, const char* key) {
  return j.is_object() && j.contains(key) && j[key].is_array() ? &j[key] : nullptr;
}
std::string text_at(const Json& j, const char* key) {
  return j.is_object() && j.contains(key) && j[key].is_string() ? j[key].get<std::string>() : std::string();
}

//! A flag that a step needs; anything else than a flag is a fault.
bool flag_at(const Json& j, const char* key, const std::string& path, std::vector<Fault>& faults) {
  if (!j.contains(key)) return false;
  if (j[key].is_boolean()) return j[key].get<bool>();
  faults.push_back({path + "/" + key, "must be true or false"});
  return false;
}

//! "outer doors" as an id: small letters, figures and hyphens, no figure first, not taken yet.
std::string id_from(const std::string& name, const std::string& otherwise, std::set<std::string>& taken) {
  std::string base;
  for (const char c : name) {
    const auto u = static_cast<unsigned char>(c);
    if (u < 0x80 && std::isalnum(u))
      base += static_cast<char>(std::tolower(u));
    else if (!base.empty() && base.back() != '-')
      base += '-';
  }
  while (!base.empty() && base.back() == '-') base.pop_back();
  if (base.empty() || std::isdigit(static_cast<unsigned char>(base[0]))) base = otherwise;
  std::string id = base;
  for (int n = 2; !taken.insert(id).second; ++n) id = base + "-" + std::to_string(n);
  return id;
}

//! Version 1 had one main leg (with a port one when unlinked) and a third one, named as such; doors, legs and
//! steps knew one another by what they were called. Version 2 has a list of legs, and ids.
void to_version_2(Json& root, std::vector<Fault>& faults, Upgrade& upgrade) {
  bool tailwheel = false;
  if (Json* gear = object_at(root, "gear")) {
    if (gear->contains("arrangement")) {
      const std::string word = text_at(*gear, "arrangement");
      tailwheel = word == "tailwheel";
      if (!tailwheel && word != "tricycle")
        faults.push_back({"/gear/arrangement", "must be one of \"tricycle\", \"tailwheel\""});
    }
    const bool skid = flag_at(*gear, "tail_skid", "/gear", faults);
    const bool unlinked = flag_at(*gear, "unlinked", "/gear", faults);
    Json legs = Json::array();
    const auto put = [&](const char* key, const char* role, const char* stands) {
      Json leg = {{"id", key}, {"role", role}, {"stands", stands}};
      upgrade.old_paths.emplace_back("/gear/legs/" + std::to_string(legs.size()),
                                     std::string("/gear/") + key);
      if (gear->contains(key)) {
        const Json& old = (*gear)[key];
        if (old.is_object())
          for (const auto& [name, value] : old.items()) leg[name] = value;
        else
          leg = old;  // for the reader to name
      }
      legs.push_back(std::move(leg));
    };
    put("main", "main", unlinked ? "starboard" : "both sides");
    if (unlinked) put("port", "main", "port");
    put("third", tailwheel ? "tail" : "nose", "centre line");
    if (skid && legs.back().is_object()) legs.back()["skid"] = true;
    for (const char* gone : {"arrangement", "tail_skid", "unlinked", "main", "third", "port"})
      gear->erase(gone);
    (*gear)["legs"] = std::move(legs);
  } else if (!root.contains("gear")) {
    root["gear"] = {{"legs", Json::array({{{"id", "main"}},
                                          {{"id", "third"}, {"role", "nose"}, {"stands", "centre line"}}})}};
  }
  std::map<std::string, std::string> actors{{"main legs", "main"},
                                            {tailwheel ? "tail leg" : "nose leg", "third"}};
  std::set<std::string> taken{"main", "third", "port"};
  if (Json* doors = list_at(root, "doors"))
    for (auto& door : *doors) {
      if (!door.is_object()) continue;
      const std::string name = text_at(door, "name");
      const std::string id = id_from(name, "door", taken);
      door["id"] = id;
      actors[name] = id;
    }
  if (Json* sequence = object_at(root, "sequence"))
    for (const char* way : {"up", "down"})
      if (Json* steps = list_at(*sequence, way))
        for (auto& step : *steps)
          if (const auto id = actors.find(text_at(step, "actor")); id != actors.end())
            step["actor"] = id->second;
  if (Json* ledger = list_at(root, "ledger"))
    for (size_t i = 0; i < ledger->size(); ++i) {
      Json& item = (*ledger)[i];
      if (!item.is_object() || !item.contains("moves")) continue;
      const std::string word = text_at(item, "moves");
      if (word == "with mains")
        item["moves"] = "main";
      else if (word == "with third leg")
        item["moves"] = "third";
      else if (word == "no")
        item.erase("moves");
      else
        faults.push_back({"/ledger/" + std::to_string(i) + "/moves",
                          "must be one of \"no\", \"with mains\", \"with third leg\""});
    }
  if (Json* decisions = list_at(root, "decisions"))
    for (auto& decision : *decisions) {
      const std::string path = text_at(decision, "path");
      for (const char* leg : {"main", "third", "port"}) {
        const std::string old = std::string("/gear/") + leg + "/";
        if (path.starts_with(old))
          decision["path"] = std::string("/gear/legs/") + leg + "/" + path.substr(old.size());
      }
    }
}

//! Version 2 had three scales, under the nose or tail wheel and under a main wheel on each side. Version 3
//! has a list of them.
void to_version_3(Json& root, Upgrade& upgrade) {
  Json* weighing = object_at(root, "weighing");
  if (!weighing) return;
  std::string third;
  std::string main;
  if (Json* gear = object_at(root, "gear"))
    if (Json* legs = list_at(*gear, "legs"))
      for (const auto& leg : *legs) {
        const std::string role = text_at(leg, "role");
        std::string& id = role == "nose" || role == "tail" ? third : main;
        if (id.empty() && (role != "outrigger")) id = text_at(leg, "id");
      }
  const auto to_port = [](Json v) {  // the other side's place
    Json& number = v.is_object() && v.contains("value") ? v["value"] : v;
    if (number.is_number()) number = -number.get<double>();
    return v;
  };
  struct Scale {
    const char *reading, *tare, *x;
    int side;
  };
  Json scales = Json::array();
  for (const Scale& s :
       {Scale{"third_kg", "third_tare_kg", "third_x_m", 0}, Scale{"port_kg", "port_tare_kg", "main_x_m", -1},
        Scale{"starboard_kg", "starboard_tare_kg", "main_x_m", 1}}) {
    Json scale = {{"leg", s.side == 0 ? third : main}};
    const std::string now = "/weighing/scales/" + std::to_string(scales.size()) + "/";
    const auto take = [&](const char* from, const char* to) {
      if (!weighing->contains(from)) return;
      scale[to] = (*weighing)[from];
      upgrade.old_paths.emplace_back(now + to, std::string("/weighing/") + from);
    };
    take(s.reading, "reading_kg");
    take(s.tare, "tare_kg");
    take(s.x, "x_m");
    if (s.side == 0)
      scale["y_m"] = 0;
    else
      take("half_track_m", "y_m");
    if (s.side < 0 && scale.contains("y_m")) scale["y_m"] = to_port(scale["y_m"]);
    scales.push_back(std::move(scale));
  }
  bool weighed = false;
  for (const char* gone : {"third_kg", "third_tare_kg", "port_kg", "port_tare_kg", "starboard_kg",
                           "starboard_tare_kg", "third_x_m", "main_x_m", "half_track_m"})
    weighed = weighing->erase(gone) > 0 || weighed;
  if (weighed) (*weighing)["scales"] = std::move(scales);
  if (Json* decisions = list_at(root, "decisions"))
    for (auto& decision : *decisions) {
      const std::string path = text_at(decision, "path");
      for (const auto& [now, old] : upgrade.old_paths)
        if (path == old && now.starts_with("/weighing/")) {
          decision["path"] = now;
          break;
        }
    }
}

}  // namespace

std::string Upgrade::as_written(const std::string& path) const {
  for (const auto& [now, old] : old_paths)
    if (path.starts_with(now) && (path.size() == now.size() || path[now.size()] == '/'))
      return old + path.substr(now.size());
  return path;
}

Upgrade upgrade_project(nlohmann::ordered_json& root, int version, std::vector<Fault>& faults) {
  Upgrade upgrade{version, {}};
  if (version < 2) to_version_2(root, faults, upgrade);
  if (version < 3) to_version_3(root, upgrade);
  return upgrade;
}

}  // namespace kranich
