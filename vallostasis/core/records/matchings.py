"""Who goes where as somebody chose it: a row for each hole, all of one matching under one id."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID


@dataclass(frozen=True, slots=True)
class MatchedPlace:
    """The liner that goes into one hole, and the shim the hole is cut for first; None where it is not cut. [µm]"""

    matching_id: UUID
    hole_id: UUID
    liner_id: UUID
    shim_um: Decimal | None
    chosen_at: datetime
    chosen_by: str
    event: int
