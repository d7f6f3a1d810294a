// SPDX-License-Identifier: GPL-3.0-or-later
//! The manual (docs/manual, built in), opened at a chapter.
#pragma once

#include <QWidget>

namespace kranich::app {

//! Shows a chapter by its file's name without ending, "place"; one that is not there shows the contents. One
//! window, brought forward when it is open already.
QWidget* show_manual(const QString& chapter, QWidget* parent);

}  // namespace kranich::app
