"""Two clocks of a job: hours somebody worked on it, and time it waited. Both are counted, neither is guessed."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import ClockMark, Operation, Wait, WaitEnd

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
    worked, running = _worked(facts.standing(facts.clock_marks), now)
    waits = tuple(WaitNow(one, facts.standing_wait_ends.get(one.wait_id)) for one in facts.standing(facts.waits))
    spans = [(one.wait.since, now if one.end is None else one.end.ended) for one in waits]
    return Clocks(sum(worked.values()), worked, running, waits, _union_h(spans))


def _worked(marks: Iterable[ClockMark], now: datetime) -> tuple[dict[Operation, float], tuple[Running, ...]]:
    """Pair starts with the stops of the same person, by their own times; a second start ends what ran before it."""
    hours: dict[Operation, float] = {}
    open_marks: dict[str, ClockMark] = {}
    for mark in sorted(marks, key=lambda one: (one.at, one.event)):
        before = open_marks.pop(mark.marked_by, None)
        if before is not None:
            hours[before.operation] = hours.get(before.operation, 0.0) + _hours(mark.at - before.at)
        if mark.running:
            open_marks[mark.marked_by] = mark
    for mark in open_marks.values():
        hours[mark.operation] = hours.get(mark.operation, 0.0) + _hours(now - mark.at)
    return hours, tuple(Running(by, mark) for by, mark in sorted(open_marks.items()))


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
