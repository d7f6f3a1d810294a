// SPDX-License-Identifier: GPL-3.0-or-later
//! An outline traced over a picture from an empty project; tables that take what a spreadsheet copies.
#include <QClipboard>
#include <QComboBox>
#include <QDir>
#include <QDragEnterEvent>
#include <QMimeData>
#include <QPainter>
#include <QPdfWriter>
#include <QRegularExpression>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTextBrowser>
#include <QUrl>
#include <set>

#include "app/drawing/outline_pane.h"
#include "app/drawing/picture.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/list_table.h"
#include "bench.h"
#include "core/assess/drive_offers.h"
#include "core/io/project_file.h"

using namespace kranich;
using namespace kranich::app;

namespace {

//! A side view 800 px wide that stands 2° askew: a body from 100 to 700 px, 60 px high.
QString side_view(const QTemporaryDir& where) {
  QImage image(800, 300, QImage::Format_RGB32);
  image.fill(Qt::white);
  QPainter p(&image);
  p.translate(100, 150);
  p.rotate(2);
  p.setBrush(Qt::lightGray);
  p.drawEllipse(QRectF(0, -30, 600, 60));
  p.end();
  const QString file = where.filePath("side.png");
  REQUIRE(image.save(file));
  return file;
}

struct Tracing {
  Bench& b;
  QWidget* dialog;
  Board* board;
  OutlinePane* pane;

  explicit Tracing(Bench& bench) : b(bench), dialog(make_outline_dialog(bench.document, bench.window.get())) {
    dialog->show();
    REQUIRE(QTest::qWaitForWindowExposed(dialog));
    board = dialog->findChild<Board*>();
    REQUIRE(board);
    pane = board->find<OutlinePane>();
    REQUIRE(pane);
    b.settle();
  }
  ~Tracing() { delete dialog; }
  template <class W>
  W* find(const char* name) {
    auto* w = dialog->findChild<W*>(QString::fromLatin1(name));
    INFO(name);
    REQUIRE(w);
    return w;
  }
  void press(const char* name) {
    find<QPushButton>(name)->click();
    b.settle();
  }
  void drop(const QString& file) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(file)});
    QDragEnterEvent enter(QPoint(200, 200), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(dialog, &enter);
    REQUIRE(enter.isAccepted());
    QDropEvent drop(QPointF(200, 200), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(dialog, &drop);
    b.settle();
  }
  //! The board's pixel of a place in the view; its frame is what the pane's bounds are fitted into.
  QPoint at(double x, double y) {
    const QRectF inner = QRectF(board->rect()).marginsRemoved(pane->margins());
    return Frame(inner, pane->bounds()).to_device({x, y}).toPoint();
  }
  void click(double x, double y) {
    QTest::mouseClick(board, Qt::LeftButton, {}, at(x, y));
    b.settle();
  }
};

//! Where a handle stands on a board.
QPoint board_key(Board* board, const QString& handle) {
  const auto at = board->handle_position(handle);
  INFO(handle.toStdString());
  REQUIRE(at);
  return at->toPoint();
}

}  // namespace

TEST_CASE("an outline is traced over a picture, put to scale by a known length and level by two points") {
  Bench b;
  b.document.edit("Nothing", [](Design& d) { d = Design(); });
  Tracing t(b);
  QTemporaryDir where;
  t.drop(side_view(where));
  const Design& d = b.document.design();
  REQUIRE(d.side_tracing.width.known());
  const auto seen = [&](double px, double py) {  // of the picture as it lies
    const Picture& p = b.document.design().side_tracing;
    const double by = p.width / 800;
    const double turn = p.turned.known() ? p.turned.si : 0;
    const double u = px * by, v = (300 - py) * by;
    return QPointF(p.left_x + u * std::cos(turn) - v * std::sin(turn),
                   p.bottom_z + u * std::sin(turn) + v * std::cos(turn));
  };
  const QPointF nose = seen(100, 150);
  const QPointF tail = seen(100 + 600 * std::cos(radians(2)), 150 + 600 * std::sin(radians(2)));
  // The body is 6 m long in truth.
  t.press("click-scale");
  t.click(nose.x(), nose.y());
  t.click(tail.x(), tail.y());
  auto* known = t.find<QLineEdit>("known-length");
  REQUIRE(known->isEnabled());
  QTest::keyClicks(known, "nonsense");
  QTest::keyClick(known, Qt::Key_Return);
  CHECK(t.find<QLabel>("outline-says")->text().size() > 5);
  known->clear();
  QTest::keyClicks(known, "6 m");
  QTest::keyClick(known, Qt::Key_Return);
  b.settle();
  CHECK(b.document.design().side_tracing.width.si == Approx(8).epsilon(0.01));
  const QPointF a = seen(100, 150);
  const QPointF c = seen(100 + 600 * std::cos(radians(2)), 150 + 600 * std::sin(radians(2)));
  t.press("click-level");
  t.click(c.x(), c.y());
  t.click(a.x(), a.y());
  CHECK(degrees(b.document.design().side_tracing.turned.si) == Approx(2).margin(0.3));
  // Its upper edge, clicked from nose to tail and one between; its lower edge at the same stations.
  const QPointF front = seen(100, 150);
  t.press("click-trace");
  for (const double along : {0.0, 6.0, 3.0})
    t.click(front.x() + along, front.y() + (along == 3.0 ? 0.3 : 0.02));
  REQUIRE(b.document.design().airframe.bodies.size() == 1);
  const auto& sections = b.document.design().airframe.bodies[0].sections;
  REQUIRE(sections.size() == 3);
  CHECK(sections[1].x - sections[0].x == Approx(3).margin(0.05));
  CHECK(sections[1].top - sections[0].top == Approx(0.28).margin(0.03));
  CHECK_FALSE(sections[1].bottom.known());
  auto* what = t.find<QComboBox>("trace-what");
  what->setCurrentIndex(1);
  emit what->activated(1);
  for (const double along : {0.0, 3.0, 6.0})
    t.click(front.x() + along, front.y() - (along == 3.0 ? 0.3 : 0.02));
  CHECK(b.document.design().airframe.bodies[0].sections.size() == 3);
  CHECK(b.document.design().airframe.bodies[0].sections[1].bottom.known());
  // A corner by its key; a section removed by its key; all of it undone.
  const auto middle = board_key(t.board, "section:1");
  QTest::mouseClick(t.board, Qt::LeftButton, {}, middle);
  QTest::keyClick(t.board, Qt::Key_C);
  b.settle();
  CHECK(b.document.design().airframe.bodies[0].sections[1].corner);
  QTest::keyClick(t.board, Qt::Key_Delete);
  b.settle();
  CHECK(b.document.design().airframe.bodies[0].sections.size() == 2);
  b.document.undo();
  CHECK(b.document.design().airframe.bodies[0].sections.size() == 3);
  // Dragged, it does not pass its neighbour.
  b.settle();
  const auto from = board_key(t.board, "section:1");
  QTest::mousePress(t.board, Qt::LeftButton, {}, from);
  for (int i = 1; i <= 4; ++i) {
    const QPoint to = from + QPoint(200 * i, 0);
    QMouseEvent move(QEvent::MouseMove, to, t.board->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(t.board, &move);
  }
  QTest::mouseRelease(t.board, Qt::LeftButton, {}, from + QPoint(800, 0));
  b.settle();
  const auto& after = b.document.design().airframe.bodies[0].sections;
  CHECK(after[1].x < after[2].x);
  // Kept with the project, and read again.
  const auto again = read_project(write_project(b.document.design()));
  REQUIRE(again.design);
  CHECK(again.design->side_tracing == b.document.design().side_tracing);
  // What cannot be read is said.
  t.drop(where.filePath("missing.png"));
  CHECK(t.find<QLabel>("outline-says")->text().contains("missing.png"));
}

TEST_CASE("drawings are read from PDF and SVG as from photographs") {
  QTemporaryDir where;
  const QString pdf = where.filePath("three-view.pdf");
  {
    QPdfWriter writer(pdf);
    QPainter p(&writer);
    p.fillRect(QRect(0, 0, 2000, 2000), Qt::black);
  }
  const QImage page = picture_image(pdf);
  REQUIRE_FALSE(page.isNull());
  CHECK(page.width() <= 2480);
  QFile svg(where.filePath("side.svg"));
  REQUIRE(svg.open(QIODevice::WriteOnly));
  svg.write(
      "<svg xmlns='http://www.w3.org/2000/svg' width='40' height='10'><rect width='40' height='10'/></svg>");
  svg.close();
  const QImage drawn = picture_image(svg.fileName());
  REQUIRE_FALSE(drawn.isNull());
  CHECK(drawn.width() == 4 * drawn.height());
  CHECK(qAlpha(drawn.pixel(10, 10)) == 255);
  QFile broken(where.filePath("broken.pdf"));
  REQUIRE(broken.open(QIODevice::WriteOnly));
  broken.write("no pdf");
  broken.close();
  CHECK(picture_image(broken.fileName()).isNull());
}

TEST_CASE("a table takes what a spreadsheet copies: all of it in one step, or nothing with the cell named") {
  Bench b;
  auto* dialog = make_project_dialog(b.document, b.window.get());
  dialog->show();
  b.settle();
  auto* table = dialog->findChild<QTableWidget*>("list:/airframe/keep_outs");
  REQUIRE(table);
  b.reveal(table);
  const size_t before = b.document.design().airframe.keep_outs.size();
  const int row = table->rowCount();
  QGuiApplication::clipboard()->setText(
      "duct\tbox\t100\t0\t50\t300\t200\t150\nlead\tbox\t1.2 m\t0\t0\t1300\t20\t30\r\n");
  auto* list = dynamic_cast<ListTable*>(table->parentWidget());
  REQUIRE(list);
  // From the row after the last one on.
  if (row > 0) table->setCurrentCell(row - 1, 0);
  b.press_in(dialog, "add:/airframe/keep_outs");
  table->setCurrentCell(row, 0);
  list->paste();
  b.settle();
  const auto& got = b.document.design().airframe.keep_outs;
  REQUIRE(got.size() == before + 2);
  CHECK(got[before].name == "duct");
  CHECK(got[before].high.x.si == Approx(0.3));
  CHECK(got[before + 1].low.x.si == Approx(1.2));
  b.document.undo();
  CHECK(b.document.design().airframe.keep_outs.size() == before + 1);
  QGuiApplication::clipboard()->setText("pump\tbox\t100\nvalve\tball\t5\n");
  table->setCurrentCell(row, 0);
  list->paste();
  CHECK(b.document.design().airframe.keep_outs.size() == before + 1);
  CHECK(list->note().contains("ball"));
  delete dialog;
}

TEST_CASE(
    "drives are compared side by side, one of the shelf is fitted, and the reason against another is kept") {
  Bench b("Redshank");
  auto* dialog = make_drive_dialog(b.document, "main", b.window.get());
  dialog->show();
  b.settle();
  auto* table = dialog->findChild<QTableWidget*>("drive-table");
  REQUIRE(table);
  REQUIRE(table->columnCount() == 1);
  b.press_in(dialog, "drive-copy");
  b.press_in(dialog, "drive-add");
  REQUIRE(table->columnCount() == 3);
  CHECK(table->item(2, 0)->text() == table->item(2, 1)->text());
  auto* entries = dialog->findChild<QTableWidget*>("list:/gear/legs/main/retraction/drive_offers");
  REQUIRE(entries);
  entries->item(0, 1)->setText("no room for its plug");
  b.settle();
  CHECK(b.document.design().gear.main().retraction.drive_offers[0].rejected == "no room for its plug");
  table->setCurrentCell(0, 2);
  const auto sold = b.document.design().gear.main().retraction.drive_offers[1];
  b.press_in(dialog, "drive-take");
  CHECK(b.document.design().gear.main().retraction.drive_sold.name == sold.sold.name);
  CHECK(b.document.design().gear.main().retraction.drive.kind == sold.drive.kind);
  b.document.undo();
  CHECK(b.document.design().gear.main().retraction.drive_sold.name != sold.sold.name);
  delete dialog;
}

TEST_CASE(
    "F1 opens the manual at the chapter of what is shown; every chapter is reached, every link leads "
    "somewhere") {
  Bench b;
  const QDir chapters(QStringLiteral(KRANICH_MANUAL_DIR));
  const QRegularExpression link(QStringLiteral("\\]\\(([^)]+)\\)"));
  std::set<QString> linked{"index.md"};
  for (const QString& name : chapters.entryList({"*.md"})) {
    QFile file(chapters.filePath(name));
    REQUIRE(file.open(QIODevice::ReadOnly));
    const QString text = QString::fromUtf8(file.readAll());
    CHECK(QFile::exists(":/docs/manual/" + name));
    for (auto it = link.globalMatch(text); it.hasNext();) {
      const QString to = it.next().captured(1);
      INFO(name.toStdString() << " to " << to.toStdString());
      CHECK(chapters.exists(to));
      linked.insert(to);
    }
  }
  CHECK(linked.size() == static_cast<size_t>(chapters.entryList({"*.md"}).size()));
  for (int i = 0; i < station_count; ++i) {
    const auto station = static_cast<Station>(i);
    b.go(station);
    QTest::keyClick(b.window.get(), Qt::Key_F1);
    b.settle();
    auto* pages = b.window->findChild<QTextBrowser*>("manual-pages");
    REQUIRE(pages);
    INFO(station_title(station));
    CHECK(pages->toPlainText().startsWith(QString::fromUtf8(
        station_title(station).data(), static_cast<qsizetype>(station_title(station).size()))));
    b.window->activateWindow();
    b.settle();
  }
}

TEST_CASE("a limit of one's own is set at its finding with the reason, judges it, and is taken away again") {
  Bench b;
  auto& page = b.go(Station::place);
  auto* list = page.findings();
  REQUIRE(list);
  const Finding* f = b.worst("place.nose_share");
  REQUIRE(f);
  list->choose(f->check());
  b.settle();
  auto* told = page.findChild<QLabel*>("own-limit");
  REQUIRE(told);
  emit told->linkActivated("own");
  const auto type = [&](const char* name, const QString& text) {
    auto* field = page.findChild<QLineEdit*>(QString::fromLatin1(name));
    REQUIRE(field);
    field->setText(text);
  };
  type("own-upper", "30");
  b.press_in(&page, "own-set");
  CHECK(b.document.design().own_limits.empty());  // no reason, no limit
  CHECK(page.findChild<QLabel*>("own-note")->text().size() > 10);
  type("own-lower", "40");
  type("own-reason", "flown so for ten years");
  b.press_in(&page, "own-set");
  CHECK(b.document.design().own_limits.empty());  // least above most
  type("own-lower", "4");
  b.press_in(&page, "own-set");
  REQUIRE(b.document.design().own_limits.size() == 1);
  CHECK(b.document.design().own_limits[0].upper.si == Approx(0.30));
  const Finding* now = b.worst("place.nose_share");
  CHECK(now->verdict == Verdict::holds);
  CHECK(in_words(now->limit.source).find("ten years") != std::string::npos);
  CHECK(told->text().contains("ten years"));
  emit told->linkActivated("own");
  b.press_in(&page, "own-away");
  CHECK(b.document.design().own_limits.empty());
}

TEST_CASE("a rod for a wanted turn is found on the page and taken") {
  Bench b;
  b.document.edit("Lift and turn", [](Design& d) {
    Leg& leg = d.gear.main();
    Retraction& r = leg.retraction;
    r.motion = LegMotion::lifts_and_turns;
    const Vec3 middle = (r.pivot.vec() + leg.axle.vec()) / 2;
    r.king_pin.set(middle);
    r.rod_leg.set(middle + Vec3(0.08, 0.02, 0));
    r.rod_airframe = Point();
  });
  b.settle();
  auto& page = b.go(Station::swing);
  b.press("swing-main");
  auto* wanted = page.findChild<QLineEdit*>("turn-wanted-main");
  REQUIRE(wanted);
  wanted->setText("ninety");
  b.press("find-rods-main");
  CHECK_FALSE(page.findChild<QPushButton*>("rod-main-0"));
  wanted->setText("90");
  b.press("find-rods-main");
  b.press("rod-main-0");
  const Leg& leg = b.document.design().gear.main();
  REQUIRE(leg.retraction.rod_airframe.known());
  const Finding* f = b.worst("swing.clearance");
  REQUIRE(f);
  CHECK(f->verdict != Verdict::unknown);
}

TEST_CASE("a number is stepped by the arrow keys and slid by its name, as one change to undo") {
  Bench b;
  auto& page = b.go(Station::place);
  const QString path = "/gear/legs/main/axle/x_m";
  auto* field = page.findChild<QLineEdit*>("field:" + path);
  REQUIRE(field);
  const double before = b.value(path.toStdString());
  field->setFocus();
  QTest::keyClick(field, Qt::Key_Up);
  b.settle();
  const double stepped = b.value(path.toStdString()) - before;
  CHECK(stepped == Approx(0.01));  // of 2450 mm
  QTest::keyClick(field, Qt::Key_Down, Qt::ShiftModifier);
  CHECK(b.value(path.toStdString()) == Approx(before - 0.09));
  b.document.undo();
  b.document.undo();
  CHECK(b.value(path.toStdString()) == Approx(before));
  auto* row = page.findChild<QWidget*>("row:" + path);
  REQUIRE(row);
  auto* name = row->findChild<QLabel*>();
  REQUIRE(name);
  const auto mouse = [&](QEvent::Type type, int x) {
    QMouseEvent e(type, QPointF(5, 5), name->mapToGlobal(QPointF(5 + x, 5)),
                  type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton,
                  type == QEvent::MouseButtonRelease ? Qt::NoButton : Qt::LeftButton, {});
    QApplication::sendEvent(name, &e);
  };
  mouse(QEvent::MouseButtonPress, 0);
  for (const int x : {4, 8, 12}) {
    mouse(QEvent::MouseMove, x);
    CHECK(b.value(path.toStdString()) == Approx(before + 0.01 * x / 4));
  }
  mouse(QEvent::MouseMove, -100000);  // held within what it may be
  CHECK(b.value(path.toStdString()) >= -60);
  mouse(QEvent::MouseMove, 8);
  mouse(QEvent::MouseButtonRelease, 8);
  CHECK(b.value(path.toStdString()) == Approx(before + 0.02));
  b.document.undo();
  CHECK(b.value(path.toStdString()) == Approx(before));
}
