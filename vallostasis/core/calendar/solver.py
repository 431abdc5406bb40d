"""Who does what when: laid out by a constraint solver, promised dates first, then the least waiting.

References
----------
.. [1] L. Perron, F. Didier, CP-SAT of OR-Tools: a solver of constraints over whole numbers.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from ortools.sat.python import cp_model

from vallostasis.core.calendar.as_they_come import Drawn, run_shop
from vallostasis.core.calendar.problem import CalendarProblem, Laid, Placed, Span, Task
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.calendar import Machine

# A promise that is missed by a quarter of an hour weighs more than all jobs waiting as long as the axis reaches.
FULL_S, CHANGED_S = 4.0, 0.8
# A job waits while nobody works on it: every quarter until it is done counts once. House rule.
WORKERS = 2


@dataclass(slots=True)
class _Variables:
    start: cp_model.IntVar
    end: cp_model.IntVar
    interval: cp_model.IntervalVar
    by: dict[int, cp_model.IntVar]
    shares: list[cp_model.IntVar] = field(default_factory=list)


class _Model:
    """The calendar as constraints over quarters of an hour."""

    def __init__(self, problem: CalendarProblem) -> None:
        self.problem, self.model = problem, cp_model.CpModel()
        self.of_person: dict[int, list[cp_model.IntervalVar]] = defaultdict(list)
        self.of_machine: dict[Machine, list[cp_model.IntervalVar]] = defaultdict(list)
        self.of_block: dict[int, list[cp_model.IntervalVar]] = defaultdict(list)
        self.pairs = _may_share(problem)
        self.tasks = [self._task(at, one) for at, one in enumerate(problem.tasks)]
        self._order()
        self._setups()
        self._held()
        self._apart()
        self.late = [self._late(at) for at in range(len(problem.jobs))]
        self.done = [self._done(at) for at in range(len(problem.jobs))]

    def _task(self, at: int, task: Task) -> _Variables:
        model, far = self.model, self.problem.axis.slots
        begins = _begins(self.problem, task)
        start = model.new_int_var_from_domain(begins, f"s{at}")
        end = model.new_int_var(0, far, f"e{at}")
        followers = [pair for pair in self.pairs if pair[1] == at]
        if followers:
            shared = model.new_bool_var("")
            size = model.new_int_var(task.slots - task.setup_slots, task.slots, "")
            model.add(size == task.slots - task.setup_slots * shared)
            interval = model.new_interval_var(start, size, end, "")
            shares = [shared]
        else:
            interval, shares = model.new_interval_var(start, task.slots, end, ""), []
        by: dict[int, cp_model.IntVar] = {}
        if len(task.people) == 1:
            self.of_person[task.people[0]].append(interval)
        elif task.people:
            for person in task.people:
                by[person] = model.new_bool_var("")
                size_of = task.slots if not followers else size
                self.of_person[person].append(model.new_optional_interval_var(start, size_of, end, by[person], ""))
            model.add_exactly_one(by.values())
        if task.machine is not None:
            self.of_machine[task.machine].append(interval)
        if task.on_block:
            self.of_block[task.job].append(interval)
        return _Variables(start, end, interval, by, shares)

    def _order(self) -> None:
        for task, own in zip(self.problem.tasks, self.tasks, strict=True):
            for before in task.after:
                ends = self.tasks[before].end
                self.model.add(own.start >= (ends if task.stands_h <= 0 else self._after_wait(ends, task.stands_h)))

    def _after_wait(self, ends: cp_model.IntVar, hours: float) -> cp_model.IntVar:
        """Where on the axis something may begin that stands so long by the clock first."""
        axis = self.problem.axis
        places = np.minimum(np.ceil(axis.after_wait(np.arange(axis.slots + 1, dtype=np.float64), hours) - 1e-9),
                            axis.slots).astype(int)  # fmt: skip
        after = self.model.new_int_var(0, axis.slots, "")
        self.model.add_element(ends, [int(one) for one in places], after)
        return after

    def _setups(self) -> None:
        """A task that follows another of its set-up at once is spared it; each follows one, and is followed by one."""
        switch: dict[tuple[int, int], cp_model.IntVar] = {}
        for first, second in self.pairs:
            one = switch[first, second] = self.model.new_bool_var("")
            self.model.add(self.tasks[second].start == self.tasks[first].end).only_enforce_if(one)
        for at, own in enumerate(self.tasks):
            into = [one for (_, second), one in switch.items() if second == at]
            out = [one for (first, _), one in switch.items() if first == at]
            if own.shares:
                self.model.add(sum(into) == own.shares[0])
            if out:
                self.model.add_at_most_one(out)

    def _held(self) -> None:
        """What keeps a machine keeps it until everything that follows is done."""
        followers = self.problem.followers()
        for at, task in enumerate(self.problem.tasks):
            if task.holds is None:
                continue
            until = self.model.new_int_var(0, self.problem.axis.slots, "")
            for one in followers[at]:
                self.model.add(until >= self.tasks[one].end)
            self.model.add(until >= self.tasks[at].end)
            size = self.model.new_int_var(0, self.problem.axis.slots, "")
            self.of_machine[task.holds].append(self.model.new_interval_var(self.tasks[at].start, size, until, ""))

    def _apart(self) -> None:
        for intervals in self.of_block.values():
            self.model.add_no_overlap(intervals)
        for person, intervals in self.of_person.items():
            away = [self._fixed(span) for span in self.problem.people[person].away]
            self.model.add_no_overlap([*intervals, *away])
        for machine, intervals in self.of_machine.items():
            shut = [self._fixed(span) for span in self.problem.shut.get(machine, ())]
            count = self.problem.count(machine)
            if count == 1:
                self.model.add_no_overlap([*intervals, *shut])
            else:
                demands = [1] * len(intervals) + [count] * len(shut)
                self.model.add_cumulative([*intervals, *shut], demands, count)

    def _fixed(self, span: Span) -> cp_model.IntervalVar:
        return self.model.new_fixed_size_interval_var(span.first, span.after - span.first, "")

    def _done(self, job: int) -> cp_model.IntVar:
        done = self.model.new_int_var(0, self.problem.axis.slots, "")
        for at in self.problem.ends_of(job):
            self.model.add(done >= self.tasks[at].end)
        return done

    def _late(self, job: int) -> cp_model.IntVar | None:
        promised = self.problem.jobs[job].promised
        if promised is None:
            return None
        late = self.model.new_int_var(0, self.problem.axis.slots, "")
        for at in self.problem.ends_of(job):
            self.model.add(late >= self.tasks[at].end - promised)
        return late

    @property
    def aim(self) -> cp_model.LinearExprT:
        """Quarters late weigh more than all waiting there can be; then quarters until jobs are done. House rule."""
        most = self.problem.axis.slots * max(len(self.problem.jobs), 1) + 1
        weights = [one.weight for one in self.problem.jobs]
        late = [weight * one for weight, one in zip(weights, self.late, strict=True) if one is not None]
        return most * sum(late) + sum(self.done)


def _begins(problem: CalendarProblem, task: Task) -> cp_model.Domain:
    """Where on the axis a task may begin by itself."""
    far = problem.axis.slots - task.slots
    if far < task.ready:
        raise OutOfDomain("the calendar does not reach so far: a part or a day comes after its end", "ready")
    if task.pinned is not None:
        return cp_model.Domain(task.pinned, task.pinned)
    if not task.one_day:
        return cp_model.Domain(task.ready, far)
    longest = max(after - first for first, after in problem.axis.open_days)
    if task.slots > longest:
        return cp_model.Domain.from_values([first for first, _ in problem.axis.open_days if task.ready <= first <= far])
    own = [[max(first, task.ready), min(after - task.slots, far)] for first, after in problem.axis.open_days]
    return cp_model.Domain.from_intervals([one for one in own if one[0] <= one[1]])


def _may_share(problem: CalendarProblem) -> list[tuple[int, int]]:
    """Pairs of tasks of different jobs, on one machine with one set-up, the second of which may follow the first."""
    same: dict[tuple[Machine, str], list[int]] = defaultdict(list)
    for at, one in enumerate(problem.tasks):
        if one.machine is not None and one.setup and one.setup_slots and one.pinned is None:
            same[one.machine, one.setup].append(at)
    return [(first, second) for group in same.values() for first in group for second in group
            if problem.tasks[first].job != problem.tasks[second].job]  # fmt: skip


def lay_out(problem: CalendarProblem, hint: Sequence[Placed] = (), longest_s: float = FULL_S) -> Laid:
    """Lay out the calendar: promised dates kept first, then the least waiting.

    Parameters
    ----------
    problem : CalendarProblem
        Tasks, people, machines, promises.
    hint : sequence of Placed, optional
        A calendar of before to begin from; without it that of a shop which takes what is ready.
    longest_s : float
        When the search ends with what was found until then. [s]

    Returns
    -------
    Laid
        Every task in its place, proven best or with the gap that is left.

    Raises
    ------
    OutOfDomain
        If nothing can be laid out: two tasks pinned to one moment, a part that comes after the end of the axis.

    Notes
    -----
    CP-SAT [1]_ of the module. Late quarters of all promises together come first, weighted; then the quarters until
    each job is done. House rule.
    """
    if not problem.tasks:
        return Laid((), 0, 0, True, 0.0)
    own = _Model(problem)
    own.model.minimize(own.aim)
    _give_hint(own, hint or as_it_comes(problem))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers, solver.parameters.random_seed = WORKERS, 1
    # Probing every place a task may begin at takes longer than the search.
    solver.parameters.cp_model_probing_level, solver.parameters.symmetry_level = 0, 0
    solver.parameters.max_time_in_seconds = longest_s
    status = solver.solve(own.model)
    if status == cp_model.UNKNOWN:
        # On a busy machine no better one was found in time than that of a shop which takes what is ready.
        return _as_it_stands(problem, as_it_comes(problem))
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        raise OutOfDomain(_why_nothing(problem, status), "pinned")
    return _laid(problem, own, solver, status == cp_model.OPTIMAL)


def _as_it_stands(problem: CalendarProblem, placed: tuple[Placed, ...]) -> Laid:
    """A calendar that nobody searched for a better one of: how good it is is not known."""
    ends = [max((one.end for one in placed if problem.tasks[one.task].job == at), default=0)
            for at in range(len(problem.jobs))]  # fmt: skip
    late = sum(max(0, end - one.promised) for end, one in zip(ends, problem.jobs, strict=True)
               if one.promised is not None)  # fmt: skip
    if any(one.start != at for one in placed if (at := problem.tasks[one.task].pinned) is not None):
        raise OutOfDomain(_why_nothing(problem, cp_model.INFEASIBLE), "pinned")
    return Laid(placed, late, sum(ends), False, 1.0)


def _why_nothing(problem: CalendarProblem, status: cp_model.CpSolverStatus) -> str:
    pinned = [one.operation for one in problem.tasks if one.pinned is not None]
    if status == cp_model.INFEASIBLE and pinned:
        return f"what is pinned does not go together: take a pin away ({', '.join(pinned)})"
    if status == cp_model.INFEASIBLE:
        return "nobody, or no machine, is there to do it: look at the absences"
    return "nothing was found in the time there is: take away what is pinned"


def _laid(problem: CalendarProblem, own: _Model, solver: cp_model.CpSolver, proven: bool) -> Laid:
    placed = []
    for at, one in enumerate(own.tasks):
        people = problem.tasks[at].people
        person = people[0] if len(people) == 1 else next((who for who, by in one.by.items() if solver.value(by)), None)
        shares = any(solver.value(shared) for shared in one.shares)
        placed.append(Placed(at, solver.value(one.start), solver.value(one.end), person, shares))
    late = sum(solver.value(one) for one in own.late if one is not None)
    waiting = sum(solver.value(one) for one in own.done)
    value, bound = solver.objective_value, solver.best_objective_bound
    gap = 0.0 if proven or value <= 0 else max(0.0, (value - bound) / value)
    return Laid(tuple(placed), late, waiting, proven, gap)


def _give_hint(own: _Model, hint: Sequence[Placed]) -> None:
    for one in hint:
        variables = own.tasks[one.task]
        own.model.add_hint(variables.start, one.start)
        own.model.add_hint(variables.end, one.end)
        for person, by in variables.by.items():
            own.model.add_hint(by, int(person == one.person))
    for job, (done, late) in enumerate(zip(own.done, own.late, strict=True)):
        end = max((one.end for one in hint if own.problem.tasks[one.task].job == job), default=0)
        own.model.add_hint(done, end)
        if late is not None:
            own.model.add_hint(late, max(0, end - (own.problem.jobs[job].promised or 0)))


def as_it_comes(problem: CalendarProblem) -> tuple[Placed, ...]:
    """Return the calendar of a shop where whoever is free takes what is ready, the nearest promise first.

    Parameters
    ----------
    problem : CalendarProblem
        Tasks, people, machines, promises.

    Returns
    -------
    tuple of Placed
        Every task; whole quarters. By definition of taking what is ready.
    """
    far = float(problem.axis.slots)
    promised = [far if one.promised is None else float(one.promised) for one in problem.jobs]
    rank = np.array([promised[one.job] for one in problem.tasks])
    takes = np.array([[float(one.slots) for one in problem.tasks]])
    ready = np.array([[float(one.ready) for one in problem.tasks]])
    course = run_shop(problem, rank, Drawn(takes, ready), whole=True)
    starts = np.round(course.starts[0]).astype(int)
    return tuple(
        Placed(at, int(starts[at]), int(starts[at]) + one.slots, int(who) if (who := course.who[0, at]) >= 0 else None)
        for at, one in enumerate(problem.tasks)
    )
