"""What does not add up on a job, tried with what a check would read."""

from uuid import UUID

from vallostasis.core.causes.of_job import AddsUp, adds_up
from vallostasis.core.causes.weigh import Finding
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def adds_up_now(conn: Conn, job_id: UUID, findings: tuple[Finding, ...]) -> AddsUp | str:
    """Weigh what may be behind the residuals of a job, or say why no pattern can be seen."""
    return adds_up(load_job_facts(conn, job_id), findings)
