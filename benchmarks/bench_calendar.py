"""The calendar of a large shop: 30 jobs of 20 operations, laid out anew, after one change, how sure each date is."""

import random
from dataclasses import replace
from datetime import UTC, datetime
from time import perf_counter
from typing import Any

from ortools.sat.python import cp_model

from vallostasis.core.calendar import solver
from vallostasis.core.calendar.chances import Scatter, draw, ends_of_jobs, how_sure
from vallostasis.core.calendar.open_time import USUAL_HOURS, OpenTime
from vallostasis.core.calendar.problem import CalendarProblem, JobToPlan, Person, Task
from vallostasis.core.calendar.solver import CHANGED_S, FULL_S, as_it_comes, lay_out
from vallostasis.core.hours.learned import usual
from vallostasis.core.records.calendar import Machine

JOBS, OPERATIONS = 30, 20


def a_shop(seed: int = 1) -> CalendarProblem:
    pick = random.Random(seed)
    axis = OpenTime(USUAL_HOURS, datetime(2026, 11, 30, 8, tzinfo=UTC), 210)
    tasks: list[Task] = []
    jobs = []
    for job in range(JOBS):
        base, total = len(tasks), 0
        for place in range(OPERATIONS):
            machine = pick.choice([None, None, *list(Machine)[:4], Machine.CUTTER])
            slots = pick.randint(1, 12)
            total += slots
            ready = pick.choice([0, 0, pick.randint(0, 300)]) if place == 3 else 0
            tasks.append(Task(job, f"operation {place}", slots, (0, 1, 2), machine,
                              (base + place - 1,) if place else (), ready=ready))  # fmt: skip
        jobs.append(JobToPlan(f"job {job}", pick.randint(6 * total, 14 * total)))
    people = tuple(Person(name) for name in ("one", "two", "three"))
    return CalendarProblem(axis, tuple(jobs), people, tuple(tasks))


def _seconds(problem: CalendarProblem) -> float:
    """What the solver alone takes to the first calendar that keeps what has to hold, no hint, no aim."""
    own = solver._Model(problem)
    alone = cp_model.CpSolver()
    alone.parameters.num_workers, alone.parameters.max_time_in_seconds = solver.WORKERS, 60.0
    began = perf_counter()
    alone.solve(own.model)
    return perf_counter() - began


def run() -> dict[str, dict[str, Any]]:
    problem = a_shop()
    began = perf_counter()
    laid = lay_out(problem)
    planned_s = perf_counter() - began
    moved = replace(problem, tasks=tuple(
        replace(one, ready=one.ready + 64) if at == 3 else one for at, one in enumerate(problem.tasks)))  # fmt: skip
    began = perf_counter()
    again = lay_out(moved, laid.placed, CHANGED_S)
    again_s = perf_counter() - began
    n = len(problem.tasks)
    hours = [usual(one.slots / 4) for one in problem.tasks]
    kinds = [one.operation for one in problem.tasks]
    scatter = Scatter(hours, [1.0] * n, kinds, [None] * n, [0.0] * n)
    began = perf_counter()
    sure = how_sure(problem, ends_of_jobs(problem, laid, draw(problem, scatter)))
    sure_s = perf_counter() - began
    began = perf_counter()
    as_it_comes(problem)
    comes_s = perf_counter() - began
    raw_s = _seconds(problem)
    return {
        "calendar, 30 jobs x 20 operations": {
            "planned_s": round(planned_s, 2), "limit_s": 5, "search_s": FULL_S, "late_quarters": laid.late,
            "gap": round(laid.gap, 3), "changed_s": round(again_s, 2), "changed_limit_s": 1, "changed_late": again.late,
            "chances_s": round(sure_s, 2), "as_it_comes_s": round(comes_s, 3), "raw_solver_first_s": round(raw_s, 2),
            "planned_to_raw": round(planned_s / raw_s, 2), "kept_least": min(one.kept or 0.0 for one in sure),
        }
    }  # fmt: skip
