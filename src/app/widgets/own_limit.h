// SPDX-License-Identifier: GPL-3.0-or-later
//! A limit of the builder's own for a measure, set where its finding stands, with the reason.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include "app/document/document.h"

namespace kranich::app {

class OwnLimitRow : public QWidget {
  Q_OBJECT
 public:
  explicit OwnLimitRow(Document& document, QWidget* parent = nullptr);
  //! Turns to the measure of a finding; what was being typed for it stays.
  void show_for(const Finding& finding);

 private:
  void refresh();
  void open(bool on);
  void set();
  void take_away();
  const OwnLimit* own() const;

  Document& document_;
  std::string measure_;
  QLabel* told_;
  QWidget* entry_;
  QLineEdit *lower_, *upper_, *reason_;
  QLabel* note_;
  QWidget* away_;
};

}  // namespace kranich::app
