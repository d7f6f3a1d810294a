// SPDX-License-Identifier: GPL-3.0-or-later
//! Every number, text, tick and choice of a project has its place in the window: an entry, a table's cell, or it
//! stands in a short list with the reason.
#include <set>
#include <sstream>

#include "app/widgets/dialogs.h"
#include "app/widgets/entry_table.h"
#include "app/widgets/list_table.h"
#include "bench.h"
#include "core/io/project_file.h"
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
    const bool holds_others = line.find("| object |") != std::string::npos || line.find("| list |") != std::string::npos;
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
    if (list_size_at(d, path).value_or(0) == 0) add_to_list(d, path);
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
    return names.contains(path) ||
           std::any_of(tables.begin(), tables.end(),
                       [&](EntryTable* t) { return t->show_entry(QString::fromStdString(path)) != nullptr; });
  }
};

//! What has no entry of its own, and why.
const std::vector<std::pair<std::string, std::string>> exceptions{
    {"/gear/legs/…/id", "made by the program"},
    {"/doors/…/id", "made by the program"},
};

}  // namespace

TEST_CASE("every number, text, tick and choice of a project has its place in the window") {
  Bench b;
  Design filled = b.document.design();
  const auto patterns = every_path();
  REQUIRE(patterns.size() > 600);
  for (const auto& p : patterns) first_of(filled, p, false);
  b.document.edit("Fill", [&](Design& d) { d = filled; });
  b.settle();
  Reached reached;
  for (int i = 0; i < station_count; ++i) reached.look(&b.go(static_cast<Station>(i)));
  std::vector<std::unique_ptr<QWidget>> dialogs;
  for (auto* dialog :
       {make_project_dialog(b.document, nullptr), make_leg_dialog(b.document, filled.gear.legs.front().id, nullptr),
        make_outline_dialog(b.document, nullptr), make_parts_dialog(b.document, nullptr),
        make_own_springs_dialog(b.document, nullptr), make_scales_dialog(b.document, nullptr),
        make_drive_dialog(b.document, filled.gear.legs.front().id, nullptr)}) {
    dialogs.emplace_back(dialog);
    dialog->setAttribute(Qt::WA_DeleteOnClose, false);
    reached.look(dialog);
  }
  Design now = b.document.design();
  for (const auto& p : patterns) {
    const bool excepted = std::any_of(exceptions.begin(), exceptions.end(), [&](const auto& e) {
      return p == e.first || (e.first.ends_with("/") && p.starts_with(e.first));
    });
    const bool there = reached.has(first_of(now, p, true)) || reached.has(first_of(now, p, false));
    INFO(p);
    CHECK((there || excepted));
  }
}
