"""A link for a customer: it shows the proof of one job until a day, and nothing else."""

from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from vallostasis.services.tokens import hashed, new_token
from vallostasis.store import reader_links
from vallostasis.store.reader_links import ReaderLink
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class MadeLink:
    """A link, and the token that stands in it; only the token's hash is kept."""

    link: ReaderLink
    token: str


def make_link(conn: Conn, job_id: UUID, name: str, days: int) -> MadeLink:
    """Make a link to the proof of a job, good for some days."""
    token = new_token()
    return MadeLink(reader_links.add_link(conn, hashed(token), job_id, name, timedelta(days=days)), token)


def link_of(conn: Conn, token: str) -> ReaderLink | None:
    """Return the link that a token opens, or None."""
    return reader_links.find_link(conn, hashed(token)) if token else None
