"""How near the connecting rod comes to the foot of a liner, and what has to be relieved there.

References
----------
.. [1] Slider-crank with an offset, closed form: y_pin = R·cos θ + √(L² − (e + R·sin θ)²).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative

Array = NDArray[np.float64]
# The crank is turned in so many steps, the wall looked at on so many heights: the reach is within 1 µm of the curve's.
STEPS, HEIGHTS = 1440, 160


@dataclass(frozen=True, slots=True)
class Rod:
    """Crank and rod: radius of the crank, length between the eyes, widths across shank and big end. [m]

    ``offset_m`` is how far the crank's axis stands from the bore's.
    """

    crank_m: float
    length_m: float
    width_m: float
    big_end_m: float
    offset_m: float = 0.0


@dataclass(frozen=True, slots=True)
class Relief:
    """What is cut away at the foot of a liner on one side: how deep into its wall, how far up. [m]

    ``reach_m`` is how far the rod comes from the bore's axis at the foot, ``clear_m`` what is between it and the wall,
    negative where they would touch.
    """

    reach_m: float
    clear_m: float
    deep_m: float
    high_m: float

    @property
    def is_needed(self) -> bool:
        """Whether anything is to be cut. By definition."""
        return self.deep_m > 0


def reach_of_rod(rod: Rod, heights_m: Array) -> tuple[Array, Array]:
    """Return how far a turning rod reaches at heights above the crank's axis, on both sides of the bore's axis.

    Parameters
    ----------
    rod : Rod
        Crank and rod. [m]
    heights_m : array (n,)
        Heights above the axis of the crank. [m]

    Returns
    -------
    towards, away : array (n,)
        Reach on the side that the crank is offset to, and on the other; −∞ where the rod never comes. [m]

    Raises
    ------
    OutOfDomain
        If the rod is too short to turn.

    Notes
    -----
    The shank is a straight bar of its width, the big end a round of its; slider-crank in closed form [1]_ of the
    module.
    """
    require_finite(offset_m=rod.offset_m)
    require_not_negative(stroke=rod.crank_m, rod_length=rod.length_m, rod_width=rod.width_m, big_end=rod.big_end_m)
    if rod.length_m <= rod.crank_m + abs(rod.offset_m):
        raise OutOfDomain("a rod no longer than crank and offset cannot turn", "rod_length")
    turn = np.linspace(0.0, 2 * np.pi, STEPS, endpoint=False)
    x = rod.offset_m + rod.crank_m * np.sin(turn)
    y = rod.crank_m * np.cos(turn)
    up = np.sqrt(rod.length_m**2 - x**2)
    z = np.asarray(heights_m, dtype=np.float64)[:, None]
    # The shank between the eyes; its edges lie half a width off, across its own axis.
    between = (z >= y) & (z <= y + up)
    middle = x * (y + up - z) / up
    edge = rod.width_m / 2 * rod.length_m / up
    rise = np.abs(z - y)
    half = np.sqrt(np.maximum(0.0, (rod.big_end_m / 2) ** 2 - rise**2))
    at_big_end = rise <= rod.big_end_m / 2
    right = np.maximum(np.where(between, middle + edge, -np.inf), np.where(at_big_end, x + half, -np.inf))
    left = np.maximum(np.where(between, edge - middle, -np.inf), np.where(at_big_end, half - x, -np.inf))
    return right.max(axis=1), left.max(axis=1)


def relief_of_foot(rod: Rod, foot_m: float, inside_m: float, clear_m: float, top_m: float) -> tuple[Relief, Relief]:
    """Return the relief at the foot of a liner on the side of the offset, and on the other.

    Parameters
    ----------
    rod : Rod
        Crank and rod. [m]
    foot_m : float
        Height of the liner's foot above the axis of the crank. [m]
    inside_m : float
        Inside diameter of the liner. [m]
    clear_m : float
        What has to stay between rod and wall. [m]
    top_m : float
        Height of the liner's top above the axis of the crank. [m]

    Returns
    -------
    towards, away : Relief
        Depth into the wall, and height above the foot up to which it is needed. [m]

    Raises
    ------
    OutOfDomain
        If the liner has no length, or no inside.

    Notes
    -----
    Needed where reach + clearance exceeds half the inside, up to the height from which it does not. By definition.
    """
    if top_m <= foot_m:
        raise OutOfDomain("the foot of the liner lies below its top", "liner_length")
    if inside_m <= 0:
        raise OutOfDomain("the liner's inside is above nought", "liner_inside")
    heights = np.linspace(foot_m, top_m, HEIGHTS)
    return tuple(_relief(reach, heights, inside_m / 2, clear_m)
                 for reach in reach_of_rod(rod, heights))  # type: ignore[return-value]  # fmt: skip


def _relief(reach: Array, heights: Array, wall_m: float, clear_m: float) -> Relief:
    over = reach + clear_m - wall_m
    deep, high = max(0.0, float(over[0])), 0.0
    if deep > 0:
        free = np.flatnonzero(over <= 0)
        last = int(free[0]) if free.size else len(heights) - 1
        share = over[last - 1] / (over[last - 1] - over[last]) if free.size and last else 1.0
        high = float(heights[last - 1] + share * (heights[last] - heights[last - 1]) - heights[0])
    # Where the rod never comes so high it stays at the middle.
    near = max(0.0, float(reach[0]))
    return Relief(near, wall_m - near, deep, high)
