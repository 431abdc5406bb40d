"""Shims on the shelf of the shop, lot by lot, as they stand for one job."""

from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class ShimMoveKind(StrEnum):
    """What is done with shims of a lot."""

    RESERVED = "reserved"
    RELEASED = "released"
    USED = "used"
    ORDERED = "ordered"
    ARRIVED = "arrived"
    SCRAPPED = "scrapped"


@dataclass(frozen=True, slots=True)
class ShimLot:
    """A lot: size and measured thickness, outside diameter [µm], price, which side lies up, and how many are where.

    ``reserved_here`` are for the job that is looked at, ``reserved_elsewhere`` for others.
    """

    shim_lot_id: UUID
    size_um: Decimal
    typed: str
    measured_um: Decimal | None
    lot: str
    price: Decimal | None
    outside_um: Decimal | None
    side_up: str
    on_shelf: int
    reserved_here: int
    reserved_elsewhere: int
    ordered: int

    @property
    def free(self) -> int:
        """How many this job can take: what lies there less what other jobs keep, by definition; never below 0."""
        return max(0, self.on_shelf - self.reserved_elsewhere)
