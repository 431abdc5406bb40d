"""The sums alone, for scripts and spreadsheets: nothing is stored, lengths in metres."""

from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import LengthText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import (
    Angles,
    Between,
    Depth,
    NotNegativeSmall,
    Reading,
    Shim,
    Small,
    Uncertainty,
)
from vallostasis.api.trail import StepView
from vallostasis.core.counterbore.cut_plan import (
    CutParts,
    CutRefusal,
    CutterTrust,
    SeatLimits,
    fixed_cut_outcomes,
    plan_cut,
)
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.lengths import Unit, metres
from vallostasis.core.measuring.budget import exactly
from vallostasis.core.measuring.decision import State, decide, decision_step
from vallostasis.core.measuring.entry_line import Position, parse_entry_line
from vallostasis.core.measuring.features import feature_of
from vallostasis.core.measuring.plane import fit_plane, plane_step
from vallostasis.core.measuring.senses import senses_of
from vallostasis.core.notation import ExpectedRange, parse_diameter, parse_length, unit_step
from vallostasis.core.protrusion.stack import part, predict_protrusion
from vallostasis.core.records import Quantity
from vallostasis.core.usual_lengths import whole_size_of

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

FEW = Field(max_length=360)
# Nothing is farther off than this where only one bound is given. [µm]
NO_BOUND_UM = Decimal(100_000_000)

DECISION_WORDS = {State.IN: "conform", State.OUT: "not conform", State.CANNOT_TELL: "not decidable"}


class ParseRequest(BaseModel):
    """Text in shop notation: a length, or a whole entry line when holes are given."""

    text: LengthText
    bare_unit: Unit = Field(description="Unit that a number without a unit takes.")
    confirmed: bool = Field(False, description="True when a question was answered with: yes, as typed.")
    least_um: Decimal | None = Field(None, description="Least value taken without asking. [µm]", allow_inf_nan=False)
    greatest_um: Decimal | None = Field(
        None, description="Greatest value taken without asking. [µm]", allow_inf_nan=False
    )
    holes: list[Annotated[int, Field(ge=1, le=99)]] = Field(
        [], max_length=99, description="Hole numbers; given, the text is read as [hole] [clock]h value."
    )
    quantity: Quantity | None = Field(None, description="What is read: it says which sign deep or tight give.")
    zero_um: Decimal | None = Field(
        None, gt=0, le=10_000_000, description="Size the gauge was zeroed on: a whole size is understood. [µm]"
    )
    present_hole: int | None = Field(None, ge=1, le=99)
    present_hour: float | None = Field(None, gt=0, le=12)


class ParseAnswer(BaseModel):
    """What the text says; no value when it only chooses a hole or position."""

    hole: int | None
    hour: float | None
    value_um: Decimal | None = Field(description="Exact value. [µm]")
    value_m: float | None = Field(description="The same value. [m]")
    number: Decimal | None = Field(description="The number as it was given.")
    unit: Unit | None = Field(description="The unit it was given in.")
    unit_was_typed: bool
    is_whole_size: bool = Field(description="The whole size was typed; the value is what it deviates from the zero.")
    typed: str = Field(description="The length as typed, without hole and clock position.")
    trail: list[StepView]


@router.post("/parse")
def compute_parse(ask: ParseRequest) -> ParseAnswer:
    """Read a length or an entry line in shop notation, exactly; asks back instead of guessing."""
    expected = None
    if ask.least_um is not None or ask.greatest_um is not None:
        least = -NO_BOUND_UM if ask.least_um is None else ask.least_um
        greatest = NO_BOUND_UM if ask.greatest_um is None else ask.greatest_um
        if least > greatest:
            raise OutOfDomain(f"the least value, {least} µm, lies above the greatest, {greatest} µm", "least_um")
        expected = ExpectedRange(least, greatest)
    present = Position(ask.present_hole, ask.present_hour)
    senses = {} if ask.quantity is None else senses_of(ask.quantity)
    if ask.holes:
        line = parse_entry_line(ask.text, present, tuple(ask.holes), ask.bare_unit, expected, ask.confirmed, senses)
        position, reading = line.position, line.reading
    else:
        is_diameter = ask.quantity is None or feature_of(ask.quantity).is_diameter
        reads = parse_diameter if is_diameter else parse_length
        position, reading = present, reads(ask.text, ask.bare_unit, expected, ask.confirmed, senses)
    size = None if reading is None or ask.zero_um is None else whole_size_of(reading, ask.zero_um)
    reading = size or reading
    return ParseAnswer(
        hole=position.hole,
        hour=position.hour,
        value_um=None if reading is None else reading.value_um,
        value_m=None if reading is None else metres(reading.value_um),
        number=None if reading is None else reading.number,
        unit=None if reading is None else reading.unit,
        unit_was_typed=reading is not None and reading.unit_was_typed,
        is_whole_size=size is not None,
        typed="" if reading is None else reading.typed,
        trail=[] if reading is None else [StepView.of(unit_step(reading))],
    )


class PlaneRequest(BaseModel):
    """Readings round a circle."""

    angles_deg: Angles
    readings_m: Annotated[list[Reading], FEW]


class PlaneAnswer(BaseModel):
    """z = a + b·cosθ + c·sinθ by least squares; the high side in the sense of the angles given."""

    mean_m: float
    b_m: float
    c_m: float
    tilt_amplitude_m: float = Field(description="√(b² + c²), half of high to low. [m]")
    high_to_low_tilt_m: float
    high_side_deg: float | None = Field(description="Null without a tilt. [deg]")
    residuals_m: list[float]
    rms_residual_m: float = Field(description="Root mean square, divided by the number of readings. [m]")
    max_abs_residual_m: float
    range_m: float
    trail: list[StepView]


@router.post("/plane")
def compute_plane(ask: PlaneRequest) -> PlaneAnswer:
    """Fit a plane to readings round a circle."""
    plane = fit_plane(ask.angles_deg, ask.readings_m)
    return PlaneAnswer(
        mean_m=plane.mean_m,
        b_m=plane.b_m,
        c_m=plane.c_m,
        tilt_amplitude_m=plane.tilt_amplitude_m,
        high_to_low_tilt_m=plane.high_to_low_m,
        high_side_deg=plane.high_side_deg,
        residuals_m=plane.residuals_m.tolist(),
        rms_residual_m=plane.rms_residual_m,
        max_abs_residual_m=float(abs(plane.residuals_m).max()),
        range_m=max(ask.readings_m) - min(ask.readings_m),
        trail=[StepView.of(plane_step(plane, "" if plane.high_side_deg is None else f"{plane.high_side_deg:.1f}°"))],
    )


class StackRequest(BaseModel):
    """Parts of a stack with standard uncertainties, and the limits it is held against."""

    flange_m: Depth
    shims_m: Annotated[list[Shim], FEW] = []
    nominal_shim_m: Shim | None = Field(None, description="One more shim, by its nominal size. [m]")
    measured_shims_m: Annotated[list[Shim], FEW] = Field(
        [], description="The same shim as measured, each taken alone. [m]"
    )
    depth_m: Depth
    between_m: Annotated[list[Between], FEW] = Field(
        [], description="What lies between deck and measuring face, each once. [m]"
    )
    u_flange_m: Uncertainty = 0.0
    u_shims_m: Annotated[list[Uncertainty], FEW] = []
    u_depth_m: Uncertainty = 0.0
    lower_limit_m: Small | None = None
    upper_limit_m: Small | None = None
    coverage_k: Annotated[float, Field(ge=1, le=4)] = 2.0


class StackAnswer(BaseModel):
    """Protrusion by the parts; decision conform, not conform or not decidable."""

    protrusion_m: float
    u_m: float = Field(description="Standard uncertainty. [m]")
    U_m: float = Field(description="Expanded uncertainty k·u. [m]")
    decision: str | None = Field(description="Null without a limit to be held against.")
    protrusion_nominal_m: float | None = Field(None, description="With the one more shim at its nominal size. [m]")
    protrusion_measured_m: list[float] = Field([], description="With the same shim as measured. [m]")
    trail: list[StepView]


@router.post("/stack")
def compute_stack(ask: StackRequest) -> StackAnswer:
    """Predict protrusion from flange, shims, ledge depth and what lies between, and decide it."""
    if ask.u_shims_m and len(ask.u_shims_m) != len(ask.shims_m):
        raise OutOfDomain("u_shims_m gives one standard uncertainty for each of shims_m, or none", "u_shims_m")
    trusts = ask.u_shims_m or [0.0] * len(ask.shims_m)
    shims = tuple(part(f"shim {i + 1}", size, trusts[i]) for i, size in enumerate(ask.shims_m))
    between = tuple(part(f"between {i + 1}", size) for i, size in enumerate(ask.between_m))
    flange, depth = part("flange", ask.flange_m, ask.u_flange_m), part("depth", ask.depth_m, ask.u_depth_m)
    predicted = predict_protrusion(flange, shims, depth, between, ask.coverage_k)
    expanded, limits = predicted.stated.expanded_m, (ask.lower_limit_m, ask.upper_limit_m)
    decision = None if limits == (None, None) else decide(predicted.protrusion_m, expanded, *limits)
    return StackAnswer(
        protrusion_m=predicted.protrusion_m,
        u_m=predicted.stated.standard_m,
        U_m=expanded,
        decision=None if decision is None else DECISION_WORDS[decision.guarded],
        protrusion_nominal_m=None if ask.nominal_shim_m is None else predicted.protrusion_m + ask.nominal_shim_m,
        protrusion_measured_m=[predicted.protrusion_m + shim for shim in ask.measured_shims_m],
        trail=[StepView.of(step) for step in predicted.trail],
    )


class DecisionRequest(BaseModel):
    """A value with its expanded uncertainty and its limits."""

    value_m: Reading
    U_m: NotNegativeSmall = Field(description="Expanded uncertainty. [m]")
    lower_limit_m: Reading | None = None
    upper_limit_m: Reading | None = None


class DecisionAnswer(BaseModel):
    """Conform, not conform, or not decidable."""

    decision: str | None = Field(description="Null without a limit to be held against.")
    state: State | None = Field(description="The same in the words of the bench.")
    trail: list[StepView]


@router.post("/decision")
def compute_decision(ask: DecisionRequest) -> DecisionAnswer:
    """Decide a value against its limits beyond its uncertainty."""
    limits = ask.lower_limit_m, ask.upper_limit_m
    if limits == (None, None):
        return DecisionAnswer(decision=None, state=None, trail=[])
    state = decide(ask.value_m, ask.U_m, *limits).guarded
    step = decision_step(f"Decision: {state.value}", ask.value_m, ask.U_m, *limits)
    return DecisionAnswer(decision=DECISION_WORDS[state], state=state, trail=[StepView.of(step)])


class CutPlanRequest(BaseModel):
    """Present depths of a ledge, the parts, and what the cut must keep to."""

    present_depths_m: Annotated[list[Depth], FEW]
    flange_m: Depth
    target_protrusion_m: Small
    min_protrusion_m: Small
    max_protrusion_m: Small
    shims_m: Annotated[list[Shim], FEW]
    min_cleanup_cut_m: NotNegativeSmall
    max_depth_m: Depth | None = None
    between_m: Between = 0.0
    graduation_m: Annotated[float, Field(allow_inf_nan=False, gt=0, le=0.01)] = Field(25.4e-6, description="[m]")
    stop_accuracy_m: NotNegativeSmall = Field(25.4e-6, description="± [m]")
    graduation_error: Annotated[float, Field(allow_inf_nan=False, ge=0, le=1)] = Field(0.05, description="± share [1]")
    u_flange_m: Uncertainty = 0.0
    u_shim_m: Uncertainty = 0.0
    u_depth_m: Uncertainty = 0.0
    u_between_m: Uncertainty = 0.0
    coverage_k: Annotated[float, Field(ge=1, le=4)] = 2.0
    naive_cut_m: NotNegativeSmall | None = Field(None, description="Compare with a fixed cut below one reference. [m]")
    naive_shim_m: Shim | None = None


class CutPlanAnswer(BaseModel):
    """A plan, or feasible false with the reason."""

    feasible: bool
    reason: str = ""
    shim_m: float | None = None
    target_depth_m: float | None = None
    cut_per_point_m: list[float] | None = None
    resulting_protrusion_m: float | None = None
    from_touch_off_m: float | None = None
    passes: int | None = None
    part_pass_um: Decimal | None = None
    by_stop_u_m: float | None = None
    by_gauge_u_m: float | None = None
    chance_inside_by_stop: float | None = None
    warnings: list[str] = Field([], description="What a plan that can be made still has against it.")
    present_protrusion_on_high_spot_m: float
    # A fixed cut with a fixed shim, called after the trade's "cut 29, fit 30", by the place it is counted from.
    naive_29_30_from_shallowest_protrusion_m: float | None = None
    naive_29_30_from_shallowest_verdict: str | None = None
    naive_29_30_from_shallowest_min_cut_m: float | None = None
    naive_29_30_from_mean_protrusion_m: float | None = None
    naive_29_30_from_mean_verdict: str | None = None
    naive_29_30_from_mean_min_cut_m: float | None = None
    naive_29_30_from_deepest_protrusion_m: float | None = None
    naive_29_30_from_deepest_verdict: str | None = None
    naive_29_30_from_deepest_min_cut_m: float | None = None
    trail: list[StepView] = []


@router.post("/cut-plan")
def compute_cut_plan(ask: CutPlanRequest) -> CutPlanAnswer:
    """Choose depth and shim: the thinnest that cleans up the ledge at every position."""
    limits = SeatLimits(ask.min_protrusion_m, ask.max_protrusion_m, ask.target_protrusion_m, ask.min_cleanup_cut_m,
                        ask.max_depth_m)  # fmt: skip
    depths, shims = tuple(ask.present_depths_m), tuple(ask.shims_m)
    cutter = CutterTrust(ask.graduation_m, ask.stop_accuracy_m, ask.graduation_error)
    parts = CutParts(
        depths=tuple(exactly(depth, ask.u_depth_m, "depth", ("depth", at)) for at, depth in enumerate(depths)),
        flange=part("flange", ask.flange_m, ask.u_flange_m),
        between=(part("between", ask.between_m, ask.u_between_m),),
        shim_standard_m=ask.u_shim_m,
        after=exactly(0.0, ask.u_depth_m, "depth after the cut"),
    )
    outcome = plan_cut(parts, shims, limits, cutter, ask.coverage_k)
    naive: dict[str, float | str] = {}
    if ask.naive_cut_m is not None and ask.naive_shim_m is not None:
        for one in fixed_cut_outcomes(depths, ask.flange_m, ask.between_m, ask.naive_cut_m, ask.naive_shim_m, limits):
            name = f"naive_29_30_from_{one.counted_from}"
            naive[f"{name}_protrusion_m"] = one.protrusion_m
            naive[f"{name}_verdict"] = one.verdict.value
            naive[f"{name}_min_cut_m"] = one.least_cut_m
    on_high_spot = ask.flange_m - ask.between_m - min(depths)
    if isinstance(outcome, CutRefusal):
        refused = CutPlanAnswer(feasible=False, reason=outcome.reason, present_protrusion_on_high_spot_m=on_high_spot)
        return refused.model_copy(update=naive)
    planned = CutPlanAnswer(
        feasible=True,
        shim_m=outcome.shim_m,
        target_depth_m=outcome.depth_m,
        cut_per_point_m=list(outcome.cuts_m),
        resulting_protrusion_m=outcome.protrusion_m,
        from_touch_off_m=outcome.from_touch_off_m,
        passes=outcome.passes.whole,
        part_pass_um=outcome.passes.rest_um,
        by_stop_u_m=outcome.by_stop.standard_m,
        by_gauge_u_m=outcome.by_gauge.standard_m,
        chance_inside_by_stop=outcome.chance_by_stop,
        warnings=[caution.value for caution in outcome.cautions],
        present_protrusion_on_high_spot_m=on_high_spot,
        trail=[StepView.of(step) for step in outcome.trail],
    )
    return planned.model_copy(update=naive)
