"""Everything that is shown of one hole hangs together: values, budgets, states, what it costs to read close by."""

from dataclasses import replace
from decimal import Decimal
from uuid import uuid4

import pytest

from tests.core.card import length, limit, wet_card
from tests.core.facts import HOURS, WHEN, Story
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.hole_now import HoleNow, budgets_of_hole, hole_now
from vallostasis.core.records.cards_chosen import CardChosen
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import Between, FeatureSheet
from vallostasis.core.surveys.places import STRAIGHTEDGE
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.uncertainty.decision import State

READING = 2**2 / 12 + 2.5**2


def _now(story: Story, hole: int = 1) -> HoleNow:
    return hole_now(story.facts(), story.hole_rows[hole - 1])


def _whole() -> Story:
    story = Story()
    for hole, values in ((1, (90, 92, 88, 90)), (2, (80, 80, 84, 80))):
        liner = story.liner(f"L{hole}")
        fitting = story.fit(hole, liner)
        story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[hole - 1].hole_id, (8810, 8812, 8814, 8812))
        story.read(Quantity.FLANGE_THICKNESS, liner, (8900,))
        story.read(Quantity.PROTRUSION, fitting, values)
    return story


def test_every_number_of_a_hole_has_its_budget_among_those_of_the_hole() -> None:
    story = _whole()
    now = _now(story)
    found = {one.what: one.expanded_m for one in budgets_of_hole(story.facts(), story.hole_rows[0])}
    assert now.mean is not None and now.variation is not None and now.tilt is not None and now.ledge is not None
    assert now.residual is not None and now.parts.prediction is not None and now.ledge.left is not None
    assert now.parts.ledge is not None
    assert found["mean"] == now.mean.expanded_m
    assert found["variation round"] == now.variation.expanded_m
    assert found["high to low"] == now.tilt.stated.expanded_m
    assert found["difference to hole 2"] == now.rules[-1].expanded_m
    assert found["reading less parts"] == now.residual.expanded_m
    assert found["protrusion that the parts give"] == now.parts.prediction.stated.expanded_m
    assert found["ledge left"] == now.ledge.left.expanded_m
    assert found["ledge the flange rests on"] == now.parts.ledge.depth.expanded_m
    assert found["flange of L1 at the flat land"] == pytest.approx(2e-6 * (2 * READING) ** 0.5)
    assert "protrusion by the stop" in found


def test_a_spacer_changed_on_the_card_opens_what_was_read_before() -> None:
    """House rule: land, gauge, hold-down or spacer changed re-open every verdict read before."""
    story = _whole()
    plate = Between("spacer plate", length("0.25"))
    with_plate = replace(story.card, measuring=replace(story.card.measuring, between=(plate,)))
    chosen = CardChosen(uuid4(), WHEN, "Wren", 0)
    assert not _reopened(replace(story.facts(), cards_chosen=(chosen,)))
    changed = replace(story.facts(), cards_chosen=(chosen,), card=with_plate)
    assert _reopened(changed)
    # Chosen since, it does not count; read under the card with the plate, it does.
    first, later = chosen, replace(chosen, event=story.event + 1, between_um=Decimal(250))
    assert _reopened(replace(changed, cards_chosen=(first, later)))
    before = replace(later, event=0)
    assert not _reopened(replace(changed, cards_chosen=(first, before)))


def _reopened(facts: JobFacts) -> bool:
    return "on the card since it was read: read it again" in hole_now(facts, facts.holes[0]).reason


def test_of_a_hole_without_anything_read_nothing_is_shown() -> None:
    story = Story()
    assert budgets_of_hole(story.facts(), story.hole_rows[0]) == ()
    now = _now(story)
    assert (now.state, now.mean, now.variation, now.tilt, now.clustered) == (State.NOT_MEASURED, *(None,) * 4)
    assert now.high_side_hour is None


def test_while_a_ledge_is_known_and_no_flange_its_own_budgets_are_there() -> None:
    story = Story()
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8810, 8812, 8814, 8812))
    names = {one.what for one in budgets_of_hole(story.facts(), story.hole_rows[0])}
    assert {"ledge the flange rests on", "ledge left"} <= names
    assert "protrusion that the parts give" not in names
    card = wet_card()
    bare = replace(story.facts(), card=replace(card, seat=replace(card.seat, ledge_at_nominal=limit(None))))
    assert "ledge left" not in {one.what for one in budgets_of_hole(bare, story.hole_rows[0])}


def test_the_high_side_is_where_the_plane_is_highest_and_nowhere_without_tilt() -> None:
    story = Story(holes=3)
    for hole, values in ((1, (60, 80, 100, 80)), (2, (80, 60, 80, 100)), (3, (85, 85, 85, 85))):
        story.read(Quantity.PROTRUSION, story.fit(hole, story.liner(f"L{hole}")), values)
    assert _now(story, 1).high_side_hour == pytest.approx(6)
    assert _now(story, 2).high_side_hour == pytest.approx(9)
    assert _now(story, 3).high_side_hour is None


def test_positions_close_together_say_what_they_cost() -> None:
    story = Story()
    story.read(Quantity.PROTRUSION, story.fit(1, story.liner("L1")), (85, 85, 85), hours=(12.0, 1.0, 2.0))
    cost = _now(story).clustered
    assert cost is not None
    here, even = (term.value * 1e6 for term in cost.terms)
    # Spread evenly three readings and their zero; close together the plane's centre stands far from all of them.
    assert even == pytest.approx(2 * (READING / 3 + READING) ** 0.5)
    # Centre of the plane through 0, 30 and 60 degrees: Cramer's rule on 1, cos, sin gives these weights.
    weights = (3.732, -6.464, 3.732)
    assert here == pytest.approx(2 * (READING * sum(w**2 for w in weights) + READING) ** 0.5, rel=1e-3)
    evenly = Story()
    evenly.read(Quantity.PROTRUSION, evenly.fit(1, evenly.liner("L1")), (85, 85, 85, 85))
    assert _now(evenly).clustered is None
    two = Story()
    two.read(Quantity.PROTRUSION, two.fit(1, two.liner("L1")), (85, 85), hours=HOURS[:2])
    assert _now(two).clustered is None


def _deck(method: str, *heights: float) -> Survey:
    sheet = FeatureSheet(Quantity.DECK_FLATNESS, greatest=limit("0.040"))
    story = Story(card=replace(wet_card(), features=(sheet,)))
    story.set_up(Quantity.DECK_FLATNESS, method=method)
    points = ((0, 0), (500, 0), (0, 200), (500, 200))
    sizes = {Place(along_um=Decimal(x * 1000), across_um=Decimal(y * 1000)): (height,)
             for (x, y), height in zip(points, heights, strict=True)}  # fmt: skip
    story.survey(Quantity.DECK_FLATNESS, sizes, part="deck")
    part = part_with_key(story.facts(), Quantity.DECK_FLATNESS, "deck")
    assert part is not None
    return survey_of(story.facts(), Quantity.DECK_FLATNESS, part)


def test_a_gap_under_a_straightedge_is_judged_itself_and_a_height_is_not() -> None:
    gaps = [row.state for row in _deck(STRAIGHTEDGE, 10, 15, 60, 38).places if row.readings]
    assert gaps == [State.IN, State.IN, State.OUT, State.CANNOT_TELL]
    heights = [row.state for row in _deck("indicator grid", 200, 100, 100, 0).places if row.readings]
    assert heights == [None] * 4
