"""What is found when an engine is stripped, and what it leads to suspect. Common practice, no published source."""

from dataclasses import replace
from decimal import Decimal

import pytest

from tests.core.facts import Story
from tests.core.test_route import BORE_PLACES, story_of
from vallostasis.core.errors import NotationError
from vallostasis.core.findings.kinds import FORMS, read_figure
from vallostasis.core.findings.suspects import SYMPTOMS, suspects_of
from vallostasis.core.records.route_marks import FindingKind
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import Construction


@pytest.mark.parametrize(
    ("kind", "text", "value"),
    [
        (FindingKind.LEAK_DOWN, "38 %", "38"),
        (FindingKind.LEAK_DOWN, "12.5", "12.5"),
        (FindingKind.LEAK_DOWN, "0", "0"),
        (FindingKind.RING, "6.5 mm", "6500"),
        (FindingKind.RING, "0.21 in", "5334"),
        (FindingKind.STUD_HOLE, "42", "42000"),
        (FindingKind.LEAK_DOWN, "  ", None),
    ],
)
def test_a_figure_is_read_in_the_unit_of_its_kind(kind: FindingKind, text: str, value: str | None) -> None:
    assert read_figure(kind, text, "mm", False) == (None if value is None else Decimal(value))


@pytest.mark.parametrize(
    ("kind", "text", "said"),
    [
        (FindingKind.LEAK_DOWN, "380", "between 0 and 100"),
        (FindingKind.LEAK_DOWN, "12 bar", "bar"),
        (FindingKind.LEAK_DOWN, "a few", "few"),
        (FindingKind.CONDITION, "12", "no figure"),
        (FindingKind.RING, "0.0065", "did you mean"),
    ],
)
def test_a_figure_nobody_can_have_read_is_refused_or_asked_about(kind: FindingKind, text: str, said: str) -> None:
    with pytest.raises(NotationError, match=said):
        read_figure(kind, text, "mm", False)


def _symptoms(story: Story) -> dict[str, tuple[tuple[int, ...], list[tuple[Quantity, ...]]]]:
    return {one.symptom: (one.holes, [suspect.quantities for suspect in one.suspects])
            for one in suspects_of(story.facts())}  # fmt: skip


def test_coolant_between_head_and_block_asks_for_protrusion_first() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    story.complaint = "Loses coolant from between head and block at number two."
    holes, first = _symptoms(story)["coolant lost between head and block"]
    assert holes == ()
    assert first == [(Quantity.PROTRUSION,), (Quantity.COUNTERBORE_DEPTH,), (Quantity.DECK_FLATNESS,)]
    story.find(FindingKind.GASKET, 2, "burnt through")
    assert _symptoms(story)["burnt fire ring"][0] == (2,)


def test_a_construction_is_asked_only_for_what_it_has() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.complaint = "Smokes under load; a piston scuffed on one side."
    found = _symptoms(story)
    assert found["smoke"][1][0] == (Quantity.BLOCK_BORE,)
    asked = {quantity for _, suspects in found.values() for one in suspects for quantity in one}
    assert not asked & {Quantity.PROTRUSION, Quantity.LINER_BORE, Quantity.NEIGHBOUR_GAP}


def test_a_leak_down_of_a_fifth_is_no_power_and_less_is_not() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.find(FindingKind.LEAK_DOWN, 1, "past the rings", Decimal("19.9"))
    assert _symptoms(story) == {}
    story.find(FindingKind.LEAK_DOWN, 2, "past the rings", Decimal(20))
    assert _symptoms(story)["no power"][0] == (2,)


def test_what_is_sound_is_no_symptom_and_what_was_read_is_counted() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.find(FindingKind.GASKET, 1, "sound")
    assert _symptoms(story) == {}
    story.complaint = "scuffed piston"
    before = suspects_of(story.facts())[0].suspects[0]
    assert (before.begun, before.of) == (0, 2)
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    after = suspects_of(story.facts())[0].suspects[0]
    assert (after.begun, after.of) == (1, 2)


def test_every_symptom_that_can_be_written_down_leads_somewhere() -> None:
    """The words offered for a symptom are known to some suspect."""
    for word in FORMS[FindingKind.SYMPTOM].words:
        story = Story(holes=1, card=replace(story_of(Construction.WET_TOP_FLANGE).card))
        story.find(FindingKind.SYMPTOM, None, word)
        if word in ("runs hot",):
            assert _symptoms(story) == {}
        else:
            assert _symptoms(story), word
    assert all(symptom.suspects for symptom in SYMPTOMS)
