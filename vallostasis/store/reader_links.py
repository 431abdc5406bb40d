"""Links with which a customer reads the proof of one job, known by the hash of what they hold."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from vallostasis.store.rows import Conn, fetch_all, fetch_one


@dataclass(frozen=True, slots=True)
class ReaderLink:
    """A link that stands: whose it is, which job it shows, until when."""

    reader_link_id: UUID
    job_id: UUID
    job_number: str
    job_name: str
    name: str
    made_at: datetime
    expires_at: datetime


COLUMNS = """
    SELECT l.reader_link_id, l.job_id, j.number AS job_number, j.name AS job_name, l.name, l.made_at, l.expires_at
      FROM reader_link l JOIN job j USING (job_id)
"""
STANDING = """
    l.expires_at > now() AND NOT EXISTS (SELECT 1 FROM reader_link_end e WHERE e.reader_link_id = l.reader_link_id)
"""


def add_link(conn: Conn, token_hash: bytes, job_id: UUID, name: str, good_for: timedelta) -> ReaderLink:
    """Make a link good for a while."""
    made = """
        INSERT INTO reader_link (token_hash, job_id, name, expires_at)
        VALUES (%(token_hash)s, %(job_id)s, %(name)s, now() + %(good_for)s)
    """
    params = {"token_hash": token_hash, "job_id": job_id, "name": name, "good_for": good_for}
    conn.execute(made, params)
    return fetch_one(conn, ReaderLink, f"{COLUMNS} WHERE l.token_hash = %(token_hash)s", params, "link")


def find_link(conn: Conn, token_hash: bytes) -> ReaderLink | None:
    """Return the link that holds a token, or None when it was ended or ran out."""
    query = f"{COLUMNS} WHERE l.token_hash = %(token_hash)s AND {STANDING}"
    rows = fetch_all(conn, ReaderLink, query, {"token_hash": token_hash})
    return rows[0] if rows else None


def list_links(conn: Conn) -> tuple[ReaderLink, ...]:
    """Return every link that stands, the newest first."""
    return fetch_all(conn, ReaderLink, f"{COLUMNS} WHERE {STANDING} ORDER BY l.made_at DESC")


def end_link(conn: Conn, reader_link_id: UUID) -> None:
    """Let a link show nothing any longer; saying it twice changes nothing."""
    conn.execute(
        """
        INSERT INTO reader_link_end (reader_link_id) VALUES (%(reader_link_id)s)
        ON CONFLICT (reader_link_id) DO NOTHING
        """,
        {"reader_link_id": reader_link_id},
    )
