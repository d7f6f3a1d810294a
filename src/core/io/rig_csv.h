// SPDX-License-Identifier: GPL-3.0-or-later
//! Recordings of a drop rig as comma-separated tables: what kranich-bench writes, or any logger's with the
//! same columns.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/io/csv.h"
#include "core/spring/identify.h"

namespace kranich {

struct RigRecording {
  std::vector<spring::RigSample> samples;
  std::vector<Fault> faults;
};
//! Columns t_s (seconds since the release, rising), acceleration_m_per_s2 (of the sprung mass, up, 0 at
//! rest), stroke_m.
RigRecording read_rig_csv(std::string_view text);
std::string rig_to_csv(const std::vector<spring::RigSample>& samples);

}  // namespace kranich
