// SPDX-License-Identifier: GPL-3.0-or-later
//! Leads from a number's path to where it is entered: on a page, in a leg's window, in Aircraft and project.
#pragma once

#include "app/main_window.h"

namespace kranich::app {

//! Shows the entry of a number, ready to be typed into; false where the window has none for that path.
bool lead_to(MainWindow& window, const QString& path);

}  // namespace kranich::app
