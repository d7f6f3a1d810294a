// SPDX-License-Identifier: GPL-3.0-or-later
//! How long each leg takes: what is entered, what its drive computes, and what Sequence, Logic and Circuit
//! count with. s.
#pragma once

#include "core/assess/assess.h"
#include "core/sequence/sequence.h"

namespace kranich {

//! The legs that retract, worked out once for an assessment. A motor or an actuator: with the battery full
//! and at its lowest (driven_times). A cylinder on the pump: against its true load, the slower and the
//! quicker of in the air and on jacks, the battery full and at its lowest; where nothing is told of the pump,
//! as its own flow fills it. Air: from a full bottle, and in the last cycle that is wanted of it. Nothing is
//! computed of a leg that would not arrive.
const sequence::Times& leg_times(const Design& design, Assessment& assessment);

}  // namespace kranich
