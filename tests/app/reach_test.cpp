// SPDX-License-Identifier: GPL-3.0-or-later
//! Every number, text, tick and choice of a project has its place in the window: an entry, a table's cell, or
//! it stands in a short list with the reason.
#include <set>
#include <sstream>

#include "app/widgets/dialogs.h"
#include "app/widgets/entry_table.h"
#include "app/widgets/list_table.h"
#include "bench.h"
#include "core/io/project_file.h"
#include "core/model/consistency.h"
#include "core/model/locate.h"

using namespace kranich;
using namespace kranich::app;

namespace {

//! "/gear/legs/…/wheel/diameter_m": all that a file may hold, but for objects and lists themselves.
std::vector<std::string> every_path() {
  std::vector<std::string> list;
  std::istringstream lines(project_fields_markdown());
  std::string line, base;
  while (std::getline(lines, line)) {
    if (line.starts_with("### `")) {
      base = line.substr(5, line.find('`', 5) - 5);
      if (base == "/") base.clear();
    }
    if (!line.starts_with("| `") || line.starts_with("| `key`")) continue;
    const auto end = line.find('`', 3);
    const bool holds_others =
        line.find("| object |") != std::string::npos || line.find("| list |") != std::string::npos;
    if (!holds_others) list.push_back(base + "/" + line.substr(3, end - 3));
  }
  return list;
}

//! The first of every list of a design, made where there is none.
std::string first_of(Design& d, const std::string& pattern, bool by_id) {
  std::string path;
  std::istringstream parts(pattern.substr(1));
  std::string part;
  while (std::getline(parts, part, '/')) {
    if (part != "…") {
      path += "/" + part;
      continue;
    }
    if (list_size_at(d, path).value_or(0) == 0) {
      add_to_list(d, path);
      // What a window would call it: names and ids are never empty or doubled.
      static int made = 0;
      for (const char* key : {"/0/name", "/0/id", "/0/zone"})
        if (auto* text = locate_text(d, path + key)) *text = "made" + std::to_string(++made);
    }
    path += path == "/gear/legs" && by_id ? "/" + d.gear.legs.front().id : "/0";
  }
  return path;
}

struct Reached {
  std::set<std::string> names;
  std::vector<EntryTable*> tables;
  void look(QWidget* root) {
    QWidgetList all = root->findChildren<QWidget*>();
    all.prepend(root);
    for (QWidget* w : all) {
      const QString name = w->objectName();
      for (const char* kind : {"field:", "choice:", "text:", "flag:", "refers:", "material:", "origin:"})
        if (name.startsWith(QLatin1String(kind))) names.insert(name.section(':', 1).toStdString());
      if (auto* table = dynamic_cast<EntryTable*>(w)) tables.push_back(table);
    }
  }
  bool has(const std::string& path) const {
    return names.contains(path) || std::any_of(tables.begin(), tables.end(), [&](EntryTable* t) {
             return t->owns(QString::fromStdString(path));
           });
  }
};

//! What has no entry of its own, and why.
const std::vector<std::pair<std::string, std::string>> exceptions{
    {"/gear/legs/…/id", "made by the program"},
    {"/doors/…/id", "made by the program"},
    {"/sequence/aids/…/id", "made by the program"},
    {"/units", "Ctrl+U"},
    {"/begun/", "the questions of Start"},
    {"/done/", "kept of files from before there was a Book"},
    {"/picture/file", "chosen as a file, in Stance"},
    {"/side_tracing/file", "chosen as a file, or dropped, in Outline and pictures"},
    {"/front_tracing/file", "likewise"},
    {"/plan_tracing/file", "likewise"},
    {"/variants/", "kept and named in Variants side by side"},
    {"/without/", "answered in Bench, where a step asks"},
    {"/own_limits/", "set at the finding that is judged"},
    {"/gear/legs/…/wheel/shelf_name", "the shelf of wheels"},
    {"/gear/legs/…/spring/coil/shelf_name", "the shelf of springs"},
    {"/gear/legs/…/spring/second/shelf_name", "the shelf of springs"},
    {"/gear/legs/…/spring/cord/shelf_name", "the shelf of springs"},
    {"/gear/legs/…/spring/gas_strut/shelf_name", "the shelf of springs"},
    {"/gear/legs/…/spring/pucks/shelf_name", "the shelf of springs"},
    {"/gear/legs/…/spring/bent/shelf_name", "the shelf of springs"},
    {"/spring_bench/coils/…/coil/shelf_name", "its own name stands for it"},
    {"/spring_bench/coils/…/coil/count", "said where it is fitted"},
    {"/spring_bench/coils/…/coil/installed_length_m", "said where it is fitted"},
    {"/spring_bench/coils/…/coil/motion_ratio", "said where it is fitted"},
    {"/parts/…/taken", "ticked by taking the part into the ledger"},
    {"/jig/paper", "beside the sheets that are printed on it"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/down_spring/", "what a drive works against is the leg's"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/air_centre/", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/cg/", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/mass_kg", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/inertia_kg_m2", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/load_factor", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/airspeed_m_per_s", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/turning_area_m2", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/constant_area_m2", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/friction_", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/wanted_time_s", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/falls_free", "likewise"},
    {"/gear/legs/…/retraction/drive_offers/…/drive/fluid_N_m_s2", "likewise"},
    {"/ledger/", "cells of the ledger, Weigh"},
    {"/loadings/…/aboard/", "ticked and typed in Weigh, loading by loading"},
    {"/stance/readings/", "typed in the table sheet, Stance"},
    {"/spring_bench/drops/…/foretold_", "kept of what was foretold then"},
};

}  // namespace

TEST_CASE("every number, text, tick and choice of a project has its place in the window") {
  Bench b;
  const auto patterns = every_path();
  REQUIRE(patterns.size() > 600);
  std::set<std::string> found;
  // What stands only for a model, a leg that bends, a joint of screws is looked at in a design that has it.
  for (const bool other : {false, true}) {
    Design filled = b.document.design();
    for (const auto& p : patterns) first_of(filled, p, false);
    filled.airframe.keep_outs.front().shape = Shape::mesh;
    filled.sequence.aids.front().leg = filled.gear.legs.front().id;
    if (other) {
      filled.purpose.build = Build::model;
      filled.airframe.keep_outs.front().shape = Shape::prism;
      filled.gear.legs.front().spring.kind = SpringKind::bending;
      filled.gear.legs.front().joints.front().kind = JointKind::fasteners;
    }
    for (const auto& wrong : inconsistencies(filled)) UNSCOPED_INFO(wrong.where << ": " << wrong.what);
    b.document.edit("Fill", [&](Design& d) { d = filled; });
    b.settle();
    // Taken: what follows from it may have been settled since.
    REQUIRE(b.document.design().purpose.build == filled.purpose.build);
    REQUIRE(b.document.design().airframe.accesses.size() == filled.airframe.accesses.size());
    Reached reached;
    for (int i = 0; i < station_count; ++i) reached.look(&b.go(static_cast<Station>(i)));
    std::vector<std::unique_ptr<QWidget>> dialogs;
    const std::string leg = filled.gear.legs.front().id;
    for (auto* dialog :
         {make_project_dialog(b.document, nullptr), make_leg_dialog(b.document, leg, nullptr),
          make_outline_dialog(b.document, nullptr), make_parts_dialog(b.document, nullptr),
          make_own_springs_dialog(b.document, nullptr), make_drive_dialog(b.document, leg, nullptr)}) {
      dialogs.emplace_back(dialog);
      dialog->setAttribute(Qt::WA_DeleteOnClose, false);
      reached.look(dialog);
    }
    Design now = b.document.design();
    for (const auto& p : patterns)
      if (reached.has(first_of(now, p, true)) || reached.has(first_of(now, p, false))) found.insert(p);
  }
  for (const auto& p : patterns) {
    const bool excepted = std::any_of(exceptions.begin(), exceptions.end(), [&](const auto& e) {
      return p == e.first ||
             (std::string("/_").find(e.first.back()) != std::string::npos && p.starts_with(e.first));
    });
    INFO(p);
    CHECK((found.contains(p) || excepted));
  }
}
