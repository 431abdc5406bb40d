"""What the proof says of honing: the size, every round and what it took, what is left at every level."""

from vallostasis.core.honing.now import HoneNow, hone_now
from vallostasis.core.records.honing import HoneAim
from vallostasis.core.records.job_facts import JobFacts


def proof_honing(facts: JobFacts) -> tuple[HoneNow, ...]:
    """Collect every hole that had a round, to its piston or to its sleeve."""
    rounds = {(one.hole_id, one.aim) for one in facts.standing(facts.hone_rounds)}
    return tuple(hone_now(facts, hole, aim) for hole in facts.holes for aim in HoneAim if (hole.hole_id, aim) in rounds)
