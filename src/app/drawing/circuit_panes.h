// SPDX-License-Identifier: GPL-3.0-or-later
//! The circuit as it runs: pump, pipes and cylinders lit by their pressure, the pressures over a stroke, the
//! legs over time, the currents over the sequence. All look at one view.
#pragma once

#include "app/drawing/board.h"
#include "core/assess/circuit_state.h"

namespace kranich::app {

//! What is shown: which way, at which time after the pump started; or the dump valve open.
struct CircuitView {
  bool up = true;
  double time = 0;
  bool dumped = false;
  std::string leg;  //!< whose stroke the diagram shows
};

//! From no pressure to the highest that is known: from the paper's rule to the accent.
QColor lit(double pressure, double highest);
//! One line of words, cut with dots where it does not fit.
void line_of_words(QPainter& painter, const QRectF& at, const QString& text, const QColor& colour,
                   Qt::Alignment align, double points = 8, bool bold = false);

//! A cylinder with its rod out of the top, its sides lit.
void draw_cylinder(QPainter& painter, const QRectF& at, double piston, const QColor& above,
                   const QColor& below);

//! Of the way that is shown, s; 0 where it is not known.
double shown_length(const Document& document, const CircuitView& view);

//! The legs together on the way that is shown; null where that is not known.
const CircuitState::Together* shown_together(const Document& document, const CircuitView& view);

class CircuitViewPane : public DiagramPane {
 public:
  CircuitViewPane(Document& document, const CircuitView& view) : DiagramPane(document), view_(view) {}

 protected:
  const CircuitView& view_;
};

class CircuitPane : public CircuitViewPane {
 public:
  using CircuitViewPane::CircuitViewPane;
  QString name() const override { return QObject::tr("Circuit"); }
  QMarginsF margins() const override { return {12, 8, 12, 8}; }
  void draw(Sheet& sheet) override;
};

//! Pressure at pump and in the return over the stroke of one leg; cut-out and rating beside them.
class CylinderPane : public CircuitViewPane {
 public:
  using CircuitViewPane::CircuitViewPane;
  QString name() const override { return QObject::tr("Pressure over the stroke"); }
  void draw(Sheet& sheet) override;
};

//! Where the legs are over time, all on the one pump.
class LegsPane : public CircuitViewPane {
 public:
  using CircuitViewPane::CircuitViewPane;
  QString name() const override { return QObject::tr("Legs over time"); }
  void draw(Sheet& sheet) override;
};

class CurrentPane : public CircuitViewPane {
 public:
  using CircuitViewPane::CircuitViewPane;
  QString name() const override { return QObject::tr("Currents"); }
  void draw(Sheet& sheet) override;
};

}  // namespace kranich::app
