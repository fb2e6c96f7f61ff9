"""The reasons why each stage of a rise takes as long as it does, and the change that would move it most."""

from __future__ import annotations

from dataclasses import replace

from brassclock.core.evidence import Input, Kind, Why
from brassclock.core.rise.windows import aims
from brassclock.core.time import later
from brassclock.services.bake.snapshot import BakeSnapshot, mix_temp_c
from brassclock.services.day.model import Risen
from brassclock.store.tables import Bake

LEAST_MIN = 0.5


def _minutes(change_h: float) -> str:
    return f"{abs(change_h) * 60:.0f} min {'sooner' if change_h > 0 else 'later'}"


def stage_whys(r: BakeSnapshot, found: Risen) -> dict[str, Why]:
    """By stage: why it is ready when it is, and what a degree or a gram would change."""
    assert found.forecast
    first = len(found.stages) - 2
    return {found.stages[i].name: _why(r, found, i, first) for i in (first, first + 1)}


def _why(r: BakeSnapshot, found: Risen, at: int, first: int) -> Why:
    assert found.forecast
    bake, seen, batch, stages = r.bake, found.forecast, found.plan.spec.batch, found.stages[: at + 1]
    dough = batch.dough
    activity = seen.belief.mean
    begins = (found.plan.mixed_at, found.plan.balled_at)[at - first]

    def ready_h(room_k: float = 0.0, dough_k: float = 0.0, dose: float = 1.0) -> float:
        moved = [s.shifted(room_k) for s in stages]
        fixed = [s.hours for s in stages[:-1]]
        warmer = replace(batch, mix_temp_c=batch.mix_temp_c + dough_k)
        return aims(warmer, moved, fixed_h=fixed, activity=activity * dose)[at].ready_h

    as_is = ready_h()
    changes = [
        (as_is - ready_h(room_k=1), "+1 °C in the kitchen is {}"),
    ]
    if "mix" not in r.done():
        changes += [
            (as_is - ready_h(dough_k=1), "+1 °C in the dough after mixing is {}"),
            (as_is - ready_h(dose=1.1), "a tenth more leaven is {}"),
        ]
    matters = [
        text.format(_minutes(h)) for h, text in sorted(changes, key=lambda c: -abs(c[0])) if abs(h) * 60 >= LEAST_MIN
    ]
    band = seen.windows[at - first].ready
    spread = "wide"
    since = sum(s.hours for s in stages[:-1])
    if band.p10 is not None and band.p90 is not None:
        spread = f"8 in 10 between {(band.p10 - since) * 60:.0f} and {(band.p90 - since) * 60:.0f} min after it began"
    return Why(
        f"When the {stages[at].name} is ready",
        "m = Q / need ≥ 0.9; Q' = q₃₀·γ(T)/γ(30)·f_osm·a·X",
        "Gas made since mixing or since the balls were made, over the gas that the target needs. The leaven's "
        "rate follows the dough's own temperature, which trails the kitchen's.",
        (
            *_leavens(found),
            Input("salt", round(dough.salt_g / dough.flour_g * 100, 2), "% of flour"),
            Input("dough after mixing", round(mix_temp_c(r), 1), "°C"),
            Input("air when it began", round(stages[at].ambient_c(0.0), 1), "°C"),
            Input("target", _target(bake, at - first), "×"),
            Input("activity of this dough", round(activity, 2), "×"),
            Input("altitude", r.kitchen.altitude_m, "m"),
            Input("begins", f"{later(begins, 0):%H:%M}"),
        ),
        Kind.FITTED,
        spread,
        (*matters, "the leaven's strength: take a reading"),
        ("cardinal temperatures: Rosso 1993, from memory", "rates fitted to practice rows"),
    )


def _target(bake: Bake, stage: int) -> float:
    return (bake.bulk_ratio, bake.ball_ratio)[stage]


def _leavens(found: Risen) -> list[Input]:
    portions = [*found.plan.spec.batch.dough.portions, *(p for s in found.stages for p in s.add)]
    flour = sum(p.mass_g * p.ingredient.flour_frac for p in portions)
    grams = {"yeast": 0.0, "starter": 0.0, "soda and powder": 0.0}
    for p in portions:
        row = p.ingredient
        name = "yeast" if row.is_yeast else "starter" if row.is_starter else "soda and powder"
        if row.is_ferment or (row.is_other_leaven and not row.flour_frac):
            grams[name] += p.mass_g
    return [Input(name, round(g / flour * 100, 2), "% of flour") for name, g in grams.items() if g]
