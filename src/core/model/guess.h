// SPDX-License-Identifier: GPL-3.0-or-later
//! What a guess takes along: numbers that were guessed without a half-range follow the one that they were
//! guessed from.
#pragma once

#include <string_view>

#include "core/model/design.h"

namespace kranich {

//! A number that follows: guessed, without a half-range of its own.
inline bool follows_a_guess(const Given& g) { return g.origin == Origin::guessed && g.tolerance == 0; }

//! Moves what follows a leg's axle fore and aft and sideways (m, as the leg is stored): its upper end, its
//! pivot, its well and the fairing about that, as far as they are guesses that follow.
void carry_guessed_leg(Design& design, size_t row, double dx, double dy);

//! Does so for every leg whose axle was a guess and was moved while the rest of the leg stayed.
void carry_guesses(const Design& before, Design& after);

//! The same for the one number at a path that was a guess and has been changed by `by`; nothing happens where
//! the path is none of an axle's.
void carry_from(Design& design, std::string_view path, double by);

}  // namespace kranich
