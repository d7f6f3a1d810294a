// SPDX-License-Identifier: GPL-3.0-or-later
//! The space frame against statics: what goes in comes out at the supports, loads add up, finer cuts change
//! nothing.
#include "core/force/frame.h"

#include <Eigen/Eigenvalues>
#include <catch2/catch.hpp>

#include "core/force/leaf.h"

using namespace kranich;
using namespace kranich::force;

namespace {

constexpr Elastic steel{205e9, 79e9};

Beam beam(int from, int to, const BeamSection& s) { return {from, to, s, steel, Vec3::UnitX(), {}}; }

//! Three tubes from a triangle above to one foot.
Frame tripod() {
  Frame f;
  f.nodes = {{-0.3, 0.2, 0}, {0.4, 0.2, 0}, {0.05, 0.9, 0.1}, {0.0, 0.6, -0.7}};
  const auto tube = tube_section(0.03, 0.002);
  for (int i = 0; i < 3; ++i) f.beams.push_back(beam(i, 3, tube));
  f.pinned = {0, 1, 2};
  return f;
}

}  // namespace

TEST_CASE("a tripod's tubes pull and push as three vectors that balance the load") {
  const Frame f = tripod();
  const Vec3 load(300, -200, 1500);
  const auto r = f.solve({{3, load}});
  REQUIRE(r);
  Mat3 directions;
  for (int i = 0; i < 3; ++i) directions.col(i) = (f.nodes[static_cast<size_t>(i)] - f.nodes[3]).normalized();
  const Vec3 tension = directions.inverse() * -load;
  for (int i = 0; i < 3; ++i)
    CHECK(r->beams[static_cast<size_t>(i)].tension == Approx(tension[i]).epsilon(0.02));
  Vec3 sum = load;
  for (int i = 0; i < 3; ++i) sum += r->beams[static_cast<size_t>(i)].tension * directions.col(i);
  CHECK(sum.norm() < 0.03 * load.norm());  // what is left is carried by bending at the stiff foot
}

TEST_CASE("loads add up, and twice the load is twice of everything") {
  const Frame f = tripod();
  const auto a = *f.solve({{3, Vec3(100, 0, 0)}});
  const auto b = *f.solve({{3, Vec3(0, 50, 900), Vec3(5, 2, -3)}});
  const auto both = *f.solve({{3, Vec3(100, 0, 0)}, {3, Vec3(0, 50, 900), Vec3(5, 2, -3)}});
  CHECK(both.moved[3].isApprox(a.moved[3] + b.moved[3], 1e-9));
  CHECK(both.turned[3].isApprox(a.turned[3] + b.turned[3], 1e-9));
  for (size_t i = 0; i < 3; ++i)
    CHECK(both.beams[i].tension == Approx(a.beams[i].tension + b.beams[i].tension));
  const auto twice = *f.solve({{3, Vec3(200, 0, 0)}});
  CHECK(twice.strain_energy == Approx(4 * a.strain_energy));
}

TEST_CASE("several cases with one factorisation are the same as one by one") {
  const Frame f = tripod();
  const std::vector<Frame::Loads> cases{{{3, Vec3(1, 2, 3)}}, {{3, Vec3(-4, 0, 9), Vec3(1, 0, 0)}}, {}};
  const auto each = f.solve_each(cases);
  REQUIRE(each);
  REQUIRE(each->size() == 3);
  for (size_t i = 0; i < 2; ++i) {
    const auto one = f.solve(cases[i]);
    CHECK((*each)[i].moved[3] == one->moved[3]);
    CHECK((*each)[i].beams[0].tension == one->beams[0].tension);
  }
  CHECK((*each)[2].moved[3].norm() == 0);
}

TEST_CASE("flexibility is symmetric, and its inverse work is positive") {
  const auto c = tripod().flexibility(3);
  REQUIRE(c);
  CHECK(c->isApprox(c->transpose(), 1e-12));
  CHECK(Eigen::SelfAdjointEigenSolver<Mat3>(*c).eigenvalues().minCoeff() > 0);
  // Maxwell: the move at one node by a load at another is the other way round the same.
  Frame f = tripod();
  f.nodes.push_back({0.1, 0.6, -0.7});
  f.beams.push_back(beam(3, 4, round_section(0.02)));
  const auto a = f.solve({{3, Vec3::UnitZ()}});
  const auto b = f.solve({{4, Vec3::UnitX()}});
  CHECK(a->moved[4].x() == Approx(b->moved[3].z()).epsilon(1e-9));
}

TEST_CASE("a cantilever: deflection, slope and end moments in both planes and in torsion") {
  const double length = 0.8;
  const auto s = tube_section(0.04, 0.003);
  for (const int pieces : {1, 4, 16}) {
    Frame f;
    for (int i = 0; i <= pieces; ++i) f.nodes.emplace_back(0, 0, -length * i / pieces);
    for (int i = 0; i < pieces; ++i) f.beams.push_back(beam(i, i + 1, s));
    f.clamped = {0};
    const auto r = *f.solve({{pieces, Vec3(100, 40, 0), Vec3(0, 0, 12)}});
    const auto tip = static_cast<size_t>(pieces);
    const double ei = 205e9 * s.first;
    CHECK(r.moved[tip].x() == Approx(100 * std::pow(length, 3) / (3 * ei)).epsilon(1e-9));
    CHECK(r.moved[tip].y() == Approx(40 * std::pow(length, 3) / (3 * ei)).epsilon(1e-9));
    CHECK(r.turned[tip].z() == Approx(12 * length / (79e9 * s.torsion)).epsilon(1e-9));
    CHECK(std::abs(r.turned[tip].y()) == Approx(100 * length * length / (2 * ei)).epsilon(1e-9));
    const auto& root = r.beams.front();
    CHECK(std::hypot(root.about_first[0], root.about_second[0]) ==
          Approx(std::hypot(100, 40) * length).epsilon(1e-9));
    CHECK(std::abs(root.torque[0]) == Approx(12).epsilon(1e-9));
    CHECK(r.beams.back().about_first[1] == Approx(0).margin(1e-6));
  }
}

TEST_CASE("a hinge without a rate lets go about its axis only") {
  Frame f;
  f.nodes = {{0, 0, 0}, {0, 0, -1}};
  f.beams = {beam(0, 1, round_section(0.03))};
  f.beams[0].joint = Beam::Joint{Vec3::UnitX(), 500};
  f.clamped = {0};
  const auto across = *f.solve({{1, Vec3(0, 10, 0)}});
  const double stiff = 10.0 / (3 * 205e9 * round_section(0.03).first);
  CHECK(across.moved[1].y() == Approx(10.0 / 500 + stiff).epsilon(1e-9));
  const auto along = *f.solve({{1, Vec3(10, 0, 0)}});
  CHECK(along.moved[1].x() == Approx(stiff).epsilon(1e-9));
  f.beams[0].joint->rate = 0;
  CHECK_FALSE(f.solve({{1, Vec3(0, 10, 0)}}));  // a mechanism
}

TEST_CASE("sections: a thin tube is a bar less its bore, a square does not know its side") {
  const auto bar = round_section(0.04);
  const auto bore = round_section(0.03);
  const auto tube = tube_section(0.04, 0.005);
  CHECK(tube.area == Approx(bar.area - bore.area));
  CHECK(tube.first == Approx(bar.first - bore.first));
  CHECK(tube.torsion == Approx(2 * tube.first));
  CHECK(tube_section(0.04, 0.02).area == Approx(bar.area));
  const auto square = leaf_section(0.02, 0.02);
  CHECK(square.first == Approx(square.second));
  CHECK(square.torsion == Approx(0.1406 * std::pow(0.02, 4)).epsilon(4e-3));
  const auto thin = leaf_section(0.1, 0.002);
  CHECK(thin.torsion == Approx(0.1 * std::pow(0.002, 3) / 3).epsilon(0.02));
  CHECK(leaf_section(0.05, 0.004).first == Approx(0.05 * std::pow(0.004, 3) / 12));
}

TEST_CASE("a leg under several loads is bent by each as by it alone") {
  const auto leaf = straight_leaf(0.7, 1.0, 0.06, 0.04, 0.009, 0.006, steel, 12);
  const std::vector<AxleLoad> loads{
      {Vec3(0, 0, 500)}, {Vec3(100, 0, 300), Vec3(10, 0, 0)}, {Vec3(0, -80, 0)}};
  const auto each = bend_each(leaf, loads);
  REQUIRE(each.size() == 3);
  for (size_t i = 0; i < 3; ++i) {
    const auto one = bend(leaf, loads[i].force, loads[i].moment);
    REQUIRE(one);
    CHECK(each[i].moved == one->moved);
    CHECK(each[i].largest_stress == one->largest_stress);
    CHECK(each[i].vertical_stiffness == one->vertical_stiffness);
    // Clapeyron: the work of load and moment is twice the strain energy.
    CHECK(loads[i].force.dot(one->moved) + loads[i].moment.dot(one->turned) ==
          Approx(2 * one->strain_energy));
  }
  CHECK(bend_each({}, loads).empty());
}
