"""What the core says of a job, asked in one place: value and ± as they are shown. [µm]"""

from vallostasis.core.counterbore.hole_plan import HolePlan, HoleRefusal, plan_hole
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.hole_now import hole_now
from vallostasis.core.protrusion.measured import hole_parts, judge_job, ledge_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.surveys.derived import DerivedKind
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.uncertainty.decision import State

Shown = tuple[float, float]


def mean_of_hole(facts: JobFacts, hole: int = 1) -> Shown:
    mean = hole_now(facts, facts.holes[hole - 1]).mean
    assert mean is not None
    return mean.value_m * 1e6, mean.expanded_m * 1e6


def rule_of_hole(facts: JobFacts, rule: str, hole: int = 1) -> Shown | None:
    rules = judge_job(facts).holes[hole - 1].rules
    return next(((one.value_m * 1e6, one.expanded_m * 1e6) for one in rules if one.rule == rule), None)


def state_of_hole(facts: JobFacts, hole: int = 1) -> State:
    return judge_job(facts).holes[hole - 1].state


def survey(facts: JobFacts, quantity: Quantity = Quantity.BLOCK_BORE, key: str = "hole-1") -> Survey:
    part = part_with_key(facts, quantity, key)
    assert part is not None
    return survey_of(facts, quantity, part)


def rule_of_survey(found: Survey, rule: str) -> Shown | None:
    return next(((one.value_m * 1e6, one.expanded_m * 1e6) for one in found.rules if one.rule == rule), None)


def state_of_rule(found: Survey, rule: str) -> State:
    return next(one.decision.state for one in found.rules if one.rule == rule)


def derived(found: Survey, kind: DerivedKind, where: str = "") -> Shown:
    one = next(one for one in found.derived if one.kind is kind and (not where or one.where == where))
    return one.stated.value_m * 1e6, one.stated.expanded_m * 1e6


def ledge_depth(facts: JobFacts, hole: int = 1) -> Shown:
    ledge = ledge_of(facts, facts.holes[hole - 1])
    assert ledge is not None
    return ledge.depth.value_m * 1e6, ledge.depth.expanded_m * 1e6


def predicted(facts: JobFacts, hole: int = 1) -> Shown:
    prediction = hole_parts(facts, facts.holes[hole - 1]).prediction
    assert prediction is not None
    return prediction.protrusion_m * 1e6, prediction.stated.expanded_m * 1e6


def by_the_stop(facts: JobFacts, hole: int = 1) -> tuple[Shown, float, float]:
    """Protrusion by the stop, depth that was planned, setting from touch-off. [µm]"""
    plan = plan_hole(facts, facts.holes[hole - 1])
    assert isinstance(plan, HolePlan)
    cut = plan.cut
    return (cut.protrusion_m * 1e6, cut.by_stop.expanded_m * 1e6), cut.depth_m * 1e6, cut.from_touch_off_m * 1e6


def cut_is_refused(facts: JobFacts, hole: int = 1) -> str:
    plan = plan_hole(facts, facts.holes[hole - 1])
    return plan.reason if isinstance(plan, HoleRefusal) else ""
