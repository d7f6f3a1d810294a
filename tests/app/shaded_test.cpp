// SPDX-License-Identifier: GPL-3.0-or-later
//! The gear in space: drawn with depth, turned, cut open, followed along its way, named under the pointer.
#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QSlider>
#include <QTemporaryDir>

#include "app/drawing/diagram.h"
#include "app/drawing/shaded_view.h"
#include "app/widgets/dialogs.h"
#include "bench.h"

using namespace kranich;
using namespace kranich::app;

namespace {

struct Shaded {
  Bench b;
  QWidget* dialog;
  ShadedView* view;
  Shaded() : b("Dunnock") {
    dialog = make_shaded_dialog(b.document, b.window.get());
    dialog->show();
    REQUIRE(QTest::qWaitForWindowExposed(dialog));
    b.settle();
    view = dialog->findChild<ShadedView*>();
    REQUIRE(view);
  }
  ~Shaded() { delete dialog; }
  template <class W>
  W* in(const char* name) {
    auto* w = dialog->findChild<W*>(QString::fromLatin1(name));
    REQUIRE(w);
    return w;
  }
};

}  // namespace

TEST_CASE("nearer hides further, whichever is drawn first, and the picture knows what it shows") {
  Camera camera;
  camera.turn = camera.down = 0;
  camera.scale = 100;
  // Seen from port: what has the lesser y is nearer.
  const auto near = motion::mesh_of(motion::Box{Vec3(-0.2, -1, -0.2), Vec3(0.2, -0.8, 0.2)});
  const auto far = motion::mesh_of(motion::Box{Vec3(-0.5, 0.8, -0.5), Vec3(0.5, 1, 0.5)});
  for (const bool near_first : {true, false}) {
    Raster r({200, 200}, Qt::white);
    for (const bool first : {near_first, !near_first})
      r.solid(first ? near : far, camera, first ? Qt::red : Qt::blue, first ? 1 : 2, false, std::nullopt);
    CHECK(r.at({100, 100}) == 1);
    CHECK(r.at({140, 100}) == 2);
    CHECK(r.at({160, 100}) == -1);
    CHECK(QColor(r.picture().pixel(100, 100)).red() > 0);
    CHECK(QColor(r.picture().pixel(100, 100)).blue() == 0);
    CHECK(QColor(r.picture().pixel(195, 195)) == QColor(Qt::white));
  }
  // Cut away, the near one lets the far one be seen.
  Raster r({200, 200}, Qt::white);
  const SectionPlane plane{1, 0, false};
  r.solid(near, camera, Qt::red, 1, false, plane);
  r.solid(far, camera, Qt::blue, 2, false, plane);
  CHECK(r.at({100, 100}) == 2);
  // Seen through: every other pixel.
  Raster thin({200, 200}, Qt::white);
  thin.solid(near, camera, Qt::red, 1, true, std::nullopt);
  CHECK((thin.at({100, 100}) == 1) != (thin.at({101, 100}) == 1));
  // From above the nose is to the left and starboard up.
  camera.down = M_PI / 2;
  const Eigen::Vector3d ahead = camera.seen({-1, 0, 0}, {200, 200}),
                        starboard = camera.seen({0, 1, 0}, {200, 200});
  CHECK(ahead.x() < 100);
  CHECK(starboard.y() < 100);
}

TEST_CASE("it is opened from Swing and by its key") {
  Bench b("Dunnock");
  b.go(Station::swing);
  b.press("gear-in-space");
  auto* dialog = b.find<QWidget>("shaded-dialog");
  CHECK(dialog->isVisible());
  delete dialog;
  b.window->activateWindow();
  REQUIRE(QTest::qWaitForWindowActive(b.window.get()));
  QTest::keyClick(b.window.get(), Qt::Key_G, Qt::ControlModifier);
  b.settle();
  CHECK(b.window->findChild<QWidget*>("shaded-dialog"));
  delete b.window->findChild<QWidget*>("shaded-dialog");
}

TEST_CASE("the gear stands in space, is turned by hand and key, and named under the pointer") {
  Shaded s;
  REQUIRE_FALSE(s.view->scene().parts.empty());
  const QImage before = s.view->grab().toImage();
  const double turn = s.view->camera().turn;
  QTest::mousePress(s.view, Qt::LeftButton, {}, {300, 300});
  QMouseEvent move(QEvent::MouseMove, QPoint(360, 320), s.view->mapToGlobal(QPoint(360, 320)), Qt::NoButton,
                   Qt::LeftButton, {});
  QApplication::sendEvent(s.view, &move);
  QTest::mouseRelease(s.view, Qt::LeftButton, {}, {360, 320});
  s.b.settle();
  CHECK(s.view->camera().turn != turn);
  CHECK(s.view->grab().toImage() != before);
  const double turned = s.view->camera().turn;
  QTest::keyClick(s.view, Qt::Key_Left);
  CHECK(s.view->camera().turn > turned);
  const double scale = s.view->camera().scale;
  QTest::keyClick(s.view, Qt::Key_Plus);
  CHECK(s.view->camera().scale > scale);
  QTest::keyClick(s.view, Qt::Key_Home);
  s.in<QPushButton>("look-side")->click();
  CHECK(s.view->camera().turn == 0);
  s.view->grab();
  // Somewhere a wheel stands, and it says whose.
  QString found;
  for (int x = 0; x < s.view->width() && found.isEmpty(); x += 7)
    for (int y = 0; y < s.view->height() && found.isEmpty(); y += 7)
      if (const auto* part = s.view->part_at({x, y}); part && part->kind == SceneKind::wheel)
        found = s.view->words_of(*part);
  CHECK(found.contains("tyre"));
  CHECK(s.view->part_at({1, 1}) == nullptr);
}

TEST_CASE(
    "the way is scrubbed in space as elsewhere, what is near is told, and the design's changes are seen") {
  Shaded s;
  auto* way = s.in<QSlider>("shaded-way");
  way->setValue(840);
  s.b.settle();
  CHECK(s.b.document.gear_position() == Approx(0.84));
  auto* near = s.in<QLabel>("shaded-near");
  CHECK(near->text().contains("main leg"));
  CHECK(near->text().contains(" to "));
  const QString told = near->text();
  s.b.document.set_gear_position(0);
  s.b.settle();
  CHECK(way->value() == 0);
  CHECK(near->text() != told);
  const size_t parts = s.view->scene().parts.size();
  s.b.document.edit("", [](Design& d) { d.doors.clear(); });
  s.b.settle();
  CHECK(s.view->scene().parts.size() < parts);
  s.b.document.undo();
}

TEST_CASE("it is cut open by a plane, and what a leg sweeps is written") {
  Shaded s;
  const QImage whole = s.view->grab().toImage();
  auto* across = s.in<QComboBox>("shaded-cut");
  auto* place = s.in<QSlider>("shaded-place");
  CHECK_FALSE(place->isEnabled());
  across->setCurrentIndex(2);
  s.b.settle();
  CHECK(place->isEnabled());
  const QImage cut = s.view->grab().toImage();
  CHECK(cut != whole);
  place->setValue(200);
  s.b.settle();
  CHECK(s.view->grab().toImage() != cut);
  across->setCurrentIndex(0);
  s.b.settle();
  CHECK(s.view->grab().toImage() == whole);
  QTemporaryDir dir;
  REQUIRE(write_swept_from(s.dialog, dir.filePath("swept.stl")));
  QFile f(dir.filePath("swept.stl"));
  REQUIRE(f.open(QIODevice::ReadOnly));
  CHECK(f.size() > 50000);
  CHECK(f.read(7) == "Kranich");
  CHECK(s.in<QLabel>("shaded-said")->text().contains("each 2°"));
  REQUIRE(write_swept_from(s.dialog, "/no/such/place/x.stl"));
  CHECK(s.in<QLabel>("shaded-said")->text().contains("/no/such/place"));
}

TEST_CASE("names of curves stand in the corner where the least of the curves runs") {
  const QRectF box(10, 20, 300, 200);
  const QSizeF size(80, 30);
  CHECK(calmest_corner(box, size, {}).topLeft() == box.topLeft());
  const QPolygonF falls{{10, 20}, {310, 220}};  // through top left and bottom right
  CHECK(calmest_corner(box, size, {falls}).topRight().x() == Approx(310));
  CHECK(calmest_corner(box, size, {falls}).top() == Approx(20));
  const QPolygonF rises{{10, 220}, {310, 20}};
  const QPolygonF along_top{{10, 30}, {310, 30}};
  CHECK(calmest_corner(box, size, {falls, along_top}) == QRectF(10, 190, 80, 30));
  CHECK(calmest_corner(box, size, {rises, along_top}) == QRectF(230, 190, 80, 30));
  // A curve that leaves the box for far away costs no time and counts where it is in sight.
  const QPolygonF far{{10, 20}, {1e9, 1e9}};
  CHECK(calmest_corner(box, size, {far}).topRight().x() == Approx(310));
}
