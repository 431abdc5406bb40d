"""How a drop stands: what is to be looked at first, which step is next and when, since when it is out, in, home.

All of it is common practice, no published source, where nothing else is said.
"""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from vallostasis.core.records.heat_runs import FELT, READY, STEPS, HeatMark, HeatMarkKind, HeatRun
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole

# What is done with a liner that grabs half-way.
STUCK = (
    "Stop. Nobody hammers: a liner that is cold breaks, one that is skewed shaves the hole.",
    "Note how far it is in. Within seconds, while the block is hot: straight back out by hand or puller, never "
    "heat the liner.",
    "It does not move: let both come to room temperature, draw it with the puller, read hole and outside at that "
    "depth again before the next try.",
)


class DropState(StrEnum):
    """Where a drop stands."""

    FIRST = "to be looked at first"
    SET = "ready to come out of the cold"
    OUT = "out of the cold"
    IN = "in the hole"
    STUCK = "stuck"
    HOME = "home: hold it down"
    HELD = "held down"
    LOOSE = "let go"
    BACK = "taken back out"


@dataclass(frozen=True, slots=True)
class Warmth:
    """A temperature read so many seconds after the liner left the cold. [s], [°C]"""

    seconds: float
    celsius: float


@dataclass(frozen=True, slots=True)
class DropStep:
    """A step of the run sheet: when it is planned to be done, when it was, counted from leaving the cold. [s]"""

    kind: HeatMarkKind
    due_s: float
    done_s: float | None


@dataclass(frozen=True, slots=True)
class DropNow:
    """A drop as it stands; moments are None until they come."""

    run: HeatRun
    marks: tuple[HeatMark, ...]
    unchecked: tuple[HeatMarkKind, ...]
    state: DropState
    out_at: datetime | None
    entered_at: datetime | None
    home: HeatMark | None

    @property
    def goes_on(self) -> bool:
        """Whether the liner is neither home nor back out."""
        return self.state in (DropState.FIRST, DropState.SET, DropState.OUT, DropState.IN, DropState.STUCK)

    def seconds(self, at: datetime) -> float:
        """How long after leaving the cold a moment is; nought before it leaves. [s] By definition."""
        return 0.0 if self.out_at is None else (at - self.out_at).total_seconds()

    def last(self, *kinds: HeatMarkKind) -> HeatMark | None:
        """Return the newest mark of some kinds."""
        return next((one for one in reversed(self.marks) if one.kind in kinds), None)

    def warmths(self, kind: HeatMarkKind) -> tuple[Warmth, ...]:
        """Return what a thermometer read, against the moment of leaving the cold. [s], [°C]"""
        return tuple(Warmth(self.seconds(one.noted_at) if self.out_at else 0.0, float(one.celsius))
                     for one in self.marks if one.kind is kind and one.celsius is not None)  # fmt: skip

    @property
    def steps(self) -> tuple[HeatMarkKind, ...]:
        """The steps of this run, in their order."""
        return tuple(kind for kind, _ in STEPS if kind is not HeatMarkKind.GREASED or self.run.greased)

    @property
    def next_step(self) -> HeatMarkKind | None:
        """The step that is asked for next; None where none is left."""
        done = {one.kind for one in self.marks}
        return next((kind for kind in self.steps if kind not in done), None)


@once
def drops_of(facts: JobFacts, hole: Hole) -> tuple[DropNow, ...]:
    """Return the drops of a hole, oldest first, each as it stands. House rule: struck marks are gone."""
    return tuple(drop_now(facts, one) for one in facts.standing(facts.heat_runs) if one.hole_id == hole.hole_id)


def drop_at_work(facts: JobFacts) -> DropNow | None:
    """Return the drop of a job whose liner is on its way; None where none is. House rule: one clock at a time."""
    found = (drop_now(facts, one) for one in facts.standing(facts.heat_runs))
    return next((one for one in found if one.state in (DropState.OUT, DropState.IN, DropState.STUCK)), None)


def drop_now(facts: JobFacts, run: HeatRun) -> DropNow:
    """Say how a drop stands: by its marks in their order; house rule."""
    marks = tuple(one for one in facts.standing(facts.heat_marks) if one.heat_run_id == run.heat_run_id)
    at = {one.kind: one.noted_at for one in marks}
    unchecked = tuple(one for one in READY if one not in at)
    home = next((one for one in marks if one.kind in FELT), None)
    return DropNow(run, marks, unchecked, _state(marks, unchecked), at.get(HeatMarkKind.OUT),
                   at.get(HeatMarkKind.ENTERS), home)  # fmt: skip


def _state(marks: tuple[HeatMark, ...], unchecked: tuple[HeatMarkKind, ...]) -> DropState:
    told = {
        HeatMarkKind.OUT: DropState.OUT,
        HeatMarkKind.ENTERS: DropState.IN,
        HeatMarkKind.STUCK: DropState.STUCK,
        HeatMarkKind.FREED: DropState.IN,
        HeatMarkKind.BACK: DropState.BACK,
        HeatMarkKind.CLAMPED: DropState.HELD,
        HeatMarkKind.RELEASED: DropState.LOOSE,
        **dict.fromkeys(FELT, DropState.HOME),
    }
    last = next((told[one.kind] for one in reversed(marks) if one.kind in told), None)
    if last is not None:
        return last
    return DropState.FIRST if unchecked else DropState.SET


def run_sheet(now: DropNow, now_s: float) -> tuple[DropStep, ...]:
    """Return the steps of a run on the clock: those to come follow from the last one done and from now.

    Parameters
    ----------
    now : DropNow
        The drop.
    now_s : float
        Seconds since the liner left the cold. [s]

    Returns
    -------
    tuple of DropStep
        Each takes the share of the way that was planned for it; what is late moves all that follows. House rule. [s]
    """
    planned = float(now.run.enter_s)
    done = {one.kind: now.seconds(one.noted_at) for one in now.marks}
    shares = {kind: share for kind, share in STEPS if kind in now.steps}
    found, before_s, before_share = [], 0.0, 0.0
    is_next = True
    for kind, share in shares.items():
        if kind in done:
            before_s, before_share = done[kind], share
            found.append(DropStep(kind, share * planned, done[kind]))
            continue
        due = before_s + (share - before_share) * planned
        if is_next:
            due, is_next = max(due, now_s), False
        found.append(DropStep(kind, due, None))
        before_s, before_share = due, share
    return tuple(found)


def enters_at(now: DropNow, now_s: float) -> float:
    """Return when the liner enters: when it did, else when the run sheet has it. [s] By definition."""
    sheet = run_sheet(now, now_s)[-1]
    return sheet.due_s if sheet.done_s is None else sheet.done_s
