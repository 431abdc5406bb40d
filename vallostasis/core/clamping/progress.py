"""How far a tightening is: which bolt is turned next to what, what was left out, whether it stands.

After the last round every bolt is tried once more at its torque: one that moves on was not tight, and the others are
tried again after it. Common practice, no published source.
"""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum

from vallostasis.core.records.clamping import BoltMark, BoltMarkKind, Clamp, Tightening
from vallostasis.core.records.job_facts import JobFacts

# A torque this near to the one asked for is that torque: what a clicking wrench repeats. ISO 6789-1 allows 4 %
# of a click wrench above 10 N·m (from memory). [1]
TORQUE_WITHIN = Decimal("0.04")


class TightState(StrEnum):
    """How far a tightening is."""

    GOING = "being tightened"
    ON = "on"
    OFF = "taken off"


@dataclass(frozen=True, slots=True)
class Progress:
    """Where a tightening stands.

    ``turn`` counts the rounds from one, those of trying again too; ``bolt`` and ``torque_nm`` [N·m] are what is turned
    next, None where nothing is. ``otherwise`` are bolts of the last round whose torque differs from the one asked for.
    """

    begun: Tightening
    marks: tuple[BoltMark, ...]
    state: TightState
    turn: int
    rounds: int
    bolt: int | None
    torque_nm: Decimal | None
    is_trial: bool
    done: tuple[int, ...]
    otherwise: tuple[int, ...]
    at: datetime | None
    by: str

    @property
    def is_tight(self) -> bool:
        """Whether every bolt was turned through all rounds and held when it was tried. House rule."""
        return self.state is TightState.ON

    @property
    def newest_event(self) -> int:
        """The number of what was noted of it last. By definition."""
        return max([self.begun.event, *(one.event for one in self.marks)])

    @property
    def was_tight(self) -> bool:
        """Whether it was tight at the end, on now or taken off since. House rule."""
        return self.is_trial and len(self.done) == len(self.begun.order)


def progress_of(facts: JobFacts, begun: Tightening) -> Progress:
    """Say where a tightening stands.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    begun : Tightening
        The tightening.

    Returns
    -------
    Progress
        Rounds are the stages, then trials until one moves no bolt. House rule; torques in N·m.
    """
    marks = tuple(one for one in facts.standing(facts.bolt_marks) if one.tightening_id == begun.tightening_id)
    off = next((one for one in reversed(marks) if one.kind is BoltMarkKind.OFF), None)
    turn, done = _turn_of(begun, marks)
    trials_asked = turn > len(begun.stages)
    last = max((one for one in marks if one.bolt is not None), key=lambda one: one.event, default=None)
    at, by = (None, "") if last is None else (last.noted_at, last.noted_by)
    tight = trials_asked and len(done) == len(begun.order)
    state = TightState.OFF if off is not None else TightState.ON if tight else TightState.GOING
    bolt = next((one for one in begun.order if one not in done), None) if state is TightState.GOING else None
    asked = begun.stages[min(turn, len(begun.stages)) - 1]
    return Progress(
        begun, marks, state, turn, max(turn, len(begun.stages) + 1), bolt, None if bolt is None else asked,
        trials_asked, done, _otherwise(begun, marks), at, by,
    )  # fmt: skip


def _turn_of(begun: Tightening, marks: tuple[BoltMark, ...]) -> tuple[int, tuple[int, ...]]:
    """Return the round that is on, and the bolts that it has done."""
    turn = 1
    while True:
        of_turn = {one.bolt: one for one in marks if one.turn == turn and one.bolt is not None}
        done = tuple(bolt for bolt in begun.order if bolt in of_turn)
        moved = any(one.kind is BoltMarkKind.MOVED for one in of_turn.values())
        if len(done) < len(begun.order) or (turn > len(begun.stages) and not moved):
            return turn, done
        turn += 1


def _otherwise(begun: Tightening, marks: tuple[BoltMark, ...]) -> tuple[int, ...]:
    final, last = begun.stages[-1], len(begun.stages)
    newest = {
        one.bolt: one.torque_nm
        for one in marks
        if one.bolt is not None and one.turn is not None and one.turn >= last and one.torque_nm is not None
    }
    return tuple(sorted(bolt for bolt, read in newest.items() if abs(read - final) > TORQUE_WITHIN * final))


def tightenings_of(facts: JobFacts, clamp: Clamp) -> tuple[Progress, ...]:
    """Return every tightening of plate or caps that stands, oldest first. By definition."""
    return tuple(progress_of(facts, one) for one in facts.standing(facts.tightenings) if one.clamp is clamp)


def tight_over(facts: JobFacts, clamp: Clamp, hole: int) -> Progress | None:
    """Return the tightening that holds a hole now; None where there is none. House rule: the newest of it."""
    found = [one for one in tightenings_of(facts, clamp) if one.begun.covers(hole)]
    return found[-1] if found and found[-1].is_tight else None


def why_not_tight(facts: JobFacts, clamp: Clamp, hole: int) -> str:
    """Say why a plate or caps on record do not hold a hole now; empty where they do, or none is on record.

    House rule: by the newest tightening over it.
    """
    found = [one for one in tightenings_of(facts, clamp) if one.begun.covers(hole)]
    if not found:
        return f"the {clamp.value} on record does not cover hole {hole}" if tightenings_of(facts, clamp) else ""
    newest = found[-1]
    if newest.is_tight:
        return ""
    if newest.state is TightState.OFF:
        return f"the {clamp.value} was taken off"
    return f"the {clamp.value} is not tight yet: round {newest.turn} of {newest.rounds}"
