"""What the proof says of bores: what was decided for each, by whom, and what was seen after the cut."""

from dataclasses import dataclass

from vallostasis.core.bores.decisions import contradictions, decision_of, look_of
from vallostasis.core.records.bore_decisions import BoreDecision, BoreLook
from vallostasis.core.records.job_facts import JobFacts


@dataclass(frozen=True, slots=True)
class ProofBore:
    """One bore as decided, the look after its cut, and what does not hold any more."""

    number: int
    decision: BoreDecision
    look: BoreLook | None
    against: str


def proof_bores(facts: JobFacts) -> tuple[ProofBore, ...]:
    """Collect every bore that something was decided for."""
    against = {one.hole: one.words for one in contradictions(facts)}
    return tuple(
        ProofBore(hole.number, decision, look_of(facts, hole), against.get(hole.number, ""))
        for hole in facts.holes
        if (decision := decision_of(facts, hole)) is not None
    )
