// SPDX-License-Identifier: GPL-3.0-or-later
//! The gear in space: turned by dragging, enlarged by the wheel, cut open by a plane; what stands under the
//! pointer is named, and what comes near glows.
#pragma once

#include <QWidget>
#include <optional>

#include "app/document/document.h"
#include "app/drawing/raster.h"
#include "core/assess/scene.h"

namespace kranich::app {

class ShadedView : public QWidget {
  Q_OBJECT
 public:
  explicit ShadedView(Document& document, QWidget* parent = nullptr);
  //! Looks from there, all of it in sight.
  void look(double turn, double down);
  const Camera& camera() const { return camera_; }
  void cut(const std::optional<SectionPlane>& plane);
  void show_outline(bool shown);
  const Scene& scene() const { return scene_; }
  //! Least and greatest place along an axis, m: of all that is shown, or of the gear alone.
  std::pair<double, double> extent(int axis, bool gear_only = false) const;
  //! The part that stands at a place of the widget; null: none.
  const ScenePart* part_at(const QPoint& place) const;
  //! What is said of it: its name, and what it is near to.
  QString words_of(const ScenePart& part) const;
  QSize sizeHint() const override { return {760, 600}; }

 signals:
  void scene_changed();

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void leaveEvent(QEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

 private:
  void refresh();
  void fit();
  void render();
  void enlarge(double factor);
  QColor tone(const ScenePart& part) const;

  Document& document_;
  Scene scene_;
  Camera camera_;
  std::optional<SectionPlane> plane_;
  bool outline_ = true, fitted_ = false, stale_ = true;
  std::optional<Raster> raster_;
  std::optional<QPoint> pointer_;
  QPoint from_;
};

}  // namespace kranich::app
