"""The plan of a block that somebody chose: a row for each hole, all of one plan under one id."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID


@dataclass(frozen=True, slots=True)
class PlannedHole:
    """What the chosen plan does to one hole: depth from the deck and shim of a cut, none where it is left. [µm]

    ``lock``, ``lock_shim_um`` and ``target_um`` are what was decided before; ``place`` its turn in the order of
    cutting; ``datum`` the face that depths are counted from.
    """

    plan_id: UUID
    hole_id: UUID
    rule: str
    datum: str
    undecided_too: bool
    lock: str
    lock_shim_um: Decimal | None
    target_um: Decimal | None
    depth_um: Decimal | None
    shim_um: Decimal | None
    place: int | None
    chosen_at: datetime
    chosen_by: str
    event: int
