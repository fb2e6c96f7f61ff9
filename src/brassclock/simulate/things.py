"""The things that the stand-in measures: a room, a fridge, a dough, a plate that heats and a scale, with the scatter of
real instruments and the faults that are asked for. Figures are made up to look like a kitchen's."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from random import Random
from typing import Literal

FaultKind = Literal["stuck", "lost", "absurd", "drift", "dropouts", "battery", "door"]
FAULTS: tuple[FaultKind, ...] = ("stuck", "lost", "absurd", "drift", "dropouts", "battery", "door")
ABSURD_C = -127.0
DRIFT_K_H = 0.8
DOOR_K = {"room": -5.0, "fridge": 7.0, "dough": 0.0, "plate": 0.0}  # what an open door does at once
DOOR_FADES_H = 0.25
BATTERY_H = 0.5  # a flat one: so long it sags, then nothing
DROPPED = 0.4  # share of values that a bad connection loses
USUAL_ROOM_C = tuple(21.0 + 2.0 * math.sin((h - 9.0) / 24 * 2 * math.pi) for h in range(24))


@dataclass(frozen=True)
class Fault:
    """A fault of a channel, from an hour of the run on."""

    channel: str
    kind: FaultKind
    from_h: float

    @staticmethod
    def parse(text: str) -> Fault:
        """A fault as it is typed: `room:stuck@1.5` (hours). Raises ValueError in words."""
        channel, _, rest = text.partition(":")
        kind, _, hours = rest.partition("@")
        known = next((f for f in FAULTS if f == kind), None)
        if channel not in CHANNELS or known is None:
            right = f"{', '.join(CHANNELS)}; {', '.join(FAULTS)}"
            raise ValueError(f"“{text[:40]}” is no fault. Write it as room:stuck@1.5; there are {right}.")
        try:
            return Fault(channel, known, float(hours or 0))
        except ValueError:
            raise ValueError(f"“{hours[:20]}” are no hours. Write it as room:stuck@1.5.") from None


CHANNELS = ("room", "fridge", "dough", "plate")


@dataclass
class Probes:
    """Probes of a kitchen whose hours run from the first look. Values scatter; a channel may fail."""

    seed: int = 1
    room_by_hour: Sequence[float] = USUAL_ROOM_C
    fridge_c: float = 4.0
    dough_c: float = 26.0
    plate_c: float = 250.0
    faults: Sequence[Fault] = ()
    _scatter: dict[str, float] = field(default_factory=dict)
    _held: dict[str, float] = field(default_factory=dict)
    _last_h: float | None = None

    def __post_init__(self) -> None:
        self._random = Random(self.seed)
        self._plate_c = self.room_by_hour[0]

    def look(self, hour: float, of_day: float) -> dict[str, float]:
        """The value that each channel sends [C] at an hour of the run, at that hour of the day; one that sends nothing
        is not there."""
        passed = 0.0 if self._last_h is None else max(hour - self._last_h, 0.0)
        self._last_h = hour
        low = int(of_day) % 24
        share = of_day - int(of_day)
        room = self.room_by_hour[low] * (1 - share) + self.room_by_hour[(low + 1) % 24] * share
        self.dough_c += (room - self.dough_c) * -math.expm1(-passed / 1.5)
        self._plate_c += (self.plate_c - self._plate_c) * -math.expm1(-passed / 0.2)
        turn = (hour / 0.8) % 1.0  # a fridge's compressor: slow up, quick down
        fridge = self.fridge_c + (turn / 0.7 - 0.5 if turn < 0.7 else 0.5 - (turn - 0.7) / 0.3) * 1.6
        true = {"room": room, "fridge": fridge, "dough": self.dough_c, "plate": self._plate_c}
        sent = {name: self._sent(name, value, hour) for name, value in true.items()}
        return {name: round(value, 2) for name, value in sent.items() if value is not None}

    def _sent(self, name: str, true: float, hour: float) -> float | None:
        spread = 2.5 if name == "plate" else 0.06
        was = self._scatter.get(name, 0.0)
        self._scatter[name] = 0.7 * was + self._random.gauss(0, spread)
        value: float | None = true + self._scatter[name]
        for fault in self.faults:
            if fault.channel == name and hour >= fault.from_h and value is not None:
                value = self._spoilt(fault, value, hour - fault.from_h)
        return value

    def _spoilt(self, fault: Fault, value: float, since_h: float) -> float | None:
        match fault.kind:
            case "stuck":
                return self._held.setdefault(fault.channel, value)
            case "lost":
                return None
            case "absurd":
                return ABSURD_C
            case "drift":
                return value + DRIFT_K_H * since_h
            case "dropouts":
                return None if self._random.random() < DROPPED else value
            case "battery":
                return None if since_h > BATTERY_H else value - 3.0 * (since_h / BATTERY_H) ** 2
            case "door":
                return value + DOOR_K[fault.channel] * math.exp(-since_h / DOOR_FADES_H)


@dataclass
class Scale:
    """A scale with a bowl on it, into which somebody pours what is wanted."""

    step_g: float = 0.1
    seed: int = 1
    poured_g: float = 0.0
    _aim_g: float = 0.0

    def __post_init__(self) -> None:
        self._random = Random(self.seed)

    @property
    def rests(self) -> bool:
        """True if nothing is being poured."""
        return self._aim_g - self.poured_g < self.step_g

    def wants(self, total_g: float | None) -> None:
        """Pour until the bowl holds so much; None pours nothing."""
        if total_g is not None and total_g > self.poured_g + self.step_g:
            self._aim_g = total_g

    def look(self, passed_s: float) -> float:
        """The display of the scale [g] so many seconds after the last look."""
        ahead = self._aim_g - self.poured_g
        if ahead > 0:
            self.poured_g += min(ahead, max(ahead * 0.75 * passed_s, 4 * passed_s))
        waver = 0.0 if self.rests else self._random.gauss(0, 1.0)
        return round((self.poured_g + waver) / self.step_g) * self.step_g
