// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/materials.h"

#include <algorithm>
#include <cmath>

#include "core/force/coil.h"

namespace kranich::force {
namespace {

constexpr double none = std::numeric_limits<double>::quiet_NaN();
constexpr double MPa = 1e6;
constexpr double GPa = 1e9;

Material typical(const char* name, Stuff stuff, double modulus, double density, double yield, double ultimate,
                 double shear, double bearing, double strain = none, double across = none,
                 const char* remark = "") {
  Material m;
  m.name = name;
  m.stuff = stuff;
  const auto put = [](Given& g, double v) {
    if (std::isfinite(v)) g = defaulted(v);
  };
  put(m.youngs_modulus, modulus);
  put(m.density, density);
  put(m.yield, yield);
  put(m.ultimate, ultimate);
  put(m.shear, shear);
  put(m.bearing, bearing);
  put(m.strain, strain);
  put(m.across, across);
  m.remark = remark;
  return m;
}

}  // namespace

const std::vector<Material>& typical_materials() {
  static const std::vector<Material> table{
      typical("chrome-molybdenum steel", Stuff::metal, 205 * GPa, 7850, 435 * MPa, 670 * MPa, 400 * MPa,
              1000 * MPa, none, none, "tube, normalised; less within the heat of a weld"),
      typical("mild steel", Stuff::metal, 205 * GPa, 7850, 250 * MPa, 400 * MPa, 240 * MPa, 600 * MPa),
      typical("spring steel strip", Stuff::metal, 206 * GPa, 7850, 1100 * MPa, 1350 * MPa, 800 * MPa,
              1900 * MPa),
      typical("music wire", Stuff::wire, 207 * GPa, 7850, none, none, none, none, none, none,
              "strength by its diameter"),
      typical("stainless 302 wire", Stuff::wire, 190 * GPa, 7900, none, none, none, none, none, none,
              "strength by its diameter"),
      typical("aluminium 2024-T3", Stuff::metal, 73 * GPa, 2780, 325 * MPa, 440 * MPa, 270 * MPa, 700 * MPa,
              none, none, "hard: must not be bent cold to a small radius"),
      typical("aluminium 6061-T6", Stuff::metal, 69 * GPa, 2700, 255 * MPa, 300 * MPa, 195 * MPa, 480 * MPa),
      typical("aluminium 7075-T6", Stuff::metal, 72 * GPa, 2810, 470 * MPa, 540 * MPa, 320 * MPa, 850 * MPa,
              none, none, "anneal before bending, then heat-treat again"),
      typical("soft aluminium", Stuff::metal, 70 * GPa, 2680, 145 * MPa, 210 * MPa, 130 * MPa, 330 * MPa,
              none, none, "half-hard sheet of kit legs: yields and is bent back"),
      typical("titanium, 6 Al 4 V", Stuff::metal, 114 * GPa, 4430, 830 * MPa, 900 * MPa, 550 * MPa,
              1500 * MPa),
      typical("carbon, unidirectional", Stuff::laminate, 120 * GPa, 1550, none, none, 55 * MPa, 300 * MPa,
              0.005),
      typical("glass, unidirectional", Stuff::laminate, 40 * GPa, 1900, none, none, 50 * MPa, 300 * MPa,
              0.010),
      typical("ash", Stuff::timber, 12 * GPa, 690, 45 * MPa, 90 * MPa, 12 * MPa, 45 * MPa),
      typical("spruce", Stuff::timber, 10 * GPa, 420, 35 * MPa, 65 * MPa, 7 * MPa, 30 * MPa),
      typical("birch plywood", Stuff::timber, 9 * GPa, 680, 30 * MPa, 45 * MPa, 9 * MPa, 25 * MPa),
      typical("light plywood", Stuff::timber, 5 * GPa, 420, 12 * MPa, 20 * MPa, 4 * MPa, 8 * MPa),
      typical("balsa", Stuff::timber, 3 * GPa, 150, 7 * MPa, 14 * MPa, 1.5 * MPa, 3 * MPa),
      typical("printed, tough polyester", Stuff::printed, 2 * GPa, 1270, 40 * MPa, 45 * MPa, 25 * MPa,
              60 * MPa, none, 0.5, "filament along the load; across its layers half"),
      typical("printed, nylon with carbon", Stuff::printed, 5 * GPa, 1100, 65 * MPa, 75 * MPa, 40 * MPa,
              90 * MPa, none, 0.45, "short fibre; across its layers less than half"),
      typical("foam, 30 g/l", Stuff::foam, 6 * MPa, 30, 0.15 * MPa, 0.2 * MPa, 0.12 * MPa, 0.2 * MPa),
      typical("bolt, property class 8.8", Stuff::metal, 205 * GPa, 7850, 640 * MPa, 800 * MPa, 480 * MPa,
              1200 * MPa),
      typical("aircraft bolt", Stuff::metal, 205 * GPa, 7850, 700 * MPa, 860 * MPa, 515 * MPa, 1300 * MPa),
      typical("blind rivet, ordinary", Stuff::metal, 70 * GPa, 2700, 90 * MPa, 140 * MPa, 85 * MPa, 300 * MPa,
              none, none, "hollow when set: found wanting in hard landings"),
      typical("blind rivet, structural stainless", Stuff::metal, 190 * GPa, 7900, 400 * MPa, 600 * MPa,
              380 * MPa, 900 * MPa, none, none, "locked stem"),
      typical("wood screw", Stuff::metal, 205 * GPa, 7850, 250 * MPa, 400 * MPa, 240 * MPa, 600 * MPa),
      typical("epoxy, slow", Stuff::adhesive, none, 1150, none, 12 * MPa, 15 * MPa, none, none, none,
              "tough under shock; fills gaps with filler; an hour to work, a day to harden; the heavier by "
              "its fillet"),
      typical("epoxy, five-minute", Stuff::adhesive, none, 1150, none, 6 * MPa, 8 * MPa, none, none, none,
              "brittle under shock; fills small gaps; three minutes to work; for tacking, not for legs"),
      typical("wood glue", Stuff::adhesive, none, 1100, none, 5 * MPa, 8 * MPa, none, none, none,
              "in tension no more than the veneer's hold on its own ply; fills no gaps: wood to wood, "
              "clamped; ten minutes to "
              "work; the lightest"),
  };
  return table;
}

const Material* find_material(const std::vector<Material>& own, std::string_view name) {
  for (const auto* list : {&own, &typical_materials()})
    for (const auto& m : *list)
      if (m.name == name) return &m;
  return nullptr;
}

std::vector<std::string> material_names(const std::vector<Material>& own) {
  std::vector<std::string> names;
  for (const auto* list : {&own, &typical_materials()})
    for (const auto& m : *list)
      if (std::find(names.begin(), names.end(), m.name) == names.end()) names.push_back(m.name);
  return names;
}

Allowable allowable_of(const Material& m, double size, bool across_layers) {
  Allowable a{m.yield, m.ultimate, m.shear, m.bearing};
  if (m.stuff == Stuff::wire && !m.ultimate.known()) {
    if (const Wire* wire = find_wire(m.name)) {
      a.ultimate = wire->strength_constant * MPa / std::pow(size * 1000, wire->strength_exponent);
      a.yield = 0.75 * a.ultimate;
      a.shear = wire->torsional_fraction * a.ultimate;
    }
  }
  if (m.stuff == Stuff::laminate && m.strain.known()) a.yield = a.ultimate = m.strain * m.youngs_modulus;
  if (m.stuff == Stuff::printed && across_layers)
    for (double* v : {&a.yield, &a.ultimate, &a.shear}) *v *= m.across;
  return a;
}

Elastic stiffness_of(const Material& m) {
  const bool fibres = m.stuff == Stuff::laminate || m.stuff == Stuff::timber;
  return {m.youngs_modulus, fibres ? m.youngs_modulus / 16 : m.youngs_modulus / 2.6};
}

}  // namespace kranich::force
