"""The calendar on its way out of the house: as a file that any calendar program reads."""

from datetime import datetime, timedelta
from uuid import NAMESPACE_URL, uuid5

from vallostasis.core.calendar.plan import Bar, Calendar, JobDates, reminders_of
from vallostasis.core.records.calendar import Machine
from vallostasis.documents.calendar_file import Entry, write_calendar
from vallostasis.services.calendar import calendar_now
from vallostasis.services.refused import Refused
from vallostasis.store.rows import Conn

A_MOMENT = timedelta(minutes=15)


def calendar_file(conn: Conn, person: str, machine: Machine | None, now: datetime) -> bytes:
    """Write the calendar of a person, of a machine, or of the whole shop with its reminders and promises."""
    calendar = calendar_now(conn, now)
    if person and all(one.name != person for one in calendar.problem.people):
        raise Refused(f"Nobody here is called {person}: choose from the list.", "person")
    entries = [
        _entry(job, bar)
        for job in calendar.jobs
        for bar in job.bars
        if (not person or bar.person == person) and (machine is None or bar.machine is machine)
    ]
    if machine is None:
        entries += _reminders(calendar, person)
    if not person and machine is None:
        entries += [entry for job in calendar.jobs if (entry := _promise(calendar, job)) is not None]
    name = person or (machine.value if machine is not None else "shop")
    return write_calendar(f"Vallostasis: {name}", entries, now)


def _uid(*parts: str) -> str:
    return f"{uuid5(NAMESPACE_URL, '/'.join(parts))}@vallostasis"


def _entry(job: JobDates, bar: Bar) -> Entry:
    name = job.facts.job.name
    holes = f", hole{'s' if len(bar.stage.holes) > 1 else ''} {', '.join(map(str, bar.stage.holes))}"
    words = [*([bar.person] if bar.person else []), *([bar.machine.value] if bar.machine else [])]
    what = _uid(str(job.facts.job.job_id), *(one.value for one in bar.stage.operations), str(bar.stage.is_freezer))
    title = f"{name}: {bar.stage.title}{holes if bar.stage.holes else ''}"
    return Entry(what, title, ", ".join(words), bar.start, bar.end)


def _reminders(calendar: Calendar, person: str) -> list[Entry]:
    whose = {bar.start for job in calendar.jobs for bar in job.bars if not person or bar.person == person}
    return [
        Entry(
            _uid("reminder", one.job, one.words), f"{one.job}: {one.words}", "", one.at, one.at + A_MOMENT, alarm=True
        )
        for one in reminders_of(calendar)
        if one.at in whose
    ]


def _promise(calendar: Calendar, job: JobDates) -> Entry | None:
    if job.promise is None or job.promise.promised is None:
        return None
    axis = calendar.problem.axis
    end = axis.ends_at(axis.last_of_day(job.promise.promised))
    name = job.facts.job.name
    return Entry(_uid("promise", str(job.facts.job.job_id)), f"{name}: promised", job.promise.told, end - A_MOMENT, end)
