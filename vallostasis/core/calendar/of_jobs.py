"""What the open jobs of the shop have to be laid out: tasks from their routes, hours from the log, waits, promises."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta

from vallostasis.core.calendar.chances import Scatter
from vallostasis.core.calendar.open_time import OpenHours, OpenTime, slots_of
from vallostasis.core.calendar.problem import CalendarProblem, JobToPlan, Person, Span, Task
from vallostasis.core.calendar.ready import ready_of
from vallostasis.core.hours.learned import PlannedHours
from vallostasis.core.operations import schools
from vallostasis.core.operations.catalogue import OPERATIONS, Scope
from vallostasis.core.records.calendar import AwaySpan, Machine, Pin, Promise, Visit
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation, Wait
from vallostasis.core.route.clocks import clocks_of
from vallostasis.core.route.route import OperationNow, route_of

# How far the calendar reaches: past the longest lead time of a part, 24 weeks. Common practice, no published source.
REACHES_DAYS = 210
# And past what is expected later than that by so much; beyond three years nobody lays anything out. House rule.
PAST_THE_LAST_DAYS, MOST_DAYS = 90, 3 * 366
# Overnight in the freezer, and down to the room again after heat; the oven takes two hours to bring a block up.
# Common practice, no published source.
FREEZER_H, SOAK_H, OVEN_H = 14.0, 14.0, 2.0
FREEZER = "freezer"
# Talked over and written down while the block stands where it stands. House rule.
BESIDE_THE_BLOCK = (Operation.DECIDE,)
# Being late weighs so much more where the owner has a last day of his own. House rule.
URGENT = 2
# What is begun still takes a quarter of an hour at least. House rule.
LEAST_H = 0.25


@dataclass(frozen=True, slots=True)
class ShopTime:
    """The shop as it stands: hours, people, who and what is away, machines, visits, hours that were learned."""

    hours: OpenHours
    people: tuple[str, ...]
    learned: dict[Operation, PlannedHours]
    away: tuple[AwaySpan, ...] = ()
    machines: dict[Machine, int] = field(default_factory=dict)
    visits: tuple[Visit, ...] = ()


@dataclass(frozen=True, slots=True)
class Stage:
    """What a task is in the words of its job: whose, what, which holes, and the waits in its way."""

    facts: JobFacts
    title: str
    operations: tuple[Operation, ...]
    holes: tuple[int, ...]
    waits: tuple[Wait, ...] = ()
    is_freezer: bool = False

    @property
    def short(self) -> str:
        """How it is called where there is little room. House rule."""
        return FREEZER if self.is_freezer else ", ".join(OPERATIONS[one].short.lower() for one in self.operations)


@dataclass(frozen=True)
class ToLayOut:
    """The problem, what each of its tasks is, and what may come out otherwise."""

    problem: CalendarProblem
    stages: tuple[Stage, ...]
    scatter: Scatter


def promise_of(facts: JobFacts) -> Promise | None:
    """Return the promise of a job that holds: the newest. House rule."""
    standing = facts.standing(facts.promises)
    return standing[-1] if standing and standing[-1].promised is not None else None


def pins_of(facts: JobFacts) -> dict[Operation, Pin]:
    """Return what of a job is pinned: the newest of each operation, taken away where it names nothing. House rule."""
    newest = {one.operation: one for one in facts.standing(facts.pins)}
    return {what: one for what, one in newest.items() if one.starts_at is not None or one.person}


def lay_before(jobs: Sequence[JobFacts], shop: ShopTime, now: datetime) -> ToLayOut:
    """Bring together what has to be laid out.

    Parameters
    ----------
    jobs : sequence of JobFacts
        The open ones; what of their routes is done is left out.
    shop : ShopTime
        Hours, people, machines.
    now : datetime
        Before which nothing is laid.

    Returns
    -------
    ToLayOut
        Tasks of all jobs, each after those that have to be done first.

    Notes
    -----
    An operation is one task for all its holes, at the median of its learned hours less what was worked on it. Heat and
    fit are one task on one day, with the liners in the freezer overnight before and the block cold overnight after.
    Common practice, no published source.
    """
    axis = OpenTime(shop.hours, now, _reach_days(jobs, now))
    people = [Person(name, _spans(axis, shop.away, name)) for name in shop.people]
    people += [Person(one.name, _but_within(axis, one)) for one in shop.visits]
    made = _Tasks(axis, shop, now)
    for at, facts in enumerate(jobs):
        made.add_job(at, facts)
    shut = {one: _spans(axis, shop.away, one.value) for one in Machine}
    promises = [promise_of(facts) for facts in jobs]
    to_plan = tuple(
        JobToPlan(
            facts.job.name,
            None if one is None or one.promised is None else axis.last_of_day(one.promised),
            URGENT if one is not None and one.last_day is not None else 1,
        )
        for facts, one in zip(jobs, promises, strict=True)
    )
    problem = CalendarProblem(axis, to_plan, tuple(people), tuple(made.tasks), shop.machines,
                              {one: spans for one, spans in shut.items() if spans})  # fmt: skip
    return ToLayOut(problem, tuple(made.stages), made.scatter())


def _reach_days(jobs: Sequence[JobFacts], now: datetime) -> int:
    """How far the calendar has to reach, so that what comes late is still on it. [d]"""
    expected = [one.wait.expected for facts in jobs for one in clocks_of(facts, now).waits
                if one.end is None and one.wait.expected is not None]  # fmt: skip
    last = max(((day - now.date()).days for day in expected), default=0)
    return min(max(REACHES_DAYS, last + PAST_THE_LAST_DAYS), MOST_DAYS)


def _spans(axis: OpenTime, away: Sequence[AwaySpan], what: str) -> tuple[Span, ...]:
    found = [Span(axis.slot_from(one.starts_at), axis.slot_from(one.ends_at)) for one in away if one.what in (what, "")]
    return tuple(one for one in sorted(found, key=lambda one: one.first) if one.first < one.after)


def _but_within(axis: OpenTime, visit: Visit) -> tuple[Span, ...]:
    """Everything but the time of a visit."""
    first, after = axis.slot_from(visit.starts_at), axis.slot_from(visit.ends_at)
    spans = (Span(0, first), Span(after, axis.slots))
    return tuple(one for one in spans if one.first < one.after)


class _Tasks:
    """Tasks of every job, one after the other."""

    def __init__(self, axis: OpenTime, shop: ShopTime, now: datetime) -> None:
        self.axis, self.shop, self.now = axis, shop, now
        self.tasks: list[Task] = []
        self.stages: list[Stage] = []
        self._hours: list[PlannedHours] = []
        self._units: list[float] = []
        self._arrives: list[float | None] = []
        self._lead: list[float] = []

    def scatter(self) -> Scatter:
        """What may come out otherwise, task by task. By definition."""
        kinds = [stage.operations[-1].value for stage in self.stages]
        return Scatter(self._hours, self._units, kinds, self._arrives, self._lead)

    def add_job(self, job: int, facts: JobFacts) -> None:
        """Add the operations of a job that are not done. House rule."""
        worked = clocks_of(facts, self.now).worked_by_operation
        open_ = [one for one in route_of(facts).operations if not one.evidence.is_done]
        to_do = [one for one in open_ if one.kind.operation is not Operation.ORDER]
        hot = {one.kind.operation for one in to_do} >= {Operation.HEAT, Operation.FIT}
        waits = _waits(facts, to_do)
        at: dict[Operation, int] = {}
        for one in to_do:
            operation = one.kind.operation
            if hot and operation is Operation.HEAT:
                at[operation] = self._freezer(job, facts, self._firsts(one, at), waits.get(operation, ()))
                continue
            at[operation] = self._add(job, facts, one, at, worked.get(operation, 0.0), waits.get(operation, ()), hot)

    def _firsts(self, one: OperationNow, at: dict[Operation, int]) -> tuple[int, ...]:
        """Tasks that have to be done first, those before what is done already among them."""
        return tuple(sorted({at[first] for first in one.waits_for if first in at}))

    def _freezer(self, job: int, facts: JobFacts, firsts: tuple[int, ...], waits: tuple[Wait, ...]) -> int:
        task = Task(
            job, FREEZER, 1, self._people(facts, Operation.HEAT), after=firsts, holds=Machine.FREEZER, on_block=False
        )
        stage = Stage(facts, "Liners into the freezer", (Operation.HEAT,), (), waits, is_freezer=True)
        return self._put(task, stage, PlannedHours(0, 0, 0, 0, 0, 0), 1.0, waits)

    def _add(
        self, job: int, facts: JobFacts, one: OperationNow, at: dict[Operation, int], worked_h: float,
        waits: tuple[Wait, ...], hot: bool,
    ) -> int:  # fmt: skip
        operation, kind = one.kind.operation, one.kind
        hours, units = self.shop.learned[operation], float(_units(one))
        middle = max(units * hours.middle_h - worked_h, LEAST_H)
        share = middle / (units * hours.middle_h) if hours.middle_h > 0 else 1.0
        drop = hot and operation is Operation.FIT
        slots = slots_of(middle + (OVEN_H if drop else 0.0))
        machine = Machine.OVEN if drop else _machine(facts, operation)
        setup = f"{machine} {facts.card.engine}" if machine is not None and kind.setup_h else ""
        task = Task(
            job, operation.value, slots, self._people(facts, operation), machine, self._firsts(one, at),
            stands_h=FREEZER_H if drop else SOAK_H if operation is Operation.SOAK else 0.0,
            setup=setup, setup_slots=min(slots_of(kind.setup_h), slots - 1) if setup else 0, one_day=drop,
            on_block=operation not in BESIDE_THE_BLOCK,
        )  # fmt: skip
        title = f"Heat, {kind.title[0].lower()}{kind.title[1:]}" if drop else kind.title
        stage = Stage(facts, title, (Operation.HEAT, operation) if drop else (operation,), one.open_holes, waits)
        return self._put(self._pinned(task, facts, operation), stage, hours, units * share, waits)

    def _put(self, task: Task, stage: Stage, hours: PlannedHours, units: float, waits: tuple[Wait, ...]) -> int:
        ready = ready_of(waits, stage.facts, self.now)
        if ready is not None:
            # What nobody expects within three years stands at their end, and hides no other job.
            last = (self.now + timedelta(days=MOST_DAYS - PAST_THE_LAST_DAYS)).date()
            task = replace(task, ready=self.axis.day_begins(min(ready.day, last)))
        self.tasks.append(task)
        self.stages.append(stage)
        self._hours.append(hours)
        self._units.append(units)
        self._arrives.append(None if ready is None or not ready.may_be_late else float(ready.day.toordinal()))
        self._lead.append(0.0 if ready is None else ready.lead_days)
        return len(self.tasks) - 1

    def _people(self, facts: JobFacts, operation: Operation) -> tuple[int, ...]:
        names = self.shop.people
        for at, one in enumerate(self.shop.visits):
            if one.job_id == facts.job.job_id and operation in one.operations:
                return (len(names) + at,)
        running = [one.by for one in clocks_of(facts, self.now).running if one.mark.operation is operation]
        pin = pins_of(facts).get(operation)
        wanted = pin.person if pin is not None and pin.person else (running[0] if running else "")
        return (names.index(wanted),) if wanted in names else tuple(range(len(names)))

    def _pinned(self, task: Task, facts: JobFacts, operation: Operation) -> Task:
        pin = pins_of(facts).get(operation)
        if pin is None or pin.starts_at is None or pin.starts_at < self.now - timedelta(minutes=15):
            return task
        return replace(task, pinned=self.axis.slot_from(pin.starts_at))


def _units(one: OperationNow) -> int:
    return max(len(one.open_holes), 1) if one.kind.scope is Scope.HOLE else 1


def _machine(facts: JobFacts, operation: Operation) -> Machine | None:
    """What an operation is done on; a dry liner goes in under the press or the puller."""
    if operation is Operation.FIT and facts.card.construction in schools.DRY:
        return Machine.PRESS
    return OPERATIONS[operation].machine


def _waits(facts: JobFacts, to_do: Sequence[OperationNow]) -> dict[Operation, tuple[Wait, ...]]:
    """Return what each operation to come waits for; parts that are ordered are needed where they go in."""
    open_ = [one.wait for one in clocks_of(facts, facts.job.opened_at).waits if one.end is None]
    operations = [one.kind.operation for one in to_do]
    found: dict[Operation, tuple[Wait, ...]] = {}
    for wait in open_:
        at = wait.operation
        if at is Operation.ORDER or at not in operations:
            at = next((one for one in _NEEDS_PARTS if one in operations), operations[0] if operations else at)
        found[at] = (*found.get(at, ()), wait)
    return found


# Where parts that were ordered are needed first: pistons before the bar, sleeves before the hone, liners to be fitted.
_NEEDS_PARTS = (Operation.BORE_BLOCK, Operation.BORE, Operation.HONE_BLOCK, Operation.FIT_PREP, Operation.PISTONS)
