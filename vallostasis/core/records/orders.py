"""What a job has on order, out of the house or on loan, and what became of it."""

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class OrderKind(StrEnum):
    """What an order is for."""

    PART = "part"
    MADE = "made to size"
    OUTSIDE = "outside work"
    LOAN = "loan"


@dataclass(frozen=True, slots=True)
class Order:
    """An order as it was given: what, how many, to whom, in what words; price, day it is due, what it has to measure.

    ``key`` is that of the line of the estimate it belongs to, ``wait_id`` what of the route waits for it; ``wanted_um``
    and ``within_um`` are its size with its tolerance either way [µm].
    """

    order_id: UUID
    kind: OrderKind
    what: str
    count: int
    whom: str
    words: str
    key: str
    price: Decimal | None
    due: date | None
    wanted_um: Decimal | None
    wanted_typed: str
    within_um: Decimal | None
    wait_id: UUID | None
    ordered_at: datetime
    ordered_by: str
    event: int


class OrderMoveKind(StrEnum):
    """What becomes of an order."""

    SAID = "said to come"
    IN = "in"
    MEASURED = "measured"
    BACK = "sent back"
    OFF = "called off"
    RETURNED = "given back"


@dataclass(frozen=True, slots=True)
class OrderMove:
    """One step of an order: a day that was said, a size that was measured on arrival [µm], words."""

    order_id: UUID
    kind: OrderMoveKind
    due: date | None
    measured_um: Decimal | None
    typed: str
    words: str
    noted_at: datetime
    noted_by: str
    event: int
