// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/leg_frame.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "core/motion/retract.h"
#include "core/motion/suspend.h"

namespace kranich::leg {
namespace {

constexpr force::Elastic steel{205e9, 79e9};

//! Something much stiffer than the leg: an axle without a diameter yet, a bracket.
force::BeamSection stiff_section() { return {1e-3, 1e-6, 1e-6, 1e-6}; }

int add_node(force::Frame& frame, const Vec3& at) {
  frame.nodes.push_back(at);
  return static_cast<int>(frame.nodes.size()) - 1;
}

const Vec3& node(const force::Frame& frame, int i) { return frame.nodes[static_cast<size_t>(i)]; }

void link(force::Frame& frame, int from, int to, const force::BeamSection& section,
          const force::Elastic& material) {
  if ((node(frame, from) - node(frame, to)).norm() < 1e-6) return;
  frame.beams.push_back({from, to, section, material, Vec3::UnitX(), {}});
}

//! A node at a place beside another, held to it by a bracket; that node itself where it is the same place.
int bracket_to(force::Frame& frame, int from, const Vec3& at) {
  if ((node(frame, from) - at).norm() < 1e-6) return from;
  const int there = add_node(frame, at);
  link(frame, from, there, stiff_section(), steel);
  return there;
}

//! A member that only pulls or pushes.
void strut_between(force::Frame& frame, int from, int to) {
  frame.beams.push_back({from, to, {1e-4, 1e-14, 1e-14, 1e-14}, steel, Vec3(1, 0.3, 0.2).normalized(), {}});
}

//! As above, its far end held in place by the airframe.
void strut_to_airframe(force::Frame& frame, int from, const Vec3& to) {
  const int end = add_node(frame, to);
  frame.pinned.push_back(end);
  strut_between(frame, from, end);
}

//! A section of the one strut at a place along it, from what is given there or for the whole leg.
std::optional<MemberSection> section_with(const Leg& leg, const LegStation* here, Text& missing) {
  const auto either = [&](const Given LegStation::*own, const Given& whole) {
    return here && (here->*own).known() ? (here->*own).si : whole.si;
  };
  const double bore = here && here->bore.known() ? here->bore.si : 0;
  if (leg.section == LegSection::rectangle || leg.section == LegSection::streamlined) {
    const double width = either(&LegStation::width, leg.section_width);
    const double thickness = either(&LegStation::thickness, leg.section_thickness);
    if (!std::isfinite(width) || !std::isfinite(thickness)) {
      missing = "the leg's width and thickness";
      return std::nullopt;
    }
    if (bore >= std::min(width, thickness)) {
      missing = "a hole along the leg narrower than the leg is thick";
      return std::nullopt;
    }
    if (leg.section == LegSection::streamlined) {
      if (bore > 0) missing = "a streamlined leg without a hole along it";
      if (!missing.empty()) return std::nullopt;
      return streamlined_member(width, thickness);
    }
    return rectangular_member(width, thickness, bore);
  }
  const double outer = either(&LegStation::width, leg.tube_diameter);
  if (!std::isfinite(outer)) {
    missing = "the leg's diameter";
    return std::nullopt;
  }
  double wall = outer / 2;
  if (bore > 0) {
    wall = (outer - bore) / 2;
    if (!(wall > 0)) missing = "a hole along the leg narrower than the leg is thick";
  } else if (leg.section == LegSection::tube) {
    wall = leg.tube_wall;
    if (!leg.tube_wall.known()) missing = "the leg's wall";
    if (wall > outer / 2) missing = "a wall no thicker than half the leg's diameter";
  }
  if (!missing.empty()) return std::nullopt;
  return round_member(outer, wall);
}

//! The one strut's sections along its way from the upper end.
class StrutSections {
 public:
  StrutSections(const Leg& leg, Text& missing) {
    if (leg.stations.empty()) {
      if (const auto s = section_with(leg, nullptr, missing)) rows_.push_back({0, *s});
      return;
    }
    for (const auto& station : leg.stations) {
      if (!station.along.known()) {
        missing = "how far from the leg's upper end every one of its sections lies";
        return;
      }
      if (!rows_.empty() && station.along < rows_.back().along) {
        missing = "the leg's sections in their order from the upper end";
        return;
      }
      const auto s = section_with(leg, &station, missing);
      if (!s) return;
      rows_.push_back({station.along, *s});
    }
  }

  //! Places strictly between two where the section bends or steps.
  std::vector<double> breaks(double from, double to) const {
    std::vector<double> list;
    constexpr int steps_of_taper = 4;
    for (size_t i = 0; i < rows_.size(); ++i) {
      list.push_back(rows_[i].along);
      if (i + 1 == rows_.size() || same(rows_[i].section, rows_[i + 1].section)) continue;
      for (int k = 1; k < steps_of_taper; ++k)
        list.push_back(rows_[i].along + (rows_[i + 1].along - rows_[i].along) * k / steps_of_taper);
    }
    constexpr double apart = 1e-6;
    std::vector<double> kept;
    for (const double at : list)
      if (at > from + apart && at < to - apart && (kept.empty() || at > kept.back() + apart))
        kept.push_back(at);
    return kept;
  }

  //! Greatest thickness of the stuff it is made of: wire is the weaker for it.
  double thickest() const {
    double most = 0;
    for (const Row& r : rows_) most = std::max(most, r.section.round ? r.section.outer : r.section.thickness);
    return most;
  }
  //! The section at a place: of two that meet there the one above it or below it.
  MemberSection at(double along, bool below) const {
    constexpr double here = 1e-9;
    if (along <= rows_.front().along - here) return rows_.front().section;
    for (size_t i = 0; i + 1 < rows_.size(); ++i) {
      const Row& a = rows_[i];
      const Row& b = rows_[i + 1];
      const bool within = below ? along < b.along - here : along <= b.along + here;
      if (!within || along < a.along - here) continue;
      if (b.along - a.along < here) return below ? b.section : a.section;
      return between(a.section, b.section, std::clamp((along - a.along) / (b.along - a.along), 0.0, 1.0));
    }
    return rows_.back().section;
  }

 private:
  struct Row {
    double along;
    MemberSection section;
  };
  static bool same(const MemberSection& a, const MemberSection& b) {
    return a.outer == b.outer && a.wall == b.wall && a.width == b.width && a.thickness == b.thickness &&
           a.bore == b.bore;
  }
  static MemberSection between(const MemberSection& a, const MemberSection& b, double t) {
    const auto mix = [t](double x, double y) { return (1 - t) * x + t * y; };
    return a.round         ? round_member(mix(a.outer, b.outer), mix(a.wall, b.wall))
           : a.streamlined ? streamlined_member(mix(a.width, b.width), mix(a.thickness, b.thickness))
                           : rectangular_member(mix(a.width, b.width), mix(a.thickness, b.thickness),
                                                mix(a.bore, b.bore));
  }
  std::vector<Row> rows_;
};

force::BeamSection mean(const force::BeamSection& a, const force::BeamSection& b) {
  return {(a.area + b.area) / 2, (a.first + b.first) / 2, (a.second + b.second) / 2,
          (a.torsion + b.torsion) / 2};
}

//! Lays the one strut's pieces between nodes, section by section.
class StrutBuilder {
 public:
  StrutBuilder(LegFrame& m, const StrutSections& sections, const Material& material, bool across_layers)
      : m_(m),
        sections_(sections),
        elastic_(force::stiffness_of(material)),
        like_{"leg",
              0,
              {},
              force::allowable_of(material, sections.thickest(), across_layers),
              material.youngs_modulus,
              false} {}

  //! From one node to another, as the next stretch of the way down; a joint frees its upper end.
  void run(const std::string& part, int from, int to, std::optional<force::Beam::Joint> joint = {}) {
    const Vec3 a = node(m_.frame, from);
    const Vec3 b = node(m_.frame, to);
    const double length = (b - a).norm();
    if (length < 1e-6) return;
    std::vector<double> ends = sections_.breaks(along_, along_ + length);
    ends.push_back(along_ + length);
    int upper = from;
    double before = along_;
    for (size_t i = 0; i < ends.size(); ++i) {
      const int lower =
          i + 1 == ends.size() ? to : add_node(m_.frame, a + (ends[i] - along_) / length * (b - a));
      Member member = like_;
      member.part = part;
      member.ends = {sections_.at(before, true), sections_.at(ends[i], false)};
      member.beam = m_.frame.beams.size();
      m_.frame.beams.push_back({upper, lower, mean(member.ends[0].beam, member.ends[1].beam), elastic_,
                                Vec3::UnitX(), i == 0 ? joint : std::nullopt});
      m_.members.push_back(member);
      upper = lower;
      before = ends[i];
    }
    along_ += length;
  }

 private:
  LegFrame& m_;
  const StrutSections& sections_;
  force::Elastic elastic_;
  Member like_;
  double along_ = 0;
};

//! A node on a strut's line, a share of the way down.
int node_on(force::Frame& frame, const Vec3& from, const Vec3& to, const Vec3& beside) {
  const double share = std::clamp((beside - from).dot(to - from) / (to - from).squaredNorm(), 0.02, 0.98);
  return add_node(frame, from + share * (to - from));
}

//! An arm on its hinge, with the fixed strut above it where there is one.
void model_arm(const Leg& leg, LegFrame& m, StrutBuilder& build) {
  const Vec3 foot = motion::foot(leg);
  const Vec3 hinge_at = leg.hinge.vec();
  const Vec3 upper = motion::strut_above_hinge(leg);
  const bool on_strut = upper.allFinite();
  const bool sprung = leg.spring.anchor_leg.known() && leg.spring.anchor_airframe.known();
  const Vec3 spring_top = leg.spring.anchor_airframe.vec();
  const int hinge = add_node(m.frame, hinge_at);
  int hangs_from = -1;  // node of the strut beside the spring's upper anchor
  if (on_strut) {
    const int top = add_node(m.frame, upper);
    m.frame.clamped.push_back(top);
    if (sprung) {
      const Vec3 way = hinge_at - upper;
      const double along = (spring_top - upper).dot(way) / way.squaredNorm();
      const double beside = (spring_top - upper - std::clamp(along, 0.0, 1.0) * way).norm();
      constexpr double near = 0.35;  // of the strut's length: a bracket on it, not the airframe
      if (along > 0.02 && along < 1.1 && beside < near * way.norm()) {
        hangs_from = node_on(m.frame, upper, hinge_at, spring_top);
        build.run("strut above the hinge", top, hangs_from);
        build.run("strut above the hinge", hangs_from, hinge);
      }
    }
    if (hangs_from < 0) build.run("strut above the hinge", top, hinge);
  } else {
    m.frame.clamped.push_back(hinge);
  }
  m.foot = add_node(m.frame, foot);
  const std::string arm = on_strut ? "arm" : "leg";
  if (!sprung) {
    build.run(arm, hinge, m.foot);
    return;
  }
  const Vec3 axis = leg.path == LegPath::hinged_fore_and_aft ? Vec3::UnitX() : Vec3::UnitY();
  const int hold = node_on(m.frame, hinge_at, foot, leg.spring.anchor_leg.vec());
  build.run(arm, hinge, hold, force::Beam::Joint{axis, 1e-3});
  build.run(arm, hold, m.foot);
  const int lower = bracket_to(m.frame, hold, leg.spring.anchor_leg.vec());
  if (hangs_from < 0) {
    strut_to_airframe(m.frame, lower, spring_top);
    return;
  }
  strut_between(m.frame, lower, bracket_to(m.frame, hangs_from, spring_top));
}

void model_strut(const Design& d, const Leg& leg, LegFrame& m) {
  const StrutSections sections(leg, m.missing);
  if (!m.missing.empty()) return;
  const Material* material = force::find_material(d.materials, leg.material);
  if (!material || !material->youngs_modulus.known()) {
    m.missing =
        leg.material.empty() ? Text("the leg's material") : say("a material of the name “{}”", leg.material);
    return;
  }
  StrutBuilder build(m, sections, *material, leg.printed == PrintedHow::upright);
  if (leg.path != LegPath::straight && leg.hinge.known() && leg.held_at().allFinite() &&
      (!leg.retraction.fitted || motion::strut_above_hinge(leg).allFinite())) {
    model_arm(leg, m, build);
    return;
  }
  const int top = add_node(m.frame, leg.held_at());
  m.frame.clamped.push_back(top);
  m.foot = add_node(m.frame, motion::foot(leg));
  if (!leg.brace_leg.known() || !leg.brace_airframe.known()) {
    build.run("leg", top, m.foot);
    return;
  }
  const int hold = add_node(m.frame, leg.brace_leg.vec());
  // The pivot turns freely about the axis the leg swings about; the brace holds it there.
  const bool sideways = leg.retraction.direction == SwingDirection::inward ||
                        leg.retraction.direction == SwingDirection::outward;
  build.run("leg", top, hold, force::Beam::Joint{sideways ? Vec3::UnitX() : Vec3::UnitY(), 1e-3});
  build.run("leg", hold, m.foot);
  strut_to_airframe(m.frame, hold, leg.brace_airframe.vec());
}

void model_tubes(const Design& d, const Leg& leg, LegFrame& m) {
  const Vec3 foot = motion::foot(leg);
  m.foot = add_node(m.frame, foot);
  const bool sprung =
      leg.path != LegPath::straight && leg.spring.anchor_leg.known() && leg.spring.anchor_airframe.known();
  int anchor = -1;
  const Vec3 top = leg.held_at();
  double share = 0;  // of the way from top to foot at which the spring takes hold
  if (sprung) {
    anchor = add_node(m.frame, leg.spring.anchor_leg.vec());
    share = std::clamp((leg.spring.anchor_leg.vec() - top).dot(foot - top) / (foot - top).squaredNorm(), 0.05,
                       0.95);
  }
  for (const auto& t : leg.tubes) {
    if (!t.top.known() || !t.diameter.known() || !t.wall.known()) {
      m.missing = say("the tube “{}”: its attach point, diameter and wall", t.name);
      return;
    }
    const Material* material = force::find_material(d.materials, t.material);
    if (!material || !material->youngs_modulus.known()) {
      m.missing = say("a material for the tube “{}”", t.name);
      return;
    }
    if (t.wall > t.diameter / 2) {
      m.missing = say("a wall of the tube “{}” no thicker than half its diameter", t.name);
      return;
    }
    const int upper = add_node(m.frame, t.top.vec());
    m.frame.pinned.push_back(upper);
    int lower = m.foot;
    if (t.foot.known() && (t.foot.vec() - foot).norm() > 1e-6) {
      lower = add_node(m.frame, t.foot.vec());
      link(m.frame, lower, m.foot, stiff_section(), steel);
    }
    const auto section = round_member(t.diameter, t.wall);
    const Member member{t.name,
                        0,
                        {section, section},
                        force::allowable_of(*material, t.diameter, false),
                        material->youngs_modulus,
                        true};
    const auto beam = [&](int from, int to) {
      m.members.push_back(member);
      m.members.back().beam = m.frame.beams.size();
      m.frame.beams.push_back({from, to, section.beam, force::stiffness_of(*material), Vec3::UnitX(), {}});
    };
    if (sprung) {
      const Vec3 at = t.top.vec() + share * (node(m.frame, lower) - t.top.vec());
      const int middle = (at - node(m.frame, anchor)).norm() < 1e-6 ? anchor : add_node(m.frame, at);
      beam(upper, middle);
      beam(middle, lower);
      link(m.frame, middle, anchor, stiff_section(), steel);
    } else {
      beam(upper, lower);
    }
  }
  if (sprung) strut_to_airframe(m.frame, anchor, leg.spring.anchor_airframe.vec());
}

}  // namespace

MemberSection round_member(double outer, double wall) {
  return {force::tube_section(outer, wall), outer, wall, 0, 0, 0, true};
}

MemberSection rectangular_member(double width, double thickness, double bore) {
  force::BeamSection beam = force::leaf_section(width, thickness);
  const double hole = std::numbers::pi * std::pow(bore, 4) / 64;
  beam.area -= std::numbers::pi * bore * bore / 4;
  beam.first -= hole;
  beam.second -= hole;
  beam.torsion -= 2 * hole;
  return {beam, 0, 0, width, thickness, bore, false};
}

MemberSection streamlined_member(double width, double thickness) {
  MemberSection s{force::streamlined_section(width, thickness), 0, 0, width, thickness, 0, false};
  s.streamlined = true;
  return s;
}

double MemberSection::stress(const SectionLoad& l) const {
  if (round) return round_stress(outer, wall, l).von_mises;
  if (streamlined) {
    const double thin = force::streamlined_modulus * width * thickness * thickness / 6;
    const double deep = force::streamlined_edge_modulus * thickness * width * width / 6;
    const double normal =
        std::abs(l.axial) / beam.area + std::abs(l.bending_1) / thin + std::abs(l.bending_2) / deep;
    const double shear = std::abs(l.torque) * thickness / beam.torsion;  // of a thin section, at its thickest
    return std::sqrt(normal * normal + 3 * shear * shear);
  }
  const double b = std::max(width, thickness);
  const double t = std::min(width, thickness);
  const double hole = std::numbers::pi * std::pow(bore, 4) / 64;
  const double normal = std::abs(l.axial) / beam.area +
                        std::abs(l.bending_1) * thickness / 2 / (width * std::pow(thickness, 3) / 12 - hole) +
                        std::abs(l.bending_2) * width / 2 / (thickness * std::pow(width, 3) / 12 - hole);
  const double shear =
      std::abs(l.torque) * (3 + 1.8 * t / b) / (b * t * t) * (beam.torsion + 2 * hole) / beam.torsion;
  return std::sqrt(normal * normal + 3 * shear * shear);
}

LegFrame frame_of(const Design& d, const Leg& leg) {
  LegFrame m;
  if (leg.tubes.empty())
    model_strut(d, leg, m);
  else
    model_tubes(d, leg, m);
  if (!m.missing.empty()) return m;
  m.wheel = (leg.axle.vec() - motion::foot(leg)).norm() > 1e-6 ? add_node(m.frame, leg.axle.vec()) : m.foot;
  link(m.frame, m.foot, m.wheel,
       leg.axle_diameter.known() ? force::round_section(leg.axle_diameter) : stiff_section(), steel);
  return m;
}

}  // namespace kranich::leg
