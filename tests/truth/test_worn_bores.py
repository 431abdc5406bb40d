"""Worn bores of a hidden truth, read as people read them: does the size that is called sufficient leave no wear?

Common practice, no published source, for how bores wear: a cone, deepest where the top ring turns, more on one side.
"""

from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import uuid4

import numpy as np
import pytest

from tests.deep import DEEP
from vallostasis.core.bores.clean_up import smallest_step
from vallostasis.core.bores.clean_up_of_hole import BoringTerms, WornWall, clean_up_of_hole
from vallostasis.core.bores.wall_field import FieldLevel, clock_weights
from vallostasis.core.bores.wall_marks import DEPTH_EXPANDED_M, WallMark
from vallostasis.core.records.route_marks import Finding, FindingKind
from vallostasis.core.shapes.circles import enclosing_within
from vallostasis.core.uncertainty.budget import estimate, exactly
from vallostasis.core.uncertainty.decision import State
from vallostasis.core.uncertainty.reading_errors import GaugeSources, ReadOf, gauge_errors

STANDARD, STOCK, MOVE, RING_TOP = 0.1, 60e-6, 130e-6, 0.016
STEPS = (0.25e-3, 0.5e-3, 0.75e-3, 1.0e-3, 1.5e-3)
BORES = 5000 if DEEP else 250
STEP_UM, REPEAT_UM = 2.0, 2.2
DENSE = np.radians(np.arange(0, 360, 0.5))
READ_DEPTHS = (0.018, 0.036, 0.06, 0.09, 0.13)

SCORE = Finding(
    uuid4(), uuid4(), FindingKind.WALL, "bore", "score", "", None, "", datetime(2026, 1, 1, tzinfo=UTC), "Wren", 1
)


@dataclass(frozen=True)
class Worn:
    """A wall: wear a side by angle and depth, and a score."""

    base: float
    one_sided: float
    power: int
    towards: float
    oval: float
    oval_at: float
    fall: float
    score: float
    score_at: float
    score_depth: tuple[float, float]

    def cone(self, depth):
        return np.exp(-np.maximum(0.0, np.asarray(depth) - RING_TOP - 0.004) / self.fall)

    def wear(self, angle, depth):
        side = ((1 + np.cos(angle - self.towards)) / 2) ** self.power
        return self.cone(depth) * (self.base + self.one_sided * side + self.oval * np.cos(2 * (angle - self.oval_at)))

    def points(self, unworn):
        radii = unworn / 2 + self.wear(DENSE, RING_TOP + 0.001)
        points = np.column_stack([radii * np.cos(DENSE), radii * np.sin(DENSE)])
        if self.score:
            deepest = unworn / 2 + self.wear(self.score_at, self.score_depth[0]) + self.score
            points = np.vstack([points, deepest * np.array([np.cos(self.score_at), np.sin(self.score_at)])])
        return points


def worn(rng) -> Worn:
    first = RING_TOP + rng.uniform(0.002, 0.05)
    return Worn(rng.uniform(10e-6, 90e-6), rng.uniform(0, 160e-6), int(rng.integers(1, 4)), rng.uniform(0, 6.28),
                rng.uniform(0, 25e-6), rng.uniform(0, 3.14), rng.uniform(0.02, 0.08),
                rng.choice([0.0, 0.0, rng.uniform(20e-6, 200e-6)]), rng.uniform(0, 6.28),
                (first, first + rng.uniform(0, 0.04)))  # fmt: skip


def gauge_reads(truth, rng) -> float:
    """A bar indicator: two looks, at the band and at the wall, each scattered and rounded to its step."""

    def look(value):
        return round((value * 1e6 + rng.normal(0, REPEAT_UM)) / STEP_UM) * STEP_UM

    return (look(truth)) * 1e-6


def read_wall(truth: Worn, rng, positions: int = 12):
    unworn_true = STANDARD + rng.uniform(-5e-6, 10e-6)
    gauge = GaugeSources(STEP_UM * 1e-6, REPEAT_UM * 1e-6)
    zero = gauge_reads(0.0, rng)
    hours = np.arange(positions) * 360.0 / positions
    levels = []
    for depth in READ_DEPTHS:
        read = [gauge_reads(float(truth.wear(np.radians(a), depth)), rng) - zero for a in hours]
        estimates = tuple(estimate(value, gauge_errors(gauge, ReadOf((depth, at), "bar", "zero")))
                          for at, value in enumerate(read))  # fmt: skip
        levels.append(FieldLevel(depth, estimates, clock_weights(list(hours))))
    bore = GaugeSources(2e-6, 2e-6)
    unworn_read = np.mean([unworn_true + rng.normal(0, 2e-6) - rng.normal(0, 2e-6) for _ in range(1)])
    unworn = estimate(float(unworn_read), gauge_errors(bore, ReadOf("unworn", "bore", "bore zero")))
    marks = ()
    if truth.score:
        angle, read = float(np.degrees(truth.score_at)), truth.score + rng.normal(0, DEPTH_EXPANDED_M / 2)
        marks = (WallMark("A", SCORE, angle, angle, *truth.score_depth, max(read, 1e-6), DEPTH_EXPANDED_M, False),)
    return WornWall(unworn, tuple(levels), marks), unworn_true


def farthest(points, x, y) -> float:
    return float(np.hypot(points[:, 0] - x, points[:, 1] - y).max())


def tally(count: int, seed: int):
    """How often sizes called sufficient leave no wear, and how often the step chosen is the smallest that does."""
    rng = np.random.default_rng(seed)
    terms = BoringTerms(STOCK, MOVE, RING_TOP)
    enough = {"drawn": 0, "best": 0}
    told = right = too_small = 0
    for _ in range(count):
        truth = worn(rng)
        wall, unworn_true = read_wall(truth, rng)
        found = clean_up_of_hole(wall, terms)
        assert found is not None
        assert found.doubts == ()
        points = truth.points(unworn_true)
        for name, needed in (("drawn", found.drawn), ("best", found.best)):
            size = needed.most.value_m + needed.most.expanded_m
            x, y = (needed.move_m * f(np.radians(needed.move_deg)) for f in (np.cos, np.sin))
            enough[name] += 2 * farthest(points, x, y) + STOCK <= size
        states = [found.best.at(STANDARD + step) for step in STEPS]
        chosen = next((step for step, state in zip(STEPS, states, strict=True) if state is State.IN), None)
        truly = smallest_step(STANDARD, STEPS, 2 * enclosing_within(points, (0.0, 0.0), MOVE)[2] + STOCK)
        too_small += chosen is not None and (truly is None or chosen < truly)
        # A step that lies inside ± is said to be undecided: there the readings do not allow it.
        if State.CANNOT_TELL not in states:
            told, right = told + 1, right + (chosen == truly)
    return enough["drawn"] / count, enough["best"] / count, told / count, right / told, too_small / count


def test_the_size_called_sufficient_leaves_no_wear():
    drawn, best, told, right, too_small = tally(BORES, 15 if BORES > 1000 else 14)
    assert drawn >= 0.975
    assert best >= 0.975
    assert told >= 0.65
    assert right >= 0.90
    assert too_small <= 0.025


def test_it_says_where_readings_do_not_allow_it():
    rng, terms = np.random.default_rng(3), BoringTerms(STOCK, MOVE, RING_TOP)
    wall, _ = read_wall(worn(rng), rng, positions=4)
    few = clean_up_of_hole(wall, terms)
    assert few is not None
    assert any("only 4 positions" in one for one in few.doubts)
    assert few.best.at(STANDARD + 5e-3, few.doubts) is State.CANNOT_TELL
    whole, _ = read_wall(worn(rng), rng)
    low = clean_up_of_hole(WornWall(whole.unworn, whole.levels[1:]), terms)
    assert low is not None
    assert any("just below the top ring" in one for one in low.doubts)
    unread = WallMark("A", SCORE, 10.0, 10.0, 0.02, 0.03, None, None, True)
    marked = clean_up_of_hole(WornWall(whole.unworn, whole.levels, (unread,)), terms)
    assert marked is not None
    assert any("read how deep" in one for one in marked.doubts)


def test_diameters_alone_only_bound_what_is_needed():
    # Common practice, no published source: 0.20 mm worn on one side needs from +0.20 to +0.40 on the drawn centre.
    unworn, greatest = exactly(0.1, 1e-6), exactly(0.1002, 1e-6)
    found = clean_up_of_hole(WornWall(unworn, (), (), greatest), BoringTerms(0.0, 50e-6, RING_TOP))
    assert found is not None
    assert found.by_diameters
    assert (found.drawn.least.value_m, found.drawn.most.value_m) == pytest.approx((0.1002, 0.1004))
    assert (found.best.least.value_m, found.best.most.value_m) == pytest.approx((0.1002, 0.1003))
    assert found.drawn.at(0.10025) is State.CANNOT_TELL
    assert found.drawn.at(0.1001) is State.OUT
    assert found.drawn.at(0.1005, found.doubts) is State.CANNOT_TELL
