"""Planning the cut of one hole of a job: what has to be known first, and the plan or its refusal."""

from collections import Counter
from dataclasses import dataclass, replace
from decimal import Decimal
from math import hypot
from statistics import fmean

from vallostasis.core.counterbore.cut_plan import (
    CutPlan,
    CutRefusal,
    CutterTrust,
    FixedCut,
    SeatLimits,
    StackTrust,
    by_stop_standard,
    fixed_cut_outcomes,
    plan_cut,
)
from vallostasis.core.counterbore.ledge_report import ledge_left
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.job_facts import JobFacts, once
from vallostasis.core.lengths import metres
from vallostasis.core.measuring.uncertainty import rectangular, standard_of_mean
from vallostasis.core.measuring.values import trust_of_set
from vallostasis.core.protrusion.measured import (
    UNMEASURED_SHIM_M,
    flange_part,
    ledge_of,
    limits_for,
    measured_hole,
    readings_by_hour,
)
from vallostasis.core.protrusion.stack import Part
from vallostasis.core.records import Hole, Liner
from vallostasis.core.spec_card import CONSTRUCTIONS_WITH_LEDGE, SpecCard, between_m


@dataclass(frozen=True, slots=True)
class ShimOrder:
    """Shims of one size that the whole block needs, against what lies on the shelf. [m]"""

    shim_m: float
    typed: str
    stock: int
    in_stock: bool


@dataclass(frozen=True, slots=True)
class NeighbourAfter:
    """Difference to a measured neighbour once the plan is reached, with its standard uncertainty by the stop. [m]"""

    hole: int
    difference_m: float
    standard_m: float


@dataclass(frozen=True, slots=True)
class HolePlan:
    """A plan or refusal for one hole, with what it was computed from. Lengths in m."""

    outcome: CutPlan | CutRefusal
    liner: Liner | None = None
    hours: tuple[float, ...] = ()
    depths_m: tuple[float, ...] = ()
    flange: Part | None = None
    shim: ShimOrder | None = None
    ledge_left: Part | None = None
    ledge_least_m: float | None = None
    naive: tuple[FixedCut, ...] = ()
    neighbours: tuple[NeighbourAfter, ...] = ()

    @property
    def flange_m(self) -> float | None:
        """Thickness of the flange the plan is for. [m]"""
        return None if self.flange is None else self.flange.size_m


def seat_limits(card: SpecCard) -> SeatLimits:
    """What a cut must keep to, from the card. [m]

    Raises
    ------
    OutOfDomain
        Naming the field of the card that is needed and empty.
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
            words = field.split(".")[1].replace("_", " ")
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


def _ledge_left(card: SpecCard, plan: CutPlan) -> Part | None:
    """Ledge that is left under the cut, as sure as the stop; None where the card does not say. [m]"""
    standard = by_stop_standard(plan.from_touch_off_m, cutter_trust(card), StackTrust(0.0, 0.0, 0.0))
    return ledge_left(card, plan.depth_m, standard)


def cutter_trust(card: SpecCard) -> CutterTrust:
    """How truly the card's cutter stops. [m]"""
    return CutterTrust(
        card.cutter.graduation.metres, card.cutter.stop_accuracy.metres, card.cutter.graduation_error_percent / 100
    )


@once
def plan_hole(facts: JobFacts, hole: Hole, liner: Liner | None = None) -> HolePlan:
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
    HolePlan
        The plan, or a refusal that says what is missing, does not add up, or cannot be reached.

    Notes
    -----
    No cut is planned while the reading of the hole and its parts disagree: one of the numbers the
    plan would stand on is wrong. Lengths in m.
    """
    liner = liner or _present_liner(facts, hole)
    card = facts.card
    reading_set = facts.newest_depth_set(hole.hole_id)
    depths = () if reading_set is None else readings_by_hour(facts, reading_set)
    hours, values = tuple(d.hour for d in depths), tuple(d.mean_m for d in depths)
    flange = None if liner is None else flange_part(facts, liner, card.measuring.land)
    known = HolePlan(
        CutRefusal(_why_not_yet(facts, hole, liner), ()),
        liner,
        hours,
        values,
        flange,
        ledge_least_m=card.seat.ledge_least.metres,
    )
    if known.outcome.reason or flange is None or reading_set is None:  # type: ignore[union-attr]
        return known
    try:
        limits = seat_limits(card)
    except OutOfDomain as missing:
        return replace(known, outcome=CutRefusal(str(missing), ()))
    depth_u = standard_of_mean(trust_of_set(facts, reading_set), 1)
    trust = StackTrust(flange.standard_m, rectangular(UNMEASURED_SHIM_M), depth_u)
    outcome = _with_shims_on_the_shelf(facts, values, flange.size_m, limits, trust)
    if isinstance(outcome, CutRefusal):
        return replace(known, outcome=outcome)
    naive = fixed_cut_outcomes(values, flange.size_m, between_m(card), outcome.from_touch_off_m, outcome.shim_m, limits)
    return replace(
        known,
        outcome=outcome,
        shim=_shim_order(facts, outcome.shim_m),
        ledge_left=_ledge_left(card, outcome),
        naive=naive,
        neighbours=_neighbours_after(facts, hole, outcome),
    )


def _present_liner(facts: JobFacts, hole: Hole) -> Liner | None:
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
    reading_set = facts.newest_depth_set(hole.hole_id)
    depths = () if reading_set is None else readings_by_hour(facts, reading_set)
    if not {depth.hour for depth in depths}.issuperset(card.measuring.required_hours):
        return "The counterbore depth is not measured at every required position: measure it first."
    residual = measured_hole(facts, hole).residual
    if residual is not None and not residual.agrees:
        return (
            "Parts and reading disagree by more than their joint uncertainty: one of the numbers a cut would "
            "stand on is wrong. Find out which before anything is cut."
        )
    return ""


def shims_left(facts: JobFacts) -> dict[Decimal, int]:
    """Shims on the shelf by size [µm]: the card's stock less those under the liners of this job."""
    fitted = Counter(
        shim.nominal_um
        for hole in facts.holes
        if (fitting := facts.present_fitting(hole.hole_id)) is not None
        for shim in facts.shims_of(fitting.fitting_id)
    )
    return {shim.thickness.um: max(0, shim.stock - fitted[shim.thickness.um]) for shim in facts.card.shims}


def _with_shims_on_the_shelf(
    facts: JobFacts, depths_m: tuple[float, ...], flange_m: float, limits: SeatLimits, trust: StackTrust
) -> CutPlan | CutRefusal:
    """Plan with shims in stock; where none of them does, with sizes that have to be ordered."""
    sizes = shims_left(facts)
    stocked = tuple(metres(size) for size, left in sizes.items() if left > 0)
    between, cutter = between_m(facts.card), cutter_trust(facts.card)
    outcome = plan_cut(depths_m, flange_m, between, stocked, limits, cutter, trust)
    if isinstance(outcome, CutRefusal) and len(stocked) < len(sizes):
        return plan_cut(depths_m, flange_m, between, tuple(map(metres, sizes)), limits, cutter, trust)
    return outcome


def _shim_order(facts: JobFacts, shim_m: float) -> ShimOrder:
    shim = next(shim for shim in facts.card.shims if shim.thickness.metres == shim_m)
    left = shims_left(facts)[shim.thickness.um]
    return ShimOrder(shim_m, shim.thickness.typed, left, left > 0)


def _neighbours_after(facts: JobFacts, hole: Hole, plan: CutPlan) -> tuple[NeighbourAfter, ...]:
    """Difference to each measured neighbour under the same head once the plan is reached. [m]"""
    differences = []
    for head in facts.card.layout.heads:
        if hole.number not in head:
            continue
        place = head.index(hole.number)
        for number in (*head[max(0, place - 1) : place], *head[place + 1 : place + 2]):
            other = facts.hole_numbered(number)
            measured = None if other is None else measured_hole(facts, other)
            if measured is None or not measured.readings:
                continue
            mean = fmean(reading.mean_m for reading in measured.readings)
            standard = standard_of_mean(measured.trust, sum(len(r.values_m) for r in measured.readings))
            differences.append(
                NeighbourAfter(number, plan.protrusion_m - mean, hypot(plan.by_stop_standard_m, standard))
            )
    return tuple(differences)


def expected_after_cut(facts: JobFacts, hole: Hole) -> tuple[float, float] | None:
    """Protrusion to expect after the last cut while nothing is measured yet, and its standard uncertainty. [m]

    From the ledge as measured since the cut, from the stop while it is not. None when no cut is
    open. It stays a prediction until the protrusion is read.
    """
    cut = facts.last_cut(hole.hole_id)
    liner = _present_liner(facts, hole)
    if cut is None or liner is None:
        return None
    flange = flange_part(facts, liner, facts.card.measuring.land)
    if flange is None:
        return None
    ledge = ledge_of(facts, hole)
    depth, depth_u = (
        (metres(cut.depth_um), metres(cut.stop_u_um)) if ledge is None else (ledge.depth_m, ledge.standard_m)
    )
    standard = hypot(flange.standard_m, depth_u, rectangular(UNMEASURED_SHIM_M))
    return flange.size_m + metres(cut.shim_um) - between_m(facts.card) - depth, standard


def depth_window(facts: JobFacts, hole: Hole) -> tuple[float | None, float | None]:
    """Ledge depths at which the liner of a hole stands inside the protrusion limits: least, greatest. [m]

    With the shims that are fitted, or those the last cut was made for. None where a limit or the
    flange is not known. A deeper ledge lets the liner down: the least depth belongs to the greatest protrusion.
    """
    liner = _present_liner(facts, hole)
    flange = None if liner is None else flange_part(facts, liner, facts.card.measuring.land)
    if flange is None:
        return None, None
    fitting, cut = facts.present_fitting(hole.hole_id), facts.last_cut(hole.hole_id)
    if fitting is None:
        shims_m = 0.0 if cut is None else metres(cut.shim_um)
    else:
        shims_m = sum(metres(shim.thickness_um) for shim in facts.shims_of(fitting.fitting_id))
    limits = limits_for(facts.card, shims_m > 0)
    top = flange.size_m + shims_m - between_m(facts.card)
    return (
        None if limits.greatest_m is None else top - limits.greatest_m,
        None if limits.least_m is None else top - limits.least_m,
    )
