"""What a hole needs next and how its cut is planned, from the records of a job to the sentence: by hand."""

from dataclasses import replace
from decimal import Decimal

import numpy as np
import pytest
from scipy import stats

from tests.core.card import length, limit, wet_card
from tests.core.facts import Story
from vallostasis.core.counterbore.cut_plan import Caution, CutPlan, CutterTrust, depth_by_the_stop
from vallostasis.core.counterbore.cutter_in_hand import cutter_trust
from vallostasis.core.counterbore.hole_plan import (
    HolePlan,
    HoleRefusal,
    depth_window,
    expected_after_cut,
    plan_hole,
    seat_limits,
)
from vallostasis.core.counterbore.shim_order import shim_needs
from vallostasis.core.counterbore.shim_stock import shims_left
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.gauges.zero_checks import Drift
from vallostasis.core.needs import Action, Need
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import NO_LIMIT, Between, SpecCard
from vallostasis.core.subjects import need_of_hole
from vallostasis.core.surveys.set_budget import reading_of_gauge
from vallostasis.core.uncertainty.budget import estimate, stated
from vallostasis.core.uncertainty.decision import State

READING = 2**2 / 12 + 2.5**2
SHIM = 5**2 / 3
STOP = 25**2 / 3


def _um(value_m: float | None) -> float:
    assert value_m is not None
    return value_m * 1e6


def _hole(
    protrusion: tuple[float, ...],
    depths: tuple[float, ...] = (),
    flange: float | None = None,
    *shims: int,
    card: SpecCard | None = None,
    person: Story | None = None,
    hole: int = 1,
) -> Story:
    story = person or Story(card=card or wet_card())
    liner = story.liner(f"L{hole}")
    fitting = story.fit(hole, liner, *shims)
    if depths:
        story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[hole - 1].hole_id, depths)
    if flange is not None:
        story.read(Quantity.FLANGE_THICKNESS, liner, (flange,))
    if protrusion:
        story.read(Quantity.PROTRUSION, fitting, protrusion)
    return story


def _need(story: Story, hole: int = 1) -> Need:
    facts = story.facts()
    return need_of_hole(facts, facts.holes[hole - 1], judge_job(facts).holes[hole - 1])


def _plan(story: Story, hole: int = 1) -> HolePlan:
    plan = plan_hole(story.facts(), story.hole_rows[hole - 1])
    assert isinstance(plan, HolePlan), plan.reason
    return plan


# Needs.
def test_a_hole_that_is_in_needs_nothing_and_says_what_its_parts_give() -> None:
    need = _need(_hole((85, 85, 85, 85), (8815, 8815, 8815, 8815), 8900))
    assert need.action is Action.NOTHING
    assert "Every rule of the card is met" in need.detail.text
    assert _um(need.detail.terms[0].value) == pytest.approx(85)
    assert "counterbore depth not measured" in _need(_hole((85, 85, 85, 85), (), 8900)).detail.text


@pytest.mark.parametrize(
    ("apart", "words", "causes"),
    [
        # A spacer left out under the gauge lets everything read proud by its thickness: common practice.
        (50, "proud of what the parts give", "a spacer left out under the gauge"),
        (-45, "below what the parts give", "a spacer under the gauge that the card does not count"),
    ],
)
def test_parts_and_reading_that_disagree_are_explained_before_anything_is_cut(
    apart: int, words: str, causes: str
) -> None:
    level = 85 + apart
    story = _hole((level,) * 4, (8815,) * 4, 8900)
    need = _need(story)
    assert need.action is Action.EXPLAIN
    assert _um(need.sentence.terms[0].value) == pytest.approx(apart)
    # Measured, flange and ledge, each on a zero of its own; the ledge's plane is moved up to its highest reading.
    assert words in need.detail.text
    assert causes in need.detail.text
    refused = plan_hole(story.facts(), story.hole_rows[0])
    assert isinstance(refused, HoleRefusal)
    assert "disagree" in refused.reason


def test_a_flange_that_was_measured_over_the_lip_is_measured_again() -> None:
    """The lip stands 90 above the flat land: parts give 90 more than what is read."""
    need = _need(_hole((85,) * 4, (8815,) * 4, 8990))
    assert (need.action, need.liner_mark) == (Action.READ_FLANGE, "L1")
    assert _um(need.detail.terms[0].value) == pytest.approx(90)


def test_a_shim_that_was_written_down_wrong_is_named() -> None:
    """0.10 is written, 0.25 would explain what stands 150 higher; the flange may have been read on no land."""
    need = _need(_hole((335,) * 4, (8815,) * 4, 8900, 100))
    assert need.action is Action.FIT
    assert [_um(term.value) for term in need.detail.terms] == pytest.approx([100, 250])


def test_an_out_hole_is_measured_until_its_cut_can_be_planned() -> None:
    low = (30, 30, 30, 30)
    assert _need(_hole(low)).action is Action.READ_FLANGE
    assert _need(_hole(low, (), 8900)).action is Action.READ_DEPTH
    need = _need(_hole(low, (8870,) * 4, 8900))
    assert need.action is Action.CUT
    assert "dirt" not in need.detail.text, "what stands low has no dirt under its flange"
    high = _need(_hole((190,) * 4, (8710,) * 4, 8900))
    assert "Look for dirt or a burr under the flange first" in high.detail.text


def test_a_doubted_zero_is_put_right_first() -> None:
    story = _hole((85, 85, 85, 85))
    story.look_at_zero(Quantity.PROTRUSION, 30)
    assert "Correct what stands on the moved zero" in _need(story).sentence.text


def test_near_a_limit_the_position_is_read_again_so_many_times() -> None:
    """55.5 against 50: one reading with its zero covers 7.26; U falls below 5.5 at once more.

    u²(n) = READING/n + READING: 2·√(6.583·1.5) = 6.28, 2·√(6.583·4/3) = 5.93, 2·√(6.583·1.25) = 5.74, at six readings
    5.54, at seven 5.49.
    """
    need = _need(_hole((56.0, 90, 90, 60)))
    # 6.0 needs three readings: two more.
    assert need.sentence.text == "Read 12h 2 more times"
    assert need.hours == (12.0,)
    assert "3 readings settle it" in need.detail.text
    story = Story()
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (56, 56, 90, 90, 62), hours=(12.0, 12.0, 3.0, 6.0, 9.0))
    assert _need(story).sentence.text == "Read 12h once more"
    many = _need(_hole((55.5, 90, 90, 60)))
    assert "finer gauge" in many.sentence.text
    assert "it would take 6 more readings" in many.detail.text, "that is not worth it"
    hopeless = _need(_hole((55, 90, 90, 60)))
    assert "finer gauge" in hopeless.sentence.text, "the zero alone covers 5.13"


# Plans.
def test_a_plan_is_the_sum_of_its_stack() -> None:
    """f + s − t − P*: 8900 + 100 − 100 target; the shallowest needs 8870 → 8900, the deepest clears 25 of clean-up."""
    story = _hole((), (8860, 8870, 8865, 8865), 8900)
    plan = _plan(story)
    assert (_um(plan.cut.shim_m), _um(plan.cut.depth_m)) == pytest.approx((100, 8900))
    assert [_um(cut) for cut in plan.cut.cuts_m] == pytest.approx([40, 30, 35, 35])
    assert _um(plan.cut.from_touch_off_m) == pytest.approx(40)
    assert _um(plan.cut.protrusion_m) == pytest.approx(100)
    assert _um(plan.cut.by_gauge.value_m) == pytest.approx(100)
    assert _um(plan.cut.depth_by_stop.value_m) == pytest.approx(8900)
    # Once measured: flange and depth, each on its own zero, and the shim as written.
    assert _um(plan.cut.by_gauge.standard_m) ** 2 == pytest.approx(4 * READING + SHIM)


def test_a_spacer_between_deck_and_gauge_makes_the_ledge_shallower() -> None:
    card = wet_card()
    card = replace(card, measuring=replace(card.measuring, between=(Between("plate", length("0.040")),)))
    plan = _plan(_hole((), (8800,) * 4, 8900, card=card))
    assert _um(plan.cut.depth_m) == pytest.approx(8900 + 100 - 40 - 100)
    assert _um(plan.cut.by_gauge.standard_m) ** 2 == pytest.approx(4 * READING + 2 * SHIM)
    # The fixed cut of the same setting stands on the same stack.
    assert [_um(one.protrusion_m) for one in plan.fixed_cuts] == pytest.approx([100] * 3)
    story = _hole((), (8800,) * 4, 8900, card=card)
    least, greatest = depth_window(story.facts(), story.hole_rows[0])
    assert (_um(least), _um(greatest)) == pytest.approx((8900 - 40 - 125, 8900 - 40 - 50))
    assert depth_window(story.facts(), story.hole_rows[1]) == (None, None)


def test_by_the_stop_a_depth_carries_the_spot_the_cutter_was_set_on() -> None:
    """One reading picked as the highest of four: its own share by (2Φ(z) − 1)^4 = 2Φ(2) − 1, its zero as it is."""
    lifted = float(stats.norm.ppf((1 + (2 * stats.norm.cdf(2) - 1) ** 0.25) / 2)) / 2
    plan = _plan(_hole((), (8860, 8870, 8865, 8865), 8900)).cut
    graduations = (0.05 * 40) ** 2 / 3
    expected = READING * lifted**2 + READING + STOP + graduations
    assert _um(plan.depth_by_stop.standard_m) ** 2 == pytest.approx(expected)
    # The flange is read by the same kind of gauge on a zero of its own.
    assert _um(plan.by_stop.standard_m) ** 2 == pytest.approx(expected + 2 * READING + SHIM)
    # The stop stands evenly within ±25 µm, all else is as good as normal: one folded into the other, window ±25 µm.
    rest, stop = (_um(plan.by_stop.standard_m) ** 2 - STOP) ** 0.5, np.linspace(-25, 25, 2001)
    inside = np.mean(stats.norm.cdf((25 - stop) / rest) - stats.norm.cdf((-25 - stop) / rest))
    assert plan.chance_by_stop == pytest.approx(float(inside), abs=0.006)


def test_one_depth_alone_is_not_picked_from_others() -> None:
    one = reading_of_gauge(Story().gauge)
    at = replace(one, value_m=8.8e-3)
    reached = depth_by_the_stop(8.9e-3, (at,), CutterTrust(20e-6, 25e-6, 0.05), 2.0)
    assert _um(stated("", reached, 1).standard_m) ** 2 == pytest.approx(2 * READING + STOP + 5**2 / 3)
    assert _um(reached.value_m) == pytest.approx(8900)


def test_without_a_target_the_middle_of_the_window_is_aimed_at() -> None:
    card = wet_card()
    limits = replace(card.limits, target_with_shim=NO_LIMIT, least_with_shim=limit("0.080"))
    found = seat_limits(replace(card, limits=limits))
    assert _um(found.target_m) == pytest.approx((80 + 125) / 2)
    assert (_um(found.least_m), _um(found.greatest_m), _um(found.cleanup_m)) == pytest.approx((80, 125, 25))
    # As drawn 8.815 leaves 6.0 of the ledge, 5.2 must be left.
    assert _um(found.greatest_depth_m) == pytest.approx(8815 + 6000 - 5200)
    with pytest.raises(OutOfDomain, match="least protrusion on a shim"):
        seat_limits(replace(card, limits=replace(card.limits, least_with_shim=NO_LIMIT)))
    trust = cutter_trust(Story(card=card).facts())
    assert (_um(trust.graduation_m), _um(trust.stop_accuracy_m), trust.graduation_error) == pytest.approx(
        (20, 25, card.cutter.graduation_error_percent / 100)
    )


@pytest.mark.parametrize("quantity", [Quantity.COUNTERBORE_DEPTH, Quantity.FLANGE_THICKNESS])
def test_no_cut_is_planned_on_a_part_whose_zero_was_found_moved(quantity: Quantity) -> None:
    story = _hole((), (8860, 8870, 8865, 8865), 8900)
    check = story.look_at_zero(quantity, 30)
    refused = plan_hole(story.facts(), story.hole_rows[0])
    assert isinstance(refused, HoleRefusal)
    assert "zero was found moved" in refused.reason
    story.correct(check, Drift.AT_ONCE)
    sign = -1 if quantity is Quantity.FLANGE_THICKNESS else 0
    assert _um(_plan(story).cut.depth_m) == pytest.approx(8900 + sign * 30 + _um(_plan(story).cut.shim_m) - 100)


def test_a_window_of_depths_belongs_to_the_shims_that_are_fitted() -> None:
    story = _hole((), (8815,) * 4, 8900)
    least, greatest = depth_window(story.facts(), story.hole_rows[0])
    assert (_um(least), _um(greatest)) == pytest.approx((8900 - 125, 8900 - 50))
    story = _hole((), (8815,) * 4, 8900, 100)
    least, greatest = depth_window(story.facts(), story.hole_rows[0])
    assert (_um(least), _um(greatest)) == pytest.approx((9000 - 125, 9000 - 75))


def test_after_a_cut_the_stop_says_what_to_expect_until_the_ledge_is_read() -> None:
    story = _hole((30,) * 4, (8870,) * 4, 8900)
    cut = story.cut(1, 8900, 100)
    hole = story.hole_rows[0]
    expected = expected_after_cut(story.facts(), hole)
    assert expected is not None
    assert _um(expected.value_m) == pytest.approx(100)
    # 15 µm is recorded with the cut; the flange stands on one reading and its zero.
    assert _um(expected.standard_m) ** 2 == pytest.approx(15**2 + 2 * READING + SHIM)
    card = wet_card()
    spaced = replace(card, measuring=replace(card.measuring, between=(Between("plate", length("0.040")),)))
    with_plate = expected_after_cut(replace(story.facts(), card=spaced), hole)
    assert with_plate is not None
    assert _um(with_plate.value_m) == pytest.approx(60)
    assert _um(with_plate.standard_m) ** 2 == pytest.approx(15**2 + 2 * READING + 2 * SHIM)
    story.read(Quantity.COUNTERBORE_DEPTH, hole.hole_id, (8910,) * 4, after_cut=cut)
    measured = expected_after_cut(story.facts(), hole)
    assert measured is not None
    assert _um(measured.value_m) == pytest.approx(90)


def test_what_the_whole_block_needs_is_ordered_with_one_to_spare() -> None:
    """Two 0.10 on the shelf: one hole needs one and with a spare that is two; with a second hole one is missing."""
    story = _hole((30,) * 4, (8870,) * 4, 8900)
    facts = story.facts()
    first = shim_needs(facts, judge_job(facts))[0]
    assert (first.on_shelf, first.holes, first.to_order) == (2, (1,), 0)
    _hole((30,) * 4, (8870,) * 4, 8900, person=story, hole=2)
    facts = story.facts()
    first = shim_needs(facts, judge_job(facts))[0]
    assert (first.on_shelf, first.holes, first.to_order) == (2, (1, 2), 1)
    assert [one.to_order for one in shim_needs(facts, judge_job(facts))[1:]] == [0] * 4, "what nobody needs"


def test_shims_under_liners_are_off_the_shelf() -> None:
    story = _hole((), (8860,) * 4, 8900, 100)
    assert shims_left(story.facts())[Decimal(100)] == 1
    assert shims_left(Story().facts())[Decimal(100)] == 2


def test_a_shim_in_stock_goes_before_a_thinner_one_that_is_not() -> None:
    """8880 + 25 of clean-up needs 105 at least: 0.15 is not in stock, 0.20 is."""
    plan = _plan(_hole((), (8880,) * 4, 8900))
    assert (_um(plan.cut.shim_m), plan.shim.stock, plan.shim.in_stock) == (pytest.approx(200), 3, True)
    card = wet_card()
    bare = replace(card, shims=tuple(replace(one, stock=0) for one in card.shims))
    ordered = _plan(_hole((), (8880,) * 4, 8900, card=bare))
    assert (_um(ordered.cut.shim_m), ordered.shim.in_stock) == (pytest.approx(150), False)


@pytest.mark.parametrize(
    ("neighbour", "apart", "state", "caution"),
    [(95, 5, State.IN, ()), (140, -40, State.CANNOT_TELL, (Caution.NEIGHBOUR_UNSURE,)),
     (0, 100, State.OUT, (Caution.NEIGHBOUR,))],
)  # fmt: skip
def test_a_plan_looks_at_what_stands_beside_it(
    neighbour: float, apart: float, state: State, caution: tuple[Caution, ...]
) -> None:
    story = _hole((), (8860, 8870, 8865, 8865), 8900)
    _hole((neighbour,) * 4, person=story, hole=2)
    plan = _plan(story)
    (beside,) = plan.neighbours
    assert (beside.hole, beside.state) == (2, state)
    assert _um(beside.stated.value_m) == pytest.approx(apart)
    # By another gauge zero than the depths: the mean of the neighbour keeps its own.
    by_stop = _um(plan.cut.by_stop.standard_m) ** 2
    assert _um(beside.stated.standard_m) ** 2 == pytest.approx(by_stop + READING / 4 + READING)
    assert tuple(one for one in plan.cautions if one is not Caution.CHANCE) == caution


def test_fixed_cuts_start_from_the_same_stack() -> None:
    """From the highest spot the setting of the plan meets the plan, from the deepest it goes deeper."""
    plan = _plan(_hole((), (8860, 8870, 8865, 8865), 8900))
    assert [(one.counted_from, round(_um(one.protrusion_m), 6)) for one in plan.fixed_cuts] == [
        ("shallowest", 100), ("mean", 95), ("deepest", 90)
    ]  # fmt: skip
    assert [_um(one.least_cut_m) for one in plan.fixed_cuts] == pytest.approx([30, 35, 40])


def test_half_a_pass_left_out_is_warned_of_where_it_leaves_the_window() -> None:
    """Passes of 20: a cut of 35 has 15 left over; target 115 with 15 more stands above 125."""
    card = wet_card()
    high = replace(card, limits=replace(card.limits, target_with_shim=limit("0.115")))
    story = _hole((), (8850,) * 4, 8900, card=high)
    plan = _plan(story)
    assert (plan.cut.passes.whole, plan.cut.passes.rest_um) == (1, Decimal(15))
    assert _um(plan.cut.without_part_pass_m) == pytest.approx(130)
    assert Caution.WITHOUT_PART_PASS in plan.cautions
    usual = _plan(_hole((), (8850,) * 4, 8900))
    assert _um(usual.cut.without_part_pass_m) == pytest.approx(110)
    assert Caution.WITHOUT_PART_PASS not in usual.cautions


def test_what_is_left_of_the_ledge_follows_the_depth() -> None:
    plan = _plan(_hole((), (8860, 8870, 8865, 8865), 8900))
    assert plan.ledge_left is not None
    assert _um(plan.ledge_left.value_m) == pytest.approx(6000 - (8900 - 8815))
    assert plan.ledge_left.standard_m == pytest.approx(plan.cut.depth_by_stop.standard_m)


def test_a_plan_without_scatter_is_certain() -> None:
    exact = estimate(8.86e-3, ())
    reached = depth_by_the_stop(8.9e-3, (exact,), CutterTrust(20e-6, 0.0, 0.0), 2.0)
    assert stated("", reached, 2.0).expanded_m == 0.0
    assert isinstance(_plan(_hole((), (8860,) * 4, 8900)).cut, CutPlan)
