// SPDX-License-Identifier: GPL-3.0-or-later
//! Chooses which leg a page shows: a button for every leg of the design.
#pragma once

#include <QButtonGroup>
#include <QPushButton>
#include <QWidget>
#include <string>

#include "app/document/document.h"

namespace kranich::app {

class LegSwitch : public QWidget {
  Q_OBJECT
 public:
  //! Buttons are called `prefix`-id: "spring-main".
  LegSwitch(Document& document, const QString& prefix, QWidget* parent = nullptr);
  void show_current(const std::string& leg_id);
  //! Id of the leg shown first: a main leg, else the first there is; empty without legs.
  static std::string first(const Design& design);

 signals:
  void chosen(const QString& leg_id);

 private:
  void rename();
  Document& document_;
  QButtonGroup group_;
};

}  // namespace kranich::app
