// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/anchor_map.h"

#include <algorithm>
#include <cmath>

#include "core/assess/collector.h"
#include "core/assess/drive_state.h"
#include "core/base/measure.h"
#include "core/place/keepout.h"

namespace kranich {

DriveBody::DriveBody(const Design& d, const DriveSold& sold)
    : length_(sold.width.known() && sold.height.known() && sold.length.known() ? sold.length.si
                                                                               : AnchorFigures::unknown),
      radius_(std::max(sold.width.si, sold.height.si) / 2) {
  for (const KeepOut& k : d.airframe.keep_outs)
    for (const auto& solid : place::solids_of(k))
      for (const auto& side : {solid, motion::mirrored(solid)}) solids_.push_back(side);
}

double DriveBody::room(const Vec3& from, const Vec3& to) const {
  if (!known()) return AnchorFigures::unknown;
  const motion::Capsule body{from, from + length_ * (to - from).normalized(), radius_};
  double least = std::numeric_limits<double>::infinity();
  for (const auto& solid : solids_) least = std::min(least, nearest(body, solid).distance);
  return least;
}

std::variant<AnchorModel, Text> AnchorModel::of(const Design& d, const Leg& leg, AnchorEnd end,
                                                const Vec3& across) {
  const Drive& r = leg.retraction.drive;
  if (!is_strut(r.kind)) return Text("an actuator or a cylinder");
  auto made = drive_load(d, leg);
  if (auto* missing = std::get_if<Text>(&made)) return std::move(*missing);
  const auto strut = actuator_of(leg);
  if (!strut) return Text("both ends of the drive");
  const drive::LegLoad& flying = std::get<DriveLoad>(made).load;
  const drive::LegLoad still = on_jacks(flying);
  AnchorModel m(d, leg.retraction.drive_sold);
  m.axis_ = flying.moves.axis;
  m.strut_ = *strut;
  m.end_ = end;
  m.here_ = end == AnchorEnd::airframe ? strut->on_airframe : strut->on_leg;
  m.across_ = across;
  m.own_ = d.own_limits;
  for (size_t i = 0; i <= turns; ++i) {
    const double turn = flying.moves.full_turn * static_cast<double>(i) / turns;
    m.turns_.push_back({flying.moves.pose(motion::Carried::leg, turn),
                        {flying.to_retract(turn), still.to_retract(turn)},
                        {-flying.to_extend(turn), -still.to_extend(turn)}});
  }
  if (r.stroke.known()) m.stroke_ = r.stroke;
  if (r.kind == DriveKind::cylinder) m.cylinder_ = cylinder_of(leg);
  // What air gives goes with where the ends stand: the bottle falls by what the strokes take. It is not
  // judged here.
  if (const auto [push, pull] = strut_can(d, leg);
      r.kind != DriveKind::air && std::isfinite(push) && std::isfinite(pull)) {
    m.push_ = push;
    m.pull_ = pull;
  }
  return m;
}

AnchorFigures AnchorModel::at(const Eigen::Vector2d& moved) const {
  drive::Strut s = strut_;
  (end_ == AnchorEnd::airframe ? s.on_airframe : s.on_leg) = place(moved);
  AnchorFigures f;
  double shortest = std::numeric_limits<double>::infinity(), longest = 0;
  double least = std::numeric_limits<double>::infinity(), most = -least, largest = 0;
  double hand = std::numeric_limits<double>::infinity(), pushes = 0;
  for (const Turn& t : turns_) {
    const Vec3 ball = t.pose * s.on_leg;
    const Vec3 line = ball - s.on_airframe;
    const double length = line.norm();
    const double arm = line.dot(axis_.direction.cross(ball - axis_.point)) / length;
    shortest = std::min(shortest, length);
    longest = std::max(longest, length);
    least = std::min(least, arm);
    most = std::max(most, arm);
    largest = std::max(largest, std::abs(arm));
    for (const auto* torques : {&t.up, &t.down})
      for (const double torque : *torques) {
        const double force = torque / arm;
        pushes = std::max(pushes, force);
        if (force != 0) hand = std::min(hand, (force > 0 ? push_ : pull_) / std::abs(force) - 1);
      }
  }
  // One sign over the travel: the lesser of both ends. Both signs: how far past.
  f.arm = least > 0 || most < 0 ? std::min(std::abs(least), std::abs(most)) : -std::min(-least, most);
  f.largest_arm = largest;
  f.range = longest - shortest;
  f.stroke = stroke_ - f.range;
  const bool dead = !(f.arm > 0);
  if (std::isfinite(push_)) f.force = dead ? -1 : hand;
  if (cylinder_ && pushes > 0 && !dead) {
    drive::HydraulicCylinder c = *cylinder_;
    c.pinned_length = longest;
    f.column = c.column_load() / (1.5 * pushes) - 1;
  }
  f.room = std::fmin(body_.room(s.on_airframe, turns_.front().pose * s.on_leg),
                     body_.room(s.on_airframe, turns_.back().pose * s.on_leg));
  return f;
}

AnchorMap AnchorModel::map(int nodes) const {
  const double half = 0.5 * (strut_.on_leg - strut_.on_airframe).norm();
  AnchorMap m;
  m.area = {-half, half, -half, half, nodes, nodes};
  struct Side {
    std::string_view measure;
    Text name;
    double AnchorFigures::*figure;
    Limit limit;  //!< what is tight of arm and stroke goes by the present place's
    bool applies, known;
    MapField field, easy_field;
  };
  const AnchorFigures here = at({0, 0});
  std::vector<Side> sides{
      {"drive.arm", "dead centre", &AnchorFigures::arm, arm_limit(here.largest_arm), true, true, {}, {}},
      {"drive.force", "force", &AnchorFigures::force, force_limit(), true, std::isfinite(push_), {}, {}},
      {"drive.stroke",
       "stroke",
       &AnchorFigures::stroke,
       stroke_limit(here.range),
       true,
       std::isfinite(stroke_),
       {},
       {}},
      {"drive.column",
       "rod bows out",
       &AnchorFigures::column,
       column_limit(),
       cylinder_.has_value(),
       true,
       {},
       {}},
      {"",
       "room of its body",
       &AnchorFigures::room,
       at_least(0, "it must not run into the structure"),
       body_.beside_anything(),
       body_.known(),
       {},
       {}}};
  for (Side& side : sides)
    if (!side.measure.empty()) side.limit = with_own(own_, side.measure, std::move(side.limit));
  // How far a figure is inside its limit, and inside what is not tight.
  const auto spare = [&](const Side& side, const AnchorFigures& f) {
    const double value = f.*side.figure;
    // A rod that only pulls does not bow; past a dead centre that says it all.
    if (!std::isfinite(value)) return std::pair{1.0, 1.0};
    const Limit& limit = side.limit;
    const Judgement j = judge(value, limit, side.measure.empty() ? 0 : measure(side.measure).zero_scale);
    double easy = side.measure.empty() ? j.margin : j.margin_fraction - 0.1;
    if (limit.hold_lower) easy = std::min(j.margin, value - *limit.hold_lower);
    return std::pair{j.margin, easy};
  };
  std::vector<Text> lacking;
  for (const Side& side : sides)
    if (side.applies && !side.known) lacking.push_back(side.name);
  std::erase_if(sides, [](const Side& side) { return !side.applies || !side.known; });
  for (Side& side : sides) {
    side.field.resize(m.area.nodes());
    side.easy_field.resize(m.area.nodes());
  }
  for (int row = 0; row < nodes; ++row)
    for (int column = 0; column < nodes; ++column) {
      const AnchorFigures f = at(m.area.node(column, row));
      const auto node = static_cast<size_t>(row * nodes + column);
      for (Side& l : sides) {
        const auto [margin, easy] = spare(l, f);
        l.field[node] = static_cast<float>(margin);
        l.easy_field[node] = static_cast<float>(easy);
      }
    }
  std::vector<const MapField*> fields;
  for (const Side& l : sides) fields.push_back(&l.field);
  m.clear = pieces_within(m.area, fields);
  for (const Side& l : sides) fields.push_back(&l.easy_field);
  m.easy = pieces_within(m.area, fields);
  m.in_the_clear =
      std::all_of(sides.begin(), sides.end(), [&](const Side& l) { return spare(l, here).first >= 0; });
  if (!m.in_the_clear) m.nearest = nearest_in(m.area, m.clear, {0, 0});
  for (Side& l : sides) {
    auto curves = zero_lines(m.area, l.field);
    if (!curves.empty()) m.boundaries.push_back({l.measure, l.name, std::move(curves)});
  }
  if (!lacking.empty()) m.not_judged = enumerated(std::move(lacking));
  if (std::isfinite(here.force) && here.arm > 0) {
    constexpr double step = 1e-3;
    const Eigen::Vector2d slope((at({step, 0}).force - at({-step, 0}).force) / (2 * step),
                                (at({0, step}).force - at({0, -step}).force) / (2 * step));
    if (slope.allFinite() && slope.norm() > 0) {
      const Eigen::Vector2d way = slope.normalized();
      m.worth = AnchorMap::Worth{way, at(0.010 * way).force - here.force};
    }
  }
  return m;
}

}  // namespace kranich
