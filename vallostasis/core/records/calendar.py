"""Dates of a job and hours of the shop as they were said and set: promises, pins, parts moved, hours, absences, visits.

What belongs to a job is a fact of it; what belongs to the shop has its newest row.
"""

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID

from vallostasis.core.records.route_marks import Operation


class Machine(StrEnum):
    """Machines that only so many blocks can stand at."""

    MILL = "boring mill"
    HONE = "hone"
    SURFACER = "surfacer"
    PRESS = "press"
    OVEN = "oven"
    FREEZER = "freezer"
    CUTTER = "cutter"


@dataclass(frozen=True, slots=True)
class Promise:
    """The day a job is promised for, who was told, the owner's own last day and what each day after it costs him."""

    promised: date | None
    told: str
    last_day: date | None
    day_cost: Decimal | None
    promised_at: datetime
    promised_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Pin:
    """An operation of a job pinned to a moment, to a person, or to both; neither takes the pin away."""

    operation: Operation
    starts_at: datetime | None
    person: str
    pinned_at: datetime
    pinned_by: str
    event: int


@dataclass(frozen=True, slots=True)
class WaitMoved:
    """What is waited for comes on another day than was said."""

    wait_id: UUID
    expected: date | None
    words: str
    moved_at: datetime
    moved_by: str
    event: int


@dataclass(frozen=True, slots=True)
class AwaySpan:
    """Somebody or something cannot be had from a moment to another, and why."""

    away_id: UUID
    what: str
    starts_at: datetime
    ends_at: datetime
    words: str


@dataclass(frozen=True, slots=True)
class Visit:
    """A machinist who comes from elsewhere: when, for which operations of which job, what he needs ready."""

    visit_id: UUID
    name: str
    job_id: UUID | None
    operations: tuple[Operation, ...]
    starts_at: datetime
    ends_at: datetime
    needs: tuple[str, ...]
