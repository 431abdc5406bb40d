"""The plan of the block of a job: from what is recorded and wished to the three rules side by side."""

from dataclasses import dataclass, replace
from decimal import Decimal

from vallostasis.core.block_plans.plan import BlockPlan, PlanRule, plan_block
from vallostasis.core.block_plans.problem import (
    BlockProblem,
    BlockRules,
    HoleToPlan,
    LockKind,
    ShimStock,
    check_problem,
)
from vallostasis.core.counterbore.cut_plan import CutParts
from vallostasis.core.counterbore.cutter_in_hand import cutter_trust
from vallostasis.core.counterbore.hole_plan import cut_parts, present_liner, seat_limits
from vallostasis.core.counterbore.shim_stock import shims_left
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.notation.lengths import both_size, metres, micrometres
from vallostasis.core.protrusion.measured import measured_hole
from vallostasis.core.protrusion.rules import parts_rule
from vallostasis.core.records.block_plans import PlannedHole
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE
from vallostasis.core.uncertainty.decision import state_of


@dataclass(frozen=True, slots=True)
class HoleWish:
    """What somebody decided of a hole before the plan is made: locked, on a shim, aimed at a protrusion. [µm]"""

    hole: int
    lock: LockKind = LockKind.FREE
    shim_um: Decimal | None = None
    target_um: Decimal | None = None


@dataclass(frozen=True, slots=True)
class PlanWishes:
    """Wishes for single holes, and whether what cannot be told is cut with what is outside."""

    holes: tuple[HoleWish, ...] = ()
    undecided_too: bool = False

    def of(self, hole: int) -> HoleWish:
        """Return what was decided of a hole."""
        return next((one for one in self.holes if one.hole == hole), HoleWish(hole))


@dataclass(frozen=True, slots=True)
class BlockPlans:
    """The three rules side by side; ``why_not`` says why there is none."""

    plans: tuple[BlockPlan, ...]
    why_not: str = ""

    def by(self, rule: PlanRule) -> BlockPlan | None:
        """Return the plan by a rule."""
        return next((one for one in self.plans if one.rule is rule), None)


@once
def plans_of_block(facts: JobFacts, wishes: PlanWishes = PlanWishes()) -> BlockPlans:
    """Plan the block of a job by each of the three rules.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    wishes : PlanWishes
        What was decided before. [µm]

    Returns
    -------
    BlockPlans
        The three plans, or why there is none. Lengths in m. House rule.
    """
    card = facts.card
    if card.construction not in CONSTRUCTIONS_WITH_LEDGE:
        return BlockPlans((), f"A {card.construction.value} has no ledge under a top flange to cut.")
    if not card.shims:
        return BlockPlans((), "The card names no shim sizes: enter them, then the cut can be planned.")
    try:
        problem = block_problem(facts, wishes)
        check_problem(problem)
    except OutOfDomain as missing:
        return BlockPlans((), str(missing))
    obstructed = frozenset(one.hole for one in card.obstructions)
    plans = tuple(plan_block(problem, rule, obstructed, undecided_too=wishes.undecided_too) for rule in PlanRule)
    return BlockPlans(plans)


def block_problem(facts: JobFacts, wishes: PlanWishes) -> BlockProblem:
    """Put together what the plan of a block is made from.

    Raises
    ------
    OutOfDomain
        Naming the field of the card that is needed and empty.

    Limits of the card, depths and flanges as measured, shims as they lie on the shelf. [m] House rule.
    """
    card, limits = facts.card, seat_limits(facts.card)
    left = shims_left(facts)
    shims = tuple(
        ShimStock(size.thickness.metres, left[size.thickness.um], int((size.price or 0) * 100)) for size in card.shims
    )
    between = card.limits
    rules = BlockRules(
        card.layout.heads,
        limits,
        between.neighbour_difference.metres,
        between.head_average_least.metres,
        between.head_average_greatest.metres,
        card.acceptance,
        card.coverage_factor,
    )
    holes = tuple(_hole(facts, hole, wishes.of(hole.number), limits.target_m) for hole in facts.holes)
    return BlockProblem(holes, shims, rules, cutter_trust(facts), may_order=True)


def _hole(facts: JobFacts, hole: Hole, wish: HoleWish, target_m: float) -> HoleToPlan:
    measured = measured_hole(facts, hole)
    own = measured.standing
    rules = (*own.rules, *parts_rule(measured.residual))
    state, reason = state_of(replace(own, rules=rules))
    parts = cut_parts(facts, hole, present_liner(facts, hole))
    return HoleToPlan(
        hole=hole.number,
        now=measured.centre,
        state=state,
        reason=reason,
        parts=parts if isinstance(parts, CutParts) else None,
        why_not=parts if isinstance(parts, str) else "",
        target_m=target_m if wish.target_um is None else metres(wish.target_um),
        lock=wish.lock,
        lock_shim_m=None if wish.shim_um is None else metres(wish.shim_um),
    )


@dataclass(frozen=True, slots=True)
class ChosenPlan:
    """The plan of the block that holds, as it was chosen, and what is different when it is worked out anew."""

    rows: tuple[PlannedHole, ...]
    wishes: PlanWishes
    version: int
    differences: tuple[str, ...]

    @property
    def rule(self) -> PlanRule:
        """The rule it was chosen by."""
        return PlanRule(self.rows[0].rule)

    @property
    def order(self) -> tuple[PlannedHole, ...]:
        """Holes that are cut, in their order."""
        return tuple(sorted((one for one in self.rows if one.place is not None), key=lambda one: one.place or 0))


def chosen_plan(facts: JobFacts) -> ChosenPlan | None:
    """Return the plan of the block that was chosen last and stands; None where none was.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    ChosenPlan or None
        Its version counts the plans that were chosen; what differs is worked out with the same wishes and rule, hole by
        hole, for holes that are not cut since. House rule.
    """
    rows = facts.standing(facts.planned_holes)
    if not rows:
        return None
    ids = list(dict.fromkeys(one.plan_id for one in rows))
    newest = tuple(one for one in rows if one.plan_id == ids[-1])
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    wishes = PlanWishes(
        tuple(HoleWish(numbers[one.hole_id], LockKind(one.lock), one.lock_shim_um, one.target_um) for one in newest),
        newest[0].undecided_too,
    )
    return ChosenPlan(newest, wishes, len(ids), _differences(facts, newest, wishes))


def _differences(facts: JobFacts, rows: tuple[PlannedHole, ...], wishes: PlanWishes) -> tuple[str, ...]:
    plans = plans_of_block(facts, wishes)
    now = plans.by(PlanRule(rows[0].rule))
    if now is None:
        return (plans.why_not,)
    found = []
    by_number = {one.hole.hole: one.choice.cut for one in now.holes}
    for row in rows:
        hole = next(one for one in facts.holes if one.hole_id == row.hole_id)
        since = [one for one in facts.standing_cuts(hole.hole_id) if one.event > row.event]
        cut = by_number[hole.number]
        if since:
            continue
        was = None if row.depth_um is None or row.shim_um is None else (row.depth_um, row.shim_um)
        anew = None if cut is None else (micrometres(cut.depth_m), micrometres(cut.shim_m))
        if was != anew:
            found.append(f"hole {hole.number}: {_said(was)} when it was chosen, {_said(anew)} now")
    return tuple(found)


def _said(cut: tuple[Decimal, Decimal] | None) -> str:
    if cut is None:
        return "left"
    depth, shim = cut
    return f"{both_size(depth)} deep on a {both_size(shim)} shim"
