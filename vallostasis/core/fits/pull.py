"""How far a pull is: what was looked at, how far the flange is from its ledge, what is felt and what is expected.

All of it is common practice, no published source, where nothing else is said.
"""

from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

import numpy as np

from vallostasis.core.fits.going_in import GoingIn
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.pulls import FEELS, FIRST, Pull, PullMark, PullMarkKind
from vallostasis.core.records.rows import Hole

# From here on turns are slow, then quarters; the watcher calls so far ahead of the slow ones. [µm]
SLOW_UM, QUARTERS_UM, CALL_UM = Decimal(40_000), Decimal(20_000), Decimal(50_000)
# Nearer than this to the ledge is contact. [µm]
CONTACT_UM = Decimal(1_000)

# What is done with a liner that stands half-way in.
STUCK = (
    "Stop turning. Note how far it is in and the force, then look: is the gap under the flange even all round?",
    "Skewed: draw it back a turn, square it on two bars, oil it again. Straight and tight: draw it, read bore and "
    "outside again at that depth.",
    "Never hammer on the flange, never heat a liner that stands half-way in oil. Where the tool ends, stop.",
)


class PullState(StrEnum):
    """Where a pull stands."""

    FIRST = "to be looked at first"
    PULLING = "pulling"
    STOPPED = "stopped half-way"
    TOUCHED = "touched: hold it under load"
    HOME = "home"
    OUT = "drawn out again"


@dataclass(frozen=True, slots=True)
class PullPoint:
    """How far the flange was from its ledge at a mark [µm], with the force where a gauge showed it [kN]."""

    mark: PullMark
    to_go_um: Decimal


@dataclass(frozen=True, slots=True)
class PullNow:
    """A pull as it stands. [µm]"""

    pull: Pull
    marks: tuple[PullMark, ...]
    points: tuple[PullPoint, ...]
    unchecked: tuple[PullMarkKind, ...]
    state: PullState
    to_go_um: Decimal
    turns: int

    @property
    def goes_on(self) -> bool:
        """Whether it is neither home nor out again."""
        return self.state not in (PullState.HOME, PullState.OUT)

    @property
    def within_um(self) -> Decimal:
        """How far the flange may be off where it is told to stand: half a turn, 1 mm at the least. [µm]

        Common practice, no published source.
        """
        return max(CONTACT_UM, Decimal(0) if self.pull.turn_um is None else self.pull.turn_um / 2)

    @property
    def feel(self) -> PullMark | None:
        """What was felt last."""
        return next((one for one in reversed(self.marks) if one.kind in FEELS), None)


@once
def pulls_of(facts: JobFacts, hole: Hole) -> tuple[PullNow, ...]:
    """Return the pulls of a hole, oldest first, each as it stands. House rule: struck marks are gone."""
    return tuple(pull_now(facts, one) for one in facts.standing(facts.pulls) if one.hole_id == hole.hole_id)


def pull_at_work(facts: JobFacts, hole: Hole) -> PullNow | None:
    """Return the pull that is under way at a hole; None where there is none. House rule: one at a time."""
    return next((one for one in pulls_of(facts, hole) if one.goes_on), None)


def pull_now(facts: JobFacts, pull: Pull) -> PullNow:
    """Say how far a pull is.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    pull : Pull
        The pull.

    Returns
    -------
    PullNow
        The newest measurement holds; every turn since takes off what a turn of the tool takes in. [µm]

    Notes
    -----
    Exact decimals. Common practice, no published source.
    """
    marks = tuple(one for one in facts.standing(facts.pull_marks) if one.pull_id == pull.pull_id)
    to_go, turns, points = pull.from_um, 0, list[PullPoint]()
    for mark in marks:
        if mark.kind is PullMarkKind.TURN:
            turns += 1
            to_go = max(Decimal(0), to_go - (pull.turn_um or Decimal(0)))
        elif mark.to_go_um is not None:
            to_go = mark.to_go_um
        elif mark.kind in (PullMarkKind.HOME, PullMarkKind.TOUCHES):
            to_go = Decimal(0)
        points.append(PullPoint(mark, to_go))
    unchecked = tuple(one for one in FIRST if all(mark.kind is not one for mark in marks))
    return PullNow(pull, marks, tuple(points), unchecked, _state(marks, unchecked), to_go, turns)


def _state(marks: tuple[PullMark, ...], unchecked: tuple[PullMarkKind, ...]) -> PullState:
    told = {
        PullMarkKind.HOME: PullState.HOME,
        PullMarkKind.DRAWN: PullState.OUT,
        PullMarkKind.TOUCHES: PullState.TOUCHED,
        PullMarkKind.HELD: PullState.TOUCHED,
        PullMarkKind.STOPPED: PullState.STOPPED,
        PullMarkKind.FREED: PullState.PULLING,
    }
    last = next((told[one.kind] for one in reversed(marks) if one.kind in told), PullState.PULLING)
    return PullState.FIRST if unchecked and last is PullState.PULLING else last


@dataclass(frozen=True, slots=True)
class Expected:
    """Force expected at a place: nine of ten draws between its edges. [m], [N]"""

    to_go_m: float
    low_n: float
    middle_n: float
    high_n: float


def expected_at(going: GoingIn, to_go_m: float) -> Expected:
    """Return what the way in says of a place, so far from home; straight lines between its steps. [m] JCGM 101."""
    down = float(going.depths_m[-1]) - to_go_m
    low, middle, high = (
        float(np.interp(down, going.depths_m, one)) for one in (going.low_n, going.middle_n, going.high_n)
    )
    return Expected(to_go_m, low, middle, high)


def next_call(to_go_um: Decimal) -> tuple[str, Decimal] | None:
    """Return what is called next and where; None once everything was. [µm] Common practice, no published source."""
    calls = (("fifty", CALL_UM), ("slow", SLOW_UM), ("quarters", QUARTERS_UM), ("ten", Decimal(10_000)),
             ("five", Decimal(5_000)), ("stop", Decimal(0)))  # fmt: skip
    return next(((word, at) for word, at in calls if to_go_um > at), None)


def next_stiffer(going: GoingIn, to_go_m: float) -> float | None:
    """Return how far from home the next place lies where it grows stiffer; None where there is none left. [m]

    By definition of insertion.stiffens_at.
    """
    left = [float(going.depths_m[-1]) - at for at in going.stiffens_m]
    return max((one for one in left if one < to_go_m - 1e-3), default=None)
