// SPDX-License-Identifier: GPL-3.0-or-later
//! The circuit as it runs: pump, pipes and cylinders lit by their pressure, the pressures over a stroke, the
//! legs over time, the currents over the sequence.
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

class CircuitPane : public Pane {
 public:
  CircuitPane(Document& document, const CircuitView& view) : Pane(document), view_(view) {}
  QString name() const override { return QObject::tr("Circuit"); }
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {12, 8, 12, 8}; }
  void draw(Sheet& sheet) override;

 private:
  const CircuitView& view_;
};

//! Pressure at pump and in the return over the stroke of one leg; cut-out and rating beside them.
class CylinderPane : public Pane {
 public:
  CylinderPane(Document& document, const CircuitView& view) : Pane(document), view_(view) {}
  QString name() const override { return QObject::tr("Pressure over the stroke"); }
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {10, 6, 10, 6}; }
  void draw(Sheet& sheet) override;

 private:
  const CircuitView& view_;
};

//! Where the legs are over time, all on the one pump.
class LegsPane : public Pane {
 public:
  LegsPane(Document& document, const CircuitView& view) : Pane(document), view_(view) {}
  QString name() const override { return QObject::tr("Legs over time"); }
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {10, 6, 10, 6}; }
  void draw(Sheet& sheet) override;

 private:
  const CircuitView& view_;
};

class CurrentPane : public Pane {
 public:
  CurrentPane(Document& document, const CircuitView& view) : Pane(document), view_(view) {}
  QString name() const override { return QObject::tr("Currents"); }
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {10, 6, 10, 6}; }
  void draw(Sheet& sheet) override;

 private:
  const CircuitView& view_;
};

//! The run of the legs together that is shown, and how long it lasts (s); nothing where it is not known.
const circuit::TeeRun* run_shown(const Document& document, bool up);
double run_length(const circuit::TeeRun& run);

}  // namespace kranich::app
