// SPDX-License-Identifier: GPL-3.0-or-later
//! Readings in words and from words: what one should say, what was typed, what is wrong with an entry before
//! it is written. Screen, bench view, paper and report all ask here.
#pragma once

#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/tasks/progress.h"

namespace kranich::tasks {

//! An amount in a reading's unit: "12.4 mm", "3 %", "5".
Text amount_of(double si, const ReadingUnit& unit);
//! A reading as it was entered.
Text said(const Read& read);
//! What a reading should say: "12.4° ± 0.3°", "at most 1 mm", "yes"; empty where nothing is foretold.
Text should_read(const Reading& reading, const Foretold& foretold);

//! A reading from what a builder typed, or what is wrong with it. Nothing typed is no reading: ask first.
std::variant<Read, std::string> understood(const Reading& reading, std::string_view typed, UnitSystem units);

//! A plain number that an entry asks for (hours, landings), or what is wrong with it: "cost must be a number
//! from 0 to 1000000, is …".
std::variant<double, std::string> understood_number(std::string_view what, std::string_view typed, double low,
                                                    double high, bool whole = false);

//! An entry's heading: "stand.load · done", "part changed: tyre".
Text heading_of(const Entry& entry);
//! What it says besides, one thing after the other: readings, what changed, landings, choice, reason, note,
//! hours, cost. A reading outside its tolerance says so.
std::vector<Text> told(const Entry& entry);

//! What an entry lacks before it may be written for a box; empty: nothing. A tick before its gates, setting
//! aside and keeping want a reason, a choice a side, what is judged its readings.
Text lacks(const Box& box, const Entry& entry);

}  // namespace kranich::tasks
