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
class ScatterPane : public DiagramPane {
 public:
  explicit ScatterPane(Document& document) : DiagramPane(document) {}
  std::optional<spring::ScatterResult> result;
  double factor_allowed = 0, travel = 0;
  QString name() const override { return QObject::tr("Scatter"); }
  void draw(Sheet& sheet) override;

 private:
  void draw_bars(Sheet& sheet, const QRectF& area, const QString& title, const std::vector<double>& sorted,
                 Kind kind, double limit, const QString& limit_text) const;
};

//! A recorded drop over what the design foretells; and loads against closure with their line.
class RigPane : public DiagramPane {
 public:
  explicit RigPane(Document& document) : DiagramPane(document) {}
  std::vector<spring::RigSample> recorded, foretold, fitted;
  std::string leg = "main";  //!< id
  QString name() const override { return QObject::tr("Bench"); }
  void draw(Sheet& sheet) override;

 private:
  void draw_record(Sheet& sheet, const QRectF& area, const QString& title, Kind kind,
                   double spring::RigSample::*of, double unit) const;
  void draw_readings(Sheet& sheet, const QRectF& area) const;
};

}  // namespace kranich::app
