"""Causes of a bore's shape laid on its readings: where each could be, and how the diameters would then look.

References
----------
.. [1] Fourier series of a closed profile: an oval is its second, four lobes its fourth term (from memory).
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.causes.bore_table import BORE_CAUSES, BorePattern
from vallostasis.core.causes.candidates import Candidate
from vallostasis.core.causes.table import UM

Array = NDArray[np.float64]

# Where a plate leaves a waist and how far that reaches, as shares of the bore's length. Common practice.
WAIST_AT, WAIST_WIDE = 0.25, 0.15
# How far four lobes reach down, as a share of the length. Common practice.
LOBES_REACH = 0.3
# What is met in every bore of a block as often as in one. Common practice, no published source.
EVERY = frozenset({BorePattern.BELL, BorePattern.WAIST, BorePattern.CONE})
# What is less than that in a column is none of it: a direction that the axes read cannot see.
NOTHING = 1e-6


@dataclass(frozen=True, slots=True)
class BoreSpot:
    """Where one diameter stands: its bore, how deep from 0 at the top to 1, across which axis, its name. [deg]"""

    hole: int
    deep: float
    axis_deg: float
    name: str


def bore_candidates(spots: Sequence[BoreSpot]) -> tuple[Candidate, ...]:
    """Lay the causes of a bore's shape on what was read of every bore.

    Parameters
    ----------
    spots : sequence of BoreSpot
        Where each diameter stands.

    Returns
    -------
    tuple of Candidate
        Each cause wherever it could be and shows, its prior shared evenly among those places. The middle of each bore
        is left open by the covariance; shapes as in [1]_ of the module, depths common practice.
    """
    found: list[Candidate] = []
    holes = tuple(dict.fromkeys(one.hole for one in spots))
    deep = np.array([one.deep for one in spots])
    axis = np.radians([one.axis_deg for one in spots])
    for name, _, pattern, low, high, prior in BORE_CAUSES:
        if pattern is BorePattern.NONE:
            found.append(Candidate(name, (), np.zeros((len(spots), 0)), (), (), prior))
            continue
        places = []
        for where, columns, words in _places(pattern, spots, holes, deep, axis):
            seen = columns[:, np.abs(columns).max(axis=0) > NOTHING]
            if seen.shape[1]:
                places.append(_candidate(name, where, seen, low * UM, high * UM, words))
        if len(places) > 1 and pattern in EVERY:
            # What wears or is honed together is as often met in every bore, each by its own amount.
            columns = np.column_stack([one.columns for one in places])
            limits = (low * UM,) * len(places), (high * UM,) * len(places)
            found.append(Candidate(name, holes, columns, *limits, prior / 2, each=True))
            prior /= 2
        found += [replace(one, prior=prior / len(places)) for one in places]
    return tuple(found)


def _candidate(
    name: str, where: tuple[int, ...], columns: Array, low_m: float, high_m: float, words: str
) -> Candidate:  # fmt: skip
    if columns.shape[1] == 1:
        return Candidate(name, where, columns, (low_m,), (high_m,), 1.0, words=words)
    return Candidate(name, where, columns, (-high_m, -high_m), (high_m, high_m), 1.0, amplitude=True, words=words)


def _places(
    pattern: BorePattern, spots: Sequence[BoreSpot], holes: tuple[int, ...], deep: Array, axis: Array
) -> Iterator[tuple[tuple[int, ...], Array, str]]:
    """Every place of a pattern with its columns: on the diameter, how much wider for one metre of effect. Geometry."""
    if pattern is BorePattern.NEIGHBOURS:
        # Narrow along the block is wide across it: the oval has its least at the axis along the crank.
        yield holes, -np.cos(2 * axis)[:, None], ""
        return
    for hole in holes:
        here = np.array([float(one.hole == hole) for one in spots])
        if pattern is BorePattern.SPOT:
            for at, one in enumerate(spots):
                if one.hole == hole:
                    yield (hole,), -np.eye(len(spots))[:, [at]], one.name
            continue
        yield (hole,), here[:, None] * _shape(pattern, deep, axis), ""


def _shape(pattern: BorePattern, deep: Array, axis: Array) -> Array:
    """How a bore is wider for one metre of effect, reading by reading. Shapes: common practice, [1]_ of the module."""
    if pattern is BorePattern.OVAL:
        return np.column_stack([np.cos(2 * axis), np.sin(2 * axis)])
    if pattern is BorePattern.LOBES:
        fades = np.exp(-deep / LOBES_REACH)
        return np.column_stack([fades * np.cos(4 * axis), fades * np.sin(4 * axis)])
    if pattern is BorePattern.BELL:
        return ((2 * np.abs(deep - 0.5)) ** 4)[:, None]
    if pattern is BorePattern.WAIST:
        return -np.exp(-(((deep - WAIST_AT) / WAIST_WIDE) ** 2))[:, None]
    return ((1 - deep) ** 2)[:, None]
