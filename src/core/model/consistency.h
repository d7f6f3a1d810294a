// SPDX-License-Identifier: GPL-3.0-or-later
//! Rules that hold a Design together: what each number, text and list may be (from the one description), and
//! the relations between fields. The reader refuses a file that breaks them, Document::edit a change; so that
//! whatever the window can make can be saved and opened again.
#pragma once

#include <functional>
#include <string>
#include <variant>
#include <vector>

#include "core/model/design.h"

namespace kranich {

//! One thing wrong with a project: where, what was found, what is allowed.
struct Fault {
  std::string where;       //!< "/gear/legs/0/axle/x_m", or "line 12, column 5"
  std::string what;        //!< "must be above 0 m, is -1"
  std::string title = {};  //!< how the field is called on the screen; empty where it has no name there
};

//! Everything that would keep the design from being opened again once it is saved: numbers and tolerances out
//! of their range, texts and lists too long, names empty or doubled where a name tells things apart, loadings
//! that take aboard what is no load.
std::vector<Fault> inconsistencies(const Design& design);
//! The relations alone: what no single field's limits can express.
std::vector<Fault> relation_faults(const Design& design);

//! Lets a change's consequences follow: what refers to a renamed item, loading, door, tube or material is
//! renamed with it; what refers to an item or door that is gone, or to an item that is no load any more, goes
//! too.
void follow(const Design& before, Design& after);

//! A design after a change and all that follows from it, or why the change cannot stand.
std::variant<Design, std::vector<Fault>> changed(const Design& before,
                                                 const std::function<void(Design&)>& change);

}  // namespace kranich
