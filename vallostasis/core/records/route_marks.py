"""What is marked on the route of a job: operations done, clocks, waits, hold points passed, schools, waivers, findings.

Times are those of the thing itself where it has one (``done_at``, ``since``), beside when it was written down.
"""

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID

from vallostasis.core.records.rows import Quantity


class Operation(StrEnum):
    """What is done to an engine, in the usual order of the work. Common practice, no published source."""

    TAKE_IN = "take-in"
    STRIP = "strip"
    CAPS = "caps"
    MEASURE = "measure"
    DECIDE = "decide"
    ORDER = "order"
    CLEAN = "clean"
    PLUG = "plug"
    BORE_BLOCK = "bore-block"
    HONE_BLOCK = "hone-block"
    CUT = "cut"
    FIT_PREP = "fit-prep"
    HEAT = "heat"
    FIT = "fit"
    SOAK = "soak"
    SEAT = "seat"
    DECK = "deck"
    BORE = "bore"
    PLATE = "plate"
    HONE = "hone"
    FREE = "free"
    MAINS = "mains"
    ALIGN = "align"
    WASH = "wash"
    PISTONS = "pistons"
    PROVE = "prove"
    RELEASE = "release"


class MarkKind(StrEnum):
    """What a mark says of an operation."""

    DONE = "done"
    AGAIN = "to be done again"
    LOOKED_OVER = "looked over"
    ZERO_LOOKED = "probe and zero looked at"


@dataclass(frozen=True, slots=True)
class OperationMark:
    """An operation marked by hand, of one hole or of the block; ``count`` where things were counted in or out."""

    operation: Operation
    hole_id: UUID | None
    kind: MarkKind
    words: str
    count: int | None
    done_at: datetime
    marked_at: datetime
    marked_by: str
    event: int


class Bill(StrEnum):
    """Whether hours stand on the bill."""

    AGREED = "within what was agreed"
    CHARGEABLE = "chargeable beside it"
    GOODWILL = "goodwill"


@dataclass(frozen=True, slots=True)
class ClockMark:
    """The working clock of a job started or stopped, at an operation of a hole or of the block."""

    operation: Operation
    hole_id: UUID | None
    running: bool
    at: datetime
    marked_at: datetime
    marked_by: str
    event: int
    bill: Bill = Bill.AGREED


class WaitCause(StrEnum):
    """What an operation can wait for."""

    PART = "part"
    TOOL = "tool"
    PERSON = "person"
    MACHINE = "machine"
    TEMPERATURE = "temperature"
    CUSTOMER = "customer"


@dataclass(frozen=True, slots=True)
class Wait:
    """Something that an operation waits for, since when, and when it is expected to end."""

    wait_id: UUID
    operation: Operation
    hole_id: UUID | None
    cause: WaitCause
    words: str
    since: datetime
    expected: date | None
    noted_at: datetime
    noted_by: str
    event: int


@dataclass(frozen=True, slots=True)
class WaitEnd:
    """A wait that came to its end."""

    wait_id: UUID
    ended: datetime
    words: str
    noted_at: datetime
    noted_by: str
    event: int


class HoldPoint(StrEnum):
    """Places in the route that need a name to pass. Common practice, no published source."""

    PISTON_FIRST = "piston first"
    DATUM_AND_PREDICTION = "datum and prediction"
    PARTS_AGREE = "parts agree"
    WORST_FIRST = "worst first"
    AGREED_ANEW = "agreed anew"
    ESTIMATE = "estimate"
    READY_TO_FIT = "ready to fit"
    HEIGHTS_COLD = "heights cold"
    PLATE = "plate"
    HONING_FROZEN = "honing frozen"
    THREE_AXES = "three axes"
    COMMON_CAUSES = "common causes"
    DECK_JUDGED = "deck judged"
    LOOKED_FOR_CRACKS = "looked for cracks"
    PLUGS_OUT = "plugs out"
    FACE_KEPT = "face kept"
    SECOND_PERSON = "second person"


@dataclass(frozen=True, slots=True)
class HoldPass:
    """A hold point passed by name and reason though what it asks for is not there."""

    hold: HoldPoint
    before: Operation
    hole_id: UUID | None
    reason: str
    passed_at: datetime
    passed_by: str
    event: int


@dataclass(frozen=True, slots=True)
class SchoolChoice:
    """A side of a question in dispute that a job follows; the newest one of a question holds."""

    question: str
    side: str
    reason: str
    chosen_at: datetime
    chosen_by: str
    event: int


@dataclass(frozen=True, slots=True)
class ShopSchool:
    """A side of a question in dispute that the shop follows for jobs it takes in."""

    question: str
    side: str
    chosen_at: datetime
    chosen_by: str


@dataclass(frozen=True, slots=True)
class Waiver:
    """A feature of a part that is not read, by name and reason; ``waived`` false takes it back."""

    quantity: Quantity
    part: str
    waived: bool
    reason: str
    waived_at: datetime
    waived_by: str
    event: int


class FindingKind(StrEnum):
    """What is written down when an engine is stripped."""

    CONDITION = "condition"
    GASKET = "gasket and fire ring"
    SYMPTOM = "symptom"
    PRIOR_WORK = "prior work"
    LEAK_DOWN = "leak-down"
    RING = "ring"
    STUD_HOLE = "stud hole"
    MARK = "mark on deck or ledge"
    WEAR = "wear of the seat"
    WALL = "mark on the wall"
    FEEL = "feel"


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing found: of a hole or of the block, on which part, how it is, with a figure where one was taken.

    ``figure`` has the unit that goes with its kind: percent of a leak-down, else a length. [µm] What lies somewhere
    on deck or ledge has its clock position, a line where it ends too [h], its distance outward from the edge of the
    counterbore, and its width; ``reading_id`` is the reading that it explains. What lies on a wall reaches from one
    depth below the deck to another; ``catches`` where a nail does, ``in_round`` after which round of work it was seen.
    """

    finding_id: UUID
    hole_id: UUID | None
    kind: FindingKind
    part: str
    word: str
    words: str
    figure: Decimal | None
    typed: str
    found_at: datetime
    found_by: str
    event: int
    hour: float | None = None
    until_hour: float | None = None
    distance_um: Decimal | None = None
    width_um: Decimal | None = None
    reading_id: UUID | None = None
    from_um: Decimal | None = None
    until_um: Decimal | None = None
    catches: bool = False
    in_round: str = ""
