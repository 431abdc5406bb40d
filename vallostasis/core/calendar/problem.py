"""What is to be laid out: tasks of jobs, people, machines, promises, on the axis of open time."""

from dataclasses import dataclass, field
from math import isfinite

from vallostasis.core.calendar.open_time import OpenTime
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.calendar import Machine


@dataclass(frozen=True, slots=True)
class Span:
    """A stretch of the axis, from a quarter to before another."""

    first: int
    after: int


@dataclass(frozen=True, slots=True)
class Person:
    """Somebody who works: when he is away, as stretches of the axis."""

    name: str
    away: tuple[Span, ...] = ()


@dataclass(frozen=True, slots=True)
class Task:
    """One piece of work of a job.

    Parameters
    ----------
    job : int
        Whose it is, as the place of the job among the jobs.
    operation : str
        What is done; shown.
    slots : int
        How long it takes, set-up within. [quarters of an hour]
    people : tuple of int
        Who may do it; none where nobody has to stand by.
    machine : Machine or None
        What it is done on.
    after : tuple of int
        Tasks that have to be done first.
    stands_h : float
        How long it stands after those, shop open or not, before it may begin. [h]
    ready : int
        Before which quarter it cannot begin, because of a part or of a day.
    setup : str
        Tasks of one machine with the same word share a set-up when they follow each other.
    setup_slots : int
        What the set-up takes of its time. [quarters of an hour]
    one_day : bool
        It is not left over a night half done.
    holds : Machine or None
        What it keeps from its begin until the tasks that follow it are done, such as a freezer.
    on_block : bool
        It is done on the block, which stands at one place at a time.
    pinned : int or None
        The quarter that somebody pinned it to.
    """

    job: int
    operation: str
    slots: int
    people: tuple[int, ...] = ()
    machine: Machine | None = None
    after: tuple[int, ...] = ()
    stands_h: float = 0.0
    ready: int = 0
    setup: str = ""
    setup_slots: int = 0
    one_day: bool = False
    holds: Machine | None = None
    on_block: bool = True
    pinned: int | None = None


@dataclass(frozen=True, slots=True)
class JobToPlan:
    """A job: the quarter by which it is promised, None where nothing is, and what being late weighs beside others."""

    name: str
    promised: int | None = None
    weight: int = 1


@dataclass(frozen=True)
class CalendarProblem:
    """Everything that is laid out.

    ``machines`` says how many there are of each kind, ``shut`` when none of a kind can be used.
    """

    axis: OpenTime
    jobs: tuple[JobToPlan, ...]
    people: tuple[Person, ...]
    tasks: tuple[Task, ...]
    machines: dict[Machine, int] = field(default_factory=dict)
    shut: dict[Machine, tuple[Span, ...]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        """Refuse what cannot be laid out at all, by the name of what is wrong."""
        for at, one in enumerate(self.tasks):
            if one.slots < 1 or not isfinite(one.stands_h) or one.stands_h < 0:
                raise OutOfDomain(f"{one.operation} has to take a quarter of an hour or more", "hours")
            if any(before >= at for before in one.after):
                raise OutOfDomain("tasks stand after those that have to be done first", "after")

    def count(self, machine: Machine) -> int:
        """How many there are of a kind of machine; one where nobody said. House rule."""
        return self.machines.get(machine, 1)

    def followers(self) -> tuple[tuple[int, ...], ...]:
        """Return for each task those that come after it. By definition."""
        found: list[list[int]] = [[] for _ in self.tasks]
        for at, one in enumerate(self.tasks):
            for before in one.after:
                found[before].append(at)
        return tuple(tuple(one) for one in found)

    def ends_of(self, job: int) -> tuple[int, ...]:
        """Return the tasks of a job. By definition."""
        return tuple(at for at, one in enumerate(self.tasks) if one.job == job)


@dataclass(frozen=True, slots=True)
class Placed:
    """A task as it is laid out: by whom, from which quarter to before which."""

    task: int
    start: int
    end: int
    person: int | None
    shares_setup: bool = False


@dataclass(frozen=True, slots=True)
class Laid:
    """The calendar: every task in its place; days late and quarters until each job is done, each with its bound.

    ``proven`` is whether nothing better exists; ``gap`` is how much better it could be at most, as a share.
    """

    placed: tuple[Placed, ...]
    late: int
    waiting: int
    proven: bool
    gap: float

    def end_of(self, problem: CalendarProblem, job: int) -> int:
        """Return before which quarter a job is done. By definition."""
        return max((one.end for one in self.placed if problem.tasks[one.task].job == job), default=0)
