"""Playing the invented shop's time into the store: hours, absences, promises, work of before, parts that come late."""

from datetime import UTC, date, datetime, time, timedelta
from decimal import Decimal
from uuid import UUID, uuid4
from zoneinfo import ZoneInfo

from vallostasis.core.calendar.open_time import USUAL_WEEK
from vallostasis.demo import shop_calendar as play
from vallostasis.services import calendar, route, shop_time
from vallostasis.services.route import AtOperation
from vallostasis.store import jobs
from vallostasis.store.fact_rows import list_facts
from vallostasis.store.rows import Conn

_HOME = ZoneInfo(play.ZONE)
SATURDAY = 5


def open_day(days: int, today: date) -> date:
    """Return the weekday so many weekdays from today, before it where the number is below nought."""
    day, step, left = today, 1 if days >= 0 else -1, abs(days)
    while left or day.weekday() >= SATURDAY:
        day += timedelta(days=step)
        left -= day.weekday() < SATURDAY and left > 0
    return day


def _day(days: int) -> date:
    return open_day(days, datetime.now(_HOME).date())


def day_before(days: int) -> date:
    """Return the weekday so many weekdays before today."""
    return _day(-days)


def load_calendar(conn: Conn, people: dict[str, UUID]) -> None:
    """Load the shop's hours and absences, what was promised and what was worked on the invented jobs."""
    by_number = {one.number: one.job_id for one in jobs.list_jobs(conn)}
    shop_time.set_open_hours(conn, play.ZONE, USUAL_WEEK, people["Ines"])
    for away in play.AWAY:
        first, last = _day(away.in_days), _day(away.in_days + away.days - 1)
        starts, ends = datetime.combine(first, time()), datetime.combine(last + timedelta(days=1), time())
        shop_time.add_absence(conn, shop_time.Absence(uuid4(), away.what, starts, ends, away.words), people["Ines"])
    for work in play.WORK:
        _work(conn, by_number[work.number], people[work.by], work)
    for wait in play.WAITS:
        _wait(conn, by_number[wait.number], people[wait.by], wait)
    for one in play.PROMISES:
        own_last = None if one.last_in_days is None else _day(one.last_in_days)
        cost = Decimal(one.day_cost) if one.day_cost else None
        typed = calendar.PromiseTyped(_day(one.in_days), one.told, own_last, cost)
        calendar.promise(conn, by_number[one.number], typed, people[one.by])


def _work(conn: Conn, job_id: UUID, by: UUID, work: play.WorkPlay) -> None:
    began = datetime.combine(_day(-work.days_ago), work.at, _HOME)
    then = route.WorkedThen(AtOperation(work.operation), began, work.hours, work.bill)
    route.note_worked(conn, job_id, then, by)


def _wait(conn: Conn, job_id: UUID, by: UUID, wait: play.MovedPlay) -> None:
    today = datetime.now(UTC).date()
    at = AtOperation(wait.operation)
    route.note_wait(conn, job_id, at, wait.cause, wait.words, _day(wait.expected_in), by,
                    today - timedelta(days=wait.since_days))  # fmt: skip
    if wait.comes_in is not None:
        newest = list_facts(conn, "waits", job_id)[-1]
        calendar.move_wait(conn, job_id, newest.wait_id, _day(wait.comes_in), wait.because, by)
