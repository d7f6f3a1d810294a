// SPDX-License-Identifier: GPL-3.0-or-later
//! The demonstration projects, built into the program.
#pragma once

#include <QStringList>

#include "app/document/document.h"

namespace kranich::app {

QStringList demo_names();
//! Starts with a demonstration project (by name, any case); false if there is none of that name. It has no
//! file of its own, so saving asks where.
bool start_demo(Document& document, const QString& name);

//! Starts an empty project: everything unknown but one loading, so that each check says what it needs.
void start_blank(Document& document);

}  // namespace kranich::app
