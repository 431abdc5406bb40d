"""Hold points: places in the route where something has to be there first, or a name and a reason. Common practice."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from vallostasis.core.bores.decisions import cleaned_up, contradictions
from vallostasis.core.bores.ladder import ladder_of_engine
from vallostasis.core.boring.faces_kept import faces_kept
from vallostasis.core.boring.made_to_bore import made_to_bore
from vallostasis.core.causes.experiments import hold_of
from vallostasis.core.clamping.progress import tightenings_of, why_not_tight
from vallostasis.core.counterbore.hole_plan import HolePlan, plan_hole
from vallostasis.core.counterbore.preparation import preparation_of
from vallostasis.core.counterbore.seat_corner import inspection_of
from vallostasis.core.features.parts import parts_of
from vallostasis.core.operations import schools
from vallostasis.core.operations.catalogue import OPERATIONS, Scope, operation_of
from vallostasis.core.operations.disturbances import doings_of
from vallostasis.core.operations.schools import side_of
from vallostasis.core.protrusion.measured import deciding_bore, measured_hole
from vallostasis.core.records.clamping import Clamp
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.preparation import InspectionKind, InspectionOutcome
from vallostasis.core.records.route_marks import HoldPass, HoldPoint, MarkKind, Operation
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import UNLINED, Construction, sheet_of
from vallostasis.core.records.values import is_relative, value_used_um
from vallostasis.core.route.broken_estimate import broken_by
from vallostasis.core.route.evidence import is_made_ready
from vallostasis.core.route.plan import plan_of
from vallostasis.core.route.shown import Evidence, holes_words, mark_of
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.decision import RuleKind, State

Far = dict[tuple[Operation, int | None], Evidence]
Check = Callable[[JobFacts, Hole | None, Far], str]


class HoldState(StrEnum):
    """Where a hold point stands."""

    CLEAR = "clear"
    OPEN = "open"
    WAITS = "waits"
    PASSED = "passed"


@dataclass(frozen=True, slots=True)
class Hold:
    """A hold point: what it says, the operations it stands before, and what is missing as a sentence."""

    hold: HoldPoint
    words: str
    before: tuple[Operation, ...]
    check: Check
    each_hole: bool = True


@dataclass(frozen=True, slots=True)
class HoldNow:
    """A hold point of a hole or of the block as it stands: what is missing, and by whom it was passed where it was."""

    hold: HoldPoint
    words: str
    before: Operation
    hole: int | None
    state: HoldState
    missing: str
    passed: HoldPass | None


def _piston(facts: JobFacts, hole: Hole | None, _far: Far) -> str:
    if hole is None:
        return ""
    part = next(one for one in parts_of(facts, Quantity.PISTON_SKIRT) if one.hole == hole.number)
    survey = survey_of(facts, Quantity.PISTON_SKIRT, part)
    if made_to_bore(facts, hole) is not None:
        return ""
    if survey.missing or not survey.read or survey.disturbed is not None:
        return f"the piston of hole {hole.number} is not measured"
    return survey.doubt


def _datum_and_prediction(facts: JobFacts, hole: Hole | None, _far: Far) -> str:
    if hole is None:
        return ""
    setup = facts.present_setup(Quantity.COUNTERBORE_DEPTH)
    if setup is None or not setup.datum.strip():
        return "nobody said from which face depths are counted"
    plan = plan_hole(facts, hole)
    return "" if isinstance(plan, HolePlan) else plan.reason


def _parts_agree(facts: JobFacts, hole: Hole | None, _far: Far) -> str:
    residual = None if hole is None else measured_hole(facts, hole).residual
    if hole is None or residual is None or residual.agrees:
        return ""
    return f"parts and reading of hole {hole.number} disagree"


def _worst_first(facts: JobFacts, hole: Hole | None, far: Far) -> str:
    """The hole that wore most decides the size for all: until it has cleaned up nobody knows that size."""
    if hole is None or facts.card.construction is not Construction.PARENT_BORE:
        return ""
    ladder = ladder_of_engine(facts)
    worst = worst_hole(facts) if ladder.worst is None else ladder.worst.hole
    if worst is None or worst.number == hole.number or _is_done(far, Operation.BORE, worst):
        return ""
    if cleaned_up(facts, worst):
        return ""
    return f"hole {worst.number} wore most, and has not cleaned up yet"


def _agreed_anew(facts: JobFacts, _hole: Hole | None, _far: Far) -> str:
    return "; ".join(one.words for one in contradictions(facts))


def worst_hole(facts: JobFacts) -> Hole | None:
    """Return the hole whose bore read largest as found; None where none was read. Common practice."""
    largest: dict[int, float] = {}
    for hole in facts.holes:
        sets = [one for one in facts.sets_of(Quantity.BLOCK_BORE) if one.hole_id == hole.hole_id]
        if not sets or is_relative(facts, sets[0]):
            continue
        read = [float(value_used_um(facts, sets[0], one)) for one in facts.standing_readings(sets[0])]
        if read:
            largest[hole.number] = max(read)
    worst = max(largest, key=lambda number: largest[number], default=None)
    return None if worst is None else facts.hole_numbered(worst)


def _ready_to_fit(facts: JobFacts, hole: Hole | None, far: Far) -> str:
    if hole is None:
        return ""
    if not is_made_ready(facts, hole):
        return f"hole {hole.number} is not logged as clean, dry, sealed, marked and the right way round"
    hot = far.get((Operation.HEAT, None))
    if hot is not None and not hot.is_done:
        return "temperatures of block and liners are not logged"
    return ""


def _heights_cold(facts: JobFacts, _hole: Hole | None, far: Far) -> str:
    if facts.card.construction in UNLINED:
        return ""
    unread = [
        str(number)
        for (operation, number), one in far.items()
        if operation is Operation.SEAT and one.state in (State.NOT_MEASURED, State.READ_AGAIN)
    ]
    return f"heights of {holes_words(unread)} are not read cold" if unread else ""


def _plate(facts: JobFacts, hole: Hole | None, far: Far) -> str:
    if side_of(facts, schools.PLATE) == schools.NO_PLATE or hole is None:
        return ""
    plate = far.get((Operation.PLATE, None))
    if plate is None or not plate.is_done:
        return "the torque plate is not on as the head will be"
    # Whoever marks it as on by hand, after what the bolts say, has put it on again without them.
    mark, bolts = mark_of(facts, Operation.PLATE, None), tightenings_of(facts, Clamp.PLATE)
    newest = max((tight.newest_event for tight in bolts), default=0)
    return "" if mark is not None and mark.event > newest else why_not_tight(facts, Clamp.PLATE, hole.number)


def _honing_frozen(_facts: JobFacts, _hole: Hole | None, far: Far) -> str:
    still = [
        str(number)
        for (operation, number), one in far.items()
        if operation in (Operation.BORE, Operation.HONE, Operation.HONE_BLOCK) and not one.is_done
    ]
    return f"{holes_words(sorted(set(still), key=int))} may still be bored or honed" if still else ""


def _three_axes(facts: JobFacts, hole: Hole | None, _far: Far) -> str:
    """Two axes miss an oval that lies between them, one level says nothing of the others."""
    bore = None if hole is None else deciding_bore(facts, hole)
    if hole is None or bore is None or bore.form is None:
        return ""
    judged_round = any(rule.kind is RuleKind.OUT_OF_ROUND and rule.decision.state is State.IN for rule in bore.rules)
    axes = {row.place.axis_deg for row in bore.read}
    levels = {row.place.level_um for row in bore.read}
    if judged_round and (len(axes) < 3 or len(levels) < 2):
        return f"hole {hole.number} is called round from {len(axes)} axes at {len(levels)} levels"
    return ""


def _common_causes(facts: JobFacts, hole: Hole | None, _far: Far) -> str:
    """What parts or a zero contradict is looked into before metal is taken off for it."""
    for one in facts.holes if hole is None else (hole,):
        measured = measured_hole(facts, one)
        if measured.residual is not None and not measured.residual.agrees and (why := hold_of(facts)):
            return f"parts and reading of hole {one.number} disagree: {why}"
        if measured.standing.doubt:
            return f"hole {one.number} was read on a zero that moved"
    return ""


def _deck_judged(facts: JobFacts, _hole: Hole | None, _far: Far) -> str:
    """Depths are counted from the deck: one that is not flat is another datum at every hole."""
    if sheet_of(facts.card, Quantity.DECK_FLATNESS) is None:
        return ""
    for part in parts_of(facts, Quantity.DECK_FLATNESS):
        survey = survey_of(facts, Quantity.DECK_FLATNESS, part)
        if survey.state is not State.IN:
            return f"{part.title} is {survey.state.value} by its flatness: {survey.reason}"
    return ""


def _looked_for_cracks(facts: JobFacts, hole: Hole | None, _far: Far) -> str:
    if hole is None:
        return ""
    looks = ((InspectionKind.CRACK_LEDGE, hole), (InspectionKind.CRACK_DECK, None), (InspectionKind.PRESSURE, None))
    missing = []
    for kind, where in looks:
        look = inspection_of(facts, kind, where)
        at = "" if where is None else f" of hole {hole.number}"
        if look is None:
            missing.append(f"no {kind.value}{at}")
        elif look.outcome is InspectionOutcome.FAULT:
            missing.append(f"{kind.value}{at} not sound: {look.words}")
    return ", ".join(missing)


def _face_kept(facts: JobFacts, _hole: Hole | None, _far: Far) -> str:
    return "; ".join(faces_kept(facts))


def _plugs_out(facts: JobFacts, _hole: Hole | None, _far: Far) -> str:
    return preparation_of(facts).plugs_missing


def _estimate_stands(facts: JobFacts, _hole: Hole | None, _far: Far) -> str:
    return broken_by(facts)


HOLDS: tuple[Hold, ...] = (
    Hold(HoldPoint.PISTON_FIRST, "No boring or honing before the piston is measured",
         (Operation.BORE, Operation.HONE), _piston),
    Hold(HoldPoint.DATUM_AND_PREDICTION, "No cut before the datum is declared and the prediction is in its window",
         (Operation.CUT,), _datum_and_prediction),
    Hold(HoldPoint.FACE_KEPT, "No surfacer on a face that stays as it is", (Operation.DECK,), _face_kept,
         each_hole=False),
    Hold(HoldPoint.DECK_JUDGED, "No cut before the deck that depths are counted from is judged flat",
         (Operation.CUT,), _deck_judged, each_hole=False),
    Hold(HoldPoint.LOOKED_FOR_CRACKS, "No cut before ledge and deck were looked at for cracks, and the block held "
         "pressure", (Operation.CUT,), _looked_for_cracks),
    Hold(HoldPoint.COMMON_CAUSES, "No machining for an anomaly before common causes were tested",
         (Operation.CUT, Operation.DECK, Operation.BORE), _common_causes),
    Hold(HoldPoint.WORST_FIRST, "No second hole bored until the worst has cleaned up", (Operation.BORE,),
         _worst_first),
    Hold(HoldPoint.AGREED_ANEW, "No further cut while a bore that did not clean up is not agreed anew",
         (Operation.BORE, Operation.BORE_BLOCK, Operation.PLATE, Operation.HONE), _agreed_anew, each_hole=False),
    Hold(HoldPoint.ESTIMATE, "No further cut on an estimate that a finding broke",
         (Operation.CUT, Operation.BORE, Operation.BORE_BLOCK, Operation.DECK), _estimate_stands, each_hole=False),
    Hold(HoldPoint.READY_TO_FIT, "No fitting before cleanliness and orientation are logged, and temperatures where "
         "it goes in hot", (Operation.FIT,), _ready_to_fit),
    Hold(HoldPoint.PARTS_AGREE, "No verdict while parts and reading disagree", (Operation.RELEASE,), _parts_agree),
    Hold(HoldPoint.PLATE, "No finish hone without the plate where the job asks for one", (Operation.HONE,), _plate),
    Hold(HoldPoint.HONING_FROZEN, "No ring gap and no wash while honing may come",
         (Operation.WASH, Operation.PISTONS), _honing_frozen, each_hole=False),
    Hold(HoldPoint.PLUGS_OUT, "No wash and no release while a plug that went in is not out",
         (Operation.WASH, Operation.RELEASE), _plugs_out, each_hole=False),
    Hold(HoldPoint.THREE_AXES, "No “round” without three axes at several levels", (Operation.RELEASE,), _three_axes),
    Hold(HoldPoint.HEIGHTS_COLD, "No release before seat heights are read cold", (Operation.RELEASE,),
         _heights_cold, each_hole=False),
)  # fmt: skip


def _is_done(far: Far, operation: Operation, hole: Hole) -> bool:
    found = far.get((operation, hole.number))
    return found is not None and found.is_done


def hold_points_of(facts: JobFacts, far: Far) -> tuple[HoldNow, ...]:
    """Return the hold points of a route that ask for something, or were passed by name, in the order of the work.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    far : dict
        How far every operation is, from ``evidence_of_route``.

    Returns
    -------
    tuple of HoldNow
        One of each hold point where all its holes are clear, else one of each hole that asks or was passed.
        Common practice, no published source.
    """
    found: list[HoldNow] = []
    for leg in plan_of(facts):
        for hold in _holds_before(facts, leg.operation):
            holes: tuple[Hole | None, ...] = (None,)
            if hold.each_hole:
                holes = leg.holes if OPERATIONS[leg.operation].scope is Scope.HOLE else facts.holes
            every = [_hold_now(facts, hold, leg.operation, hole, far) for hole in holes]
            told = [one for one in every if one.state is not HoldState.CLEAR]
            found += told or [HoldNow(hold.hold, hold.words, leg.operation, None, HoldState.CLEAR, "", None)]
    return tuple(found)


def _holds_before(facts: JobFacts, operation: Operation) -> list[Hold]:
    holds = [one for one in HOLDS if operation in one.before]
    if OPERATIONS[operation].irreversible and side_of(facts, schools.SECOND) == schools.TWO_PERSONS:
        kind = operation_of(operation)
        words = f"A second person looks before it cannot be undone: {kind.title.lower()}"
        holds.append(Hold(HoldPoint.SECOND_PERSON, words, (operation,), _second_person(operation),
                          each_hole=kind.scope is Scope.HOLE))  # fmt: skip
    return holds


def _second_person(operation: Operation) -> Check:
    def check(facts: JobFacts, hole: Hole | None, _far: Far) -> str:
        looked = _looked_over(facts, operation, hole)
        where = "" if hole is None else f" at hole {hole.number}"
        return "" if looked else f"nobody else has looked over {operation_of(operation).title.lower()}{where}"

    return check


def _looked_over(facts: JobFacts, operation: Operation, hole: Hole | None) -> list[str]:
    """Who looked an operation over since it was last done."""
    last = _last_doing(facts, operation, hole)
    return [
        one.marked_by
        for one in facts.standing(facts.operation_marks)
        if one.operation is operation
        and one.kind is MarkKind.LOOKED_OVER
        and one.hole_id == (None if hole is None else hole.hole_id)
        and (last is None or one.done_at > last)
    ]


def _last_doing(facts: JobFacts, operation: Operation, hole: Hole | None) -> datetime | None:
    number = None if hole is None else hole.number
    times = [one.at for one in doings_of(facts) if one.operation is operation and one.hole == number]
    return max(times, default=None)


def _hold_now(facts: JobFacts, hold: Hold, operation: Operation, hole: Hole | None, far: Far) -> HoldNow:
    number = None if hole is None else hole.number
    done = far.get((operation, number))
    passes = [
        one
        for one in facts.standing(facts.hold_passes)
        if one.hold is hold.hold and one.before is operation and one.hole_id == (None if hole is None else hole.hole_id)
    ]
    if hole is None and OPERATIONS[operation].scope is Scope.HOLE:
        is_done = _all_done(far, operation)
    else:
        is_done = done is not None and done.is_done
    last = _last_doing(facts, operation, hole)
    # A pass is for the next time: what was done once with it needs another to be done again.
    valid = [one for one in passes if is_done or last is None or one.passed_at > last]
    missing = hold.check(facts, hole, far)
    if valid:
        state = HoldState.PASSED
    elif not missing or (is_done and hold.hold is not HoldPoint.PARTS_AGREE):
        state = HoldState.CLEAR
    else:
        leg = next((one for one in plan_of(facts) if one.operation is operation), None)
        at_hand = leg is None or all(_all_done(far, first) for first in leg.after)
        state = HoldState.WAITS if at_hand else HoldState.OPEN
    return HoldNow(hold.hold, hold.words, operation, number, state, missing, valid[-1] if valid else None)


def _all_done(far: Far, operation: Operation) -> bool:
    """Whether an operation is done at all its holes; what the route does not have is."""
    return all(one.is_done for (of, _), one in far.items() if of is operation)


def in_the_way(facts: JobFacts, operation: Operation, hole: Hole | None, by: str, far: Far) -> tuple[HoldNow, ...]:
    """Return the hold points that have to be passed by name before an operation is done, by that person. House rule."""
    found = []
    for hold in _holds_before(facts, operation):
        holes: tuple[Hole | None, ...] = (hole,) if hole is not None else (facts.holes if hold.each_hole else (None,))
        for one in holes if hold.each_hole else (None,):
            now = _hold_now(facts, hold, operation, one, far | {(operation, _number(one)): _NOT_YET})
            if hold.hold is HoldPoint.SECOND_PERSON and set(_looked_over(facts, operation, one)) == {by}:
                found.append(HoldNow(hold.hold, hold.words, operation, _number(one), HoldState.WAITS,
                                     f"{by} looked it over, and does it too: another person looks", None))  # fmt: skip
            elif now.state in (HoldState.OPEN, HoldState.WAITS):
                found.append(now)
    return tuple(found)


_NOT_YET = Evidence(State.NOT_MEASURED, "")


def _number(hole: Hole | None) -> int | None:
    return None if hole is None else hole.number
