"""How a block and a bar were set up for one hole before anything is cut."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class BoreDatum(StrEnum):
    """What a bar is centred on, and depths count from: never on what is worn."""

    UNWORN = "unworn end"
    COUNTERBORE = "counterbore"
    FLAT = "machined flat"
    MAINS = "main bores"


@dataclass(frozen=True, slots=True)
class BarSetting:
    """A bar set in a hole: feeler gaps at four clock positions, where the next hole lies. [µm]

    Gaps are all there or none; ``apart_um`` is how far the hole ``to_hole`` lies by the moves of the table.
    ``level`` says what the block was levelled to, ``not_to_cut`` which face stays as it is and why.
    """

    setting_id: UUID
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
    set_at: datetime
    set_by: str
    event: int
