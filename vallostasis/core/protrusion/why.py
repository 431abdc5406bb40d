"""The arithmetic behind a hole's state, line by line."""

from dataclasses import dataclass
from math import sqrt
from statistics import fmean

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.measuring.clock import hour_name, hour_of_angle
from vallostasis.core.measuring.decision import RuleResult, decision_step
from vallostasis.core.protrusion.measured import hole_parts, measured_hole
from vallostasis.core.protrusion.plane import plane_step
from vallostasis.core.protrusion.rules import HoleJudgement, MeasuredHole
from vallostasis.core.records import Hole
from vallostasis.core.spec_card import Limit, Limits, SpecCard, typed_with_unit
from vallostasis.core.trail import Step, Term

GUM = "JCGM 100:2008 (GUM), 4.3.7 and 5.1.2"


@dataclass(frozen=True, slots=True)
class LimitUsed:
    """A limit that a rule was held against, with where it comes from. [m]"""

    name: str
    value_m: float
    typed: str
    source: str
    status: str


def limits_used(card: SpecCard, rule: RuleResult, with_shim: bool) -> tuple[LimitUsed, ...]:
    """Limits of the card behind one rule result, with their sources."""
    limits = card.limits
    named: dict[str, tuple[tuple[str, Limit], ...]] = {
        "protrusion": _reading_limits(limits, with_shim),
        "variation round": (("greatest variation round", limits.variation_round),),
        "difference to neighbour": (("greatest difference to neighbour", limits.neighbour_difference),),
        "average under one head": (
            ("least average under one head", limits.head_average_least),
            ("greatest average under one head", limits.head_average_greatest),
        ),
    }
    return tuple(
        LimitUsed(name, limit.length.metres, typed_with_unit(limit.length, card.unit), limit.source, limit.status.value)
        for name, limit in named.get(rule.rule, ())
        if limit.length is not None
    )


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
    """
    measured = measured_hole(facts, hole)
    steps: list[Step] = []
    if measured.readings:
        steps += [*_trust(measured, facts.card.coverage_factor), *_mean(measured, judgement)]
        steps += [_rule(rule) for rule in judgement.rules if rule.rule != "parts against reading"]
    parts = hole_parts(facts, hole)
    if parts.ledge is not None and parts.ledge.plane is not None:
        steps.append(
            Step("Ledge the flange comes to rest on: the fitted plane moved up to its highest reading",
                 "c = mean − greatest reading above the plane",
                 (Term("mean", parts.ledge.fitted_m, "size"),
                  Term("above", parts.ledge.fitted_m - parts.ledge.depth_m)),
                 Term("c", parts.ledge.depth_m, "size"), "least squares; stiff flange on a stiff ledge assumed")
        )  # fmt: skip
    if parts.prediction is not None:
        steps += parts.prediction.trail
    if measured.residual is not None and parts.prediction is not None and judgement.mean_m is not None:
        mean = fmean(reading.mean_m for reading in measured.readings)
        steps.append(
            Step("Reading against parts, within their joint uncertainty",
                 "r = measured − P, agrees while |r| ≤ U",
                 (Term("measured", mean), Term("P", parts.prediction.protrusion_m),
                  Term("U", measured.residual.expanded_m, "within")),
                 Term("r", measured.residual.residual_m), GUM)
        )  # fmt: skip
    return tuple(steps)


def _trust(measured: MeasuredHole, k: float) -> tuple[Step, ...]:
    trust = measured.trust
    return (
        Step("Uncertainty of one reading: its own part and the part shared by its zero",
             "U = k·√(u² + z²)",
             (Term("k", k, "count"), Term("u", trust.random_m, note="repeatability and graduation"),
              Term("z", trust.zero_m, note="graduation at the zero")),
             Term("U", k * sqrt(trust.random_m**2 + trust.zero_m**2), "within"), GUM),
    )  # fmt: skip


def _mean(measured: MeasuredHole, judgement: HoleJudgement) -> tuple[Step, ...]:
    terms = tuple(
        Term(hour_name(r.hour), r.mean_m, note=f"mean of {len(r.values_m)}" if len(r.values_m) > 1 else "")
        for r in measured.readings
    )
    mean = Step("Mean of the positions", "mean = sum / number", terms, Term("mean", judgement.mean_m or 0.0),
                "arithmetic mean")  # fmt: skip
    plane = judgement.plane
    if plane is None:
        return (mean,)
    return (mean, plane_step(plane, f"{hour_of_angle(plane.high_side_deg):.1f} h"))


def _rule(rule: RuleResult) -> Step:
    where = f" {'at ' if rule.rule == 'protrusion' else ''}{rule.where}" if rule.where else ""
    what = f"{rule.rule.capitalize()}{where}: {rule.decision.state.value}"
    return decision_step(what, rule.value_m, rule.expanded_m, rule.least_m, rule.greatest_m)
