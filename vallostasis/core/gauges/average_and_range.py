"""The older way to look at a gauge study: averages and ranges instead of variances.

It is shown beside the analysis of variance because many sheets are filled in by it, and because it cannot see that one
person reads some parts differently from the others: the interaction is left out of its figures altogether.

References
----------
.. [1] A. J. Duncan, Quality Control and Industrial Statistics: average and range, factors d2 and d2* (from memory).
.. [2] H. A. David, H. N. Nagaraja, Order Statistics (Wiley, 2003), section 2.3: density of the range (from memory).
"""

from dataclasses import dataclass
from functools import lru_cache
from math import hypot, pi, sqrt

import numpy as np
from numpy.typing import NDArray
from scipy import special

# From so many ranges on the plain factor serves for their mean, as printed tables have it.
FEW_RANGES = 15
# Normal values within ± this many sigma, in this many steps: what lies beyond is below what a float resolves.
_SIGMAS = 10.0
_STEPS = 801
_NODES = 100


@dataclass(frozen=True, slots=True)
class AverageAndRange:
    """Standard deviations of the gauge, between people and between parts, by averages and ranges. [m]"""

    repeatability_m: float
    reproducibility_m: float
    part_m: float

    @property
    def gauge_m(self) -> float:
        """Repeatability and reproducibility together. [m] GUM 5.1.2."""
        return hypot(self.repeatability_m, self.reproducibility_m)

    @property
    def percent_of_total(self) -> float:
        """Gauge over everything. [%] Common practice of gauge studies."""
        total = hypot(self.gauge_m, self.part_m)
        return 100 * self.gauge_m / total if total else 0.0


def average_and_range(table_m: NDArray[np.float64]) -> AverageAndRange:
    """Look at a balanced study by averages and ranges.

    Parameters
    ----------
    table_m : array, shape (parts, people, trials)
        Every person reads every part the same number of times, at least two of each. [m]

    Returns
    -------
    AverageAndRange
        A negative square between people is set to nought.

    Notes
    -----
    EV = R̄/d2; AV² = (range of the people's averages/d2*)² − EV²/(parts·trials); PV = range of the parts'
    averages/d2* [1]_ of the module. No term for the interaction of people and parts.
    """
    parts, people, trials = table_m.shape
    repeatability = float(np.ptp(table_m, axis=2).mean()) / range_factor(trials, parts * people)
    between_people = float(np.ptp(table_m.mean(axis=(0, 2)))) / range_factor(people, 1)
    between_parts = float(np.ptp(table_m.mean(axis=(1, 2)))) / range_factor(parts, 1)
    people_square = between_people**2 - repeatability**2 / (parts * trials)
    return AverageAndRange(repeatability, sqrt(max(0.0, people_square)), between_parts)


def range_factor(values: int, ranges: int) -> float:
    """How many sigma the mean of so many ranges, each of so many values, stands for. [1]

    Notes
    -----
    d2 is the mean of the range of normal values, d3 its standard deviation; of few ranges d2* = √(d2² + d3²/ranges),
    of more than 15 plain d2 [1]_ of the module.
    """
    mean, spread = _range_of_normal(values)
    return mean if ranges > FEW_RANGES else sqrt(mean**2 + spread**2 / ranges)


@lru_cache(maxsize=64)
def _range_of_normal(values: int) -> tuple[float, float]:
    """Mean and standard deviation of the range of so many values of a standard normal distribution. [1]

    Notes
    -----
    f(w) = n(n − 1)·∫φ(x)·φ(x + w)·[Φ(x + w) − Φ(x)]^(n − 2) dx [2]_ of the module. The inner integral by sums, exact
    to rounding for a function that dies away so fast; the outer one by Gauss and Legendre's rule.
    """
    x, step = np.linspace(-_SIGMAS, _SIGMAS, _STEPS, retstep=True)
    nodes, weights = np.polynomial.legendre.leggauss(_NODES)
    low, widths = x[:, None], (nodes + 1) * _SIGMAS
    high = low + widths[None, :]
    between = special.ndtr(high) - special.ndtr(low)
    joint = np.exp(-(low**2 + high**2) / 2) / (2 * pi) * between ** (values - 2)
    density = values * (values - 1) * joint.sum(axis=0) * step * weights * _SIGMAS
    mean = float(density @ widths)
    return mean, sqrt(float(density @ widths**2) - mean**2)
