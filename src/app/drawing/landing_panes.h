// SPDX-License-Identifier: GPL-3.0-or-later
//! The panes of Spring: the leg at its stops, its force over its travel with the landing's loop, loads and
//! energy over time.
#pragma once

#include <optional>

#include "app/drawing/board.h"
#include "core/force/suspension.h"
#include "core/spring/drop.h"

namespace kranich::app {

//! The leg large, at four places of its travel: extended, static, design landing, bottomed. A straight leg
//! from the side, a hinged one from ahead. While the landing is played the third place moves.
class StrokePane : public Pane {
 public:
  explicit StrokePane(Document& document) : Pane(document) {}
  std::string leg = "main";  //!< id
  std::optional<spring::DropPoint> playing;
  QString name() const override { return QObject::tr("Stroke"); }
  QMarginsF margins() const override { return {20, 40, 20, 44}; }
  QRectF bounds() const override;
  void draw(Sheet& s) override;

 private:
  void draw_straight(Sheet& s, const Leg& l, double x, double closure, double sink, Ink ink) const;

  //! From ahead: the leg turned about its hinge, the cord or spring between its anchors, the wheel as it
  //! leans.
  void draw_hinged(Sheet& s, const Leg& l, const force::Suspension& path, double x, double rise, double sink,
                   Ink ink) const;

  static Vec3 top(const Leg& l);
  static double spacing(const Leg& l);
};

//! The design landing of a leg with its trace: computed anew when the design changes.
class LandingTrace {
 public:
  explicit LandingTrace(Document& document) : document_(document) {}
  const spring::DropResult* of(const std::string& leg);

 private:
  Document& document_;
  quint64 seen_ = 0;
  std::string leg_ = "main";
  std::optional<spring::DropResult> result_;
};

//! Loads over time, and where the energy goes.
class TimePane : public DiagramPane {
 public:
  TimePane(Document& document, LandingTrace& trace) : DiagramPane(document), trace_(trace) {}
  std::string leg = "main";  //!< id
  std::optional<double> playing;
  QString name() const override { return QObject::tr("Landing"); }
  void draw(Sheet& s) override;

 private:
  //! The energies stacked over time: what the landing brings at each moment is where the stack ends.
  void draw_energy(Sheet& s, const spring::DropResult& drop, const QRectF& area) const;
  LandingTrace& trace_;
};

//! Force at the wheel over the leg's closure.
class ForcePane : public DiagramPane {
 public:
  ForcePane(Document& document, LandingTrace& trace) : DiagramPane(document), trace_(trace) {}
  std::string leg = "main";  //!< id
  //! Landings of other springs in this leg, with their names: laid over its own.
  std::vector<std::pair<QString, spring::DropResult>> beside;
  QString name() const override { return QObject::tr("Force"); }
  void draw(Sheet& s) override;

 private:
  LandingTrace& trace_;
};

}  // namespace kranich::app
