"""How a torque plate or the main caps were tightened: with what, in which order, bolt by bolt."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class Clamp(StrEnum):
    """What is tightened."""

    PLATE = "torque plate"
    CAPS = "main caps"


class BoltMarkKind(StrEnum):
    """What is noted of a tightening; all but the last of one bolt."""

    TURNED = "turned"
    HELD = "held"
    MOVED = "moved on"
    OFF = "taken off"


class FixtureKind(StrEnum):
    """What holds a block, or stands in for its head."""

    PLATE = "torque plate"
    FIXTURE = "fixture plate"
    BAR = "bar"
    BLOCKS = "blocks"
    PADS = "pads"


@dataclass(frozen=True, slots=True)
class Fixture:
    """A plate, bar, block or pad of the shop: what it fits, how thick [µm] and of what, what was changed on it."""

    name: str
    kind: FixtureKind
    fits: str
    thickness_um: Decimal | None
    material: str
    changed: str
    note: str
    saved_at: datetime
    saved_by: str


@dataclass(frozen=True, slots=True)
class Tightening:
    """A plate or caps as they are tightened.

    ``bolt_order`` and ``stages_nm`` are numbers apart by spaces: bolts in the order in which they are turned, torques
    of the rounds [N·m]. ``from_hole`` and ``to_hole`` bound what a plate covers, None for caps.
    """

    tightening_id: UUID
    clamp: Clamp
    fixture: str
    gasket: str
    fasteners: str
    from_hole: int | None
    to_hole: int | None
    bolt_order: str
    stages_nm: str
    words: str
    begun_at: datetime
    begun_by: str
    event: int

    @property
    def order(self) -> tuple[int, ...]:
        """Bolts in the order in which they are turned."""
        return tuple(int(one) for one in self.bolt_order.split())

    @property
    def stages(self) -> tuple[Decimal, ...]:
        """Torque of each round. [N·m]"""
        return tuple(Decimal(one) for one in self.stages_nm.split())

    def covers(self, hole: int) -> bool:
        """Whether a hole lies under it; caps hold every hole. By its first and last hole."""
        return self.from_hole is None or self.to_hole is None or self.from_hole <= hole <= self.to_hole


@dataclass(frozen=True, slots=True)
class BoltMark:
    """What is noted of a tightening: a bolt turned in a round, held or moved on in the round after; taken off. [N·m]"""

    bolt_mark_id: UUID
    tightening_id: UUID
    kind: BoltMarkKind
    turn: int | None
    bolt: int | None
    torque_nm: Decimal | None
    words: str
    noted_at: datetime
    noted_by: str
    event: int
