// SPDX-License-Identifier: GPL-3.0-or-later
//! The stations in the order of work, each with what fails or is tight in it.
#pragma once

#include <QAbstractButton>
#include <QWidget>
#include <vector>

#include "app/document/document.h"

namespace kranich::app {

class RailButton : public QAbstractButton {
  Q_OBJECT
 public:
  RailButton(Station station, QWidget* parent);
  void count(int fails, int tight, int unknown);
  Station station() const { return station_; }
  QSize sizeHint() const override { return {118, 42}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  Station station_;
  int fails_ = 0, tight_ = 0, unknown_ = 0;
};

class Rail : public QWidget {
  Q_OBJECT
 public:
  explicit Rail(Document& document, QWidget* parent = nullptr);
  void show_current(Station station);
  //! A page is shown that is no station.
  void show_none();

 signals:
  void chosen(kranich::Station station);

 private:
  void refresh();
  Document& document_;
  std::vector<RailButton*> buttons_;
};

}  // namespace kranich::app
