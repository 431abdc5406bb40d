"""Bore centres and deck from a probe, against the drawing: centre distance, core shift, squareness to the deck.

References
----------
.. [1] ISO 12180-1, cylinders fitted by least squares; centres and squareness to the deck: common practice.
"""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import hypot

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.cylinder import reference_cylinder

Array = NDArray[np.float64]
LEAST_OF_DECK, LEAST_OF_BORE = 3, 6


@dataclass(frozen=True, slots=True)
class BoreCentre:
    """One bore as it was probed: where its axis meets the deck, its diameter, how it leans from square to the deck.

    ``lean_x``, ``lean_y`` are what the axis moves over a length of depth, seen square to the deck; ``shift_*`` is how
    far the centre lies from where the drawing has it. [m], [1]
    """

    hole: int
    x_m: float
    y_m: float
    diameter_m: float
    lean_x: float
    lean_y: float
    shift_x_m: float = 0.0
    shift_y_m: float = 0.0

    @property
    def shift_m(self) -> float:
        """How far the centre lies from where the drawing has it. [m] By definition."""
        return hypot(self.shift_x_m, self.shift_y_m)

    @property
    def lean(self) -> float:
        """What the axis moves over a length of depth. [1] By definition."""
        return hypot(self.lean_x, self.lean_y)


@dataclass(frozen=True, slots=True)
class CentreDistance:
    """Distance of two neighbours against the drawing. [m]"""

    holes: tuple[int, int]
    distance_m: float
    off_m: float


@dataclass(frozen=True, slots=True)
class Probed:
    """What a probe says of a block: how flat its deck is where it was touched, every bore, neighbours. [m]"""

    deck_flat_m: float
    bores: tuple[BoreCentre, ...]
    distances: tuple[CentreDistance, ...]


def probed_block(deck_m: Array, bores_m: dict[int, Array], rows: Sequence[Sequence[int]], pitch_m: float) -> Probed:
    """Return centres, squareness and core shift of a block that was probed.

    Parameters
    ----------
    deck_m : array, shape (n, 3)
        Points of the deck. [m]
    bores_m : dict
        Points of each bore by its hole, shape (n, 3). [m]
    rows : sequence of sequence of int
        Holes of each row of the block, from the front.
    pitch_m : float
        Distance of neighbours by the drawing. [m]

    Returns
    -------
    Probed
        Coordinates square to the deck: z down, x and y as the probe had them as nearly as that allows.

    Raises
    ------
    OutOfDomain
        If deck or a bore has too few points, or they do not span it.

    Notes
    -----
    Deck by least squares; each bore as the least-squares cylinder (ISO 12180-1), its centre where the axis meets the
    deck. Core shift: the drawn row laid on the centres by least squares, turned and moved but not stretched (Kabsch).
    """
    if len(deck_m) < LEAST_OF_DECK:
        raise OutOfDomain("the deck takes three points or more", "file")
    middle = deck_m.mean(axis=0)
    spread = np.linalg.svd(deck_m - middle)
    if spread.S[1] < 1e-3:
        raise OutOfDomain("the points of the deck lie on a line: touch it all over", "file")
    normal = spread.Vh[2] * (1.0 if spread.Vh[2, 2] > 0 else -1.0)
    turn = _to_z(normal)
    flat = (deck_m - middle) @ turn.T
    found = [_centre(hole, (points - middle) @ turn.T) for hole, points in sorted(bores_m.items())]
    shifted = [
        one for row in rows for one in _shifts([b for hole in row for b in found if b.hole == hole], row, pitch_m)
    ]
    by_hole = {one.hole: one for one in shifted}
    distances = tuple(
        CentreDistance((a, b), distance, distance - pitch_m)
        for row in rows
        for a, b in pairwise(row)
        if a in by_hole and b in by_hole
        for distance in (hypot(by_hole[a].x_m - by_hole[b].x_m, by_hole[a].y_m - by_hole[b].y_m),)
    )
    return Probed(float(np.ptp(flat[:, 2])), tuple(sorted(shifted, key=lambda one: one.hole)), distances)


def _to_z(normal: Array) -> Array:
    """Turn that lays a normal along z and moves x and y as little as it can: Rodrigues."""
    axis = np.cross(normal, [0.0, 0.0, 1.0])
    cos = float(normal[2])
    skew = np.array([[0, -axis[2], axis[1]], [axis[2], 0, -axis[0]], [-axis[1], axis[0], 0]])
    return np.asarray(np.eye(3) + skew + skew @ skew / (1 + cos), dtype=np.float64)


def _centre(hole: int, points: Array) -> BoreCentre:
    if len(points) < LEAST_OF_BORE:
        raise OutOfDomain(f"bore {hole} takes six points or more at two depths or more", "file")
    fit = reference_cylinder(points)
    depth = float(points[:, 2].mean())
    return BoreCentre(hole, fit.x_m - fit.lean_x * depth, fit.y_m - fit.lean_y * depth, fit.diameter_m, fit.lean_x,
                      fit.lean_y)  # fmt: skip


def _shifts(bores: list[BoreCentre], row: Sequence[int], pitch_m: float) -> list[BoreCentre]:
    """Lay the drawn row on the centres, turned and moved but not stretched."""
    if len(bores) < 2:
        return bores
    drawn = np.array([[row.index(one.hole) * pitch_m, 0.0] for one in bores])
    there = np.array([[one.x_m, one.y_m] for one in bores])
    u, _, vh = np.linalg.svd((drawn - drawn.mean(axis=0)).T @ (there - there.mean(axis=0)))
    turn = u @ np.diag([1.0, float(np.sign(np.linalg.det(u @ vh)))]) @ vh
    off = there - ((drawn - drawn.mean(axis=0)) @ turn + there.mean(axis=0))
    return [
        BoreCentre(one.hole, one.x_m, one.y_m, one.diameter_m, one.lean_x, one.lean_y, float(x), float(y))
        for one, (x, y) in zip(bores, off, strict=True)
    ]


def written(parts: Sequence[int], points_m: Array) -> str:
    """Write points [m] as JSON: part and micrometres to the nanometre. By definition of the unit."""
    rows = [[part, *(round(float(one) * 1e6, 3) for one in point)] for part, point in zip(parts, points_m, strict=True)]
    return json.dumps(rows, separators=(",", ":"))


def read_back(text: str) -> tuple[Array, dict[int, Array]]:
    """Read points that were written: those of the deck, and of each bore. [m]

    Raises
    ------
    OutOfDomain
        If it is none. By definition of its form.
    """
    try:
        table = np.asarray(json.loads(text), dtype=np.float64)
        parts, points = table[:, 0].astype(int), table[:, 1:4] * 1e-6
    except (ValueError, IndexError, TypeError) as error:
        raise OutOfDomain("these are no points of a probe", "profile") from error
    return points[parts == 0], {int(hole): points[parts == hole] for hole in np.unique(parts) if hole > 0}
