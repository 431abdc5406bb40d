"""Jobs read before, kept while their revision stands: reading a job again costs one look at its stamp."""

import threading
from collections import OrderedDict
from dataclasses import dataclass
from uuid import UUID
from weakref import WeakKeyDictionary

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.store.revisions import Revision
from vallostasis.store.rows import AsyncConn, Conn

# So many jobs are kept; a shop works on a handful at a time.
MOST_JOBS = 64

_Key = tuple[str, int, str, UUID]
_lock = threading.Lock()
_known: "OrderedDict[_Key, KnownJob]" = OrderedDict()


_database_of: "WeakKeyDictionary[Conn | AsyncConn, tuple[str, int, str]]" = WeakKeyDictionary()


def _key(conn: Conn | AsyncConn, job_id: UUID) -> _Key:
    database = _database_of.get(conn)
    if database is None:
        # Each of the three asks the library anew: once for a connection is enough.
        database = _database_of[conn] = (conn.info.host, conn.info.port, conn.info.dbname)
    return (*database, job_id)


@dataclass(frozen=True, slots=True)
class KnownJob:
    """A job as it was read last, and the revision it stood at."""

    revision: Revision
    facts: JobFacts


def newest_known(conn: Conn | AsyncConn, job_id: UUID) -> KnownJob | None:
    """Return a job as it was read last, whether it still stands so or not; None when it was not read here."""
    with _lock:
        return _known.get(_key(conn, job_id))


def known_job(conn: Conn, job_id: UUID, revision: Revision) -> JobFacts | None:
    """Return what a job was at a revision, or None where that is not known."""
    key = _key(conn, job_id)
    with _lock:
        known = _known.get(key)
        if known is None or known.revision != revision:
            return None
        _known.move_to_end(key)
        return known.facts


def remember_job(conn: Conn | AsyncConn, job_id: UUID, revision: Revision, facts: JobFacts) -> None:
    """Keep what a job is at a revision that is committed."""
    key = _key(conn, job_id)
    with _lock:
        _known[key] = KnownJob(revision, facts)
        _known.move_to_end(key)
        while len(_known) > MOST_JOBS:
            _known.popitem(last=False)
