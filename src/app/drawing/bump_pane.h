// SPDX-License-Identifier: GPL-3.0-or-later
//! The panes of the bump: the wheel rolling over it, to scale, and its loads beside those of the other kind
//! of leg.
#pragma once

#include <optional>

#include "app/drawing/board.h"
#include "core/spring/bump.h"

namespace kranich::app {

//! This leg over the design's bump, and its counterpart (a telescopic leg as trailing link and the other way
//! round): computed anew when the design changes.
class BumpTrace {
 public:
  explicit BumpTrace(Document& document) : document_(document) {}
  struct Pair {
    spring::BumpModel model;
    spring::BumpResult own, other;
  };
  const Pair* of(const std::string& leg);

 private:
  Document& document_;
  quint64 seen_ = 0;
  std::string leg_ = "main";
  std::optional<Pair> pair_;
};

class BumpPane : public Pane {
 public:
  BumpPane(Document& document, BumpTrace& trace) : Pane(document), trace_(trace) {}
  std::string leg = "main";       //!< id
  std::optional<double> playing;  //!< s
  QString name() const override { return QObject::tr("Bump"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {24, 36, 24, 30}; }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;

 private:
  void draw_wheel(Sheet& sheet, const BumpTrace::Pair& pair, const spring::BumpPoint& at, bool faint) const;
  BumpTrace& trace_;
};

class BumpLoadsPane : public DiagramPane {
 public:
  BumpLoadsPane(Document& document, BumpTrace& trace) : DiagramPane(document), trace_(trace) {}
  std::string leg = "main";  //!< id
  std::optional<double> playing;
  QString name() const override { return QObject::tr("Loads over the bump"); }
  void draw(Sheet& sheet) override;

 private:
  BumpTrace& trace_;
};

}  // namespace kranich::app
