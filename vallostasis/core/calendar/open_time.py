"""When the shop is open, as one axis on which only open time counts: what is laid out on it falls into no night.

By definition of open hours; the usual ones are common practice, no published source.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from functools import cached_property
from itertools import pairwise
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.errors import OutOfDomain

# Work is laid out in quarters of an hour.
SLOT_H = 0.25
SLOT_S = 900
DAYS_A_WEEK = 7

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class OpenHours:
    """The shop's own hours: its time zone, spans of each weekday from Monday on in minutes of the day, days shut."""

    zone: str
    week: tuple[tuple[tuple[int, int], ...], ...]
    shut: frozenset[date] = frozenset()

    def spans_of(self, day: date) -> tuple[tuple[int, int], ...]:
        """Return the open spans of a day; none where it is shut. [min] By definition."""
        return () if day in self.shut else self.week[day.weekday()]


# Monday to Friday, eight hours with a break at noon. Common practice, no published source.
USUAL_DAY = ((8 * 60, 12 * 60), (13 * 60, 17 * 60))
USUAL_WEEK = (USUAL_DAY,) * 5 + ((), ())
USUAL_HOURS = OpenHours("UTC", USUAL_WEEK)


@dataclass(frozen=True)
class OpenTime:
    """The axis: from a moment on, so many days of open quarters of an hour.

    Parameters
    ----------
    hours : OpenHours
        When the shop is open, in its own time zone: daylight saving moves its hours, not the axis.
    start : datetime
        Where the axis begins.
    days : int
        How far it reaches.
    """

    hours: OpenHours
    start: datetime
    days: int

    def __post_init__(self) -> None:
        """Refuse an axis with nothing on it."""
        if not len(self._begins):
            raise OutOfDomain("the shop is never open: give it hours on some day of the week", "week")

    @property
    def slots(self) -> int:
        """How many quarters there are. By definition."""
        return len(self._begins)

    @cached_property
    def zone(self) -> ZoneInfo:
        """The time zone of the shop."""
        return ZoneInfo(self.hours.zone)

    @cached_property
    def _begins(self) -> NDArray[np.int64]:
        """When each quarter begins, in seconds since the epoch of UTC."""
        first = self.start.astimezone(self.zone).date()
        floor = self.start.timestamp()
        begins: list[int] = []
        for day in (first + timedelta(days=one) for one in range(self.days)):
            for opens, shuts in self.hours.spans_of(day):
                begins += self._quarters(day, opens, shuts)
        return np.array([one for one in begins if one >= floor], dtype=np.int64)

    def _quarters(self, day: date, opens: int, shuts: int) -> Iterable[int]:
        minutes = range(opens, shuts - 14, 15)
        midnight = datetime.combine(day, time(), self.zone)
        return (int((midnight + timedelta(minutes=one)).astimezone(UTC).timestamp()) for one in minutes)

    @cached_property
    def day_of_slot(self) -> NDArray[np.int64]:
        """Of each quarter the ordinal of its day in the shop's zone."""
        days = [datetime.fromtimestamp(int(one), self.zone).toordinal() for one in self._begins]
        return np.array(days, dtype=np.int64)

    @cached_property
    def open_days(self) -> tuple[tuple[int, int], ...]:
        """First and last + 1 quarter of each open day."""
        edges = np.flatnonzero(np.diff(self.day_of_slot)) + 1
        bounds = [0, *(int(one) for one in edges), self.slots]
        return tuple(pairwise(bounds))

    def slot_from(self, at: datetime) -> int:
        """Return the first quarter from a moment on, the length of the axis where none is. By definition."""
        return int(np.searchsorted(self._begins, at.timestamp(), side="left"))

    def last_of_day(self, day: date) -> int:
        """Return where a day ends on the axis: work that ends there is ready on that day. By definition."""
        return int(np.searchsorted(self.day_of_slot, day.toordinal(), side="right"))

    def day_begins(self, day: date) -> int:
        """Return the first quarter of a day, or of the next open one. By definition."""
        return int(np.searchsorted(self.day_of_slot, day.toordinal(), side="left"))

    def begins_at(self, slot: float) -> datetime:
        """Return when work that starts at a place of the axis begins, in the shop's zone. By definition."""
        at = min(int(slot), self.slots - 1)
        return datetime.fromtimestamp(int(self._begins[at]) + SLOT_S * (slot - at), self.zone)

    def ends_at(self, slot: float) -> datetime:
        """Return when work that reaches a place ends: the evening before, not the morning after. House rule."""
        whole = int(np.ceil(slot)) - 1
        return datetime.fromtimestamp(int(self._begins[min(max(whole, 0), self.slots - 1)])
                                      + SLOT_S * (slot - max(whole, 0)), self.zone)  # fmt: skip

    def after_wait(self, ends: Floats, hours: float) -> Floats:
        """Return from where on the axis something may follow that has to stand for so long, shop open or not.

        Parameters
        ----------
        ends : ndarray
            Where on the axis what it waits for ends.
        hours : float
            How long it stands by the clock. [h]

        Returns
        -------
        ndarray
            The first place that is that much later. By definition.
        """
        whole = np.clip(np.ceil(ends).astype(np.int64) - 1, 0, self.slots - 1)
        moments = self._begins[whole] + SLOT_S * (ends - whole) + 3600.0 * hours
        at = np.searchsorted(self._begins, moments, side="right") - 1
        at = np.clip(at, 0, self.slots - 1)
        within = (moments - self._begins[at]) / SLOT_S
        return np.where(within <= 1.0, at + np.maximum(within, 0.0), at + 1.0)

    def after_days(self, days: Floats) -> Floats:
        """Return the first place on a day or after it; days as ordinals, with their parts. By definition."""
        return np.searchsorted(self.day_of_slot, np.ceil(days), side="left").astype(np.float64)


def slots_of(hours: float) -> int:
    """Return how many quarters hours of work fill, at least one. [1] By definition."""
    return max(1, round(hours / SLOT_H))
