"""Whole chains from what was recorded to what is judged, by hand: which errors a value carries, and which cancel.

The gauge of the stories steps by 2 µm and repeats within 2.5 µm: a reading has u² = 2²/12 + 2.5² = 6.583 µm² of its
own (GUM 4.3.7), and so has its zero. k = 2.
"""

from dataclasses import replace
from decimal import Decimal
from uuid import uuid4

import numpy as np
import pytest
from scipy import stats
from uncertainties import covariance_matrix, ufloat

from tests.core.card import LIP, dry_card, length, limit, wet_card
from tests.core.facts import WHEN, Story, level
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.gauges.zero_checks import Drift
from vallostasis.core.hole_now import hole_now
from vallostasis.core.protrusion.measured import hole_parts, judge_job, protrusion_of, shim_part
from vallostasis.core.records.rows import FittedShim, Place, Quantity, ZeroCorrection, ZeroedOn
from vallostasis.core.records.spec_card import CardLevel, FeatureSheet, SpecCard
from vallostasis.core.surveys.derived import DerivedKind
from vallostasis.core.surveys.fitness import capability_of_setup
from vallostasis.core.surveys.places import protrusion_limits
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.uncertainty.budget import Estimate, difference_of, exactly, stated, weighted
from vallostasis.core.uncertainty.decision import Capability, RuleKind, RuleResult, State, repeats_to_settle
from vallostasis.core.uncertainty.extremes import covariance_of, range_bias, range_factor

READING = 2**2 / 12 + 2.5**2
ZERO = READING
# Chance that k = 2 covers.
CHANCE = float(2 * stats.norm.cdf(2) - 1)


def _um(value_m: float | None) -> float:
    assert value_m is not None
    return value_m * 1e6


def _read(story: Story, *holes: tuple[float, ...]) -> list[object]:
    fittings = []
    for number, values in enumerate(holes, start=1):
        fitting = story.fit(number, story.liner(f"L{number}"))
        story.read(Quantity.PROTRUSION, fitting, values)
        fittings.append(fitting)
    return fittings


def _rules(story: Story, hole: int, kind: RuleKind) -> list[RuleResult]:
    return [rule for rule in judge_job(story.facts()).holes[hole - 1].rules if rule.kind is kind]


def _centre_difference(story: Story) -> float:
    """u² of the difference between the centres of holes 1 and 2. [µm²]"""
    first, second = (hole_now(story.facts(), hole).mean for hole in story.hole_rows)
    assert first is not None and second is not None
    (rule,) = _rules(story, 1, RuleKind.NEIGHBOUR)
    return float((rule.stated.standard_m * 1e6) ** 2)


def test_a_mean_of_four_positions_keeps_the_zero_whole() -> None:
    story = Story()
    _read(story, (84, 86, 84, 86))
    mean = hole_now(story.facts(), story.hole_rows[0]).mean
    assert mean is not None
    assert _um(mean.value_m) == pytest.approx(85)
    assert _um(mean.expanded_m) == pytest.approx(2 * (READING / 4 + ZERO) ** 0.5)


def test_a_place_read_twice_is_the_mean_of_both_and_halves_its_own_share_alone() -> None:
    story = Story()
    story.read(Quantity.PROTRUSION, story.fit(1, story.liner("L1")), (80, 90), hours=(12.0,))
    place = protrusion_of(story.facts(), story.hole_rows[0]).places[0]
    assert _um(place.value_m) == pytest.approx(85)
    assert place.stated is not None
    assert (_um(place.stated.standard_m)) ** 2 == pytest.approx(READING / 2 + ZERO)


@pytest.mark.parametrize(
    ("between", "zeros"),
    [
        # One zero for both holes cancels; so it does when it was looked at in between and had not moved.
        (lambda story, fittings: None, 0),
        (lambda story, fittings: story.look_at_zero(Quantity.PROTRUSION, 1), 0),
        # Read a second time, a gauge was zeroed anew.
        (lambda story, fittings: story.read(Quantity.PROTRUSION, fittings[0], (85, 85, 85, 85)), 2),
    ],
)
def test_the_difference_to_a_neighbour_carries_the_zeros_that_differ(between: object, zeros: int) -> None:
    story = Story()
    fittings = [story.fit(number, story.liner(f"L{number}")) for number in (1, 2)]
    story.read(Quantity.PROTRUSION, fittings[0], (85, 85, 85, 85))
    if not zeros:
        between(story, fittings)  # type: ignore[operator]
    story.read(Quantity.PROTRUSION, fittings[1], (95, 95, 95, 95))
    if zeros:
        between(story, fittings)  # type: ignore[operator]
    assert _centre_difference(story) == pytest.approx(2 * READING / 4 + zeros * ZERO)


def test_a_gauge_zeroed_for_every_hole_carries_both_zeros() -> None:
    story = Story()
    story.set_up(Quantity.PROTRUSION, shared_zero=False)
    _read(story, (85, 85, 85, 85), (95, 95, 95, 95))
    assert _centre_difference(story) == pytest.approx(2 * READING / 4 + 2 * ZERO)


def test_sets_put_right_by_one_look_stand_on_that_look() -> None:
    """Each hole on a zero of its own, both found moved before all of them: the look takes the place of both."""
    story = Story()
    story.set_up(Quantity.PROTRUSION, shared_zero=False)
    _read(story, (115, 115, 115, 115), (125, 125, 125, 125))
    story.correct(story.look_at_zero(Quantity.PROTRUSION, 30), Drift.AT_ONCE)
    first = hole_now(story.facts(), story.hole_rows[0]).mean
    assert first is not None
    assert _um(first.value_m) == pytest.approx(85)
    assert _um(first.standard_m) ** 2 == pytest.approx(READING / 4 + ZERO)
    assert _centre_difference(story) == pytest.approx(2 * READING / 4)


def test_a_correction_of_a_whole_set_is_added_with_its_sign_and_keeps_both_errors() -> None:
    story = Story()
    _read(story, (85, 85, 85, 85))
    (opened,) = story.rows["sets"]
    row = ZeroCorrection(opened.reading_set_id, Decimal(-3), Decimal("1.5"), "", "", WHEN, "Wren", story._next())
    story._add("corrections", row)
    mean = hole_now(story.facts(), story.hole_rows[0]).mean
    assert mean is not None
    assert _um(mean.value_m) == pytest.approx(82)
    assert _um(mean.standard_m) ** 2 == pytest.approx(READING / 4 + ZERO + 1.5**2)
    # A newer one of the whole set takes its place; one that follows from a look at the zero is added.
    story._add("corrections", replace(row, correction_um=Decimal(1), standard_um=Decimal(2), event=story._next()))
    story.correct(story.look_at_zero(Quantity.PROTRUSION, 30), Drift.AT_ONCE)
    mean = hole_now(story.facts(), story.hole_rows[0]).mean
    assert mean is not None
    assert _um(mean.value_m) == pytest.approx(85 + 1 - 30)
    assert _um(mean.standard_m) ** 2 == pytest.approx(READING / 4 + ZERO + 2**2)


def test_a_move_at_an_unknown_moment_counts_by_half_its_width_on_every_mean() -> None:
    story = Story()
    _read(story, (115, 115, 115, 115), (115, 115, 115, 115))
    story.correct(story.look_at_zero(Quantity.PROTRUSION, 30), Drift.SOMEWHERE)
    for hole in story.hole_rows:
        mean = hole_now(story.facts(), hole).mean
        assert mean is not None
        assert _um(mean.value_m) == pytest.approx(100)
        assert _um(mean.expanded_m) == pytest.approx(15 + 2 * (READING / 4 + ZERO) ** 0.5)
    # The later hole is shifted as much as the earlier, or more: half of the move lies between them, give or take; at
    # the worst one stands on the zero and the other on the look.
    for hole in (1, 2):
        (rule,) = _rules(story, hole, RuleKind.NEIGHBOUR)
        assert _um(rule.value_m) == pytest.approx(15)
        assert _um(rule.expanded_m) == pytest.approx(15 + 2 * (2 * READING / 4 + 2 * ZERO) ** 0.5)


# Ranges: q of the studentized range with as many degrees of freedom as there are, SciPy.
def _q(points: int, groups: int = 1) -> float:
    return float(stats.studentized_range.ppf(CHANCE ** (1 / groups), points, np.inf))


@pytest.mark.parametrize("points", [2, 3, 4, 8])
@pytest.mark.parametrize("groups", [1, 5])
def test_a_range_is_widened_as_the_studentized_range(points: int, groups: int) -> None:
    assert range_factor(points, 2.0, groups) == pytest.approx(_q(points, groups), rel=2e-4)


def test_range_of_one_size_as_in_the_tables_of_control_charts() -> None:
    """d2 of Shewhart charts: 1.128, 1.693, 2.059, 2.326 (ISO 7870-2 table, from memory)."""
    assert [range_bias(n) for n in (2, 3, 4, 5)] == pytest.approx([1.128, 1.693, 2.059, 2.326], abs=1e-3)


def test_a_variation_loses_the_zero_and_covers_the_farthest_of_all() -> None:
    story = Story()
    _read(story, (80, 90, 85, 85))
    (rule,) = _rules(story, 1, RuleKind.VARIATION)
    assert _um(rule.value_m) == pytest.approx(10)
    assert _um(rule.expanded_m) == pytest.approx(_q(4) * READING**0.5, rel=2e-4)
    assert _um(rule.stated.budget.bias_m) == pytest.approx(2.059 * READING**0.5, rel=1e-3)
    assert rule.where == "3h to 12h"


def test_errors_that_two_sums_share_go_into_their_covariance() -> None:
    a, b = exactly(0.0, 2e-6, "a"), exactly(0.0, 3e-6, "b")
    plus, minus = weighted(((1.0, a), (1.0, b))), weighted(((1.0, a), (-1.0, b)))
    ua, ub = ufloat(0, 2), ufloat(0, 3)
    assert covariance_of(plus, minus) * 1e12 == pytest.approx(np.array(covariance_matrix((ua + ub, ua - ub))))


def test_three_positions_of_a_tilted_liner_give_the_centre_of_their_plane() -> None:
    """A plane through 70 at 12 h, 100 at 3 h, 110 at 6 h stands at 90 in its middle; their mean is 93.3."""
    story = Story()
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (70, 100, 110), hours=(12.0, 3.0, 6.0))
    story.cannot_read(fitting, 9.0, "a stud stands there")
    mean = hole_now(story.facts(), story.hole_rows[0]).mean
    assert mean is not None
    assert _um(mean.value_m) == pytest.approx(90)
    # Half of each of two readings, the third not at all.
    assert _um(mean.standard_m) ** 2 == pytest.approx(READING / 2 + ZERO)


def test_what_could_not_be_read_can_be_read_again() -> None:
    story = Story()
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (85, 85, 85), hours=(12.0, 3.0, 6.0))
    story.cannot_read(fitting, 9.0, "a stud stands there")
    assert judge_job(story.facts()).holes[0].state is State.CANNOT_TELL
    (said,) = story.rows["unreadables"]
    story._add("unreadables", replace(said, unreadable=False, reason="the stud is out", event=story._next()))
    assert judge_job(story.facts()).holes[0].state is State.NOT_MEASURED
    assert hole_now(story.facts(), story.hole_rows[0]).missing_hours == (9.0,)


# Bores.
LEVELS, AXES = (10.0, 70.0, 130.0), (0.0, 45.0, 90.0)


def _bore_card(**fields: object) -> SpecCard:
    sheet = FeatureSheet(
        Quantity.BLOCK_BORE, limit("100"), limit("99.9"), limit("100.1"), limit("0.025"), limit("0.030"),
        tuple(CardLevel(f"level {depth:g}", length(f"{depth:g}")) for depth in LEVELS), AXES,
    )  # fmt: skip
    return dry_card(sheet, **fields)


def _bore(table: list[list[float]], card: SpecCard | None = None) -> Survey:
    """A bore read as deviations from 100 mm, level by level on three axes. [µm]"""
    story = Story(card=card or _bore_card())
    story.set_up(Quantity.BLOCK_BORE, zeroed_on=ZeroedOn.NOMINAL, zero_um=Decimal(100_000))
    sizes = {level(depth, axis): (value,) for depth, row in zip(LEVELS, table, strict=True)
             for axis, value in zip(AXES, row, strict=True)}  # fmt: skip
    story.survey(Quantity.BLOCK_BORE, sizes, hole_id=story.hole_rows[0].hole_id)
    facts = story.facts()
    part = part_with_key(facts, Quantity.BLOCK_BORE, "hole-1")
    assert part is not None
    return survey_of(facts, Quantity.BLOCK_BORE, part)


def _rule(survey: Survey, kind: RuleKind) -> RuleResult:
    (rule,) = (one for one in survey.rules if one.kind is kind)
    return rule


def test_the_worst_level_is_judged_out_of_round_and_by_what_was_read_there() -> None:
    survey = _bore([[0, 0, 0], [0, 60, 0], [0, 0, 20]])
    rule = _rule(survey, RuleKind.OUT_OF_ROUND)
    assert (rule.where, _um(rule.value_m), rule.decision.state) == ("level 70", pytest.approx(60), State.OUT)
    # Of three levels the widest is picked, each of three axes; what all share cancels.
    assert _um(rule.expanded_m) == pytest.approx(_q(3, 3) * READING**0.5, rel=1e-3)


def test_the_worst_axis_is_judged_for_taper_as_greatest_less_least_along_it() -> None:
    """A step in ring travel between equal ends, on one axis alone: 60, not 0 from end to end nor 20 on the average."""
    survey = _bore([[0, 0, 0], [0, 0, 60], [0, 0, 0]])
    rule = _rule(survey, RuleKind.TAPER)
    assert (rule.where, _um(rule.value_m), rule.decision.state) == ("90°", pytest.approx(60), State.OUT)
    end_to_end = survey.one_of(DerivedKind.END_TO_END)
    assert end_to_end is not None
    assert _um(end_to_end.stated.value_m) == pytest.approx(0, abs=1e-9)
    assert survey.form is not None
    assert _um(survey.form.taper_m) == pytest.approx(60)
    falling = _bore([[60, 30, 0], [30, 15, 0], [0, 0, 0]]).one_of(DerivedKind.END_TO_END)
    assert falling is not None
    assert _um(falling.stated.value_m) == pytest.approx(30), "wider at the top is positive, the mean over its axes"


@pytest.mark.parametrize(("material", "alpha"), [("grey iron", 10.5e-6), ("aluminium", 22e-6)])
def test_where_nobody_took_a_temperature_part_and_ring_may_differ(material: str, alpha: float) -> None:
    """Steel ring 11.5e-6 ±1e-6 each; room 20 °C with u = 5 K, part and ring apart by ±2 K; own standard ±2 µm."""
    survey = _bore([[0, 0, 0]] * 3, _bore_card(block_material=material))
    unknown = 2 * 1e-6**2 / 3
    room = 0.1**2 * ((alpha - 11.5e-6) ** 2 + unknown) * 5**2
    apart = (0.1 * alpha * 2) ** 2 / 3
    place = survey.places[0].stated
    assert place is not None
    expected = (READING + ZERO + 4 / 3) * 1e-12 + room + apart
    assert place.standard_m**2 == pytest.approx(expected, rel=1e-6)


# Decks.
def test_flatness_is_held_against_its_limit_as_a_range_about_the_plane() -> None:
    """Corners alternately 30 up and 30 down about a plane: a saddle of 60, whatever the tilt."""
    card = wet_card()
    sheet = FeatureSheet(Quantity.DECK_FLATNESS, greatest=limit("0.040"), along=(length("0"), length("500")),
                         across=(length("0"), length("200")))  # fmt: skip
    story = Story(card=replace(card, features=(sheet,)))
    story.set_up(Quantity.DECK_FLATNESS, method="indicator grid")
    corners = {(0, 0): 30, (500, 0): -30, (0, 200): -30, (500, 200): 30}
    sizes = {Place(along_um=Decimal(x * 1000), across_um=Decimal(y * 1000)): (value + 0.1 * x - 0.2 * y,)
             for (x, y), value in corners.items()}  # fmt: skip
    story.survey(Quantity.DECK_FLATNESS, sizes, part="deck")
    facts = story.facts()
    part = part_with_key(facts, Quantity.DECK_FLATNESS, "deck")
    assert part is not None
    rule = _rule(survey_of(facts, Quantity.DECK_FLATNESS, part), RuleKind.FLATNESS)
    assert (_um(rule.value_m), rule.decision.state) == (pytest.approx(60), State.OUT)
    assert _um(rule.expanded_m) == pytest.approx(_q(4) * READING**0.5, rel=2e-4)


# Rules between holes, and parts.
def test_holes_that_do_not_stand_side_by_side_are_no_neighbours() -> None:
    story = Story(holes=3)
    _read(story, (70, 70, 70, 70), (95, 95, 95, 95), (120, 120, 120, 120))
    assert [rule.where for rule in _rules(story, 1, RuleKind.NEIGHBOUR)] == ["hole 2"]
    assert [rule.where for rule in _rules(story, 2, RuleKind.NEIGHBOUR)] == ["hole 1", "hole 3"]


def test_a_shim_brings_limits_of_its_own_at_both_ends() -> None:
    limits = replace(wet_card().limits, greatest_with_shim=limit("0.110"))
    card = replace(wet_card(), limits=limits)
    with_shim, without = protrusion_limits(card, True), protrusion_limits(card, False)
    assert (_um(with_shim.least_m), _um(with_shim.greatest_m)) == pytest.approx((75, 110))
    assert (_um(without.least_m), _um(without.greatest_m)) == pytest.approx((50, 125))
    story = Story(card=card)
    fitting = story.fit(1, story.liner("L1"), 100)
    story.read(Quantity.PROTRUSION, fitting, (118, 118, 118, 118))
    assert judge_job(story.facts()).holes[0].state is State.OUT


def _with_parts(protrusion: tuple[float, ...], depths: tuple[float, ...], flange: float, *shims: int) -> Story:
    story = Story()
    liner = story.liner("L1")
    fitting = story.fit(1, liner, *shims)
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, depths)
    story.read(Quantity.FLANGE_THICKNESS, liner, (flange,))
    story.read(Quantity.PROTRUSION, fitting, protrusion)
    return story


def test_parts_that_disagree_leave_a_hole_undecided_and_never_out() -> None:
    story = _with_parts((90, 90, 90, 90), (8815, 8815, 8815, 8815), 8960)
    (rule,) = _rules(story, 1, RuleKind.PARTS)
    assert _um(rule.value_m) == pytest.approx(90 - 145)
    assert rule.decision.state is State.CANNOT_TELL
    judged = judge_job(story.facts()).holes[0]
    assert (judged.state, judged.reason) == (State.CANNOT_TELL, "parts and reading disagree")


def test_too_few_depths_for_a_plane_are_not_held_against_a_reading() -> None:
    story = Story()
    liner = story.liner("L1")
    fitting = story.fit(1, liner)
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8815, 8700), hours=(12.0, 3.0))
    story.read(Quantity.FLANGE_THICKNESS, liner, (8900,))
    story.read(Quantity.PROTRUSION, fitting, (90, 90, 90, 90))
    assert _rules(story, 1, RuleKind.PARTS) == []


def test_a_prediction_carries_flange_ledge_and_each_shim_once() -> None:
    """A level ledge: its plane stands on four readings; shims as written are within ±5 µm, measured ones ±2."""
    story = _with_parts((185, 185, 185, 185), (8815, 8815, 8815, 8815), 8900, 100)
    prediction = hole_parts(story.facts(), story.hole_rows[0]).prediction
    assert prediction is not None
    assert _um(prediction.protrusion_m) == pytest.approx(8900 + 100 - 8815)
    shim = FittedShim(uuid4(), 0, Decimal(100), None, "0.10", "bevel down")
    written = shim_part(shim)
    measured = shim_part(replace(shim, measured_um=Decimal(103)))
    assert (_um(written.size_m), _um(measured.size_m)) == pytest.approx((100, 103))
    assert [_um(stated("", one.estimate, 1).standard_m) for one in (written, measured)] == pytest.approx(
        [5 / 3**0.5, 2 / 3**0.5]
    )
    bare = _with_parts((85,) * 4, (8815,) * 4, 8900)
    without = hole_parts(bare.facts(), bare.hole_rows[0]).prediction
    assert without is not None
    # Nothing else of the stack changes.
    added = prediction.stated.standard_m**2 - without.stated.standard_m**2
    assert added * 1e12 == pytest.approx(25 / 3)


def test_repeats_do_not_shrink_what_a_moved_zero_leaves() -> None:
    """20 from the limit with ±10 as it is: U must fall below 10, 2·√(6.583/n + 6.583) does at once, below 6 never."""
    story = Story()
    _read(story, (100, 100, 100, 100))
    story.correct(story.look_at_zero(Quantity.PROTRUSION, 20), Drift.SOMEWHERE)
    place = protrusion_of(story.facts(), story.hole_rows[0]).places[0].stated
    assert place is not None
    assert _um(place.value_m) == pytest.approx(90)
    # 10 as it is, and 2·√(READING/n + ZERO): 6.28 for two, 5.93 for three.
    assert repeats_to_settle(place, 106.5e-6) == 2
    assert repeats_to_settle(place, 106.0e-6) == 3
    assert repeats_to_settle(place, 104.5e-6) is None


def test_what_is_missing_is_named_in_its_number() -> None:
    story = Story()
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (85, 85), hours=(12.0, 6.0))
    assert judge_job(story.facts()).holes[0].reason == "3h, 9h are missing: read it"
    story.read(Quantity.PROTRUSION, fitting, (85, 85, 85), hours=(12.0, 6.0, 9.0))
    assert judge_job(story.facts()).holes[0].reason == "3h is missing: read it"


def test_a_budget_is_read_out_the_greatest_first() -> None:
    story = Story()
    _read(story, (85, 85, 85, 85))
    mean = hole_now(story.facts(), story.hole_rows[0]).mean
    assert mean is not None
    lines = [(line.name, round(_um(line.contribution_m), 3)) for line in mean.budget.lines]
    assert lines == [
        ("repeatability at the zero", 2.5), ("repeatability", 1.25),
        ("graduation at the zero", round(2 / 12**0.5, 3)), ("graduation at the reading", round(1 / 12**0.5, 3)),
    ]  # fmt: skip


def test_a_reason_names_each_rule_and_where_it_fails() -> None:
    story = Story()
    _read(story, (30, 32, 90, 140), (150, 150, 150, 150))
    first, second = judge_job(story.facts()).holes
    assert first.reason == (
        "below least at 12h, 3h; above greatest at 9h; variation round (9h to 12h) above greatest; "
        "difference to neighbour (hole 2) above greatest"
    )
    assert second.reason == "above greatest at 12h, 3h, 6h, 9h; difference to neighbour (hole 1) above greatest"


@pytest.mark.parametrize("empty", ["least_without_shim", "greatest_without_shim"])
def test_a_gauge_is_fit_only_for_a_window_that_has_both_ends(empty: str) -> None:
    card = wet_card()
    story = Story(card=replace(card, limits=replace(card.limits, **{empty: limit(None)})))
    setup = story.facts().present_setup(Quantity.PROTRUSION)
    assert setup is not None
    budget, capability = capability_of_setup(story.facts(), setup)
    assert capability is None
    assert (_um(budget.standard_m)) ** 2 == pytest.approx(READING + ZERO)
    whole = Story()
    setup = whole.facts().present_setup(Quantity.PROTRUSION)
    assert setup is not None
    # ±7.26 of a window of 75: within a tenth.
    assert capability_of_setup(whole.facts(), setup)[1] is Capability.GOOD


def test_limits_count_on_the_land_they_are_for() -> None:
    story = Story()
    _read(story, (85, 85, 85, 85))
    story.change_land(LIP)
    assert "read it again" in judge_job(story.facts()).holes[0].reason


def _independent(one: Estimate, other: Estimate) -> float:
    return stated("", difference_of(one, other), 1).standard_m


def test_readings_by_two_gauges_share_nothing() -> None:
    first, second = Story(), Story()
    _read(first, (85, 85, 85, 85))
    _read(second, (85, 85, 85, 85))
    places = [protrusion_of(one.facts(), one.hole_rows[0]).places[0].estimate for one in (first, second)]
    assert places[0] is not None and places[1] is not None
    assert (_independent(*places) * 1e6) ** 2 == pytest.approx(2 * READING + 2 * ZERO)
