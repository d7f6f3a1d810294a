// SPDX-License-Identifier: GPL-3.0-or-later
//! Logic and circuit as they are described. Part of the one description of a Design: describe.h says how.
#pragma once

#include "core/model/describe_words.h"
#include "core/model/systems.h"

namespace kranich {

template <class V, Of<Logic> T>
void describe(V& v, T& l) {
  v.choice("power", l.power, Names(leg_power_names), "Legs are moved by");
  v.choice("down_switch", l.down_sign, Names(sign_names), "Down is told by a switch");
  v.choice("up_switch", l.up_sign, Names(sign_names), "Up is told by a switch");
  v.choice("switches", l.switches, Names(switch_names), "Switches are");
  v.flag("plastic_mounts", l.plastic_mounts, "Held by printed or glued mounts");
  v.choice("squat", l.squat, Names(squat_names), "Squat switch");
  v.flag("pressure_switch", l.pressure_switch, "A pressure switch stops the pump");
  v.given("time_out_s", l.time_out, spec::positive("Time-out", Kind::time, 600));
  v.choice("release", l.release, Names(release_names), "Without power it falls by");
  v.flag("signals_apart", l.signals_apart, "Lamps and horn on a breaker of their own");
  v.flag("breaker_trips", l.breaker_trips, "The motor's breaker trips when it stalls");
  v.choice("horn", l.horn, Names(horn_names), "Horn when not down and");
  v.given("throttle_back", l.throttle_back,
          spec::between("Throttle counts as back below", Kind::share, 0, 1));
  v.choice("door_order", l.door_order, Names(door_order_names), "Doors and legs follow");
  v.flag("door_pairs", l.door_pairs, "Two open switches on each door, in series");
  v.choice("lamps", l.lamps, Names(lamp_names), "Lamps");
}

template <class V, Of<Throttle> T>
void describe(V& v, T& t) {
  v.choice("at", t.at, Names(throttle_names), "Throttled");
  v.given("bore_m", t.bore, spec::positive("Bore of the restrictor", Kind::bore, 0.05));
  v.given("coefficient", t.coefficient, spec::between("Its discharge coefficient", Kind::factor, 0.3, 1));
  v.given("widest_m", t.widest, spec::positive("Can be opened to", Kind::bore, 0.05));
}

template <class V, Of<Pipe> T>
void describe(V& v, T& p) {
  v.text("name", p.name, "Pipe");
  v.text("leg", p.leg, "Serves the leg");
  v.choice("side", p.side, Names(pipe_side_names), "Side");
  v.given("length_m", p.length, spec::size("Length", 30));
  v.given("bore_m", p.bore, spec::positive("Bore", Kind::bore, 0.05));
  v.flag("in_cabin", p.in_cabin, "Through the cockpit");
}

template <class V, Of<PipeFitting> T>
void describe(V& v, T& f) {
  v.text("name", f.name, "Fitting");
  v.choice("kind", f.kind, Names(fitting_names), "It is");
  v.choice("side", f.side, Names(pipe_side_names), "Side");
  v.choice("branch", f.way, Names(branch_names), "Its branch");
  v.given("height_m", f.height, spec::place("Sits at waterline"));
  v.flag("in_cabin", f.in_cabin, "In the cockpit, with fluid in it");
}

template <class V, Of<Hydraulics> T>
void describe(V& v, T& h) {
  v.given("pump_flow_m3_per_s", h.pump_flow, spec::positive("Pump's flow against nothing", Kind::flow, 0.01));
  v.given("loaded_flow_m3_per_s", h.loaded_flow, spec::not_negative("Its flow under load", Kind::flow, 0.01));
  v.given("loaded_pressure_Pa", h.loaded_pressure, spec::positive("At the pressure", Kind::pressure, 1e8));
  v.given("pump_voltage_V", h.pump_voltage, spec::positive("Measured at the voltage", Kind::voltage, 400));
  v.given("down_speed", h.down_speed, spec::between("Pump's speed going down", Kind::share, 0.1, 1));
  v.object("up", h.up, "Going up");
  v.object("down", h.down, "Going down");
  v.choice("split", h.split, Names(split_names), "Legs share the flow by");
  v.flag("checks", h.checks, "A check valve in each leg's branch");
  v.given("density_kg_per_m3", h.density, spec::between("Density of the fluid", Kind::density, 600, 1300));
  v.given("bulk_modulus_Pa", h.bulk_modulus,
          spec::between("Bulk modulus of fluid with its hoses", Kind::stress, 1e6, 5e9));
  v.given("cut_out_Pa", h.cut_out, spec::positive("Pressure switch opens at", Kind::pressure, 1e8));
  v.given("cut_in_Pa", h.cut_in, spec::positive("And closes again at", Kind::pressure, 1e8));
  v.given("relief_Pa", h.relief, spec::positive("Relief valve opens at", Kind::pressure, 1e8));
  v.given("rated_Pa", h.rated, spec::positive("Weakest part is rated for", Kind::pressure, 1e8));
  v.given("wanted_up_s", h.wanted_up, spec::positive("Time wanted going up", Kind::time, 600));
  v.given("wanted_down_s", h.wanted_down, spec::positive("Time wanted going down", Kind::time, 600));
  v.given("trapped_volume_m3", h.trapped_volume, spec::positive("Fluid trapped, gear up", Kind::volume, 0.1));
  v.given("test_fall_Pa", h.test_fall, spec::not_negative("Pressure lost on the bench", Kind::pressure, 1e8));
  v.given("test_time_s", h.test_time, spec::positive("In a time of", Kind::time, 1e6));
  v.given("cycles_apart_s", h.cycles_apart,
          spec::positive("Pump came on in the cruise every", Kind::time, 1e6));
  v.list("pipes", h.pipes, "Pipes", 60);
  v.list("fittings", h.fittings, "Fittings", 60);
}

template <class V, Of<AirTube> T>
void describe(V& v, T& t) {
  v.text("name", t.name, "Tube");
  v.text("leg", t.leg, "Serves the leg");
  v.choice("side", t.side, Names(pipe_side_names), "Side");
  v.given("length_m", t.length, spec::size("Length", 30));
  v.given("bore_m", t.bore, spec::positive("Bore", Kind::bore, 0.05));
}

template <class V, Of<AirSupply> T>
void describe(V& v, T& a) {
  v.given("bottle_m3", a.bottle, spec::positive("Bottle's volume", Kind::volume, 0.1));
  v.given("filled_Pa", a.filled, spec::positive("Filled to, gear down", Kind::pressure, 3e7));
  v.given("regulated_Pa", a.regulated, spec::positive("Regulator passes up to", Kind::pressure, 3e7));
  v.given("outside_Pa", a.outside, spec::between("Pressure of the air outside", Kind::pressure, 3e4, 1.2e5));
  v.given("rated_Pa", a.rated, spec::positive("Weakest part is rated for", Kind::pressure, 3e7));
  v.given("valve_bore_m", a.valve_bore, spec::positive("Valve's narrowest bore", Kind::bore, 0.05));
  v.given("up_bore_m", a.up_bore, spec::positive("Restrictor where air leaves, going up", Kind::bore, 0.05));
  v.given("down_bore_m", a.down_bore, spec::positive("The same going down", Kind::bore, 0.05));
  v.given("coefficient", a.coefficient, spec::between("Flow coefficient of these", Kind::share, 0.3, 1));
  v.given("wanted_cycles", a.wanted_cycles,
          spec::between("Cycles wanted from a filling", Kind::factor, 1, 99));
  v.given("wanted_up_s", a.wanted_up, spec::positive("Time wanted going up", Kind::time, 600));
  v.given("wanted_down_s", a.wanted_down, spec::positive("Time wanted going down", Kind::time, 600));
  v.given("test_fall_Pa", a.test_fall, spec::not_negative("Pressure lost on the bench", Kind::pressure, 3e7));
  v.given("test_time_s", a.test_time, spec::positive("In a time of", Kind::time, 1e7));
  v.given("wait_s", a.wait, spec::not_negative("Waits between filling and flying", Kind::time, 1e7));
  v.list("tubes", a.tubes, "Tubes", 60);
}

template <class V, Of<RoutePoint> T>
void describe(V& v, T& r) {
  v.object("at", r.at, "Passes");
}

template <class V, Of<Feed> T>
void describe(V& v, T& f) {
  v.text("name", f.name, "Lead");
  v.text("actor", f.actor, "Feeds");
  v.given("running_A", f.running, spec::positive("Runs with", Kind::current, 1000));
  v.given("stall_A", f.stall, spec::positive("Stalled", Kind::current, 3000));
  v.given("inrush_A", f.inrush, spec::not_negative("Starting with", Kind::current, 3000));
  v.given("inrush_time_s", f.inrush_time, spec::not_negative("For a time of", Kind::time, 10));
  v.given("voltage_needed_V", f.voltage_needed, spec::positive("Voltage it needs", Kind::voltage, 400));
  v.given("length_m", f.length, spec::size("Length one way", 50));
  v.given("section_m2", f.section, spec::positive("Conductor", Kind::section_area, 1e-3));
  v.given("extension_m", f.extension, spec::not_negative("Of it extension leads", Kind::length, 50));
  v.given("connectors", f.connectors, spec::not_negative("Connectors on the way", Kind::factor, 50));
  v.given("connector_resistance_ohm", f.connector_resistance,
          spec::not_negative("Each of them", Kind::resistance, 1));
  v.given("fuse_A", f.fuse, spec::positive("Fuse or breaker", Kind::current, 1000));
  v.flag("by_relay", f.heavy_by_relay, "Switched by a relay beside it");
  v.flag("reversed", f.reversed, "Its channel is reversed");
  v.choice("signal_lost", f.lost, Names(signal_lost_names), "Without signal it");
  v.given("diameter_m", f.diameter, spec::size("Cable, over all", 0.05));
  v.given("channel_m", f.channel, spec::size("Channel cut for it", 0.2));
  v.given("slack_m", f.slack, spec::not_negative("Slack where it crosses to the leg", Kind::length, 3));
  v.given("slack_needed_m", f.slack_needed, spec::not_negative("Slack the move takes", Kind::length, 3));
  v.object("clip_airframe", f.clip_airframe, "Its last clip on the airframe");
  v.object("clip_leg", f.clip_leg, "Its first clip on the leg, down");
  v.list("route", f.route, "Its way", 40);
}

template <class V, Of<Electrics> T>
void describe(V& v, T& e) {
  v.given("voltage_V", e.voltage, spec::positive("Battery's voltage", Kind::voltage, 400));
  v.given("lowest_voltage_V", e.lowest_voltage, spec::positive("At its lowest", Kind::voltage, 400));
  v.given("resistance_ohm", e.resistance,
          spec::not_negative("Resistance of battery and its leads", Kind::resistance, 10));
  v.given("supply_current_A", e.supply_current,
          spec::positive("Battery, regulator or main fuse gives", Kind::current, 3000));
  v.given("standing_A", e.standing, spec::not_negative("Drawn all the time", Kind::current, 1000));
  v.list("feeds", e.feeds, "Leads", 60);
}

template <class V, Of<Circuit> T>
void describe(V& v, T& c) {
  v.object("hydraulics", c.hydraulics, "Hydraulics");
  v.object("air", c.air, "Air");
  v.object("electrics", c.electrics, "Electrics");
}

}  // namespace kranich
