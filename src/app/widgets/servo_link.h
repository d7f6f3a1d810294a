// SPDX-License-Identifier: GPL-3.0-or-later
//! A leg's servo on a tester of the bench (docs/bench-protocol.md) or its stand-in: the end points of the
//! design are sent there, what it answers is held against them.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTimer>
#include <QWidget>
#include <array>
#include <memory>
#include <optional>
#include <string>

#include "app/document/document.h"
#include "app/widgets/bench_device.h"

namespace kranich::app {

class ServoLink : public QWidget {
  Q_OBJECT
 public:
  ServoLink(Document& document, std::string leg, QWidget* parent = nullptr);

 private:
  enum End { down, stowed };
  //! What was found at an end: where it rests or binds, and from where on it no longer does.
  struct Found {
    double sent = 0, current = 0, unit = 0;
    bool binds = false;
    std::optional<double> rests_at;
  };
  void simulate();
  void go(double percent, std::optional<End> towards);
  //! The end that binds, by one step less.
  void back_off();
  void heard(const BenchLine& line);
  void forget(const QString& why);
  void refresh();
  void tell();
  void write_down();
  QString percent(double value) const;

  Document& document_;
  std::string leg_;
  BenchDevice device_{QStringLiteral("SERVO")};
  QLineEdit *line_, *percent_;
  QComboBox* how_;
  QPushButton *down_, *stowed_, *middle_, *back_, *write_;
  QLabel *state_, *found_;
  QTimer rests_;  //!< it has stood still so long
  double sent_ = 0;
  std::optional<End> towards_;
  bool backing_ = false;                   //!< going back by one per cent at a time until it no longer binds
  bool said_ = false;                      //!< it has answered on this line
  std::unique_ptr<QTemporaryDir> handed_;  //!< the design as the stand-in has it
  std::optional<BenchLine> last_;
  std::array<std::optional<Found>, 2> ends_;
};

}  // namespace kranich::app
