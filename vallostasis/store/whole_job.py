"""Writing a whole job at once, with the ids, times and people it was recorded with elsewhere."""

import contextlib
from collections.abc import Callable, Iterator, Mapping
from dataclasses import fields
from typing import Any
from uuid import UUID

import psycopg

from vallostasis.core.records.gauges import GaugeVersion, SettingMaster
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.notes import ReadingNote
from vallostasis.core.records.rows import CardVersion, Job
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.tape.fact_kinds import FACT_KINDS, FactKind
from vallostasis.store import notes, spec_cards
from vallostasis.store.changes import announce
from vallostasis.store.fact_rows import statement_to_take_over
from vallostasis.store.revisions import add_revision
from vallostasis.store.rows import Conn, fetch_value


class Contradiction(Exception):
    """The rows of a job do not fit together; the text says which."""


@contextlib.contextmanager
def _fitting_together() -> Iterator[None]:
    try:
        yield
    except (psycopg.IntegrityError, psycopg.DataError) as error:
        raise Contradiction(str(error.diag.message_detail or error.diag.message_primary or error)) from None


def draw_event_numbers(conn: Conn, count: int) -> list[int]:
    """Reserve the next event numbers, in order."""
    rows = conn.execute(
        "SELECT nextval('event_number') FROM generate_series(1, %(count)s)", {"count": count}
    ).fetchall()
    return sorted(int(row[0]) for row in rows)


def gauge_version_exists(conn: Conn, gauge_version_id: UUID) -> bool:
    """Whether a version of a gauge is known here."""
    query = "SELECT 1 FROM gauge_version WHERE gauge_version_id = %(id)s"
    return fetch_value(conn, query, {"id": gauge_version_id}) is not None


def gauge_has_version(conn: Conn, gauge_id: UUID, version: int) -> bool:
    """Whether a gauge has a version of that number, whichever it is."""
    query = "SELECT 1 FROM gauge_version WHERE gauge_id = %(gauge_id)s AND version = %(version)s"
    return fetch_value(conn, query, {"gauge_id": gauge_id, "version": version}) is not None


@_fitting_together()
def add_gauge_version_as(conn: Conn, gauge: GaugeVersion) -> None:
    """Add a version of a gauge with its own ids, and the gauge where it is new."""
    params = {name: getattr(gauge, name) for name in GaugeVersion.__slots__}
    conn.execute(
        """
        INSERT INTO gauge (gauge_id, name, kind) VALUES (%(gauge_id)s, %(name)s, %(kind)s)
        ON CONFLICT (gauge_id) DO NOTHING
        """,
        params,
    )
    conn.execute(
        """
        INSERT INTO gauge_version (gauge_version_id, gauge_id, version, resolution_um, repeatability_um, tip, note,
                                   range_from_um, range_to_um, tip_radius_um, calibrated_on, due_on, owner, master,
                                   faults, repeatability_freedom, reproducibility_um, reproducibility_freedom)
        VALUES (%(gauge_version_id)s, %(gauge_id)s, %(version)s, %(resolution_um)s, %(repeatability_um)s, %(tip)s,
                %(note)s, %(range_from_um)s, %(range_to_um)s, %(tip_radius_um)s, %(calibrated_on)s, %(due_on)s,
                %(owner)s, %(master)s, %(faults)s, %(repeatability_freedom)s, %(reproducibility_um)s,
                %(reproducibility_freedom)s)
        """,
        params,
    )


def master_version_exists(conn: Conn, version_id: UUID) -> bool:
    """Whether a version of a setting master is known here."""
    query = "SELECT 1 FROM setting_master_version WHERE setting_master_version_id = %(id)s"
    return fetch_value(conn, query, {"id": version_id}) is not None


def master_has_version(conn: Conn, setting_master_id: UUID, version: int) -> bool:
    """Whether a setting master has a version of that number, whichever it is."""
    query = "SELECT 1 FROM setting_master_version WHERE setting_master_id = %(id)s AND version = %(version)s"
    return fetch_value(conn, query, {"id": setting_master_id, "version": version}) is not None


@_fitting_together()
def add_master_version_as(conn: Conn, master: SettingMaster) -> None:
    """Add a version of a setting master with its own ids, and the master where it is new."""
    params = {name: getattr(master, name) for name in SettingMaster.__slots__}
    conn.execute(
        """
        INSERT INTO setting_master (setting_master_id, name) VALUES (%(setting_master_id)s, %(name)s)
        ON CONFLICT (setting_master_id) DO NOTHING
        """,
        params,
    )
    conn.execute(
        """
        INSERT INTO setting_master_version (setting_master_version_id, setting_master_id, version, size_um, typed,
                                            standard_um, material, calibrated_on, due_on, owner, note)
        VALUES (%(setting_master_version_id)s, %(setting_master_id)s, %(version)s, %(size_um)s, %(typed)s,
                %(standard_um)s, %(material)s, %(calibrated_on)s, %(due_on)s, %(owner)s, %(note)s)
        """,
        params,
    )


def card_version_exists(conn: Conn, spec_card_version_id: UUID) -> bool:
    """Whether a version of a card is known here."""
    query = "SELECT 1 FROM spec_card_version WHERE spec_card_version_id = %(id)s"
    return fetch_value(conn, query, {"id": spec_card_version_id}) is not None


def card_has_version(conn: Conn, spec_card_id: UUID, version: int) -> bool:
    """Whether a card has a version of that number, whichever it is."""
    query = "SELECT 1 FROM spec_card_version WHERE spec_card_id = %(card_id)s AND version = %(version)s"
    return fetch_value(conn, query, {"card_id": spec_card_id, "version": version}) is not None


@_fitting_together()
def add_card_version_as(conn: Conn, version: CardVersion, card: SpecCard, saved_by: UUID) -> None:
    """Add a version of a card with its own ids, and the card where it is new."""
    conn.execute(
        "INSERT INTO spec_card (spec_card_id) VALUES (%(card_id)s) ON CONFLICT (spec_card_id) DO NOTHING",
        {"card_id": version.spec_card_id},
    )
    conn.execute(
        """
        INSERT INTO spec_card_version (spec_card_version_id, spec_card_id, version, card, saved_at, saved_by)
        VALUES (%(version_id)s, %(card_id)s, %(version)s, %(card)s, %(saved_at)s, %(saved_by)s)
        """,
        {
            "version_id": version.spec_card_version_id,
            "card_id": version.spec_card_id,
            "version": version.version,
            "card": spec_cards.as_document(card),
            "saved_at": version.saved_at,
            "saved_by": saved_by,
        },
    )


@_fitting_together()
def add_whole_job(conn: Conn, facts: JobFacts, person_id: Callable[[str], UUID], photos: Mapping[str, bytes]) -> None:
    """Write every row of a job as it stands in its facts; raise Contradiction where they do not fit together.

    Photos are found by the digest of their bytes; one that is not among them stays behind.
    """
    job = {name: getattr(facts.job, name) for name in Job.__slots__}
    conn.execute(ADD_JOB, job)
    conn.execute(ADD_BLOCK, job)
    for kind in FACT_KINDS:
        statement = ADD_OTHERWISE.get(kind.rows) or statement_to_take_over(kind)
        rows = [_kept(facts, kind, fact, person_id, photos) for fact in getattr(facts, kind.rows)]
        with conn.cursor() as cursor:
            cursor.executemany(statement, rows)
    add_revision(conn, facts.job.job_id)
    announce(conn, facts.job.job_id)


def _kept(
    facts: JobFacts,
    kind: FactKind,
    fact: Any,  # noqa: ANN401
    person_id: Callable[[str], UUID],
    photos: Mapping[str, bytes],
) -> dict[str, Any]:
    row = {one.name: getattr(fact, one.name) for one in fields(kind.row_type)} | {"job_id": facts.job.job_id}
    if kind.who:
        row[kind.who] = person_id(row[kind.who])
    if isinstance(fact, ReadingNote):
        row |= {"photo": photos.get(fact.photo_sha256), "marks": notes.as_json(fact.marks)}
    return row


ADD_JOB = """
    INSERT INTO job (job_id, number, name, customer, complaint, opened_at, invented)
    VALUES (%(job_id)s, %(number)s, %(name)s, %(customer)s, %(complaint)s, %(opened_at)s, %(invented)s)
"""
ADD_BLOCK = "INSERT INTO block (job_id, serial) VALUES (%(job_id)s, %(serial)s)"
# Facts that are more, or less, than the rows of one table.
ADD_OTHERWISE = {
    "cards_chosen": """
        INSERT INTO job_card (job_id, spec_card_version_id, chosen_at, chosen_by, reason, event)
        VALUES (%(job_id)s, %(spec_card_version_id)s, %(chosen_at)s, %(chosen_by)s, %(reason)s, %(event)s)
    """,
    "holes": """
        INSERT INTO hole (hole_id, block_id, number, bank)
        SELECT %(hole_id)s, block_id, %(number)s, %(bank)s FROM block WHERE job_id = %(job_id)s
    """,
    "notes": """
        INSERT INTO reading_note (note_id, reading_id, finding_id, words, photo, photo_type, photo_sha256, photo_bytes,
                                  marks, made_at, made_by, event)
        VALUES (%(note_id)s, %(reading_id)s, %(finding_id)s, %(words)s, %(photo)s, %(photo_type)s, %(photo_sha256)s,
                %(photo_bytes)s, %(marks)s, %(made_at)s, %(made_by)s, %(event)s)
    """,
}
