"""What a job says from across the floor: what is out or in doubt, what holds it up, when it is due. House rules."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from vallostasis.core.calendar.of_jobs import promise_of
from vallostasis.core.gauges.zero_checks import open_doubts
from vallostasis.core.operations.catalogue import operation_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.route.hold_points import HoldState
from vallostasis.core.route.open_points import PointKind
from vallostasis.core.route.route import route_of
from vallostasis.core.uncertainty.decision import State

# A day promised within so many days is said before it is late.
SOON_DAYS = 7


class FloorKind(StrEnum):
    """What kind of thing is said of a job; the worst first."""

    OUT = "out"
    ZERO = "zero doubtful"
    LATE = "late"
    UNSURE = "cannot tell"
    AGAIN = "read again"
    HOLD = "hold point"
    WAIT = "waits"
    SOON = "due soon"


@dataclass(frozen=True, slots=True)
class FloorPoint:
    """One thing that is said of a job: its words, the state whose sign stands before it, and its hole."""

    kind: FloorKind
    words: str
    state: State
    hole: int | None = None


@dataclass(frozen=True, slots=True)
class FloorNow:
    """A job from across the floor: what is said of it, the day it is promised for, whether it went home, or away."""

    points: tuple[FloorPoint, ...]
    promised: date | None
    released: bool
    away: bool


_OF_STATE = {
    State.OUT: FloorKind.OUT,
    State.CANNOT_TELL: FloorKind.UNSURE,
    State.READ_AGAIN: FloorKind.AGAIN,
}


def floor_of(facts: JobFacts, today: date) -> FloorNow:
    """Return what a job says from across the floor; holes stand as rings beside it and are not said again."""
    route = route_of(facts)
    points = [
        FloorPoint(_OF_STATE[one.state], one.words, one.state, one.hole)
        for one in route.open_points
        if one.kind is PointKind.SURVEY and one.state in _OF_STATE
    ]
    points += _doubts(facts)
    nearest = route.next
    points += [
        FloorPoint(FloorKind.HOLD, f"{one.words}: {one.missing}", State.NOT_MEASURED, one.hole)
        for one in (nearest.holds if nearest else ())
        if one.state is HoldState.OPEN
    ]
    points += [
        FloorPoint(FloorKind.WAIT, one.words, State.NOT_MEASURED)
        for one in route.open_points
        if one.kind is PointKind.WAIT
    ]
    released = _is_released(facts)
    promised = promise_of(facts)
    day = None if promised is None else promised.promised
    if day is not None and not released:
        points += _due(day, today)
    order = list(FloorKind)
    return FloorNow(tuple(sorted(points, key=lambda one: order.index(one.kind))), day, released, is_away(facts))


def is_away(facts: JobFacts) -> bool:
    """Whether a job was put away: the newest filing that stands. House rule."""
    standing = facts.standing(facts.filings)
    return bool(standing) and standing[-1].away


def _is_released(facts: JobFacts) -> bool:
    return any(one.leg.operation is Operation.RELEASE and one.evidence.is_done for one in route_of(facts).operations)


def _doubts(facts: JobFacts) -> list[FloorPoint]:
    """Zeros that were found moved, with the readings that stand on them."""
    said = []
    for doubt in open_doubts(facts):
        count = len(doubt.reading_ids)
        words = f"{doubt.setup.quantity.value}: zero found moved, {count} reading{'s' if count > 1 else ''} in doubt"
        said.append(FloorPoint(FloorKind.ZERO, words, State.CANNOT_TELL))
    return said


def _due(day: date, today: date) -> list[FloorPoint]:
    left = (day - today).days
    if left < 0:
        words = f"promised {-left} day{'s' if left < -1 else ''} ago"
        return [FloorPoint(FloorKind.LATE, words, State.OUT)]
    if left > SOON_DAYS:
        return []
    return [FloorPoint(FloorKind.SOON, "due today" if left == 0 else f"due in {left} day{'s' if left > 1 else ''}",
                       State.NOT_MEASURED)]  # fmt: skip


def may_be_filed(facts: JobFacts) -> str:
    """Say what still has to be done to a job before it is put away without a reason; empty where nothing is."""
    if _is_released(facts):
        return ""
    nearest = route_of(facts).next
    return "it is not released" + (f": {operation_of(nearest.leg.operation).title} is next" if nearest else "")
