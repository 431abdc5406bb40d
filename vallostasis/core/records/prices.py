"""The price list of the shop: hours, money and days of waiting for what can be done about a hole."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class PriceKind(StrEnum):
    """What has a price."""

    HOUR = "an hour of the shop"
    REFIT = "a liner drawn and refitted"
    CUT = "a counterbore cut for a shim"
    SHIM = "a shim that is ordered"
    RING = "a ring let into the block"
    SKIM = "a skim of the deck"
    BLOCK = "another block"


@dataclass(frozen=True, slots=True)
class ShopPrice:
    """What one of a kind takes: hours of work, money beside the hours, days of waiting; ``currency`` as it is written.

    ``set_by`` is None for a usual number that nobody of the shop has set; money is None while nobody knows it.
    """

    kind: PriceKind
    hours: Decimal
    money: Decimal | None
    days: Decimal
    currency: str = ""
    set_at: datetime | None = None
    set_by: str | None = None


# Hours and days of a small shop; money is never guessed. Common practice, no published source.
USUAL = tuple(
    ShopPrice(kind, Decimal(hours), money, Decimal(days))
    for kind, hours, money, days in (
        (PriceKind.HOUR, "1", None, "0"),
        (PriceKind.REFIT, "1", Decimal(0), "0"),
        (PriceKind.CUT, "0.6", Decimal(0), "0"),
        (PriceKind.SHIM, "0", None, "7"),
        (PriceKind.RING, "3.5", None, "9"),
        (PriceKind.SKIM, "5.5", None, "4"),
        (PriceKind.BLOCK, "16", None, "21"),
    )
)


@dataclass(frozen=True, slots=True)
class PriceList:
    """The newest price of each kind."""

    prices: tuple[ShopPrice, ...] = USUAL

    def of(self, kind: PriceKind) -> ShopPrice:
        """Return the price of a kind."""
        return next(one for one in self.prices if one.kind is kind)

    @property
    def currency(self) -> str:
        """How money is written in this shop."""
        return self.of(PriceKind.HOUR).currency


@dataclass(frozen=True, slots=True)
class OptionChoice:
    """What was decided to be done about a hole, under whose name and why; what the engine is worth as it was told."""

    option_choice_id: UUID
    hole_id: UUID
    option: str
    reason: str
    worth: Decimal | None
    chosen_at: datetime
    chosen_by: str
    event: int
