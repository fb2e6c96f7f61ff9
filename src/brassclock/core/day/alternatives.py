"""Other ways through the day worth seeing beside the one taken: least hands-on, best flavour, latest start."""

from __future__ import annotations

from brassclock.core.day.courses import Choice, KitchenResources, PlanRequest
from brassclock.core.day.search import Search, Solved


def hands_min(solved: Solved) -> float:
    """Minutes of hands that a way wants."""
    return sum(step.hands_min for step in solved.plan.steps)


def worth_seeing(
    request: PlanRequest, resources: KitchenResources, choice: Choice, taken: tuple[str, float] | None
) -> dict[str, Solved]:
    """The ways by name, each borne out by the real rise; `taken` (course, dose) is left out. Empty when there is no
    other."""
    found = [s for s in Search(request, resources).each(choice) if (s.course, s.dose) != taken]
    if not found:
        return {}
    return {
        "least hands-on": min(found, key=lambda s: (hands_min(s), s.cost)),
        "best flavour": max(found, key=lambda s: (s.flavour, -s.cost)),
        "latest start": max(found, key=lambda s: s.plan.steps[0].at),
    }
