"""Ovality from a few diameters, and how much of it the axes may have missed."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import atan2, cos, degrees, hypot, pi, radians, sin

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.clock import turned

# Axes nearer than this are one axis to a hand that turns a gauge. [deg]
SAME_AXIS_DEG = 1.0
ELLIPSE_FROM_AXES = 3
FOUR_LOBES_FROM_AXES = 5


@dataclass(frozen=True, slots=True)
class Ellipse:
    """D(θ) = D0 + A2·cos 2(θ − φ2) + A4·cos 4(θ − φ4); φ points to the larger diameter. [m], [deg]

    The fourth order is None where the axes cannot place it.
    """

    mean_m: float
    a2_m: float
    phi2_deg: float
    a4_m: float | None
    phi4_deg: float | None
    rms_residual_m: float

    @property
    def ovality_m(self) -> float:
        """Greatest less least diameter of the ellipse: 2·A2. [m] Closed form: the cosine runs from -1 to +1."""
        return 2 * self.a2_m


def different_axes(axes_deg: Sequence[float]) -> int:
    """Count axes that differ; one and its opposite are the same axis. [deg]

    House rule: nearer than a degree is one axis.
    """
    seen: list[float] = []
    for axis in axes_deg:
        half_turn = turned(axis, 180)
        if all(min(abs(half_turn - other), 180 - abs(half_turn - other)) >= SAME_AXIS_DEG for other in seen):
            seen.append(half_turn)
    return len(seen)


def fit_ellipse(axes_deg: Sequence[float], diameters_m: ArrayLike) -> Ellipse:
    """Fit the shape of one level by least squares.

    Parameters
    ----------
    axes_deg : sequence of float, shape (n,)
        Directions of the diameters. [deg]
    diameters_m : array_like, shape (n,)
        Two-point diameters. [m]

    Returns
    -------
    Ellipse
        With the fourth order from five different axes on.

    Raises
    ------
    OutOfDomain
        If there are fewer than three different axes, or the numbers of axes and diameters differ.

    Notes
    -----
    A diameter is the sum of two opposite radii, so every odd order cancels: three or five lobes read round. At four
    axes 45° apart sin 4θ is nought at each of them; the fourth order is therefore fitted only where the axes place
    both its parts.

    References
    ----------
    .. [1] D. J. Whitehouse, Handbook of Surface and Nanometrology, chapter on roundness: harmonic analysis of
       diameters (from memory).
    """
    diameters = np.asarray(diameters_m, dtype=np.float64)
    if len(axes_deg) != len(diameters):
        raise OutOfDomain(f"{len(axes_deg)} axes do not fit {len(diameters)} diameters", "axes_deg")
    if different_axes(axes_deg) < ELLIPSE_FROM_AXES:
        raise OutOfDomain("an ellipse needs three different axes", "axes_deg")
    weights, design = ellipse_weights(axes_deg)
    solved = weights @ diameters
    residual = diameters - design @ solved
    placed = len(solved) == 5
    a4 = hypot(solved[3], solved[4]) if placed else None
    return Ellipse(
        mean_m=float(solved[0]),
        a2_m=hypot(solved[1], solved[2]),
        phi2_deg=turned(degrees(atan2(solved[2], solved[1])) / 2, 180),
        a4_m=a4,
        phi4_deg=turned(degrees(atan2(solved[4], solved[3])) / 4, 90) if placed else None,
        rms_residual_m=float(np.sqrt(np.mean(residual**2))),
    )


def ellipse_weights(axes_deg: Sequence[float]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """What each diameter weighs in D0, a2, b2 and, where the axes place them, a4, b4; and the design behind it.

    Parameters
    ----------
    axes_deg : sequence of float, shape (n,)
        Directions of the diameters, three different ones or more. [deg]

    Returns
    -------
    weights, design : array, shape (3 or 5, n) and (n, 3 or 5)
        The solution of least squares is weights @ diameters. [1]

    Notes
    -----
    Pseudo-inverse of the design, the least-squares solution written as a matrix; [1]_ of fit_ellipse.
    """
    return _weights_at(tuple(float(axis) for axis in axes_deg))


@lru_cache(maxsize=512)
def _weights_at(axes_deg: tuple[float, ...]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    angles = np.radians(np.asarray(axes_deg, dtype=np.float64))
    columns = [np.ones_like(angles), np.cos(2 * angles), np.sin(2 * angles)]
    four = np.column_stack([*columns, np.cos(4 * angles), np.sin(4 * angles)])
    placed = different_axes(axes_deg) >= FOUR_LOBES_FROM_AXES and np.linalg.matrix_rank(four, tol=1e-6) == 5
    design = four if placed else np.column_stack(columns)
    return np.linalg.pinv(design), design


def share_seen(axes_deg: Sequence[float], phi2_deg: float) -> float:
    """Share of an ellipse's ovality that shows as greatest less least over the axes. [1]

    Raises
    ------
    OutOfDomain
        If there is no axis.

    Closed form of cos 2θ.
    """
    if not axes_deg:
        raise OutOfDomain("without an axis nothing is seen", "axes_deg")
    shown = [cos(2 * radians(axis - phi2_deg)) for axis in axes_deg]
    return (max(shown) - min(shown)) / 2


def share_guaranteed(axes_deg: Sequence[float]) -> float:
    """Share of ovality that shows over the axes however the ellipse lies.

    Parameters
    ----------
    axes_deg : sequence of float
        Directions of the axes. [deg]

    Returns
    -------
    float
        From 0 to 1: the least of share_seen over every direction. [1]

    Raises
    ------
    OutOfDomain
        If there is no axis.

    Notes
    -----
    The difference of any two axes is a·cos 2φ + b·sin 2φ; the greatest of their sizes is least where one of them is
    nought or where two are equal, so only those directions are looked at.
    Closed form.
    """
    pairs = [
        (cos(2 * radians(one)) - cos(2 * radians(other)), sin(2 * radians(one)) - sin(2 * radians(other)))
        for one, other in itertools.combinations(axes_deg, 2)
    ]
    turning = [*pairs]
    for (a, b), (c, d) in itertools.combinations(pairs, 2):
        turning += [(a - c, b - d), (a + c, b + d)]
    directions = [atan2(-a, b) / 2 for a, b in turning if hypot(a, b) > 1e-12]
    return min((share_seen(axes_deg, direction * 180 / pi) for direction in directions), default=0.0)


def cannot_see(axes_deg: Sequence[float], levels: int) -> tuple[str, ...]:
    """Say in words what a pattern of diameters cannot see. [deg]

    Shares of share_guaranteed; the rest is common practice.
    """
    said = []
    count = different_axes(axes_deg)
    if count < 2:
        said.append("One axis says nothing of roundness.")
    elif count == 2:
        said.append("Two axes bound nothing: an oval that lies between them reads round. Read a third axis.")
    else:
        share = share_guaranteed(axes_deg)
        said.append(
            f"However an oval lies, these {count} axes show at least {share * 100:.0f} % of it as greatest less least."
        )
        said.append(
            "The fitted ellipse takes an oval and nothing else for granted: four lobes, as head bolts pull them, would "
            "pass for an oval here. Five axes tell them apart."
            if count < FOUR_LOBES_FROM_AXES
            else "From these axes oval and four lobes are fitted side by side."
        )
    said.append(
        "A two-point gauge is blind to three, five and seven lobes: they read round. A three-point gauge, a sweep "
        "with an indicator or a roundness instrument finds them."
    )
    if levels < 3:
        said.append("Fewer than three levels show neither barrel nor waist.")
    elif levels < 5:
        said.append("Fewer than five levels can miss the wear step at the top of ring travel and a bell-mouth.")
    return tuple(said)
