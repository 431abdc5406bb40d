"""A length on a card: as typed, its exact value, and of a limit where it comes from and how far that may be trusted."""

from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from vallostasis.core.notation.lengths import metres
from vallostasis.core.notation.typed_lengths import as_entered


class SourceStatus(StrEnum):
    """How a limit is known."""

    SPECIFICATION = "specification"
    COMMON_PRACTICE = "common practice"
    OWN_EXPERIENCE = "own experience"
    UNVERIFIED = "unverified"


class CardUnit(StrEnum):
    """The unit in which the card's lengths are written."""

    MM = "mm"
    INCH = "inch"


@dataclass(frozen=True, slots=True)
class Length:
    """A length as typed on the card and its exact value [µm]."""

    typed: str
    um: Decimal = Decimal(0)

    @property
    def metres(self) -> float:
        """The length as the core computes with it. [m]"""
        return metres(self.um)


@dataclass(frozen=True, slots=True)
class Limit:
    """A length the card asks for, or None when it asks for none, with its source."""

    length: Length | None
    source: str = ""
    status: SourceStatus = SourceStatus.UNVERIFIED

    @property
    def metres(self) -> float | None:
        """The limit as the core computes with it; None when the card sets none. [m]"""
        return None if self.length is None else self.length.metres


NO_LIMIT = Limit(None)


def typed_with_unit(length: Length, unit: CardUnit, *, is_size: bool = False) -> str:
    """A length of a card as typed, with the unit a bare number takes there."""
    inch_card = "inch" if is_size else "thou"
    return as_entered(length.typed, "mm" if unit is CardUnit.MM else inch_card)
