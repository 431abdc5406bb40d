"""The calendar of the shop, finished: every job's bars, its date with its chance, clashes, and what a change moves."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime

from vallostasis.core.calendar.chances import Sure, draw, ends_of_jobs, how_sure, late_days
from vallostasis.core.calendar.of_jobs import ShopTime, Stage, ToLayOut, lay_before, promise_of
from vallostasis.core.calendar.open_time import SLOT_H
from vallostasis.core.calendar.problem import CalendarProblem, Laid, Placed
from vallostasis.core.calendar.ready import lateness_of
from vallostasis.core.calendar.solver import CHANGED_S, FULL_S, lay_out
from vallostasis.core.records.calendar import Machine, Promise
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation

TaskKey = tuple[str, tuple[Operation, ...], bool]


@dataclass(frozen=True, slots=True)
class Bar:
    """A piece of work on the calendar: what, which holes, by whom, on what, from when till when, how long. [h]"""

    stage: Stage
    start: datetime
    end: datetime
    person: str
    machine: Machine | None
    shares_setup: bool
    pinned: bool
    hours: float


@dataclass(frozen=True, slots=True)
class JobDates:
    """A job on the calendar.

    ``ready`` is when it is done as planned, ``offered`` the day that holds in nine of ten, ``late_days`` how many open
    days the plan lies after its promise.
    """

    facts: JobFacts
    bars: tuple[Bar, ...]
    promise: Promise | None
    ready: datetime | None
    offered: date | None
    kept: float | None
    late_days: int

    @property
    def holds(self) -> bool | None:
        """Whether the plan keeps its promise; None where nothing is promised. By comparison."""
        return None if self.promise is None else self.late_days == 0


@dataclass(frozen=True, slots=True)
class Clash:
    """Two jobs want one machine: which goes first, which waits for it, and for how long. [h]"""

    machine: Machine
    first: str
    waits: str
    at: datetime
    hours: float


@dataclass(frozen=True, slots=True)
class VisitNow:
    """What somebody who visits finds: operations of his, what has to be done before he comes and is not by then."""

    name: str
    starts_at: datetime
    ends_at: datetime
    job: str
    does: tuple[str, ...]
    not_ready: tuple[str, ...]
    needs: tuple[str, ...]


@dataclass(frozen=True)
class Calendar:
    """The calendar of the shop as it was laid out at a moment; ``without_pins`` says why, where pins were left out."""

    at: datetime
    to_lay: ToLayOut
    laid: Laid
    jobs: tuple[JobDates, ...]
    clashes: tuple[Clash, ...]
    visits: tuple[VisitNow, ...]
    without_pins: str = ""

    @property
    def problem(self) -> CalendarProblem:
        """What was laid out."""
        return self.to_lay.problem


def plan_shop(
    jobs: Sequence[JobFacts],
    finished: Sequence[JobFacts],
    shop: ShopTime,
    now: datetime,
    before: "Calendar | None" = None,
) -> Calendar:
    """Lay out the calendar of the shop.

    Parameters
    ----------
    jobs, finished : sequence of JobFacts
        The open ones, and those that are released: their waits teach how late parts come.
    shop : ShopTime
        Hours, people, machines.
    now : datetime
        Before which nothing is laid.
    before : Calendar, optional
        The calendar before a change, from which the search begins and ends sooner.

    Returns
    -------
    Calendar
        Every job's bars and dates. House rules stand with what it is made of.
    """
    to_lay = lay_before(jobs, shop, now)
    problem = to_lay.problem
    laid = lay_out(problem, _as_before(to_lay, before), FULL_S if before is None else CHANGED_S)
    late = late_days(lateness_of([*jobs, *finished]))
    sure = how_sure(problem, ends_of_jobs(problem, laid, draw(problem, to_lay.scatter, late))) if problem.tasks else ()
    dates = tuple(_dates(to_lay, laid, at, facts, sure) for at, facts in enumerate(jobs))
    return Calendar(now, to_lay, laid, dates, _clashes(to_lay, laid), _visits(to_lay, laid, shop))


def _as_before(to_lay: ToLayOut, before: Calendar | None) -> tuple[Placed, ...]:
    """The calendar of before as a hint, where its tasks are those of now."""
    if before is None or len(before.laid.placed) != len(to_lay.stages):
        return ()
    if [_key(one) for one in before.to_lay.stages] != [_key(one) for one in to_lay.stages]:
        return ()
    moved = to_lay.problem.axis.slot_from(before.at) - before.problem.axis.slot_from(before.at)
    return before.laid.placed if moved == 0 else ()


def _key(stage: Stage) -> TaskKey:
    return str(stage.facts.job.job_id), stage.operations, stage.is_freezer


def _dates(to_lay: ToLayOut, laid: Laid, job: int, facts: JobFacts, sure: Sequence[Sure]) -> JobDates:
    problem, promise = to_lay.problem, promise_of(facts)
    own = sorted((one for one in laid.placed if problem.tasks[one.task].job == job), key=lambda one: one.start)
    bars = tuple(_bar(to_lay, one) for one in own)
    end = laid.end_of(problem, job)
    if not bars:
        return JobDates(facts, (), promise, None, None, None, 0)
    promised = problem.jobs[job].promised
    late = 0 if promised is None or end <= promised else _open_days(problem, promised, end)
    offered = problem.axis.ends_at(sure[job].nine_in_ten).date()
    return JobDates(facts, bars, promise, problem.axis.ends_at(end), offered, sure[job].kept, late)


def _open_days(problem: CalendarProblem, promised: int, end: int) -> int:
    """How many open days the end lies after a promise, the begun one counted."""
    return sum(1 for first, _ in problem.axis.open_days if promised <= first < end)


def _bar(to_lay: ToLayOut, one: Placed) -> Bar:
    problem = to_lay.problem
    task, axis = problem.tasks[one.task], problem.axis
    person = "" if one.person is None else problem.people[one.person].name
    return Bar(to_lay.stages[one.task], axis.begins_at(one.start), axis.ends_at(one.end), person,
               task.machine or task.holds, one.shares_setup, task.pinned is not None,
               (one.end - one.start) * SLOT_H)  # fmt: skip


def _clashes(to_lay: ToLayOut, laid: Laid) -> tuple[Clash, ...]:
    """Return where a task could have begun but for a machine on which another job stands. By comparison."""
    problem, axis = to_lay.problem, to_lay.problem.axis
    place = {one.task: one for one in laid.placed}
    found = []
    for one in laid.placed:
        task = problem.tasks[one.task]
        if task.machine is None or task.pinned is not None:
            continue
        could = max([task.ready, *(place[first].end for first in task.after)])
        others = [two for two in laid.placed if problem.tasks[two.task].machine is task.machine
                  and problem.tasks[two.task].job != task.job and could < two.end <= one.start]  # fmt: skip
        if not others or could >= one.start:
            continue
        last = max(others, key=lambda two: two.end)
        if last.end == one.start:
            first = problem.jobs[problem.tasks[last.task].job].name
            hours = (one.start - could) * SLOT_H
            found.append(Clash(task.machine, first, problem.jobs[task.job].name, axis.begins_at(one.start), hours))
    return tuple(sorted(found, key=lambda one: one.at))


def _visits(to_lay: ToLayOut, laid: Laid, shop: ShopTime) -> tuple[VisitNow, ...]:
    """Return for every visit what is his to do, and what has to stand ready for it and does not by then."""
    problem = to_lay.problem
    place = {one.task: one for one in laid.placed}
    found = []
    for at, visit in enumerate(shop.visits):
        own = [task for task, one in place.items() if one.person == len(shop.people) + at]
        comes = problem.axis.slot_from(visit.starts_at)
        firsts = {first for task in own for first in problem.tasks[task].after} - set(own)
        late = tuple(to_lay.stages[first].title for first in sorted(firsts) if place[first].end > comes)
        job = next((one.facts.job.name for one in to_lay.stages if one.facts.job.job_id == visit.job_id), "")
        found.append(VisitNow(visit.name, visit.starts_at, visit.ends_at, job,
                              tuple(to_lay.stages[task].title for task in own), late, visit.needs))  # fmt: skip
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Moved:
    """What a change does to a job: when it is ready and what is offered before and after, open days between. [d]"""

    name: str
    ready_before: datetime | None
    ready_after: datetime | None
    offered_before: date | None
    offered_after: date | None
    kept_before: float | None
    kept_after: float | None
    days: int


def what_moves(before: Calendar, after: Calendar) -> tuple[Moved, ...]:
    """Say what a change moves, job by job.

    Parameters
    ----------
    before, after : Calendar
        Of the same jobs.

    Returns
    -------
    tuple of Moved
        In the order of the jobs; open days by which each is ready later. By definition.
    """
    axis = after.problem.axis
    found = []
    for one, other in zip(before.jobs, after.jobs, strict=True):
        days = 0
        if one.ready is not None and other.ready is not None:
            first, last = axis.last_of_day(one.ready.date()), axis.last_of_day(other.ready.date())
            sign = 1 if last >= first else -1
            days = sign * sum(1 for begins, _ in axis.open_days if min(first, last) <= begins < max(first, last))
        found.append(Moved(one.facts.job.name, one.ready, other.ready, one.offered, other.offered, one.kept, other.kept,
                           days))  # fmt: skip
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Reminder:
    """Something that must not be forgotten: when, whose, what."""

    at: datetime
    job: str
    words: str


def reminders_of(calendar: Calendar) -> tuple[Reminder, ...]:
    """Return what has to be done at its hour: liners into the freezer, the oven on, heights read once it is cold.

    Parameters
    ----------
    calendar : Calendar
        As it is laid out.

    Returns
    -------
    tuple of Reminder
        Soonest first. Common practice, no published source.
    """
    found = []
    for job in calendar.jobs:
        name = job.facts.job.name
        for bar in job.bars:
            words = _reminds(bar.stage)
            if words:
                found.append(Reminder(bar.start, name, words))
    return tuple(sorted(found, key=lambda one: one.at))


def _reminds(stage: Stage) -> str:
    """What has to be thought of when a piece of work begins; empty where nothing has."""
    if stage.is_freezer:
        return "liners into the freezer, to stay overnight"
    if Operation.HEAT in stage.operations:
        return "oven on: the block takes two hours; gloves and tongs out"
    return "block within 5 K of the room? Read it before any height" if Operation.SOAK in stage.operations else ""
