"""The corner of a ledge and the edge of a flange: whether the flange comes down flat or rides on the corner."""

from math import sqrt

from vallostasis.core.errors import require_not_negative
from vallostasis.core.notation.lengths import both_small, metres, micrometres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.preparation import Inspection, InspectionKind, InspectionOutcome
from vallostasis.core.records.rows import Hole

NOT_MEASURED = (
    "The corner of the ledge is not measured: a flange that is sharper than it rides on the corner, or breaks there. "
    "Measure its radius, or waive it by name, under Prepare."
)


def rides_up_m(corner_radius_m: float, edge_break_m: float, gap_m: float = 0.0) -> float:
    """How high a flange is held by the corner of its counterbore.

    Parameters
    ----------
    corner_radius_m : float
        Radius of the corner between ledge and wall, nought where it is undercut. [m]
    edge_break_m : float
        How far the lower edge of the flange, or of the shim under it, is broken off. [m]
    gap_m : float
        Between flange and wall, per side; nought is the worst. [m]

    Returns
    -------
    float
        Nought where the broken edge clears the corner. [m]

    Raises
    ------
    OutOfDomain
        If an input is negative or not finite.

    Notes
    -----
    The flat of the flange begins x = break + gap from the wall; a quarter circle of radius r tangent to ledge and wall
    stands r − √(r² − (r − x)²) above the ledge there: closed form, plane geometry. That a flange then rides or breaks
    is common practice, no published source.
    """
    require_not_negative(corner=corner_radius_m, edge=edge_break_m, gap=gap_m)
    short = corner_radius_m - edge_break_m - gap_m
    return 0.0 if short <= 0 else corner_radius_m - sqrt(corner_radius_m**2 - short**2)


def inspection_of(facts: JobFacts, kind: InspectionKind, hole: Hole | None) -> Inspection | None:
    """Return the newest look of a kind at a hole, one at all of them included; None where nobody looked. House rule."""
    holes = (None,) if hole is None else (None, hole.hole_id)
    looks = [one for one in facts.standing(facts.inspections) if one.kind is kind and one.hole_id in holes]
    return looks[-1] if looks else None


def corner_in_the_way(facts: JobFacts, hole: Hole) -> str:
    """Say why the corner of a ledge keeps a cut from being planned; empty where it does not. House rule.

    After a cut the corner is that of the bit where the card's cutter says it.
    """
    look = inspection_of(facts, InspectionKind.CORNER, hole)
    if look is None:
        return NOT_MEASURED
    if look.outcome is InspectionOutcome.FAULT:
        return f"The corner of the ledge is not sound: {look.words}. See to it first."
    edge = facts.card.seat.flange_edge.metres
    bit = facts.card.cutter.bit_corner.length
    radius = metres(look.figure_um) if look.figure_um is not None else None
    if bit is not None:
        radius = bit.metres
    if look.outcome is InspectionOutcome.WAIVED or edge is None or radius is None:
        return ""
    high = rides_up_m(radius, edge)
    if high == 0:
        return ""
    return (
        f"The flange would ride {both_small(micrometres(high))} high: the corner's radius is "
        f"{both_small(micrometres(radius))}, the flange's edge is broken {both_small(micrometres(edge))}. Undercut the "
        "corner, take a bit with a smaller radius, or waive it by name."
    )
