"""Cut plans, cuts and fittings."""

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.api.survey_models import SettlingView
from vallostasis.api.trail import StepView
from vallostasis.api.why_models import HoleWhyView, RuleWhy
from vallostasis.core.counterbore.hole_plan import HolePlan, HoleRefusal
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.protrusion.why import limits_used
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import block, fitting
from vallostasis.store import jobs as job_rows

router = APIRouter(prefix="/api/holes", tags=["counterbore"], responses=ERROR_RESPONSES)


class CutAt(BaseModel):
    """Present depth and cut at one clock position. [m]"""

    hour: float
    present_depth_m: float
    cut_m: float | None


class TriedShimView(BaseModel):
    """A shim size that does not do, and why. [m]"""

    shim_m: float
    what: str
    value_m: float
    needed_m: float


class FixedCutView(BaseModel):
    """What the same cut gives counted from one reference on the ledge. [m]"""

    counted_from: str
    protrusion_m: float
    verdict: str


class NeighbourAfterView(BaseModel):
    """Difference to a neighbour once the plan is reached, by the stop. [m]"""

    hole: int
    difference_m: float
    expanded_m: float
    limit_m: float | None
    state: State | None = Field(description="Null where the card sets no limit.")


class StackShare(BaseModel):
    """What one part of the stack brings to the ± by the stop: its half width alone [m], its share in the variance."""

    name: str
    half_width_m: float
    share: float


class PlannedCut(BaseModel):
    """A cut and a shim that can be made. Lengths in m, depths from the deck."""

    shim_m: float
    shim_typed: str
    shim_stock: int
    depth_m: float
    from_touch_off_m: float
    protrusion_m: float
    least_m: float
    greatest_m: float
    target_m: float
    passes: int
    part_pass_m: float
    without_part_pass_m: float
    graduation_m: float
    by_stop_expanded_m: float
    by_gauge_expanded_m: float
    chance_by_stop: float
    ledge_left_m: float | None
    ledge_left_expanded_m: float | None
    cautions: list[str]
    fixed_cuts: list[FixedCutView]
    neighbours: list[NeighbourAfterView]
    trail: list[StepView]
    stack: list[StackShare] = Field(description="What the ± by the stop is made of, part by part.")
    worst_case_m: float = Field(description="Every part at its worst at once, ±. [m]")

    @classmethod
    def of(cls, plan: HolePlan) -> "PlannedCut":
        """Show a plan."""
        cut, left = plan.cut, plan.ledge_left
        return cls(
            shim_m=cut.shim_m,
            shim_typed=plan.shim.typed,
            shim_stock=plan.shim.stock,
            depth_m=cut.depth_m,
            from_touch_off_m=cut.from_touch_off_m,
            protrusion_m=cut.protrusion_m,
            least_m=plan.limits.least_m,
            greatest_m=plan.limits.greatest_m,
            target_m=plan.limits.target_m,
            passes=cut.passes.whole,
            part_pass_m=metres(cut.passes.rest_um),
            without_part_pass_m=cut.without_part_pass_m,
            graduation_m=plan.graduation_m,
            by_stop_expanded_m=cut.by_stop.expanded_m,
            by_gauge_expanded_m=cut.by_gauge.expanded_m,
            chance_by_stop=cut.chance_by_stop,
            ledge_left_m=None if left is None else left.value_m,
            ledge_left_expanded_m=None if left is None else left.expanded_m,
            cautions=[caution.value for caution in plan.cautions],
            fixed_cuts=[
                FixedCutView(counted_from=one.counted_from, protrusion_m=one.protrusion_m, verdict=one.verdict.value)
                for one in plan.fixed_cuts
            ],
            neighbours=[
                NeighbourAfterView(hole=one.hole, difference_m=one.stated.value_m, expanded_m=one.stated.expanded_m,
                                   limit_m=one.limit_m, state=one.state)
                for one in plan.neighbours
            ],
            trail=[StepView.of(step) for step in cut.trail],
            stack=[StackShare(name=one.name, half_width_m=one.half_width_m, share=one.share) for one in plan.stack_up],
            worst_case_m=sum(one.half_width_m for one in plan.stack_up),
        )  # fmt: skip


class HolePlanView(BaseModel):
    """What is known for a cut of one hole, and the plan, or the reason why there is none. Lengths in m."""

    hole: int
    liner_mark: str
    land: str
    positions: list[CutAt]
    flange_m: float | None
    flange_expanded_m: float | None
    ledge_least_m: float | None
    reason: str = Field(description="Why there is no plan; empty where there is one.")
    tried: list[TriedShimView]
    plan: PlannedCut | None


class CutBody(BaseModel):
    """A cut as made; the client makes the id."""

    cut_id: UUID
    depth: LengthText = Field(description="Depth from the deck by the stop, as typed.")
    depth_unit: Unit = "mm"
    passes: Annotated[int, Field(ge=0, le=1000)]
    shim: LengthText = Field(description="The shim it was cut for.")
    shim_unit: Unit = "mm"
    note: LongText = ""
    confirmed: bool = False
    hold_reason: ShortText = Field("", description="Why hold points in the way are passed, by the person's name.")
    person_id: UUID


class ShimBody(BaseModel):
    """A shim as fitted."""

    nominal: LengthText
    measured: LengthText = ""
    side_up: Literal["bevel down", "bevel up", "no bevel"] = "bevel down"


class FittingBody(BaseModel):
    """A liner as fitted; the client makes the id."""

    fitting_id: UUID
    liner_mark: ShortText
    shims: Annotated[list[ShimBody], Field(max_length=4)] = []
    bare_unit: Unit = Field("mm", description="Of shims without a unit.")
    confirmed: bool = False
    exchange: bool = Field(False, description="A liner in another hole changes places with the one here.")
    ready: list[fitting.ReadyTick] = Field([], description="What was looked at before it went in.")
    hold_reason: ShortText = Field("", description="Why hold points in the way are passed, by the person's name.")
    person_id: UUID


class DrawBody(BaseModel):
    """Who drew the liner."""

    person_id: UUID


@router.get("/{hole_id}/cut-plan")
def read_cut_plan(hole_id: UUID, conn: Conn, liner_mark: ShortText = "") -> HolePlanView:
    """Plan cut and shim for one hole, with the liner in it or another one."""
    _, hole, plan = fitting.plan_of_hole(conn, hole_id, liner_mark)
    basis, planned = plan.basis, plan if isinstance(plan, HolePlan) else None
    refused = plan if isinstance(plan, HoleRefusal) else None
    cuts = [None] * len(basis.positions) if planned is None else planned.cut.cuts_m
    return HolePlanView(
        hole=hole.number,
        liner_mark=basis.liner.mark if basis.liner else "",
        land=basis.land,
        positions=[
            CutAt(hour=row.place.hour, present_depth_m=row.stated.value_m, cut_m=cut)
            for row, cut in zip(basis.positions, cuts, strict=True)
            if row.place.hour is not None and row.stated is not None
        ],
        flange_m=None if basis.flange is None else basis.flange.value_m,
        flange_expanded_m=None if basis.flange is None else basis.flange.expanded_m,
        ledge_least_m=basis.ledge_least_m,
        reason="" if refused is None else refused.reason,
        tried=[
            TriedShimView(shim_m=one.shim_m, what=one.what.value, value_m=one.value_m, needed_m=one.needed_m)
            for one in (() if refused is None else refused.tried)
        ],
        plan=None if planned is None else PlannedCut.of(planned),
    )


@router.get("/{hole_id}/why")
def read_why(hole_id: UUID, conn: Conn) -> HoleWhyView:
    """Open the state of one hole into its arithmetic, with limits and sources."""
    why = block.why_of_hole(conn, hole_id)
    present = why.facts.present_fitting(why.hole.hole_id)
    with_shim = present is not None and bool(why.facts.shims_of(present.fitting_id))
    return HoleWhyView(
        hole=why.hole.number,
        state=why.judgement.state.value,
        reason=why.judgement.reason,
        rules=[RuleWhy.of(rule, limits_used(why.facts.card, rule, with_shim)) for rule in why.judgement.rules],
        steps=[StepView.of(step) for step in why.steps],
        settling=[SettlingView.of(one) for one in why.settling],
    )


@router.post("/{hole_id}/cuts", status_code=201)
def record_cut(hole_id: UUID, body: CutBody, conn: Conn) -> Done:
    """Record a cut; 409 asks back when it predicts a protrusion outside the with-shim limits."""
    made = fitting.CutMade(**body.model_dump(exclude={"person_id", "hold_reason"}))
    fitting.record_cut(conn, hole_id, made, body.person_id, body.hold_reason)
    return Done(job_id=job_rows.job_of_hole(conn, hole_id))


@router.post("/{hole_id}/fittings", status_code=201)
def record_fitting(hole_id: UUID, body: FittingBody, conn: Conn) -> Done:
    """Record a liner fitted with its shims; the hole is not measured until it is read."""
    shims = tuple(
        fitting.ShimFitted(**shim.model_dump(), bare_unit=body.bare_unit, confirmed=body.confirmed)
        for shim in body.shims
    )
    fitting.record_fitting(
        conn,
        hole_id,
        body.fitting_id,
        body.liner_mark,
        shims,
        body.person_id,
        body.exchange,
        fitting.MadeReady(tuple(body.ready), body.hold_reason),
    )
    return Done(job_id=job_rows.job_of_hole(conn, hole_id))


@router.post("/{hole_id}/draw", status_code=201)
def draw_liner(hole_id: UUID, body: DrawBody, conn: Conn) -> Done:
    """Record that the liner was drawn out of a hole."""
    fitting.draw_liner(conn, hole_id, body.person_id)
    return Done(job_id=job_rows.job_of_hole(conn, hole_id))
