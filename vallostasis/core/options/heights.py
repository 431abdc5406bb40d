"""How the holes stand before anything is done about one of them, and what they would read another way.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: a height afterwards is what was read and what comes off or on.
"""

from dataclasses import dataclass, replace

from vallostasis.core.protrusion.measured import flange_part, hole_parts, measured_hole
from vallostasis.core.protrusion.rules import parts_rule
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.surveys.places import protrusion_limits
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, stated, weighted
from vallostasis.core.uncertainty.decision import RuleKind, Standing, State, decide, judge


@dataclass(frozen=True, slots=True)
class Height:
    """How a hole stands and by which limits it is judged. [m]

    ``standing`` is what the card says of it by everything that was read of it, so that a centre that is in makes no
    hole in; None where nobody has read it so: by its parts, with another liner, or after a cut.
    """

    hole: int
    estimate: Estimate
    least_m: float
    greatest_m: float
    standing: Standing | None = None


@dataclass(frozen=True, slots=True)
class OtherLand:
    """What the hole would read over another land of its liner, and what that would be called. [m]"""

    land: str
    value: Stated
    state: State


def height_of(facts: JobFacts, hole: Hole) -> Height | None:
    """Return how a hole stands: as read, else by its parts; None where neither is known. [m] Sum of the stack."""
    fitting = facts.present_fitting(hole.hole_id)
    shimmed = fitting is not None and bool(facts.shims_of(fitting.fitting_id))
    limits = protrusion_limits(facts.card, shimmed)
    read = measured_hole(facts, hole)
    predicted = hole_parts(facts, hole).prediction
    found = read.centre if read.centre is not None else None if predicted is None else predicted.estimate
    if found is None or limits.least_m is None or limits.greatest_m is None:
        return None
    standing = None if read.centre is None else replace(read.standing, rules=(*read.standing.rules,
                                                                              *parts_rule(read.residual)))  # fmt: skip
    return Height(hole.number, found, limits.least_m, limits.greatest_m, standing)


def lifted_standing(standing: Standing | None, lift_m: float, acceptance: Acceptance) -> Standing | None:
    """Judge every reading of a hole again as much higher as the deck comes down; how it differs round stays. [m]

    Geometry; common practice, no published source.
    """
    if standing is None:
        return None
    rules = tuple(
        replace(judged, quantity=one.quantity, readings=one.readings, hour=one.hour)
        if one.kind is RuleKind.READING and (judged := judge(
            one.kind, one.where, replace(one.stated, value_m=one.stated.value_m + lift_m),
            (one.least_m, one.greatest_m), acceptance)) else one
        for one in standing.rules
    )  # fmt: skip
    return replace(standing, rules=rules)


def other_lands(facts: JobFacts, hole: Hole, height: Height) -> tuple[OtherLand, ...]:
    """Return what the same liner would read over each other land of it that was read. [m] A difference, [1]_."""
    fitting, land = facts.present_fitting(hole.hole_id), facts.card.measuring.land
    liner = None if fitting is None else facts.liner(fitting.liner_id)
    own = None if liner is None else flange_part(facts, liner, land)
    if liner is None or own is None:
        return ()
    found = []
    for other in sorted({facts.setup(one.setup_id).land for one in facts.sets_of(Quantity.FLANGE_THICKNESS)} - {land}):
        there = flange_part(facts, liner, other)
        if there is None:
            continue
        more = weighted(((1.0, height.estimate), (1.0, difference_of(there.estimate, own.estimate))))
        value = stated(f"over the {other}", more, facts.card.coverage_factor)
        state = decide(value.value_m, value.expanded_m, height.least_m, height.greatest_m, facts.card.acceptance).state
        found.append(OtherLand(other, value, state))
    return tuple(found)
