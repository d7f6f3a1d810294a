// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/joints.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/force/materials.h"
#include "core/leg/strength.h"

namespace kranich::leg {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();

//! A load in a face's own axes: u, v along it, n off it; bending over u (about v) and over v (about u), twist
//! in the face. `pull` is what takes the joint off its face; a positive moment over u lifts the edge at +u
//! and presses the one at −u.
struct FaceLoad {
  double u, v, pull, over_u, over_v, twist;
};
FaceLoad on_face(JointFace face, const Vec3& f, const Vec3& m) {
  switch (face) {
    case JointFace::under:  // the leg hangs below: what presses up does not pull
      return {f.x(), f.y(), std::max(0.0, -f.z()), m.y(), -m.x(), m.z()};
    case JointFace::facing_aft:
      return {f.y(), f.z(), std::max(0.0, f.x()), -m.z(), m.y(), m.x()};
    case JointFace::facing_side:
      return {f.x(), f.z(), std::abs(f.y()), m.z(), -m.x(), -m.y()};
  }
  return {};
}

//! Where u and v of a face point in aircraft axes.
std::pair<Vec3, Vec3> axes_of(JointFace face) {
  switch (face) {
    case JointFace::under:
      return {Vec3::UnitX(), Vec3::UnitY()};
    case JointFace::facing_aft:
      return {Vec3::UnitY(), Vec3::UnitZ()};
    case JointFace::facing_side:
      return {Vec3::UnitX(), Vec3::UnitZ()};
  }
  return {Vec3::UnitX(), Vec3::UnitY()};
}

//! One thing that can give way in one case: the stress at the limit load against what is allowed at the
//! ultimate.
struct Way {
  double margin;
  Text decides;
  double load, stress, allowed;
};
Way way(const Text& decides, double load, double stress, double strength, double ultimate) {
  const double size = std::abs(stress);
  return {size > 0 ? strength / (ultimate * size) - 1 : never, decides, load, size, strength / ultimate};
}

class Check {
 public:
  Check(const Joint& joint, const std::vector<Material>& own, double ultimate)
      : j_(joint),
        ultimate_(ultimate),
        of_(force::find_material(own, joint.material)),
        into_(force::find_material(own, joint.into)) {}

  //! What the joint lacks before anything can be said.
  Text missing() const {
    if (!j_.at.known()) return "the joint's place";
    switch (j_.kind) {
      case JointKind::pin:
        if (!j_.diameter.known() || !j_.planes.known() || !j_.inner_thickness.known() ||
            !j_.outer_thickness.known())
          return "the pin's diameter, its shear planes and the thickness of the lugs";
        if (!of_) return "the pin's material";
        if (!into_) return "the lugs' material";
        if (j_.carries.empty() && !j_.brace_arm.known())
          return "the distance at which brace or drive holds the moment";
        return {};
      case JointKind::fasteners:
        if (j_.fasteners.empty()) return "the fasteners' places";
        for (const auto& f : j_.fasteners)
          if (!f.u.known() || !f.v.known() || !f.diameter.known())
            return "place and diameter of every fastener";
        if (!of_) return "the fasteners' material";
        if (!into_) return "the material they bear on";
        if (!j_.inner_thickness.known()) return "the thickness of what they bear on";
        return {};
      case JointKind::block:
        if (!j_.length.known() || !j_.width.known()) return "the block's length and width";
        if (!of_) return "the adhesive";
        return {};
      case JointKind::plate:
        if (!j_.length.known() || !j_.width.known()) return "the plate's length and width";
        if (!of_) return "the adhesive";
        if (!into_) return "what it is fixed to";
        return {};
      case JointKind::post:
        if (!std::isfinite(post_line(j_).length) || !j_.diameter.known())
          return "the post's diameter, and its length or its other end";
        if (!of_ || !of_->youngs_modulus.known()) return "the post's material";
        if (!into_) return "the spar's material";
        return {};
    }
    return {};
  }

  Way weakest(const JointLoad& load, std::vector<FastenerLoad>& fasteners) const {
    switch (j_.kind) {
      case JointKind::pin:
        return pin(load);
      case JointKind::fasteners:
        return group(load, fasteners);
      case JointKind::block:
        return block(load);
      case JointKind::plate:
        return plate(load);
      case JointKind::post:
        return post(load);
    }
    return {};
  }

 private:
  static Way least(std::initializer_list<Way> ways) {
    return *std::min_element(ways.begin(), ways.end(),
                             [](const Way& a, const Way& b) { return a.margin < b.margin; });
  }

  Way pin(const JointLoad& l) const {
    // The force itself, and the couple by which the moment is held over the brace's arm.
    const double load = l.force.norm() + (j_.carries.empty() ? l.moment.norm() / j_.brace_arm : 0);
    const auto s =
        pin_stress(load, j_.diameter, j_.planes >= 1.5 ? 2 : 1, j_.inner_thickness, j_.outer_thickness);
    const auto metal = force::allowable_of(*of_, j_.diameter, false);
    const auto lugs = force::allowable_of(*into_, j_.diameter, false);
    return least({way("pin in shear", load, s.shear, metal.shear, ultimate_),
                  way("bearing in the inner lug", load, s.inner_bearing, lugs.bearing, ultimate_),
                  way("bearing in the outer lugs", load, s.outer_bearing, lugs.bearing, ultimate_)});
  }

  //! Pull on each fastener of a stiff plate that rolls about its compressed edge: the plate's, where its size
  //! (m) is given, else the outermost fastener. A positive moment lifts the edge at +: the one at − is
  //! compressed.
  template <class Coordinate>
  std::vector<double> rolled(double moment, double size, Coordinate of) const {
    const double lifts = moment < 0 ? -1 : 1;
    double edge = std::isfinite(size) ? -size / 2 : std::numeric_limits<double>::infinity();
    double squares = 0;
    for (const auto& f : j_.fasteners) edge = std::min(edge, lifts * of(f));
    for (const auto& f : j_.fasteners) squares += std::pow(lifts * of(f) - edge, 2);
    std::vector<double> pull;
    for (const auto& f : j_.fasteners)
      pull.push_back(squares > 0 ? std::abs(moment) * (lifts * of(f) - edge) / squares : 0);
    return pull;
  }

  Way group(const JointLoad& l, std::vector<FastenerLoad>& fasteners) const {
    const FaceLoad f = on_face(j_.face, l.force, l.moment);
    std::vector<Bolt> bolts;
    double total = 0;
    for (const auto& b : j_.fasteners) {
      bolts.push_back({b.u, b.v, b.diameter});
      total += b.diameter * b.diameter;
    }
    // A force through the joint's place with a twist beside it is one force moved aside.
    const double size2 = std::max(1e-12, f.u * f.u + f.v * f.v);
    const auto shear = bolt_group(bolts, f.u, f.v, f.twist * f.v / size2, -f.twist * f.u / size2);
    const auto roll_u = rolled(f.over_u, j_.length, [](const Fastener& b) { return b.u.si; });
    const auto roll_v = rolled(f.over_v, j_.width, [](const Fastener& b) { return b.v.si; });
    const auto metal = force::allowable_of(*of_, j_.fasteners.front().diameter, false);
    const auto sheet = force::allowable_of(*into_, j_.inner_thickness, false);
    Way worst{never, "", 0, 0, 0};
    const auto [u_axis, v_axis] = axes_of(j_.face);
    for (size_t i = 0; i < bolts.size(); ++i) {
      const double d = bolts[i].diameter;
      const double area = std::numbers::pi * d * d / 4;
      const double pull = roll_u[i] + roll_v[i] + f.pull * d * d / total;
      fasteners.push_back({j_.name, j_.at.vec() + bolts[i].x * u_axis + bolts[i].y * v_axis, shear[i], pull});
      // The core of a thread is three quarters of the shank; a screw holds what its wood lets it.
      const double holds = j_.holds.known() ? j_.holds.si : 0.75 * area * metal.ultimate;
      const double used = std::hypot(shear[i] / (area * metal.shear), pull / holds);
      const Text name = say("fastener {}", counted(i + 1));
      const Way both{
          used > 0 ? 1 / (ultimate_ * used) - 1 : never,
          pull / holds > shear[i] / (area * metal.shear) ? say("{} pulled", name) : say("{} sheared", name),
          std::hypot(shear[i], pull), std::hypot(shear[i], pull) / area, metal.shear / ultimate_};
      const Way bears = way(say("{} bearing in the sheet", name), shear[i],
                            shear[i] / (d * j_.inner_thickness), sheet.bearing, ultimate_);
      worst = least({worst, both, bears});
    }
    return worst;
  }

  //! The pull-off of a glued block: glue alone, or its screws alone, whichever holds more.
  Way block(const JointLoad& l) const {
    const FaceLoad f = on_face(j_.face, l.force, l.moment);
    // Screws by their distance from the edge that is compressed over u.
    const double lifts = f.over_u < 0 ? -1 : 1;
    std::vector<BlockScrews> screws;
    for (const auto& s : j_.fasteners)
      if (s.u.known()) screws.push_back({lifts * s.u + j_.length / 2, 1});
    const double over_u = std::abs(f.over_u);
    const double over_v = std::abs(f.over_v);
    const double along = std::max(1e-9, std::abs(f.u));
    const auto b = block_pull(j_.length, j_.width, along, over_u / along, f.pull, screws);
    const double peak = b.glue_peak + 6 * over_v / (j_.length * j_.width * j_.width);
    const auto glue = force::allowable_of(*of_, 0, false);
    const Way glued =
        least({way("glue peeled at its edge", std::hypot(b.moment, over_v), peak, glue.ultimate, ultimate_),
               way("glue sheared", std::hypot(f.u, f.v), std::hypot(f.u, f.v) / (j_.length * j_.width),
                   glue.shear, ultimate_)});
    if (screws.empty() || !j_.holds.known()) return glued;
    double aside = 0;  // of the screw that the sideways moment pulls hardest
    const bool placed = std::all_of(j_.fasteners.begin(), j_.fasteners.end(),
                                    [](const Fastener& s) { return s.u.known() && s.v.known(); });
    if (placed)
      for (const double p : rolled(f.over_v, j_.width, [](const Fastener& s) { return s.v.si; }))
        aside = std::max(aside, p);
    else if (over_v > 0)
      return glued;  // screws of which it is not known how far out they sit
    const double pull = b.largest_screw_pull + aside;
    const Way screwed{pull > 0 ? j_.holds / (ultimate_ * pull) - 1 : never, "screws pulled out", pull, pull,
                      j_.holds / ultimate_};
    return screwed.margin > glued.margin ? screwed : glued;
  }

  //! A plate that spreads the load on foam, thin skin or wood: pressed at one edge, glued along its face.
  Way plate(const JointLoad& l) const {
    const FaceLoad f = on_face(j_.face, l.force, l.moment);
    const double area = j_.length * j_.width;
    const double press = j_.face == JointFace::under ? std::max(0.0, l.force.z()) : 0;
    const double edge = 6 * std::abs(f.over_u) / (j_.width * j_.length * j_.length) +
                        6 * std::abs(f.over_v) / (j_.length * j_.width * j_.width);
    const auto glue = force::allowable_of(*of_, 0, false);
    const auto base = force::allowable_of(*into_, 0, false);
    const double tension = std::min(glue.ultimate, base.ultimate);
    const double crush = std::isfinite(base.bearing) ? base.bearing : base.ultimate;
    const Way bare =
        least({way("face crushed at the plate's edge", press, press / area + edge, crush, ultimate_),
               way("glue or face torn at the plate's edge", f.pull,
                   std::max(0.0, edge + (f.pull - press) / area), tension, ultimate_),
               way("glue or face sheared", std::hypot(f.u, f.v), std::hypot(f.u, f.v) / area,
                   std::min(glue.shear, base.shear), ultimate_)});
    if (!j_.cheeks.known()) return bare;
    const Way boxed = cheeks(f, press, std::min(glue.shear, base.shear));
    return boxed.margin > bare.margin ? boxed : bare;
  }

  //! Two side cheeks that run along u: all their glue in shear. Pull or press halves; the moment over u turns
  //! each in its own plane (τ = M·r/J of the rectangle); the one over v is a couple between them. As with a
  //! block, their glue and the plate's are not added.
  Way cheeks(const FaceLoad& f, double press, double shear) const {
    const double l = j_.length;
    const double h = j_.cheeks;
    const double area = l * h;
    const double diagonal = std::hypot(l, h);
    const double turned = std::abs(f.over_u) / 2 * (diagonal / 2) / (area * diagonal * diagonal / 12);
    const double off = std::max(f.pull, press) / 2 + std::abs(f.over_v) / j_.width;
    const double along = std::abs(f.u) / 2 + std::abs(f.twist) / j_.width;
    const double stress = std::hypot(turned + off / area, along / area);
    // What pushes a cheek square off its wall presses the other one on: the glue is asked in tension there.
    const double square = std::abs(f.v) / (2 * area);
    return way("glue of the side cheeks sheared", std::max(f.pull, press), std::hypot(stress, square), shear,
               ultimate_);
  }

  //! A post that carries what presses up on to the spar: bearing there, and as a column.
  Way post(const JointLoad& l) const {
    // Along itself, where it leans.
    const PostLine line = post_line(j_);
    const double load = std::max(0.0, l.force.z()) / std::cos(line.lean);
    const double area = std::numbers::pi * j_.diameter * j_.diameter / 4;
    const double inertia = std::numbers::pi * std::pow(j_.diameter.si, 4) / 64;
    const auto spar = force::allowable_of(*into_, 0, false);
    const auto own = force::allowable_of(*of_, j_.diameter, false);
    const double column =
        std::numbers::pi * std::numbers::pi * of_->youngs_modulus * inertia / (line.length * line.length);
    const double bears = std::isfinite(spar.bearing) ? spar.bearing : spar.ultimate;
    return least({way("bearing on the spar", load, load / area, bears, ultimate_),
                  way("post crushed", load, load / area, own.ultimate, ultimate_),
                  way("post giving way as a column", load, load / area, column / area, ultimate_)});
  }

  const Joint& j_;
  double ultimate_;
  const Material* of_;
  const Material* into_;
};

}  // namespace

PostLine post_line(const Joint& post) {
  if (!post.at.known() || !post.to.known()) return {post.length, 0, 0, 0};
  const Vec3 way = post.to.vec() - post.at.vec();
  const double up = std::abs(way.z());
  return {way.norm(), std::atan2(std::hypot(way.x(), way.y()), up), std::atan2(way.x(), up),
          std::atan2(way.y(), up)};
}

double post_rate(const Joint& post, double youngs_modulus) {
  return youngs_modulus * std::numbers::pi * post.diameter * post.diameter / 4 / post_line(post).length;
}

double share_of_post(const Joint& post, const std::vector<Material>& own) {
  const Material* material = force::find_material(own, post.material);
  if (!post.bay_rate.known() || !material || !material->youngs_modulus.known() || !post.diameter.known())
    return 1;
  const double lean = std::cos(post_line(post).lean);
  const double rate = post_rate(post, material->youngs_modulus) * lean * lean;
  return std::isfinite(rate) ? rate / (rate + post.bay_rate) : 1;
}

double mount_twist(const Joint& plate, double torque, double shear_modulus) {
  const double length = std::max(plate.length.si, plate.width.si);
  const double width = std::min(plate.length.si, plate.width.si);
  double torsion = width * std::pow(plate.thickness.si, 3) / 3;
  if (plate.box_depth.known()) {
    const double area = width * plate.box_depth;
    torsion = 2 * area * area * plate.box_wall.si / (width + plate.box_depth);
  }
  return torque * length / (4 * shear_modulus * torsion);
}

PartMargin check_joint(const Joint& joint, const std::vector<Material>& own,
                       const std::vector<JointLoad>& loads, double ultimate,
                       std::vector<FastenerLoad>& fasteners) {
  PartMargin p;
  p.part = joint.name;
  if (joint.at.known()) p.at = joint.at.vec();
  const Check check(joint, own, ultimate);
  p.missing = check.missing();
  if (p.missing.empty() && loads.empty())
    p.missing = joint.carries.empty() ? Text("a load case") : say("a tube of the name “{}”", joint.carries);
  if (!p.missing.empty()) return p;
  std::vector<FastenerLoad> of_worst;
  const bool along_u = !joint.width.known() || joint.length >= joint.width;
  for (const auto& l : loads) {
    std::vector<FastenerLoad> here;
    const FaceLoad face = on_face(joint.face, l.force, l.moment);
    p.pull = std::max(p.pull, face.pull);
    p.twist = std::max(p.twist, std::abs(along_u ? face.over_v : face.over_u));
    const Way w = check.weakest(l, here);
    if (std::isnan(w.margin)) {
      p.missing = say("a strength of “{}” or “{}” for {}", joint.material, joint.into, w.decides);
      return p;
    }
    if (std::isfinite(p.margin) && w.margin >= p.margin) continue;
    p.margin = w.margin;
    p.decides = w.decides;
    p.in_case = l.in_case;
    p.load = w.load;
    p.stress = w.stress;
    p.allowed = w.allowed;
    of_worst = std::move(here);
  }
  p.working = {{"carries, limit", p.load, Kind::force},
               {"stress at the limit load", p.stress, Kind::stress},
               {"allowed at the limit load", p.allowed, Kind::stress}};
  // Which of them work, and which only locate.
  double hardest = 0;
  for (const auto& f : of_worst) hardest = std::max(hardest, f.tension);
  for (size_t i = 0; i < of_worst.size(); ++i) {
    const auto& f = of_worst[i];
    const bool works = f.tension > 0.5 * hardest && hardest > f.shear;
    p.working.push_back({works ? say("fastener {} works, pulled by", counted(i + 1))
                               : say("fastener {} locates, pulled by", counted(i + 1)),
                         f.tension, Kind::force});
    p.working.push_back({say("fastener {}, sheared by", counted(i + 1)), f.shear, Kind::force});
  }
  if (joint.kind == JointKind::post && joint.to.known()) {
    const PostLine line = post_line(joint);
    p.working.push_back({"as long as", line.length, Kind::length});
    p.working.push_back({"drilled aft of upright by", line.rake, Kind::angle});
    p.working.push_back({"drilled outboard of upright by", line.cant, Kind::angle});
    p.remark = say("lower end bevelled by {} to sit in the plate's corner, upper end cupped for the spar",
                   Amount{line.lean, Kind::angle});
  }
  if (joint.kind == JointKind::plate && joint.cheeks.known()) {
    Joint bare = joint;
    bare.cheeks = Given();
    std::vector<FastenerLoad> none;
    p.working.push_back(
        {"margin of the bare plate", check_joint(bare, own, loads, ultimate, none).margin, Kind::share});
    p.remark = "the plate's own glue and its cheeks' are not added: it holds if one alone does";
  }
  if (joint.kind == JointKind::block) p.remark = "glue and screws are not added: it holds if one alone does";
  if (joint.material == "epoxy, five-minute") p.remark = "brittle under shock: a slow epoxy is tougher";
  if (joint.material == "blind rivet, ordinary")
    p.remark = "ordinary rivets were found wanting in hard landings; structural ones shear at several times";
  fasteners.insert(fasteners.end(), of_worst.begin(), of_worst.end());
  return p;
}

}  // namespace kranich::leg
