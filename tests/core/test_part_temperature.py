"""Which temperature counts for a part's readings. Common practice, no published source."""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from uuid import uuid4

import pytest

from tests.core.facts import WHEN, Story
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, Strike
from vallostasis.core.records.temperatures import Temperature
from vallostasis.core.surveys.set_budget import material_of, part_temperature


def _read_with(*taken: tuple[float, str, str]) -> JobFacts:
    """One protrusion set read at WHEN, and temperatures: hours from then, of which part, °C."""
    story = Story()
    story.read(Quantity.PROTRUSION, story.fit(1, story.liner("L1")), (85, 86, 85, 84))
    first, last = 0, story.event + 1
    rows = tuple(
        Temperature(uuid4(), "part", part, Decimal(celsius), celsius, WHEN + timedelta(hours=hours), "Wren",
                    first if hours <= 0 else last + number)
        for number, (hours, part, celsius) in enumerate(taken)
    )  # fmt: skip
    return replace(story.facts(), temperatures=rows)


@pytest.mark.parametrize(
    ("taken", "counts"),
    [
        # The last before the readings, whatever is taken after them.
        ([(-2, "", "26"), (-1, "", "24"), (1, "", "22")], "24"),
        # None before: the first after.
        ([(1, "", "22"), (2, "", "21")], "22"),
        # Yesterday's does not tell of today; today's after the readings does.
        ([(-20, "", "31"), (1, "", "22")], "22"),
        ([(-20, "", "31")], None),
        ([(5, "", "31")], None),
        # Another part's own temperature is not this part's.
        ([(-1, "liner-L1", "31")], None),
        ([], None),
    ],
)
def test_the_temperature_near_the_readings_counts(taken: list[tuple[float, str, str]], counts: str | None) -> None:
    facts = _read_with(*taken)
    assert part_temperature(facts, facts.sets[0], "") == (None if counts is None else Decimal(counts))


def test_a_struck_temperature_counts_no_more() -> None:
    facts = _read_with((-2, "", "26"), (-1, "", "24"))
    struck = Strike(None, None, None, True, "held in the hand", WHEN, "Wren", 1000,
                    temperature_id=facts.temperatures[1].temperature_id)  # fmt: skip
    facts = replace(facts, strikes=(struck,))
    assert part_temperature(facts, facts.sets[0], "") == Decimal(26)


@pytest.mark.parametrize(
    ("quantity", "material"),
    [
        (Quantity.PISTON_SKIRT, "cast iron"),
        (Quantity.PISTON_CROWN, "cast iron"),
        (Quantity.MAIN_BORE, "aluminium alloy"),
        (Quantity.LINER_OUTSIDE, "steel"),
    ],
)
def test_each_part_expands_as_the_card_says_it_is_made(quantity: Quantity, material: str) -> None:
    card = replace(Story().card, block_material="aluminium alloy", liner_material="steel", piston_material="cast iron")
    assert material_of(card, quantity) == material


def test_what_was_said_with_the_set_goes_before_what_was_taken() -> None:
    facts = _read_with((-1, "", "24"))
    said = replace(facts.sets[0], part_temp_c=Decimal("20.5"))
    assert part_temperature(replace(facts, sets=(said,)), said, "") == Decimal("20.5")
