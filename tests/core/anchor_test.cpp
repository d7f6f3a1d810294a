// SPDX-License-Identifier: GPL-3.0-or-later
//! Where an end of a drive may stand: the map against the checks of designs with the end moved there.
#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

#include "core/assess/anchor_map.h"
#include "core/assess/assess.h"
#include "core/assess/drive_offers.h"
#include "core/model/locate.h"
#include "demo.h"

using namespace kranich;

namespace {

//! Legs that a cylinder moves, and the same by an actuator.
std::vector<std::pair<Design, std::string>> cases() {
  std::vector<std::pair<Design, std::string>> list;
  const Design d = demo("dunnock");
  for (const Leg& leg : d.gear.legs)
    if (leg.retraction.fitted && leg.retraction.drive.kind == DriveKind::cylinder) {
      list.emplace_back(d, leg.id);
      Design other = d;
      Drive& r = other.gear.find(leg.id)->retraction.drive;
      r.kind = DriveKind::actuator;
      r.force = Given(1500.0);
      list.emplace_back(other, leg.id);
    }
  return list;
}
Vec3 plane_of(const Leg& leg) {
  return leg.retraction.direction == SwingDirection::inward ||
                 leg.retraction.direction == SwingDirection::outward
             ? Vec3(Vec3::UnitY())
             : Vec3(Vec3::UnitX());
}
AnchorModel model_of(const Design& d, const std::string& leg, AnchorEnd end) {
  const Leg& l = *d.gear.find(leg);
  auto made = AnchorModel::of(d, l, end, plane_of(l));
  REQUIRE(std::holds_alternative<AnchorModel>(made));
  return std::get<AnchorModel>(made);
}
Design moved(Design d, const std::string& leg, AnchorEnd end, const Vec3& to) {
  Drive& r = d.gear.find(leg)->retraction.drive;
  (end == AnchorEnd::airframe ? r.on_airframe : r.on_leg).set(to);
  return d;
}
const Finding* of(const Assessment& a, std::string_view id, const std::string& leg) {
  for (const Finding& f : a.findings)
    if (f.measure_id == id && f.subject.leg == leg) return &f;
  return nullptr;
}
//! The map's figures against the findings of the design as it is.
void agree(const AnchorFigures& f, const Design& d, const std::string& leg) {
  const Assessment a = assess(d, Stations::only(Station::drive));
  const auto same = [&](std::string_view id, double value) {
    const Finding* found = of(a, id, leg);
    INFO(id);
    if (!found || !std::isfinite(found->value)) return;
    CHECK(value == Approx(found->value).epsilon(3e-3).margin(2e-4));
  };
  if (f.arm > 0) {
    same("drive.arm", f.arm);
    same("drive.force", f.force);
    same("drive.column", f.column);
  } else {
    REQUIRE(of(a, "drive.arm", leg));
    CHECK(of(a, "drive.arm", leg)->verdict == Verdict::fails);
  }
  same("drive.stroke", f.stroke);
}

}  // namespace

TEST_CASE("the map of an end says what the checks say, where it stands and wherever it is moved") {
  const auto list = cases();
  REQUIRE(list.size() == 4);
  std::mt19937 random(3);
  std::uniform_real_distribution<double> share(-1, 1);
  for (const auto& [d, leg] : list)
    for (const AnchorEnd end : {AnchorEnd::airframe, AnchorEnd::leg}) {
      const auto model = model_of(d, leg, end);
      INFO(d.about.name << " " << leg);
      agree(model.at({0, 0}), d, leg);
      const double half = model.map(2).area.x_high;
      for (int i = 0; i < 8; ++i) {
        const Eigen::Vector2d to(half * share(random), half * share(random));
        INFO(to.x() << " " << to.y());
        agree(model.at(to), moved(d, leg, end, model.place(to)), leg);
      }
    }
}

TEST_CASE(
    "inside the clear nothing fails, outside something does, and a boundary is where its limit is met") {
  for (const auto& [d, leg] : cases())
    for (const AnchorEnd end : {AnchorEnd::airframe, AnchorEnd::leg}) {
      const auto model = model_of(d, leg, end);
      const auto m = model.map();
      INFO(d.about.name << " " << leg);
      const auto fails = [&](const AnchorFigures& f, double near) {
        return f.arm < 1e-6 + near * 0.01 || f.force < near || f.stroke < near * 0.01 || f.column < near ||
               f.room < near * 0.01;
      };
      std::mt19937 random(5);
      std::uniform_real_distribution<double> x(m.area.x_low, m.area.x_high);
      int in = 0, out = 0, wrong = 0;
      for (int i = 0; i < 400; ++i) {
        const Eigen::Vector2d at(x(random), x(random));
        const auto f = model.at(at);
        if (any_holds(m.clear, at)) {
          ++in;
          wrong += fails(f, -0.12);
        } else {
          ++out;
          wrong += !fails(f, 0.12);
        }
      }
      // Where the drive is nearly nothing long the force turns within a cell: a point in a hundred.
      CHECK(in + out == 400);
      CHECK(wrong <= 4);
      CHECK(m.in_the_clear == !fails(model.at({0, 0}), 0));
      if (m.nearest) CHECK_FALSE(fails(model.at(*m.nearest), -0.12));
      // Within a cell of every point of a boundary its limit is met on one side and not on the other.
      const double cell = (m.area.x_high - m.area.x_low) / (m.area.columns - 1);
      for (const auto& b : m.boundaries)
        for (const auto& curve : b.curves)
          for (const auto& p : curve) {
            bool met = false, missed = false;
            for (const double dx : {-1.0, -0.5, 0.0, 0.5, 1.0})
              for (const double dy : {-1.0, -0.5, 0.0, 0.5, 1.0}) {
                const auto f = model.at(p + cell * Eigen::Vector2d(dx, dy));
                const double value = b.measure == "drive.arm"      ? f.arm
                                     : b.measure == "drive.force"  ? f.force
                                     : b.measure == "drive.stroke" ? f.stroke
                                     : b.measure == "drive.column" ? f.column
                                                                   : f.room;
                // A rod that only pulls, or not at all, does not bow.
                (value >= 0 || std::isnan(value) ? met : missed) = true;
              }
            INFO(b.measure << " " << p.x() << " " << p.y());
            CHECK(met);
            CHECK(missed);
          }
    }
}

TEST_CASE("ten millimetres gain most along the arrow") {
  int looked = 0;
  for (const auto& [d, leg] : cases())
    for (const AnchorEnd end : {AnchorEnd::airframe, AnchorEnd::leg}) {
      const auto model = model_of(d, leg, end);
      const auto m = model.map(8);
      if (!m.worth) continue;
      ++looked;
      INFO(d.about.name << " " << leg);
      CHECK(m.worth->way.norm() == Approx(1));
      const double here = model.at({0, 0}).force;
      CHECK(m.worth->gain == Approx(model.at(0.010 * m.worth->way).force - here));
      // To first order: a millimetre any other way gains less.
      const double along = model.at(0.001 * m.worth->way).force - here;
      CHECK(along > 0);
      for (int i = 0; i < 24; ++i) {
        const double angle = i * 2 * M_PI / 24;
        CHECK(model.at({0.001 * std::cos(angle), 0.001 * std::sin(angle)}).force - here <=
              along * 1.02 + 1e-9);
      }
    }
  CHECK(looked >= 2);
}

TEST_CASE("a body in the way bounds where its end may stand; what lacks a number is named") {
  Design d = demo("dunnock");
  const std::string leg = cases().front().second;
  Leg& l = *d.gear.find(leg);
  DriveSold& sold = l.retraction.drive_sold;
  sold.length = Given(0.2);
  sold.width = sold.height = Given(0.03);
  const Vec3 from = l.retraction.drive.on_airframe.vec();
  // A wall two hundredths beside the end, across the plane.
  KeepOut wall;
  wall.name = "wall";
  wall.low.set(from + Vec3(-0.5, 0.06, -0.5));
  wall.high.set(from + Vec3(0.5, 0.08, 0.5));
  d.airframe.keep_outs = {wall};
  const auto model =
      std::get<AnchorModel>(AnchorModel::of(d, *d.gear.find(leg), AnchorEnd::airframe, Vec3(Vec3::UnitY())));
  const DriveBody body(d, sold);
  REQUIRE(body.known());
  // The end right in the wall is in it; a metre away it is not.
  CHECK(model.at({0.07, 0}).room < 0);
  CHECK(model.at({-1, 0}).room > 0.5);
  const auto m = model.map();
  CHECK(
      std::any_of(m.boundaries.begin(), m.boundaries.end(), [](const auto& b) { return b.measure.empty(); }));
  d.gear.find(leg)->retraction.drive.stroke = Given();
  const auto without =
      std::get<AnchorModel>(AnchorModel::of(d, *d.gear.find(leg), AnchorEnd::airframe, Vec3(Vec3::UnitY())));
  CHECK(in_words(without.map(8).not_judged).find("stroke") != std::string::npos);
  d.gear.find(leg)->retraction.drive.on_leg = Point();
  CHECK(std::holds_alternative<Text>(
      AnchorModel::of(d, *d.gear.find(leg), AnchorEnd::airframe, Vec3(Vec3::UnitY()))));
  d.gear.find(leg)->retraction.drive.kind = DriveKind::servo;
  CHECK(std::holds_alternative<Text>(
      AnchorModel::of(d, *d.gear.find(leg), AnchorEnd::airframe, Vec3(Vec3::UnitY()))));
}

TEST_CASE("a limit of the user's own bounds the map as it bounds the check") {
  for (const auto& [d, leg] : cases()) {
    const double force = model_of(d, leg, AnchorEnd::airframe).at({0, 0}).force;
    INFO(leg << " " << force);
    REQUIRE(force > 0);
    Design own = d;
    OwnLimit limit;
    limit.measure = "drive.force";
    limit.reason = "worn pump";
    limit.lower = Given(force + 0.5);
    own.own_limits = {limit};
    REQUIRE(of(assess(own, Stations::only(Station::drive)), "drive.force", leg)->verdict == Verdict::fails);
    const auto model = model_of(own, leg, AnchorEnd::airframe);
    const auto m = model.map();
    CHECK_FALSE(m.in_the_clear);
    CHECK(model_of(d, leg, AnchorEnd::airframe).map().in_the_clear);
    if (m.nearest) CHECK(model.at(*m.nearest).force > force + 0.3);
    own.own_limits[0].lower = Given(force - 0.2);
    CHECK(model_of(own, leg, AnchorEnd::airframe).map().in_the_clear);
  }
}
