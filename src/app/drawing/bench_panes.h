// SPDX-License-Identifier: GPL-3.0-or-later
//! What many drops came to, and what the bench said beside what was foretold.
#pragma once

#include <optional>
#include <vector>

#include "app/drawing/board.h"
#include "core/spring/identify.h"
#include "core/spring/scatter.h"

namespace kranich::app {

//! Load factor and stroke of scattered drops: how many stay below what.
class ScatterPane : public Pane {
 public:
  explicit ScatterPane(Document& document) : Pane(document) {}
  std::optional<spring::ScatterResult> result;
  double factor_allowed = 0, travel = 0;
  QString name() const override { return QObject::tr("Scatter"); }
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {8, 6, 8, 6}; }
  void draw(Sheet& sheet) override;

 private:
  void draw_bars(Sheet& sheet, const QRectF& area, const QString& title, const std::vector<double>& sorted,
                 Kind kind, double limit, const QString& limit_text) const;
};

//! A recorded drop over what the design foretells; and loads against closure with their line.
class RigPane : public Pane {
 public:
  explicit RigPane(Document& document) : Pane(document) {}
  std::vector<spring::RigSample> recorded, foretold, fitted;
  std::string leg = "main";  //!< id
  QString name() const override { return QObject::tr("Bench"); }
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {8, 6, 8, 6}; }
  void draw(Sheet& sheet) override;

 private:
  void draw_record(Sheet& sheet, const QRectF& area, const QString& title, Kind kind,
                   double spring::RigSample::*of, double unit) const;
  void draw_readings(Sheet& sheet, const QRectF& area) const;
};

}  // namespace kranich::app
