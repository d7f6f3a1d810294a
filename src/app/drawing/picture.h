// SPDX-License-Identifier: GPL-3.0-or-later
//! Pictures under the drawing: PNG, JPEG, SVG, the first page of a PDF; kept with the project by name.
#pragma once

#include <QImage>

#include "app/document/document.h"
#include "app/drawing/pose.h"
#include "app/drawing/sheet.h"

namespace kranich::app {

//! What the file dialogs offer.
QString picture_files();
//! A file's image, upright; read once, anew when the file has changed; no larger than it is shown. Null where
//! it cannot be read.
QImage picture_image(const QString& path);
//! Where a picture's name leads: as given, or beside the project.
QString picture_path(const Document& document, const std::string& name);
//! The name by which a project keeps a file: relative where it lies beside it or below.
std::string picture_name(const Document& document, const QString& file);

//! Draws it in the sheet's world: its lower left corner at `corner` (m), so wide, turned about that corner,
//! mirrored, faded. Says so where the file cannot be read.
void draw_image(Sheet& sheet, const Document& document, const Picture& picture, const QPointF& corner);
//! The picture of an aircraft that stands, where its main wheels stand: it does not pitch with the design.
void draw_picture(Sheet& sheet, const Document& document, const Pose& pose);

}  // namespace kranich::app
