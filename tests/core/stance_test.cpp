// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stance/stance.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/base/quantity.h"
#include "core/place/place.h"
#include "said.h"

using namespace kranich;
using stance::LegLaw;
using stance::Rest;
using stance::WheelOnLeg;

namespace {

WheelOnLeg wheel(double x, double y, double z, double radius, double leg_rate, double preload = 0,
                 double travel = 0.2) {
  LegLaw law;
  law.kind = LegLaw::Kind::linear;
  law.rate = leg_rate;
  law.preload = preload;
  law.travel = travel;
  return {force::straight_leg({x, y, z}, law), radius, {180000}};
}

std::vector<WheelOnLeg> tricycle() {
  return {wheel(0.7, 0, -0.57, 0.165, 24000), wheel(2.46, -1.0, -0.55, 0.19, 46000),
          wheel(2.46, 1.0, -0.55, 0.19, 46000)};
}

Rest rest_of(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels) {
  const auto r = stance::solve(mass, cg, wheels);
  if (const auto* no = std::get_if<stance::NoRest>(&r)) FAIL(no->reason);
  return std::get<Rest>(r);
}

//! Force and moments about the CG, from the wheels' contact points turned into ground axes by rotation
//! matrices: another way than the solver's.
Vec3 imbalance(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels, const Rest& rest) {
  // Pitch nose-up turns right-handed about +y, roll starboard-down left-handed about +x; pitch before roll.
  const Mat3 to_ground =
      (Eigen::AngleAxisd(rest.pitch, Vec3::UnitY()) * Eigen::AngleAxisd(-rest.roll, Vec3::UnitX()))
          .toRotationMatrix();
  Vec3 sum(mass * -standard_gravity, 0, 0);
  const Vec3 centre = to_ground * cg;
  for (size_t i = 0; i < wheels.size(); ++i) {
    const double f = rest.wheels[i].load;
    Vec3 in_plane = to_ground * Vec3(0, 1, 0);           // the wheel's axle on the ground
    in_plane = Vec3(0, 0, 1) - in_plane.z() * in_plane;  // up, within the wheel's plane
    const Vec3 contact = to_ground * stance::axle_at_rest(wheels[i], rest.wheels[i]) -
                         wheels[i].radius * in_plane.normalized();
    sum.x() += f;
    sum.y() += f * (contact.x() - centre.x());
    sum.z() += f * (contact.y() - centre.y());
  }
  return sum;
}

}  // namespace

TEST_CASE("every reported rest balances, found another way") {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> u(-1, 1);
  int solved = 0;
  for (int i = 0; i < 200; ++i) {
    auto wheels = tricycle();
    for (auto& w : wheels) {
      w.leg.axle += 0.03 * Vec3(u(random), u(random), u(random));
      w.leg.law.rate *= 1 + 0.5 * u(random);
      w.leg.law.preload = 300 * (1 + u(random));
      w.leg.most = 0.03 + 0.1 * std::abs(u(random));  // some reach their stops
    }
    const Vec3 cg(2.1 + 0.25 * u(random), 0.05 * u(random), 0.3);
    const auto r = stance::solve(600, cg, wheels);
    const auto* rest = std::get_if<Rest>(&r);
    if (!rest) continue;
    ++solved;
    const Vec3 miss = imbalance(600, cg, wheels, *rest) / (600 * standard_gravity);
    CHECK(std::abs(miss.x()) < 1e-9);
    CHECK(std::abs(miss.y()) < 1e-9);
    CHECK(std::abs(miss.z()) < 1e-9);
  }
  CHECK(solved == 200);
}

TEST_CASE("a mirrored aircraft rests mirrored") {
  auto wheels = tricycle();
  wheels[2].leg.law.rate *= 0.8;
  const auto a = rest_of(610, {2.15, 0.04, 0.3}, wheels);
  auto twin = tricycle();
  twin[1].leg.law.rate *= 0.8;
  const auto b = rest_of(610, {2.15, -0.04, 0.3}, twin);
  CHECK(a.pitch == Approx(b.pitch).epsilon(1e-10));
  CHECK(a.roll == Approx(-b.roll).epsilon(1e-10));
  CHECK(a.wheels[1].load == Approx(b.wheels[2].load).epsilon(1e-10));
}

TEST_CASE("Froude's law: lengths by s, masses by s³, rates by s²") {
  const double s = 5;
  const auto full = rest_of(610, {2.15, 0.02, 0.3}, tricycle());
  auto small = tricycle();
  for (auto& w : small) {
    w.leg.axle /= s;
    w.radius /= s;
    w.tyre.rate /= s * s;
    w.leg.law.rate /= s * s;
    w.leg.most /= s;
  }
  const auto model = rest_of(610 / (s * s * s), Vec3(2.15, 0.02, 0.3) / s, small);
  CHECK(model.pitch == Approx(full.pitch).epsilon(1e-8));
  CHECK(model.heave == Approx(full.heave / s).epsilon(1e-8));
  CHECK(model.wheels[0].load == Approx(full.wheels[0].load / (s * s * s)).epsilon(1e-8));
}

TEST_CASE("a wheel off the ground comes first and the others still carry") {
  // Four wheels in a row of which the first hangs in the air: a small one far up.
  auto wheels = tricycle();
  wheels.insert(wheels.begin(), wheel(1.5, 0, 0.2, 0.05, 20000));
  const auto r = rest_of(610, {2.15, 0, 0.3}, wheels);
  CHECK_FALSE(r.wheels[0].touches);
  CHECK(r.wheels[0].load == 0);
  const auto without = rest_of(610, {2.15, 0, 0.3}, tricycle());
  CHECK(r.wheels[1].load == Approx(without.wheels[0].load).epsilon(1e-9));
}

TEST_CASE("a CG outside the wheels tips it over, and says onto what") {
  const auto tail = stance::solve(610, {2.6, 0, 0.3}, tricycle());
  REQUIRE(std::holds_alternative<stance::NoRest>(tail));
  CHECK(std::get<stance::NoRest>(tail).towards == stance::NoRest::Towards::tail);
  const auto nose = stance::solve(610, {0.4, 0, 0.3}, tricycle());
  REQUIRE(std::holds_alternative<stance::NoRest>(nose));
  CHECK(std::get<stance::NoRest>(nose).towards == stance::NoRest::Towards::nose);
  const auto side = stance::solve(610, {2.2, 1.2, 0.3}, tricycle());
  REQUIRE(std::holds_alternative<stance::NoRest>(side));
  CHECK(std::get<stance::NoRest>(side).towards == stance::NoRest::Towards::starboard);
}

TEST_CASE("stiff legs come to the rigid aircraft's attitude") {
  auto wheels = tricycle();
  for (auto& w : wheels) {
    w.leg.most = 0;
    w.tyre.rate = 1e9;
  }
  const auto r = rest_of(610, {2.15, 0, 0.3}, wheels);
  const auto pitch = place::pitch_on({0.7, -0.57, 0.165}, {2.46, -0.55, 0.19});
  REQUIRE(pitch);
  CHECK(r.pitch == Approx(*pitch).margin(1e-5));
}

TEST_CASE("a shim of s lifts the nose by about s over the wheelbase") {
  const Vec3 cg(2.15, 0, 0.3);
  const auto before = rest_of(610, cg, tricycle());
  const auto shim = stance::longer_legs_for_pitch(610, cg, tricycle(), {0}, before.pitch + radians(0.3));
  REQUIRE(shim);
  CHECK(*shim == Approx(radians(0.3) * 1.76).epsilon(0.12));
  auto wheels = tricycle();
  wheels[0].leg.axle.z() -= *shim;
  CHECK(rest_of(610, cg, wheels).pitch == Approx(before.pitch + radians(0.3)).margin(1e-9));
}

TEST_CASE("a gas law's energy is the integral of its force, its inverse is exact") {
  LegLaw gas;
  gas.kind = LegLaw::Kind::gas;
  gas.piston_area = 0.0011;
  gas.volume = 0.00027;
  gas.pressure = 1.05e6;
  gas.ambient = 101325;
  gas.travel = 0.18;
  for (const double exponent : {1.0, 1.3}) {
    gas.exponent = exponent;
    double work = 0;
    const int n = 20000;
    for (int i = 0; i < n; ++i) work += gas.force((i + 0.5) * gas.travel / n) * gas.travel / n;
    CHECK(gas.energy(gas.travel) == Approx(work).epsilon(1e-6));
    for (const double s : {0.01, 0.1, 0.17}) {
      CHECK(gas.closure(gas.force(s)) == Approx(s).epsilon(1e-10));
      CHECK(gas.slope(s) == Approx((gas.force(s + 1e-6) - gas.force(s - 1e-6)) / 2e-6).epsilon(1e-6));
    }
    CHECK(gas.closure(0.9 * gas.force(0)) == 0);
    CHECK(gas.closure(1e9) == gas.travel);
  }
}

TEST_CASE("mains that sink until the CG is behind them: told which way, and with ballast") {
  // The CG 40 mm ahead of mains whose soft legs sink by 0.3 m on a base of 1.2 m: 14° nose-up puts a CG that
  // is 0.9 m above the ground 0.2 m further back.
  Design d;
  force::LegLaw soft;
  soft.kind = force::LegLaw::Kind::linear;
  soft.rate = 2000;
  soft.travel = 0.3;
  std::vector<stance::WheelOnLeg> wheels(3);
  const Vec3 at[] = {{1, 0, -0.7}, {2.2, -0.8, -0.7}, {2.2, 0.8, -0.7}};
  for (size_t i = 0; i < 3; ++i) {
    wheels[i].leg = force::straight_leg(at[i], soft);
    wheels[i].radius = 0.2;
    wheels[i].tyre.rate = 200000;
  }
  const auto rest = stance::solve(500, {2.16, 0, 0.0}, wheels);
  const auto* none = std::get_if<stance::NoRest>(&rest);
  REQUIRE(none);
  CHECK(none->towards == stance::NoRest::Towards::tail);
  CHECK(says(none->reason, "the rear legs sink to their stops"));
  CHECK(says(none->reason, "behind their wheels"));
}
