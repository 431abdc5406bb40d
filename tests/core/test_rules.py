"""The card's rules on a block: order of states, neighbours, heads, positions. The states are the house's own rule."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.card import limit, wet_card
from tests.core.facts import HOURS, Story
from vallostasis.core.hole_now import hole_now
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import Acceptance, SpecCard
from vallostasis.core.surveys.places import MOVED_ZERO
from vallostasis.core.uncertainty.decision import RuleKind, Side, State

GOOD = (90.0, 90.0, 90.0, 90.0)
# √(2·0.35²) of reading and zero, times two: ±0.99 µm.
ALMOST_EXACT = {"resolution_um": 1e-6, "repeatability_um": 0.35}


def _block(*holes: tuple[float, ...], card: SpecCard | None = None, first: int = 1) -> Story:
    """A block whose holes read so, from the first on; no depths and no flanges. [µm]"""
    story = Story(6, card or wet_card(), **ALMOST_EXACT)
    for number, values in enumerate(holes, start=first):
        fitting = story.fit(number, story.liner(f"L{number}"))
        if values:
            story.read(Quantity.PROTRUSION, fitting, values, hours=HOURS)
    return story


def _states(story: Story) -> list[State]:
    return [judged.state for judged in judge_job(story.facts()).holes]


@pytest.mark.parametrize(
    ("values", "state"),
    [
        ((90, 90, 90, 90), State.IN),
        ((90, 90, 90), State.NOT_MEASURED),
        ((90, 90, 50.5, 90), State.CANNOT_TELL),
        ((90, 90, 30, 90), State.OUT),
        ((90, 30), State.OUT),
        ((90, 90, 60, 105), State.OUT),
        ((), State.NOT_MEASURED),
    ],
)
def test_out_beats_not_measured_beats_cannot_tell(values: tuple[float, ...], state: State) -> None:
    assert _states(_block(values))[0] is state


def test_a_hole_without_a_liner_is_not_measured() -> None:
    assert _states(_block())[0] is State.NOT_MEASURED


def test_neighbours_count_under_one_head_only() -> None:
    low, high = (60.0,) * 4, (120.0,) * 4
    assert _states(_block(low, high, first=2))[1:3] == [State.OUT, State.OUT]
    assert _states(_block(low, high, first=3))[2:4] == [State.IN, State.IN]


def test_the_difference_is_the_same_whichever_of_two_neighbours_is_higher() -> None:
    for values in (((60.0,) * 4, (120.0,) * 4), ((120.0,) * 4, (60.0,) * 4)):
        rules = judge_job(_block(*values).facts()).holes[0].rules
        (rule,) = (one for one in rules if one.kind is RuleKind.NEIGHBOUR)
        assert rule.value_m == pytest.approx(60e-6)
        assert rule.side is Side.GREATEST


def test_a_hole_is_not_held_back_by_a_neighbour_that_is_not_measured() -> None:
    assert _states(_block(GOOD, ()))[:2] == [State.IN, State.NOT_MEASURED]
    assert _states(_block((60.0,) * 4, (120.0, 120.0)))[0] is State.IN, "two positions are no mean yet"


def test_average_under_a_head_waits_for_every_hole_and_then_counts_for_all() -> None:
    card = wet_card()
    card = replace(card, limits=replace(card.limits, head_average_least=limit("0.1")))
    assert _states(_block(GOOD, GOOD, GOOD, card=card))[:3] == [State.OUT] * 3
    waits = judge_job(_block(GOOD, GOOD, card=card).facts())
    assert waits.heads[0].result is None
    assert waits.holes[0].state is State.IN


def test_the_average_of_a_head_is_that_of_its_holes() -> None:
    card = wet_card()
    card = replace(card, limits=replace(card.limits, head_average_least=limit("0.02")))
    result = judge_job(_block((80.0,) * 4, (90.0,) * 4, (103.0,) * 4, card=card).facts()).heads[0].result
    assert result is not None
    assert result.value_m == pytest.approx(91e-6)
    # Twelve readings of one zero (GUM 4.2.3): own 0.35/√12, the zero whole.
    assert result.expanded_m == pytest.approx(2e-6 * 0.35 * (1 + 1 / 12) ** 0.5, rel=1e-3)


def _with_parts(reading_um: float) -> Story:
    """Flange 8.900 in a counterbore of 8.810 deep: the parts give 90 µm."""
    story = _block((reading_um,) * 4)
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8810,) * 4)
    story.read(Quantity.FLANGE_THICKNESS, story.rows["liners"][0].liner_id, (8900, 8900))
    return story


def test_parts_that_disagree_leave_a_good_reading_undecided_and_a_bad_one_too() -> None:
    assert _states(_with_parts(90.0))[0] is State.IN
    for reading in (100.0, 20.0):
        judged = judge_job(_with_parts(reading).facts()).holes[0]
        assert judged.state is State.CANNOT_TELL
        assert "disagree" in judged.reason


def test_parts_give_the_flange_less_the_ledge_with_shims_on_top_and_spacers_off() -> None:
    story = _with_parts(90.0)
    assert hole_now(story.facts(), story.hole_rows[0]).parts.prediction.protrusion_m == pytest.approx(90e-6)
    story.fit(1, story.liner("L9"), 100)
    story.read(Quantity.FLANGE_THICKNESS, story.rows["liners"][-1].liner_id, (8890,))
    now = hole_now(story.facts(), story.hole_rows[0])
    assert now.parts.prediction.protrusion_m == pytest.approx(180e-6)
    assert (now.limits.least_m, now.limits.greatest_m) == (75e-6, 125e-6), "on a shim it has limits of its own"


def test_a_zero_in_doubt_beats_out() -> None:
    story = _block((90, 90, 30, 90))
    story.look_at_zero(Quantity.PROTRUSION, 40)
    judged = judge_job(story.facts()).holes[0]
    assert (judged.state, judged.reason) == (State.CANNOT_TELL, MOVED_ZERO)


def test_a_reopened_hole_is_not_measured_and_says_why() -> None:
    story = _block(GOOD)
    story.change_land("lip")
    judged = judge_job(story.facts()).holes[0]
    assert judged.state is State.NOT_MEASURED
    assert "land changed" in judged.reason


def test_a_position_that_cannot_be_read_leaves_a_good_hole_undecided_and_a_bad_one_out() -> None:
    for values, state in (((90.0, 90.0, 90.0), State.CANNOT_TELL), ((90.0, 30.0, 90.0), State.OUT)):
        story = _block(values)
        story.cannot_read(story.rows["fittings"][0].fitting_id, 9.0, "a stud stands there")
        judged = judge_job(story.facts()).holes[0]
        assert judged.state is state
    assert "missing" not in judged.reason


def test_simple_acceptance_answers_by_the_reading() -> None:
    card = replace(wet_card(), acceptance=Acceptance.SIMPLE)
    story = _block((90, 90, 50.5, 90), card=card)
    judged = judge_job(story.facts()).holes[0]
    assert judged.state is State.IN
    assert "not every rule is proven" in judged.reason
    assert _states(_block((90, 90, 49.5, 90), card=card))[0] is State.OUT


@settings(max_examples=30)
@given(values=st.tuples(*[st.integers(40, 135)] * 4), turn=st.integers(0, 3))
def test_turning_the_liner_changes_no_state(values: tuple[int, ...], turn: int) -> None:
    turned = values[turn:] + values[:turn]
    assert _states(_block(values))[0] is _states(_block(turned))[0]


@settings(max_examples=60)
@given(values=st.tuples(*[st.integers(40, 135)] * 4))
def test_a_hole_that_is_in_keeps_every_rule(values: tuple[int, ...]) -> None:
    if _states(_block(values))[0] is State.IN:
        assert 50 <= min(values) <= max(values) <= 125
        assert max(values) - min(values) <= 40


@pytest.mark.parametrize(
    ("value", "side", "words"),
    [(49.5, Side.LEAST, "too near the least to tell"), (30, Side.LEAST, "below least"),
     (124.5, Side.GREATEST, "too near the greatest to tell"), (150, Side.GREATEST, "above greatest")],
)  # fmt: skip
def test_which_limit_it_is_about_is_said(value: float, side: Side, words: str) -> None:
    rules = judge_job(_block((90, 90, value, 90)).facts()).holes[0].rules
    rule = next(one for one in rules if one.kind is RuleKind.READING and one.where == "6h")
    assert (rule.side, rule.words) == (side, words)
