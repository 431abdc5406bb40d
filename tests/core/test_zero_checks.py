"""A zero looked at again: when it has moved, which readings that touches, and what is taken off them."""

from dataclasses import replace
from decimal import Decimal
from uuid import uuid4

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.facts import WHEN, Story
from vallostasis.core.gauges.zero_checks import Drift, is_zero_looked_at, open_doubts, shift_for, zero_holds
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, ZeroCheck, ZeroCorrection
from vallostasis.core.records.values import value_used_um
from vallostasis.core.surveys.set_budget import estimate_of_reading, reading_of_gauge
from vallostasis.core.uncertainty.decision import State

GAUGE = GaugeVersion(uuid4(), uuid4(), "Sled", "depth gauge", 1, Decimal(2), Decimal("2.5"), "", "")


def test_a_zero_that_moved_less_than_it_repeats_stands() -> None:
    """Two readings of one zero differ by √2 of one; drawn, at k = 2 about one in twenty is taken for moved."""
    rng = np.random.default_rng(5)
    draws = 20_000
    noise = rng.normal(0, 2.5, (draws, 2)) + rng.uniform(-1, 1, (draws, 2))
    called = [not zero_holds(Decimal(repr(round(float(one), 6))), GAUGE) for one in noise[:, 0] - noise[:, 1]]
    assert sum(called) / draws == pytest.approx(0.0455, abs=0.006)
    moved = rng.normal(0, 2.5, draws) + 12
    found = [not zero_holds(Decimal(repr(round(float(one), 6))), GAUGE) for one in moved]
    assert sum(found) / draws > 0.95, "twelve micrometres are found nineteen times in twenty"


@given(moved=st.decimals(-200, 200, places=1))
def test_half_is_taken_off_where_the_moment_is_not_known(moved: Decimal) -> None:
    half, whole = shift_for(moved, Drift.SOMEWHERE, GAUGE), shift_for(moved, Drift.AT_ONCE, GAUGE)
    assert half.correction_um * 2 == whole.correction_um == -moved
    # Rectangular over the whole move: a/√3 with a half the move (GUM 4.3.7).
    look = float(GAUGE.resolution_um) ** 2 / 12 + float(GAUGE.repeatability_um) ** 2
    assert float(half.standard_um) == pytest.approx((look + float(moved) ** 2 / 12) ** 0.5, rel=1e-12)
    assert float(whole.standard_um) == pytest.approx(look**0.5, rel=1e-12)


def _story(*moved_um: float) -> tuple[Story, JobFacts]:
    """Hole 1 read, the zero looked at, hole 2 read, the zero looked at again."""
    story = Story()
    for hole, moved in zip((1, 2), moved_um, strict=False):
        fitting = story.fit(hole, story.liner(f"L{hole}"))
        story.read(Quantity.PROTRUSION, fitting, (85, 86, 85, 84))
        check = ZeroCheck(uuid4(), story.setups[Quantity.PROTRUSION], Decimal(str(moved)), f"{moved} µm", WHEN, "Wren",
                          story._next())  # fmt: skip
        story.rows.setdefault("zero_checks", []).append(check)
    return story, replace(story.facts(), zero_checks=tuple(story.rows["zero_checks"]))


def test_a_gauge_set_again_in_the_middle_of_a_set_is_doubted_from_there_on() -> None:
    story = Story()
    story.read(Quantity.PROTRUSION, story.fit(1, story.liner("L1")), (85, 86))
    first = story.facts().readings[-1]
    # Set again as it was: the set goes on.
    setup_id = story.setups[Quantity.PROTRUSION] = story._setup(Quantity.PROTRUSION)
    later = replace(first, reading_id=uuid4(), event=story._next())
    story._add("readings", later)
    check = ZeroCheck(uuid4(), setup_id, Decimal(30), "30 µm", WHEN, "Wren", story._next())
    (doubt,) = open_doubts(replace(story.facts(), zero_checks=(check,)))
    assert doubt.reading_ids == (later.reading_id,)


def test_only_what_was_read_since_the_last_good_look_is_doubtful() -> None:
    _, facts = _story(0, 30)
    (doubt,) = open_doubts(facts)
    assert len(doubt.reading_ids) == 4
    assert [hole.state for hole in judge_job(facts).holes] == [State.IN, State.CANNOT_TELL]
    assert "zero was found moved" in judge_job(facts).holes[1].reason
    assert open_doubts(_story(0, 1)[1]) == ()
    assert len(open_doubts(_story(25, 30)[1])) == 2


def test_corrected_readings_are_doubtful_no_more_and_carry_what_is_left() -> None:
    _, facts = _story(0, 30)
    (doubt,) = open_doubts(facts)
    shift = shift_for(doubt.check.moved_um, Drift.SOMEWHERE, GAUGE)
    corrections = tuple(
        ZeroCorrection(one.reading_set_id, shift.correction_um, shift.standard_um, "", "", WHEN, "Wren",
                       doubt.check.event + 1, doubt.since_event, doubt.check.event)
        for one in doubt.sets
    )  # fmt: skip
    settled = replace(facts, corrections=corrections)
    assert open_doubts(settled) == ()
    first, second = settled.sets
    reading = settled.standing_readings(second)[0]
    assert value_used_um(settled, second, reading) == Decimal(70)
    assert value_used_um(settled, first, settled.standing_readings(first)[0]) == Decimal(85)
    (move,) = estimate_of_reading(settled, reading, "").moves
    assert move.moved_m == pytest.approx(30e-6)
    assert estimate_of_reading(settled, settled.standing_readings(first)[0], "").moves == ()


def test_a_zero_is_looked_at_only_by_a_look_after_the_newest_reading() -> None:
    story, facts = _story(0, 0)
    assert [is_zero_looked_at(facts, one) for one in facts.sets] == [True, True]
    story.read(Quantity.PROTRUSION, facts.fittings[0].fitting_id, (85,))
    later = replace(story.facts(), zero_checks=facts.zero_checks)
    assert not is_zero_looked_at(later, later.sets[-1])


@pytest.mark.parametrize(
    ("kind", "moves"),
    [("depth gauge", True), ("bore gauge", True), ("steel rule", True), ("Feeler blades", False), ("blade", False)],
)
def test_a_blade_has_no_zero_and_its_step_counts_once(kind: str, moves: bool) -> None:
    """Common practice, no published source; the step as a rectangle by GUM 4.3.7."""
    gauge = replace(GAUGE, kind=kind, resolution_um=Decimal("25.4"), repeatability_um=Decimal(0))
    assert gauge.has_zero is moves
    times = 2 if moves else 1
    assert reading_of_gauge(gauge).standard_m == pytest.approx((times / 12) ** 0.5 * 25.4e-6)


def test_struck_readings_leave_no_doubt() -> None:
    story, facts = _story(0, 30)
    (doubt,) = open_doubts(facts)
    for reading_id in doubt.reading_ids:
        story.strike(reading_id=reading_id)
    assert open_doubts(replace(story.facts(), zero_checks=facts.zero_checks)) == ()
