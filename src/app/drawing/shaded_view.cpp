// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/shaded_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <tuple>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/widgets/findings.h"

namespace kranich::app {
namespace {

QColor mixed(const QColor& a, const QColor& b, double share) {
  const auto part = [&](int x, int y) { return static_cast<int>(x + (y - x) * share); };
  return QColor(part(a.red(), b.red()), part(a.green(), b.green()), part(a.blue(), b.blue()));
}

}  // namespace

ShadedView::ShadedView(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName("shaded-view");
  setAccessibleName(tr("Gear in space"));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(320, 240);
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::changed, &Document::view_changed);
  refresh();
}

void ShadedView::refresh() {
  scene_ = scene_of(document_.design(), document_.assessment(), document_.gear_position());
  stale_ = true;
  update();
  emit scene_changed();
}

std::pair<double, double> ShadedView::extent(int axis, bool gear_only) const {
  double low = std::numeric_limits<double>::infinity(), high = -low;
  for (const auto& part : scene_.parts)
    for (const auto& p : part.mesh.points) {
      if (gear_only && part.kind == SceneKind::keep_out) break;
      low = std::min(low, p[axis]);
      high = std::max(high, p[axis]);
    }
  return {low, high};
}

void ShadedView::fit() {
  if (scene_.parts.empty() || width() < 2 || height() < 2) return;
  Eigen::Vector3d low, high;
  for (int axis = 0; axis < 3; ++axis) {
    auto [from, to] = extent(axis, true);
    if (!(to >= from)) std::tie(from, to) = extent(axis);
    low[axis] = from;
    high[axis] = to;
  }
  camera_.middle = (low + high) / 2;
  // The corners of the box that holds it, as they are seen.
  const Eigen::Matrix3d axes = camera_.axes();
  double across = 0, up = 0;
  for (int i = 0; i < 8; ++i) {
    const Eigen::Vector3d corner((i & 1 ? high : low).x(), (i & 2 ? high : low).y(),
                                 (i & 4 ? high : low).z());
    const Eigen::Vector3d v = axes * (corner - camera_.middle);
    across = std::max(across, std::abs(v.x()));
    up = std::max(up, std::abs(v.y()));
  }
  camera_.scale = 0.9 * std::min(width() / (2 * std::max(across, 1e-3)), height() / (2 * std::max(up, 1e-3)));
  fitted_ = true;
  stale_ = true;
  update();
}

void ShadedView::look(double turn, double down) {
  camera_.turn = turn;
  camera_.down = down;
  fit();
}

void ShadedView::cut(const std::optional<SectionPlane>& plane) {
  plane_ = plane;
  stale_ = true;
  update();
}

void ShadedView::show_outline(bool shown) {
  outline_ = shown;
  stale_ = true;
  update();
}

QColor ShadedView::tone(const ScenePart& part) const {
  const Theme& t = Theme::now();
  QColor own = t.grey;
  switch (part.kind) {
    case SceneKind::wheel:
      own = mixed(t.tyre, QColor(t.dark ? Qt::black : Qt::white), t.dark ? 0.5 : 0.25);
      break;
    case SceneKind::leg:
      own = mixed(t.body, t.accent, 0.25);
      break;
    case SceneKind::unit:
      own = t.accent;
      break;
    case SceneKind::door:
      own = t.glass;
      break;
    case SceneKind::keep_out:
      own = t.grey;
      break;
  }
  if (!part.near) return own;
  return part.near->too_near() ? mixed(own, t.fails, 0.85) : mixed(own, t.tight, 0.8 * part.near->share());
}

void ShadedView::render() {
  const double fine = devicePixelRatioF();
  const QSize size = (QSizeF(this->size()) * fine).toSize();
  if (size.isEmpty()) return;
  const Theme& t = Theme::now();
  Camera camera = camera_;
  camera.scale *= fine;
  raster_.emplace(size, t.paper);
  for (size_t i = 0; i < scene_.parts.size(); ++i) {
    const ScenePart& part = scene_.parts[i];
    raster_->solid(part.mesh, camera, tone(part), static_cast<int>(i), part.kind == SceneKind::keep_out,
                   plane_);
  }
  for (const auto& l : scene_.lines)
    if (l.well || outline_) raster_->line(l.from, l.to, camera, l.well ? t.accent : t.line, plane_);
  stale_ = false;
}

const ScenePart* ShadedView::part_at(const QPoint& place) const {
  if (!raster_) return nullptr;
  const QPoint pixel = (QPointF(place) * devicePixelRatioF()).toPoint();
  // What is seen through covers every other pixel: the neighbour then.
  for (const QPoint& by : {QPoint(0, 0), QPoint(1, 0), QPoint(0, 1)})
    if (const int n = raster_->at(pixel + by); n >= 0) return &scene_.parts[static_cast<size_t>(n)];
  return nullptr;
}

QString ShadedView::words_of(const ScenePart& part) const {
  const QString name = text_of(part.name, document_.units());
  if (!part.near) return name;
  const QString to = text_of(part.near->to, document_.units());
  const double d = part.near->distance;
  return d < 0 ? tr("%1: %2 deep in %3").arg(name, document_.say(-d, Kind::length), to)
               : tr("%1: %2 to %3, wants %4")
                     .arg(name, document_.say(d, Kind::length), to,
                          document_.say(part.near->wanted, Kind::length));
}

void ShadedView::paintEvent(QPaintEvent*) {
  if (!fitted_) fit();
  if (stale_ || !raster_) render();
  QPainter p(this);
  if (raster_) {
    QImage picture = raster_->picture();
    picture.setDevicePixelRatio(devicePixelRatioF());
    p.drawImage(0, 0, picture);
  }
  const Theme& t = Theme::now();
  p.setRenderHint(QPainter::Antialiasing);
  // Which way is which.
  const Eigen::Matrix3d axes = camera_.axes();
  const QPointF foot(46, height() - 46);
  QColor ground = t.paper;
  ground.setAlpha(200);
  p.setPen(Qt::NoPen);
  p.setBrush(ground);
  p.drawEllipse(foot, 42, 42);
  p.setFont(text_font(8));
  for (const auto& [way, word] : {std::pair{Eigen::Vector3d(-1, 0, 0), tr("nose")},
                                  std::pair{Eigen::Vector3d(0, 1, 0), tr("starboard")},
                                  std::pair{Eigen::Vector3d(0, 0, 1), tr("up")}}) {
    const Eigen::Vector3d v = axes * way;
    const QPointF tip = foot + 26 * QPointF(v.x(), -v.y());
    p.setPen(QPen(t.grey, 1.4));
    p.drawLine(foot, tip);
    p.drawText(QRectF(tip.x() - 30 + 14 * v.x(), tip.y() - 8 - 9 * v.y(), 60, 16), Qt::AlignCenter, word);
  }
  if (scene_.parts.empty()) {
    p.setPen(t.grey);
    p.drawText(rect(), Qt::AlignCenter, tr("nothing of the gear is known well enough to stand in space"));
    return;
  }
  if (!pointer_) return;
  const ScenePart* part = part_at(*pointer_);
  if (!part) return;
  const QString words = words_of(*part);
  p.setFont(text_font(9, true));
  const QFontMetricsF metrics(p.font());
  QRectF box(QPointF(*pointer_) + QPointF(14, -30), QSizeF(metrics.horizontalAdvance(words) + 14, 22));
  box.moveLeft(std::clamp(box.left(), 4.0, std::max(4.0, width() - box.width() - 4)));
  box.moveTop(std::max(4.0, box.top()));
  p.setPen(QPen(t.line, 1));
  p.setBrush(t.card);
  p.drawRoundedRect(box, 4, 4);
  p.setPen(t.ink);
  p.drawText(box, Qt::AlignCenter, words);
}

void ShadedView::resizeEvent(QResizeEvent*) { stale_ = true; }

void ShadedView::mousePressEvent(QMouseEvent* e) {
  from_ = e->pos();
  setFocus();
}

void ShadedView::mouseMoveEvent(QMouseEvent* e) {
  const QPoint by = e->pos() - from_;
  pointer_ = e->pos();
  if (e->buttons() & Qt::LeftButton) {
    camera_.turn -= 0.008 * by.x();
    camera_.down = std::clamp(camera_.down + 0.008 * by.y(), -M_PI / 2, M_PI / 2);
    stale_ = true;
  } else if (e->buttons() & (Qt::RightButton | Qt::MiddleButton)) {
    const Eigen::Matrix3d axes = camera_.axes();
    camera_.middle -= (by.x() * axes.row(0) - by.y() * axes.row(1)).transpose() / camera_.scale;
    stale_ = true;
  }
  from_ = e->pos();
  update();
}

void ShadedView::leaveEvent(QEvent*) {
  pointer_.reset();
  update();
}

void ShadedView::enlarge(double factor) {
  camera_.scale = std::clamp(camera_.scale * factor, 5.0, 50000.0);
  stale_ = true;
  update();
}

void ShadedView::wheelEvent(QWheelEvent* e) { enlarge(std::pow(1.0015, e->angleDelta().y())); }

void ShadedView::keyPressEvent(QKeyEvent* e) {
  const double step = M_PI / 36;
  switch (e->key()) {
    case Qt::Key_Left:
      camera_.turn += step;
      break;
    case Qt::Key_Right:
      camera_.turn -= step;
      break;
    case Qt::Key_Up:
      camera_.down = std::min(M_PI / 2, camera_.down + step);
      break;
    case Qt::Key_Down:
      camera_.down = std::max(-M_PI / 2, camera_.down - step);
      break;
    case Qt::Key_Plus:
      enlarge(1.15);
      break;
    case Qt::Key_Minus:
      enlarge(1 / 1.15);
      break;
    case Qt::Key_Home:
      fit();
      break;
    case Qt::Key_BracketLeft:
      document_.set_gear_position(std::max(0.0, document_.gear_position() - 0.02));
      break;
    case Qt::Key_BracketRight:
      document_.set_gear_position(std::min(1.0, document_.gear_position() + 0.02));
      break;
    default:
      QWidget::keyPressEvent(e);
      return;
  }
  stale_ = true;
  update();
}

}  // namespace kranich::app
