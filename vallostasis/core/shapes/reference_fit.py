"""Zones and touching circles and cylinders by linear programming: the sharp reference methods of ISO 12181 and 12180.

Distances of points from an axis are written as their value and slope about the present axis; the programme that
these give is solved, the axis is moved there, and that is done again until it gains no more. At rest it touches the
points themselves, so what is returned is measured on them and not on their slopes.
"""

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linprog

from vallostasis.core.errors import OutOfDomain

Array = NDArray[np.float64]


class Reference(StrEnum):
    """What a circle or cylinder is laid by, in the words of ISO 12181-1 and ISO 12180-1."""

    LEAST_SQUARES = "least squares"
    MINIMUM_ZONE = "minimum zone"
    MAXIMUM_INSCRIBED = "maximum inscribed"
    MINIMUM_CIRCUMSCRIBED = "minimum circumscribed"


# A programme that promises less than this is at rest. [m]
AT_REST_M = 1e-12
MOST_ROUNDS = 200
# Constraints that a programme begins with; those it breaks are added until it breaks none.
BEGIN_WITH = 64


@dataclass(frozen=True, slots=True)
class Distances:
    """Distances of points from an axis, and what each changes by with the numbers that place the axis.

    ``slopes`` has shape (n, places of the axis).
    """

    values_m: Array
    slopes: Array


DistancesAt = Callable[[Array], Distances]


def lay_by_programme(distances_at: DistancesAt, start: Array, reference: Reference) -> Array:
    """Move an axis to where a minimum zone, a maximum inscribed or a minimum circumscribed surface lies.

    Parameters
    ----------
    distances_at : callable
        Distances of all points and their slopes at an axis.
    start : array, shape (p,)
        The axis to begin with, near by: that of least squares.
    reference : Reference
        Which of the three.

    Returns
    -------
    array, shape (p,)
        The axis. [m], [1]

    Raises
    ------
    OutOfDomain
        If it comes to no rest: the points are no bore about that axis.

    References
    ----------
    .. [1] G. T. Anthony and others, Reference software for finding Chebyshev best-fit geometric elements, Precision
       Engineering 19 (1996): linear programmes in turn (from memory).
    """
    axis = np.asarray(start, dtype=np.float64)
    at = distances_at(axis)
    cost, reach = _cost(at.values_m, reference), 4.0
    for _ in range(MOST_ROUNDS):
        step, promised = _step(at, reference, reach)
        if cost - promised < AT_REST_M:
            return axis
        there = distances_at(axis + step)
        found = _cost(there.values_m, reference)
        # Slopes hold near by: where the points do not follow them, the step is taken shorter.
        if found < cost:
            axis, at = axis + step, there
            reach = min(4.0, reach * 2) if cost - found > 0.5 * (cost - promised) else reach / 2
            cost = found
        else:
            reach /= 4
        if reach < 1e-9:
            return axis
    raise OutOfDomain("no circle comes to rest among these points: they do not lie round one axis", "points_m")


def _cost(values_m: Array, reference: Reference) -> float:
    """What is made least: outer less inner, outer, or inner taken negative. [m]"""
    outer = 0.0 if reference is Reference.MAXIMUM_INSCRIBED else float(values_m.max())
    inner = 0.0 if reference is Reference.MINIMUM_CIRCUMSCRIBED else float(values_m.min())
    return outer - inner


def _step(at: Distances, reference: Reference, reach: float) -> tuple[Array, float]:
    """Solve one programme, scaled to the scatter of the distances; return the step and the cost that it promises."""
    middle = float(at.values_m.mean())
    scale = max(float(np.ptp(at.values_m)), 1e-9)
    off = (at.values_m - middle) / scale
    used = np.zeros(len(off), dtype=bool)
    order = np.argsort(off, kind="stable")
    used[order[: BEGIN_WITH // 2]] = used[order[-BEGIN_WITH // 2 :]] = True
    used[:: max(1, len(off) // BEGIN_WITH)] = True
    while True:
        found = _solve(off[used], at.slopes[used], reference, reach)
        moved = off + at.slopes @ found[:-2]
        broken = np.zeros(len(off), dtype=bool)
        if reference is not Reference.MAXIMUM_INSCRIBED:
            broken |= moved > found[-2] + 1e-9
        if reference is not Reference.MINIMUM_CIRCUMSCRIBED:
            broken |= moved < found[-1] - 1e-9
        broken &= ~used
        if not broken.any():
            promised = middle + moved * scale
            return np.asarray(found[:-2] * scale, dtype=np.float64), _cost(promised, reference)
        used |= broken


def _solve(off: Array, slopes: Array, reference: Reference, reach: float) -> Array:
    """Make outer less inner least, or outer least, or inner greatest, over the step of the axis; in scatters."""
    count, places = slopes.shape
    costs, rows, bounds = np.zeros(places + 2), [], []
    if reference is not Reference.MAXIMUM_INSCRIBED:
        costs[-2] = 1.0
        rows.append(np.column_stack([slopes, -np.ones(count), np.zeros(count)]))
        bounds.append(-off)
    if reference is not Reference.MINIMUM_CIRCUMSCRIBED:
        costs[-1] = -1.0
        rows.append(np.column_stack([-slopes, np.zeros(count), np.ones(count)]))
        bounds.append(off)
    # Every place of the axis may move the points by so many scatters.
    sizes = np.maximum(np.abs(slopes).max(axis=0), 1e-12)
    within: list[tuple[float | None, float | None]] = [(-reach / size, reach / size) for size in sizes]
    within += [(None, None)] * 2
    if reference is Reference.MAXIMUM_INSCRIBED:
        within[-2] = (0.0, 0.0)
    if reference is Reference.MINIMUM_CIRCUMSCRIBED:
        within[-1] = (0.0, 0.0)
    answer = linprog(costs, A_ub=np.vstack(rows), b_ub=np.concatenate(bounds), bounds=within, method="highs")
    if answer.x is None:
        raise OutOfDomain("these points do not lie round one axis", "points_m")
    return np.asarray(answer.x, dtype=np.float64)
