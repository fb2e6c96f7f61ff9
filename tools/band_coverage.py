"""Do the bands hold what they promise? Bakes are simulated with a truth of their own, read by eye, and forecast.

The truth differs from the forecast's model in what differs between real doughs: the leaven's strength, the temperatures
of mix, room and shelf, lag, sugar, amylase, growth, and the yeast weighed. `--write` renews the table in
docs/science.md.
"""

from __future__ import annotations

import sys
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np

from brassclock.core.matter.dough import Dough, dough_of_masses
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise import warmth
from brassclock.core.rise.belief import PRIOR_SD_LOG, Belief, Reading
from brassclock.core.rise.dough_heat import COLD_PLACE_C, Vessel
from brassclock.core.rise.forecast import forecast
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import SCALED_SUGAR, Stage, run_stages
from brassclock.core.rise.windows import READY_M

PAGE = Path(__file__).parents[1] / "docs" / "science.md"
BEGIN, END = "<!-- coverage -->", "<!-- end of coverage -->"
LN_SD = {
    "tau_a": 0.35,
    SCALED_SUGAR: 0.33,
    "k30": 0.30,
    "mu27": 0.20,
    "kappa": 0.12,
}  # lag, sugar, amylase, growth, CO2 of growth
TEMP_SD = warmth.SPREAD_C
YEAST_SD = 0.10
EYE_SD, EYE_SHARE = 0.04, 0.10


def _dough(yeast: float) -> Dough:
    return dough_of_masses(
        [("plain_flour", 500.0), ("water", 310.0), ("yeast_instant", 5 * yeast), ("salt_fine", 10.0)]
    )


TUB = Vessel("tub", 825.0, True, 20)
COLD = ((0.0, 23.0), (0.5, 23.0), (0.501, 4.0), (24.5, 4.0), (24.501, 23.0), (40.0, 23.0))
CASES: dict[str, tuple[str, Dough, float, Stage]] = {
    "quick": ("1 % at 24 °C, 1.9×", _dough(1.0), 26.0, Stage("bulk", 3.0, ((0.0, 24.0),), TUB, "ball", 1.9)),
    "long": ("0.2 % at 21 °C, 2×", _dough(0.2), 24.0, Stage("bulk", 12.0, ((0.0, 21.0),), TUB, "ball", 2.0)),
    "trace": ("0.05 % at 22 °C, 2×", _dough(0.05), 24.0, Stage("bulk", 24.0, ((0.0, 22.0),), TUB, "ball", 2.0)),
    "cold": (
        "0.3 %, 24 h cold, then the bench",
        _dough(0.3),
        24.0,
        Stage("balls", 30.0, COLD, Vessel("tray", 95, True), None, 1.9),
    ),
}


@dataclass(frozen=True)
class Coverage:
    """Share of bakes whose true ready time fell inside the band; the band's median width and the median's error [h,
    -]."""

    share: float
    width_h: float
    error: float


def simulate(case: str, readings: int, bakes: int = 200, seed: int = 1, sd_log: float = PRIOR_SD_LOG) -> Coverage:
    """Forecast that many simulated bakes of a case, each after so many looks by eye."""
    rng = np.random.default_rng([seed, readings, len(case)])
    _, dough, mix_c, stage = CASES[case]
    inside: list[bool] = []
    widths: list[float] = []
    errors: list[float] = []
    while len(inside) < bakes:
        shift = {k: rng.normal(0, sd) for k, sd in TEMP_SD.items()}
        path = tuple((h, c + (shift["shelf"] if c < COLD_PLACE_C else shift["room"])) for h, c in stage.path)
        scale = {at: float(np.exp(rng.normal(0, sd))) for at, sd in LN_SD.items()}
        weighed = float(np.exp(rng.normal(0, YEAST_SD)))
        lines = [replace(p, mass_g=p.mass_g * weighed) if p.ingredient.is_yeast else p for p in dough.portions]
        real = Batch(replace(dough, portions=tuple(lines)), "kneaded", mix_c + shift["mix"])
        activity = float(np.exp(rng.normal(0, sd_log)))
        open_h = 4 * stage.hours
        run = run_stages(real, [replace(stage, path=path)], [open_h], activity, scale)
        ready = yeast_course.first_passage_h(run.course.h, run.maturity, READY_M)
        if ready is None or ready < 0.3:
            continue
        looks = []
        for share in (0.45, 0.65, 0.8)[:readings]:
            h = share * min(ready, stage.hours / 0.85)
            seen = float(np.interp(h, run.course.h, run.ratio))
            looks.append(Reading(h, ratio=max(seen + rng.normal(0, np.hypot(EYE_SD, EYE_SHARE * (seen - 1))), 1.0)))
        told = forecast(
            Batch(dough, "kneaded", mix_c), [stage], (stage.target_ratio or 2.0,), belief=Belief(), readings=looks
        )
        band = told.windows[0].ready
        if band.p10 is None or band.p50 is None:
            inside.append(False)
            continue
        late = np.inf if band.p90 is None else band.p90
        inside.append(bool(band.p10 <= ready <= late))
        widths.append(late - band.p10)
        errors.append(abs(band.p50 - ready) / ready)
    return Coverage(float(np.mean(inside)), float(np.median(widths)), float(np.median(errors)))


def table(bakes: int) -> str:
    """The coverage of every case as a table."""
    rows = ["| bake | no look | one | two | three | width, h |", "|---|---|---|---|---|---|"]
    for case, (words, *_) in CASES.items():
        found = [simulate(case, n, bakes) for n in range(4)]
        shares = " | ".join(f"{c.share:.2f}" for c in found)
        widths = " / ".join(f"{c.width_h:.1f}" for c in found)
        rows.append(f"| {words} | {shares} | {widths} |")
    return "\n".join(rows)


def main() -> None:
    if not yeast_course.warm():
        raise SystemExit("numba is missing: this would take an hour")
    found = table(int(sys.argv[-1]) if sys.argv[-1].isdigit() else 200)
    print(found)
    if "--write" in sys.argv:
        page = PAGE.read_text("utf-8")
        head, rest = page.split(BEGIN)
        PAGE.write_text(f"{head}{BEGIN}\n{found}\n{END}{rest.split(END)[1]}", "utf-8")


if __name__ == "__main__":
    main()
