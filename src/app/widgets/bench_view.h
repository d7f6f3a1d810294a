// SPDX-License-Identifier: GPL-3.0-or-later
//! One step at a time in large letters, for a tablet or laptop on the bench: keys only.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <utility>
#include <vector>

#include "app/document/document.h"
#include "app/document/journal.h"

namespace kranich::app {

class BenchView : public QDialog {
  Q_OBJECT
 public:
  BenchView(Document& document, QWidget* parent = nullptr);

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void begin();
  void go(int by);
  const tasks::Box* box() const;
  void show_step();
  void show_now();
  void take();
  bool asks_side(const tasks::Task& task) const { return task.choice && choice_.empty(); }

  Document& document_;
  Journal& journal_;
  QLabel *text_, *said_;
  QLineEdit* entry_;
  std::vector<std::pair<std::string, std::string>> boxes_;  //!< task and piece, as they were open at first
  int at_ = 0;
  size_t reading_ = 0;    //!< which one is asked for
  tasks::Entered typed_;  //!< those before it; one that was passed over is not among them
  std::string choice_;
};

}  // namespace kranich::app
