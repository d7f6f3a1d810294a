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

MapModel::Give::At MapModel::Give::at(double ratio) const {
  const double place = std::clamp(ratio / most, 0.0, 1.0) * steps;
  const auto below = static_cast<size_t>(std::min(place, steps - 1.0));
  const double t = place - static_cast<double>(below);
  return {(1 - t) * rise[below] + t * rise[below + 1], (1 - t) * squash[below] + t * squash[below + 1]};
}

namespace {

//! Rise of an axle (m) over the vertical load on it (N), both rising; a leg that grows weaker on its way
//! gives all of it at once.
std::vector<std::pair<double, double>> rise_over_load(const force::Suspension& leg) {
  std::vector<std::pair<double, double>> points;
  constexpr int steps = 64;
  for (int k = 0; k <= steps; ++k) {
    const auto at = leg.at(leg.most * k / steps);
    const double load = at.force / at.axle_1.z();
    const double rise = at.axle.z() - leg.axle.z();
    if (points.empty() || load > points.back().first)
      points.emplace_back(load, rise);
    else
      points.back().second = rise;
    if (!(leg.most > 0)) break;
  }
  return points;
}

double rise_at(const std::vector<std::pair<double, double>>& points, double load) {
  const auto above = std::lower_bound(points.begin(), points.end(), load,
                                      [](const auto& point, double l) { return point.first < l; });
  if (above == points.begin()) return above->second;
  if (above == points.end()) return points.back().second;
  const auto below = above - 1;
  return below->second +
         (load - below->first) / (above->first - below->first) * (above->second - below->second);
}

}  // namespace

std::vector<MapModel::Give> MapModel::give_of(const Design& d, const Assessment& a, const LoadingState& l,
                                              const Standing& s) {
  const size_t lines = lines_of(d.gear, LegRole::main).size() + lines_of(d.gear, LegRole::nose).size() +
                       lines_of(d.gear, LegRole::tail).size();
  if (lines != 2 || d.gear.has(LegRole::outrigger) || !std::isfinite(s.third.x)) return {};
  std::vector<Give> lines_give(2);
  int count[2]{};
  for (size_t i = 0; i < a.wheels->size(); ++i) {
    const stance::WheelOnLeg& wheel = (*a.wheels)[i];
    const size_t line = s.wheels[i].role == LegRole::main ? 1 : 0;
    const double at_rest = l.rest->wheels[i].load;
    const auto points = rise_over_load(wheel.leg);
    const double rise = rise_at(points, at_rest);
    const double squash = wheel.tyre.squash(at_rest / wheel.tyres());
    for (size_t k = 0; k <= Give::steps; ++k) {
      const double load = at_rest * Give::most * static_cast<double>(k) / Give::steps;
      lines_give[line].rise[k] += rise_at(points, load) - rise;
      lines_give[line].squash[k] += wheel.tyre.squash(load / wheel.tyres()) - squash;
    }
    ++count[line];
  }
  for (const size_t line : {0u, 1u})
    for (size_t k = 0; k <= Give::steps; ++k) {
      lines_give[line].rise[k] /= count[line];
      lines_give[line].squash[k] /= count[line];
    }
  return lines_give;
}

//! What the lever takes off one line it puts on the other: legs and tyres give by as much, the aircraft
//! pitches, and the lever is another. Small angles within; the pitch that comes of it is then exact.
void MapModel::give_way(const Way& way, Standing& s) const {
  const double c = std::cos(way.standing.pitch);
  const double si = std::sin(way.standing.pitch);
  const auto pitch = [](const Standing& of, double third_up, double main_up) {
    return ((of.main.z - of.main.radius + main_up) - (of.third.z - of.third.radius + third_up)) /
           (of.main.x - of.third.x);
  };
  const double level = pitch(way.standing, 0, 0);
  const auto share = [&](const Standing& of, double turned) {
    const double along_x = c - si * turned;
    const double along_z = si + c * turned;
    return (along_x * (of.main.x - of.cg.x()) + along_z * (of.main.z - of.cg.z())) /
           (along_x * (of.main.x - of.third.x) + along_z * (of.main.z - of.third.z));
  };
  const double before = share(way.standing, 0);
  if (!(before > 0 && before < 1)) return;
  Give::At third{}, main{};
  const auto lacks = [&](double after) {
    third = way.give[0].at(after / before);
    main = way.give[1].at((1 - after) / (1 - before));
    return share(s, pitch(s, third.rise + third.squash, main.rise + main.squash) - level) - after;
  };
  // The share at which it balances, by secants; beyond 0 and 1 an end is off the ground, its legs extended.
  double a = std::clamp(share(s, pitch(s, 0, 0) - level), 0.0, 1.0);
  double lack_a = lacks(a);
  double b = std::clamp(a + 0.5 * lack_a, 0.0, 1.0);
  for (int round = 0; round < 10 && std::abs(b - a) > 1e-5; ++round) {
    const double lack_b = lacks(b);
    const double next = lack_b != lack_a ? b - lack_b * (b - a) / (lack_b - lack_a) : b;
    a = b;
    lack_a = lack_b;
    b = std::clamp(next, 0.0, 1.0);
  }
  s.third.z += third.rise;
  s.third.radius -= third.squash;
  s.main.z += main.rise;
  s.main.radius -= main.squash;
  for (auto& w : s.wheels) {
    const Give::At& of = w.role == LegRole::main ? main : third;
    w.z += of.rise;
    w.radius -= of.squash;
  }
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
  if (!way.give.empty()) give_way(way, s);
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

bool MapModel::can_stand(double from, double to) const {
  if (from < reach_low_ || to > reach_high_) return false;
  return std::none_of(blocked_.begin(), blocked_.end(),
                      [&](const MapBlocked& b) { return to > b.from && from < b.to; });
}

std::vector<MapPolygon> MapModel::reachable(const MapPolygon& piece) const {
  // Between what stops the unit ahead and behind, blocked stretches taken out one after the other.
  std::vector<MapPolygon> parts{cut(piece, [&](const Vec2& p) { return std::min(p.x() - reach_low_, 1e3); })};
  for (auto& p : parts) p = cut(p, [&](const Vec2& q) { return std::min(reach_high_ - q.x(), 1e3); });
  for (const MapBlocked& b : blocked_) {
    std::vector<MapPolygon> left;
    for (const auto& p : parts) {
      left.push_back(cut(p, [&](const Vec2& q) { return b.from - q.x(); }));
      left.push_back(cut(p, [&](const Vec2& q) { return q.x() - b.to; }));
    }
    parts = std::move(left);
  }
  std::erase_if(parts, [](const MapPolygon& p) { return p.size() < 3; });
  return parts;
}

PlacementMap MapModel::map(const MapArea& area) const {
  PlacementMap m{area, here_, {}, {}, blocked_, reach_low_, reach_high_, {}, {}, false, {}};
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
  std::vector<const std::vector<float>*> fields;
  for (const auto& s : sides) fields.push_back(&s.field);
  std::vector<float> tenth = m.margin;
  for (float& v : tenth) v -= 0.1f;
  const MapReach reach{[this](double from, double to) { return can_stand(from, to); },
                       [this](const MapPolygon& piece) { return reachable(piece); }};
  m.clear = pieces_within(area, fields, reach);
  fields.push_back(&tenth);
  m.easy = pieces_within(area, fields, reach);
  m.in_the_clear = any_holds(m.clear, here_);
  if (!m.in_the_clear) m.nearest = nearest_in(area, m.clear, here_);
  for (auto& s : sides) {
    MapBoundary b{s.measure, s.upper, s.limit, zero_lines(area, s.field), true};
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
