"""A bake from mixing to keeping as a cook would write it down: for a page or a recipe file that leaves the program."""

from __future__ import annotations

from brassclock.core.day.spec import DayPlan, kind_of
from brassclock.core.fire.actions import actions
from brassclock.core.fire.program import Program
from brassclock.core.time import hours_between
from brassclock.core.weigh.methods import methods
from brassclock.services.bake.parts import names_of
from brassclock.services.bake.snapshot import BakeSnapshot, breads_of
from brassclock.services.day.steps import hours_text
from brassclock.services.keep.hold import advised
from brassclock.services.solve import BakeResult

LATER = ("ball", "cold_in", "cold_out", "wave", "preheat", "roll", "line")
SURE_H = 0.05


def steps_written(r: BakeSnapshot, work: BakeResult) -> list[str]:
    """Sentences in the order of the work: the bowl, the waits, shaping, the heat, keeping."""
    found = list(work.bowl.order) + [g.text for g in work.bowl.guide] if work.bowl else []
    method = methods().get(r.bake.method)
    shaping = list(method.shaping) if method else []
    if work.plan is not None:
        found += _waits(r, work.plan, shaping)
    else:
        found += shaping
    for name, bread, done in zip(names_of(r.bake), breads_of(r), (work, *work.parts), strict=False):
        if done.program is not None and bread.surface is not None:
            which = f"{name}: " if r.bake.parts else ""
            hot = f"{bread.surface.name}, {done.program.baking.surface.temp_c:.0f} C"
            found.append(f"{which}{hot}: {_heat(done.program)}.")
    found += advised(r, work)
    if method and method.hold:
        found.append(f"As cooks say: {method.hold}")
    return found


def _waits(r: BakeSnapshot, plan: DayPlan, shaping: list[str]) -> list[str]:
    """Every move after mixing, with its hours from mixing; how it is shaped stands where it is balled and rolled."""
    found = []
    for step in plan.steps:
        if kind_of(step.key) not in LATER:
            continue
        after_h = hours_between(plan.mixed_at, step.at)
        when = f"{hours_text(after_h)} after mixing: " if after_h > SURE_H else "Straight after mixing: "
        found.append(f"{when}{step.name.lower()}{_until(r, plan, step.key)}.")
        if step.key in ("ball", "roll"):
            found += shaping[:1] if step.key == "ball" else shaping[1:]
    return found


def _until(r: BakeSnapshot, plan: DayPlan, key: str) -> str:
    """Words for the size of the dough by then, or for its hours in the cold."""
    if key == "ball" and r.bake.bulk_end == "rise" and not plan.spec.rests:
        return f", when it is {r.bake.bulk_ratio:.2g} times its size"
    if key == "roll" and r.bake.ball_end == "rise" and not plan.spec.rests:
        return f", when the balls are {r.bake.ball_ratio:.2g} times their size"
    if key == "cold_in" and (cold := plan.spec.bulk.cold or plan.spec.ball.cold):
        return f", for {hours_text(cold.hours)}"
    return ""


def _heat(program: Program) -> str:
    """The actions on one bread in order, each with minutes and seconds after it is laid on."""
    marks = [(a.name.replace("_", " "), round(a.at_s.p50)) for a in actions(program) if a.at_s.p50]
    said = [f"{name} at {at_s // 60}:{at_s % 60:02d}" for name, at_s in marks]
    return ", ".join(said) + " after it is laid on; the bread's own signs before the clock"
