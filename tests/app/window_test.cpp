// SPDX-License-Identifier: GPL-3.0-or-later
//! The real window: drag, undo, units, loading, swing, sequence, pin, cures.
#include <QAction>
#include <QComboBox>
#include <QSlider>

#include "app/theme.h"
#include "bench.h"
#include "core/assess/loading_state.h"
#include "core/assess/swing_state.h"

using namespace kranich;
using namespace kranich::app;

TEST_CASE("dragging a main wheel moves it and everything that hangs on it; undo brings it back", "[window]") {
  Bench b;
  auto& place = b.go(Station::place);
  const Design before = b.document.design();
  const double share = b.worst("place.nose_share")->value;
  b.drag(place, "main", {-12, 0});
  const double moved = b.value("/gear/legs/main/axle/x_m") - 2.45;
  CHECK(moved < -0.02);
  CHECK(moved > -0.3);
  CHECK(b.value("/gear/legs/main/retraction/pivot/x_m") - 2.45 == Approx(moved));
  CHECK(b.worst("place.nose_share")->value < share);
  CHECK(b.document.undo_text().contains("main wheels"));
  QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
  b.settle();
  CHECK(b.document.design() == before);
  QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  b.settle();
  CHECK(b.value("/gear/legs/main/axle/x_m") - 2.45 == Approx(moved));
}

TEST_CASE("while a wheel is dragged the old place is known, and Escape takes it back", "[window]") {
  Bench b;
  auto& place = b.go(Station::place);
  const Design before = b.document.design();
  b.drag(place, "main", {-20, 0}, false);
  REQUIRE(b.document.before_drag());
  CHECK(*b.document.before_drag() == before);
  CHECK_FALSE(b.document.design() == before);
  QTest::keyClick(place.board(), Qt::Key_Escape);
  CHECK(b.document.design() == before);
  CHECK(b.document.undo_text().isEmpty());
}

TEST_CASE("handles are reached by Tab and moved by the arrow keys: 1, 10 and 0.1 mm", "[window]") {
  Bench b;
  auto& place = b.go(Station::place);
  place.board()->setFocus();
  for (int i = 0; i < 20 && place.board()->focused_handle() != "main"; ++i)
    QTest::keyClick(place.board(), Qt::Key_Tab);
  REQUIRE(place.board()->focused_handle() == "main");
  const double pitch = b.document.loading()->rest->pitch;
  QTest::keyClick(place.board(), Qt::Key_Left);
  CHECK(b.value("/gear/legs/main/axle/x_m") == Approx(2.45 - 0.001 * std::cos(pitch)).epsilon(1e-9));
  QTest::keyClick(place.board(), Qt::Key_Left, Qt::ShiftModifier);
  QTest::keyClick(place.board(), Qt::Key_Right, Qt::AltModifier);
  CHECK(b.value("/gear/legs/main/axle/x_m") == Approx(2.4391).margin(2e-6));
  CHECK(place.board()->accessibleDescription().contains("main wheels"));
}

TEST_CASE("the CG is dragged by sliding what slides, the propeller and the track by their handles") {
  Bench b;
  auto& place = b.go(Station::place);
  const double cg = b.document.loading()->mass.down.at.x();
  const double battery = b.document.design().ledger[10].at.x;
  b.drag(place, "cg", {-3, 0});
  CHECK(b.document.loading()->mass.down.at.x() < cg);
  CHECK(b.document.design().ledger[10].at.x < battery);
  b.drag(place, "propeller:0", {0, 10});
  CHECK(b.value("/airframe/propellers/0/hub/z_m") < 0.27);
  b.drag(place, "track", {-10, 0});
  CHECK(b.value("/gear/legs/main/axle/y_m") > 1.37);
  b.drag(place, "plan-third", {-8, 0});
  CHECK(b.value("/gear/legs/third/axle/x_m") < 0.76);
}

TEST_CASE("units switch at any time and no value changes", "[window]") {
  Bench b;
  b.go(Station::place);
  auto* field = b.find<QLineEdit>("field:/gear/legs/main/axle/x_m");
  CHECK(field->text() == "2450");
  const Design before = b.document.design();
  QTest::keyClick(b.window.get(), Qt::Key_U, Qt::ControlModifier);
  b.settle();
  CHECK(field->text() == "96.457");
  Design same = b.document.design();
  same.units = UnitSystem::metric;
  CHECK(same == before);
}

TEST_CASE("loading and state are chosen in one place", "[window]") {
  Bench b;
  b.go(Station::stance);
  auto* loading = b.find<QComboBox>("loading");
  const double pitch = b.document.loading()->rest->pitch;
  QTest::keyClick(b.window.get(), Qt::Key_L, Qt::ControlModifier);
  b.settle();
  CHECK(b.document.loading_name() == loading->currentText());
  CHECK(b.document.loading()->rest->pitch != pitch);
  b.find<QPushButton>("state:bottomed")->click();
  CHECK(b.document.state() == GearState::bottomed);
}

TEST_CASE("the leg swings into its well, and the other leg is shown on choosing its finding", "[window]") {
  Bench b;
  auto& swing = b.go(Station::swing);
  const QImage down = swing.board()->grab().toImage();
  b.find<QSlider>("gear")->setValue(110);
  b.settle();
  CHECK(b.document.gear_position() == Approx(0.55));
  CHECK(swing.board()->grab().toImage() != down);
  swing.findings()->choose("swing.clearance|legs:third");
  b.settle();
  CHECK(b.find<QPushButton>("swing-third")->isChecked());
  CHECK(b.find<QLabel>("length-budget")->text().contains("too long by"));
  b.find<QSlider>("gear")->setValue(0);
  const double length = swing.board()->handle_position("axle") ? b.value("/gear/legs/third/axle/z_m") : 0;
  b.drag(swing, "axle", {0, -12});
  CHECK(b.value("/gear/legs/third/axle/z_m") > length);
}

TEST_CASE("a cure is tried by one click and taken back by another", "[window]") {
  Bench b;
  auto& place = b.go(Station::place);
  place.findings()->choose("place.nose_share|");
  REQUIRE(eventually([&] { return place.findings()->cure_count() > 0; }));
  const Design before = b.document.design();
  auto* attempt = place.findChild<QPushButton*>("try:main.station");
  REQUIRE(attempt);
  attempt->click();
  b.settle();
  CHECK(b.worst("place.nose_share")->verdict != Verdict::fails);
  QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
  b.settle();
  CHECK(b.document.design() == before);
}

TEST_CASE("the walk-through: Dunnock's defects are cured and the strip says so") {
  Bench b;
  auto* strip = b.window->findChild<MarginStrip*>();
  REQUIRE(strip);
  for (const auto& [station, key, knob] :
       {std::tuple{Station::logic, "logic.lamp|gear", "try:logic.down_both"},
        {Station::swing, "swing.clearance|legs:third", "try:third.length"},
        {Station::place, "place.nose_share|", "try:main.station"}}) {
    FindingButton* card = nullptr;
    REQUIRE(eventually([&] {
      card = strip->findChild<FindingButton*>(QStringLiteral("finding:") + key);
      return card != nullptr && card->isVisible();
    }));
    QTest::mouseClick(card, Qt::LeftButton);
    b.settle();
    auto* page = b.window->page(station);
    REQUIRE(page->isVisible());
    CHECK(page->findings()->chosen() == key);
    REQUIRE(eventually([&] { return page->findChild<QPushButton*>(knob) != nullptr; }));
    page->findChild<QPushButton*>(knob)->click();
    b.settle();
  }
  b.proved();
  for (const Finding* f : worst_of_each(b.document.assessment())) CHECK(f->verdict != Verdict::fails);
}

TEST_CASE("the pinned design stays, and differences show") {
  Bench b;
  b.go(Station::place);
  b.find<QPushButton>("pin")->click();
  REQUIRE(b.document.pinned());
  const QImage before = b.window->grab().toImage();
  b.type("/gear/legs/main/axle/x_m", "2400");
  CHECK(value_at(*b.document.pinned(), "/gear/legs/main/axle/x_m") == Approx(2.45));
  CHECK(b.value("/gear/legs/main/axle/x_m") == Approx(2.4));
  CHECK(b.window->grab().toImage() != before);
  b.find<QPushButton>("pin")->click();
  CHECK_FALSE(b.document.pinned());
}

TEST_CASE("a step of the sequence is dragged on the timeline, and the playhead set by a click") {
  Bench b("Redshank");
  auto& page = b.go(Station::sequence);
  page.board()->grab();
  CHECK(b.worst("sequence.door_wait")->verdict == Verdict::fails);
  b.drag(page, "step:4", {120, 0});
  CHECK(b.document.design().sequence.up[4].start > 6.5);
  CHECK(b.worst("sequence.door_wait")->verdict != Verdict::fails);
  b.find<QPushButton>("sequence-down")->click();
  b.settle();
  CHECK(page.board()->handle_position("step:0"));
  b.find<QPushButton>("play")->click();
  QTest::qWait(80);
  b.find<QPushButton>("play")->click();
}

TEST_CASE("every station draws both demos, in light and dark, wide and narrow") {
  for (const QString demo : {"Dunnock", "Redshank", "Wheatear"}) {
    Bench b(demo);
    for (const QSize size : {QSize(1280, 800), QSize(1100, 700)}) {
      b.window->resize(size);
      b.settle();
      for (int i = 0; i < station_count; ++i) {
        auto& page = b.go(static_cast<Station>(i));
        const QImage light = page.grab().toImage();
        int inked = 0;
        for (int x = 0; x < light.width(); x += 7)
          for (int y = 0; y < light.height(); y += 7) inked += light.pixelColor(x, y).lightness() < 110;
        CHECK(inked > 60);
      }
    }
    b.go(Station::place);  // a board stands where it is looked at
    b.window->set_dark(true);
    b.settle();
    CHECK(b.window->grab().toImage().pixelColor(136, 76).lightness() < 90);
    b.window->set_dark(false);
  }
}

TEST_CASE("everything that can be worked has a name for a screen reader") {
  Bench b;
  for (int i = 0; i < station_count; ++i) {
    auto& page = b.go(static_cast<Station>(i));
    for (auto* w : page.findChildren<QWidget*>()) {
      if (!w->isVisible() || w->focusPolicy() == Qt::NoFocus) continue;
      if (w->inherits("QLineEdit") || w->inherits("QAbstractButton") || w->inherits("QComboBox") ||
          w->inherits("kranich::app::Board")) {
        const auto* button = qobject_cast<QAbstractButton*>(w);
        const bool in_table =
            w->parent() && w->parent()->parent() && w->parent()->parent()->inherits("QTableWidget");
        const bool part = w->objectName().startsWith("qt_") || w->inherits("QTableCornerButton");
        INFO(w->metaObject()->className() << " " << w->objectName().toStdString());
        CHECK((in_table || part || !w->accessibleName().isEmpty() || (button && !button->text().isEmpty())));
      }
    }
  }
}

TEST_CASE("text stands out four and a half to one from what it stands on, by day and by night") {
  // Relative luminance and contrast as WCAG 2 defines them.
  const auto luminance = [](const QColor& c) {
    const auto part = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
  };
  const auto contrast = [&](const QColor& a, const QColor& b) {
    const double x = luminance(a), y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
  };
  CHECK(contrast(Qt::black, Qt::white) == Approx(21));
  for (const Theme& t : {Theme::light(), Theme::night()}) {
    const std::vector<std::pair<const char*, QColor>> letters{
        {"ink", t.ink},     {"grey", t.grey},   {"accent", t.accent}, {"fails", t.fails},
        {"tight", t.tight}, {"holds", t.holds}, {"pinned", t.pinned}};
    for (const auto& [name, colour] : letters)
      for (const QColor& ground : {t.paper, t.card, t.desk}) {
        INFO(name << (t.dark ? ", dark" : ", light") << " on " << ground.name().toStdString());
        CHECK(contrast(colour, ground) >= 4.5);
      }
    // What is pressed or marked.
    CHECK(contrast(t.paper, t.ink) >= 4.5);
    CHECK(contrast(t.paper, t.accent) >= 4.5);
    CHECK(contrast(t.ink, t.fails_wash) >= 4.5);
    CHECK(contrast(t.fails, t.fails_wash) >= 4.5);
    CHECK(contrast(t.ink, t.band) >= 4.5);
  }
}
