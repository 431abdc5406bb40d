"""What can be recorded of the dates of a job: promises, pins, parts that come another day."""

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.route_marks import Operation


@dataclass(frozen=True, slots=True)
class NewPromise:
    """The day a job is promised for; none takes the promise back."""

    rows: ClassVar = "promises"
    job_id: UUID
    promised: date | None
    told: str
    last_day: date | None
    day_cost: Decimal | None


@dataclass(frozen=True, slots=True)
class NewFiling:
    """A job put away, or brought back to the floor."""

    rows: ClassVar = "filings"
    job_id: UUID
    away: bool
    words: str


@dataclass(frozen=True, slots=True)
class NewPin:
    """An operation pinned to a moment, a person, or both; neither takes the pin away."""

    rows: ClassVar = "pins"
    job_id: UUID
    operation: Operation
    starts_at: datetime | None
    person: str


@dataclass(frozen=True, slots=True)
class NewWaitMoved:
    """What is waited for comes on another day."""

    rows: ClassVar = "waits_moved"
    job_id: UUID
    wait_id: UUID
    expected: date | None
    words: str
