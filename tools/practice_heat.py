"""Times computed for the whole breads of tests/worked/practice.toml, beside what cooks state: the coverage table of
docs/science.md."""

from __future__ import annotations

import math
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path
from statistics import median
from typing import Any

from brassclock.core.fire.puff import model
from brassclock.services.contract.puff import PuffRequest, run_puff

ROWS: list[dict[str, Any]] = tomllib.loads(
    (Path(__file__).parents[1] / "tests/worked/practice.toml").read_text("utf-8")
)["heat"]
PAGE = Path(__file__).parents[1] / "docs/science.md"
BEGIN, END = "<!-- table: practice -->", "<!-- end practice -->"
STATED = {  # a key of a row: what it states, and seconds in its unit
    "side_one_s": ("turn", 1),
    "turn_s": ("turn", 1),
    "side_two_s": ("second side", 1),
    "total_s": ("off", 1),
    "off_s": ("off", 1),
    "off_min": ("off", 60),
    "puffed_s": ("puff", 1),
    "puffed_by_s": ("puff", 1),
    "bubbles_s": ("bubbles", 1),
    "bubbles_by_s": ("bubbles", 1),
    "golden_bottom_s": ("golden below", 1),
}
TURNS = ("turn", "invert", "grill")
Quantiles = Mapping[str, float]


@dataclass(frozen=True)
class Checked:
    """One stated time [s] and the band that is told for it [s]; `told` is None where the plan has no such moment."""

    row: str
    what: str
    low: float
    high: float
    told: Quantiles | None

    @property
    def middle(self) -> float:
        return math.sqrt(self.low * self.high)

    @property
    def inside(self) -> bool:
        """True if the middle of what is stated lies inside the band."""
        return self.told is not None and self.told["p10"] <= self.middle <= self.told["p90"]

    @property
    def error_ln(self) -> float:
        return math.log(self.told["p50"] / self.middle) if self.told else 1.0


def request(row: Mapping[str, Any]) -> dict[str, Any]:
    """A row as a request of the contract, by the words and settings that its cook has."""
    bread = {
        k: row[k]
        for k in ("diameter_cm", "length_cm", "width_cm", "thickness_mm", "docked", "intent", "leaven")
        if k in row
    }
    bread |= {"lines": [{"ingredient": k, "mass_g": v} for k, v in row["lines"].items()], "temp_c": 24.0}
    bread |= {"mass_g": row["piece_g"]} if "piece_g" in row else {}
    if "topped_g" in row:
        bread["dressing"] = {"mass_g": row["topped_g"], "when": "before"}
    if "dressed_after_turn_g" in row:
        bread["dressing"] = {"mass_g": row["dressed_after_turn_g"], "when": "after_turn"}
    surface = {k: row[k] for k in ("setting", "temp_c", "oven_c", "heat", "greased") if k in row}
    surface["kind"] = row["surface"]
    if "touching" in row:
        surface["batch"] = {"count": row["touching"], "touching": True}
    return {"bread": bread, "surface": surface, "doneness": row.get("doneness", "golden")}


def _second_side(turn: Quantiles, off: Quantiles) -> Quantiles:
    return {q: max(off[q] - turn[q], 1.0) for q in ("p10", "p50", "p90")}


def checked(row: Mapping[str, Any]) -> tuple[list[Checked], list[str]]:
    """The stated times of a row with what is told, and the codes of its verdicts."""
    got = run_puff(PuffRequest.model_validate(request(row)))
    acts = {a["action"]: a["at_s"] for a in got["program"]}
    turn = next((acts[t] for t in TURNS if t in acts), None)
    told = {
        "turn": turn,
        "off": acts["off"],
        "second side": turn and _second_side(turn, acts["off"]),
        "puff": got["events"]["puff"],
        "bubbles": got["events"]["bubbles"],
        "golden below": got["events"]["golden_bottom"],
    }
    found = [
        Checked(row["id"], what, row[key][0] * unit, row[key][1] * unit, told[what])
        for key, (what, unit) in STATED.items()
        if key in row
    ]
    return found, [v["code"] for v in got["verdicts"]]


def summary(found: list[Checked]) -> dict[str, float]:
    """Share inside the bands, median width p90/p10, rms and mean error of the middle in logs."""
    told = [c for c in found if c.told]
    return {
        "count": len(found),
        "inside": sum(c.inside for c in found) / len(found),
        "width": median(c.told["p90"] / c.told["p10"] for c in told if c.told),
        "rms_ln": math.sqrt(sum(c.error_ln**2 for c in found) / len(found)),
        "mean_ln": sum(c.error_ln for c in found) / len(found),
    }


def table() -> str:
    """The table and its summary in Markdown."""
    found = [c for row in ROWS for c in checked(row)[0]]
    lines = ["| bread | what | stated, s | told (8 in 10), s | inside |", "|---|---|---|---|---|"]
    for c in found:
        band = "never" if c.told is None else f"{c.told['p50']:.0f} ({c.told['p10']:.0f} to {c.told['p90']:.0f})"
        lines.append(f"| {c.row} | {c.what} | {c.low:.0f} to {c.high:.0f} | {band} | {'yes' if c.inside else 'no'} |")
    s = summary(found)
    lines += [
        "",
        f"Of {s['count']} stated times {100 * s['inside']:.0f} % lie inside the bands (their middles); the median "
        "width p90/p10 is "
        f"{s['width']:.2f}; the middle told misses by {s['rms_ln']:.2f} (rms, ln), {s['mean_ln']:+.2f} on average.",
    ]
    return "\n".join(lines)


def renewed(page: str) -> str:
    """The page with the table between its marks made anew."""
    before, _, rest = page.partition(BEGIN)
    _, _, after = rest.partition(END)
    return f"{before}{BEGIN}\n{table()}\n{END}{after}"


if __name__ == "__main__":
    model.warm()
    PAGE.write_text(renewed(PAGE.read_text("utf-8")), "utf-8")
