// SPDX-License-Identifier: GPL-3.0-or-later
//! Starting an aircraft from answers, and what to measure next, from the command line.
#pragma once

#include <CLI/App.hpp>
#include <optional>
#include <string>

#include "core/model/design.h"

namespace kranich::cli {

struct StartOptions {
  std::string build, craft, gear, wing, engine, field, output;
  int seats = -1;
  double scale = 0, mass = 0, span = 0, length = 0;
  bool keep = false;
};
void add_start_options(CLI::App& command, StartOptions& options);
//! The design; nothing where an answer is refused, which is then told on standard error.
std::optional<Design> started(const StartOptions& options);
void print_next(const Design& design, bool json);

}  // namespace kranich::cli
