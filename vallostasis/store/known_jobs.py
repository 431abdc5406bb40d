"""Jobs read before, kept while their revision stands: reading a job again costs one look at its stamps.

Stamps are made anew with every change and never met twice, so that a job at its stamps is the same job whichever
database it stands in: one that was copied or restored is known as well.
"""

import threading
from collections import OrderedDict
from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.store.revisions import Revision

# So many jobs are kept, a shop works on a handful at a time; and so many revisions of one, since each is whole.
MOST_JOBS = 64
MOST_REVISIONS = 2


@dataclass(frozen=True, slots=True)
class KnownJob:
    """A job as it was read, and the revision it stood at."""

    revision: Revision
    facts: JobFacts


_lock = threading.Lock()
# Of each job its revisions, the one asked for last at the end; jobs in the same order.
_known: "OrderedDict[UUID, OrderedDict[Revision, KnownJob]]" = OrderedDict()


def newest_known(job_id: UUID) -> KnownJob | None:
    """Return a job as it was asked for last, whether it still stands so or not; None when it was not read here."""
    with _lock:
        revisions = _known.get(job_id)
        return None if not revisions else next(reversed(revisions.values()))


def known_job(job_id: UUID, revision: Revision) -> JobFacts | None:
    """Return what a job was at a revision, or None where that is not known."""
    with _lock:
        revisions = _known.get(job_id)
        known = None if revisions is None else revisions.get(revision)
        if revisions is None or known is None:
            return None
        revisions.move_to_end(revision)
        _known.move_to_end(job_id)
        return known.facts


def remember_job(job_id: UUID, revision: Revision, facts: JobFacts) -> None:
    """Keep what a job is at a revision that is committed."""
    with _lock:
        revisions = _known.setdefault(job_id, OrderedDict())
        revisions[revision] = KnownJob(revision, facts)
        revisions.move_to_end(revision)
        _known.move_to_end(job_id)
        while len(revisions) > MOST_REVISIONS:
            revisions.popitem(last=False)
        while len(_known) > MOST_JOBS:
            _known.popitem(last=False)
