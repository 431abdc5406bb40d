"""Which revision of a job stands: new with every change, taken first by whoever writes."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.store.changes import CHANNEL
from vallostasis.store.rows import Conn, NotFound

# What all jobs share: gauges above all.
SHOP = UUID(int=0)


@dataclass(frozen=True, slots=True)
class Revision:
    """Stamps of a job and of what all jobs share."""

    job: UUID
    shop: UUID


def add_revision(conn: Conn, job_id: UUID) -> None:
    """Begin the revisions of a new job."""
    conn.execute("INSERT INTO revision (of_id) VALUES (%(job_id)s)", {"job_id": job_id})


def present_revision(conn: Conn, job_id: UUID) -> Revision | None:
    """Return the revision that is committed; None in a transaction that has written, where none is settled yet.

    Raises
    ------
    NotFound
        If there is no such job.
    """
    row = conn.execute(
        """
        SELECT job.stamp, shop.stamp, pg_current_xact_id_if_assigned() IS NULL
          FROM revision job, revision shop
         WHERE job.of_id = %(job_id)s AND shop.of_id = %(shop)s
        """,
        {"job_id": job_id, "shop": SHOP},
    ).fetchone()
    if row is None:
        raise NotFound("job", job_id)
    return Revision(row[0], row[1]) if row[2] else None


def of_everything(conn: Conn) -> str:
    """Return one word for how all jobs and what they share stand: another with every change of any of them."""
    row = conn.execute(
        "SELECT md5(string_agg(of_id::text || stamp::text, ',' ORDER BY of_id)) FROM revision"
    ).fetchone()
    return "" if row is None else str(row[0])


def advance(conn: Conn, job_id: UUID) -> Revision:
    """Let one writer at a time record to a job, and tell every screen of it once it is committed.

    Returns the revision that stood before.

    Raises
    ------
    NotFound
        If there is no such job.
    """
    row = conn.execute(
        f"""
        UPDATE revision SET before = stamp, stamp = gen_random_uuid()
         WHERE of_id = %(job_id)s
        RETURNING before, (SELECT stamp FROM revision WHERE of_id = %(shop)s),
                  pg_notify({CHANNEL}, %(job)s)
        """,
        {"job_id": job_id, "shop": SHOP, "job": str(job_id)},
    ).fetchone()
    if row is None:
        raise NotFound("job", job_id)
    return Revision(row[0], row[1])


def advance_shop(conn: Conn) -> None:
    """Let everything known of any job be read again: what they share changed."""
    conn.execute("UPDATE revision SET stamp = gen_random_uuid() WHERE of_id = %(shop)s", {"shop": SHOP})


def hold(conn: Conn, job_id: UUID) -> None:
    """Keep a job as it is until the transaction ends, without changing it; raise NotFound if there is none."""
    query = "SELECT 1 FROM revision WHERE of_id = %(job_id)s FOR UPDATE"
    if conn.execute(query, {"job_id": job_id}).fetchone() is None:
        raise NotFound("job", job_id)
