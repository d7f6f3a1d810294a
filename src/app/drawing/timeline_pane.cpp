// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/timeline_pane.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/assess/doors_state.h"
#include "core/sequence/boxes.h"

namespace kranich::app {

std::vector<std::string> TimelinePane::actors() const {
  std::vector<std::string> names;
  for (const auto& b : line().bars)
    if (std::find(names.begin(), names.end(), b.actor) == names.end()) names.push_back(b.actor);
  return names;
}

double TimelinePane::span() const {
  double last = line().latest_end;
  if (answered)
    for (const auto& [actor, move] : answered()) last = std::fmax(last, move.ends);
  return std::max(1.0, std::ceil(last + 0.5));
}

void TimelinePane::draw(Sheet& s) {
  area_ = s.frame().device();
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  const auto names = actors();
  p.setFont(text_font(9, true));
  p.setPen(t.grey);
  p.drawText(area_.topLeft() + QPointF(0, 13), playback_.up
                                                   ? QObject::tr("Going up: time after the selector, s")
                                                   : QObject::tr("Going down: time after the selector, s"));
  if (names.empty()) {
    p.drawText(area_, Qt::AlignCenter, QObject::tr("no steps in this direction"));
    return;
  }
  p.setFont(text_font(8));
  for (double v = 0; v <= span(); v += span() > 20 ? 2 : 1) {
    const double x = x_of(v);
    s.pen(t.faint_line, 0.8);
    p.drawLine(QPointF(x, area_.top() + 22), QPointF(x, area_.bottom() - 14));
    p.setPen(t.grey);
    p.drawText(QRectF(x - 20, area_.bottom() - 14, 40, 14), Qt::AlignCenter, QString::number(v));
  }
  for (size_t i = 0; i < names.size(); ++i) draw_row(s, names[i], row_top(i));
  draw_checks(s, names);
  draw_lamps(s);
  // Playhead.
  s.pen(Ink::accent, 2);
  const double x = x_of(playback_.time);
  p.drawLine(QPointF(x, area_.top() + 18), QPointF(x, area_.bottom() - 14));
  p.setFont(figure_font(9, true));
  p.setPen(t.accent);
  p.drawText(QPointF(x + 5, area_.bottom() - 18 - lamps_height()), figure(playback_.time, 1) + " s");
}

void TimelinePane::draw_row(Sheet& s, const std::string& actor, double top) {
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  const double row = row_height();
  p.setFont(text_font(8.5));
  p.setPen(t.ink);
  // Which output of which box it hangs on, before its name: rows may be as low as a line.
  QString output = text_of(sequence::output_of(document_.design(), actor));
  p.setFont(text_font(7.5, true));
  const double wide = output.isEmpty() ? 0 : p.fontMetrics().horizontalAdvance(output) + 6.0;
  p.setPen(t.accent);
  p.drawText(QRectF(area_.left(), top, wide, row), Qt::AlignLeft | Qt::AlignVCenter, output);
  p.setFont(text_font(8.5));
  p.setPen(t.ink);
  const QRectF room(area_.left() + wide, top, left_margin - 8 - wide, row);
  const QString name = text_of(document_.design().actor_word(actor), document_.units());
  if (p.fontMetrics().horizontalAdvance(name) > room.width()) p.setFont(text_font(7.5));
  p.drawText(room, Qt::AlignRight | Qt::AlignVCenter | (row > 26 ? Qt::TextWordWrap : 0), name);
  for (const auto& b : line().bars) {
    if (b.actor != actor) continue;
    const bool forth = sequence::is_forth(b.action);
    const QColor colour = b.kind == sequence::ActorKind::door  ? t.accent
                          : b.kind == sequence::ActorKind::leg ? t.ink
                                                               : t.grey;
    const QRectF whole(QPointF(x_of(b.start), top + row * 0.2), QPointF(x_of(b.latest_end), top + row * 0.8));
    QColor wash = colour;
    wash.setAlpha(50);
    p.setPen(Qt::NoPen);
    p.setBrush(wash);
    p.drawRect(whole);
    wash.setAlpha(170);
    p.setBrush(wash);
    p.drawRect(QRectF(whole.topLeft(), QPointF(x_of(b.earliest_end), whole.bottom())));
    s.pen(colour, 1.6);
    p.drawLine(QPointF(x_of(b.nominal_end), whole.top()), QPointF(x_of(b.nominal_end), whole.bottom()));
    // The time entered, where another is counted with: a mark above the bar.
    if (std::isfinite(b.entered_end)) {
      const double at = x_of(b.entered_end);
      p.setPen(Qt::NoPen);
      p.setBrush(t.grey);
      p.drawPolygon(QPolygonF{{QPointF(at - 4, whole.top() - 5), QPointF(at + 4, whole.top() - 5),
                               QPointF(at, whole.top() + 1)}});
    }
    p.setPen(t.paper);
    p.setFont(text_font(8, true));
    static constexpr const char* words[]{
        QT_TRANSLATE_NOOP("QObject", "opens"), QT_TRANSLATE_NOOP("QObject", "closes"),
        QT_TRANSLATE_NOOP("QObject", "up"),    QT_TRANSLATE_NOOP("QObject", "down"),
        QT_TRANSLATE_NOOP("QObject", "holds"), QT_TRANSLATE_NOOP("QObject", "lets go")};
    const QString word = QObject::tr(words[static_cast<int>(b.action)]) + (forth ? " ▸" : " ◂");
    p.drawText(whole.adjusted(12, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, word);
  }
  if (!answered) return;
  // What the sequencer did: a line below the bars, with its end.
  for (const auto& [who, move] : answered()) {
    if (who != actor) continue;
    const bool there = std::isfinite(move.ends);
    const double end = there ? move.ends : playback_.time;
    const double y = top + row * 0.9;
    s.pen(t.ink, 2);
    p.drawLine(QPointF(x_of(move.starts), y), QPointF(x_of(end), y));
    if (!there) continue;
    p.drawLine(QPointF(x_of(end), y - 4), QPointF(x_of(end), y + 2));
    p.setFont(figure_font(7.5, true));
    p.drawText(QPointF(x_of(end) + 4, y + 2), figure(end, 1));
  }
}

void TimelinePane::draw_lamps(Sheet& s) {
  const LampSchool school = document_.design().logic.lamps;
  double first = std::numeric_limits<double>::infinity();
  double last = 0;
  for (const auto& b : line().bars)
    if (b.kind == sequence::ActorKind::leg) {
      first = std::min(first, b.start);
      last = std::max(last, b.latest_end);
    }
  if (school == LampSchool::none || !(last > first)) return;
  struct Shown {
    QString word;
    QColor colour;
  };
  const Theme& t = Theme::now();
  const bool red = school == LampSchool::red_until_locked;
  const Shown dark{QObject::tr("dark"), Qt::transparent};
  const Shown down = red ? dark : Shown{QObject::tr("green"), t.holds};
  const Shown between = red ? Shown{QObject::tr("red"), t.fails} : Shown{QObject::tr("amber"), t.tight};
  const Shown up = red                                    ? between
                   : school == LampSchool::greens_blue_up ? Shown{QObject::tr("blue"), t.accent}
                                                          : dark;
  const bool goes_up = playback_.up;
  QPainter& p = s.painter();
  const double top = area_.bottom() - 14 - lamps_height();
  p.setFont(text_font(8));
  p.setPen(t.ink);
  p.drawText(QRectF(area_.left(), top, left_margin - 8, 12), Qt::AlignRight | Qt::AlignVCenter,
             QObject::tr("lamps"));
  const auto part = [&](double from, double to, const Shown& shown) {
    const QRectF box(QPointF(x_of(from), top), QPointF(x_of(to), top + 12));
    QColor wash = shown.colour;
    if (wash.alpha() > 0) wash.setAlpha(60);
    p.fillRect(box, wash);
    s.pen(t.grey, 0.8);
    s.no_fill();
    p.drawRect(box);
    p.setPen(t.ink);
    p.drawText(box, Qt::AlignCenter, shown.word);
  };
  if (first > 0) part(0, first, goes_up ? down : up);
  part(first, last, between);
  part(last, span(), goes_up ? up : down);
}

void TimelinePane::draw_checks(Sheet& s, const std::vector<std::string>& names) {
  QPainter& p = s.painter();
  const Design& d = document_.design();
  const double row = row_height();
  std::vector<Text> ignored;
  const Assessment& a = document_.assessment();
  for (const auto& c : sequence::check_doors(d, a.times, playback_.up, ignored, zones_of(a))) {
    if (std::isnan(c.close_start)) continue;
    const auto it = std::find(names.begin(), names.end(), c.door);
    if (it == names.end()) continue;
    const double y = row_top(static_cast<size_t>(it - names.begin()));
    const double margin = d.sequence.margin.known() ? d.sequence.margin.si : 0;
    const bool late = c.close_in_hand < margin;
    s.pen(late ? Ink::fails : Ink::holds, 1.4, Qt::DashLine);
    p.drawLine(QPointF(x_of(c.least_close_start_at_rest), y + 2),
               QPointF(x_of(c.least_close_start_at_rest), y + row - 2));
    if (c.close_in_hand >= 0) continue;
    p.setFont(text_font(8, true));
    p.setPen(Theme::now().fails);
    p.drawText(QRectF(area_.left(), y - 2, x_of(c.close_start) - 14 - area_.left(), row),
               Qt::AlignRight | Qt::AlignVCenter,
               QObject::tr("▲ %1 s too early for the slowest leg").arg(figure(-c.close_in_hand, 1)));
  }
}

std::vector<Handle> TimelinePane::handles() const {
  std::vector<Handle> list;
  if (area_.isEmpty()) return list;
  const auto names = actors();
  const auto to_world = [&](const QPointF& device) {
    return QPointF(device.x() - area_.left(), area_.bottom() - device.y());
  };
  const double seconds = 1 / (x_of(1) - x_of(0));
  const auto& steps = playback_.up ? document_.design().sequence.up : document_.design().sequence.down;
  for (size_t i = 0; i < steps.size(); ++i) {
    const auto it = std::find(names.begin(), names.end(), steps[i].actor);
    if (it == names.end() || !steps[i].start.known()) continue;
    const double y = row_top(static_cast<size_t>(it - names.begin())) + row_height() / 2;
    list.push_back({QStringLiteral("step:%1").arg(i),
                    QObject::tr("start of “%1”")
                        .arg(text_of(document_.design().actor_word(steps[i].actor), document_.units())),
                    to_world({x_of(steps[i].start), y}), 8,
                    [i, seconds, up = playback_.up](Design& d, double dx, double) {
                      Step& s = (up ? d.sequence.up : d.sequence.down)[i];
                      // Arrow keys ask for 1 mm: here that is a tenth of a second.
                      const double by = std::abs(dx) <= 0.0101 ? dx * 100 : dx * seconds;
                      s.start.si = std::max(0.0, std::round((s.start.si + by) * 20) / 20);
                    }});
  }
  return list;
}

bool TimelinePane::clicked(const QPointF& world) {
  const double device_x = world.x() + area_.left();
  if (device_x < x_of(0) - 5) return false;
  playback_.time = std::clamp((device_x - x_of(0)) / (x_of(1) - x_of(0)), 0.0, line().latest_end);
  moved_();
  return true;
}

}  // namespace kranich::app
