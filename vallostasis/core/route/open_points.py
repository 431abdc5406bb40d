"""What keeps a job from being proved: nothing is silently missing. House rule: each is done, or waived by name."""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.bores.decisions import decision_of
from vallostasis.core.features.parts import parts_of
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.bore_decisions import BoreChoice
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import HoldPoint, Operation
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION
from vallostasis.core.route.as_found import as_found_left
from vallostasis.core.route.hold_points import HoldNow, HoldState
from vallostasis.core.route.shown import Evidence, holes_words
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.decision import State

# Hold points about what the proof says; the others are told by holes and operations.
VERDICTS = (HoldPoint.PARTS_AGREE, HoldPoint.THREE_AXES)


class PointKind(StrEnum):
    """What kind of thing is open."""

    OPERATION = "operation"
    HOLE = "hole"
    SURVEY = "survey"
    UNREAD = "unread"
    HOLD = "hold point"
    WAIT = "wait"


@dataclass(frozen=True, slots=True)
class OpenPoint:
    """One thing that is open: where, its state, in words. A survey that nobody reads can be waived by name."""

    kind: PointKind
    words: str
    state: State
    hole: int | None = None
    quantity: Quantity | None = None
    part: str = ""


def open_points_of(
    facts: JobFacts, far: dict[tuple[Operation, int | None], Evidence], holds: tuple[HoldNow, ...]
) -> tuple[OpenPoint, ...]:
    """Return everything that keeps a job from being proved: holes, surveys, operations, hold points, waits."""
    points = [
        OpenPoint(PointKind.HOLE, f"hole {one.hole} {_IS[one.state]}: {one.reason}", one.state, one.hole)
        for one in judge_job(facts).holes
        if one.state is not State.IN and not _is_conceded(facts, one.hole)
    ]
    points += _surveys(facts)
    points += [
        OpenPoint(PointKind.UNREAD, f"{one.quantity.value}, {one.title} was not read as found", State.NOT_MEASURED,
                  None, one.quantity, one.part)
        for one in as_found_left(facts)
    ]  # fmt: skip
    points += _operations(far)
    points += [
        OpenPoint(PointKind.HOLD, one.missing, State.NOT_MEASURED, one.hole)
        for one in holds
        if one.state in (HoldState.OPEN, HoldState.WAITS) and one.hold in VERDICTS
    ]
    points += [
        OpenPoint(PointKind.WAIT, f"{OPERATIONS[one.operation].title} waits for {one.words}", State.NOT_MEASURED)
        for one in facts.standing(facts.waits)
        if one.wait_id not in facts.standing_wait_ends
    ]
    return tuple(points)


def _is_conceded(facts: JobFacts, number: int) -> bool:
    """Whether a bore below book was accepted by name."""
    hole = facts.hole_numbered(number)
    decided = None if hole is None else decision_of(facts, hole)
    return decided is not None and decided.choice is BoreChoice.LEAVE and decided.concession != ""


def _surveys(facts: JobFacts) -> list[OpenPoint]:
    """Features that were read and are not in; what the hole is judged by stands with the hole."""
    wet = facts.card.construction in CONSTRUCTIONS_WITH_PROTRUSION
    by_hole = {Quantity.PROTRUSION} if wet else {Quantity.BLOCK_BORE, Quantity.LINER_BORE}
    points = []
    for quantity in Quantity:
        if quantity in by_hole or not facts.sets_of(quantity):
            continue
        for part in parts_of(facts, quantity):
            survey = survey_of(facts, quantity, part)
            waived = (quantity, part.key) in facts.standing_waivers
            # A part that was never begun is asked for by what the card asks as found, or by its operation.
            if survey.state is State.IN or waived or (not survey.read and not survey.past):
                continue
            words = f"{quantity.value}, {part.title} {_IS[survey.state]}: {survey.reason}"
            points.append(OpenPoint(PointKind.SURVEY, words, survey.state, part.hole, quantity, part.key))
    return points


_IS = {
    State.IN: "is in",
    State.OUT: "is out",
    State.CANNOT_TELL: "cannot be told",
    State.NOT_MEASURED: "is not measured",
    State.READ_AGAIN: "is to be read again",
}
# Told by the holes, the surveys and the waits themselves; the proof is what all of them are open for.
_TOLD_OTHERWISE = (Operation.MEASURE, Operation.SEAT, Operation.MAINS, Operation.ORDER, Operation.PROVE,
                   Operation.RELEASE)  # fmt: skip


def _operations(far: dict[tuple[Operation, int | None], Evidence]) -> list[OpenPoint]:
    """Operations that are not done, holes that say the same together; what a survey tells is told there."""
    holes: dict[tuple[Operation, str, State], list[int]] = {}
    for (operation, hole), one in far.items():
        told = OPERATIONS[operation].proves and one.state is not State.NOT_MEASURED
        if not one.is_done and not told and operation not in _TOLD_OTHERWISE:
            holes.setdefault((operation, one.words, one.state), []).extend([] if hole is None else [hole])
    return [
        OpenPoint(PointKind.OPERATION, f"{OPERATIONS[operation].title}{_at(numbers)}: {words}", state,
                  numbers[0] if len(numbers) == 1 else None)
        for (operation, words, state), numbers in holes.items()
    ]  # fmt: skip


def _at(numbers: list[int]) -> str:
    return f", {holes_words([str(one) for one in numbers])}" if numbers else ""
