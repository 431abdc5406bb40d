"""What is written down about a job: one frozen type for each kind of row, as the store returns them.

Exact lengths are decimals in µm with the text as typed beside them; ``event`` orders everything
that was recorded, independent of any clock.
"""

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class Quantity(StrEnum):
    """What a set of readings is about."""

    PROTRUSION = "protrusion"
    COUNTERBORE_DEPTH = "counterbore depth"
    FLANGE_THICKNESS = "flange thickness"


class ZeroedOn(StrEnum):
    """What a gauge was zeroed on; on anything but the datum its readings are deviations from a size."""

    DATUM = "datum"
    MASTER = "setting master"
    MICROMETER = "micrometer"
    NOMINAL = "nominal"
    LOW_LIMIT = "low limit"
    TARGET = "target"
    PART = "part itself"


@dataclass(frozen=True, slots=True)
class Person:
    """Somebody who reads, cuts or signs."""

    person_id: UUID
    name: str


@dataclass(frozen=True, slots=True)
class GaugeVersion:
    """A gauge as it was at one time; whatever changes about it is a new version. [µm]

    ``owner`` is empty for the shop's own; ``master`` names what it was checked against.
    """

    gauge_version_id: UUID
    gauge_id: UUID
    name: str
    kind: str
    version: int
    resolution_um: Decimal
    repeatability_um: Decimal
    tip: str
    note: str
    range_from_um: Decimal | None = None
    range_to_um: Decimal | None = None
    tip_radius_um: Decimal | None = None
    calibrated_on: date | None = None
    due_on: date | None = None
    owner: str = ""
    master: str = ""
    faults: str = ""


@dataclass(frozen=True, slots=True)
class CardVersion:
    """Which saved version of a spec card."""

    spec_card_version_id: UUID
    spec_card_id: UUID
    version: int
    saved_at: datetime
    saved_by: str


@dataclass(frozen=True, slots=True)
class Job:
    """One engine in the shop; ``invented`` when it is there to try things on."""

    job_id: UUID
    number: str
    name: str
    customer: str
    complaint: str
    serial: str
    opened_at: datetime
    invented: bool = False


@dataclass(frozen=True, slots=True)
class Stage:
    """One stage of the route with its planned hours, and whether it is marked done."""

    stage_id: UUID
    place: int
    name: str
    planned_hours: Decimal
    done: bool


@dataclass(frozen=True, slots=True)
class StageMark:
    """A stage marked done or open again; the newest one holds."""

    stage_id: UUID
    done: bool
    marked_at: datetime
    marked_by: str
    event: int


@dataclass(frozen=True, slots=True)
class CardChosen:
    """From when on a card version judges a job; the newest one holds."""

    spec_card_version_id: UUID
    chosen_at: datetime
    chosen_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Hole:
    """One hole of the block."""

    hole_id: UUID
    number: int
    bank: str


@dataclass(frozen=True, slots=True)
class Liner:
    """One liner, known by the mark painted on it."""

    liner_id: UUID
    mark: str
    make: str
    batch: str


@dataclass(frozen=True, slots=True)
class FittedShim:
    """A shim in a fitting: nominal and, where known, measured thickness [µm], and which side is up."""

    fitting_id: UUID
    place: int
    nominal_um: Decimal
    measured_um: Decimal | None
    typed: str
    side_up: str

    @property
    def thickness_um(self) -> Decimal:
        """Measured thickness where it is known, else nominal. [µm]"""
        return self.nominal_um if self.measured_um is None else self.measured_um


@dataclass(frozen=True, slots=True)
class Fitting:
    """One liner in one hole, from going in to coming out."""

    fitting_id: UUID
    hole_id: UUID
    liner_id: UUID
    fitted_at: datetime
    fitted_by: str
    event: int


@dataclass(frozen=True, slots=True)
class FittingOut:
    """A liner taken out, because its hole was cut or because another fitting took its place."""

    fitting_id: UUID
    because_cut_id: UUID | None
    because_fitting_id: UUID | None
    out_at: datetime
    out_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Cut:
    """A ledge cut: depth by the stop, setting from touch-off, the shim it was cut for. [µm]"""

    cut_id: UUID
    hole_id: UUID
    depth_um: Decimal
    typed: str
    touch_off_um: Decimal
    passes: int
    shim_um: Decimal
    stop_u_um: Decimal
    note: str
    cut_at: datetime
    cut_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Setup:
    """Gauge, its zero, land, datum and clamp that hold for all readings of one quantity until changed.

    A reading is a deviation from ``zero_um``, the size the gauge was zeroed on. [µm]
    """

    setup_id: UUID
    quantity: Quantity
    gauge_id: UUID
    land: str
    datum: str
    hold_down: str
    hold_down_torque_nm: Decimal | None
    shared_zero: bool
    chosen_at: datetime
    chosen_by: str
    event: int
    zeroed_on: ZeroedOn = ZeroedOn.DATUM
    zero_um: Decimal = Decimal(0)
    zero_typed: str = ""

    @property
    def zero(self) -> tuple[ZeroedOn, Decimal]:
        """What the gauge was zeroed on: readings from different zeros never share a set."""
        return (self.zeroed_on, self.zero_um)

    def circumstances(self) -> tuple[object, ...]:
        """Everything that makes two readings comparable."""
        return (self.quantity, self.gauge_id, self.land, self.datum, self.hold_down, self.hold_down_torque_nm)


@dataclass(frozen=True, slots=True)
class ReadingSet:
    """One pass of readings: of a fitting, of a hole's ledge since a cut, or of a liner."""

    reading_set_id: UUID
    setup_id: UUID
    gauge_version_id: UUID
    fitting_id: UUID | None
    hole_id: UUID | None
    after_cut_id: UUID | None
    liner_id: UUID | None
    part_temp_c: Decimal | None
    opened_at: datetime
    opened_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading: exact value [µm], the text as typed, the clock position [h] where it has one."""

    reading_id: UUID
    reading_set_id: UUID
    hour: float | None
    value_um: Decimal
    typed: str
    typed_unit: str
    taken_at: datetime
    taken_by: str
    event: int


@dataclass(frozen=True, slots=True)
class PhotoMark:
    """A place marked on a photo: shares of its width from the left and of its height from the top."""

    x: float
    y: float
    words: str


@dataclass(frozen=True, slots=True)
class ReadingNote:
    """A note on a reading; a photo is named by the digest of its bytes, and may have stayed behind elsewhere."""

    note_id: UUID
    reading_id: UUID
    words: str
    photo_type: str
    photo_sha256: str
    photo_bytes: int
    photo_here: bool
    marks: tuple[PhotoMark, ...]
    made_at: datetime
    made_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Strike:
    """A reading, cut, fitting or note struck out or restored; the newest one holds."""

    reading_id: UUID | None
    cut_id: UUID | None
    fitting_id: UUID | None
    struck: bool
    reason: str
    made_at: datetime
    made_by: str
    event: int
    note_id: UUID | None = None


@dataclass(frozen=True, slots=True)
class ZeroCorrection:
    """A zero found moved: added to every reading of its set, with a shared uncertainty. [µm]"""

    reading_set_id: UUID
    correction_um: Decimal
    standard_um: Decimal
    typed: str
    reason: str
    made_at: datetime
    made_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Unreadable:
    """A clock position [h] of a fitting that cannot be read, with the reason, or that can be again."""

    fitting_id: UUID
    hour: float
    unreadable: bool
    reason: str
    made_at: datetime
    made_by: str
    event: int
