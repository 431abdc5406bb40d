"""What people wrote down on the routes of the invented jobs, each so many hours before the demo is loaded."""

from dataclasses import dataclass
from datetime import timedelta

from vallostasis.core.records.preparation import InspectionKind, InspectionOutcome, PrepKind
from vallostasis.core.records.route_marks import FindingKind, Operation, WaitCause
from vallostasis.core.records.rows import Quantity


@dataclass(frozen=True, slots=True)
class MarkPlay:
    """An operation marked by hand; with a reason where a hold point was passed for it."""

    operation: Operation
    by: str
    ago_h: float
    words: str = ""
    hole: int | None = None
    count: int | None = None
    hold_reason: str = ""


@dataclass(frozen=True, slots=True)
class ClockPlay:
    """Somebody at work on an operation, from when to when; to nought where the clock runs."""

    operation: Operation
    by: str
    from_h: float
    to_h: float
    hole: int | None = None


@dataclass(frozen=True, slots=True)
class WaitPlay:
    """Something waited for since so many days, for how many more, and when it came."""

    operation: Operation
    cause: WaitCause
    words: str
    by: str
    since_days: int
    expected_in_days: int | None = None
    came: str = ""
    hole: int | None = None


@dataclass(frozen=True, slots=True)
class FindingPlay:
    """Something found as the engine was stripped."""

    kind: FindingKind
    by: str
    part: str
    word: str
    hole: int | None = None
    words: str = ""
    figure: str = ""
    hour: float | None = None
    distance: str = ""
    width: str = ""
    until_hour: float | None = None
    from_depth: str = ""
    until_depth: str = ""
    catches: bool = False


@dataclass(frozen=True, slots=True)
class StepPlay:
    """A step of making the block ready to be cut."""

    kind: PrepKind
    by: str
    count: int
    place: str = ""
    words: str = ""


@dataclass(frozen=True, slots=True)
class LookPlay:
    """A look at all holes or at the block, or that it is waived by name; the radius of a corner as it was typed."""

    kind: InspectionKind
    by: str
    words: str = ""
    radius: str = ""
    outcome: InspectionOutcome = InspectionOutcome.SOUND


@dataclass(frozen=True, slots=True)
class SchoolPlay:
    """A side that the job follows otherwise than the shop."""

    question: str
    side: str
    reason: str
    by: str


@dataclass(frozen=True, slots=True)
class WaiverPlay:
    """A feature of parts that is not read, by name."""

    quantity: Quantity
    parts: tuple[str, ...]
    reason: str
    by: str


@dataclass(frozen=True, slots=True)
class RoutePlay:
    """Everything written down on the route of a job; ``fitted_with`` is why its liners were fitted unlogged."""

    schools: tuple[SchoolPlay, ...] = ()
    findings: tuple[FindingPlay, ...] = ()
    marks: tuple[MarkPlay, ...] = ()
    clocks: tuple[ClockPlay, ...] = ()
    waits: tuple[WaitPlay, ...] = ()
    waivers: tuple[WaiverPlay, ...] = ()
    fitted_with: str = ""
    steps: tuple[StepPlay, ...] = ()
    looks: tuple[LookPlay, ...] = ()


def seconds(hours: float) -> float:
    """Hours as seconds. [s]"""
    return timedelta(hours=hours).total_seconds()


def found(by: str, kind: FindingKind, part: str, *words: str) -> tuple[FindingPlay, ...]:
    """Return a finding of each hole in turn, with the word that was chosen for it."""
    return tuple(FindingPlay(kind, by, part, word, hole) for hole, word in enumerate(words, start=1))
