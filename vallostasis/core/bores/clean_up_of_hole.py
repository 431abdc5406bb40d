"""Will a bore clean up: the size that leaves no wear, score or pit of one hole, with its ±, and steps held against it.

Radii are those of the unworn band and the wear steps from it; without wear steps only bounds can be told, since a bore
gauge does not place one-sided wear. The centre of the unworn band is taken as the drawn one.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import atan2, degrees

import numpy as np

from vallostasis.core.bores.clean_up import clean_up, touching_weights
from vallostasis.core.bores.wall_field import Array, FieldLevel, clock_lobes
from vallostasis.core.bores.wall_marks import WallMark
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.shapes.clock import turned
from vallostasis.core.uncertainty.budget import Estimate, Stated, exactly, stated, value_of, weighted
from vallostasis.core.uncertainty.decision import State, decide
from vallostasis.core.uncertainty.extremes import farthest_factor

# Directions that a fitted wall is looked at: three degrees apart.
LOOKED_AT_DEG = np.arange(0.0, 360.0, 3.0)
# From so many positions on an oval and three lobes are told from one-sided wear. Common practice.
ENOUGH_POSITIONS = 8
# The deepest wear lies within so much below the top ring. [m] Common practice, no published source.
TOP_OF_TRAVEL_M = 0.010


@dataclass(frozen=True, slots=True)
class WallPoint:
    """One point that a finished bore has to reach: where it lies, its radius, and the mark it belongs to. [m], [deg]

    ``share`` is what the readings of its level weigh in it.
    """

    angle_deg: float
    radius_m: float
    level: FieldLevel
    share: Array
    mark: WallMark | None = None

    def estimate(self, unworn: Estimate) -> Estimate:
        """Its radius with every error of it: half the unworn band, the steps, the depth of its mark. [m] GUM 5.1.2."""
        parts = [(float(one), estimate) for one, estimate in zip(self.share, self.level.estimates, strict=True)]
        if self.mark is not None and self.mark.depth_m is not None:
            parts.append((1.0, exactly(self.mark.depth_m, (self.mark.depth_expanded_m or 0.0) / 2, "depth of the mark",
                                       ("mark", self.mark.letter))))  # fmt: skip
        return weighted([(0.5, unworn), *parts])


@dataclass(frozen=True, slots=True)
class Needed:
    """The finished diameter that leaves no wear, with the hone: from at the least to at the most. [m], [deg]

    Both are one where radii were read. ``centre`` says how far the bore is moved and which way; ``points`` are those
    that decide.
    """

    least: Stated
    most: Stated
    move_m: float
    move_deg: float
    points: tuple[WallPoint, ...]

    @property
    def is_placed(self) -> bool:
        """Whether the wear was placed, so that it is one size. By definition."""
        return self.least is self.most

    def at(self, diameter_m: float, doubts: Sequence[str] = ()) -> State:
        """Say whether a finished bore of that size leaves no wear. ISO 14253-1: proven, or it cannot be told."""
        above = decide(self.most.value_m, self.most.expanded_m, None, diameter_m, Acceptance.GUARDED).state
        below = decide(self.least.value_m, self.least.expanded_m, None, diameter_m, Acceptance.GUARDED).state
        if below is State.OUT:
            return State.OUT
        return State.IN if above is State.IN and not doubts else State.CANNOT_TELL


@dataclass(frozen=True, slots=True)
class CleanUpOfHole:
    """Whether one hole cleans up: needed on the drawn centre and on the best one, and what speaks against telling."""

    drawn: Needed
    best: Needed
    doubts: tuple[str, ...]
    by_diameters: bool
    worn_points: tuple[WallPoint, ...]


@dataclass(frozen=True, slots=True)
class WornWall:
    """What is known of a worn wall. [m]

    ``levels`` are wear steps round the clock, ``unworn`` is the diameter they are read from, ``greatest`` the greatest
    diameter read, ``marks`` what was found on it.
    """

    unworn: Estimate
    levels: tuple[FieldLevel, ...]
    marks: tuple[WallMark, ...] = ()
    greatest: Estimate | None = None
    greatest_depth_m: float = 0.0


@dataclass(frozen=True, slots=True)
class BoringTerms:
    """What a card says of boring: honing stock on the diameter, how far the centre may move, where rings travel. [m]"""

    hone_stock_m: float
    move_m: float
    ring_top_m: float | None = None
    coverage: float = 2.0


def wall_points(wall: WornWall) -> tuple[WallPoint, ...]:
    """Return every point that a finished bore has to reach, those of its marks last.

    Notes
    -----
    The fitted wall round every level, and each score or pit as a point of its own, deeper by its depth than the wall
    there is at its deepest. Fourier series through the positions read; common practice for what a mark is worth.
    """
    lobes, points = clock_lobes(LOOKED_AT_DEG), list[WallPoint]()
    for level in wall.levels:
        shares = lobes @ level.weights
        radii = _radii(wall.unworn, level, shares)
        points += [
            WallPoint(float(angle), float(radius), level, share)
            for angle, radius, share in zip(LOOKED_AT_DEG, radii, shares, strict=True)
        ]
    for mark in wall.marks:
        if mark.depth_m is not None and wall.levels:
            points += _of_mark(wall, mark)
    return tuple(points)


def _radii(unworn: Estimate, level: FieldLevel, shares: Array) -> Array:
    values = np.array([value_of(one) for one in level.estimates])
    return np.asarray(value_of(unworn) / 2 + shares @ values, dtype=np.float64)


def _of_mark(wall: WornWall, mark: WallMark) -> list[WallPoint]:
    """A mark at both its ends and its middle, on the deepest level that it reaches over or lies next to."""
    reached = [level for level in wall.levels if mark.from_m <= level.depth_m <= mark.until_m]
    next_to = sorted(wall.levels, key=lambda one: min(abs(one.depth_m - mark.from_m), abs(one.depth_m - mark.until_m)))
    levels, depth = [*reached, *next_to[:2]], mark.depth_m or 0.0
    points = []
    for angle in dict.fromkeys((mark.angle_deg, (mark.angle_deg + mark.until_deg) / 2, mark.until_deg)):
        lobes = clock_lobes(np.array([angle]))[0]
        found = []
        for level in levels:
            share = np.asarray(lobes @ level.weights, dtype=np.float64)
            wall_there = float(_radii(wall.unworn, level, share[None, :])[0])
            found.append(WallPoint(turned(angle, 360), wall_there + depth, level, share, mark))
        points.append(max(found, key=lambda one: one.radius_m))
    return points


def clean_up_of_hole(wall: WornWall, terms: BoringTerms) -> CleanUpOfHole | None:
    """Return the finished diameter that leaves no wear at the drawn and at the best centre.

    Parameters
    ----------
    wall : WornWall
        What is known of the wall.
    terms : BoringTerms
        Honing stock, move of the centre, ring travel.

    Returns
    -------
    CleanUpOfHole or None
        None where neither radii nor diameters were read.

    Notes
    -----
    Radii placed: 2·(greatest radius) or the smallest circle with its centre within the move, and the honing stock. The
    ± is that of the points it touches: the centre is chosen for what was read there, so that the worst of their errors
    counts, not their mean (extremes.farthest_factor). Diameters alone: wear may lie all on one side, so the
    drawn centre needs between the greatest diameter and twice that less the unworn one. Geometry; GUM 5.1.2.
    """
    points = wall_points(wall)
    if points:
        drawn, best = (_needed(wall, points, terms, move) for move in (0.0, terms.move_m))
        return CleanUpOfHole(drawn, best, doubts_of(wall, terms), False, points)
    if wall.greatest is None:
        return None
    stock = exactly(terms.hone_stock_m)
    moved = exactly(2 * terms.move_m)
    least = weighted([(1.0, wall.greatest), (1.0, stock)])
    most = weighted([(2.0, wall.greatest), (-1.0, wall.unworn), (1.0, stock)])
    at_best = weighted([(1.0, most), (-1.0, moved)])
    if value_of(at_best) < value_of(least):
        at_best = least
    k = terms.coverage
    drawn = Needed(stated("clean-up", least, k), stated("clean-up", most, k), 0.0, 0.0, ())
    best = Needed(stated("clean-up", least, k), stated("clean-up", at_best, k), 0.0, 0.0, ())
    return CleanUpOfHole(drawn, best, doubts_of(wall, terms), True, ())


def _needed(wall: WornWall, points: tuple[WallPoint, ...], terms: BoringTerms, move_m: float) -> Needed:
    radii = np.array([point.radius_m for point in points])
    turns = np.radians([point.angle_deg for point in points])
    # Seen from above with the front to the left, angles run clockwise: what counts is that all do.
    flat = np.column_stack([radii * np.cos(turns), radii * np.sin(turns)])
    found = clean_up(flat, (0.0, 0.0), terms.hone_stock_m / 2, move_m)
    deciding = tuple(points[at] for at in touching_weights(flat, found.x_m, found.y_m, move_m))
    estimates = [point.estimate(wall.unworn) for point in deciding]
    loosest = max(estimates, key=lambda one: one.standard_m)
    diameter = weighted([(2.0, loosest), (1.0, exactly(found.diameter_m - 2 * value_of(loosest)))])
    shown = stated("clean-up", diameter, farthest_factor(len(deciding), terms.coverage))
    return Needed(shown, shown, found.move_m, turned(degrees(atan2(found.y_m, found.x_m)), 360), deciding)


def doubts_of(wall: WornWall, terms: BoringTerms) -> tuple[str, ...]:
    """Say what speaks against telling whether a bore cleans up: what was not read, or not where it counts.

    Common practice, no published source.
    """
    said = [
        f"{mark.finding.word} {mark.letter} {'catches a nail' if mark.finding.catches else 'has no depth'}: "
        "read how deep it is"
        for mark in wall.marks
        if mark.needs_depth
    ]
    if not wall.levels:
        said.append("a bore gauge does not say on which side it is worn: read the wear step round the clock")
        return tuple(said)
    fewest = min(len(level.estimates) for level in wall.levels)
    if fewest < ENOUGH_POSITIONS:
        said.append(f"one level has only {fewest} positions: read {ENOUGH_POSITIONS}, wear between them is not seen")
    top = terms.ring_top_m
    if top is None:
        said.append("the card does not say where the top ring turns: nobody knows whether the deepest level was read")
    elif not any(top <= level.depth_m <= top + TOP_OF_TRAVEL_M for level in wall.levels):
        said.append("no wear step was read just below the top ring, where wear is deepest: read one there")
    return tuple(said)
