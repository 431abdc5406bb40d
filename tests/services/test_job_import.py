"""Whole jobs out and in again: nothing lost, nothing doubled, nothing broken by a broken file."""

import json
import random
from collections.abc import Iterator
from typing import Any
from uuid import UUID, uuid4

import psycopg
import pytest

from tests.deep import DEEP
from tests.services.files import import_job
from vallostasis.core.operations.schools import NO_PLATE, PLATE
from vallostasis.core.records.route_marks import MarkKind, Operation
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.tape.fact_kinds import newest_event
from vallostasis.documents.not_read import NotRead
from vallostasis.services import findings, fitting, proof, readings, route, spec_cards, tape, zeros
from vallostasis.services.block import block_of_job
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

SEED = 7


@pytest.fixture
def elsewhere(empty_dsn: str) -> Iterator[Conn]:
    """The store of another shop, with nothing in it."""
    with psycopg.connect(empty_dsn) as conn:
        yield conn


@pytest.fixture
def rich_job(demo: Conn, demo_job: UUID, wren: UUID) -> UUID:
    """The demo job after everything that can be recorded was: cut, fit, strike, correction, unreadable, new card."""
    facts = load_job_facts(demo, demo_job)
    holes = {hole.number: hole.hole_id for hole in facts.holes}
    zeros.correct_zero(demo, demo_job, facts.sets[-1].reading_set_id, "2", "µm", "dropped", wren)
    zeros.mark_place_unreadable(demo, demo_job, Quantity.PROTRUSION, "hole-1", Place(hour=6.0), True, "a stud", wren)
    tape.strike(demo, demo_job, facts.readings[-1].event, True, "dirt", wren)
    tape.strike(demo, demo_job, load_job_facts(demo, demo_job).corrections[-1].event, True, "was right", wren)
    tape.strike(demo, demo_job, facts.sets[-2].event, True, "opened by mistake", wren)
    fitting.record_cut(demo, holes[5], fitting.CutMade(uuid4(), "8.998", "mm", 6, "0.20", "slow", True), wren)
    fitting.record_fitting(demo, holes[5], uuid4(), "L7", (fitting.ShimFitted("0.20", "0.199", "bevel up"),), wren,
                           made_ready=fitting.ALL_READY)  # fmt: skip
    at = route.AtOperation
    route.mark_operation(demo, demo_job, at(Operation.WASH), MarkKind.DONE, wren, "hot tank", 9, 60, "by the book")
    route.run_clock(demo, demo_job, at(Operation.WASH), True, wren)
    route.choose_school(demo, demo_job, PLATE, NO_PLATE, "a stiff block", wren, False)
    findings.waive(demo, demo_job, Quantity.PROTRUSION, "hole-6", True, "a stud in the way", wren)
    saved = spec_cards.save_version(demo, facts.card_version.spec_card_id, 1, facts.card, wren)
    spec_cards.choose_version(demo, demo_job, saved, wren, False)
    return demo_job


def _document(conn: Conn, job_id: UUID) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(proof.job_as_json(conn, job_id))
    document.pop("written_at")
    # That it was brought in is on record there, and chained.
    document.pop("head")
    document["facts"].pop("brought_in")
    return document


def test_a_job_comes_back_in_another_shop_as_it_was(demo: Conn, rich_job: UUID, elsewhere: Conn) -> None:
    brought = import_job(elsewhere, proof.job_as_json(demo, rich_job), False, "")
    assert brought.job_id == rich_job
    assert _document(elsewhere, rich_job) == _document(demo, rich_job)
    # And it can be worked on: the next thing recorded is the newest.
    facts = load_job_facts(elsewhere, rich_job)
    someone = elsewhere.execute("SELECT person_id FROM person LIMIT 1").fetchone()
    assert someone is not None
    ask = readings.ReadingToTake(
        uuid4(), Quantity.PROTRUSION, 5, 12.0, "", "", "10.0", "0.01 mm", True, "", False, None
    )
    taken = readings.take_reading(elsewhere, rich_job, ask, someone[0])
    assert taken.event > newest_event(facts)


def test_a_job_that_is_here_is_refused_or_copied(demo: Conn, rich_job: UUID) -> None:
    content = proof.job_as_json(demo, rich_job)
    with pytest.raises(Refused, match="is here already") as refused:
        import_job(demo, content, False, "")
    assert refused.value.code is RefusalCode.TAKEN
    with pytest.raises(Refused, match="Job number 26-031 is taken: give the copy another"):
        import_job(demo, content, True, "")
    copy = import_job(demo, content, True, "26-031 B")
    assert copy.job_id != rich_job
    first, second = block_of_job(demo, rich_job), block_of_job(demo, copy.job_id)
    assert [hole.state for hole in first.judgement.holes] == [hole.state for hole in second.judgement.holes]
    assert [r.typed for r in first.facts.readings] == [r.typed for r in second.facts.readings]
    assert not {r.reading_id for r in first.facts.readings} & {r.reading_id for r in second.facts.readings}
    # Gauges and cards are the shop's own: a copy uses the ones that are here.
    assert first.facts.gauge_versions == second.facts.gauge_versions
    assert first.facts.card_version == second.facts.card_version


def test_a_gauge_and_a_card_that_became_others_are_added(demo: Conn, rich_job: UUID, elsewhere: Conn) -> None:
    document = json.loads(proof.job_as_json(demo, rich_job))
    import_job(elsewhere, json.dumps(document).encode(), False, "")
    text = json.dumps(document)
    for version in (*document["facts"]["gauge_versions"], *(card["version"] for card in document["history"]["cards"])):
        for name in ("gauge_version_id", "spec_card_version_id"):
            text = text.replace(version.get(name, "\0"), str(uuid4()))
    copy = import_job(elsewhere, text.encode(), True, "again")
    names = {gauge.name for gauge in load_job_facts(elsewhere, copy.job_id).gauge_versions}
    assert names == {"Depth sled 2 of again", "Bench micrometer of again", "Deck indicator of again"}
    cards = elsewhere.execute("SELECT count(*) FROM spec_card").fetchone()
    assert cards == (2,)


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "This is no job file: at the beginning"),
        (b"[]", "This is no job file: at the beginning"),
        (b'{"format": "something else"}', "This is no job file: at format"),
    ],
)
def test_what_is_no_job_file_is_refused(elsewhere: Conn, content: bytes, words: str) -> None:
    with pytest.raises(NotRead, match=words):
        import_job(elsewhere, content, False, "")


def test_a_file_spoilt_anywhere_is_refused_or_taken_whole(demo: Conn, rich_job: UUID, elsewhere: Conn) -> None:
    """Whatever is changed in a file, it is refused with a reason, or the job can be shown."""
    content = proof.job_as_json(demo, rich_job)
    chance = random.Random(SEED)
    nasty: list[Any] = [None, "", "x", -1, 0, 1e308, "1e400", "NaN", [], {}, str(uuid4()), True, "A" * 5000, "\x00"]
    outcomes = set()
    for _ in range(250 if DEEP else 80):
        document = json.loads(content)
        _spoil(document, chance, chance.choice(nasty))
        with elsewhere.transaction(force_rollback=True):
            try:
                brought = import_job(elsewhere, json.dumps(document).encode(), False, "")
            except (Refused, NotRead) as refused:
                assert str(refused)
                outcomes.add("refused")
                continue
            block_of_job(elsewhere, brought.job_id)
            proof.job_as_json(elsewhere, brought.job_id)
            outcomes.add("taken")
    assert outcomes == {"refused", "taken"}


def _spoil(document: Any, chance: random.Random, value: Any) -> None:
    """Put a value in the place of one leaf, at random; mostly among the facts, where the rows are."""
    place = document
    while True:
        keys = list(place) if isinstance(place, dict) else list(range(len(place)))
        key = "facts" if "facts" in keys and chance.random() < 0.8 else chance.choice(keys)
        if not place[key] or not isinstance(place[key], dict | list):
            place[key] = value
            return
        place = place[key]
