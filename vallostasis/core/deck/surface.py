"""The face of a deck from its grid: how deep a cutter goes to clean all of it, or only the sealing land of the bores.

References
----------
.. [1] ISO 12781-1: minimum zone of a plane; by linear programming it is exact (from memory).
.. [2] scipy.optimize.linprog (HiGHS).
"""

from dataclasses import dataclass
from math import pi

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import RegularGridInterpolator
from scipy.optimize import linprog

from vallostasis.core.errors import OutOfDomain

Array = NDArray[np.float64]
# Round a bore the face is looked at so many places; the picture of a face has so many cells the longer way.
ROUND, CELLS = 180, 56


@dataclass(frozen=True, slots=True)
class Bore:
    """Where a bore comes out of the deck. [m]"""

    number: int
    along_m: float
    across_m: float
    radius_m: float


@dataclass(frozen=True, slots=True)
class Cut:
    """A plane that a cutter leaves, as deep below the highest point of the face as ``depth_m``. [m], [m/m]

    ``fall_along`` and ``fall_across`` is how it is tilted against the datum of the readings.
    """

    depth_m: float
    fall_along: float
    fall_across: float


@dataclass(frozen=True)
class Surface:
    """A face read on a grid. [m]

    Parameters
    ----------
    along_m, across_m : ndarray, shape (n,), (m,)
        Lines of the grid, rising.
    heights_m : ndarray, shape (n, m)
        Readings, positive upwards.
    """

    along_m: Array
    across_m: Array
    heights_m: Array

    def at(self, along_m: Array, across_m: Array) -> Array:
        """Heights between the points of the grid, straight from one to the next; beyond its rim that of the rim. [m]

        Bilinear, scipy's RegularGridInterpolator.
        """
        between = RegularGridInterpolator((self.along_m, self.across_m), self.heights_m)
        inside = (np.clip(along_m, self.along_m[0], self.along_m[-1]),
                  np.clip(across_m, self.across_m[0], self.across_m[-1]))  # fmt: skip
        return np.asarray(between(np.column_stack(inside)), dtype=np.float64)


def surface_of(points_m: dict[tuple[float, float], float]) -> Surface:
    """Lay readings of a grid side by side.

    Parameters
    ----------
    points_m : dict
        Height by place along and across. [m]

    Returns
    -------
    Surface
        Its lines rising. [m]

    Raises
    ------
    OutOfDomain
        If there are fewer than two lines either way, or a crossing of them was not read.

    Notes
    -----
    By definition of a grid.
    """
    along, across = (sorted({place[axis] for place in points_m}) for axis in (0, 1))
    if len(along) < 2 or len(across) < 2:
        raise OutOfDomain("a face wants two lines of readings both ways at the least", "heights_m")
    if len(points_m) < len(along) * len(across):
        raise OutOfDomain("a point of the grid was not read", "heights_m")
    heights = [[points_m[x, y] for y in across] for x in along]
    return Surface(np.array(along), np.array(across), np.array(heights))


def near_bores(surface: Surface, bores: tuple[Bore, ...], land_m: float) -> tuple[Array, Array, Array]:
    """Return points of the face that bound it within the sealing land of the bores: along, across, height. [m]

    Points of the grid inside the land, and both its rims: straight from point to point, the face is nowhere lower in
    between, by definition of a bilinear surface.
    """
    x, y = (one.ravel() for one in np.meshgrid(surface.along_m, surface.across_m, indexing="ij"))
    inside = np.zeros(len(x), dtype=bool)
    rims = []
    for bore in bores:
        away = np.hypot(x - bore.along_m, y - bore.across_m)
        inside |= (away >= bore.radius_m) & (away <= bore.radius_m + land_m)
        rims += [_rim(bore, radius) for radius in (bore.radius_m, bore.radius_m + land_m)]
    rim_x, rim_y = (np.concatenate([rim[axis] for rim in rims]) for axis in (0, 1))
    return (np.concatenate([x[inside], rim_x]), np.concatenate([y[inside], rim_y]),
            np.concatenate([surface.heights_m.ravel()[inside], surface.at(rim_x, rim_y)]))  # fmt: skip


def _rim(bore: Bore, radius_m: float) -> tuple[Array, Array]:
    angles = np.linspace(0, 2 * pi, ROUND, endpoint=False)
    return bore.along_m + radius_m * np.cos(angles), bore.across_m + radius_m * np.sin(angles)


def least_cut(surface: Surface, land: tuple[Array, Array, Array] | None, may_tilt: bool) -> Cut:
    """Return the least cut that leaves no old face: nowhere, or nowhere on the land.

    Parameters
    ----------
    surface : Surface
        The face.
    land : tuple of ndarray or None
        Points that have to clean up; None where all of it has to.
    may_tilt : bool
        Whether the block may be set to suit the face; else it lies as it was read.

    Returns
    -------
    Cut
        Depth below the highest point of the face. [m]

    Raises
    ------
    OutOfDomain
        If no plane is found, which a finite grid never gives.

    Notes
    -----
    The cutter's plane lies at or below every point that has to clean up; the highest point of the whole face stands
    above it by the depth. The least depth over the tilt is a linear programme [1]_, [2]_ of the module: corners of the
    grid bound the face, since it is straight between them.
    """
    x, y = (one.ravel() for one in np.meshgrid(surface.along_m, surface.across_m, indexing="ij"))
    z = surface.heights_m.ravel()
    below = (x, y, z) if land is None else land
    scale = max(float(np.ptp(z)), 1e-9)
    tilt = None if may_tilt else 0.0
    # Unknown: plane a + b·x + c·y and depth t, in units of the range of the readings.
    above_rows = np.column_stack([-np.ones(len(z)), -x, -y, -np.ones(len(z))])
    below_rows = np.column_stack([np.ones(len(below[2])), below[0], below[1], np.zeros(len(below[2]))])
    solved = linprog(
        [0.0, 0.0, 0.0, 1.0],
        A_ub=np.vstack([above_rows, below_rows]),
        b_ub=np.concatenate([-z / scale, below[2] / scale]),
        bounds=[(None, None), (tilt, tilt), (tilt, tilt), (0.0, None)],
        method="highs",
    )
    if not solved.success or solved.x is None:
        raise OutOfDomain("no plane lies below this face", "heights_m")
    return Cut(float(solved.x[3] * scale), float(solved.x[1] * scale), float(solved.x[2] * scale))


def below_top(surface: Surface, cut: Cut, along_m: Array, across_m: Array) -> Array:
    """Return how far places of a face lie below its highest point, square to the cutter's plane. [m]

    What comes off there is the depth of the cut less this. By definition.
    """
    x, y = (one.ravel() for one in np.meshgrid(surface.along_m, surface.across_m, indexing="ij"))
    tilted = surface.heights_m.ravel() - cut.fall_along * x - cut.fall_across * y
    here = surface.at(along_m, across_m) - cut.fall_along * along_m - cut.fall_across * across_m
    return np.asarray(np.max(tilted) - here, dtype=np.float64)


def off_at(surface: Surface, bore: Bore, cut: Cut, depth_m: float) -> float:
    """Return what comes off round a bore, in the mean, where the highest point of the face loses ``depth_m``. [m]

    Below nought: the cutter does not reach it. Mean round its rim of the height over the cutter's plane, by definition.
    """
    return depth_m - float(np.mean(below_top(surface, cut, *_rim(bore, bore.radius_m))))


@dataclass(frozen=True)
class Relief:
    """How far the face lies below its highest point, cell by cell from its first corner. [m]"""

    along_m: float
    across_m: float
    step_m: float
    below_m: Array


def relief_of(surface: Surface, cut: Cut, bores: tuple[Bore, ...], land_m: float) -> Relief:
    """Return a face cell by cell, as far as it was read and its lands reach. [m] By definition, as ``below_top``."""
    ends = [
        _ends(surface.along_m, [(bore.along_m, bore.radius_m + land_m) for bore in bores]),
        _ends(surface.across_m, [(bore.across_m, bore.radius_m + land_m) for bore in bores]),
    ]
    step = (ends[0][1] - ends[0][0]) / CELLS
    along, across = (np.arange(low + step / 2, high, step) for low, high in ends)
    x, y = np.meshgrid(along, across, indexing="ij")
    below = below_top(surface, cut, x.ravel(), y.ravel()).reshape(x.shape)
    return Relief(float(ends[0][0]), float(ends[1][0]), float(step), below)


def bores_of_row(
    numbers: tuple[int, ...], pitch_m: float, bore_m: float, along_m: Array, across_m: Array
) -> tuple[Bore, ...]:
    """Lay the bores of a row on its grid: the first half a pitch from the first line, all in its middle. [m]

    House rule, as the grid is drawn where it is read.
    """
    middle = float(across_m[0] + across_m[-1]) / 2
    return tuple(
        Bore(number, float(along_m[0]) + pitch_m * (at + 0.5), middle, bore_m / 2) for at, number in enumerate(numbers)
    )


def _ends(lines_m: Array, reach_m: list[tuple[float, float]]) -> tuple[float, float]:
    """First and last of the lines of a grid, and of what reaches beyond them. [m]"""
    return (min([float(lines_m[0]), *(at - far for at, far in reach_m)]),
            max([float(lines_m[-1]), *(at + far for at, far in reach_m)]))  # fmt: skip
