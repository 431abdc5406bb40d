"""What the levels of a scan hold: reference circles, lobes, an even profile; and a cylinder over all of them.

Angles count clockwise from the front of the engine, depths down from the deck.
"""

import json
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.circles import Circle, least_squares_circle, reference_circle
from vallostasis.core.shapes.cylinder import CylinderFit, reference_cylinder
from vallostasis.core.shapes.lobes import Lobe, even_profile, filtered, lobes_of
from vallostasis.core.shapes.reference_fit import Reference

Array = NDArray[np.float64]
# Points nearer than this in depth are one level. [m] House rule: instruments step by a millimetre and more.
ONE_LEVEL_M = 0.4e-3
MOST_LEVELS = 60
# Steps of the even profile that is kept: enough for a cut-off of 150 undulations.
KEPT_STEPS = 720
# Only the innermost and outermost points of narrow sectors can touch a sharp reference.
SECTORS = 1440
TENTH_NM = 1e-10


class FrontAxis(StrEnum):
    """Which way of the file's axes points to the front of the engine."""

    PLUS_X = "+x"
    MINUS_X = "-x"
    PLUS_Y = "+y"
    MINUS_Y = "-y"


class Turn(StrEnum):
    """Which way angles of the file grow, seen from above."""

    CLOCKWISE = "clockwise"
    COUNTER = "counter-clockwise"


@dataclass(frozen=True, slots=True)
class ScanLevel:
    """One level of a scan: its circles, lobes without order 1, and radii about its least-squares centre. [m]"""

    depth_m: float
    points: int
    circles: tuple[Circle, ...]
    lobes: tuple[Lobe, ...]
    even_m: Array


@dataclass(frozen=True, slots=True)
class ScanProfile:
    """All levels of a scan from the top, and the cylinders over them. [m]"""

    levels: tuple[ScanLevel, ...]
    cylinders: tuple[CylinderFit, ...]


def polar_of(x_m: Array, y_m: Array, front: FrontAxis, turn: Turn) -> tuple[Array, Array]:
    """Angle clockwise from the front [deg] and radius [m] of points seen from above.

    Parameters
    ----------
    x_m, y_m : array
        Points in the axes of the file. [m]
    front : FrontAxis
        Which axis points to the front.
    turn : Turn
        Whether a quarter turn from x to y goes clockwise.

    By definition of polar coordinates.
    """
    begins = {FrontAxis.PLUS_X: 0.0, FrontAxis.PLUS_Y: 90.0, FrontAxis.MINUS_X: 180.0, FrontAxis.MINUS_Y: 270.0}[front]
    angle = np.degrees(np.arctan2(y_m, x_m)) - begins
    if turn is Turn.COUNTER:
        angle = -angle
    return np.mod(angle, 360.0), np.hypot(x_m, y_m)


def scan_profile(angles_deg: Array, depths_m: Array, radii_m: Array) -> ScanProfile:
    """Work out what the levels of a scan hold.

    Parameters
    ----------
    angles_deg, depths_m, radii_m : array, shape (n,)
        Every point of the scan. [deg], [m]

    Returns
    -------
    ScanProfile
        Levels from the top.

    Raises
    ------
    OutOfDomain
        If there are more levels than an instrument steps to, or a level with fewer than eight points.

    References
    ----------
    .. [1] ISO 12181-1 and ISO 12180-1: references and deviations; least squares from every point, the sharp ones from
       the innermost and outermost of narrow sectors, which are the only ones that can touch.
    """
    order = np.argsort(depths_m, kind="stable")
    breaks = np.flatnonzero(np.diff(depths_m[order]) > ONE_LEVEL_M) + 1
    groups = np.split(order, breaks)
    if len(groups) > MOST_LEVELS:
        raise OutOfDomain(f"these points lie at {len(groups)} depths, an instrument steps to {MOST_LEVELS} at the "
                          "most: is the depth another column?", "columns")  # fmt: skip
    levels, kept = [], []
    for group in groups:
        if len(group) < 8:
            raise OutOfDomain("a level has fewer than eight points: is the depth another column?", "columns")
        level, extremes = _level(angles_deg[group], float(np.mean(depths_m[group])), radii_m[group])
        levels.append(level)
        kept.append(np.column_stack([extremes, np.full(len(extremes), level.depth_m)]))
    cylinders: tuple[CylinderFit, ...] = ()
    if len(levels) > 1:
        points = np.vstack([one[:: max(1, len(one) // 360)] for one in kept])
        cylinders = tuple(reference_cylinder(points, reference) for reference in Reference)
    return ScanProfile(tuple(levels), cylinders)


def _level(angles_deg: Array, depth_m: float, radii_m: Array) -> tuple[ScanLevel, Array]:
    turns = np.radians(angles_deg)
    points = np.column_stack([radii_m * np.cos(turns), radii_m * np.sin(turns)])
    squares = least_squares_circle(points)
    about = points - np.array([squares.x_m, squares.y_m])
    extremes = np.asarray(_extremes(about) + np.array([squares.x_m, squares.y_m]), dtype=np.float64)
    start = (squares.x_m, squares.y_m)
    sharp = [reference_circle(extremes, one, start) for one in Reference if one is not Reference.LEAST_SQUARES]
    about = points - [squares.x_m, squares.y_m]
    even = even_profile(
        np.degrees(np.arctan2(about[:, 1], about[:, 0])), np.hypot(about[:, 0], about[:, 1]), KEPT_STEPS
    )
    return ScanLevel(depth_m, len(points), (squares, *sharp), lobes_of(even), even), extremes


def _extremes(about: Array) -> Array:
    """Innermost and outermost point of each narrow sector; every point where there are few."""
    if len(about) <= 2 * SECTORS:
        return about
    sector = np.floor((np.arctan2(about[:, 1], about[:, 0]) + np.pi) / (2 * np.pi) * SECTORS).astype(int)
    far = np.hypot(about[:, 0], about[:, 1])
    # One key sorts by sector and within it by radius: quicker than two.
    order = np.argsort(sector + 0.99 * (far - far.min()) / max(float(np.ptp(far)), 1e-30))
    first = np.searchsorted(sector[order], np.unique(sector))
    last = np.append(first[1:], len(order)) - 1
    return np.asarray(about[np.unique(np.concatenate([order[first], order[last]]))], dtype=np.float64)


def shape_of(level: ScanLevel, cut_off_upr: int | None) -> Array:
    """Even radii of a level, filtered where a cut-off is given. [m] ISO 16610-21."""
    return level.even_m if cut_off_upr is None else filtered(level.even_m, cut_off_upr)


def written(profile: ScanProfile) -> str:
    """Write a profile as JSON, lengths in tenths of a nanometre. By definition of the unit."""
    return json.dumps(
        {
            "levels": [
                {
                    "depth": round(level.depth_m / TENTH_NM),
                    "points": level.points,
                    "circles": [_circle_row(one) for one in level.circles],
                    "even": [round(float(one) / TENTH_NM) for one in level.even_m],
                }
                for level in profile.levels
            ],
            "cylinders": [
                [one.reference.value, *(round(value / TENTH_NM) for value in (one.x_m, one.y_m)), one.lean_x,
                 one.lean_y,
                 *(round(value / TENTH_NM) for value in (one.diameter_m, one.cylindricity_m))]
                for one in profile.cylinders
            ],
        },
        separators=(",", ":"),
    )  # fmt: skip


def _circle_row(circle: Circle) -> list[str | int]:
    lengths = (circle.x_m, circle.y_m, circle.diameter_m, circle.roundness_m)
    return [circle.reference.value, *(round(one / TENTH_NM) for one in lengths)]


def read_back(text: str) -> ScanProfile:
    """Read a profile that was written.

    Raises
    ------
    OutOfDomain
        If it is none. By definition of its form.
    """
    try:
        found = json.loads(text)
        levels = tuple(_read_level(one) for one in found["levels"])
        cylinders = tuple(
            CylinderFit(Reference(name), x * TENTH_NM, y * TENTH_NM, float(lean_x), float(lean_y), d * TENTH_NM,
                        c * TENTH_NM)
            for name, x, y, lean_x, lean_y, d, c in found["cylinders"]
        )  # fmt: skip
    except (ValueError, KeyError, TypeError, IndexError) as error:
        raise OutOfDomain("this is no profile of a scan", "profile") from error
    return ScanProfile(levels, cylinders)


def _read_level(row: Any) -> ScanLevel:  # noqa: ANN401
    even = np.asarray(row["even"], dtype=np.float64) * TENTH_NM
    circles = tuple(
        Circle(Reference(name), x * TENTH_NM, y * TENTH_NM, d * TENTH_NM, r * TENTH_NM)
        for name, x, y, d, r in row["circles"]
    )
    return ScanLevel(float(row["depth"]) * TENTH_NM, int(row["points"]), circles, lobes_of(even), even)
