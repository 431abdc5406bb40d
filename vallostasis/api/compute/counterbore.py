"""Sums of the counterbore: the cut planned for one hole. Lengths in metres."""

from collections.abc import Iterable
from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import (
    FEW,
    Between,
    Depth,
    NotNegativeSmall,
    Shim,
    Small,
    Uncertainty,
)
from vallostasis.api.trail import StepView
from vallostasis.core.counterbore.cut_plan import CutParts, CutRefusal, CutterTrust, SeatLimits, plan_cut
from vallostasis.core.counterbore.fixed_cuts import FixedCut, fixed_cut_outcomes
from vallostasis.core.protrusion.stack import stack_part
from vallostasis.core.uncertainty.budget import exactly

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Trust = Annotated[float, Field(allow_inf_nan=False, ge=0, le=1)]


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


class FixedCutAnswer(BaseModel):
    """A fixed cut with a fixed shim, called after the trade's "cut 29, fit 30", by the place it is counted from."""

    naive_29_30_from_shallowest_protrusion_m: float | None = None
    naive_29_30_from_shallowest_verdict: str | None = None
    naive_29_30_from_shallowest_min_cut_m: float | None = None
    naive_29_30_from_mean_protrusion_m: float | None = None
    naive_29_30_from_mean_verdict: str | None = None
    naive_29_30_from_mean_min_cut_m: float | None = None
    naive_29_30_from_deepest_protrusion_m: float | None = None
    naive_29_30_from_deepest_verdict: str | None = None
    naive_29_30_from_deepest_min_cut_m: float | None = None

    @classmethod
    def of(cls, outcomes: Iterable[FixedCut]) -> "FixedCutAnswer":
        """Show what it gives from each place."""
        by_place = {one.counted_from: one for one in outcomes}
        shallowest, mean, deepest = (by_place[place] for place in ("shallowest", "mean", "deepest"))
        return cls(
            naive_29_30_from_shallowest_protrusion_m=shallowest.protrusion_m,
            naive_29_30_from_shallowest_verdict=shallowest.verdict.value,
            naive_29_30_from_shallowest_min_cut_m=shallowest.least_cut_m,
            naive_29_30_from_mean_protrusion_m=mean.protrusion_m,
            naive_29_30_from_mean_verdict=mean.verdict.value,
            naive_29_30_from_mean_min_cut_m=mean.least_cut_m,
            naive_29_30_from_deepest_protrusion_m=deepest.protrusion_m,
            naive_29_30_from_deepest_verdict=deepest.verdict.value,
            naive_29_30_from_deepest_min_cut_m=deepest.least_cut_m,
        )


class CutPlanAnswer(FixedCutAnswer):
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
    trail: list[StepView] = []


@router.post("/cut-plan")
def compute_cut_plan(ask: CutPlanRequest) -> CutPlanAnswer:
    """Choose depth and shim: the thinnest that cleans up the ledge at every position."""
    limits = SeatLimits(ask.min_protrusion_m, ask.max_protrusion_m, ask.target_protrusion_m, ask.min_cleanup_cut_m,
                        ask.max_depth_m)  # fmt: skip
    cutter = CutterTrust(ask.graduation_m, ask.stop_accuracy_m, ask.graduation_error)
    outcome = plan_cut(_parts(ask), tuple(ask.shims_m), limits, cutter, ask.coverage_k)
    naive = _fixed_cut(ask, limits).model_dump()
    on_high_spot = ask.flange_m - ask.between_m - min(ask.present_depths_m)
    if isinstance(outcome, CutRefusal):
        return CutPlanAnswer(
            feasible=False, reason=outcome.reason, present_protrusion_on_high_spot_m=on_high_spot, **naive
        )
    return CutPlanAnswer(
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
        **naive,
    )


def _parts(ask: CutPlanRequest) -> CutParts:
    return CutParts(
        depths=tuple(
            exactly(depth, ask.u_depth_m, "depth", ("depth", at)) for at, depth in enumerate(ask.present_depths_m)
        ),
        flange=stack_part("flange", ask.flange_m, ask.u_flange_m),
        between=(stack_part("between", ask.between_m, ask.u_between_m),),
        shim_standard_m=ask.u_shim_m,
        after=exactly(0.0, ask.u_depth_m, "depth after the cut"),
    )


def _fixed_cut(ask: CutPlanRequest, limits: SeatLimits) -> FixedCutAnswer:
    if ask.naive_cut_m is None or ask.naive_shim_m is None:
        return FixedCutAnswer()
    depths = tuple(ask.present_depths_m)
    return FixedCutAnswer.of(
        fixed_cut_outcomes(depths, ask.flange_m, ask.between_m, ask.naive_cut_m, ask.naive_shim_m, limits)
    )
