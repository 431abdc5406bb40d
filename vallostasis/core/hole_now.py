"""One hole as it stands now, finished: values with their ±, limits, rules, parts, what it needs.

Screen, floor, proof and scripts copy from here; nobody computes any of it again.
"""

from dataclasses import dataclass
from math import hypot

from vallostasis.core.counterbore.hole_plan import HolePlan, depth_window, expected_after_cut, plan_hole
from vallostasis.core.counterbore.ledge_report import LedgeReport, report_ledge
from vallostasis.core.needs import Need
from vallostasis.core.protrusion.measured import (
    HoleParts,
    depths_of,
    hole_parts,
    judge_job,
    measured_hole,
    protrusion_of,
)
from vallostasis.core.protrusion.stack import StackResidual
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Fitting, Hole, Quantity, ReadingSet
from vallostasis.core.shapes.clock import hour_of_angle
from vallostasis.core.subjects import need_of_hole
from vallostasis.core.surveys.derived import Derived, DerivedKind
from vallostasis.core.surveys.places import ReadingLimits, limits_of, newest_set
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Budget, Stated
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State

# Positions that make the centre this much less certain than evenly spaced ones are said to.
COSTLY = 1.5


@dataclass(frozen=True, slots=True)
class HoleNow:
    """Everything that is shown of one hole. Lengths in m, clock positions in h.

    ``mean`` is the centre of the plane through the positions, ``depths`` what stands of its ledge.
    """

    hole: Hole
    state: State
    reason: str
    reopened: str
    rules: tuple[RuleResult, ...]
    survey: Survey
    newest_set: ReadingSet | None
    limits: ReadingLimits
    fitting: Fitting | None
    with_shim: bool
    missing_hours: tuple[float, ...]
    unreadable: tuple[tuple[float, str], ...]
    mean: Stated | None
    variation: Stated | None
    tilt: Derived | None
    residual: StackResidual | None
    parts: HoleParts
    depths: Survey
    ledge: LedgeReport | None
    depth_window: tuple[float | None, float | None]
    expected: Stated | None
    need: Need
    clustered: Phrase | None

    @property
    def high_side_hour(self) -> float | None:
        """Clock position of the high side; None where scatter alone would show as much. [h]"""
        if self.tilt is None or self.tilt.direction_deg is None:
            return None
        return hour_of_angle(self.tilt.direction_deg)


@once
def hole_now(facts: JobFacts, hole: Hole) -> HoleNow:
    """Finish everything that is shown of one hole."""
    judged = next(one for one in judge_job(facts).holes if one.hole == hole.number)
    measured, survey, parts = measured_hole(facts, hole), protrusion_of(facts, hole), hole_parts(facts, hole)
    fitting = facts.present_fitting(hole.hole_id)
    mean, variation = survey.one_of(DerivedKind.MEAN), survey.one_of(DerivedKind.VARIATION)
    unreadable = ((row.place.hour, row.unreadable) for row in survey.places if row.unreadable)
    return HoleNow(
        hole=hole,
        state=judged.state,
        reason=judged.reason,
        reopened=measured.standing.reopened or measured.standing.disturbed,
        rules=judged.rules,
        survey=survey,
        newest_set=newest_set(facts, Quantity.PROTRUSION, survey.part),
        limits=limits_of(facts, Quantity.PROTRUSION, survey.part),
        fitting=fitting,
        with_shim=fitting is not None and bool(facts.shims_of(fitting.fitting_id)),
        missing_hours=survey.missing_hours,
        unreadable=tuple((hour, reason) for hour, reason in unreadable if hour is not None),
        mean=None if mean is None else mean.stated,
        variation=None if variation is None else variation.stated,
        tilt=survey.one_of(DerivedKind.TILT),
        residual=measured.residual,
        parts=parts,
        depths=depths_of(facts, hole),
        ledge=report_ledge(facts, hole),
        depth_window=depth_window(facts, hole),
        expected=None if mean is not None else expected_after_cut(facts, hole),
        need=need_of_hole(facts, hole, judged),
        clustered=_clustered(survey),
    )


def _clustered(survey: Survey) -> Phrase | None:
    """Say what positions that lie close together cost: the centre between them is a guess far from all of them."""
    mean = survey.one_of(DerivedKind.MEAN)
    if mean is None or survey.plane is None:
        return None
    own = [row.stated.budget.part_m(shared=False) for row in survey.read if row.stated is not None]
    budget = mean.stated.budget
    here = budget.part_m(shared=False)
    even = hypot(*own) / len(own)
    if here <= COSTLY * even:
        return None
    shared = budget.part_m(shared=True)
    terms = (
        Term("U", budget.expanded_m, "within"),
        Term("V", budget.coverage * hypot(even, shared), "within"),
    )
    return Phrase("These positions lie close together: the centre is known to ±{U}, spread evenly to ±{V}.", terms)


def budgets_of_hole(facts: JobFacts, hole: Hole) -> tuple[Budget, ...]:
    """What is behind every ± that is shown of a hole, its plan included. [m] GUM 5.1.2, each by its own function."""
    now = hole_now(facts, hole)
    k, parts = facts.card.coverage_factor, now.parts
    found: list[Budget | None] = [now.survey.budget]
    found += [one.stated.budget for one in now.survey.derived]
    found += [rule.stated.budget for rule in now.rules if rule.kind not in (RuleKind.READING, RuleKind.VARIATION)]
    found += [
        None if parts.flange is None else parts.flange.stated(k).budget,
        now.depths.budget,
        None if parts.ledge is None else parts.ledge.depth.budget,
        None if now.ledge is None else now.ledge.squareness.budget,
        None if now.ledge is None or now.ledge.left is None else now.ledge.left.budget,
        None if parts.prediction is None else parts.prediction.stated.budget,
        None if now.expected is None else now.expected.budget,
    ]
    plan = plan_hole(facts, hole)
    found += plan.budgets if isinstance(plan, HolePlan) else ()
    return tuple({one.what: one for one in found if one is not None}.values())
