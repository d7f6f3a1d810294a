// SPDX-License-Identifier: GPL-3.0-or-later
//! An outline traced point by point: cross-sections of a body from their edges, closed outlines of fin and
//! canopy; and a picture put to scale and level under them. SI, rad.
#pragma once

#include <optional>
#include <vector>

#include "core/base/geometry.h"
#include "core/model/design.h"

namespace kranich {

enum class BodyEdge { top, bottom, half_width };

//! The number of a section's edge.
Given& edge_of(Section& section, BodyEdge edge);
const Given& edge_of(const Section& section, BodyEdge edge);

//! Sets an edge of a body at a station. A section within `snap` of it takes the value where it stands; else
//! there is a new one, in its order, whose other edges are what the sections before and behind it make there
//! (origin estimated; unknown where there is none on both sides). Returns its place in the list.
size_t trace_section(Body& body, double x, BodyEdge edge, double value, double snap);

//! Adds a point to a closed outline: at its end as long as it has two, then into the side that passes
//! nearest. Returns its place in the list.
size_t trace_point(std::vector<OutlinePoint>& outline, double x, double z);

//! A picture whose two points, a and b as it lies now, are `length` apart in truth: made so large about a.
//! Nothing where they coincide or its place is unknown.
bool scale_picture(Picture& picture, const Eigen::Vector2d& a, const Eigen::Vector2d& b, double length);
//! Turned about a so that a and b, as it lies now, are level, by the lesser turn.
bool level_picture(Picture& picture, const Eigen::Vector2d& a, const Eigen::Vector2d& b);

}  // namespace kranich
