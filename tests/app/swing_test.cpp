// SPDX-License-Identifier: GPL-3.0-or-later
//! Swing: an axis wanted and taken, motions entered, a unit from the shelf, what is folded away found again.
#include <QComboBox>
#include <QLabel>
#include <QTableWidget>

#include "app/drawing/swing_pane.h"
#include "app/lead_to.h"
#include "app/stations/page.h"
#include "app/widgets/dialogs.h"
#include "bench.h"
#include "core/assess/swing_state.h"
#include "core/motion/retract.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

namespace {
const QString third = "/gear/legs/third/retraction/";
}

TEST_CASE("where the stowed wheel is wanted is typed, and the axis that brings it there is taken") {
  Bench b;
  b.go(Station::swing);
  b.press("swing-third");
  const auto now = *swing::swing_figures(b.document.design().gear.third());
  const auto mm = [](double m) { return QString::number(1000 * m, 'f', 3); };
  b.type(third + "wanted/centre/x_m", mm(now.wheel_stowed.x() + 0.02));
  CHECK(b.worst("swing.stowed_miss")->verdict == Verdict::unknown);
  b.type(third + "wanted/centre/y_m", mm(now.wheel_stowed.y()));
  b.type(third + "wanted/centre/z_m", mm(now.wheel_stowed.z()));
  b.type(third + "wanted/axle_up_deg", "0");
  b.type(third + "wanted/axle_ahead_deg", "0");
  REQUIRE(b.worst("swing.stowed_miss")->verdict == Verdict::fails);
  const auto before = b.document.design().gear.third().retraction.pivot.vec();
  b.press("axis-third-0");
  CHECK(b.worst("swing.stowed_miss")->verdict == Verdict::holds);
  CHECK((b.document.design().gear.third().retraction.pivot.vec() - before).norm() > 1e-4);
  b.document.undo();
  b.settle();
  CHECK(b.worst("swing.stowed_miss")->verdict == Verdict::fails);
}

TEST_CASE("a leg that twists is entered, and its wheel lies flat in the drawing and the figures") {
  Bench b;
  b.go(Station::swing);
  b.press("swing-main");
  const QString base = "/gear/legs/main/retraction/";
  const double before = b.document.assessment().swings.front().figures->axle_stowed.z();
  auto* motion = b.find<QComboBox>("choice:" + base + "motion");
  motion->setCurrentIndex(static_cast<int>(LegMotion::twists));
  emit motion->activated(static_cast<int>(LegMotion::twists));
  b.settle();
  CHECK_FALSE(b.document.assessment().swings.front().least);  // by how much is not said yet
  b.type(base + "twist_deg", "90");
  const auto& s = b.document.assessment().swings.front();
  REQUIRE(s.figures);
  CHECK(std::abs(s.figures->axle_stowed.z() - before) > 0.5);
  // Saved and opened again it is the same.
  const auto again = read_project(write_project(b.document.design()));
  REQUIRE(again.design);
  CHECK(again.design->gear.main().retraction == b.document.design().gear.main().retraction);
}

TEST_CASE("what leads to an entry opens the fold that it lies in, on the leg that it is of") {
  Bench b;
  auto& page = b.go(Station::swing);
  b.press("swing-main");
  auto* field = page.findChild<QLineEdit*>("field:" + third + "service_set_m");
  REQUIRE(field);
  CHECK_FALSE(field->isVisible());
  REQUIRE(lead_to(*b.window, third + "service_set_m"));
  b.settle();
  CHECK(field->isVisible());
  b.type(third + "service_set_m", "-40");
  const Finding* f = b.worst("swing.clearance");
  REQUIRE(f);
  CHECK(b.document.assessment().swings.back().least_set.has_value());
}

TEST_CASE(
    "units of the shelf are held against the aircraft and one is fitted; the builder's own stand before "
    "ours") {
  Bench b;
  auto* dialog = make_unit_dialog(b.document, "main", b.window.get());
  dialog->show();
  b.settle();
  auto* table = dialog->findChild<QTableWidget*>("unit-shelf");
  REQUIRE(table);
  REQUIRE(table->rowCount() >= 15);
  CHECK(dialog->findChild<QLabel*>("unit-need")->text().contains("kg"));
  emit table->cellDoubleClicked(0, 0);
  b.settle();
  const auto& unit = b.document.design().gear.main().retraction.unit;
  CHECK_FALSE(unit.shelf_name.empty());
  CHECK(b.worst("drive.unit_mass"));
  CHECK(table->item(0, 1)->text().size() > 3);  // what speaks against it
  delete dialog;
}

TEST_CASE("cut-out and bay are drawn from the leg's way, and follow it once the hand lets go") {
  Bench b;
  auto& page = b.go(Station::swing);
  b.press("swing-third");
  auto* pane = page.board()->find<CutOutPane>();
  REQUIRE(pane);
  REQUIRE(eventually([&] { return pane->is_of(b.document.design().gear.third()); }));
  const QRectF before = pane->bounds();
  CHECK(before.height() > 0.5);
  b.type(third + "pivot/x_m", "960");
  REQUIRE(eventually([&] { return pane->is_of(b.document.design().gear.third()); }));
  CHECK(pane->bounds() != before);
}

TEST_CASE("the axis is turned in plan and tipped by either of its ends; unit, rods and hook are dragged") {
  Bench b;
  auto& page = b.go(Station::swing);
  b.press("swing-main");
  const auto main = [&]() -> const Leg& { return b.document.design().gear.main(); };
  REQUIRE(main().retraction.direction == SwingDirection::inward);
  const auto forward_end = [&] {
    const Vec3 u = motion::stowing_axis(main())->direction;
    return u.x() < 0 ? u : Vec3(-u);
  };
  // Forward is up, outboard to the right: its forward end to the left goes inboard.
  b.drag(page, "axis-plan", {-6, 0});
  CHECK(main().retraction.axis_yaw > radians(1));
  CHECK(forward_end().y() < 0);
  CHECK(main().retraction.axis_yaw.origin == Origin::plan);
  const double once = main().retraction.axis_yaw;
  b.drag(page, "axis-plan-other", {6, 0});
  CHECK(main().retraction.axis_yaw > once);
  // Forward is to the left: that end up, or the other down.
  b.drag(page, "axis-tip", {0, -6});
  CHECK(main().retraction.axis_tip > radians(1));
  CHECK(forward_end().z() > 0);
  b.drag(page, "axis-tip-other", {0, -12});
  CHECK(main().retraction.axis_tip < 0);
  // Round to the other side it stops where its entry does.
  b.drag(page, "axis-plan", {-200, 60});
  CHECK(main().retraction.axis_yaw <= radians(60) + 1e-9);
  for (int i = 0; i < 5; ++i) b.document.undo();
  CHECK(main().retraction.axis_yaw.si == 0);
  CHECK(main().retraction.axis_tip.si == 0);

  const Vec3 corner = main().retraction.unit_low.vec();
  b.drag(page, "unit-low", {5, 0});
  CHECK(main().retraction.unit_low.y > corner.y());
  CHECK(main().retraction.unit_low.z == Approx(corner.z()));
  auto& drive = b.go(Station::drive);
  b.press("drive-main");
  const Vec3 hook = main().retraction.uplock.hook.vec();
  b.drag(drive, "hook", {0, -4});
  CHECK(main().retraction.uplock.hook.z > hook.z());
}

TEST_CASE("an axis that lies across is turned the same way: outboard end ahead, outboard end up") {
  Bench b("Pintail");
  b.document.edit("plain", [](Design& d) {
    for (Leg& l : d.gear.legs) l.retraction.motion = LegMotion::turns;
  });
  auto& page = b.go(Station::swing);
  const std::string id = b.document.design().gear.main().id;
  b.press(("swing-" + id).c_str());
  const auto outboard_end = [&] {
    const Vec3 u = motion::stowing_axis(b.document.design().gear.leg(id))->direction;
    return u.y() > 0 ? u : Vec3(-u);
  };
  b.drag(page, "axis-plan", {0, -6});
  CHECK(b.document.design().gear.leg(id).retraction.axis_yaw > radians(1));
  CHECK(outboard_end().x() < 0);
  b.drag(page, "axis-tip", {0, -6});
  CHECK(outboard_end().z() > 0);
}
