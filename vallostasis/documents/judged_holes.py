"""How every hole of a job stands, as its file says it."""

from vallostasis.core.hole_now import hole_now
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.documents.job_file import JudgedHole


def judged_holes(facts: JobFacts) -> tuple[JudgedHole, ...]:
    """Return the state of every hole, with what it follows from. [m]"""
    return tuple(_judged(facts, hole) for hole in facts.holes)


def _judged(facts: JobFacts, hole: Hole) -> JudgedHole:
    now = hole_now(facts, hole)
    return JudgedHole(
        now.hole.number,
        now.state.value,
        now.reason,
        None if now.mean is None else now.mean.value_m,
        None if now.mean is None else now.mean.expanded_m,
        None if now.variation is None else now.variation.value_m,
    )
