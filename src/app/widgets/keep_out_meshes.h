// SPDX-License-Identifier: GPL-3.0-or-later
//! Keep-outs that are meshes drawn elsewhere: their file, what was read of it, its unit and axes.
#pragma once

#include <QWidget>

#include "app/document/document.h"

namespace kranich::app {

//! An entry for each of them, and a button that adds one from a file.
QWidget* make_keep_out_meshes(Document& document, QWidget* parent = nullptr);

}  // namespace kranich::app
