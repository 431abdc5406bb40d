"""The shop as the calendar needs it: hours, people, machines, absences, visits, hours learned from every job."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, time, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo, available_timezones

from vallostasis.core.calendar.of_jobs import ShopTime
from vallostasis.core.hours.learned import PlannedHours, learn_hours
from vallostasis.core.hours.log import spent_on
from vallostasis.core.hours.of_passes import bore_passes, cut_passes, with_passes
from vallostasis.core.records.calendar import AwaySpan, Machine, Visit
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.services.refused import Refused
from vallostasis.store import people, shop_time
from vallostasis.store.rows import Conn
from vallostasis.store.shop_time import Week

MINUTES_A_DAY = 24 * 60
# Past that nobody knows yet who is away.
FURTHEST = timedelta(days=400)


def learned_hours(jobs: Sequence[JobFacts], now: datetime) -> dict[Operation, PlannedHours]:
    """Return the hours of every operation as the jobs of the shop taught them: as a whole, else by their passes."""
    whole = learn_hours([one for facts in jobs for one in spent_on(facts, now)])
    return with_passes(whole, {Operation.CUT: cut_passes(jobs), Operation.BORE: bore_passes(jobs)})


def shop_now(conn: Conn, jobs: Sequence[JobFacts], now: datetime) -> ShopTime:
    """Bring together what the calendar needs to know of the shop."""
    names = tuple(one.name for one in people.list_people(conn))
    return ShopTime(shop_time.open_hours(conn), names, learned_hours(jobs, now), shop_time.list_away(conn),
                    shop_time.list_machines(conn), shop_time.list_visits(conn, now))  # fmt: skip


def set_open_hours(conn: Conn, zone: str, week: Week, by: UUID) -> None:
    """Save the hours of the shop."""
    if zone not in available_timezones():
        raise Refused(f"“{zone}” is no time zone: choose one of the list.", "zone")
    if not any(week):
        raise Refused("The shop is open on some day of the week: give one its hours.", "week")
    for day in week:
        before = 0
        for opens, shuts in day:
            if not before <= opens < shuts <= MINUTES_A_DAY:
                raise Refused("A day's hours follow each other, each begins before it ends.", "week")
            before = shuts
    shop_time.set_open_hours(conn, zone, week, by)


@dataclass(frozen=True, slots=True)
class Absence:
    """Who or what cannot be had, from a local moment to another; an empty name is the whole shop."""

    away_id: UUID
    what: str
    starts: datetime
    ends: datetime
    words: str


def add_absence(conn: Conn, absence: Absence, by: UUID) -> None:
    """Write down an absence of a person, of a machine or of the whole shop."""
    known = {"", *(one.name for one in people.list_people(conn)), *(one.value for one in Machine)}
    if absence.what not in known:
        raise Refused(f"Nobody and nothing here is called “{absence.what}”: choose from the list.", "what")
    starts, ends = _in_order(conn, absence.starts, absence.ends)
    shop_time.add_away(conn, AwaySpan(absence.away_id, absence.what, starts, ends, absence.words), by)


def _in_order(conn: Conn, starts: datetime, ends: datetime) -> tuple[datetime, datetime]:
    """Take moments without a zone as the shop's own; refuse what ends before it begins."""
    zone = ZoneInfo(shop_time.open_hours(conn).zone)
    starts, ends = (one if one.tzinfo else one.replace(tzinfo=zone) for one in (starts, ends))
    if ends.time() == time() and ends == starts:
        ends = starts + timedelta(days=1)
    if ends <= starts:
        raise Refused("It ends before it begins: check both.", "ends")
    if ends - starts > FURTHEST:
        raise Refused("That is longer than a year: check both days.", "ends")
    return starts, ends


def add_visit(conn: Conn, visit: Visit, by: UUID) -> None:
    """Write down that a machinist comes from elsewhere, for what, and what he needs ready."""
    starts, ends = _in_order(conn, visit.starts_at, visit.ends_at)
    if not visit.operations:
        raise Refused("Say what he comes for: choose an operation or more.", "operations")
    kept = Visit(visit.visit_id, visit.name, visit.job_id, visit.operations, starts, ends, visit.needs)
    shop_time.add_visit(conn, kept, by)


def take_back(conn: Conn, away_id: UUID | None, visit_id: UUID | None, by: UUID, now: datetime) -> None:
    """Take back an absence or a visit that does not come about."""
    if away_id is not None and all(one.away_id != away_id for one in shop_time.list_away(conn)):
        raise Refused("That absence is not there any more: look at the calendar again.", "away_id")
    if visit_id is not None and all(one.visit_id != visit_id for one in shop_time.list_visits(conn, now)):
        raise Refused("That visit is not there any more: look at the calendar again.", "visit_id")
    shop_time.take_back(conn, away_id, visit_id, by)
