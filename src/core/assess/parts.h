// SPDX-License-Identifier: GPL-3.0-or-later
//! Checks of single parts that stand beside a station's main ones: what a spring and a leg are made of.
#pragma once

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/landing_state.h"
#include "core/leg/structure.h"
#include "core/stance/stance.h"

namespace kranich {

//! Tubes of a strut that is made, the mount of a bow, the spring wire across, the hole that takes a wire, the
//! rate that a hinged leg's spring needs. `wheel` as the leg stands extended, `state` of it at rest.
void spring_parts(const Design& d, const Leg& leg, const stance::WheelOnLeg& wheel,
                  const stance::WheelState& state, const LegLanding& landing, Collector& collect);
//! Plies by the rule of thumb, or by the bows that were flown.
void bow_by_experience(const Design& d, const Leg& leg, double aircraft_mass, Collector& collect);

//! Two parts that go into one another: together, and without rattling. Files leg.fit about what is set
//! already.
void judge_fit(double pin, double bore, Text pin_word, Text bore_word, Collector& collect);

//! What of a leg needs no load case: the length that governs, the air's drag on it, landings counted.
void leg_parts(const Design& d, const Leg& leg, Collector& collect);
//! What does: twist of its mount, pull tests of bought mounts, the notch it lies in, what a post is worth.
void loaded_parts(const Design& d, const Leg& leg, const std::vector<leg::LoadCase>& cases,
                  const leg::Structure& structure, Collector& collect);

//! What the reinforcement asks of the resin.
void lay_up_time(const Design& d, Collector& collect);

//! What a plate is taken to be of: its entry names the adhesive.
inline constexpr std::string_view plate_material = "birch plywood";

//! The number that goes to the bench: from where the leg is held to its axle or shoulder, m. NaN where it is
//! not known.
double governing_length(const Leg& leg);
//! Area that a leg's drag is that of at a drag coefficient of one, m², one leg, in a stream from the front.
//! NaN where its section is not known. Coefficients on the frontal area: round 1.1, streamlined 0.10, a
//! rectangle edge on 1.0. Source: light-aircraft design texts.
double drag_area(const Leg& leg, const std::vector<Material>& own);

}  // namespace kranich
