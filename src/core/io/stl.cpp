// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/stl.h"

#include <cstdint>
#include <cstring>

namespace kranich {

std::string stl_of(const std::vector<motion::Mesh>& solids) {
  static_assert(sizeof(float) == 4);
  std::string head = "Kranich, millimetres";
  head.resize(80, ' ');
  size_t count = 0;
  for (const auto& m : solids) count += m.faces.size();
  std::string s = head;
  s.reserve(84 + 50 * count);
  // Little-endian, whatever this machine is.
  const auto whole = [&](std::uint32_t v, int bytes) {
    for (int i = 0; i < bytes; ++i) s += static_cast<char>((v >> (8 * i)) & 0xff);
  };
  const auto real = [&](double v) {
    const auto f = static_cast<float>(v);
    std::uint32_t bits = 0;
    std::memcpy(&bits, &f, sizeof bits);
    whole(bits, 4);
  };
  whole(static_cast<std::uint32_t>(count), 4);
  for (const auto& m : solids)
    for (const auto& f : m.faces) {
      const Vec3 &a = m.points[static_cast<size_t>(f[0])], &b = m.points[static_cast<size_t>(f[1])],
                 &c = m.points[static_cast<size_t>(f[2])];
      const Vec3 n = (b - a).cross(c - a);
      const Vec3 normal = n.norm() > 0 ? Vec3(n.normalized()) : Vec3(0, 0, 0);
      for (int k = 0; k < 3; ++k) real(normal[k]);
      for (const Vec3* p : {&a, &b, &c})
        for (int k = 0; k < 3; ++k) real(1000 * (*p)[k]);
      whole(0, 2);
    }
  return s;
}

}  // namespace kranich
