"""Planning the cut of one hole of a job: what has to be known first, and the plan or its refusal."""

from collections.abc import Sequence
from dataclasses import dataclass

from vallostasis.core.counterbore.cut_plan import (
    Caution,
    CutParts,
    CutPlan,
    CutRefusal,
    SeatLimits,
    TriedShim,
    plan_cut,
)
from vallostasis.core.counterbore.cutter_in_hand import cutter_trust
from vallostasis.core.counterbore.deck_marks import Pit, pits_of
from vallostasis.core.counterbore.fixed_cuts import FixedCut, fixed_cut_outcomes
from vallostasis.core.counterbore.ledge_report import ledge_left
from vallostasis.core.counterbore.seat_corner import corner_in_the_way
from vallostasis.core.counterbore.shim_stock import shims_left
from vallostasis.core.counterbore.stack_up import StackShare, stack_up_of
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.notation.lengths import metres
from vallostasis.core.protrusion.measured import (
    UNMEASURED_SHIM_M,
    between_parts,
    depths_of,
    doubt_of_parts,
    flange_part,
    ledge_of,
    measured_hole,
)
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Liner
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE, SpecCard, between_m
from vallostasis.core.surveys.places import PlaceRead, protrusion_limits
from vallostasis.core.surveys.set_budget import reading_of_gauge
from vallostasis.core.uncertainty.budget import (
    Budget,
    Source,
    Stated,
    difference_of,
    estimate,
    stated,
    weighted,
)
from vallostasis.core.uncertainty.decision import State, decide
from vallostasis.core.uncertainty.half_widths import rectangular


@dataclass(frozen=True, slots=True)
class ShimOrder:
    """Shims of one size that the whole block needs, against what lies on the shelf. [m]"""

    shim_m: float
    typed: str
    stock: int
    in_stock: bool


@dataclass(frozen=True, slots=True)
class NeighbourAfter:
    """Difference to a measured neighbour once the plan is reached, by the stop; no state without a limit. [m]"""

    hole: int
    stated: Stated
    limit_m: float | None
    state: State | None


@dataclass(frozen=True, slots=True)
class CutBasis:
    """What is known for a cut of one hole: liner, depths of the ledge, flange. Lengths in m."""

    land: str
    liner: Liner | None = None
    positions: tuple[PlaceRead, ...] = ()
    flange: Stated | None = None
    ledge_least_m: float | None = None
    pits: tuple[Pit, ...] = ()


@dataclass(frozen=True, slots=True)
class HoleRefusal:
    """Why no cut is planned for a hole, and what was known."""

    basis: CutBasis
    reason: str
    tried: tuple[TriedShim, ...] = ()


@dataclass(frozen=True, slots=True)
class HolePlan:
    """A plan for one hole with what it was computed from and everything it leads to. Lengths in m."""

    basis: CutBasis
    cut: CutPlan
    limits: SeatLimits
    graduation_m: float
    shim: ShimOrder
    ledge_left: Stated | None
    fixed_cuts: tuple[FixedCut, ...]
    neighbours: tuple[NeighbourAfter, ...]
    cautions: tuple[Caution, ...]

    @property
    def stack_up(self) -> tuple[StackShare, ...]:
        """What the ± by the stop is made of: flange, shim, spacer, stop, gauge. [m] GUM 5.1.3."""
        return stack_up_of(self.cut.by_stop.budget)

    @property
    def budgets(self) -> tuple[Budget, ...]:
        """What is behind every ± of the plan."""
        left = () if self.ledge_left is None else (self.ledge_left.budget,)
        flange = () if self.basis.flange is None else (self.basis.flange.budget,)
        after = (one.stated.budget for one in self.neighbours)
        return (self.cut.by_stop.budget, self.cut.by_gauge.budget, *left, *flange, *after)


# Each under the one name that it has everywhere.
NEEDED_NAMES = {
    "limits.least_with_shim": "least protrusion on a shim",
    "limits.greatest_with_shim": "greatest protrusion on a shim",
    "limits.target_with_shim": "aim on a shim",
    "seat.cleanup_least": "least clean-up cut",
}


def seat_limits(card: SpecCard) -> SeatLimits:
    """What a cut must keep to, from the card. [m]

    Raises
    ------
    OutOfDomain
        Naming the field of the card that is needed and empty.

    The middle of the window where the card names no target: house rule.
    """
    limits, seat = card.limits, card.seat
    needed = {
        "limits.least_with_shim": limits.least_with_shim.metres,
        "limits.greatest_with_shim": limits.greatest_with_shim.metres,
        "limits.target_with_shim": limits.target_with_shim.metres,
        "seat.cleanup_least": seat.cleanup_least.metres,
    }
    least, greatest, target, cleanup = needed.values()
    if least is not None and greatest is not None and target is None:
        target = (least + greatest) / 2
        needed["limits.target_with_shim"] = target
    for field, value in needed.items():
        if value is None:
            words = NEEDED_NAMES[field]
            raise OutOfDomain(
                f"The spec card does not say the {words}: fill it in, then the cut can be planned.", field
            )
    assert least is not None and greatest is not None and target is not None and cleanup is not None
    return SeatLimits(least, greatest, target, cleanup, _greatest_depth(card))


def _greatest_depth(card: SpecCard) -> float | None:
    """Depth at which the least allowed ledge is left. [m]"""
    seat = card.seat
    nominal, left, least = seat.counterbore_nominal.metres, seat.ledge_at_nominal.metres, seat.ledge_least.metres
    if nominal is None or left is None or least is None:
        return None
    return nominal + left - least


@once
def plan_hole(facts: JobFacts, hole: Hole, liner: Liner | None = None) -> HolePlan | HoleRefusal:
    """Plan cut and shim for one hole of a job.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole to cut.
    liner : Liner, optional
        The liner that will stand in it; by default the one that stands in it now.

    Returns
    -------
    HolePlan or HoleRefusal
        The plan, or why there is none: what is missing, does not add up, or cannot be reached.

    Notes
    -----
    No cut is planned while the reading of the hole and its parts disagree, or a part was read on a zero that was found
    moved: one of the numbers the plan would stand on is wrong. Lengths in m. House rule.
    """
    liner = liner or present_liner(facts, hole)
    card, survey = facts.card, depths_of(facts, hole)
    flange = None if liner is None else flange_part(facts, liner, card.measuring.land)
    stated_flange = None if flange is None else flange.stated(card.coverage_factor)
    pits = pits_of(facts, hole)
    basis = CutBasis(card.measuring.land, liner, survey.read, stated_flange, card.seat.ledge_least.metres, pits)
    parts = cut_parts(facts, hole, liner)
    if isinstance(parts, str):
        return HoleRefusal(basis, parts)
    try:
        limits = seat_limits(card)
    except OutOfDomain as missing:
        return HoleRefusal(basis, str(missing))
    outcome = _with_shims_on_the_shelf(facts, parts, limits)
    if isinstance(outcome, CutRefusal):
        return HoleRefusal(basis, outcome.reason, outcome.tried)
    neighbours = _neighbours_after(facts, hole, outcome)
    return HolePlan(
        basis=basis,
        cut=outcome,
        limits=limits,
        graduation_m=cutter_trust(facts).graduation_m,
        shim=_shim_order(facts, outcome.shim_m),
        ledge_left=ledge_left(card, outcome.depth_by_stop, "ledge left by the stop"),
        fixed_cuts=fixed_cut_outcomes(parts.depths_m, parts.flange_m, parts.between_m, outcome.from_touch_off_m,
                                      outcome.shim_m, limits),
        neighbours=neighbours,
        cautions=(*outcome.cautions, *_cautions_of(neighbours)),
    )  # fmt: skip


def cut_parts(facts: JobFacts, hole: Hole, liner: Liner | None) -> CutParts | str:
    """Return what a cut of a hole is planned from, or why it cannot be planned yet. [m] House rule."""
    why_not = _why_not_yet(facts, hole, liner)
    card, survey = facts.card, depths_of(facts, hole)
    flange = None if liner is None else flange_part(facts, liner, card.measuring.land)
    if why_not or flange is None or survey.reading_set is None:
        return why_not
    gauge = facts.newest_gauge(facts.setup(survey.reading_set.setup_id).gauge_id)
    after = reading_of_gauge(gauge, ("after the cut", hole.number), "after the cut")
    pits = tuple(one.bottom_m for one in pits_of(facts, hole))
    return CutParts(tuple(survey.estimates), flange, between_parts(card), rectangular(UNMEASURED_SHIM_M), after, pits)


def _cautions_of(neighbours: Sequence[NeighbourAfter]) -> tuple[Caution, ...]:
    states = {one.state for one in neighbours}
    if State.OUT in states:
        return (Caution.NEIGHBOUR,)
    return (Caution.NEIGHBOUR_UNSURE,) if State.CANNOT_TELL in states else ()


def present_liner(facts: JobFacts, hole: Hole) -> Liner | None:
    """Return the liner in the hole, or the one that came out of it last."""
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is None:
        fittings = facts.standing_fittings(hole.hole_id)
        fitting = fittings[-1] if fittings else None
    return None if fitting is None else facts.liner(fitting.liner_id)


def _why_not_yet(facts: JobFacts, hole: Hole, liner: Liner | None) -> str:
    card = facts.card
    if card.construction not in CONSTRUCTIONS_WITH_LEDGE:
        return f"A {card.construction.value} has no ledge under a top flange to cut."
    if liner is None:
        return "No liner is chosen for this hole: fit one, or choose one for the plan."
    if flange_part(facts, liner, card.measuring.land) is None:
        return f"The flange thickness of {liner.mark} at the {card.measuring.land} is not measured: measure it first."
    if depths_of(facts, hole).missing or not depths_of(facts, hole).read:
        return "The counterbore depth is not measured at every required position: measure it first."
    if doubt := doubt_of_parts(facts, hole, liner, card.measuring.land):
        return doubt
    residual = measured_hole(facts, hole).residual
    if residual is not None and not residual.agrees:
        return (
            "Parts and reading disagree by more than their joint uncertainty: one of the numbers a cut would "
            "stand on is wrong. Find out which before anything is cut."
        )
    return corner_in_the_way(facts, hole)


def _with_shims_on_the_shelf(facts: JobFacts, parts: CutParts, limits: SeatLimits) -> CutPlan | CutRefusal:
    """Plan with shims in stock; where none of them does, with sizes that have to be ordered."""
    sizes, k = shims_left(facts), facts.card.coverage_factor
    stocked = tuple(metres(size) for size, left in sizes.items() if left > 0)
    cutter = cutter_trust(facts)
    outcome = plan_cut(parts, stocked, limits, cutter, k)
    if isinstance(outcome, CutRefusal) and len(stocked) < len(sizes):
        return plan_cut(parts, tuple(map(metres, sizes)), limits, cutter, k)
    return outcome


def _shim_order(facts: JobFacts, shim_m: float) -> ShimOrder:
    shim = next(shim for shim in facts.card.shims if shim.thickness.metres == shim_m)
    left = shims_left(facts)[shim.thickness.um]
    return ShimOrder(shim_m, shim.thickness.typed, left, left > 0)


def _neighbours_after(facts: JobFacts, hole: Hole, plan: CutPlan) -> tuple[NeighbourAfter, ...]:
    """Difference to each measured neighbour under the same head once the plan is reached. [m]"""
    card, found = facts.card, []
    limit, k = card.limits.neighbour_difference.metres, card.coverage_factor
    for head in card.layout.heads:
        if hole.number not in head:
            continue
        place = head.index(hole.number)
        for number in (*head[max(0, place - 1) : place], *head[place + 1 : place + 2]):
            other = facts.hole_numbered(number)
            centre = None if other is None else measured_hole(facts, other).centre
            if centre is None:
                continue
            apart = stated(f"difference to hole {number} by the stop", difference_of(plan.by_stop_estimate, centre), k)
            state = None if limit is None else decide(abs(apart.value_m), apart.expanded_m, None, limit).guarded
            found.append(NeighbourAfter(number, apart, limit, state))
    return tuple(found)


def expected_after_cut(facts: JobFacts, hole: Hole) -> Stated | None:
    """Protrusion to expect after the last cut while nothing is measured yet. [m]

    From the ledge as measured since the cut, from the stop while it is not. None when no cut is
    open. It stays a prediction until the protrusion is read.

    The sum of the stack, GUM 5.1.2.
    """
    cut = facts.last_cut(hole.hole_id)
    liner = present_liner(facts, hole)
    if cut is None or liner is None:
        return None
    flange = flange_part(facts, liner, facts.card.measuring.land)
    if flange is None:
        return None
    ledge = ledge_of(facts, hole)
    stop = Source("stop of the cutter", metres(cut.stop_u_um), basis="recorded with the cut", error=cut.cut_id)
    depth = estimate(metres(cut.depth_um), (stop,)) if ledge is None else ledge.estimate
    shim = Source("shim", rectangular(UNMEASURED_SHIM_M), basis="nominal size, not measured", error="planned shim")
    parts = [
        (1.0, flange.estimate),
        (1.0, estimate(metres(cut.shim_um), (shim,))),
        (-1.0, depth),
        *((-1.0, one.estimate) for one in between_parts(facts.card)),
    ]
    return stated("protrusion expected after the cut", weighted(parts), facts.card.coverage_factor)


def depth_window(facts: JobFacts, hole: Hole) -> tuple[float | None, float | None]:
    """Ledge depths at which the liner of a hole stands inside the protrusion limits: least, greatest. [m]

    With the shims that are fitted, or those the last cut was made for. None where a limit or the
    flange is not known. A deeper ledge lets the liner down: the least depth belongs to the greatest protrusion.

    The sum of the stack turned over; common practice.
    """
    liner = present_liner(facts, hole)
    flange = None if liner is None else flange_part(facts, liner, facts.card.measuring.land)
    if flange is None:
        return None, None
    fitting, cut = facts.present_fitting(hole.hole_id), facts.last_cut(hole.hole_id)
    if fitting is None:
        shims_m = 0.0 if cut is None else metres(cut.shim_um)
    else:
        shims_m = sum(metres(shim.thickness_um) for shim in facts.shims_of(fitting.fitting_id))
    limits = protrusion_limits(facts.card, shims_m > 0)
    top = flange.size_m + shims_m - between_m(facts.card)
    return (
        None if limits.greatest_m is None else top - limits.greatest_m,
        None if limits.least_m is None else top - limits.least_m,
    )
