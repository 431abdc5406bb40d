"""How much iron is left round a bore: after a step, after a move of its centre, and how many re-bores that is worth.

Closed form of two circles whose middles stand apart; how much wall has to stay is the card's.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import floor

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.errors import OutOfDomain, require_not_negative


@dataclass(frozen=True, slots=True)
class WallLeft:
    """The thinnest place of a wall: which of those read, and how much is left there. [m]"""

    at: int
    least_m: float
    walls_m: NDArray[np.float64]


def wall_left(
    walls_m: Sequence[float], angles_deg: Sequence[float], growth_m: float, shift_m: float = 0.0, shift_deg: float = 0.0
) -> WallLeft:
    """Return what is left of a wall once its bore has grown, and moved.

    Parameters
    ----------
    walls_m : sequence of float, shape (n,)
        Wall a side, from the bore as it was then to the outside. [m]
    angles_deg : sequence of float, shape (n,)
        Where each was read, clockwise from the front. [deg]
    growth_m : float
        How much the diameter has grown since: half of it goes from each side. [m]
    shift_m, shift_deg : float
        How far the centre moved, and which way. [m], [deg]

    Returns
    -------
    WallLeft
        wall − growth/2 − shift·cos(θ − θ_shift) at every place; the least of them.

    Raises
    ------
    OutOfDomain
        If nothing was read, or a move is negative.

    Notes
    -----
    Wear is counted on the diameter, walls a side: a bore that grows by 50 takes 25 from each side. Closed form, to
    the first order of the move over the radius.
    """
    if not len(walls_m) or len(walls_m) != len(angles_deg):
        raise OutOfDomain("give the wall a side and its direction at one place or more", "walls_m")
    require_not_negative(shift=shift_m)
    turns = np.radians(np.asarray(angles_deg, dtype=np.float64) - shift_deg)
    left = np.asarray(walls_m, dtype=np.float64) - growth_m / 2 - shift_m * np.cos(turns)
    at = int(left.argmin())
    return WallLeft(at, float(left[at]), left)


def rebores_left(least_m: float, least_wall_m: float, step_m: float) -> int:
    """Count whole re-bores until a wall is down to its least.

    Parameters
    ----------
    least_m : float
        The wall as it is, a side, where it is thinnest. [m]
    least_wall_m : float
        The least that the card lets stand, a side. [m]
    step_m : float
        One re-bore, on the diameter. [m]

    Returns
    -------
    int
        Whole steps; nought where the wall is at its least already.

    Raises
    ------
    OutOfDomain
        If the step is not above nought.

    Notes
    -----
    By definition: steps of half the diameter a side.
    """
    if not step_m > 0:
        raise OutOfDomain("a re-bore takes something off the diameter: give a step above nought", "step_m")
    return max(0, floor((least_m - least_wall_m) / (step_m / 2) + 1e-9))
