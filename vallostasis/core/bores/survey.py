"""What a survey of two-point diameters says of a bore: out of round, taper, barrel, bell-mouth.

Conventions: level 0 is the top, nearest the deck. Out of round is the difference of two diameters,
per side it is half of that. Angles count clockwise from the front of the engine, as on the clock.
"""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.bores.ovality import Ellipse, different_axes, fit_ellipse
from vallostasis.core.errors import OutOfDomain

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

    ``taper_*`` is top less bottom, positive where the top is larger; ``barrel_m`` is the middle less the mean of both
    ends, positive for a barrel, negative for a waist; ``bell_*`` is an end less its neighbour, positive where it
    opens.
    """

    levels: tuple[LevelForm, ...]
    worst_out_of_round_m: float | None
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
    A level's mean is that of the axes read there. The fitted taper is the fall of the least-squares line through the
    level means over the depth from first to last. The middle is level n // 2 for an odd number of levels, the mean of
    the two middle ones for an even number.
    """
    table = np.asarray(diameters_m, dtype=np.float64)
    _require_table(table, axes_deg, depths_m)
    levels = tuple(_level(row, axes_deg) for row in table)
    means = np.array([np.nan if level.mean_m is None else level.mean_m for level in levels])
    round_off = [level.out_of_round_m for level in levels if level.out_of_round_m is not None]
    read = table[~np.isnan(table)]
    return BoreForm(
        levels=levels,
        worst_out_of_round_m=max(round_off, default=None),
        taper_per_axis_m=tuple(_or_none(column[0] - column[-1]) if len(column) > 1 else None for column in table.T),
        taper_of_mean_m=_or_none(means[0] - means[-1]) if len(means) > 1 else None,
        fitted_taper_m=_fitted_taper(means, np.asarray(depths_m, dtype=np.float64)),
        barrel_m=_barrel(means),
        bell_top_m=_or_none(means[0] - means[1]) if len(means) > 2 else None,
        bell_bottom_m=_or_none(means[-1] - means[-2]) if len(means) > 2 else None,
        mean_m=float(read.mean()),
        greatest_m=float(read.max()),
        least_m=float(read.min()),
    )


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


def _fitted_taper(means: Diameters, depths: Diameters) -> float | None:
    there = ~np.isnan(means)
    if there.sum() < 2:
        return None
    slope = np.polyfit(depths[there], means[there], 1)[0]
    return float(-slope * (depths[-1] - depths[0]))


def _barrel(means: Diameters) -> float | None:
    if len(means) < 3:
        return None
    middle = means[(len(means) - 1) // 2 : len(means) // 2 + 1].mean()
    return _or_none(middle - (means[0] + means[-1]) / 2)


def _or_none(value: float) -> float | None:
    return None if np.isnan(value) else float(value)
