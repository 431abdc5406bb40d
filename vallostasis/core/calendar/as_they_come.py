"""The shop as it runs when nobody thinks ahead: whoever is free takes what is ready, what is most urgent first.

It gives the solver a place to begin from, and the chances of a plan their course: hours and lead times come out
otherwise than planned, and people take the next that is ready in the order of the plan. Common practice, no published
source.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.calendar.open_time import Floats
from vallostasis.core.calendar.problem import CalendarProblem, Span

Whole = NDArray[np.int64]


@dataclass(frozen=True)
class Drawn:
    """Hours and days as they came out, a row for each draw. [quarters]

    ``takes`` is how long each task took, ``ready`` before which place of the axis it could not begin.
    """

    takes: Floats
    ready: Floats


@dataclass(frozen=True)
class Course:
    """When each task began and ended in each draw; who did it where that was open. [quarters]"""

    starts: Floats
    ends: Floats
    who: Whole


def run_shop(
    problem: CalendarProblem, rank: Floats, drawn: Drawn, who: Whole | None = None, whole: bool = False
) -> Course:
    """Let the shop run.

    Parameters
    ----------
    problem : CalendarProblem
        Tasks, people, machines.
    rank : ndarray
        Of each task; of those that could begin first, the one with the lowest is taken.
    drawn : Drawn
        Hours and days, shape (draws, tasks). [quarters]
    who : ndarray, optional
        Who does each task, −1 where nobody has to; open without it: whoever may and is free first.
    whole : bool, optional
        Everything begins at a whole quarter, and nothing that would run into an absence is begun: a calendar that
        the solver may keep.

    Returns
    -------
    Course
        Begin and end of every task in every draw. [quarters]

    Notes
    -----
    One step lays out one task in every draw: of those whose firsts are done the one that can begin first, then by
    rank. By definition of taking what is ready. Who is away when his work is half done goes on with it afterwards.
    """
    return _Shop(problem, rank, drawn, who, whole).run()


class _Shop:
    """State of every draw at once: when people and machines are free, what is ready, what is done."""

    def __init__(self, problem: CalendarProblem, rank: Floats, drawn: Drawn, who: Whole | None, whole: bool) -> None:
        tasks, self.problem, self.drawn, self.whole = problem.tasks, problem, drawn, whole
        draws, n = drawn.takes.shape
        self.rows = np.arange(draws)
        # Ranks decide between equals only: far below the shortest stretch of time there is.
        self.rank = rank / (1 + np.abs(rank).max(initial=0.0)) * 1e-6
        machines = [one.machine or one.holds for one in tasks]
        kinds = sorted({one for one in machines if one is not None})
        counts = [problem.count(kind) for kind in kinds]
        self.places = [range(sum(counts[:at]), sum(counts[: at + 1])) for at in range(len(kinds))]
        # The last kind and the last set are those of tasks that need none: always free.
        self.kind_of = np.array([len(kinds) if one is None else kinds.index(one) for one in machines], dtype=np.int64)
        may = [one.people if who is None else ((int(who[at]),) if who[at] >= 0 else ()) for at, one in enumerate(tasks)]
        self.sets = sorted({one for one in may if one})
        self.set_of = np.array([self.sets.index(one) if one else len(self.sets) for one in may], dtype=np.int64)
        self.person_free = np.zeros((draws, len(problem.people)))
        self.machine_free = np.zeros((draws, sum(counts)))
        # The last block is that of work that is done beside it.
        self.block_of = np.array([one.job if one.on_block else len(problem.jobs) for one in tasks], dtype=np.int64)
        self.block_free = np.zeros((draws, len(problem.jobs) + 1))
        self.followers = problem.followers()
        self.missing = np.tile(np.array([len(one.after) for one in tasks]), (draws, 1))
        self.ready = drawn.ready.copy()
        self.done = np.zeros((draws, n), dtype=bool)
        self.course = Course(np.zeros((draws, n)), np.zeros((draws, n)), np.full((draws, n), -1))

    def run(self) -> Course:
        """Lay out one task of every draw after the other. By definition."""
        for _ in self.problem.tasks:
            may = ~self.done & (self.missing == 0)
            some = np.flatnonzero(may.any(axis=0))
            by, on = self._people_free(), self._machines_free()
            start = np.maximum(self.ready[:, some], by[0][:, self.set_of[some]])
            start = np.maximum(start, on[0][:, self.kind_of[some]])
            start = np.maximum(start, self.block_free[:, self.block_of[some]])
            start = self._allowed(some, start, by[1])
            chosen = np.argmin(np.where(may[:, some], start + self.rank[some], np.inf), axis=1)
            for place in np.unique(chosen):
                rows, task = self.rows[chosen == place], int(some[place])
                self._lay(task, rows, start[rows, place], by[1][rows, self.set_of[task]],
                          on[1][rows, self.kind_of[task]])  # fmt: skip
        return self.course

    def _people_free(self) -> tuple[Floats, Whole]:
        """When the first of each set of people is free, and who that is; the last set is nobody."""
        free = np.zeros((len(self.rows), len(self.sets) + 1))
        first = np.full((len(self.rows), len(self.sets) + 1), -1)
        for at, people in enumerate(self.sets):
            own = self.person_free[:, people]
            earliest = own.argmin(axis=1)
            first[:, at], free[:, at] = np.array(people)[earliest], own[self.rows, earliest]
        return free, first

    def _machines_free(self) -> tuple[Floats, Whole]:
        """When the first of each kind of machine is free, and which that is; the last kind is none."""
        free = np.zeros((len(self.rows), len(self.places) + 1))
        first = np.full((len(self.rows), len(self.places) + 1), -1)
        for at, places in enumerate(self.places):
            own = self.machine_free[:, places.start : places.stop]
            earliest = own.argmin(axis=1)
            first[:, at], free[:, at] = places.start + earliest, own[self.rows, earliest]
        return free, first

    def _allowed(self, some: Whole, start: Floats, by: Whole) -> Floats:
        """Move begins out of absences and, where a task is not left over a night, to a day that it fits into."""
        who = by[:, self.set_of[some]]
        apart = [(at, self.problem.tasks[one]) for at, one in enumerate(some)]
        apart = [(at, one) for at, one in apart
                 if one.one_day or one.pinned is not None or (one.machine in self.problem.shut)]  # fmt: skip
        takes = self.drawn.takes[:, some] if self.whole else np.zeros_like(start)
        for _ in range(2):
            for person, one in enumerate(self.problem.people):
                if one.away:
                    start = np.where(who == person, _out_of(start, one.away, takes), start)
            for at, task in apart:
                if task.pinned is not None:
                    start[:, at] = np.maximum(start[:, at], task.pinned)
                if task.machine is not None:
                    shut = self.problem.shut.get(task.machine, ())
                    start[:, at] = _out_of(start[:, at], shut, takes[:, at])
                if task.one_day:
                    start[:, at] = self._into_one_day(start[:, at], self.drawn.takes[:, some[at]])
        return start

    def _into_one_day(self, start: Floats, takes: Floats) -> Floats:
        days = np.array(self.problem.axis.open_days, dtype=np.float64)
        day = np.clip(np.searchsorted(days[:, 1], start, side="right"), 0, len(days) - 1)
        longest = days[:, 1] - days[:, 0]
        over = (start + takes > days[day, 1]) & (takes <= longest[day]) & (start > days[day, 0])
        return np.where(over, days[np.minimum(day + 1, len(days) - 1), 0], start)

    def _lay(self, task: int, rows: Whole, start: Floats, by: Whole, on: Whole) -> None:
        end = start + self.drawn.takes[rows, task]
        for person in set(by.tolist()) - {-1}:
            for away in self.problem.people[person].away:
                over = (by == person) & (start < away.first) & (end > away.first)
                end = np.where(over, end + (away.after - away.first), end)
        one = self.problem.tasks[task]
        self.course.starts[rows, task], self.course.ends[rows, task] = start, end
        self.course.who[rows, task] = by
        self.done[rows, task] = True
        if self.set_of[task] < len(self.sets):
            self.person_free[rows, by] = end
        if self.kind_of[task] < len(self.places):
            self.machine_free[rows, on] = end if one.holds is None else self._held_until(task, end)
        if one.on_block:
            self.block_free[rows, one.job] = end
        for follower in self.followers[task]:
            stands = self.problem.tasks[follower].stands_h
            may = end if stands <= 0 else self.problem.axis.after_wait(end, stands)
            may = np.ceil(may - 1e-9) if self.whole else may
            self.ready[rows, follower] = np.maximum(self.ready[rows, follower], may)
            self.missing[rows, follower] -= 1

    def _held_until(self, task: int, end: Floats) -> Floats:
        """Until what follows is done, as far as it can be told: it stands, and is then used up at once."""
        followers = self.followers[task]
        longest = max((self.problem.tasks[one].stands_h for one in followers), default=0.0)
        used = max((self.problem.tasks[one].slots for one in followers), default=0)
        return self.problem.axis.after_wait(end, longest) + used


def _out_of(start: Floats, spans: tuple[Span, ...], takes: Floats) -> Floats:
    """Begin after what it would begin in, or run into where it takes so long."""
    for away in spans:
        reaches = (start >= away.first) | (start + takes > away.first)
        start = np.where(reaches & (start < away.after), float(away.after), start)
    return start
