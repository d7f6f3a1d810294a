// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/measure.h"

#include <algorithm>
#include <array>
#include <stdexcept>
#include <string>

namespace kranich {
namespace {

using enum Station;

constexpr std::string_view texts = "light-aircraft design texts";
constexpr std::string_view geometry = "geometry";
constexpr std::string_view oil = "handbook, Hydraulics; quasi-static";
constexpr std::string_view plumbing = "handbook, Hydraulics, plumbing";
constexpr std::string_view air = "gas law at one temperature; handbook, Drive and Circuit";
constexpr std::string_view wires = "handbook, Electrics";
constexpr std::string_view proof = "handbook, Logic; proved over the machine as it is wired";

const std::array registry{
    // --- Weigh ---
    Measure{"weigh.mass", weigh, "Mass", Kind::mass, "All that is aboard, added up.", "m = Σ mᵢ",
            "ledger; the limit is the designer's"},
    Measure{"weigh.cg_station", weigh, "CG, gear down", Kind::length,
            "Station of the centre of gravity with the gear down.", "x = Σ mᵢ·xᵢ / m",
            "ledger; the limits are the designer's"},
    Measure{"weigh.cg_station_up", weigh, "CG, gear up", Kind::length,
            "Station of the centre of gravity with the gear stowed: it must stay in the range too.",
            "Δx = Σ m_leg·(x_stowed − x_down) / m", "ledger and swing"},
    Measure{"weigh.cg_waterline", weigh, "CG height", Kind::length,
            "Waterline of the centre of gravity, gear down.", "z = Σ mᵢ·zᵢ / m", "ledger"},
    Measure{"weigh.cg_mac", weigh, "CG on the mean chord", Kind::share,
            "Where the CG lies on the wing's mean aerodynamic chord.", "(x − x_LE,mac) / c̄",
            "ledger and wing"},
    Measure{"weigh.estimated_share", weigh, "Still estimated", Kind::share,
            "How much of the mass is estimated, not weighed.", "Σ m_estimated / m", "ledger"},
    Measure{"weigh.scales_mass", weigh, "Scales less ledger, mass", Kind::mass,
            "What the scales say beyond the ledger, same loading. A difference is shown, never scaled away.",
            "Σ(Rᵢ − tareᵢ) − m", "weighing; 1 % of the mass is what bathroom and platform scales agree to",
            1},
    Measure{"weigh.scales_cg", weigh, "Scales less ledger, CG", Kind::length,
            "CG station from the scales less the ledger's.", "ΣRᵢ·xᵢ/ΣRᵢ − x",
            "weighing; half a per cent of the wheelbase", 0.02},
    Measure{"weigh.cg_side", weigh, "CG off the centre line", Kind::length,
            "Side offset of the centre of gravity, starboard positive: the aircraft leans that way.",
            "y = Σ mᵢ·yᵢ / m", "ledger", 0.02},
    Measure{"weigh.cg_foremost", weigh, "CG, foremost of all loadings", Kind::length,
            "The foremost CG that any mix of people, fuel, bags and sliding items can give.",
            "least Σ mᵢ·xᵢ / Σ mᵢ over what may be aboard and where it may slide",
            "every combination; what is aboard in every flown loading stays aboard"},
    Measure{"weigh.cg_aftmost", weigh, "CG, aftmost of all loadings", Kind::length,
            "The aftmost CG that any mix of people, fuel, bags and sliding items can give.",
            "greatest Σ mᵢ·xᵢ / Σ mᵢ over what may be aboard and where it may slide",
            "every combination; what is aboard in every flown loading stays aboard"},
    Measure{"weigh.tray_ends", weigh, "Ends of a slide that are judged", Kind::factor,
            "Of what slides aboard to trim: how many of the two ends of its way a flown loading stands at. "
            "Where wheels "
            "stand has to satisfy both.",
            "counted", "practice: both extremes, not the middle", 1},
    Measure{"weigh.empty_mass", weigh, "Empty mass against target", Kind::mass,
            "Empty mass as it stands, weighed and estimated together, against what it was designed to weigh.",
            "Σ mᵢ of all but the load", "the designer's target"},
    Measure{"weigh.tilt_height", weigh, "CG height by tilting", Kind::length,
            "Height of the CG above the ground, level, from scale readings level and with the nose raised; "
            "beside it what the ledger says.",
            "h′ = [W·a·cos θ − R·(L·cos θ − u·sin θ)] / (W·sin θ)",
            "weighing; below about 5° of tilt it is rubbish"},
    Measure{"weigh.parts", weigh, "Part taken over the lightest", Kind::mass,
            "Of the parts that could be taken for one place: how much heavier the one taken is than the "
            "lightest.",
            "n·m − least n·m", "mass times number", 0.1},
    // --- Place, both ---
    Measure{"place.propeller_static", place, "Propeller clearance, static", Kind::length,
            "Propeller tip above the ground, aircraft level, springs carrying the weight.",
            "lowest point of the disc", "certification practice (full size); share of the diameter (models)"},
    Measure{"place.propeller_bottomed", place, "Propeller clearance, bottomed", Kind::length,
            "The same with every leg at its stop.", "lowest point of the disc",
            "certification practice: some clearance must be left", 0.05},
    Measure{"place.propeller_flat", place, "Propeller clearance, bottomed and flat", Kind::length,
            "The same with every leg at its stop and the tyres flat.", "lowest point of the disc",
            "certification practice: some clearance must be left", 0.05},
    Measure{
        "place.propeller_nose_flat", place, "Propeller clearance, nose leg down", Kind::length,
        "Nose leg at its stop with its tyre flat, mains static: the aircraft pitches down about the mains.",
        "plane under both wheels", "certification practice: some clearance must be left", 0.05},
    Measure{"place.one_down", place, "Clearance, one leg down", Kind::length,
            "Least height of a propeller's tip or a low point with each leg in turn, and both of a line, at "
            "its stop "
            "with its tyre flat, the others carrying the weight.",
            "plane under three wheels, none below it, the CG between them",
            "certification practice: some clearance must be left", 0.05},
    Measure{"place.low_point", place, "Low point above ground", Kind::length,
            "A named point that may touch the ground: clearance at rest, legs bottomed and tyres flat.",
            "height above the ground", geometry, 0.05},
    Measure{
        "place.door_ground", place, "Open door above ground", Kind::length,
        "The lowest corner of a door that stays open when the gear is down: clearance at rest, legs bottomed "
        "and tyres flat.",
        "height above the ground", geometry, 0.05},
    Measure{"place.reference", place, "Mains from a reference edge", Kind::length,
            "How far the main axle stands behind an edge of the structure; negative: ahead of it.",
            "x_axle − x_edge", geometry, 0.05},
    Measure{"place.former", place, "Leg off its former", Kind::length,
            "How far a nose or tail leg is held from the nearest former that can take it.",
            "|x_leg − x_former|", "practice: a leg goes where there is, or can be, a former", 0.02},
    Measure{
        "place.leg_ends", place, "Leg ends apart", Kind::length,
        "From leg to leg at the axle: the overall width over the axle tips less what stands on each axle.",
        "width over tips − 2·(tip beyond the wheel + wheel from the leg)", geometry, 0.1},
    Measure{"place.axle_stack", place, "Axle stack off the wheel's offset", Kind::length,
            "Half the hub, spacers and brake stacked up, less how far the wheel stands from the leg.",
            "hub/2 + spacer + brake − offset", geometry, 0.01},
    Measure{"place.tyre_pressure", place, "Working pressure of the tyre", Kind::pressure,
            "Between the pressure at which a tenth of the tyre's section stays above the rim and the "
            "greatest that "
            "the wheel may have.",
            "load = p·2.3·√(w·D)·squash", "textbook tyre; the wheel's maker", 1e4},
    Measure{"place.wing_tip", place, "Wing tip in bank", Kind::length,
            "Clearance of the wing tip with the aircraft banked onto one main wheel by 5° (full size) or 8° "
            "(model).",
            "(z − z_ground)·cos φ − (|y| − t/2)·sin φ", geometry, 0.1},
    Measure{"place.wheel_size", place, "Main wheel against usual", Kind::factor,
            "Diameter of the main wheel over what light aircraft of this load, or models of this mass, "
            "usually have.",
            "D / (1.51·W^0.349 in, W in lbf)", "textbook regression; starting points for models"},
    Measure{"place.wheel_obstacle", place, "Wheel against the field's bumps", Kind::share,
            "Tallest bump or grass over the radius of the smallest wheel: an obstacle taller than a third of "
            "the radius stops the wheel.",
            "bump / (D/2)", "practice"},
    Measure{"place.ground_pressure", place, "Ground pressure", Kind::pressure,
            "What the tyre puts on the ground: its own pressure, or load over its patch.",
            "p, or F / (2.3·√(w·D)·squash)",
            "firm turf below 350 kPa, soft below 200 kPa, sand below 150 kPa"},
    Measure{"place.tyre_left", place, "Tyre left above the rim", Kind::share,
            "Section height left under the static load.", "(R − R_rim) / (D/2 − R_rim)",
            "textbook: at least a tenth"},
    Measure{"place.fork_gap", place, "Tyre to fork and leg", Kind::length,
            "Room round the tyre at rest: a fork that only just clears rubs in a turn.", "measured gap",
            "5 mm (model 1 mm) or 2 % of the diameter, the larger"},
    Measure{
        "place.fork_under_way", place, "Tyre to fork under way", Kind::length,
        "What is left to each side of the tyre in its fork when it has grown, bulges under its load and its "
        "bearings have play: rubbing that shows under some load only.",
        "(inside − w)/2 − growth − bulge − play", "it must not touch; half a millimetre of mud and wear",
        0.005},
    Measure{"place.access", place, "Room on the way out", Kind::length,
            "Least distance to what must not be touched as it goes straight out; negative: it does not pass.",
            "least gap of its box along the way", geometry, 0.01},
    Measure{"place.twin_gap", place, "Two wheels on an axle, room between", Kind::length,
            "What is left between two wheels on one axle after each tyre has grown towards the other.",
            "s − w − 2·growth", "a tyre's growth: 5 mm (model 1 mm) or 2 % of the diameter, the larger",
            0.01},
    Measure{"place.twin_flat", place, "One of two flat: rim left", Kind::length,
            "Height of the axle over the rim when the other tyre of the two carries all of the leg; "
            "negative: the "
            "rim runs on the ground and shares.",
            "R − squash(F) − R_flat", "one flat: the other carries all (tyre law)", 0.01},
    Measure{
        "place.keep_out", place, "Unit to its keep-outs", Kind::length,
        "How far the retract unit stands from spar, duct and ribs, fore and aft or sideways; negative: it "
        "runs into one.",
        "least gap of the unit's box along x or y", geometry, 0.01},
    Measure{"place.room_forward", place, "Room to move the mains forward", Kind::length,
            "How far the unit can go forward before a keep-out stops it.", "gap of the unit's box along x",
            geometry},
    Measure{"place.tipping", place, "Tips at, worst direction", Kind::in_g,
            "Least horizontal acceleration, or slope, that tips it over any edge of its wheels.",
            "(distance of the CG's ground point to the nearest edge) / h", "geometry of the support polygon"},
    Measure{"place.crosswind", place, "Side wind that tips it", Kind::speed,
            "Wind square from the side that lifts the windward wheel, standing, no lift, tyres gripping.",
            "½·ρ·V²·S·C_Y·z_s = W·d/cos δ", "moments about the tipping line"},
    Measure{"place.scale_wheel", place, "Wheel against scale", Kind::factor,
            "Main wheel's diameter over the full-size one's at scale.", "D / (D_full / s)", "scale school"},
    Measure{"place.scale_station", place, "Axle against scale place", Kind::length,
            "Main axle's station less the full-size one's at scale: the price of scale shows in the checks.",
            "x_m − x_full / s", "scale school"},
    Measure{"place.scale_track", place, "Track against scale", Kind::length,
            "Track less the full-size one's at scale.", "t − t_full / s", "scale school"},
    // --- Place, tricycle ---
    Measure{"place.tip_back", place, "Tip-back angle", Kind::angle,
            "How far the nose can rise about the main contacts before the CG stands over them. Too small: it "
            "sits on its tail. Too large: it will not rotate.",
            "β = atan((x_m − x_cg) / h)", texts},
    Measure{"place.tail_strike_static", place, "Tail-strike angle, landing", Kind::angle,
            "Nose-up angle at which the tail touches with the springs carrying the weight.",
            "(x − x_m)·sin θ = (z − R)·cos θ + R, least over the tail points", texts},
    Measure{"place.tail_strike_extended", place, "Tail-strike angle, rotation", Kind::angle,
            "The same with the mains extended, as at rotation.",
            "(x − x_m)·sin θ = (z − R)·cos θ + R, least over the tail points", texts},
    Measure{"place.nose_share", place, "Nose wheel's share", Kind::share,
            "Share of the weight on the nose wheel at rest. Too little steers badly; too much is heavy to "
            "rotate.",
            "R_n/W = (x_m − x_cg) / (x_m − x_n)", texts},
    Measure{"place.front_share", place, "Front mains' share", Kind::share,
            "Of tandem mains or four mains at the corners: the weight on the front line. More runs straight "
            "but does "
            "not rotate, and loads the front leg in braking; less steers weakly and skips.",
            "(x_r − x_cg)/(x_r − x_f), springs where more lines stand", texts},
    Measure{"place.mains_share", place, "Front mains' part of the mains' load", Kind::share,
            "Of four mains behind a nose leg: how much of what the mains carry stands on their front line.",
            "ΣF_front/ΣF_mains at rest", texts},
    Measure{"place.liftoff", place, "Flies off in its stance, over the stall speed", Kind::factor,
            "Where the elevator cannot lift the front mains: the speed at which the wing carries the weight "
            "in the "
            "attitude of the extended legs. Near the stall it flies off badly; far above it the run is long.",
            "√(C_Lmax/C_L), C_L = C_Lα·(α − α₀)", texts},
    Measure{"place.nose_share_braking", place, "Nose wheel's share, braking", Kind::share,
            "The same while the mains brake at 0.4 g: goes to the nose leg's strength.",
            "[(x_m − x_cg) + (a/g)·h] / (x_m − x_n)", texts},
    Measure{"place.turnover", place, "Turnover angle", Kind::angle,
            "How near it is to tipping over the line from nose wheel to one main wheel.",
            "δ = atan((t/2)/(x_m − x_n)); d = (x_cg − x_n)·sin δ − |y_cg|·cos δ; τ = atan(h/d)", texts},
    Measure{"place.rotation", place, "Rotation speed over stall speed", Kind::factor,
            "Speed at which full elevator lifts the nose wheel, over the stall speed. Late: it runs on, then "
            "pops up.",
            "q·B = W·(x_m − x_cg) + T·(z_T − h) + μ·W·h",
            "moments about the main contact; limits of practice"},
    Measure{"place.furthest_aft", place, "Mains could stand aft by", Kind::length,
            "How much further aft the main wheels could stand and still rotate at 1.05 of the stall speed.",
            "the rotation equation solved for x_m", "moments about the main contact"},
    Measure{"place.propeller_rotation", place, "Pusher propeller at rotation", Kind::length,
            "Clearance of a propeller behind the mains at the lift-off attitude.", "lowest point of the disc",
            geometry, 0.05},
    // --- Place, tailwheel ---
    Measure{"place.axle_ahead", place, "Axle-ahead angle", Kind::angle,
            "How far the main contact lies ahead of the CG, seen from the CG in the level attitude. Less: it "
            "noses over. More: heavy tail, ground-loops.",
            "α = atan((x_cg − x_m) / h), level", "classic texts"},
    Measure{"place.three_point", place, "Three-point angle", Kind::angle,
            "Pitch with all wheels on the ground.", "the plane that touches the round wheels",
            "classic texts: about the wing's stalling angle less its incidence"},
    Measure{"place.nose_over_three_point", place, "Nose-over, three-point", Kind::in_g,
            "Braking that lifts the tail from the three-point attitude.", "a/g = (CG behind contact) / h",
            "what brakes and ground can give: 0.5 with wheel brakes, half of that without"},
    Measure{"place.nose_over_level", place, "Nose-over, tail up", Kind::in_g,
            "What long grass or a rut may take with the tail up before it noses over.",
            "a/g = (CG behind contact) / h, level", "classic texts: a warning below 0.3", 1},
    Measure{"place.tail_share", place, "Tail wheel's share", Kind::share,
            "Share of the weight on the tail wheel, three-point.", "(x_cg − x_m) / (x_tw − x_m)",
            "classic texts"},
    Measure{"place.side_tip", place, "Sideways tip", Kind::in_g,
            "Sideways acceleration at which it tips over the line from tail wheel to one main wheel.",
            "d / (h·cos δ)", "classic texts: more than 0.5 g is comfortable"},
    Measure{"place.leading_edge", place, "Axle behind the leading edge", Kind::length,
            "The rule of thumb puts the axle near the wing's leading edge, level: right when the CG sits at "
            "25–30 % chord and the legs are about as long as usual. The axle-ahead angle decides.",
            "x_m − x_LE", "rule of thumb beside the angle"},
    // --- Stance ---
    Measure{"stance.wing_angle", stance, "Wing angle at rest", Kind::angle,
            "Angle of the wing's chord to the ground, standing on its springs.", "pitch + incidence",
            "the target is the builder's"},
    Measure{"stance.pitch", stance, "Pitch at rest", Kind::angle, "Pitch of the level reference, nose up.",
            "ΣF = W, ΣM = 0 on springs and tyres", "equilibrium"},
    Measure{"stance.roll", stance, "Roll at rest", Kind::angle, "Roll, starboard wing down.",
            "ΣF = W, ΣM = 0 on springs and tyres", "equilibrium"},
    Measure{
        "stance.third_load", stance, "Load on nose or tail wheel", Kind::force,
        "What the nose or tail wheel carries at rest; none left means that it sits down on the other end.",
        "ΣM = 0", "equilibrium", 1},
    Measure{"stance.upright", stance, "Stands by itself sideways", Kind::factor,
            "Roll stiffness of nose, tail and main wheels against the high CG. Below 1 it falls over; below "
            "1.5 it "
            "counts as lying on its outriggers.",
            "K_φ/(W·h′)", "statics"},
    Measure{"stance.lean", stance, "Lean on an outrigger, at rest", Kind::angle,
            "How far it leans that does not stand by itself: until an outrigger carries.", "equilibrium",
            "own"},
    Measure{"stance.outrigger_gap", stance, "Clear under an outrigger, upright", Kind::length,
            "An outrigger of an aircraft that stands by itself must not touch when it stands upright.",
            "geometry", "own", 0.02},
    Measure{"stance.outrigger_share", stance, "Outrigger's share at rest", Kind::share,
            "Outriggers steady, they must not carry.", "F_o/W", "texts"},
    Measure{"stance.outrigger_load", stance, "Greatest load on an outrigger", Kind::force,
            "Standing, on a cross slope of 2 %, in a turn at 0.2 g, in the wind from the side that is flown "
            "in: the "
            "greatest goes to its strength.",
            "equilibrium under side loads", "statics"},
    Measure{"stance.cg_height", stance, "CG above ground", Kind::length,
            "Height of the CG above the ground at rest.", "equilibrium", "equilibrium"},
    Measure{"stance.track", stance, "Track at rest", Kind::length,
            "Distance of the main contacts at rest: splayed legs spread as they sink.", "2·y of the contacts",
            "equilibrium"},
    Measure{"stance.camber", stance, "Camber at rest", Kind::angle,
            "Lean of the main wheels at rest, top outboard positive.", "extended, less the leg's turn",
            "equilibrium", radians(2)},
    Measure{"stance.toe", stance, "Toe at rest", Kind::angle, "Toe-in of the main wheels at rest.",
            "from the axle's direction", "equilibrium"},
    Measure{"stance.sides", stance, "Port against starboard", Kind::length,
            "Largest difference of the two sides as measured: station, side and height of the axles.",
            "|starboard − port|", "practice: within 3 mm full size, 1 mm model", 0.003},
    Measure{
        "stance.ballast_keeps", stance, "Ballast that keeps the nose down", Kind::mass,
        "Hung at the ballast's station it just keeps an unfinished airframe on its wheels, once it is down.",
        "least mass with which the whole equilibrium, legs and tyres giving, stands on all wheels",
        "equilibrium"},
    Measure{"stance.ballast_brings", stance, "Ballast that brings it down", Kind::mass,
            "The larger mass that brings it down from its tail.",
            "m·(CG behind the mains) / (ballast ahead of them), on its tail", "moments about the mains"},
    Measure{"stance.topple", stance, "Outrigger's load, let go from balance", Kind::force,
            "Balanced upright and let go, it topples on to the outrigger: the blow is harder than the load "
            "at rest, "
            "and goes to the outrigger's strength.",
            "φ_t/(1 − √c), c = W·h/(k·y²)",
            "energy, no damping; radius of gyration 0.12 of the span, estimated"},
    Measure{
        "stance.rest_friction", stance, "Friction told by two rests", Kind::share,
        "Pressed down and let go, then lifted and let down, a leg with friction rests at two heights: half "
        "their difference times its rate is the friction, here as a share of its load.",
        "k·Δh / (2·load)", "statics; own bands", 0.1},
    Measure{"stance.leg_lean", stance, "Lean of a leg when down", Kind::angle,
            "How a leg leans seen from the side, loaded, in the attitude it stands in: foot aft positive.",
            "atan(Δx/Δz) − θ", geometry, 0.0175},
    Measure{"stance.original_wheel", stance, "Wheel against the original's", Kind::length,
            "Diameter of the wheel less that of the original's, as marked on the picture.", "D − D_o",
            "picture behind the side view"},
    Measure{"stance.original_axle", stance, "Axle aft of the original's", Kind::length,
            "Along the ground at rest, the picture laid under the main wheels.", "Δx along the ground",
            "picture behind the side view"},
    Measure{
        "stance.original_strut", stance, "Leg against the original's", Kind::length,
        "From the propeller's axis down to the axle, at rest, less the same of the original: how much longer "
        "the leg stands.",
        "(z_p − z_a) − (z_p − z_a)_o", "picture behind the side view"},
    Measure{"stance.original_height", stance, "Height against the original's", Kind::length,
            "Height of the propeller's axis over the ground at rest less that of the original.",
            "z_p − z_p,o", "picture behind the side view"},
    Measure{"stance.table", stance, "Table reading less computed", Kind::length,
            "What was read on the table less what the stance says.", "read − computed",
            "5 mm or 1 % of the height (model 1 mm), the larger", 0.005},
    Measure{"stance.table_angle", stance, "Incidence read less computed", Kind::angle,
            "What an incidence meter read on the table less what the stance says.", "read − computed",
            "half a degree", 0.0087},
    // --- Spring ---
    Measure{"spring.sink_speed", spring, "Design sink speed", Kind::speed,
            "How hard a landing the gear is to take.",
            "by rule 0.510·(W/S)^¼ within 2.13–3.05 m/s; drop ladder √(2gh); similarity V/√s",
            "the school chosen"},
    Measure{
        "spring.stroke", spring, "Stroke needed", Kind::length,
        "Axle travel that the design landing needs at the load factor aimed at; at most the travel there is.",
        "S_s = [V²/(2g) − (η_t·N − 1 + K)·S_t] / (η_s·N − 1 + K)",
        "energy balance; efficiencies of the handbook"},
    Measure{"spring.load_factor", spring, "Load factor with the travel there is", Kind::factor,
            "Ground load factor N at which the travel just suffices.", "the same balance solved for N",
            "energy balance"},
    Measure{"spring.drop_factor", spring, "Load factor of the design landing", Kind::factor,
            "Greatest ground load of the simulated landing over the weight on the leg.",
            "N = max F_tyre / (m·g)", "two masses, integrated; the limit is what was aimed at"},
    Measure{"spring.rim", spring, "Tyre left at the landing's peak", Kind::share,
            "How much of the tyre's squash is left when the landing presses it hardest; nothing left: the "
            "rim or core "
            "strikes.",
            "1 − t/t_rim", "two masses, integrated", 1},
    Measure{"spring.drop_stroke", spring, "Stroke used in the design landing", Kind::length,
            "How far the leg closes in the simulated landing; its travel is all there is.", "max s",
            "two masses, integrated"},
    Measure{"spring.drop_reserve", spring, "Stroke used in the reserve landing", Kind::length,
            "The same at 1.2 times the sink speed (1.44 times the height) with lift equal to the weight: it "
            "may use "
            "all of the travel, but what is beyond breaks something.",
            "max s at 1.2·V, K = 1", "the rule's reserve; two masses, integrated"},
    Measure{"spring.hop", spring, "Hop after the design landing", Kind::length,
            "How high the wheel leaves the ground again.", "greatest −z_u after the sprung mass has stopped",
            "two masses, integrated"},
    Measure{"spring.sag", spring, "Static sag", Kind::share,
            "Share of the travel used standing still: too soft, too stiff.", "closure / travel at rest",
            "practice: 25–40 %; gas oleos about two thirds"},
    Measure{"spring.coil_margin", spring, "Coil stress left at full travel", Kind::share,
            "What is left of the wire's shear limit with the leg at its stop.",
            "1 − K_w·8·F·D/(π·d³) / limit", "Wahl's correction; typical wire: confirm with your supplier", 1},
    Measure{"spring.coil_solid", spring, "Coil travel left before solid", Kind::length,
            "How much the coil could still close when the leg reaches its stop.",
            "installed length − solid length − travel·ratio", geometry, 0.01},
    Measure{"spring.coil_index", spring, "Coil index", Kind::factor,
            "Coil diameter over wire diameter: outside 4 to 16 springs are hard to make or tangle.",
            "C = D/d", "spring makers' practice"},
    Measure{"spring.gas_used", spring, "Gas volume used at full travel", Kind::share,
            "How much of the gas volume the piston has taken at the stop.", "A·s/V₀",
            "physics: all of it is a solid strut"},
    Measure{"spring.strut_left", spring, "Gas strut's stroke left at the stop", Kind::length,
            "How much further the bought strut could close when the leg reaches its stop.",
            "full stroke − closure at the stop", geometry, 0.01},
    Measure{"spring.puck_squeeze", spring, "Pucks squeezed at the stop", Kind::share,
            "How much of their thickness the rubber pucks have lost with the leg at its stop.",
            "(free stack − assembled + closure) / free stack", "rubber lasts below 25–30 %"},
    Measure{"spring.cord_reach", spring, "Cord's curve left at the stop", Kind::share,
            "How much further the cord was measured than it is stretched at the stop: beyond its last point "
            "nobody knows it.",
            "last stretch of the curve − stretch at the stop", "measured curve", 1},
    Measure{
        "spring.bend_margin", spring, "Bending leg's stress left in a landing", Kind::share,
        "What a leg that bends is left with before it takes a set, risen as far as in the design landing.",
        "yield (laminate: strain allowed · E) / σ − 1", "beam theory; typical strength: confirm", 1},
    Measure{"spring.bend_rest", spring, "Bending leg's stress left standing still", Kind::share,
            "What it is left with under the static load: a leg past it at rest sags on its own.",
            "yield / σ − 1", "beam theory; typical strength: confirm", 1},
    Measure{"spring.lever_ratio", spring, "Spring closure over wheel rise", Kind::factor,
            "The lever between wheel and spring of a hinged leg, at rest; it changes over the travel.",
            "ds/dz", geometry},
    Measure{"spring.loop_offset", spring, "Axle aside by the wire's loops", Kind::length,
            "A close-wound loop leads the wire on by its own thickness for every turn: the axle ends up so "
            "far out "
            "of line until a correcting bend takes it back.",
            "Σ turns · wire diameter", geometry, 0.01},
    Measure{"spring.set", spring, "Spread kept after a design landing", Kind::length,
            "How far one design landing bends a soft metal leaf for good, across at the axle.",
            "M/M_y = 1.5 − 0.5·(κ_y/κ)² beyond yield, unloading elastic", "elastic–plastic bending", 0.01},
    Measure{"spring.set_row", spring, "Spread kept after ten of them", Kind::length,
            "The same after a row of ten: what the gear will have flattened by.",
            "the same energy again and again, each adding less", "elastic–plastic bending", 0.01},
    Measure{"spring.bow_seed", spring, "Plies by the rule of thumb, at least", Kind::factor,
            "55 ply-millimetres of root width a kilogram of aircraft; up to 85. A seed only: stiffness goes "
            "with the "
            "cube of the thickness, calibrate with legs that worked.",
            "55·m / root width in mm", "rule of thumb"},
    Measure{"spring.coil_buckles", spring, "Coil's free length against buckling", Kind::length,
            "How much shorter the coil is than one that may buckle between flat ends.",
            "2.63·D/0.5 − free length", "steel springs, both ends flat", 0.02},
    Measure{"spring.bump_factor", spring, "Load factor over the bump", Kind::factor,
            "Greatest ground load over the static one, rolling over the bump or step at taxi speed.",
            "max F_z / (m·g)", "two masses in the side view, integrated"},
    Measure{"spring.bump_stroke", spring, "Stroke used over the bump", Kind::length,
            "How far the leg closes, rolling over the bump or step at taxi speed.", "max s",
            "two masses in the side view, integrated"},
    Measure{"spring.overlap", spring, "Overlap of a strut's tubes", Kind::factor,
            "How far the inner tube stays in the outer one when the leg is extended, in its diameters.",
            "(L_o + L_i − L) / d_i", "practice: two diameters", 0.5},
    Measure{"spring.slide_play", spring, "Play of the inner tube", Kind::length,
            "Outer tube's bore less the inner tube.", "D_o − 2t − d_i", "practice", 0.0002},
    Measure{"spring.in_bore", spring, "Room round the coil in its tube", Kind::length,
            "Bore of the inner tube less the outside of the coil: a coil grows as it closes.",
            "d_i − 2t − (D + d)", "practice: 2 % of the coil", 0.0005},
    Measure{"spring.space", spring, "Room over the installed spring", Kind::length,
            "Length between the inner tube's plug and the upper end, less the spring as installed.",
            "L − plug − installed", geometry, 0.005},
    Measure{"spring.cut_left", spring, "Solid end left to cut or tap", Kind::length,
            "Solid length at the lower end that the thread leaves: no more may be cut off, the spring's bore "
            "starts "
            "there.",
            "plug − thread", geometry, 0.005},
    Measure{"spring.thread", spring, "Thread at the lower end, in diameters", Kind::factor,
            "Depth of the thread over its diameter.", "depth / d", "practice: 1.5 in light metal", 0.5},
    Measure{
        "spring.rate_wanted", spring, "Rate its spring needs, at the spring", Kind::stiffness,
        "Of the spring between a hinged leg's anchors, without preload, for a third of the travel as sag.",
        "k = F_w·(dz/ds) / s", "statics", 1000},
    Measure{"spring.proof", spring, "Proof load held, times its share", Kind::factor,
            "The greatest load read on a leg that it held, over what it carries at rest.", "F / F_rest",
            "bench readings; the load factor aimed at", 1},
    Measure{"spring.ring_crush", spring, "Crush of the mount's rings", Kind::share,
            "How much the rubber rings are pressed when the mount is screwed home.", "1 − slot/t",
            "rubber: own bands", 0.1},
    Measure{"spring.centre_gap", spring, "Gap left to the bow's middle", Kind::length,
            "What is left of the free gap when the middle bows and the rings give in the design landing.",
            "gap − M·a²/(2·E·I) + F/k", "beam between its clamps", 0.002},
    Measure{"spring.cross_wire", spring, "Spring wire across, stress left", Kind::share,
            "What the arched wire from leg to leg is left with at the spread of a design landing.",
            "σ_y·(π·d³/32) / (H·h) − 1, H = 15·E·I·Δ/(8·h²·L)", "shallow arch between pinned ends", 1},
    Measure{"spring.bow_proven", spring, "Plies over those of your own bows", Kind::factor,
            "Plies laid up over what the builder's own bows that held say for this mass and width.",
            "n / n_own", "own bows; ply-millimetres a kilogram", 0.5},
    // --- Leg ---
    Measure{"leg.governing", leg, "Length that governs", Kind::length,
            "The one length that goes to the bench: from where the leg is held to its axle or shoulder.",
            "|axle − held| − shoulder", geometry, 0.01},
    Measure{"leg.governed", leg, "Built length less that wanted", Kind::length,
            "What the leg was built to, less the length the design wants now.", "built − wanted",
            "own: 0.5 mm or 1 ‰", 0.005},
    Measure{"leg.drag_area", leg, "Drag area of a leg", Kind::area,
            "Area of drag coefficient one that has the leg's drag.", "Σ C_D·t·ℓ",
            "light-aircraft design texts: round 1.1, edge on 1.0, streamlined 0.10", 0.001},
    Measure{"leg.failures", leg, "Broken or bent in ordinary landings", Kind::factor,
            "How often it gave way though the landing was an ordinary one.", "counted", "practice", 1},
    Measure{"leg.mount_twist", leg, "Twist of the mount", Kind::angle,
            "How far a plate, or the closed box over it, twists in the worst load case.",
            "T·L/(4·G·J), J = w·t³/3 or 2·(w·h)²·t/(w + h)", "Bredt; practice: one degree", 0.0175},
    Measure{"leg.plate_room", leg, "Mount clear of the structure", Kind::length,
            "How far a mount plate, with its cheeks or the box over it, stands from motor, fan, spar, lead "
            "or servo; "
            "negative: it runs into one.",
            "least gap of its box", geometry, 0.01},
    Measure{"leg.mix", leg, "Plies laid from one mix", Kind::factor,
            "How many plies one mix reaches for, laid within two thirds of the time that it can be worked.",
            "⌊⅔·t_mix / t_ply⌋", "practice: two thirds of the working time", 1},
    Measure{"leg.pull_test", leg, "Pull test of a bought mount", Kind::share,
            "What a bought mount was pulled at with, over the ultimate pull on it.", "F / (1.5·F_limit) − 1",
            "practice", 1},
    Measure{"leg.cradle", leg, "Notch in the bay's edge, strength left", Kind::share,
            "The edge the leg lies against sideways when it is down: what its bearing is left with.",
            "σ_b·w·t·a / (1.5·S·L) − 1", "statics", 1},
    Measure{"leg.post_gain", leg, "What a post is worth", Kind::share,
            "Margin that the joint beside a post or brace has more for it.", "margin with − without",
            "stiffness in parallel; statics", 1},
    Measure{"leg.margin", leg, "Strength left", Kind::share,
            "What a part is left with in the load case that is worst for it: 0 is just strong enough, 100 % "
            "twice "
            "as strong as it must be.",
            "least of yield/σ and strength/(1.5·σ), − 1",
            "load cases of the historical small-aeroplane rule, of models the drop; the local rule decides",
            1},
    Measure{"leg.path", leg, "Load path, weakest link", Kind::share,
            "From the tyre to the airframe, link by link: what the weakest one is left with.",
            "least of all its parts", "as the parts' own strength", 1},
    Measure{"leg.edge_distance", leg, "Fastener to the edge, in diameters", Kind::factor,
            "The fastener nearest to the edge of its plate or block: too near, and the edge tears out.",
            "distance / diameter", "practice: 3 where it may split, 2 under a strap", 1},
    Measure{"leg.fit", leg, "Play of a fit", Kind::length,
            "Bore less pin: less than nothing does not go together, much rattles.", "bore − pin", "practice",
            0.0002},
    Measure{"leg.square", leg, "Axle out of square", Kind::angle,
            "Toe that the two diagonals of the jig come to, starboard toe-in.",
            "sin ψ = (D_s² − D_p²)/(2·B·X)", geometry, 0.0175},
    Measure{"leg.bar_toe", leg, "Toe by the bar, off", Kind::angle,
            "Toe-in of a wheel by a straight bar through its axle, read at the other one, less what the "
            "design asks "
            "for.",
            "atan(aft / apart) − toe", geometry},
    Measure{"leg.bar_camber", leg, "Camber by the bar, off", Kind::angle,
            "Camber of a wheel by a straight bar through its axle, read at the other one, less what the "
            "design asks "
            "for.",
            "atan(up / apart) − camber", geometry},
    // --- Drive ---
    Measure{"drive.torque", drive, "Largest torque on the drive", Kind::moment,
            "What the drive must give at the worst place of its way, up or down, in the air or on jacks.",
            "−Σ u·((r − P)×f) + μ·|Σ| + M_f", "virtual work", 1},
    Measure{"drive.arm", drive, "Actuator's least arm", Kind::length,
            "Least distance of the actuator's line from the pivot axis over the travel.", "r = dℓ/dψ",
            geometry, 0.01},
    Measure{"drive.force", drive, "Actuator's force in hand", Kind::share,
            "What the actuator or cylinder can, over what it must, at the worst place of its way.",
            "F / (M/r) − 1", "statics; practice: three tenths in hand", 1},
    Measure{"drive.stroke", drive, "Stroke left over", Kind::length,
            "The actuator's stroke less what the travel asks for.", "s − (ℓ_max − ℓ_min)", geometry, 0.01},
    Measure{"drive.column", drive, "Cylinder's rod as a column", Kind::share,
            "What the extended rod carries before it gives way sideways, over one and a half times the push.",
            "π²·E·I/(ℓ²·1.5·F) − 1", "Euler", 1},
    Measure{
        "drive.time", drive, "Time for the travel", Kind::time,
        "How long raising takes: by the actuator's speed, the pump's flow, or the motor's line from rest.",
        "∫ dψ/ω", "drive's own speed", 1},
    Measure{"drive.counted", drive, "Sequence's slowest leg over the drive's", Kind::time,
            "What Sequence counts with for the slowest leg less what its motor or actuator takes with the "
            "battery at its lowest, the slower of in the air and on jacks.",
            "t·slowest − t(U_low)",
            "motor's line from rest, scaled with the voltage; an actuator's speed with it", 1},
    Measure{"drive.stall", drive, "Stall torque over the torque needed", Kind::factor,
            "Motor's or servo's stall torque over what the worst place of the way asks of it.", "T_s·i·η / M",
            "practice: run below half the stall torque", 1},
    Measure{"drive.end_point", drive, "Servo's end points", Kind::share,
            "Half the throw that brings servo and rod in line at both ends, over the servo's turn at 100 %.",
            "θ/2 / θ₁₀₀", "four-bar in line at both ends", 0.2},
    Measure{"drive.free_fall", drive, "Torque left falling free", Kind::moment,
            "Without power: what is left towards the lock at the worst turn, momentum not counted.",
            "−Σ M − M_f, J·ψ̈ = Σ M", "integrated from stowed", 1},
    Measure{"drive.uplock", drive, "Up-lock's strength left", Kind::share,
            "Hook and bracket over the load of the stowed gear in a pull-up, ultimate.",
            "F / (1.5·n·m·g·a/b) − 1", "moments about the pivot", 1},
    Measure{"drive.over_centre", drive, "Brace past straight", Kind::angle,
            "How far the folding brace's knee is past straight when it is locked.",
            "b² = L₁² + L₂² + 2·L₁·L₂·cos κ", "practice: 2 to 4 degrees", 0.02},
    Measure{"drive.brace", drive, "Brace's knee held down", Kind::moment,
            "Least moment, lock spring in, that holds the knee on its stop over the leg's load cases.",
            "F·e + M_s", "moments about the leg's pivot", 1},
    Measure{"drive.rod", drive, "Push rod's strength left as a column", Kind::share,
            "Load at which the servo's push rod bows out over one and a half times the most it carries, less "
            "one.",
            "π²·E·I/(1.5·F·ℓ²) − 1", "Euler, both ends free to turn", 1},
    Measure{"drive.ball_tilt", drive, "Tilt of the push rod's ball ends", Kind::angle,
            "How far the rod leaves the plane of its arms, servo and unit not lying in one.",
            "atan(offset/ℓ)", geometry},
    Measure{"drive.unit_mass", drive, "Retract unit's rating for the aircraft", Kind::share,
            "Mass that the unit is sold for over the heaviest loading flown, less one.", "m_rated / m − 1",
            "what the unit is sold for", 1},
    Measure{
        "drive.unit_flex", drive, "Unit gives under its leg", Kind::angle,
        "How far the unit, locked, turns under the greatest moment at its pin: shows as binding or toe-out.",
        "M / flex", "practice: one degree", 0.0175},
    Measure{"drive.latch", drive, "Bracket for one hook at both ends", Kind::length,
            "How far the longer of the two brackets stands out from the leg's line, that carry the pins "
            "which one "
            "hook takes when the leg is up and when it is down.",
            "distance of the hook, seen from the leg, to its line", geometry, 0.02},
    Measure{"drive.unit_moment", drive, "Retract unit's pin against the leg's moment", Kind::share,
            "Moment that the unit's pin may carry over the greatest about the pivot of the leg's load cases.",
            "M_rated / |r × F| − 1", "leg's load cases", 1},
    // --- Swing ---
    Measure{
        "swing.clearance", swing, "Least clearance on the way", Kind::length,
        "The smallest gap of tyre, leg, axle or axle tip to the well's walls and roof over the whole swing.",
        "least distance over ψ", "the clearance wanted", 0.01},
    Measure{"swing.protrusion", swing, "Wheel standing out when stowed", Kind::length,
            "How far the stowed wheel stands out below the well's mouth.", "z_mouth − z_lowest", geometry,
            0.01},
    Measure{"swing.unit_misfit", swing, "Unit and mount against the leg", Kind::angle,
            "Lean of the leg that Place asks for less the lean that unit angle and mount tilt make.",
            "λ − (ψ_r − 90° − σ)", "planar swing; half a degree can be bent or shimmed"},
    Measure{"swing.stowed_slope", swing, "Slope of the stowed leg", Kind::angle,
            "Slope of the leg when stowed, wheel end up positive.", "σ = ψ_r − 90° − λ", "planar swing"},
    Measure{"swing.pair", swing, "Wheels past each other", Kind::length,
            "The smallest gap of two wheels that swing, one of them stuck anywhere on its way.",
            "least distance over ψ₁ and ψ₂", "the clearance wanted", 0.01},
    Measure{
        "swing.stowed_miss", swing, "Stowed wheel off its wanted place", Kind::length,
        "How far the stowed wheel lies from where it is wanted: its centre, and its rim by the axle's angle.",
        "|A − A₁| + D/2·∠(a, a₁)", geometry, 0.01},
    Measure{"swing.seat", swing, "Starboard wheel deeper than port", Kind::length,
            "Difference of the depths measured on both sides: they should sit alike.",
            "difference of readings", "measured", 0.01},
    Measure{
        "swing.spring_turn", swing, "Wheel turned by springing", Kind::angle,
        "How far the rod that turns the wheel as it stows turns it already over the suspension's travel: it "
        "would steer.",
        "greatest χ over the travel", "handbook, Swing", radians(1)},
    Measure{"swing.unit_turn", swing, "This unit's turn against its number", Kind::angle,
            "The turn measured on the very unit less the one entered: units that look alike differ.",
            "difference", "measured"},
    Measure{"swing.unit_pin", swing, "Leg's pin in the unit's bore", Kind::length,
            "Bore less pin: below nothing it does not go in, far above it rattles.", "d_bore − d_pin",
            "a grub screw takes up a little"},
    Measure{"swing.unit_trim", swing, "Housing to cut away", Kind::length,
            "Least depth of the block that unit and structure share: what must go of its housing, or of the "
            "structure, for it to sit where it is.",
            "least side of the shared box", geometry},
    Measure{
        "swing.far_skin", swing, "Unit to the skin over it", Kind::length,
        "How far the unit can still be let in before it rests on the inside of the skin over it, so that the "
        "door closes over wheel and leg; negative: it would dent it.",
        "z_skin − z_top of the unit's body", geometry, 0.01},
    Measure{
        "swing.unit_holes", swing, "Mounting holes clear of the structure", Kind::length,
        "The least distance of the unit's mounting holes to what must not be touched; below nothing: lost.",
        "least distance", geometry, 0.01},
    Measure{
        "swing.plate_depth", swing, "Plate let in at its deepest corner", Kind::length,
        "How deep the deepest corner of the unit's plate goes in for the mount's tilt and the axis' tip, the "
        "highest corner flush.",
        "x·tan σ + y·tan τ", geometry, 0.01},
    Measure{"swing.other_way_round", swing, "Clearance with the bent leg put in the other way round",
            Kind::length,
            "Least clearance of the swing if the leg went into its unit turned half round about its shank.",
            "least distance over ψ", geometry, 0.01},
    Measure{"swing.slot", swing, "Slot for the leg through the floor", Kind::length,
            "Length of the slot that wheel and leg need in the floor on their way, the clearance round them.",
            "union of sections over ψ", geometry, 0.01},
    // --- Steer ---
    Measure{"steer.turn", steer, "Tightest turn, to the middle between the mains", Kind::distance,
            "Radius about which the aircraft turns without slip with the wheel at its stop: the angle on the "
            "ground is "
            "that about the leg's line, foreshortened by its lean.",
            "L/tan δ, tan δ = cos ε·tan angle", "no slip", 0.1},
    Measure{"steer.clearance", steer, "Steered wheel past doors and structure", Kind::length,
            "Least distance of the wheel, turned anywhere between its stops, to the doors as they stand and "
            "to what must "
            "not be touched.",
            "least distance over the angle", geometry, 0.01},
    Measure{"steer.trail", steer, "Trail of the steered wheel", Kind::length,
            "How far the contact lies behind the point where the line that the wheel turns about meets the "
            "ground, "
            "standing: what trails runs straight by itself, what leads wants to turn round.",
            "x_contact − x_axis on the ground", "practice: a castor a tenth of its diameter at least", 0.01},
    Measure{"steer.servo_room", steer, "Steering servo clear of all that moves", Kind::length,
            "Least distance of the servo's body to the structure and to leg and wheel on their way up.",
            "least gap, and least distance over the swing", geometry, 0.01},
    Measure{"steer.slide", steer, "Rod's slip left when the leg folds", Kind::length,
            "How far the rod may slip through its arm less how far its ends come together on the way up.",
            "slip − (l_down − min l)", geometry, 0.01},
    Measure{"steer.pull", steer, "Rod pulled as the leg folds", Kind::length,
            "How much further apart the rod's ends come on the way than they are down: the collars would "
            "pull it.",
            "max l − l_down", geometry, 0.005},
    Measure{"steer.fold", steer, "Wheel turned by its rod as the leg folds", Kind::angle,
            "How far a rod that does not let go turns the wheel about the leg's line on the way up, the "
            "servo still.",
            "rod of fixed length over ψ", "rigid"},
    Measure{"steer.off", steer, "Steering taken away before the leg goes up", Kind::factor,
            "1 where it is centred and its command taken away first: else the servo works against the fold.",
            "said", "handbook, Sequence"},
    Measure{"steer.square", steer, "Rod off square to its arm, wheel straight", Kind::angle,
            "How far the rod stands from square to the arm on the leg: square it enters straight and gives "
            "both ways alike.",
            "90° − angle between them", geometry},
    Measure{"steer.springing", steer, "Wheel turned as the leg springs", Kind::angle,
            "How far its rod turns the wheel over the leg's travel, servo or pedals held: linkage and "
            "springing must "
            "agree.",
            "rod of fixed length over the travel", "rigid"},
    Measure{"steer.scrub", steer, "Moment to turn the wheel at rest", Kind::moment,
            "What it takes to turn the heaviest loaded wheel on dry ground: friction of a round patch of "
            "even pressure "
            "about its middle, rubber on tarmac.",
            "⅔·µ·N·√(A/π), µ = 0.8", "patch of even pressure, no roll"},
    Measure{"steer.servo", steer, "Steering servo's torque in hand", Kind::share,
            "What is left of the servo's stalled torque, over its own arm and the arm on the leg, when it "
            "turns the wheel "
            "at rest.",
            "1 − M·a_servo/(a_leg·M_servo)", "arms square to the rod"},
    Measure{"steer.play", steer, "Wobble of the steered leg in its bush", Kind::angle,
            "Play on the diameter over the distance of its outermost bearings; beside it what that is at the "
            "ground.",
            "p/l", "rigid"},
    Measure{"steer.brakes", steer, "Deceleration that it can brake with", Kind::in_g,
            "What the braked mains (or a skid at the tail) give on dry tarmac, µ 0.5, level, the weight "
            "shifting as it slows; "
            "limited by its nosing over.",
            "µ·R_mains/W", "no lift, no propeller drag"},
    // --- Doors ---
    Measure{"doors.travel", doors, "How far it opens, driven so", Kind::angle,
            "The opening that crank, rod, wire or arm give the door, against the one it shall have.",
            "A·cos φ + B·sin φ = C, branch from closed", "rigid rods, no play"},
    Measure{
        "doors.transmission", doors, "Rod against the door's ball", Kind::angle,
        "The least angle between the rod and what is square to the way of the door's ball, on the way: at "
        "none the rod cannot move the door.",
        "asin|l·t|", "rigid"},
    Measure{"doors.end", doors, "Crank short of where it locks", Kind::angle,
            "How much further the crank could turn before the linkage locks or the door turns back.",
            "θ_end − θ_open", "rigid"},
    Measure{"doors.bracket", doors, "Travel gained for each millimetre of the bracket", Kind::angle,
            "What a millimetre of the crank's bracket further from the hinge gives the door, rod and arms as "
            "they are.",
            "dφ/ds", "rigid"},
    Measure{
        "doors.clearance", doors, "Leg past the open door", Kind::length,
        "Least distance between all that the leg carries and the panel over the whole swing: fully open, or "
        "where it is as it follows the leg.",
        "least distance over ψ", geometry, 0.01},
    Measure{"doors.over", doors, "Door closing over the stowed leg", Kind::length,
            "Least distance of the stowed leg to the panel at any opening from fully open to closed.",
            "least distance over φ", geometry, 0.01},
    Measure{"doors.down", doors, "Door against the leg that is down", Kind::length,
            "Least distance of the leg, down, to the panel as it stands then: open, ajar or closed again.",
            "least distance", geometry, 0.01},
    Measure{"doors.gap", doors, "Gap at the free edge, gear down", Kind::length,
            "How far the free edge of a door left ajar, or lying on the leg, stands from where it is closed.",
            "2·w·sin(φ/2)", geometry, 0.01},
    Measure{
        "doors.shut", doors, "Gap at the free edge, gear up", Kind::length,
        "How far the free edge still stands from closed when the leg is stowed: what a wire too long leaves, "
        "or a wheel that does not go in.",
        "2·w·sin(φ/2)", geometry, 0.01},
    Measure{
        "doors.closing", doors, "Pushed door pulled shut again", Kind::moment,
        "What its light spring has left to close a door that the wheel has pushed open, over what its weight "
        "and its hinge's friction keep open; the worst of air and jacks, of every opening the wheel leaves "
        "it.",
        "M_spring + closing − 1.3·opening", "30 % in hand", 1},
    Measure{"doors.stop", doors, "Arm's end beyond the stop", Kind::length,
            "How much of the arm reaches past the stop from where they meet to stowed: below nothing it "
            "slips off.",
            "arm − distance of the stop", geometry, 0.01},
    Measure{
        "doors.tie", doors, "Wire's length to spare, gear down", Kind::length,
        "Slack of the wire with the leg down and the door at its stop: below nothing it holds the door back.",
        "length − distance of its ends", geometry, 0.01},
    Measure{
        "doors.hold", doors, "Held open, with 30 % in hand", Kind::moment,
        "Moment of spring, drive and magnet about the hinge, fully open, less 1.3 times what would close it: "
        "weight, air and hinge.",
        "M_hold − 1.3·max(0, M_close)", "handbook, hold margin", 0.01},
    Measure{"doors.servo", doors, "Its drive's torque in hand", Kind::share,
            "What is left of the drive's stalled torque at the worst opening, both ways, in the air and on "
            "jacks: "
            "weight, air, hinge, friction, spring and the magnet to be broken once.",
            "1 − M_needed/M_stalled", "no inertia"},
    Measure{"doors.torque", doors, "Torque that its drive needs", Kind::moment,
            "What servo or cylinder must bring about its own axis, stalled, so that 30 % are in hand at the "
            "worst "
            "opening, both ways: which doors are light work and which need a stout one.",
            "M_needed/0.7", "no inertia"},
    Measure{"doors.magnet", doors, "Pull-off of the magnet against the drive", Kind::share,
            "The short peak that breaks the magnet, of the drive's stalled torque; beside it what the drive "
            "would "
            "hold for as long as the door is open if there were none.",
            "(F·a + M)/M_stalled", "at the open stop"},
    // --- Sequence ---
    Measure{
        "sequence.zone", sequence, "Entered zone against the drawn one", Kind::share,
        "By how much the shares entered for this door (leg may pass, enters, leaves) are on the safe side of "
        "the region that the geometry gives: the worst of the three. Both count.",
        "least difference", geometry, 0.05},
    Measure{"sequence.leg_wait", sequence, "Leg waits for the door", Kind::time,
            "Time in hand between the door being open far enough (slowest door) and the leg reaching it "
            "(fastest leg).",
            "w₁ − max(0, t_open,max·free − t_leg,min·enter)", "timed school", 1},
    Measure{"sequence.door_wait", sequence, "Door waits for the leg", Kind::time,
            "Time in hand between the slowest leg at rest and the door starting to close.",
            "w₂ − (w₁ + t_leg,max)", "timed school, plain rule", 1},
    Measure{
        "sequence.aid", sequence, "Steering, up-locks and brakes in time", Kind::time,
        "Time in hand between steering centred and idle, or an up-lock open, and the leg that starts; the "
        "leg down and steering given back; wheels stopped, or freed, and the quickest leg at its end; the "
        "slowest leg up and a driven up-lock that closes: the least of what is asked one way.",
        "t_due − t_done,max, or t_begun − t_due", "handbook, Doors and sequence", 1},
    Measure{"sequence.box_hold", sequence, "Box holds longer than needed", Kind::time,
            "Longest time that the box holds between one output and the next, with the one it is chained to, "
            "less "
            "what it must hold: the plan's longest wait, and behind a leg as long as the slowest leg takes.",
            "t_hold − max(t_plan, t_leg,max + margin)", "handbook, Doors and sequence", 1},
    Measure{"sequence.box_outputs", sequence, "Outputs of the box left", Kind::factor,
            "Outputs that it has less those that something hangs on.", "n − used", "counted", 1},
    Measure{"sequence.box_apart", sequence, "Shares an output, starts otherwise", Kind::factor,
            "Actors that hang on one output with another and do not start together with it, the same way.",
            "counted", "timeline", 1},
    Measure{"sequence.box_sense", sequence, "Runs the other way on its output", Kind::factor,
            "Legs whose unit runs the other way than what else hangs on their output, without a reverser.",
            "counted", "units as they are bought (Swing)", 1},
    Measure{"sequence.box_start", sequence, "Moves when the box is switched on", Kind::factor,
            "Actors that the box sets going when it is switched on, before anybody asks for it.", "counted",
            "the box as it is bought", 1},
    Measure{"sequence.box_left", sequence, "On no box", Kind::factor,
            "Actors of the sequence that hang on no output of any box.", "counted", "list of outputs", 1},
    Measure{
        "sequence.apart", sequence, "Legs of a pair apart", Kind::time,
        "Time between the first and the last of two legs that start together, one at its fastest, one at its "
        "slowest.",
        "t·(slowest − fastest)", "practice: a fifth of the travel; half of it at most", 1},
    Measure{"sequence.duration", sequence, "Whole cycle", Kind::time,
            "From the selector to the last actor at rest, everything at its slowest.", "latest end",
            "timeline"},
    // --- Logic ---
    Measure{"logic.door", logic, "Leg against door, by faults", Kind::factor,
            "How many single faults (and the machine without one) lead, by whatever the pilot does, to a leg "
            "and a door in each other's way.",
            "all reachable states", proof},
    Measure{"logic.motor", logic, "Motor runs on, by faults", Kind::factor,
            "How many lead to a motor or pump that runs on with the pilot doing nothing more.",
            "no end or cycle of the machine's own events with it running", proof},
    Measure{"logic.lamp", logic, "Lamp lies, by faults", Kind::factor,
            "How many let a lamp say down and locked while a leg is not, if only on the way.",
            "all reachable states", proof},
    Measure{"logic.horn", logic, "Horn silent, by faults", Kind::factor,
            "How many leave the horn silent with power there, the throttle back and a leg not locked down.",
            "all reachable states", proof},
    Measure{
        "logic.fall", logic, "Stays up, by faults", Kind::factor,
        "How many leave a leg hanging though down is selected and the handle, if there is one, is pulled. "
        "What is jammed itself is not asked.",
        "no end or cycle of the machine's own events with it so", proof},
    Measure{"logic.ground", logic, "Unlocks on ground, by faults", Kind::factor,
            "How many let the selector, thrown on the ground, unlock a leg.", "all reachable states", proof},
    Measure{
        "logic.settles", logic, "To and fro, by faults", Kind::factor,
        "How many make the machine repeat itself for ever, the pilot doing nothing: pump on, leak, pump on.",
        "no cycle of the machine's own events", proof},
    Measure{"logic.comes", logic, "Does not come down", Kind::factor,
            "With nothing broken: states from which selecting down leaves a leg that is not locked down.",
            "no end or cycle of the machine's own events with it so", proof},
    Measure{"logic.time_out", logic, "Time-out over the slowest run", Kind::time,
            "How much longer the time-out waits than the slowest motor needs.", "t_out − t_max",
            "handbook, Logic", 1},
    Measure{
        "logic.switches", logic, "Magnets on printed mounts", Kind::factor,
        "1 where magnets for reed contacts sit on printed or glued mounts: they come off, and the contact "
        "never closes again.",
        "said", "handbook, Logic"},
    Measure{"logic.states", logic, "States tried", Kind::factor,
            "How many states were reached and looked at, all faults together.", "breadth first",
            "complete, nothing cut off"},
    Measure{"logic.threshold", logic, "Throttle counts as back below", Kind::share,
            "Share of the throttle's travel below which its switch arms the horn.", "said",
            "handbook, Logic"},
    // --- Circuit ---
    Measure{"circuit.time", circuit, "Time for the stroke", Kind::time,
            "How long the cylinder takes against its true load, with its share of the pump, battery full.",
            "∫ dx/v, p·A = F + p_r·(A − a), A·v = Q(p)", oil},
    Measure{"circuit.counted", circuit, "Sequence's slowest leg over the computed one", Kind::time,
            "What Sequence counts with for the slowest leg less what the oil gives with the battery at its "
            "lowest.",
            "t·slowest − t(U_low)", oil, 1},
    Measure{
        "circuit.trip", circuit, "Cut-out over the peak on the way", Kind::pressure,
        "How far the pressure at the pump stays below where the switch opens: back-pressure of a throttled "
        "return counts.",
        "p_out − max p", oil, 1e6},
    Measure{"circuit.rated", circuit, "Rating over the highest pressure", Kind::pressure,
            "How far pump side and return stay below what the weakest part is rated for.",
            "p_rated − max(p, p_r)", oil, 1e6},
    Measure{"circuit.ahead", circuit, "Leg ahead of its oil", Kind::factor,
            "1 where the load takes the leg faster than the pump fills: it drops.", "p < 0 somewhere", oil},
    Measure{"circuit.pauses", circuit, "Legs that wait on the way", Kind::factor,
            "How often a leg stands still on the way while another moves: on a plain tee the lightest goes "
            "first.",
            "ΣQ_i = Q(p), Q_i where p > F_i/A", oil},
    Measure{"circuit.relief", circuit, "Relief over cut-out", Kind::pressure,
            "How much later the relief valve opens than the switch.", "p_relief − p_out", oil, 5e5},
    Measure{"circuit.band", circuit, "Cut-out over cut-in", Kind::pressure,
            "By how much the pressure falls before the pump comes on again.", "p_out − p_in", oil, 5e5},
    Measure{"circuit.interval", circuit, "Pump comes on again after", Kind::time,
            "With the gear up and nothing moving: how long the trapped pressure lasts, from what it lost on "
            "the bench, "
            "or as it was noted in the cruise.",
            "(C/k)·ln(p_out/p_in)", oil},
    Measure{
        "circuit.cycles", circuit, "Cycles from a filling", Kind::factor,
        "How often the bottle raises and lowers all legs, till the first that it no longer moves in the air.",
        "p·V_b + p_a·ΣV = p'·(V_b + ΣV), (p' − p_a)·A·r ≥ M", air, 1},
    Measure{"circuit.air_lasts", circuit, "Filling lasts unused", Kind::time,
            "How long after filling the wanted cycles still go, from the pressure lost on the bench.",
            "t·ln(p/p_min)/ln(p/(p − Δp))", air, 600},
    Measure{"circuit.branch", circuit, "Branch for air to rise out of", Kind::factor,
            "0 where it hangs down, 1 level, 2 where it points up.", "said", plumbing},
    Measure{"circuit.cabin", circuit, "Fluid in the cockpit", Kind::factor,
            "1 where fluid passes the cockpit.", "said", plumbing},
    Measure{"circuit.twins", circuit, "Twins' pipes apart in length", Kind::share,
            "How much two pipes to like legs differ in length.", "|ℓ₁ − ℓ₂|/ℓ", plumbing},
    Measure{"circuit.watched", circuit, "Sides whose pressure is seen", Kind::factor,
            "2 where the extended and the stowed side both have a sensor or gauge.", "counted", plumbing},
    Measure{"circuit.dump", circuit, "Dump valve in the plumbing", Kind::factor,
            "1 where the dump valve that Logic counts on is among the fittings.", "said", plumbing},
    Measure{"circuit.bleeding", circuit, "Fittings in bleeding order", Kind::factor,
            "How many fittings have a height; beside it the order in which they are bled.",
            "sorted by height", plumbing},
    Measure{"circuit.voltage", circuit, "Voltage over what it needs", Kind::voltage,
            "What is left at the far end with the battery at its lowest, running, over what the thing needs.",
            "U − I·(2·ℓ·ρ/A + n·R_c + R_i) − U_need", wires, 1},
    Measure{"circuit.fuse", circuit, "Fuse or breaker", Kind::current,
            "It carries what runs with a quarter to spare and opens where it stalls.",
            "1.25·I_run ≤ I ≤ I_stall", wires},
    Measure{"circuit.relay", circuit, "Heavy current by a relay beside it", Kind::factor,
            "1 where a relay near the motor switches it and thin wires carry the signals.", "said", wires},
    Measure{"circuit.extension", circuit, "Extension leads left", Kind::length,
            "Length of bench leads in it: made up in one for flight.", "said", wires},
    Measure{"circuit.channel", circuit, "Channel over cable", Kind::length,
            "How much wider the channel is cut than the cable is thick.", "w − d", wires, 0.001},
    Measure{"circuit.slack", circuit, "Slack over what the swing takes", Kind::length,
            "Length to spare where the cable crosses to the leg.", "said", wires, 0.01},
    Measure{"circuit.route", circuit, "Cable past what swings", Kind::length,
            "Least distance of the cable's way to every leg over its whole swing.", "least over ψ", geometry,
            0.01},
    Measure{"circuit.lost", circuit, "Goes up without signal", Kind::factor,
            "1 where a lost signal raises it.", "said", wires},
    Measure{"circuit.reversed", circuit, "Channel against the unit's way", Kind::factor,
            "1 where a unit that runs the other way has no reversed channel, or a plain one has.", "said",
            wires},
    Measure{"circuit.current", circuit, "Supply over the peak current", Kind::current,
            "What battery, regulator or main fuse gives less the most drawn at once over the sequence.",
            "I_s − max Σ I", wires, 5},
    Measure{"circuit.jammed", circuit, "The same with one jammed", Kind::current,
            "With the heaviest stalled half way until the time-out.", "I_s − max Σ I", wires, 5},
    Measure{"circuit.gas_springs", circuit, "Gas springs of a pair apart in force", Kind::share,
            "How much the gas springs of like legs differ: unequal ones look like plumbing trouble.",
            "|F₁ − F₂|/F", oil},
};

#define KRANICH_STATION(id, title, uses) title,
constexpr std::array<std::string_view, station_count> titles{KRANICH_STATIONS(KRANICH_STATION)};
#undef KRANICH_STATION
#define KRANICH_STATION(id, title, uses) #id,
constexpr std::array<std::string_view, station_count> ids{KRANICH_STATIONS(KRANICH_STATION)};
#undef KRANICH_STATION

}  // namespace

std::string_view station_title(Station s) { return titles[static_cast<size_t>(s)]; }
std::string_view station_id(Station s) { return ids[static_cast<size_t>(s)]; }

std::span<const Measure> all_measures() { return registry; }

const Measure* find_measure(std::string_view id) {
  const auto it =
      std::find_if(registry.begin(), registry.end(), [&](const Measure& m) { return m.id == id; });
  return it == registry.end() ? nullptr : &*it;
}

const Measure& measure(std::string_view id) {
  if (const Measure* m = find_measure(id)) return *m;
  throw std::logic_error("no such measure: " + std::string(id));
}

}  // namespace kranich
