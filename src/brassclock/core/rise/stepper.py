"""The equations of a rising dough and their fixed-step integrator, in the subset that a compiler takes.

Added yeast and a starter's wild yeast and bacteria share one dough: one sugar pool, one gas, one heat. States, rows and
parameters by name: `state`.
"""

from __future__ import annotations

import math

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.air import GAS_CONSTANT_J_MOLK
from brassclock.core.rise.chemical.reaction import LEFT, SODA, potential, react
from brassclock.core.rise.state import (
    ACID,
    BACTERIA,
    CO2,
    CO2_IN_GAS,
    FIRST_STATE,
    GAS_ML,
    GAS_READY,
    GROWTH_READY,
    HOUR,
    MADE,
    MALTOSE,
    ROW_AIR,
    ROW_GAS,
    ROW_IN_GAS,
    ROW_PIECE,
    ROW_TO_COME,
    SLOPES,
    SOUR_READY,
    STARCH,
    STATES,
    SUGAR,
    TEMP,
    WEAKENING,
    WILD,
    YEAST,
    Rates,
)

MOST_FULL = Param(1.15, "-", 1.05, 1.3, Kind.JUDGEMENT, "of what a dough can hold, for a moment")
COOL_PART_K, HOT_PART_K, NEAR_BOILING_C = (
    5.0,
    1.0,
    60.0,
)  # how far a part of a step may warm; steam swells it fast near boiling
MOST_PARTS = 200.0
LEAST_FULL = 0.05  # below it a dough does not rupture
KILL_FROM_C = Param(38.0, "C", 36, 42, Kind.PUBLISHED_FROM_MEMORY, "yeast begins to die")
ACETIC_PKA = Param(4.76, "-", 4.75, 4.77, Kind.PUBLISHED_FROM_MEMORY, "handbook")
SODA_PH = Param(8.3, "-", 8.2, 8.4, Kind.PUBLISHED_FROM_MEMORY, "soda in water")


def cardinal(t: float, t_min: float, t_opt: float, t_max: float) -> float:
    """Cardinal temperature model (Rosso 1993), unscaled; 0 outside t_min to t_max."""
    if t <= t_min or t >= t_max:
        return 0.0
    top = (t - t_max) * (t - t_min) ** 2
    return top / ((t_opt - t_min) * ((t_opt - t_min) * (t - t_opt) - (t_opt - t_max) * (t_opt + t_min - 2.0 * t)))


def solubility(t: float, water: float, pressure: float) -> tuple[float, float]:
    """(molar volume mL/mol, water times Ostwald coefficient mL) of CO2 in dough at `t` C, as in `gas`."""
    k = t + 273.15
    v = GAS_CONSTANT_J_MOLK * k / (pressure - 0.97 * 611.2 * math.exp(17.62 * t / (243.12 + t))) * 1e6
    x = k / 100.0
    return v, water * math.exp(-58.0931 + 90.5069 / x + 22.2940 * math.log(x)) * GAS_CONSTANT_J_MOLK * k / 101.325


def split_at(co2: float, air: float, v: float, dissolves: float) -> tuple[float, float]:
    """(gas mL, CO2 in the gas mol) for a known solubility."""
    c = co2 * v
    alpha = air * v
    b = c + dissolves + alpha
    y = 0.0
    if c > 0.0:
        y = 2.0 * c / (b + math.sqrt(b * b - 4.0 * dissolves * c))
    gas = alpha + c - dissolves * y
    return gas, y * gas / v


def split(co2: float, air: float, t: float, water: float, pressure: float) -> tuple[float, float]:
    """(gas mL, CO2 in the gas mol): `gas.gas_split` again, here so that it compiles with the rest."""
    v, dissolves = solubility(t, water, pressure)
    return split_at(co2, air, v, dissolves)


def pace(t: float, t_max: float, x0: float, c: float, mu: float) -> float:
    """Growth rate of a sourdough organism by temperature (form of Gänzle 1998), 0 at and above t_max [1/h]."""
    x = t_max - t
    if x <= 0.0:
        return 0.0
    return mu * math.exp(c * x0 * math.log(x / x0) - c * (x - x0))


def acidity(acid, p):
    """pH of the dough by its table; soda's straight line below no acid."""
    if acid <= 0.0:
        return min(SODA_PH, p.ph0 - acid / p.buffer)
    at = acid / p.acid_step
    table = p.ph_table
    last = table.shape[0] - 1
    if at >= last:
        return table[last]
    i = int(at)
    return table[i] + (at - i) * (table[i + 1] - table[i])


def warmth(t, p):
    """All that hangs on temperature alone, at t C."""
    kill = 0.0
    if t > KILL_FROM_C:
        kill = 60.0 * math.log(10.0) / (p.d58 * 10.0 ** ((58.0 - t) / p.z_kill))
    amylase = p.k30 * math.exp(-p.amylase_ea / GAS_CONSTANT_J_MOLK * (1.0 / (t + 273.15) - 1.0 / 303.15))
    v, dissolves = solubility(t, p.water, p.pressure_pa)
    wild = 0.0
    bacteria = 0.0
    if p.sour > 0.0:
        wild = pace(t, p.y_t_max, p.y_x, p.y_c, p.y_mu)
        bacteria = pace(t, p.l_t_max, p.l_x, p.l_c, p.l_mu)
    gas = cardinal(t, p.gas_t_min, p.gas_t_opt, p.gas_t_max)
    growth = cardinal(t, p.growth_t_min, p.growth_t_opt, p.growth_t_max)
    return Rates(gas, growth, kill, amylase, v, dissolves, wild, bacteria)


def derivatives(y, ambient, tau, air, p, out):
    """Right-hand side without killing: fills `out` [per h] from state, ambient C, time constant h, air mol and p; then
    gas mL and CO2 in it mol."""
    rates(y, ambient, tau, air, p, warmth(ambient if tau <= 0.0 else y[TEMP], p), out)


def starter_rates(y, p, w, eta, eps, sugars, out):
    """Fill the slopes of wild yeast, bacteria, their readiness and acid. Returns (share of yeast's pace that acid
    leaves, sugar and maltose that wild yeast takes and CO2 it makes of each [mol/h], acid made [mol/h], weakening by
    acid [1/h])."""
    wild, bact, ready = y[WILD], y[BACTERIA], y[SOUR_READY]
    ph = acidity(y[ACID], p)
    undissociated = p.acetic * max(y[ACID], 0.0) / (1.0 + 10.0 ** (ph - ACETIC_PKA)) / p.water
    alive = min(1.0, max(0.0, 1.0 - undissociated / p.u_max))
    at_ease = min(1.0, max(0.0, (ph - p.ph_stop) / p.ph_full))
    fed = sugars / (0.004 + sugars)
    food = eta + (1.0 - eta) * eps
    acid_rate = p.q_acid * w.bacteria / p.pace25 * p.salt_l * at_ease * fed * bact
    wild_gas = p.q30 * w.gas / p.gas30 * p.f_osm * alive * (0.5 + 0.5 * ready) * wild
    out[WILD] = p.km * w.wild * ready * p.salt_y * alive * food * wild * (1.0 - wild / p.crowd)
    out[BACTERIA] = p.km * w.bacteria * ready * p.salt_l * at_ease * fed * bact
    out[SOUR_READY] = w.bacteria * ready * (1.0 - ready)
    out[ACID] = acid_rate
    weak = p.k_weak / (1.0 + 10.0 ** (p.weak_steep * (ph - p.ph_weak)))
    return alive, wild_gas * eta, p.wild_maltose * wild_gas * (1.0 - eta) * eps, acid_rate, weak


def capacity(p, weakening):
    """The largest volume ratio that a dough can hold, weakened by that much."""
    return 1.0 + p.stretch * p.strength * math.exp(-weakening)


def rupture(p, full):
    """Gas lost through a dough that is that full [1/h]."""
    if full > LEAST_FULL:
        return p.k_r * math.exp(p.leak_p * math.log(full))
    return 0.0


def rates(y, ambient, tau, air, p, w, out):
    """`derivatives` with what temperature does already in `w` (see `warmth`)."""
    sugar, maltose = max(y[SUGAR], 0.0), max(y[MALTOSE], 0.0)
    eta = sugar / (p.k_h + sugar)
    eps = maltose / (p.k_m + maltose)
    room = 1.0 - (y[YEAST] - p.yeast0) / p.growth_room
    crowding = 0.0
    if room > 0.0:
        crowding = room * (1.0 + p.k_n) / (p.k_n + room)
    alive, wild_h, wild_m, acid_rate, sour_weak = 1.0, 0.0, 0.0, 0.0, 0.0
    out[WILD] = out[BACTERIA] = out[SOUR_READY] = out[ACID] = 0.0
    if p.sour > 0.0:
        alive, wild_h, wild_m, acid_rate, sour_weak = starter_rates(y, p, w, eta, eps, sugar + maltose, out)
    pace_gas = p.q30 * w.gas / p.gas30 * p.f_osm * alive * y[GAS_READY] * y[YEAST]
    growth = p.mu27 * w.growth / p.growth27 * p.f_osm * alive * y[GROWTH_READY] * y[YEAST] * crowding
    from_sugar = eta * max(pace_gas, p.kappa * growth) + wild_h
    from_maltose = (1.0 - eta) * eps * max(p.maltose_pace * pace_gas, p.kappa * growth) + wild_m
    made = from_sugar + from_maltose + p.co2_of_acid * acid_rate
    soured = 0.0
    if sugar + maltose > 1e-12:
        soured = p.sugar_of_acid * acid_rate / (sugar + maltose)
    gas, in_gas = split_at(y[CO2], air, w.molar_ml, w.dissolves_ml)
    full = (p.dry_ml + gas) / p.first_ml / capacity(p, y[WEAKENING])
    out[YEAST] = growth * (eta + (1.0 - eta) * eps)
    out[SUGAR] = -from_sugar / p.yield_y - soured * sugar
    out[MALTOSE] = w.amylase * y[STARCH] - from_maltose / p.yield_y - soured * maltose
    out[STARCH] = -w.amylase * y[STARCH]
    out[GAS_READY] = (1.0 - y[GAS_READY]) * w.gas / p.gas30 / p.tau_a
    out[GROWTH_READY] = (1.0 - y[GROWTH_READY]) * w.growth / p.growth27 / p.tau_g
    out[CO2] = made - in_gas * (p.k_d * w.gas / p.gas30 + rupture(p, full))
    out[WEAKENING] = w.gas / p.gas25 * (p.k_s + sour_weak)
    out[TEMP] = 0.0
    if tau > 0.0:
        out[TEMP] = (ambient - y[TEMP]) / tau + made * p.heat / (p.mass * p.cp)
    out[MADE] = made
    out[GAS_ML] = gas
    out[CO2_IN_GAS] = in_gas


def meet(y, pools, t, minutes, sour):
    """Soda meets its acids for some minutes at `t` C, a starter's acid first; the gas joins the dough's."""
    more = 0.0
    if sour > 0.0 and y[ACID] > 0.0:
        more = min(pools[SODA, LEFT], y[ACID])
        pools[SODA, LEFT] -= more
        y[ACID] -= more
    more += react(pools, t, minutes)
    y[CO2] += more
    y[MADE] += more


def die(y, dose):
    """Kill yeast and bacteria by a dose (rate times time), whatever its size: heat kills far faster than a step is
    long."""
    if dose > 0.0:
        left = math.exp(-dose)
        y[YEAST] *= left
        y[WILD] *= left
        y[BACTERIA] *= left


def vent(y, air, p, w):
    """Gas beyond what a dough that leaks can hold bursts out of it at once; returns the air that is left [mol]."""
    if p.k_r <= 0.0:
        return air
    most = MOST_FULL * capacity(p, y[WEAKENING]) * p.first_ml - p.dry_ml
    for _ in range(12):
        gas, in_gas = split_at(y[CO2], air, w.molar_ml, w.dissolves_ml)
        if gas <= most:
            break
        share = most / gas
        y[CO2] -= in_gas * (1.0 - share)
        air *= share
    return air


def parts_of(y, k, change_c, tau, p, hours):
    """Number of parts in which a step is taken: one but where the dough warms or cools by much in it, or leaks faster
    than it is long."""
    warms = abs(change_c) if tau <= 0.0 else abs(k[TEMP]) * hours
    whole = COOL_PART_K if y[TEMP] + warms < NEAR_BOILING_C else HOT_PART_K
    full = (p.dry_ml + k[GAS_ML]) / p.first_ml / capacity(p, y[WEAKENING])
    leaks = rupture(p, full) * (1.0 + p.leak_p) * hours
    return int(min(max(math.ceil(leaks), math.ceil(warms / whole), 1.0), MOST_PARTS))


def note(rows, n, t, y, air, piece, pools):
    """Write one row, its gas still to come; returns the next one's number."""
    rows[n, HOUR] = t
    rows[n, FIRST_STATE : FIRST_STATE + STATES] = y
    rows[n, ROW_AIR] = air
    rows[n, ROW_PIECE] = piece
    rows[n, ROW_TO_COME] = potential(pools)
    return n + 1


def note_gas(rows, n, gas_ml, in_gas):
    """Write the gas of a row."""
    rows[n, ROW_GAS] = gas_ml
    rows[n, ROW_IN_GAS] = in_gas


def along(y, k, h, out):
    """The state a step h along a slope, into `out`."""
    for q in range(STATES):
        out[q] = y[q] + h * k[q]


def advance(y, k, s, b0, b1, tau, air, p, w, h):
    """One RK4 step of h hours from ambient b0 to b1 [C], its first slope in `k[0]` already. Returns `warmth` at its
    end.

    Temperature is smooth within a step and what hangs on it is dear: the second and third slope share the middle's, the
    fourth has the end's, which is the next step's beginning.
    """
    mid = 0.5 * (b0 + b1)
    along(y, k[0], 0.5 * h, s)
    w = warmth(mid if tau <= 0.0 else s[TEMP], p)
    rates(s, mid, tau, air, p, w, k[1])
    along(y, k[1], 0.5 * h, s)
    rates(s, mid, tau, air, p, w, k[2])
    along(y, k[2], h, s)
    w = warmth(b1 if tau <= 0.0 else s[TEMP], p)
    rates(s, b1, tau, air, p, w, k[3])
    for q in range(STATES):
        y[q] += h / 6.0 * (k[0, q] + 2.0 * k[1, q] + 2.0 * k[2, q] + k[3, q])
    return w


def step(y, k, s, a0, a1, tau, air, p, w, hours):
    """One step from ambient a0 to a1 [C], in as many parts as it needs; its first slope is in `k[0]`. Returns (air mol,
    `warmth` at its end).

    Killing is done exactly, half before a part and half after it, at the temperature there (Strang 1968).
    """
    parts = parts_of(y, k[0], a1 - a0, tau, p, hours)
    h = hours / parts
    for part in range(parts):
        b0 = a0 + (a1 - a0) * (part / parts)
        b1 = a0 + (a1 - a0) * ((part + 1.0) / parts)
        if part > 0 or w.kill > 0.0:
            die(y, 0.5 * h * w.kill)
            rates(y, b0, tau, air, p, w, k[0])
        w = advance(y, k, s, b0, b1, tau, air, p, w, h)
        die(y, 0.5 * h * w.kill)
        if tau <= 0.0:
            y[TEMP] = b1
        air = vent(y, air, p, warmth(y[TEMP], p) if y[TEMP] > NEAR_BOILING_C else w)
    return air, w


def knock_back(y, air, p, frac, gas, in_gas):
    """Press gas out until it fills that share of the dough; counting of CO2 begins anew. Returns the air left [mol]."""
    left = min(1.0, p.dry_ml * frac / (1.0 - frac) / gas)
    y[CO2] -= in_gas * (1.0 - left)
    y[MADE] = 0.0
    return air * left


def run(y, air, pools, pieces, p, dt_h, rows):
    """Integrate through `pieces` by RK4 with steps of at most dt_h; fills `rows`, returns (how many, air at the end
    [mol]).

    Restarts at every piece. The row before a knock-back keeps its volume; the knock-back shows in the first row of the
    next piece (same time). Soda and acids (`pools`, see `chemical.reaction`) react after every step, exactly for its
    mean temperature: their fast share would be stiff inside it. `y` and `pools` are left as they end.
    """
    k = np.zeros((4, SLOPES))
    s = np.zeros(STATES)
    t = 0.0
    n = 0
    for i in range(pieces.hours.shape[0]):
        hours, tau, frac = pieces.hours[i], pieces.tau_h[i], pieces.knock_frac[i]
        amb0, amb1 = pieces.ambient0_c[i], pieces.ambient1_c[i]
        if tau <= 0.0:
            y[TEMP] = amb0
        air = vent(y, air, p, warmth(y[TEMP], p))
        n = note(rows, n, t, y, air, i, pools)
        steps = math.ceil(hours / dt_h - 1e-9)
        w = warmth(y[TEMP], p)
        for j in range(steps):
            hstep = hours / steps
            a0 = amb0 + (amb1 - amb0) * (j / steps)
            a1 = amb0 + (amb1 - amb0) * ((j + 1.0) / steps)
            before = y[TEMP]
            rates(y, a0, tau, air, p, w, k[0])
            note_gas(rows, n - 1, k[0, GAS_ML], k[0, CO2_IN_GAS])  # the row before stands at this very state
            air, w = step(y, k, s, a0, a1, tau, air, p, w, hstep)
            if pools[SODA, LEFT] > 0.0:
                meet(y, pools, 0.5 * (before + y[TEMP]), 60.0 * hstep, p.sour)
            n = note(rows, n, t + (j + 1.0) * hstep, y, air, i, pools)
        t += hours
        gas, in_gas = split(y[CO2], air, y[TEMP], p.water, p.pressure_pa)
        note_gas(rows, n - 1, gas, in_gas)
        if frac >= 0.0:
            air = knock_back(y, air, p, frac, gas, in_gas)
    return n, air
