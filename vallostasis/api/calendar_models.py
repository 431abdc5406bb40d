"""The calendar of the shop as it goes over the wire. Times carry the shop's own zone."""

from datetime import date, datetime
from typing import Self
from uuid import UUID
from zoneinfo import ZoneInfo

from pydantic import BaseModel, Field

from vallostasis.core.calendar.plan import Bar, Calendar, Clash, JobDates, Moved, Reminder, VisitNow, reminders_of
from vallostasis.core.calendar.ready import USUAL_DAYS
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.calendar import Machine
from vallostasis.core.records.route_marks import Operation, WaitCause
from vallostasis.core.route.clocks import Worked, clocks_of, worked_of
from vallostasis.services.calendar import Tried, alarms_of


class CalendarBarView(BaseModel):
    """A piece of work to come: what, which holes, by whom, on which machine, from when till when."""

    title: str
    short: str
    operations: list[Operation]
    holes: list[int]
    start: datetime
    end: datetime
    person: str
    machine: Machine | None
    shares_setup: bool
    pinned: bool
    hours: float

    @classmethod
    def of(cls, one: Bar) -> Self:
        """Show it."""
        return cls(title=one.stage.title, short=one.stage.short, operations=list(one.stage.operations),
                   holes=list(one.stage.holes), start=one.start, end=one.end, person=one.person, machine=one.machine,
                   shares_setup=one.shares_setup, pinned=one.pinned, hours=one.hours)  # fmt: skip


class WorkedBarView(BaseModel):
    """A piece of work that was done, by the clocks."""

    operation: Operation
    title: str
    start: datetime
    end: datetime
    person: str

    @classmethod
    def of(cls, one: Worked, zone: ZoneInfo) -> Self:
        """Show it."""
        return cls(operation=one.operation, title=OPERATIONS[one.operation].short, start=one.start.astimezone(zone),
                   end=one.end.astimezone(zone), person=one.by)  # fmt: skip


class CalendarWaitView(BaseModel):
    """What a job waits for: since when, till when it is expected, and whether somebody said so or it is usual."""

    wait_id: UUID
    operation: Operation
    cause: WaitCause
    words: str
    since: datetime
    first_expected: date | None
    expected: date | None
    ended: datetime | None
    usual_days: int = Field(description="Days it usually takes where nobody gave a day.")


class CalendarJobView(BaseModel):
    """A job on the calendar: what was done, what is to come, what it waits for, its promise and how sure it is."""

    job_id: UUID
    number: str
    name: str
    about: str
    holes: int
    customer: str
    opened_at: datetime
    worked: list[WorkedBarView]
    bars: list[CalendarBarView]
    waits: list[CalendarWaitView]
    promised: date | None
    told: str
    last_day: date | None
    ready: datetime | None
    offered: date | None = Field(description="The day that holds in nine of ten runs of the plan.")
    kept: float | None = Field(description="Chance that the promised day is kept. [1]")
    late_days: int
    holds: bool | None

    @classmethod
    def of(cls, one: JobDates, now: datetime, zone: ZoneInfo) -> Self:
        """Show it."""
        facts = one.facts
        first = {wait.wait_id: wait.expected for wait in facts.standing(facts.waits)}
        return cls(
            job_id=facts.job.job_id, number=facts.job.number, name=facts.job.name,
            about=f"{len(facts.holes)} hole{'s' if len(facts.holes) != 1 else ''}, {facts.card.construction.value}",
            holes=len(facts.holes), customer=facts.job.customer, opened_at=facts.job.opened_at,
            worked=[WorkedBarView.of(span, zone) for span in worked_of(facts, now)],
            bars=[CalendarBarView.of(bar) for bar in one.bars],
            waits=[
                CalendarWaitView(wait_id=w.wait.wait_id, operation=w.wait.operation, cause=w.wait.cause,
                                 words=w.wait.words, since=w.wait.since, first_expected=first[w.wait.wait_id],
                                 expected=w.wait.expected, ended=None if w.end is None else w.end.ended,
                                 usual_days=USUAL_DAYS[w.wait.cause])
                for w in clocks_of(facts, now).waits
            ],
            promised=None if one.promise is None else one.promise.promised,
            told="" if one.promise is None else one.promise.told,
            last_day=None if one.promise is None else one.promise.last_day,
            ready=one.ready, offered=one.offered, kept=one.kept, late_days=one.late_days, holds=one.holds,
        )  # fmt: skip


class ClashView(BaseModel):
    """Two jobs want one machine: which goes first, which waits. [h]"""

    machine: Machine
    first: str
    waits: str
    at: datetime
    hours: float

    @classmethod
    def of(cls, one: Clash) -> Self:
        """Show it."""
        return cls(machine=one.machine, first=one.first, waits=one.waits, at=one.at, hours=one.hours)


class ReminderView(BaseModel):
    """Something that has to be done at its hour."""

    at: datetime
    job: str
    words: str

    @classmethod
    def of(cls, one: Reminder) -> Self:
        """Show it."""
        return cls(at=one.at, job=one.job, words=one.words)


class VisitNowView(BaseModel):
    """Somebody who comes from elsewhere: what he does, what is not ready when he comes, what he needs."""

    name: str
    starts_at: datetime
    ends_at: datetime
    job: str
    does: list[str]
    not_ready: list[str]
    needs: list[str]

    @classmethod
    def of(cls, one: VisitNow) -> Self:
        """Show it."""
        return cls(name=one.name, starts_at=one.starts_at, ends_at=one.ends_at, job=one.job, does=list(one.does),
                   not_ready=list(one.not_ready), needs=list(one.needs))  # fmt: skip


class CalendarView(BaseModel):
    """The calendar of the shop, with how good it is: proven best, or by which share it could be better at most."""

    at: datetime
    zone: str
    open_days: list[date] = Field(description="Days the shop is open, from the first that anything stands on.")
    people: list[str]
    machines: dict[Machine, int]
    jobs: list[CalendarJobView]
    clashes: list[ClashView]
    reminders: list[ReminderView]
    visits: list[VisitNowView]
    alarms: list[str]
    day_from_min: int = Field(description="When the earliest day begins. [min]")
    day_until_min: int = Field(description="When the latest day ends. [min]")
    week_h: float = Field(description="Open hours of a week. [h]")
    proven: bool
    gap: float

    @classmethod
    def of(cls, one: Calendar) -> Self:
        """Show it."""
        axis, problem = one.problem.axis, one.problem
        last = max((job.ready for job in one.jobs if job.ready is not None), default=one.at)
        days = sorted({int(day) for day in axis.day_of_slot})
        begins = [opens for day in axis.hours.week for opens, _ in day]
        ends = [shuts for day in axis.hours.week for _, shuts in day]
        hours = sum(shuts - opens for day in axis.hours.week for opens, shuts in day) / 60
        return cls(
            at=one.at.astimezone(axis.zone), zone=axis.hours.zone,
            open_days=[date.fromordinal(day) for day in days if day <= last.toordinal() + 28],
            people=[person.name for person in problem.people],
            machines={machine: problem.count(machine) for machine in Machine},
            jobs=[CalendarJobView.of(job, one.at, axis.zone) for job in one.jobs],
            clashes=[ClashView.of(clash) for clash in one.clashes],
            reminders=[ReminderView.of(reminder) for reminder in reminders_of(one)],
            visits=[VisitNowView.of(visit) for visit in one.visits],
            alarms=list(alarms_of(one)), day_from_min=min(begins), day_until_min=max(ends), week_h=hours,
            proven=one.laid.proven, gap=one.laid.gap,
        )  # fmt: skip


class MovedView(BaseModel):
    """What a change does to a job; days are open ones."""

    name: str
    ready_before: datetime | None
    ready_after: datetime | None
    offered_before: date | None
    offered_after: date | None
    kept_before: float | None
    kept_after: float | None
    days: int

    @classmethod
    def of(cls, one: Moved) -> Self:
        """Show it."""
        return cls(name=one.name, ready_before=one.ready_before, ready_after=one.ready_after,
                   offered_before=one.offered_before, offered_after=one.offered_after, kept_before=one.kept_before,
                   kept_after=one.kept_after, days=one.days)  # fmt: skip


class CalendarTriedView(BaseModel):
    """The calendar with a change that is only tried: what it moves, and what the owner may be told."""

    moved: list[MovedView]
    clashes: list[ClashView]
    message: str
    calendar: CalendarView

    @classmethod
    def of(cls, one: Tried) -> Self:
        """Show it."""
        return cls(moved=[MovedView.of(moved) for moved in one.moved],
                   clashes=[ClashView.of(clash) for clash in one.after.clashes], message=one.message,
                   calendar=CalendarView.of(one.after))  # fmt: skip
