// SPDX-License-Identifier: GPL-3.0-or-later
//! The Book to be read: its entries, newest first, with what is struck out; sums of hours and cost; CSV out
//! and in.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>
#include <QWidget>

#include "app/document/document.h"
#include "app/document/journal.h"

namespace kranich::app {

class BookView : public QWidget {
  Q_OBJECT
 public:
  BookView(Document& document, QWidget* parent = nullptr);
  //! Of the Book as it is, what says this; all where nothing is asked for.
  void fill(const QString& wanted);

 private:
  void strike();
  void csv_out();
  void csv_in();

  Document& document_;
  Journal& journal_;
  QTableWidget* table_;
  QLabel *sums_, *said_;
  QLineEdit* strike_;
};

}  // namespace kranich::app
