// SPDX-License-Identifier: GPL-3.0-or-later
//! The bench below Spring's board: its readings and drops.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QWidget>
#include <optional>

#include "app/document/document.h"
#include "app/drawing/bench_panes.h"
#include "core/spring/drop.h"

namespace kranich::app {

class BenchDevice;

//! The bench: a rig (or its stand-in) recorded, laid over what was foretold, fitted, and offered back; loads
//! on the scales the same way.
class BenchPanel : public QWidget {
  Q_OBJECT
 public:
  BenchPanel(Document& document, RigPane& pane, QWidget* parent = nullptr);
  void show_leg(const std::string& leg);

 signals:
  void redraw();

 private:
  const spring::DropModel* model() const;
  double height() const;
  void start_stand_in();
  void take_sample(double t, double acceleration, double stroke);
  void finish_recording();
  void read_file();
  void tell();
  void take_over();
  void keep_drop();
  Document& document_;
  RigPane& pane_;
  std::string leg_ = "main";
  BenchDevice* rig_;
  bool recording_ = false;  //!< samples have come and their end has not
  QLabel* says_;
  QPushButton* take_;
  QPushButton* keep_;
  std::optional<spring::DropFit> fit_;
};

}  // namespace kranich::app
