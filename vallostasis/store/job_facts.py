"""Loading everything recorded about one job."""

from uuid import UUID

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.measuring.gauges import GaugeVersion
from vallostasis.store import (
    fittings,
    gauges,
    jobs,
    master_readings,
    materials,
    notes,
    readings,
    room,
    setting_masters,
    spec_cards,
    temperatures,
    zeros,
)
from vallostasis.store.known_jobs import known_job, remember_job
from vallostasis.store.revisions import Revision, advance, present_revision
from vallostasis.store.rows import Conn, fetch_all


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
    facts = known_job(conn, job_id, revision)
    if facts is None:
        facts = read_job_facts(conn, job_id)
        remember_job(conn, job_id, revision, facts)
    return facts


def read_job_facts(conn: Conn, job_id: UUID) -> JobFacts:
    """Read all facts of one job anew, whatever is known of it: within a transaction that may come to nothing."""
    job = jobs.get_job(conn, job_id)
    version, card = spec_cards.get_version(conn, jobs.present_card_version(conn, job_id))
    return JobFacts(
        job=job,
        card_version=version,
        card=card,
        stages=jobs.list_stages(conn, job_id),
        holes=jobs.list_holes(conn, job_id),
        liners=fittings.list_liners(conn, job_id),
        fittings=fittings.list_fittings(conn, job_id),
        fitting_shims=fittings.list_fitting_shims(conn, job_id),
        fitting_outs=fittings.list_fitting_outs(conn, job_id),
        cuts=fittings.list_cuts(conn, job_id),
        setups=readings.list_setups(conn, job_id),
        sets=readings.list_sets(conn, job_id),
        readings=readings.list_readings(conn, job_id),
        strikes=readings.list_strikes(conn, job_id),
        corrections=zeros.list_corrections(conn, job_id),
        unreadables=zeros.list_unreadables(conn, job_id),
        notes=notes.list_notes(conn, job_id),
        gauge_versions=_gauge_versions_used(conn, job_id),
        zero_checks=zeros.list_zero_checks(conn, job_id),
        temperatures=temperatures.list_temperatures(conn, job_id),
        stamps=temperatures.list_stamps(conn, job_id),
        masters=setting_masters.list_masters_of_job(conn, job_id),
        materials=materials.list_materials(conn),
        master_readings=master_readings.list_master_readings(conn),
        room=room.get_room(conn),
        stage_marks=jobs.list_stage_marks(conn, job_id),
        cards_chosen=jobs.list_cards_chosen(conn, job_id),
    )


def _gauge_versions_used(conn: Conn, job_id: UUID) -> tuple[GaugeVersion, ...]:
    query = f"""
        SELECT {gauges.COLUMNS}
          FROM gauge_version v JOIN gauge g USING (gauge_id)
         WHERE v.gauge_version_id IN (SELECT gauge_version_id FROM reading_set WHERE job_id = %(job_id)s)
            OR v.gauge_id IN (SELECT gauge_id FROM setup WHERE job_id = %(job_id)s)
         ORDER BY g.name, v.version
    """
    return fetch_all(conn, GaugeVersion, query, {"job_id": job_id})
