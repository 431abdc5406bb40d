"""Two clocks of a job: hours somebody worked on it, and time it waited. Both are counted, neither is guessed."""

from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from uuid import UUID

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Bill, ClockMark, Operation, Wait, WaitEnd

HOUR_S = 3600.0


@dataclass(frozen=True, slots=True)
class Running:
    """A working clock that runs: whose, at what, since when."""

    by: str
    mark: ClockMark

    @property
    def since(self) -> datetime:
        """When it was started."""
        return self.mark.at


@dataclass(frozen=True, slots=True)
class WaitNow:
    """A wait with its end, where it came to one."""

    wait: Wait
    end: WaitEnd | None

    def lasted_h(self, now: datetime) -> float:
        """How long it lasted, or lasts by now. [h] By definition."""
        until = now if self.end is None else self.end.ended
        return max(0.0, (until - self.wait.since).total_seconds() / HOUR_S)


@dataclass(frozen=True, slots=True)
class Clocks:
    """Hours worked in all and by operation, clocks that run, waits, time that anything was waited for. [h]"""

    worked_h: float
    worked_by_operation: dict[Operation, float]
    running: tuple[Running, ...]
    waits: tuple[WaitNow, ...]
    waited_h: float

    @property
    def is_waiting(self) -> bool:
        """Whether anything is waited for now."""
        return any(one.end is None for one in self.waits)


@dataclass(frozen=True, slots=True)
class Worked:
    """A stretch of work: at what, by whom, from when till when, and whether it stands on the bill."""

    operation: Operation
    by: str
    start: datetime
    end: datetime
    bill: Bill

    @property
    def hours(self) -> float:
        """How long it was. [h] By definition."""
        return max(0.0, (self.end - self.start).total_seconds() / HOUR_S)


def clocks_of(facts: JobFacts, now: datetime) -> Clocks:
    """Count what was worked and waited.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    now : datetime
        Until when clocks that run are counted.

    Returns
    -------
    Clocks
        Each person's work counts, that of two at once twice; time that two things were waited for counts once.
        By definition of the two.
    """
    hours: dict[Operation, float] = {}
    for one in worked_of(facts, now):
        hours[one.operation] = hours.get(one.operation, 0.0) + one.hours
    moved = days_expected(facts)
    waits = tuple(
        WaitNow(replace(one, expected=moved.get(one.wait_id, one.expected)), facts.standing_wait_ends.get(one.wait_id))
        for one in facts.standing(facts.waits)
    )
    spans = [(one.wait.since, now if one.end is None else one.end.ended) for one in waits]
    running = tuple(Running(by, mark) for by, mark in sorted(_pairs(facts)[1].items()))
    return Clocks(sum(hours.values()), hours, running, waits, _union_h(spans))


def days_expected(facts: JobFacts) -> dict[UUID, date | None]:
    """Return for every wait that was moved the day on which it is expected now. House rule: the newest word holds."""
    return {one.wait_id: one.expected for one in facts.standing(facts.waits_moved)}


def worked_of(facts: JobFacts, now: datetime) -> tuple[Worked, ...]:
    """Return every stretch of work, oldest first; one that still runs reaches till now. By definition."""
    pairs, running = _pairs(facts)
    spans = [Worked(one.operation, one.marked_by, one.at, end, one.bill) for one, end in pairs]
    spans += [Worked(one.operation, one.marked_by, one.at, now, one.bill) for one in running.values()]
    return tuple(sorted(spans, key=lambda one: one.start))


def _pairs(facts: JobFacts) -> tuple[list[tuple[ClockMark, datetime]], dict[str, ClockMark]]:
    """Pair starts with the stops of the same person, by their own times; a second start ends what ran before it."""
    pairs: list[tuple[ClockMark, datetime]] = []
    running: dict[str, ClockMark] = {}
    for mark in sorted(facts.standing(facts.clock_marks), key=lambda one: (one.at, one.event)):
        before = running.pop(mark.marked_by, None)
        if before is not None:
            pairs.append((before, mark.at))
        if mark.running:
            running[mark.marked_by] = mark
    return pairs, running


def _hours(span: timedelta) -> float:
    return max(0.0, span.total_seconds() / HOUR_S)


def _union_h(spans: list[tuple[datetime, datetime]]) -> float:
    """How long at least one of several spans lasted. [h] Closed form."""
    total, reached = 0.0, None
    for start, end in sorted(spans):
        begin = start if reached is None or start > reached else reached
        if end > begin:
            total += _hours(end - begin)
            reached = end
    return total
