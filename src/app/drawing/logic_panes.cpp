// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/logic_panes.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/aircraft.h"
#include "app/widgets/findings.h"

namespace kranich::app {
namespace {

using logic::Contact;
using logic::Rule;
using logic::Rung;

QString plain(const std::string& words) { return QString::fromStdString(words); }

//! Colours of lamps are what they are called, in light and dark alike.
QColor lamp_colour(const std::string& colour) {
  if (colour == "green") return QColor(38, 160, 84);
  if (colour == "amber") return QColor(226, 150, 24);
  if (colour == "red") return QColor(205, 52, 44);
  return QColor(58, 116, 214);
}

void small_text(Sheet& s, const QRectF& at, const QString& text, const QColor& colour, Qt::Alignment align,
                double points = 8, bool bold = false) {
  QPainter& p = s.painter();
  p.setFont(text_font(points, bold));
  p.setPen(colour);
  p.drawText(at, static_cast<int>(align), p.fontMetrics().elidedText(text, Qt::ElideRight, int(at.width())));
}

}  // namespace

QString rule_word(Rule rule) {
  static constexpr const char* words[]{QT_TR_NOOP("leg against door"), QT_TR_NOOP("motor runs on"),
                                       QT_TR_NOOP("lamp lies"),        QT_TR_NOOP("horn silent"),
                                       QT_TR_NOOP("stays up"),         QT_TR_NOOP("unlocks on ground"),
                                       QT_TR_NOOP("to and fro"),       QT_TR_NOOP("does not come")};
  return QObject::tr(words[static_cast<size_t>(rule)]);
}

void LogicBench::follow() {
  const LogicState* now = document_.assessment().logic.get();
  if (!now) {
    trial = {};
    return;
  }
  if (wiring() && now->fitted == fitted_) return;
  fitted_ = now->fitted;
  trial = logic::Trial(now->proof ? now->proof->wiring
                                  : std::make_shared<const logic::Wiring>(logic::wire(fitted_)));
}

const logic::Proof* LogicBench::proof() const {
  const LogicState* now = document_.assessment().logic.get();
  return now ? now->proof.get() : nullptr;
}

// --- cockpit ---

void CockpitPane::draw(Sheet& s) {
  start(s);
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  small_text(s, {area_.left(), area_.top(), area_.width(), 16}, QObject::tr("Tried by hand"), t.grey,
             Qt::AlignLeft, 9, true);
  if (!bench_.wiring()) {
    small_text(s, area_, QObject::tr("choose what moves the legs"), t.grey, Qt::AlignCenter, 9);
    return;
  }
  struct Control {
    const char* variable;
    QString title;
    std::vector<std::pair<const char*, QString>> values;
  };
  const std::vector<Control> controls{
      {"selector", QObject::tr("Gear"), {{"up", QObject::tr("up")}, {"down", QObject::tr("down")}}},
      {"throttle", QObject::tr("Throttle"), {{"open", QObject::tr("open")}, {"back", QObject::tr("back")}}},
      {"breaker", QObject::tr("Breaker"), {{"in", QObject::tr("in")}, {"out", QObject::tr("out")}}},
      {"handle",
       QObject::tr("Free fall"),
       {{"stowed", QObject::tr("stowed")}, {"pulled", QObject::tr("pulled")}}},
      {"aircraft",
       QObject::tr("Aircraft"),
       {{"in the air", QObject::tr("flying")}, {"on the ground", QObject::tr("on ground")}}}};
  // As high as all of it has room.
  size_t lamps = 0;
  size_t controls_there = 0;
  for (const Rung& r : bench_.wiring()->rungs)
    lamps += r.sort == Rung::Load::lamp || r.sort == Rung::Load::horn;
  for (const auto& c : controls) controls_there += bench_.trial.state().count(c.variable);
  const double rows = 1.5 * static_cast<double>(controls_there) + static_cast<double>(lamps);
  const double lamp_row = std::clamp((area_.height() - 28) / std::max(rows, 1.0), 12.0, 18.0);
  const double row = 1.5 * lamp_row;
  double y = area_.top() + 22;
  const double label = 62;
  for (const auto& c : controls) {
    if (!bench_.trial.state().count(c.variable)) continue;
    small_text(s, {area_.left(), y, label, row - 5}, c.title, t.ink, Qt::AlignLeft | Qt::AlignVCenter, 8.5);
    const double width = (area_.width() - label) / 2;
    for (size_t i = 0; i < c.values.size(); ++i) {
      const QRectF box(area_.left() + label + width * static_cast<double>(i), y, width - 3, row - 5);
      const bool on = bench_.trial.value(c.variable) == c.values[i].first;
      p.setPen(QPen(on ? t.ink : t.line, on ? 1.4 : 1));
      p.setBrush(on ? t.card : QColor(Qt::transparent));
      p.drawRect(box);
      small_text(s, box, c.values[i].second, on ? t.ink : t.grey, Qt::AlignCenter, 8.5, on);
      if (!on)
        spot(QStringLiteral("%1:%2").arg(c.variable, c.values[i].first), box,
             [this, v = std::string(c.variable)] { bench_.trial.throws(v); });
    }
    y += row;
  }
  y += 4;
  for (const Rung& r : bench_.wiring()->rungs) {
    if (r.sort != Rung::Load::lamp && r.sort != Rung::Load::horn) continue;
    const bool on = bench_.trial.holds(r.lit);
    const QPointF at(area_.left() + 9, y + 9);
    const QColor colour = r.sort == Rung::Load::horn ? t.fails : lamp_colour(r.colour);
    p.setPen(QPen(on ? colour : t.grey, 1.4));
    p.setBrush(on ? colour : QColor(Qt::transparent));
    if (r.sort == Rung::Load::horn) {
      p.drawPolygon(QPolygonF{at + QPointF(-6, -3), at + QPointF(-1, -3), at + QPointF(6, -8),
                              at + QPointF(6, 8), at + QPointF(-1, 3), at + QPointF(-6, 3)});
    } else {
      p.drawEllipse(at, 7, 7);
    }
    const QString state = r.sort == Rung::Load::horn ? on ? QObject::tr("sounds") : QObject::tr("silent")
                          : on ? QObject::tr("lit")
                                                     : QObject::tr("dark");
    small_text(s, {area_.left() + 24, y, area_.width() - 70, 18}, plain(r.load), t.ink,
               Qt::AlignLeft | Qt::AlignVCenter, 8.5);
    small_text(s, {area_.right() - 46, y, 46, 18}, state, on ? t.ink : t.grey,
               Qt::AlignRight | Qt::AlignVCenter, 8.5, on);
    y += lamp_row;
  }
}

// --- diagram ---

namespace {

//! Draws a contact between two points of a line: an arm that lies on its other pin where it is closed.
void draw_contact(QPainter& p, const QPointF& from, const QPointF& to, bool closed, const QColor& colour,
                  double lift, bool makes) {
  const double gap = 16;
  const QPointF middle = (from + to) / 2;
  const QPointF left = middle - QPointF(gap / 2, 0);
  const QPointF right = middle + QPointF(gap / 2, 0);
  p.setPen(QPen(colour, 1.6));
  p.setBrush(colour);
  p.drawLine(from, left);
  p.drawLine(right, to);
  p.drawEllipse(left, 1.8, 1.8);
  p.drawEllipse(right, 1.8, 1.8);
  p.drawLine(left, closed ? right : left + QPointF(gap * 0.86, -lift));
  // One that breaks rests against a stop.
  if (!makes) p.drawLine(right + QPointF(0, -lift), right + QPointF(0, lift * 0.7));
}

}  // namespace

void WiringPane::draw(Sheet& s) {
  start(s);
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  small_text(
      s, {area_.left(), area_.top(), area_.width(), 16},
      QObject::tr(
          "Diagram: a contact closes where it is so, one with a stop where it is not; click it to break it"),
      t.grey, Qt::AlignLeft, 9, true);
  const auto* w = bench_.wiring();
  if (!w || w->rungs.empty()) return;
  // Long rungs go right across, the short ones below them in two columns, where one would crowd the labels.
  const auto depth_of = [](const Rung& r) {
    size_t deep = 1;
    for (const auto& parallel : r.series) deep = std::max(deep, parallel.size());
    return static_cast<double>(deep);
  };
  const double top = area_.top() + 22;
  double across = 0;
  double beside = 0;
  std::vector<const Rung*> order;
  for (const bool is_long : {true, false})
    for (const Rung& r : w->rungs)
      if ((r.series.size() > 4) == is_long) {
        order.push_back(&r);
        (is_long ? across : beside) += depth_of(r);
      }
  const bool two = (area_.bottom() - top) / (across + beside) < 22;
  // So that the fuller of the two columns is as short as goes.
  double room = beside;
  double filled = 0;
  for (const Rung* r : order)
    if (two && r->series.size() <= 4) {
      filled += depth_of(*r);
      if (std::max(filled, beside - filled) < std::max(room, beside - room)) room = filled;
    }
  const double lines = across + std::max(room, beside - room) + (two ? 0.6 : 0);
  const double step = std::min(30.0, (area_.bottom() - top) / lines);
  double y = top;
  double left = area_.left() + 12;
  double column = area_.width() - 12;
  double used = 0;
  double start = top;
  //! From the battery's plus; every load goes to earth by itself.
  const auto supply = [&](double x, double from, double to) {
    p.setPen(QPen(t.ink, 2));
    p.drawLine(QPointF(x, from), QPointF(x, to));
    small_text(s, {x - 12, from - 2, 12, 14}, QStringLiteral("+"), t.ink, Qt::AlignLeft, 9, true);
  };
  for (const Rung* rung : order) {
    const Rung& r = *rung;
    const double deep = depth_of(r);
    const bool is_long = r.series.size() > 4;
    if (two && !is_long) {
      if (used == 0 && left == area_.left() + 12) {  // from here on in two columns
        if (y > top) supply(left, start, y);
        y += y > top ? step * 0.6 : 0;
        start = y;
        column = area_.width() / 2 - 14;
      } else if (used + deep > room && left == area_.left() + 12) {
        supply(left, start, y);
        left += column + 28;
        y = start;
        used = 0;
      }
      used += deep;
    }
    const double load_width = 162;
    const double space = (column - load_width) / static_cast<double>(std::max<size_t>(r.series.size(), 1));
    const double line = y + step * 0.74;
    bool live = true;
    double x = left;
    const QColor dead = t.faint;
    const QColor flows = t.accent;
    for (const auto& parallel : r.series) {
      bool through = false;
      for (const Contact& c : parallel) through = through || bench_.trial.holds(c.closed);
      for (size_t i = 0; i < parallel.size(); ++i) {
        const Contact& c = parallel[i];
        const bool closed = bench_.trial.holds(c.closed);
        const double at = line + step * static_cast<double>(i);
        const bool broken = !c.part.empty() && bench_.trial.value(c.part) != "works";
        const QColor colour = broken ? t.fails : live && closed ? flows : dead;
        const double inset = parallel.size() > 1 ? 5 : 0;
        draw_contact(p, {x + inset, at}, {x + space - inset, at}, closed, colour, step < 20 ? 4 : 7, c.makes);
        if (i > 0) {
          p.setPen(QPen(live ? flows : dead, 1.4));
          p.drawLine(QPointF(x + inset, line), QPointF(x + inset, at));
          p.setPen(QPen(live && through ? flows : dead, 1.4));
          p.drawLine(QPointF(x + space - inset, line), QPointF(x + space - inset, at));
        }
        const double tall = std::max(step * 0.74 - 3, 10.0);
        const QRectF words(x + inset + 2, at - 2 - tall, space - 2 * inset - 4, tall);
        small_text(s, words, plain(c.label), broken ? t.fails : t.ink, Qt::AlignHCenter | Qt::AlignBottom,
                   step < 17 ? 6.5 : 7.5, broken);
        if (!c.part.empty())
          spot(QStringLiteral("contact:%1").arg(plain(c.part)), QRectF(x, at - step * 0.6, space, step * 0.9),
               [this, part = c.part] { bench_.trial.breaks(part); });
      }
      p.setPen(QPen(live && through ? flows : dead, 1.6));
      if (parallel.size() > 1) {
        p.setPen(QPen(live ? flows : dead, 1.6));
        p.drawLine(QPointF(x, line), QPointF(x + 5, line));
        p.setPen(QPen(live && through ? flows : dead, 1.6));
        p.drawLine(QPointF(x + space - 5, line), QPointF(x + space, line));
      }
      live = live && through;
      x += space;
    }
    const bool on = bench_.trial.holds(r.lit);
    const double size = std::min(14.0, step - 2);
    const QRectF box(x + 6, line - size / 2, size, size);
    p.setPen(QPen(on ? flows : dead, 1.8));
    p.drawLine(QPointF(x, line), QPointF(box.left(), line));
    const QPointF earth(box.right() + 14, line);
    p.drawLine(QPointF(box.right(), line), earth);
    for (int i = 0; i < 3; ++i)
      p.drawLine(earth + QPointF(2.5 * i, -5 + 1.7 * i), earth + QPointF(2.5 * i, 5 - 1.7 * i));
    QColor colour = r.sort == Rung::Load::lamp   ? lamp_colour(r.colour)
                    : r.sort == Rung::Load::horn ? t.fails
                                                 : flows;
    p.setPen(QPen(on ? colour : t.grey, 1.6));
    p.setBrush(on ? colour : t.paper);
    if (r.sort == Rung::Load::lamp)
      p.drawEllipse(box);
    else if (r.sort == Rung::Load::horn)
      p.drawPolygon(QPolygonF{box.topLeft() + QPointF(0, 4), box.topRight(), box.bottomRight(),
                              box.bottomLeft() + QPointF(0, -4)});
    else
      p.drawRect(box);
    small_text(s, {earth.x() + 12, line - 8, left + column - earth.x() - 26, 16}, plain(r.load),
               on ? t.ink : t.grey, Qt::AlignLeft | Qt::AlignVCenter, step < 17 ? 7 : 8, on);
    y += step * deep;
  }
  supply(left, start, y);
}

// --- faults ---

void FaultsPane::draw(Sheet& s) {
  start(s);
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  small_text(s, {area_.left(), area_.top(), area_.width(), 16},
             QObject::tr("Every single fault: click a triangle to see the shortest way there"), t.grey,
             Qt::AlignLeft, 9, true);
  if (!bench_.proof()) {
    small_text(s, area_, document_.proving() ? QObject::tr("being proved …") : QString(), t.grey,
               Qt::AlignCenter, 9);
    return;
  }
  const logic::Proof& proof = *bench_.proof();
  // What fails stands first; what holds everywhere is counted, not listed, where there is no room for it.
  std::vector<const logic::Exploration*> list;
  for (const auto& r : proof.runs) list.push_back(&r);
  const auto bad = [](const logic::Exploration* r) {
    return std::count_if(r->outcomes.begin(), r->outcomes.end(), [](const auto& o) { return o.violated; });
  };
  std::stable_sort(list.begin(), list.end(), [&](const auto* a, const auto* b) {
    return std::make_pair(a->fault.empty() ? 1 : 0, bad(a)) >
           std::make_pair(b->fault.empty() ? 1 : 0, bad(b));
  });
  const double head = 40;
  const double top = area_.top() + 20 + head;
  const double row = std::clamp((area_.bottom() - top) / static_cast<double>(list.size()), 12.5, 20.0);
  const double columns = static_cast<double>(proof.wiring->rules.size());
  const double label = std::min(300.0, area_.width() * 0.42);
  const double width = (area_.width() - label) / columns;
  for (size_t c = 0; c < proof.wiring->rules.size(); ++c) {
    const QRectF at(area_.left() + label + width * static_cast<double>(c), top - head, width - 4, head - 4);
    p.setFont(text_font(8));
    p.setPen(t.ink);
    p.drawText(at, Qt::AlignHCenter | Qt::AlignBottom | Qt::TextWordWrap, rule_word(proof.wiring->rules[c]));
  }
  const size_t fits = static_cast<size_t>((area_.bottom() - top) / row);
  for (size_t i = 0; i < list.size(); ++i) {
    const double y = top + row * static_cast<double>(i);
    if (i + 1 >= fits && list.size() > fits) {
      small_text(s, {area_.left(), y, area_.width(), row},
                 QObject::tr("and %1 more, %2 of them without a mark")
                     .arg(list.size() - i)
                     .arg(std::count_if(list.begin() + static_cast<long>(i), list.end(),
                                        [&](const auto* r) { return bad(r) == 0; })),
                 t.grey, Qt::AlignLeft | Qt::AlignVCenter, 8);
      break;
    }
    const auto& run = *list[i];
    if (i % 2 == 1) p.fillRect(QRectF(area_.left(), y, area_.width(), row), t.desk);
    small_text(s, {area_.left() + 2, y, label - 6, row},
               run.fault.empty() ? QObject::tr("nothing broken") : plain(run.fault),
               bad(&run) ? t.ink : t.grey, Qt::AlignLeft | Qt::AlignVCenter, 8, run.fault.empty());
    for (size_t c = 0; c < run.outcomes.size(); ++c) {
      const QRectF at(area_.left() + label + width * static_cast<double>(c), y, width, row);
      const auto& o = run.outcomes[c];
      draw_verdict_mark(p, at.center(), std::min(10.0, row - 3),
                        o.violated ? Verdict::fails : Verdict::holds);
      if (o.violated)
        spot(QStringLiteral("fault:%1:%2").arg(plain(run.fault)).arg(c), at,
             [this, way = o.run] { bench_.trial.replay(way); });
    }
  }
}

// --- states ---

void StatesPane::draw(Sheet& s) {
  start(s);
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  small_text(s, {area_.left(), area_.top(), area_.width(), 16},
             QObject::tr("States: in the air, throttle back, breaker in; a bar where current flows"), t.grey,
             Qt::AlignLeft, 9, true);
  if (!bench_.wiring()) return;
  const auto& rungs = bench_.wiring()->rungs;
  const auto rows = logic::state_table(*bench_.wiring(), bench_.fitted());
  const double label = std::min(300.0, area_.width() * 0.4);
  const double width = (area_.width() - label - 44) / static_cast<double>(std::max<size_t>(rungs.size(), 1));
  const double head = 56;
  const double top = area_.top() + 20 + head;
  const double row = std::clamp((area_.bottom() - top) / static_cast<double>(rows.size()), 10.5, 18.0);
  const auto x_of = [&](size_t c) { return area_.left() + label + 44 + width * static_cast<double>(c); };
  for (size_t c = 0; c < rungs.size(); ++c) {
    p.setFont(text_font(7.5));
    p.setPen(t.ink);
    p.drawText(QRectF(x_of(c), top - head, width - 2, head - 4),
               Qt::AlignHCenter | Qt::AlignBottom | Qt::TextWordWrap, plain(rungs[c].load));
  }
  small_text(s, {area_.left() + label, top - 16, 42, 14}, QObject::tr("selector"), t.grey, Qt::AlignLeft,
             7.5);
  for (size_t i = 0; i < rows.size(); ++i) {
    const double y = top + row * static_cast<double>(i);
    if (y + row > area_.bottom()) break;
    if (i / 2 % 2 == 1) p.fillRect(QRectF(area_.left(), y, area_.width(), row), t.desk);
    if (i % 2 == 0)
      small_text(s, {area_.left() + 2, y, label - 6, row}, plain(rows[i].situation),
                 rows[i].broken ? t.fails : t.ink, Qt::AlignLeft | Qt::AlignVCenter, 8);
    small_text(s, {area_.left() + label, y, 40, row}, plain(rows[i].selector), t.grey,
               Qt::AlignLeft | Qt::AlignVCenter, 8);
    for (size_t c = 0; c < rungs.size(); ++c) {
      if (!rows[i].lit[c]) continue;
      const QColor colour = rungs[c].sort == Rung::Load::lamp   ? lamp_colour(rungs[c].colour)
                            : rungs[c].sort == Rung::Load::horn ? t.fails
                                                                : t.accent;
      p.fillRect(QRectF(x_of(c) + 2, y + 2, width - 6, row - 4), colour);
    }
  }
}

// --- aircraft ---

Pose BenchAircraftPane::pose() const {
  Pose pose = pose_of(document_.design(), document_.loading(), GearState::extended, 0);
  const auto& legs = bench_.fitted().legs;
  if (!bench_.wiring()) return pose;
  pose.own_positions.assign(pose.placed.size(), 0);
  for (size_t i = 0; i < pose.placed.size(); ++i) {
    const Leg& leg = document_.design().gear.legs[pose.placed[i].row];
    const std::string side = pose.placed[i].port ? "/port" : "/starboard";
    for (const auto& w : legs) {
      if (w.key != leg.id && w.key != leg.id + side) continue;
      pose.own_positions[i] = logic::leg_place(bench_.trial.value(logic::leg_variable(w)));
      for (const auto& door : document_.design().doors)
        if (door.leg == leg.id && w.door && door.open_angle.known()) {
          auto& both = pose.own_openings[door.id];
          const double open =
              logic::door_place(bench_.trial.value(logic::door_variable(w))) * door.open_angle;
          if (w.key == leg.id)
            both = {open, open};
          else
            both[pose.placed[i].port ? 1 : 0] = open;
        }
    }
  }
  return pose;
}

QRectF BenchAircraftPane::bounds() const {
  const Pose p = pose();
  return side_ ? side_bounds(p) : front_bounds(p);
}

void BenchAircraftPane::draw(Sheet& s) {
  const Pose p = pose();
  if (bench_.trial.value("aircraft") != "in the air") s.ground(0);
  if (side_)
    draw_side(s, p);
  else
    draw_front(s, p);
  draw_doors(s, p, [&](const Vec3& v) { return side_ ? p.side(v) : p.front(v); });
  s.title(name());
}

}  // namespace kranich::app
