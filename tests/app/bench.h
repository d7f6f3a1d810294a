// SPDX-License-Identifier: GPL-3.0-or-later
//! A window with a demonstration project, driven by mouse and keys as a user drives it.
#pragma once

#include <QApplication>
#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QTabWidget>
#include <QTest>
#include <catch2/catch.hpp>

#include "app/demo.h"
#include "app/main_window.h"
#include "app/stations/page.h"

namespace kranich::app {

//! Waits until something holds, letting the window live. The limit only ends a hang: how long the work
//! takes is the machine's affair.
template <class F>
bool eventually(F&& holds) {
  return QTest::qWaitFor(holds, 5 * 60 * 1000);
}

struct Bench {
  Document document;
  std::unique_ptr<MainWindow> window;

  explicit Bench(const QString& demo = "Dunnock") {
    REQUIRE(start_demo(document, demo));
    window = std::make_unique<MainWindow>(document);
    window->resize(1280, 800);
    window->show();
    REQUIRE(QTest::qWaitForWindowExposed(window.get()));
    window->activateWindow();  // shortcuts reach only an active window
    REQUIRE(QTest::qWaitForWindowActive(window.get()));
    settle();
    proved();
  }
  ~Bench() { window->hide(); }

  void settle() {
    for (int i = 0; i < 3; ++i) QApplication::processEvents();
  }
  //! Until what is proved beside the interface is.
  void proved() {
    REQUIRE(eventually([&] { return !document.proving(); }));
    settle();
  }
  StationPage& go(Station station) {
    window->show_station(station);
    settle();
    return *window->page(station);
  }
  //! Drags a handle by so many pixels, in steps as a hand does.
  void drag(StationPage& page, const QString& handle, QPoint by, bool release = true) {
    Board* board = page.board();
    const auto at = board->handle_position(handle);
    INFO(handle.toStdString());
    REQUIRE(at);
    const QPoint from = at->toPoint();
    QTest::mousePress(board, Qt::LeftButton, {}, from);
    for (int i = 1; i <= 5; ++i) {
      const QPoint to = from + by * i / 5;
      QMouseEvent move(QEvent::MouseMove, to, board->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
      QApplication::sendEvent(board, &move);
    }
    if (release) QTest::mouseRelease(board, Qt::LeftButton, {}, from + by);
    settle();
  }
  template <class W>
  W* find(const QString& name) {
    auto* w = window->findChild<W*>(name);
    INFO(name.toStdString());
    REQUIRE(w);
    return w;
  }
  //! Turns to the tab a widget is on, as a user must to see it.
  void reveal(QWidget* widget) {
    for (QWidget* w = widget; w; w = w->parentWidget())
      if (auto* tabs = qobject_cast<QTabWidget*>(w))
        for (int i = 0; i < tabs->count(); ++i)
          if (tabs->widget(i)->isAncestorOf(widget)) tabs->setCurrentIndex(i);
    settle();
  }
  void type(const QString& path, const QString& text, bool enter = true) {
    auto* field = find<QLineEdit>("field:" + path);
    Fold::open_around(field);
    field->setFocus();
    field->selectAll();
    if (text.isEmpty()) QTest::keyClick(field, Qt::Key_Delete);
    QTest::keyClicks(field, text);
    if (enter) QTest::keyClick(field, Qt::Key_Return);
    settle();
  }
  //! Picks one of a choice's words.
  void choose(const QString& path, int index) {
    auto* box = find<QComboBox>("choice:" + path);
    Fold::open_around(box);
    box->setCurrentIndex(index);
    emit box->activated(index);
    settle();
  }
  void press(const char* name) {
    auto* button = find<QPushButton>(QString::fromLatin1(name));
    Fold::open_around(button);
    QTest::mouseClick(button, Qt::LeftButton);
    settle();
  }
  void press_in(QWidget* dialog, const char* name) {
    auto* button = dialog->findChild<QPushButton*>(QString::fromLatin1(name));
    INFO(name);
    REQUIRE(button);
    button->click();
    settle();
  }
  //! What a part of a leg is left with: "main leg, axle".
  const Finding* part(const std::string& subject) const {
    for (const auto& f : document.assessment().findings)
      if (f.measure_id == "leg.margin" && in_words(f.subject.words) == subject) return &f;
    return nullptr;
  }
  double value(std::string_view path) const { return value_at(document.design(), path); }
  const Finding* worst(std::string_view id) const {
    for (const Finding* f : worst_of_each(document.assessment()))
      if (f->measure_id == id) return f;
    return nullptr;
  }
};

}  // namespace kranich::app
