"""What the proof says of boring: the size a piston asked for, every pass, what does not add up."""

from dataclasses import dataclass

from vallostasis.core.boring.ledger import Ledger, ledger_of
from vallostasis.core.boring.made_to_bore import MadeToBore, bored_to, made_to_bore
from vallostasis.core.boring.target import BoreTarget, target_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.trail import Phrase


@dataclass(frozen=True, slots=True)
class ProofBoring:
    """A hole that was bored: its target or why none is named, its passes."""

    number: int
    target: BoreTarget | None
    made: MadeToBore | None
    refused: Phrase | None
    ledger: Ledger


def proof_boring(facts: JobFacts) -> tuple[ProofBoring, ...]:
    """Collect every hole that had a pass."""
    bored = {one.hole_id for one in facts.standing(facts.boring_passes)}
    return tuple(_of_hole(facts, hole) for hole in facts.holes if hole.hole_id in bored)


def _of_hole(facts: JobFacts, hole: Hole) -> ProofBoring:
    target = made_to_bore(facts, hole) or target_of(facts, hole)
    return ProofBoring(
        hole.number,
        target if isinstance(target, BoreTarget) else None,
        target if isinstance(target, MadeToBore) else None,
        target if isinstance(target, Phrase) else None,
        ledger_of(facts, hole, bored_to(target)),
    )
