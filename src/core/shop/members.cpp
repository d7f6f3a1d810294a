// SPDX-License-Identifier: GPL-3.0-or-later
#include <cctype>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/leg/geometry.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"
#include "core/shop/sheets.h"

namespace kranich::shop {

namespace {

//! Normal of the face that a member without a hinge is held on: its joint's, else a level one.
Vec3 face_of(const Leg& leg, const std::string& member) {
  for (const auto& j : leg.joints)
    if (j.carries == member || j.carries.empty()) switch (j.face) {
        case JointFace::under:
          return Vec3::UnitZ();
        case JointFace::facing_aft:
          return Vec3::UnitX();
        case JointFace::facing_side:
          return Vec3::UnitY();
      }
  return Vec3::UnitZ();
}

//! Angle about a line between two directions that holes run along, from the first to the second, clockwise as
//! seen along the line; a hole goes through, so within ±90°.
double clocked(const Vec3& line, const Vec3& pin, const Vec3& axle) {
  const Vec3 along = line.normalized();
  const Vec3 a = pin - pin.dot(along) * along, b = axle - axle.dot(along) * along;
  if (a.norm() < 1e-9 || b.norm() < 1e-9) return std::numeric_limits<double>::quiet_NaN();
  double angle = std::atan2(along.dot(a.cross(b)), a.dot(b));
  if (angle > std::numbers::pi / 2 + 1e-9) angle -= std::numbers::pi;
  if (angle <= -std::numbers::pi / 2 + 1e-9) angle += std::numbers::pi;
  return angle;
}

}  // namespace

std::vector<MemberLine> members_of(const Design& d) {
  std::vector<MemberLine> list;
  const double nan = std::numeric_limits<double>::quiet_NaN();
  for (const Leg& leg : d.gear.legs) {
    if (!leg.axle.known() || leg.spring.kind == SpringKind::bending) continue;
    const std::string word = in_words(d.leg_word(leg), {d.units});
    const Vec3 axle_line = motion::axle_direction(leg);
    const Vec3 pin = leg.retraction.fitted
                         ? motion::stowing_direction(leg.retraction.direction).cwiseAbs().eval()
                     : leg.path == LegPath::hinged_fore_and_aft ? Vec3(1, 0, 0)
                     : leg.path == LegPath::hinged_athwartships ? Vec3(0, 1, 0)
                                                                : Vec3::Zero();
    const auto add = [&](const std::string& part, const std::string& material, double diameter, double wall,
                         double width, double thickness, const Vec3& top, const Vec3& foot) {
      if (!top.allFinite() || !foot.allFinite() || (foot - top).norm() < 1e-6) return;
      list.push_back(
          {word, part, material, diameter, wall, width, thickness, foot - top, leg::tube_geometry(top, foot),
           pin.norm() > 0 ? leg::drill_angle(foot - top, pin)
                          : std::numbers::pi / 2 - leg::drill_angle(foot - top, face_of(leg, part)),
           leg::drill_angle(foot - top, axle_line),
           std::isfinite(diameter) && pin.norm() > 0 ? clocked(foot - top, pin, axle_line) : nan,
           leg.stands == LegStands::both_sides ? 2 : 1});
    };
    for (const auto& t : leg.tubes)
      add(t.name, t.material, t.diameter, t.wall, nan, nan, t.top.vec(),
          t.foot.known() ? t.foot.vec() : motion::foot(leg));
    const bool flat = leg.section == LegSection::rectangle || leg.section == LegSection::streamlined;
    const auto strut = [&](const std::string& part, const Vec3& top, const Vec3& foot) {
      add(part, leg.material, flat ? nan : leg.tube_diameter.si,
          leg.section == LegSection::tube ? leg.tube_wall.si : nan, flat ? leg.section_width.si : nan,
          flat ? leg.section_thickness.si : nan, top, foot);
    };
    const Vec3 above = motion::strut_above_hinge(leg);
    if (above.allFinite()) {
      strut("strut above the hinge", above, leg.hinge.vec());
      strut("arm", leg.hinge.vec(), motion::foot(leg));
    } else if (leg.tubes.empty()) {
      strut("leg", leg.held_at(), motion::foot(leg));
    }
  }
  return list;
}

std::string file_name(const Sheet& sheet) {
  std::string name;
  for (const char c : sheet.id)
    if (std::isalnum(static_cast<unsigned char>(c)))
      name += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    else if (!name.empty() && name.back() != '-')
      name += '-';
  while (!name.empty() && name.back() == '-') name.pop_back();
  return name;
}

BendingPlan bending_plan(const std::vector<Vec3>& line, double d) {
  BendingPlan plan{{}, 0};
  const double radius = 2 * d + d / 2;  // of the neutral line
  double along = 0;
  Vec3 last_axis = Vec3::Zero();
  double taken = 0;  // tangent of the bend before, taken off this length's start
  for (size_t i = 0; i + 1 < line.size(); ++i) {
    const Vec3 here = line[i + 1] - line[i];
    double length = here.norm() - taken;
    taken = 0;
    if (i + 2 < line.size()) {
      const Vec3 next = line[i + 2] - line[i + 1];
      const double angle = leg::angle_between(here, next);
      if (angle > radians(0.5)) {
        const double tangent = radius * std::tan(angle / 2);
        length -= tangent;
        taken = tangent;
        const Vec3 axis = here.cross(next).normalized();
        double turned = 0;
        if (last_axis.norm() > 0) {
          turned = leg::angle_between(last_axis, axis);
          if (last_axis.cross(axis).dot(here) < 0) turned = -turned;
        }
        last_axis = axis;
        plan.bends.push_back({along + length, angle, turned, radius - d / 2});
        along += length + radius * angle;
        continue;
      }
    }
    along += length;
  }
  plan.length = along;
  return plan;
}

}  // namespace kranich::shop
