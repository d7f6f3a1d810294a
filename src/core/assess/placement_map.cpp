// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/placement_map.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/assess/loading_state.h"
#include "core/model/moves.h"
#include "core/place/keepout.h"
#include "core/place/place.h"

namespace kranich {
namespace {

using Vec2 = Eigen::Vector2d;

//! Zero contour of a field on a grid by marching squares, its pieces joined end to end.
std::vector<std::vector<Vec2>> contour(const MapArea& area, const std::vector<float>& field) {
  const auto node = [&](int c, int r) {
    return Vec2(area.x_low + (area.x_high - area.x_low) * c / (area.columns - 1),
                area.y_low + (area.y_high - area.y_low) * r / (area.rows - 1));
  };
  const auto value = [&](int c, int r) { return field[static_cast<size_t>(r * area.columns + c)]; };
  std::vector<std::pair<Vec2, Vec2>> pieces;
  for (int r = 0; r + 1 < area.rows; ++r)
    for (int c = 0; c + 1 < area.columns; ++c) {
      const std::array<Vec2, 4> corner{node(c, r), node(c + 1, r), node(c + 1, r + 1), node(c, r + 1)};
      const std::array<float, 4> v{value(c, r), value(c + 1, r), value(c + 1, r + 1), value(c, r + 1)};
      std::array<Vec2, 4> cut;
      int cuts = 0;
      for (size_t e = 0; e < 4; ++e) {
        const size_t f = (e + 1) % 4;
        if (!std::isfinite(v[e]) || !std::isfinite(v[f]) || (v[e] < 0) == (v[f] < 0)) continue;
        const double t = static_cast<double>(v[e]) / (static_cast<double>(v[e]) - static_cast<double>(v[f]));
        cut[static_cast<size_t>(cuts++)] = corner[e] + t * (corner[f] - corner[e]);
      }
      for (int i = 0; i + 1 < cuts; i += 2)
        pieces.emplace_back(cut[static_cast<size_t>(i)], cut[static_cast<size_t>(i + 1)]);
    }
  const double near = 1e-9 * (area.x_high - area.x_low + area.y_high - area.y_low);
  std::vector<std::vector<Vec2>> curves;
  std::vector<bool> used(pieces.size(), false);
  for (size_t i = 0; i < pieces.size(); ++i) {
    if (used[i]) continue;
    used[i] = true;
    std::vector<Vec2> line{pieces[i].first, pieces[i].second};
    for (bool grown = true; grown;) {
      grown = false;
      for (size_t j = i + 1; j < pieces.size(); ++j) {
        if (used[j]) continue;
        const auto& [a, b] = pieces[j];
        const auto meets = [&](const Vec2& p, const Vec2& q) { return (p - q).lpNorm<1>() < near; };
        if (meets(line.back(), a))
          line.push_back(b);
        else if (meets(line.back(), b))
          line.push_back(a);
        else if (meets(line.front(), a))
          line.insert(line.begin(), b);
        else if (meets(line.front(), b))
          line.insert(line.begin(), a);
        else
          continue;
        used[j] = grown = true;
      }
    }
    curves.push_back(std::move(line));
  }
  return curves;
}

}  // namespace

MapModel::MapModel(const Design& d, const Assessment& a, const std::string& loading, MapUp up)
    : rules_(place_rules(d)),
      up_(up),
      reach_low_(-std::numeric_limits<double>::infinity()),
      reach_high_(std::numeric_limits<double>::infinity()) {
  if (!a.wheels) return;
  const double axle = d.gear.main().axle.x;
  for (const auto& l : a.loadings) {
    if (!l.rest || !l.flown) continue;
    const Standing s = standing_in(d, &*a.wheels, l, GearState::static_load);
    if (ways_.empty() || l.name == loading) {
      const PlaceFigures f = place_figures(rules_, s, l.mass.down.mass);
      here_ = {axle, up == MapUp::track ? 2 * s.half_track : f.cg_height};
      base_ = f.wheelbase;
    }
    ways_.push_back({s, l.mass.down.mass, l.name, give_of(d, a, l, s)});
  }
  if (const auto unit = place::unit_of(d.gear.main())) {
    for (const auto& k : d.airframe.keep_outs)
      if (const auto box = place::box_of(k))
        if (const auto range = place::blocked(*unit, *box, 0))
          blocked_.push_back({k.name, axle + range->from, axle + range->to});
    reach_low_ = axle + place::furthest(*unit, d.airframe.keep_outs, 0, -1).shift;
    reach_high_ = axle + place::furthest(*unit, d.airframe.keep_outs, 0, +1).shift;
  }
}

double MapModel::Give::rise_at(double load) const {
  const auto above = std::lower_bound(rise.begin(), rise.end(), load,
                                      [](const auto& point, double l) { return point.first < l; });
  if (above == rise.begin()) return above->second;
  if (above == rise.end()) return rise.back().second;
  const auto below = above - 1;
  return below->second +
         (load - below->first) / (above->first - below->first) * (above->second - below->second);
}

std::vector<MapModel::Give> MapModel::give_of(const Design& d, const Assessment& a, const LoadingState& l,
                                              const Standing& s) {
  const size_t lines = lines_of(d.gear, LegRole::main).size() + lines_of(d.gear, LegRole::nose).size() +
                       lines_of(d.gear, LegRole::tail).size();
  if (lines != 2 || d.gear.has(LegRole::outrigger) || !std::isfinite(s.third.x)) return {};
  std::vector<Give> list(a.wheels->size());
  for (size_t i = 0; i < list.size(); ++i) {
    const stance::WheelOnLeg& wheel = (*a.wheels)[i];
    list[i] = {l.rest->wheels[i].load, {}, wheel.tyre, wheel.tyres()};
    constexpr int steps = 64;
    for (int k = 0; k <= steps; ++k) {
      const auto at = wheel.leg.at(wheel.leg.most * k / steps);
      const double load = at.force / at.axle_1.z();
      // A leg that grows weaker on its way gives all of it at once.
      if (list[i].rise.empty() || load > list[i].rise.back().first)
        list[i].rise.emplace_back(load, at.axle.z() - wheel.leg.axle.z());
      else
        list[i].rise.back().second = at.axle.z() - wheel.leg.axle.z();
      if (!(wheel.leg.most > 0)) break;
    }
  }
  return list;
}

Standing MapModel::moved(const Way& way, double x, double y) const {
  Standing s = way.standing;
  s.third_share =
      std::numeric_limits<double>::quiet_NaN();  // by the lever: springs are solved where it rests
  s.main.x += x - here_.x();
  for (auto& w : s.wheels)
    if (w.role == LegRole::main) {
      w.x += x - here_.x();
      if (up_ == MapUp::track && w.contact_y != 0)
        w.contact_y += std::copysign((y - here_.y()) / 2, w.contact_y);
    }
  if (up_ != MapUp::track)
    for (auto& w : s.wheels) w.z -= y - here_.y();
  if (up_ == MapUp::track) {
    s.half_track += (y - here_.y()) / 2;
  } else {
    s.main.z -= y - here_.y();
    s.third.z -= y - here_.y();
  }
  if (!way.give.empty()) {
    // What the lever takes off one line it puts on the other: legs and tyres give by as much, the aircraft
    // pitches, and the lever is another.
    const auto share = [](const Standing& of, double pitch) {
      const auto along = [&](double station, double waterline) {
        return std::cos(pitch) * station + std::sin(pitch) * waterline;
      };
      const double main = along(of.main.x, of.main.z);
      return (main - along(of.cg.x(), of.cg.z())) / (main - along(of.third.x, of.third.z));
    };
    const auto pitched = [&](const Standing& of) {
      const auto now = place::pitch_on(of.third, of.main);
      const auto then = place::pitch_on(way.standing.third, way.standing.main);
      return way.standing.pitch + (now && then ? *now - *then : 0);
    };
    const double before = share(way.standing, way.standing.pitch);
    const Standing stiff = s;
    const int rounds = before > 0 && before < 1 ? 12 : 0;
    double after = share(s, pitched(s));
    for (int round = 0; round < rounds; ++round) {
      if (round > 0) after += 0.5 * (share(s, pitched(s)) - after);  // half the way: soft legs overshoot
      after = std::clamp(after, 0.0, 1.0);  // beyond it one end is off the ground, its legs extended
      const double ratio[]{after / before, (1 - after) / (1 - before)};  // on the third line, on the mains
      s = stiff;
      double rise[2]{};
      double squash[2]{};
      int count[2]{};
      for (size_t i = 0; i < s.wheels.size(); ++i) {
        const size_t line = s.wheels[i].role == LegRole::main ? 1 : 0;
        const Give& g = way.give[i];
        const double load = ratio[line] * g.at_rest;
        const double up = g.rise_at(load) - g.rise_at(g.at_rest);
        const double flat = g.squash_at(load) - g.squash_at(g.at_rest);
        s.wheels[i].z += up;
        s.wheels[i].radius -= flat;
        rise[line] += up;
        squash[line] += flat;
        ++count[line];
      }
      s.third.z += rise[0] / count[0];
      s.third.radius -= squash[0] / count[0];
      s.main.z += rise[1] / count[1];
      s.main.radius -= squash[1] / count[1];
    }
  }
  // On its wheels the rest's own pitch changes as this gear's does.
  const auto before = place::pitch_on(way.standing.third, way.standing.main);
  const auto after = place::pitch_on(s.third, s.main);
  s.pitch =
      before && after ? way.standing.pitch + *after - *before : std::numeric_limits<double>::quiet_NaN();
  return s;
}

std::vector<MapFinding> MapModel::at(double x, double y) const {
  std::vector<MapFinding> found;
  for (const auto& way : ways_) {
    const auto lines = place_lines(rules_, place_figures(rules_, moved(way, x, y), way.mass, true));
    for (const auto& line : lines) {
      const auto same = std::find_if(found.begin(), found.end(),
                                     [&](const MapFinding& f) { return f.measure == line.measure; });
      const double margin = line.margin();
      const MapFinding now{line.measure, line.value, line.lower, line.upper, way.loading, !(margin >= 0)};
      if (same == found.end())
        found.push_back(now);
      else if (margin < PlaceLine{same->measure, same->value, same->lower, same->upper}.margin())
        *same = now;
    }
  }
  return found;
}

MapArea MapModel::usual_area() const {
  const double span = up_ == MapUp::track ? 0.16 * base_ : std::min(0.16 * base_, 0.35 * here_.y());
  if (up_ == MapUp::track) return {here_.x() - span, here_.x() + span, 0.35 * here_.y(), 1.5 * here_.y()};
  return {here_.x() - span, here_.x() + span, 0.66 * here_.y(), 1.36 * here_.y()};
}

PlacementMap MapModel::map(const MapArea& area) const {
  PlacementMap m{area, here_, {}, {}, blocked_, reach_low_, reach_high_};
  const auto nodes = static_cast<size_t>(area.columns * area.rows);
  m.margin.assign(nodes, std::numeric_limits<float>::infinity());
  struct Side {
    std::string_view measure;
    bool upper;
    double limit;
    std::vector<float> field;
  };
  std::vector<Side> sides;
  const auto side_of = [&](const PlaceLine& line, bool upper) -> Side& {
    for (auto& s : sides)
      if (s.measure == line.measure && s.upper == upper) return s;
    sides.push_back({line.measure, upper, upper ? line.upper : line.lower,
                     std::vector<float>(nodes, std::numeric_limits<float>::infinity())});
    return sides.back();
  };
  for (int r = 0; r < area.rows; ++r)
    for (int c = 0; c < area.columns; ++c) {
      const auto node = static_cast<size_t>(r * area.columns + c);
      const double x = area.x_low + (area.x_high - area.x_low) * c / (area.columns - 1);
      const double y = area.y_low + (area.y_high - area.y_low) * r / (area.rows - 1);
      for (const auto& way : ways_)
        for (const auto& line :
             place_lines(rules_, place_figures(rules_, moved(way, x, y), way.mass, true))) {
          const auto enter = [&](bool upper, double spare) {
            float& at = side_of(line, upper).field[node];
            at = std::min(at, static_cast<float>(spare));
          };
          if (std::isfinite(line.lower)) enter(false, line.value - line.lower);
          if (std::isfinite(line.upper)) enter(true, line.upper - line.value);
          m.margin[node] = std::min(m.margin[node], static_cast<float>(line.margin()));
        }
    }
  for (auto& s : sides) {
    MapBoundary b{s.measure, s.upper, s.limit, contour(area, s.field), true};
    if (b.curves.empty()) continue;
    for (const auto& curve : b.curves)
      for (const Vec2& p : curve)
        if (p.x() >= reach_low_ && p.x() <= reach_high_) b.out_of_reach = false;
    m.boundaries.push_back(std::move(b));
  }
  return m;
}

void move_on_map(Design& d, MapUp up, double dx, double dy) {
  shift_mains(d, dx, up == MapUp::track ? dy / 2 : 0, 0);
  if (up == MapUp::cg_height)
    for (auto& leg : d.gear.legs) leg.axle.z.si -= dy;
}

}  // namespace kranich
