"""The block of a job as it stands now: facts and states."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.features.parts import parts_of
from vallostasis.core.features.plan import surveyed_features
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.protrusion.rules import BlockJudgement, HoleJudgement
from vallostasis.core.protrusion.why import explain_hole
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.surveys.fitness import Settling, what_would_settle
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.trail import Step
from vallostasis.core.uncertainty.decision import State
from vallostasis.store import gauges, jobs
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class BlockNow:
    """Facts of a job and the judgement of its holes."""

    facts: JobFacts
    judgement: BlockJudgement


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
    """Judge a block."""
    return BlockNow(facts, judge_job(facts))


@dataclass(frozen=True, slots=True)
class ChangedState:
    """What would become of a hole, or of a feature of a part, and why."""

    where: str
    hole: int | None
    before: State
    after: State
    reason: str


def changed_states(before: JobFacts, after: JobFacts) -> tuple[ChangedState, ...]:
    """List every state that differs between two views of the same job: holes, then surveys of what was measured."""
    pairs = zip(judge_job(before).holes, judge_job(after).holes, strict=True)
    changed = [
        ChangedState(f"hole {new.hole}", new.hole, old.state, new.state, new.reason)
        for old, new in pairs
        if old.state is not new.state
    ]
    measured = {after.setup(one.setup_id).quantity for one in after.sets}
    for quantity in (one for one in surveyed_features(after.card) if one in measured):
        for part in parts_of(after, quantity):
            old_survey, new_survey = survey_of(before, quantity, part), survey_of(after, quantity, part)
            if old_survey.state is not new_survey.state:
                changed.append(ChangedState(f"{quantity.value}, {part.title}", part.hole, old_survey.state,
                                            new_survey.state, new_survey.reason))  # fmt: skip
    return tuple(changed)


def why_of_hole(conn: Conn, hole_id: UUID) -> HoleWhy:
    """Open the state of one hole into its arithmetic."""
    facts = load_job_facts(conn, jobs.job_of_hole(conn, hole_id))
    judgement = judge_job(facts)
    pairs = zip(facts.holes, judgement.holes, strict=True)
    hole, judged = next((hole, judged) for hole, judged in pairs if hole.hole_id == hole_id)
    settling = what_would_settle(judged.rules, Quantity.PROTRUSION, gauges.list_gauges(conn),
                                 facts.card.coverage_factor)  # fmt: skip
    return HoleWhy(facts, hole, judged, explain_hole(facts, hole, judged), settling)
