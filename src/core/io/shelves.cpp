// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/shelves.h"

#include "core/io/csv_table.h"
#include "core/model/describe.h"

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

DriveShelf read_drive_shelf(std::string_view text) {
  DriveShelf shelf;
  Table table(text, {"name", "kind"}, shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    DriveOffer o;
    o.sold.name = table.text(r, "name");
    Drive& d = o.drive;
    d.kind = table.choice(r, "kind", Names(drive_names), DriveKind::none);
    if (d.kind == DriveKind::none) table.fault(r, "kind", "must say what it is");
    const auto number = [&](const char* column, const Spec& spec) { return table.number(r, column, spec); };
    d.force = number("force_N", spec::positive("Rated force", Kind::force, 1e6));
    d.stroke = number("stroke_m", spec::size("Stroke", 3));
    d.speed = number("speed_m_per_s", spec::positive("Speed under load", Kind::speed, 5));
    d.bore = number("bore_m", spec::size("Bore", 0.3));
    d.rod = number("rod_m", spec::size("Rod", 0.2));
    d.stall_torque = number("stall_torque_N_m", spec::positive("Stall torque", Kind::moment, 1e5));
    d.no_load_speed =
        number("no_load_speed_rad_per_s", spec::positive("No-load speed", Kind::turn_rate, 1e5));
    d.no_load_current = number("no_load_current_A", spec::positive("No-load current", Kind::current, 1e3));
    d.stall_current = number("stall_current_A", spec::positive("Stall current", Kind::current, 1e4));
    d.gearbox = number("gearbox", spec::positive("Gearbox", Kind::factor, 1e5));
    d.efficiency = number("efficiency", spec::between("Efficiency", Kind::share, 0.05, 1));
    d.rotor_inertia = number("rotor_inertia_kg_m2", spec::positive("Rotor's inertia", Kind::inertia, 10));
    const Given turn = table.number(r, "full_throw_deg", spec::between("Full throw", Kind::factor, 10, 180));
    if (turn.known()) d.full_throw = radians(turn);
    o.sold.mass = number("mass_kg", spec::mass("Mass"));
    o.sold.price = number("price", spec::not_negative("Price", Kind::factor, 1e6));
    o.sold.length = number("length_m", spec::size("Body, long", 3));
    o.sold.width = number("width_m", spec::size("Body, wide", 2));
    o.sold.height = number("height_m", spec::size("Body, high", 2));
    o.sold.pin = number("pin_m", spec::size("Pins at its ends", 0.1));
    o.sold.current = number("current_A", spec::positive("Current", Kind::current, 1e3));
    o.sold.locks = table.choice(r, "locks", Names(locks_names), LocksItself::unsaid);
    o.sold.powerless = table.choice(r, "powerless", Names(powerless_names), Powerless::unsaid);
    shelf.drives.push_back(std::move(o));
  }
  return shelf;
}

WheelShelf read_wheel_shelf(std::string_view text) {
  WheelShelf shelf;
  Table table(text, {"name", "tyre", "diameter_m", "width_m", "flat_radius_m", "mass_kg", "greatest_load_N"},
              shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    place::ShelfWheel s;
    s.name = table.text(r, "name");
    Wheel& w = s.wheel;
    w.shelf_name = s.name;
    w.tyre = table.choice(r, "tyre", Names(tyre_names), Tyre::pneumatic);
    w.diameter = table.number(r, "diameter_m", spec::size("Wheel diameter", 3));
    w.width = table.number(r, "width_m", spec::size("Wheel width", 1));
    w.shoulder_radius =
        table.number(r, "shoulder_radius_m", spec::not_negative("Tyre shoulder radius", Kind::length, 0.5));
    w.flat_radius = table.number(r, "flat_radius_m", spec::size("Axle height on a flat tyre", 1.5));
    w.tyre_rate = table.number(r, "tyre_rate_N_per_m", spec::positive("Tyre rate", Kind::stiffness, 1e9));
    w.pressure = table.number(r, "pressure_Pa", spec::positive("Tyre pressure", Kind::pressure, 3e6));
    s.mass = table.number(r, "mass_kg", spec::mass("Mass"));
    s.greatest_load = table.number(r, "greatest_load_N", spec::positive("Greatest load", Kind::force, 1e6));
    s.remark = table.text(r, "remark");
    shelf.wheels.push_back(std::move(s));
  }
  return shelf;
}

UnitShelf read_unit_shelf(std::string_view text) {
  UnitShelf shelf;
  Table table(text, {"name", "angle_deg"}, shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    swing::ShelfUnit u;
    u.name = table.text(r, "name");
    u.angle = table.number(r, "angle_deg", {"Unit angle", Kind::factor, 10, 180});
    if (u.angle.known()) u.angle.si = radians(u.angle.si);
    u.fore = table.number(r, "fore_m", spec::size("Body ahead of the pivot", 1));
    u.back = table.number(r, "back_m", spec::size("Body behind the pivot", 1));
    u.half_width = table.number(r, "half_width_m", spec::size("Half width", 0.5));
    u.above = table.number(r, "above_m", spec::size("Body above the pivot", 0.5));
    u.below = table.number(r, "below_m", spec::size("Body below the pivot", 0.5));
    u.pin = table.number(r, "pin_m", spec::size("Bore for the leg's pin", 0.2));
    u.rated_mass = table.number(r, "rated_mass_kg", spec::mass("Sold for aircraft of up to"));
    u.rated_moment =
        table.number(r, "rated_moment_N_m", spec::positive("Moment its pin may carry", Kind::moment, 1e5));
    u.time = table.number(r, "time_s", spec::positive("Time", Kind::time, 600));
    u.mass = table.number(r, "mass_kg", spec::mass("Mass"));
    u.price = table.number(r, "price", spec::not_negative("Price", Kind::factor, 1e6));
    u.drive = table.text(r, "drive");
    u.other_way = table.text(r, "other_way") == "yes";
    u.remark = table.text(r, "remark");
    shelf.units.push_back(std::move(u));
  }
  return shelf;
}

BoxShelf read_box_shelf(std::string_view text) {
  BoxShelf shelf;
  Table table(text, {"name", "outputs", "longest_hold_s"}, shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    sequence::ShelfBox b;
    b.name = table.text(r, "name");
    b.outputs = table.number(r, "outputs", spec::between("Outputs", Kind::factor, 1, 24));
    b.longest_hold = table.number(r, "longest_hold_s", spec::positive("Holds at most", Kind::time, 3600));
    b.at_switch_on = table.choice(r, "at_switch_on", Names(at_switch_on_names), AtSwitchOn::stays);
    b.mass = table.number(r, "mass_kg", spec::mass("Mass"));
    b.price = table.number(r, "price", spec::not_negative("Price", Kind::factor, 1e6));
    b.remark = table.text(r, "remark");
    shelf.boxes.push_back(std::move(b));
  }
  return shelf;
}

}  // namespace kranich
