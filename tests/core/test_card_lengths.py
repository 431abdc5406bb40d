"""Lengths typed on a card: what a bare number is at each field, and what cannot be meant. Facts of the trade are common
practice, no published source; 1 in = 25.4 mm exactly (international inch, 1959)."""

from dataclasses import replace
from decimal import Decimal
from typing import Any

import pytest

from tests.core.card import wet_card
from tests.core.facts import Story
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.protrusion.why import explain_hole, limits_used
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import CardUnit, FeatureSheet, Length, Limit, SourceStatus, SpecCard
from vallostasis.core.spec_cards.card_lengths import LONGEST_FIELD, bare_unit, read_typed_card
from vallostasis.core.uncertainty.decision import RuleKind


def _typed(text: str) -> Limit:
    return Limit(Length(text), "the manual", SourceStatus.SPECIFICATION)


def _with_limits(card: SpecCard, **limits: Limit) -> SpecCard:
    return replace(card, limits=replace(card.limits, **limits))


def _inch(card: SpecCard) -> SpecCard:
    return replace(card, unit=CardUnit.INCH)


@pytest.mark.parametrize(
    ("field", "on_inch"),
    [
        ("layout.bore", "inch"),
        ("layout.bore_pitch", "inch"),
        ("seat.flange_nominal.length", "inch"),
        ("limits.least_without_shim", "thou"),
        ("limits.variation_round", "thou"),
        ("lands.0.raised", "thou"),
        ("lands.0.width", "inch"),
    ],
)
def test_a_bare_number_is_a_size_or_a_small_length_by_its_field(field: str, on_inch: str) -> None:
    assert bare_unit(_inch(wet_card()), field) == on_inch
    assert bare_unit(wet_card(), field) == "mm"


def test_limits_of_a_feature_are_sizes_where_it_is_one_itself() -> None:
    sheets = (FeatureSheet(Quantity.BLOCK_BORE), FeatureSheet(Quantity.RING_GAP))
    card = _inch(replace(wet_card(), features=sheets))
    assert bare_unit(card, "features.0.least") == "inch"
    assert bare_unit(card, "features.0.out_of_round") == "thou"
    assert bare_unit(card, "features.1.least") == "thou"
    assert bare_unit(card, "features.1.levels.0") == "inch"


def test_a_card_is_read_as_typed() -> None:
    card = _with_limits(wet_card(), variation_round=_typed(" 0.03 mm "))
    read, problems = read_typed_card(card)
    assert problems == ()
    assert read.limits.variation_round.length == Length("0.03 mm", Decimal(30))


def test_a_bare_number_on_an_inch_card_is_thousandths_at_a_small_field() -> None:
    read, _ = read_typed_card(_with_limits(_inch(wet_card()), variation_round=_typed("2")))
    assert read.limits.variation_round.length is not None
    assert read.limits.variation_round.length.um == Decimal("50.8")


def test_out_of_round_told_per_side_is_doubled() -> None:
    sheet = FeatureSheet(Quantity.BLOCK_BORE, out_of_round=_typed("0.01 per side"))
    read, problems = read_typed_card(replace(wet_card(), features=(sheet,)))
    assert [one.field for one in problems if "out_of_round" in one.field] == []
    assert read.features[0].out_of_round.length is not None
    assert read.features[0].out_of_round.length.um == Decimal(20)


@pytest.mark.parametrize(
    ("changes", "field", "words"),
    [
        ({"limits": {"variation_round": _typed("thick")}}, "limits.variation_round", ""),
        ({"limits": {"variation_round": _typed("11 m")}}, "limits.variation_round", ""),
        ({"name": "x" * (LONGEST_FIELD + 1)}, "name", "Too long"),
        ({"name": "a\x07b"}, "name", "cannot be kept"),
        ({"coverage_factor": float("inf")}, "coverage_factor", "no number"),
    ],
)
def test_what_cannot_be_kept_is_named_at_its_field(changes: dict[str, Any], field: str, words: str) -> None:
    card = wet_card()
    card = _with_limits(card, **changes["limits"]) if "limits" in changes else replace(card, **changes)
    _, problems = read_typed_card(card)
    assert field in [one.field for one in problems]
    assert any(words in one.message for one in problems if one.field == field)


def test_nothing_is_longer_than_an_engine() -> None:
    card = replace(wet_card(), layout=replace(wet_card().layout, bore=Length("12000")))
    _, problems = read_typed_card(card)
    assert [one.message for one in problems if one.field == "layout.bore"] == [
        "No part of an engine is longer than 10 m: check number and unit."
    ]


def test_the_arithmetic_of_a_hole_names_every_limit_it_was_held_against() -> None:
    story = Story()
    for number in (1, 2):
        fitting = story.fit(number, story.liner(f"L{number}"))
        story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
    facts = story.facts()
    judged = judge_job(facts).holes[0]
    steps = explain_hole(facts, facts.holes[0], judged)
    assert len(steps) > len(judged.rules)
    for rule in judged.rules:
        used = limits_used(facts.card, rule, with_shim=False)
        assert all(one.source == "made up for a test" for one in used)
        if rule.kind is RuleKind.READING:
            assert [one.name for one in limits_used(facts.card, rule, with_shim=True)] != [one.name for one in used]
