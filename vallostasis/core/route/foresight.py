"""What stands before a step that cannot be undone: what it would give, and how much room there is. [m]"""

from collections.abc import Iterator

from vallostasis.core.counterbore.hole_plan import HolePlan, plan_hole
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.protrusion.measured import deciding_bore, hole_parts, protrusion_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.core.route.plan import Leg
from vallostasis.core.surveys.places import limits_of
from vallostasis.core.trail import Phrase, Term

BORING = (Operation.BORE_BLOCK, Operation.HONE_BLOCK, Operation.BORE, Operation.HONE)


def foresee(facts: JobFacts, leg: Leg, open_holes: tuple[int, ...]) -> tuple[Phrase, ...]:
    """Say what an operation would give, hole by hole that is open, with what is left to its limits.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    leg : Leg
        The operation; one that can be undone foresees nothing.
    open_holes : tuple of int
        Holes at which it is not done.

    Returns
    -------
    tuple of Phrase
        Lengths as terms. House rule: a figure that is not known is said to be missing.
    """
    if not OPERATIONS[leg.operation].irreversible:
        return ()
    holes = [hole for hole in leg.holes if hole.number in open_holes]
    if leg.operation is Operation.CUT:
        return tuple(_cut(facts, hole) for hole in holes)
    if leg.operation is Operation.FIT:
        return tuple(_fit(facts, hole) for hole in holes)
    if leg.operation is Operation.DECK:
        return tuple(_deck(facts))
    if leg.operation in BORING:
        return tuple(phrase for hole in holes for phrase in _bore(facts, hole))
    return ()


def _cut(facts: JobFacts, hole: Hole) -> Phrase:
    plan = plan_hole(facts, hole)
    if not isinstance(plan, HolePlan):
        return Phrase(f"Hole {hole.number}: no cut can be foreseen, {plan.reason}")
    cut, limits = plan.cut, plan.limits
    margin = min(cut.protrusion_m - limits.least_m, limits.greatest_m - cut.protrusion_m)
    return Phrase(
        f"Hole {hole.number}: cut to {{D}} on a {{s}} shim it stands at {{P}} ±{{U}}, {{m}} from the nearer limit.",
        (Term("D", cut.depth_m, "size"), Term("s", cut.shim_m, "size"), Term("P", cut.protrusion_m),
         Term("U", cut.by_stop.expanded_m, "within"), Term("m", margin)),
    )  # fmt: skip


def _fit(facts: JobFacts, hole: Hole) -> Phrase:
    prediction = hole_parts(facts, hole).prediction
    if prediction is None:
        missing = " and ".join(hole_parts(facts, hole).missing)
        return Phrase(f"Hole {hole.number}: nothing can be foreseen without {missing or 'a seat with a ledge'}.")
    terms = (Term("P", prediction.protrusion_m), Term("U", prediction.stated.expanded_m, "within"))
    return Phrase(f"Hole {hole.number}: its parts give {{P}} ±{{U}}.", terms)


def _deck(facts: JobFacts) -> Iterator[Phrase]:
    """How proud the liners stand: what comes off the deck is less than the lowest of them is to keep. [m]"""
    read = [row.stated for hole in facts.holes for row in protrusion_of(facts, hole).read if row.stated is not None]
    if not read:
        yield Phrase("Nobody knows how proud the liners stand: read them first.")
        return
    least, greatest = min(read, key=lambda one: one.value_m), max(read, key=lambda one: one.value_m)
    yield Phrase(
        "Liners stand from {l} ±{u} to {g} proud: all of them come down with what comes off.",
        (Term("l", least.value_m), Term("u", least.expanded_m, "within"), Term("g", greatest.value_m)),
    )


def _bore(facts: JobFacts, hole: Hole) -> Iterator[Phrase]:
    """How far the largest diameter is from the greatest allowed: more than that is gone for good. [m]"""
    bore = deciding_bore(facts, hole)
    read = [row.stated for row in bore.read if row.stated is not None]
    greatest = limits_of(facts, bore.feature.quantity, bore.part).greatest_m
    if not read:
        yield Phrase(f"Hole {hole.number}: its {bore.feature.quantity.value} is not read as it stands now.")
        return
    largest = max(read, key=lambda one: one.value_m)
    terms = (Term("D", largest.value_m, "size"), Term("U", largest.expanded_m, "within"))
    if greatest is None:
        yield Phrase(f"Hole {hole.number}: {{D}} ±{{U}} at its largest; the card sets no greatest.", terms)
        return
    left = Term("m", greatest - largest.value_m)
    side = "left to the greatest" if left.value >= 0 else "beyond the greatest"
    room = Term("m", abs(left.value))
    yield Phrase(f"Hole {hole.number}: {{D}} ±{{U}} at its largest, {{m}} {side}, on the diameter.", (*terms, room))
