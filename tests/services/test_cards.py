"""Spec cards: field by field, version by version."""

from dataclasses import replace
from uuid import UUID

import pytest

from vallostasis.core.spec_card import CardUnit, Length, Limit, SourceStatus, SpecCard
from vallostasis.demo.ferry_lanthorn import spec_card
from vallostasis.services import block, spec_cards
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import jobs
from vallostasis.store.rows import Conn


def _problems(card: SpecCard) -> dict[str, str]:
    with pytest.raises(Refused, match="to put right") as refused:
        spec_cards.read_card(card)
    return dict(refused.value.problems)


def _limits(**changed: Limit) -> SpecCard:
    card = spec_card()
    return replace(card, limits=replace(card.limits, **changed))


def _own(typed: str) -> Limit:
    return Limit(Length(typed), "bench", SourceStatus.OWN_EXPERIENCE)


@pytest.mark.parametrize(
    ("card", "field", "words"),
    [
        (_limits(least_without_shim=_own("abc")), "limits.least_without_shim", "not understood"),
        (_limits(least_without_shim=_own("0.2")), "limits.greatest_without_shim", "greater than"),
        (_limits(variation_round=_own("-0.02")), "limits.variation_round", "negative"),
        (
            _limits(variation_round=Limit(Length("0.04"), "", SourceStatus.SPECIFICATION)),
            "limits.variation_round",
            "type the source",
        ),
        (replace(spec_card(), layout=replace(spec_card().layout, holes=0)), "layout.holes", "1 to 16"),
        (replace(spec_card(), layout=replace(spec_card().layout, heads=((1, 2),))), "layout.heads", "exactly one head"),
        (
            replace(spec_card(), measuring=replace(spec_card().measuring, required_hours=(12.0, 12.0))),
            "measuring.required_hours",
            "each clock position once",
        ),
        (replace(spec_card(), coverage_factor=0.5), "coverage_factor", "between 1 and 4"),
        (replace(spec_card(), name="x" * 500), "name", "at most"),
    ],
)
def test_what_is_wrong_is_said_at_its_field(card: SpecCard, field: str, words: str) -> None:
    assert words in _problems(card)[field]


def test_all_problems_come_at_once() -> None:
    card = _limits(least_without_shim=_own(""), greatest_with_shim=_own("wide"))
    assert set(_problems(card)) == {"limits.least_without_shim", "limits.greatest_with_shim"}


def test_bare_numbers_on_an_inch_card_are_thou_and_inch() -> None:
    card = replace(
        _limits(least_without_shim=_own("2"), greatest_without_shim=_own("5")), unit=CardUnit.INCH,
    )  # fmt: skip
    seat = replace(card.seat, flange_nominal=Limit(Length("0.3504"), "book", SourceStatus.SPECIFICATION))
    read = spec_cards.read_card(replace(card, seat=seat))
    assert read.limits.least_without_shim.metres == pytest.approx(2 * 25.4e-6)
    assert read.seat.flange_nominal.metres == pytest.approx(0.3504 * 25.4e-3)


def test_a_stale_edit_is_refused_and_names_who_saved(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    card_id = block.block_of_job(demo, demo_job).facts.card_version.spec_card_id
    spec_cards.save_version(demo, card_id, 1, spec_card(), wren)
    with pytest.raises(Refused, match="Wren saved version 2") as stale:
        spec_cards.save_version(demo, card_id, 1, spec_card(), wren)
    assert stale.value.code is RefusalCode.STALE
    assert len(spec_cards.list_versions(demo, card_id)) == 2


def test_a_new_version_judges_only_when_chosen_and_says_what_changes(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    card_id = block.block_of_job(demo, demo_job).facts.card_version.spec_card_id
    tighter = _limits(least_without_shim=_own("0.080"))
    version_id = spec_cards.save_version(demo, card_id, 1, tighter, wren)
    before = [hole.state for hole in block.block_of_job(demo, demo_job).judgement.holes]
    previewed = spec_cards.choose_version(demo, demo_job, version_id, wren, only_preview=True)
    assert [hole.state for hole in block.block_of_job(demo, demo_job).judgement.holes] == before
    assert previewed
    assert spec_cards.choose_version(demo, demo_job, version_id, wren, only_preview=False) == previewed
    after = [hole.state.value for hole in block.block_of_job(demo, demo_job).judgement.holes]
    assert {change.hole: change.after for change in previewed} == {
        number: new for number, (old, new) in enumerate(zip(before, after, strict=True), start=1) if old.value != new
    }


def test_a_job_number_is_given_once(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    from vallostasis.services.jobs import take_in_job

    card_id = block.block_of_job(demo, demo_job).facts.card_version.spec_card_id
    with pytest.raises(Refused, match="is taken"):
        take_in_job(demo, jobs.NewJob("26-031", "Again", "", "", ""), card_id, wren)
