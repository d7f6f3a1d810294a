// SPDX-License-Identifier: GPL-3.0-or-later
//! Something happened: a note, landings, a failure, a purchase, written into the Book as one line.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include "app/document/document.h"
#include "app/document/journal.h"

namespace kranich::app {

class EventEntry : public QWidget {
  Q_OBJECT
 public:
  EventEntry(Document& document, QWidget* parent = nullptr);
  //! The legs that it may have happened to, as the design has them now.
  void fill();

 private:
  void show_fields();
  void write();

  Document& document_;
  Journal& journal_;
  QComboBox *sort_, *leg_, *failed_in_;
  QLineEdit *what_, *from_, *to_, *count_, *cost_, *note_;
  QLabel* said_;
};

}  // namespace kranich::app
