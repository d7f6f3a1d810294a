// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/spring/bump.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "core/base/numerics.h"
#include "core/base/ode.h"
#include "core/base/quantity.h"
#include "core/spring/road.h"

namespace kranich::spring {
namespace {
constexpr double g = standard_gravity;
constexpr int table_size = 240;
}  // namespace

DilatedRoad::DilatedRoad(const Obstacle& o, double radius)
    : obstacle_(o),
      radius_(radius),
      reach_(radius + std::max(0.0, o.length) / 2 + 1e-9),
      step_(2 * reach_ / table_size) {
  // The bump is the same from both sides.
  const bool step_up = !(o.length > 0);
  for (int i = 0; i <= table_size; ++i)
    table_.push_back(step_up || i <= table_size / 2
                         ? exact(-reach_ + i * step_)
                         : At{table_[static_cast<size_t>(table_size - i)].height,
                              -table_[static_cast<size_t>(table_size - i)].contact});
}

double road_height(const Obstacle& o, double x) {
  if (!(o.length > 0)) return x >= 0 ? o.height : 0;
  return std::abs(x) < o.length / 2 ? o.height * std::cos(std::numbers::pi * x / o.length) : 0;
}

double DilatedRoad::road(double x) const { return road_height(obstacle_, x); }

DilatedRoad::At DilatedRoad::exact(double x) const {
  const auto axle_over = [&](double contact) {
    const double off = contact - x;
    return std::abs(off) < radius_ ? road(contact) + std::sqrt(radius_ * radius_ - off * off) : 0.0;
  };
  if (!(obstacle_.length > 0)) {
    if (x >= 0) return {radius_ + obstacle_.height, 0};
    const double over_edge = axle_over(0);
    return over_edge > radius_ ? At{over_edge, -x} : At{radius_, 0};
  }
  // Over the bump road and disc are both concave: the highest disc touches where their slopes agree.
  const double half = obstacle_.length / 2;
  double low = std::max(-half, x - 0.9999 * radius_);
  double high = std::min(half, x + 0.9999 * radius_);
  const double flat = std::abs(x) >= half ? radius_ : 0;
  if (low >= high) return {radius_, 0};
  const auto climbs = [&](double c) {
    const double off = c - x;
    return -obstacle_.height * std::numbers::pi / obstacle_.length *
                   std::sin(std::numbers::pi * c / obstacle_.length) -
               off / std::sqrt(radius_ * radius_ - off * off) >
           0;
  };
  for (int i = 0; i < 30; ++i) {
    const double middle = (low + high) / 2;
    (climbs(middle) ? low : high) = middle;
  }
  const double best = (low + high) / 2;
  if (axle_over(best) <= flat) return {radius_, 0};
  return {axle_over(best), best - x};
}

DilatedRoad::At DilatedRoad::at(double x) const {
  if (x <= -reach_) return {radius_, 0};
  if (x >= reach_) return {obstacle_.length > 0 ? radius_ : radius_ + obstacle_.height, 0};
  const double place = (x + reach_) / step_;
  const auto i = std::min<size_t>(static_cast<size_t>(place), table_size - 1);
  const double t = place - static_cast<double>(i);
  return {(1 - t) * table_[i].height + t * table_[i + 1].height,
          (1 - t) * table_[i].contact + t * table_[i + 1].contact};
}

namespace {

//! Height of the sprung mass, q, their speeds.
using State = std::array<double, 4>;

class Rolling {
 public:
  Rolling(const BumpModel& m, const DilatedRoad& road) : m_(m), road_(road), rigid_(m.leg.most <= 0) {
    const auto excess = [&](double q) {
      return along(q) - m_.drop.sprung_mass * g * m_.leg.at(q).axle_1.z();
    };
    const double far = std::max(1e-3, 0.05 * m_.leg.most);
    q_rest_ = rigid_ ? 0 : find_root(excess, -far, m_.leg.most + far).value_or(0);
    rest_ = m_.leg.at(q_rest_);
    static_load_ = (m_.drop.mass()) * g;
    // Sprung height such that the tyre carries the weight on the level road.
    start_height_ = m_.radius - m_.drop.tyre.squash(static_load_) - rest_.axle.z();
  }
  double rest() const { return q_rest_; }
  double static_load() const { return static_load_; }
  State start() const { return {start_height_, q_rest_, 0, 0}; }
  double start_height() const { return start_height_; }

  struct Loads {
    double vertical, aft;
  };
  double place(double t, const force::Suspension::At& at) const {
    return -road_.reach() - 0.2 * m_.radius + m_.speed * t - (at.axle.x() - rest_.axle.x());
  }
  Loads loads(double t, double height, const force::Suspension::At& at) const {
    const auto r = road_.at(place(t, at));
    // Squash along the line to the contact point, square to the dilated road.
    const double aft = std::clamp(r.contact / m_.radius, -0.999, 0.999);
    const double up = std::sqrt(1 - aft * aft);
    const double squash = (r.height - (height + at.axle.z())) * up;
    if (squash <= 0) return {0, 0};
    const double f = m_.drop.tyre.force(std::min(squash, 0.999 * m_.drop.tyre.limit));
    return {f * up, f * aft};
  }
  void operator()(const State& x, State& dx, double t) const {
    if (rigid_) {
      const auto f = loads(t, x[0], rest_);
      dx = {x[2], 0, f.vertical / m_.drop.mass() - g, 0};
      return;
    }
    const auto at = m_.leg.at(x[1]);
    const Loads f = loads(t, x[0], at);
    const double x1 = at.axle_1.x();
    const double z1 = at.axle_1.z();
    const double v = z1 * x[3];
    double resists = along(x[1]) + m_.drop.damper.force(at.axle.z() - m_.leg.axle.z(), v) * z1;
    if (m_.leg.path == force::Suspension::Path::straight)
      resists += m_.bush_friction * std::abs(f.aft) * std::tanh(x[3] / 0.02);
    const double mu = m_.drop.unsprung_mass;
    const double bend_z = mu * at.axle_2.z() * x[3] * x[3];
    const double bend_q = mu * (x1 * at.axle_2.x() + z1 * at.axle_2.z()) * x[3] * x[3];
    const double a = m_.drop.mass();
    const double b = mu * z1;
    const double c = mu * (x1 * x1 + z1 * z1);
    const double p = -a * g + f.vertical - bend_z;
    const double q = -mu * g * z1 - resists + f.aft * x1 + f.vertical * z1 - bend_q;
    const double det = a * c - b * b;
    dx = {x[2], x[3], (p * c - b * q) / det, (a * q - b * p) / det};
  }
  //! Spring and stops along q.
  double along(double q) const {
    const double inside = std::clamp(q, 0.0, m_.leg.most);
    const auto at = m_.leg.at(inside);
    const double reach = at.axle_1.z() * at.axle_1.z();  // stops' rates count along z
    double f = at.force;
    if (q > m_.leg.most) f += (m_.drop.bottom_stop * reach) * (q - m_.leg.most);
    if (q < 0) f += m_.drop.extension_stop * reach * q;
    return f;
  }
  //! A step short enough for the quickest thing in it: wheel on tyre, spring and stops.
  double step() const {
    const double mass = rigid_ ? m_.drop.mass() : m_.drop.unsprung_mass;
    const double tyre = m_.drop.tyre.slope(m_.drop.tyre.squash(3 * static_load_));
    const double stops = rigid_ ? 0 : std::max(m_.drop.bottom_stop, m_.drop.extension_stop);
    return std::min(0.07 * m_.radius / m_.speed, 0.7 / std::sqrt((tyre + stops) / mass));
  }
  bool rigid() const { return rigid_; }

 private:
  const BumpModel& m_;
  const DilatedRoad& road_;
  bool rigid_;
  double q_rest_ = 0, static_load_ = 0, start_height_ = 0;
  force::Suspension::At rest_;
};

}  // namespace

BumpResult roll_over(const BumpModel& m, int points) {
  const DilatedRoad road(m.obstacle, m.radius);
  const Rolling rolling(m, road);
  State x = rolling.start();
  const double duration = (2 * road.reach() + 0.4 * m.radius) / m.speed + 1.5 * std::sqrt(m.radius / g);
  BumpResult r{};
  r.least_load = rolling.static_load();
  const auto rest = m.leg.at(rolling.rest());
  const auto rise = [&](const force::Suspension::At& at) { return at.axle.z() - m.leg.axle.z(); };
  r.stroke_at_rest = rise(rest);
  // Steps of one length: what is rounded off stays rounded off, and near designs give near answers.
  const auto steps = static_cast<int>(std::ceil(duration / rolling.step()));
  const double h = duration / steps;
  double next_point = 0;
  for (int i = 0; i <= steps; ++i) {
    const double t = i * h;
    const auto at = m.leg.at(rolling.rigid() ? 0 : x[1]);
    const auto f = rolling.loads(t, x[0], at);
    State dx{};
    rolling(x, dx, t);
    r.peak_vertical = std::max(r.peak_vertical, f.vertical);
    r.peak_aft = std::max(r.peak_aft, std::abs(f.aft));
    r.least_load = std::min(r.least_load, f.vertical);
    r.stroke_used = std::max(r.stroke_used, rise(at));
    r.sprung_peak = std::max(r.sprung_peak, dx[2] / g);
    if (points > 0 && t >= next_point - 1e-12) {
      r.trace.push_back({t, rolling.place(t, at), rise(at), at.axle.x() - rest.axle.x(), f.vertical, f.aft,
                         x[0] - rolling.start_height()});
      next_point += duration / points;
    }
    x = stepped(rolling, x, t, h);
  }
  r.load_factor = r.peak_vertical / rolling.static_load();
  r.bottoms = !rolling.rigid() && r.stroke_used >= m.drop.travel;
  return r;
}

BumpModel counterpart(const BumpModel& m) {
  BumpModel other = m;
  if (m.leg.path == force::Suspension::Path::straight) {
    const double travel = m.drop.travel;
    other.leg.path = force::Suspension::Path::hinged;
    other.leg.acts = force::Suspension::Acts::at_axle;
    other.leg.hinge = m.leg.axle + Vec3(-2.5 * travel, 0, travel / 2);
    other.leg.hinge_axis = Vec3(0, -1, 0);
    other.leg.most = 2 * std::asin(0.5 * travel / std::hypot(2.5 * travel, travel / 2));
    return other;
  }
  other.leg = force::straight_leg(m.leg.axle, m.drop.spring);
  return other;
}

}  // namespace kranich::spring
