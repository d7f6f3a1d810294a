// SPDX-License-Identifier: GPL-3.0-or-later
//! The drawing board: panes with scale drawings and the handles in them. Drag a handle with the mouse, or go
//! to it with Tab and move it with the arrow keys (1 mm; Shift 10 mm; Alt 0.1 mm). Escape takes a drag back.
#pragma once

#include <QWidget>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "app/document/document.h"
#include "app/drawing/sheet.h"

namespace kranich::app {

//! Something that can be dragged: where it is, what it is called, and what a move of it changes.
//! What else can be done with a handle: by key while it has the focus, or from its menu (right click).
struct HandleAct {
  Qt::Key key;
  QString name;  //!< "Remove the point"
  std::function<void(Design&)> change;
};

struct Handle {
  QString id;          //!< stable: tests and the keyboard find it by this
  QString name;        //!< "main wheel"
  QPointF at;          //!< world of its pane
  double radius = 11;  //!< px
  //! The change for a move by (dx, dy) in the pane's world.
  std::function<void(Design&, double dx, double dy)> move;
  bool quiet = false;    //!< no ring drawn until it is pointed at
  double per_metre = 1;  //!< world units a metre: where the world is no drawing to scale
  std::vector<HandleAct> acts{};
};

class Pane {
 public:
  explicit Pane(Document& document) : document_(document) {}
  virtual ~Pane() = default;
  virtual QRectF bounds() const = 0;  //!< the part of its world that must be seen
  virtual void draw(Sheet& sheet) = 0;
  virtual std::vector<Handle> handles() const { return {}; }
  //! A pane that fills its space on its own terms (a diagram) needs no world.
  virtual bool to_scale() const { return true; }
  virtual QString name() const = 0;
  //! Space kept round the drawing, px: left, top, right, bottom.
  virtual QMarginsF margins() const { return {20, 30, 20, 34}; }
  //! A click on no handle; true if it meant something.
  virtual bool clicked(const QPointF&) { return false; }
  //! The wheel turned over a place of the pane; true if it meant something.
  virtual bool wheeled(const QPointF&, double /*steps*/) { return false; }
  //! Where the pointer is over the pane, or nothing when it leaves; true if that changes the drawing.
  virtual bool pointer(const std::optional<QPointF>&) { return false; }

 protected:
  Document& document_;
};

//! A pane that is no scale drawing: a curve, a timeline, a table. It fills its space on its own terms.
class DiagramPane : public Pane {
 public:
  using Pane::Pane;
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {8, 6, 8, 6}; }
};

//! A diagram whose parts can be clicked.
class SpotPane : public DiagramPane {
 public:
  //! `changed`: called after a click that meant something.
  SpotPane(Document& document, std::function<void()> changed)
      : DiagramPane(document), changed_(std::move(changed)) {}
  QMarginsF margins() const override { return {10, 8, 10, 8}; }
  bool clicked(const QPointF& world) override;
  //! Middle of what is called so, in the board's pixels: for tests.
  std::optional<QPointF> spot(const QString& id) const;

 protected:
  //! Begins to draw anew: nothing can be clicked yet.
  void start(Sheet& sheet);
  void spot(const QString& id, const QRectF& at, std::function<void()> act);
  std::function<void()> changed_;
  QRectF area_;  //!< of the pane, device

 private:
  struct Spot {
    QString id;
    QRectF at;  //!< device
    std::function<void()> act;
  };
  std::vector<Spot> spots_;
};

class Board : public QWidget {
  Q_OBJECT
 public:
  explicit Board(Document& document, QWidget* parent = nullptr);

  //! Adds a pane in a share of the board: x, y, width, height from 0 to 1.
  Pane* add(std::unique_ptr<Pane> pane, const QRectF& share);
  //! The first pane of a sort; null without one.
  template <class P>
  P* find() const {
    for (const Slot& place : slots_)
      if (auto* of_it = dynamic_cast<P*>(place.pane.get())) return of_it;
    return nullptr;
  }
  void set_share(Pane* pane, const QRectF& share);
  //! Draws it as a picture of this size (px) that is put on paper so many mm a px: drawings to scale at the
  //! next smaller scale that has a name, which is written below them; no handles.
  void print(QPainter& painter, const QSizeF& size, double mm_per_px);

  //! Device position of a handle, for tests and helpers.
  std::optional<QPointF> handle_position(const QString& id) const;
  QString focused_handle() const { return focus_id_; }
  QSize sizeHint() const override { return {840, 640}; }
  QSize minimumSizeHint() const override { return {480, 320}; }

 signals:
  void hint(const QString& text);

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusOutEvent(QFocusEvent*) override;
  void leaveEvent(QEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void contextMenuEvent(QContextMenuEvent*) override;
  bool focusNextPrevChild(bool next) override;

 private:
  struct Slot {
    std::unique_ptr<Pane> pane;
    QRectF share;
    Frame frame;
  };
  struct Grip {
    size_t slot;
    Handle handle;
  };
  void lay_out();
  std::vector<Grip> grips() const;
  std::optional<Grip> grip_at(const QPointF& device) const;
  void announce();

  Document& document_;
  std::vector<Slot> slots_;
  std::optional<Grip> dragging_;
  QPointF press_;
  bool moved_ = false;
  QString focus_id_, hover_id_;
};

}  // namespace kranich::app
