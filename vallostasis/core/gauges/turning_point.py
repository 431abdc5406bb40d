"""Rocking a bore gauge: the size is the turning point of each rock, not any value on the way.

A two-point gauge that is tilted in a bore reads large; where it stands square to the axis the reading is least.
Common practice, no published source.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import cos
from statistics import median

import numpy as np

from vallostasis.core.errors import OutOfDomain

# A rock is told by the gauge rising this far from its least value on both sides. [m] Common practice.
RISE_M = 6e-6
LEAST_POINTS = 5
# Points of a rock that the parabola is laid through lie within this of its least value. [m]
FIT_WITHIN_M = 12e-6


@dataclass(frozen=True, slots=True)
class Rocked:
    """The size taken from a few rocks: their median, each rock's turning point, and how far they lie apart. [m]"""

    value_m: float
    turning_points_m: tuple[float, ...]

    @property
    def spread_m(self) -> float:
        """Greatest less least turning point. [m] By definition of a standard deviation."""
        return max(self.turning_points_m) - min(self.turning_points_m)


def chord_at_tilt(diameter_m: float, tilt_rad: float) -> float:
    """Return what a gauge reads across a bore that it stands tilted in: d/cos φ. [m], [rad]

    By definition: its line through the axis of a cylinder, seen from the side.
    """
    return diameter_m / cos(tilt_rad)


def rocks_in(times_s: Sequence[float], values_m: Sequence[float], rise_m: float = RISE_M) -> tuple[slice, ...]:
    """Split a stream into rocks: stretches with a least value and a rise on either side. [s], [m]

    Raises
    ------
    OutOfDomain
        If the numbers of times and values differ.

    House rule.
    """
    if len(times_s) != len(values_m):
        raise OutOfDomain(f"{len(times_s)} times do not fit {len(values_m)} values", "times_s")
    rocks: list[slice] = []
    start, least, top = 0, 0, 0
    falling = False
    for here, value in enumerate(values_m):
        if not falling:
            top = here if value >= values_m[top] else top
            if values_m[top] - value >= rise_m:
                falling, start, least = True, top, here
        elif value < values_m[least]:
            least = here
        elif value - values_m[least] >= rise_m:
            rocks.append(slice(start, here + 1))
            falling, top = False, here
    return tuple(rocks)


def turning_point(times_s: Sequence[float], values_m: Sequence[float], rise_m: float = RISE_M) -> Rocked | None:
    """Take the size from a stream that went through one or more turning points.

    Parameters
    ----------
    times_s : sequence of float, shape (n,)
        When each value came, rising; gaps where values dropped out do no harm. [s]
    values_m : sequence of float, shape (n,)
        What the gauge showed. [m]
    rise_m : float
        How far the gauge must rise on both sides of a least value. [m]

    Returns
    -------
    Rocked or None
        None where no rock is complete: the gauge never turned.

    Raises
    ------
    OutOfDomain
        If the numbers of times and values differ.

    Notes
    -----
    Tilt by φ lengthens the chord by about D·φ²/2, so near its turning point a steady rock is a parabola in time; a
    least-squares parabola through the points near the bottom gives its height there and takes the noise out of it.
    The least single value would be biased low by the noise.
    """
    points = []
    for rock in rocks_in(times_s, values_m, rise_m):
        found = _bottom(np.asarray(times_s[rock], dtype=float), np.asarray(values_m[rock], dtype=float))
        if found is not None:
            points.append(found)
    if not points:
        return None
    return Rocked(median(points), tuple(points))


def _bottom(times: np.ndarray, values: np.ndarray) -> float | None:
    centre = int(values.argmin())
    inside = values <= values[centre] + FIT_WITHIN_M
    low = high = centre
    while low > 0 and inside[low - 1]:
        low -= 1
    while high < len(values) - 1 and inside[high + 1]:
        high += 1
    near = slice(max(0, low - 1), high + 2)
    when, what = times[near] - times[centre], values[near]
    if len(when) < LEAST_POINTS:
        return None
    bend, slope, height = np.polyfit(when, what, 2)
    if not bend > 0:
        return None
    turning = -slope / (2 * bend)
    if not when[0] <= turning <= when[-1]:
        return None
    return float(height - slope**2 / (4 * bend))


def least_of_rocks(values_m: Sequence[float]) -> float:
    """The size from rocks read off by eye: the smallest is taken, a gauge that stands askew reads large. [m]

    Raises
    ------
    OutOfDomain
        If there is none.

    Notes
    -----
    Common practice, no published source.
    """
    if not values_m:
        raise OutOfDomain("rock the gauge at least once", "values_m")
    return min(values_m)


def is_rocked(kind: str) -> bool:
    """Whether gauges of a kind are rocked through their turning point."""
    return "bore" in kind.casefold()
