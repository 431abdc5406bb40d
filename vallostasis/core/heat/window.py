"""The drop window: clearance against seconds as a band, until when a liner has to be home, and how long that leaves.

References
----------
.. [1] Sobol sequence of scipy.stats.qmc, the same draws each time: what moves in the picture is what was changed.
.. [2] Conditional quantiles of the draws, 2.5 and 97.5 of 100.
"""

from dataclasses import dataclass, fields, replace
from functools import cache

import numpy as np
from scipy.special import ndtri

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.heat.transient import Array, Draws, Sizes, carried, clearance_of, followed

# So many draws make the band; two more are what is most likely, and that with the worst pair of readings.
MANY = 64
LOW, HIGH = 0.025, 0.975
# What nobody measures: the wall of block that counts as warm and how far off centre, as shares [1], dry contact
# [W/(m² K)]; a half of a millionth for each kelvin of both expansions, as shares [1]. House rules on handbook figures.
RING, OFF_CENTRE, CONTACT = (0.75, 1.33), (0.0, 0.9), (2_000.0, 10_000.0)
LINER_OFF, BLOCK_OFF = 0.055, 0.03
# Points of the picture in air and in the hole.
AIR_POINTS, HOLE_POINTS = 9, 40
# A liner is followed so long in its hole at the most, and so much longer than it takes the slowest draw to close. [s]
LONGEST_S, SHORTEST_S = 240.0, 4.0


@dataclass(frozen=True, slots=True)
class Spreads:
    """What is most likely, and how far off it may be.

    Standard deviations of press [m], starts [°C], and of both expansions, films and the block's cooling as shares [1];
    ranges, evenly likely, of what nobody measures: off centre [1], dry contact [W/(m² K)] (by its logarithm), the wall
    of block that counts as warm, as a share of the one declared [1]. ``liner_tie`` and ``block_tie`` are correlations
    of a start with the logarithm of its film or cooling time [1].
    """

    press_m: float
    press_off_m: float
    worst_press_m: float
    liner_c: float
    liner_off_k: float
    block_c: float
    block_off_k: float
    film: float
    film_off: float
    block_s: float
    block_s_off: float
    ring_m: float
    ring: tuple[float, float] = RING
    off_centre: tuple[float, float] = OFF_CENTRE
    contact: tuple[float, float] = CONTACT
    liner_off: float = LINER_OFF
    block_off: float = BLOCK_OFF
    liner_tie: float = 0.0
    block_tie: float = 0.0


@dataclass(frozen=True, slots=True)
class Window:
    """Clearance on the diameter against seconds out of the cold, worst pair below. [s], [m]

    ``home_by_s`` is when the lower edge meets the clearance wanted, nought where it never has it; ``grabs_s`` when it
    may touch, ``likely_s`` when it most likely does; None where that never comes in the time looked at.
    """

    times_s: Array
    low_m: Array
    likely_m: Array
    high_m: Array
    enter_s: float
    home_by_s: float | None
    grabs_s: float | None
    likely_s: float | None

    def at(self, seconds: float) -> tuple[float, float, float]:
        """Lower edge, most likely, upper edge at a moment. [m] Straight lines between points; by definition."""
        low, likely, high = (float(np.interp(seconds, self.times_s, one))
                             for one in (self.low_m, self.likely_m, self.high_m))  # fmt: skip
        return low, likely, high


@cache
def _sobol(many: int, dimensions: int) -> Array:
    """Even draws between 0 and 1, never at the ends. [1]_ of the module."""
    # With it comes all of scipy.stats, a tenth of what a start takes.
    from scipy.stats import qmc

    found: Array = qmc.Sobol(dimensions, scramble=True, seed=26_049).random(many)
    return np.clip(found, 1e-6, 1 - 1e-6)


def drawn(spreads: Spreads, even: Array) -> Draws:
    """Return draws of what nobody knows exactly.

    Parameters
    ----------
    spreads : Spreads
        How far each may be off.
    even : ndarray, shape (n, 10)
        Numbers between 0 and 1.

    Returns
    -------
    Draws
        Normal, lognormal for films, or evenly over a range, as the spreads say. By definition. [m], [°C], [s]
    """
    normal = ndtri(even)
    low, high = (np.log(one) for one in spreads.contact)
    film = _tied(normal[:, 1], normal[:, 3], spreads.liner_tie)
    block_s = _tied(normal[:, 2], normal[:, 4], spreads.block_tie)
    return Draws(
        press_m=spreads.press_m + spreads.press_off_m * normal[:, 0],
        liner_c=spreads.liner_c + spreads.liner_off_k * normal[:, 1],
        block_c=spreads.block_c + spreads.block_off_k * normal[:, 2],
        film=spreads.film * np.exp(spreads.film_off * film),
        block_s=spreads.block_s * np.exp(spreads.block_s_off * block_s),
        off_centre=spreads.off_centre[0] + (spreads.off_centre[1] - spreads.off_centre[0]) * even[:, 5],
        contact=np.exp(low + (high - low) * even[:, 6]),
        ring_m=spreads.ring_m * (spreads.ring[0] + (spreads.ring[1] - spreads.ring[0]) * even[:, 7]),
        liner_off=1 + spreads.liner_off * normal[:, 8],
        block_off=1 + spreads.block_off * normal[:, 9],
    )


def _tied(first: Array, second: Array, tie: float) -> Array:
    """Normal draws that are tied to others: Cholesky of two. [1] By definition."""
    both: Array = tie * first + np.sqrt(1 - tie**2) * second
    return both


DRAWN = len(fields(Draws))


def drop_window(sizes: Sizes, spreads: Spreads, air_c: float, enter_s: float, wanted_m: float) -> Window:
    """Return the window of a drop.

    Parameters
    ----------
    sizes : Sizes
        Liner and hole.
    spreads : Spreads
        What is likely, and how far off.
    air_c : float
        Of the room. [°C]
    enter_s : float
        When the liner enters its hole, counted from leaving the cold. [s]
    wanted_m : float
        Clearance below which it does not drop freely. [m]

    Returns
    -------
    Window
        Quantiles [2]_ of draws [1]_ of the module; its lower edge is never above what the worst pair of readings gives.

    Raises
    ------
    OutOfDomain
        If it would enter before it is out of the cold, or nothing is wanted.
    """
    require_finite(air_c=air_c, enter_s=enter_s, wanted_m=wanted_m)
    if not 0 <= enter_s <= 3600:
        raise OutOfDomain("a liner enters after it is out of the cold, within the hour", "enter_s")
    if wanted_m <= 0:
        raise OutOfDomain("to drop freely it needs some clearance", "wanted")
    middle = np.full((2, DRAWN), 0.5)
    draws = drawn(spreads, np.concatenate([middle, _sobol(MANY, DRAWN)]))
    draws.press_m[1] = max(spreads.worst_press_m, spreads.press_m)
    times = np.concatenate([np.linspace(0, enter_s, AIR_POINTS)[:-1] if enter_s > 0 else np.empty(0),
                            enter_s + _stay(sizes, draws, air_c, enter_s)])  # fmt: skip
    found = followed(sizes, draws, air_c, enter_s, times)
    edges = np.quantile(found[2:], (LOW, HIGH), axis=0, method="weibull")
    low = np.minimum(edges[0], found[1])
    return Window(times, low, found[0], np.maximum(edges[1], found[0]), enter_s, _falls_below(times, low, wanted_m),
                  _falls_below(times, low, 0.0), _falls_below(times, found[0], 0.0))  # fmt: skip


def _stay(sizes: Sizes, draws: Draws, air_c: float, enter_s: float) -> Array:
    """Moments in the hole: closer at first, and not far beyond where the slowest of a few draws has closed. [s]"""
    few = _some(draws, slice(0, len(draws), 8))
    rough = enter_s + LONGEST_S * np.linspace(0, 1, 20) ** 2
    closes = [_falls_below(rough, row, 0.0) for row in followed(sizes, few, air_c, enter_s, rough)]
    longest = max((LONGEST_S if one is None else one - enter_s for one in closes), default=LONGEST_S)
    until = min(LONGEST_S, max(SHORTEST_S, 1.3 * longest))
    stay: Array = until * np.linspace(0, 1, HOLE_POINTS) ** 1.5
    return stay


def _some(draws: Draws, which: slice) -> Draws:
    return Draws(**{one.name: getattr(draws, one.name)[which] for one in fields(Draws)})


def _falls_below(times_s: Array, clear_m: Array, least_m: float) -> float | None:
    """When it first lies below; nought where it does from the start, None where it never does. [s]"""
    below = np.flatnonzero(clear_m < least_m)
    if not len(below):
        return None
    at = int(below[0])
    if at == 0:
        return 0.0
    share = (clear_m[at - 1] - least_m) / (clear_m[at - 1] - clear_m[at])
    return float(times_s[at - 1] + share * (times_s[at] - times_s[at - 1]))


def worst_at_start(sizes: Sizes, spreads: Spreads) -> float:
    """Return the clearance of the worst pair of readings as both leave oven and cold. [m] ISO 1."""
    one = drawn(spreads, np.full((1, DRAWN), 0.5))
    one = replace(one, press_m=np.array([spreads.worst_press_m]))
    return float(clearance_of(sizes, one, *carried(sizes, one, spreads.liner_c, 0.0))[0])
