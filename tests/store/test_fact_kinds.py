"""One description per kind of fact: everything that follows from it, held against the database and the facts."""

from dataclasses import fields
from typing import Any, get_args, get_type_hints
from uuid import UUID

import pytest

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.tape.fact_kinds import EVENTFUL, FACT_KINDS, KIND_OF_ROWS, FactKind, TapeKind
from vallostasis.services.job_import import OWN_IDS
from vallostasis.store import new_facts
from vallostasis.store.fact_rows import OF_JOB, statement_to_read
from vallostasis.store.job_facts import READ_OTHERWISE, load_job_facts
from vallostasis.store.rows import Conn
from vallostasis.store.whole_job import ADD_OTHERWISE

# What a job's facts hold beside its own rows: what of the shop it was read with.
OF_THE_SHOP = {"gauge_versions", "masters", "materials", "master_readings", "lessons", "shelf"}


def _row_type_of(name: str) -> object:
    return get_args(get_type_hints(JobFacts)[name])[0]


def test_every_kind_of_row_of_a_job_is_described_once() -> None:
    rows = {one.name for one in fields(JobFacts) if get_args(get_type_hints(JobFacts)[one.name])[1:] == (...,)}
    assert rows - OF_THE_SHOP == set(KIND_OF_ROWS)
    assert len(KIND_OF_ROWS) == len(FACT_KINDS)
    assert all(_row_type_of(kind.rows) is kind.row_type for kind in FACT_KINDS)


def test_what_carries_an_event_stands_on_the_tape_but_strikes_themselves() -> None:
    on_tape = {kind.rows for kind in FACT_KINDS if kind.on_tape is not None}
    assert set(EVENTFUL) == on_tape | {"strikes"}
    assert sorted(kind.on_tape.kind for kind in FACT_KINDS if kind.on_tape) == sorted(TapeKind)


@pytest.mark.parametrize("kind", FACT_KINDS, ids=lambda kind: kind.rows)
def test_a_table_has_the_columns_of_its_row(demo: Conn, kind: FactKind) -> None:
    """Whatever is kept of a row is read again: none of its columns but those the store keeps for itself is left out."""
    query = "SELECT column_name FROM information_schema.columns WHERE table_name = %(table)s"
    columns = {str(row[0]) for row in demo.execute(query, {"table": kind.kept_as}).fetchall()}
    named = {one.name for one in fields(kind.row_type)}
    own_key = f"{kind.kept_as}_id"
    if kind.rows not in READ_OTHERWISE:
        assert named | {"job_id", own_key} == columns | {"job_id", own_key}
        assert ("job_id" in columns) is (OF_JOB[kind.owner] == "t.job_id = %(job_id)s")
        assert statement_to_read(kind).count(" AS ") >= bool(kind.who)
    assert set(READ_OTHERWISE) == set(ADD_OTHERWISE)


@pytest.mark.parametrize("kind", FACT_KINDS, ids=lambda kind: kind.rows)
def test_what_stands_first_refers_to_nothing_that_stands_later(demo: Conn, kind: FactKind) -> None:
    """Taking a job in writes kind after kind: a foreign key to a later one would be refused."""
    query = """
        SELECT confrelid::regclass::text FROM pg_constraint WHERE contype = 'f' AND conrelid = %(table)s::regclass
    """
    refers_to = {str(row[0]) for row in demo.execute(query, {"table": kind.kept_as}).fetchall()}
    later = {other.kept_as for other in FACT_KINDS[FACT_KINDS.index(kind) + 1 :]}
    assert not refers_to & later


def test_what_can_be_recorded_fills_columns_of_its_kind() -> None:
    news: list[Any] = [one for name, one in vars(new_facts).items() if name.startswith("New")]
    assert len(news) >= 14
    for new in news:
        allowed = {one.name for one in fields(KIND_OF_ROWS[new.rows].row_type)} | {"job_id"}
        assert {one.name for one in fields(new)} <= allowed, new.__name__


def test_ids_of_a_jobs_rows_are_its_own_but_those_of_the_shop(demo: Conn, demo_job: UUID) -> None:
    facts = load_job_facts(demo, demo_job)
    ids = {
        one.name
        for kind in FACT_KINDS
        for row in getattr(facts, kind.rows)
        for one in fields(row)
        if isinstance(getattr(row, one.name), UUID)
    }
    shared = {"gauge_id", "gauge_version_id", "spec_card_version_id"}
    assert ids & shared == shared
    assert not OWN_IDS & shared
    assert ids - shared <= OWN_IDS
