"""Jobs with their block, holes, route and the card version that judges them."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.records.cards_chosen import CardChosen
from vallostasis.core.records.rows import Hole, Job
from vallostasis.store.changes import announce
from vallostasis.store.revisions import add_revision, advance
from vallostasis.store.rows import Conn, NotFound, fetch_all, fetch_one, fetch_value

JOB_COLUMNS = "j.job_id, j.number, j.name, j.customer, j.complaint, b.serial, j.opened_at, j.invented"


@dataclass(frozen=True, slots=True)
class NewJob:
    """What is written down when an engine is taken in."""

    number: str
    name: str
    customer: str
    complaint: str
    serial: str
    invented: bool = False


def list_jobs(conn: Conn) -> tuple[Job, ...]:
    """Return all jobs, oldest first."""
    query = f"SELECT {JOB_COLUMNS} FROM job j JOIN block b USING (job_id) ORDER BY j.opened_at, j.number"
    return fetch_all(conn, Job, query)


def list_filed(conn: Conn) -> frozenset[UUID]:
    """Return the jobs that were put away: of each the newest filing that was not struck out."""
    query = """
        SELECT DISTINCT ON (f.job_id) f.job_id, f.away
        FROM filing f
        WHERE NOT coalesce((
            SELECT s.struck FROM strike s
            WHERE s.job_id = f.job_id AND s.of_event = f.event
            ORDER BY s.event DESC LIMIT 1
        ), false)
        ORDER BY f.job_id, f.event DESC
    """
    return frozenset(job_id for job_id, away in conn.execute(query) if away)


def get_job(conn: Conn, job_id: UUID) -> Job:
    """Return one job; raise NotFound if there is none with that id."""
    query = f"SELECT {JOB_COLUMNS} FROM job j JOIN block b USING (job_id) WHERE j.job_id = %(job_id)s"
    return fetch_one(conn, Job, query, {"job_id": job_id}, "job")


def lock_job(conn: Conn, job_id: UUID) -> None:
    """Let one writer at a time record to a job, and tell every screen of it; raise NotFound if there is none."""
    advance(conn, job_id)


def job_of_hole(conn: Conn, hole_id: UUID) -> UUID:
    """Return the job a hole belongs to; raise NotFound if there is no such hole."""
    query = "SELECT b.job_id FROM hole h JOIN block b USING (block_id) WHERE h.hole_id = %(hole_id)s"
    job_id = fetch_value(conn, query, {"hole_id": hole_id})
    if job_id is None:
        raise NotFound("hole", hole_id)
    return UUID(str(job_id))


def add_job(conn: Conn, new: NewJob) -> UUID:
    """Add a job and its block; the database refuses a job number twice."""
    query = """
        INSERT INTO job (number, name, customer, complaint, invented)
        VALUES (%(number)s, %(name)s, %(customer)s, %(complaint)s, %(invented)s)
        RETURNING job_id
    """
    params = {
        "number": new.number,
        "name": new.name,
        "customer": new.customer,
        "complaint": new.complaint,
        "invented": new.invented,
    }
    job_id = UUID(str(fetch_value(conn, query, params)))
    conn.execute(
        "INSERT INTO block (job_id, serial) VALUES (%(job_id)s, %(serial)s)", {"job_id": job_id, "serial": new.serial}
    )
    add_revision(conn, job_id)
    announce(conn, job_id)
    return job_id


def add_holes(conn: Conn, job_id: UUID, numbers: tuple[int, ...]) -> None:
    """Add the holes of a job's block."""
    query = """
        INSERT INTO hole (block_id, number)
        SELECT block_id, %(number)s FROM block WHERE job_id = %(job_id)s
    """
    for number in numbers:
        conn.execute(query, {"job_id": job_id, "number": number})


def list_holes(conn: Conn, job_id: UUID) -> tuple[Hole, ...]:
    """Return the holes of a job by number."""
    query = """
        SELECT h.hole_id, h.number, h.bank
          FROM hole h JOIN block b USING (block_id)
         WHERE b.job_id = %(job_id)s
         ORDER BY h.number
    """
    return fetch_all(conn, Hole, query, {"job_id": job_id})


def list_cards_chosen(conn: Conn, job_id: UUID) -> tuple[CardChosen, ...]:
    """Return every choice of a card version for a job, oldest first."""
    query = """
        SELECT c.spec_card_version_id, c.chosen_at, p.name AS chosen_by, c.event, v.card ->> 'name' AS name, v.version,
               v.card ->> 'engine' AS engine, c.reason, (SELECT coalesce(sum((part #>> '{thickness,um}')::numeric), 0)
                            FROM jsonb_array_elements(v.card #> '{measuring,between}') part) AS between_um
          FROM job_card c
          JOIN person p ON p.person_id = c.chosen_by
          JOIN spec_card_version v USING (spec_card_version_id)
         WHERE c.job_id = %(job_id)s
         ORDER BY c.event
    """
    return fetch_all(conn, CardChosen, query, {"job_id": job_id})


def present_card_version(conn: Conn, job_id: UUID) -> UUID:
    """Return the card version that judges a job now."""
    query = """
        SELECT spec_card_version_id
          FROM job_card
         WHERE job_id = %(job_id)s AND NOT is_struck(job_id, event)
         ORDER BY event DESC LIMIT 1
    """
    version_id = fetch_value(conn, query, {"job_id": job_id})
    if version_id is None:
        raise NotFound("job", job_id)
    return UUID(str(version_id))
