"""The calendar of a person, a machine or the shop as iCalendar (RFC 5545), to be read by any calendar program."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

import icalendar


@dataclass(frozen=True, slots=True)
class Entry:
    """One entry: what, more words about it, from when till when; one that only reminds has an alarm at its begin."""

    uid: str
    title: str
    words: str
    start: datetime
    end: datetime
    alarm: bool = False


def write_calendar(name: str, entries: Iterable[Entry], written_at: datetime) -> bytes:
    """Write entries as iCalendar, in the shop's own time zone, which is described within.

    Parameters
    ----------
    name : str
        What the calendar is called.
    entries : iterable of Entry
        With times of one zone.
    written_at : datetime
        When it was written.

    Returns
    -------
    bytes
        The file.
    """
    calendar = icalendar.Calendar()
    calendar.add("prodid", "-//Vallostasis//calendar//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for one in entries:
        event = icalendar.Event()
        event.add("uid", one.uid)
        event.add("dtstamp", written_at)
        event.add("dtstart", one.start)
        event.add("dtend", one.end)
        event.add("summary", one.title)
        if one.words:
            event.add("description", one.words)
        if one.alarm:
            alarm = icalendar.Alarm()
            alarm.add("action", "DISPLAY")
            alarm.add("description", one.title)
            alarm.add("trigger", timedelta(0))
            event.add_component(alarm)
        calendar.add_component(event)
    calendar.add_missing_timezones()
    content: bytes = calendar.to_ical()
    return content
