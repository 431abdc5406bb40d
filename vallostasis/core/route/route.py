"""The route of a job, finished: how far every operation is, what it waits for, what it re-opens, what is next."""

from collections.abc import Iterator
from dataclasses import dataclass

from vallostasis.core.features.parts import holes_of, parts_of
from vallostasis.core.operations.catalogue import HOURS_TO_READ, OPERATIONS, OperationKind, Scope
from vallostasis.core.operations.disturbances import Doing
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.route_marks import Operation, Wait
from vallostasis.core.records.rows import Quantity
from vallostasis.core.route.evidence import evidence_of_route
from vallostasis.core.route.hold_points import HoldNow, HoldState, hold_points_of
from vallostasis.core.route.open_points import OpenPoint, open_points_of
from vallostasis.core.route.plan import Leg, plan_of
from vallostasis.core.route.shown import Evidence, holes_words, worst_of
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.decision import State


@dataclass(frozen=True, slots=True)
class HoleMark:
    """How far an operation is at one hole."""

    hole: int
    evidence: Evidence


@dataclass(frozen=True, slots=True)
class OperationNow:
    """One operation of a route as it stands.

    ``waits_for`` names operations that have to be done first and are not; ``waits`` what it is blocked by.
    """

    kind: OperationKind
    leg: Leg
    evidence: Evidence
    holes: tuple[HoleMark, ...]
    waits_for: tuple[Operation, ...]
    waits: tuple[Wait, ...]
    holds: tuple[HoldNow, ...]

    @property
    def is_ready(self) -> bool:
        """Whether it can be begun."""
        return not self.evidence.is_done and not self.waits_for

    @property
    def short_words(self) -> str:
        """Say in a few words how far it is."""
        if self.evidence.is_done:
            return "done"
        if self.waits:
            return f"waits: {self.waits[0].words}"
        if self.evidence.state is not State.NOT_MEASURED:
            return self.evidence.state.value
        some = 0 < len(self.open_holes) < len(self.holes)
        holes = f", {holes_words([str(one) for one in self.open_holes])}" if some else ""
        return f"{self.leg.hours:g} h{holes}"

    @property
    def open_holes(self) -> tuple[int, ...]:
        """Holes at which it is not done yet."""
        return tuple(one.hole for one in self.holes if not one.evidence.is_done)


@dataclass(frozen=True, slots=True)
class Reopened:
    """A result that is to be read again: which feature of which part, what disturbed it, what reading it costs. [h]"""

    quantity: Quantity
    part: str
    title: str
    holes: tuple[int, ...]
    doing: Doing
    hours: float


@dataclass(frozen=True, slots=True)
class Arc:
    """From an operation to an earlier one whose result it makes to be read again, with what that costs. [h]"""

    disturbing: Operation
    disturbed: Operation
    quantities: tuple[Quantity, ...]
    hours: float
    is_open: bool


@dataclass(frozen=True, slots=True)
class Route:
    """The whole route of a job."""

    operations: tuple[OperationNow, ...]
    holds: tuple[HoldNow, ...]
    reopened: tuple[Reopened, ...]
    arcs: tuple[Arc, ...]
    open_points: tuple[OpenPoint, ...]

    @property
    def planned_h(self) -> float:
        """Planned hours in all. [h]"""
        return sum(one.leg.hours for one in self.operations)

    @property
    def next(self) -> OperationNow | None:
        """What comes next: the first that is not done, nothing before it open; one begun and read again comes first."""
        ready = [one for one in self.operations if one.is_ready]
        again = [one for one in ready if one.evidence.state is State.READ_AGAIN]
        free = [one for one in ready if not one.waits]
        return next(iter((*again, *free, *ready)), None)


@once
def route_of(facts: JobFacts) -> Route:
    """Finish the route of a job. House rules stand with what it is made of."""
    far = evidence_of_route(facts)
    holds = hold_points_of(facts, far)
    reopened = tuple(reopened_of(facts))
    points = open_points_of(facts, far, holds)
    far[Operation.PROVE, None] = _proof(points)
    legs = plan_of(facts)
    by_operation = {leg.operation: _of_leg(far, leg) for leg in legs}
    before = _before(legs)
    operations = tuple(_now(facts, leg, before[leg.operation], by_operation, far, holds) for leg in legs)
    return Route(operations, holds, reopened, tuple(_arcs(facts, legs, reopened)), points)


def _proof(points: tuple[OpenPoint, ...]) -> Evidence:
    if not points:
        return Evidence(State.IN, "no open point")
    more = f" and {len(points) - 1} more" if len(points) > 1 else ""
    return Evidence(State.NOT_MEASURED, f"{points[0].words}{more}")


def _of_leg(far: dict[tuple[Operation, int | None], Evidence], leg: Leg) -> Evidence:
    if OPERATIONS[leg.operation].scope is Scope.BLOCK:
        return far[leg.operation, None]
    return worst_of(far[leg.operation, hole.number] for hole in leg.holes)


def _before(legs: tuple[Leg, ...]) -> dict[Operation, tuple[Operation, ...]]:
    """Everything that has to be done before each operation, what stands before that among it, in order."""
    before: dict[Operation, set[Operation]] = {}
    for leg in legs:
        before[leg.operation] = set(leg.after).union(*(before[one] for one in leg.after))
    order = [leg.operation for leg in legs]
    return {one: tuple(first for first in order if first in firsts) for one, firsts in before.items()}


def _now(
    facts: JobFacts,
    leg: Leg,
    before: tuple[Operation, ...],
    by_operation: dict[Operation, Evidence],
    far: dict[tuple[Operation, int | None], Evidence],
    holds: tuple[HoldNow, ...],
) -> OperationNow:
    operation = leg.operation
    waits = (one for one in facts.standing(facts.waits) if one.operation is operation)
    return OperationNow(
        OPERATIONS[operation],
        leg,
        by_operation[operation],
        tuple(HoleMark(hole.number, far[operation, hole.number]) for hole in leg.holes),
        tuple(one for one in before if not by_operation[one].is_done),
        tuple(one for one in waits if one.wait_id not in facts.standing_wait_ends),
        tuple(one for one in holds if one.before is operation and one.state is not HoldState.CLEAR),
    )


def reopened_of(facts: JobFacts) -> Iterator[Reopened]:
    """Return every result that is to be read again. Common practice, no published source, of the hours."""
    for quantity in Quantity:
        if not facts.sets_of(quantity):
            continue
        for part in parts_of(facts, quantity):
            survey = survey_of(facts, quantity, part)
            if survey.disturbed is not None and survey.state is State.READ_AGAIN:
                yield Reopened(quantity, part.key, part.title, holes_of(part), survey.disturbed,
                               HOURS_TO_READ.get(quantity, 0.2))  # fmt: skip


def _arcs(facts: JobFacts, legs: tuple[Leg, ...], reopened: tuple[Reopened, ...]) -> Iterator[Arc]:
    """Return what later operations do to the results of earlier ones, whether it happened yet or is to come."""
    order = [leg.operation for leg in legs]
    for at, later in enumerate(order):
        disturbs = {quantity for one in OPERATIONS[later].disturbs for quantity in one.quantities}
        for earlier in order[:at]:
            hit = tuple(one for one in OPERATIONS[earlier].proves if one in disturbs and _is_asked(facts, one))
            if not hit or (earlier, later) in _SAME_RESULT:
                continue
            parts = sum(len(parts_of(facts, one)) * HOURS_TO_READ.get(one, 0.2) for one in hit)
            now_open = [one for one in reopened if one.doing.operation is later and one.quantity in hit]
            hours = sum(one.hours for one in now_open) if now_open else parts
            yield Arc(later, earlier, hit, hours, bool(now_open))


# A bore that is honed after boring is read anew anyway: nothing of the boring is lost by it.
_SAME_RESULT = {(Operation.BORE, Operation.HONE), (Operation.BORE_BLOCK, Operation.HONE_BLOCK),
                (Operation.MAINS, Operation.ALIGN)}  # fmt: skip


def _is_asked(facts: JobFacts, quantity: Quantity) -> bool:
    """Whether a feature is on the card or was read: what nobody reads cannot be read again."""
    on_card = any(sheet.quantity is quantity for sheet in facts.card.features)
    return on_card or quantity is Quantity.PROTRUSION or bool(facts.sets_of(quantity))
