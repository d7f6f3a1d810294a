// SPDX-License-Identifier: GPL-3.0-or-later
//! What every station's page shares: the board on the left, the panel of numbers on the right.
#pragma once

#include <QButtonGroup>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <QWidget>
#include <functional>

#include "app/drawing/board.h"
#include "app/widgets/findings.h"
#include "app/widgets/quantity_edit.h"

namespace kranich::app {

//! Where a leg's members are, by its id: "/gear/legs/main/".
inline QString leg_path(const std::string& id) {
  return QStringLiteral("/gear/legs/%1/").arg(QString::fromStdString(id));
}

//! The line over a part of a panel that folds away.
class Fold : public QPushButton {
  Q_OBJECT
 public:
  Fold(const QString& title, const QString& note, QWidget* parent);
  void set_inside(QWidget* inside);
  //! Opens every fold that a widget lies in.
  static void open_around(QWidget* widget);

 private:
  void show_state(bool open);
  QString title_, note_;
  QWidget* inside_ = nullptr;
};

class StationPage : public QWidget {
  Q_OBJECT
 public:
  StationPage(Document& document, Station station, QWidget* parent = nullptr);
  Station station() const { return station_; }
  Board* board() { return board_; }
  FindingList* findings() { return findings_; }

 protected:
  // The panel, from top to bottom: one line each.
  QLabel* heading(const QString& text, const QString& note = {});
  QuantityRow* field(const char* path, const QString& title = {});
  ChoiceRow* choice(const char* path, const QString& title);
  //! The three coordinates of a place, each on its line: "Pivot, station".
  void place(const QString& path, const QString& what);
  //! Buttons side by side of which one is down, the first at first: object names and words.
  QButtonGroup* one_of(const std::vector<std::pair<const char*, QString>>& buttons);
  QLabel* remark(const QString& text = {});
  QPushButton* button(const QString& text, const QString& tip);
  template <class W>
  W* put(W* widget) {
    panel_->addWidget(widget);
    return widget;
  }
  //! A part of the panel that can be hidden as a whole: what `fill` puts goes into it.
  QWidget* section(const std::function<void()>& fill);
  //! A section under a line that opens and closes it; closed at first. What leads to an entry in it opens it.
  QWidget* fold(const QString& title, const QString& note, const std::function<void()>& fill);
  void add_findings(const QString& title);
  void finish();  //!< after the last line
  //! What stands below the board: a table, a timeline.
  void put_below(QWidget* widget, int height);
  //! What stands above it and shares its height with it.
  void put_above(QWidget* widget, int stretch);
  void set_panel_width(int width) { scroll_->setFixedWidth(width); }

  Document& document_;

 private:
  Station station_;
  Board* board_;
  FindingList* findings_ = nullptr;
  QVBoxLayout* panel_;
  QVBoxLayout* left_;
  QScrollArea* scroll_;
};

#define KRANICH_STATION(id, title, uses) StationPage* make_##id##_page(Document& document);
KRANICH_STATIONS(KRANICH_STATION)
#undef KRANICH_STATION

}  // namespace kranich::app
