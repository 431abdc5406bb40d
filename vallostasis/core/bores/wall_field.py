"""The wall of a bore as a field between its readings: diameters by level and axis, wear by level and clock.

Nothing is drawn where nothing was read: no further than a little beyond the outer levels, and not at a level whose
readings cannot place a shape.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import PchipInterpolator

from vallostasis.core.shapes.ovality import ELLIPSE_FROM_AXES, different_axes, ellipse_weights
from vallostasis.core.surveys.derived import BoreTable
from vallostasis.core.uncertainty.budget import Estimate, value_of
from vallostasis.core.uncertainty.monte_carlo import draw_jointly

Array = NDArray[np.float64]
# How far beyond the outer levels a field goes on as it is. [m] House rule.
BEYOND_M = 0.010
# Steps of a field down the depth and round the clock: finer than the eye asks of twenty readings.
ROWS, COLUMNS = 41, 72
# Draws that the ± of a field comes from: its own error stays below a twentieth.
FIELD_DRAWS = 240
# Lobes that readings round the clock are fitted with at the most: more is scatter.
MOST_LOBES = 5


@dataclass(frozen=True, slots=True)
class WallField:
    """Values over depth and angle; NaN where nothing was read. [m], [deg]

    ``values_m`` and ``expanded_m`` have shape (depths, angles); ``expanded_m`` is None where it was not asked for.
    """

    depths_m: Array
    angles_deg: Array
    values_m: Array
    expanded_m: Array | None = None

    def at(self, depth_m: float) -> Array:
        """Values round the clock at the row next to a depth. [m] By definition of the grid."""
        return np.asarray(self.values_m[int(np.abs(self.depths_m - depth_m).argmin())], dtype=np.float64)


@dataclass(frozen=True, slots=True)
class FieldLevel:
    """One level: its readings, and what each weighs in the shape fitted through them. [m], [1]

    ``weights`` has shape (parts of the shape, readings).
    """

    depth_m: float
    estimates: tuple[Estimate, ...]
    weights: Array


def diameter_levels(table: BoreTable) -> tuple[FieldLevel, ...]:
    """Return the levels of a bore whose axes place an oval: D0, a2, b2 and, from five axes on, a4, b4.

    Notes
    -----
    D(θ) = D0 + a2·cos 2θ + b2·sin 2θ + a4·cos 4θ + b4·sin 4θ; least squares, as ovality.ellipse_weights.
    """
    levels = []
    for depth, row in zip(table.depths_m, table.cells, strict=True):
        axes = [axis for axis, cell in zip(table.axes_deg, row, strict=True) if cell is not None]
        if different_axes(axes) >= ELLIPSE_FROM_AXES:
            there = tuple(cell for cell in row if cell is not None)
            levels.append(FieldLevel(depth, there, _full(ellipse_weights(axes)[0], 5)))
    return tuple(levels)


def _full(weights: Array, parts: int) -> Array:
    """Parts that readings do not place weigh nothing."""
    return np.vstack([weights, np.zeros((parts - len(weights), weights.shape[1]))])


def even_lobes(angles_deg: Array) -> Array:
    """Shape of diameters at angles: 1, cos 2θ, sin 2θ, cos 4θ, sin 4θ. [1] Definition of the fitted shape."""
    turns = np.radians(angles_deg)
    return np.column_stack([np.ones_like(turns), np.cos(2 * turns), np.sin(2 * turns), np.cos(4 * turns),
                            np.sin(4 * turns)])  # fmt: skip


def clock_lobes(angles_deg: Array) -> Array:
    """Shape round the clock at angles: 1, cos θ, sin θ, … up to MOST_LOBES. [1] Definition of the Fourier series."""
    turns = np.radians(angles_deg)
    columns = [np.ones_like(turns)]
    for order in range(1, MOST_LOBES + 1):
        columns += [np.cos(order * turns), np.sin(order * turns)]
    return np.column_stack(columns)


def clock_weights(angles_deg: Sequence[float]) -> Array:
    """What each reading round the clock weighs in the lobes fitted through them.

    Parameters
    ----------
    angles_deg : sequence of float, shape (n,)
        Directions, each once. [deg]

    Returns
    -------
    array, shape (1 + 2·MOST_LOBES, n)
        Lobes that so many positions cannot place weigh nothing. [1]

    Notes
    -----
    As many lobes as (n − 1) // 2: the sampling theorem. Least squares by the pseudo-inverse.
    """
    design = clock_lobes(np.asarray(angles_deg, dtype=np.float64))
    placed = 1 + 2 * min(MOST_LOBES, (len(angles_deg) - 1) // 2)
    weights: Array = np.asarray(np.linalg.pinv(design[:, :placed]), dtype=np.float64)
    return _full(weights, design.shape[1])


def field_of(
    levels: Sequence[FieldLevel], read_at_m: Sequence[float], lobes: Array, angles_deg: Array, k: float | None = None
) -> WallField | None:
    """Lay a field through the levels of a wall.

    Parameters
    ----------
    levels : sequence of FieldLevel
        Levels with a shape, from the top.
    read_at_m : sequence of float
        Every depth that was read, also those without a shape: nothing is drawn at these. [m]
    lobes : array, shape (angles, parts)
        The parts of the shape at each angle: even_lobes or clock_lobes.
    angles_deg : array, shape (angles,)
        Where the field is wanted. [deg]
    k : float or None
        Coverage factor of its ±; None where that is not asked for.

    Returns
    -------
    WallField or None
        None where no level has a shape.

    Notes
    -----
    Every part of the shape runs between levels as a monotone cubic, so that nothing overshoots what was read; its ± by
    drawing the readings jointly.

    References
    ----------
    .. [1] F. N. Fritsch and R. E. Carlson, Monotone piecewise cubic interpolation, 1980 (scipy PchipInterpolator).
    """
    if not levels:
        return None
    depths = np.array([level.depth_m for level in levels])
    rows = np.linspace(max(0.0, depths[0] - BEYOND_M), depths[-1] + BEYOND_M, ROWS)
    rows = np.unique(np.concatenate([rows, depths]))
    parts = np.array([level.weights @ [value_of(one) for one in level.estimates] for level in levels])
    values = _between(depths, parts[:, :, None], rows, lobes)[:, :, 0]
    blank = _nearest_is_shapeless(rows, depths, read_at_m)
    values[blank] = np.nan
    expanded = None
    if k is not None:
        estimates = [one for level in levels for one in level.estimates]
        drawn = draw_jointly(estimates, FIELD_DRAWS).T
        ends = np.cumsum([0, *(len(level.estimates) for level in levels)])
        drawn_parts = np.stack([level.weights @ drawn[first:last] for level, first, last
                                in zip(levels, ends[:-1], ends[1:], strict=True)])  # fmt: skip
        expanded = k * _between(depths, drawn_parts, rows, lobes).std(axis=2)
        expanded[blank] = np.nan
    return WallField(rows, angles_deg, values, expanded)


def _between(depths: Array, parts: Array, rows: Array, lobes: Array) -> Array:
    """Values at rows and angles, for parts of shape (levels, parts, draws)."""
    held = np.clip(rows, depths[0], depths[-1])
    along = parts[np.zeros(len(rows), dtype=int)] if len(depths) == 1 else PchipInterpolator(depths, parts)(held)
    return np.asarray(np.einsum("rpd,ap->rad", along, lobes), dtype=np.float64)


def _nearest_is_shapeless(rows: Array, depths: Array, read_at_m: Sequence[float]) -> NDArray[np.bool_]:
    shapeless = np.array([one for one in read_at_m if np.abs(depths - one).min() > 1e-9])
    if not len(shapeless):
        return np.zeros(len(rows), dtype=bool)
    to_shape = np.abs(rows[:, None] - depths).min(axis=1)
    return np.asarray(np.abs(rows[:, None] - shapeless).min(axis=1) < to_shape, dtype=bool)


def columns_of_a_turn() -> Array:
    """Angles that a field is drawn at, from the front clockwise. [deg] House rule."""
    return np.arange(COLUMNS) * 360.0 / COLUMNS
