"""What can be recorded of bores: what is decided, what was seen after the cut. [µm], [h]"""

from dataclasses import dataclass
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.bar_settings import BoreDatum
from vallostasis.core.records.bore_decisions import BoreChoice, LookOutcome, UseProfile
from vallostasis.core.records.boring_passes import PassKind
from vallostasis.core.records.honing import HoneAim, HoneDrive, HoneMarkKind, HoneMethod, HoneStage
from vallostasis.core.records.piston_matches import PinStyle, PistonRun


@dataclass(frozen=True, slots=True)
class NewBoreDecision:
    """What is decided for one hole."""

    rows: ClassVar = "bore_decisions"
    decision_id: UUID
    job_id: UUID
    hole_id: UUID
    choice: BoreChoice
    oversize_um: Decimal | None
    move_um: Decimal | None
    toward_hour: float | None
    reason: str
    concession: str
    profile: UseProfile
    use_limit: str


@dataclass(frozen=True, slots=True)
class NewBarSetting:
    """How a bar was set; its id was made by the client."""

    rows: ClassVar = "bar_settings"
    setting_id: UUID
    job_id: UUID
    hole_id: UUID
    datum: BoreDatum
    gap_12_um: Decimal | None
    gap_3_um: Decimal | None
    gap_6_um: Decimal | None
    gap_9_um: Decimal | None
    to_hole: int | None
    apart_um: Decimal | None
    level: str
    not_to_cut: str
    words: str


@dataclass(frozen=True, slots=True)
class NewBoringPass:
    """A pass of the bar; its id was made by the client."""

    rows: ClassVar = "boring_passes"
    pass_id: UUID
    job_id: UUID
    hole_id: UUID
    kind: PassKind
    dial_um: Decimal
    dial_typed: str
    diameter_um: Decimal | None
    typed: str
    at_um: Decimal | None
    minutes: Decimal | None
    words: str


@dataclass(frozen=True, slots=True)
class NewHoneSetting:
    """How a hole is honed; its id was made by the client."""

    rows: ClassVar = "hone_settings"
    setting_id: UUID
    job_id: UUID
    hole_id: UUID
    aim: HoneAim
    method: HoneMethod
    drive: HoneDrive
    rough_grit: int
    fine_grit: int
    fine_stock_um: Decimal
    brush_stock_um: Decimal
    length_um: Decimal
    stone_um: Decimal
    below_um: Decimal | None
    turns: Decimal
    strokes: Decimal
    angle_deg: Decimal
    words: str


@dataclass(frozen=True, slots=True)
class NewHoneRound:
    """A round of strokes as it begins; its id was made by the client."""

    rows: ClassVar = "hone_rounds"
    round_id: UUID
    job_id: UUID
    hole_id: UUID
    aim: HoneAim
    stage: HoneStage
    grit: int
    method: HoneMethod


@dataclass(frozen=True, slots=True)
class NewHoneMark:
    """What is said of a round; its id was made by the client."""

    rows: ClassVar = "hone_marks"
    hone_mark_id: UUID
    job_id: UUID
    round_id: UUID
    kind: HoneMarkKind
    strokes: int | None
    words: str


@dataclass(frozen=True, slots=True)
class NewPistonMatch:
    """A piston in its hole; its id was made by the client."""

    rows: ClassVar = "piston_matches"
    match_id: UUID
    job_id: UUID
    hole_id: UUID
    mark: str
    faces: str
    run: PistonRun
    pin: PinStyle
    words: str


@dataclass(frozen=True, slots=True)
class NewScan:
    """A scan of a bore, and what its levels hold."""

    rows: ClassVar = "scans"
    scan_id: UUID
    job_id: UUID
    hole_id: UUID
    load: str
    instrument: str
    file_name: str
    layout: str
    points: int
    profile: str


@dataclass(frozen=True, slots=True)
class NewProbe:
    """What a probe touched of a block."""

    rows: ClassVar = "probes"
    probe_id: UUID
    job_id: UUID
    instrument: str
    file_name: str
    points: int
    profile: str


@dataclass(frozen=True, slots=True)
class NewBoreLook:
    """A look at a bore after it was cut to a step."""

    rows: ClassVar = "bore_looks"
    look_id: UUID
    job_id: UUID
    hole_id: UUID
    oversize_um: Decimal
    outcome: LookOutcome
    words: str
    hour: float | None
    from_um: Decimal | None
