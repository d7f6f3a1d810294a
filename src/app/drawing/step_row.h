// SPDX-License-Identifier: GPL-3.0-or-later
//! A step in a list, a ladder: the sign of its state, its two lines.
#pragma once

#include <QColor>
#include <QPainter>
#include <QString>

#include "core/tasks/progress.h"

namespace kranich::app {

QColor state_colour(tasks::State state);
//! The sign before a step: its state by shape and colour.
void draw_state(QPainter& painter, const QPointF& centre, double size, tasks::State state);
//! The piece, then the step's text beside it and on in a second line, the end left out where it is longer.
void draw_step_lines(QPainter& painter, const QRectF& area, double points, const QString& piece,
                     const QString& text, const QColor& ink);

}  // namespace kranich::app
