"""What shows how far an operation is: a state with its words, a mark made by hand, a survey read for it."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import MarkKind, Operation, OperationMark
from vallostasis.core.records.rows import Hole
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.uncertainty.decision import State

# What is worst comes first: what is called of several is called so of all.
WORST_FIRST = (State.READ_AGAIN, State.OUT, State.CANNOT_TELL, State.NOT_MEASURED, State.IN)


@dataclass(frozen=True, slots=True)
class Evidence:
    """How far an operation is: its state and why, when and by whom it was done."""

    state: State
    words: str
    at: datetime | None = None
    by: str = ""

    @property
    def is_done(self) -> bool:
        """Whether it is done."""
        return self.state is State.IN


def worst_of(found: Iterable[Evidence]) -> Evidence:
    """Return the one that keeps several from being done; done where all are, at the time of the last. House rule."""
    every = list(found)
    for state in WORST_FIRST[:-1]:
        of_state = [one for one in every if one.state is state]
        if of_state:
            return of_state[0]
    done = [one for one in every if one.at is not None]
    return max(done, key=lambda one: one.at or datetime.min, default=Evidence(State.IN, "done"))


def mark_of(facts: JobFacts, operation: Operation, hole: Hole | None) -> OperationMark | None:
    """Return the mark of an operation that holds: the newest by its own time."""
    hole_id = None if hole is None else hole.hole_id
    marks = [
        one
        for one in facts.standing(facts.operation_marks)
        if one.operation is operation and one.hole_id == hole_id and one.kind in (MarkKind.DONE, MarkKind.AGAIN)
    ]
    return max(marks, key=lambda one: (one.done_at, one.event), default=None)


def by_mark(facts: JobFacts, operation: Operation, hole: Hole | None) -> Evidence:
    """Say how far an operation is by the mark that was made by hand. House rule."""
    mark = mark_of(facts, operation, hole)
    if mark is None:
        return Evidence(State.NOT_MEASURED, "not done yet")
    if mark.kind is MarkKind.AGAIN:
        return Evidence(State.READ_AGAIN, mark.words or "to be done again", mark.done_at, mark.marked_by)
    return Evidence(State.IN, mark.words or "done", mark.done_at, mark.marked_by)


def of_survey(survey: Survey) -> Evidence:
    """Say how far a reading is that shows an operation done. House rule."""
    times = [one.taken_at for row in survey.read for one in row.readings]
    return Evidence(survey.state, survey.reason, max(times, default=None))


def holes_words(numbers: list[str]) -> str:
    """Name holes: hole 2, or holes 2, 3."""
    return f"hole{'s' if len(numbers) > 1 else ''} {', '.join(numbers)}"
