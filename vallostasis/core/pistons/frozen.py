"""Whether a bore is frozen: nothing more is taken off it, and what it is was read since.

Ring gaps are read after that; what re-opens a bore clears them. House rule.
"""

from math import pi

from vallostasis.core.bores.wall import part_of_bore
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.honing.now import HoneState, hone_now
from vallostasis.core.honing.rounds import sets_read
from vallostasis.core.records.honing import HoneAim
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import HoldPoint, Operation
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.route.evidence import evidence_of
from vallostasis.core.route.plan import plan_of
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import value_of

_OPENS = (Operation.BORE, Operation.HONE)


def running(facts: JobFacts, hole: Hole) -> Survey:
    """Return the bore that a piston runs in, as it stands now. By construction."""
    quantity = running_bore(facts.card)
    return survey_of(facts, quantity, part_of_bore(facts, hole, quantity))


def why_not_frozen(facts: JobFacts, hole: Hole) -> str:
    """Say why a bore is not frozen yet; empty where it is.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    str
        What the route of the job still has before it, or what was done to the bore since it was read. House rule.
    """
    bore = running(facts, hole)
    if bore.disturbed is not None:
        return f"the bore was changed since it was read ({bore.disturbed.words})"
    for leg in plan_of(facts):
        if leg.operation in _OPENS and hole in leg.holes:
            found = evidence_of(facts, leg.operation, hole)
            honed = hone_now(facts, hole, HoneAim.PISTON)
            if not found.is_done and not (honed.made and honed.state is HoneState.DONE):
                return f"hole {hole.number} may still be bored or honed: {found.words}"
    return ""


def passed_by_name(facts: JobFacts, hole: Hole) -> bool:
    """Whether somebody passed the hold point by name, for this hole or for the block. House rule."""
    return any(
        one.hold is HoldPoint.HONING_FROZEN and one.before is Operation.PISTONS and one.hole_id in (None, hole.hole_id)
        for one in facts.standing(facts.hold_passes)
    )


def gaps_of(facts: JobFacts, hole: Hole) -> Survey | None:
    """Return what was read of the ring gaps of a hole; None where nothing can be. By its part."""
    part = part_with_key(facts, Quantity.RING_GAP, f"hole-{hole.number}")
    return None if part is None else survey_of(facts, Quantity.RING_GAP, part)


def gap_by_growth(facts: JobFacts, hole: Hole) -> Phrase | None:
    """Say what gaps read before would be now: a bore larger by d opens a gap by π·d. [m] Closed form.

    None where nothing was read before, or the bore was not read both times.
    """
    gaps, bore = gaps_of(facts, hole), running(facts, hole)
    if gaps is None or gaps.disturbed is None or bore.disturbed is not None:
        return None
    was = [one.value_m for one in gaps.past if one.value_m is not None]
    first = min((row.event for one in gaps.past for row in one.readings), default=0)
    read = sets_read(facts, hole, bore.feature.quantity)
    before = [sizes for event, sizes in read if event < first]
    if not was or not before or read[-1][1] is before[-1]:
        return None
    now, then = read[-1][1], before[-1]
    grown = [value_of(now[place]) - value_of(then[place]) for place in then if place in now]
    if not grown:
        return None
    growth, gap = sum(grown) / len(grown), sum(was) / len(was)
    return Phrase("The gaps read before were {g}; the bore grew by {d} since, which opens a gap by {o}: about {n} now. "
                  "Read them again.", (Term("g", gap), Term("d", growth), Term("o", pi * growth),
                                       Term("n", gap + pi * growth)))  # fmt: skip
