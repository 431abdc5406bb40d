"""Shims for the whole block: what lies on the shelf, what the open holes need, what to order."""

from collections import defaultdict
from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.counterbore.hole_plan import HolePlan, plan_hole
from vallostasis.core.counterbore.shim_stock import shims_left
from vallostasis.core.notation.lengths import metres
from vallostasis.core.protrusion.rules import BlockJudgement
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.spec_card import typed_with_unit
from vallostasis.core.uncertainty.decision import State

# One more than is needed of each size in use, for the one that gets bent. Common practice, no published source.
SPARE = 1


@dataclass(frozen=True, slots=True)
class ShimNeed:
    """One shim size of the card: left on the shelf, holes that need it, how many to order with a spare. [m]"""

    typed: str
    thickness_m: float
    on_shelf: int
    holes: tuple[int, ...]
    to_order: int
    price: Decimal | None


def shim_needs(facts: JobFacts, judgement: BlockJudgement) -> tuple[ShimNeed, ...]:
    """Count shims over the block, size by size as on the card.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    judgement : BlockJudgement
        The states of its holes.

    Returns
    -------
    tuple of ShimNeed
        A hole needs the shim its cut was made for, or, while it is out, the one its plan asks for.

    Notes
    -----
    To order: what is needed and one spare, less what lies on the shelf. Each hole is planned by
    itself: two holes may be planned with the last shim of a size, and that is ordered.
    """
    wanted: dict[Decimal, list[int]] = defaultdict(list)
    for hole, judged in zip(facts.holes, judgement.holes, strict=True):
        cut = facts.last_cut(hole.hole_id)
        if facts.present_fitting(hole.hole_id) is None and cut is not None:
            wanted[cut.shim_um].append(hole.number)
        elif judged.state is State.OUT:
            plan = plan_hole(facts, hole)
            if isinstance(plan, HolePlan):
                size = next(s.thickness.um for s in facts.card.shims if s.thickness.metres == plan.cut.shim_m)
                wanted[size].append(hole.number)
    left = shims_left(facts)
    return tuple(
        ShimNeed(
            typed_with_unit(size.thickness, facts.card.unit),
            metres(size.thickness.um),
            left[size.thickness.um],
            tuple(wanted[size.thickness.um]),
            _to_order(len(wanted[size.thickness.um]), left[size.thickness.um]),
            size.price,
        )
        for size in facts.card.shims
    )


def _to_order(needed: int, on_shelf: int) -> int:
    return max(0, needed + SPARE - on_shelf) if needed else 0
