"""Temperatures taken, what the shop says of its room, and the materials it wrote down."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from math import hypot
from uuid import UUID

REFERENCE_C = 20.0


@dataclass(frozen=True, slots=True)
class RoomAssumed:
    """How warm the shop is taken to be where nobody took a temperature: mean [°C] and standard uncertainty [K].

    A setting of the shop; 20 °C and 5 K are common practice, no published source.
    """

    mean_c: Decimal = Decimal(20)
    standard_k: Decimal = Decimal(5)

    @property
    def off_reference_k(self) -> float:
        """How far from 20 °C, as a standard uncertainty: what the mean is off counts in full. [K]

        GUM 5.1.2; a bias counted in full is a house rule.
        """
        return hypot(float(self.standard_k), float(self.mean_c) - REFERENCE_C)


@dataclass(frozen=True, slots=True)
class Material:
    """A material as the shop wrote it down: expansion [1/K], how hot it may get [°C], where that is from."""

    material_id: UUID
    name: str
    alpha_per_k: Decimal
    hottest_c: Decimal | None
    source: str
    saved_at: datetime
    saved_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Temperature:
    """How warm a part, the gauge, the master or the room was. [°C]"""

    temperature_id: UUID
    body: str
    part: str
    celsius: Decimal
    typed: str
    taken_at: datetime
    taken_by: str
    event: int
