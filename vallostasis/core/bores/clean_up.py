"""The smallest bore that leaves no wear: at the drawn centre, at the best one, and which oversize covers it.

Smallest circles by shapes.circles; stock that cleans a wall up, steps of a ladder: common practice, no published
source.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.optimize import nnls

from vallostasis.core.errors import require_not_negative
from vallostasis.core.shapes.circles import enclosing, enclosing_within, points_of

# A point this near to a circle is touched by it. [m]
TOUCHES_M = 2e-9


@dataclass(frozen=True, slots=True)
class CleanUp:
    """A bore that leaves no wear: its centre seen from the drawn one, and its finished diameter with the hone. [m]"""

    x_m: float
    y_m: float
    diameter_m: float

    @property
    def move_m(self) -> float:
        """How far its centre lies from the drawn one. [m] By definition."""
        return hypot(self.x_m, self.y_m)


def clean_up(
    points_m: ArrayLike, centre_m: tuple[float, float], stock_per_side_m: float, move_m: float | None
) -> CleanUp:
    """Return the smallest finished bore that takes out every point of a wall.

    Parameters
    ----------
    points_m : array_like, shape (n, 2)
        Points of the wall, wear, pits and scores among them, all levels together. [m]
    centre_m : tuple of float
        The drawn centre. [m]
    stock_per_side_m : float
        Left for the hone, a side. [m]
    move_m : float or None
        How far the centre may lie from the drawn one: nought keeps it there, None lets it lie anywhere. [m]

    Returns
    -------
    CleanUp
        At the drawn centre 2·(greatest distance + stock), else at the best centre within the move.

    Raises
    ------
    OutOfDomain
        If there are fewer than three points, or stock or move is negative.

    Notes
    -----
    The smallest circle that holds every point, its centre kept within the move: circles.enclosing_within. Closed form.
    """
    require_not_negative(stock_per_side=stock_per_side_m, move=0.0 if move_m is None else move_m)
    points = points_of(points_m) - np.array(centre_m)
    if move_m is None:
        x, y, radius = enclosing(points)
    else:
        x, y, radius = enclosing_within(points, (0.0, 0.0), move_m)
    return CleanUp(x, y, 2 * (radius + stock_per_side_m))


def smallest_step(standard_m: float, oversizes_m: Sequence[float], needed_m: float) -> float | None:
    """Return the smallest oversize whose bore is as large as needed; None where no step is. [m]

    By definition of the ladder: standard + oversize ≥ needed.
    """
    enough = [one for one in oversizes_m if standard_m + one >= needed_m - 1e-12]
    return min(enough, default=None)


def touching_weights(points: NDArray[np.float64], x_m: float, y_m: float, move_m: float | None) -> dict[int, float]:
    """What each point that a clean-up circle touches weighs in its radius.

    Parameters
    ----------
    points : array, shape (n, 2)
        Points of the wall, seen from the drawn centre. [m]
    x_m, y_m : float
        Centre of the circle. [m]
    move_m : float or None
        How far its centre may lie from the drawn one. [m]

    Returns
    -------
    dict
        Weights that sum to one, by the number of the point: d radius / d wall there. [1]

    Notes
    -----
    At the smallest circle the pulls of the points it touches balance, Σ λ·u = 0 with Σ λ = 1; where the centre lies on
    the rim of its move the rim takes what is left along the move. Karush, Kuhn and Tucker; the touching point that the
    others leave no part in weighs nothing. Least squares over weights above nought.
    """
    away = points - np.array([x_m, y_m])
    far = np.hypot(away[:, 0], away[:, 1])
    touching = np.flatnonzero(far >= far.max() - TOUCHES_M)
    units = away[touching] / far[touching][:, None]
    along = hypot(x_m, y_m)
    on_rim = move_m is not None and along >= move_m * (1 - 1e-9)
    if on_rim and along == 0:
        return {int(touching[np.argmax(far[touching])]): 1.0}
    balance = units.T
    if on_rim:
        across = np.array([[-y_m / along, x_m / along]])
        balance = across @ balance
    scale = np.vstack([np.ones(len(touching)), balance])
    weights = nnls(scale, np.append(1.0, np.zeros(len(balance))))[0]
    total = float(weights.sum())
    return {int(at): float(one) / total for at, one in zip(touching, weights, strict=True) if one > 1e-9}
