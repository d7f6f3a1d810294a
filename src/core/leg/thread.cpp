// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/thread.h"

#include <array>
#include <cmath>

namespace kranich::leg {
namespace {

struct Row {
  const char* name;
  double diameter, pitch;  // mm
};
constexpr double in = 25.4;
constexpr std::array rows{Row{"M2", 2, 0.4},
                          Row{"M2.5", 2.5, 0.45},
                          Row{"M3", 3, 0.5},
                          Row{"M4", 4, 0.7},
                          Row{"M5", 5, 0.8},
                          Row{"M6", 6, 1},
                          Row{"M8", 8, 1.25},
                          Row{"M10", 10, 1.5},
                          Row{"M12", 12, 1.75},
                          Row{"M16", 16, 2},
                          Row{"4-40", 0.112 * in, in / 40},
                          Row{"6-32", 0.138 * in, in / 32},
                          Row{"8-32", 0.164 * in, in / 32},
                          Row{"10-24", 0.190 * in, in / 24},
                          Row{"1/4-20", 0.25 * in, in / 20},
                          Row{"5/16-18", 0.3125 * in, in / 18},
                          Row{"3/8-16", 0.375 * in, in / 16},
                          Row{"1/2-13", 0.5 * in, in / 13}};

}  // namespace

const std::vector<Thread>& coarse_threads() {
  static const std::vector<Thread> all = [] {
    std::vector<Thread> list;
    for (const auto& r : rows) list.push_back({r.name, r.diameter / 1000, r.pitch / 1000});
    return list;
  }();
  return all;
}

std::optional<Thread> coarse_thread(double diameter) {
  const Row* nearest = nullptr;
  for (const auto& r : rows) {
    const double off = std::abs(r.diameter / 1000 - diameter);
    if (off <= 0.02 * diameter && (!nearest || off < std::abs(nearest->diameter / 1000 - diameter)))
      nearest = &r;
  }
  if (!nearest) return std::nullopt;
  return Thread{nearest->name, nearest->diameter / 1000, nearest->pitch / 1000};
}

double engagement_in(const Material& m) {
  if (m.stuff != Stuff::metal && m.stuff != Stuff::wire) return 2;
  constexpr double steel = 150e9;
  return m.youngs_modulus.known() && m.youngs_modulus > steel ? 1 : 1.5;
}

BlindHole blind_hole(const Thread& t, double engagement) {
  BlindHole h{engagement * t.diameter, 3 * t.pitch, 0.3 * t.tap_drill(), 0};
  h.depth = h.thread + h.lead + h.point;
  return h;
}

}  // namespace kranich::leg
