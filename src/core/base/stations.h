// SPDX-License-Identifier: GPL-3.0-or-later
//! The stations, in the order of work. One line a station; all else that knows them follows from it: the
//! enum, its titles and ids, the rail of the window, the command line, the assessment. A new one is a line
//! here, and in a folder of its own
//!   void assess_<id>(const Design&, Assessment&, Collector&, const Asked&)   in assess/
//!   StationPage* make_<id>_page(Document&)                                   in the application
//! without which it does not link.
#pragma once

#include <string_view>

//! S(id, title, the stations whose results it builds on). Leg: what outriggers must bear comes from Stance,
//! load cases from the landing; Drive holds a unit against the leg's. Sequence: where doors are in the leg's
//! way from Doors.
#define KRANICH_STATIONS(S)                                                                                  \
  S(weigh, "Weigh", 0u)                                                                                      \
  S(place, "Place", 0u)                                                                                      \
  S(stance, "Stance", 0u)                                                                                    \
  S(spring, "Spring", 0u)                                                                                    \
  S(leg, "Leg", station_bit(Station::stance) | station_bit(Station::spring))                                 \
  S(swing, "Swing", 0u)                                                                                      \
  S(drive, "Drive", station_bit(Station::leg) | station_bit(Station::stance) | station_bit(Station::spring)) \
  S(steer, "Steer", 0u)                                                                                      \
  S(doors, "Doors", 0u)                                                                                      \
  S(sequence, "Sequence", station_bit(Station::doors))                                                       \
  S(logic, "Logic", station_bit(Station::doors) | station_bit(Station::drive))                               \
  S(circuit, "Circuit", station_bit(Station::doors) | station_bit(Station::sequence))                        \
  S(bench, "Bench", 0u)

namespace kranich {

#define KRANICH_STATION(id, title, uses) id,
enum class Station { KRANICH_STATIONS(KRANICH_STATION) };
#undef KRANICH_STATION

#define KRANICH_STATION(id, title, uses) +1
inline constexpr int station_count = 0 KRANICH_STATIONS(KRANICH_STATION);
#undef KRANICH_STATION

constexpr unsigned station_bit(Station station) { return 1u << static_cast<unsigned>(station); }

//! "Weigh", "Place", ... in the order of work.
std::string_view station_title(Station station);
//! "weigh", "place", ...: the prefix of the measures' ids.
std::string_view station_id(Station station);

}  // namespace kranich
