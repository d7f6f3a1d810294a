// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/shelves.h"

#include "core/io/csv_table.h"

namespace kranich {
namespace {

//! Reads name and remark of every line, and what `each` makes of the rest.
template <class Each>
ReadShelf read_shelf(std::string_view text, const std::vector<std::string>& columns, Each&& each) {
  ReadShelf shelf;
  Table table(text, columns, shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    spring::ShelfItem& item = shelf.items.emplace_back();
    item.name = table.text(r, "name");
    item.remark = table.text(r, "remark");
    if (item.name.empty()) table.fault(r, "name", "must not be empty");
    each(table, r, item);
  }
  return shelf;
}

}  // namespace

ReadShelf read_coils(std::string_view text) {
  return read_shelf(
      text,
      {"name", "wire_diameter_m", "mean_diameter_m", "active_turns", "total_turns", "free_length_m", "ends",
       "wire"},
      [](Table& table, size_t r, spring::ShelfItem& item) {
        Coil& c = item.coil;
        c.shelf_name = item.name;
        c.wire_diameter = table.number(r, "wire_diameter_m", spec::size("Wire diameter", 0.1));
        c.mean_diameter = table.number(r, "mean_diameter_m", spec::size("Mean coil diameter", 1));
        c.active_turns =
            table.number(r, "active_turns", spec::between("Active turns", Kind::factor, 0.5, 100));
        c.total_turns = table.number(r, "total_turns", spec::between("Total turns", Kind::factor, 0.5, 110));
        c.free_length = table.number(r, "free_length_m", spec::size("Free length", 3));
        c.ends = table.choice(r, "ends", Names(coil_end_names), CoilEnds::squared_ground);
        c.wire = table.text(r, "wire");
      });
}

ReadShelf read_struts(std::string_view text) {
  return read_shelf(text, {"name", "extended_force_N", "progression", "full_stroke_m"},
                    [](Table& table, size_t r, spring::ShelfItem& item) {
                      GasStrut& g = item.strut;
                      g.shelf_name = item.name;
                      g.extended_force = table.number(r, "extended_force_N",
                                                      spec::positive("Force extended", Kind::force, 1e5));
                      g.progression =
                          table.number(r, "progression", spec::between("Progression", Kind::factor, 1, 20));
                      g.full_stroke = table.number(r, "full_stroke_m", spec::size("Full stroke", 2));
                    });
}

ReadShelf read_cords(std::string_view text) {
  static constexpr int percents[]{10, 20, 40, 60, 80, 100};
  std::vector<std::string> columns{"name"};
  for (const int p : percents) columns.push_back(fmt::format("load_at_{}_N", p));
  return read_shelf(text, columns, [](Table& table, size_t r, spring::ShelfItem& item) {
    item.cord.shelf_name = item.name;
    item.cord.curve.push_back({{}, Given(0), Given(0)});
    for (const int p : percents)
      item.cord.curve.push_back({{},
                                 Given(p / 100.0),
                                 table.number(r, fmt::format("load_at_{}_N", p),
                                              spec::positive("Load of a strand", Kind::force, 1e5))});
  });
}

ReadShelf read_pucks(std::string_view text) {
  return read_shelf(
      text, {"name", "outer_diameter_m", "hole_diameter_m", "thickness_m", "shear_modulus_Pa"},
      [](Table& table, size_t r, spring::ShelfItem& item) {
        Pucks& p = item.pucks;
        p.shelf_name = item.name;
        p.outer_diameter = table.number(r, "outer_diameter_m", spec::size("Outer diameter", 0.5));
        p.hole_diameter = table.number(r, "hole_diameter_m", spec::not_negative("Hole", Kind::length, 0.4));
        p.thickness = table.number(r, "thickness_m", spec::size("Thickness of a disc", 0.2));
        p.shear_modulus =
            table.number(r, "shear_modulus_Pa", spec::positive("Shear modulus", Kind::stress, 5e7));
        const Given factor =
            table.number(r, "hardness_factor", spec::between("Factor of hardness", Kind::factor, 0.4, 1));
        if (factor.known()) p.hardness_factor = factor;
      });
}

ReadShelf read_stock(std::string_view text) {
  return read_shelf(text, {"name", "size", "material"}, [](Table& table, size_t r, spring::ShelfItem& item) {
    item.thickness = table.number(r, "size", spec::between("Size", Kind::factor, 1e-5, 10));
    item.material = table.text(r, "material");
  });
}

}  // namespace kranich
