"""What an exercise shows: a dial, a bore from above, a plot, a row of holes, a sheet of facts, a lane of cards.

Lengths are SI; whoever shows a picture formats them in the unit chosen. ``tone`` says what a thing is: what the player
read or chose, the truth, a limit, what is wrong.
"""

from dataclasses import dataclass, field
from typing import Literal

from vallostasis.core.trail import Phrase

Tone = Literal["yours", "truth", "limit", "wrong", "soft"]
State = Literal["in", "cannot tell", "out", "not read"]
Across = Literal["small", "size", "angle", "minutes", "seconds", "celsius", "force", "count", "tilt", "strokes"]


@dataclass(frozen=True, slots=True)
class RockCurve:
    """What the gauge shows as it is tilted: even steps of tilt. [deg], [m]"""

    from_deg: float
    step_deg: float
    values_m: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class DialMark:
    """A value marked at the rim of a dial. [m]"""

    value_m: float
    name: str
    tone: Tone


@dataclass(frozen=True, slots=True)
class DialPicture:
    """A dial: its divisions, numbers and hand; where it is rocked, what it shows by tilt. [m], [deg]

    ``number_each`` counts the divisions from number to number, ``number_step`` is what each number adds.
    """

    title: str
    division_m: float
    per_turn: int
    number_each: int
    number_step: int
    unit: str
    value_m: float
    inner: bool = False
    rock: RockCurve | None = None
    marks: tuple[DialMark, ...] = ()
    note: str = ""
    kind: Literal["dial"] = "dial"


@dataclass(frozen=True, slots=True)
class RingCurve:
    """A shape all round, in even steps from 0°: deviation of the diameter. [m]"""

    name: str
    tone: Tone
    values_m: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class RingMark:
    """A reading across an axis. [deg], [m]"""

    axis_deg: float
    value_m: float
    tone: Tone
    name: str = ""


@dataclass(frozen=True, slots=True)
class RingPicture:
    """A bore from above, its shape many times enlarged. [m]"""

    title: str
    curves: tuple[RingCurve, ...]
    marks: tuple[RingMark, ...] = ()
    note: str = ""
    kind: Literal["ring"] = "ring"


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a plot."""

    name: str
    tone: Tone
    xs: tuple[float, ...]
    ys: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Spot:
    """A point of a plot with its name."""

    x: float
    y: float
    name: str
    tone: Tone


@dataclass(frozen=True, slots=True)
class Level:
    """A line across a plot: a limit or an aim."""

    y: float
    name: str
    tone: Tone


@dataclass(frozen=True, slots=True)
class PlotPicture:
    """Lines over one axis; ``across`` and ``up`` say what the numbers of the axes are. SI."""

    title: str
    across: Across
    up: Across
    across_name: str
    up_name: str
    lines: tuple[Line, ...]
    spots: tuple[Spot, ...] = ()
    levels: tuple[Level, ...] = ()
    note: str = ""
    kind: Literal["plot"] = "plot"


@dataclass(frozen=True, slots=True)
class HolePart:
    """One hole of a row: what was read, how it stands, and the truth where it is shown. [m]"""

    hole: int
    value_m: float | None
    state: State
    words: str = ""
    truth_m: float | None = None


@dataclass(frozen=True, slots=True)
class HolesPicture:
    """A row of holes between two limits. [m]"""

    title: str
    holes: tuple[HolePart, ...]
    least_m: float | None = None
    greatest_m: float | None = None
    note: str = ""
    kind: Literal["holes"] = "holes"


@dataclass(frozen=True, slots=True)
class Fact:
    """One line of a sheet."""

    name: str
    value: Phrase
    tone: Tone = "yours"


@dataclass(frozen=True, slots=True)
class FactsPicture:
    """A sheet: what is written down."""

    title: str
    rows: tuple[Fact, ...]
    say: str = ""
    kind: Literal["facts"] = "facts"


@dataclass(frozen=True, slots=True)
class CutPicture:
    """A ledge in section under a cutter: deck, ledge, cutter, collars. All below the deck. [m], [deg]

    ``true_m`` is the depth to the metal, shown at the end alone.
    """

    title: str
    ledge_m: float
    cutter_m: float
    upper_collar_m: float
    locked: bool
    burr: bool
    wanted_m: float | None = None
    true_m: float | None = None
    kind: Literal["cut"] = "cut"


@dataclass(frozen=True, slots=True)
class DropPicture:
    """A cold liner over a warm hole: the clearance by the clock, from the moment it stands there. [s], [m]

    ``runs`` says that the clock runs on the screen, ``rate`` how many seconds of the shop pass in one.
    """

    title: str
    times_s: tuple[float, ...]
    clear_m: tuple[float, ...]
    from_s: float
    rate: float
    runs: bool
    entered: float
    block: str
    liner: str
    tilt_deg: float = 0.0
    kind: Literal["drop"] = "drop"


@dataclass(frozen=True, slots=True)
class WallPicture:
    """A bore's wall as it is honed: stripes left, by level and angle; one is dark, nought is clean. [1]"""

    title: str
    stripes: tuple[tuple[float, ...], ...]
    loaded: float
    celsius: float
    strokes: int
    note: str = ""
    kind: Literal["wall"] = "wall"


@dataclass(frozen=True, slots=True)
class Card:
    """One step of a lane; ``lit`` names the steps after it that undo it."""

    name: str
    lit: tuple[str, ...] = ()
    words: str = ""


@dataclass(frozen=True, slots=True)
class LanePicture:
    """Steps in an order."""

    title: str
    cards: tuple[Card, ...] = field(default=())
    left: tuple[str, ...] = ()
    kind: Literal["lane"] = "lane"


Picture = (
    DialPicture
    | RingPicture
    | PlotPicture
    | HolesPicture
    | FactsPicture
    | CutPicture
    | DropPicture
    | WallPicture
    | LanePicture
)
