// SPDX-License-Identifier: GPL-3.0-or-later
//! The design as a book to print: caution, contents, every station with its drawings and findings, what was
//! compared, decided and done; and the same figures as a table.
#pragma once

#include <QString>
#include <functional>
#include <optional>
#include <set>
#include <vector>

#include "app/document/document.h"

namespace kranich::app {

//! Said at the head of every report and beside strength and load results.
QString planning_caution();
//! The same for a model: nobody sits in it, but somebody stands below it.
QString model_caution();

//! A part of the report that may be left out.
struct ReportPart {
  QString id;     //!< "place", "numbers"
  QString title;  //!< as in its contents
};
//! The parts that a design has, in their order.
std::vector<ReportPart> report_parts(const Document& document);

struct ReportChoice {
  std::set<QString> without;  //!< ids of parts left out
  bool working = true;        //!< with the numbers behind every finding
};

//! Writes the report as a PDF of A4 pages; returns why it could not, or nothing. `went_on`: called with the
//! share that is done; false gives up, and nothing is written.
std::optional<QString> write_report(const Document& document, const QString& path,
                                    const ReportChoice& choice = {},
                                    const std::function<bool(double)>& went_on = {});
//! Writes every finding as CSV.
std::optional<QString> write_figures(const Document& document, const QString& path);

}  // namespace kranich::app
