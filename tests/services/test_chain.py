"""The chain on a real store: appended, held, and what a hand in the database or a file changes shows."""

import hashlib
import json
from uuid import UUID, uuid4

import psycopg
import pytest

from tests.services.files import MOVER, import_job
from vallostasis.core.tape.fact_kinds import TapeKind, newest_event
from vallostasis.core.tape.tape import tape_of
from vallostasis.core.tape.undo import undo_steps
from vallostasis.documents.job_on_file import read_job
from vallostasis.services import chain, job_import, proof, tape
from vallostasis.services.job_import import JobWish
from vallostasis.services.refused import Refused
from vallostasis.store import chain as links
from vallostasis.store import jobs, people
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def _change_behind_its_back(conn: Conn, statement: str, **named: object) -> None:
    """As whoever owns the database could: triggers are passed over."""
    conn.execute("SET session_replication_role = replica")
    conn.execute(statement, named)
    conn.execute("SET session_replication_role = DEFAULT")


def test_links_are_appended_once_for_each_entry(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    first = chain.chain_of(demo, demo_job)
    assert first.broken_at is None
    assert links.list_links(demo, demo_job) == tuple(one.sha256 for one in first.links)
    assert chain.chain_of(demo, demo_job) == first
    tape.strike(demo, demo_job, load_job_facts(demo, demo_job).readings[-1].event, True, "dirt", wren)
    second = chain.chain_of(demo, demo_job)
    assert second.links[: len(first.links)] == first.links
    assert second.entries == first.entries + 1


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE reading SET value_um = value_um + 1 WHERE reading_id = %(reading)s",
        "UPDATE reading SET taken_by = (SELECT person_id FROM person WHERE person_id <> taken_by LIMIT 1) "
        "WHERE reading_id = %(reading)s",
        "DELETE FROM reading WHERE reading_id = %(reading)s",
    ],
)
def test_a_hand_in_the_database_shows(demo: Conn, demo_job: UUID, statement: str) -> None:
    before = chain.chain_of(demo, demo_job)
    reading = load_job_facts(demo, demo_job).readings[7]
    people.add_person(demo, "Somebody else")
    _change_behind_its_back(demo, statement, reading=reading.reading_id)
    now = chain.chain_of(demo, demo_job)
    assert now.broken_at == next(link.entry for link in before.links if link.event == reading.event)
    held = chain.hold_head(demo, before.head)
    assert not held.stands
    assert f"Entry {now.broken_at} is the first that is not as it was." in held.words[-1]
    assert "was changed outside the application" in proof.proof_html(demo, demo_job, "µm")


def test_a_file_is_held_against_what_is_recorded(demo: Conn, demo_job: UUID, wren: UUID, empty_dsn: str) -> None:
    content = proof.job_as_json(demo, demo_job)
    held = chain.hold_job(demo, read_job(content))
    entries = chain.chain_of(demo, demo_job).entries
    assert held.stands
    assert held.words[-1] == f"All {entries} entries are recorded as the file says."
    document = json.loads(content)
    document["facts"]["readings"][3]["taken_by"] = "Nobody"
    spoilt = chain.hold_job(demo, read_job(json.dumps(document).encode()))
    assert not spoilt.stands
    assert "is the first that the file tells otherwise" in spoilt.words[-1]
    tape.strike(demo, demo_job, load_job_facts(demo, demo_job).readings[-1].event, True, "dirt", wren)
    older = chain.hold_job(demo, read_job(content))
    assert older.stands
    assert older.words[-1] == "1 more recorded since."
    newer = proof.job_as_json(demo, demo_job)
    with psycopg.connect(empty_dsn) as elsewhere:
        assert "not here" in chain.hold_job(elsewhere, read_job(newer)).words[-1]
        import_job(elsewhere, content, False, "")
        assert "entries more" not in chain.hold_job(elsewhere, read_job(content)).words[-1]
        # What is one more there is another entry than what is one more here: that it was brought in.
        assert not chain.hold_job(elsewhere, read_job(newer)).stands


def test_a_head_holds_wherever_the_job_goes(demo: Conn, demo_job: UUID, empty_dsn: str) -> None:
    head = chain.chain_of(demo, demo_job).head
    with psycopg.connect(empty_dsn) as elsewhere:
        import_job(elsewhere, proof.job_as_json(demo, demo_job), False, "")
        chain.chain_of(elsewhere, demo_job)
        held = chain.hold_head(elsewhere, f"vallostasis:{demo_job}:1:{head}")
        assert held.stands
        assert held.words[-1] == "1 more recorded since."


@pytest.mark.parametrize("text", ["", "abc", "g" * 64, "0" * 63])
def test_what_is_no_head_is_refused_at_its_field(demo: Conn, text: str) -> None:
    with pytest.raises(Refused, match="64 figures and letters") as refused:
        chain.hold_head(demo, text)
    assert refused.value.field == "head"
    assert not chain.hold_head(demo, "0" * 64).stands


def test_that_it_came_from_a_file_is_on_record_and_stays(demo: Conn, demo_job: UUID) -> None:
    content = proof.job_as_json(demo, demo_job)
    copy = import_job(demo, content, True, "26-031 B")
    assert copy.marked == ()
    facts = load_job_facts(demo, copy.job_id)
    (brought,) = facts.brought_in
    assert brought.sha256 == hashlib.sha256(content).hexdigest()
    assert (brought.brought_by, brought.as_copy, brought.event) == (MOVER, True, newest_event(facts))
    row = next(row for row in tape_of(facts) if row.kind is TapeKind.BROUGHT_IN)
    assert row.words.startswith("brought in as a copy from job.json (SHA-256 ")
    assert brought.sha256 in proof.proof_html(demo, copy.job_id, "µm")
    assert MOVER not in undo_steps(facts)
    by = next(person.person_id for person in people.list_people(demo) if person.name == MOVER)
    with pytest.raises(Refused, match="stays on record"):
        tape.strike(demo, copy.job_id, brought.event, True, "no", by)


def test_a_file_changed_after_it_was_written_says_so_for_good(demo: Conn, demo_job: UUID) -> None:
    document = json.loads(proof.job_as_json(demo, demo_job))
    document["facts"]["readings"][3]["taken_by"] = "Nobody"
    copy = import_job(demo, json.dumps(document).encode(), True, "26-031 B")
    assert copy.marked == ("the file was changed after it was written: its head is not that of what it says",)
    assert "the file was changed after it was written" in proof.proof_html(demo, copy.job_id, "µm")


def test_a_value_that_its_text_does_not_say_is_refused(demo: Conn, demo_job: UUID) -> None:
    document = json.loads(proof.job_as_json(demo, demo_job))
    reading = document["facts"]["readings"][0]
    reading["value_um"] = str(float(reading["value_um"]) + 0.3)
    with pytest.raises(Refused, match="the text means"):
        import_job(demo, json.dumps(document).encode(), True, "26-031 B")


def test_no_row_of_a_file_goes_into_a_job_that_is_here(demo: Conn, demo_job: UUID) -> None:
    """A reading that names the set of another job would be recorded there."""
    document = json.loads(proof.job_as_json(demo, demo_job))
    here = load_job_facts(demo, demo_job)
    text = json.dumps(document)
    for rows in ("readings", "sets", "holes", "fittings", "liners", "cuts"):
        for row in document["facts"][rows]:
            own = next(iter(row.values()))
            text = text.replace(own, str(uuid4()))
    foreign = json.loads(text)
    foreign["facts"]["job"]["job_id"] = str(uuid4())
    foreign["facts"]["readings"][0]["reading_set_id"] = str(here.sets[0].reading_set_id)
    with pytest.raises(Refused, match="readings name a reading set that is not in the file"):
        import_job(demo, json.dumps(foreign).encode(), False, "26-031 B")
    assert load_job_facts(demo, demo_job) == here


def test_who_brings_a_job_in_must_be_somebody(demo: Conn, demo_job: UUID) -> None:
    read = read_job(proof.job_as_json(demo, demo_job))
    with pytest.raises(psycopg.errors.ForeignKeyViolation):
        job_import.import_job(demo, read, JobWish("x.json", "0" * 64, as_copy=True, number="B"), uuid4())


def test_every_job_of_the_demo_keeps_to_the_rules_and_comes_in_unmarked(demo: Conn, empty_dsn: str) -> None:
    """Drops, pulls, bolts, hones, cuts and money too: what is recorded here can be brought in anywhere."""
    with psycopg.connect(empty_dsn) as elsewhere:
        for job in jobs.list_jobs(demo):
            assert import_job(elsewhere, proof.job_as_json(demo, job.job_id), False, "").marked == (), job.name
