"""Loading everything recorded about one job."""

from collections.abc import Callable
from typing import Any
from uuid import UUID
from weakref import WeakKeyDictionary

from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.tape.fact_kinds import FACT_KINDS
from vallostasis.store import (
    gauges,
    jobs,
    lessons,
    master_readings,
    materials,
    notes,
    room,
    setting_masters,
    shelf,
    spec_cards,
)
from vallostasis.store.fact_rows import list_all_facts, list_changed_facts
from vallostasis.store.known_jobs import known_job, remember_job
from vallostasis.store.revisions import Revision, advance, present_revision
from vallostasis.store.rows import Conn, fetch_all

# Facts that are more than the rows of one table.
READ_OTHERWISE: dict[str, Callable[[Conn, UUID], tuple[Any, ...]]] = {
    "holes": jobs.list_holes,
    "cards_chosen": jobs.list_cards_chosen,
    "notes": notes.list_notes,
}

# So many jobs a connection notes, a shop works on a handful at a time.
MOST_OF_CONNECTION = 8
# What a connection read of a job last, committed or not: a connection only ever sees one database.
_read_last: "WeakKeyDictionary[Conn, dict[UUID, JobFacts]]" = WeakKeyDictionary()


def load_job_facts(conn: Conn, job_id: UUID) -> JobFacts:
    """Return all facts of one job; raise NotFound if there is none with that id."""
    return _facts_at(conn, job_id, present_revision(conn, job_id))


def lock_job_facts(conn: Conn, job_id: UUID) -> JobFacts:
    """Lock a job to write to it, before anything is written, and return its facts; raise NotFound if there is none."""
    return _facts_at(conn, job_id, advance(conn, job_id))


def _facts_at(conn: Conn, job_id: UUID, revision: Revision | None) -> JobFacts:
    """What is known at that revision, else everything read anew; without a revision nothing is kept."""
    if revision is None:
        return read_job_facts(conn, job_id)
    facts = known_job(job_id, revision)
    if facts is None:
        facts = read_job_facts(conn, job_id)
        remember_job(job_id, revision, facts)
    else:
        _note_read(conn, job_id, facts)
    return facts


def _note_read(conn: Conn, job_id: UUID, facts: JobFacts) -> None:
    of_connection = _read_last.setdefault(conn, {})
    if len(of_connection) >= MOST_OF_CONNECTION and job_id not in of_connection:
        of_connection.clear()
    of_connection[job_id] = facts


def read_job_facts(conn: Conn, job_id: UUID) -> JobFacts:
    """Read all facts of one job anew, whatever is known of it: within a transaction that may come to nothing.

    What this connection read of it last spares reading kinds of facts that are as they were.
    """
    job = jobs.get_job(conn, job_id)
    version, card = spec_cards.get_version(conn, jobs.present_card_version(conn, job_id))
    alike = [kind.rows for kind in FACT_KINDS if kind.rows not in READ_OTHERWISE]
    earlier = _read_last.get(conn, {}).get(job_id)
    recorded = (
        list_all_facts(conn, alike, job_id)
        if earlier is None
        else list_changed_facts(conn, alike, job_id, {rows: getattr(earlier, rows) for rows in alike})
    )
    recorded |= {rows: read(conn, job_id) for rows, read in READ_OTHERWISE.items()}
    facts = JobFacts(
        job=job,
        card_version=version,
        card=card,
        gauge_versions=_gauge_versions_used(conn, job_id),
        masters=setting_masters.list_masters_of_job(conn, job_id),
        materials=materials.list_materials(conn),
        master_readings=master_readings.list_master_readings(conn),
        room=room.get_room(conn),
        lessons=lessons.list_lessons(conn),
        shelf=shelf.list_lots(conn, job_id),
        **recorded,
    )
    _note_read(conn, job_id, facts)
    return facts


def read_what_is_kept(conn: Conn, job_id: UUID) -> JobFacts:
    """Read every row of a job, whatever is known of it: also what somebody changed who owns the database."""
    _read_last.get(conn, {}).pop(job_id, None)
    return read_job_facts(conn, job_id)


def _gauge_versions_used(conn: Conn, job_id: UUID) -> tuple[GaugeVersion, ...]:
    query = f"""
        SELECT {gauges.COLUMNS}
          FROM gauge_version v JOIN gauge g USING (gauge_id)
         WHERE v.gauge_version_id IN (SELECT gauge_version_id FROM reading_set WHERE job_id = %(job_id)s)
            OR v.gauge_id IN (SELECT gauge_id FROM setup WHERE job_id = %(job_id)s)
         ORDER BY g.name, v.version
    """
    return fetch_all(conn, GaugeVersion, query, {"job_id": job_id})
