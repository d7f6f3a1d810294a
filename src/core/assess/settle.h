// SPDX-License-Identifier: GPL-3.0-or-later
//! What follows from other entries and yet stands among them: kept true after every change and every reading.
#pragma once

#include "core/model/design.h"

namespace kranich {

//! How far a leg's wheel may rise, the aircraft level and that tyre flat, until the lowest point of the
//! airframe is on the ground (m); infinite where none is known or none lies above it.
double rise_to_belly(const Design& design, const Leg& leg);

//! Whether the belly ends a bending leg's travel, before the leg would take a set.
bool belly_ends_travel(const Design& design, const Leg& leg);

//! Travel of legs that bend (force::settle_travel). True where it changed anything.
bool settle(Design& design);

}  // namespace kranich
