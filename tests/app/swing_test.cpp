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
