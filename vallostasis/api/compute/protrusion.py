"""Sums of protrusion: the plane through readings, and what a stack of parts gives. Lengths in metres."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.compute.uncertainty import DECISION_WORDS
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import (
    FEW,
    Angles,
    Between,
    Depth,
    Reading,
    Shim,
    Small,
    Uncertainty,
)
from vallostasis.api.trail import StepView
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.protrusion.stack import predict_protrusion, stack_part
from vallostasis.core.shapes.plane import fit_plane, plane_step
from vallostasis.core.uncertainty.decision import decide

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)


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
    shims = tuple(stack_part(f"shim {i + 1}", size, trusts[i]) for i, size in enumerate(ask.shims_m))
    between = tuple(stack_part(f"between {i + 1}", size) for i, size in enumerate(ask.between_m))
    flange, depth = stack_part("flange", ask.flange_m, ask.u_flange_m), stack_part("depth", ask.depth_m, ask.u_depth_m)
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
