// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/map_pane.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "app/drawing/diagram.h"
#include "app/widgets/findings.h"

namespace kranich::app {
namespace {

//! What a limit is called beside its curve, where there is little room.
QString short_name(std::string_view id) {
  static const std::map<std::string_view, QString> names{
      {"place.tip_back", QObject::tr("tip-back")},
      {"place.tail_strike_static", QObject::tr("tail strike")},
      {"place.rotation", QObject::tr("rotation")},
      {"place.nose_share", QObject::tr("nose share")},
      {"place.front_share", QObject::tr("front share")},
      {"place.turnover", QObject::tr("turnover")},
      {"place.axle_ahead", QObject::tr("axle ahead")},
      {"place.three_point", QObject::tr("three-point")},
      {"place.nose_over_three_point", QObject::tr("nose-over")},
      {"place.tail_share", QObject::tr("tail share")},
      {"place.side_tip", QObject::tr("side tip")},
      {"place.tipping", QObject::tr("tips")},
      {"place.crosswind", QObject::tr("side wind")},
      {"place.propeller_static", QObject::tr("propeller")}};
  const auto at = names.find(id);
  return at == names.end() ? text_of(measure(id).title) : at->second;
}

//! A round step for about `wanted` ticks over a range (display units).
double round_step(double range, int wanted) {
  const double raw = range / wanted;
  const double power = std::pow(10, std::floor(std::log10(raw)));
  for (const double m : {1.0, 2.0, 5.0, 10.0})
    if (m * power >= raw) return m * power;
  return 10 * power;
}

}  // namespace

void MapPane::refresh() const {
  if (seen_ == document_.revision() && seen_up_ == up_) return;
  const bool dragging = document_.before_drag() != nullptr && model_ && model_->ok() && seen_up_ == up_;
  seen_ = document_.revision();
  seen_up_ = up_;
  model_.emplace(document_.design(), document_.assessment(), document_.loading_name().toStdString(), up_);
  if (!model_->ok()) return;
  map_ = model_->map(dragging ? map_.area : model_->usual_area());
}

QPointF MapPane::to_world(const Eigen::Vector2d& p) const {
  const MapArea& a = map_.area;
  return {(p.x() - a.x_low) / (a.x_high - a.x_low) * size_.width(),
          (p.y() - a.y_low) / (a.y_high - a.y_low) * size_.height()};
}

Eigen::Vector2d MapPane::to_map(const QPointF& p) const {
  const MapArea& a = map_.area;
  return {a.x_low + p.x() / size_.width() * (a.x_high - a.x_low),
          a.y_low + p.y() / size_.height() * (a.y_high - a.y_low)};
}

void MapPane::set_up(MapUp up) { up_ = up; }

void MapPane::draw_clear(Sheet& s) const {
  const Theme& t = Theme::now();
  const auto mixed = [&](const QColor& c, double share) {
    const auto part = [&](int own, int ground) {
      return static_cast<int>(own * share + ground * (1 - share));
    };
    return QColor(part(c.red(), t.paper.red()), part(c.green(), t.paper.green()),
                  part(c.blue(), t.paper.blue()));
  };
  QPainter& p = s.painter();
  p.fillRect(s.frame().device(), mixed(t.fails, t.dark ? 0.10 : 0.05));
  const auto fill = [&](const std::vector<MapPolygon>& pieces, const QColor& colour) {
    std::vector<QPolygonF> list;
    for (const auto& piece : pieces)
      for (list.emplace_back(); const auto& point : piece)
        list.back() << s.frame().to_device(to_world(point));
    fill_pieces(p, list, colour);
  };
  fill(map_.clear, mixed(t.tight, t.dark ? 0.30 : 0.22));
  fill(map_.easy, mixed(t.holds, t.dark ? 0.42 : 0.30));
}

//! The clear region by its name, and how far it is from the design.
void MapPane::draw_nearest(Sheet& s) const {
  const QRectF box = s.frame().device();
  const QPointF here = s.frame().to_device(to_world(map_.here));
  if (map_.clear.empty()) {
    s.label(s.frame().to_world(QPointF(box.center().x(), box.top() + 16)),
            QObject::tr("no place here meets every limit"), Ink::fails, Qt::AlignHCenter | Qt::AlignVCenter,
            {}, 8, true);
    return;
  }
  if (map_.nearest) {
    const QPointF to = s.frame().to_device(to_world(*map_.nearest));
    s.pen(Ink::holds, 1.6, Qt::DashLine);
    s.no_fill();
    s.painter().drawLine(here, to);
    s.pen(Ink::holds, 2);
    s.painter().drawEllipse(to, 5, 5);
    const double dx = map_.nearest->x() - map_.here.x(), dy = map_.nearest->y() - map_.here.y();
    QStringList parts;
    if (std::abs(dx) > 5e-4)
      parts << QObject::tr("%1 %2").arg(document_.say(std::abs(dx), Kind::length),
                                        dx < 0 ? QObject::tr("forward") : QObject::tr("aft"));
    if (std::abs(dy) > 5e-4)
      parts << QObject::tr("%1 %2").arg(document_.say(std::abs(dy), Kind::length),
                                        up_ == MapUp::track
                                            ? (dy < 0 ? QObject::tr("narrower") : QObject::tr("wider"))
                                            : (dy < 0 ? QObject::tr("lower") : QObject::tr("higher")));
    // Beside both marks where there is room, else above them.
    const QString words = QObject::tr("clear from here: %1").arg(parts.join(", "));
    const double width = QFontMetricsF(text_font(8, true)).horizontalAdvance(words);
    const double left = std::min(to.x(), here.x()) - 16, right = std::max(to.x(), here.x()) + 16;
    QPointF at((to.x() + here.x()) / 2, std::min(to.y(), here.y()) - 20);
    at.setX(std::clamp(at.x(), box.left() + width / 2 + 4,
                       std::max(box.left() + width / 2 + 4, box.right() - width / 2 - 4)));
    if (left - width > box.left() + 4)
      at = {left - width / 2, to.y()};
    else if (right + width < box.right() - 4)
      at = {right + width / 2, to.y()};
    s.label(s.frame().to_world(at), words, Ink::holds, Qt::AlignHCenter | Qt::AlignVCenter, {}, 8, true);
    return;
  }
  // In the clear: its name stands in the largest piece.
  QPointF middle;
  double widest = 0;
  for (const auto* pieces : {&map_.easy, &map_.clear}) {
    for (const auto& piece : *pieces) {
      QPolygonF polygon;
      for (const auto& point : piece) polygon << s.frame().to_device(to_world(point));
      if (polygon.boundingRect().width() <= widest) continue;
      widest = polygon.boundingRect().width();
      middle = polygon.boundingRect().center();
    }
    if (widest > 0) break;
  }
  if (widest > 46 && QLineF(middle, here).length() > 22)
    s.label(s.frame().to_world(middle), QObject::tr("clear"), Ink::holds, Qt::AlignHCenter | Qt::AlignVCenter,
            {}, 8.5, true);
}

void MapPane::draw_blocked(Sheet& s) const {
  const Theme& t = Theme::now();
  const QRectF box = s.frame().device();
  // Beyond the keep-out that stops the unit nothing can be reached, whatever the limits say.
  const auto bar = [&](double from, double to, Qt::BrushStyle style, const QString& name) {
    const double left = std::clamp(s.frame().to_device(to_world({from, 0})).x(), box.left(), box.right());
    const double right = std::clamp(s.frame().to_device(to_world({to, 0})).x(), box.left(), box.right());
    if (right - left < 1) return;
    s.no_pen();
    s.painter().setBrush(QBrush(t.grey, style));
    s.painter().drawRect(QRectF(left, box.top(), right - left, box.height()));
    if (name.isEmpty()) return;
    s.painter().setFont(text_font(7.5));
    s.painter().setPen(t.grey);
    s.painter().drawText(QRectF(left + 4, box.bottom() - 16, std::max(90.0, right - left), 14),
                         Qt::AlignLeft | Qt::AlignVCenter, name);
  };
  for (const auto& b : map_.blocked) bar(b.from, b.to, Qt::BDiagPattern, QString::fromStdString(b.name));
  const double far = 1e3;
  if (std::isfinite(map_.reach_low)) {
    double to = map_.reach_low;
    for (const auto& b : map_.blocked)
      if (std::abs(b.to - map_.reach_low) < 1e-6) to = b.from;
    bar(-far, to, Qt::Dense6Pattern, {});
  }
  if (std::isfinite(map_.reach_high)) {
    double from = map_.reach_high;
    for (const auto& b : map_.blocked)
      if (std::abs(b.from - map_.reach_high) < 1e-6) from = b.to;
    bar(from, far, Qt::Dense6Pattern, {});
  }
}

void MapPane::draw_boundaries(Sheet& s) const {
  const QRectF box = s.frame().device();
  std::vector<QRectF> taken;
  const QPointF here = s.frame().to_device(to_world(map_.here));
  taken.push_back(QRectF(here - QPointF(16, 16), QSizeF(32, 32)));
  const QFontMetricsF metrics(text_font(7.5), s.painter().device());
  for (const auto& b : map_.boundaries) {
    const Measure& m = measure(b.measure);
    const QString name = QStringLiteral("%1 %2%3").arg(short_name(b.measure), b.upper ? "≤ " : "≥ ",
                                                       document_.say(b.limit, m.kind));
    std::vector<QPointF> points;
    for (const auto& curve : b.curves) {
      QPolygonF line;
      for (const auto& p : curve) line << to_world(p);
      limit_line(s, line, b.out_of_reach);
      for (const auto& p : line) points.push_back(s.frame().to_device(p));
    }
    // The name stands beside the curve where it covers no other name.
    const double width = metrics.horizontalAdvance(name) + 4;
    const QSizeF size(width, 12);
    bool placed = false;
    for (const double share : {0.03, 0.97, 0.1, 0.9, 0.2, 0.8, 0.35, 0.65, 0.5}) {
      if (placed || points.empty()) break;
      const QPointF at = points[static_cast<size_t>(share * static_cast<double>(points.size() - 1))];
      for (const QPointF& corner :
           {QPointF(5, -6), QPointF(-width - 5, -6), QPointF(-width / 2, -16), QPointF(-width / 2, 4)}) {
        const QRectF spot(at + corner, size);
        if (!box.contains(spot) ||
            std::any_of(taken.begin(), taken.end(), [&](const QRectF& q) { return q.intersects(spot); }))
          continue;
        taken.push_back(spot);
        s.label(s.frame().to_world(spot.center()), name, b.out_of_reach ? Ink::grey : Ink::normal,
                Qt::AlignHCenter | Qt::AlignVCenter, {}, 7.5);
        placed = true;
        break;
      }
    }
  }
}

void MapPane::draw_axes(Sheet& s) const {
  const Theme& t = Theme::now();
  const QRectF box = s.frame().device();
  const Unit& unit = display_unit(Kind::length, document_.units());
  const MapArea& a = map_.area;
  s.no_fill();
  s.pen(t.line, 1);
  s.painter().drawRect(box);
  s.painter().setFont(figure_font(7.5));
  s.painter().setPen(t.grey);
  const auto ticks = [&](double low, double high, int wanted, auto&& draw) {
    const double step = round_step((high - low) / unit.to_si, wanted) * unit.to_si;
    for (double v = std::ceil(low / step) * step; v <= high; v += step) draw(v);
  };
  const auto number = [&](double v) { return document_.say_number(std::round(v * 1e6) / 1e6, Kind::length); };
  ticks(a.x_low, a.x_high, 5, [&](double v) {
    const double x = s.frame().to_device(to_world({v, a.y_low})).x();
    s.painter().drawLine(QPointF(x, box.bottom()), QPointF(x, box.bottom() + 4));
    s.painter().drawText(QRectF(x - 30, box.bottom() + 4, 60, 13), Qt::AlignCenter, number(v));
  });
  ticks(a.y_low, a.y_high, 5, [&](double v) {
    const double y = s.frame().to_device(to_world({a.x_low, v})).y();
    s.painter().drawLine(QPointF(box.left() - 4, y), QPointF(box.left(), y));
    s.painter().drawText(QRectF(box.left() - 50, y - 7, 44, 14), Qt::AlignRight | Qt::AlignVCenter,
                         number(v));
  });
  s.painter().setFont(text_font(8));
  s.painter().drawText(QRectF(box.left(), box.bottom() + 18, box.width(), 14), Qt::AlignCenter,
                       QObject::tr("main axle station, %1").arg(text_of(unit.symbol)));
}

void MapPane::draw_pointer(Sheet& s) {
  under_pointer_.clear();
  if (!pointer_ || !QRectF(QPointF(0, 0), size_).contains(*pointer_)) return;
  const Eigen::Vector2d at = to_map(*pointer_);
  QStringList fails;
  for (const auto& f : model_->at(at.x(), at.y())) {
    if (!f.fails) continue;
    const Measure& m = measure(f.measure);
    fails << QStringLiteral("%1 %2 (%3)")
                 .arg(text_of(m.title), document_.say(f.value, m.kind), QString::fromStdString(f.loading));
  }
  for (const auto& b : map_.blocked)
    if (at.x() > b.from && at.x() < b.to)
      fails << QObject::tr("the unit runs into the %1").arg(QString::fromStdString(b.name));
  const QString where =
      QStringLiteral("%1, %2").arg(document_.say(at.x(), Kind::length), document_.say(at.y(), Kind::length));
  under_pointer_ = fails.isEmpty() ? QObject::tr("%1: all of these hold here").arg(where)
                                   : QObject::tr("%1 fails: %2").arg(where, fails.join("; "));
  // A card at the corner away from the pointer.
  const QRectF box = s.frame().device();
  s.painter().setFont(text_font(8));
  const QRectF wanted = s.painter().fontMetrics().boundingRect(
      QRect(0, 0, static_cast<int>(std::min(250.0, box.width() - 20)), 200), Qt::TextWordWrap,
      under_pointer_);
  const bool right = pointer_->x() < size_.width() / 2;
  const QRectF card(right ? box.right() - wanted.width() - 18 : box.left() + 6, box.top() + 6,
                    wanted.width() + 12, wanted.height() + 8);
  s.pen(fails.isEmpty() ? Theme::now().holds : Theme::now().fails, 1.2);
  s.fill(Theme::now().card);
  s.painter().drawRoundedRect(card, 3, 3);
  s.painter().setPen(Theme::now().ink);
  s.painter().drawText(card.adjusted(6, 4, -6, -4), Qt::TextWordWrap, under_pointer_);
}

void MapPane::draw(Sheet& s) {
  size_ = s.frame().device().size();
  refresh();
  s.title(QObject::tr("Where the mains may stand"), up_ == MapUp::cg_height
                                                        ? QObject::tr("up: CG height – click: track")
                                                        : QObject::tr("up: track – click: CG height"));
  if (!model_ || !model_->ok()) {
    s.painter().setPen(Theme::now().grey);
    s.painter().drawText(s.frame().device(), Qt::AlignCenter | Qt::TextWordWrap,
                         QObject::tr("no loading that is flown stands on its wheels yet"));
    return;
  }
  s.painter().save();
  s.painter().setClipRect(s.frame().device());
  draw_clear(s);
  draw_blocked(s);
  draw_boundaries(s);
  draw_nearest(s);
  const auto mark = [&](const Design& d, const Assessment& a, Ink ink) {
    const MapModel other(d, a, document_.loading_name().toStdString(), up_);
    if (!other.ok()) return;
    s.pen(ink, 1.8, Qt::DashLine);
    s.no_fill();
    s.painter().drawEllipse(s.frame().to_device(to_world(other.here())), 7, 7);
  };
  if (document_.pinned()) mark(*document_.pinned(), *document_.pinned_assessment(), Ink::pinned);
  for (const auto& v : document_.laid_over()) mark(v.design, v.assessment, Ink::pinned);
  if (document_.before_drag()) mark(*document_.before_drag(), *document_.assessment_before_drag(), Ink::grey);
  s.pen(Ink::accent, 1);
  s.fill(Theme::now().accent);
  s.painter().drawEllipse(s.frame().to_device(to_world(map_.here)), 4.5, 4.5);
  draw_pointer(s);
  s.painter().restore();
  draw_axes(s);
}

std::vector<Handle> MapPane::handles() const {
  if (document_.gear_position() > 0) return {};
  refresh();
  if (!model_ || !model_->ok()) return {};
  const double per_x = (map_.area.x_high - map_.area.x_low) / size_.width();
  const double per_y = (map_.area.y_high - map_.area.y_low) / size_.height();
  Handle h{"map", QObject::tr("the design in the map"), to_world(map_.here), 11,
           [up = up_, per_x, per_y](Design& d, double dx, double dy) {
             move_on_map(d, up, dx * per_x, dy * per_y);
           }};
  h.per_metre = 1 / per_x;
  return {h};
}

bool MapPane::clicked(const QPointF& p) {
  if (p.y() < size_.height()) return false;  // below the heading
  up_ = up_ == MapUp::cg_height ? MapUp::track : MapUp::cg_height;
  return true;
}

bool MapPane::pointer(const std::optional<QPointF>& world) {
  const bool was = pointer_.has_value();
  pointer_ = world;
  return was || world.has_value();
}

}  // namespace kranich::app
