"""Speed of the two steppers, as ratios against a named reference in the same run. `make bench` prints it.

The reference of the rise is `scipy.integrate.solve_ivp` (LSODA, rtol 1e-6) on the same right-hand side in
plain Python; that of the puff is the same scheme in plain Python.
"""

from __future__ import annotations

import os
import platform
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from scipy.integrate import solve_ivp

from brassclock.core.fire.puff import model as puff
from brassclock.core.matter.ingredients import table
from brassclock.core.rise import course as yeast
from brassclock.core.rise import stepper
from brassclock.core.rise.recipe import Recipe
from brassclock.core.weigh.formula import PieceWish, weigh
from brassclock.core.weigh.geometry import Shape
from brassclock.core.weigh.lines import TypedLine

Z = Recipe((("yeast_instant", 0.003),), 0.62, 0.02, mass=1.643, strength=0.75)
PATH = [yeast.Piece.constant(h, t, tau) for h, t, tau in ((0.5, 23.0, 1.48), (67.5, 4.0, 1.66), (4.0, 23.0, 1.48))]


def best_ms(run: Callable[[], object], times: int) -> float:
    """Shortest of `times` runs [ms]: the least disturbed by whatever else the machine does."""
    took = []
    for _ in range(times):
        begin = time.perf_counter()
        run()
        took.append(time.perf_counter() - begin)
    return 1e3 * min(took)


def expansion_by_scipy(start: yeast.Start, method: str, rtol: float) -> float:
    """Volume ratio at the end of PATH, leg by leg (its air temperature jumps at each end)."""
    right_hand_side: Any = stepper.derivatives
    out = np.zeros(stepper.STATES)
    y = start.state
    for piece in PATH:

        def rhs(_: float, state: np.ndarray, piece: yeast.Piece = piece) -> np.ndarray:
            right_hand_side(state, piece.ambient0_c, piece.tau_h, start.air_mol, start.p, out)
            return out.copy()

        y = solve_ivp(rhs, (0, piece.hours), y, method=method, rtol=rtol, atol=1e-12).y[:, -1]
    gas_ml = stepper.split(y[6], start.air_mol, y[8], start.water, start.pressure_pa)[0]
    return float((start.dry_ml + gas_ml) / start.first_ml)


def rise() -> None:
    start = yeast.start_of(Z, 24.0)
    ours = best_ms(lambda: yeast.course(start, PATH), 30)
    reference = best_ms(lambda: expansion_by_scipy(start, "LSODA", 1e-6), 3)
    exact = expansion_by_scipy(start, "DOP853", 1e-10)
    off = abs(float(yeast.course(start, PATH).expansion[-1]) - exact)
    off_reference = abs(expansion_by_scipy(start, "LSODA", 1e-6) - exact)
    print(f"rise, 72 h at 5 min, compiled      {ours:9.2f} ms")
    print(
        f"  solve_ivp LSODA 1e-6, plain      {reference:9.2f} ms   {reference / ours:6.0f} x as long   (aim: 10 or more)"
    )
    print(f"  off in volume ratio              {off:9.1e}      LSODA {off_reference:.1e}   (aim: 1e-4 or less)")


def bake() -> None:
    bread = puff.Bread(0.0034, 0.18, 0.88, 20.0)
    air = puff.Face(30, 10, 30, 0.9, 1200)
    stages = [puff.Stage(150.0, turned, 12_000.0, 25.0, 8.0, air) for turned in (False, True)]

    def run() -> puff.Baked:
        return puff.simulate(bread, puff.Plate("iron", 0.005, 235.0), stages)

    ours = best_ms(run, 30)
    fast, puff.bake_stepper._fast = puff.bake_stepper._fast, None
    plain = best_ms(run, 1)
    puff.bake_stepper._fast = fast
    print(f"puff, 300 s, compiled              {ours:9.2f} ms                       (aim: 5 ms or less)")
    print(f"  the same scheme in plain Python  {plain:9.2f} ms   {plain / ours:6.0f} x as long")


def thirty_lines() -> list[TypedLine]:
    """A formula of thirty lines in mixed units."""
    amounts = ("1 1/2 cups", "250 g", "2 tbsp", "1 tsp", "3 oz", "1/4 cup")
    return [TypedLine(key, amounts[i % len(amounts)]) for i, key in enumerate(list(table())[:30])]


def sheet() -> None:
    lines = thirty_lines()
    ours = best_ms(lambda: weigh(lines, PieceWish(8, 95), Shape(diameter_cm=18)), 50)
    print(f"weigh, 30 lines                    {ours:9.2f} ms                       (aim: 5 ms or less)")


KEYSTROKES = """async (n) => {
  const input = document.querySelector("input.amount"), grams = () => document.querySelector(".cells .g").textContent;
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set, took = [];
  for (let i = 0; i < n; i += 1) {
    const before = grams(), began = performance.now();
    set.call(input, `${101 + i} g`);
    input.dispatchEvent(new Event("input", { bubbles: true }));
    await new Promise((done, late) => {
      const limit = setTimeout(() => late(new Error("no sheet")), 4000);
      const look = () => { if (grams() === before) return requestAnimationFrame(look); clearTimeout(limit); took.push(performance.now() - began); done(); };
      look();
    });
    await new Promise((done) => setTimeout(done, 120));
  }
  return took;
}"""


def keystroke() -> None:
    """From a keystroke to the new grams on the screen, in Chromium, with the server on this machine."""
    from playwright.sync_api import sync_playwright

    from serving import CHROMIUM_FLAGS, Server, chromium

    with tempfile.TemporaryDirectory() as data, Server(Path(data), demo=False) as server, sync_playwright() as p:
        server.wait_compiled()
        plate = {"name": "P", "kind": "iron_plate"}
        kitchen = server.send("POST", "/api/kitchens", {"zone": "UTC", "surface": plate})["id"]
        bake = server.send("POST", "/api/bakes", {"kitchen_id": kitchen, "serve": "in 9 h", "method": "blank"})["id"]
        lines = [{"ingredient": x.ingredient, "amount": x.amount, "basis": None} for x in thirty_lines()]
        server.send("PATCH", f"/api/bakes/{bake}", {"lines": lines})
        page = p.chromium.launch(executable_path=chromium(), args=CHROMIUM_FLAGS).new_page()
        page.goto(f"{server.url}/b/{bake}/weigh")
        page.wait_for_selector("input.amount")
        page.wait_for_timeout(1500)
        took = sorted(page.evaluate(KEYSTROKES, 60))
        p95 = took[int(0.95 * len(took))]
        print(
            f"keystroke to sheet, 30 lines, p95  {p95:9.1f} ms   median {statistics.median(took):.1f}   (aim: 50 ms or less)"
        )


def main() -> None:
    print(f"{platform.node()}: {platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}")
    if not (yeast.warm() and puff.warm()):
        raise SystemExit("numba is missing: there is nothing compiled to measure")
    rise()
    bake()
    sheet()
    keystroke()


if __name__ == "__main__":
    main()
