"""How far a reading can be trusted.

A reading's uncertainty has a part of its own, new at each reading, and a part it shares with every
reading taken from the same zero. Means shrink only the first; differences cancel the second.

References
----------
.. [1] JCGM 100:2008, Evaluation of measurement data: Guide to the expression of uncertainty in
   measurement (GUM), 4.3.7 and 5.1.2.
"""

from dataclasses import dataclass
from math import hypot, sqrt

from vallostasis.core.errors import OutOfDomain, require_not_negative


@dataclass(frozen=True, slots=True)
class ReadingTrust:
    """Standard uncertainty of one reading: its own part and the part shared by one zero. [m]"""

    random_m: float
    zero_m: float


def rectangular(half_width_m: float) -> float:
    """Standard uncertainty of a value known only to lie within ± a half width. [m]

    Raises
    ------
    OutOfDomain
        If the half width is negative or not finite.

    Notes
    -----
    u = a/√3, GUM 4.3.7 [1]_ of the module.
    """
    require_not_negative(half_width=half_width_m)
    return half_width_m / sqrt(3.0)


def trust_of_reading(resolution_m: float, repeatability_m: float, correction_u_m: float = 0.0) -> ReadingTrust:
    """Standard uncertainty of one reading of a gauge.

    Parameters
    ----------
    resolution_m : float
        Smallest step the gauge is read to. [m]
    repeatability_m : float
        Standard deviation of repeated readings. [m]
    correction_u_m : float
        Standard uncertainty of a zero correction, shared by all readings of that zero. [m]

    Returns
    -------
    ReadingTrust
        Own part √(r²/12 + s²) and zero part √(r²/12 + c²). [m]

    Raises
    ------
    OutOfDomain
        If an input is negative or not finite.

    Notes
    -----
    The step enters twice, once at the reading and once at the zero: r/√12 each, GUM 4.3.7.
    Temperature, land and tip are not in this budget.
    """
    require_not_negative(resolution=resolution_m, repeatability=repeatability_m, correction_u=correction_u_m)
    step = rectangular(resolution_m / 2.0)
    return ReadingTrust(hypot(step, repeatability_m), hypot(step, correction_u_m))


def standard_of_mean(trust: ReadingTrust, readings: int) -> float:
    """Standard uncertainty of the mean of readings from one zero: √(u²/n + z²). [m]

    Raises
    ------
    OutOfDomain
        If there are no readings.
    """
    if readings < 1:
        raise OutOfDomain(f"a mean needs at least one reading, there are {readings}", "readings")
    return hypot(trust.random_m / sqrt(readings), trust.zero_m)


def standard_of_difference(
    first: ReadingTrust, first_readings: int, second: ReadingTrust, second_readings: int, same_zero: bool
) -> float:
    """Standard uncertainty of the difference of two means.

    Parameters
    ----------
    first, second : ReadingTrust
        Trust of one reading on either side. [m]
    first_readings, second_readings : int
        How many readings each mean has.
    same_zero : bool
        True when both were taken from one zero, which then cancels.

    Returns
    -------
    float
        Standard uncertainty; √2·u for two single readings of one zero. [m]

    Raises
    ------
    OutOfDomain
        If a side has no readings.
    """
    if min(first_readings, second_readings) < 1:
        raise OutOfDomain("a difference needs a reading on either side", "readings")
    own = hypot(first.random_m / sqrt(first_readings), second.random_m / sqrt(second_readings))
    return own if same_zero else hypot(own, first.zero_m, second.zero_m)
