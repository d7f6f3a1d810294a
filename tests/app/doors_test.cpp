// SPDX-License-Identifier: GPL-3.0-or-later
//! Doors: added over a well, hung, driven, held, dragged, cured; and the sequence that reads them.

#include "app/drawing/door_panes.h"
#include "app/lead_to.h"
#include "app/stations/page.h"
#include "bench.h"
#include "core/assess/doors_state.h"
#include "core/io/project_file.h"
#include "core/model/locate.h"

using namespace kranich;
using namespace kranich::app;

namespace {

const Finding* of(const Bench& b, std::string_view id, const std::string& door) {
  for (const auto& f : b.document.assessment().findings)
    if (f.measure_id == id && f.subject.key == "door:" + door) return &f;
  return nullptr;
}

}  // namespace

TEST_CASE("a door is added over the well, hung otherwise, saved and opened, taken away and brought back") {
  Bench b;
  b.go(Station::doors);
  REQUIRE(b.document.design().doors.size() == 2);
  b.press("add-door");
  b.settle();
  REQUIRE(b.document.design().doors.size() == 3);
  const Door made = b.document.design().doors[2];
  CHECK(made.width.origin == Origin::estimated);
  // It is the one shown, and what can be judged of it is.
  auto* button = b.find<QPushButton>("door-" + QString::fromStdString(made.id));
  CHECK(button->isChecked());
  REQUIRE(of(b, "doors.clearance", made.id));
  CHECK(std::isfinite(of(b, "doors.clearance", made.id)->value));
  b.type("/doors/2/open_angle_deg", "105");
  b.type("/doors/2/closed_tilt_deg", "12");
  b.type("/doors/2/thickness_m", "5");
  b.type("/doors/2/hinge_to/y_m", "610");
  CHECK(b.value("/doors/2/closed_tilt_deg") == Approx(radians(12)));
  const auto panel = *motion::panel_of(b.document.design().doors[2]);
  CHECK(panel.across(0).z() > 0.15);
  const auto again = read_project(write_project(b.document.design()));
  REQUIRE(again.design);
  CHECK(write_project(*again.design) == write_project(b.document.design()));
  // What is missing of a panel is named, and leads to its entry.
  b.type("/doors/2/width_m", "");
  REQUIRE(of(b, "doors.clearance", made.id));
  CHECK(of(b, "doors.clearance", made.id)->verdict == Verdict::unknown);
  CHECK(in_words(of(b, "doors.clearance", made.id)->remark).find("the panel's width") != std::string::npos);
  b.document.undo();
  b.settle();
  b.press("remove-door-2");
  b.settle();
  CHECK(b.document.design().doors.size() == 2);
  b.document.undo();
  b.settle();
  REQUIRE(b.document.design().doors.size() == 3);
  CHECK(b.window->page(Station::doors)->findChild<QPushButton*>("remove-door-2"));
}

TEST_CASE(
    "a crank is chosen and entered, dragged on the drawing, and a cure hangs its rod where it does it") {
  Bench b;
  auto& page = b.go(Station::doors);
  b.press("door-nose-doors");
  REQUIRE(of(b, "doors.travel", "nose-doors"));
  CHECK(of(b, "doors.travel", "nose-doors")->verdict == Verdict::holds);
  // Its throw typed, and it opens less; the list offers what does it.
  b.type("/doors/1/drive/throw_deg", "-60");
  REQUIRE(of(b, "doors.travel", "nose-doors")->verdict == Verdict::fails);
  page.findings()->choose("doors.travel|door:nose-doors");
  REQUIRE(eventually([&] { return page.findings()->cure_count() > 0; }));
  QPushButton* first = nullptr;
  REQUIRE(eventually([&] {
    for (auto* button : page.findings()->findChildren<QPushButton*>())
      if (button->objectName().startsWith("try:") && !first) first = button;
    return first != nullptr;
  }));
  first->click();
  b.settle();
  CHECK(of(b, "doors.travel", "nose-doors")->verdict != Verdict::fails);
  // A drag of the crank's ball changes how far it opens.
  const double before = of(b, "doors.travel", "nose-doors")->value;
  b.drag(page, "door-crank-ball", {9, 0});
  REQUIRE(of(b, "doors.travel", "nose-doors"));
  CHECK(std::abs(of(b, "doors.travel", "nose-doors")->value - before) > radians(1));
  b.document.undo();
  b.settle();
  CHECK(of(b, "doors.travel", "nose-doors")->value == Approx(before));

  // Moved by a wire instead: what it needs is named, and leads to its entry.
  b.choose("/doors/1/drive/way", static_cast<int>(DoorWay::wire));
  CHECK(of(b, "doors.travel", "nose-doors")->verdict == Verdict::unknown);
  auto* length = b.find<QLineEdit>("field:/doors/1/drive/tie_length_m");
  b.go(Station::place);
  REQUIRE(lead_to(*b.window, "/doors/1/drive/tie_length_m"));
  b.settle();
  CHECK(length->isVisible());
}

TEST_CASE("two doors hang on one crank by choice") {
  Bench b;
  b.go(Station::doors);
  b.press("door-main-doors");
  b.choose("/doors/0/drive/way", static_cast<int>(DoorWay::crank));
  auto* with = b.find<QComboBox>("refers:/doors/0/drive/with");
  REQUIRE(with->count() == 2);
  with->setCurrentIndex(1);
  emit with->activated(1);
  b.settle();
  CHECK(b.document.design().doors[0].drive.with == "nose-doors");
  // Its own crank is out of sight; only its rod's ends are asked for.
  auto* own = b.find<QLineEdit>("field:/doors/0/drive/crank/x_m");
  Fold::open_around(own);
  b.settle();
  CHECK_FALSE(own->isVisible());
  CHECK(b.find<QLineEdit>("field:/doors/0/drive/crank_ball/x_m")->isVisible());
  const Finding* f = of(b, "doors.travel", "main-doors");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::unknown);
  for (const auto& [path, mm] : {std::pair{"crank_ball/x_m", "2300"}, std::pair{"crank_ball/y_m", "620"},
                                 std::pair{"crank_ball/z_m", "-100"}, std::pair{"door_ball/x_m", "2300"},
                                 std::pair{"door_ball/y_m", "620"}, std::pair{"door_ball/z_m", "-165"}})
    b.type(QStringLiteral("/doors/0/drive/") + path, mm);
  CHECK(of(b, "doors.travel", "main-doors")->verdict != Verdict::unknown);
}

TEST_CASE("hinge, opening, width and spring are dragged; what holds it follows") {
  Bench b;
  auto& page = b.go(Station::doors);
  b.press("door-main-doors");
  const double z = b.value("/doors/0/hinge_from/z_m");
  b.drag(page, "door-hinge", {0, 12});
  CHECK(b.value("/doors/0/hinge_from/z_m") < z - 0.005);
  CHECK(b.value("/doors/0/hinge_to/z_m") == Approx(b.value("/doors/0/hinge_from/z_m")));
  const double open = b.value("/doors/0/open_angle_deg");
  b.drag(page, "door-open", {-30, 0});
  CHECK(std::abs(b.value("/doors/0/open_angle_deg") - open) > radians(4));
  const double width = b.value("/doors/0/width_m");
  b.drag(page, "door-width", {15, 0});
  CHECK(b.value("/doors/0/width_m") > width + 0.01);
  for (const auto& [path, text] :
       {std::pair{"spring_door/x_m", "2400"}, std::pair{"spring_door/y_m", "700"},
        std::pair{"spring_door/z_m", "-200"}, std::pair{"spring_airframe/x_m", "2400"},
        std::pair{"spring_airframe/y_m", "450"}, std::pair{"spring_airframe/z_m", "-300"},
        std::pair{"spring_force_N", "200"}, std::pair{"spring_rate_N_per_m", "0.4"},
        std::pair{"spring_length_m", "200"}})
    b.type(QStringLiteral("/doors/0/hold/") + path, text);
  REQUIRE(of(b, "doors.hold", "main-doors"));
  const double held = of(b, "doors.hold", "main-doors")->value;
  const double anchor = b.value("/doors/0/hold/spring_airframe/z_m");
  b.drag(page, "door-spring-anchor", {0, 25});
  CHECK(b.value("/doors/0/hold/spring_airframe/z_m") < anchor - 0.01);
  CHECK(std::abs(of(b, "doors.hold", "main-doors")->value - held) > 0.05);
}

TEST_CASE("a door that the leg moves needs no step, and a step of its own is told") {
  Bench b("Redshank");
  b.go(Station::doors);
  b.choose("/doors/0/drive/way", static_cast<int>(DoorWay::wheel));
  b.go(Station::sequence);
  bool told = false;
  for (const auto& f : b.document.assessment().findings)
    told = told || (f.measure_id == "sequence.duration" &&
                    in_words(f.remark).find("moved by its leg") != std::string::npos);
  CHECK(told);
}

TEST_CASE("the sequence waits for the drawn doors where nothing of their zone is entered") {
  Bench b("Redshank");
  b.go(Station::sequence);
  for (const char* key : {"frees_leg_at", "zone_enter", "zone_leave"})
    b.type(QStringLiteral("/doors/0/") + key, "");
  const Finding* f = nullptr;
  for (const auto& x : b.document.assessment().findings)
    if (x.measure_id == "sequence.leg_wait" && x.subject.key == "door:outer-doors/down") f = &x;
  REQUIRE(f);
  CHECK(f->verdict != Verdict::unknown);
  const double hand = f->value;
  // A door that opens further before it clears the leg makes it wait longer.
  b.type("/doors/0/time_open_s", "9");
  for (const auto& x : b.document.assessment().findings)
    if (x.measure_id == "sequence.leg_wait" && x.subject.key == "door:outer-doors/down")
      CHECK(x.value < hand - 0.5);
}

TEST_CASE("a box is taken from the shelf, actors are hung on it, and it is judged") {
  Bench b("Redshank");
  auto& page = b.go(Station::sequence);
  auto* shelf = page.findChild<QComboBox*>("box-shelf");
  REQUIRE(shelf);
  Fold::open_around(shelf);
  emit shelf->activated(1);  // the first of the shelf: two outputs, three seconds
  b.settle();
  REQUIRE(b.document.design().sequence.boxes.size() == 1);
  CHECK(b.document.design().sequence.boxes[0].id == "A");
  auto* add = page.findChild<QPushButton*>("add:/sequence/outputs");
  REQUIRE(add);
  add->click();
  b.settle();
  add->click();
  b.settle();
  const auto& outputs = b.document.design().sequence.outputs;
  REQUIRE(outputs.size() == 2);
  CHECK(outputs[0].box == "A");
  CHECK(outputs[1].number.si == Approx(2));
  CHECK(outputs[0].actor != outputs[1].actor);
  for (const char* judged :
       {"sequence.box_hold", "sequence.box_outputs", "sequence.box_start", "sequence.box_left"}) {
    INFO(judged);
    CHECK(b.worst(judged));
  }
  CHECK(b.worst("sequence.box_left")->verdict == Verdict::fails);
  // Another box in its place keeps what hangs on it; undo brings the first back.
  b.document.undo();
  CHECK(b.document.design().sequence.outputs.size() == 1);
  page.grab();
}
