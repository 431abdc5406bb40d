"""Slips on a card are asked about at their field. What is usual: common practice, no published source."""

from dataclasses import replace
from typing import Any

import pytest

from tests.core.card import length, limit, twin_card, wet_card
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.spec_cards.card_slips import unlikely_lengths


def _asked(card: SpecCard) -> dict[str, str]:
    return {one.field: one.message for one in unlikely_lengths(card)}


def test_a_card_as_it_should_be_is_not_asked_about() -> None:
    assert _asked(wet_card()) == {}
    assert _asked(twin_card()) == {}


@pytest.mark.parametrize(
    ("part", "field", "mm", "says"),
    [
        # Thou typed where a bare number is millimetres, and the other way round.
        ("limits", "greatest_without_shim", "3", "0.11811 mm"),
        ("limits", "neighbour_difference", "0.00127", "0.03226 mm or 0.0127 mm"),
        # A point slipped.
        ("limits", "greatest_with_shim", "1.25", "0.125 mm"),
        ("limits", "variation_round", "0.0004", "0.01016 mm or 0.004 mm or 0.4 mm"),
        ("seat", "flange_nominal", "0.0089", "0.08"),
        ("limits", "least_without_shim", "-0.05", "below the deck"),
        ("limits", "least_without_shim", "0.005", "a point slipped"),
    ],
)
def test_a_slip_is_asked_about_at_its_field(part: str, field: str, mm: str, says: str) -> None:
    card = wet_card()
    changed: Any = replace(getattr(card, part), **{field: limit(mm)})
    asked = _asked(replace(card, **{part: changed}))
    if part == "seat":
        assert list(asked) == [f"{part}.{field}"]
        return
    assert list(asked) == [f"{part}.{field}"]
    assert says in asked[f"{part}.{field}"]


def test_limits_of_a_size_lie_near_its_nominal_and_shims_are_shims() -> None:
    twin = twin_card()
    far = replace(twin.features[0], greatest=limit("50.01"))
    assert list(_asked(replace(twin, features=(far, *twin.features[1:])))) == ["features.0.greatest"]
    card = wet_card()
    thick = replace(card.shims[0], thickness=length("10"))
    assert list(_asked(replace(card, shims=(thick, *card.shims[1:])))) == ["shims.0.thickness"]
