"""The sums behind a survey: what stands in them is what was read, and limits bear their sources. Sums by hand."""

from dataclasses import replace

import pytest

from tests.core.card import limit, twin_card
from tests.core.facts import Story, level
from vallostasis.core.features.parts import part_with_key, parts_of
from vallostasis.core.features.plan import check_features
from vallostasis.core.gauges.circumstances import how_read
from vallostasis.core.records.card_checks import check_card
from vallostasis.core.records.rows import Quantity, ZeroedOn
from vallostasis.core.records.spec_card import (
    ONE_AT_THE_FLYWHEEL,
    CardUnit,
    FeatureSheet,
    Length,
    Limit,
    SourceStatus,
    SpecCard,
    bank_rows,
)
from vallostasis.core.subjects import cross_checks
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.surveys.why import explain_survey, limits_of_survey
from vallostasis.core.trail import Step
from vallostasis.core.uncertainty.decision import RuleKind, State

BORE_UM = 105_000.0


def _card(**limits: Limit) -> SpecCard:
    sheet = FeatureSheet(Quantity.BLOCK_BORE, **limits)
    return replace(twin_card(), unit=CardUnit.MM, features=(sheet,))


def _survey(story: Story, key: str = "hole-1") -> Survey:
    facts = story.facts()
    part = part_with_key(facts, Quantity.BLOCK_BORE, key)
    assert part is not None
    return survey_of(facts, Quantity.BLOCK_BORE, part)


@pytest.fixture
def story() -> Story:
    """A bore read at two levels on four axes: 40 µm out of round at the top, 30 µm of taper along 90°."""
    window = {"least": limit("104.980"), "greatest": limit("105.060"), "out_of_round": limit("0.020"),
              "taper": limit("0.200")}  # fmt: skip
    told = Story(card=_card(**window))
    off = {level(20, 0.0): 0, level(20, 45.0): 30, level(20, 90.0): 40, level(20, 135.0): 10,
           level(150, 0.0): 10, level(150, 45.0): 10, level(150, 90.0): 10, level(150, 135.0): 10}  # fmt: skip
    told.survey(Quantity.BLOCK_BORE, {place: (BORE_UM + um,) for place, um in off.items()},
                hole_id=told.hole_rows[0].hole_id)  # fmt: skip
    return told


def test_what_is_asked_for_stands_first_and_what_was_read_elsewhere_after_it(story: Story) -> None:
    """The card names no levels: those proposed are still to be read, the eight that were read are none of them."""
    survey = _survey(story)
    asked = survey.pattern.places
    first, elsewhere = survey.places[: len(asked)], survey.places[len(asked) :]
    assert tuple(one.place for one in first) == asked
    assert survey.missing == first
    assert [(one.on_pattern, len(one.readings)) for one in elsewhere] == [(False, 1)] * 8
    assert [one.place.axis_deg for one in elsewhere[:4]] == [0.0, 45.0, 90.0, 135.0]


def _step(steps: tuple[Step, ...], words: str) -> Step:
    return next(step for step in steps if step.what.startswith(words))


def test_out_of_round_opens_into_the_two_readings_it_is_the_difference_of(story: Story) -> None:
    survey = _survey(story)
    steps = explain_survey(survey)
    assert steps[0].what.startswith("Uncertainty of one reading")
    assert steps[0].result.value == pytest.approx(survey.budget.expanded_m if survey.budget else 0)
    difference = _step(steps, "Out of round 20 mm (0.787 in), of 4 readings")
    assert {(term.symbol.split(", ")[1], round(term.value * 1e6)) for term in difference.terms} == {
        ("0°", 105_000), ("90°", 105_040)}  # fmt: skip
    assert difference.result.value == pytest.approx(40e-6)
    decided = _step(steps, "Out of round 20 mm (0.787 in): out")
    assert [term.value for term in decided.terms if term.symbol == "greatest"] == [20e-6]
    taper = _step(steps, "Taper 90°, of 2 readings")
    assert taper.result.value == pytest.approx(30e-6)
    assert {round(term.value * 1e6) for term in taper.terms} == {105_040, 105_010}


def test_of_single_readings_the_nearest_to_each_limit_is_told_and_every_one_not_in(story: Story) -> None:
    decided = [step for step in explain_survey(_survey(story)) if step.what.startswith("Block bore at")]
    values = [round(step.result.value * 1e6) for step in decided]
    # 105.000 lies nearest to the least, 105.040 nearest to the greatest; all the rest is farther inside.
    assert values == [105_000, 105_040]
    assert all(step.result.kind == "size" for step in decided)
    story.card = replace(story.card, features=(replace(story.card.features[0], greatest=limit("105.025")),))
    out = [step for step in explain_survey(_survey(story)) if step.what.startswith("Block bore at")]
    assert {round(step.result.value * 1e6) for step in out} >= {105_040, 105_030}


def test_limits_of_a_feature_bear_what_they_are_known_from() -> None:
    book = Limit(Length("0.02"), "book, page 4", SourceStatus.SPECIFICATION)
    card = _card(least=limit("104.980"), out_of_round=replace(book, status=SourceStatus.OWN_EXPERIENCE), taper=book)
    [used] = limits_of_survey(card, Quantity.BLOCK_BORE, RuleKind.OUT_OF_ROUND)
    assert (used.name, used.typed, used.status) == ("greatest out of round", "0.02 mm", "own experience")
    [used] = limits_of_survey(card, Quantity.BLOCK_BORE, RuleKind.READING)
    assert used.typed == "104.980 mm"
    inch = replace(card, unit=CardUnit.INCH)
    assert limits_of_survey(inch, Quantity.BLOCK_BORE, RuleKind.TAPER)[0].typed == "0.02 thou"
    assert limits_of_survey(inch, Quantity.BLOCK_BORE, RuleKind.READING)[0].typed == "104.980 inch"
    assert limits_of_survey(card, Quantity.MAIN_BORE, RuleKind.READING) == ()


def test_a_feature_limit_from_the_specification_names_its_book() -> None:
    nameless = Limit(Length("0.02"), " ", SourceStatus.SPECIFICATION)
    found = [problem.field for problem in check_features(_card(taper=nameless))]
    assert "features.0.taper.source" in found
    named = replace(nameless, source="book, page 4")
    assert not [problem for problem in check_features(_card(taper=named)) if "source" in problem.field]


def test_how_a_set_was_read_is_told(story: Story) -> None:
    facts = story.facts()
    survey = _survey(story)
    assert survey.reading_set is not None
    assert how_read(facts, survey.reading_set, at_20c=False) == "Sled, version 1, zeroed on the datum, as read"
    load = "torque plate on, gasket in; main caps torqued"
    story.set_up(Quantity.BLOCK_BORE, load=load, zeroed_on=ZeroedOn.NOMINAL, zero_typed="105")
    story.survey(Quantity.BLOCK_BORE, {level(20, 0.0): (1.0,)}, hole_id=story.hole_rows[0].hole_id)
    again = _survey(story)
    assert again.reading_set is not None
    told = how_read(story.facts(), again.reading_set, at_20c=True)
    assert told == f"Sled, version 1, zeroed on the nominal of 105, {load}, brought to 20 °C"


@pytest.mark.parametrize(("direction", "share"), [(0, 1.0), (45, 0.0), (30, 0.5), (90, 1.0), (60, 0.5)])
def test_two_axes_show_the_cosine_of_twice_the_angle(direction: int, share: float) -> None:
    """Closed form: ovality × |cos 2θ|; an oval at 45° reads round along and across."""
    from math import cos, radians

    story = Story(card=_card(), resolution_um=0.1, repeatability_um=0.1)
    ovality_um = 50.8
    places = {
        level(depth, axis): (BORE_UM + ovality_um / 2 * cos(2 * radians(axis - direction)),)
        for depth in (20, 150)
        for axis in (0.0, 30.0, 60.0, 90.0, 120.0, 150.0)
    }
    story.survey(Quantity.BLOCK_BORE, places, hole_id=story.hole_rows[0].hole_id)
    [phrase] = [one for one in cross_checks(story.facts(), _survey(story)) if "along and across" in one.text]
    seen, oval = (term.value for term in phrase.terms)
    assert oval == pytest.approx(ovality_um * 1e-6, rel=0.01)
    assert seen == pytest.approx(share * oval, abs=0.3e-6)


def test_a_block_counted_from_the_flywheel_is_drawn_so_and_its_gaps_keep_their_names() -> None:
    card = twin_card()
    turned = replace(card, layout=replace(card.layout, numbering=f"{ONE_AT_THE_FLYWHEEL}, counted forward"))
    assert bank_rows(card.layout) == ((1, 2),)
    assert bank_rows(turned.layout) == ((2, 1),)
    names = [part.key for part in parts_of(Story(card=card).facts(), Quantity.NEIGHBOUR_GAP)]
    assert [part.key for part in parts_of(Story(card=turned).facts(), Quantity.NEIGHBOUR_GAP)] == names == ["gap-1-2"]
    assert not [problem for problem in check_card(turned) if "numbering" in problem.field]


def test_a_state_is_told_with_its_steps(story: Story) -> None:
    assert _survey(story).state is State.OUT
    assert explain_survey(_survey(story, "hole-2")) == ()
