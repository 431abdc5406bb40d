"""Flatness of a deck from a grid: an indicator's heights over the plane, or a feeler under a straightedge."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vallostasis.core.errors import OutOfDomain


@dataclass(frozen=True, slots=True)
class Flatness:
    """Greatest less least distance from the least-squares plane, each point's distance, and the fall of the plane.

    Distances in m, positive above the plane; ``fall_along`` and ``fall_across`` in m per m.
    """

    flatness_m: float
    off_plane_m: tuple[float, ...]
    fall_along: float
    fall_across: float


def flatness_of_grid(along_m: Sequence[float], across_m: Sequence[float], heights_m: Sequence[float]) -> Flatness:
    """Flatness of a face from heights on a grid.

    Parameters
    ----------
    along_m, across_m : sequence of float, shape (n,)
        Where each point lies. [m]
    heights_m : sequence of float, shape (n,)
        Indicator readings, positive upwards. [m]

    Returns
    -------
    Flatness
        About the least-squares plane; the minimum zone is never wider.

    Raises
    ------
    OutOfDomain
        If fewer than four points were read, they lie on one line, or the lists differ in length.

    Notes
    -----
    z = a + b·x + c·y by least squares; flatness is the range of z − plane (ISO 12781-1: least-squares reference
    plane, from memory).
    """
    if not len(along_m) == len(across_m) == len(heights_m):
        raise OutOfDomain("every point has a place along, a place across and a height", "heights_m")
    if len(heights_m) < 4:
        raise OutOfDomain("three points are always flat: flatness needs a fourth", "heights_m")
    design = np.column_stack([np.ones(len(along_m)), along_m, across_m])
    if np.linalg.matrix_rank(design) < 3:
        raise OutOfDomain("the points lie on one line: read a second row", "across_m")
    solved = np.linalg.lstsq(design, np.asarray(heights_m, dtype=float), rcond=None)[0]
    off = np.asarray(heights_m, dtype=float) - design @ solved
    return Flatness(float(np.ptp(off)), tuple(float(one) for one in off), float(solved[1]), float(solved[2]))
