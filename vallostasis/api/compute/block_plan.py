"""Sums of the plan of a block, without a job. Lengths in metres."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import Between, Depth, NotNegativeSmall, Shim, Small, Uncertainty
from vallostasis.core.block_plans.plan import BlockPlan, PlanRule, plan_block
from vallostasis.core.block_plans.problem import (
    BlockProblem,
    BlockRules,
    HoleToPlan,
    LockKind,
    ShimStock,
    check_problem,
)
from vallostasis.core.counterbore.cut_plan import CutParts, CutterTrust, SeatLimits
from vallostasis.core.protrusion.stack import stack_part
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.uncertainty.budget import exactly
from vallostasis.core.uncertainty.decision import State, decide

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)


class HoleAsked(BaseModel):
    """One hole: depths of its ledge, its flange, its protrusion as it stands, what was decided of it. [m]"""

    hole: int
    present_depths_m: Annotated[list[Depth], Field(min_length=1, max_length=24)]
    flange_m: Depth
    protrusion_m: Small | None = None
    pits_m: Annotated[list[Depth], Field(max_length=20)] = Field([], description="Bottoms of pits below the deck. [m]")
    target_protrusion_m: Small | None = None
    lock: LockKind = LockKind.FREE
    lock_shim_m: Shim | None = None


class ShimAsked(BaseModel):
    """A shim size, how many there are, and what one costs. [m]"""

    size_m: Shim
    stock: Annotated[int, Field(ge=0, le=1000)]
    price: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)] = 0.0


class BlockPlanRequest(BaseModel):
    """Holes, shims, rules of the card, and how truly the cutter stops."""

    holes: Annotated[list[HoleAsked], Field(min_length=1, max_length=16)]
    shims: Annotated[list[ShimAsked], Field(max_length=16)]
    heads: Annotated[list[list[int]], Field(max_length=16)] = Field([], description="Holes under each; none: all.")
    target_protrusion_m: Small
    min_protrusion_m: Small
    max_protrusion_m: Small
    min_without_shim_m: Small | None = Field(None, description="Limits of a hole that is left; those on a shim else.")
    max_without_shim_m: Small | None = None
    min_cleanup_cut_m: NotNegativeSmall
    max_depth_m: Depth | None = None
    max_neighbour_difference_m: NotNegativeSmall | None = None
    min_head_average_m: Small | None = None
    max_head_average_m: Small | None = None
    between_m: Between = 0.0
    graduation_m: Annotated[float, Field(allow_inf_nan=False, gt=0, le=0.01)] = 25.4e-6
    stop_accuracy_m: NotNegativeSmall = 25.4e-6
    graduation_error: Annotated[float, Field(allow_inf_nan=False, ge=0, le=1)] = 0.05
    u_flange_m: Uncertainty = 0.0
    u_depth_m: Uncertainty = 0.0
    u_shim_m: Uncertainty = 0.0
    u_protrusion_m: Uncertainty = 0.0
    coverage_k: Annotated[float, Field(ge=1, le=4)] = 2.0
    rule: PlanRule = PlanRule.BEST
    may_order: bool = False
    guarded: bool = True


class HoleAnswer(BaseModel):
    """What the plan does to one hole. [m]"""

    hole: int
    cut: bool
    shim_m: float | None = None
    target_depth_m: float | None = None
    from_touch_off_m: float | None = None
    protrusion_m: float | None = None
    chance_inside: float | None = None
    open: bool
    why_open: str = ""


class BlockPlanAnswer(BaseModel):
    """The plan by the rule asked for."""

    holes: list[HoleAnswer]
    order: list[int]
    aims: dict[str, int]
    holes_open: int
    holes_cut: int
    ledge_spent_m: float
    all_inside: float
    proven_best: bool

    @classmethod
    def of(cls, plan: BlockPlan) -> "BlockPlanAnswer":
        """Show a plan."""
        holes = []
        for one in plan.holes:
            cut = one.choice.cut
            holes.append(
                HoleAnswer(
                    hole=one.hole.hole,
                    cut=cut is not None,
                    shim_m=None if cut is None else cut.shim_m,
                    target_depth_m=None if cut is None else cut.depth_m,
                    from_touch_off_m=None if cut is None else cut.from_touch_off_m,
                    protrusion_m=None if cut is None else cut.by_gauge.value_m,
                    chance_inside=one.chance,
                    open=bool(one.why_open),
                    why_open=one.why_open,
                )
            )
        return cls(
            holes=holes,
            order=list(plan.order),
            aims={aim.what: aim.value for aim in plan.aims},
            holes_open=len(plan.open_holes),
            holes_cut=len(plan.order),
            ledge_spent_m=plan.ledge_spent_m,
            all_inside=plan.chance.all_inside,
            proven_best=plan.proven_best,
        )


@router.post("/block-plan")
def compute_block_plan(ask: BlockPlanRequest) -> BlockPlanAnswer:
    """Plan the cut of a block: fewest holes open, fewest cut, least ledge spent, fewest shim sizes, least price."""
    limits = SeatLimits(ask.min_protrusion_m, ask.max_protrusion_m, ask.target_protrusion_m, ask.min_cleanup_cut_m,
                        ask.max_depth_m)  # fmt: skip
    heads = tuple(tuple(head) for head in ask.heads) or (tuple(one.hole for one in ask.holes),)
    acceptance = Acceptance.GUARDED if ask.guarded else Acceptance.SIMPLE
    rules = BlockRules(heads, limits, ask.max_neighbour_difference_m, ask.min_head_average_m, ask.max_head_average_m,
                       acceptance, ask.coverage_k)  # fmt: skip
    shims = tuple(ShimStock(one.size_m, one.stock, round(one.price * 100)) for one in ask.shims)
    cutter = CutterTrust(ask.graduation_m, ask.stop_accuracy_m, ask.graduation_error)
    holes = tuple(_hole(ask, one, rules) for one in ask.holes)
    problem = BlockProblem(holes, shims, rules, cutter, ask.may_order)
    check_problem(problem)
    return BlockPlanAnswer.of(plan_block(problem, ask.rule))


def _hole(ask: BlockPlanRequest, one: HoleAsked, rules: BlockRules) -> HoleToPlan:
    depths = tuple(exactly(m, ask.u_depth_m, "depth", (one.hole, at)) for at, m in enumerate(one.present_depths_m))
    between = (stack_part("between", ask.between_m),) if ask.between_m else ()
    after = exactly(0.0, ask.u_depth_m, "depth", (one.hole, "after"))
    flange = stack_part(f"flange of hole {one.hole}", one.flange_m, ask.u_flange_m)
    parts = CutParts(depths, flange, between, ask.u_shim_m, after, tuple(one.pits_m))
    now = None if one.protrusion_m is None else exactly(one.protrusion_m, ask.u_protrusion_m, "now", ("now", one.hole))
    state = State.NOT_MEASURED
    if one.protrusion_m is not None:
        least = rules.limits.least_m if ask.min_without_shim_m is None else ask.min_without_shim_m
        greatest = rules.limits.greatest_m if ask.max_without_shim_m is None else ask.max_without_shim_m
        expanded = rules.coverage_factor * ask.u_protrusion_m
        state = decide(one.protrusion_m, expanded, least, greatest, rules.acceptance).state
    target = rules.limits.target_m if one.target_protrusion_m is None else one.target_protrusion_m
    return HoleToPlan(one.hole, now, state, state.value, parts, "", target, one.lock, one.lock_shim_m)
