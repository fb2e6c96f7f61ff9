"""A random history of what cooks do: after every act every page answers, and no bake is one that cannot be computed."""

from __future__ import annotations

import json
import os
import tempfile
from pathlib import Path
from typing import Any

from hypothesis import HealthCheck, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule
from sqlmodel import Session

from brassclock.api.app import create_app
from brassclock.services.app import App
from brassclock.services.kitchen.beliefs import refold
from brassclock.store.engine import close_store, open_store
from brassclock.store.rows import find
from brassclock.store.tables import Kitchen as Row
from brassclock.store.tables import Surface
from helpers import Clock, bake_out

STEPS = int(os.environ.get("ACTS", "30"))  # 200 by hand: docs/performance.md
FINE = (200, 201, 304, 404, 409, 422)
SURFACES = [("iron_plate", 240), ("stone_oven", 275), ("clay_wall", 430), ("oil", 190), ("pan_then_grill", 240)]
METHODS = ["hatch-pita", "terrace-naan", "soda-quarters", "ridge-sour", "blank"]
pick = st.integers(0, 1_000_000)


class Kitchen(RuleBasedStateMachine):
    """Make, edit, tap, undo, remove surfaces, move dates, judge, keep, refuse what was learned, delete.

    The kitchen goes on, and what it believes is the fold of its lessons.
    """

    @initialize(spots=st.integers(1, 6), cooks=st.integers(1, 3))
    def open(self, spots: int, cooks: int) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.clock, self.n, self.did = Clock(), 0, ""
        self.app = App(open_store(Path(self.folder.name)), with_demo=False, real_now=self.clock)
        self.client = create_app(self.app).test_client()
        plate = {"name": "Plate", "kind": "iron_plate", "temp_c": 240, "spots": spots}
        self.ask("POST", "/api/kitchens", {"zone": "Europe/Zurich", "room_c": 21, "surface": plate})
        self.ask("POST", "/api/kitchens/1/surfaces", {"name": "Stone", "kind": "stone_oven", "temp_c": 275})
        self.ask("PATCH", "/api/kitchens/1", {"cooks": cooks})
        self.ask("POST", "/api/bakes", {"kitchen_id": 1, "serve": "in 5 h", "method": "hatch-pita"})
        self.ask("PATCH", "/api/bakes/1", {"count": 4})
        bake_out(self.client, self.clock, "/api/bakes/1")
        self.judge(0, "all full and dark", True)
        assert self.ask("GET", "/api/kitchens/1/lessons")["beliefs"], "there is something to refuse"

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        self.did = f"{method} {path} {body}"
        answer = self.client.open(path, method=method, json=body if body is not None or method == "GET" else {})
        assert answer.status_code in FINE, (self.did, answer.status_code, answer.text[:400])
        return answer.json

    def bakes(self) -> list[int]:
        return [b["id"] for b in self.ask("GET", "/api/kitchens/1/bench")["bakes"]]

    def one(self, k: int) -> int:
        known = self.bakes()
        return known[k % len(known)] if known else 1

    @rule(k=pick, hours=st.integers(1, 300))
    def make(self, k: int, hours: int) -> None:
        self.ask("POST", "/api/bakes", {"kitchen_id": 1, "method": METHODS[k % len(METHODS)], "serve": f"in {hours} h"})

    @rule(
        k=pick,
        what=st.sampled_from(
            [
                {"count": 1},
                {"count": 40},
                {"piece_g": 60},
                {"diameter_cm": 30},
                {"docked": True},
                {"doneness": "charred"},
                {"surface_id": 1},
                {"surface_id": 2},
                {"surface_c": 330},
                {"lines": []},
                {"serve": "in 3 h"},
                {"serve": "in 12 days"},
                {"serve_until": "in 30 h"},
                {"cold": {"stage": "ball", "hours": 20}},
                {"bulk_place": "cellar"},
                {"sponge_h": 3},
                {"note": "x"},
            ]
        ),
    )
    def edit(self, k: int, what: dict[str, Any]) -> None:
        self.ask("PATCH", f"/api/bakes/{self.one(k)}", what)

    @rule(k=pick, kind=st.sampled_from(["weigh", "mix", "ball", "roll", "cold_in", "preheat"]), ago=st.integers(0, 90))
    def step(self, k: int, kind: str, ago: int) -> None:
        self.n += 1
        self.ask(
            "POST", f"/api/bakes/{self.one(k)}/taps", {"key": f"s-{self.n:05}", "kind": kind, "at": f"{ago} min ago"}
        )

    @rule(k=pick, times=st.integers(1, 6), how=st.sampled_from(["due", "due", "due", "wild", "fact"]))
    def heat(self, k: int, times: int, how: str) -> None:
        bake = self.one(k)
        for _ in range(times):
            self.n += 1
            hearth = self.ask("GET", f"/api/bakes/{bake}/hearth")
            if not hearth.get("due"):
                return
            due = hearth["due"][self.n % len(hearth["due"])] if how == "wild" else hearth["due"][0]
            kind = (
                ["fell", "dark", "puffed", "pale", "browned"][self.n % 5]
                if how == "fact" and due["move"] != "load"
                else due["move"]
            )
            body = {"key": f"h-{self.n:05}", "kind": kind, "round_no": due["round_no"], "spot": due["spot"]}
            self.ask("POST", f"/api/bakes/{bake}/taps", body)
            self.clock.pass_(seconds=7 + self.n % 40)

    @rule(k=pick, which=pick)
    def undo(self, k: int, which: int) -> None:
        bake = self.one(k)
        taps = self.ask("GET", f"/api/bakes/{bake}/hearth").get("taps", [])
        if taps:
            self.ask("DELETE", f"/api/bakes/{bake}/taps/{taps[which % len(taps)]['id']}")

    @rule(k=pick, ratio=st.sampled_from([1.1, 1.5, 2.2]))
    def look(self, k: int, ratio: float) -> None:
        self.ask("POST", "/api/readings", {"bake_id": self.one(k), "kind": "ratio", "value": ratio})

    @rule(
        k=pick,
        spots=st.integers(1, 6),
        kind=st.sampled_from(SURFACES),
        what=st.sampled_from(["set", "remove", "restore", "add"]),
    )
    def surface(self, k: int, spots: int, kind: tuple[str, int], what: str) -> None:
        made = {"name": f"S{k % 9}", "kind": kind[0], "temp_c": kind[1], "spots": spots}
        at = f"/api/kitchens/1/surfaces/{1 + k % 4}"
        if what == "add":
            self.ask("POST", "/api/kitchens/1/surfaces", made)
        elif what == "set":
            self.ask("PUT", at, made)
        else:
            self.ask("DELETE" if what == "remove" else "POST", at if what == "remove" else f"{at}/restore")

    @rule(k=pick, status=st.sampled_from(["kept", "abandoned", "live"]), rounds=st.integers(1, 8))
    def end(self, k: int, status: str, rounds: int) -> None:
        bake = self.one(k)
        self.ask("PUT", f"/api/bakes/{bake}/outcomes", {"round_no": rounds, "pocket": "full"})
        self.ask("PUT", f"/api/bakes/{bake}/status", {"status": status})

    @rule(
        k=pick,
        said=st.sampled_from(["all full and right", "all flat except 1", "1 dark, 2 pale tough", "all burst and dark"]),
        again=st.booleans(),
    )
    def judge(self, k: int, said: str, again: bool) -> None:
        """A tray in a sentence, of a bake whose line was baked out first; judged anew with a word taken back."""
        bake = self.one(k)
        self.heat(k, 40, "due")
        self.ask("PUT", f"/api/bakes/{bake}/tray", {"said": said})
        self.ask("PUT", f"/api/bakes/{bake}/noted", {"uneven_frac": 0.3} if again else {"uneven_frac": None})
        if again:
            self.ask("PUT", f"/api/bakes/{bake}/tray", {"outcomes": [{"round_no": 1, "colour": None, "note": "so"}]})
            self.ask("PUT", f"/api/bakes/{bake}/status", {"status": "kept"})

    @rule(k=pick, whole=st.booleans())
    def refuse(self, k: int, whole: bool) -> None:
        """One lesson, or all about one thing, refused; a refused one restored."""
        known = self.ask("GET", "/api/kitchens/1/lessons")["beliefs"]
        if not known:
            return
        belief = known[k % len(known)]
        lesson = belief["lessons"][k % len(belief["lessons"])]
        refused = not lesson["refused"]
        if whole:
            at = f"/api/kitchens/1/beliefs/{belief['key']}"
            self.ask("DELETE" if refused else "POST", at if refused else f"{at}/back")
            return
        self.ask("PUT", f"/api/kitchens/1/lessons/{lesson['id']}", {"refused": refused})

    @rule(k=pick, back=st.booleans())
    def delete(self, k: int, back: bool) -> None:
        bake = self.one(k)
        self.ask("DELETE", f"/api/bakes/{bake}")
        if back:
            self.ask("POST", f"/api/bakes/{bake}/restore")

    @rule(
        what=st.sampled_from(
            [
                {"hourly_c": [9.0] * 24},
                {"cooks": 1},
                {"cooks": 4},
                {"zone": "Asia/Tokyo"},
                {"shelf_l": 2},
                {"fridge_c": 1},
            ]
        )
    )
    def kitchen(self, what: dict[str, Any]) -> None:
        self.ask("PATCH", "/api/kitchens/1", what)

    @rule(k=pick)
    def busy(self, k: int) -> None:
        day = {"name": "shift", "days": [k % 7], "from_time": "20:00", "until_time": "04:00"}
        self.ask("POST", "/api/kitchens/1/hours", day) if k % 3 else self.ask(
            "DELETE", f"/api/kitchens/1/hours/{1 + k % 3}"
        )

    @rule(hours=st.sampled_from([0.02, 0.5, 3, 30, 400]))
    def wait(self, hours: float) -> None:
        self.clock.pass_(hours=hours)

    @precondition(lambda self: hasattr(self, "client"))
    @invariant()
    def every_page_answers(self) -> None:
        did = self.did
        for page in ("bench", "logbook", "day", "hours", "plan/csv"):
            answer = self.client.get(f"/api/kitchens/1/{page}")
            assert answer.status_code == 200, (did, page, answer.text[:400])
            assert answer.json is None or answer.json.get("broken", []) == [], (did, page, answer.json["broken"])
        for bake in self.bakes()[:3]:
            whole = self.client.get(f"/api/bakes/{bake}")
            assert (whole.status_code, whole.json["faults"].get("bake")) == (200, None), (did, whole.text[:400])
            assert self.client.get(f"/api/bakes/{bake}/hearth").status_code in (200, 409), did

    @precondition(lambda self: hasattr(self, "client"))
    @invariant()
    def beliefs_are_the_fold_of_the_lessons(self) -> None:
        with self.app.read() as session:
            kitchen = self.app.kitchen(session, 1)
            stored = self.believed(session, kitchen)
            refold(session, kitchen)
            assert self.believed(session, kitchen) == stored, self.did
            session.rollback()

    def believed(self, session: Session, kitchen: Row) -> Any:
        surfaces = [(s.id, s.learned) for s in find(session, Surface, kitchen_id=1)]
        return json.loads(json.dumps([kitchen.leavens, kitchen.friction, kitchen.pace, surfaces]))

    def teardown(self) -> None:
        if hasattr(self, "app"):
            close_store(self.app.engine)
            self.folder.cleanup()


Kitchen.TestCase.settings = settings(
    max_examples=2 if STEPS < 100 else 3,
    stateful_step_count=STEPS,
    deadline=None,
    database=None,
    suppress_health_check=list(HealthCheck),
)
TestARandomHistory = Kitchen.TestCase
