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

namespace {

//! A field at a point, bilinear between the nodes about it.
double field_at(const MapArea& area, const std::vector<float>& field, const Vec2& p) {
  const double u = (p.x() - area.x_low) / (area.x_high - area.x_low) * (area.columns - 1);
  const double v = (p.y() - area.y_low) / (area.y_high - area.y_low) * (area.rows - 1);
  const int c = std::clamp(static_cast<int>(u), 0, area.columns - 2);
  const int r = std::clamp(static_cast<int>(v), 0, area.rows - 2);
  const double s = u - c, t = v - r;
  const auto node = [&](int i, int j) {
    return static_cast<double>(field[static_cast<size_t>((r + j) * area.columns + c + i)]);
  };
  return (1 - s) * (1 - t) * node(0, 0) + s * (1 - t) * node(1, 0) + s * t * node(1, 1) +
         (1 - s) * t * node(0, 1);
}

void turn_to_fail_left(const MapArea& area, const std::vector<float>& field, std::vector<Vec2>& curve) {
  if (curve.size() < 2) return;
  const size_t at = curve.size() / 2 - (curve.size() == 2 ? 1 : 0);
  const Vec2 a = curve[at], b = curve[at + 1 < curve.size() ? at + 1 : at - 1];
  const Vec2 along = at + 1 < curve.size() ? Vec2(b - a) : Vec2(a - b);
  // A twentieth of a cell to the left, in the map's own proportions.
  const double w = (area.x_high - area.x_low) / area.columns, h = (area.y_high - area.y_low) / area.rows;
  const Vec2 unit(along.x() / w, along.y() / h);
  const Vec2 left = Vec2(-unit.y() * w, unit.x() * h) / std::max(unit.norm(), 1e-12) * 0.3;
  if (field_at(area, field, (a + b) / 2 + left) > field_at(area, field, (a + b) / 2 - left))
    std::reverse(curve.begin(), curve.end());
}

using Polygon = PlacementMap::Polygon;

//! The part of a convex polygon where a function is not below zero, cut straight along each edge.
template <class F>
Polygon cut(const Polygon& p, F&& value) {
  Polygon kept;
  for (size_t i = 0; i < p.size(); ++i) {
    const Vec2 &a = p[i], &b = p[(i + 1) % p.size()];
    const double va = value(a), vb = value(b);
    if (va >= 0) kept.push_back(a);
    if ((va < 0) != (vb < 0)) kept.push_back(a + va / (va - vb) * (b - a));
  }
  return kept.size() < 3 ? Polygon() : kept;
}

//! Where no field is below zero and the unit can be, in convex pieces: cells, those that lie wholly inside
//! joined along their row.
std::vector<Polygon> within(const MapArea& area, const std::vector<const std::vector<float>*>& fields,
                            const MapModel& model) {
  std::vector<Polygon> pieces;
  const double w = (area.x_high - area.x_low) / (area.columns - 1);
  const double h = (area.y_high - area.y_low) / (area.rows - 1);
  for (int r = 0; r + 1 < area.rows; ++r) {
    int from = -1;  // of a run of whole cells
    const double low = area.y_low + r * h;
    const auto close = [&](int to) {
      if (from >= 0)
        pieces.push_back({{area.x_low + from * w, low},
                          {area.x_low + to * w, low},
                          {area.x_low + to * w, low + h},
                          {area.x_low + from * w, low + h}});
      from = -1;
    };
    for (int c = 0; c + 1 < area.columns; ++c) {
      const double left = area.x_low + c * w;
      bool whole = model.can_stand(left, left + w), outside = false;
      for (const auto* f : fields) {
        int below = 0;
        for (const int i : {0, 1})
          for (const int j : {0, 1})
            below += !((*f)[static_cast<size_t>((r + j) * area.columns + c + i)] >= 0);
        whole = whole && below == 0;
        outside = outside || below == 4;
      }
      if (whole) {
        if (from < 0) from = c;
        continue;
      }
      close(c);
      if (outside) continue;
      Polygon piece{{left, low}, {left + w, low}, {left + w, low + h}, {left, low + h}};
      for (const auto* f : fields)
        if (!piece.empty()) piece = cut(piece, [&](const Vec2& p) { return field_at(area, *f, p); });
      for (auto& part : model.reachable(piece)) pieces.push_back(std::move(part));
    }
    close(area.columns - 1);
  }
  return pieces;
}

bool inside(const Polygon& p, const Vec2& at) {
  for (size_t i = 0; i < p.size(); ++i) {
    const Vec2 &a = p[i], &b = p[(i + 1) % p.size()];
    if ((b - a).x() * (at - a).y() - (b - a).y() * (at - a).x() < -1e-12) return false;
  }
  return true;
}

std::optional<Vec2> nearest_in(const MapArea& area, const std::vector<Polygon>& pieces, const Vec2& at) {
  const Vec2 size(area.x_high - area.x_low, area.y_high - area.y_low);
  std::optional<Vec2> best;
  double least = std::numeric_limits<double>::infinity();
  for (const auto& p : pieces)
    for (size_t i = 0; i < p.size(); ++i) {
      const Vec2 a = (p[i] - at).cwiseQuotient(size), b = (p[(i + 1) % p.size()] - at).cwiseQuotient(size);
      const Vec2 along = b - a;
      const double t =
          along.squaredNorm() > 0 ? std::clamp(-a.dot(along) / along.squaredNorm(), 0.0, 1.0) : 0;
      const Vec2 point = a + t * along;
      if (point.norm() >= least) continue;
      least = point.norm();
      best = at + point.cwiseProduct(size);
    }
  return best;
}

}  // namespace

bool MapModel::can_stand(double from, double to) const {
  if (from < reach_low_ || to > reach_high_) return false;
  return std::none_of(blocked_.begin(), blocked_.end(),
                      [&](const MapBlocked& b) { return to > b.from && from < b.to; });
}

std::vector<PlacementMap::Polygon> MapModel::reachable(const PlacementMap::Polygon& piece) const {
  // Between what stops the unit ahead and behind, blocked stretches taken out one after the other.
  std::vector<Polygon> parts{cut(piece, [&](const Vec2& p) { return std::min(p.x() - reach_low_, 1e3); })};
  for (auto& p : parts) p = cut(p, [&](const Vec2& q) { return std::min(reach_high_ - q.x(), 1e3); });
  for (const MapBlocked& b : blocked_) {
    std::vector<Polygon> left;
    for (const auto& p : parts) {
      left.push_back(cut(p, [&](const Vec2& q) { return b.from - q.x(); }));
      left.push_back(cut(p, [&](const Vec2& q) { return q.x() - b.to; }));
    }
    parts = std::move(left);
  }
  std::erase_if(parts, [](const Polygon& p) { return p.size() < 3; });
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
  m.clear = within(area, fields, *this);
  fields.push_back(&tenth);
  m.easy = within(area, fields, *this);
  m.in_the_clear =
      std::any_of(m.clear.begin(), m.clear.end(), [&](const auto& p) { return inside(p, here_); });
  if (!m.in_the_clear) m.nearest = nearest_in(area, m.clear, here_);
  for (auto& s : sides) {
    MapBoundary b{s.measure, s.upper, s.limit, contour(area, s.field), true};
    if (b.curves.empty()) continue;
    for (auto& curve : b.curves) turn_to_fail_left(area, s.field, curve);
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
