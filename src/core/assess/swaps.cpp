// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/swaps.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <set>

#include "core/assess/box_cures.h"
#include "core/assess/circuit_cures.h"
#include "core/assess/door_cures.h"
#include "core/assess/drive_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/logic_cures.h"
#include "core/assess/stock.h"
#include "core/assess/subjects.h"
#include "core/assess/swing_state.h"
#include "core/drive/fall.h"
#include "core/force/materials.h"
#include "core/model/moves.h"
#include "core/motion/retract.h"
#include "core/sequence/aids.h"
#include "core/steer/steering.h"
#include "core/swing/axis_choices.h"
#include "core/swing/turn_rod.h"

namespace kranich {
namespace {

constexpr size_t most_choices = 6;

//! A choice: how it reads and what it does.
struct Choice {
  Text text;
  std::function<void(Design&)> put;
};

void offer(std::vector<KnobRef>& list, const LegLine& line, const char* what, std::vector<Choice> choices) {
  if (choices.empty()) return;
  if (choices.size() > most_choices) choices.resize(most_choices);
  auto knob = std::make_shared<Knob>();
  knob->id = line.ids[0] + "." + what;
  knob->kind = Kind::factor;
  knob->step = 1;
  knob->least = 0;
  // Exchanging a part counts for about a tenth of a knob's whole way, the nearest for the least.
  knob->most = 10 * static_cast<double>(choices.size());
  knob->there = std::numeric_limits<double>::quiet_NaN();
  for (const auto& c : choices) knob->choices.push_back(c.text);
  knob->apply = [choices](Design& d, double v) {
    const auto i = static_cast<size_t>(std::lround(v));
    if (i >= 1 && i <= choices.size()) choices[i - 1].put(d);
  };
  list.push_back(std::move(knob));
}

//! For every row of a line.
template <class Change>
std::function<void(Design&)> on_each(const LegLine& line, Change change) {
  return [ids = line.ids, change](Design& d) {
    for (const auto& id : ids)
      if (Leg* leg = d.gear.find(id)) change(*leg);
  };
}

Text of_line(const LegLine& line) {
  return line.several ? say("{} legs", line.word) : say("{} leg", line.word);
}

//! Greatest load on one leg at rest over all loadings, N; 0 where nothing stands.
double static_load(const Design& d, const Assessment& a, size_t row) {
  double load = 0;
  const auto placed = placed_legs(d.gear);
  for (const auto& l : a.loadings)
    if (l.rest)
      for (size_t i = 0; i < placed.size() && i < l.rest->wheels.size(); ++i)
        if (placed[i].row == row) load = std::max(load, l.rest->wheels[i].load);
  return load;
}

std::vector<Choice> wheels(const Design& d, const Assessment& a, const Stock& stock, const LegLine& line) {
  const Leg& leg = d.gear.legs[line.rows[0]];
  std::vector<Choice> choices;
  if (leg.skid || !leg.wheel.diameter.known()) return choices;
  const double load = static_load(d, a, line.rows[0]) / (leg.wheel_spacing.known() ? 2 : 1);
  double off = std::numeric_limits<double>::quiet_NaN();
  std::vector<const place::ShelfWheel*> fit;
  for (const auto& w : stock.wheels) {
    if (w.name == leg.wheel.shelf_name) off = w.mass;
    if (w.name != leg.wheel.shelf_name && w.greatest_load >= load &&
        std::abs(w.wheel.diameter / leg.wheel.diameter - 1) < 0.5)
      fit.push_back(&w);
  }
  const auto far = [&](const place::ShelfWheel* w) {
    return std::abs(w->wheel.diameter / leg.wheel.diameter - 1) + (w->wheel.tyre == leg.wheel.tyre ? 0 : 0.1);
  };
  std::stable_sort(fit.begin(), fit.end(), [&](auto* x, auto* y) { return far(x) < far(y); });
  for (const auto* w : fit)
    choices.push_back(
        {say("wheel “{}” from the shelf on the {}", w->name, of_line(line)),
         [rows = line.rows, wheel = *w, off](Design& x) { place::exchange_wheels(x, rows, wheel, off); }});
  return choices;
}

std::vector<Choice> springs(const Design& d, const Assessment& a, const Stock& stock, const LegLine& line) {
  std::vector<Choice> choices;
  const Leg& leg = d.gear.legs[line.rows[0]];
  const double load = static_load(d, a, line.rows[0]);
  if (!(load > 0) || !leg.travel.known()) return choices;
  const spring::Need need{load};
  const auto offers = spring::offers_for(leg, stock.springs, d.materials, need);
  for (const auto& c : spring::rank_offers(offers, d.materials, need)) {
    const auto& o = offers[c.index];
    if (!c.fits || o.leg.spring == leg.spring) continue;
    choices.push_back({say("“{}” ({}) from the shelf in the {}", o.name, o.size, of_line(line)),
                       [ids = line.ids, spring = o.leg.spring](Design& x) {
                         for (const auto& id : ids)
                           if (Leg* l = x.gear.find(id)) l->spring = spring;
                       }});
  }
  return choices;
}

//! Fasteners and adhesives are not what legs are made of.
bool holds_together(const std::string& name) {
  return name.starts_with("bolt") || name.find("bolt") != std::string::npos ||
         name.find("rivet") != std::string::npos || name.find("screw") != std::string::npos;
}

//! Stronger materials of the same stuff, the next strongest first.
template <class Put>
std::vector<Choice> materials(const Design& d, const std::string& fitted, bool fasteners, Put&& put) {
  std::vector<Choice> choices;
  const Material* now = force::find_material(d.materials, fitted);
  if (!now) return choices;
  const auto strength = [&](const Material& m) {
    const auto allowed = force::allowable_of(m, 0.003, false);
    return fasteners ? allowed.shear : m.stuff == Stuff::adhesive ? allowed.ultimate : allowed.yield;
  };
  std::vector<const Material*> better;
  for (const auto& name : force::material_names(d.materials)) {
    const Material* m = force::find_material(d.materials, name);
    if (m->stuff == now->stuff && holds_together(name) == fasteners && strength(*m) > strength(*now))
      better.push_back(m);
  }
  std::stable_sort(better.begin(), better.end(),
                   [&](auto* x, auto* y) { return strength(*x) < strength(*y); });
  for (const Material* m : better) choices.push_back(put(m->name));
  return choices;
}

//! Formers that can take a leg, the nearest first.
std::vector<Choice> formers(const Design& d, const LegLine& line) {
  std::vector<Choice> choices;
  const double x = d.gear.legs[line.rows[0]].held_at().x();
  if (!std::isfinite(x)) return choices;
  std::vector<const Reference*> list;
  for (const auto& r : d.airframe.references)
    if (r.former && r.x.known()) list.push_back(&r);
  std::stable_sort(list.begin(), list.end(),
                   [&](auto* p, auto* q) { return std::abs(p->x - x) < std::abs(q->x - x); });
  for (const Reference* r : list)
    choices.push_back({say("{} to former “{}”", of_line(line), r->name),
                       [rows = line.rows, by = r->x - x](Design& c) { shift_legs(c, rows, by, 0, 0); }});
  return choices;
}

//! Posts from a plate, block or row of screws up to the spar over it: what presses up goes past the soft
//! part. The spar is the nearest box of the structure above that is called so.
std::vector<Choice> posts(const Design& d, const LegLine& line, const Subject& subject) {
  std::vector<Choice> choices;
  const Leg& leg = d.gear.legs[line.rows[0]];
  const auto carried_on = [&](const Joint& j) {
    return std::any_of(leg.joints.begin(), leg.joints.end(),
                       [&](const Joint& p) { return p.kind == JointKind::post && p.carries == j.carries; });
  };
  for (const auto& j : leg.joints) {
    if (j.kind == JointKind::pin || j.kind == JointKind::post || !j.at.known() || carried_on(j)) continue;
    // The joint that is spoken of; of a whole leg the one that ends in foam.
    const Material* into = force::find_material(d.materials, j.into);
    const bool meant = about_member(d, leg, j.name) == subject ||
                       (subject == about_leg(d, leg) && into && into->stuff == Stuff::foam);
    if (!meant) continue;
    const KeepOut* spar = nullptr;
    double length = std::numeric_limits<double>::infinity();
    for (const auto& k : d.airframe.keep_outs) {
      if (k.name.find("spar") == std::string::npos || k.shape != Shape::box || !k.low.known() ||
          !k.high.known())
        continue;
      const bool over =
          j.at.x >= k.low.x - 0.02 && j.at.x <= k.high.x + 0.02 && std::abs(j.at.y) <= k.high.y + 0.02;
      const double up = k.low.z - j.at.z;
      if (over && up > 0.005 && up < length) {
        spar = &k;
        length = up;
      }
    }
    if (!spar) continue;
    const double thin = d.is_model() ? 0.008 : 0.02;
    for (const double thick : {thin, 1.5 * thin, 2 * thin})
      choices.push_back({say("a post of ash, {} thick and {} long, from “{}” up to “{}”",
                             Amount{thick, Kind::length}, Amount{length, Kind::length}, j.name, spar->name),
                         on_each(line, [j, thick, length](Leg& l) {
                           Joint post;
                           post.name = unused_name(l.joints, "post");
                           post.kind = JointKind::post;
                           post.carries = j.carries;
                           post.at = j.at;
                           post.material = "ash";
                           post.into = "spruce";
                           post.diameter = post.width = Given(thick);
                           post.to.x = j.at.x;
                           post.to.y = j.at.y;
                           post.to.z = Given(j.at.z + length);
                           l.joints.push_back(std::move(post));
                         })});
  }
  return choices;
}

//! A bare plate made a box: side cheeks glued beside it, or a closed box of ply over it.
std::vector<Choice> boxed(const Design& d, const LegLine& line, const Subject& subject, bool closed) {
  std::vector<Choice> choices;
  const Leg& leg = d.gear.legs[line.rows[0]];
  for (const auto& j : leg.joints) {
    if (j.kind != JointKind::plate || !j.length.known() || !j.width.known()) continue;
    if (!(about_member(d, leg, j.name) == subject) || (closed ? j.box_depth : j.cheeks).known()) continue;
    const double wall = d.is_model() ? 0.0015 : 0.004;
    for (const double share : {0.2, 0.4, 0.6}) {
      const double step = d.is_model() ? 0.001 : 0.005;
      const double height = std::ceil(share * std::min(j.length.si, j.width.si) / step) * step;
      choices.push_back(
          {closed ? say("a closed box over “{}”, {} deep, of ply {} thick, doublers along its edges", j.name,
                        Amount{height, Kind::length}, Amount{wall, Kind::length})
                  : say("two side cheeks {} high glued beside “{}”, with corner blocks",
                        Amount{height, Kind::length}, j.name),
           on_each(line, [name = j.name, height, wall, closed](Leg& l) {
             for (auto& joint : l.joints) {
               if (joint.name != name) continue;
               if (closed) {
                 joint.box_depth = Given(height);
                 joint.box_wall = Given(wall);
               } else {
                 joint.cheeks = Given(height);
               }
             }
           })});
    }
  }
  return choices;
}

//! Loadings with what slides at either end of its way, beside the one in which it is aboard already.
std::vector<Choice> tray_loadings(const Design& d, const Subject& subject) {
  std::vector<Choice> choices;
  for (const auto& item : d.ledger) {
    if (subject.key != "item:" + item.name || item.group != Group::load) continue;
    choices.push_back(
        {say("loadings with “{}” at both ends of its way", item.name), [name = item.name](Design& c) {
           const auto of =
               std::find_if(c.ledger.begin(), c.ledger.end(), [&](const Item& i) { return i.name == name; });
           const auto with = std::find_if(c.loadings.begin(), c.loadings.end(), [&](const Loading& l) {
             return l.flown && std::any_of(l.aboard.begin(), l.aboard.end(),
                                           [&](const Aboard& a) { return a.item == name; });
           });
           if (of == c.ledger.end() || with == c.loadings.end()) return;
           const Loading like = *with;
           for (const bool aft : {false, true}) {
             Loading l = like;
             l.name =
                 unused_name(c.loadings, like.name + (aft ? ", " + name + " aft" : ", " + name + " forward"));
             for (auto& a : l.aboard)
               if (a.item == name) a.x = aft ? of->slides_to : of->slides_from;
             c.loadings.push_back(std::move(l));
           }
         }});
  }
  return choices;
}

//! The edge of a notch faced with what does not crush.
std::vector<Choice> facings(const Design& d, const LegLine& line) {
  std::vector<Choice> choices;
  const Leg& leg = d.gear.legs[line.rows[0]];
  if (!leg.cradle.below.known()) return choices;
  for (const char* of : {"ash", "aluminium 2024-T3", "mild steel"})
    if (leg.cradle.material != of)
      choices.push_back({say("edge of the notch for the {} faced with {}", of_line(line), of),
                         on_each(line, [of](Leg& l) { l.cradle.material = of; })});
  return choices;
}

//! The leg bent anew so that it stands in a unit whose angle is another's.
std::vector<Choice> remade(const Design& d, const LegLine& line) {
  const auto made = swing::remade_leg(d.gear.legs[line.rows[0]]);
  if (!made) return {};
  return {{say("{} made anew: {} straight out of the unit, then bent by {}", of_line(line),
               Amount{made->from_pivot, Kind::length}, Amount{made->angle, Kind::angle}),
           on_each(line, [](Leg& l) {
             const auto its = swing::remade_leg(l);
             if (!its) return;
             LegBend bend;
             bend.at.set(its->bend);
             auto& bends = l.retraction.bends;
             if (bends.empty())
               bends.push_back(bend);
             else
               bends.front().at = bend.at;
           })}};
}

//! A down-spring where none is, from ahead or behind the pivot to a fifth of the way down the leg: as strong
//! as its ends and 30 % in hand ask for.
std::vector<Choice> down_springs(const Design& d, const LegLine& line) {
  std::vector<Choice> choices;
  const Leg& leg = d.gear.legs[line.rows[0]];
  auto made = drive_load(d, leg);
  const auto* load = std::get_if<DriveLoad>(&made);
  if (!load || load->load.spring) return choices;
  const Vec3 pivot = load->load.moves.axis.point;
  const Vec3 way = leg.axle.vec() - pivot;
  const Vec3 across = load->load.moves.axis.direction.cross(way).normalized() * way.norm();
  for (const double beside : {0.35, -0.35, 0.5, -0.5})
    for (const double along : {0.2, 0.3}) {
      DownSpring s;
      const Vec3 fixed = pivot + beside * across - 0.05 * way;
      const Vec3 moving = pivot + along * way;
      s.on_airframe.set(fixed);
      s.on_leg.set(moving);
      s.progression = Given(1.4);
      const auto length = [&](double t) { return drive::length_of(load->load.moves, {fixed, moving}, t); };
      const double longest = drive::largest_over(load->load.moves.full_turn, length).value;
      const double shortest = drive::least_over(load->load.moves.full_turn, length).value;
      s.extended_length = Given(1.02 * longest);
      s.full_stroke = Given(1.02 * longest - 0.95 * shortest);
      const auto size = drive::size_spring(
          load->load, {{fixed, moving}, 1, s.progression, s.full_stroke, s.extended_length}, 1.3);
      if (!std::isfinite(size.least_force) || !(size.least_force > 0)) continue;
      const double unit = std::pow(10, std::floor(std::log10(size.least_force)) - 1);
      s.extended_force = Given(std::ceil(1.02 * size.least_force / unit) * unit);
      choices.push_back(
          {say("a gas spring of {} beside the pivot of the {}, {} long; retracting then takes {}",
               Amount{s.extended_force.si, Kind::force}, of_line(line),
               Amount{s.extended_length.si, Kind::length}, Amount{size.retract_with, Kind::moment}),
           on_each(line, [s](Leg& l) { l.retraction.drive.down_spring = s; })});
    }
  return choices;
}

//! The axis finder's answers, those that miss least first.
std::vector<Choice> axes(const Design& d, const LegLine& line) {
  const Leg& leg = d.gear.legs[line.rows[0]];
  std::vector<Choice> choices;
  const auto wanted = wanted_pose(leg);
  if (!wanted || !leg.retraction.fitted) return choices;
  const auto found = swing::axis_choices(leg, *wanted);
  for (const auto& c : found.list) {
    const auto angle = [](double rad) { return Amount{rad, Kind::angle}; };
    const auto length = [](double m) { return Amount{m, Kind::length}; };
    choices.push_back(
        {say("axis of the {} turned {} in plan and tipped {}, unit of {}, pivot at station {}, {} off "
             "the centre line, waterline {}",
             of_line(line), angle(c.entry.yaw), angle(c.entry.tip), angle(c.unit_angle), length(c.pivot.x()),
             length(c.pivot.y()), length(c.pivot.z())),
         on_each(line, [c](Leg& l) { swing::take_axis(l, c); })});
  }
  return choices;
}

//! Rods that turn a lifted wheel to where its axle is wanted, beginning half-way.
std::vector<Choice> rods(const Design& d, const LegLine& line) {
  std::vector<Choice> choices;
  const Leg& leg = d.gear.legs[line.rows[0]];
  const auto wanted = wanted_pose(leg);
  if (!wanted || leg.retraction.motion != LegMotion::lifts_and_turns) return choices;
  // About the upright king-pin, either side up: the wheel is the same both ways.
  const Vec3 now = motion::axle_direction(leg);
  const double turn = std::atan2(wanted->axle.y(), wanted->axle.x()) - std::atan2(now.y(), now.x());
  for (const double by : {std::remainder(turn, 2 * std::numbers::pi),
                          std::remainder(turn + std::numbers::pi, 2 * std::numbers::pi)})
    for (const auto& rod : swing::rods_for_turn(leg, {by, leg.retraction.unit_angle / 2}, 2)) {
      const auto length = [](double m) { return Amount{m, Kind::length}; };
      choices.push_back(
          {say("rod of the {} from station {}, {} off the centre line, waterline {}, {} long: turns {}",
               of_line(line), length(rod.on_airframe.x()), length(rod.on_airframe.y()),
               length(rod.on_airframe.z()), length(rod.length), Amount{rod.turn, Kind::angle}),
           on_each(line, [rod](Leg& l) { swing::take_rod(l, rod); })});
    }
  return choices;
}

//! Units of the shelf that fit better than the one there.
std::vector<Choice> units(const Design& d, const Assessment& a, const Stock& stock, const LegLine& line) {
  const Leg& leg = d.gear.legs[line.rows[0]];
  std::vector<Choice> choices;
  if (!leg.retraction.fitted) return choices;
  for (const auto& c : swing::rank_units(stock.units, d, leg, unit_need(a, leg)))
    if (c.against.empty() && c.unit->name != leg.retraction.unit.shelf_name)
      choices.push_back({say("unit “{}” from the shelf in the {}", c.unit->name, of_line(line)),
                         on_each(line, [unit = *c.unit](Leg& l) { swing::fit_unit(l, unit); })});
  return choices;
}

std::vector<Choice> straps(const Design& d, const LegLine& line, const Subject& subject) {
  std::vector<Choice> choices;
  const Leg& leg = d.gear.legs[line.rows[0]];
  for (const auto& j : leg.joints)
    if (!j.straps && about_member(d, leg, j.name) == subject)
      choices.push_back(
          {say("metal straps over the edge of “{}”", j.name), on_each(line, [name = j.name](Leg& l) {
             for (auto& joint : l.joints)
               if (joint.name == name) joint.straps = true;
           })});
  return choices;
}

void material_swaps(const Design& d, const LegLine& line, bool joints, std::vector<KnobRef>& list) {
  const Leg& leg = d.gear.legs[line.rows[0]];
  const Text legs = of_line(line);
  const bool bends = leg.spring.kind == SpringKind::bending;
  if (bends)
    offer(
        list, line, "bent_material", materials(d, leg.spring.bent.material, false, [&](const std::string& m) {
          return Choice{say("{} of {}", legs, m), on_each(line, [m](Leg& l) { l.spring.bent.material = m; })};
        }));
  else if (leg.tubes.empty())
    offer(list, line, "material", materials(d, leg.material, false, [&](const std::string& m) {
            return Choice{say("{} of {}", legs, m), on_each(line, [m](Leg& l) { l.material = m; })};
          }));
  if (!joints) return;
  std::set<std::string> seen;
  for (const auto& t : leg.tubes)
    if (seen.insert(t.material).second)
      offer(list, line, "tube_material", materials(d, t.material, false, [&](const std::string& m) {
              return Choice{say("tubes of the {} of {}", legs, m),
                            on_each(line, [m, was = t.material](Leg& l) {
                              for (auto& tube : l.tubes)
                                if (tube.material == was) tube.material = m;
                            })};
            }));
  offer(list, line, "axle_material", materials(d, leg.axle_material, false, [&](const std::string& m) {
          return Choice{say("axle of the {} of {}", legs, m),
                        on_each(line, [m](Leg& l) { l.axle_material = m; })};
        }));
  seen.clear();
  for (const auto& j : leg.joints) {
    if (!seen.insert(j.material).second) continue;
    const bool fasteners = j.kind == JointKind::fasteners || j.kind == JointKind::pin;
    const auto put = [&](const std::string& m) {
      return Choice{say("{} of the {}: {}", j.name, legs, m), on_each(line, [m, was = j.material](Leg& l) {
                      for (auto& joint : l.joints)
                        if (joint.material == was) joint.material = m;
                    })};
    };
    offer(list, line, "joint_material", materials(d, j.material, fasteners, put));
  }
}

//! What has to be hung on, for the time it stands like this: as much as just keeps it down, a tenth more, and
//! what brings it down.
std::vector<Choice> hung_on(const Design& d, const Assessment& before, const Finding& finding) {
  std::vector<Choice> choices;
  const double x = d.stance.ballast_x.known() ? d.stance.ballast_x.si
                   : d.gear.has_third()       ? d.gear.third().axle.x.si
                                              : std::numeric_limits<double>::quiet_NaN();
  const LoadingState* l = before.find(finding.loading);
  if (!std::isfinite(x) || !l || !l->mass.known()) return choices;
  const double z = l->mass.down.at.z();
  for (const auto& f : before.findings) {
    if (f.measure_id != "stance.ballast_keeps" || f.loading != finding.loading || !std::isfinite(f.value))
      continue;
    for (const double times : {1.02, 1.1, 1.25}) {
      // In steps that can be weighed out.
      const double step = f.value > 5 ? 0.5 : f.value > 0.5 ? 0.05 : 0.005;
      const double mass = std::ceil(times * f.value / step) * step;
      choices.push_back({say("ballast of {} hung on at {} while it stands like this, or its tail held up",
                             Amount{mass, Kind::mass}, Amount{x, Kind::length}),
                         [mass, x, z, loading = finding.loading](Design& c) {
                           Item item;
                           item.name = unused_name(c.ledger, "hung on");
                           item.group = Group::load;
                           item.mass = Given(mass);
                           item.at.x = Given(x);
                           item.at.y = Given(0.0);
                           item.at.z = Given(z);
                           for (auto& entry : c.loadings)
                             if (entry.name == loading) {
                               Aboard aboard;
                               aboard.item = item.name;
                               entry.aboard.push_back(std::move(aboard));
                             }
                           c.ledger.push_back(std::move(item));
                         }});
    }
  }
  return choices;
}

//! What is fitted or done otherwise with a leg's steering, or to stop.
//! The steps of the aid that a finding is about, set in time.
std::vector<KnobRef> aids_in_time(const Design& d, const Assessment& before, const Finding& finding) {
  std::vector<KnobRef> list;
  for (const Aid& aid : d.sequence.aids) {
    if (finding.subject.key.find("aid:" + aid.id + "/") != 0) continue;
    const Sequence made = sequence::aid_in_time(d, before.times, aid.id);
    if (made == d.sequence) continue;
    list.push_back(one_choice("sequence." + aid.id, say("{}: both ways at its time", d.actor_word(aid.id)),
                              [made](Design& x) {
                                x.sequence.up = made.up;
                                x.sequence.down = made.down;
                              }));
  }
  return list;
}

std::vector<KnobRef> steerings(const Design& d, const Finding& finding) {
  std::vector<KnobRef> list;
  const std::string& id = finding.measure_id;
  if (id == "steer.brakes") {
    if (!d.gear.brakes)
      list.push_back(
          one_choice("weigh.brakes", "wheel brakes fitted", [](Design& x) { x.gear.brakes = true; }));
    return list;
  }
  const Leg* leg = d.gear.find(finding.subject.leg);
  if (!leg) return list;
  const Text word = d.leg_word(*leg);
  const auto offer = [&](const char* what, Text words, std::function<void(Steering&)> put) {
    list.push_back(
        one_choice(leg->id + "." + what, std::move(words), [of = leg->id, put = std::move(put)](Design& x) {
          if (Leg* l = x.gear.find(of)) put(l->steering);
        }));
  };
  if (id == "steer.off")
    offer("steer_off", say("steering of the {} centred and switched off before it goes up", word),
          [](Steering& s) { s.lets_go = true; });
  if (id == "steer.fold")
    offer("steer_slides",
          say("rods of the {} that slide through the arm, collars for the leg that is down", word),
          [](Steering& s) { s.kind = SteeringKind::sliding_rods; });
  if (id == "steer.square" || id == "steer.fold" || id == "steer.pull") {
    // The arm the other way round, about the leg's line.
    const auto axis = steer::steering_axis(*leg);
    if (axis && leg->steering.rod_leg.known()) {
      const Vec3 other = axis->turn(std::numbers::pi) * leg->steering.rod_leg.vec();
      offer("steer_reversed", say("arm of the {} the other way round", word),
            [other](Steering& s) { s.rod_leg.set(other); });
    }
  }
  return list;
}

}  // namespace

bool on_the_bench(const Design& d, const Finding& finding) {
  return finding.measure_id.starts_with("stance.") &&
         std::any_of(d.loadings.begin(), d.loadings.end(),
                     [&](const Loading& l) { return l.name == finding.loading && !l.flown; });
}

std::vector<KnobRef> swaps_for(const Design& d, const Assessment& before, const Stock& stock,
                               const Finding& finding) {
  const std::string& id = finding.measure_id;
  const auto of = [&](std::initializer_list<std::string_view> starts) {
    return std::any_of(starts.begin(), starts.end(), [&](std::string_view s) { return id.starts_with(s); });
  };
  const bool by_wheel =
      of({"place.tyre_left", "place.ground_pressure", "place.wheel_", "place.propeller", "place.low_point",
          "place.one_down", "place.tail_strike", "place.twin_", "spring.rim", "stance.wing_angle", "swing."});
  const bool by_spring = of({"spring.", "stance.wing_angle", "stance.sag"});
  const bool by_material = of({"leg.margin", "leg.path", "spring.bend_", "spring.set"});
  const bool by_former =
      of({"place.former", "place.nose_share", "place.tail_share", "place.turnover", "place.tipping"});
  const bool by_strap = of({"leg.edge_distance"});
  const bool by_box = of({"leg.mount_twist", "leg.cradle"});
  std::vector<KnobRef> list;
  if (on_the_bench(d, finding)) {
    LegLine aircraft;
    aircraft.ids = {"weigh"};
    offer(list, aircraft, "hung_on", hung_on(d, before, finding));
    return list;
  }
  if (of({"steer."})) return steerings(d, finding);
  if (of({"doors.", "sequence.zone"})) return door_swaps(d, before, finding);
  if (of({"sequence.aid"})) return aids_in_time(d, before, finding);
  if (of({"sequence.box_"})) return box_swaps(d, stock.boxes, finding);
  if (of({"logic."})) return logic_swaps(d, before, finding);
  if (of({"drive.force"})) return air_swaps(d, finding);
  if (of({"drive.counted"})) return circuit_swaps(d, before, finding);
  if (of({"circuit."})) {
    list = circuit_swaps(d, before, finding);
    for (auto& k : air_swaps(d, finding)) list.push_back(std::move(k));
    return list;
  }
  if (of({"drive.free_fall"})) {
    for (const LegLine& line : leg_lines(d))
      if (std::find(line.ids.begin(), line.ids.end(), finding.subject.leg) != line.ids.end())
        offer(list, line, "down_spring", down_springs(d, line));
    return list;
  }
  if (of({"swing.stowed_miss"})) {
    for (const LegLine& line : leg_lines(d))
      if (std::find(line.ids.begin(), line.ids.end(), finding.subject.leg) != line.ids.end())
        for (const auto& [what, choices] :
             {std::pair{"axis", axes(d, line)}, std::pair{"rod", rods(d, line)}})
          offer(list, line, what, choices);
    return list;
  }
  const bool by_unit = of({"swing.unit_", "swing.clearance", "drive.unit_"});
  if (of({"weigh.tray_ends"})) {
    LegLine aircraft;
    aircraft.ids = {"weigh"};
    offer(list, aircraft, "tray_ends", tray_loadings(d, finding.subject));
    return list;
  }
  if (!by_wheel && !by_spring && !by_material && !by_former && !by_strap && !by_box && !by_unit) return list;
  for (const LegLine& line : leg_lines(d)) {
    // What is about a leg is moved by the legs of its line.
    const bool its = finding.subject.leg.empty() ||
                     std::find(line.ids.begin(), line.ids.end(), finding.subject.leg) != line.ids.end();
    if (!its) continue;
    if (by_wheel) offer(list, line, "wheel_from_shelf", wheels(d, before, stock, line));
    if (by_unit && d.gear.legs[line.rows[0]].retraction.fitted)
      offer(list, line, "unit_from_shelf", units(d, before, stock, line));
    if (by_spring) offer(list, line, "spring_from_shelf", springs(d, before, stock, line));
    if (by_material) material_swaps(d, line, of({"leg.margin", "leg.path"}), list);
    const LegRole role = d.gear.legs[line.rows[0]].role;
    if (by_former && (role == LegRole::nose || role == LegRole::tail))
      offer(list, line, "to_former", formers(d, line));
    if (of({"leg.path", "leg.margin"})) offer(list, line, "post_to_spar", posts(d, line, finding.subject));
    if (of({"leg.margin"})) offer(list, line, "cheeks", boxed(d, line, finding.subject, false));
    if (of({"leg.mount_twist"})) offer(list, line, "box", boxed(d, line, finding.subject, true));
    if (of({"swing.unit_misfit"})) offer(list, line, "remade", remade(d, line));
    if (of({"leg.cradle"})) offer(list, line, "facing", facings(d, line));
    if (by_strap) offer(list, line, "straps", straps(d, line, finding.subject));
  }
  return list;
}

}  // namespace kranich
