"""Capture patterns: every place once, in an order that suits the hand; plans by the kind of cylinder and the risk.

Levels and axes are common practice, no published source.
"""

from dataclasses import replace
from decimal import Decimal
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.card import length, limit, wet_card
from vallostasis.core.features.catalogue import FEATURES, PartKind, PatternKind, feature_of, is_surveyed
from vallostasis.core.features.pattern import Pattern, PatternLevel, place_words
from vallostasis.core.features.plan import (
    Cylinder,
    Risk,
    blind_spots,
    check_features,
    pattern_of,
    propose_pattern,
    surveyed_features,
)
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import CardLevel, Construction, FeatureSheet, Length, SpecCard

levels = st.lists(st.integers(0, 400), min_size=1, max_size=8, unique=True).map(sorted)
axes = st.lists(st.integers(0, 179), min_size=1, max_size=8, unique=True).map(sorted)
DRY = Cylinder(Construction.DRY_PLAIN, Decimal(100_000), Decimal(140_000), 4)


def _with(*sheets: FeatureSheet) -> SpecCard:
    return replace(wet_card(), features=sheets)


@given(depths=levels, directions=axes)
def test_a_bore_gauge_is_turned_once_an_axis_and_moves_one_level_at_a_time(
    depths: list[int], directions: list[int]
) -> None:
    pattern = Pattern(tuple(PatternLevel(str(d), Decimal(d * 1000)) for d in depths), tuple(map(float, directions)))
    places = pattern.places
    assert len(set(places)) == len(places) == len(depths) * len(directions)
    order = [depth * 1000 for depth in depths]
    for before, after in pairwise(places):
        assert before.level_um is not None
        assert after.level_um is not None
        turned = before.axis_deg != after.axis_deg
        moved = abs(order.index(int(before.level_um)) - order.index(int(after.level_um)))
        assert (turned, moved) in ((True, 0), (False, 1))


@given(along=levels, across=levels)
def test_a_grid_is_walked_to_the_point_beside(along: list[int], across: list[int]) -> None:
    pattern = Pattern(along_um=tuple(map(Decimal, along)), across_um=tuple(map(Decimal, across)))
    places = pattern.places
    assert len(set(places)) == len(along) * len(across)
    for before, after in pairwise(places):
        same_row, same_column = before.across_um == after.across_um, before.along_um == after.along_um
        assert same_row is not same_column


def test_a_plan_follows_from_the_cylinder_and_the_risk() -> None:
    usual = propose_pattern(DRY, Quantity.BLOCK_BORE)
    raised = propose_pattern(DRY, Quantity.BLOCK_BORE, Risk.RAISED)
    assert (len(usual.levels), len(usual.axes_deg)) == (5, 4)
    assert (len(raised.levels), len(raised.axes_deg)) == (7, 6)
    wet = Cylinder(Construction.WET_TOP_FLANGE, DRY.bore_um, DRY.pitch_um, 4)
    assert [level.name for level in propose_pattern(wet, Quantity.BLOCK_BORE).levels] == [
        "upper collar",
        "lower seal land",
    ]
    # Vertical and both diagonals: the joint of the cap lies across.
    assert propose_pattern(DRY, Quantity.MAIN_BORE).axes_deg == (45.0, 90.0, 135.0)
    grid = propose_pattern(DRY, Quantity.DECK_FLATNESS)
    assert len(grid.along_um) == 5, "a web on either side of every bore"
    long = Cylinder(Construction.DRY_PLAIN, DRY.bore_um, DRY.pitch_um, 4, Decimal(300_000))
    assert max(level.depth_um for level in propose_pattern(long, Quantity.BLOCK_BORE).levels) == 282_000


@pytest.mark.parametrize("construction", Construction)
@pytest.mark.parametrize("risk", Risk)
def test_every_feature_has_a_plan_that_fits_its_kind(construction: Construction, risk: Risk) -> None:
    cylinder = Cylinder(construction, Decimal(95_000), Decimal(120_000), 6)
    for quantity, feature in FEATURES.items():
        pattern = propose_pattern(cylinder, quantity, risk)
        if feature.pattern is PatternKind.LEVELS_AND_AXES:
            assert pattern.levels
            assert pattern.axes_deg
            assert all(0 <= level.depth_um < 95_000 * 2 for level in pattern.levels)
            assert blind_spots(feature, pattern), "what diameters cannot see is always said"
        assert len({pattern.name_of(place) for place in pattern.places}) == len(pattern.places)


def test_features_follow_from_how_the_bore_is_lined() -> None:
    card = wet_card()
    assert Quantity.TRIAL_FIT not in surveyed_features(card), "a wet liner is not tried by hand"
    assert Quantity.COUNTERBORE_DIAMETER in surveyed_features(card)
    assert all(is_surveyed(quantity) for quantity in surveyed_features(card))
    assert not is_surveyed(Quantity.PROTRUSION)
    assert feature_of(Quantity.MAIN_BORE).part is PartKind.MAIN


def test_the_card_goes_before_the_plan() -> None:
    sheet = FeatureSheet(Quantity.BLOCK_BORE, levels=(CardLevel("low", length("150")), CardLevel("top", length("12"))),
                         axes_deg=(90.0, 0.0))  # fmt: skip
    pattern, on_card = pattern_of(_with(sheet), Quantity.BLOCK_BORE)
    assert on_card
    assert [level.depth_um for level in pattern.levels] == [12_000, 150_000], "from the top downwards"
    assert pattern.axes_deg == (0.0, 90.0)
    assert not pattern_of(_with(), Quantity.BLOCK_BORE)[1]


@pytest.mark.parametrize(
    ("sheet", "field", "why"),
    [
        (FeatureSheet(Quantity.BLOCK_BORE, levels=(CardLevel("a", length("5")),)), "axes_deg", "type both"),
        (FeatureSheet(Quantity.BLOCK_BORE, axes_deg=(0.0, 180.0), levels=(CardLevel("a", length("5")),)), "axes_deg",
         "below 180"),
        (FeatureSheet(Quantity.LINER_BORE, levels=(CardLevel("a", length("5")), CardLevel("b", length("5.0"))),
                      axes_deg=(0.0,)), "levels", "one depth"),
        (FeatureSheet(Quantity.DECK_FLATNESS, along=(length("0"),)), "along", "type both"),
        (FeatureSheet(Quantity.MAIN_BORE, least=limit("66.7"), greatest=limit("66.6")), "greatest",
         "greater than the least"),
        (FeatureSheet(Quantity.MAIN_BORE, taper=limit("-1")), "taper", "negative"),
        (FeatureSheet(Quantity.PROTRUSION), "quantity", "already"),
    ],
)  # fmt: skip
def test_what_contradicts_itself_is_said_at_its_field(sheet: FeatureSheet, field: str, why: str) -> None:
    (problem,) = check_features(_with(sheet))
    assert problem.field == f"features.0.{field}"
    assert why in problem.message


def test_more_readings_than_anybody_takes_are_refused() -> None:
    forty = tuple(CardLevel(str(n), Length(str(n), Decimal(n))) for n in range(40))
    many = FeatureSheet(Quantity.BLOCK_BORE, levels=forty, axes_deg=tuple(float(n) for n in range(10)))
    assert any("leave some out" in problem.message for problem in check_features(_with(many)))


def test_places_are_named_with_and_without_their_pattern() -> None:
    pattern = Pattern((PatternLevel("top", Decimal(15240)),), (45.0,))
    assert pattern.name_of(Place(level_um=Decimal(15240), axis_deg=45.0)) == "top, 45°"
    assert place_words(Place(level_um=Decimal(15240), axis_deg=45.0)) == "15.24 mm (0.6 in), 45°"
    assert Pattern().name_of(Place(level_um=Decimal(63500))) == "63.5 mm (2.5 in) down"
    assert (
        place_words(Place(along_um=Decimal(0), across_um=Decimal(254000))) == "0 mm (0 in) along, 254 mm (10 in) across"
    )
    assert place_words(Place(hour=6.0)) == "6h"
    assert place_words(Place(axis_deg=90.0)) == "across the block"
    assert place_words(Place()) == ""
