"""What is written down about a job: one frozen type for each kind of row, as the store returns them.

Exact lengths are decimals in µm with the text as typed beside them; ``event`` orders everything
that was recorded, independent of any clock.
"""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class Quantity(StrEnum):
    """What a set of readings is about."""

    PROTRUSION = "protrusion"
    COUNTERBORE_DEPTH = "counterbore depth"
    COUNTERBORE_DIAMETER = "counterbore diameter"
    FLANGE_THICKNESS = "flange thickness"
    BLOCK_BORE = "block bore"
    WEAR_STEP = "wear step"
    WALL_THICKNESS = "wall thickness"
    LINER_OUTSIDE = "liner outside"
    LINER_INSIDE = "liner inside"
    LINER_BORE = "liner bore"
    PISTON_SKIRT = "piston skirt"
    PISTON_CROWN = "piston crown"
    PISTON_CLEARANCE = "piston clearance"
    MAIN_BORE = "main bore"
    DECK_FLATNESS = "deck flatness"
    NEIGHBOUR_GAP = "neighbour gap"
    NEIGHBOUR_STEP = "neighbour step"
    RING_GAP = "ring gap"
    TRIAL_FIT = "trial fit"
    LEVELLING = "levelling"
    SETUP_INDICATOR = "set-up indicator"
    MAIN_LINE = "line of the mains"
    DECK_HEIGHT = "deck height"
    REGISTER_LINE = "register line"
    INSERT_POCKET = "deck insert pocket"
    INSERT_OUTSIDE = "deck insert outside"


@dataclass(frozen=True, slots=True)
class Place:
    """Where on a part a reading stands: clock [h], level below the deck [µm], axis [deg], or a point of a grid [µm].

    An axis counts clockwise from the front, 0 along the crank, 90 across it.
    """

    hour: float | None = None
    level_um: Decimal | None = None
    axis_deg: float | None = None
    along_um: Decimal | None = None
    across_um: Decimal | None = None


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
    """A liner taken out: its hole was cut, another fitting took its place, or, with neither, it was drawn by itself."""

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

    A reading is a deviation from ``zero_um``, the size the gauge was zeroed on. [µm] One that ``corrects`` another
    only says its temperatures anew.
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
    load: str = ""
    method: str = ""
    setting_master_version_id: UUID | None = None
    master_temp_c: Decimal | None = None
    gauge_temp_c: Decimal | None = None
    corrects: UUID | None = None

    @property
    def zero(self) -> tuple[object, ...]:
        """What the gauge was zeroed on: readings from different zeros never share a set."""
        return (self.zeroed_on, self.zero_um, self.setting_master_version_id, self.master_temp_c, self.gauge_temp_c)

    def circumstances(self) -> tuple[object, ...]:
        """Everything that makes two readings comparable."""
        return (self.quantity, self.gauge_id, self.land, self.datum, self.hold_down, self.hold_down_torque_nm,
                self.load, self.method)  # fmt: skip


@dataclass(frozen=True, slots=True)
class ReadingSet:
    """One pass of readings: of a fitting, of a hole since a cut, of a liner, or of a part by name."""

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
    part: str = ""


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading: exact value [µm], the text as typed, and where on the part it stands. [h], [µm], [deg]

    ``device`` is the screen at which it was taken, by name; ``from_gauge`` whether the gauge sent it itself.
    """

    reading_id: UUID
    reading_set_id: UUID
    hour: float | None
    value_um: Decimal
    typed: str
    typed_unit: str
    taken_at: datetime
    taken_by: str
    event: int
    level_um: Decimal | None = None
    axis_deg: float | None = None
    along_um: Decimal | None = None
    across_um: Decimal | None = None
    recorded_at: datetime | None = None
    device: str = ""
    from_gauge: bool = False

    @property
    def place(self) -> Place:
        """Where on the part it stands."""
        return Place(self.hour, self.level_um, self.axis_deg, self.along_um, self.across_um)

    @property
    def taken_with(self) -> str:
        """Screen and gauge that it came by, in words; empty where nothing is known of it. House wording."""
        return ", ".join(filter(None, (self.device, "from the gauge" if self.from_gauge else "")))

    def stands_at(self, place: Place) -> bool:
        """Whether it stands there; quicker than making its place, and asked of every reading of a set."""
        return (
            self.hour == place.hour
            and self.level_um == place.level_um
            and self.axis_deg == place.axis_deg
            and self.along_um == place.along_um
            and self.across_um == place.across_um
        )


@dataclass(frozen=True, slots=True)
class Strike:
    """Something struck or restored, named by its event where it has no field here; ``undoes``: made by Undo."""

    reading_id: UUID | None
    cut_id: UUID | None
    fitting_id: UUID | None
    struck: bool
    reason: str
    made_at: datetime
    made_by: str
    event: int
    note_id: UUID | None = None
    temperature_id: UUID | None = None
    of_event: int | None = None
    undoes: bool = False

    @property
    def row(self) -> UUID | int | None:
        """What is struck or restored: its id, or its event where it has none of its own here."""
        by_id = self.reading_id or self.cut_id or self.fitting_id or self.note_id or self.temperature_id
        return by_id or self.of_event


@dataclass(frozen=True, slots=True)
class ZeroCorrection:
    """A zero found moved: added to every reading of its set, with a shared uncertainty. [µm]

    One that follows from a check holds only for readings between two events.
    """

    reading_set_id: UUID
    correction_um: Decimal
    standard_um: Decimal
    typed: str
    reason: str
    made_at: datetime
    made_by: str
    event: int
    after_event: int | None = None
    until_event: int | None = None

    def covers(self, reading: Reading) -> bool:
        """Whether it holds for a reading."""
        if self.after_event is None or self.until_event is None:
            return True
        return self.after_event < reading.event < self.until_event


@dataclass(frozen=True, slots=True)
class ZeroCheck:
    """The zero of a setup looked at again: moved by so much, positive when the gauge shows more. [µm]"""

    zero_check_id: UUID
    setup_id: UUID
    moved_um: Decimal
    typed: str
    checked_at: datetime
    checked_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Stamp:
    """Class or grade letters found on a part; the newest row of a part holds."""

    stamp_id: UUID
    part: str
    letters: str
    made_at: datetime
    made_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Unreadable:
    """A place of a feature that cannot be read, with the reason, or that can be again. [h], [µm], [deg]"""

    fitting_id: UUID | None
    hour: float | None
    unreadable: bool
    reason: str
    made_at: datetime
    made_by: str
    event: int
    quantity: Quantity = Quantity.PROTRUSION
    hole_id: UUID | None = None
    liner_id: UUID | None = None
    part: str = ""
    level_um: Decimal | None = None
    axis_deg: float | None = None
    along_um: Decimal | None = None
    across_um: Decimal | None = None

    @property
    def place(self) -> Place:
        """Which place of the part."""
        return Place(self.hour, self.level_um, self.axis_deg, self.along_um, self.across_um)
