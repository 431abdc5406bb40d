"""What can be recorded: each kind of row with what the recorder says of it. Lengths in µm, temperatures in °C."""

from dataclasses import dataclass, field
from datetime import date, datetime
from decimal import Decimal
from typing import ClassVar
from uuid import UUID, uuid4

from vallostasis.core.records.route_marks import Bill, FindingKind, HoldPoint, MarkKind, Operation, WaitCause
from vallostasis.core.records.rows import Quantity, ZeroedOn


@dataclass(frozen=True, slots=True)
class NewCardChosen:
    """The card version by which a job is judged from now on."""

    rows: ClassVar = "cards_chosen"
    job_id: UUID
    spec_card_version_id: UUID
    reason: str = ""


@dataclass(frozen=True, slots=True)
class NewLiner:
    """A liner; the database refuses a mark twice in one job."""

    rows: ClassVar = "liners"
    job_id: UUID
    mark: str
    make: str = ""
    batch: str = ""
    liner_id: UUID = field(default_factory=uuid4)


@dataclass(frozen=True, slots=True)
class NewFitting:
    """A liner that went into a hole."""

    rows: ClassVar = "fittings"
    fitting_id: UUID
    hole_id: UUID
    liner_id: UUID


@dataclass(frozen=True, slots=True)
class NewShim:
    """A shim under a fitted liner."""

    rows: ClassVar = "fitting_shims"
    fitting_id: UUID
    place: int
    nominal_um: Decimal
    measured_um: Decimal | None
    typed: str
    side_up: str


@dataclass(frozen=True, slots=True)
class NewOut:
    """A liner that came out: for a cut, for another fitting, or drawn by itself."""

    rows: ClassVar = "fitting_outs"
    fitting_id: UUID
    because_cut_id: UUID | None = None
    because_fitting_id: UUID | None = None


@dataclass(frozen=True, slots=True)
class NewCut:
    """A ledge cut."""

    rows: ClassVar = "cuts"
    cut_id: UUID
    hole_id: UUID
    depth_um: Decimal
    typed: str
    touch_off_um: Decimal
    passes: int
    shim_um: Decimal
    stop_u_um: Decimal
    note: str


@dataclass(frozen=True, slots=True)
class NewSetup:
    """Gauge, its zero, land, datum and clamp to read with from now on."""

    rows: ClassVar = "setups"
    job_id: UUID
    quantity: Quantity
    gauge_id: UUID
    land: str
    datum: str
    hold_down: str
    hold_down_torque_nm: Decimal | None = None
    shared_zero: bool = True
    zeroed_on: ZeroedOn = ZeroedOn.DATUM
    zero_um: Decimal = Decimal(0)
    zero_typed: str = ""
    load: str = ""
    method: str = ""
    setting_master_version_id: UUID | None = None
    master_temp_c: Decimal | None = None
    gauge_temp_c: Decimal | None = None
    corrects: UUID | None = None
    setup_id: UUID = field(default_factory=uuid4)


@dataclass(frozen=True, slots=True)
class NewSet:
    """A pass of readings to open: of a fitting, of a hole since a cut, of a liner, or of a part by name."""

    rows: ClassVar = "sets"
    job_id: UUID
    setup_id: UUID
    gauge_version_id: UUID
    fitting_id: UUID | None = None
    hole_id: UUID | None = None
    after_cut_id: UUID | None = None
    liner_id: UUID | None = None
    part_temp_c: Decimal | None = None
    part: str = ""
    reading_set_id: UUID = field(default_factory=uuid4)


@dataclass(frozen=True, slots=True)
class NewTemperature:
    """How warm something was; its id was made by the client, so that sending it again never doubles it."""

    rows: ClassVar = "temperatures"
    temperature_id: UUID
    job_id: UUID
    body: str
    part: str
    celsius: Decimal
    typed: str


@dataclass(frozen=True, slots=True)
class NewStrike:
    """One thing struck out or restored: named by its id, or by its event where it is of another kind."""

    rows: ClassVar = "strikes"
    job_id: UUID
    struck: bool
    reason: str
    reading_id: UUID | None = None
    cut_id: UUID | None = None
    fitting_id: UUID | None = None
    note_id: UUID | None = None
    temperature_id: UUID | None = None
    of_event: int | None = None
    undoes: bool = False


@dataclass(frozen=True, slots=True)
class NewCorrection:
    """A zero found moved: what is added to every reading of a set, or to those between two events."""

    rows: ClassVar = "corrections"
    reading_set_id: UUID
    correction_um: Decimal
    standard_um: Decimal
    typed: str
    reason: str
    after_event: int | None = None
    until_event: int | None = None


@dataclass(frozen=True, slots=True)
class NewZeroCheck:
    """A look at the zero of a setup."""

    rows: ClassVar = "zero_checks"
    job_id: UUID
    setup_id: UUID
    moved_um: Decimal
    typed: str


@dataclass(frozen=True, slots=True)
class NewStamp:
    """Letters found stamped on a part."""

    rows: ClassVar = "stamps"
    job_id: UUID
    part: str
    letters: str


@dataclass(frozen=True, slots=True)
class NewUnreadable:
    """A place of a feature that cannot be read, or that can be again."""

    rows: ClassVar = "unreadables"
    job_id: UUID
    quantity: Quantity
    unreadable: bool
    reason: str
    fitting_id: UUID | None = None
    hole_id: UUID | None = None
    liner_id: UUID | None = None
    part: str = ""
    hour: float | None = None
    level_um: Decimal | None = None
    axis_deg: float | None = None
    along_um: Decimal | None = None
    across_um: Decimal | None = None


@dataclass(frozen=True, slots=True)
class NewOperationMark:
    """An operation of the block or of a hole: done, to be done again, looked over by another, its zero looked at."""

    rows: ClassVar = "operation_marks"
    job_id: UUID
    operation: Operation
    hole_id: UUID | None
    kind: MarkKind
    done_at: datetime
    words: str = ""
    count: int | None = None


@dataclass(frozen=True, slots=True)
class NewClockMark:
    """The working clock started or stopped."""

    rows: ClassVar = "clock_marks"
    job_id: UUID
    operation: Operation
    hole_id: UUID | None
    running: bool
    at: datetime
    bill: Bill = Bill.AGREED


@dataclass(frozen=True, slots=True)
class NewWait:
    """Something an operation waits for."""

    rows: ClassVar = "waits"
    job_id: UUID
    operation: Operation
    hole_id: UUID | None
    cause: WaitCause
    words: str
    since: datetime
    expected: date | None
    wait_id: UUID = field(default_factory=uuid4)


@dataclass(frozen=True, slots=True)
class NewWaitEnd:
    """The end of a wait."""

    rows: ClassVar = "wait_ends"
    job_id: UUID
    wait_id: UUID
    ended: datetime
    words: str


@dataclass(frozen=True, slots=True)
class NewHoldPass:
    """A hold point passed by name and reason."""

    rows: ClassVar = "hold_passes"
    job_id: UUID
    hold: HoldPoint
    before: Operation
    hole_id: UUID | None
    reason: str


@dataclass(frozen=True, slots=True)
class NewSchoolChoice:
    """The side of a question that the job follows from now on."""

    rows: ClassVar = "school_choices"
    job_id: UUID
    question: str
    side: str
    reason: str


@dataclass(frozen=True, slots=True)
class NewFinding:
    """Something found as the engine was stripped; where it lies, where it lies somewhere."""

    rows: ClassVar = "findings"
    job_id: UUID
    hole_id: UUID | None
    kind: FindingKind
    part: str
    word: str
    words: str
    figure: Decimal | None
    typed: str
    finding_id: UUID = field(default_factory=uuid4)
    hour: float | None = None
    until_hour: float | None = None
    distance_um: Decimal | None = None
    width_um: Decimal | None = None
    reading_id: UUID | None = None
    from_um: Decimal | None = None
    until_um: Decimal | None = None
    catches: bool = False
    in_round: str = ""


@dataclass(frozen=True, slots=True)
class NewWaiver:
    """A feature of a part that is not read, by name, or is to be read after all."""

    rows: ClassVar = "waivers"
    job_id: UUID
    quantity: Quantity
    part: str
    waived: bool
    reason: str
