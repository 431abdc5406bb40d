"""What can be recorded of plate and caps. [N·m]"""

from dataclasses import dataclass
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.clamping import BoltMarkKind, Clamp


@dataclass(frozen=True, slots=True)
class NewTightening:
    """A plate or caps as they begin to be tightened; its id was made by the client."""

    rows: ClassVar = "tightenings"
    tightening_id: UUID
    job_id: UUID
    clamp: Clamp
    fixture: str
    gasket: str
    fasteners: str
    from_hole: int | None
    to_hole: int | None
    bolt_order: str
    stages_nm: str
    words: str


@dataclass(frozen=True, slots=True)
class NewBoltMark:
    """What is noted of a tightening; its id was made by the client."""

    rows: ClassVar = "bolt_marks"
    bolt_mark_id: UUID
    job_id: UUID
    tightening_id: UUID
    kind: BoltMarkKind
    turn: int | None
    bolt: int | None
    torque_nm: Decimal | None
    words: str
