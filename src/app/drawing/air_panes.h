// SPDX-License-Identifier: GPL-3.0-or-later
//! The circuit where air moves the legs: bottle, valve and cylinders lit by their pressure, what is left in
//! the bottle stroke by stroke, pressures over a leg's travel, legs over time. Drawn into Circuit's panes.
#pragma once

#include "app/drawing/circuit_panes.h"

namespace kranich::app {

//! What air comes to; null where no leg is moved by it, or one moves on oil.
const AirState* shown_air(const Document& document);
//! A way in time, as the last of the cycles wanted; null where it is not known.
const AirState::Followed* followed_way(const AirState& air, const std::string& leg, bool up);

void draw_air_circuit(Sheet& sheet, const Document& document, const CircuitView& view);
void draw_air_cylinder(Sheet& sheet, const Document& document, const CircuitView& view);
void draw_air_legs(Sheet& sheet, const Document& document, const CircuitView& view);

}  // namespace kranich::app
