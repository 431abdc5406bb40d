"""The plan of a block: worked out by each rule, and chosen by somebody."""

from dataclasses import dataclass
from uuid import UUID, uuid4

from vallostasis.core.block_plans.of_job import (
    BlockPlans,
    ChosenPlan,
    HoleWish,
    PlanWishes,
    chosen_plan,
    plans_of_block,
)
from vallostasis.core.block_plans.plan import PlanRule
from vallostasis.core.block_plans.problem import LockKind
from vallostasis.core.features.usual_lengths import PROTRUSION, SHIM
from vallostasis.core.notation.lengths import Unit, micrometres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import Refused
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_cut_facts import NewPlannedHole
from vallostasis.store.rows import Conn

DATUMS = ("deck", "touch-off")


@dataclass(frozen=True, slots=True)
class HoleWished:
    """A wish for a hole as it was typed: how it is locked, on which shim, at which protrusion it is aimed."""

    hole: int
    lock: LockKind = LockKind.FREE
    shim: str = ""
    target: str = ""


@dataclass(frozen=True, slots=True)
class PlansNow:
    """The three plans of a job with the wishes they keep to, and the plan that was chosen."""

    facts: JobFacts
    wishes: PlanWishes
    plans: BlockPlans
    chosen: ChosenPlan | None


@dataclass(frozen=True, slots=True)
class Wished:
    """Everything that was wished, with the unit of bare numbers."""

    holes: tuple[HoleWished, ...] = ()
    undecided_too: bool = False
    bare_unit: Unit = "mm"


def plans_now(conn: Conn, job_id: UUID, wished: Wished | None = None) -> PlansNow:
    """Plan the block by each rule: as wished, else as the plan that was chosen was wished."""
    facts = load_job_facts(conn, job_id)
    chosen = chosen_plan(facts)
    before = PlanWishes() if chosen is None else chosen.wishes
    wishes = before if wished is None else read_wishes(facts, wished)
    return PlansNow(facts, wishes, plans_of_block(facts, wishes), chosen)


def read_wishes(facts: JobFacts, wished: Wished) -> PlanWishes:
    """Read what was typed of each hole; raise Refused at the field that is wrong."""
    sizes = {size.thickness.um for size in facts.card.shims}
    holes = []
    for place, one in enumerate(wished.holes):
        field = f"holes.{place}"
        if facts.hole_numbered(one.hole) is None:
            raise Refused(f"There is no hole {one.hole} in this block.", f"{field}.hole")
        shim = target = None
        if one.shim.strip():
            shim = read_usual(f"{field}.shim", one.shim, wished.bare_unit, SHIM, confirmed=True).value_um
            if shim not in sizes:
                raise Refused(f"A shim of {one.shim} is not on the card: choose a size that is.", f"{field}.shim")
        if one.target.strip():
            target = read_usual(f"{field}.target", one.target, wished.bare_unit, PROTRUSION, confirmed=False).value_um
        holes.append(HoleWish(one.hole, one.lock, shim, target))
    changed = tuple(one for one in holes if one != HoleWish(one.hole))
    return PlanWishes(tuple(sorted(changed, key=lambda one: one.hole)), wished.undecided_too)


def choose_plan(conn: Conn, job_id: UUID, rule: PlanRule, datum: str, wished: Wished, by: UUID) -> None:
    """Choose the plan of a rule as it is worked out now; it is a version of its own."""
    if datum not in DATUMS:
        raise Refused("Depths are counted from the deck or from touch-off: choose one.", "datum")
    facts = lock_job_facts(conn, job_id)
    wishes = read_wishes(facts, wished)
    plans = plans_of_block(facts, wishes)
    plan = plans.by(rule)
    if plan is None:
        raise Refused(plans.why_not, "rule")
    if not plan.order:
        raise Refused("This plan cuts nothing: there is nothing to choose.", "rule")
    plan_id = uuid4()
    for one, hole in zip(plan.holes, facts.holes, strict=True):
        wish, cut = wishes.of(hole.number), one.choice.cut
        record_fact(
            conn,
            NewPlannedHole(
                job_id=job_id,
                plan_id=plan_id,
                hole_id=hole.hole_id,
                rule=rule.value,
                datum=datum,
                undecided_too=wishes.undecided_too,
                lock=wish.lock.value,
                lock_shim_um=wish.shim_um,
                target_um=wish.target_um,
                depth_um=None if cut is None else micrometres(cut.depth_m),
                shim_um=None if cut is None else micrometres(cut.shim_m),
                place=one.place,
            ),
            by,
        )
