"""Gauges, what they are set on, and what was done to them: one frozen type for each kind of row."""

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from uuid import UUID

# Words in the kind of a gauge that has no zero. Common practice, no published source.
_WITHOUT_ZERO = ("feeler", "blade")
_OF_SIZES = ("micrometer", "rule", "calliper")


@dataclass(frozen=True, slots=True)
class GaugeVersion:
    """A gauge as it was at one time; whatever changes about it is a new version. [µm]

    ``owner`` is empty for the shop's own; ``master`` names what it was checked against. ``reproducibility_um`` is what
    one person reads differently from another, as a study found it.
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
    repeatability_freedom: int | None = None
    gauge_study_id: UUID | None = None
    reproducibility_um: Decimal = Decimal(0)
    reproducibility_freedom: Decimal | None = None

    @property
    def has_zero(self) -> bool:
        """Whether it has a zero, which is read too and can move: a blade is as thick as it is."""
        return not any(word in self.kind.casefold() for word in _WITHOUT_ZERO)

    @property
    def reads_sizes(self) -> bool:
        """Whether it shows a whole size, in inch or mm; the others show how far off they stand."""
        return any(word in self.kind.casefold() for word in _OF_SIZES)


@dataclass(frozen=True, slots=True)
class SettingMaster:
    """A ring or block that gauges are set on, as it was at one time: size at 20 °C and its uncertainty. [µm]"""

    setting_master_version_id: UUID
    setting_master_id: UUID
    name: str
    version: int
    size_um: Decimal
    typed: str
    standard_um: Decimal
    material: str
    calibrated_on: date | None
    due_on: date | None
    owner: str
    note: str


@dataclass(frozen=True, slots=True)
class MasterReading:
    """A master read with a gauge; ``off_um`` is how far from the master's own size it was read. [µm]"""

    master_reading_id: UUID
    setting_master_id: UUID
    gauge_id: UUID
    gauge_version_id: UUID
    shop: str
    value_um: Decimal
    off_um: Decimal
    typed: str
    taken_at: datetime
    taken_by: str
    event: int


@dataclass(frozen=True, slots=True)
class GaugeService:
    """What was done to a gauge and when."""

    gauge_service_id: UUID
    gauge_id: UUID
    kind: str
    words: str
    done_on: date
    noted_at: datetime
    noted_by: str
    event: int


@dataclass(frozen=True, slots=True)
class StudyPlan:
    """A gauge study as planned: parts by number, people by place, every one reads every part ``trials`` times. [µm]"""

    gauge_study_id: UUID
    gauge_id: UUID
    gauge_version_id: UUID
    what: str
    tolerance_um: Decimal | None
    tolerance_typed: str
    parts: int
    trials: int
    seed: int
    planned_at: datetime
    planned_by: str
    event: int


@dataclass(frozen=True, slots=True)
class StudyReading:
    """One reading of a study: part, person and trial from 0. [µm]"""

    gauge_study_reading_id: UUID
    part: int
    place: int
    trial: int
    value_um: Decimal
    typed: str
    typed_unit: str
    taken_at: datetime
    event: int
