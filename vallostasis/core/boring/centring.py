"""Where a bar stands in a bore by four feeler gaps, and how it is moved to the middle.

References
----------
.. [1] Half the difference of opposite gaps: closed form for a round bar in a round bore, seen from the bar.
.. [2] JCGM 100:2008 (GUM), 5.1.2: each gap carries what its blade does.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import atan2, degrees

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, stated, value_of, weighted
from vallostasis.core.uncertainty.extremes import amplitude_of, direction_within

ANGLES_DEG = (0.0, 90.0, 180.0, 270.0)


@dataclass(frozen=True, slots=True)
class Centring:
    """A bar off the middle of its bore. [m], [deg]

    ``x_m`` and ``y_m`` are its offset along 0° and 90°, ``move_deg`` the direction it is moved in by ``offset``,
    None where it may stand in the middle; ``uneven`` is by how much the two pairs of gaps differ in their sums: nought
    in a round hole.
    """

    x: Stated
    y: Stated
    offset: Stated
    move_deg: float | None
    uneven: Stated

    @property
    def is_round_enough(self) -> bool:
        """Whether the gaps fit a round hole within their ±. By definition."""
        return abs(self.uneven.value_m) <= self.uneven.expanded_m


def offset_of_bar(gaps_m: Sequence[float]) -> tuple[float, float, float, float]:
    """Return offset of a bar along 0° and 90°, the direction it is moved in, and by how much the pairs differ. [m]

    Parameters
    ----------
    gaps_m : sequence of 4 float
        Gaps at 0, 90, 180 and 270 degrees. [m]

    Returns
    -------
    x, y : float
        Where the bar stands from the middle of the bore. [m]
    move_deg : float
        Direction towards the middle, from 0 to 360. [deg]
    uneven : float
        Sum of one pair less that of the other. [m]

    Raises
    ------
    OutOfDomain
        If there are not four gaps, or one is below nought.

    Notes
    -----
    x = (g180 − g0)/2, y = (g270 − g90)/2, closed form [1]_ of the module.
    """
    if len(gaps_m) != 4:
        raise OutOfDomain("four gaps are needed, at 0, 90, 180 and 270 degrees", "gaps_m")
    require_finite(**{f"gaps_m {at}": gap for at, gap in enumerate(gaps_m)})
    if min(gaps_m) < 0:
        raise OutOfDomain("a gap is not below nought", "gaps_m")
    x, y = (gaps_m[2] - gaps_m[0]) / 2, (gaps_m[3] - gaps_m[1]) / 2
    return x, y, degrees(atan2(-y, -x)) % 360, (gaps_m[0] + gaps_m[2]) - (gaps_m[1] + gaps_m[3])


def centring_of(gaps: Sequence[Estimate], coverage_factor: float) -> Centring:
    """Return how a bar is moved to the middle, with the ± of four gaps. [m]

    GUM 5.1.2 [2]_ of the module; over pits the four average out: common practice.
    """
    offset_of_bar([value_of(one) for one in gaps])
    east, north, west, south = gaps
    x = weighted(((0.5, west), (-0.5, east)))
    y = weighted(((0.5, south), (-0.5, north)))
    off = amplitude_of("bar off the middle", (x, y), 1.0, coverage_factor)
    within = direction_within((x, y), coverage_factor)
    towards = None if within is None else degrees(atan2(-value_of(y), -value_of(x))) % 360
    pairs = difference_of(weighted(((1.0, east), (1.0, west))), weighted(((1.0, north), (1.0, south))))
    return Centring(stated("along 0°", x, coverage_factor), stated("along 90°", y, coverage_factor), off, towards,
                    stated("sums of the pairs", pairs, coverage_factor))  # fmt: skip
