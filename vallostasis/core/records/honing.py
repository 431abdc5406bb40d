"""How a bore is honed, and the rounds that it had: between two of them it is read."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class HoneAim(StrEnum):
    """What a bore is honed to."""

    PISTON = "piston"
    SLEEVE = "sleeve"


class HoneMethod(StrEnum):
    """Whether the stones run in oil."""

    OIL = "oil"
    DRY = "dry"


class HoneDrive(StrEnum):
    """What turns the hone."""

    MACHINE = "honing machine"
    DRILL = "drill"


class HoneStage(StrEnum):
    """What a round is for."""

    ROUGH = "rough"
    FINE = "fine"
    BRUSH = "brush"


class HoneMarkKind(StrEnum):
    """What is said of a round."""

    STOPPED = "stopped"
    CLEANED = "stones cleaned"


@dataclass(frozen=True, slots=True)
class HoneSetting:
    """How a hole is honed. [µm], [1/min], [deg]

    ``fine_stock_um`` and ``brush_stock_um`` are what the stages before leave for these, on the diameter; nought of the
    brush where none is used. ``below_um`` is how far stones may run out below, None where nothing stands there.
    """

    setting_id: UUID
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
    set_at: datetime
    set_by: str
    event: int


@dataclass(frozen=True, slots=True)
class HoneRound:
    """A round of strokes as it was begun: which stage, which stones, how."""

    round_id: UUID
    hole_id: UUID
    aim: HoneAim
    stage: HoneStage
    grit: int
    method: HoneMethod
    begun_at: datetime
    begun_by: str
    event: int


@dataclass(frozen=True, slots=True)
class HoneMark:
    """What is said of a round: that it was stopped, after how many double strokes, or that stones were cleaned."""

    hone_mark_id: UUID
    round_id: UUID
    kind: HoneMarkKind
    strokes: int | None
    words: str
    noted_at: datetime
    noted_by: str
    event: int
