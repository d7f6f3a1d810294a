// SPDX-License-Identifier: GPL-3.0-or-later
//! What to measure next: the acts that settle most of what only guesses decide, to be typed in where they
//! stand; what was done, with how far the guess was off; the sheet to take along.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>
#include <vector>

#include "app/document/document.h"
#include "core/start/measure_next.h"

namespace kranich::app {

class NextPage : public QWidget {
  Q_OBJECT
 public:
  explicit NextPage(Document& document, QWidget* parent = nullptr);
  const start::NextList& list() const { return list_; }
  //! As many rows as the screen shows.
  static constexpr size_t most = 12;
  std::optional<QString> write_sheet_to(const QString& path) const;

 signals:
  void go_to(kranich::Station station);
  void tell(const QString& text, bool trouble);

 private:
  void refresh();
  void rebuild();
  QWidget* row_of(size_t which);
  QWidget* scales_entry(QWidget* parent);
  void take(const start::Act& act, size_t which, const QString& typed, QLineEdit* entry);
  void note(const QString& words);
  void guess_again();

  Document& document_;
  start::NextList list_;
  QLabel *note_, *wait_;
  QVBoxLayout* rows_;
  QPushButton *again_, *print_;
  QLabel* done_;
  QStringList done_lines_;
  std::vector<std::string> shown_;  //!< ids of the acts that have a row
};

}  // namespace kranich::app
