// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/mesh_file.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <map>
#include <optional>
#include <vector>

#include "core/io/project_file.h"
#include "core/motion/triangles.h"

namespace kranich {
namespace {

using motion::Mesh;

//! Joins corners that lie at one place.
class Welder {
 public:
  int put(const Vec3& p) {
    const auto [at, is_new] =
        known_.try_emplace({p.x(), p.y(), p.z()}, static_cast<int>(mesh_.points.size()));
    if (is_new) mesh_.points.push_back(p);
    return at->second;
  }
  //! A triangle of no area, two of its corners at one place, is left out.
  void face(int a, int b, int c) {
    if (a != b && b != c && c != a) mesh_.faces.push_back({a, b, c});
  }
  size_t faces() const { return mesh_.faces.size(); }
  Mesh take() { return std::move(mesh_); }

 private:
  Mesh mesh_;
  std::map<std::array<double, 3>, int> known_;
};

std::string too_many(size_t count) {
  return fmt::format("{} triangles; {} at most: let the drawing program make it coarser", count,
                     most_triangles);
}

//! The words of a line, one after the other.
class Words {
 public:
  explicit Words(std::string_view line) : left_(line) {}
  std::string_view next() {
    const auto from = left_.find_first_not_of(" \t\r");
    if (from == std::string_view::npos) return {};
    left_.remove_prefix(from);
    const auto to = std::min(left_.find_first_of(" \t\r"), left_.size());
    const auto word = left_.substr(0, to);
    left_.remove_prefix(to);
    return word;
  }

 private:
  std::string_view left_;
};

std::optional<double> number_of(std::string_view word) {
  if (!word.empty() && word.front() == '+') word.remove_prefix(1);
  double value = 0;
  const auto [end, fault] = std::from_chars(word.data(), word.data() + word.size(), value);
  if (fault != std::errc() || end != word.data() + word.size() || !std::isfinite(value)) return std::nullopt;
  return value;
}

std::variant<Vec3, std::string> place_of(Words& words, size_t line) {
  Vec3 p;
  for (int i = 0; i < 3; ++i) {
    const auto word = words.next();
    const auto value = number_of(word);
    if (!value)
      return word.empty()
                 ? fmt::format("line {}: a corner of fewer than three numbers", line)
                 : fmt::format("line {}: “{}” is not a number", line, std::string(word.substr(0, 40)));
    p[i] = *value;
  }
  return p;
}

//! Each line with its number; stops where `look` finds a fault.
template <class Look>
std::optional<std::string> each_line(std::string_view text, Look&& look) {
  size_t line = 0;
  while (!text.empty()) {
    const auto end = std::min(text.find('\n'), text.size());
    ++line;
    if (auto fault = look(text.substr(0, end), line)) return fault;
    text.remove_prefix(std::min(end + 1, text.size()));
  }
  return std::nullopt;
}

std::variant<Mesh, std::string> stl_text(std::string_view text) {
  Welder mesh;
  std::vector<int> corners;
  bool open = false;  // between a facet and its end
  auto fault = each_line(text, [&](std::string_view line, size_t at) -> std::optional<std::string> {
    Words words(line);
    const auto first = words.next();
    if (first == "facet") {
      if (open) return fmt::format("line {}: a facet begins before the last one has ended", at);
      open = true;
      corners.clear();
    } else if (first == "vertex") {
      if (!open) return fmt::format("line {}: a corner outside a facet", at);
      auto p = place_of(words, at);
      if (auto* wrong = std::get_if<std::string>(&p)) return std::move(*wrong);
      corners.push_back(mesh.put(std::get<Vec3>(p)));
    } else if (first == "endfacet") {
      if (!open || corners.size() != 3)
        return fmt::format("line {}: a facet of {} corners; it must have three", at, corners.size());
      open = false;
      mesh.face(corners[0], corners[1], corners[2]);
      if (mesh.faces() > most_triangles) return too_many(mesh.faces());
    } else if (!first.empty() && first != "solid" && first != "endsolid" && first != "outer" &&
               first != "endloop") {
      return fmt::format("line {}: “{}” is no word of an STL file", at, std::string(first.substr(0, 40)));
    }
    return std::nullopt;
  });
  if (fault) return std::move(*fault);
  if (open) return std::string("it ends within a facet: cut short?");
  return mesh.take();
}

//! Little-endian, whatever this machine is.
std::uint32_t whole_at(std::string_view bytes, size_t at) {
  std::uint32_t v = 0;
  for (size_t i = 0; i < 4; ++i)
    v |= static_cast<std::uint32_t>(static_cast<unsigned char>(bytes[at + i])) << (8 * i);
  return v;
}
double real_at(std::string_view bytes, size_t at) {
  const std::uint32_t bits = whole_at(bytes, at);
  float f = 0;
  std::memcpy(&f, &bits, sizeof f);
  return static_cast<double>(f);
}

constexpr size_t stl_head = 84;
constexpr size_t stl_facet = 50;

std::variant<Mesh, std::string> stl_binary(std::string_view bytes) {
  const size_t count = whole_at(bytes, 80);
  if (count > most_triangles) return too_many(count);
  const size_t wanted = stl_head + stl_facet * count;
  if (bytes.size() < wanted)
    return fmt::format("cut short: {} triangles are announced, {} are there", count,
                       (bytes.size() - stl_head) / stl_facet);
  Welder mesh;
  for (size_t i = 0; i < count; ++i) {
    int corners[3];
    for (size_t k = 0; k < 3; ++k) {
      Vec3 p;
      for (size_t axis = 0; axis < 3; ++axis)
        p[static_cast<Eigen::Index>(axis)] =
            real_at(bytes, stl_head + stl_facet * i + 12 * (k + 1) + 4 * axis);
      if (!p.allFinite()) return fmt::format("triangle {}: a corner that is not a number", i + 1);
      corners[k] = mesh.put(p);
    }
    mesh.face(corners[0], corners[1], corners[2]);
  }
  return mesh.take();
}

std::variant<Mesh, std::string> obj(std::string_view text) {
  Welder mesh;
  std::vector<int> corners;  // of the file's own numbering
  auto fault = each_line(text, [&](std::string_view line, size_t at) -> std::optional<std::string> {
    Words words(line);
    const auto first = words.next();
    if (first == "v") {
      auto p = place_of(words, at);
      if (auto* wrong = std::get_if<std::string>(&p)) return std::move(*wrong);
      corners.push_back(mesh.put(std::get<Vec3>(p)));
    } else if (first == "f") {
      std::vector<int> face;
      for (auto word = words.next(); !word.empty(); word = words.next()) {
        const auto number = word.substr(0, word.find('/'));
        int i = 0;
        const auto [end, wrong] = std::from_chars(number.data(), number.data() + number.size(), i);
        if (wrong != std::errc() || end != number.data() + number.size())
          return fmt::format("line {}: “{}” is not the number of a corner", at,
                             std::string(word.substr(0, 40)));
        const int there = static_cast<int>(corners.size());
        const int k = i > 0 ? i - 1 : there + i;  // below nothing it counts back from the last
        if (i == 0 || k < 0 || k >= there)
          return fmt::format("line {}: corner {}, where {} have been given", at, i, there);
        face.push_back(corners[static_cast<size_t>(k)]);
      }
      if (face.size() < 3) return fmt::format("line {}: a face of fewer than three corners", at);
      for (size_t i = 2; i < face.size(); ++i) mesh.face(face[0], face[i - 1], face[i]);
      if (mesh.faces() > most_triangles) return too_many(mesh.faces());
    }
    return std::nullopt;
  });
  if (fault) return std::move(*fault);
  return mesh.take();
}

bool looks_like_obj(std::string_view bytes) {
  bool vertices = false;
  each_line(bytes.substr(0, 1 << 16), [&](std::string_view line, size_t) -> std::optional<std::string> {
    if (line.starts_with("v ") || line.starts_with("v\t")) {
      vertices = true;
      return "";
    }
    return std::nullopt;
  });
  return vertices;
}

std::variant<Mesh, std::string> read_any(std::string_view bytes) {
  // A binary STL may begin with the word that a text one must begin with: its length tells.
  if (bytes.size() >= stl_head && bytes.size() == stl_head + stl_facet * size_t{whole_at(bytes, 80)})
    return stl_binary(bytes);
  const bool text = bytes.find('\0') == std::string_view::npos;
  if (text && bytes.starts_with("solid")) return stl_text(bytes);
  if (text && looks_like_obj(bytes)) return obj(bytes);
  if (!text && bytes.size() >= stl_head) return stl_binary(bytes);
  return std::string("neither STL nor OBJ");
}

double metres_of(MeshUnit unit) {
  switch (unit) {
    case MeshUnit::millimetres:
      return 1e-3;
    case MeshUnit::centimetres:
      return 1e-2;
    case MeshUnit::metres:
      return 1;
    case MeshUnit::inches:
      return 0.0254;
  }
  return 1e-3;
}

//! Aircraft axes from the file's: the columns are where its x, y and z go.
Mat3 turned(MeshAxes axes) {
  const Vec3 aft = Vec3::UnitX();
  const Vec3 starboard = Vec3::UnitY();
  const Vec3 up = Vec3::UnitZ();
  Vec3 x = aft;
  bool z_up = true;
  switch (axes) {
    case MeshAxes::x_aft_z_up:
      break;
    case MeshAxes::x_forward_z_up:
      x = -aft;
      break;
    case MeshAxes::x_starboard_z_up:
      x = starboard;
      break;
    case MeshAxes::x_port_z_up:
      x = -starboard;
      break;
    case MeshAxes::x_aft_y_up:
      z_up = false;
      break;
    case MeshAxes::x_forward_y_up:
      x = -aft;
      z_up = false;
      break;
    case MeshAxes::x_starboard_y_up:
      x = starboard;
      z_up = false;
      break;
    case MeshAxes::x_port_y_up:
      x = -starboard;
      z_up = false;
      break;
  }
  Mat3 m;
  if (z_up)
    m << x, up.cross(x), up;
  else
    m << x, up, x.cross(up);
  return m;
}

Skin read_skin(const KeepOut& k, const std::filesystem::path& file, const std::string& state) {
  Skin skin;
  skin.state = state;
  const auto bytes = read_text_file(file, largest_mesh_file);
  if (!bytes) {
    skin.fault = std::filesystem::exists(file) ? fmt::format("“{}” cannot be read, or is larger than {} MB",
                                                             k.file, largest_mesh_file >> 20)
                                               : fmt::format("“{}” is not there", k.file);
    return skin;
  }
  auto made = read_mesh(*bytes);
  if (auto* wrong = std::get_if<std::string>(&made)) {
    skin.fault = fmt::format("“{}”: {}", k.file, *wrong);
    return skin;
  }
  Mesh& mesh = std::get<Mesh>(made);
  const Mat3 to_aircraft = metres_of(k.unit) * turned(k.axes);
  for (Vec3& p : mesh.points) p = to_aircraft * p;
  const bool any = std::any_of(mesh.faces.begin(), mesh.faces.end(), [&](const auto& f) {
    const auto at = [&](size_t i) { return mesh.points[static_cast<size_t>(f[i])]; };
    return (at(1) - at(0)).cross(at(2) - at(0)).squaredNorm() > 0;
  });
  if (!any)
    skin.fault = fmt::format("“{}”: no triangle that has an area", k.file);
  else
    skin.triangles = std::make_shared<const motion::Triangles>(std::move(mesh));
  return skin;
}

//! What of a file would be read: it has changed where this has.
std::string state_of(const KeepOut& k, const std::filesystem::path& file) {
  std::error_code none;
  const auto size = std::filesystem::file_size(file, none);
  const auto time = std::filesystem::last_write_time(file, none).time_since_epoch().count();
  return fmt::format("{} {} {} {} {}", file.string(), none ? 0 : size, none ? 0 : time,
                     static_cast<int>(k.unit), static_cast<int>(k.axes));
}

}  // namespace

std::variant<Mesh, std::string> read_mesh(std::string_view bytes) {
  auto made = read_any(bytes);
  if (const auto* mesh = std::get_if<Mesh>(&made); mesh && mesh->faces.empty())
    return std::string("no triangles in it");
  return made;
}

void load_meshes(Design& d, const std::filesystem::path& folder, const Design* before) {
  for (KeepOut& k : d.airframe.keep_outs) {
    if (k.shape != Shape::mesh || k.file.empty()) {
      k.skin = {};
      continue;
    }
    const auto file = folder / std::filesystem::path(k.file);
    const std::string state = state_of(k, file);
    if (k.skin.state == state) continue;
    const KeepOut* known = nullptr;
    if (before)
      for (const KeepOut& other : before->airframe.keep_outs)
        if (other.skin.state == state) known = &other;
    k.skin = known ? known->skin : read_skin(k, file, state);
  }
}

void take_meshes(Design& d, const Design& from) {
  for (KeepOut& k : d.airframe.keep_outs)
    for (const KeepOut& other : from.airframe.keep_outs)
      if (k.shape == Shape::mesh && other.shape == Shape::mesh && k.file == other.file &&
          k.unit == other.unit && k.axes == other.axes)
        k.skin = other.skin;
}

}  // namespace kranich
