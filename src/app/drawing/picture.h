// SPDX-License-Identifier: GPL-3.0-or-later
//! A picture of the full-size aircraft, or of one that stands as wanted, behind the side view.
#pragma once

#include "app/document/document.h"
#include "app/drawing/pose.h"
#include "app/drawing/sheet.h"

namespace kranich::app {

//! Draws it where it lies, standing on the ground as it does: it does not pitch with the aircraft. Says so
//! where the file cannot be read.
void draw_picture(Sheet& sheet, const Document& document, const Pose& pose);
//! Where a picture's name leads: as given, or beside the project.
QString picture_path(const Document& document);

}  // namespace kranich::app
