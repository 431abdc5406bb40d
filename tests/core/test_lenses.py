"""Lenses of a construction, and what a hole without protrusion is judged by. Common practice, no published source."""

from dataclasses import replace
from decimal import Decimal

import pytest

from tests.core.card import dry_card, wet_card
from tests.core.facts import Story, level
from vallostasis.core.hole_now import hole_now
from vallostasis.core.lenses import bores_of, lenses_now, lenses_of
from vallostasis.core.needs import Action
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import CardLevel, Construction, FeatureSheet, Length, Limit, SourceStatus
from vallostasis.core.subjects import LensName
from vallostasis.core.uncertainty.decision import State

AXES = (0.0, 90.0)
DEPTHS_MM = (20, 100)


def _mm(text: str) -> Limit:
    return Limit(Length(text, Decimal(text) * 1000), "made up", SourceStatus.OWN_EXPERIENCE)


@pytest.mark.parametrize("construction", list(Construction))
def test_every_construction_can_look_at_its_bores_and_opens_with_one_lens(construction: Construction) -> None:
    lenses = lenses_of(replace(wet_card(), construction=construction))
    assert len(set(lenses)) == len(lenses)
    assert {LensName.BORE, LensName.DISTORTION, LensName.CLEARANCE} <= set(lenses)
    has_flange = construction not in (Construction.DRY_PLAIN, Construction.PARENT_BORE, Construction.COATED)
    assert (LensName.PROTRUSION in lenses) is has_flange
    assert (LensName.FIT in lenses) is (construction not in (Construction.PARENT_BORE, Construction.COATED))
    dry = construction in (Construction.DRY_PLAIN, Construction.DRY_FLANGED)
    is_first = dry or not has_flange
    assert lenses[0] is (LensName.BORE if is_first else LensName.PROTRUSION)


def test_a_ledge_is_looked_at_where_there_is_one() -> None:
    assert LensName.COUNTERBORE in lenses_of(wet_card())
    assert LensName.COUNTERBORE not in lenses_of(replace(wet_card(), construction=Construction.WET_BOTTOM_SEAT))


def test_the_bore_that_decides_comes_first() -> None:
    assert bores_of(wet_card()) == (Quantity.LINER_BORE, Quantity.BLOCK_BORE)
    assert bores_of(replace(wet_card(), construction=Construction.DRY_PLAIN))[0] is Quantity.BLOCK_BORE
    assert bores_of(replace(wet_card(), construction=Construction.COATED)) == (Quantity.BLOCK_BORE,)


def _parent_bore(sizes_mm: dict[tuple[int, float], str] | None) -> JobFacts:
    sheet = FeatureSheet(Quantity.BLOCK_BORE, _mm("100"), _mm("99.99"), _mm("100.02"), _mm("0.015"))
    levels = tuple(_level(name, at) for name, at in zip(("top", "bottom"), DEPTHS_MM, strict=True))
    card = replace(dry_card(replace(sheet, levels=levels, axes_deg=AXES)), construction=Construction.PARENT_BORE)
    story = Story(card=card, resolution_um=1, repeatability_um=0.5)
    if sizes_mm is not None:
        places: dict[Place, tuple[float, ...]] = {
            level(at, axis): (float(Decimal(size) * 1000),) for (at, axis), size in sizes_mm.items()
        }
        story.survey(Quantity.BLOCK_BORE, places, hole_id=story.hole_rows[0].hole_id)
    return story.facts()


def _level(name: str, at_mm: int) -> CardLevel:
    return CardLevel(name, Length(str(at_mm), Decimal(at_mm) * 1000))


ROUND = {(at, axis): "100.004" for at in DEPTHS_MM for axis in AXES}


def test_a_parent_bore_is_judged_by_its_bore() -> None:
    facts = _parent_bore(ROUND)
    assert hole_now(facts, facts.holes[0]).state is State.IN
    other = hole_now(facts, facts.holes[1])
    assert other.state is State.NOT_MEASURED
    assert other.need.action is Action.READ_SURVEY
    assert (other.need.quantity, other.need.part) == (Quantity.BLOCK_BORE, "hole-2")
    assert other.need.sentence.text == "Measure the block bore"


def test_places_left_are_counted() -> None:
    facts = _parent_bore({key: size for key, size in ROUND.items() if key != (100, 90.0)})
    now = hole_now(facts, facts.holes[0])
    assert now.state is State.NOT_MEASURED
    assert now.need.sentence.text == "Read the one place left of the block bore"


def test_an_oval_bore_is_out_by_what_it_is_beyond_its_limit_and_read_again_first() -> None:
    facts = _parent_bore({**ROUND, (100, 90.0): "100.060"})
    now = hole_now(facts, facts.holes[0])
    assert now.state is State.OUT
    assert now.need.action is Action.READ_SURVEY
    [off] = now.need.detail.terms
    # 100.060 − 100.004 − 0.015 = 0.041 mm out of round beyond, 0.040 mm above the greatest: the worse is told.
    assert off.value == pytest.approx(41e-6, abs=1e-9)
    assert "bottom" in now.need.sentence.text


def test_without_a_limit_nothing_is_in() -> None:
    facts = _parent_bore(ROUND)
    bare = FeatureSheet(Quantity.BLOCK_BORE, levels=facts.card.features[0].levels, axes_deg=AXES)
    facts = replace(facts, card=replace(facts.card, features=(bare,)))
    now = hole_now(facts, facts.holes[0])
    assert now.state is State.CANNOT_TELL
    assert "no limit" in now.reason
    assert now.need.sentence.text == "Write the limits of the block bore on the card"


def test_a_wet_block_is_judged_by_its_protrusion_as_before() -> None:
    story = Story()
    facts = story.facts()
    assert hole_now(facts, facts.holes[0]).need.action is not Action.READ_SURVEY


def test_lenses_that_hold_features_against_each_other_count_what_is_read() -> None:
    facts = _parent_bore(ROUND)
    by_name = {one.name: one for one in lenses_now(facts)}
    assert by_name[LensName.BORE].quantities == (Quantity.BLOCK_BORE,)
    [bore, skirt] = by_name[LensName.CLEARANCE].waits_for
    assert (bore.quantity, bore.read, bore.of) == (Quantity.BLOCK_BORE, 1, 2)
    assert (skirt.quantity, skirt.read, skirt.of) == (Quantity.PISTON_SKIRT, 0, 2)
