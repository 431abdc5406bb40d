"""Which card versions judge a job, from when on."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID


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
