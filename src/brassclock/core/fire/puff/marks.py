"""Events of a bake and the ends of its stretches: what a cook could see, found on the cells. A compiler takes it."""

from __future__ import annotations

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.conduction import gas_growth, sat_pa
from brassclock.core.fire.puff.params import CHARRED, GOLDEN, LIGHT
from brassclock.core.fire.puff.state import BROWN, CHAR, DZ, HOTTEST, T

(
    BUBBLES,
    SET_A,
    SET_B,
    FLIP,
    PUFF,
    FULL,
    DONE,
    TOO_DRY,
    LIGHT_A,
    LIGHT_B,
    GOLDEN_A,
    GOLDEN_B,
    CHAR_A,
    CHAR_B,
    SECOND,
    OFF,
    CORE,
) = range(17)
EVENTS = 17
END_TIME, END_CUE, END_PUFF, END_COLOUR, END_GOLDEN, END_BUBBLES, END_READY, END_PUFF_COLOUR = range(8)
CORE_C = Param(75.0, "C", 74, 76, Kind.PRACTICE, "a filling is hot enough")
# fitted to one row of practice: a thin sheet swells more, by its share, before its bubbles stand high enough to be seen
SEEN_M = Param(
    0.005, "m", 0.004, 0.006, Kind.FITTED, "sheet for which the bubbles' height is told; one row of practice"
)
SEEN_POWER = Param(
    0.7, "-", 0.4, 1, Kind.FITTED, "a thin sheet swells more before its bubbles are seen; one row of practice"
)
SKIN_FRAC, SKIN_M = 0.18, 0.0008
MOST_GROWTH = 10.0
TURN_DRY = Param(
    0.6, "-", 0.4, 0.8, Kind.JUDGEMENT, "of the loss that dries a bread out, spent when it is turned without its colour"
)
FULL_SHARE = 0.95
DWELL_S = Param(
    10.0, "s", 5, 20, Kind.JUDGEMENT, "a parted sheet is cooked once both leaves have stood so long near the mark"
)
DWELL_BELOW_C = Param(4.0, "K", 2, 6, Kind.JUDGEMENT, "a parted sheet hovers so far below the mark")
CRUMB_LOW, CRUMB_HIGH = 0.1, 0.9
MIDDLE_LOW, MIDDLE_HIGH = 0.35, 0.65


def stamp(events, which, time):
    """Keep the first time of an event."""
    if events[which] < 0.0:
        events[which] = time


def swollen_m(cells, sheet, tables, dry_pa):
    """Height [m] that warming gas has added to the sheet's bubbles."""
    grown = 0.0
    t0_k = sheet.start_c + 273.15
    for i in range(cells.shape[1]):
        r = gas_growth(cells[T, i], t0_k, dry_pa, sheet.pressure_pa, sat_pa(tables, cells[T, i]))
        grown += cells[DZ, i] * (min(r, MOST_GROWTH) - 1.0)
    return 0.12 * (sheet.gas_frac / 0.12) ** 0.3 * grown


def seen_m(sheet, length_m):
    """Height [m] at which the bubbles of a sheet that thick are seen."""
    return sheet.bubble_frac * length_m * (SEEN_M / length_m) ** SEEN_POWER


def is_set(cells, side, skin_m, set_c):
    """True if the skin of the lower (0) or upper (1) face has set to that depth."""
    n = cells.shape[1]
    depth = 0.0
    for step in range(n):
        i = step if side == 0 else n - 1 - step
        if depth + 0.5 * cells[DZ, i] > skin_m and step > 0:
            break
        if cells[HOTTEST, i] < set_c:
            return False
        depth += cells[DZ, i]
    return True


def middle_c(cells, length_m):
    """Mean temperature [C] of the middle third."""
    depth = 0.0
    heat = 0.0
    width = 0.0
    for i in range(cells.shape[1]):
        mid = depth + 0.5 * cells[DZ, i]
        if MIDDLE_LOW * length_m <= mid <= MIDDLE_HIGH * length_m:
            heat += cells[DZ, i] * cells[T, i]
            width += cells[DZ, i]
        depth += cells[DZ, i]
    return heat / max(width, 1e-12)


def cooked(cells, length_m):
    """(coolest mean of the two leaves, the least that any cell of the crumb has reached) [C], without the crusts."""
    n = cells.shape[1]
    depth = 0.0
    coldest = 1e9
    below = above = below_w = above_w = 0.0
    for i in range(n):
        mid = depth + 0.5 * cells[DZ, i]
        if CRUMB_LOW * length_m <= mid <= CRUMB_HIGH * length_m:
            if i < n // 2:
                below += cells[DZ, i] * cells[T, i]
                below_w += cells[DZ, i]
            else:
                above += cells[DZ, i] * cells[T, i]
                above_w += cells[DZ, i]
            coldest = min(coldest, cells[HOTTEST, i])  # what was cooked once stays cooked
        depth += cells[DZ, i]
    return min(below / below_w, above / above_w), coldest


def mark_colours(events, skin, time):
    """Stamp light, golden and charred of both faces."""
    for face in range(2):
        if skin[BROWN, face] >= LIGHT:
            stamp(events, LIGHT_A + face, time)
        if skin[BROWN, face] >= GOLDEN:
            stamp(events, GOLDEN_A + face, time)
        if skin[CHAR, face] >= CHARRED:
            stamp(events, CHAR_A + face, time)


def mark_crumb(events, cells, sheet, tables, dry_pa, length_m, bottom, time):
    """Stamp what the crumb shows: bubbles, set skins, the puff, 75 C throughout."""
    if events[BUBBLES] < 0.0 and swollen_m(cells, sheet, tables, dry_pa) >= seen_m(sheet, length_m):
        events[BUBBLES] = time
    skin_m = min(SKIN_FRAC * length_m, SKIN_M)
    for side in range(2):
        face = bottom if side == 0 else 1 - bottom
        if events[SET_A + face] < 0.0 and is_set(cells, side, skin_m, sheet.set_c):
            events[SET_A + face] = time
    if events[PUFF] < 0.0 and events[SET_A] >= 0.0 and events[SET_B] >= 0.0 and sheet.parts:
        mid = middle_c(cells, length_m)
        ratio = gas_growth(mid, sheet.start_c + 273.15, dry_pa, sheet.pressure_pa, sat_pa(tables, mid))
        if ratio >= sheet.onset_ratio:
            events[PUFF] = time
    if events[CORE] < 0.0 and cells[HOTTEST].min() >= CORE_C:  # each point at its hottest so far
        events[CORE] = time


def mark_done(events, cells, sheet, length_m, opened, dwell, time, dt):
    """Stamp `DONE`. Returns how long a parted sheet has stood near the mark [s]."""
    if events[DONE] >= 0.0:
        return dwell
    leaves_c, coldest_c = cooked(cells, length_m)
    if opened:
        if leaves_c >= sheet.done_c - DWELL_BELOW_C:
            dwell += dt
        if dwell >= DWELL_S:
            events[DONE] = time
    elif coldest_c >= sheet.done_c:
        events[DONE] = time
    return dwell


def leg_over(events, cells, skin, sheet, leg, bottom, loss):
    """True if what ends this stretch is there; `loss` is the share of its mass that the bread has lost."""
    face = bottom if leg.on_plate or leg.oil else 1 - bottom
    coloured = skin[BROWN, face] >= leg.brown_to and skin[CHAR, face] >= leg.char_to
    turnable = coloured or loss >= TURN_DRY * sheet.dry_limit
    if leg.end == END_CUE:
        dried = loss >= TURN_DRY * sheet.dry_limit  # a sheet of a millimetre shows no bubbles
        return (events[BUBBLES] >= 0.0 or dried) and events[LIGHT_A + bottom] >= 0.0
    if leg.end == END_PUFF:
        return events[PUFF] >= 0.0
    if leg.end == END_COLOUR:
        return cells[HOTTEST, cells.shape[1] - 1] >= sheet.turn_c and turnable
    if leg.end == END_GOLDEN:
        return coloured
    if leg.end == END_PUFF_COLOUR:
        return events[PUFF] >= 0.0 and turnable
    if leg.end == END_BUBBLES:
        return events[BUBBLES] >= 0.0
    if leg.end == END_READY:
        return events[DONE] >= 0.0 and skin[BROWN].min() >= leg.brown_to and skin[CHAR].min() >= leg.char_to
    return False
