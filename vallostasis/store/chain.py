"""Links of the chain over each job, one for each entry, never changed."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from vallostasis.core.tape.chain import Link
from vallostasis.store.rows import Conn, fetch_all


@dataclass(frozen=True, slots=True)
class HeadFound:
    """An entry of a job whose link is a head that was shown."""

    job_id: UUID
    number: str
    name: str
    entry: int
    linked_at: datetime


@dataclass(frozen=True, slots=True)
class PrintingFound:
    """A proof that went out as a PDF with a digest that was shown."""

    job_id: UUID
    number: str
    name: str
    entries: int
    head: str
    printed_at: datetime
    printed_by: str


@dataclass(frozen=True, slots=True)
class OnRecord:
    """A proof that went out, or a job that came from a file: of which job, when, by whom, the digest, in words."""

    went_out: bool
    job_id: UUID
    number: str
    name: str
    at: datetime
    by: str
    sha256: str
    words: str


def list_on_record(conn: Conn, most: int) -> tuple[OnRecord, ...]:
    """Return what went out and came in, the newest first."""
    query = """
        SELECT r.went_out, r.job_id, j.number, j.name, r.at, w.name AS by, r.sha256, r.words
          FROM (SELECT true AS went_out, job_id, printed_at AS at, printed_by AS by, sha256,
                       entries || ' entries, head ' || left(head, 8) AS words, event FROM printing
                UNION ALL
                SELECT false, job_id, brought_at, brought_by, sha256,
                       concat_ws('; ', nullif(file_name, ''), nullif(words, '')), event FROM brought_in) r
          JOIN job j USING (job_id) JOIN person w ON w.person_id = r.by
         ORDER BY r.event DESC LIMIT %(most)s
    """
    return fetch_all(conn, OnRecord, query, {"most": most})


def list_links(conn: Conn, job_id: UUID) -> tuple[str, ...]:
    """Return the links of a job, oldest first."""
    query = "SELECT sha256 FROM chain_link WHERE job_id = %(job_id)s ORDER BY entry"
    return tuple(row[0] for row in conn.execute(query, {"job_id": job_id}))


def add_links(conn: Conn, job_id: UUID, links: Iterable[Link]) -> None:
    """Append links to the chain of a job; whoever does holds the job."""
    with conn.cursor() as cursor:
        cursor.executemany(
            "INSERT INTO chain_link (job_id, entry, sha256) VALUES (%(job_id)s, %(entry)s, %(sha256)s)",
            [{"job_id": job_id, "entry": link.entry, "sha256": link.sha256} for link in links],
        )


def find_head(conn: Conn, sha256: str) -> HeadFound | None:
    """Return the entry that has this link, or None."""
    query = """
        SELECT c.job_id, j.number, j.name, c.entry, c.linked_at
          FROM chain_link c JOIN job j USING (job_id)
         WHERE c.sha256 = %(sha256)s
    """
    rows = fetch_all(conn, HeadFound, query, {"sha256": sha256})
    return rows[0] if rows else None


def find_printing(conn: Conn, sha256: str) -> PrintingFound | None:
    """Return the proof that went out as a PDF of that digest, or None."""
    query = """
        SELECT p.job_id, j.number, j.name, p.entries, p.head, p.printed_at, w.name AS printed_by
          FROM printing p JOIN job j USING (job_id) JOIN person w ON w.person_id = p.printed_by
         WHERE p.sha256 = %(sha256)s
         ORDER BY p.event LIMIT 1
    """
    rows = fetch_all(conn, PrintingFound, query, {"sha256": sha256})
    return rows[0] if rows else None
