// SPDX-License-Identifier: GPL-3.0-or-later
//! The logic on the bench: what the pilot has in hand, the diagram that lights up, the aircraft that follows,
//! the faults that were tried, the table of states. All look at one bench.
#pragma once

#include <QStringList>
#include <deque>

#include "app/drawing/board.h"
#include "app/drawing/pose.h"
#include "core/assess/logic_state.h"

namespace kranich::app {

//! A wired machine in one state, tried by hand or replaying a run.
class LogicBench {
 public:
  explicit LogicBench(Document& document) : document_(document) {}
  //! Takes over the design's wiring; keeps the state while the wiring stays.
  void follow();
  const logic::Wiring* wiring() const { return wiring_.get(); }
  const logic::Fitted& fitted() const { return fitted_; }
  const LogicState* state_of_design() const { return document_.assessment().logic.get(); }
  const logic::State& state() const { return state_; }
  std::string value(const std::string& variable) const;
  bool lit(const logic::Condition& condition) const;
  const std::vector<std::string>& happened() const { return happened_; }

  void rest();                                //!< down, on the ground, nothing broken
  bool pilot(const std::string& variable);    //!< throws what sets that variable
  void breaks(const std::string& part);       //!< breaks a part in its next way; after its last it works
  bool step();                                //!< the next event of the machine's own; false: it rests
  void replay(std::vector<std::string> run);  //!< from rest
  bool replaying() const { return !script_.empty(); }
  const std::deque<std::string>& to_come() const { return script_; }

 private:
  void happen(const logic::Event& event);
  Document& document_;
  logic::Fitted fitted_;
  std::shared_ptr<const logic::Wiring> wiring_;
  logic::State state_;
  std::vector<std::string> happened_;
  std::deque<std::string> script_;
  size_t turn_ = 0;  //!< each of the machine's events gets its turn
};

//! Something in a pane that can be clicked.
struct Spot {
  QRectF at;  //!< device
  std::function<void()> act;
};

//! A pane drawn on its own terms, whose parts can be clicked.
class SpotPane : public Pane {
 public:
  SpotPane(Document& document, LogicBench& bench, std::function<void()> changed)
      : Pane(document), bench_(bench), changed_(std::move(changed)) {}
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {10, 8, 10, 8}; }
  bool clicked(const QPointF& world) override;
  //! Middle of what is called so, in the board's pixels: for tests.
  std::optional<QPointF> spot(const QString& id) const;

 protected:
  void spot(const QString& id, const QRectF& at, std::function<void()> act);
  LogicBench& bench_;
  std::function<void()> changed_;
  QRectF area_;
  std::vector<std::pair<QString, Spot>> spots_;
};

//! Selector, throttle, breaker, handle, ground or air; lamps and horn.
class CockpitPane : public SpotPane {
 public:
  using SpotPane::SpotPane;
  QString name() const override { return QObject::tr("In the cockpit"); }
  void draw(Sheet& sheet) override;
};

//! The diagram: rung by rung, current where it flows. A click on a contact breaks it.
class DiagramPane : public SpotPane {
 public:
  using SpotPane::SpotPane;
  QString name() const override { return QObject::tr("Diagram"); }
  void draw(Sheet& sheet) override;
};

//! Every fault against every rule; a click on what is violated replays the shortest way there.
class FaultsPane : public SpotPane {
 public:
  using SpotPane::SpotPane;
  QString name() const override { return QObject::tr("Faults"); }
  void draw(Sheet& sheet) override;
};

class StatesPane : public SpotPane {
 public:
  using SpotPane::SpotPane;
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
