"""`read` of the contract: an ingredient list as it is spoken or pasted, line by line; read right, or left unread."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field, StringConstraints

from brassclock.core.matter.ingredients import table
from brassclock.core.terms import SpoonSystem
from brassclock.core.units import METRIC_SPOONS_ML, parse_amount
from brassclock.core.weigh import measures
from brassclock.core.weigh.entry import EntryLine, read_entry
from brassclock.services.contract.common import Request
from brassclock.services.schemas.quantities import within

SPOON_ML = {"tbsp": 1.0, "tsp": 1 / 3}  # of a tablespoon
PURPOSES = {
    "": "dough",
    "fry": "frying",
    "brush": "brushing",
    "dust": "dusting",
    "bowl": "greasing",
    "serve": "serving",
}


class MeasuresRequest(Request):
    """Cup and tablespoon of the kitchen: US, metric, or their own millilitres."""

    cup: SpoonSystem | Annotated[float, within(50, 600, "ml")] = "us"
    spoon: SpoonSystem | Annotated[float, within(5, 40, "ml")] = "us"

    def own_ml(self) -> dict[str, float]:
        """Cups and spoons that are not the US ones [mL]."""
        found: dict[str, float] = {}
        if self.cup != "us":
            found["cup"] = METRIC_SPOONS_ML["cup"] if self.cup == "metric" else float(self.cup)
        if self.spoon != "us":
            spoon_ml = METRIC_SPOONS_ML["tbsp"] if self.spoon == "metric" else float(self.spoon)
            found |= {unit: share * spoon_ml for unit, share in SPOON_ML.items()}
        return found


class ReadRequest(Request):
    """`read`: the text of a list, and how the kitchen measures."""

    text: Annotated[str, StringConstraints(min_length=1, max_length=20_000)]
    kitchen: MeasuresRequest = Field(default_factory=MeasuresRequest)


def run_read(q: ReadRequest) -> dict[str, Any]:
    own_ml = q.kitchen.own_ml()
    return {
        "lines": [_line(x, own_ml) for x in read_entry(q.text, table())],
        "cautions": [],
        "why": {},
    }


def _line(x: EntryLine, own_ml: dict[str, float]) -> dict[str, Any]:
    asks = [*x.faults, *([x.note] if x.note else [])]
    if x.faults:
        return {"text": x.raw, "status": "unread", "parts": [], "asks": asks + _near(x)}
    assert x.ingredient is not None
    part: dict[str, Any] = {
        "ingredient": x.ingredient,
        "amount": x.amount,
        "grams": None,
        "low_g": None,
        "high_g": None,
        "purpose": PURPOSES[x.purpose],
        "temp_c": x.temp_c,
    }
    if x.amount is not None:
        got = measures.grams(table()[x.ingredient], parse_amount(x.amount), x.basis, own_ml)
        part |= {"grams": got.mass_g, "low_g": got.low_g, "high_g": got.high_g}
    return {"text": x.raw, "status": "read", "parts": [part], "asks": asks}


def _near(x: EntryLine) -> list[str]:
    """The question whether one of the near names was meant."""
    names = [table()[i].name for i in x.near if i in table()]
    return [f"Is it {' or '.join(names)}?"] if names else []
