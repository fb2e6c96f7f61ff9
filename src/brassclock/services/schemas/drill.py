"""Shapes of the Drill: a practice case as it is shown, an answer to it, what it was, and how a learner does."""

import datetime as dt
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from brassclock.core.terms import CauseVerdict, Fault
from brassclock.services.schemas.base import Shape, Strict, WhyRead
from brassclock.services.schemas.quantities import within

DrillKind = Literal["call", "read", "fault", "hands"]
DoughState = Literal["not_yet", "now", "past"]
Sure = Literal["sure", "rather", "guess"]
Poke = Literal["springs", "returns", "stays"]
Word = Annotated[str, StringConstraints(min_length=1, max_length=40)]
Seconds = Annotated[float, within(0.5, 900, "s")]


class FilmRead(Shape):
    """A bread second by second: bubbles (1: they show all over), the upper face that is dull, browning and charring of
    the upper and the lower face (1: golden, spots), the pocket's share, its height."""

    s: list[float]
    bubbles: list[float]
    dull: list[float]
    brown: list[float]
    char: list[float]
    brown_below: list[float]
    char_below: list[float]
    pocket: list[float]
    height_mm: list[float]


class SignRead(Shape):
    """A sign of the heat, and the second it was there."""

    s: float
    text: str


class CallRead(Shape):
    """A bread to be turned and taken off: as it is told, and the film of its first side. On easy levels its signs are
    named and its underside shows."""

    bread: str
    surface: str
    surface_c: float
    thickness_mm: float
    dough_c: float
    film: FilmRead
    signs: list[SignRead]
    underside: bool


class SideRead(Shape):
    """The second side of a bread that was turned at that second."""

    film: FilmRead
    signs: list[SignRead]


class CallAnswer(Strict):
    """Seconds from contact at which it was turned, and taken off; None for never."""

    turn_s: Seconds | None = None
    off_s: Seconds | None = None


class BecameRead(Shape):
    pocket: float
    bottom: str
    top: str
    loss_frac: float
    cooked: bool


class CallTruth(Shape):
    """The solution: the right second to turn and from when to when it might come off as it was turned, by how many
    seconds the calls were early (below 0) or late, the bread as it became and as it would have become, and its film."""

    turn_s: float
    off_low_s: float | None
    off_high_s: float | None
    turn_late_s: float | None
    off_late_s: float | None
    yours: BecameRead | None
    right: BecameRead
    film: FilmRead
    signs: list[SignRead]


class ReadRead(Shape):
    """A dough to be judged: what it is, its hours since mixing, its level in a straight jar (over that after mixing, at
    the top of its dome where it has one; its ready mark on easy levels), what a finger finds, its heat and that of its
    air. `asks_hours`: how long it still has is asked for too."""

    dough: str
    leaven: str
    h: float
    level: float
    domed: bool
    ready_mark: float | None
    poke: Poke
    dough_c: float
    air_c: float
    asks_hours: bool


class ReadAnswer(Strict):
    """The state named, how sure that is, and the minutes left: until it is ready, or until it is past."""

    state: DoughState
    sure: Sure
    left_min: Annotated[float, within(1, 2880, "min")] | None = None


class ReadTruth(Shape):
    """The solution: its state, the minutes left, which sign misled, and its course."""

    state: DoughState
    left_min: float | None
    misled: Literal["domed", "cold_middle"] | None
    level: float
    meant: float
    h: list[float]
    levels: list[float]
    ready_h: float | None
    past_h: float | None


class KnownFactRead(Shape):
    """A fact that is known, in words."""

    fact: str
    text: str


class OptionRead(Shape):
    cause: str
    name: str


class FaultRead(Shape):
    """A bread that failed: its faults, the facts that are known, the causes to choose from."""

    bread: str
    surface: str
    faults: list[Fault]
    facts: list[KnownFactRead]
    options: list[OptionRead]


class FaultAnswer(Strict):
    """The cause named first, and one named second; `not_enough_known` where that is so."""

    first: Word
    second: Word | None = None


class RankRead(Shape):
    cause: str
    name: str
    share: float
    evidence: str


class FaultTruth(Shape):
    """The solution: how sure that is, the best answer, the causes by their share with their evidence, what to change,
    and what to note next time."""

    verdict: CauseVerdict
    best: str
    wrong: str
    causes: list[RankRead]
    change: str | None
    ask: str | None


class LineMoveRead(Shape):
    """A move of one bread: its seconds of hands, and between which gaps the next one follows."""

    name: str
    hands_s: int
    then_min_s: int
    then_max_s: int


class HandsRead(Shape):
    """A line to be put in order."""

    bread: str
    breads: int
    cooks: int
    spots: int
    recover_s: int
    turn_s: float
    off_s: float
    moves: list[LineMoveRead]


class HandMove(Strict):
    """A move by which hands."""

    move: Word
    cook: Annotated[int, Field(ge=1, le=2)] = 1


class HandsAnswer(Strict):
    """Moves in their order, each of the next bread that waits for it."""

    moves: Annotated[list[HandMove], Field(max_length=60)]


class TaskRead(Shape):
    round_no: int
    move: str
    spot: int
    cook: int
    start_s: int
    end_s: int


class OrderRead(Shape):
    """Moves in their order, timed: the tasks, gaps that cannot be held, and the moves that can come next."""

    tasks: list[TaskRead]
    ends_s: int
    broken: list[str]
    whole: bool
    next: list[str]


class HandsTruth(Shape):
    """Your line and ours: their seconds, and ours as it is done."""

    yours_s: int
    ours_s: int
    bound_s: int
    broken: list[str]
    held_up_by: str
    ours: list[TaskRead]
    yours: list[TaskRead]


class DrillCreate(Strict):
    """A case to be opened: which kind, and whether of one's own kitchen."""

    kind: DrillKind
    own: bool = False


class AnswerCreate(Strict):
    """The answer, under the name of its kind."""

    call: CallAnswer | None = None
    read: ReadAnswer | None = None
    fault: FaultAnswer | None = None
    hands: HandsAnswer | None = None


class TruthRead(Shape):
    """The solution of a case, under the name of its kind; and the reason."""

    call: CallTruth | None = None
    read: ReadTruth | None = None
    fault: FaultTruth | None = None
    hands: HandsTruth | None = None
    why: dict[str, WhyRead]


class TryRead(Shape):
    """A case: its number within its set, what it is (under the name of its kind), the answer and what it was once it
    is answered."""

    id: int
    kind: DrillKind
    level: int
    seed: int
    own: str | None
    number: int
    call: CallRead | None = None
    read: ReadRead | None = None
    fault: FaultRead | None = None
    hands: HandsRead | None = None
    answer: AnswerCreate | None = None
    truth: TruthRead | None = None


class DrillKept(BaseModel):
    """A case as it is stored, where it comes from another kitchen."""

    kind: DrillKind
    level: Annotated[int, Field(ge=1, le=5)]
    seed: Annotated[int, Field(ge=0, le=2_147_483_647)]
    version: Annotated[int, Field(ge=0, le=1000)]
    points: Annotated[float, Field(ge=0, le=100)] | None = None
    answer: AnswerCreate | None = None
    figures: "FiguresKept | None" = None


class FiguresKept(Strict):
    """The figures of a case, as in `MissRead`."""

    turn_s: Annotated[float, within(-900, 900, "s")] | None = None
    off_s: Annotated[float, within(-900, 900, "s")] | None = None
    right: bool | None = None
    sure: Sure | None = None
    ratio: Annotated[float, within(0, 100, "")] | None = None
    broken: Annotated[int, Field(ge=0, le=100)] | None = None


class MissRead(Shape):
    """A case that was answered, in figures: seconds by which the turn and the end were early (below 0) or late, whether
    the answer was right, how sure it was, our time over yours."""

    level: int
    turn_s: float | None = None
    off_s: float | None = None
    right: bool | None = None
    sure: Sure | None = None
    ratio: float | None = None
    broken: int | None = None


class KindRead(Shape):
    """The record of a learner in one kind: the level, how many were answered, the first twelve and the last twelve;
    cases of the own kitchen that are left of ten, None where it has no bake for them."""

    kind: DrillKind
    level: int
    answered: int
    first: list[MissRead]
    last: list[MissRead]
    own_left: int | None


class RealCall(Shape):
    """A bread of the real hearth: seconds by which its turn and its end were early (below 0) or late beside what was
    due."""

    bake: int
    name: str
    at: dt.datetime
    turn_s: float | None
    off_s: float | None


class DrillRead(Shape):
    """The Drill of a kitchen: each kind, and the calls of its real hearth, newest last."""

    kinds: list[KindRead]
    hearth: list[RealCall]
