// SPDX-License-Identifier: GPL-3.0-or-later
//! The report on paper: drawings, findings, the caution; and the same figures as a table.
#pragma once

#include <QString>
#include <optional>

#include "app/document/document.h"

namespace kranich::app {

//! Said at the head of every report and beside strength and load results.
QString planning_caution();

//! Writes a PDF of two or three A4 pages; returns why it could not, or nothing.
std::optional<QString> write_report(const Document& document, const QString& path);
//! Writes every finding as CSV.
std::optional<QString> write_figures(const Document& document, const QString& path);

}  // namespace kranich::app
