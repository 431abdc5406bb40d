"""What can be recorded of orders: given, and what became of them. [µm]"""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.orders import OrderKind, OrderMoveKind


@dataclass(frozen=True, slots=True)
class NewOrder:
    """An order that is given; its id was made by the client."""

    rows: ClassVar = "orders"
    order_id: UUID
    job_id: UUID
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


@dataclass(frozen=True, slots=True)
class NewOrderMove:
    """What became of an order."""

    rows: ClassVar = "order_moves"
    job_id: UUID
    order_id: UUID
    kind: OrderMoveKind
    due: date | None
    measured_um: Decimal | None
    typed: str
    words: str
