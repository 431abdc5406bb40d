"""What was marked on a job as a whole: its stages passed, and the card versions that judge it."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID


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
    """From when on a card version judges a job; the newest one holds.

    ``between_um`` is what lies between deck and measuring face by that version, ``reason`` why a card of another engine
    was taken. [µm]
    """

    spec_card_version_id: UUID
    chosen_at: datetime
    chosen_by: str
    event: int
    name: str = ""
    version: int = 0
    reason: str = ""
    between_um: Decimal = Decimal(0)
    engine: str = ""
