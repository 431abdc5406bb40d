"""Interference to come: a straight cone in a straight bore, by hand."""

from decimal import Decimal
from uuid import UUID

import pytest

from tests.core.card import dry_card, length, limit
from tests.core.facts import Story, level
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.interference import interference_to_come
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import CardLevel, FeatureSheet
from vallostasis.core.surveys.survey import survey_of

# Bore of 127.000 at three depths [mm].
DEPTHS = (15.24, 119.38, 226.06)


def _bore_and_liner(outside_um: dict[float, float]) -> tuple[Story, UUID]:
    levels = tuple(CardLevel(n, length(f"{d:g}")) for n, d in zip(("top", "middle", "bottom"), DEPTHS, strict=True))
    sheet = FeatureSheet(Quantity.BLOCK_BORE, limit("127"), levels=levels, axes_deg=(0.0,))
    story = Story(card=dry_card(sheet))
    hole, liner = story.hole_rows[0].hole_id, story.liner("Q1")
    story.survey(Quantity.BLOCK_BORE, {level(depth, 0.0): (127_000.0,) for depth in DEPTHS}, hole_id=hole)
    story.survey(Quantity.LINER_OUTSIDE, {level(depth, 0.0): (size,) for depth, size in outside_um.items()},
          liner_id=liner)  # fmt: skip
    return story, liner


def _levels(outside_um: dict[float, float]) -> dict[float, float]:
    facts = _bore_and_liner(outside_um)[0].facts()
    part = part_with_key(facts, Quantity.BLOCK_BORE, "hole-1")
    assert part is not None
    found = interference_to_come(facts, survey_of(facts, Quantity.BLOCK_BORE, part))
    return {round(at.depth_m * 1000, 2): at.stated.value_m * 1e6 for one in found for at in one.levels}


def test_a_cone_presses_by_what_it_is_at_each_depth() -> None:
    # 127.020 at 20 mm, 127.040 at 220 mm: a tenth of a micrometre more for each millimetre.
    found = _levels({20.0: 127_020.0, 220.0: 127_040.0})
    assert found[119.38] == pytest.approx(20 + (119.38 - 20) * 0.1, abs=1e-6)
    # Within a centimetre beyond its levels it goes on as it is there.
    assert found[15.24] == pytest.approx(20)
    assert found[226.06] == pytest.approx(40)


def test_nothing_is_said_of_depths_where_the_liner_was_not_read() -> None:
    assert list(_levels({119.38: 127_030.0})) == [119.38]
    facts = _bore_and_liner({119.38: 127_030.0})[0].facts()
    part = part_with_key(facts, Quantity.BLOCK_BORE, "hole-1")
    assert part is not None
    (found,) = interference_to_come(facts, survey_of(facts, Quantity.BLOCK_BORE, part))
    assert found.left_out == ("top", "bottom")
    assert _levels({60.0: 127_030.0}) == {}


def test_only_the_standard_of_one_and_the_same_gauge_cancels() -> None:
    facts = _bore_and_liner({20.0: 127_020.0, 220.0: 127_040.0})[0].facts()
    part = part_with_key(facts, Quantity.BLOCK_BORE, "hole-1")
    assert part is not None
    bore = survey_of(facts, Quantity.BLOCK_BORE, part)
    (found,) = interference_to_come(facts, bore)
    assert bore.budget is not None
    # Two equal budgets of one axis each, GUM 5.1.2, less what both have from one standard of ±2 µm, F.1.2.3.
    left = bore.budget.standard_m**2 - (2e-6) ** 2 / 3
    assert found.levels[0].stated.expanded_m == pytest.approx(2 * (2 * left) ** 0.5, rel=1e-3)
    assert facts.setup(facts.sets[0].setup_id).zero_um == Decimal(0)
