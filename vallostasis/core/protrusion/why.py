"""The arithmetic behind a hole's state, line by line."""

from vallostasis.core.protrusion.measured import hole_parts, measured_hole, protrusion_of
from vallostasis.core.protrusion.rules import HoleJudgement
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import Limit, Limits, SpecCard
from vallostasis.core.shapes.clock import hour_of_angle
from vallostasis.core.shapes.plane import plane_step
from vallostasis.core.surveys.derived import DerivedKind
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.surveys.why import GUM, LimitUsed, limits_told, rule_step, trust_step
from vallostasis.core.trail import Step, Term
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult


def limits_used(card: SpecCard, rule: RuleResult, with_shim: bool) -> tuple[LimitUsed, ...]:
    """Limits of the card behind one rule result, with their sources."""
    limits = card.limits
    named: dict[RuleKind, tuple[tuple[str, Limit], ...]] = {
        RuleKind.READING: _reading_limits(limits, with_shim),
        RuleKind.VARIATION: (("greatest variation round", limits.variation_round),),
        RuleKind.NEIGHBOUR: (("greatest difference to neighbour", limits.neighbour_difference),),
        RuleKind.HEAD_AVERAGE: (
            ("least average under one head", limits.head_average_least),
            ("greatest average under one head", limits.head_average_greatest),
        ),
    }
    return limits_told(named.get(rule.kind, ()), card)


def _reading_limits(limits: Limits, with_shim: bool) -> tuple[tuple[str, Limit], ...]:
    if with_shim:
        return (("least with shim", limits.least_with_shim), ("greatest with shim", limits.greatest_with_shim))
    return (("least without shim", limits.least_without_shim), ("greatest without shim", limits.greatest_without_shim))


def explain_hole(facts: JobFacts, hole: Hole, judgement: HoleJudgement) -> tuple[Step, ...]:
    """Write out the arithmetic behind a hole's state.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    judgement : HoleJudgement
        Its state by the rules of the card.

    Returns
    -------
    tuple of Step
        Trust in a reading, mean, plane, each rule, and the stack of parts. Lengths in m.

    Notes
    -----
    Each step names its own source, else it is common practice.
    """
    measured, survey = measured_hole(facts, hole), protrusion_of(facts, hole)
    steps: list[Step] = []
    if survey.budget is not None:
        steps += [trust_step(survey.budget), *_centre(survey)]
        steps += [rule_step(rule) for rule in judgement.rules if rule.kind is not RuleKind.PARTS]
    parts = hole_parts(facts, hole)
    if parts.ledge is not None and parts.ledge.plane is not None:
        steps.append(
            Step("Ledge the flange comes to rest on: the fitted plane moved up to its highest reading",
                 "c = centre − greatest reading above the plane",
                 (Term("centre", parts.ledge.fitted_m, "size"),
                  Term("above", parts.ledge.fitted_m - parts.ledge.depth_m)),
                 Term("c", parts.ledge.depth_m, "size"), "least squares; stiff flange on a stiff ledge assumed")
        )  # fmt: skip
    if parts.prediction is not None:
        steps += parts.prediction.trail
    if measured.residual is not None and parts.prediction is not None:
        predicted = parts.prediction.protrusion_m
        steps.append(
            Step("Reading against parts at the centre of the hole, within their joint uncertainty",
                 "r = measured − P, agrees while |r| ≤ U",
                 (Term("measured", predicted + measured.residual.residual_m), Term("P", predicted),
                  Term("U", measured.residual.expanded_m, "within")),
                 Term("r", measured.residual.residual_m), GUM)
        )  # fmt: skip
    return tuple(steps)


def _centre(survey: Survey) -> tuple[Step, ...]:
    terms = tuple(
        Term(row.name, row.value_m, note=f"mean of {len(row.readings)}" if len(row.readings) > 1 else "")
        for row in survey.read
        if row.value_m is not None
    )
    mean, tilt, plane = survey.one_of(DerivedKind.MEAN), survey.one_of(DerivedKind.TILT), survey.plane
    if mean is None:
        return ()
    if plane is None or tilt is None:
        return (Step("Mean of the positions", "mean = sum / number", terms, Term("mean", mean.stated.value_m),
                     "arithmetic mean"),)  # fmt: skip
    centre = Step("Centre of the plane through the positions, their mean where evenly spaced",
                  "a of z = a + b·cosθ + c·sinθ", terms, Term("centre", mean.stated.value_m),
                  "least squares")  # fmt: skip
    towards = "" if tilt.direction_deg is None else f"{hour_of_angle(tilt.direction_deg):.1f} h"
    return (centre, plane_step(plane, towards))
