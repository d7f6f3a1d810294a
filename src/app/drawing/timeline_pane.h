// SPDX-License-Identifier: GPL-3.0-or-later
//! A sequence over time: a row for each actor, its bars with their spread, what a sequencer answered below
//! them; bars and playhead can be dragged.
#pragma once

#include <functional>

#include "app/drawing/board.h"
#include "core/sequence/player.h"
#include "core/sequence/sequence.h"

namespace kranich::app {

//! What is played: direction and time, shared by the drawing and the timeline.
struct Playback {
  bool up = true;
  double time = 0;
};

//! Its world is the device's rectangle, y up from its lower edge.
class TimelinePane : public DiagramPane {
 public:
  TimelinePane(Document& document, Playback& playback, std::function<void()> moved)
      : DiagramPane(document), playback_(playback), moved_(std::move(moved)) {}
  QString name() const override { return QObject::tr("Timeline"); }
  QMarginsF margins() const override { return {10, 4, 10, 6}; }
  const sequence::Timeline& line() const { return document_.assessment().line(playback_.up); }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;
  bool clicked(const QPointF& world) override;
  //! What a sequencer answered to the way that is shown, by the id of what moved; empty: nothing.
  std::function<std::vector<std::pair<std::string, sequence::AnsweredMove>>()> answered;

 private:
  std::vector<std::string> actors() const;
  void draw_row(Sheet& sheet, const std::string& actor, double top);
  void draw_checks(Sheet& sheet, const std::vector<std::string>& names);
  //! What the lamps show meanwhile, in their legend's words; nothing where there are none.
  void draw_lamps(Sheet& sheet);
  double lamps_height() const { return document_.design().logic.lamps == LampSchool::none ? 0 : 14; }
  static constexpr double left_margin = 124;
  double span() const;
  double x_of(double seconds) const {
    return area_.left() + left_margin + seconds / span() * (area_.width() - left_margin - 10);
  }
  double row_top(size_t row) const { return area_.top() + 24 + row_height() * static_cast<double>(row); }
  double row_height() const {
    return std::min(34.0, (area_.height() - 42 - lamps_height()) /
                              std::max<double>(1, static_cast<double>(actors().size())));
  }
  Playback& playback_;
  std::function<void()> moved_;
  QRectF area_;
};

}  // namespace kranich::app
