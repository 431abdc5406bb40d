"""Whether readings of many parts are of one kind or of two: a running change that nobody wrote on the box.

References
----------
.. [1] C. Biernacki, G. Celeux, G. Govaert, Assessing a mixture model for clustering with the integrated completed
   likelihood, IEEE Trans. PAMI 22 (2000) 719: two kinds only where telling them apart is worth two numbers more.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import log

import numpy as np

from vallostasis.core.errors import OutOfDomain

# A kind has so many parts at least: one that stands off may be a slip. House rule.
LEAST_OF_A_KIND = 2
# By so much the logarithm of the likelihood has to gain: seven to one. House rule.
CLEARLY = 2.0


@dataclass(frozen=True, slots=True)
class Kinds:
    """Two kinds of parts: which readings are of the lower one, the middle of each, how far apart. [m]"""

    lower: tuple[int, ...]
    upper: tuple[int, ...]
    lower_m: float
    upper_m: float
    spread_m: float

    @property
    def apart_m(self) -> float:
        """From one middle to the other. [m] By definition."""
        return self.upper_m - self.lower_m


def two_kinds(values_m: Sequence[float], u_m: Sequence[float]) -> Kinds | None:
    """Say whether parts are of two kinds.

    Parameters
    ----------
    values_m, u_m : sequence of float
        One reading of each part, and its own standard uncertainty. [m]

    Returns
    -------
    Kinds or None
        None where they are one kind as far as can be told.

    Raises
    ------
    OutOfDomain
        If there are not as many uncertainties as readings, or one is not above nought.

    Notes
    -----
    Every split of the readings in order is tried; within a kind they scatter alike, by no less than they are read. Two
    kinds are claimed where the completed likelihood [1]_ of the module gains more than half ln n for each of two
    numbers more, seven to one: that takes some three and a half standard deviations between their middles.
    """
    if len(values_m) != len(u_m) or any(one <= 0 for one in u_m):
        raise OutOfDomain("each reading needs an uncertainty of its own above nought", "u_m")
    count = len(values_m)
    if count < 2 * LEAST_OF_A_KIND + 1:
        return None
    order = np.argsort(values_m, kind="stable")
    read, floor = np.asarray(values_m)[order], float(np.mean(np.square(u_m)))

    def variance(*groups: np.ndarray[tuple[int, ...], np.dtype[np.float64]]) -> float:
        return max(sum(float(((one - one.mean()) ** 2).sum()) for one in groups) / count, floor)

    whole, best, at = variance(read), CLEARLY, 0
    for split in range(LEAST_OF_A_KIND, count - LEAST_OF_A_KIND + 1):
        share = split / count
        mixed = -(share * log(share) + (1 - share) * log(1 - share))
        gain = count / 2 * log(whole / variance(read[:split], read[split:])) - count * mixed - log(count)
        if gain > best:
            best, at = gain, split
    if at == 0:
        return None
    low, high = read[:at], read[at:]
    places = tuple(int(one) for one in order)
    return Kinds(places[:at], places[at:], float(low.mean()), float(high.mean()), variance(low, high) ** 0.5)
