// SPDX-License-Identifier: GPL-3.0-or-later
//! How long work tells what it has done, and learns that it is not wanted any more.
#pragma once

#include <functional>

namespace kranich {

//! Called with the share done, 0 to 1; false calls the work off. An empty one: work to the end.
using Progress = std::function<bool(double)>;

}  // namespace kranich
