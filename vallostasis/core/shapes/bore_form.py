"""What a survey of two-point diameters says of a bore: out of round, taper, barrel, bell-mouth.

Conventions: level 0 is the top, nearest the deck. Out of round is the difference of two diameters,
per side it is half of that. Angles count clockwise from the front of the engine, as on the clock.
"""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.ovality import Ellipse, different_axes, fit_ellipse

Diameters = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class LevelForm:
    """One level: mean, greatest less least, the ellipse where three axes were read; None where too little was. [m]"""

    mean_m: float | None
    out_of_round_m: float | None
    greatest_axis_deg: float | None
    ellipse: Ellipse | None


@dataclass(frozen=True, slots=True)
class BoreForm:
    """The form of a whole bore; None where the readings do not reach. [m]

    ``taper_m`` is greatest less least along the worst axis; ``taper_per_axis_m``, ``taper_of_mean_m`` and
    ``fitted_taper_m`` are top less bottom, positive where the top is larger; ``barrel_m`` is the middle less
    the mean of both ends, positive for a barrel, negative for a waist; ``bell_*`` is an end less its neighbour,
    positive where it opens.
    """

    levels: tuple[LevelForm, ...]
    worst_out_of_round_m: float | None
    taper_m: float | None
    taper_per_axis_m: tuple[float | None, ...]
    taper_of_mean_m: float | None
    fitted_taper_m: float | None
    barrel_m: float | None
    bell_top_m: float | None
    bell_bottom_m: float | None
    mean_m: float
    greatest_m: float
    least_m: float


def bore_form(diameters_m: Diameters, axes_deg: Sequence[float], depths_m: Sequence[float]) -> BoreForm:
    """Work out the form of a bore from its diameters.

    Parameters
    ----------
    diameters_m : array, shape (levels, axes)
        Two-point diameters, NaN where none was read. [m]
    axes_deg : sequence of float, shape (axes,)
        Directions of the axes. [deg]
    depths_m : sequence of float, shape (levels,)
        Depths of the levels, growing downwards. [m]

    Returns
    -------
    BoreForm
        Levels in the order given, and what holds between them.

    Raises
    ------
    OutOfDomain
        If nothing was read, a diameter is not above zero, or shapes and depths do not fit.

    Notes
    -----
    A level's mean is that of the axes read there. What compares levels compares like axes with like: those read at
    every level it takes, by the weights of form_weights. Taper along an axis is greatest less least of all its levels,
    so that a step between two equal ends counts too.

    References
    ----------
    .. [1] Common practice, no published source: what machinists call taper, barrel, waist and bell-mouth.
    """
    table = np.asarray(diameters_m, dtype=np.float64)
    _require_table(table, axes_deg, depths_m)
    levels = tuple(_level(row, axes_deg) for row in table)
    round_off = [level.out_of_round_m for level in levels if level.out_of_round_m is not None]
    read = table[~np.isnan(table)]
    weights = form_weights(~np.isnan(table), depths_m)
    along = [column[~np.isnan(column)] for column in table.T]
    return BoreForm(
        levels=levels,
        worst_out_of_round_m=max(round_off, default=None),
        taper_m=max((float(np.ptp(column)) for column in along if len(column) > 1), default=None),
        taper_per_axis_m=tuple(_or_none(column[0] - column[-1]) if len(column) > 1 else None for column in table.T),
        taper_of_mean_m=_weighed(weights.end_to_end, table),
        fitted_taper_m=_weighed(weights.fitted_taper, table),
        barrel_m=_weighed(weights.barrel, table),
        bell_top_m=_weighed(weights.bell_top, table),
        bell_bottom_m=_weighed(weights.bell_bottom, table),
        mean_m=float(read.mean()),
        greatest_m=float(read.max()),
        least_m=float(read.min()),
    )


@dataclass(frozen=True, slots=True)
class FormWeights:
    """What each diameter of a table weighs in what compares its levels; None where no axis was read at all of them. [1]

    Each is an array of shape (levels, axes).
    """

    end_to_end: Diameters | None
    fitted_taper: Diameters | None
    barrel: Diameters | None
    bell_top: Diameters | None
    bell_bottom: Diameters | None


def form_weights(there: NDArray[np.bool_], depths_m: Sequence[float]) -> FormWeights:
    """What each diameter weighs in taper, barrel and bell-mouth.

    Parameters
    ----------
    there : array of bool, shape (levels, axes)
        Which diameters were read.
    depths_m : sequence of float, shape (levels,)
        Depths of the levels. [m]

    Notes
    -----
    The fitted taper is the fall of the least-squares line over the depth from first to last. The middle is level n // 2
    for an odd number of levels, the mean of the two middle ones for an even number.
    Common practice; the fitted line by least squares.
    """
    levels = len(depths_m)
    if levels < 2:
        return FormWeights(None, None, None, None, None)
    first, last = 0, levels - 1
    middle = range((levels - 1) // 2, levels // 2 + 1)
    read = [level for level in range(levels) if there[level].any()]
    depths = np.array([depths_m[level] for level in read])
    off = depths - depths.mean() if read else depths
    falls = {}
    if len(read) > 1:
        scale = (depths_m[last] - depths_m[first]) / float(off @ off)
        falls = {level: -float(one) * scale for level, one in zip(read, off, strict=True)}
    ends = {first: -0.5, last: -0.5}
    enough = levels > 2
    return FormWeights(
        end_to_end=_like_axes(there, {first: 1.0, last: -1.0}),
        fitted_taper=_like_axes(there, falls) if falls else None,
        barrel=_like_axes(there, {**ends, **{level: 1 / len(middle) for level in middle}}) if enough else None,
        bell_top=_like_axes(there, {first: 1.0, first + 1: -1.0}) if enough else None,
        bell_bottom=_like_axes(there, {last: 1.0, last - 1: -1.0}) if enough else None,
    )


def _like_axes(there: NDArray[np.bool_], by_level: dict[int, float]) -> Diameters | None:
    """Spread the weight of each level over the axes that were read at all of these levels."""
    axes = there[list(by_level)].all(axis=0)
    if not axes.any():
        return None
    weights = np.zeros(there.shape)
    for level, weight in by_level.items():
        weights[level, axes] = weight / axes.sum()
    return weights


def _weighed(weights: Diameters | None, table: Diameters) -> float | None:
    return None if weights is None else float((weights * np.nan_to_num(table)).sum())


def _require_table(table: Diameters, axes_deg: Sequence[float], depths_m: Sequence[float]) -> None:
    if table.ndim != 2 or table.shape != (len(depths_m), len(axes_deg)):
        raise OutOfDomain(
            f"diameters are a table of {len(depths_m)} levels by {len(axes_deg)} axes, they are {table.shape}",
            "diameters_m",
        )
    if not (~np.isnan(table)).any():
        raise OutOfDomain("nothing was read yet: a survey needs at least one diameter", "diameters_m")
    if not (table[~np.isnan(table)] > 0).all() or np.isinf(table).any():
        raise OutOfDomain("a diameter is a finite length above zero", "diameters_m")
    if any(later <= earlier for earlier, later in itertools.pairwise(depths_m)):
        raise OutOfDomain("depths grow from the top downwards", "depths_m")


def _level(row: Diameters, axes_deg: Sequence[float]) -> LevelForm:
    there = ~np.isnan(row)
    if not there.any():
        return LevelForm(None, None, None, None)
    read, axes = row[there], np.asarray(axes_deg, dtype=np.float64)[there]
    ellipse = fit_ellipse(axes.tolist(), read) if different_axes(axes.tolist()) >= 3 else None
    if len(read) < 2:
        return LevelForm(float(read.mean()), None, None, ellipse)
    return LevelForm(float(read.mean()), float(read.max() - read.min()), float(axes[read.argmax()]), ellipse)


def _or_none(value: float) -> float | None:
    return None if np.isnan(value) else float(value)
