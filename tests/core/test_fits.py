"""A liner held against a hole, level by level: what is told, judged, refused, and what it then needs."""

from dataclasses import replace
from uuid import UUID

import pytest

from tests.core.card import dry_card, length, limit
from tests.core.facts import Story, level
from vallostasis.core.fits.effects import FitWalls, effects_of, share_borne, thin_walls, walls_of
from vallostasis.core.fits.fit import Fit, FitRefused, fit_of, liners_for
from vallostasis.core.fits.going_in import Friction, schools_of_fit
from vallostasis.core.fits.materials import MATERIALS, fit_material
from vallostasis.core.fits.needs import better_liner, need_of_fit, stripes_to_leave, to_take_off
from vallostasis.core.fits.tried import tried_of
from vallostasis.core.fits.wanted import FIRM, LIGHT, school_of_press, wanted_of
from vallostasis.core.fits.why import why_of_fit
from vallostasis.core.operations import schools
from vallostasis.core.pistons.order import order_sheet
from vallostasis.core.records.fit_terms import FitTerms, FitWindow
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import CardLevel, FeatureSheet
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State

LEVELS = (("top", 15.0), ("middle", 75.0), ("bottom", 135.0))
AXES = (0.0, 90.0)
TERMS = FitTerms(
    light=FitWindow(limit("0.005"), limit("0.013"), limit("0.021")),
    firm=FitWindow(limit("0.030"), limit("0.038"), limit("0.046")),
    boss_outside=limit("125"), liner_inside=limit("100"), liner_length=limit("150"), least_liner_wall=limit("1.8"),
    least_boss_wall=limit("12"),
)  # fmt: skip
# Bore of 103.980 everywhere; the liner's outside by level.
OUTSIDE = {15.0: 103_993.0, 75.0: 104_009.0, 135.0: 103_993.0}


def told(terms: FitTerms = TERMS, fine: float = 0.2, **fields: object) -> tuple[Story, UUID, UUID]:
    """A twin whose hole and liner were read at three levels on two axes."""
    levels = tuple(CardLevel(name, length(f"{depth:g}")) for name, depth in LEVELS)
    card = dry_card(FeatureSheet(Quantity.BLOCK_BORE, limit("104"), levels=levels, axes_deg=AXES),
                    FeatureSheet(Quantity.LINER_OUTSIDE, limit("104"), levels=levels, axes_deg=AXES),
                    FeatureSheet(Quantity.LINER_BORE, limit("100"), levels=levels, axes_deg=AXES),
                    FeatureSheet(Quantity.LINER_INSIDE, limit("100"), levels=levels, axes_deg=AXES),
                    FeatureSheet(Quantity.TRIAL_FIT, limit("150")), fits=terms, **fields)  # fmt: skip
    story = Story(card=card, resolution_um=fine, repeatability_um=fine)
    hole, liner = story.hole_rows[0].hole_id, story.liner("A")
    for body in ("part", "room"):
        story.take_temperature(body, 20.0)
    story.survey(Quantity.BLOCK_BORE, {level(d, a): (103_980.0,) for _, d in LEVELS for a in AXES}, hole_id=hole)
    story.survey(Quantity.LINER_OUTSIDE, {level(d, a): (OUTSIDE[d],) for _, d in LEVELS for a in AXES},
                 liner_id=liner)  # fmt: skip
    return story, hole, liner


def found(facts: JobFacts, mark: str = "A", school: str | None = None) -> Fit:
    fit = fit_of(facts, facts.holes[0], mark, school)
    assert isinstance(fit, Fit)
    return fit


def words(phrase: Phrase) -> str:
    """A phrase with its lengths in µm."""
    return phrase.text.format(**{term.symbol: f"{term.value * 1e6:.0f}" for term in phrase.terms})


def test_a_sleeve_is_ordered_to_the_bore_of_the_block_and_the_press_wanted() -> None:
    """By hand: a bore of 103.980 and its ±, 0.030 to 0.046 of press by the card: all but the ± is the maker's."""
    facts = told()[0].facts()
    sleeve = order_sheet(facts, facts.holes[0]).ordered[-1]
    wanted = wanted_of(facts)
    assert wanted is not None and wanted.least_m is not None and wanted.greatest_m is not None
    assert sleeve.what == "sleeve, outside"
    assert sleeve.least_m is not None and sleeve.greatest_m is not None
    middle = 103.980e-3 + (wanted.least_m + wanted.greatest_m) / 2
    assert (sleeve.least_m + sleeve.greatest_m) / 2 == pytest.approx(middle)
    assert 0 < sleeve.greatest_m - sleeve.least_m < wanted.greatest_m - wanted.least_m


def test_press_stock_and_state_by_level_and_axis() -> None:
    facts = told()[0].facts()
    fit = found(facts)
    assert [round(one.press.value_m * 1e6, 6) for one in fit.levels] == [13, 29, 13]
    assert [round(one.stock.value_m * 1e6, 6) for one in fit.levels if one.stock] == [0, 16, 0]
    assert [one.state for one in fit.levels] == [State.IN, State.OUT, State.IN]
    assert [place.axis_deg for place in fit.levels[0].places] == [0.0, 90.0]
    assert fit.state is State.OUT
    assert fit.grips == 1.0
    assert [one.name for one in to_take_off(fit)] == ["middle"]
    assert words(need_of_fit(facts, fit)) == "Hone 16 off at middle"
    assert "stay at top, bottom" in words(stripes_to_leave(fit))


def test_one_axis_that_presses_too_hard_decides_its_level() -> None:
    story, hole, _ = told()
    egg = {level(d, a): (103_980.0 - (20 if (d, a) == (15.0, 90.0) else 0),) for _, d in LEVELS for a in AXES}
    story.survey(Quantity.BLOCK_BORE, egg, hole_id=hole)
    fit = found(story.facts())
    assert fit.levels[0].state is State.OUT
    assert fit.levels[0].rule.decision.state is not State.OUT, "by its mean it might be in: the axis decides"
    assert fit.levels[0].worst.axis_deg == 90.0


def test_the_school_of_the_job_says_which_press_is_wanted() -> None:
    story = told()[0]
    assert school_of_press(story.facts()) == LIGHT
    story.choose(schools.PRESS, schools.FIRM)
    facts = story.facts()
    assert school_of_press(facts) == FIRM
    fit = found(facts)
    assert words(need_of_fit(facts, fit)) == "Try another liner: A is too loose by 17 at top"
    assert found(facts, school=LIGHT).wanted is not None
    story.choose(schools.SIZING, schools.SIZE_SLEEVE)
    assert words(need_of_fit(story.facts(), found(story.facts(), school=LIGHT))).startswith("Take off liner A:")


def test_without_a_press_on_the_card_nothing_is_judged() -> None:
    facts = told(replace(TERMS, light=FitWindow(), firm=FitWindow()))[0].facts()
    fit = found(facts)
    assert fit.wanted is None
    assert fit.state is State.CANNOT_TELL, "without a limit nothing is in"
    assert "Write the press" in need_of_fit(facts, fit).text
    only_limits = told(replace(TERMS, light=FitWindow(limit("0.005"), greatest=limit("0.021"))))[0].facts()
    wanted = found(only_limits).wanted
    assert wanted is not None
    assert wanted.aim_m == pytest.approx(13e-6), "half-way where no aim is told"


def test_a_fit_that_is_not_read_all_over_is_never_in() -> None:
    """Every place that was read is in, and one was left out."""
    story, _, liner = told()
    story.survey(Quantity.LINER_OUTSIDE, {level(d, a): (103_993.0,) for _, d in LEVELS for a in AXES
                                          if (d, a) != (135.0, 90.0)}, liner_id=liner)  # fmt: skip
    fit = found(story.facts())
    assert {one.state for one in fit.levels} == {State.IN}
    assert fit.state is State.NOT_MEASURED
    assert "places left" in need_of_fit(story.facts(), fit).text


def test_nothing_is_sized_on_readings_whose_zero_moved() -> None:
    story = told()[0]
    story.look_at_zero(Quantity.LINER_OUTSIDE, 20.0)
    facts = story.facts()
    fit = found(facts)
    assert (fit.doubtful, fit.state) == (True, State.CANNOT_TELL)
    assert "zero that moved first" in need_of_fit(facts, fit).text


@pytest.mark.parametrize("lacks", [Quantity.BLOCK_BORE, Quantity.LINER_OUTSIDE])
def test_a_press_that_nobody_measured_is_refused_and_not_guessed(lacks: Quantity) -> None:
    story = told()[0]
    story.rows["sets"] = [one for one in story.rows["sets"] if one.setup_id != story.setups[lacks]]
    refused = fit_of(story.facts(), story.facts().holes[0], "A")
    assert isinstance(refused, FitRefused)
    assert "never guessed" in refused.reason.text
    assert refused.quantity is lacks


def test_a_liner_read_far_from_the_levels_of_the_hole_is_refused() -> None:
    story, _, _ = told()
    other = story.liner("B")
    story.survey(Quantity.LINER_OUTSIDE, {level(45, 0.0): (104_000.0,)}, liner_id=other)
    refused = fit_of(story.facts(), story.facts().holes[0], "B")
    assert isinstance(refused, FitRefused)
    assert "near each other" in refused.reason.text


def test_another_liner_that_suits_better_is_named() -> None:
    story, _, _ = told()
    other = story.liner("B")
    story.survey(Quantity.LINER_OUTSIDE, {level(d, a): (103_994.0,) for _, d in LEVELS for a in AXES}, liner_id=other)
    facts = story.facts()
    better = better_liner(facts, found(facts))
    assert better is not None
    assert (better.mark, better.outside) == ("B", 0)
    assert better.takes_off_m == pytest.approx(1e-6)
    assert better_liner(facts, found(facts, "B")) is None
    story.survey(Quantity.TRIAL_FIT, {Place(): (40_000.0,)}, hole_id=facts.holes[0].hole_id, part="B")
    assert [one.mark for one in liners_for(story.facts(), facts.holes[0])] == ["B", "A"], "the one tried comes first"


def test_walls_stress_and_close_in_at_a_level_are_those_of_its_press() -> None:
    """29 µm in 100 × 104 × 125: the same rings by their own sum; strength from memory of handbooks."""
    facts = told()[0].facts()
    fit = found(facts)
    walls = walls_of(facts, fit)
    assert isinstance(walls, FitWalls)
    effects = effects_of(facts, fit, walls)
    assert effects[1].close_in.value_m == pytest.approx(29e-6 * 0.81, rel=0.02)
    assert effects[1].pressure_pa > effects[0].pressure_pa > 0
    sized = effects_of(facts, fit, walls, 13e-6)
    assert sized[1].close_in.value_m == pytest.approx(effects[0].close_in.value_m, rel=0.01)
    assert sized[0].close_in.value_m == pytest.approx(effects[0].close_in.value_m)
    assert [one.is_thin for one in thin_walls(facts, walls)] == [False, True], "2.0 of 1.8 mm, 10.5 of 12 mm"
    assert [step.result.symbol for step in why_of_fit(facts, fit, walls)] == ["δ", "off", "close-in", "outside"]
    rough = told(replace(TERMS, bore_rz=limit("0.005"), liner_rz=limit("0.0025")))[0].facts()
    flattened = walls_of(rough, found(rough))
    assert isinstance(flattened, FitWalls)
    assert flattened.lost_m == pytest.approx(6e-6)
    assert effects_of(rough, found(rough), flattened)[1].close_in.value_m == pytest.approx(23e-6 * 0.81, rel=0.02)


def test_what_is_missing_for_the_walls_is_said() -> None:
    no_boss = told(replace(TERMS, boss_outside=limit(None)))[0].facts()
    assert "outside of the block" in str(walls_of(no_boss, found(no_boss)))
    odd = told(block_material="unobtainium")[0].facts()
    assert "unobtainium" in str(walls_of(odd, found(odd)))
    small = told(replace(TERMS, boss_outside=limit("103")))[0].facts()
    assert "walls on the card are none" in str(walls_of(small, found(small)))
    assert fit_material("Centrifugally cast iron") == MATERIALS["iron"]
    assert fit_material("cork") is None


def test_iron_breaks_by_what_pulls_and_bears_four_times_as_much_squeezed() -> None:
    """Maximum normal stress; aluminium by von Mises. Common practice; strengths from memory."""
    iron, alloy = MATERIALS["iron"], MATERIALS["aluminium"]
    assert share_borne(iron, -5e6, 100e6) == pytest.approx(0.5)
    assert share_borne(iron, 0.0, -100e6) == pytest.approx(0.125)
    assert share_borne(alloy, -50e6, 50e6) == pytest.approx(50e6 * 3**0.5 / 165e6)


def test_schools_stand_side_by_side_on_the_same_readings() -> None:
    facts = told()[0].facts()
    fit = found(facts)
    walls = walls_of(facts, fit)
    assert isinstance(walls, FitWalls)
    rows = {one.name: one for one in schools_of_fit(facts, fit, Friction())}
    as_is, light, firm = rows["as it is"], rows["light"], rows["firm"]
    assert (light.takes_off_m, firm.takes_off_m) == (pytest.approx(16e-6), 0.0)
    assert firm.too_big_m == pytest.approx(25e-6), "38 wanted where 13 is"
    assert light.going_in is not None
    assert as_is.going_in is not None
    assert light.going_in.greatest.middle < as_is.going_in.greatest.middle
    assert as_is.going_in.by_hand_dry.middle <= as_is.going_in.by_hand.middle
    assert as_is.going_in.low_n[-1] < as_is.going_in.middle_n[-1] < as_is.going_in.high_n[-1]
    tried = {one.name: one for one in schools_of_fit(facts, fit, Friction(), 20e-6)}
    assert tried["light"].takes_off_m == pytest.approx(9e-6)
    slippery = schools_of_fit(facts, fit, Friction(0.04, 0.1))[0].going_in
    assert slippery is not None
    assert slippery.greatest.middle < as_is.going_in.greatest.middle


def test_a_trial_fit_is_held_against_what_the_readings_expect() -> None:
    story, hole, _ = told()
    story.set_up(Quantity.TRIAL_FIT, load="oiled")
    facts = story.facts()
    fit = found(facts)
    walls = walls_of(facts, fit)
    assert isinstance(walls, FitWalls)
    going = schools_of_fit(facts, fit, Friction())[0].going_in
    assert going is not None
    assert tried_of(facts, fit, going) is None
    for inserted, expected in ((going.by_hand.middle, True), (0.149, False)):
        story.survey(Quantity.TRIAL_FIT, {Place(): (inserted * 1e6,)}, hole_id=hole, part="A")
        now = tried_of(story.facts(), fit, going)
        assert now is not None
        assert now.as_expected is expected
        assert now.held == "oiled"


def test_a_home_liner_is_told_by_the_bore_as_it_met_it() -> None:
    story, _, liner = told()
    story.fit(1, liner)
    facts = story.facts()
    fit = found(facts)
    assert fit.levels[1].press.value_m == pytest.approx(29e-6)
    assert words(need_of_fit(facts, fit)) == "Nothing: A is home in hole 1"
    assert [one.mark for one in liners_for(facts, facts.holes[0])] == ["A"]
