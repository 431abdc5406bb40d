"""What a value is worth that picks the readings farthest off: a range, an amplitude, the highest of several.

Scatter alone gives such values something to show: a round bore reads out of round. The factors here widen the ± so
that it covers the truth however round the part is, and say what scatter alone shows.

References
----------
.. [1] H. A. David, H. N. Nagaraja, Order Statistics (Wiley, 2003), section 2.3: distribution of the range.
.. [2] J. W. Tukey, The Problem of Multiple Comparisons (1953): the range of the errors bounds every difference at once.
.. [3] JCGM 102:2011, Supplement 2 to the GUM, 6.5: coverage regions of two quantities.
"""

from collections import Counter
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from math import hypot, pi, sqrt

import numpy as np
from numpy.typing import NDArray
from scipy import optimize, special

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.uncertainty.budget import (
    Bound,
    Budget,
    Estimate,
    Stated,
    difference_of,
    stated,
    student_widening,
    value_of,
)

# Normal values within ± this many sigma, in this many steps: what lies beyond is below what a float resolves.
_SIGMAS, _STEPS = 9.0, 601
_DIRECTIONS = 180


def probability_of(coverage_factor: float) -> float:
    """Probability that k standard deviations cover for a normal distribution: 2Φ(k) − 1. [1] By definition."""
    return float(2 * special.ndtr(coverage_factor) - 1)


def _chance_of_range(width: float, points: int) -> float:
    """Chance that the range of so many standard normal values is no wider: n∫φ(x)(Φ(x+w) − Φ(x))^(n−1)dx. [1]"""
    x = np.linspace(-_SIGMAS, _SIGMAS, _STEPS)
    inside = special.ndtr(x + width) - special.ndtr(x)
    return float(points * np.trapezoid(np.exp(-(x**2) / 2) / sqrt(2 * pi) * inside ** (points - 1), x))


@lru_cache(maxsize=512)
def range_factor(points: int, coverage_factor: float, groups: int = 1) -> float:
    """How wide the errors of so many readings lie apart, in standard deviations, with the chance that k covers.

    Parameters
    ----------
    points : int
        Readings that greatest less least is taken of, at least two.
    coverage_factor : float
        k; the chance is 2Φ(k) − 1.
    groups : int
        Of so many such ranges the widest is taken.

    Returns
    -------
    float
        2√2 for two readings at k = 2. [1]

    Raises
    ------
    OutOfDomain
        If there are fewer than two readings or no group.

    Notes
    -----
    |range read − true range| is never more than the range of the errors, so this covers whatever the true shape; where
    two readings stand clear of all others it is wider than it need be [1]_, [2]_ of the module.
    """
    if points < 2 or groups < 1:
        raise OutOfDomain("a range needs two readings", "readings")
    chance = probability_of(coverage_factor) ** (1 / groups)
    return float(optimize.brentq(lambda width: _chance_of_range(width, points) - chance, 0.01, 2 * _SIGMAS))


@lru_cache(maxsize=512)
def range_bias(points: int, groups: int = 1) -> float:
    """What greatest less least of so many readings of one size shows on the average, in standard deviations. [1]

    Notes
    -----
    d2 for one group; the mean of the widest of several by integrating what its chance leaves. [1]_ of the module.
    """
    widths = np.linspace(0, 2 * _SIGMAS, 181)
    left = [1 - min(1.0, _chance_of_range(float(width), points)) ** groups for width in widths]
    return float(np.trapezoid(left, widths))


@lru_cache(maxsize=512)
def farthest_factor(points: int, coverage_factor: float) -> float:
    """How far the farthest of so many errors lies off, in standard deviations, with the chance that k covers. [1]

    Notes
    -----
    (2Φ(z) − 1)^n = 2Φ(k) − 1: independent errors, [1]_ of the module.
    """
    chance = probability_of(coverage_factor) ** (1 / points)
    return float(special.ndtri((1 + chance) / 2))


def amplitude_factor(covariance: NDArray[np.float64], coverage_factor: float) -> float:
    """How far two errors together lie off, as a length, with the chance that k covers.

    Parameters
    ----------
    covariance : array, shape (2, 2)
        Of the two. [m²]
    coverage_factor : float
        k; the chance is 2Φ(k) − 1.

    Returns
    -------
    float
        Radius of the circle that holds the error with that chance. [m]

    Notes
    -----
    |amplitude read − true amplitude| is never more than the length of the error. With eigenvalues λ1, λ2 the chance is
    1/2π ∫ 1 − exp(−R²/(2(λ1cos²φ + λ2sin²φ))) dφ, which the trapezoidal rule over whole turns finds to the last digit;
    [3]_ of the module.
    """
    values = np.clip(np.linalg.eigvalsh(covariance), 0.0, None)
    widest = sqrt(float(values[-1]))
    if widest == 0.0:
        return 0.0
    return widest * _radius(round(float(values[0] / values[-1]), 3), coverage_factor)


@lru_cache(maxsize=2048)
def _radius(ratio: float, coverage_factor: float) -> float:
    turns = np.linspace(0, 2 * pi, _DIRECTIONS, endpoint=False)
    along = np.cos(turns) ** 2 + ratio * np.sin(turns) ** 2
    chance = probability_of(coverage_factor)

    def left(radius: float) -> float:
        return float(1 - np.mean(np.exp(-(radius**2) / (2 * np.maximum(along, 1e-12)))) - chance)

    return float(optimize.brentq(left, 0.1, 2 * _SIGMAS))


def amplitude_bias(covariance: NDArray[np.float64]) -> float:
    """What an amplitude shows on the average where there is none. [m]

    Notes
    -----
    Mean length of a normal error in two directions: √(π/2)·σ where both are alike, by averaging over directions
    otherwise; [3]_ of the module.
    """
    low, high = np.clip(np.linalg.eigvalsh(covariance), 0.0, None)
    turns = np.linspace(0, 2 * pi, _DIRECTIONS, endpoint=False)
    return float(sqrt(pi / 2) * np.mean(np.sqrt(high * np.cos(turns) ** 2 + low * np.sin(turns) ** 2)))


def range_of(what: str, places: Sequence[Estimate], coverage_factor: float, groups: int = 1) -> Stated:
    """Greatest less least of several readings, with a ± that covers the truth however even they are.

    Parameters
    ----------
    what : str
        What it is called in its budget.
    places : sequence of Estimate, at least two
        One for each place. [m]
    coverage_factor : float
        k.
    groups : int
        It is the widest of so many such ranges.

    Returns
    -------
    Stated
        What all of them share cancels. [m]

    Raises
    ------
    OutOfDomain
        If there are fewer than two.

    Notes
    -----
    U = q·u with q of range_factor and u of the place known least well. Of a zero that moved somewhere between two looks
    nobody knows which of the places it shifts against which: the whole move is added. [2]_ of the module.
    """
    if len(places) < 2:
        raise OutOfDomain("a range needs two readings", "readings")
    sizes = [value_of(one) for one in places]
    seen = Counter(name for one in places for name in one.errors)
    uncertain = sorted(places, key=lambda one: _not_in_all(one, seen, len(places)), reverse=True)
    apart = stated(what, difference_of(uncertain[0], uncertain[1]), coverage_factor).budget
    moved = {move.check: abs(move.moved_m) for one in places for move in one.moves}
    bounds = tuple(Bound("zero moved somewhere between two looks", size) for size in moved.values())
    factor = range_factor(len(places), coverage_factor, groups)
    budget = _widened(apart, factor / sqrt(2), bounds,
                      range_bias(len(places), groups) * apart.standard_m / sqrt(2))  # fmt: skip
    return Stated(max(sizes) - min(sizes), budget)


def _not_in_all(one: Estimate, seen: Mapping[Hashable, int], places: int) -> float:
    """What a place has that not every place has. [m]"""
    return sqrt(sum((source.contribution_m * weight) ** 2 for name, (source, weight) in one.errors.items()
                    if seen[name] < places))  # fmt: skip


def amplitude_of(what: str, parts: tuple[Estimate, Estimate], times: float, coverage_factor: float) -> Stated:
    """Length of two estimates at right angles, such as high to low of a plane or an ovality.

    Parameters
    ----------
    what : str
        What it is called in its budget.
    parts : tuple of two Estimate
        Along and across. [m]
    times : float
        What makes the length into the value: 2 for high to low, and for greatest less least of an ellipse.
    coverage_factor : float
        k.

    Returns
    -------
    Stated
        The budget is that of the direction known least well, its coverage that of both. [m]

    Notes
    -----
    U is times the radius of amplitude_factor; [3]_ of the module.
    """
    one, other = (stated(what, part, coverage_factor) for part in parts)
    covariance = covariance_of(parts[0], parts[1])
    worse = max(one.budget, other.budget, key=lambda budget: budget.standard_m)
    radius, bias = amplitude_factor(covariance, coverage_factor), amplitude_bias(covariance)
    # Two directions at once are wider than either; the few repeats behind a spread widen them as they do one.
    factor = coverage_factor if worse.standard_m == 0 else radius / worse.standard_m
    moved = {move.check: abs(move.moved_m) for part in parts for move in part.moves}
    spans = one.budget.bounds or other.budget.bounds
    bounds = tuple(Bound("zero moved somewhere between two looks", size) for size in moved.values()) if spans else ()
    scaled = replace(worse, errors=tuple((source, times * weight) for source, weight in worse.errors),
                     standard_m=times * worse.standard_m)  # fmt: skip
    return Stated(times * hypot(one.value_m, other.value_m), _widened(scaled, factor, bounds, times * bias))


def direction_within(parts: tuple[Estimate, Estimate], coverage_factor: float) -> float | None:
    """How far the direction of an amplitude may be off, None where the truth may have none. [rad]

    Notes
    -----
    Seen from the origin, the circle of amplitude_factor about what was read spans ± arcsin(R/A).
    Closed form.
    """
    length = hypot(*(value_of(part) for part in parts))
    widening = max(stated("", part, 1.0).budget.coverage for part in parts)
    radius = amplitude_factor(covariance_of(*parts), coverage_factor) * widening
    return None if radius >= length else float(np.arcsin(radius / length))


def covariance_of(one: Estimate, other: Estimate) -> NDArray[np.float64]:
    """Covariance of two estimates from the errors they share. [m²]

    Notes
    -----
    Σ c_i·c_j·u², GUM F.1.2.3.
    """
    across, first, second = 0.0, 0.0, 0.0
    for name, (source, weight) in one.errors.items():
        size = (source.sensitivity * source.standard) ** 2
        first += weight**2 * size
        known = other.errors.get(name)
        if known is not None:
            across += weight * known[1] * size
    for source, weight in other.errors.values():
        second += (weight * source.sensitivity * source.standard) ** 2
    return np.array([[first, across], [across, second]])


def _widened(budget: Budget, factor: float, bounds: tuple[Bound, ...], bias_m: float) -> Budget:
    """A budget with another factor in place of k, as much wider for few degrees of freedom as it was."""
    few = student_widening(budget.freedom)
    return replace(budget, coverage=factor * few, bounds=bounds, bias_m=bias_m)
