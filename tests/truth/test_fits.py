"""Liners and holes of a hidden truth, read as people read them: does the ± of press and close-in hold what is true?

How far a liner goes by hand is held too, with the friction and the push of each hand unknown. Common practice, no
published source, for how gauges scatter; Coulomb and Lamé for what is true.
"""

from uuid import uuid4

import numpy as np

from tests.core.card import dry_card, length, limit
from tests.core.facts import Story, level
from tests.deep import DEEP
from vallostasis.core.fits.effects import WALLS_WITHIN, FitWalls, close_in_of
from vallostasis.core.fits.going_in import expected_way_in
from vallostasis.core.fits.insertion import (
    FRICTION_WITHIN,
    OILED,
    PUSH_N,
    PUSH_WITHIN,
    hand_depth,
    insert,
    profile_over,
)
from vallostasis.core.fits.materials import MATERIALS
from vallostasis.core.fits.thick_walled import Rings, close_in_share
from vallostasis.core.records.fit_terms import FitTerms
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import CardLevel, FeatureSheet
from vallostasis.core.uncertainty.budget import difference_of, estimate, mean_of, stated
from vallostasis.core.uncertainty.reading_errors import GaugeSources, ReadOf, gauge_errors

PAIRS = 5000 if DEEP else 1000
PULLS = 1000 if DEEP else 200
RINGS = Rings(0.1205, 0.127, 0.150, MATERIALS["iron"].elastic, MATERIALS["iron"].elastic)
WALLS = FitWalls(RINGS, MATERIALS["iron"], MATERIALS["iron"], 0.0, True, ())
BORE, OUTSIDE = GaugeSources(step_m=2.54e-6, repeatability_m=1.8e-6), GaugeSources(step_m=2.54e-6, repeatability_m=2e-6)
AXES = 4
DEPTHS_MM = np.array([10.0, 40.0, 75.0, 110.0, 140.0])


class Reader:
    """One gauge with its zero: the zero was looked at once, every reading scatters and stops at a step."""

    def __init__(self, gauge: GaugeSources, rng: np.random.Generator) -> None:
        self.gauge, self.rng = gauge, rng
        self.zero, self.set = uuid4(), uuid4()
        self.off = self._look(0.0)

    def _look(self, value: float) -> float:
        step = self.gauge.step_m
        shift = self.rng.uniform(-step / 2, step / 2)
        return round((value + self.rng.normal(0, self.gauge.repeatability_m) + shift) / step) * step - shift

    def read(self, value: float):
        of = ReadOf(reading=uuid4(), zero=self.zero, set=self.set, gauge=self.set)
        return estimate(self._look(value) - self.off, gauge_errors(self.gauge, of))


def test_press_and_close_in_hold_the_truth_as_often_as_they_say() -> None:
    """95 ± 2 % of pairs: means of four axes, one zero each for the hole and the liner."""
    rng = np.random.default_rng(7)
    share = close_in_share(RINGS)
    pressed, closed = 0, 0
    for _ in range(PAIRS):
        press = rng.uniform(15e-6, 60e-6)
        oval = rng.normal(0, 1e-6, AXES)
        hole, liner = Reader(BORE, rng), Reader(OUTSIDE, rng)
        bore = mean_of([hole.read(one) for one in oval - oval.mean()])
        outside = mean_of([liner.read(press) for _ in range(AXES)])
        found = difference_of(outside, bore)
        told = stated("press", found, 1.96)
        pressed += abs(told.value_m - press) <= told.expanded_m
        true = press * share * (1 + rng.normal(0, WALLS_WITHIN))
        closing = close_in_of(WALLS, "close-in", found, 1.96)
        closed += abs(closing.value_m - true) <= closing.expanded_m
    assert 0.93 <= pressed / PAIRS <= 0.97
    assert 0.93 <= closed / PAIRS <= 0.97


def test_how_far_it_goes_by_hand_lies_in_its_band() -> None:
    """Nine of ten pulls, each with a friction and a push of its own that nobody told."""
    rng = np.random.default_rng(11)
    held = 0
    for _ in range(PULLS):
        bores = -rng.uniform(6e-6, 25e-6) + rng.normal(0, 3e-6, len(DEPTHS_MM))
        barrel = rng.uniform(0, 15e-6) * (1 - (2 * DEPTHS_MM / 150 - 1) ** 2)
        facts = _read(rng, bores, barrel)
        going = expected_way_in(facts, facts.holes[0], "A")
        assert going is not None
        friction = OILED * rng.uniform(1 - FRICTION_WITHIN, 1 + FRICTION_WITHIN)
        push = PUSH_N * rng.uniform(1 - PUSH_WITHIN, 1 + PUSH_WITHIN)
        truth = insert(RINGS, profile_over(DEPTHS_MM / 1000, barrel + RINGS.fit_m, 0.150),
                       profile_over(DEPTHS_MM / 1000, bores + RINGS.fit_m, 0.150), 0.150, friction)  # fmt: skip
        depth = float(hand_depth(truth, push))
        held += going.by_hand.low - 1e-9 <= depth <= going.by_hand.high + 1e-9
    assert held / PULLS >= 0.90


def _read(rng: np.random.Generator, bores: np.ndarray, barrel: np.ndarray) -> JobFacts:
    """A hole and a liner read at five levels on two axes, each gauge with a zero of its own."""
    levels = tuple(CardLevel(f"{depth:g}", length(f"{depth:g}")) for depth in DEPTHS_MM)
    sheets = [FeatureSheet(quantity, limit("127"), levels=levels, axes_deg=(0.0, 90.0))
              for quantity in (Quantity.BLOCK_BORE, Quantity.LINER_OUTSIDE)]  # fmt: skip
    terms = FitTerms(boss_outside=limit("150"), liner_inside=limit("120.5"), liner_length=limit("150"))
    story = Story(card=dry_card(*sheets, fits=terms), resolution_um=2.0, repeatability_um=2.0)
    for body in ("part", "room"):
        story.take_temperature(body, 20.0)
    targets = ({"hole_id": story.hole_rows[0].hole_id}, {"liner_id": story.liner("A")})
    for quantity, values, target in zip((Quantity.BLOCK_BORE, Quantity.LINER_OUTSIDE), (bores, barrel), targets,
                                        strict=True):  # fmt: skip
        zero = _look(rng, 0.0)
        read = {level(depth, axis): (127_000 + _look(rng, value * 1e6) - zero,)
                for depth, value in zip(DEPTHS_MM, values, strict=True) for axis in (0.0, 90.0)}  # fmt: skip
        story.survey(quantity, read, **target)
    return story.facts()


def _look(rng: np.random.Generator, um: float) -> float:
    """A look at a gauge that scatters by 2 µm and shows whole steps of 2 µm. [µm]"""
    return round((um + rng.normal(0, 2.0)) / 2.0) * 2.0
