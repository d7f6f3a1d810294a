// SPDX-License-Identifier: GPL-3.0-or-later
//! The placement map: main-axle station across, height of the CG above the ground (or track) up, every limit
//! of Place a named boundary in it, and what keep-outs put out of reach. Only the mains' station and the
//! legs' length (alike on all legs) or the track change over the map. Where two lines of wheels share the
//! weight by the lever, legs and tyres give as the shares move between them; elsewhere their closures stay as
//! they are at rest. A point of the map is one closed evaluation; the design's own place agrees with the
//! checks.
#pragma once

#include <Eigen/Core>
#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/assess/loading_state.h"
#include "core/assess/place_rules.h"
#include "core/base/field_map.h"

namespace kranich {

enum class MapUp { cg_height, track };

//! A check at one point of the map, its worst over the flown loadings.
struct MapFinding {
  std::string_view measure;
  double value, lower, upper;
  std::string loading;
  bool fails;
};

struct MapBoundary {
  std::string_view measure;
  bool upper;  //!< the upper limit of the measure, not the lower
  double limit;
  //! Each runs so that what fails lies to its left, x to the right and y up.
  std::vector<std::vector<Eigen::Vector2d>> curves;
  bool out_of_reach;  //!< no point of it can be reached before a keep-out stops the unit
};

//! Stations that the unit cannot take.
struct MapBlocked {
  std::string name;
  double from, to;
};

struct PlacementMap {
  MapArea area;
  Eigen::Vector2d here;  //!< the design
  std::vector<MapBoundary> boundaries;
  std::vector<float> margin;  //!< worst margin fraction at each node, row by row from below; < 0 fails
  std::vector<MapBlocked> blocked;
  double reach_low, reach_high;   //!< stations within which nothing stops the unit; infinite where open
  std::vector<MapPolygon> clear;  //!< within reach and no limit violated, in convex pieces, anticlockwise
  std::vector<MapPolygon> easy;   //!< the part of it that keeps a tenth of every limit in hand
  //! Whether the design lies in the clear; if not, the point of it that is nearest (in shares of the area's
  //! width and height).
  bool in_the_clear = false;
  std::optional<Eigen::Vector2d> nearest;
};

//! Evaluates points of a design's map.
class MapModel {
 public:
  //! `loading`: whose CG height stands on the axis. Not ok() where nothing flown stands on its wheels.
  MapModel(const Design& design, const Assessment& assessment, const std::string& loading, MapUp up);
  bool ok() const { return !ways_.empty(); }
  Eigen::Vector2d here() const { return here_; }
  //! The checks at a point, each at the loading where it is worst.
  std::vector<MapFinding> at(double x, double y) const;
  PlacementMap map(const MapArea& area) const;
  //! Whether nothing stops the unit between two stations.
  bool can_stand(double from, double to) const;
  //! What of a convex piece of the map the unit can reach.
  std::vector<MapPolygon> reachable(const MapPolygon& piece) const;
  //! An area round the design in which the boundaries lie.
  MapArea usual_area() const;

 private:
  //! How legs and tyres of a line of wheels give as it carries a multiple of what it carries at rest: further
  //! than there, the mean of its wheels, in even steps from nothing to `most` times.
  struct Give {
    static constexpr int steps = 120;
    static constexpr double most = 3;
    std::array<double, steps + 1> rise{}, squash{};  //!< of the axle, of the tyre, m
    struct At {
      double rise, squash;
    };
    At at(double ratio) const;
  };
  struct Way {
    Standing standing;
    double mass;
    std::string loading;
    std::vector<Give> give;  //!< of the third line and the mains; empty where more than the lever decides
  };
  void give_way(const Way& way, Standing& s) const;
  static std::vector<Give> give_of(const Design& design, const Assessment& assessment,
                                   const LoadingState& loading, const Standing& standing);
  Standing moved(const Way& way, double x, double y) const;
  PlaceRules rules_;
  std::vector<Way> ways_;
  Eigen::Vector2d here_{0, 0};
  MapUp up_;
  double base_ = 1;  //!< wheelbase
  std::vector<MapBlocked> blocked_;
  double reach_low_, reach_high_;
};

//! The change of a design that goes from its place in the map to another.
void move_on_map(Design& design, MapUp up, double dx, double dy);

}  // namespace kranich
