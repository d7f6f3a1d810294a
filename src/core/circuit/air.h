// SPDX-License-Identifier: GPL-3.0-or-later
//! Cylinders worked by air from a bottle: what each way takes out of it, how long a way lasts and how hard it
//! ends. Air as an ideal gas that keeps the temperature of what is round it (a way lasts a second or more,
//! and metal is near); holes as nozzles, choked where the pressure behind is below 0.53 of that before. SI;
//! all pressures here are absolute. Source: gas law; ISO 6358's form of the flow; handbook, Drive and
//! Circuit.
#pragma once

#include <functional>
#include <limits>
#include <vector>

namespace kranich::circuit {

inline constexpr double room_temperature = 288.15;  //!< K
inline constexpr double air_constant = 287.05;      //!< J/(kg·K)

//! What the cylinders are fed from.
struct Bottle {
  double volume;                                               //!< with what is always open to it
  double ambient;                                              //!< what empties itself empties to this
  double regulated = std::numeric_limits<double>::infinity();  //!< no more passes to the cylinders
  bool operator==(const Bottle&) const = default;
};

//! Pressure in the bottle after it has filled a volume in which there was the ambient: as much as goes in, up
//! to where both are level or the regulator shuts.
double bottle_after(const Bottle& bottle, double pressure, double volume);
//! In the cylinders then.
double behind_regulator(const Bottle& bottle, double pressure);

//! Energy a second, p·V̇, that passes a hole from one pressure to another, or back (negative): ṁ·R·T.
//! `area` is of the hole times its coefficient.
double air_flow(double area, double from, double to);

//! A double-acting cylinder's way against its leg, from one end of the travel to the other.
struct AirWay {
  double area_in,
      area_out;  //!< of the piston: where air goes in (0: nothing pushes this way), where it goes out
  double dead_in, dead_out;  //!< tubes and ends that are filled without moving anything, m3
  double hole_in, hole_out;  //!< narrowest on the way in and out, times its coefficient
  double supply, ambient;
  double left_in;                        //!< in the side that comes out, when the valve is thrown
  double travel;                         //!< of the leg, rad
  double inertia;                        //!< of the leg about its axis
  std::function<double(double)> stroke;  //!< of the cylinder at a share of the travel, growing
  std::function<double(double)> arm;     //!< d stroke / d turn there, above zero
  std::function<double(double)>
      resists;  //!< torque against the motion there, friction in it; negative: it drives
};
struct AirSample {
  double time, share;  //!< of the travel
  double in, out;      //!< pressures where air goes in and out; NaN where there is no air
};
struct AirRun {
  double time;            //!< +∞ where it stops on the way
  double stops_at;        //!< share of the travel; 1: it arrives
  double arrival_speed;   //!< rad/s
  double least_pressure;  //!< where air goes in, once it moves: below the ambient the leg draws it in
  double starts;          //!< after the valve was thrown
  std::vector<AirSample> samples;
  //! At any time, straight between samples; before and after as at the ends.
  AirSample at(double time) const;
};
//! Follows it from rest. Whoever stands goes on once pressure has come up; it is given up after `longest`.
AirRun air_run(const AirWay& way, double longest = 60);

}  // namespace kranich::circuit
