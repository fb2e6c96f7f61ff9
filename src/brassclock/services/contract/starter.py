"""`starter` of the contract."""

from __future__ import annotations

import math
from typing import Annotated, Any

from pydantic import Field

from brassclock.core.cautions import caution
from brassclock.core.errors import invalid
from brassclock.core.rise.sourdough import starter as starters
from brassclock.core.terms import StarterState
from brassclock.core.weigh.soda import WHOLE_FLOURS
from brassclock.services.contract.common import Mass
from brassclock.services.contract.rise import MOST_POINTS, SeedRequest
from brassclock.services.schemas.quantities import within


class StarterRequest(SeedRequest):
    """`starter`: a feed and its temperature; or `total_g` and `peak_at_h` in place of the masses."""

    seed_g: Mass | None = None
    flour_g: Mass | None = None
    water_g: Mass | None = None
    flour: str = "bread_flour"
    total_g: Mass | None = None
    peak_at_h: Annotated[float, within(1, 48, "h")] | None = None
    hydration_frac: Annotated[float, within(0.4, 1.5, "")] = 1.0
    temp_c: Annotated[float, within(0, 40, "C")] | None = None
    path: Annotated[list[tuple[float, float]], Field(max_length=MOST_POINTS)] | None = None
    state: StarterState = "ripe"


def run_starter(q: StarterRequest) -> dict[str, Any]:
    if (q.temp_c is None) == (q.path is None):
        raise invalid("/temp_c", "Give either temp_c or path, not both and not neither.")
    path = q.path or [(0.0, float(q.temp_c or 0.0))]
    if any(not math.isfinite(v) for point in path for v in point) or [h for h, _ in path] != sorted(
        {h for h, _ in path}
    ):
        raise invalid("/path", "Hours of a path must be finite and rise: [[0, 21], [6, 18]].")
    whole = 1.0 if q.flour in WHOLE_FLOURS else 0.0
    if q.total_g is not None and q.peak_at_h is not None:
        feed = starters.feed_for(q.total_g, q.peak_at_h, path, q.seed(), q.hydration_frac, whole)
        if feed is None:
            raise invalid(
                "/peak_at_h",
                f"No feed from 1:0.3 to 1:40 peaks after {q.peak_at_h:g} h at this temperature. Change the hour or "
                "the place.",
            )
    elif q.seed_g and q.flour_g and q.water_g:
        feed = starters.Feed(q.seed_g, q.flour_g, q.water_g, 1.0, whole)
    else:
        raise invalid("/seed_g", "Give seed_g, flour_g and water_g, or total_g and peak_at_h.")
    jar = starters.fed(feed, q.seed(), path, 48.0)
    return {
        "peak_h": jar.peak_h,
        "hold_from_h": jar.hold_from_h,
        "hold_until_h": jar.hold_until_h,
        "ratio": list(feed.ratio),
        "masses": {"seed_g": feed.seed_g, "flour_g": feed.flour_g, "water_g": feed.water_g},
        "peak_ratio": jar.peak_ratio,
        "acid": {"ph": jar.ph_at_peak, "tta_ml": jar.tta_at_peak, "word": jar.word},
        "trace": {"h": jar.h.tolist(), "ratio": jar.ratio.tolist(), "temp_c": jar.temp_c.tolist()},
        "cautions": [caution("raw_starter").as_dict()],
        "why": {
            "peak_h": {
                "relation": "gs, Xs, L and A of the sourdough equations in a jar; peak of E",
                "inputs": {"ratio": [round(x, 2) for x in feed.ratio], "state": q.state, "vitality": q.vitality},
                "evidence": "fitted",
            }
        },
    }
