"""The block of a job as it stands now: facts, states and what each hole needs."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.measuring.fitness import Settling, what_would_settle
from vallostasis.core.needs import Need, need_of_hole
from vallostasis.core.protrusion.measured import judge_job, measured_hole
from vallostasis.core.protrusion.rules import BlockJudgement, HoleJudgement
from vallostasis.core.protrusion.why import explain_hole
from vallostasis.core.records import Hole, Quantity
from vallostasis.core.trail import Step
from vallostasis.store import gauges, jobs
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class BlockNow:
    """Facts of a job, the judgement of its holes, and their needs by hole number."""

    facts: JobFacts
    judgement: BlockJudgement
    needs: dict[int, Need]


@dataclass(frozen=True, slots=True)
class HoleWhy:
    """One hole with the arithmetic behind its state."""

    facts: JobFacts
    hole: Hole
    judgement: HoleJudgement
    steps: tuple[Step, ...]
    settling: tuple[Settling, ...]


def block_of_job(conn: Conn, job_id: UUID) -> BlockNow:
    """Load a job and judge its block."""
    return judge_facts(load_job_facts(conn, job_id))


def judge_facts(facts: JobFacts) -> BlockNow:
    """Judge a block and say what each hole needs."""
    judgement = judge_job(facts)
    pairs = zip(facts.holes, judgement.holes, strict=True)
    return BlockNow(facts, judgement, {hole.number: need_of_hole(facts, hole, judged) for hole, judged in pairs})


def why_of_hole(conn: Conn, hole_id: UUID) -> HoleWhy:
    """Open the state of one hole into its arithmetic."""
    facts = load_job_facts(conn, jobs.job_of_hole(conn, hole_id))
    judgement = judge_job(facts)
    pairs = zip(facts.holes, judgement.holes, strict=True)
    hole, judged = next((hole, judged) for hole, judged in pairs if hole.hole_id == hole_id)
    trust = measured_hole(facts, hole).trust
    settling = what_would_settle(judged.rules, Quantity.PROTRUSION, trust, gauges.list_gauges(conn),
                                 facts.card.coverage_factor)  # fmt: skip
    return HoleWhy(facts, hole, judged, explain_hole(facts, hole, judged), settling)
