"""What stones take with each double stroke, learned from rounds, and how many strokes something still needs.

References
----------
.. [1] Student's t prediction interval of one more of n values: mean ± t·s·√(1 + 1/n), for example ISO 16269-8.
.. [2] E. C. Fieller, 1954: limits of a ratio, here of what is left over what a stroke takes (from memory).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

from scipy import special

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative

# What is seen of a scatter is that of the stones by no less than this share: few rounds tell it badly. [1] House rule.
LEAST_OF_STONES = 0.25
# As many rounds as a spread is told from. [1] Common practice, no published source.
LEARNED_FROM = 3
# Stones change as they wear: rounds further back tell of others. [1] House rule.
NEWEST = 8
# A first round whose rate nobody knows. [double strokes] Common practice, no published source.
FIRST_STROKES = 20
# A round ends at the latest at this share of what its stage has left. [1] Common practice, no published source.
SHARE_OF_STAGE = 0.6
# Both edges of a band of 90 %.
_EDGE = 0.95
_NORMAL = float(special.ndtri(_EDGE))


@dataclass(frozen=True, slots=True)
class Rate:
    """What a double stroke takes on the diameter, how it scatters from round to round, from how many. [m]"""

    per_stroke_m: float
    spread_m: float
    rounds: int

    @property
    def is_learned(self) -> bool:
        """Whether a band can be told from it. By the number of rounds."""
        return self.rounds >= LEARNED_FROM

    @property
    def within_m(self) -> float:
        """Half the band that one more round lies in, nine times of ten. [m] Student's t [1]_ of the module."""
        return _student(self.rounds) * self.spread_m * sqrt(1 + 1 / self.rounds)


@dataclass(frozen=True, slots=True)
class StrokesToGo:
    """How many double strokes something needs: by the fast edge of its band, in the middle, by the slow edge.

    ``slow`` is None where the rates scatter so much that none can be told.
    """

    fast: float
    middle: float
    slow: float | None


def _student(rounds: int) -> float:
    return float(special.stdtrit(rounds - 1, _EDGE))


def rate_of(taken_m: Sequence[float], strokes: Sequence[float], noise_m: Sequence[float] = ()) -> Rate | None:
    """Learn a rate from rounds.

    Parameters
    ----------
    taken_m : sequence of float, shape (n,)
        What each took on the diameter, by the readings before and after it, the oldest first. [m]
    strokes : sequence of float, shape (n,)
        Its double strokes.
    noise_m : sequence of float, shape (n,)
        How far two readings of the bore repeat, which is no scatter of the stones; nought where it is left out. [m]

    Returns
    -------
    Rate or None
        None without a round, or where the stones took nothing. Of more than eight the newest count. Variances of
        stones and readings add up: GUM 5.1.2.

    Raises
    ------
    OutOfDomain
        If a round had no strokes.
    """
    if any(one <= 0 for one in strokes):
        raise OutOfDomain("a round has a stroke at least", "strokes")
    rates = [took / many for took, many in zip(taken_m, strokes, strict=True)][-NEWEST:]
    if not rates:
        return None
    mean = sum(rates) / len(rates)
    if mean <= 0:
        return None
    seen = sum((one - mean) ** 2 for one in rates) / (len(rates) - 1) if len(rates) > 1 else 0.0
    read = [(noise / many) ** 2 for noise, many in zip(noise_m, strokes, strict=bool(noise_m))][-NEWEST:]
    of_stones = max(seen - sum(read) / len(read), seen * LEAST_OF_STONES) if read else seen
    return Rate(mean, sqrt(of_stones), len(rates))


def strokes_to_go(rate: Rate, left_m: float, standard_m: float) -> StrokesToGo | None:
    """Return the band of double strokes that takes what is left, nine times of ten.

    Parameters
    ----------
    rate : Rate
        What a stroke takes.
    left_m, standard_m : float
        What is left on the diameter, and its standard uncertainty. [m]

    Returns
    -------
    StrokesToGo or None
        None before a rate is learned: nothing is told from two rounds.

    Notes
    -----
    Limits of left over rate by Fieller [2]_, the rate scattering as one more round does [1]_ of the module: where
    (left - S·rate)² = S²·(t·s)²·(1 + 1/n) + (z·u)², z that of a normal distribution.
    """
    require_finite(left_m=left_m)
    require_not_negative(standard_m=standard_m)
    if not rate.is_learned:
        return None
    if left_m <= 0:
        return StrokesToGo(0.0, 0.0, 0.0)
    of_square = rate.per_stroke_m**2 - rate.within_m**2
    half = left_m * rate.per_stroke_m
    rest = left_m**2 - (_NORMAL * standard_m) ** 2
    root = sqrt(max(0.0, half**2 - of_square * rest))
    fast = max(0.0, rest / (half + root))
    return StrokesToGo(fast, left_m / rate.per_stroke_m, (half + root) / of_square if of_square > 0 else None)


def stop_after(rate: Rate | None, left_m: float, repeat_m: float, guard_m: float, standard_m: float) -> int:
    """Return after how many double strokes a round stops and is measured.

    Parameters
    ----------
    rate : Rate or None
        What a stroke takes, None before the first round.
    left_m, repeat_m : float
        What its stage has left on the diameter, and how that repeats from reading to reading. [m]
    guard_m, standard_m : float
        What the largest level has left to the greatest size, and the standard uncertainty of that. [m]

    Returns
    -------
    int
        Where the fast edge of the band reaches the end of the stage, at the latest at 60 % of what is left of it;
        nought where even one stroke may be too many. Before a rate is learned 20, fewer where what is known of it says
        so. Common practice, no published source.

    Notes
    -----
    What all readings share, such as a piston that is off, takes a bore past its middle as often as it leaves it short:
    it keeps the round from the greatest size, and does not shorten it before that.
    """
    if left_m <= 0 or guard_m <= 0:
        return 0
    if rate is None:
        return FIRST_STROKES
    share = SHARE_OF_STAGE * left_m / rate.per_stroke_m
    if not rate.is_learned:
        return max(0, min(FIRST_STROKES, int(share)))
    band, guarded = strokes_to_go(rate, left_m, 0.0), strokes_to_go(rate, guard_m, standard_m)
    assert band is not None and guarded is not None
    edges = [band.fast, guarded.fast]
    # What is left after the share would be too little to begin another round for: then this one goes to the edge.
    small = (1 - SHARE_OF_STAGE) * left_m <= 2 * repeat_m
    return int(min(edges if small else [*edges, share]))
