"""The scans of one hole as they stand: a field of radii, circles by level, and what a load changes.

Between levels PCHIP: F. N. Fritsch, R. E. Carlson, Monotone Piecewise Cubic Interpolation (1980), from memory.
"""

from dataclasses import dataclass

import numpy as np
from scipy.interpolate import PchipInterpolator

from vallostasis.core.bores.scan_levels import Array, ScanProfile, read_back, shape_of
from vallostasis.core.bores.wall_field import ROWS, WallField, columns_of_a_turn
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.scans import Scan
from vallostasis.core.shapes.circles import Circle, reference_circle
from vallostasis.core.shapes.lobes import Distortion, distortion_of
from vallostasis.core.shapes.reference_fit import Reference
from vallostasis.core.surveys.loads import Held, held

# Levels of two scans nearer than this are held against each other. [m] House rule.
SAME_LEVEL_M = 1e-3


@dataclass(frozen=True, slots=True)
class ScanNow:
    """A scan that stands, what its levels hold, and how the bore was held."""

    scan: Scan
    profile: ScanProfile
    held: Held


@dataclass(frozen=True, slots=True)
class ScanChange:
    """What clamping changes by two scans: level by level, and as a field of radii. [m]"""

    of: ScanNow
    less: ScanNow
    levels: tuple[tuple[float, Distortion], ...]
    field: WallField


@once
def scans_of(facts: JobFacts, hole: Hole) -> tuple[ScanNow, ...]:
    """Return the scans of a hole that are not struck, oldest first."""
    return tuple(
        ScanNow(one, read_back(one.profile), held(one.load))
        for one in facts.standing(facts.scans)
        if one.hole_id == hole.hole_id
    )


def field_of_scan(profile: ScanProfile, standard_m: float, cut_off_upr: int | None) -> WallField:
    """Return radii less half the standard over depth and angle: nothing above the first level or below the last. [m]

    Monotone between levels, as field_of. Common practice: each level about its least-squares centre.
    """
    depths = np.array([level.depth_m for level in profile.levels])
    shapes = np.array([_columns(shape_of(level, cut_off_upr)) for level in profile.levels]) - standard_m / 2
    return _between(depths, shapes)


def _columns(even: Array) -> Array:
    angles = columns_of_a_turn()
    return np.interp(angles, np.arange(len(even)) * 360.0 / len(even), even, period=360.0)


def _between(depths: Array, shapes: Array) -> WallField:
    if len(depths) == 1:
        return WallField(depths, columns_of_a_turn(), shapes)
    rows = np.unique(np.concatenate([np.linspace(depths[0], depths[-1], ROWS), depths]))
    return WallField(rows, columns_of_a_turn(), np.asarray(PchipInterpolator(depths, shapes)(rows), dtype=np.float64))


def circles_of(profile: ScanProfile, cut_off_upr: int | None) -> tuple[tuple[Circle, ...], ...]:
    """Return the circles of every level: from every point, or from the filtered profile where a cut-off is given. [m]

    ISO 12181-1 and ISO 16610-21.
    """
    if cut_off_upr is None:
        return tuple(level.circles for level in profile.levels)
    found = []
    for level in profile.levels:
        even = shape_of(level, cut_off_upr)
        turns = np.arange(len(even)) * 2 * np.pi / len(even)
        points = np.column_stack([even * np.cos(turns), even * np.sin(turns)])
        found.append(tuple(reference_circle(points, reference) for reference in Reference))
    return tuple(found)


def change_of_scans(of: ScanNow, less: ScanNow) -> ScanChange | None:
    """Return what clamping changes, at the levels that both scans have; None where they have none. [m]

    By lobes.distortion_of: size and where the gauge stood are no shape. House rule: levels within a millimetre.
    """
    pairs = [
        (one, other)
        for one in of.profile.levels
        for other in less.profile.levels
        if abs(one.depth_m - other.depth_m) < SAME_LEVEL_M
    ]
    if not pairs:
        return None
    levels = []
    shapes = []
    for one, other in pairs:
        steps = len(one.even_m)
        free = np.interp(np.arange(steps) * len(other.even_m) / steps, np.arange(len(other.even_m)), other.even_m,
                         period=len(other.even_m))  # fmt: skip
        found = distortion_of(np.arange(steps) * 360.0 / steps, free, one.even_m)
        levels.append((one.depth_m, found))
        shapes.append(_columns(found.shape_m) + found.size_m / 2)
    return ScanChange(of, less, tuple(levels), _between(np.array([depth for depth, _ in levels]), np.array(shapes)))
