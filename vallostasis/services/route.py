"""The route of a job: marks, clocks, waits, hold points, schools."""

from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from uuid import UUID

from vallostasis.core.operations.catalogue import OPERATIONS, Scope
from vallostasis.core.operations.schools import SCHOOLS, School, schools_of, side_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.preparation import PrepKind
from vallostasis.core.records.route_marks import (
    Bill,
    MarkKind,
    Operation,
    WaitCause,
)
from vallostasis.core.records.rows import Hole
from vallostasis.core.route.clocks import Clocks, clocks_of, worked_of
from vallostasis.core.route.evidence import evidence_of_route
from vallostasis.core.route.foresight import foresee
from vallostasis.core.route.forks import Fork, fork_of, forks_of, on_side
from vallostasis.core.route.hold_points import HoldNow, in_the_way
from vallostasis.core.route.plan import plan_of
from vallostasis.core.route.route import Reopened, Route, reopened_of, route_of
from vallostasis.core.trail import Phrase
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import people, schools
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_facts import (
    NewClockMark,
    NewHoldPass,
    NewOperationMark,
    NewSchoolChoice,
    NewWait,
    NewWaitEnd,
)
from vallostasis.store.rows import Conn

# Longer than this nobody leaves a mark to be written down afterwards.
LONGEST_AGO_S = 366 * 24 * 3600.0


@dataclass(frozen=True, slots=True)
class RouteNow:
    """The route of a job with its clocks and the questions it depends on."""

    facts: JobFacts
    route: Route
    clocks: Clocks
    asked_at: datetime
    foreseen: dict[Operation, tuple[Phrase, ...]]
    forks: tuple[tuple[School, str, tuple[Fork, ...]], ...]


@dataclass(frozen=True, slots=True)
class AtOperation:
    """An operation of a job, at a hole where that is its scope."""

    operation: Operation
    hole: int | None = None


@dataclass(frozen=True, slots=True)
class SchoolChange:
    """What the choice of a side changes: the route, and results that have to be read again or need not any more."""

    fork: Fork
    reopened: tuple[Reopened, ...]
    holds: tuple[str, ...]


def route_now(conn: Conn, job_id: UUID) -> RouteNow:
    """Return the route of a job as it stands."""
    facts = load_job_facts(conn, job_id)
    now = datetime.now(UTC)
    route = route_of(facts)
    foreseen = {one.kind.operation: foresee(facts, one.leg, one.open_holes) for one in route.operations}
    return RouteNow(facts, route, clocks_of(facts, now), now, foreseen, forks_of(facts))


def mark_operation(
    conn: Conn,
    job_id: UUID,
    at: AtOperation,
    kind: MarkKind,
    by: UUID,
    words: str = "",
    count: int | None = None,
    ago_s: float = 0,
    hold_reason: str = "",
) -> None:
    """Mark an operation by hand: done, to be done again, looked over by another person, its zero looked at."""
    facts = lock_job_facts(conn, job_id)
    hole = _on_the_route(facts, at)
    operation = OPERATIONS[at.operation]
    if kind is MarkKind.DONE:
        if not operation.by_hand:
            raise Refused(
                f"{operation.title} is done when the facts show it, not by a mark: record what was done.", "operation"
            )
        if operation.counts and count is None and not _counted_by_place(facts, at.operation):
            raise Refused(f"Count the {operation.counts}: type how many.", "count")
        pass_or_refuse(conn, facts, at.operation, hole, by, hold_reason)
    if kind is MarkKind.AGAIN and not words:
        raise Refused("Say why it is to be done again.", "words")
    hole_id = None if hole is None else hole.hole_id
    record_fact(conn, NewOperationMark(job_id, at.operation, hole_id, kind, _then(ago_s), words, count), by)


def _counted_by_place(facts: JobFacts, operation: Operation) -> bool:
    kind = PrepKind.PLUGS_IN if operation is Operation.PLUG else PrepKind.PLUGS_OUT
    return any(one.kind is kind for one in facts.standing(facts.prep_steps))


def pass_or_refuse(conn: Conn, facts: JobFacts, operation: Operation, hole: Hole | None, by: UUID, reason: str) -> None:
    """Pass every hold point that stands before an operation, by name and reason; without a reason refuse it."""
    holds = in_the_way(facts, operation, hole, people.get_person(conn, by).name, evidence_of_route(facts))
    if not holds:
        return
    if not reason.strip():
        said = " ".join(f"{one.words}: {one.missing}." for one in holds)
        raise Refused(
            f"Hold point. {said} See to it first, or give the reason to pass it by your name.", "hold_reason",
            RefusalCode.HOLD,
        )  # fmt: skip
    for one in holds:
        _pass(conn, facts, one, by, reason)


def _pass(conn: Conn, facts: JobFacts, hold: HoldNow, by: UUID, reason: str) -> None:
    hole = None if hold.hole is None else facts.hole_numbered(hold.hole)
    hole_id = None if hole is None else hole.hole_id
    record_fact(conn, NewHoldPass(facts.job.job_id, hold.hold, hold.before, hole_id, reason), by)


def _on_the_route(facts: JobFacts, at: AtOperation, all_holes: bool = False) -> Hole | None:
    """Return the hole that is meant; refuse an operation that the route of the job does not have.

    ``all_holes`` where an operation that is done hole by hole can be meant as a whole.
    """
    leg = next((one for one in plan_of(facts) if one.operation is at.operation), None)
    title = OPERATIONS[at.operation].title
    if leg is None:
        raise Refused(f"The route of this job has no “{title}”: choose one of its operations.", "operation")
    if OPERATIONS[at.operation].scope is Scope.BLOCK:
        if at.hole is not None:
            raise Refused(f"“{title}” is of the whole block: leave the hole out.", "hole")
        return None
    if at.hole is None and all_holes:
        return None
    hole = next((one for one in leg.holes if one.number == at.hole), None)
    if hole is None:
        named = ", ".join(str(one.number) for one in leg.holes)
        raise Refused(f"“{title}” is done hole by hole: name one of {named}.", "hole")
    return hole


def _then(ago_s: float) -> datetime:
    return datetime.now(UTC) - timedelta(seconds=ago_s)


def run_clock(
    conn: Conn, job_id: UUID, at: AtOperation, running: bool, by: UUID, ago_s: float = 0, bill: Bill = Bill.AGREED
) -> None:
    """Start or stop the working clock of a person."""
    facts = lock_job_facts(conn, job_id)
    hole = _on_the_route(facts, at, all_holes=True)
    name = people.get_person(conn, by).name
    runs = any(one.by == name for one in clocks_of(facts, datetime.now(UTC)).running)
    if not running and not runs:
        raise Refused(f"No clock of {name} runs on this job: start it first.", "running")
    hole_id = None if hole is None else hole.hole_id
    record_fact(conn, NewClockMark(job_id, at.operation, hole_id, running, _then(ago_s), bill), by)


@dataclass(frozen=True, slots=True)
class WorkedThen:
    """Work of before that no clock was started for: at what, from when, for how long, and whether it is on the bill."""

    at: AtOperation
    started: datetime
    hours: float
    bill: Bill


def note_worked(conn: Conn, job_id: UUID, worked: WorkedThen, by: UUID) -> None:
    """Write down work that was done while no clock ran; what was on the clock then is not counted twice."""
    facts = lock_job_facts(conn, job_id)
    hole = _on_the_route(facts, worked.at, all_holes=True)
    name, now = people.get_person(conn, by).name, datetime.now(UTC)
    ends = worked.started + timedelta(hours=worked.hours)
    if ends > now:
        raise Refused("That work ends later than now: start the clock instead, or type when it began.", "started")
    if (now - worked.started).total_seconds() > LONGEST_AGO_S:
        raise Refused("That is more than a year ago: check the day.", "started")
    if any(one.by == name and one.start < ends and worked.started < one.end for one in worked_of(facts, now)):
        raise Refused(f"A clock of {name} ran on this job then: type the time beside it.", "started")
    hole_id = None if hole is None else hole.hole_id
    for running, moment in ((True, worked.started), (False, ends)):
        record_fact(conn, NewClockMark(job_id, worked.at.operation, hole_id, running, moment, worked.bill), by)


def note_wait(
    conn: Conn, job_id: UUID, at: AtOperation, cause: WaitCause, words: str, expected: date | None, by: UUID,
    since: date | None = None,
) -> None:  # fmt: skip
    """Write down what an operation waits for, since when, and when it is expected."""
    facts = lock_job_facts(conn, job_id)
    # Parts are ordered on a route that has nothing to order yet.
    hole = None if at.operation is Operation.ORDER else _on_the_route(facts, at, all_holes=True)
    now = datetime.now(UTC)
    began = now if since is None else datetime.combine(since, now.timetz())
    if began > now:
        raise Refused("It cannot wait since a day that is still to come.", "since")
    if expected is not None and expected < began.date():
        raise Refused("It is expected before it was waited for: check both days.", "expected")
    hole_id = None if hole is None else hole.hole_id
    record_fact(conn, NewWait(job_id, at.operation, hole_id, cause, words, began, expected), by)


def end_wait(conn: Conn, job_id: UUID, wait_id: UUID, words: str, by: UUID) -> None:
    """Write down that what was waited for is here."""
    facts = lock_job_facts(conn, job_id)
    if not any(one.wait_id == wait_id for one in facts.standing(facts.waits)):
        raise Refused("There is no such wait on this job any more: look at the route again.", "wait_id")
    if wait_id in facts.standing_wait_ends:
        raise Refused("That wait has come to its end already.", "wait_id", RefusalCode.STALE)
    record_fact(conn, NewWaitEnd(job_id, wait_id, datetime.now(UTC), words), by)


def choose_school(
    conn: Conn, job_id: UUID, question: str, side: str, reason: str, by: UUID, only_preview: bool
) -> SchoolChange:
    """Let a job follow the side of a question; says what that changes, and changes nothing where it is a preview."""
    facts = lock_job_facts(conn, job_id)
    school = _known_school(question, side, schools_of(facts.card))
    if side_of(facts, question) == side:
        raise Refused(f"The job follows “{side}” already.", "side")
    change = _change(facts, question, side)
    if not only_preview:
        if not reason:
            raise Refused(f"Say why this job follows “{side}” in “{school.title}”.", "reason")
        record_fact(conn, NewSchoolChoice(job_id, question, side, reason), by)
    return change


def _known_school(question: str, side: str, offered: tuple[School, ...]) -> School:
    school = next((one for one in offered if one.question == question), None)
    if school is None:
        raise Refused("That question does not arise for this construction.", "question")
    if school.side(side) is None:
        raise Refused(f"Choose one of: {', '.join(one.name for one in school.sides)}.", "side")
    return school


def _change(facts: JobFacts, question: str, side: str) -> SchoolChange:
    """Hold the route before against the route after: what is read again, and hold points that come or go."""
    other = on_side(facts, question, side)
    before, after = route_of(facts), route_of(other)
    was, will = ({(one.hold, one.hole) for one in route.holds if one.missing} for route in (before, after))
    held = {(one.hold, one.hole): one for one in (*before.holds, *after.holds)}
    said = [f"asks: {held[key].missing}" for key in will - was] + [
        f"no longer: {held[key].words}" for key in was - will
    ]
    return SchoolChange(fork_of(facts, question, side), tuple(reopened_of(other)), tuple(sorted(said)))


def choose_shop_school(conn: Conn, question: str, side: str, by: UUID) -> None:
    """Let the shop follow the side of a question in jobs it takes in from now on."""
    _known_school(question, side, SCHOOLS)
    schools.add_shop_school(conn, question, side, by)


def follow_the_shop(conn: Conn, facts: JobFacts, by: UUID) -> None:
    """Write down for a job just taken in the sides that the shop follows, so that later changes leave it alone."""
    asked = {one.question for one in schools_of(facts.card)}
    for chosen in schools.list_shop_schools(conn):
        if chosen.question in asked:
            record_fact(conn, NewSchoolChoice(facts.job.job_id, chosen.question, chosen.side, "as the shop does"), by)
