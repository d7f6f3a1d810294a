// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/rig_csv.h"

#include "core/io/csv_table.h"

namespace kranich {

RigRecording read_rig_csv(std::string_view text) {
  RigRecording out;
  Table table(text, {"t_s", "acceleration_m_per_s2", "stroke_m"}, out.faults);
  const Spec time = spec::between("Time", Kind::time, -1, spring::longest_recording);
  const Spec plain{"Acceleration, m/s²", Kind::factor, -5000, 5000};
  const Spec stroke = spec::between("Stroke", Kind::length, -0.1, 2);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    const Given t = table.number(r, "t_s", time);
    const Given a = table.number(r, "acceleration_m_per_s2", plain);
    const Given s = table.number(r, "stroke_m", stroke);
    for (const auto& [name, value] : {std::pair{"t_s", &t}, {"acceleration_m_per_s2", &a}, {"stroke_m", &s}})
      if (!value->known() && table.text(r, name).empty()) table.fault(r, name, "must not be empty");
    if (!out.samples.empty() && t.known() && t <= out.samples.back().t)
      table.fault(r, "t_s",
                  fmt::format("must rise from line to line, is {:g} after {:g}", t.si, out.samples.back().t));
    if (out.faults.size() > 20) break;
    out.samples.push_back({t, a, s});
  }
  if (!out.faults.empty()) out.samples.clear();
  return out;
}

std::string rig_to_csv(const std::vector<spring::RigSample>& samples) {
  std::string s = "t_s,acceleration_m_per_s2,stroke_m\n";
  for (const auto& x : samples) s += fmt::format("{:.5f},{:.4f},{:.6f}\n", x.t, x.acceleration, x.stroke);
  return s;
}

}  // namespace kranich
