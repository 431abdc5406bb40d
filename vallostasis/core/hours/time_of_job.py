"""The time of a job, operation by operation: planned, worked, how it stands on the bill; what anomalies have cost."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from vallostasis.core.hours.learned import PlannedHours, worst_of
from vallostasis.core.hours.log import BilledHours, billed_hours
from vallostasis.core.operations.catalogue import OPERATIONS, OperationKind, Scope
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation, WaitCause
from vallostasis.core.route.clocks import Worked, clocks_of, worked_of
from vallostasis.core.route.route import route_of


@dataclass(frozen=True, slots=True)
class OperationTime:
    """One operation of a job: what it is planned to take and at worst, how that is known, what it took. [h]"""

    kind: OperationKind
    units: int
    planned: PlannedHours
    worked: BilledHours
    is_done: bool

    @property
    def middle_h(self) -> float:
        """Planned hours of all its units. [h] By definition."""
        return self.units * self.planned.middle_h

    @property
    def worst_h(self) -> float:
        """What nine of ten stay below. [h] House rule."""
        return self.units * worst_of(self.planned)


@dataclass(frozen=True, slots=True)
class TimeOfJob:
    """All of it: operations, every stretch of work, days waited by cause, minutes spent on what does not add up."""

    operations: tuple[OperationTime, ...]
    worked: tuple[Worked, ...]
    waited_d: dict[WaitCause, float]
    anomalies_min: float

    @property
    def billed(self) -> BilledHours:
        """All hours by how they stand on the bill. [h] By definition."""
        every = [one.worked for one in self.operations]
        return BilledHours(sum(one.agreed_h for one in every), sum(one.chargeable_h for one in every),
                           sum(one.goodwill_h for one in every))  # fmt: skip


def time_of(facts: JobFacts, learned: Mapping[Operation, PlannedHours], now: datetime) -> TimeOfJob:
    """Add up the time of a job.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    learned : mapping
        Planned hours of one unit of every operation. [h]
    now : datetime
        Until when clocks that run are counted.

    Returns
    -------
    TimeOfJob
        By definition; every operation of the route, and what was worked on none of it any more.
    """
    rows = []
    on_route = route_of(facts).operations
    for one in on_route:
        operation = one.kind.operation
        units = max(len(one.leg.holes), 1) if one.kind.scope is Scope.HOLE else 1
        billed = billed_hours(facts, now, (operation,))
        rows.append(OperationTime(one.kind, units, learned[operation], billed, one.evidence.is_done))
    beside = {one.operation for one in worked_of(facts, now)} - {one.kind.operation for one in on_route}
    rows += [
        OperationTime(OPERATIONS[one], 1, learned[one], billed_hours(facts, now, (one,)), True)
        for one in sorted(beside)
    ]
    waited: dict[WaitCause, float] = {}
    for wait in clocks_of(facts, now).waits:
        cause = wait.wait.cause
        waited[cause] = waited.get(cause, 0.0) + wait.lasted_h(now) / 24
    minutes = sum(float(one.minutes) for one in facts.standing(facts.experiment_results))
    return TimeOfJob(tuple(rows), worked_of(facts, now), waited, minutes)
