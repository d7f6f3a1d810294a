// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/board.h"

#include <QAccessible>
#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "app/document/when_seen.h"

namespace kranich::app {

Board::Board(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setAccessibleName(tr("Drawing board"));
  refresh_when_seen(
      this, &document_,
      [this] {
        if (!dragging_) lay_out();
        update();
      },
      &Document::changed, &Document::view_changed);
}

Pane* Board::add(std::unique_ptr<Pane> pane, const QRectF& share) {
  slots_.push_back({std::move(pane), share, {}});
  return slots_.back().pane.get();
}

void Board::set_share(Pane* pane, const QRectF& share) {
  for (auto& s : slots_)
    if (s.pane.get() == pane) s.share = share;
  lay_out();
  update();
}

void Board::lay_out() {
  for (auto& s : slots_) {
    const QRectF area(s.share.x() * width(), s.share.y() * height(), s.share.width() * width(),
                      s.share.height() * height());
    const QRectF inner = area.marginsRemoved(s.pane->margins());
    const QRectF world = s.pane->to_scale() ? s.pane->bounds() : QRectF(0, 0, inner.width(), inner.height());
    Frame fitted(inner, world);
    s.frame = fitted;
  }
}

namespace {
//! The denominator of the next scale that drawings are made at: 1, 1.25, 1.5, 2 … 8 and their tenfolds.
double named_denominator(double least) {
  double tens = std::pow(10, std::floor(std::log10(least) - 1e-9));
  for (const double step : {1.0, 1.25, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0, 7.5, 8.0, 10.0})
    if (step * tens >= least * (1 - 1e-9)) return step * tens;
  return least;
}
}  // namespace

void Board::print(QPainter& p, const QSizeF& size, double mm_per_px) {
  for (auto& s : slots_) {
    const QRectF area(s.share.x() * size.width(), s.share.y() * size.height(), s.share.width() * size.width(),
                      s.share.height() * size.height());
    QRectF inner = area.marginsRemoved(s.pane->margins());
    if (area.isEmpty() || inner.isEmpty()) continue;
    const bool to_scale = s.pane->to_scale();
    const QRectF world = to_scale ? s.pane->bounds() : QRectF(0, 0, inner.width(), inner.height());
    Frame frame(inner, world);
    if (!frame.valid()) continue;
    QString scale;
    if (to_scale) {
      const double paper = frame.scale() * mm_per_px / 1000;  // metres on paper for one
      const double part = named_denominator(1 / paper);
      // As much more of the world as makes it that scale.
      const QSizeF seen = inner.size() * (part * mm_per_px / 1000);
      frame = Frame(inner, QRectF(world.center() - QPointF(seen.width(), seen.height()) / 2, seen));
      scale = part < 1 ? tr("%1 : 1").arg(1 / part, 0, 'g', 4) : tr("1 : %1").arg(part, 0, 'g', 6);
    }
    p.save();
    p.setClipRect(area);
    Sheet sheet(p, frame);
    s.pane->draw(sheet);
    if (!scale.isEmpty()) {
      p.setFont(text_font(7.5));
      p.setPen(Theme::now().grey);
      p.drawText(area.adjusted(6, 0, -6, -4), Qt::AlignRight | Qt::AlignBottom, scale);
    }
    p.restore();
  }
}

void Board::resizeEvent(QResizeEvent*) { lay_out(); }

void Board::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Theme& t = Theme::now();
  p.fillRect(rect(), t.paper);
  if (std::none_of(slots_.begin(), slots_.end(), [](const Slot& s) { return s.frame.valid(); })) {
    p.setFont(text_font(10));
    p.setPen(t.grey);
    p.drawText(rect(), Qt::AlignCenter,
               tr("Nothing to draw yet.\nEnter the aircraft's few dimensions: Project, Aircraft and project "
                  "(Ctrl+E)."));
    return;
  }
  for (auto& s : slots_) {
    if (!s.frame.valid()) continue;
    const QRectF area(s.share.x() * width(), s.share.y() * height(), s.share.width() * width(),
                      s.share.height() * height());
    p.save();
    p.setClipRect(area);
    Sheet sheet(p, s.frame);
    s.pane->draw(sheet);
    for (const auto& h : s.pane->handles()) {
      const bool hot = h.id == focus_id_ || h.id == hover_id_ || (dragging_ && dragging_->handle.id == h.id);
      if (!h.quiet || hot) sheet.handle(h.at, h.radius, hot);
    }
    p.restore();
  }
}

std::vector<Board::Grip> Board::grips() const {
  std::vector<Grip> list;
  for (size_t i = 0; i < slots_.size(); ++i)
    for (auto& h : slots_[i].pane->handles()) list.push_back({i, std::move(h)});
  return list;
}

std::optional<Board::Grip> Board::grip_at(const QPointF& device) const {
  std::optional<Grip> best;
  double least = 1e9;
  for (auto& g : grips()) {
    const QPointF at = slots_[g.slot].frame.to_device(g.handle.at);
    const double distance = std::hypot(at.x() - device.x(), at.y() - device.y());
    if (distance <= g.handle.radius + 4 && distance < least) {
      least = distance;
      best = g;
    }
  }
  return best;
}

std::optional<QPointF> Board::handle_position(const QString& id) const {
  for (const auto& g : grips())
    if (g.handle.id == id) return slots_[g.slot].frame.to_device(g.handle.at);
  return std::nullopt;
}

void Board::mousePressEvent(QMouseEvent* e) {
  if (e->button() != Qt::LeftButton) return;
  press_ = e->position();
  moved_ = false;
  dragging_ = grip_at(press_);
  if (dragging_) {
    focus_id_ = dragging_->handle.id;
    document_.begin_drag(tr("Move %1").arg(dragging_->handle.name));
  } else {
    for (const auto& s : slots_)
      if (s.frame.device().marginsAdded(s.pane->margins()).contains(press_) &&
          s.pane->clicked(s.frame.to_world(press_))) {
        lay_out();
        break;
      }
  }
  announce();
  update();
}

void Board::mouseMoveEvent(QMouseEvent* e) {
  if (!dragging_) {
    for (auto& s : slots_) {
      const bool over = s.frame.valid() && s.frame.device().contains(e->position());
      if (s.pane->pointer(over ? std::optional(s.frame.to_world(e->position())) : std::nullopt)) update();
    }
    const auto g = grip_at(e->position());
    const QString id = g ? g->handle.id : QString();
    if (id != hover_id_) {
      hover_id_ = id;
      setCursor(g ? Qt::SizeAllCursor : Qt::ArrowCursor);
      setToolTip(g ? tr("%1 – drag, or press Tab and the arrow keys").arg(g->handle.name) : QString());
      update();
    }
    return;
  }
  const QPointF moved = e->position() - press_;
  if (!moved_ && std::hypot(moved.x(), moved.y()) < 2) return;
  moved_ = true;
  const double scale = slots_[dragging_->slot].frame.scale();
  // To the nearest tenth of a millimetre: what is on the screen is what a builder would say.
  const double tenth = 1e-4 * dragging_->handle.per_metre;
  const auto snapped = [&](double v) { return std::round(v / tenth) * tenth; };
  document_.drag(
      [&](Design& d) { dragging_->handle.move(d, snapped(moved.x() / scale), snapped(-moved.y() / scale)); });
}

void Board::mouseReleaseEvent(QMouseEvent*) {
  if (!dragging_) return;
  dragging_.reset();
  document_.end_drag();
  lay_out();
  update();
}

void Board::keyPressEvent(QKeyEvent* e) {
  if (e->key() == Qt::Key_Escape && dragging_) {
    dragging_.reset();
    document_.cancel_drag();
    return;
  }
  for (const auto& g : grips())
    if (g.handle.id == focus_id_)
      for (const auto& act : g.handle.acts)
        if (act.key == e->key() && e->modifiers() == Qt::NoModifier) {
          document_.edit(act.name, act.change);
          lay_out();
          return;
        }
  double dx = 0;
  double dy = 0;
  switch (e->key()) {
    case Qt::Key_Left:
      dx = -1;
      break;
    case Qt::Key_Right:
      dx = 1;
      break;
    case Qt::Key_Up:
      dy = 1;
      break;
    case Qt::Key_Down:
      dy = -1;
      break;
    default:
      QWidget::keyPressEvent(e);
      return;
  }
  const double step = e->modifiers() & Qt::ShiftModifier ? 0.010
                      : e->modifiers() & Qt::AltModifier ? 0.0001
                                                         : 0.001;
  for (const auto& g : grips())
    if (g.handle.id == focus_id_) {
      document_.edit(tr("Move %1").arg(g.handle.name), [&](Design& d) {
        g.handle.move(d, dx * step * g.handle.per_metre, dy * step * g.handle.per_metre);
      });
      return;
    }
  QWidget::keyPressEvent(e);
}

bool Board::focusNextPrevChild(bool next) {
  const auto list = grips();
  int at = -1;
  for (size_t i = 0; i < list.size(); ++i)
    if (list[i].handle.id == focus_id_) at = static_cast<int>(i);
  const int to = next ? at + 1 : (at < 0 ? static_cast<int>(list.size()) : at) - 1;
  if (to < 0 || to >= static_cast<int>(list.size())) {
    focus_id_.clear();
    update();
    return QWidget::focusNextPrevChild(next);
  }
  focus_id_ = list[static_cast<size_t>(to)].handle.id;
  announce();
  update();
  return true;
}

void Board::announce() {
  for (const auto& g : grips())
    if (g.handle.id == focus_id_) {
      QString text = tr("%1: arrow keys move it by 1 mm, Shift 10 mm, Alt 0.1 mm").arg(g.handle.name);
      for (const auto& act : g.handle.acts)
        text += QStringLiteral("; %1: %2").arg(QKeySequence(act.key).toString(), act.name);
      setAccessibleDescription(text);
      emit hint(text);
      return;
    }
}

void Board::focusOutEvent(QFocusEvent*) { update(); }

void Board::wheelEvent(QWheelEvent* e) {
  for (const auto& s : slots_)
    if (s.frame.valid() && s.frame.device().marginsAdded(s.pane->margins()).contains(e->position()) &&
        s.pane->wheeled(s.frame.to_world(e->position()), e->angleDelta().y() / 120.0)) {
      lay_out();
      update();
      e->accept();
      return;
    }
  QWidget::wheelEvent(e);
}

void Board::contextMenuEvent(QContextMenuEvent* e) {
  const auto grip = grip_at(e->pos());
  if (!grip || grip->handle.acts.empty()) return QWidget::contextMenuEvent(e);
  focus_id_ = grip->handle.id;
  auto* menu = new QMenu(this);
  menu->setAttribute(Qt::WA_DeleteOnClose);
  for (const auto& act : grip->handle.acts) {
    auto* item = menu->addAction(QStringLiteral("%1\t%2").arg(act.name, QKeySequence(act.key).toString()));
    connect(item, &QAction::triggered, this, [this, act] {
      document_.edit(act.name, act.change);
      lay_out();
    });
  }
  menu->popup(e->globalPos());
}

void Board::leaveEvent(QEvent*) {
  hover_id_.clear();
  for (auto& s : slots_) s.pane->pointer(std::nullopt);
  update();
}

// --- what can be clicked ---

void SpotPane::start(Sheet& sheet) {
  area_ = sheet.frame().device();
  spots_.clear();
}

void SpotPane::spot(const QString& id, const QRectF& at, std::function<void()> act) {
  spots_.push_back({id, at, std::move(act)});
}

std::optional<QPointF> SpotPane::spot(const QString& id) const {
  for (const Spot& s : spots_)
    if (s.id == id) return s.at.center();
  return std::nullopt;
}

bool SpotPane::clicked(const QPointF& world) {
  // A diagram's world is its device rectangle, y up from its lower edge.
  const QPointF at(world.x() + area_.left(), area_.bottom() - world.y());
  for (const Spot& s : spots_)
    if (s.at.contains(at)) {
      const auto act = s.act;  // drawing anew makes new ones
      act();
      changed_();
      return true;
    }
  return false;
}

}  // namespace kranich::app
