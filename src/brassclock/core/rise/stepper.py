"""The equations of a rising dough and their fixed-step integrator, in the subset a compiler takes.

Added yeast and a starter's wild yeast and bacteria share one dough: one sugar pool, one gas, one heat.

State y: 0 yeast X, 1 sugar H, 2 maltose M, 3 damaged starch D, 4 gas readiness a, 5 growth readiness g,
6 CO2 held C, 7 weakening Z, 8 temperature T, 9 CO2 made Q, 10 wild yeast Xs, 11 bacteria L, 12 their
readiness gs, 13 acid A. Parameters p in the order of `course.start_of`, the sour ones from SOUR on, the
table of pH by acid from TABLE on. Piece rows: 0 hours, 1 ambient at start C, 2 ambient at end C, 3 time
constant h (0 pins the dough), 4 gas fraction to knock back to at the end (negative for none).
"""

from __future__ import annotations

import math

import numpy as np

from brassclock.core.rise.chemical.reaction import potential, react

STATES = 14
MOST_FULL = 1.15  # of what a dough can hold, for a moment: judgement
COOL_PART_K, HOT_PART_K, NEAR_BOILING_C = (
    5.0,
    1.0,
    60.0,
)  # how far a part of a step may warm; steam swells it fast near boiling
MOST_PARTS = 200.0
COLUMNS = 20  # t, the states, gas mL, air mol, piece index, CO2 in the gas, gas that soda and acid can still make
SOUR = 39
TABLE = 67


def cardinal(t: float, t_min: float, t_opt: float, t_max: float) -> float:
    """Cardinal temperature model (Rosso 1993), unscaled; 0 outside t_min to t_max."""
    if t <= t_min or t >= t_max:
        return 0.0
    top = (t - t_max) * (t - t_min) ** 2
    return top / ((t_opt - t_min) * ((t_opt - t_min) * (t - t_opt) - (t_opt - t_max) * (t_opt + t_min - 2.0 * t)))


def solubility(t: float, water: float, pressure: float) -> tuple[float, float]:
    """(molar volume mL/mol, water times Ostwald coefficient mL) of CO2 in dough at `t` C, as in `gas`."""
    k = t + 273.15
    v = 8.314 * k / (pressure - 0.97 * 611.2 * math.exp(17.62 * t / (243.12 + t))) * 1e6
    x = k / 100.0
    return v, water * math.exp(-58.0931 + 90.5069 / x + 22.2940 * math.log(x)) * 8.314 * k / 101.325


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
        return min(8.3, p[SOUR + 20] - acid / p[SOUR + 19])
    at = acid / p[SOUR + 21]
    last = p.shape[0] - TABLE - 1
    if at >= last:
        return p[TABLE + last]
    i = int(at)
    return p[TABLE + i] + (at - i) * (p[TABLE + i + 1] - p[TABLE + i])


def warmth(t, p):
    """All that hangs on temperature alone: rates of gas and growth, killing, amylase [per h], the solubility of CO2
    in two numbers [mL], the pace of wild yeast and of bacteria [per h]."""
    gas_rate = cardinal(t, p[29], p[30], p[31])
    growth_rate = cardinal(t, p[32], p[33], p[34])
    kill = 0.0
    if t > 38.0:
        kill = 60.0 * math.log(10.0) / (p[27] * 10.0 ** ((58.0 - t) / p[28]))
    k_am = p[13] * math.exp(-p[14] / 8.314 * (1.0 / (t + 273.15) - 1.0 / 303.15))
    v, dissolves = solubility(t, p[0], p[23])
    mu_y = 0.0
    mu_l = 0.0
    if p[SOUR] > 0.0:
        mu_y = pace(t, p[SOUR + 11], p[SOUR + 12], p[SOUR + 13], p[SOUR + 14])
        mu_l = pace(t, p[SOUR + 22], p[SOUR + 23], p[SOUR + 24], p[SOUR + 25])
    return gas_rate, growth_rate, kill, k_am, v, dissolves, mu_y, mu_l


def derivatives(y, ambient, tau, air, p, out):
    """Right-hand side without killing: fills `out` [per h] from state, ambient C, time constant h, air mol and p; then gas mL and CO2 in it."""
    rates(y, ambient, tau, air, p, warmth(ambient if tau <= 0.0 else y[8], p), out)


def rates(y, ambient, tau, air, p, w, out):
    """`derivatives` with what temperature does already in `w` (see `warmth`)."""
    x, h, m, d, a, g, co2, weak = y[0], y[1], y[2], y[3], y[4], y[5], y[6], y[7]
    h = max(h, 0.0)
    m = max(m, 0.0)
    gas_rate, growth_rate, _, k_am, v, dissolves, mu_y, mu_l = w
    eta = h / (p[10] + h)
    eps = m / (p[11] + m)
    room = 1.0 - (x - p[3]) / p[6]
    nu = 0.0
    if room > 0.0:
        nu = room * (1.0 + p[9]) / (p[9] + room)
    # a starter's share of the dough: its yeast, its bacteria, their acid
    alive = 1.0
    wild = 0.0
    wild_h = 0.0
    wild_m = 0.0
    acid_rate = 0.0
    sour_weak = 0.0
    grow_wild = 0.0
    grow_bact = 0.0
    ready = 0.0
    if p[SOUR] > 0.0:
        wild = y[10]
        bact = y[11]
        gs = y[12]
        acid = y[13]
        ph = acidity(acid, p)
        undissociated = p[SOUR + 10] * max(acid, 0.0) / (1.0 + 10.0 ** (ph - 4.76)) / p[0]
        alive = min(1.0, max(0.0, 1.0 - undissociated / p[SOUR + 9]))
        at_ease = min(1.0, max(0.0, (ph - p[SOUR + 17]) / p[SOUR + 18]))
        fed = (h + m) / (0.004 + h + m)
        food = eta + (1.0 - eta) * eps
        grow_wild = p[SOUR + 1] * mu_y * gs * p[SOUR + 7] * alive * food * wild * (1.0 - wild / p[SOUR + 2])
        grow_bact = p[SOUR + 1] * mu_l * gs * p[SOUR + 8] * at_ease * fed * bact
        ready = mu_l * gs * (1.0 - gs)
        acid_rate = p[SOUR + 3] * mu_l / p[SOUR + 16] * p[SOUR + 8] * at_ease * fed * bact
        b_wild = p[4] * gas_rate / p[35] * p[1] * alive * (0.5 + 0.5 * gs) * wild
        wild_h = b_wild * eta
        wild_m = p[SOUR + 15] * b_wild * (1.0 - eta) * eps
        sour_weak = p[SOUR + 5] / (1.0 + 10.0 ** (p[SOUR + 26] * (ph - p[SOUR + 6])))
    b = p[4] * gas_rate / p[35] * p[1] * alive * a * x
    gamma = p[5] * growth_rate / p[36] * p[1] * alive * g * x * nu
    r_h = eta * max(b, p[8] * gamma) + wild_h
    r_m = (1.0 - eta) * eps * max(p[2] * b, p[8] * gamma) + wild_m
    r = r_h + r_m + p[SOUR + 4] * acid_rate
    soured = 0.0
    if h + m > 1e-12:
        soured = p[SOUR + 27] * acid_rate / (h + m)
    gas, in_gas = split_at(co2, air, v, dissolves)
    e = (p[21] + gas) / p[22]
    e_max = 1.0 + p[38] * p[20] * math.exp(-weak)
    full = e / e_max
    leak = 0.0
    if full > 0.05:  # below it the power is nothing
        leak = p[17] * math.exp(p[18] * math.log(full))
    loss = in_gas * (p[16] * gas_rate / p[35] + leak)
    out[0] = gamma * (eta + (1.0 - eta) * eps)
    out[1] = -r_h / p[12] - soured * h
    out[2] = k_am * d - r_m / p[12] - soured * m
    out[3] = -k_am * d
    out[4] = (1.0 - a) * gas_rate / p[35] / p[15]
    out[5] = (1.0 - g) * growth_rate / p[36] / p[7]
    out[6] = r - loss
    out[7] = gas_rate / p[37] * (p[19] + sour_weak)
    out[8] = 0.0
    if tau > 0.0:
        out[8] = (ambient - y[8]) / tau + r * p[24] / (p[25] * p[26])
    out[9] = r
    out[10] = grow_wild
    out[11] = grow_bact
    out[12] = ready
    out[13] = acid_rate
    out[14] = gas
    out[15] = in_gas


def meet(y, pools, t, minutes, sour):
    """Soda meets its acids for some minutes at `t` C, a starter's acid first; the gas joins the dough's."""
    more = 0.0
    if sour > 0.0 and y[13] > 0.0:
        more = min(pools[0, 0], y[13])
        pools[0, 0] -= more
        y[13] -= more
    more += react(pools, t, minutes)
    y[6] += more
    y[9] += more


def die(y, dose):
    """What lives is killed by a dose (rate times time), whatever its size: heat kills far faster than a step is long."""
    if dose > 0.0:
        left = math.exp(-dose)
        y[0] *= left
        y[10] *= left
        y[11] *= left


def vent(y, air, p, w):
    """Gas beyond what a dough that leaks can hold bursts out of it at once; returns the air that is left [mol]."""
    if p[17] <= 0.0:
        return air
    most = MOST_FULL * (1.0 + p[38] * p[20] * math.exp(-y[7])) * p[22] - p[21]
    for _ in range(12):
        gas, in_gas = split_at(y[6], air, w[4], w[5])
        if gas <= most:
            break
        share = most / gas
        y[6] -= in_gas * (1.0 - share)
        air *= share
    return air


def parts_of(y, k, change_c, tau, p, hours):
    """In how many parts a step is taken: one but where the dough warms or cools by much in it, or leaks faster than it is long."""
    warms = abs(change_c) if tau <= 0.0 else abs(k[8]) * hours
    whole = COOL_PART_K if y[8] + warms < NEAR_BOILING_C else HOT_PART_K
    full = (p[21] + k[14]) / p[22] / (1.0 + p[38] * p[20] * math.exp(-y[7]))
    leaks = 0.0
    if full > 0.05:
        leaks = p[17] * math.exp(p[18] * math.log(full)) * (1.0 + p[18]) * hours
    return int(min(max(math.ceil(leaks), math.ceil(warms / whole), 1.0), MOST_PARTS))


def note(rows, n, t, y, air, piece, pools):
    """Write one row, its gas still to come; returns the next one's number."""
    rows[n, 0] = t
    rows[n, 1 : 1 + STATES] = y
    rows[n, 16] = air
    rows[n, 17] = piece
    rows[n, 19] = potential(pools)
    return n + 1


def run(y, air, pools, pieces, p, dt_h, rows):
    """Integrate through `pieces` by RK4 with steps of at most dt_h; fills `rows`, returns (how many, air at the end).

    Temperature is smooth within a step and what hangs on it is dear, so its work is done twice a step, not
    four times: the second and third slope share the middle's, the next step's first has the last one's.
    Killing is done exactly, half before the step and half after it, at the temperature there (Strang 1968). A step in which
    much happens is taken in parts.
    Restarts at every piece. The row before a knock-back keeps its volume; the knock-back shows in the
    first row of the next piece (same time). Soda and acids (`pools`, see `chemical.reaction`) react after
    every step, exactly for its mean temperature: their fast share would be stiff inside it. `y` and `pools`
    are left as they end.
    """
    k1 = np.zeros(STATES + 2)
    k2 = np.zeros(STATES + 2)
    k3 = np.zeros(STATES + 2)
    k4 = np.zeros(STATES + 2)
    s = np.zeros(STATES)
    t = 0.0
    n = 0
    for i in range(pieces.shape[0]):
        hours, amb0, amb1, tau, phi = pieces[i, 0], pieces[i, 1], pieces[i, 2], pieces[i, 3], pieces[i, 4]
        if tau <= 0.0:
            y[8] = amb0
        air = vent(y, air, p, warmth(y[8], p))
        n = note(rows, n, t, y, air, i, pools)
        steps = math.ceil(hours / dt_h - 1e-9)
        if steps > 0:
            hstep = hours / steps
            w = warmth(y[8], p)
            for j in range(steps):
                a0 = amb0 + (amb1 - amb0) * (j / steps)
                a1 = amb0 + (amb1 - amb0) * ((j + 1.0) / steps)
                before = y[8]
                rates(y, a0, tau, air, p, w, k1)
                rows[n - 1, 15] = k1[14]  # the row before stands at this very state
                rows[n - 1, 18] = k1[15]
                parts = parts_of(y, k1, a1 - a0, tau, p, hstep)
                h = hstep / parts
                for part in range(parts):
                    b0 = a0 + (a1 - a0) * (part / parts)
                    b1 = a0 + (a1 - a0) * ((part + 1.0) / parts)
                    bm = 0.5 * (b0 + b1)
                    if part > 0 or w[2] > 0.0:
                        die(y, 0.5 * h * w[2])
                        rates(y, b0, tau, air, p, w, k1)
                    for q in range(STATES):
                        s[q] = y[q] + 0.5 * h * k1[q]
                    w = warmth(bm if tau <= 0.0 else s[8], p)
                    rates(s, bm, tau, air, p, w, k2)
                    for q in range(STATES):
                        s[q] = y[q] + 0.5 * h * k2[q]
                    rates(s, bm, tau, air, p, w, k3)
                    for q in range(STATES):
                        s[q] = y[q] + h * k3[q]
                    w = warmth(b1 if tau <= 0.0 else s[8], p)
                    rates(s, b1, tau, air, p, w, k4)
                    for q in range(STATES):
                        y[q] += h / 6.0 * (k1[q] + 2.0 * k2[q] + 2.0 * k3[q] + k4[q])
                    die(y, 0.5 * h * w[2])
                    if tau <= 0.0:
                        y[8] = b1
                    air = vent(y, air, p, warmth(y[8], p) if y[8] > NEAR_BOILING_C else w)
                if pools[0, 0] > 0.0:
                    meet(y, pools, 0.5 * (before + y[8]), 60.0 * hstep, p[SOUR])
                n = note(rows, n, t + (j + 1.0) * hstep, y, air, i, pools)
        t += hours
        gas, in_gas = split(y[6], air, y[8], p[0], p[23])
        rows[n - 1, 15] = gas
        rows[n - 1, 18] = in_gas
        if phi >= 0.0:
            chi = min(1.0, p[21] * phi / (1.0 - phi) / gas)
            air *= chi
            y[6] -= in_gas * (1.0 - chi)
            y[9] = 0.0
    return n, air
