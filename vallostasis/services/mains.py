"""The main bores of a job: sizes, line, and whether they are align-honed."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.mains.align import AlignDecision, align_decision
from vallostasis.core.mains.line import MainLine, line_of
from vallostasis.core.mains.sizes import MainNow, mains_of
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class MainsNow:
    """Every main bore, their line, and what is to be done."""

    mains: tuple[MainNow, ...]
    line: MainLine
    decision: AlignDecision


def mains_now(conn: Conn, job_id: UUID) -> MainsNow:
    """Return the main bores of a job."""
    facts = load_job_facts(conn, job_id)
    return MainsNow(mains_of(facts), line_of(facts), align_decision(facts))
