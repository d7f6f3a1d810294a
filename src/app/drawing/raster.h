// SPDX-License-Identifier: GPL-3.0-or-later
//! Shaded triangles and lines in a picture, nearer before further, without a graphics card: depth and what is
//! seen kept for every pixel. Parallel projection.
#pragma once

#include <Eigen/Geometry>
#include <QColor>
#include <QImage>
#include <optional>
#include <vector>

#include "core/motion/mesh.h"

namespace kranich::app {

//! Where one looks from: turned about the aircraft's upright axis, then down.
struct Camera {
  double turn = 0.6, down = 0.35;  //!< rad; 0, 0: from port, nose to the left
  Eigen::Vector3d middle{0, 0, 0};
  double scale = 200;  //!< px for a metre
  //! Right, up, towards the eye.
  Eigen::Matrix3d axes() const;
  Eigen::Vector3d seen(const Eigen::Vector3d& p,
                       const QSize& size) const;  //!< px, y down; depth up to the eye
};

//! What is left out: everything beyond a plane across an axis of the aircraft.
struct SectionPlane {
  int axis = 0;       //!< x, y, z
  double at = 0;      //!< m
  bool upper = true;  //!< what lies above it is left out, else below
};

class Raster {
 public:
  Raster(QSize size, const QColor& ground);
  //! One solid; its number is found again under each pixel that shows it. `through`: every other pixel only,
  //! so that what lies behind is seen. Cut open, its inside shows in its plain colour.
  void solid(const motion::Mesh& mesh, const Camera& camera, const QColor& colour, int number, bool through,
             const std::optional<SectionPlane>& plane);
  void line(const Eigen::Vector3d& from, const Eigen::Vector3d& to, const Camera& camera,
            const QColor& colour, const std::optional<SectionPlane>& plane);
  const QImage& picture() const { return picture_; }
  //! What stands at a pixel; −1: nothing.
  int at(const QPoint& pixel) const;

 private:
  QImage picture_;
  std::vector<float> depth_;
  std::vector<int> number_;
};

}  // namespace kranich::app
