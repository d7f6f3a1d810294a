// SPDX-License-Identifier: GPL-3.0-or-later
//! The logic on the bench: what the pilot has in hand, the diagram that lights up, the aircraft that follows,
//! the faults that were tried, the table of states. All look at one bench.
#pragma once

#include "app/drawing/board.h"
#include "app/drawing/pose.h"
#include "core/assess/logic_state.h"
#include "core/logic/trial.h"

namespace kranich::app {

//! The design's wiring on the bench: all panes look at the one trial of it.
class LogicBench {
 public:
  explicit LogicBench(Document& document) : document_(document) {}
  //! Takes over the design's wiring; the trial goes on where the wiring stays.
  void follow();
  logic::Trial trial;
  const logic::Wiring* wiring() const { return trial.wiring(); }
  const logic::Fitted& fitted() const { return fitted_; }
  //! What is proved of it; null while it is not.
  const logic::Proof* proof() const;

 private:
  Document& document_;
  logic::Fitted fitted_;
};

//! A diagram of the machine that is tried by hand.
class TrialPane : public SpotPane {
 public:
  TrialPane(Document& document, LogicBench& bench, std::function<void()> changed)
      : SpotPane(document, std::move(changed)), bench_(bench) {}

 protected:
  LogicBench& bench_;
};

//! Selector, throttle, breaker, handle, ground or air; lamps and horn.
class CockpitPane : public TrialPane {
 public:
  using TrialPane::TrialPane;
  QString name() const override { return QObject::tr("In the cockpit"); }
  void draw(Sheet& sheet) override;
};

//! The diagram: rung by rung, current where it flows. A click on a contact breaks it.
class WiringPane : public TrialPane {
 public:
  using TrialPane::TrialPane;
  QString name() const override { return QObject::tr("Diagram"); }
  void draw(Sheet& sheet) override;
};

//! Every fault against every rule; a click on what is violated replays the shortest way there.
class FaultsPane : public TrialPane {
 public:
  using TrialPane::TrialPane;
  QString name() const override { return QObject::tr("Faults"); }
  void draw(Sheet& sheet) override;
};

class StatesPane : public TrialPane {
 public:
  using TrialPane::TrialPane;
  QString name() const override { return QObject::tr("States"); }
  void draw(Sheet& sheet) override;
};

//! From ahead and from the side, each leg and door where the bench has it.
class BenchAircraftPane : public Pane {
 public:
  BenchAircraftPane(Document& document, LogicBench& bench, bool side)
      : Pane(document), bench_(bench), side_(side) {}
  QString name() const override { return side_ ? QObject::tr("Side") : QObject::tr("Front"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {22, 34, 22, 14}; }
  void draw(Sheet& sheet) override;

 private:
  Pose pose() const;
  LogicBench& bench_;
  bool side_;
};

//! What a rule is called in the head of a column.
QString rule_word(logic::Rule rule);

}  // namespace kranich::app
