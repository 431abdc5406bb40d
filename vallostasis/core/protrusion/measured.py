"""From what was recorded about a job to what the rules judge: surveys of every hole, and what its parts predict."""

from dataclasses import dataclass, replace

from vallostasis.core.features.parts import Part, part_with_key
from vallostasis.core.notation.lengths import metres
from vallostasis.core.protrusion.rules import BetweenLimits, BlockJudgement, MeasuredHole, RuleBook, judge_block
from vallostasis.core.protrusion.stack import (
    Ledge,
    StackPart,
    StackPrediction,
    StackResidual,
    compare_with_measured,
    ledge_from_depths,
    predict_protrusion,
)
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import FittedShim, Hole, Liner, Quantity
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION, UNLINED, SpecCard
from vallostasis.core.surveys.derived import centre_of
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.uncertainty.budget import Estimate, Shape, Source, estimate, mean_of
from vallostasis.core.uncertainty.decision import Standing
from vallostasis.core.uncertainty.half_widths import rectangular

# Half width of a shim's thickness when only its nominal size is known. Common practice, no
# published source: measure the shim to do better.
UNMEASURED_SHIM_M = 5e-6
# Half width of a measured shim: read with a micrometer graduated in hundredths of a millimetre and
# estimated to a fifth. Common practice, no published source.
MEASURED_SHIM_M = 2e-6
# Half width of a spacer plate or gasket whose thickness is taken from the card. Common practice, no published source.
BETWEEN_HALF_WIDTH_M = 5e-6

NO_LIMIT_DECIDES = "every place is read, and the card sets no limit that decides it"


@dataclass(frozen=True, slots=True)
class HoleParts:
    """What is known of the parts in a hole, and what they predict; ``missing`` names what is not known.

    ``doubt`` says that one of them was read on a zero that was found moved.
    """

    flange: StackPart | None
    shims: tuple[StackPart, ...]
    ledge: Ledge | None
    between: tuple[StackPart, ...]
    prediction: StackPrediction | None
    missing: tuple[str, ...]
    doubt: str


def rule_book(card: SpecCard) -> RuleBook:
    """How a card judges a block."""
    limits = card.limits
    between = BetweenLimits(
        limits.neighbour_difference.metres, limits.head_average_least.metres, limits.head_average_greatest.metres
    )
    return RuleBook(card.layout.heads, between, card.acceptance, card.coverage_factor)


def part_of_hole(facts: JobFacts, quantity: Quantity, hole: Hole) -> Part:
    """Return the part that a feature is read on in a hole."""
    part = part_with_key(facts, quantity, f"hole-{hole.number}")
    assert part is not None
    return part


def protrusion_of(facts: JobFacts, hole: Hole) -> Survey:
    """Return what stands of the protrusion of the liner in a hole."""
    return survey_of(facts, Quantity.PROTRUSION, part_of_hole(facts, Quantity.PROTRUSION, hole))


def depths_of(facts: JobFacts, hole: Hole) -> Survey:
    """Return what stands of the ledge of a hole since its last cut."""
    return survey_of(facts, Quantity.COUNTERBORE_DEPTH, part_of_hole(facts, Quantity.COUNTERBORE_DEPTH, hole))


def flange_of(facts: JobFacts, liner: Liner, land: str) -> Survey:
    """Return what stands of the flange thickness of a liner at a land."""
    part = part_with_key(facts, Quantity.FLANGE_THICKNESS, f"liner-{liner.mark}")
    assert part is not None
    return survey_of(facts, Quantity.FLANGE_THICKNESS, part, land)


@once
def flange_part(facts: JobFacts, liner: Liner, land: str) -> StackPart | None:
    """Flange thickness of a liner at a land: mean of its newest set there. [m] GUM 4.2.3."""
    survey = flange_of(facts, liner, land)
    if not survey.estimates or survey.relative:
        return None
    return StackPart(f"flange of {liner.mark} at the {land}", mean_of(survey.estimates))


@once
def ledge_of(facts: JobFacts, hole: Hole) -> Ledge | None:
    """Where a flange comes to rest in a hole, from the newest depths since its last cut. [m]"""
    survey = depths_of(facts, hole)
    if not survey.estimates or survey.relative:
        return None
    return ledge_from_depths(survey.estimates, survey.angles_deg, facts.card.coverage_factor)


def nominal_part(name: str, size_m: float, half_width_m: float, basis: str) -> StackPart:
    """A part that is known by its nominal size, within a half width. [m] GUM 4.3.7."""
    source = Source(name, rectangular(half_width_m), shape=Shape.RECTANGULAR, basis=basis, error=(name, size_m))
    return StackPart(name, estimate(size_m, (source,)))


def shim_part(shim: FittedShim) -> StackPart:
    """A shim under a liner, measured thickness where it is known. [m] GUM 4.3.7; half widths are common practice."""
    measured = shim.measured_um is not None
    name = f"shim {shim.typed}"
    source = Source(
        name,
        rectangular(MEASURED_SHIM_M if measured else UNMEASURED_SHIM_M),
        shape=Shape.RECTANGULAR,
        basis="measured" if measured else "nominal size, not measured",
        error=("shim", shim.fitting_id, shim.place),
    )
    return StackPart(name, estimate(metres(shim.thickness_um), (source,)))


def between_parts(card: SpecCard) -> tuple[StackPart, ...]:
    """What lies between deck and measuring face, each part once. [m]"""
    return tuple(
        nominal_part(one.name, one.thickness.metres, BETWEEN_HALF_WIDTH_M, "thickness from the card, ±5 µm")
        for one in card.measuring.between
    )


@once
def hole_parts(facts: JobFacts, hole: Hole) -> HoleParts:
    """Collect what is known of the parts in a hole and predict protrusion where nothing is missing."""
    fitting = facts.present_fitting(hole.hole_id)
    setup = facts.present_setup(Quantity.PROTRUSION)
    land = facts.card.measuring.land if setup is None else setup.land
    liner = None if fitting is None else facts.liner(fitting.liner_id)
    flange = None if liner is None else flange_part(facts, liner, land)
    ledge = ledge_of(facts, hole)
    shims = () if fitting is None else tuple(shim_part(shim) for shim in facts.shims_of(fitting.fitting_id))
    between = between_parts(facts.card)
    missing = []
    if liner is None:
        missing.append("a liner in the hole")
    elif flange is None:
        missing.append(f"flange thickness of {liner.mark} at the {land}")
    if ledge is None:
        missing.append(
            "counterbore depth" if facts.last_cut(hole.hole_id) is None else "counterbore depth after the cut"
        )
    prediction = None
    if flange is not None and ledge is not None:
        rests_on = StackPart("ledge the flange rests on", ledge.estimate)
        prediction = predict_protrusion(flange, shims, rests_on, between, facts.card.coverage_factor)
    doubt = doubt_of_parts(facts, hole, liner, land)
    return HoleParts(flange, shims, ledge, between, prediction, tuple(missing), doubt)


def doubt_of_parts(facts: JobFacts, hole: Hole, liner: Liner | None, land: str) -> str:
    """Say which part was read on a zero that was found moved; empty where none was."""
    if depths_of(facts, hole).doubt:
        return "The zero was found moved after the ledge was read: correct those depths or strike them first."
    if liner is not None and flange_of(facts, liner, land).doubt:
        return f"The zero was found moved after the flange of {liner.mark} was read: correct it or strike it first."
    return ""


def deciding_bore(facts: JobFacts, hole: Hole) -> Survey:
    """Return the bore that a hole without protrusion is judged by: its sleeve's once one is in, else the block's."""
    lined = facts.present_fitting(hole.hole_id) is not None and facts.card.construction not in UNLINED
    quantity = Quantity.LINER_BORE if lined else Quantity.BLOCK_BORE
    part = part_with_key(facts, quantity, f"hole-{hole.number}")
    assert part is not None
    return survey_of(facts, quantity, part)


@once
def measured_hole(facts: JobFacts, hole: Hole) -> MeasuredHole:
    """What the rules judge of one hole: the newest set of its present fitting, unstruck readings only.

    Where nothing stands proud, a hole is judged by its bore.
    """
    if facts.card.construction not in CONSTRUCTIONS_WITH_PROTRUSION:
        standing = deciding_bore(facts, hole).standing
        # No hole is in because nobody set a limit for it.
        undecided = standing if standing.rules else replace(standing, relative=standing.relative or NO_LIMIT_DECIDES)
        return MeasuredHole(hole.number, undecided)
    if facts.present_fitting(hole.hole_id) is None:
        was_cut = facts.last_cut(hole.hole_id) is not None
        as_found = ", nothing read as found" if facts.is_as_found(hole.hole_id) else ""
        reason = "cut, no liner fitted since" if was_cut else f"no liner is fitted{as_found}"
        return MeasuredHole(hole.number, Standing((), reopened=reason))
    survey = protrusion_of(facts, hole)
    centre = None if survey.missing or not survey.estimates else centre_of(survey.estimates, survey.angles_deg)
    return MeasuredHole(hole.number, survey.standing, centre, _residual(facts, hole, survey, centre))


def _residual(facts: JobFacts, hole: Hole, survey: Survey, centre: Estimate | None) -> StackResidual | None:
    """Hold reading against parts, plane against plane: a mean of some positions would carry the tilt."""
    parts = hole_parts(facts, hole)
    if centre is None or parts.prediction is None or parts.ledge is None:
        return None
    few = len(facts.card.measuring.required_hours) < 3
    if not few and (survey.plane is None or parts.ledge.plane is None):
        return None
    return compare_with_measured(centre, parts.prediction, facts.card.coverage_factor)


@once
def judge_job(facts: JobFacts) -> BlockJudgement:
    """Judge every hole of a job by the card version that holds now."""
    return judge_block(tuple(measured_hole(facts, hole) for hole in facts.holes), rule_book(facts.card))
