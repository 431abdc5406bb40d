"""Planned hours of an operation: from the shop's own log where it is long enough, before that common practice.

References
----------
.. [1] A. Gelman et al., Bayesian Data Analysis, normal data with a noninformative prior, section 3.2 (from memory).
"""

from collections.abc import Iterable
from dataclasses import dataclass
from math import exp, log, sqrt
from statistics import median, quantiles

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.route_marks import Operation

# From so many finished operations on the shop's own log replaces common practice. House rule.
ENOUGH = 5
# Quartiles of an operation that nobody logged yet, as shares of its planned hours. Common practice.
USUAL_LOW, USUAL_HIGH = 0.8, 1.4
# Between the quartiles of a normal distribution lie so many standard deviations. Closed form: 2·Φ⁻¹(0.75).
QUARTILES_APART = 1.3489795003921634
# No shop is so even that its next hour is certain: what it scatters at the least, as a share. House rule.
LEAST_SCATTER = 0.05


@dataclass(frozen=True, slots=True)
class SpentHours:
    """Hours that an operation took on a job, for so many units of it: holes, or one block. [h], [1]"""

    operation: Operation
    hours: float
    units: int


@dataclass(frozen=True, slots=True)
class PlannedHours:
    """Hours of one unit of an operation: median, quartiles, and how many logged ones they stand on. [h], [1]

    ``n`` is 0 for common practice. ``log_mean`` and ``log_scatter`` are mean and standard deviation of their natural
    logarithms, from which the next one is drawn.
    """

    low_h: float
    middle_h: float
    high_h: float
    n: int
    log_mean: float
    log_scatter: float

    @property
    def is_own(self) -> bool:
        """Whether it stands on the shop's own log. By definition."""
        return self.n > 0


def usual(hours: float) -> PlannedHours:
    """Return planned hours that nobody logged yet.

    Parameters
    ----------
    hours : float
        Of one unit. [h]

    Returns
    -------
    PlannedHours
        Quartiles at 0.8 and 1.4 of it. [h] Common practice, no published source.
    """
    if hours <= 0:
        return PlannedHours(0.0, 0.0, 0.0, 0, 0.0, 0.0)
    scatter = log(USUAL_HIGH / USUAL_LOW) / QUARTILES_APART
    return PlannedHours(USUAL_LOW * hours, hours, USUAL_HIGH * hours, 0, log(hours), scatter)


def learn_hours(spent: Iterable[SpentHours]) -> dict[Operation, PlannedHours]:
    """Learn the hours of every operation from the shop's own log.

    Parameters
    ----------
    spent : iterable of SpentHours
        Of operations that are finished. [h]

    Returns
    -------
    dict
        Planned hours of one unit of every operation: median and quartiles of what was logged from five on, before that
        common practice.

    Raises
    ------
    OutOfDomain
        If hours are negative or of no unit.

    Notes
    -----
    Hours of work are taken as lognormal, mean and standard deviation (n − 1) of their logarithms as in [1]_ of the
    module; what took no time at all is left out. House rule of five.
    """
    logged: dict[Operation, list[float]] = {}
    for one in spent:
        if one.hours < 0 or one.units < 1:
            raise OutOfDomain("hours are none or more, of one unit or more", "hours")
        if one.hours > 0:
            logged.setdefault(one.operation, []).append(one.hours / one.units)
    return {one: _learned(logged.get(one, []), kind.hours) for one, kind in OPERATIONS.items()}


def _learned(hours: list[float], before: float) -> PlannedHours:
    if len(hours) < ENOUGH:
        return usual(before)
    low, _, high = quantiles(hours, n=4, method="inclusive")
    logs = [log(one) for one in hours]
    mean = sum(logs) / len(logs)
    scatter = sqrt(sum((one - mean) ** 2 for one in logs) / (len(logs) - 1))
    return PlannedHours(low, median(hours), high, len(hours), mean, max(scatter, LEAST_SCATTER))


def by_passes(passes: float, minutes: PlannedHours, setup_h: float) -> PlannedHours:
    """Return the hours of a job that is done in passes: passes times a pass, and the set-up.

    Parameters
    ----------
    passes : float
        How many there are to do. [1]
    minutes : PlannedHours
        Of one pass, as it was learned. [h]
    setup_h : float
        Until the first. [h]

    Returns
    -------
    PlannedHours
        Median and quartiles scaled by the passes, the set-up on top. [h] By definition; the set-up as planned.
    """
    low, middle, high = (setup_h + passes * one for one in (minutes.low_h, minutes.middle_h, minutes.high_h))
    scatter = log(high / low) / QUARTILES_APART if low > 0 else minutes.log_scatter
    return PlannedHours(low, middle, high, minutes.n, log(middle), max(scatter, LEAST_SCATTER))


def worst_of(planned: PlannedHours) -> float:
    """Return the worst case of planned hours: what nine of ten stay below. [h] House rule of nine in ten.

    Notes
    -----
    The 0.9 quantile of the lognormal distribution, exp(mean + 1.2816 × scatter). Closed form.
    """
    return 0.0 if planned.middle_h <= 0 else exp(planned.log_mean + 1.2815515655446004 * planned.log_scatter)
