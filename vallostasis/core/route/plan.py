"""Which operations a job has, of which holes, in what order: from its construction, its schools and what was found."""

from dataclasses import dataclass

from vallostasis.core.bores.decisions import is_given
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.features.parts import parts_of
from vallostasis.core.mains.align import line_is_out
from vallostasis.core.operations import schools
from vallostasis.core.operations.catalogue import OPERATIONS, Scope
from vallostasis.core.operations.schools import side_of
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.bore_decisions import BoreChoice
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.preparation import PrepKind
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import (
    CONSTRUCTIONS_WITH_LEDGE,
    CONSTRUCTIONS_WITH_PROTRUSION,
    UNLINED,
    Construction,
    SpecCard,
    sheet_of,
)
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.decision import State

_ALWAYS = (Operation.TAKE_IN, Operation.STRIP, Operation.MEASURE, Operation.DECIDE, Operation.WASH, Operation.PISTONS,
           Operation.PROVE, Operation.RELEASE)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Leg:
    """One operation of a route: of which holes (none where it is of the block), and what has to be done first."""

    operation: Operation
    holes: tuple[Hole, ...]
    after: tuple[Operation, ...]

    @property
    def hours(self) -> float:
        """Planned hours of all its holes. [h] Common practice, no published source."""
        kind = OPERATIONS[self.operation]
        return kind.hours * (len(self.holes) if kind.scope is Scope.HOLE else 1)


@once
def plan_of(facts: JobFacts) -> tuple[Leg, ...]:
    """Return the operations of a job in the order of the work.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job; its card's construction, its schools and what was found decide.

    Returns
    -------
    tuple of Leg
        Every operation once, after everything that has to be done first.

    Notes
    -----
    Common practice, no published source.
    """
    holes = {operation: _holes_of(facts, operation) for operation in Operation}
    planned = [operation for operation in _usual_order(facts) if _has(facts, operation, holes[operation])]
    after = {one: tuple(first for first in _after(facts, one) if first in planned) for one in planned}
    return tuple(Leg(one, holes[one], after[one]) for one in _in_order(planned, after))


def _in_order(planned: list[Operation], after: dict[Operation, tuple[Operation, ...]]) -> list[Operation]:
    """Put operations after what has to be done first, else in the usual order."""
    ordered: list[Operation] = []
    while len(ordered) < len(planned):
        ready = (one for one in planned if one not in ordered and all(first in ordered for first in after[one]))
        following = next(ready, None)
        if following is None:
            raise OutOfDomain("operations wait for each other in a circle", "operations")
        ordered.append(following)
    return ordered


def _usual_order(facts: JobFacts) -> list[Operation]:
    order = list(Operation)
    if side_of(facts, schools.DECK_ORDER) == schools.DECK_AFTER:
        order.remove(Operation.DECK)
        order.insert(order.index(Operation.FREE) + 1, Operation.DECK)
    if side_of(facts, schools.MAINS) == schools.MAINS_FIRST:
        for one in (Operation.ALIGN, Operation.MAINS):
            order.remove(one)
            order.insert(order.index(Operation.MEASURE) + 1, one)
    return order


def _after(facts: JobFacts, operation: Operation) -> tuple[Operation, ...]:
    """Return what has to be done before an operation, as the schools of the job have it."""
    after = OPERATIONS[operation].after
    if operation in (Operation.PLATE, Operation.HONE) and side_of(facts, schools.DECK_ORDER) == schools.DECK_BEFORE:
        return (*after, Operation.DECK)
    if operation is Operation.DECK and side_of(facts, schools.DECK_ORDER) == schools.DECK_AFTER:
        return (*after, Operation.HONE, Operation.FREE)
    if operation is Operation.MAINS and side_of(facts, schools.MAINS) == schools.MAINS_FIRST:
        return (Operation.CAPS, Operation.MEASURE)
    if operation is Operation.PROVE:
        return tuple(one for one in Operation if one not in (Operation.PROVE, Operation.RELEASE))
    return after


def _has(facts: JobFacts, operation: Operation, holes: tuple[Hole, ...]) -> bool:
    """Whether a job's route has an operation. Common practice, no published source."""
    card = facts.card
    if operation in _ALWAYS or any(one.operation is operation for one in facts.standing(facts.operation_marks)):
        return True
    if OPERATIONS[operation].scope is Scope.HOLE:
        return bool(holes)
    cutting = any(_holes_of(facts, one) for one in (Operation.CUT, Operation.BORE, Operation.BORE_BLOCK))
    return {
        Operation.CAPS: _has_caps(card),
        Operation.ORDER: any(one.operation is Operation.ORDER for one in facts.standing(facts.waits)),
        Operation.CLEAN: card.construction in (*CONSTRUCTIONS_WITH_PROTRUSION, Construction.WET_BOTTOM_SEAT),
        Operation.PLUG: cutting or any(one.kind is PrepKind.PLUGS_IN for one in facts.standing(facts.prep_steps)),
        Operation.HEAT: _fits_hot(facts),
        Operation.SOAK: _fits_hot(facts),
        Operation.DECK: _is_decked(facts),
        Operation.PLATE: _hones_under_a_plate(facts),
        Operation.MAINS: card.main_bores > 0 and (cutting or bool(_holes_of(facts, Operation.FIT))),
        Operation.ALIGN: mains_are_out(facts),
    }[operation]


def _holes_of(facts: JobFacts, operation: Operation) -> tuple[Hole, ...]:
    """Return the holes that a job's route has an operation for; none for one of the block."""
    card, kind = facts.card, OPERATIONS[operation]
    if kind.scope is Scope.BLOCK:
        return ()
    marked = {one.hole_id for one in facts.standing(facts.operation_marks) if one.operation is operation}
    lined, dry = card.construction not in UNLINED, card.construction in schools.DRY

    def asked(hole: Hole) -> bool:
        if operation is Operation.CUT:
            return _is_cut(facts, hole)
        if operation in (Operation.FIT, Operation.FIT_PREP):
            return is_given(facts, hole, BoreChoice.SLEEVE) is True or (lined and _is_fitted(facts, hole))
        if operation is Operation.SEAT:
            return lined
        if operation is Operation.BORE_BLOCK:
            sleeved = is_given(facts, hole, BoreChoice.SLEEVE) is True
            return sleeved or (dry and side_of(facts, schools.SEAT_BORE) == schools.BORED)
        if operation is Operation.HONE_BLOCK:
            return side_of(facts, schools.SIZING) == schools.SIZE_BLOCK if dry else _has_collar(card)
        if operation is Operation.BORE:
            return _is_bored(facts, hole)
        if operation is Operation.HONE:
            return _is_honed(facts, hole)
        if operation is Operation.FREE:
            return _hones_under_a_plate(facts) and _is_honed(facts, hole)
        return True

    return tuple(hole for hole in facts.holes if hole.hole_id in marked or asked(hole))


def _is_cut(facts: JobFacts, hole: Hole) -> bool:
    if facts.last_cut(hole.hole_id) is not None:
        return True
    if facts.card.construction not in CONSTRUCTIONS_WITH_LEDGE or side_of(facts, schools.SUNK) == schools.DECK_IT:
        return False
    if side_of(facts, schools.WHICH_HOLES) == schools.ALL_HOLES:
        return True
    judged = next(one for one in judge_job(facts).holes if one.hole == hole.number)
    return judged.state is State.OUT


def is_to_be_cut(facts: JobFacts, hole: Hole) -> bool:
    """Whether a hole is to be cut and is not yet. House rule."""
    return facts.last_cut(hole.hole_id) is None and _is_cut(facts, hole)


def _is_fitted(facts: JobFacts, hole: Hole) -> bool:
    """Whether a liner goes into a hole on this job: one that is cut, open, or has another than it came with."""
    fittings = facts.standing_fittings(hole.hole_id)
    anew = any(not facts.came_with_engine(one) for one in fittings)
    return anew or facts.present_fitting(hole.hole_id) is None or _is_cut(facts, hole)


def _has_collar(card: SpecCard) -> bool:
    """A wet liner whose seat in the block has limits on the card is held by a collar that is honed to it."""
    sheet = sheet_of(card, Quantity.BLOCK_BORE)
    return card.construction not in UNLINED and sheet is not None and sheet.least.length is not None


def _is_bored(facts: JobFacts, hole: Hole) -> bool:
    given = is_given(facts, hole, BoreChoice.OVERSIZE, BoreChoice.SLEEVE)
    if given is not None:
        return given
    if facts.card.construction is Construction.PARENT_BORE:
        return True
    return facts.card.construction in schools.DRY and side_of(facts, schools.SLEEVES) == schools.LEFT_SMALL


def _is_honed(facts: JobFacts, hole: Hole) -> bool:
    given = is_given(facts, hole, BoreChoice.HONE, BoreChoice.OVERSIZE, BoreChoice.SLEEVE)
    if given is False:
        return False
    if facts.card.construction is Construction.PARENT_BORE:
        return side_of(facts, schools.FINISH) == schools.HONED
    if facts.card.construction is Construction.COATED:
        return False
    # A press closes the bore in, and what closed in is honed.
    pressed = facts.card.construction in schools.DRY or _has_collar(facts.card)
    return pressed or _bore_is_out(facts, hole)


def _bore_is_out(facts: JobFacts, hole: Hole) -> bool:
    """Whether the bore of a wet liner closed in, or is off for another reason, so that it has to be honed."""
    if not facts.sets_of(Quantity.LINER_BORE):
        return False
    part = next(one for one in parts_of(facts, Quantity.LINER_BORE) if one.hole == hole.number)
    return part.target is not None and survey_of(facts, Quantity.LINER_BORE, part).state is State.OUT


def _hones_under_a_plate(facts: JobFacts) -> bool:
    hones = any(_is_honed(facts, hole) for hole in facts.holes)
    return hones and side_of(facts, schools.PLATE) == schools.WITH_PLATE


def _has_caps(card: SpecCard) -> bool:
    """Whether main caps may load the bores: a card that counts no mains may only not have said so, but for one hole."""
    return card.main_bores > 0 or (card.layout.holes > 1 and card.construction in (*UNLINED, *schools.DRY))


def _fits_hot(facts: JobFacts) -> bool:
    return side_of(facts, schools.GETTING_IN) == schools.HEAT and bool(_holes_of(facts, Operation.FIT))


def _is_decked(facts: JobFacts) -> bool:
    if side_of(facts, schools.HEIGHT) == schools.LEFT_PROUD or side_of(facts, schools.SUNK) == schools.DECK_IT:
        return facts.card.construction not in UNLINED
    return any(one is State.OUT for one in states_of(facts, Quantity.DECK_FLATNESS))


def mains_are_out(facts: JobFacts) -> bool:
    """Whether the main bores are out now, so that they have to be align-honed. House rule."""
    return any(one is State.OUT for one in states_of(facts, Quantity.MAIN_BORE)) or line_is_out(facts)


def states_of(facts: JobFacts, quantity: Quantity) -> tuple[State, ...]:
    """Return the state of a feature on every part of the block; not measured where it was never read."""
    if not facts.sets_of(quantity):
        return tuple(State.NOT_MEASURED for _ in parts_of(facts, quantity))
    return tuple(survey_of(facts, quantity, part).state for part in parts_of(facts, quantity))
