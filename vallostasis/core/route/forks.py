"""What the other side of a school would make of a route: operations that come, go, or stand elsewhere."""

from dataclasses import dataclass, replace
from typing import Any, cast

from vallostasis.core.operations.schools import School, schools_of, side_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation, SchoolChoice
from vallostasis.core.route.plan import Leg, plan_of

# A route is planned otherwise, everything that was read stays what it is.
_PLANNED = cast(Any, plan_of).__wrapped__


@dataclass(frozen=True, slots=True)
class Fork:
    """The other side of a question: operations that would come, go or move, and hours more or less. [h]"""

    question: str
    side: str
    added: tuple[Operation, ...]
    removed: tuple[Operation, ...]
    moved: tuple[Operation, ...]
    hours: float
    legs: tuple[Leg, ...]

    @property
    def changes(self) -> bool:
        """Whether the route would be another one."""
        return bool(self.added or self.removed or self.moved or self.hours)


def on_side(facts: JobFacts, question: str, side: str) -> JobFacts:
    """Return a job as it would stand on another side of a question; what is worked out of its readings stays."""
    newest = max((one.event for one in facts.school_choices), default=0)
    chosen = facts.schools.get(question)
    when = facts.job.opened_at if chosen is None else chosen.chosen_at
    other = replace(
        facts, school_choices=(*facts.school_choices, SchoolChoice(question, side, "", when, "", newest + 1))
    )
    # A copy: other threads work on the same facts meanwhile.
    known = dict(facts.worked_out)
    kept = {key: value for key, value in known.items() if cast(tuple[Any, ...], key)[0] is not _PLANNED}
    other.worked_out.update(kept)
    return other


def fork_of(facts: JobFacts, question: str, side: str) -> Fork:
    """Say what another side of a question would make of the route. House rule: by comparing the two."""
    before, after = plan_of(facts), plan_of(on_side(facts, question, side))
    was, will = [one.operation for one in before], [one.operation for one in after]
    both_was, both_will = [one for one in was if one in will], [one for one in will if one in was]
    return Fork(
        question,
        side,
        tuple(one for one in will if one not in was),
        tuple(one for one in was if one not in will),
        _moved(both_was, both_will),
        sum(one.hours for one in after) - sum(one.hours for one in before),
        after,
    )


def _moved(was: list[Operation], will: list[Operation]) -> tuple[Operation, ...]:
    """Return the fewest operations that have to be moved to get from one order to the other.

    Notes
    -----
    What is left of one order after its longest common run with the other. Closed form.
    """
    best: list[list[Operation]] = []
    for at, one in enumerate(was):
        fits = [run for place, run in enumerate(best[:at]) if will.index(was[place]) < will.index(one)]
        best.append([*max(fits, key=len, default=[]), one])
    kept = max(best, key=len, default=[])
    return tuple(one for one in was if one not in kept)


def forks_of(facts: JobFacts) -> tuple[tuple[School, str, tuple[Fork, ...]], ...]:
    """Return every question of a job, the side it follows, and what each other side would change."""
    found = []
    for school in schools_of(facts.card):
        now = side_of(facts, school.question)
        others = (side.name for side in school.sides if side.name != now)
        found.append((school, now, tuple(fork_of(facts, school.question, one) for one in others)))
    return tuple(found)
