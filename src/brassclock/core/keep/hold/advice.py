"""Advice on a bread that is kept: three sentences at most, each by its own figures."""

from __future__ import annotations

from dataclasses import dataclass, replace

from brassclock.core.evidence import Input, Kind, Param, Why
from brassclock.core.keep.hold.model import BAGGED, LIMP, Kept, Room, run
from brassclock.core.keep.hold.params import PARAMS
from brassclock.core.keep.hold.stepper import staling_per_s
from brassclock.core.keep.hold.windows import GOOD, HOUR_S, Windows

BAG_OVER_K = Param(8.0, "K", 5, 12, Kind.JUDGEMENT, "over the room: a bag closed sooner sweats")
LONG_S, HOT_ROOM_C, MOST = 12 * HOUR_S, 28.0, 3
FREEZE_MONTHS = (1, 3)  # practice: best, good
FILLED_S = 2 * HOUR_S


@dataclass(frozen=True)
class Wanted:
    """The wish for a bread that is kept: for how long [s; None: it is eaten now], crisp or soft, whether it holds meat,
    egg or a moist filling."""

    until_s: float | None = None
    crisp: bool = False
    filled: bool = False


def why_good(bread: Kept, wrap: str, stack: int, room: Room, good_h: float | None) -> Why:
    """The reason why a bread is good for so many hours [None: over three days] in a wrap."""
    return Why(
        title="good until",
        relation="softness = 100 exp(-(1.15 R + 1.2 ln(X_ref/X) + .6 Q s/16)); good until it is under 55",
        words="A bread gets firm as its starch sets again (R) and as it dries (X). A wrap keeps its water in; staling "
        "is fastest just above freezing and stands still when frozen; fat, dairy and a starter slow it.",
        inputs=(
            Input("kept", wrap, ""),
            Input("together", stack, ""),
            Input("room", room.temp_c, "C"),
            Input("water, over what is dry", round(bread.water_per_dry, 3), "g/g"),
            Input("lost on the heat", round(bread.loss_frac, 3), ""),
            Input("fat, over flour", round(bread.fat_frac, 3), ""),
            Input("good for", None if good_h is None else round(good_h, 1), "h"),
        ),
        evidence=Kind.JUDGEMENT,
        spread="sixteen runs with the wrap, the crust and the staling drawn from their ranges",
        matters=("the wrap", "the room", "how long it was on the heat"),
        sources=("staling by temperature: Cornford et al. 1964, from memory", "the rest: common practice"),
    )


def advice(bread: Kept, windows: Windows, stack: int, room: Room, wanted: Wanted) -> list[str]:
    """Three sentences at most: what to do at once, when to bag, what comes later."""
    found = [at_once(bread, windows, room, crisp=wanted.crisp)]
    if wanted.filled:
        found.append("Meat, egg or a moist filling: 2 h between 5 and 60 C, then the fridge, 2 days, heated to 75 C.")
    long = wanted.until_s is None or wanted.until_s > LONG_S
    if not wanted.crisp and bread.intent != "fried" and long:
        found.append(_bag(bread, stack, room))
        found.append(_fridge(room) if room.temp_c > HOT_ROOM_C and not wanted.filled else _later(bread, stack, room))
    found.append(
        f"Freeze what is left once it is cool: a sheet between each, air out; best {FREEZE_MONTHS[0]} month, "
        f"good {FREEZE_MONTHS[1]}."
    )
    return found[:MOST]


def at_once(bread: Kept, windows: Windows, room: Room, *, crisp: bool = False) -> str:
    """The first thing to do with a bread that comes off the heat."""
    if bread.intent == "fried" or crisp:
        to_s = windows.best_to.p50
        return f"On a rack, one beside the other: crisp for {_span(to_s)}." if to_s else "On a rack; eat it now."
    if bread.intent == "blister" and bread.brushed is None:
        brushed = run(replace(bread, brushed="butter"), ((0.0, "open"),), 1, room, hours=1.0)
        soft_s = brushed.first_s(brushed.crisp < LIMP)
        return f"Brush it now: soft in {_span(soft_s)}." if soft_s else "Brush it now."
    if bread.intent == "blister":
        return "Onto the plates at once, or into cloth."
    return "Into cloth at once, stacked."


def bag_after_s(bread: Kept, stack: int, room: Room, wrap: str = "rack") -> float | None:
    """Seconds in a wrap until it is cool enough for a bag; None for not in three hours."""
    trace = run(bread, ((0.0, wrap),), stack, room, hours=3.0)
    return trace.first_s(trace.temp_c <= room.temp_c + BAG_OVER_K)


def sweat_g(bread: Kept, temp_c: float, room: Room) -> float:
    """Water that condenses in a bag closed at that temperature [g], half of the heat that leaves."""
    capacity = bread.dry_g * (1.5 + 4.18 * bread.baked_x)
    return max(0.5 * capacity * (temp_c - room.temp_c) / PARAMS["latent"], 0.0)


def _bag(bread: Kept, stack: int, room: Room) -> str:
    after_s = bag_after_s(bread, 1, room)
    wet = f"{stack * sweat_g(bread, 80.0, room):.0f} g would sweat out now" if stack > 1 else "hot it would sweat now"
    return (
        f"Bag them when cool: the first {_span(after_s)} singly on a rack ({wet})."
        if after_s
        else "Bag them when cool."
    )


def _later(bread: Kept, stack: int, room: Room) -> str:
    cloth = run(bread, ((0.0, "cloth"),), stack, room).softer_than_s(GOOD)
    bagged = run(bread, BAGGED, stack, room).softer_than_s(GOOD)
    return f"In cloth pliable for {_span(cloth)}, bagged for {_span(bagged)}."


def _fridge(room: Room) -> str:
    days, per_k = float(PARAMS["stale_days"]), float(PARAMS["stale_per_k"])
    times = float(staling_per_s(4.0, days, per_k) / staling_per_s(room.temp_c, days, per_k))
    return f"The fridge stales {times:.1f} times as fast: for fillings, or against mould in a room as warm as this."


def _span(seconds: float | None) -> str:
    """A stretch of time in words; None is more than three days."""
    if seconds is None:
        return "three days and more"
    if seconds < 90:
        return f"{seconds:.0f} s"
    if seconds < 5400:
        return f"{seconds / 60:.0f} min"
    return f"{seconds / HOUR_S:.0f} h"
