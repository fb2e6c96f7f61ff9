"""Shapes of the Fire leaf: ways through the heat, taps, programs, lines, the live hearth."""

import datetime as dt
from typing import Annotated, Any, Literal

from pydantic import AwareDatetime, StringConstraints

from brassclock.core.terms import Colour, DressingTime, HeatAct, HeatUntil, MoveKey
from brassclock.services.schemas.base import Banded, CautionRead, ClockRead, Shape, Strict, WhyRead
from brassclock.services.schemas.kitchen import SurfaceRead
from brassclock.services.schemas.quantities import Key, Small, within


class HeatStepUpdate(Strict):
    """One step of a cook's own way through the heat: so many seconds, or until something is seen."""

    do: HeatAct
    seconds: Annotated[float, within(1, 3600, "s")] | None = None
    until: HeatUntil | None = None
    oven_c: Annotated[float, within(80, 350, "C")] | None = None


class DressingUpdate(Strict):
    """A dressing, outside the dough: grams of it a piece, and when."""

    kind: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]
    mass_g: Annotated[float, within(0.1, 500, "g")]
    when: DressingTime = "after_heat"


TapKind = Literal[
    "weigh",
    "sponge",
    "knead",
    "mix",
    "ball",
    "cold_in",
    "cold_out",
    "preheat",
    "roll",
    "load",
    "turn",
    "off",
    "bubbles",
    "browned",
    "puffed",
    "dark",
    "pale",
    "fell",
]


class TapCreate(Strict):
    """A tap. `key` is made by the client: sent twice, it counts once. `at`: now when left out, or as typed; `said_at`:
    when it was said, of one that was kept until the server was in reach; `by`: the cook's name, where the tablet has
    one."""

    key: Key
    kind: TapKind
    round_no: Small | None = None
    spot: Small | None = None
    at: Annotated[str, StringConstraints(max_length=80)] | None = None
    said_at: AwareDatetime | None = None
    by: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)] | None = None


class TapUpdate(Strict):
    """The instant of a tap, as typed, and when that was said."""

    at: Annotated[str, StringConstraints(max_length=80)]
    said_at: AwareDatetime | None = None


class ReasonRead(Shape):
    factor: str
    points: float
    text: str


class MoveRead(Shape):
    """A move that is due, or planned."""

    move: MoveKey
    round_no: int
    spot: int
    at: dt.datetime


class HeatingRead(Shape):
    """Heating of the surface: seconds from cold (None: not on this power), charcoal, how soon a change of the fire
    is felt, how an empty one drifts, the lowest power that carries the line (None where there is no knob, or not
    even the highest), breads between wipings."""

    preheat_s: float | None
    charcoal_kg: float | None
    settles_s: float
    drift_k_min: float
    hold: str | None
    knob: bool
    wipe_every: int | None


class VerdictRead(Shape):
    """A verdict on the program, and its remedy."""

    code: str
    text: str


class HandMoveRead(Shape):
    """Something the hands do to a bread on the heat: when from its contact [s], and for how long."""

    move: str
    at_s: float
    hands_s: int


class ProgramRead(Shape):
    """The program of one bread, frozen once the first is loaded. `second`: turn, invert (plate over the flame) or
    grill."""

    second: str = "turn"
    turn_s: float | None
    off_s: float
    recover_s: float
    puff_s: float | None
    bubbles_s: float | None
    brown_s: float | None
    heating: HeatingRead | None = None
    surface_c: float | None = None  # as the first bread measured it, its spread, and what it was set to
    surface_sd_c: float | None = None
    surface_was_c: float | None = None
    verdicts: list[VerdictRead] = []
    moves: list[HandMoveRead] = []  # besides load, turn and off
    dressed: str | None = None  # what goes on it after the heat
    wrap_s: float | None = None  # how long it rests in its cloth before it is served
    colour_steps: int = 0  # how often "too dark" was said, less "too pale"


class RightHeatRead(Shape):
    """The heat at which the usual way has the bread through and coloured at once: coolest, best and hottest, its turn
    and end there."""

    surface_c: Banded
    turn_s: float | None
    off_s: float


class ColoursRead(Shape):
    """The colour of the two faces in words: the bottom one at the turn, both when it comes off."""

    bottom_at_turn: str
    bottom_at_off: str
    top_at_off: str


class ActionRead(Shape):
    """One thing done to a bread, when, and how long each time."""

    action: str
    at_s: Banded
    each_s: float | None


class ColourSpell(Shape):
    """A colour that a face shows from so many seconds on."""

    word: Colour
    from_s: float


class WayRead(Shape):
    """One way through the heat at one heat: its times, both faces' colour through time, what it loses, how often a
    bread comes of the surface."""

    name: Literal["usual", "own", "own_at_its_heat"]
    surface_c: float
    turn_s: float | None
    off_s: float
    bottom: list[ColourSpell]
    top: list[ColourSpell]
    opens_s: float | None
    loss_frac: float
    through: bool
    every_s: float


class HabitRead(Shape):
    """Surface heat implied by a cook's own times (null where no heat explains them), and the ways beside each other."""

    surface_c: Banded | None
    sd_k: float
    text: str
    ways: list[WayRead]


class OwnWayRead(Shape):
    """A cook's own steps beside the usual way on this surface: its turn and end, and what the own times imply."""

    steps: list[dict[str, Any]]
    usual_turn_s: float | None
    usual_off_s: float
    habit: HabitRead | None


class CarpetRead(Shape):
    s: list[float]
    bottom: list[str]
    top: list[str]
    depth_mm: list[float]
    temp_c: list[list[float]]
    pocket: list[float]


class CueRead(Shape):
    """A surface's temperature from a sign, as a band, and what it means."""

    surface_c: Banded
    text: str
    cautions: list[CautionRead]
    why: dict[str, WhyRead]


class LineTaskRead(Shape):
    """A hand move of the line: which round, on which spot, by which cook, from when and for how long."""

    move: str
    round_no: int
    spot: int
    cook: int
    at: dt.datetime
    hands_s: float


class HeatLineRead(Shape):
    """The line at the heat from the first load on: its minutes and the least they could be, what holds it up, the
    longest wait in the towel and how that bread feels then, and (once looked for) what another spot or pair of hands
    would save."""

    tasks: list[LineTaskRead]
    minutes: float
    bound_min: float
    bottleneck: str
    cycle_s: float
    towel_min: float
    towel_feel: str
    spot_saves_s: int | None
    cook_saves_s: int | None


class ChanceRead(Shape):
    """The chance of a full pocket by this kitchen's own breads, with its p10 and p90."""

    p: float
    p10: float
    p90: float
    breads: int


class FireIfRead(Shape):
    """One thing changed: the score then and by how much, when it would puff and come off, what it would lose."""

    words: str
    score: float
    score_by: float
    puff_s: float | None
    off_s: float
    moisture_loss_frac: float


class FireIfsRead(Shape):
    ifs: list[FireIfRead]


class FireRead(Shape):
    surface: SurfaceRead | None
    surface_kind: str
    surface_c: Banded
    surface_source: str
    right_heat: RightHeatRead | None
    right_heat_reason: str
    colours: ColoursRead
    actions: list[ActionRead]
    own_way: OwnWayRead | None
    dressing_g: float | None  # of what goes on all of them, outside the dough
    thickness_mm: float
    diameter_cm: float
    bread_c: float
    events: dict[str, Banded]
    program: ProgramRead
    pocket: bool  # whether it is to open one at all
    score: float
    chance: ChanceRead | None
    breads_to_chance: int
    bakes_to_chance: int
    reasons: list[ReasonRead]
    moisture_loss_frac: float
    surface_after_c: float
    recovered: bool
    edge_s: float | None
    matters: list[str]
    carpet: CarpetRead
    line: HeatLineRead
    cautions: list[CautionRead]
    why: dict[str, WhyRead]


class SpotRead(Shape):
    number: int
    state: str
    round_no: int | None
    side: str
    since: dt.datetime | None
    until: dt.datetime | None
    grill: bool = False


class LineBreadRead(Shape):
    """One kind of bread on a line of several: its rounds and pieces, its surface and the spots of that, its program."""

    name: str
    rounds: list[int]
    pieces: int
    first_spot: int
    last_spot: int
    surface: SurfaceRead | None
    program: ProgramRead


class TowelRead(Shape):
    """A round in the towel: since when, and how it feels by now."""

    round_no: int
    since: dt.datetime
    feel: str


class TapRead(Shape):
    id: int
    key: str
    kind: str
    round_no: int | None
    spot: int | None
    at: dt.datetime
    by: str | None


class HearthRead(Shape):
    """The live hearth: everything the hands need, cheap to ask for. `line` are the hand moves ahead by the mended line,
    `late_s` how much later than planned it ends."""

    clock: ClockRead
    bake_id: int
    name: str
    rounds: int
    started: bool
    finished: bool
    program: ProgramRead
    surface: SurfaceRead | None
    breads: list[LineBreadRead]  # where the line mixes several kinds
    spots: list[SpotRead]
    due: list[MoveRead]
    waiting: list[int]
    off: list[int]
    lost: list[int]
    taps: list[TapRead]
    line: list[LineTaskRead]
    late_s: float
    towel: list[TowelRead]
    last_off_at: dt.datetime | None
