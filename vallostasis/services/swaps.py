"""The swap table of a job."""

from uuid import UUID

from vallostasis.core.matching.swaps_of_job import SwapsOfJob, swaps_of
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def swaps_now(conn: Conn, job_id: UUID) -> SwapsOfJob | str:
    """Tell holes from liners by every fitting that was read, or say why nothing can be told."""
    return swaps_of(load_job_facts(conn, job_id))
