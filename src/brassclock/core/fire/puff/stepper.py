"""Heat, water and steam through one bread and the plate beneath it, in the subset a compiler takes.

Cells run from the plate up. Backward Euler for heat; boiling at the local boiling point of bound
water; steam driven inward condenses on cooler crumb or opens the pocket. SI; temperatures in C.
`p` is ordered as `model._vector`; a stage row as `model._stage_row`.
"""

from __future__ import annotations

import math

import numpy as np

EVENTS = 17
# 0 bubbles, 1 set bottom face, 2 set top face, 3 flip, 4 puff, 5 full, 6 done, 7 too dry,
# 8/9 light A/B, 10/11 golden A/B, 12/13 charred A/B, 14 stage-2 start, 15 taken off, 16 all of it at 75 C
CORE_C = 75.0
WET_C = 20.0  # of what is sprayed or spread
OIL_SPOT_H = 500.0  # W/m2K of boiling oil on a blister (frying with bubbles, order published, from memory)
# fitted to one row of practice: a thin sheet swells more, by its share, before its bubbles stand high enough to be seen
SEEN_M, SEEN_POWER = 0.005, 0.7
COLOUR_M = 0.0002  # dry crust that shows its full colour
DRY_AW, DRY_POWER = 0.5, 4  # water activity at which a skin browns at half its dry rate, and how sharply
TURN_DRY = 0.6  # judgement: of the loss that dries a bread out, the share spent when it is turned without its colour
BROWN_REF_K, CHAR_REF_K = 473.15, 573.15
SIGMA = 5.670374e-8
LN_25 = math.log(0.25)  # conductivity of dry dough [W/mK] ...
LN_66_25 = math.log(0.66 / 0.25)  # ... and of water at 80 C over it


def lookup(table, x, x0, dx):
    """Linear interpolation in an even table, held at its ends."""
    u = (x - x0) / dx
    if u <= 0.0:
        return table[0]
    i = int(u)
    if i >= table.shape[0] - 1:
        return table[table.shape[0] - 1]
    return table[i] + (table[i + 1] - table[i]) * (u - i)


def smooth(x: float) -> float:
    """Smoothstep from 0 to 1."""
    x = min(1.0, max(0.0, x))
    return x * x * (3.0 - 2.0 * x)


def gas_growth(t: float, t0_k: float, dry0: float, pressure: float, psat: float) -> float:
    """Volume ratio R of a bubble of moist gas warmed to t [C]; its dry share never below 2 %."""
    return (t + 273.15) / t0_k * dry0 / max(pressure - psat, 0.02 * pressure)


def face_evaporation(t: float, aw: float, psat: float, h: float, p_inf: float, pressure: float, b: float) -> float:
    """Water leaving a wet face [kg/m2s]; negative is condensation."""
    tk = t + 273.15
    under = max(pressure - aw * psat, 0.02 * pressure)
    over = max(pressure - p_inf, 0.02 * pressure)
    return b * h / 1050.0 * pressure / (461.5 * tk) * math.log(over / under)


def bake(p, stages, tb, psat, edges, plate_t0, dt0, every_s, carpet, events, out):
    """Run the stages; fills `carpet` rows (s, T of cells in A-up order), `events` [s], `out` totals.

    Returns the number of carpet rows. `out`: 0 loss fraction, 1 pocket share, 2 plate surface C,
    3 loss at take-off, 4 heat taken from the plate [J/m2], 5 closure error [J/m2], then plate cells.
    """
    n = edges.shape[0] - 1
    m = plate_t0.shape[0]
    pressure, t0, x0, rho0, phi0, gmax = p[0], p[1], p[2], p[3], p[4], p[5]
    radius, hole, pocket_on, film = p[6], p[7], p[8], p[9]
    h_wet, h_dry, k_ec, f_c, f_f, tau_c = p[10], p[11], p[12], p[13], p[14], p[15]
    h_p, b_ev, e_b, r_on, j_leak, g_pocket = p[16], p[17], p[18], p[19], p[20], p[21]
    g_blister, char300, brown200, brown_ea = p[22], p[23], p[24], p[25]
    k_cr, sa, sb, d_w, t_set = p[26], p[27], p[28], p[29], p[30]
    plate_k, plate_rc, plate_l, r_touch = p[31], p[32], p[33], p[34]
    done_t, dry_limit, xb0, xdx, sat0, satdx = p[35], p[36], p[37], p[38], p[39], p[40]
    char_ea, r_gap, t_turn, hold_c = p[41], p[42], p[43], p[44]
    length = edges[n]
    t = np.full(n, t0)
    x = np.full(n, x0)
    tmax = np.full(n, t0)
    dz = np.zeros(n)
    s = np.zeros(n)
    for i in range(n):
        dz[i] = edges[i + 1] - edges[i]
        s[i] = rho0 * dz[i] / (1.0 + x0)
    x[0] += film / s[0]
    w = np.zeros(m)
    total_w = 0.0
    for j in range(m):
        w[j] = 1.6**j
        total_w += w[j]
    pdz = np.zeros(m)
    for j in range(m):
        pdz[m - 1 - j] = plate_l * w[j] / total_w
    tp = plate_t0.copy()
    surface = tp[m - 1]
    nn = m + n
    lo = np.zeros(nn)
    di = np.zeros(nn)
    up = np.zeros(nn)
    rhs = np.zeros(nn)
    cap = np.zeros(n)
    capa = np.zeros(n)
    kk = np.zeros(n)
    gg = np.zeros(n)
    steam = np.zeros(n)
    told = np.zeros(n)
    half = n // 2
    gone = np.zeros((2, 2))
    leaf = np.zeros(2)
    leaf_w = np.zeros(2)
    te_s = np.zeros(2)
    ht_s = np.zeros(2)
    face_g = np.zeros(2)
    brown = np.zeros(2)
    char = np.zeros(2)
    skin = min(0.18 * length, 0.0008)
    stands_m = e_b * length * (SEEN_M / length) ** SEEN_POWER  # what the sheet has grown by when its bubbles are seen
    volume = 0.0
    vfull = 0.6 * 1.2185 * radius**3
    area = math.pi * radius * radius
    mass0 = rho0 * length
    lost = 0.0
    heat_in = 0.0
    given = 0.0
    kept = 0.0
    flipped = False
    opened = False
    dwell = 0.0
    time = 0.0
    rows = 0
    next_row = 0.0
    escaped_last = 0.0
    t0_k = t0 + 273.15
    dry0 = pressure - lookup(psat, t0, sat0, satdx)
    phi_b = 0.12 * (phi0 / 0.12) ** 0.3
    water_sp = rho0 * x0 / (1.0 + x0)
    tb0 = lookup(tb, x0, xb0, xdx)
    for e in range(events.shape[0]):
        events[e] = -1.0
    for q in range(stages.shape[0]):
        length_s, turn, on_plate, flux, back_t, back_h = (
            stages[q, 0], stages[q, 1], stages[q, 2], stages[q, 3], stages[q, 4], stages[q, 5],
        )  # fmt: skip
        gas_t, gas_h, rad_t, eps, p_inf = stages[q, 6], stages[q, 7], stages[q, 8], stages[q, 9], stages[q, 10]
        end_kind, extra, plate_cools = stages[q, 11], stages[q, 12], stages[q, 13]
        brown_to, char_to, wet = stages[q, 17], stages[q, 18], stages[q, 19]
        oil, dip, dip_tau = stages[q, 14] > 0.5, stages[q, 15], stages[q, 16]
        if turn > 0.5:
            flipped = not flipped
            for i in range(half):
                j = n - 1 - i
                t[i], t[j] = t[j], t[i]
                x[i], x[j] = x[j], x[i]
                tmax[i], tmax[j] = tmax[j], tmax[i]
                s[i], s[j] = s[j], s[i]
                dz[i], dz[j] = dz[j], dz[i]
            if events[3] < 0.0:
                events[3] = time
        if q == 1:
            events[14] = time
        events[EVENTS + q] = time
        bottom = 1 if flipped else 0
        top = 1 - bottom
        if wet > 0.0:  # sprayed or spread on the upper face
            warm = s[n - 1] * (1550.0 + 4190.0 * x[n - 1])
            t[n - 1] = (warm * t[n - 1] + 4190.0 * wet * WET_C) / (warm + 4190.0 * wet)
            x[n - 1] += wet / s[n - 1]
            gone[top, 0] -= wet
            gone[top, 1] -= wet
        age = 0.0
        stop_at = length_s
        while age < stop_at - 1e-9:
            dt = dt0 * 0.25 if age < 15.0 - 1e-9 else dt0
            dt = min(dt, stop_at - age)
            open_share = min(1.0, 3.0 * volume / vfull)
            uptake = 1.0 - math.exp(-dt / tau_c)
            for i in range(n):
                gg[i] = 1.0 + (gmax - 1.0) * smooth((tmax[i] - 40.0) / 50.0)
                phi = min(0.7, 1.0 - (1.0 - phi0) / gg[i])
                v = x[i] / (x[i] + 1000.0 / 1450.0)
                k_m = math.exp(LN_25 + v * LN_66_25) * (1.0 - phi) / (1.0 + 0.5 * phi)
                fp = min(2.0, max(0.3, phi / 0.25))
                ec = k_ec * fp / (1.0 + math.exp(-(t[i] - 80.0) / 6.0))
                kk[i] = k_cr + (k_m - k_cr + ec) * min(1.0, x[i] / 0.25)
                cap[i] = s[i] * (1550.0 + 4190.0 * x[i])
                boil = lookup(tb, x[i], xb0, xdx)
                capa[i] = cap[i]
                if t[i] > boil - 0.05:
                    slope = max(
                        (lookup(tb, x[i] - xdx, xb0, xdx) - lookup(tb, x[i] + xdx, xb0, xdx)) / (2.0 * xdx), 1e-6
                    )
                    latent = 2.5009e6 - 2360.0 * boil - 1.35 * boil * boil
                    capa[i] = min(cap[i] + latent * s[i] / slope, 1e4 * cap[i])
                told[i] = t[i]
            # plate
            for j in range(nn):
                lo[j] = 0.0
                up[j] = 0.0
            for j in range(m):
                di[j] = plate_rc * pdz[j] / dt
                rhs[j] = di[j] * tp[j]
            for j in range(m - 1):
                g = 1.0 / (0.5 * (pdz[j] + pdz[j + 1]) / plate_k)
                di[j] += g
                up[j] -= g
                di[j + 1] += g
                lo[j + 1] -= g
            gb = 1.0 / (1.0 / max(back_h, 1e-9) + 0.5 * pdz[0] / plate_k)
            di[0] += gb
            rhs[0] += gb * back_t + (flux if surface < hold_c else 0.0)  # nobody lets it climb on
            # dough
            for i in range(n):
                di[m + i] = capa[i] / dt
                rhs[m + i] = di[m + i] * t[i]
            for i in range(n - 1):
                res = 0.5 * dz[i] * gg[i] / kk[i] + 0.5 * dz[i + 1] * gg[i + 1] / kk[i + 1]
                if i == half - 1 and volume > 0.0:
                    res += open_share / g_pocket
                g = 1.0 / res
                di[m + i] += g
                up[m + i] -= g
                di[m + i + 1] += g
                lo[m + i + 1] -= g
            h_c = (h_dry + (h_wet - h_dry) * min(1.0, x[0] / 0.25)) * (1.0 - 0.5 * volume / vfull)
            evap_a = 0.0
            evap_b = 0.0
            slope_a = 0.0
            slope_b = 0.0
            gc = 0.0
            gas_now = gas_t - dip * math.exp(-time / dip_tau)
            if on_plate > 0.5:
                gc = 1.0 / (1.0 / h_c + 0.5 * dz[0] * gg[0] / kk[0] + 0.5 * pdz[m - 1] / plate_k)
                di[m - 1] += gc
                up[m - 1] -= gc
                di[m] += gc
                lo[m] -= gc
            for side in range(2):
                if side == 0 and on_plate > 0.5:
                    continue
                i = 0 if side == 0 else n - 1
                if oil:  # a parted bread floats: its upper face rises out
                    ht = min(360.0, max(160.0, 160.0 + 3.4 * (gas_now - 140.0)))
                    ht *= 1.0 - (0.3 if side == 0 else 0.8) * volume / vfull
                    te = gas_now
                else:
                    ta, tr = t[i] + 273.15, rad_t + 273.15
                    h_r = eps * SIGMA * (ta * ta + tr * tr) * (ta + tr)
                    ht = gas_h + h_r
                    te = (gas_h * gas_now + h_r * rad_t) / max(ht, 1e-12)
                g = 1.0 / (1.0 / max(ht, 1e-12) + 0.5 * dz[i] * gg[i] / kk[i])
                di[m + i] += g
                rhs[m + i] += g * te
                te_s[side], ht_s[side], face_g[side] = te, ht, g
                if oil:
                    continue
                aw = 0.985 / (1.0 + (sa / x[i]) ** (1.0 / sb))
                ps = lookup(psat, t[i], sat0, satdx)
                ev = face_evaporation(t[i], aw, ps, gas_h, p_inf, pressure, b_ev)
                ev1 = face_evaporation(
                    t[i] + 0.1, aw, lookup(psat, t[i] + 0.1, sat0, satdx), gas_h, p_inf, pressure, b_ev
                )
                slope = max((ev1 - ev) / 0.1, 0.0)
                most = 0.3 * x[i] * s[i] / dt
                if ev > most:
                    ev = most
                    slope = 0.0
                if ev < 0.0 and p_inf > 20000.0:
                    floor = -min(0.5 * escaped_last / dt, 0.02)
                    if ev < floor:
                        ev = floor
                        slope = 0.0
                latent = 2.5009e6 - 2360.0 * t[i] - 1.35 * t[i] * t[i]
                di[m + i] += latent * slope
                rhs[m + i] += latent * (slope * t[i] - ev)
                if side == 0:
                    evap_a, slope_a = ev, slope
                else:
                    evap_b, slope_b = ev, slope
            # solve
            for j in range(1, nn):
                f = lo[j] / di[j - 1]
                di[j] -= f * up[j - 1]
                rhs[j] -= f * rhs[j - 1]
            rhs[nn - 1] /= di[nn - 1]
            for j in range(nn - 2, -1, -1):
                rhs[j] = (rhs[j] - up[j] * rhs[j + 1]) / di[j]
            for j in range(m):
                tp[j] = rhs[j]
            contact = gc * (tp[m - 1] - rhs[m])
            surface = tp[m - 1] - contact * 0.5 * pdz[m - 1] / plate_k
            if on_plate > 0.5:
                heat_in += contact * dt
            elif oil:
                heat_in += (face_g[0] * (te_s[0] - rhs[m]) + face_g[1] * (te_s[1] - rhs[nn - 1])) * dt
            given += contact * dt
            for side in range(2):
                i = 0 if side == 0 else n - 1
                if side == 0 and on_plate > 0.5:
                    continue
                given += face_g[side] * (te_s[side] - rhs[m + i]) * dt
                if not oil:
                    ev, slope = (evap_a, slope_a) if side == 0 else (evap_b, slope_b)
                    latent = 2.5009e6 - 2360.0 * told[i] - 1.35 * told[i] * told[i]
                    given -= latent * (ev + slope * (rhs[m + i] - told[i])) * dt
            # boiling
            for i in range(n):
                star = told[i] + capa[i] * (rhs[m + i] - told[i]) / cap[i]
                steam[i] = 0.0
                boil = lookup(tb, x[i], xb0, xdx)
                if star > boil and x[i] > 0.0041:
                    latent = 2.5009e6 - 2360.0 * boil - 1.35 * boil * boil
                    xn = x[i]
                    for _ in range(5):
                        b = lookup(tb, xn, xb0, xdx)
                        sl = (lookup(tb, xn + 0.5 * xdx, xb0, xdx) - lookup(tb, xn - 0.5 * xdx, xb0, xdx)) / xdx
                        f = cap[i] * (star - b) - latent * s[i] * (x[i] - xn)
                        xn -= f / (latent * s[i] - cap[i] * sl)
                        xn = min(max(xn, 0.004), x[i])
                    steam[i] = s[i] * (x[i] - xn)
                    t[i] = star - latent * steam[i] / cap[i]
                    kept += latent * steam[i]
                    x[i] = xn
                else:
                    t[i] = star
            # faces lose or gain water
            if on_plate < 0.5 and not oil:
                ev = min(evap_a + slope_a * (rhs[m] - told[0]), 0.9 * x[0] * s[0] / dt)
                x[0] -= ev * dt / s[0]
                lost += ev * dt
            if not oil:
                ev = min(evap_b + slope_b * (rhs[nn - 1] - told[n - 1]), 0.9 * x[n - 1] * s[n - 1] / dt)
                x[n - 1] -= ev * dt / s[n - 1]
                lost += ev * dt
            # steam inward from each half
            escaped_last = 0.0
            left = 0.0
            for side in range(2):
                share = f_c if (side == 0 and on_plate > 0.5) else f_f
                moving = 0.0
                for step in range(n):
                    i = step if side == 0 else n - 1 - step
                    if step < half:
                        inward = share * steam[i]
                        moving += inward
                        lost += steam[i] - inward
                        escaped_last += steam[i] - inward
                    elif opened and step > half:
                        break
                    if moving <= 0.0:
                        continue
                    boil = lookup(tb, x[i], xb0, xdx)
                    if x[i] > 0.25 and t[i] < boil - 0.1:
                        latent = 2.5009e6 - 2360.0 * boil - 1.35 * boil * boil
                        gap = boil - 0.1 - t[i]
                        if opened and step == half:
                            take = min(h_p * dt, 0.5 * cap[i]) * gap / latent
                        else:
                            take = cap[i] * gap * uptake / latent
                        take = min(take, moving)
                        moving -= take
                        x[i] += take / s[i]
                        t[i] += latent * take / cap[i]
                        kept -= latent * take
                left += moving
            lost += left
            if opened:
                q_hole = 0.6 * hole * math.sqrt(34.0 / 0.598)
                volume += ((left / dt - j_leak) * area / 0.598 - q_hole) * dt
                volume = min(max(volume, 0.0), vfull)
            else:
                escaped_last += left
            for i in range(n):
                kept += cap[i] * (t[i] - told[i])
            # liquid water evens out
            for i in range(n - 1):
                flow = d_w * rho0 / (1.0 + x0) * (x[i] - x[i + 1]) / (0.5 * (dz[i] + dz[i + 1])) * dt
                x[i] -= flow / s[i]
                x[i + 1] += flow / s[i + 1]
            for i in range(n):
                x[i] = max(x[i], 0.004)
                tmax[i] = max(tmax[i], t[i])
            age += dt
            time += dt
            # colour of both faces: skin that hovers over what heats it browns, skin that touches it chars
            for side in range(2):
                face = bottom if side == 0 else top
                i = 0 if side == 0 else n - 1
                wet0 = film if face == 0 else 0.0
                on = side == 0 and on_plate > 0.5
                h_out = OIL_SPOT_H if oil else ht_s[side]
                src = surface if on else te_s[side]
                base = max(t[i], tb0)
                for q_skin in range(2):
                    r_out = r_touch + (r_gap if q_skin == 0 else 0.0)
                    crust = max(gone[face, q_skin] - wet0, 0.0) / water_sp
                    seen_m = min(crust, COLOUR_M)
                    if on:
                        drying = (src - tb0) / (crust / k_cr + r_out)
                        skin_c = base + (src - base) * (crust - 0.5 * seen_m) / k_cr / (crust / k_cr + r_out)
                    else:
                        drying = h_out * (src - tb0)
                        skin_c = base + (src - base) * h_out / (h_out + g_blister)
                    gone[face, q_skin] = min(
                        gone[face, q_skin] + max(drying, 0.0) * dt / 2.26e6, wet0 + water_sp * 0.5 * length
                    )
                    share = seen_m / COLOUR_M * dt
                    skin_k = skin_c + 273.15
                    if q_skin == 0:
                        aw = min(pressure / max(lookup(psat, skin_c, sat0, satdx), 1.0), 1.0)
                        share /= 1.0 + (aw / DRY_AW) ** DRY_POWER
                        brown[face] += (
                            brown200 * math.exp(-brown_ea / 8.314 * (1.0 / skin_k - 1.0 / BROWN_REF_K)) * share
                        )
                    else:
                        char[face] += char300 * math.exp(-char_ea / 8.314 * (1.0 / skin_k - 1.0 / CHAR_REF_K)) * share
            # events
            if events[0] < 0.0:
                grown = 0.0
                for i in range(n):
                    r = gas_growth(t[i], t0_k, dry0, pressure, lookup(psat, t[i], sat0, satdx))
                    grown += dz[i] * (min(r, 10.0) - 1.0)
                if phi_b * grown >= stands_m:
                    events[0] = time
            for side in range(2):
                face = bottom if side == 0 else top
                if events[1 + face] < 0.0:
                    depth = 0.0
                    ok = True
                    for step in range(n):
                        i = step if side == 0 else n - 1 - step
                        if depth + 0.5 * dz[i] > skin and step > 0:
                            break
                        if tmax[i] < t_set:
                            ok = False
                        depth += dz[i]
                    if ok:
                        events[1 + face] = time
            if events[4] < 0.0 and events[1] >= 0.0 and events[2] >= 0.0 and pocket_on > 0.5:
                depth = 0.0
                tm = 0.0
                tw = 0.0
                for i in range(n):
                    mid = depth + 0.5 * dz[i]
                    if 0.35 * length <= mid <= 0.65 * length:
                        tm += dz[i] * t[i]
                        tw += dz[i]
                    depth += dz[i]
                tm /= max(tw, 1e-12)
                if gas_growth(tm, t0_k, dry0, pressure, lookup(psat, tm, sat0, satdx)) >= r_on:
                    events[4] = time
                    opened = True
            if events[5] < 0.0 and volume >= 0.95 * vfull:
                events[5] = time
            if events[6] < 0.0:
                depth = 0.0
                coldest = 1e9
                leaf[0] = leaf[1] = 0.0
                leaf_w[0] = leaf_w[1] = 0.0
                for i in range(n):
                    mid = depth + 0.5 * dz[i]
                    if 0.1 * length <= mid <= 0.9 * length:
                        side = 0 if i < half else 1
                        leaf[side] += dz[i] * t[i]
                        leaf_w[side] += dz[i]
                        coldest = min(coldest, tmax[i])  # what was cooked once stays cooked
                    depth += dz[i]
                if opened:
                    # a parted sheet hovers below the mark: cooked once both leaves have stood near it
                    if min(leaf[0] / leaf_w[0], leaf[1] / leaf_w[1]) >= done_t - 4.0:
                        dwell += dt
                    if dwell >= 10.0:
                        events[6] = time
                elif coldest >= done_t:
                    events[6] = time
            if events[16] < 0.0 and t.min() >= CORE_C:
                events[16] = time
            if events[7] < 0.0 and lost / mass0 >= dry_limit:
                events[7] = time
            for face in range(2):
                if events[8 + face] < 0.0 and brown[face] >= 0.05:
                    events[8 + face] = time
                if events[10 + face] < 0.0 and brown[face] >= 0.20:
                    events[10 + face] = time
                if events[12 + face] < 0.0 and char[face] >= 1.0:
                    events[12 + face] = time
            if end_kind > 0.5 and stop_at == length_s:
                face = bottom if on_plate > 0.5 or oil else top
                coloured = brown[face] >= brown_to and char[face] >= char_to
                over = (
                    (end_kind == 1.0 and events[0] >= 0.0 and events[8 + bottom] >= 0.0)
                    or (end_kind == 2.0 and events[4] >= 0.0)
                    or (
                        end_kind == 3.0 and tmax[n - 1] >= t_turn and (coloured or lost / mass0 >= TURN_DRY * dry_limit)
                    )
                    or (end_kind == 4.0 and coloured)
                    or (end_kind == 7.0 and events[4] >= 0.0 and (coloured or lost / mass0 >= TURN_DRY * dry_limit))
                    or (end_kind == 5.0 and events[0] >= 0.0)
                    or (end_kind == 6.0 and events[6] >= 0.0 and brown.min() >= brown_to and char.min() >= char_to)
                )
                if over:
                    stop_at = min(length_s, age + extra)
            if time >= next_row - 1e-9 and rows < carpet.shape[0]:
                carpet[rows, 0] = time
                for i in range(n):
                    carpet[rows, 1 + i] = t[n - 1 - i] if flipped else t[i]
                carpet[rows, 1 + n] = volume / vfull
                carpet[rows, 2 + n] = lost / mass0
                carpet[rows, 3 + n] = surface
                for face in range(2):
                    carpet[rows, 4 + n + face] = brown[face]
                    carpet[rows, 6 + n + face] = char[face]
                rows += 1
                next_row += every_s
        if plate_cools > 0.5:
            out[3] = lost / mass0
            events[15] = time
    out[0] = lost / mass0
    out[1] = volume / vfull
    out[2] = surface
    out[4] = heat_in
    out[5] = given - kept
    if events[15] < 0.0:
        events[15] = time
        out[3] = out[0]
    for j in range(m):
        out[6 + j] = tp[j]
    for face in range(2):
        out[6 + m + face] = brown[face]
        out[8 + m + face] = char[face]
    return rows
