"""The route of a job as it goes over the wire."""

from datetime import date, datetime
from uuid import UUID

from pydantic import BaseModel, Field

from vallostasis.api.trail import PhraseView
from vallostasis.core.operations.catalogue import OPERATIONS, Scope, operation_of
from vallostasis.core.operations.wording import asks_of, cautions_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import HoldPass, HoldPoint, Operation, Wait, WaitCause
from vallostasis.core.records.rows import Quantity
from vallostasis.core.route.clocks import Clocks, WaitNow
from vallostasis.core.route.forks import Fork
from vallostasis.core.route.hold_points import HoldNow, HoldState
from vallostasis.core.route.open_points import OpenPoint, PointKind
from vallostasis.core.route.route import Arc, OperationNow, Reopened, Route
from vallostasis.core.route.shown import Evidence
from vallostasis.core.uncertainty.decision import State
from vallostasis.services.route import RouteNow, SchoolChange


class EvidenceView(BaseModel):
    """How far an operation is, and what shows it."""

    state: State
    words: str
    at: datetime | None
    by: str

    @classmethod
    def of(cls, evidence: Evidence) -> "EvidenceView":
        """Show evidence."""
        return cls(state=evidence.state, words=evidence.words, at=evidence.at, by=evidence.by)


class RouteHoleView(EvidenceView):
    """How far an operation is at one hole."""

    hole: int


class HoldView(BaseModel):
    """A hold point: what it says, before which operation, what is missing, who passed it and why."""

    hold: HoldPoint
    words: str
    before: Operation
    hole: int | None
    state: HoldState
    missing: str
    passed_by: str
    passed_at: datetime | None
    reason: str

    @classmethod
    def of(cls, hold: HoldNow) -> "HoldView":
        """Show a hold point."""
        passed: HoldPass | None = hold.passed
        return cls(
            hold=hold.hold,
            words=hold.words,
            before=hold.before,
            hole=hold.hole,
            state=hold.state,
            missing=hold.missing,
            passed_by="" if passed is None else passed.passed_by,
            passed_at=None if passed is None else passed.passed_at,
            reason="" if passed is None else passed.reason,
        )


class OperationView(BaseModel):
    """One operation of a route as it stands."""

    operation: Operation
    title: str
    short: str
    scope: Scope
    hours: float
    worked_h: float
    evidence: EvidenceView
    is_done: bool
    is_ready: bool
    waits_for: list[str]
    by_hand: bool
    irreversible: bool
    foreseen: list[PhraseView] = Field(description="What a step that cannot be undone would give.")
    asks: str
    counts: str
    caution: list[str]
    risks: list[str]
    holes: list[RouteHoleView]
    holds: list[HoldView]


class WaitView(BaseModel):
    """Something that is or was waited for."""

    wait_id: UUID
    operation: Operation
    title: str
    cause: WaitCause
    words: str
    hole: int | None
    since: datetime
    noted_by: str
    expected: date | None
    ended: datetime | None
    end_words: str
    lasted_h: float


class RunningView(BaseModel):
    """A working clock that runs."""

    by: str
    operation: Operation
    title: str
    since: datetime


class ClocksView(BaseModel):
    """Hours worked against planned, and time waited. [h]"""

    worked_h: float
    planned_h: float
    done_h: float = Field(description="Planned hours of what is done. [h]")
    waited_h: float
    is_waiting: bool
    running: list[RunningView]


class ArcView(BaseModel):
    """An operation that makes the result of an earlier one to be read again, and what that costs. [h]"""

    disturbing: Operation
    disturbed: Operation
    quantities: list[Quantity]
    hours: float
    is_open: bool

    @classmethod
    def of(cls, arc: Arc) -> "ArcView":
        """Show an arc."""
        return cls(disturbing=arc.disturbing, disturbed=arc.disturbed, quantities=list(arc.quantities),
                   hours=arc.hours, is_open=arc.is_open)  # fmt: skip


class ReopenedView(BaseModel):
    """A result that is to be read again, what disturbed it, and what reading it costs. [h]"""

    quantity: Quantity
    part: str
    title: str
    holes: list[int]
    because: str
    since: datetime
    by: str
    hours: float

    @classmethod
    def of(cls, one: Reopened) -> "ReopenedView":
        """Show what is to be read again."""
        return cls(quantity=one.quantity, part=one.part, title=one.title, holes=list(one.holes),
                   because=one.doing.words, since=one.doing.at, by=one.doing.by, hours=one.hours)  # fmt: skip


class SideView(BaseModel):
    """A side of a question, the reason for it, and what it would change."""

    name: str
    reason: str
    chosen: bool
    added: list[str]
    removed: list[str]
    moved: list[str]
    hours: float
    first: Operation | None = Field(description="The first operation of the present route that it touches.")
    last: Operation | None


class SchoolView(BaseModel):
    """A question that shops answer differently, its sides, and what would settle it."""

    question: str
    title: str
    sides: list[SideView]
    settled_by: str
    because: str
    chosen_by: str


class OpenPointView(BaseModel):
    """Something that keeps the job from being proved."""

    kind: PointKind
    words: str
    state: State
    hole: int | None
    quantity: Quantity | None
    part: str

    @classmethod
    def of(cls, one: OpenPoint) -> "OpenPointView":
        """Show an open point."""
        return cls(kind=one.kind, words=one.words, state=one.state, hole=one.hole, quantity=one.quantity,
                   part=one.part)  # fmt: skip


class RouteView(BaseModel):
    """The route of a job: operations, hold points, waits, clocks, schools, what is read again, what is open."""

    operations: list[OperationView]
    next: Operation | None
    holds: list[HoldView]
    waits: list[WaitView]
    clocks: ClocksView
    arcs: list[ArcView]
    reopened: list[ReopenedView]
    schools: list[SchoolView]
    open_points: list[OpenPointView]
    event: int


def route_view(now: RouteNow, event: int) -> RouteView:
    """Show the route of a job."""
    route, clocks = now.route, now.clocks
    return RouteView(
        operations=[_operation_view(now, one) for one in route.operations],
        next=None if route.next is None else route.next.kind.operation,
        holds=[HoldView.of(one) for one in route.holds],
        waits=[_wait_view(now, one) for one in clocks.waits],
        clocks=_clocks_view(route, clocks),
        arcs=[ArcView.of(one) for one in route.arcs],
        reopened=[ReopenedView.of(one) for one in route.reopened],
        schools=[
            SchoolView(
                question=school.question,
                title=school.title,
                sides=[_side_view(route, side.name, side.reason, chosen, forks) for side in school.sides],
                settled_by=school.settled_by,
                because=_because(now.facts, school.question)[0],
                chosen_by=_because(now.facts, school.question)[1],
            )
            for school, chosen, forks in now.forks
        ],
        open_points=[OpenPointView.of(one) for one in route.open_points],
        event=event,
    )


def _operation_view(now: RouteNow, one: OperationNow) -> OperationView:
    facts, clocks, foreseen = now.facts, now.clocks, now.foreseen[one.kind.operation]
    kind = one.kind
    return OperationView(
        operation=kind.operation,
        title=kind.title,
        short=kind.short,
        scope=kind.scope,
        hours=one.leg.hours,
        worked_h=clocks.worked_by_operation.get(kind.operation, 0.0),
        evidence=EvidenceView.of(one.evidence),
        is_done=one.evidence.is_done,
        is_ready=one.is_ready,
        waits_for=[operation_of(first).title for first in one.waits_for],
        by_hand=kind.by_hand,
        irreversible=kind.irreversible,
        foreseen=[PhraseView.of(phrase) for phrase in foreseen],
        asks=asks_of(facts, kind.operation),
        counts=kind.counts,
        caution=list(cautions_of(facts, kind.operation)),
        risks=list(kind.risks),
        holes=[RouteHoleView(hole=mark.hole, **EvidenceView.of(mark.evidence).model_dump()) for mark in one.holes],
        holds=[HoldView.of(hold) for hold in one.holds],
    )


def _wait_view(now: RouteNow, one: WaitNow) -> WaitView:
    wait: Wait = one.wait
    numbers = {hole.hole_id: hole.number for hole in now.facts.holes}
    end = one.end
    return WaitView(
        wait_id=wait.wait_id,
        operation=wait.operation,
        title=OPERATIONS[wait.operation].title,
        cause=wait.cause,
        words=wait.words,
        hole=None if wait.hole_id is None else numbers[wait.hole_id],
        since=wait.since,
        noted_by=wait.noted_by,
        expected=wait.expected,
        ended=None if end is None else end.ended,
        end_words="" if end is None else end.words,
        lasted_h=one.lasted_h(now.asked_at),
    )


def _clocks_view(route: Route, clocks: Clocks) -> ClocksView:
    return ClocksView(
        worked_h=clocks.worked_h,
        planned_h=route.planned_h,
        done_h=sum(one.leg.hours for one in route.operations if one.evidence.is_done),
        waited_h=clocks.waited_h,
        is_waiting=clocks.is_waiting,
        running=[
            RunningView(by=one.by, operation=one.mark.operation, title=operation_of(one.mark.operation).title,
                        since=one.since)
            for one in clocks.running
        ],
    )  # fmt: skip


def _side_view(route: Route, name: str, reason: str, chosen: str, forks: tuple[Fork, ...]) -> SideView:
    fork = next((one for one in forks if one.side == name), None)
    touched = [] if fork is None else _touched(route, fork)
    return SideView(
        name=name,
        reason=reason,
        chosen=name == chosen,
        added=[operation_of(one).title for one in (() if fork is None else fork.added)],
        removed=[operation_of(one).title for one in (() if fork is None else fork.removed)],
        moved=[operation_of(one).title for one in (() if fork is None else fork.moved)],
        hours=0.0 if fork is None else fork.hours,
        first=touched[0] if touched else None,
        last=touched[-1] if touched else None,
    )


def _touched(route: Route, fork: Fork) -> list[Operation]:
    """Return what a fork spans on the present route: what goes or moves, and where it comes or goes to."""
    order = [one.kind.operation for one in route.operations]
    other = [leg.operation for leg in fork.legs]
    touched = {*fork.removed, *fork.moved}
    for one in (*fork.added, *fork.moved):
        before = [first for first in other[: other.index(one)] if first in order and first not in fork.moved]
        touched |= set(before[-1:])
    return [one for one in order if one in touched]


def _because(facts: JobFacts, question: str) -> tuple[str, str]:
    chosen = facts.schools.get(question)
    return ("", "") if chosen is None else (chosen.reason, chosen.chosen_by)


class SchoolChangeView(BaseModel):
    """What the choice of a side changes."""

    added: list[str]
    removed: list[str]
    moved: list[str]
    hours: float
    holds: list[str]

    @classmethod
    def of(cls, change: SchoolChange) -> "SchoolChangeView":
        """Show what changes."""
        fork = change.fork
        return cls(
            added=[operation_of(one).title for one in fork.added],
            removed=[operation_of(one).title for one in fork.removed],
            moved=[operation_of(one).title for one in fork.moved],
            hours=fork.hours,
            holds=list(change.holds),
        )
