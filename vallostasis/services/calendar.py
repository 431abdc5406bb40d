"""The calendar of the shop: laid out over all open jobs, tried with a change, promised, pinned."""

import threading
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime
from decimal import Decimal
from uuid import UUID
from zoneinfo import ZoneInfo

from vallostasis.core.calendar.of_jobs import ShopTime
from vallostasis.core.calendar.plan import Calendar, Moved, plan_shop, what_moves
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.calendar import Pin, WaitMoved
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.route.route import route_of
from vallostasis.services.refused import Refused
from vallostasis.services.shop_time import shop_now
from vallostasis.store import jobs, people, revisions, shop_time
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_calendar_facts import NewPin, NewPromise, NewWaitMoved
from vallostasis.store.rows import Conn

# Calendars that were laid out and still hold: a shop looks at one, and tries a change or two on it.
MOST_KEPT = 6
# What is tried stands after everything that is recorded.
TRIED_EVENT = 2**62

_lock = threading.Lock()
_kept: "OrderedDict[tuple[str, datetime], Calendar]" = OrderedDict()


@dataclass(frozen=True, slots=True)
class Open:
    """Jobs of the shop: those that are open and those that are released."""

    open: tuple[JobFacts, ...]
    finished: tuple[JobFacts, ...]


def open_jobs(conn: Conn) -> Open:
    """Return all jobs, those whose route is at its end apart."""
    every = [load_job_facts(conn, one.job_id) for one in jobs.list_jobs(conn)]
    finished = tuple(one for one in every if is_released(one))
    return Open(tuple(one for one in every if one not in finished), finished)


def is_released(facts: JobFacts) -> bool:
    """Whether the engine of a job went back to its owner."""
    return any(one.kind.operation is Operation.RELEASE and one.evidence.is_done for one in route_of(facts).operations)


def quarter(now: datetime) -> datetime:
    """Return the begun quarter of an hour: nothing is laid out before it, and within it the calendar stays."""
    return now.replace(minute=now.minute - now.minute % 15, second=0, microsecond=0)


def calendar_now(conn: Conn, now: datetime) -> Calendar:
    """Return the calendar as it is laid out of everything recorded; laid out anew only when that has changed."""
    at = quarter(now)
    key = (revisions.of_everything(conn), at)
    with _lock:
        known = _kept.get(key)
    if known is not None:
        return known
    found = open_jobs(conn)
    shop = shop_now(conn, [*found.open, *found.finished], now)
    try:
        calendar = _laid(found.open, found.finished, shop, at)
    except Refused as refused:
        # Pins that do not go together must not hide the calendar on which they are taken away.
        if not any(one.pins for one in found.open):
            raise
        unpinned = [replace(one, pins=()) for one in found.open]
        calendar = replace(_laid(unpinned, found.finished, shop, at), without_pins=str(refused))
    with _lock:
        _kept[key] = calendar
        while len(_kept) > MOST_KEPT:
            _kept.popitem(last=False)
    return calendar


def _laid(
    open_: Sequence[JobFacts],
    finished: Sequence[JobFacts],
    shop: ShopTime,
    now: datetime,
    before: Calendar | None = None,
) -> Calendar:
    try:
        return plan_shop(open_, finished, shop, now, before)
    except OutOfDomain as error:
        raise Refused(f"The calendar cannot be laid out: {error}.", "starts_at") from error


@dataclass(frozen=True, slots=True)
class Change:
    """What is tried on a job: a wait that comes another day, an operation pinned, a promise for another day."""

    job_id: UUID
    wait_id: UUID | None = None
    expected: date | None = None
    operation: Operation | None = None
    starts_at: datetime | None = None
    person: str = ""


@dataclass(frozen=True, slots=True)
class Tried:
    """The calendar before and after a change, what it moves, and what the owner may be told."""

    before: Calendar
    after: Calendar
    moved: tuple[Moved, ...]
    message: str


def try_change(conn: Conn, change: Change, now: datetime) -> Tried:
    """Lay out the calendar with a change, and record nothing."""
    before = calendar_now(conn, now)
    found = open_jobs(conn)
    facts = load_job_facts(conn, change.job_id)
    if all(one.job.job_id != change.job_id for one in found.open):
        raise Refused("That job is released: it is not on the calendar any more.", "job_id")
    changed = _with(conn, facts, change)
    tried = [changed if one.job.job_id == change.job_id else one for one in found.open]
    after = _laid(tried, found.finished, shop_now(conn, [*found.open, *found.finished], now), quarter(now), before)
    return Tried(before, after, what_moves(before, after), message_of(changed, change, after))


def _with(conn: Conn, facts: JobFacts, change: Change) -> JobFacts:
    if change.wait_id is not None:
        _check_wait(facts, change.wait_id)
        moved = WaitMoved(change.wait_id, change.expected, "", datetime.now(UTC), "", TRIED_EVENT)
        return replace(facts, waits_moved=(*facts.waits_moved, moved))
    if change.operation is None:
        raise Refused("Say what is tried: a wait, or an operation that is pinned.", "operation")
    starts = _check_pin(conn, facts, change.operation, change.starts_at, change.person)
    pin = Pin(change.operation, starts, change.person, datetime.now(UTC), "", TRIED_EVENT)
    return replace(facts, pins=(*facts.pins, pin))


def _check_wait(facts: JobFacts, wait_id: UUID) -> None:
    if any(one.wait_id == wait_id for one in facts.standing(facts.waits)) and wait_id not in facts.standing_wait_ends:
        return
    raise Refused("Nothing waits for that any more: look at the calendar again.", "wait_id")


def _check_pin(
    conn: Conn, facts: JobFacts, operation: Operation, starts_at: datetime | None, person: str
) -> datetime | None:
    stands = next((one for one in route_of(facts).operations if one.kind.operation is operation), None)
    title = OPERATIONS[operation].title
    if stands is None or stands.evidence.is_done:
        raise Refused(f"“{title}” is not to come on this job: pin one that is.", "operation")
    if person and person not in {one.name for one in people.list_people(conn)}:
        raise Refused(f"Nobody here is called {person}: choose from the list.", "person")
    if starts_at is None:
        return None
    moment = starts_at if starts_at.tzinfo else starts_at.replace(tzinfo=ZoneInfo(shop_time.open_hours(conn).zone))
    if moment < quarter(datetime.now(UTC)):
        raise Refused("It cannot begin in the past: choose a moment to come.", "starts_at")
    return moment


def day_words(day: date) -> str:
    """Return a day as it is said."""
    return f"{day:%a} {day.day} {day:%b}"


def message_of(facts: JobFacts, change: Change, after: Calendar) -> str:
    """Draft what the owner of a job is told about a change: what came, when it is ready, what is promised now."""
    dates = next(one for one in after.jobs if one.facts.job.job_id == facts.job.job_id)
    said = []
    if change.wait_id is not None:
        wait = next(one for one in facts.waits if one.wait_id == change.wait_id)
        comes = "nobody can say yet when they come" if change.expected is None else f"now {day_words(change.expected)}"
        was = "" if wait.expected is None else f", not {day_words(wait.expected)}"
        said.append(f"{facts.job.name}: we wait for {wait.words}, {comes}{was}.")
    if dates.ready is not None and dates.offered is not None:
        said.append(f"As planned the engine is ready {day_words(dates.ready.date())}; the day we can hold in nine of "
                    f"ten such weeks is {day_words(dates.offered)}.")  # fmt: skip
    said.append("Nothing is charged for waiting.")
    return " ".join(said)


def move_wait(conn: Conn, job_id: UUID, wait_id: UUID, expected: date | None, words: str, by: UUID) -> None:
    """Write down that what is waited for comes on another day."""
    facts = lock_job_facts(conn, job_id)
    _check_wait(facts, wait_id)
    since = next(one.since for one in facts.waits if one.wait_id == wait_id)
    if expected is not None and expected < since.date():
        raise Refused("It is expected before it was waited for: check the day.", "expected")
    record_fact(conn, NewWaitMoved(job_id, wait_id, expected, words), by)


@dataclass(frozen=True, slots=True)
class PromiseTyped:
    """The day a job is promised for, what was told, the owner's own last day and what each day after it costs him."""

    promised: date | None
    told: str
    last_day: date | None
    day_cost: Decimal | None


def promise(conn: Conn, job_id: UUID, typed: PromiseTyped, by: UUID) -> None:
    """Promise a job for a day, or take the promise back with the reason."""
    facts = lock_job_facts(conn, job_id)
    if typed.promised is None and not typed.told.strip():
        raise Refused("Say why nothing is promised any more: it stands on the tape.", "told")
    if typed.promised is not None and typed.promised < facts.job.opened_at.date():
        raise Refused("It is promised before it came in: check the day.", "promised")
    record_fact(conn, NewPromise(job_id, typed.promised, typed.told.strip(), typed.last_day, typed.day_cost), by)


def pin(conn: Conn, job_id: UUID, operation: Operation, starts_at: datetime | None, person: str, by: UUID) -> None:
    """Pin an operation to a moment, to a person, or to both; neither takes the pin away."""
    facts = lock_job_facts(conn, job_id)
    moment = _check_pin(conn, facts, operation, starts_at, person)
    record_fact(conn, NewPin(job_id, operation, moment, person), by)


def alarms_of(calendar: Calendar) -> tuple[str, ...]:
    """Say where an owner's own last day cannot be kept, and what that costs him."""
    said = [f"Laid out without pins. {calendar.without_pins}"] if calendar.without_pins else []
    for one in calendar.jobs:
        promise_ = one.promise
        if promise_ is None or promise_.last_day is None or one.offered is None or one.offered <= promise_.last_day:
            continue
        days = (one.offered - promise_.last_day).days
        cost = "" if promise_.day_cost is None else f"; it costs the owner {promise_.day_cost * days:,.0f}"
        said.append(f"{one.facts.job.name} has to be back by {day_words(promise_.last_day)}: nine in ten is "
                    f"{day_words(one.offered)}, {days} day{'s' if days > 1 else ''} later{cost}.")  # fmt: skip
    return tuple(said)
