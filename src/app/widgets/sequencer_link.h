// SPDX-License-Identifier: GPL-3.0-or-later
//! The plan of a sequence handed on: written as a table, JSON or wiring list, or sent to a sequencer on the
//! bench (docs/bench-protocol.md) or its stand-in, played there, and its answer held against the plan.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QWidget>
#include <string>
#include <utility>
#include <vector>

#include "app/document/document.h"
#include "app/drawing/timeline_pane.h"
#include "app/widgets/bench_device.h"
#include "core/sequence/plan.h"
#include "core/sequence/player.h"

namespace kranich::app {

class SequencerLink : public QWidget {
  Q_OBJECT
 public:
  SequencerLink(Document& document, Playback& playback, QWidget* parent = nullptr);
  enum class Out { table, json, wiring };
  //! Writes the plan to a file and says so, or why it cannot.
  void write(Out what, const QString& file);
  //! What was answered to the way that is shown, by the id of what moved.
  std::vector<std::pair<std::string, sequence::AnsweredMove>> answered() const;

 signals:
  //! Something was answered: the timeline draws it.
  void answer_changed();

 private:
  void simulate();
  void play();
  void heard(const BenchLine& line);
  void forget(const QString& why);
  void compare();
  sequence::Plan plan() const;

  Document& document_;
  Playback& playback_;
  BenchDevice device_{QStringLiteral("SEQ")};
  QLineEdit* line_;
  QComboBox* how_;
  QPushButton* play_;
  QLabel *state_, *against_;
  //! What was sent last, and what came back.
  sequence::Plan sent_;
  bool up_ = true, waiting_ = false, under_way_ = false;
  bool heard_ = false;  //!< it has answered on this line
  std::vector<sequence::Answer> answers_;
};

}  // namespace kranich::app
