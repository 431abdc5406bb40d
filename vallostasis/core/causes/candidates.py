"""Causes laid on the holes of a block: where each could be, and how its readings would then look.

References
----------
.. [1] R. L. Burden, J. D. Faires, Numerical Analysis, least squares: a linear model Xβ, one column for every effect.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.causes.table import Cause, Pattern

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Spot:
    """Where one residual stands: its hole, and there at which angle; what is in the hole. [deg], [m]

    ``angle_deg`` is None for the middle of a hole; ``along`` is where the hole stands in its bank, −1 to 1.
    """

    hole: int
    along: float
    angle_deg: float | None = None
    make: str = ""
    shims_m: float = 0.0


@dataclass(frozen=True, slots=True)
class Candidate:
    """A cause at one place: its columns, their bounds, its share of how often the cause is met. [m], [1]

    ``columns`` has shape (readings, effects); where both bounds are one, that effect is known. ``amplitude`` says that
    the last two columns are one effect in a direction, ``each`` that every column is the same cause in another hole;
    ``words`` say where beside the holes.
    """

    cause: str
    where: tuple[int, ...]
    columns: Array
    low_m: tuple[float, ...]
    high_m: tuple[float, ...]
    prior: float
    amplitude: bool = False
    words: str = ""
    each: bool = False


def height_candidates(
    spots: Sequence[Spot], causes: Sequence[Cause], spacers_m: Sequence[float] = ()
) -> tuple[Candidate, ...]:
    """Lay the causes of heights on the holes of a block.

    Parameters
    ----------
    spots : sequence of Spot
        Where each residual stands.
    causes : sequence of Cause
        What is known.
    spacers_m : sequence of float
        What is counted between deck and measuring face. [m]

    Returns
    -------
    tuple of Candidate
        Each cause wherever it could be, its prior shared evenly among those places and both signs where it has two; a
        cause that these readings cannot show is left out. Columns of a linear model [1]_ of the module.
    """
    found: list[Candidate] = []
    for cause in causes:
        places = [one for one in _places(cause, spots, spacers_m) if np.any(one.columns) or not one.where]
        # What can be either way is met each way half as often.
        ways = 2 if cause.low_m < 0 < cause.high_m else 1
        found += [replace(one, prior=cause.prior / len(places) / ways) for one in places]
    return tuple(found)


def _places(cause: Cause, spots: Sequence[Spot], spacers_m: Sequence[float]) -> list[Candidate]:
    """Every place where a cause could be. Geometry."""
    holes, along = tuple(dict.fromkeys(one.hole for one in spots)), np.array([one.along for one in spots])
    whole: dict[Pattern, Array] = {Pattern.ALL: np.ones(len(spots)), Pattern.SLOPE: along, Pattern.BOW: 1 - along**2}
    if cause.pattern is Pattern.NONE:
        return [Candidate(cause.name, (), np.zeros((len(spots), 0)), (), (), 1.0)]
    if cause.pattern in whole:
        return [_one(cause, holes, whole[cause.pattern], cause.low_m, cause.high_m)]
    if cause.pattern is Pattern.SPACER:
        return [_one(cause, holes, np.ones(len(spots)), -size, -size) for size in spacers_m]
    if cause.pattern is Pattern.MAKE:
        makes = sorted({one.make for one in spots if one.make})
        return [_of_make(cause, spots, make) for make in makes]
    return [found for hole in holes if (found := _in_hole(cause, spots, hole)) is not None]


def _one(cause: Cause, where: tuple[int, ...], column: Array, low_m: float, high_m: float) -> Candidate:
    return Candidate(cause.name, where, column[:, None], (low_m,), (high_m,), 1.0)


def _of_make(cause: Cause, spots: Sequence[Spot], make: str) -> Candidate:
    where = tuple(dict.fromkeys(one.hole for one in spots if one.make == make))
    column = np.array([float(one.make == make) for one in spots])
    return _one(cause, where, column, cause.low_m, cause.high_m)


def _in_hole(cause: Cause, spots: Sequence[Spot], hole: int) -> Candidate | None:
    """A cause in one hole: its middle, and where it leans its two directions. Geometry: height = middle + lean·cos."""
    here = np.array([float(one.hole == hole) for one in spots])
    if cause.pattern is Pattern.ONE:
        return _one(cause, (hole,), here, cause.low_m, cause.high_m)
    if cause.pattern is Pattern.SHIMMED:
        shims = next(one.shims_m for one in spots if one.hole == hole)
        return None if shims <= 0 else _one(cause, (hole,), here, -shims, -shims)
    angles = [one.angle_deg for one in spots if one.hole == hole and one.angle_deg is not None]
    if len({round(angle % 360, 3) for angle in angles}) < 3:
        return None
    round_ = np.radians([one.angle_deg or 0.0 for one in spots])
    lean = np.column_stack([here * np.cos(round_), here * np.sin(round_)])
    high = cause.high_m
    if cause.pattern is Pattern.TILT:
        return Candidate(cause.name, (hole,), lean, (-high, -high), (high, high), 1.0, amplitude=True)
    # What lifts one side lifts the middle too, by more or less as the flange gives.
    columns = np.column_stack([here, lean])
    return Candidate(cause.name, (hole,), columns, (cause.low_m, -high, -high), (high, high, high), 1.0)
