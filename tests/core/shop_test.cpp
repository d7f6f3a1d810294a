// SPDX-License-Identifier: GPL-3.0-or-later
//! Sheets for the bench: true lengths, bending plans, drawings and how they are written.
#include <catch2/catch.hpp>
#include <numbers>
#include <set>

#include "core/assess/strength_state.h"
#include "core/leg/structure.h"
#include "core/motion/retract.h"
#include "core/shop/sheets.h"
#include "core/swing/cutout.h"
#include "demo.h"
#include "said.h"

using namespace kranich;
using shop::Drawing;
using shop::Vec2;

namespace {

std::vector<shop::Sheet> sheets(const Design& d) {
  return shop::shop_sheets(d, assess(d), "loading “x”, legs extended");
}
const shop::Sheet& sheet(const std::vector<shop::Sheet>& all, const std::string& id) {
  for (const auto& s : all)
    if (s.id == id) return s;
  FAIL("no sheet " << id);
  return all.front();
}
Drawing drawing(const std::vector<shop::Sheet>& all, const std::string& id) {
  const auto& s = sheet(all, id);
  if (!s.ready()) FAIL(id << " needs " << std::get<Text>(s.drawing));
  return std::get<Drawing>(s.drawing);
}
bool says(const Drawing& d, const std::string& text) {
  for (const auto& t : d.texts)
    if (t.text.find(text) != std::string::npos) return true;
  for (const auto& n : d.notes)
    if (n.find(text) != std::string::npos) return true;
  return false;
}
//! Length of a path.
double way(const shop::Path& p) {
  double sum = 0;
  for (size_t i = 1; i < p.points.size(); ++i) sum += (p.points[i] - p.points[i - 1]).norm();
  return sum;
}

}  // namespace

TEST_CASE("true lengths, rake and cant are those of the attach points and the axle") {
  const auto d = demo("wheatear");
  const auto members = shop::members_of(d);
  REQUIRE(members.size() == 3);
  const Vec3 foot = motion::foot(d.gear.main());
  for (const auto& m : members) {
    if (m.leg != "main leg") continue;
    const auto& tube = m.name == "front leg" ? d.gear.main().tubes[0] : d.gear.main().tubes[1];
    const Vec3 line = foot - tube.top.vec();
    CHECK(m.geometry.length == Approx(line.norm()));
    CHECK(std::tan(m.geometry.cant) == Approx(line.y() / -line.z()));
    CHECK(std::tan(m.geometry.rake) == Approx(line.x() / line.z()));
    CHECK(std::cos(m.drill_top) == Approx(std::abs(line.x()) / line.norm()));
    CHECK(std::cos(m.drill_axle) ==
          Approx(std::abs(line.dot(motion::axle_direction(d.gear.main()))) / line.norm()));
    CHECK(m.count == 2);
    CHECK(m.material == "chrome-molybdenum steel");
  }
  CHECK(members.back().count == 1);
  // A leg that bends has no straight member.
  for (const auto& m : shop::members_of(demo("redshank"))) CHECK(m.leg == "main leg");
}

TEST_CASE("a bending plan: straight, one right angle, two in different planes") {
  const double d = 0.004;
  CHECK(shop::bending_plan({{0, 0, 0}, {0, 0.1, 0}, {0, 0.25, 0}}, d).bends.empty());
  CHECK(shop::bending_plan({{0, 0, 0}, {0, 0.1, 0}, {0, 0.25, 0}}, d).length == Approx(0.25));
  const auto one = shop::bending_plan({{0, 0, 0}, {0, 0.1, 0}, {0, 0.1, -0.2}}, d);
  REQUIRE(one.bends.size() == 1);
  const double neutral = 2.5 * d;
  CHECK(one.bends[0].angle == Approx(std::numbers::pi / 2));
  CHECK(one.bends[0].start == Approx(0.1 - neutral));
  CHECK(one.bends[0].radius == Approx(2 * d));
  CHECK(one.length == Approx(0.3 - 2 * neutral + neutral * std::numbers::pi / 2));
  const auto two = shop::bending_plan({{0, 0, 0}, {0, 0.1, 0}, {0, 0.1, -0.2}, {0.1, 0.1, -0.2}}, d);
  REQUIRE(two.bends.size() == 2);
  CHECK(std::abs(two.bends[1].turned) == Approx(std::numbers::pi / 2));
  const auto back = shop::bending_plan({{0, 0, 0}, {0, 0.1, 0}, {0, 0.1, -0.2}, {-0.1, 0.1, -0.2}}, d);
  CHECK(back.bends[1].turned == Approx(-two.bends[1].turned));
  const auto level = shop::bending_plan({{0, 0, 0}, {0, 0.1, 0}, {0, 0.1, -0.2}, {0, 0.2, -0.2}}, d);
  CHECK(std::abs(level.bends[1].turned) == Approx(std::numbers::pi));  // bent back the other way
}

TEST_CASE("every demo's sheets are ready or say what they lack; every one has its stamp's state") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto all = sheets(demo(name));
    CHECK(all.size() >= 6);
    std::set<std::string> files;
    for (const auto& s : all) {
      INFO(name << " " << s.id);
      CHECK(files.insert(shop::file_name(s)).second);
      CHECK(shop::file_name(s).find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789-") ==
            std::string::npos);
      if (!s.ready()) {
        CHECK_FALSE(std::get<Text>(s.drawing).empty());
        continue;
      }
      const auto& d = std::get<Drawing>(s.drawing);
      CHECK(d.title == s.title);
      CHECK(d.state.find("extended") != std::string::npos);
      CHECK(d.bounds().size().x() > 10);
      CHECK(d.bounds().size().y() > 5);
      for (const auto& p : d.paths)
        for (const auto& q : p.points) CHECK(q.allFinite());
    }
    for (const char* always : {"jig", "cut-list", "hardware"}) CHECK(sheet(all, always).ready());
  }
}

TEST_CASE("the jig sheet carries the jig's numbers in the project's units") {
  auto d = demo("wheatear");
  const auto fig = std::get<JigFigures>(jig_of(d));
  CHECK(fig.jig.bar_length ==
        Approx(2 * (d.gear.main().axle.y + d.gear.main().axle_beyond_wheel) - 2 * d.jig.axle_out));
  CHECK(fig.jig.axle_height == Approx(d.gear.main().axle.z - d.jig.reference_z + d.jig.reference_height));
  const auto metric = sheets(d);
  CHECK(says(drawing(metric, "jig"), format_quantity(fig.jig.bar_length, Kind::length, UnitSystem::metric)));
  CHECK(says(drawing(metric, "jig"),
             format_quantity(fig.jig.square_diagonal, Kind::length, UnitSystem::metric)));
  CHECK(drawing(metric, "jig").scale < 1);
  d.units = UnitSystem::inch;
  const auto inch = sheets(d);
  CHECK(says(drawing(inch, "jig"), format_quantity(fig.jig.axle_height, Kind::length, UnitSystem::inch)));
  CHECK(says(drawing(metric, "jig"), "proof test"));
}

TEST_CASE("a jig names what it lacks") {
  const auto missing = [](auto&& change) {
    auto d = demo("wheatear");
    change(d);
    const auto made = jig_of(d);
    return std::holds_alternative<Text>(made) ? std::get<Text>(made) : Text();
  };
  CHECK(missing([](Design&) {}).empty());
  CHECK(says(missing([](Design& d) { d.jig.axle_out = Given(); }), "sticks out"));
  CHECK(says(missing([](Design& d) { d.jig.reference_height = Given(); }), "floor"));
  CHECK(says(missing([](Design& d) { d.jig.point_x = Given(); }), "diagonals"));
  CHECK(says(missing([](Design& d) { d.jig.point_x = Given(0.5); }), "behind"));
  CHECK(says(missing([](Design& d) { d.jig.axle_out = Given(1.5); }), "half"));
  CHECK(says(missing([](Design& d) { d.gear.main().axle_beyond_wheel = Given(); }), "tip"));
  CHECK(says(missing([](Design& d) { d.gear.main().axle.x = Given(); }), "axle"));
}

TEST_CASE("diagonals and bar come back as toe and camber") {
  auto d = demo("wheatear");
  const auto value = [&](const char* id, const std::string& subject) {
    for (const auto& f : assess(d).findings)
      if (f.measure_id == id && in_words(f.subject.words) == subject) return f.value;
    return std::nan("");
  };
  const auto j = std::get<JigFigures>(jig_of(d));
  const double toe = radians(0.3);
  // A bar turned by the toe, measured to a point behind its middle.
  const double half = j.jig.bar_length / 2;
  d.jig.diagonal_starboard = Given(std::hypot(j.behind + half * std::sin(toe), half * std::cos(toe)));
  d.jig.diagonal_port = Given(std::hypot(j.behind - half * std::sin(toe), half * std::cos(toe)));
  CHECK(value("leg.square", "") == Approx(toe).epsilon(1e-9));
  for (const auto& f : assess(d).findings)  // in shop words, about the bar's middle
    if (f.measure_id == "leg.square")
      CHECK(plain(f.remark) ==
            "port end forward by " +
                plain(format_quantity(half * std::sin(toe), Kind::length, UnitSystem::metric)) +
                ", starboard end aft by as much");
  const double apart = 2 * d.gear.main().axle.y;
  d.jig.bar_starboard = {{}, Given(apart * std::tan(radians(0.4))), Given(apart * std::tan(radians(4.5)))};
  CHECK(value("leg.bar_toe", "starboard") == Approx(radians(0.4)).epsilon(1e-9));
  CHECK(value("leg.bar_camber", "starboard") == Approx(radians(0.5)).epsilon(1e-9));  // 4° are wanted
  d.jig.diagonal_port = Given();
  bool asked = false;
  for (const auto& f : assess(d).findings)
    asked = asked || (f.measure_id == "leg.square" && in_words(f.remark) == "needs both diagonals");
  CHECK(asked);
}

TEST_CASE("a cope template is as wide as its tube is round, and cut as the formula says") {
  const auto d = demo("wheatear");
  const auto& s = drawing(sheets(d), "cope:main:rear leg");
  const double round = 1000 * std::numbers::pi * d.gear.main().tubes[1].diameter;
  const shop::Path* curve = nullptr;
  for (const auto& p : s.paths)
    if (p.points.size() > 100) curve = &p;
  REQUIRE(curve);
  CHECK(curve->points.back().x() - curve->points.front().x() == Approx(round));
  const Vec3 foot = motion::foot(d.gear.main());
  const double theta =
      leg::drill_angle(d.gear.main().tubes[1].top.vec() - foot, d.gear.main().tubes[0].top.vec() - foot);
  const leg::Cope c{d.gear.main().tubes[1].diameter / 2, d.gear.main().tubes[0].diameter / 2, theta, 0};
  const double lowest = 1000 * *c.at(0) - curve->points.front().y();
  for (size_t i = 0; i < curve->points.size(); i += 15) {
    const double phi = 2 * std::numbers::pi * static_cast<double>(i) / 180;
    CHECK(curve->points[i].y() + lowest == Approx(1000 * *c.at(phi)).margin(1e-9));
  }
  CHECK(s.scale == 1);
  auto thick = d;
  thick.gear.main().tubes[1].diameter = Given(0.06);
  CHECK_FALSE(sheet(sheets(thick), "cope:main:rear leg").ready());
}

TEST_CASE("plates, wells and units are drawn full size") {
  const auto d = demo("redshank");
  const auto all = sheets(d);
  const auto& plate = drawing(all, "plate:main:unit bolts");
  REQUIRE(plate.circles.size() == 4);
  for (size_t i = 0; i < 4; ++i) {
    const auto& f = d.gear.main().joints[0].fasteners[i];
    CHECK(plate.circles[i].centre.isApprox(Vec2(1000 * f.u, 1000 * f.v)));
    CHECK(plate.circles[i].radius == Approx(500 * f.diameter));
  }
  // The cut-out is what the leg sweeps through the skin, grown by the clearance.
  const auto& well = drawing(all, "well:main");
  const Leg& leg = d.gear.main();
  const auto moving = std::get<swing::MovingLeg>(swing::moving_leg(leg));
  const auto cut = swing::cut_out(moving, leg.retraction.well.low.z, leg.retraction.well.clearance);
  REQUIRE_FALSE(cut.outlines.empty());
  double low = 1e9;
  double high = -1e9;
  for (const auto& path : well.paths)
    if (path.line == shop::Line::cut)
      for (const auto& q : path.points) {
        low = std::min(low, q.x());
        high = std::max(high, q.x());
      }
  CHECK(high - low == Approx(1000 * cut.length).margin(0.1));
  // A floor that the leg passes gets its slot, one that it does not is told.
  Design with = d;
  with.gear.main().retraction.floor =
      Given(leg.retraction.pivot.z - 0.4 * (leg.retraction.pivot.z - leg.axle.z));
  CHECK_FALSE(drawing(sheets(with), "slot:main").paths.empty());
  with.gear.main().retraction.floor = Given(5.0);
  CHECK_FALSE(sheet(sheets(with), "slot:main").ready());
  const auto dunnock = sheets(demo("dunnock"));
  CHECK(drawing(dunnock, "unit:main").circles.size() == 4);
  CHECK_FALSE(sheet(dunnock, "unit:third").ready());  // its body is not given
  CHECK(says(drawing(dunnock, "lay-up"), "[x]"));
  CHECK(says(drawing(dunnock, "hardware"), "pivot pin"));
}

namespace {

BentPoint strip_point(double x, double y, double z, double width) {
  return {{}, {{}, Given(x), Given(y), Given(z)}, Given(width), Given(0.008)};
}

}  // namespace

TEST_CASE("a leaf laid flat: lengths stay, a raked one is not straight, bends take their share") {
  BentLeg b;
  // Out and down in two facets, the lower one raked aft by 55 mm.
  b.line = {strip_point(1.0, 0.2, -0.2, 0.10), strip_point(1.0, 0.5, -0.4, 0.09),
            strip_point(1.055, 0.7, -0.8, 0.08)};
  const std::vector<double> thickness(3, 0.008);
  const auto cloth = shop::flat_strip(b, thickness, 0);
  REQUIRE(cloth);
  CHECK(cloth->points.back().aside == Approx(0.055));
  CHECK(cloth->middle == Approx(0.2));
  for (size_t i = 1; i < 3; ++i) {  // unrolled without strain: every facet keeps its length
    const auto& p = cloth->points[i - 1];
    const auto& q = cloth->points[i];
    CHECK(std::hypot(q.along - p.along, q.aside - p.aside) ==
          Approx((b.line[i].at.vec() - b.line[i - 1].at.vec()).norm()));
  }
  const auto metal = shop::flat_strip(b, thickness, 3);
  REQUIRE(metal->bends.size() == 2);
  const double first = std::atan2(-0.2, 0.3);
  CHECK(metal->bends[0].angle == Approx(first));  // from level at the clamp, outer end down
  CHECK(metal->bends[1].angle == Approx(std::atan2(-0.4, 0.2) - first));
  CHECK(metal->bends[0].radius == Approx(0.024));
  // The strip is as long as its middle line with arcs in the corners; at the clamp half of the arc lies
  // inside.
  double length = cloth->points.back().along;
  for (const auto& bend : metal->bends) {
    const double r = 0.028;
    const double a = std::abs(bend.angle);
    length -= (2 * r * std::tan(a / 2) - r * a);
  }
  CHECK(metal->points.back().along == Approx(length));
  // A leg from its own clamp on the centre line is not bent there.
  for (auto& p : b.line) p.at.y.si -= 0.2;
  CHECK(shop::flat_strip(b, thickness, 3)->bends.size() == 1);
  b.line[1].width = Given();
  CHECK_FALSE(shop::flat_strip(b, thickness, 3));
}

TEST_CASE("threads: drill, rod and depth, those that are used marked") {
  const auto row_of = [](const Drawing& s, const std::string& thread) {
    std::vector<std::string> row;
    for (const auto& t : s.texts)
      if (t.text == thread)
        for (const auto& u : s.texts)
          if (std::abs(u.at.y() - t.at.y()) < 1e-9) row.push_back(u.text);
    return row;
  };
  Design d = demo("redshank");  // its unit is held by bolts of 3 mm
  auto all = sheets(d);
  const Drawing& metric = drawing(all, "threads");
  CHECK(row_of(metric, "M6") ==
        std::vector<std::string>{"M6", "1", "5", "5.9", "6 / 10.5", "9 / 13.5", "12 / 16.5"});
  CHECK(row_of(metric, "M3").front() == "used");
  CHECK(row_of(metric, "1/4-20").empty());
  d.units = UnitSystem::inch;
  all = sheets(d);
  const Drawing& inch = drawing(all, "threads");
  CHECK_FALSE(row_of(inch, "1/4-20").empty());
  CHECK(row_of(inch, "M3").front() == "used");  // used, so it is told
  CHECK(row_of(inch, "M6").empty());
}

TEST_CASE("only what is laid up gets a mould; its section has no stub axle in it") {
  auto d = demo("wheatear");
  Leg& main = d.gear.main();
  main.spring.kind = SpringKind::bending;
  main.path = LegPath::straight;
  BentLeg& b = main.spring.bent;
  b.material = "aluminium 7075-T6";
  b.line = {strip_point(1.24, 0.2, -0.2, 0.10), strip_point(1.27, 0.70, -0.8, 0.08)};
  const auto has = [](const std::vector<shop::Sheet>& all, const std::string& id) {
    return std::any_of(all.begin(), all.end(), [&](const shop::Sheet& s) { return s.id == id; });
  };
  b.form = BentForm::leaf;
  CHECK(has(sheets(d), "outline:main"));
  CHECK_FALSE(has(sheets(d), "mould:main"));
  b.form = BentForm::bow;
  b.material = "carbon, unidirectional";
  const auto all = sheets(d);
  const auto& mould = drawing(all, "mould:main");
  const auto section =
      std::find_if(mould.paths.begin(), mould.paths.end(), [](const auto& p) { return p.closed; });
  REQUIRE(section != mould.paths.end());
  CHECK(section->points.size() == 4);  // two points, both faces: the wheel's centre 0.82 m out is not in it
  double widest = 0;
  for (const auto& p : section->points) widest = std::max(widest, p.x());
  CHECK(widest == Approx(500).margin(8));
  // The saw's guide leans as the leg does: 30 mm aft on the 600 mm down.
  const auto guide = std::find_if(mould.paths.begin(), mould.paths.end(), [](const auto& p) {
    return p.closed && p.line == shop::Line::cut && std::abs(p.points[3].y() - p.points[0].y() - 60) < 1e-9;
  });
  REQUIRE(guide != mould.paths.end());
  CHECK(guide->points[1].x() - guide->points[2].x() == Approx(60 * 30.0 / 600));
  // Both sides and the middle between them on one outline.
  const auto& outline = drawing(all, "outline:main");
  const auto edge =
      std::find_if(outline.paths.begin(), outline.paths.end(), [](const auto& p) { return p.closed; });
  REQUIRE(edge != outline.paths.end());
  double left = 0, right = 0;
  for (const auto& p : edge->points) {
    left = std::min(left, p.x());
    right = std::max(right, p.x());
  }
  CHECK(right == Approx(200 + 1000 * std::hypot(0.5, 0.6)));
  CHECK(left == Approx(-right));
}

TEST_CASE("cloth is added up by kind, a flat bar has two sizes, springs say what it takes to fit them") {
  auto d = demo("redshank");
  d.plies.clear();
  for (const auto& [cloth, area] : {std::pair{"carbon 200", 0.3}, {"glass 80", 0.1}, {"carbon 200", 0.2}}) {
    Ply p;
    p.zone = "floor";
    p.cloth = cloth;
    p.count = Given(2);
    p.area = Given(area);
    d.plies.push_back(p);
  }
  const auto said = [](const shop::Drawing& s, const std::string& what) {
    const auto in = [&](const std::string& t) { return t.find(what) != std::string::npos; };
    return std::any_of(s.texts.begin(), s.texts.end(), [&](const auto& t) { return in(t.text); }) ||
           std::any_of(s.notes.begin(), s.notes.end(), in);
  };
  Leg& main = d.gear.main();
  main.section = LegSection::rectangle;
  main.section_width = Given(0.014);
  main.section_thickness = Given(0.006);
  const auto all = sheets(d);
  CHECK(said(drawing(all, "lay-up"), format_quantity(1.0, Kind::area, d.units)));
  CHECK(said(drawing(all, "lay-up"), format_quantity(0.2, Kind::area, d.units)));
  CHECK(said(drawing(all, "lay-up"), "Resin"));
  CHECK(said(drawing(all, "cut-list"), "14 × 6"));
  CHECK(said(drawing(all, "hardware"), "Force to fit each spring"));
}

TEST_CASE("the wire's plan, the leaf's outline and the bow's mould") {
  auto d = demo("redshank");
  const auto& wire = drawing(sheets(d), "bend:third");
  CHECK(says(wire, "Spring wire under load flies"));
  const auto& line = d.gear.third().spring.bent.line;
  double length = 0;
  for (size_t i = 1; i < line.size(); ++i) length += 1000 * (line[i].at.vec() - line[i - 1].at.vec()).norm();
  // From starboard the tail leg lies in its plane: drawn as long as it is.
  CHECK(way(wire.paths[1]) == Approx(length));
  BentLeg& b = d.gear.third().spring.bent;
  b.form = BentForm::leaf;
  b.material = "spring steel strip";
  for (auto& p : b.line) {
    p.width = Given(0.02);
    p.thickness = Given(0.002);
  }
  const auto all = sheets(d);
  const auto& outline = drawing(all, "outline:third");
  const auto edge =
      std::find_if(outline.paths.begin(), outline.paths.end(), [](const auto& p) { return p.closed; });
  REQUIRE(edge != outline.paths.end());
  CHECK(edge->points.size() == 2 * line.size());
  CHECK(outline.bounds().size().y() > 20);
  double along = 0;
  for (const auto& q : edge->points) along = std::max(along, q.x());
  // It runs aft: its width lies athwartships and it is bent about lines across. Arcs in the corners shorten
  // it.
  CHECK(along < length);
  CHECK(along > length - 8);
  b.form = BentForm::bow;
  CHECK(sheet(sheets(d), "mould:third").ready());
  b.material = "";
  CHECK_FALSE(sheet(sheets(d), "mould:third").ready());
}

TEST_CASE("bounds hold everything drawn") {
  Drawing d;
  d.line({0, 0}, {10, 5}, shop::Line::cut);
  d.hole({20, -5}, 6, "");
  d.texts.push_back({{-4, 8}, 3, "ab"});
  const auto b = d.bounds();
  CHECK(b.low.x() <= -4);
  CHECK(b.low.y() <= -10);
  CHECK(b.high.x() >= 23);
  CHECK(b.high.y() >= 11);
  CHECK(Drawing{}.bounds().size().norm() == 0);
}

TEST_CASE("an SVG is a millimetre a unit, escapes its letters and groups its lines") {
  Drawing d;
  d.title = "A <b> & \"c\"";
  d.state = "static";
  d.rectangle({0, 0}, {200, 50}, shop::Line::cut);
  d.line({0, 0}, {200, 0}, shop::Line::centre);
  d.texts.push_back({{5, 10}, 3, "x < y"});
  const auto s = shop::to_svg(d, {"P & Q", "7", "2026-01-02"});
  CHECK(s.find("width=\"216.000mm\" height=\"78.000mm\" viewBox=\"0 0 216.000 78.000\"") !=
        std::string::npos);
  CHECK(s.find("x &lt; y") != std::string::npos);
  CHECK(s.find("P &amp; Q") != std::string::npos);
  CHECK(s.find("2026-01-02") != std::string::npos);
  CHECK(s.find("change 7") != std::string::npos);
  for (int k = 0; k < shop::line_kinds; ++k)
    CHECK(s.find(std::string("<g id=\"") + shop::line_name(static_cast<shop::Line>(k)) + '"') !=
          std::string::npos);
  CHECK(s.find("polygon points=\"8.0000,58.0000 208.0000,58.0000 208.0000,8.0000 8.0000,8.0000") !=
        std::string::npos);
}

TEST_CASE("a DXF is pairs of code and value, with letters that release 12 knows") {
  Drawing d;
  d.title = "Ø 12 at 30° ± 1 – “x”";
  d.rectangle({0, 0}, {10, 10}, shop::Line::cut);
  d.hole({5, 5}, 4, "4 mm");
  const auto s = shop::to_dxf(d, {"Häher", "1", "2026-01-02"});
  for (const char c : s) CHECK(static_cast<unsigned char>(c) < 0x80);
  CHECK(s.find("%%c 12 at 30%%d %%p 1 - \"x\"") != std::string::npos);
  CHECK(s.find("H\\U+00E4her") != std::string::npos);
  std::istringstream in(s);
  std::string code, value;
  int entities = 0;
  int circles = 0;
  while (std::getline(in, code)) {
    REQUIRE(std::getline(in, value));
    const int number = std::stoi(code);
    CHECK(number >= 0);
    if (number == 0) ++entities;
    if (value == "CIRCLE") ++circles;
  }
  CHECK(value == "EOF");
  CHECK(circles == 1);
  CHECK(entities > 10);
}

TEST_CASE("the bending plan takes back what the loops lead the wire aside") {
  auto d = demo("redshank");
  const auto all = sheets(d);
  const auto& bent = d.gear.third().spring.bent;
  REQUIRE(bent.loops.size() == 1);
  const std::string id = "bend:" + d.gear.third().id;
  const double aside = 1000 * bent.loops[0].turns * bent.wire_diameter;
  INFO(aside);
  CHECK(says(drawing(all, id), "lead the wire aside by 22.5"));
  CHECK(aside == Approx(22.5));
  d.gear.third().spring.bent.loops.clear();
  CHECK_FALSE(says(drawing(sheets(d), id), "lead the wire aside"));
}

TEST_CASE("two holes round a tube are clocked as pin and axle lie: by hand, the other way to port") {
  Design d = demo("redshank");
  Leg& leg = d.gear.main();
  REQUIRE(leg.retraction.fitted);
  leg.tubes.clear();
  leg.retraction.direction = SwingDirection::aft;  // its pin lies athwartships
  put(leg.retraction.pivot, 0, 0.2, 0.3);
  put(leg.axle, 0, 0.2, 0);
  leg.wheel_offset = Given(0);
  leg.tube_diameter = Given(0.02);
  leg.section = LegSection::tube;
  const auto clocking = [&] {
    for (const auto& m : shop::members_of(d))
      if (m.count == 2 && m.name == "leg") return degrees(m.clocking);
    return std::nan("");
  };
  // An axle that is square to the flight lies along the pin.
  leg.toe = leg.camber = Given(0);
  CHECK(clocking() == Approx(0).margin(1e-9));
  // Toe turns it about the upright tube by just so much: the wheel's front inboard, the axle's outer end
  // ahead.
  leg.toe = Given(radians(3));
  CHECK(std::abs(clocking()) == Approx(3).epsilon(1e-6));
  const double in = clocking();
  leg.toe = Given(radians(-3));
  CHECK(clocking() == Approx(-in).epsilon(1e-6));
  // Camber tips the axle within the plane of tube and pin: no turn round the tube.
  leg.toe = Given(0);
  leg.camber = Given(radians(5));
  CHECK(clocking() == Approx(0).margin(1e-9));
  // A leg that swings inward has its pin fore and aft: square to the axle.
  leg.retraction.direction = SwingDirection::inward;
  CHECK(std::abs(clocking()) == Approx(90));
  // Its sheet shows both marks; the wrap goes once round.
  leg.camber = Given(0);
  leg.toe = Given(radians(3));
  const Assessment a = assess(d);
  const auto all = shop::shop_sheets(d, a, "");
  const auto it = std::find_if(all.begin(), all.end(),
                               [](const shop::Sheet& s) { return s.id.rfind("clocking:", 0) == 0; });
  REQUIRE(it != all.end());
  const auto& drawing = std::get<shop::Drawing>(it->drawing);
  CHECK(drawing.scale == 1);
  double widest = 0;
  for (const auto& path : drawing.paths)
    if (path.closed) widest = std::max(widest, (path.points[2] - path.points[0]).x());
  CHECK(widest == Approx(20 * 3.14159265358979).epsilon(1e-9));
  // A tube that is welded on has no pin: nothing to clock.
  leg.retraction.fitted = false;
  leg.path = LegPath::straight;
  const auto welded = shop::members_of(d);
  REQUIRE_FALSE(welded.empty());
  for (const auto& m : welded) CHECK(std::isnan(m.clocking));
}

TEST_CASE("left and right: said to be identical where they are, drawn mirrored where they are not") {
  using shop::Line;
  Drawing plate;
  plate.rectangle({0, 0}, {40, 20}, Line::cut);
  plate.hole({10, 10}, 4, "4");
  plate.hole({30, 10}, 4, "4");
  CHECK(shop::same_both_hands(plate));
  plate.write({2, 2}, 3, "this way up");  // letters and dimensions are no part
  plate.dimension({0, 0}, {40, 0}, 5, "40");
  CHECK(shop::same_both_hands(plate));
  Drawing handed = plate;
  handed.hole({12, 4}, 3, "3");
  CHECK_FALSE(shop::same_both_hands(handed));
  const Drawing other = shop::mirrored(handed);
  CHECK(other.circles.back().centre.x() == Approx(-12));
  // Twice mirrored it is the same, letters too.
  const Drawing back = shop::mirrored(other);
  CHECK(back.texts[0].at.x() == Approx(handed.texts[0].at.x()));
  CHECK(back.paths[0].points[2].x() == Approx(handed.paths[0].points[2].x()));
  // Of a design: a plate with a hole off its middle has two sheets, one that is symmetrical has one that says
  // so.
  Design d = demo("redshank");
  Leg& leg = d.gear.main();
  leg.joints.clear();
  leg.joints.emplace_back();
  Joint& j = leg.joints.back();
  j.name = "flange";
  j.kind = JointKind::fasteners;
  j.material = "steel 8.8";
  j.length = j.width = Given(0.07);
  put(j.at, 0, 0.1, 0.1);
  for (const double v : {-0.02, 0.02}) {
    j.fasteners.emplace_back();
    j.fasteners.back().u = Given(0.0);
    j.fasteners.back().v = Given(v);
    j.fasteners.back().diameter = Given(0.004);
  }
  const auto count = [&](const std::string& start) {
    int n = 0;
    for (const auto& s : sheets(d)) n += s.id.rfind(start, 0) == 0;
    return n;
  };
  CHECK(count("plate:main:flange") == 1);
  CHECK(says(drawing(sheets(d), "plate:main:flange"), "identical"));
  j.fasteners.emplace_back();
  j.fasteners.back().u = Given(0.015);
  j.fasteners.back().v = Given(0.011);
  j.fasteners.back().diameter = Given(0.003);
  CHECK(count("plate:main:flange") == 2);
  CHECK(says(drawing(sheets(d), "plate:main:flange:port"), "mirrored"));
  leg.stands = LegStands::centre;
  CHECK(count("plate:main:flange") == 1);
}

TEST_CASE("a former's bulkhead is drawn full size, with what goes through it") {
  auto d = demo("dunnock");
  auto& body = d.airframe.bodies.front();
  const Section& at = body.sections[2];
  d.airframe.references.clear();
  Reference former;
  former.name = "frame 3";
  former.x = at.x;
  former.former = true;
  d.airframe.references.push_back(former);
  former.name = "edge";
  former.former = false;
  d.airframe.references.push_back(former);
  KeepOut duct;
  duct.name = "duct";
  duct.low.set(Vec3(at.x - 0.2, 0.1, at.top - 0.4));
  duct.high.set(Vec3(at.x + 0.2, 0.2, at.top - 0.3));
  d.airframe.keep_outs = {duct};
  const auto all = shop::shop_sheets(d, assess(d), "");
  const auto count =
      std::count_if(all.begin(), all.end(), [](const auto& s) { return s.id.rfind("bulkhead", 0) == 0; });
  REQUIRE(count == 1);  // an edge is none
  const auto found = std::find_if(all.begin(), all.end(),
                                  [](const auto& s) { return s.id.rfind("bulkhead:frame 3", 0) == 0; });
  REQUIRE(found != all.end());
  REQUIRE(found->ready());
  const auto& drawing = std::get<shop::Drawing>(found->drawing);
  CHECK(drawing.scale == 1);
  // At a section it is that section: as wide and as high, in millimetres.
  const auto& edge = drawing.paths.front();
  CHECK(edge.closed);
  double right = 0, up = 0;
  for (const auto& p : edge.points) {
    right = std::max(right, p.x());
    up = std::max(up, p.y());
    // On the oval.
    CHECK(std::pow(p.x() / (1000 * at.half_width), 2) + std::pow(p.y() / (500 * (at.top - at.bottom)), 2) ==
          Approx(1));
  }
  CHECK(right == Approx(1000 * at.half_width).epsilon(1e-3));
  CHECK(up == Approx(500 * (at.top - at.bottom)).epsilon(1e-3));
  // The duct on both sides, where it is.
  int ducts = 0;
  for (const auto& path : drawing.paths)
    if (path.closed && path.line == shop::Line::mark) {
      ++ducts;
      double least = 1e9, most = -1e9;
      for (const auto& p : path.points) {
        least = std::min(least, std::abs(p.x()));
        most = std::max(most, std::abs(p.x()));
      }
      CHECK(least == Approx(100));
      CHECK(most == Approx(200));
    }
  CHECK(ducts == 2);
  // What reaches past the skin is cut off there, what lies outside is no hole.
  d.airframe.keep_outs[0].high.y = Given(2 * at.half_width);
  for (const auto& s : shop::shop_sheets(d, assess(d), ""))
    if (s.id.rfind("bulkhead", 0) == 0)
      for (const auto& path : std::get<shop::Drawing>(s.drawing).paths)
        for (const auto& p : path.points)
          if (path.closed && path.line == shop::Line::mark)
            CHECK(std::pow(p.x() / (1000 * at.half_width), 2) +
                      std::pow(p.y() / (500 * (at.top - at.bottom)), 2) <=
                  1 + 1e-6);
  d.airframe.keep_outs[0].low.y = Given(1.5 * at.half_width);
  for (const auto& s : shop::shop_sheets(d, assess(d), ""))
    if (s.id.rfind("bulkhead", 0) == 0)
      CHECK(std::none_of(std::get<shop::Drawing>(s.drawing).paths.begin(),
                         std::get<shop::Drawing>(s.drawing).paths.end(),
                         [](const auto& path) { return path.closed && path.line == shop::Line::mark; }));
  // Between two sections it lies between them; beyond the body there is none, and that is said.
  d.airframe.references[0].x = Given((at.x + body.sections[3].x) / 2);
  const auto between = shop::shop_sheets(d, assess(d), "");
  const auto& other = std::get<shop::Drawing>(std::find_if(between.begin(), between.end(), [](const auto& s) {
                                                return s.id.rfind("bulkhead", 0) == 0;
                                              })->drawing);
  double width = 0;
  for (const auto& p : other.paths.front().points) width = std::max(width, p.x());
  CHECK(width >= 1000 * std::min(at.half_width.si, body.sections[3].half_width.si) - 1e-6);
  CHECK(width <= 1000 * std::max(at.half_width.si, body.sections[3].half_width.si) + 1e-6);
  d.airframe.references[0].x = Given(50.0);
  for (const auto& s : shop::shop_sheets(d, assess(d), ""))
    if (s.id.rfind("bulkhead", 0) == 0) CHECK_FALSE(s.ready());
}

TEST_CASE("a round duct cuts a bulkhead in a circle, a slanting one in an ellipse, one along it not at all") {
  auto d = demo("dunnock");
  const Section& at = d.airframe.bodies.front().sections[2];
  d.airframe.references.clear();
  Reference former;
  former.name = "frame";
  former.x = at.x;
  former.former = true;
  d.airframe.references.push_back(former);
  const auto size_of = [&](const Vec3& axis) {
    KeepOut pipe;
    pipe.name = "pipe";
    pipe.shape = Shape::cylinder;
    const Vec3 middle(at.x, 0, (at.top + at.bottom) / 2);
    pipe.low.set(middle - 0.5 * axis);
    pipe.high.set(middle + 0.5 * axis);
    pipe.radius = Given(0.05);
    d.airframe.keep_outs = {pipe};
    for (const auto& s : shop::shop_sheets(d, assess(d), ""))
      if (s.id.rfind("bulkhead", 0) == 0)
        for (const auto& path : std::get<shop::Drawing>(s.drawing).paths)
          if (path.closed && path.line == shop::Line::mark) {
            shop::Vec2 low = path.points[0], high = low;
            for (const auto& p : path.points) {
              low = low.cwiseMin(p);
              high = high.cwiseMax(p);
            }
            return shop::Vec2(high - low);
          }
    return shop::Vec2(0, 0);
  };
  const auto straight = size_of(Vec3::UnitX());
  CHECK(straight.x() == Approx(100).epsilon(2e-3));
  CHECK(straight.y() == Approx(100).epsilon(2e-3));
  const auto slanting = size_of(Vec3(std::cos(0.5), 0, std::sin(0.5)));
  CHECK(slanting.x() == Approx(100).epsilon(2e-3));
  CHECK(slanting.y() == Approx(100 / std::cos(0.5)).epsilon(2e-3));
  CHECK(size_of(Vec3::UnitY()).norm() == 0);
}

TEST_CASE("cloth is drawn as it is cut: the zone and its overlap, which way the fibres run") {
  auto d = demo("dunnock");
  d.plies.clear();
  Ply ply;
  ply.zone = "spar";
  ply.cloth = "twill";
  ply.direction = "±45°";
  ply.count = Given(4.0);
  ply.length = Given(0.3);
  ply.width = Given(0.12);
  ply.overlap = Given(0.02);
  d.plies = {ply};
  ply.zone = "rib";
  ply.width = Given();
  d.plies.push_back(ply);
  const auto all = shop::shop_sheets(d, assess(d), "");
  const auto& first = sheet(all, "cloth:1 spar");
  REQUIRE(first.ready());
  const auto& drawing = std::get<shop::Drawing>(first.drawing);
  shop::Vec2 low(0, 0), high(0, 0);
  int dashes = 0;
  for (const auto& path : drawing.paths) {
    if (path.line == shop::Line::bend) {
      ++dashes;
      const shop::Vec2 along = path.points[1] - path.points[0];
      CHECK(std::abs(along.x()) == Approx(std::abs(along.y())));
    }
    if (path.line != shop::Line::cut) continue;
    for (const auto& p : path.points) {
      low = low.cwiseMin(p);
      high = high.cwiseMax(p);
    }
  }
  CHECK((high - low).x() == Approx(340));
  CHECK((high - low).y() == Approx(160));
  CHECK(dashes == 6);
  const bool counted = std::any_of(drawing.texts.begin(), drawing.texts.end(), [](const auto& t) {
    return t.text.find("4 pieces") != std::string::npos;
  });
  CHECK(counted);
  CHECK_FALSE(sheet(all, "cloth:2 rib").ready());
}
