"""Passes of a boring bar or boring head as they were made, hole by hole."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class PassKind(StrEnum):
    """What a pass was for."""

    TRIAL = "trial cut"
    CUT = "cut"
    SPRING = "spring pass"
    LAST = "last cut"


@dataclass(frozen=True, slots=True)
class BoringPass:
    """One pass: what the dial was advanced by, a side, and the diameter that was read after it. [µm], [min]

    ``diameter_um`` is None where nobody read, ``at_um`` the depth below the deck that it was read at.
    """

    pass_id: UUID
    hole_id: UUID
    kind: PassKind
    dial_um: Decimal
    dial_typed: str
    diameter_um: Decimal | None
    typed: str
    at_um: Decimal | None
    minutes: Decimal | None
    words: str
    passed_at: datetime
    passed_by: str
    event: int
