"""What can be recorded of the money of a job: estimates with their lines, answers, refusals, what parts cost."""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.estimates import Answered, Rounding, Sheet
from vallostasis.core.records.route_marks import Bill


@dataclass(frozen=True, slots=True)
class NewEstimate:
    """An estimate as it is written; its id was made by the client."""

    rows: ClassVar = "estimates"
    estimate_id: UUID
    job_id: UUID
    rate: Decimal
    currency: str
    rounding: Rounding
    words: str


@dataclass(frozen=True, slots=True)
class NewEstimateLine:
    """One of its lines."""

    rows: ClassVar = "estimate_lines"
    job_id: UUID
    estimate_id: UUID
    place: int
    sheet: Sheet
    key: str
    words: str
    low: Decimal
    worst: Decimal
    tax_percent: Decimal


@dataclass(frozen=True, slots=True)
class NewEstimateAnswer:
    """What the owner said to it."""

    rows: ClassVar = "estimate_answers"
    job_id: UUID
    estimate_id: UUID
    answer: Answered
    said: str
    way: str
    answered_on: date
    words: str


@dataclass(frozen=True, slots=True)
class NewDeclined:
    """What else could have been done and was not wanted."""

    rows: ClassVar = "declined"
    job_id: UUID
    what: str
    reason: str


@dataclass(frozen=True, slots=True)
class NewPartCost:
    """What a part really cost; its id was made by the client."""

    rows: ClassVar = "part_costs"
    part_cost_id: UUID
    job_id: UUID
    key: str
    words: str
    money: Decimal
    bill: Bill
