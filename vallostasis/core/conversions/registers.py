"""Two registers that hold one liner: are they in one line, and what it does to the liner where they are not.

References
----------
.. [1] Least-squares plane of readings round the clock: what a sweep shows of first order is how far two middles stand
   apart (common practice).
.. [2] JCGM 102:2011, Supplement 2 to the GUM, 6.5: coverage of a length in two directions (extremes.amplitude_of).
"""

from dataclasses import dataclass
from math import atan2, degrees

import numpy as np

from vallostasis.core.conversions.bent_liner import Bent, Tube, bent_by
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.effects import liner_inside_m
from vallostasis.core.fits.fit import Fit, FitRefused
from vallostasis.core.fits.materials import fit_material
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.shapes.clock import hour_of_angle
from vallostasis.core.shapes.plane import different_positions, plane_weights
from vallostasis.core.surveys.derived import Derived, DerivedKind, worst
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import value_of, weighted
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, judge
from vallostasis.core.uncertainty.extremes import amplitude_of, direction_within

# A level counts for a register that it was read within so much of. [m] House rule.
BESIDE_M = 0.01


@dataclass(frozen=True, slots=True)
class RegisterLine:
    """How far the lower register of a hole stands off the upper one, and what the liner makes of it. [m]

    ``hour`` is where the lower one stands off to, None where scatter alone would show as much. ``slack_m`` is what the
    fits leave free; ``bent`` what is beyond it with both ends held square, ``bent_most`` at the far end of the ±.
    ``after`` is how far out of round the bore was found once the liner was in.
    """

    hole: Hole
    survey: Survey
    rule: RuleResult | None
    hour: float | None
    within_deg: float | None
    slack_m: float | None
    bent: Bent | None
    bent_most: Bent | None
    strength_pa: float | None
    after: Derived | None
    state: State
    says: Phrase


def register_line(facts: JobFacts, hole: Hole, fit: Fit | FitRefused) -> RegisterLine:
    """Return whether the registers of a hole lie in one line.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    fit : Fit or FitRefused
        Its liner held against it: what clearance it has takes up what the registers are off.

    Returns
    -------
    RegisterLine
        Offset of the middles: first order of the sweep. [m]

    Notes
    -----
    A sweep of a round wall from e beside its middle reads e·cos θ; least squares [1]_, ± [2]_ of the module. Half the
    clearance at each register is taken up before the liner is bent: by definition.
    """
    part = part_with_key(facts, Quantity.REGISTER_LINE, f"hole-{hole.number}")
    assert part is not None
    survey = survey_of(facts, Quantity.REGISTER_LINE, part)
    after = _after(facts, hole)
    angles = np.asarray(survey.angles_deg, dtype=np.float64)
    if different_positions(angles) < 3:
        words = f"Sweep the lower register of hole {hole.number} from the upper one, at four clock positions."
        return RegisterLine(hole, survey, None, None, None, None, None, None, None, after, State.NOT_MEASURED,
                            Phrase(words))  # fmt: skip
    weights, k = plane_weights(angles)[0], facts.card.coverage_factor
    x, y = (weighted(zip((float(w) for w in row), survey.estimates, strict=True)) for row in weights[1:3])
    off = amplitude_of("registers off line", (x, y), 1.0, k)
    within = direction_within((x, y), k)
    hour = None if within is None else hour_of_angle(degrees(atan2(value_of(y), value_of(x))) % 360)
    rule = judge(RuleKind.READING, f"hole {hole.number}", off, (None, facts.card.conversion.off_line.metres),
                 facts.card.acceptance)  # fmt: skip
    doubtful = any(row.doubtful for row in survey.places)
    state = State.CANNOT_TELL if doubtful else State.NOT_MEASURED if survey.missing else rule.decision.state
    slack = _slack(facts, fit)
    tube = _tube(facts, fit)
    bent = most = None
    if slack is not None and tube is not None:
        bent = bent_by(tube, max(0.0, off.value_m - slack))
        most = bent_by(tube, max(0.0, off.value_m + off.expanded_m - slack))
    liner = fit_material(facts.card.liner_material)
    return RegisterLine(hole, survey, rule, hour, None if within is None else degrees(within), slack, bent, most,
                        None if liner is None else liner.strength_pa, after, state,
                        _says(rule, slack, bent, most))  # fmt: skip


def _slack(facts: JobFacts, fit: Fit | FitRefused) -> float | None:
    """What the clearance at both registers lets the liner shift; None where a register was not read. [m]"""
    terms = facts.card.conversion
    depths = (terms.upper_register.metres, terms.lower_register.metres)
    if not isinstance(fit, Fit) or None in depths:
        return None
    # A register that the liner was not read at is taken to hold it tight: that is the worse case.
    reach = (terms.register_length.metres or 0.0) + BESIDE_M
    clear = 0.0
    for depth in (depth for depth in depths if depth is not None):
        off, press = min((abs(one.depth_m - depth), one.press.value_m) for one in fit.levels)
        clear += max(0.0, -press) if off <= reach else 0.0
    return clear / 2


def _tube(facts: JobFacts, fit: Fit | FitRefused) -> Tube | None:
    terms, material = facts.card.conversion, fit_material(facts.card.liner_material)
    upper, lower = terms.upper_register.metres, terms.lower_register.metres
    if not isinstance(fit, Fit) or material is None or upper is None or lower is None:
        return None
    between = lower - upper - (terms.register_length.metres or 0.0)
    outside = fit.levels[0].liner.value_m
    inside = liner_inside_m(facts.card)
    if between <= 0 or not inside < outside:
        return None
    return Tube(inside, outside, between, material.elastic)


def _after(facts: JobFacts, hole: Hole) -> Derived | None:
    """How far out of round the bore was read with the liner in; None before."""
    if facts.present_fitting(hole.hole_id) is None or not facts.sets_of(Quantity.LINER_BORE):
        return None
    part = part_with_key(facts, Quantity.LINER_BORE, f"hole-{hole.number}")
    return None if part is None else worst(survey_of(facts, Quantity.LINER_BORE, part).derived,
                                           DerivedKind.OUT_OF_ROUND)  # fmt: skip


def _says(rule: RuleResult, slack: float | None, bent: Bent | None, most: Bent | None) -> Phrase:
    off = (Term("e", rule.value_m), Term("u", rule.expanded_m, "within"))
    start = "The lower register stands {e} ±{u} off the upper one"
    if bent is None or most is None or slack is None:
        return Phrase(f"{start}; what that does to the liner needs both depths on the card and a fit that was read.",
                      off)  # fmt: skip
    if most.off_m == 0:
        return Phrase(f"{start}: the fits leave {{f}} free, nothing is bent.", (*off, Term("f", slack)))
    stress = f"{most.stress_pa / 1e6:.0f} MPa"
    return Phrase(
        f"{start}, the fits leave {{f}} free: held square the liner is bent by {{b}}, up to {{m}}, and bears {stress}.",
        (*off, Term("f", slack), Term("b", bent.off_m), Term("m", most.off_m)),
    )
