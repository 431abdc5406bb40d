"""The shop's own log of hours: what finished operations took, and hours that do not stand on the bill."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from vallostasis.core.hours.learned import SpentHours
from vallostasis.core.operations.catalogue import OPERATIONS, Scope
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.route_marks import Bill, Operation
from vallostasis.core.route.clocks import clocks_of, worked_of
from vallostasis.core.route.route import route_of


@once
def _done_units(facts: JobFacts) -> dict[Operation, int]:
    """Return the operations of a job that are done, with the holes they were done at; one for those of the block."""
    return {
        one.kind.operation: max(len(one.leg.holes), 1) if one.kind.scope is Scope.HOLE else 1
        for one in route_of(facts).operations
        if one.evidence.is_done
    }


def spent_on(facts: JobFacts, now: datetime) -> tuple[SpentHours, ...]:
    """Return what every finished operation of a job took, where a clock ran at it.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    now : datetime
        Until when clocks that run are counted.

    Returns
    -------
    tuple of SpentHours
        One for each operation that is done. [h] By definition.
    """
    worked = clocks_of(facts, now).worked_by_operation
    return tuple(
        SpentHours(operation, worked[operation], units)
        for operation, units in _done_units(facts).items()
        if worked.get(operation, 0.0) > 0
    )


@dataclass(frozen=True, slots=True)
class BilledHours:
    """Hours worked on a job by how they stand on the bill. [h]"""

    agreed_h: float
    chargeable_h: float
    goodwill_h: float

    @property
    def worked_h(self) -> float:
        """All of them. By definition."""
        return self.agreed_h + self.chargeable_h + self.goodwill_h


def billed_hours(facts: JobFacts, now: datetime, operations: Iterable[Operation] = tuple(OPERATIONS)) -> BilledHours:
    """Count hours by how they stand on the bill, of some operations or of all. [h] By definition."""
    wanted = set(operations)
    spans = [one for one in worked_of(facts, now) if one.operation in wanted]

    def of(bill: Bill) -> float:
        return sum(one.hours for one in spans if one.bill is bill)

    return BilledHours(of(Bill.AGREED), of(Bill.CHARGEABLE), of(Bill.GOODWILL))
