// SPDX-License-Identifier: GPL-3.0-or-later
//! Entries bound to one member of the design by its path: one line each in a page.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>
#include <QWidget>
#include <limits>

#include "app/document/document.h"
#include "core/model/locate.h"

namespace kranich::app {

//! A quantity's entry: label, field, unit, tolerance and origin; below it, while typing, what was understood
//! or why it is refused. Enter or leaving the field takes the value over; nonsense is refused and the last
//! good value stays.
class QuantityRow : public QWidget {
  Q_OBJECT
 public:
  QuantityRow(Document& document, QString path, const QString& title = {}, QWidget* parent = nullptr);
  QLineEdit* field() { return field_; }
  QString hint() const { return hint_->text(); }

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void show_value();
  void follow_typing();
  void take_over();
  void choose_origin(Origin origin);
  //! What an arrow key changes it by, SI.
  double step() const;
  //! Puts a value in within what the number may be.
  void put(Design& design, double si) const;
  //! The name held and dragged: one change to undo, drawn as it goes.
  bool slide(QEvent* event);
  void say(const QString& text, bool refusal);

  Document& document_;
  std::string path_;
  Spec spec_;
  QLabel* label_;
  QLineEdit* field_;
  QLabel* unit_;
  QToolButton* more_;
  QLabel* hint_;
  bool typed_ = false;
  double slid_from_ = 0, slide_step_ = 0;
  double slide_start_ = std::numeric_limits<double>::quiet_NaN();  //!< finite while the name is dragged
};

//! What an entry does to a number: value (NaN: unknown), its tolerance where one was typed; a number that
//! nobody had given becomes one from the plan.
void put_entry(Given& given, double si, const std::optional<double>& tolerance);

//! A choice among a few words.
class ChoiceRow : public QWidget {
  Q_OBJECT
 public:
  ChoiceRow(Document& document, QString path, const QString& title, QWidget* parent = nullptr);
  QComboBox* box() { return box_; }

 private:
  Document& document_;
  std::string path_;
  QComboBox* box_;
};

}  // namespace kranich::app
