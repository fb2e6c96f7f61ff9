"""`cause` of the contract: why a bread failed, by the facts that are known."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from brassclock.core.keep.cause.facts import Facts
from brassclock.core.keep.cause.judge import judge
from brassclock.core.terms import Fault, Intent, StarterState, SurfaceKind, Wrap
from brassclock.services.contract.common import Request
from brassclock.services.keep.cause import judged_out
from brassclock.services.schemas.quantities import within


class FactsRequest(Request):
    """The known facts of a bread and its bake; one that is left out stays neutral."""

    intent: Intent | None = None
    surface: SurfaceKind | None = None
    surface_c: Annotated[float, within(60, 600, "C")] | None = None
    thickness_mm: Annotated[float, within(0.5, 60, "mm")] | None = None
    diameter_cm: Annotated[float, within(3, 80, "cm")] | None = None
    uneven_frac: Annotated[float, within(0, 1, "")] | None = None
    skin_min: Annotated[float, within(0, 240, "min")] | None = None
    rest_min: Annotated[float, within(0, 600, "min")] | None = None
    maturity: Annotated[float, within(0, 5, "")] | None = None
    dough_c: Annotated[float, within(-5, 45, "C")] | None = None
    tear_mm2: Annotated[float, within(0, 500, "mm2")] | None = None
    bench_flour_g_m2: Annotated[float, within(0, 400, "g/m2")] | None = None
    hydration_frac: Annotated[float, within(0.3, 1.5, "")] | None = None
    soda_excess: Annotated[float, within(-5, 5, "g")] | None = None
    acid_tta: Annotated[float, within(0, 40, "mL")] | None = None
    starter_state: StarterState | None = None
    kneaded: Annotated[float, within(0, 20, "x")] | None = None
    chemical: bool | None = None
    greased: Literal["dry", "film", "pool"] | None = None
    nonstick: bool | None = None
    wetted: bool | None = None
    docked: bool | None = None
    edged: bool | None = None
    recovered: bool | None = None
    char_left: bool | None = None
    microwaved: bool | None = None
    tint: Annotated[float, within(0.2, 4, "x")] | None = None
    turn_s: Annotated[float, within(1, 3600, "s")] | None = None
    off_s: Annotated[float, within(2, 7200, "s")] | None = None
    wrap: Wrap | None = None
    wait_min: Annotated[float, within(0, 4320, "min")] | None = None


class CauseRequest(Request):
    """`cause`: the faults that were seen, those that are denied, and the facts."""

    faults: Annotated[list[Fault], Field(min_length=1, max_length=6)]
    denied: Annotated[list[Fault], Field(max_length=15)] = []
    facts: FactsRequest = Field(default_factory=FactsRequest)


def run_cause(q: CauseRequest) -> dict[str, Any]:
    given = q.facts.model_dump(exclude_none=True)
    found = judge(list(dict.fromkeys(q.faults)), Facts(**given), set(given), list(dict.fromkeys(q.denied)))
    return {
        **judged_out(found),
        "cautions": [],
        "why": {
            "causes": {
                "relation": "share = prior x (.04 + 12 gain/(gain + .15)); gain by the models with that fact set right",
                "inputs": given,
                "evidence": "judgement",
            }
        },
    }
