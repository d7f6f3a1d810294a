#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Writes tests/reference/breadth.json: forms of the reference cases' kinds beyond those of the other files.

Every answer comes by a route of its own: forward statics with an answer chosen first, brute force on fine grids,
bisection, a fixed-step integration. Nothing here shares a formula with the core but the statement of the problem.
Run from the tree: tools/breadth_cases.py
"""
import json
import pathlib
from math import acos, atan2, cos, degrees, hypot, pi, radians, sin, sqrt, tan, tanh

G = 9.80665
cases = []


def case(kind, title, given, expect, rel=1e-4, absolute=None):
    tolerance = {"tol_abs": absolute} if absolute is not None else {"tol_rel": rel}
    put = {}
    for name, value in expect.items():
        put[name] = value if isinstance(value, dict) else {"value": value, **tolerance}
    cases.append({"id": f"X{len(cases) + 1:02d}", "kind": kind, "title": title, "given": given, "expect": put})


def bisect(f, low, high):
    """A root in a bracket: false position that halves the value of an end that stays (a bracket throughout)."""
    at_low, at_high = f(low), f(high)
    assert at_low * at_high <= 0, (at_low, at_high)
    for _ in range(200):
        if at_low == at_high or abs(high - low) < 1e-15 * (1 + abs(low)):
            break
        middle = high - at_high * (high - low) / (at_high - at_low)
        here = f(middle)
        if here == 0 or abs(middle - high) < 1e-14 * (1e-3 + abs(high)):
            return middle
        if here * at_high < 0:
            low, at_low = high, at_high
        else:
            at_low /= 2
        high, at_high = middle, here
    return high


def flag(value):
    return {"value": value, "tol_abs": 0}


# A tail-wheel aircraft weighed tail up and tail down: the CG is chosen, the reading follows from moments.
mass, ahead, above, tail_behind, tail_above, theta = 412.0, -0.36, 0.62, 3.82, 0.71, radians(11.5)


def tail_reading(pitch):
    # Nose-up turn about the main axle: a point (x aft, z up) goes to x·cos + z·sin aft, z·cos − x·sin up.
    cg = -ahead * cos(pitch) + above * sin(pitch)
    tail = tail_behind * cos(pitch) + tail_above * sin(pitch)
    return mass * cg / tail


level = tail_reading(0)
tilted = tail_reading(theta)
share = (mass - level) / 2


def height(reading):
    tail = tail_behind * cos(theta) + tail_above * sin(theta)
    return (reading * tail / mass + ahead * cos(theta)) / sin(theta)


case("tilt_cg_height", "tail wheel, tail up and tail down", {
    "level_reading_tail_kg": level, "level_reading_port_main_kg": share, "level_reading_starboard_main_kg": share,
    "tilted_reading_tail_kg": tilted, "tilt_pitch_nose_up_deg": degrees(theta),
    "tail_axle_behind_main_axle_m": tail_behind, "tail_axle_above_main_axle_level_m": tail_above,
    "main_axle_height_above_ground_level_m": 0.2, "tilted_reading_wrong_by_kg": 0.5,
}, {"mass_kg": mass, "cg_behind_main_axle_m": -ahead, "cg_height_above_main_axle_m": above,
    "cg_height_above_ground_level_attitude_m": above + 0.2,
    "cg_height_change_if_tilted_reading_is_wrong_m": height(tilted + 0.5) - height(tilted)}, rel=1e-6)

# A skid in the tail wheel's place: the line from its foot that touches the main wheel, by bisection.
xm, zm, R, xs, zs = 0.94, -0.9, 0.21, 4.4, -0.3


def under(pitch):  # height of the skid's foot over the ground that the main wheel rolls on
    return (zs - zm) * cos(pitch) - (xs - xm) * sin(pitch) + R


three = bisect(under, 0, 0.6)


def behind(x, z, pitch):
    return (x - xm) * cos(pitch) + (z - zm) * sin(pitch)


base = behind(xs, zs, three)
cg_x, cg_z = 1.31, -0.1
cg = behind(cg_x, cg_z, three)
h = (cg_z - zm) * cos(three) - (cg_x - xm) * sin(three) + R
case("tailwheel_geometry", "a skid at the tail", {
    "mass_kg": 380.0, "cg_station_forward_m": cg_x, "cg_station_aft_m": cg_x, "cg_waterline_m": cg_z,
    "main_axle_station_m": xm, "main_axle_waterline_m": zm, "main_loaded_radius_m": R,
    "tailskid_station_m": xs, "tailskid_waterline_m": zs, "track_m": 1.7,
}, {"three_point_angle_deg": degrees(three), "wheelbase_three_point_m": base,
    "tail_share_three_point_aft_cg": cg / base, "cg_height_above_ground_three_point_aft_cg_m": h,
    "nose_over_deceleration_three_point_forward_cg_in_g": cg / h}, rel=1e-6)

# Mains bent out under a nose-wheel aircraft: it turns nose-up about the nose wheel's contact.
y0, ell, c0, c1, apart = 0.31, 0.62, radians(18), radians(31), 1.42
sinks = ell * (cos(c0) - cos(c1))
case("bend_out", "bent out, with the pitch that it brings", {
    "bend_offset_from_centre_line_m": y0, "leg_length_bend_to_axle_m": ell, "cant_before_deg": 18.0,
    "cant_after_deg": 31.0, "nose_contact_station_m": 0.7, "main_contact_station_m": 0.7 + apart,
}, {"aircraft_sinks_by_m": sinks, "track_after_m": 2 * (y0 + ell * sin(c1)),
    "pitch_change_deg": degrees(atan2(sinks, apart))}, rel=1e-9)


# Standing: the plane of the ground over pitch and height, forces by each wheel's spring and tyre, in 2D.
def leg_force(w, travel):
    if w["kind"] == "gas":
        left = w["V"] - w["A"] * travel
        return w["A"] * (w["p"] * (w["V"] / left) ** w["n"] - 101325.0)
    return w["preload"] + w["k"] * travel


def wheel_force(w, pitch, height_of_origin):
    # Closure of leg (along the aircraft's z) and tyre in series under a vertical force.
    def closed(travel):
        z = w["z"] + travel
        return w["R"] - (height_of_origin + z * cos(pitch) - w["x"] * sin(pitch))

    def load(travel):
        return max(0.0, closed(travel)) * w["kt"]

    if load(0) * cos(pitch) <= leg_force(w, 0):
        return load(0), 0.0
    if load(w["most"]) * cos(pitch) >= leg_force(w, w["most"]):
        return load(w["most"]), w["most"]  # against its stop
    travel = bisect(lambda t: load(t) * cos(pitch) - leg_force(w, t), 0, w["most"])
    return load(travel), travel


def stand(weight, cg, wheels):
    def balance(pitch):
        def lift(at):
            return sum(w["n_alike"] * wheel_force(w, pitch, at)[0] for w in wheels) - weight
        at = bisect(lift, 0.01, 3)
        moment = 0.0
        for w in wheels:
            force, travel = wheel_force(w, pitch, at)
            arm = (w["x"] - cg[0]) * cos(pitch) + (w["z"] + travel - cg[1]) * sin(pitch)
            moment += w["n_alike"] * force * arm
        return moment, at
    # Over a range in which the moment has one root.
    pitch = bisect(lambda p: balance(p)[0], radians(-6), radians(18))
    return pitch, balance(pitch)[1]


def as_given(w, name, y):
    g = {"name": name, "axle_station_m": w["x"], "axle_offset_y_m": y, "axle_waterline_extended_m": w["z"],
         "free_radius_m": w["R"], "tyre_rate_N_per_m": w["kt"], "leg_travel_to_stop_m": w["most"]}
    if w["kind"] == "gas":
        g.update({"leg_kind": "gas", "gas_piston_area_m2": w["A"], "gas_volume_extended_m3": w["V"],
                  "gas_pressure_extended_absolute_Pa": w["p"], "gas_ambient_pressure_Pa": 101325.0,
                  "gas_exponent": w["n"]})
    else:
        g.update({"leg_kind": "coil", "leg_rate_N_per_m": w["k"], "leg_preload_N": w["preload"]})
    return g


def spring(x, z, R, kt, k, preload, most, alike):
    return dict(kind="coil", x=x, z=z, R=R, kt=kt, k=k, preload=preload, most=most, n_alike=alike)


def gas(x, z, R, kt, A, V, p, n, most, alike):
    return dict(kind="gas", x=x, z=z, R=R, kt=kt, A=A, V=V, p=p, n=n, most=most, n_alike=alike)


def target(title, change, name, set_value, low, high, wheels, cg, mass_kg, wanted):
    weight = mass_kg * G
    before = stand(weight, cg, wheels)[0]

    def miss(value):
        set_value(value)
        return stand(weight, cg, wheels)[0] - wanted
    given = {"mass_kg": mass_kg, "cg_station_m": cg[0], "cg_offset_y_m": 0.0, "cg_waterline_m": cg[1],
             "wheels": [as_given(wheels[0], "nose", 0.0), as_given(wheels[1], "port_main", -0.9),
                        as_given(wheels[1], "starboard_main", 0.9)],
             "target_pitch_deg": degrees(wanted), "change": change}
    answer = bisect(miss, low, high)
    case("stance_target", title, given, {"pitch_before_deg": {"value": degrees(before), "tol_abs": 0.002},
                                         name: {"value": answer, "tol_rel": 1e-3}})


nose = spring(0.6, -0.53, 0.165, 150e3, 21e3, 250.0, 0.15, 1)
mains = spring(2.46, -0.545, 0.19, 190e3, 46e3, 300.0, 0.2, 2)
target("nose leg's preload for a pitch", "nose_spring_preload", "nose_leg_preload_N",
       lambda v: nose.update(preload=v), 0, 3000, [nose, mains], (2.12, 0.3), 600.0, radians(-0.4))
nose = gas(0.6, -0.53, 0.165, 150e3, 0.00062, 0.00013, 800e3, 1.1, 0.15, 1)
mains = spring(2.46, -0.545, 0.19, 190e3, 46e3, 300.0, 0.2, 2)
target("nose leg's charge for a pitch", "nose_gas_pressure", "nose_leg_gas_pressure_extended_absolute_Pa",
       lambda v: nose.update(p=v), 200e3, 4e6, [nose, mains], (2.12, 0.3), 600.0, radians(-0.4))

# Sitting on its mains and a tail skid with the nose wheel in the air: the gap under it.
nose = spring(0.6, -0.5, 0.165, 150e3, 21e3, 0.0, 0.15, 1)
mains = spring(2.1, -0.545, 0.19, 190e3, 46e3, 0.0, 0.2, 2)
skid = dict(kind="coil", x=5.2, z=-0.05, R=0.0, kt=1e9, k=9e9, preload=0.0, most=0.01, n_alike=1)
cg = (2.3, 0.3)
weight = 480 * G
pitch, at = stand(weight, cg, [mains, skid])
gap = at + nose["z"] * cos(pitch) - nose["x"] * sin(pitch) - nose["R"]
assert gap > 0
case("stance", "on its mains and a tail skid, the nose wheel in the air", {
    "mass_kg": 480.0, "cg_station_m": cg[0], "cg_offset_y_m": 0.0, "cg_waterline_m": cg[1],
    "wheels": [as_given(nose, "nose", 0.0), as_given(mains, "port_main", -0.9), as_given(mains, "starboard_main", 0.9),
               {"name": "tailskid", "station_m": 5.2, "waterline_m": -0.05, "leg_kind": "skid"}],
}, {"pitch_deg": {"value": degrees(pitch), "tol_abs": 0.002}, "load_nose_N": {"value": 0, "tol_abs": 1e-6},
    "gap_under_nose_m": {"value": gap, "tol_abs": 1e-4},
    "load_tailskid_N": {"value": wheel_force(skid, pitch, at)[0], "tol_rel": 2e-3}})

# Splay from a vertical rate, and a length that ends at the wheel's centre.
offset, centre, cant, radius, vertical, load = 0.34, 0.7, radians(38), 0.2, 21e3, 1500.0
out, down = centre * sin(cant), centre * cos(cant) + radius
length, lean = hypot(out, down), atan2(out, down)
# The rate at the unloaded contact, by a small load: F·ℓ·sin = k·φ.
k = bisect(lambda k: vertical - 1.0 / (length * (cos(lean) - cos(bisect(
    lambda p: k * p - 1.0 * length * sin(lean + p), 0, 0.1) + lean))), 1e2, 1e5)
phi = bisect(lambda p: k * p - load * length * sin(lean + p), 0, 0.9)
case("track_growth", "stiffness as a vertical rate, length to the wheel's centre", {
    "hinge_offset_from_centre_line_m": offset, "load_per_wheel_N": load, "leg_length_hinge_to_wheel_centre_m": centre,
    "wheel_radius_m": radius, "leg_cant_extended_deg": 38.0, "vertical_rate_at_contact_N_per_m": vertical,
}, {"leg_turns_outward_deg": degrees(phi), "track_extended_m": 2 * (offset + out),
    "track_growth_m": 2 * length * (sin(lean + phi) - sin(lean))}, rel=2e-3)


# A tapering soft leaf on a fine grid.
def leaf_bends(load, L, b, t, E, sy, n=40000):
    deflection = work = 0.0
    for i in range(n):
        x = (i + 0.5) * L / n
        width = b[0] + (b[1] - b[0]) * x / L
        thick = t[0] + (t[1] - t[0]) * x / L
        my = sy * width * thick * thick / 6
        ky = my / (E * width * thick ** 3 / 12)
        m = load * (L - x) / my
        if m >= 1.5:
            return None
        kk = m if m <= 1 else 1 / sqrt(3 - 2 * m)
        deflection += ky * kk * (L - x) * L / n
        work += my * ky * (m * m / 2 if m <= 1 else 1.5 * kk - 1.5 + 0.5 / kk) * L / n
    return deflection, work


L, b, t, E, sy = 0.55, (0.09, 0.06), (0.014, 0.009), 70e9, 145e6
rate = 1 / leaf_bends(1.0, L, b, t, E, sy)[0]
first = min(sy * (b[0] + (b[1] - b[0]) * i / 2000) * (t[0] + (t[1] - t[0]) * i / 2000) ** 2 / 6 / (L * (1 - i / 2000))
            for i in range(2000))
peak = 1.25 * first
sagged = leaf_bends(peak, L, b, t, E, sy)[0]
leaf = {"leg_length_m": L, "width_at_root_m": b[0], "width_at_tip_m": b[1], "thickness_at_root_m": t[0],
        "thickness_at_tip_m": t[1], "youngs_modulus_Pa": E, "yield_stress_Pa": sy, "cant_deg": 52.0}
case("elastic_plastic_leaf_given_load", "width and thickness taper, past yield",
     dict(leaf, peak_tip_load_across_leg_N=peak, number_of_repeats=3),
     {"load_at_first_yield_N": first, "peak_deflection_m": sagged, "permanent_set_after_first_m": sagged - peak / rate,
      "height_lost_after_first_m": (sagged - peak / rate) * sin(radians(52))}, rel=1e-3)
energy = 1.4 * leaf_bends(first, L, b, t, E, sy)[1]
load, set_by = 0.0, 0.0
peaks, sets = [], []
for _ in range(4):
    # Elastic up to the former peak, then along the virgin curve.
    elastic = load * load / (2 * rate)
    if energy > elastic:
        start = leaf_bends(load, L, b, t, E, sy)[1] if load else 0.0
        # coarse first, then refined: the grid is slow
        load = bisect(lambda p: (leaf_bends(p, L, b, t, E, sy, 4000) or (0, 1e9))[1]
                      - (leaf_bends(load, L, b, t, E, sy, 4000)[1] if load else 0.0) + elastic - energy,
                      load or 1.0, 1.49 * first)
    set_by = leaf_bends(load, L, b, t, E, sy)[0] - load / rate
    peaks.append(load)
    sets.append(set_by)
case("elastic_plastic_leaf_given_energy", "width and thickness taper: height and half track after a row",
     dict(leaf, energy_per_landing_J=energy, number_of_landings=4),
     {"peak_load_first_landing_across_leg_N": peaks[0], "permanent_set_after_first_across_leg_m": sets[0],
      "peak_load_last_landing_across_leg_N": peaks[-1], "permanent_set_after_all_across_leg_m": sets[-1],
      "height_lost_after_all_m": sets[-1] * sin(radians(52)),
      "half_track_gained_after_all_m": sets[-1] * cos(radians(52))}, rel=3e-3)

# Two raked wires side by side, no cant: each a cantilever across its own line.
d, Lw, rake, Fw = 0.005, 0.19, radians(24), 90.0
I, A = pi * d ** 4 / 64, pi * d * d / 4
flex = sin(rake) ** 2 * Lw ** 3 / (3 * 207e9 * I) + cos(rake) ** 2 * Lw / (207e9 * A)
case("wire_leg_straight", "two wires side by side, raked without cant", {
    "wire_diameter_m": d, "leg_length_clamp_to_axle_m": Lw, "youngs_modulus_Pa": 207e9, "shear_modulus_Pa": 79.3e9,
    "cant_deg": 0.0, "rake_deg": 24.0, "vertical_load_N": Fw, "number_of_wires_side_by_side": 2,
}, {"vertical_stiffness_free_to_spread_N_per_m": 2 / flex, "vertical_deflection_m": Fw / 2 * flex,
    "largest_stress_at_clamp_Pa": Fw / 2 * (sin(rake) * Lw * 32 / (pi * d ** 3) + cos(rake) / A)}, rel=1e-4)
turns, coil = 1.5, 0.024
k_loop = 207e9 * d ** 4 / (64 * coil * turns)
case("wire_leg_one_loop", "one raked wire with a loop half way", {
    "wire_diameter_m": d, "leg_length_clamp_to_axle_m": Lw, "youngs_modulus_Pa": 207e9, "shear_modulus_Pa": 79.3e9,
    "rake_deg": 24.0, "vertical_load_N": 40.0, "loop_1_mean_diameter_m": coil, "loop_1_turns": turns,
    "loop_1_centre_distance_from_clamp_along_leg_m": Lw / 2,
}, {"vertical_stiffness_free_to_spread_N_per_m": 1 / (flex + (sin(rake) * Lw / 2) ** 2 / k_loop),
    "loop_1_rate_N_m_per_rad": k_loop, "loop_1_wind_up_deg": degrees(40 * sin(rake) * Lw / 2 / k_loop)}, rel=1e-4)

# A trailing link on gas: the force by a small virtual travel.
ax, az, ex, ez, fx, fz = 0.36, -0.12, 0.2, -0.02, 0.05, 0.27
Ag, Vg, pg, ng = 0.0007, 0.0002, 900e3, 1.25


def turned(x, z, q):
    return x * cos(q) - z * sin(q), x * sin(q) + z * cos(q)


def spring_length(q):
    x, z = turned(ex, ez, q)
    return hypot(x - fx, z - fz)


def rise(q):
    return turned(ax, az, q)[1] - az


expect = {"spring_length_extended_m": spring_length(0)}
given = {"extended_axle_x_aft_of_pivot_m": ax, "extended_axle_z_above_pivot_m": az,
         "extended_spring_eye_on_arm_x_aft_of_pivot_m": ex, "extended_spring_eye_on_arm_z_above_pivot_m": ez,
         "spring_eye_on_airframe_x_aft_of_pivot_m": fx, "spring_eye_on_airframe_z_above_pivot_m": fz,
         "gas_piston_area_m2": Ag, "gas_volume_extended_m3": Vg, "charge_pressure_absolute_Pa": pg,
         "ambient_pressure_Pa": 101325.0, "polytropic_exponent": ng}
for i, travel in enumerate((0.02, 0.08, 0.13), 1):
    given[f"wheel_travel_{i}_m"] = travel
    q = bisect(lambda a: rise(a) - travel, 0, 0.8)
    s = spring_length(0) - spring_length(q)
    force = Ag * (pg * (Vg / (Vg - Ag * s)) ** ng - 101325.0)
    ratio = (spring_length(q - 1e-6) - spring_length(q + 1e-6)) / (rise(q + 1e-6) - rise(q - 1e-6))
    expect[f"spring_travel_at_{i}_m"] = s
    expect[f"motion_ratio_at_{i}"] = ratio
    expect[f"vertical_wheel_force_at_{i}_N"] = force * ratio
    expect[f"gas_pressure_at_{i}_absolute_Pa"] = force / Ag + 101325.0
case("trailing_link", "a trailing link on gas", given, expect, rel=1e-5)

# Three tubes to one axle end, pins in any direction.
axle, tops, pins = (2.4, 0.95, -0.7), {"front": (2.1, 0.4, 0.05), "rear": (2.75, 0.42, 0.02), "side": (2.42, 0.2, -0.15)}, \
    {"front": (1, 0.2, 0), "rear": (0.3, 1, 0.1), "side": (0, 0.5, 1)}
given = {"axle_joint_x_y_z_m": axle}
expect = {}
along = {}
for name, top in tops.items():
    given[f"{name}_tube_top_x_y_z_m"] = top
    given[f"{name}_tube_top_pin_axis_x_y_z"] = pins[name]
    v = [a - p for a, p in zip(axle, top)]
    n = sqrt(sum(c * c for c in v))
    along[name] = [c / n for c in v]
    expect[f"{name}_tube_true_length_m"] = n
    pin = sqrt(sum(c * c for c in pins[name]))
    angle = degrees(acos(abs(sum(a * c for a, c in zip(along[name], pins[name]))) / pin))
    expect[f"{name}_tube_drill_angle_to_pin_deg"] = angle
for a, c in (("front", "rear"), ("front", "side"), ("rear", "side")):
    expect[f"angle_between_{a}_and_{c}_tubes_deg"] = degrees(acos(sum(p * q for p, q in zip(along[a], along[c]))))
case("tube_leg_geometry", "a leg of three tubes", given, expect, rel=1e-9)

# A landing with friction: fixed small steps of the two masses.
ms, mu, ks, pre, cc, ce, S, kb, ke, kt, Ff, V = 150.0, 12.0, 14e3, 600.0, 900.0, 1600.0, 0.2, 3e5, 2e6, 1.3e5, 220.0, 1.9


def strut(s, v):
    f = pre + ks * max(s, 0.0)
    stop = 0.0
    if s > S:
        stop = kb * (s - S)
    if s < 0:
        stop = ke * s
    return f, stop, (cc if v > 0 else ce) * v, Ff * tanh(v / 0.02)


def rates(y):
    zs, vs, zu, vu = y
    tyre = kt * max(zu, 0.0)
    f = sum(strut(zs - zu, vs - vu))
    return (vs, G - 2 / 3 * G * (ms + mu) / ms - f / ms, vu, G + (f - tyre) / mu)


# It starts on its extension stop, where the strut as a whole carries −K·m_u·g: both then fall alike.
s0 = (-2 / 3 * mu * G - pre) / ke
y, dt, peak, stroke = (s0, V, 0.0, V), 2e-6, 0.0, 0.0
shares = [0.0, 0.0, 0.0]
while y[1] > 0:
    k1 = rates(y)
    k2 = rates([a + dt / 2 * c for a, c in zip(y, k1)])
    k3 = rates([a + dt / 2 * c for a, c in zip(y, k2)])
    k4 = rates([a + dt * c for a, c in zip(y, k3)])
    v0 = y[1] - y[3]
    parts = strut(y[0] - y[2], v0)
    for i, force in enumerate((parts[0], parts[2], parts[3])):
        shares[i] += force * v0 * dt
    y = [a + dt / 6 * (p + 2 * q + 2 * r + s) for a, p, q, r, s in zip(y, k1, k2, k3, k4)]
    peak = max(peak, kt * max(y[2], 0.0))
    stroke = max(stroke, y[0] - y[2])
above, below = y[0], y[2]  # energies are counted when the sprung mass stops; the stroke goes on
while y[1] - y[3] > 0:
    k1 = rates(y)
    y = [a + dt * c for a, c in zip(y, rates([a + dt / 2 * c for a, c in zip(y, k1)]))]
    peak, stroke = max(peak, kt * y[2]), max(stroke, y[0] - y[2])
total = 0.5 * (ms + mu) * V * V + G * (ms * (above - s0) + mu * below) - 2 / 3 * G * (ms + mu) * (above - s0)
case("drop_two_masses_linear", "friction takes its share", {
    "sprung_mass_kg": ms, "unsprung_mass_kg": mu, "lift_ratio": 2 / 3, "sink_speed_m_per_s": V,
    "strut_spring_rate_N_per_m": ks, "strut_preload_N": pre, "damping_closing_N_s_per_m": cc,
    "damping_extending_N_s_per_m": ce, "strut_stroke_available_m": S, "bottom_stop_rate_N_per_m": kb,
    "extension_stop_rate_N_per_m": ke, "tyre_rate_N_per_m": kt, "strut_friction_N": Ff,
}, {"peak_ground_load_N": peak, "stroke_used_m": stroke, "energy_to_be_absorbed_J": total,
    "energy_share_strut_friction": shares[2] / total, "energy_share_strut_damper": shares[1] / total}, rel=2e-3)

# Rotation that comes too late: the speed at which the nose would lift, where drag lets it not get there.
run = {"mass_kg": 610.0, "cg_station_m": 2.12, "cg_height_above_ground_m": 0.96, "main_contact_station_m": 2.6,
       "wing_area_m2": 11.0, "mean_aerodynamic_chord_m": 1.262, "wing_aerodynamic_centre_station_m": 2.105,
       "wing_lift_coefficient_ground_attitude": 0.25, "drag_coefficient_ground_attitude": 0.16,
       "drag_height_above_ground_m": 0.88, "wing_moment_coefficient_nose_up_positive": -0.055, "tail_area_m2": 2.05,
       "tail_down_lift_coefficient": 0.6, "tail_station_m": 5.32, "thrust_N": 900.0,
       "thrust_height_above_ground_m": 1.04, "rolling_friction_coefficient": 0.03, "lift_coefficient_max": 1.5,
       "air_density_kg_per_m3": 1.225}


def lifting(v):  # nose-up moment about the main contact with the nose wheel just unloaded
    q = 0.5 * 1.225 * v * v
    lift, drag = q * 11 * 0.25, q * 11 * 0.16
    tail = q * 2.05 * 0.6
    ma = 900.0 - drag - 0.03 * (610 * G - lift + tail)
    return (tail * (5.32 - 2.6) + lift * (2.6 - 2.105) + drag * 0.88 - q * 11 * 1.262 * 0.055 + ma * 0.96
            - 610 * G * (2.6 - 2.12) - 900.0 * 1.04), ma


speed = bisect(lambda v: lifting(v)[0], 5, 80)
assert lifting(speed)[1] < 0
case("rotation_speed", "the nose would lift at a speed that it never reaches", run,
     {"can_rotate": flag(0), "rotation_speed_m_per_s": speed}, rel=1e-6)

about = ("Forms of the reference kinds beyond those of the other files, answered by tools/breadth_cases.py: forward "
         "statics, fine grids, bisection, fixed steps. SI units, angles in degrees; axes and signs as in place.json.")
target_file = pathlib.Path(__file__).resolve().parent.parent / "tests" / "reference" / "breadth.json"
target_file.write_text(json.dumps({"about": about, "cases": cases}, indent=1) + "\n")
print(len(cases), "cases")
