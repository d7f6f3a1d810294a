// SPDX-License-Identifier: GPL-3.0-or-later
//! A leg to drop, for tests and benchmarks.
#pragma once

#include "core/spring/drop.h"

namespace kranich {

//! A light aircraft's oleo with stops at both ends of its travel, on a linear tyre.
inline spring::DropModel oleo() {
  spring::DropModel m;
  m.sprung_mass = 180;
  m.unsprung_mass = 9;
  m.lift_ratio = 2.0 / 3;
  m.spring.kind = force::LegLaw::Kind::gas;
  m.spring.piston_area = m.damper.oil_area = 0.0011;
  m.spring.pressure = 6e5;
  m.spring.ambient = 101325;
  m.spring.volume = 0.00026;
  m.spring.exponent = 1.3;
  m.spring.travel = m.travel = 0.19;
  m.damper.orifice_closing = 3.4e-5;
  m.damper.orifice_extending = 2e-5;
  m.bottom_stop = 5e5;
  m.tyre.rate = 150000;
  return m;
}

}  // namespace kranich
