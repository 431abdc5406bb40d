"""Estimates as they were written, what the owner answered, what was declined, and what parts really cost."""

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID

from vallostasis.core.records.route_marks import Bill


class Sheet(StrEnum):
    """The two sheets of an estimate."""

    PARTS = "parts"
    LABOUR = "labour with machining"


class Rounding(StrEnum):
    """How an amount becomes one of the smallest coin; tax is rounded once for each of its rates."""

    HALF_UP = "half a cent up"
    HALF_EVEN = "half a cent to the even one"
    DOWN = "down to the cent"


@dataclass(frozen=True, slots=True)
class Estimate:
    """An estimate as it was written: what an hour costs, in which money, how it is rounded, words to the owner."""

    estimate_id: UUID
    rate: Decimal
    currency: str
    rounding: Rounding
    words: str
    drawn_at: datetime
    drawn_by: str
    event: int


@dataclass(frozen=True, slots=True)
class EstimateLine:
    """One line: money of a part, or hours of work, at least and at worst; ``key`` says what of the job it stands for.

    The key of work is its operation, that of a part its name; an own line of the shop has one of its own.
    """

    estimate_id: UUID
    place: int
    sheet: Sheet
    key: str
    words: str
    low: Decimal
    worst: Decimal
    tax_percent: Decimal


class Answered(StrEnum):
    """What the owner said to an estimate."""

    AGREED = "agreed"
    REFUSED = "refused"


@dataclass(frozen=True, slots=True)
class EstimateAnswer:
    """What the owner said: who, by what way, on which day, in what words."""

    estimate_id: UUID
    answer: Answered
    said: str
    way: str
    answered_on: date
    words: str
    noted_at: datetime
    noted_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Declined:
    """What else could have been done and was not wanted, with the reason."""

    what: str
    reason: str
    declined_at: datetime
    declined_by: str
    event: int


@dataclass(frozen=True, slots=True)
class PartCost:
    """What a part really cost, and how it stands on the bill; ``key`` is that of the line it belongs to."""

    part_cost_id: UUID
    key: str
    words: str
    money: Decimal
    bill: Bill
    paid_at: datetime
    paid_by: str
    event: int


@dataclass(frozen=True, slots=True)
class PartPrice:
    """What a part costs as a rule, and how many days it takes to come."""

    name: str
    money: Decimal
    days: int
    set_at: datetime
    set_by: str


@dataclass(frozen=True, slots=True)
class MoneyRules:
    """How the shop reckons: tax on parts and work in per cent, how it is rounded, share of work that comes back."""

    tax_percent: Decimal = Decimal(20)
    rounding: Rounding = Rounding.HALF_UP
    returns_percent: Decimal = Decimal(0)
    set_by: str | None = None
