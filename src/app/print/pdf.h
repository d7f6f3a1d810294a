// SPDX-License-Identifier: GPL-3.0-or-later
//! Files on paper: drawn whole in memory, then put where they belong in one go, so that a full disk is told
//! and what was there stays.
#pragma once

#include <QPdfWriter>
#include <QString>
#include <functional>
#include <optional>

namespace kranich::app {

//! Why it cannot be written; nothing where it was. `draw`: false gives up, and nothing is written.
std::optional<QString> write_pdf(const QString& path, const std::function<bool(QPdfWriter&)>& draw);

}  // namespace kranich::app
