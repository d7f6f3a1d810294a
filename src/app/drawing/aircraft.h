// SPDX-License-Identifier: GPL-3.0-or-later
//! The aircraft to scale, seen from the side, from ahead and from above, in its loading and state.
//! World coordinates of the views (m): side (along the ground aft, from below the datum; height above
//! ground); front (to starboard on the left as one stands before it, height above ground); plan (station aft,
//! starboard down).
#pragma once

#include <QPolygonF>
#include <QRectF>
#include <functional>

#include "app/drawing/pose.h"
#include "app/drawing/sheet.h"
#include "core/place/keepout.h"

namespace kranich::app {

enum class Look { full, ghost, pinned };

QRectF side_bounds(const Pose& pose);
QRectF front_bounds(const Pose& pose);
QRectF plan_bounds(const Pose& pose);

void draw_side(Sheet& sheet, const Pose& pose, Look look = Look::full);
void draw_front(Sheet& sheet, const Pose& pose, Look look = Look::full);
void draw_plan(Sheet& sheet, const Pose& pose, Look look = Look::full);

//! Any view of aircraft axes as a flat world.
using Map = std::function<QPointF(const Vec3&)>;
//! A point of a surface's starboard half, straight from root to tip: at a share of the half span, at a share
//! of the chord there. Root, span and chords known.
Vec3 surface_point(const Surface& surface, double span_share, double chord_share);
//! A body's outline in the side view and in plan (its starboard or port twin), smooth but for its corners;
//! a closed outline of fin or canopy.
QPolygonF body_outline(const Body& body, const Map& map);
QPolygonF body_plan(const Body& body, double side, const Map& map);
QPolygonF closed_outline(const std::vector<OutlinePoint>& points, bool smoothly, const Map& map);
//! A leg (starboard or third) extended, at a share of its swing, in a colour: the poses of a swing.
void draw_swung_leg(Sheet& sheet, const Leg& leg, double share, const Map& map, const QColor& leg_colour,
                    const QColor& tyre_colour, const QColor& outline);

//! Keep-outs of the airframe and the bodies of the retract units, both sides, in any view; those that overlap
//! stand out.
void draw_keep_out(Sheet& sheet, const KeepOut& keep_out, bool port, const Map& map);
void draw_keep_outs(Sheet& sheet, const Design& design, const Map& map);

//! Doors as they stand with the gear so far up, both sides, in any view.
void draw_doors(Sheet& sheet, const Pose& pose, const Map& map);

//! Leading edge and chord of the wing's mean chord line in the side view: for angles drawn at the wing.
QPolygonF wing_section(const Pose& pose, double y);

}  // namespace kranich::app
