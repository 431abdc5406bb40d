"""Spec cards: field by field, version by version."""

from dataclasses import replace
from uuid import UUID, uuid4

import pytest

from tests.services.test_demo_story import take
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import (
    Arrangement,
    Between,
    CardUnit,
    Length,
    Limit,
    SourceStatus,
    SpecCard,
    bank_rows,
)
from vallostasis.core.uncertainty.decision import State
from vallostasis.demo.ferry_lanthorn import spec_card
from vallostasis.services import block, fitting, shop, spec_cards
from vallostasis.services.jobs import add_liner, take_in_job
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import jobs
from vallostasis.store.job_facts import load_job_facts
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


def _v8(**layout: object) -> SpecCard:
    card = spec_card()
    banks = ((1, 3, 5, 7), (2, 4, 6, 8))
    fields = {"arrangement": Arrangement.V, "holes": 8, "banks": banks, "heads": banks, "bank_angle_deg": 60.0}
    return replace(card, name="V8", layout=replace(card.layout, **{**fields, **layout}))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("layout", "field", "words"),
    [
        ({"banks": ((1, 3, 5, 7),)}, "layout.banks", "two banks"),
        ({"banks": ((1, 3, 5, 7), (2, 4, 6, 6))}, "layout.banks", "1 to 8"),
        ({"bank_angle_deg": None}, "layout.bank_angle_deg", "needs its bank angle"),
        ({"bank_angle_deg": 200.0}, "layout.bank_angle_deg", "up to 180"),
    ],
)
def test_a_v_names_what_its_banks_need(layout: dict[str, object], field: str, words: str) -> None:
    assert words in _problems(_v8(**layout))[field]


def test_rows_of_a_block_follow_its_arrangement() -> None:
    assert bank_rows(_v8().layout) == ((1, 3, 5, 7), (2, 4, 6, 8))
    assert bank_rows(spec_card().layout) == ((1, 2, 3, 4, 5, 6),)


def test_neighbours_in_a_v_are_next_to_each_other_on_their_bank(demo: Conn, wren: UUID) -> None:
    """Numbered across the banks, 1 stands next to 3 under one head, never next to 2."""
    card_id = spec_cards.add_card(demo, _v8(), wren)
    job_id = take_in_job(demo, jobs.NewJob("V-1", "V8", "", "", ""), card_id, wren)
    holes = {hole.number: hole for hole in load_job_facts(demo, job_id).holes}
    for number, hundredths in ((1, "6.0"), (2, "11.5"), (3, "6.5")):
        add_liner(demo, job_id, f"V{number}", "", "")
        fitting.record_fitting(
            demo, holes[number].hole_id, uuid4(), f"V{number}", (), wren, made_ready=fitting.ALL_READY
        )
        for hour in (12.0, 3.0, 6.0, 9.0):
            take(demo, job_id, wren, hundredths, hole=number, hour=hour)
    judged = block.block_of_job(demo, job_id).judgement.holes
    assert [rule.where for rule in judged[0].rules if rule.rule == "difference to neighbour"] == ["hole 3"]
    assert [rule.where for rule in judged[1].rules if rule.rule == "difference to neighbour"] == []
    assert [hole.state for hole in judged[:3]] == [State.IN, State.IN, State.IN]


def test_all_problems_come_at_once() -> None:
    card = _limits(least_without_shim=_own(""), greatest_with_shim=_own("wide"))
    assert set(_problems(card)) == {"limits.least_without_shim", "limits.greatest_with_shim"}


def test_bare_numbers_on_an_inch_card_are_thou_and_inch() -> None:
    card = replace(
        _limits(least_without_shim=_own("2"), greatest_without_shim=_own("5")), unit=CardUnit.INCH, features=(),
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
    card_id = block.block_of_job(demo, demo_job).facts.card_version.spec_card_id
    with pytest.raises(Refused, match="is taken"):
        take_in_job(demo, jobs.NewJob("26-031", "Again", "", "", ""), card_id, wren)


def test_a_gauge_registered_later_is_not_taken_for_the_one_in_use(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    facts = load_job_facts(demo, demo_job)
    in_use = facts.present_setup(Quantity.PROTRUSION)
    assert in_use is not None
    # By name and by fineness it would come first.
    shop.save_gauge(demo, None, 0, shop.GaugeEntry("A finer sled", "depth gauge", "0.5 µm", "0.5 µm"))
    new = jobs.NewJob("26-099", "Later", "", "", "")
    later = take_in_job(demo, new, facts.card_version.spec_card_id, wren)
    setup = load_job_facts(demo, later).present_setup(Quantity.PROTRUSION)
    assert setup is not None
    assert setup.gauge_id == in_use.gauge_id


def test_a_spacer_changed_on_the_card_opens_again_what_was_read(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    """Every verdict holds for the spacer that lay under the gauge when it was read."""
    facts = load_job_facts(demo, demo_job)
    spacer = Between("spacer plate", Length("0.25"))
    card = replace(facts.card, measuring=replace(facts.card.measuring, between=(spacer,)))
    saved = spec_cards.save_version(demo, facts.card_version.spec_card_id, 1, card, wren)
    told = spec_cards.choose_version(demo, demo_job, saved, wren, True)
    fitted = [one.hole for one in block.block_of_job(demo, demo_job).judgement.holes if one.rules]
    assert {one.hole for one in told if one.after is State.NOT_MEASURED} == set(fitted)
    spec_cards.choose_version(demo, demo_job, saved, wren, False)
    holes = block.block_of_job(demo, demo_job).judgement.holes
    assert all("changed on the card since it was read" in one.reason for one in holes if one.hole in fitted)
    # Read again, without being asked whether it is a repeat, it counts: what lay under the gauge before is another set.
    for hour in (12.0, 3.0, 6.0, 9.0):
        take(demo, demo_job, wren, "8.6", hole=1, hour=hour)
    assert "since it was read" not in block.block_of_job(demo, demo_job).judgement.holes[0].reason
    assert block.block_of_job(demo, demo_job).judgement.holes[0].state is not State.NOT_MEASURED


def test_the_card_of_another_engine_is_refused_unless_the_reason_is_typed(
    demo: Conn, demo_job: UUID, wren: UUID
) -> None:
    facts = load_job_facts(demo, demo_job)
    other = spec_cards.add_card(demo, replace(facts.card, name="Borrowed", engine="Another 6"), wren)
    version = spec_cards.list_versions(demo, other)[0][0].spec_card_version_id
    with pytest.raises(Refused, match="not borrowed from another engine") as refused:
        spec_cards.choose_version(demo, demo_job, version, wren, False)
    assert refused.value.field == "reason"
    assert load_job_facts(demo, demo_job).card.engine == facts.card.engine
    spec_cards.choose_version(demo, demo_job, version, wren, False, "same liners, by the maker's bulletin")
    after = load_job_facts(demo, demo_job)
    assert after.card.engine == "Another 6"
    assert after.cards_chosen[-1].reason == "same liners, by the maker's bulletin"
