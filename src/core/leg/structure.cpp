// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/structure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/force/bent_leg.h"
#include "core/force/materials.h"
#include "core/leg/joints.h"
#include "core/leg/leg_frame.h"
#include "core/leg/strength.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"

namespace kranich::leg {
namespace {

Vec3 acts_at(const Leg& leg, const LoadCase& c) {
  Vec3 at = leg.axle.vec();
  if (c.at_ground) at.z() -= leg.wheel.diameter / 2;
  return at;
}

//! The least of many margins of one part: the case that decides stays.
class Worst {
 public:
  explicit Worst(std::string part) { best_.part = std::move(part); }
  void offer(double margin, const Text& decides, const std::string& in_case, double load, double stress,
             double allowed, const Vec3& at) {
    if (!std::isfinite(margin) || (std::isfinite(best_.margin) && margin >= best_.margin)) return;
    best_.margin = margin;
    best_.decides = decides;
    best_.in_case = in_case;
    best_.load = load;
    best_.stress = stress;
    best_.allowed = allowed;
    best_.at = at;
  }
  PartMargin& part() { return best_; }

 private:
  PartMargin best_;
};

struct StrengthCheck {
  double margin, allowed;
};
StrengthCheck against(double stress, const force::Allowable& a, double ultimate) {
  const double yields = std::isfinite(a.yield) ? a.yield / stress : std::numeric_limits<double>::infinity();
  const double breaks = a.ultimate / (ultimate * stress);
  return yields <= breaks ? StrengthCheck{yields - 1, a.yield}
                          : StrengthCheck{breaks - 1, a.ultimate / ultimate};
}

//! Load at which a pin-ended tube gives way as a column: Euler where slender, Johnson's parabola where not.
double column_load(const MemberSection& s, double length, double modulus, double yield) {
  const double inertia = std::min(s.beam.first, s.beam.second);
  const double slender = length / std::sqrt(inertia / s.beam.area);
  const double pi2 = std::numbers::pi * std::numbers::pi;
  const double limit = std::sqrt(2 * pi2 * modulus / yield);
  const double stress = slender >= limit ? pi2 * modulus / (slender * slender)
                                         : yield * (1 - yield * slender * slender / (4 * pi2 * modulus));
  return stress * s.beam.area;
}

//! What presses up on a leg's mount goes on by its post to the spar, where it has one: plate, block and
//! fasteners beside it are left with the rest, and with the moment about them that the post's own place
//! leaves.
JointLoad beside_a_post(const Design& d, const Leg& leg, const Joint& joint, JointLoad load) {
  if (joint.kind == JointKind::pin) return load;
  if (joint.kind == JointKind::post) {  // what the bay takes does not reach it
    if (load.force.z() > 0) load.force.z() *= share_of_post(joint, d.materials);
    return load;
  }
  for (const auto& post : leg.joints) {
    if (post.kind != JointKind::post || post.carries != joint.carries || !post.at.known()) continue;
    const Vec3 up(0, 0, share_of_post(post, d.materials) * std::max(0.0, load.force.z()));
    load.moment -= (post.at.vec() - joint.at.vec()).cross(up);
    load.force -= up;
    break;
  }
  return load;
}

//! What a joint of the whole leg gets from the wheel. One on the centre line holds both legs of a pair (the
//! middle of a bow, a spar box): the other leg's load of the same moment comes on it too, and of a level
//! landing the two moments about the aircraft's length cancel.
JointLoad whole_leg_on(const Leg& leg, const Joint& joint, const std::vector<LoadCase>& cases,
                       const LoadCase& c) {
  const Vec3 at = joint.at.vec();
  JointLoad load{c.name, c.force, (acts_at(leg, c) - at).cross(c.force)};
  if (leg.stands != LegStands::both_sides || !on_centre_line(joint)) return load;
  const auto twin =
      std::find_if(cases.begin(), cases.end(), [&](const LoadCase& other) { return other.name == c.twin; });
  if (twin == cases.end()) return load;
  const Vec3 force = kranich::mirrored(twin->force);
  load.force += force;
  load.moment += (kranich::mirrored(acts_at(leg, *twin)) - at).cross(force);
  return load;
}

void check_members(const Design& d, const LegFrame& m, const std::vector<LoadCase>& cases, const Leg& leg,
                   double ultimate, Structure& out) {
  std::vector<Worst> worst;
  for (const auto& member : m.members)
    if (worst.empty() || worst.back().part().part != member.part) worst.emplace_back(member.part);
  std::vector<std::vector<double>> tension(cases.size(), std::vector<double>(worst.size(), 0));
  std::vector<force::Frame::Loads> loads_of_cases;
  for (const auto& c : cases)
    loads_of_cases.push_back({{m.wheel, c.force, (acts_at(leg, c) - leg.axle.vec()).cross(c.force)}});
  const auto results = m.frame.solve_each(loads_of_cases);
  if (!results) {
    out.mechanism = "these members cannot hold it: a third tube, a brace or a spring between its anchors";
    return;
  }
  for (size_t ci = 0; ci < cases.size(); ++ci) {
    const LoadCase& c = cases[ci];
    const force::FrameResult* solved = &(*results)[ci];
    out.wheel_moved.push_back(solved->moved[static_cast<size_t>(m.wheel)]);
    auto& moved = out.moved.emplace_back();
    auto& stresses = out.stress.emplace_back();
    for (const auto& member : m.members) {
      stresses.push_back({0, 0});
      const auto& b = m.frame.beams[member.beam];
      const auto from = static_cast<size_t>(b.from);
      const auto to = static_cast<size_t>(b.to);
      moved.emplace_back(m.frame.nodes[from] + solved->moved[from], m.frame.nodes[to] + solved->moved[to]);
      const auto at =
          std::find_if(worst.begin(), worst.end(), [&](Worst& w) { return w.part().part == member.part; });
      const auto& e = solved->beams[member.beam];
      auto& carried = tension[ci][static_cast<size_t>(at - worst.begin())];
      if (std::abs(e.tension) > std::abs(carried)) carried = e.tension;
      for (const size_t end : {0u, 1u}) {
        const double stress =
            member.ends[end].stress({e.tension, e.about_first[end], e.about_second[end], e.torque[end]});
        stresses.back()[end] = stress;
        const auto check = against(stress, member.allowed, ultimate);
        at->offer(check.margin, end == 0 ? "bending with axial, upper end" : "bending with axial, lower end",
                  c.name, e.tension, stress, check.allowed, m.frame.nodes[end == 0 ? from : to]);
      }
      if (member.is_column && e.tension < 0) {
        // The whole tube between its ends, as long as top to foot.
        double length = 0;
        for (const auto& other : m.members)
          if (other.part == member.part) {
            const auto& ob = m.frame.beams[other.beam];
            length +=
                (m.frame.nodes[static_cast<size_t>(ob.to)] - m.frame.nodes[static_cast<size_t>(ob.from)])
                    .norm();
          }
        const double carries = column_load(member.ends[0], length, member.modulus, member.allowed.yield);
        at->offer(carries / (ultimate * -e.tension) - 1, "giving way as a column", c.name, e.tension,
                  -e.tension / member.ends[0].beam.area, carries / member.ends[0].beam.area / ultimate,
                  (m.frame.nodes[from] + m.frame.nodes[to]) / 2);
      }
    }
  }
  for (auto& w : worst) {
    auto& p = w.part();
    p.working = {{"load along it, limit", p.load, Kind::force},
                 {"stress at the limit load", p.stress, Kind::stress},
                 {"allowed there", p.allowed, Kind::stress}};
    out.parts.push_back(std::move(p));
  }
  for (const auto& joint : leg.joints) {
    std::vector<JointLoad> loads;
    for (size_t ci = 0; ci < cases.size(); ++ci) {
      const LoadCase& c = cases[ci];
      if (joint.carries.empty()) {
        loads.push_back(beside_a_post(d, leg, joint, whole_leg_on(leg, joint, cases, c)));
        continue;
      }
      for (size_t w = 0; w < worst.size(); ++w)
        if (out.parts[w].part == joint.carries)
          for (const auto& t : leg.tubes)
            if (t.name == joint.carries) {
              const Vec3 foot = t.foot.known() ? t.foot.vec() : motion::foot(leg);
              // What the tube puts on its fitting: pulled towards the foot by a tension.
              loads.push_back(beside_a_post(
                  d, leg, joint, {c.name, tension[ci][w] * (foot - t.top.vec()).normalized(), Vec3::Zero()}));
            }
    }
    out.parts.push_back(check_joint(joint, d.materials, loads, ultimate, out.fasteners));
  }
}

void check_axle(const Design& d, const Leg& leg, const std::vector<LoadCase>& cases, double ultimate,
                Structure& out) {
  const double offset = leg.wheel_offset;
  if (std::abs(offset) < 1e-4) return;  // a fork carries it on both sides
  Worst worst("axle");
  const Material* material = force::find_material(d.materials, leg.axle_material);
  if (!leg.wheel_offset.known())
    worst.part().missing = "how far the wheel stands outboard of the leg (0 in a fork)";
  else if (!leg.axle_diameter.known())
    worst.part().missing = "the axle's diameter";
  else if (!material)
    worst.part().missing = "the axle's material";
  worst.part().at = leg.axle.vec();
  if (worst.part().missing.empty()) {
    const bool hollow = leg.axle_wall.known();
    const double wall = hollow ? std::min(leg.axle_wall.si, leg.axle_diameter / 2) : leg.axle_diameter / 2;
    const auto allowed = force::allowable_of(*material, leg.axle_diameter, false);
    for (const auto& c : cases) {
      const Vec3 along = Vec3(0, offset, 0).normalized();
      const Vec3 moment = (acts_at(leg, c) - motion::foot(leg)).cross(c.force);
      const double torque = 0;  // the wheel turns on it; a brake's torque goes into the leg
      const double bending = (moment - moment.dot(along) * along).norm();
      const auto stress = round_stress(leg.axle_diameter, wall, {c.force.dot(along), bending, 0, torque});
      const auto check = against(stress.von_mises, allowed, ultimate);
      worst.offer(check.margin, "bending where it leaves the leg", c.name, bending, stress.von_mises,
                  check.allowed, motion::foot(leg));
    }
    auto& p = worst.part();
    p.working = {{"moment at the leg, limit", p.load, Kind::moment},
                 {"stress at the limit load", p.stress, Kind::stress},
                 {"allowed there", p.allowed, Kind::stress}};
  }
  out.parts.push_back(std::move(worst.part()));
}

void check_bending_leg(const Design& d, const Leg& leg, const std::vector<LoadCase>& cases, double ultimate,
                       Structure& out) {
  Worst worst("leg");
  const auto chain = force::bending_leg_of(leg, d.materials);
  if (const auto* missing = std::get_if<Text>(&chain)) {
    worst.part().missing = *missing;
    out.parts.push_back(std::move(worst.part()));
    return;
  }
  const auto& bending = std::get<force::BendingLeg>(chain);
  const auto allowed = force::allowable_of(*force::find_material(d.materials, leg.spring.bent.material),
                                           bending.wire_diameter, false);
  std::vector<force::AxleLoad> loads_of_cases;  // what acts at the ground adds its moment at the axle
  for (const auto& c : cases)
    loads_of_cases.push_back({c.force, (acts_at(leg, c) - leg.axle.vec()).cross(c.force)});
  const auto each = force::bend_each(bending, loads_of_cases);
  // The bars between the chain's nodes: the leg's points, and where loops sit.
  if (!each.empty()) {
    const auto& along = each.front().along;
    size_t piece = 0;
    double before = 0;
    const auto point_at = [&](double way) {
      while (piece + 2 < bending.points.size() &&
             way > before + (bending.points[piece + 1] - bending.points[piece]).norm() + 1e-12) {
        before += (bending.points[piece + 1] - bending.points[piece]).norm();
        ++piece;
      }
      return Vec3(bending.points[piece] +
                  (way - before) * (bending.points[piece + 1] - bending.points[piece]).normalized());
    };
    for (size_t i = 0; i + 1 < along.size(); ++i) {
      const Vec3 from = point_at(along[i]);
      const double thickness = bending.wire_diameter > 0 ? bending.wire_diameter : bending.thickness[piece];
      out.bars.push_back({from, point_at(along[i + 1]), thickness, "leg"});
    }
  }
  for (size_t ci = 0; ci < each.size(); ++ci) {
    const LoadCase& c = cases[ci];
    const force::Bent* bent = &each[ci];
    out.wheel_moved.push_back(bent->moved);
    auto& stresses = out.stress.emplace_back();
    for (size_t i = 0; i + 1 < bent->stress.size(); ++i)
      stresses.push_back({bent->stress[i], bent->stress[i + 1]});
    auto& moved = out.moved.emplace_back();
    for (size_t i = 0; i + 1 < bent->line.size(); ++i) moved.emplace_back(bent->line[i], bent->line[i + 1]);
    const auto check = against(bent->largest_stress, allowed, ultimate);
    size_t at = 0;
    while (at + 1 < bent->along.size() && bent->along[at] < bent->largest_at) ++at;
    worst.offer(check.margin,
                bent->largest_at < 1e-9
                    ? Text("bending at the clamp")
                    : say("bending {} from the clamp", Amount{bent->largest_at, Kind::length}),
                c.name, c.force.norm(), bent->largest_stress, check.allowed,
                bending.points[std::min(at, bending.points.size() - 1)]);
    for (size_t k = 0; k < bent->loops.size(); ++k) {
      const auto in_loop = against(bent->loops[k].stress, allowed, ultimate);
      worst.offer(in_loop.margin, say("inside of loop {}", counted(k + 1)), c.name, c.force.norm(),
                  bent->loops[k].stress, in_loop.allowed, leg.axle.vec());
    }
  }
  auto& p = worst.part();
  p.working = {{"load on the wheel, limit", p.load, Kind::force},
               {"stress at the limit load", p.stress, Kind::stress},
               {"allowed there", p.allowed, Kind::stress}};
  out.parts.push_back(std::move(p));
  for (const auto& joint : leg.joints) {
    std::vector<JointLoad> loads;
    for (const auto& c : cases)
      loads.push_back(beside_a_post(d, leg, joint, whole_leg_on(leg, joint, cases, c)));
    out.parts.push_back(check_joint(joint, d.materials, loads, ultimate, out.fasteners));
  }
}

}  // namespace

namespace {

Structure check_pose(const Design& d, const Leg& leg, const std::vector<LoadCase>& cases);

}  // namespace

Structure check_structure(const Design& d, const Leg& leg, const std::vector<LoadCase>& cases) {
  // The drawing shows the leg extended; what is left of each part is that of the pose each case occurs in.
  Structure out = check_pose(d, leg, cases);
  std::vector<double> rises;
  for (const auto& c : cases)
    if (std::find(rises.begin(), rises.end(), c.rise) == rises.end()) rises.push_back(c.rise);
  if (rises.empty() || (rises.size() == 1 && !(rises[0] > 0))) return out;
  std::vector<PartMargin> parts;
  std::vector<FastenerLoad> fasteners;
  for (const double rise : rises) {
    std::vector<LoadCase> here;
    std::vector<size_t> index;
    for (size_t i = 0; i < cases.size(); ++i)
      if (cases[i].rise == rise) {
        here.push_back(cases[i]);
        index.push_back(i);
      }
    Structure posed = check_pose(d, motion::suspended(leg, rise), here);
    if (posed.bars.size() == out.bars.size())
      for (size_t i = 0; i < posed.stress.size() && i < index.size(); ++i)
        if (index[i] < out.stress.size()) out.stress[index[i]] = posed.stress[i];
    for (auto& p : posed.parts) {
      const auto known =
          std::find_if(parts.begin(), parts.end(), [&](const PartMargin& x) { return x.part == p.part; });
      const bool worse =
          known == parts.end() ||
          (std::isfinite(p.margin) && (!std::isfinite(known->margin) || p.margin < known->margin));
      if (known != parts.end()) {
        p.pull = known->pull = std::max(p.pull, known->pull);
        p.twist = known->twist = std::max(p.twist, known->twist);
      }
      if (!worse) continue;
      std::erase_if(fasteners, [&](const FastenerLoad& f) { return f.joint == p.part; });
      for (const auto& f : posed.fasteners)
        if (f.joint == p.part) fasteners.push_back(f);
      if (known == parts.end())
        parts.push_back(std::move(p));
      else
        *known = std::move(p);
    }
  }
  // Parts that are drawn point to where they are when extended.
  for (auto& p : parts)
    for (const auto& drawn : out.parts)
      if (drawn.part == p.part) p.at = drawn.at;
  out.parts = std::move(parts);
  out.fasteners = std::move(fasteners);
  std::stable_sort(out.parts.begin(), out.parts.end(), [](const PartMargin& a, const PartMargin& b) {
    if (std::isfinite(a.margin) != std::isfinite(b.margin)) return std::isfinite(a.margin);
    return std::isfinite(a.margin) && a.margin < b.margin;
  });
  return out;
}

namespace {

Structure check_pose(const Design& d, const Leg& leg, const std::vector<LoadCase>& cases) {
  Structure out;
  const double ultimate = d.load_factors.ultimate;
  if (!leg.axle.known() || !leg.wheel.diameter.known()) return out;
  if (leg.spring.kind == SpringKind::bending) {
    check_bending_leg(d, leg, cases, ultimate, out);
  } else {
    const LegFrame m = frame_of(d, leg);
    if (m.missing.empty()) {
      for (const auto& member : m.members) {
        const auto& b = m.frame.beams[member.beam];
        out.bars.push_back({m.frame.nodes[static_cast<size_t>(b.from)],
                            m.frame.nodes[static_cast<size_t>(b.to)],
                            member.ends[0].round ? member.ends[0].outer : member.ends[0].width, member.part});
      }
      check_members(d, m, cases, leg, ultimate, out);
    } else {
      PartMargin p;
      p.part = "leg";
      p.missing = m.missing;
      p.at = leg.held_at();
      out.parts.push_back(std::move(p));
    }
  }
  check_axle(d, leg, cases, ultimate, out);
  std::stable_sort(out.parts.begin(), out.parts.end(), [](const PartMargin& a, const PartMargin& b) {
    if (std::isfinite(a.margin) != std::isfinite(b.margin)) return std::isfinite(a.margin);
    return std::isfinite(a.margin) && a.margin < b.margin;
  });
  return out;
}

}  // namespace

}  // namespace kranich::leg
