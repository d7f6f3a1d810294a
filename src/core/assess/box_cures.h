// SPDX-License-Identifier: GPL-3.0-or-later
//! What a builder does about a box that times the sequence: another from the shelf, chained to a second one,
//! an output or a reverser more.
#pragma once

#include <vector>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"
#include "core/sequence/shelf_box.h"

namespace kranich {

class Collector;

//! The part of Sequence that is about boxes.
void assess_boxes(const Design& design, const Assessment& assessment, Collector& collect);
std::vector<KnobRef> box_swaps(const Design& design, const std::vector<sequence::ShelfBox>& shelf,
                               const Finding& finding);
//! A box of the shelf in a box's place: what hangs on it stays.
void take(SequencerBox& box, const sequence::ShelfBox& from);

}  // namespace kranich
