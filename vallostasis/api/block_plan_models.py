"""The plan of a block as it goes over the wire. Lengths in m, depths from the deck."""

from datetime import datetime

from pydantic import BaseModel, Field

from vallostasis.core.block_plans.of_job import ChosenPlan
from vallostasis.core.block_plans.plan import BlockPlan, HoleInPlan, PlanRule, hours_of
from vallostasis.core.block_plans.problem import LockKind
from vallostasis.core.counterbore.cutter_in_hand import a_pass_of, cutter_trust, learned_of
from vallostasis.core.counterbore.ledge_report import ledge_left
from vallostasis.core.counterbore.passes import Passes
from vallostasis.core.notation.lengths import metres
from vallostasis.core.protrusion.measured import depths_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.uncertainty.budget import Stated, stated, value_of
from vallostasis.core.uncertainty.decision import State
from vallostasis.services.block_plans import PlansNow


class CutInPlan(BaseModel):
    """The cut of one hole in a plan: its depth by both datums, what it gives, how sure that is. [m]"""

    shim_m: float
    depth_m: float
    from_touch_off_m: float
    other_datum_m: float = Field(description="Protrusion if the same setting were counted from the deepest spot. [m]")
    passes: int
    part_pass_m: float
    protrusion_m: float
    by_stop_expanded_m: float
    by_gauge_expanded_m: float
    chance: float
    ledge_left_m: float | None
    place: int
    pit_m: float | None = Field(description="Bottom of the deepest pit that the cut has to take. [m]")


class PlanHoleView(BaseModel):
    """One hole in a plan: as it stands, and its cut where it has one."""

    hole: int
    state: State
    now_m: float | None
    now_expanded_m: float | None
    present_depth_m: float | None
    ledge_left_m: float | None
    cut: CutInPlan | None
    why_not: str
    why_open: str


class ShimUseView(BaseModel):
    """Shims of one size that a plan needs. [m]"""

    size_m: float
    count: int
    to_order: int


class BlockPlanView(BaseModel):
    """The plan by one rule, and what follows from it."""

    rule: PlanRule
    holes: list[PlanHoleView]
    order: list[int]
    all_inside: float = Field(description="Share of cuts in which all are in, neighbours too, by the stop. [1]")
    greatest_apart_m: float | None
    ledge_spent_m: float
    shims: list[ShimUseView]
    price: float
    hours: float
    passes: int
    depth_m: float | None
    proven_best: bool
    gap: str = Field(description="What was not proven, with its gap; empty where all was.")


class WishView(BaseModel):
    """What was decided of a hole before the plan was made. [m]"""

    hole: int
    lock: LockKind
    shim_m: float | None
    target_m: float | None


class ObstructionView(BaseModel):
    """What keeps the handle from going round at a hole. [h]"""

    hole: int
    what: str
    from_hour: float
    until_hour: float
    remedy: str


class ChosenPlanView(BaseModel):
    """The plan that was chosen: by whom and when, which version, and what differs when it is worked out anew."""

    rule: PlanRule
    datum: str
    version: int
    chosen_by: str
    chosen_at: datetime
    order: list[int]
    next_hole: int | None
    differences: list[str]


class TrustView(BaseModel):
    """How truly the cutter of the job stops, and on what that stands. [m]"""

    basis: str
    graduation_m: float
    stop_accuracy_m: float
    runs: int

    @classmethod
    def of(cls, facts: JobFacts) -> "TrustView":
        """Show what plans stand on."""
        trust, learned = cutter_trust(facts), learned_of(facts).setting_m
        own = learned is not None and learned.is_enough
        runs = 0 if learned is None else learned.n
        basis = f"own experience, {runs} runs" if own else "as marked on the card"
        return cls(basis=basis, graduation_m=trust.graduation_m, stop_accuracy_m=trust.stop_accuracy_m, runs=runs)


class BlockPlansView(BaseModel):
    """The three rules side by side, the wishes they keep to, and the plan that was chosen."""

    plans: list[BlockPlanView]
    why_not: str
    wishes: list[WishView]
    undecided_too: bool
    chosen: ChosenPlanView | None
    obstructions: list[ObstructionView]
    shim_sizes_m: list[float]
    least_m: float | None
    greatest_m: float | None
    target_m: float | None
    neighbour_m: float | None
    ledge_least_m: float | None
    currency: str
    trust: TrustView

    @classmethod
    def of(cls, now: PlansNow) -> "BlockPlansView":
        """Show the plans of a job."""
        card = now.facts.card
        return cls(
            plans=[_plan(now.facts, one) for one in now.plans.plans],
            why_not=now.plans.why_not,
            wishes=[
                WishView(hole=one.hole, lock=one.lock, shim_m=None if one.shim_um is None else metres(one.shim_um),
                         target_m=None if one.target_um is None else metres(one.target_um))
                for one in now.wishes.holes
            ],
            undecided_too=now.wishes.undecided_too,
            chosen=None if now.chosen is None else _chosen(now.facts, now.chosen),
            obstructions=[
                ObstructionView(hole=one.hole, what=one.what, from_hour=one.from_hour, until_hour=one.until_hour,
                                remedy=one.remedy)
                for one in card.obstructions
            ],
            shim_sizes_m=[one.thickness.metres for one in card.shims],
            least_m=card.limits.least_with_shim.metres,
            greatest_m=card.limits.greatest_with_shim.metres,
            target_m=card.limits.target_with_shim.metres,
            neighbour_m=card.limits.neighbour_difference.metres,
            ledge_least_m=card.seat.ledge_least.metres,
            currency=card.currency,
            trust=TrustView.of(now.facts),
        )  # fmt: skip


def _chosen(facts: JobFacts, chosen: ChosenPlan) -> ChosenPlanView:
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    first = chosen.rows[0]
    waiting = [row for row in chosen.order if not any(c.event > row.event for c in facts.standing_cuts(row.hole_id))]
    return ChosenPlanView(
        rule=chosen.rule,
        datum=first.datum,
        version=chosen.version,
        chosen_by=first.chosen_by,
        chosen_at=first.chosen_at,
        order=[numbers[row.hole_id] for row in chosen.order],
        next_hole=numbers[waiting[0].hole_id] if waiting else None,
        differences=list(chosen.differences),
    )


def _plan(facts: JobFacts, plan: BlockPlan) -> BlockPlanView:
    gap = "; ".join(f"{aim.what}: {aim.value}, at least {aim.bound}" for aim in plan.aims if not aim.proven)
    return BlockPlanView(
        rule=plan.rule,
        holes=[_hole(facts, one) for one in plan.holes],
        order=list(plan.order),
        all_inside=plan.chance.all_inside,
        greatest_apart_m=plan.greatest_apart_m,
        ledge_spent_m=plan.ledge_spent_m,
        shims=[ShimUseView(size_m=one.size_m, count=one.count, to_order=one.to_order) for one in plan.shims],
        price=plan.price / 100,
        hours=hours_of(plan, a_pass_of(facts).hours),
        passes=plan.passes,
        depth_m=plan.depth_m,
        proven_best=plan.proven_best,
        gap=gap,
    )


def _hole(facts: JobFacts, one: HoleInPlan) -> PlanHoleView:
    hole, k = one.hole, facts.card.coverage_factor
    now = None if hole.now is None else stated("protrusion now", hole.now, k)
    own = facts.hole_numbered(hole.hole)
    read = [] if own is None else [row.estimate for row in depths_of(facts, own).read if row.estimate is not None]
    deepest = max(read, key=value_of, default=None)
    depth = None if deepest is None else stated("depth now", deepest, k)
    return PlanHoleView(
        hole=hole.hole,
        state=hole.state,
        now_m=None if now is None else now.value_m,
        now_expanded_m=None if now is None else now.expanded_m,
        present_depth_m=None if depth is None else depth.value_m,
        ledge_left_m=_left(facts, depth),
        cut=_cut(facts, one),
        why_not=hole.why_not,
        why_open=one.why_open,
    )


def _left(facts: JobFacts, depth: Stated | None) -> float | None:
    left = None if depth is None else ledge_left(facts.card, depth, "ledge left")
    return None if left is None else left.value_m


def _cut(facts: JobFacts, one: HoleInPlan) -> CutInPlan | None:
    cut, parts = one.choice.cut, one.hole.parts
    if cut is None or parts is None or one.place is None:
        return None
    passes: Passes = cut.passes
    return CutInPlan(
        shim_m=cut.shim_m,
        depth_m=cut.depth_m,
        from_touch_off_m=cut.from_touch_off_m,
        other_datum_m=cut.by_gauge.value_m - (max(parts.depths_m) - min(parts.depths_m)),
        passes=passes.whole,
        part_pass_m=metres(passes.rest_um),
        protrusion_m=cut.by_gauge.value_m,
        by_stop_expanded_m=cut.by_stop.expanded_m,
        by_gauge_expanded_m=cut.by_gauge.expanded_m,
        chance=cut.chance_by_stop if one.chance is None else one.chance,
        ledge_left_m=_left(facts, cut.depth_by_stop),
        place=one.place,
        pit_m=max(parts.pits_m, default=None),
    )
