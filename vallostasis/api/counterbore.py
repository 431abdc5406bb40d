"""Cut plans, cuts and fittings."""

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.hole_models import RuleView
from vallostasis.api.readings import Done
from vallostasis.api.survey_models import SettlingView
from vallostasis.api.trail import StepView
from vallostasis.core.counterbore.cut_plan import CutPlan, CutRefusal
from vallostasis.core.counterbore.hole_plan import seat_limits
from vallostasis.core.lengths import Unit
from vallostasis.core.protrusion.why import limits_used
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


class NeighbourAfter(BaseModel):
    """Difference to a neighbour once the plan is reached. [m]"""

    hole: int
    difference_m: float
    expanded_m: float


class HolePlanView(BaseModel):
    """A cut and shim for one hole, or the reason why there is none. Lengths in m, depths from the deck."""

    hole: int
    liner_mark: str
    feasible: bool
    reason: str
    positions: list[CutAt]
    flange_m: float | None
    flange_expanded_m: float | None
    shim_m: float | None = None
    shim_typed: str = ""
    shim_stock: int | None = None
    depth_m: float | None = None
    from_touch_off_m: float | None = None
    protrusion_m: float | None = None
    least_m: float | None = None
    greatest_m: float | None = None
    target_m: float | None = None
    neighbour_limit_m: float | None = None
    passes: int | None = None
    part_pass_m: float | None = None
    without_part_pass_m: float | None = None
    graduation_m: float | None = None
    by_stop_expanded_m: float | None = None
    by_gauge_expanded_m: float | None = None
    chance_by_stop: float | None = None
    ledge_left_m: float | None = None
    ledge_left_expanded_m: float | None = None
    ledge_least_m: float | None = None
    tried: list[TriedShimView] = []
    fixed_cuts: list[FixedCutView] = []
    neighbours: list[NeighbourAfter] = []
    trail: list[StepView] = []


class LimitUsedView(BaseModel):
    """A limit of the card with its source. [m]"""

    name: str
    value_m: float
    typed: str
    source: str
    status: str


class RuleWhy(BaseModel):
    """A rule result with the limits behind it."""

    result: RuleView
    limits: list[LimitUsedView]


class HoleWhyView(BaseModel):
    """The state of a hole opened into its arithmetic."""

    hole: int
    state: str
    reason: str
    rules: list[RuleWhy]
    steps: list[StepView]
    settling: list[SettlingView]


class CutBody(BaseModel):
    """A cut as made; the client makes the id."""

    cut_id: UUID
    depth: LengthText = Field(description="Depth from the deck by the stop, as typed.")
    depth_unit: Unit = "mm"
    passes: Annotated[int, Field(ge=0, le=1000)]
    shim: LengthText = Field(description="The shim it was cut for; a bare number is mm.")
    note: LongText = ""
    confirmed: bool = False
    person_id: UUID


class ShimBody(BaseModel):
    """A shim as fitted; bare numbers are mm."""

    nominal: LengthText
    measured: LengthText = ""
    side_up: Literal["bevel down", "bevel up", "no bevel"] = "bevel down"


class FittingBody(BaseModel):
    """A liner as fitted; the client makes the id."""

    fitting_id: UUID
    liner_mark: ShortText
    shims: Annotated[list[ShimBody], Field(max_length=4)] = []
    person_id: UUID


@router.get("/{hole_id}/cut-plan")
def read_cut_plan(hole_id: UUID, conn: Conn, liner_mark: ShortText = "") -> HolePlanView:
    """Plan cut and shim for one hole, with the liner in it or another one."""
    facts, hole, plan = fitting.plan_of_hole(conn, hole_id, liner_mark)
    outcome = plan.outcome
    cuts: tuple[float | None, ...] = outcome.cuts_m if isinstance(outcome, CutPlan) else (None,) * len(plan.hours)
    view = HolePlanView(
        hole=hole.number,
        liner_mark=plan.liner.mark if plan.liner else "",
        feasible=isinstance(outcome, CutPlan),
        reason=outcome.reason if isinstance(outcome, CutRefusal) else "",
        positions=[
            CutAt(hour=hour, present_depth_m=depth, cut_m=cut)
            for hour, depth, cut in zip(plan.hours, plan.depths_m, cuts, strict=True)
        ],
        flange_m=plan.flange_m,
        flange_expanded_m=None if plan.flange is None else facts.card.coverage_factor * plan.flange.standard_m,
        ledge_least_m=plan.ledge_least_m,
        neighbour_limit_m=facts.card.limits.neighbour_difference.metres,
    )
    if isinstance(outcome, CutRefusal):
        view.tried = [
            TriedShimView(shim_m=t.shim_m, what=t.what, value_m=t.value_m, needed_m=t.needed_m) for t in outcome.tried
        ]
        return view
    limits, k = seat_limits(facts.card), facts.card.coverage_factor
    return view.model_copy(
        update={
            "shim_m": outcome.shim_m,
            "shim_typed": plan.shim.typed if plan.shim else "",
            "shim_stock": plan.shim.stock if plan.shim else None,
            "depth_m": outcome.depth_m,
            "from_touch_off_m": outcome.from_touch_off_m,
            "protrusion_m": outcome.protrusion_m,
            "least_m": limits.least_m,
            "greatest_m": limits.greatest_m,
            "target_m": limits.target_m,
            "passes": outcome.passes.whole,
            "part_pass_m": float(outcome.passes.rest_um) / 1e6,
            "without_part_pass_m": outcome.without_part_pass_m,
            "graduation_m": facts.card.cutter.graduation.metres,
            "by_stop_expanded_m": k * outcome.by_stop_standard_m,
            "by_gauge_expanded_m": k * outcome.by_gauge_standard_m,
            "chance_by_stop": outcome.chance_by_stop,
            "ledge_left_m": None if plan.ledge_left is None else plan.ledge_left.size_m,
            "ledge_left_expanded_m": None if plan.ledge_left is None else k * plan.ledge_left.standard_m,
            "fixed_cuts": [
                FixedCutView(counted_from=one.counted_from, protrusion_m=one.protrusion_m, verdict=one.verdict)
                for one in plan.naive
            ],
            "neighbours": [
                NeighbourAfter(hole=one.hole, difference_m=one.difference_m, expanded_m=k * one.standard_m)
                for one in plan.neighbours
            ],
            "trail": [StepView.of(step) for step in outcome.trail],
        }
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
        rules=[
            RuleWhy(
                result=RuleView.of(rule),
                limits=[
                    LimitUsedView(
                        name=used.name, value_m=used.value_m, typed=used.typed, source=used.source, status=used.status
                    )
                    for used in limits_used(why.facts.card, rule, with_shim)
                ],
            )
            for rule in why.judgement.rules
        ],
        steps=[StepView.of(step) for step in why.steps],
        settling=[SettlingView.of(one) for one in why.settling],
    )


@router.post("/{hole_id}/cuts", status_code=201)
def record_cut(hole_id: UUID, body: CutBody, conn: Conn) -> Done:
    """Record a cut; 409 asks back when it predicts a protrusion outside the with-shim limits."""
    fitting.record_cut(conn, hole_id, fitting.CutMade(**body.model_dump(exclude={"person_id"})), body.person_id)
    return Done(job_id=job_rows.job_of_hole(conn, hole_id))


@router.post("/{hole_id}/fittings", status_code=201)
def record_fitting(hole_id: UUID, body: FittingBody, conn: Conn) -> Done:
    """Record a liner fitted with its shims; the hole is not measured until it is read."""
    shims = tuple(fitting.ShimFitted(**shim.model_dump()) for shim in body.shims)
    fitting.record_fitting(conn, hole_id, body.fitting_id, body.liner_mark, shims, body.person_id)
    return Done(job_id=job_rows.job_of_hole(conn, hole_id))
