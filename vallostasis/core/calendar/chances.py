"""How sure each date is: the plan run many times with hours and lead times as they may come out.

References
----------
.. [1] A. Gelman et al., Bayesian Data Analysis, normal data with a noninformative prior, section 3.2 (from memory).
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.random import Generator, default_rng

from vallostasis.core.calendar.as_they_come import Drawn, run_shop
from vallostasis.core.calendar.open_time import SLOT_H, Floats
from vallostasis.core.calendar.problem import CalendarProblem, Laid
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.hours.learned import PlannedHours

# So often the plan is run; the date that holds in nine of ten is what is offered. House rule.
DRAWS = 400
OFFERED_SHARE = 0.9
# Days that a part comes later than it was said, as shares of its lead time at the quantiles of _LATE_AT, until the
# shop's own log says otherwise: half of them on their day, one in ten half its lead time late. Common practice.
LATE_AT = (0.0, 0.5, 0.75, 0.9, 1.0)
USUAL_LATE = (0.0, 0.0, 0.12, 0.3, 0.6)
# From so many arrivals on the log replaces that. House rule.
ENOUGH_ARRIVALS = 5
# Hours of one job come out long or short together, by how awkward its engine is: their rank correlation. House rule.
SAME_JOB = 0.2


@dataclass(frozen=True, slots=True)
class Scatter:
    """What may come out otherwise: hours of each task by what was learned, how much later each part comes.

    Parameters
    ----------
    hours : sequence of PlannedHours
        Of one unit of each task.
    units : sequence of float
        How many units of it each task is. [1]
    kinds : sequence of str
        Which learned hours each task has: what is not known well is not known well for all of a kind.
    arrives : sequence of float or None
        Day on which the part of a task is expected, as an ordinal; None where it waits for none. [d]
    lead_days : sequence of float
        Over how many days it was ordered. [d]
    """

    hours: Sequence[PlannedHours]
    units: Sequence[float]
    kinds: Sequence[str]
    arrives: Sequence[float | None]
    lead_days: Sequence[float]


@dataclass(frozen=True, slots=True)
class Sure:
    """How sure the date of a job is: chance that its promise is kept, where nine in ten and half of the ends lie.

    ``kept`` is None where nothing is promised. Ends are quarters of the axis.
    """

    kept: float | None
    nine_in_ten: float
    half: float


def late_days(lateness: Sequence[float]) -> tuple[float, ...] | None:
    """Return by how much parts came late in the shop's own log at the quantiles that count.

    Parameters
    ----------
    lateness : sequence of float
        Of parts that came, as shares of their lead times; below nought they came early. [1]

    Returns
    -------
    tuple of float or None
        Shares at the quantiles of the usual ones; None where they are fewer than five. House rule.
    """
    if len(lateness) < ENOUGH_ARRIVALS:
        return None
    return tuple(float(one) for one in np.quantile(np.array(lateness), LATE_AT))


def draw(
    problem: CalendarProblem, scatter: Scatter, late: tuple[float, ...] | None = None, draws: int = DRAWS, seed: int = 1
) -> Drawn:
    """Draw hours and arrivals.

    Parameters
    ----------
    problem : CalendarProblem
        Tasks as they are laid out.
    scatter : Scatter
        What may come out otherwise.
    late : tuple of float, optional
        Shares of lead times by which parts come later, from the shop's own log.
    draws, seed : int
        How many, and where the generator begins.

    Returns
    -------
    Drawn
        Hours and first days of every task. [quarters]

    Raises
    ------
    OutOfDomain
        If there is not one entry for each task.

    Notes
    -----
    Hours are lognormal. Where they were learned from n of them, mean and standard deviation of each draw come from
    their own distribution [1]_ of the module, once for all tasks of a kind: σ² = (n − 1)s²/χ², µ = m + σz/√n. What a
    task is beside its kind is drawn with a share that its job has in common.
    """
    tasks = problem.tasks
    if not len(scatter.hours) == len(scatter.units) == len(scatter.kinds) == len(tasks):
        raise OutOfDomain("every task has its hours", "hours")
    generator = default_rng(seed)
    takes = np.empty((draws, len(tasks)))
    ready = np.empty((draws, len(tasks)))
    known: dict[str, tuple[Floats, Floats]] = {}
    of_job = generator.standard_normal((draws, max(len(problem.jobs), 1)))
    share = np.sqrt(SAME_JOB)
    for at, task in enumerate(tasks):
        hours = scatter.hours[at]
        if scatter.kinds[at] not in known:
            known[scatter.kinds[at]] = _mean_and_scatter(hours, draws, generator)
        mean, spread = known[scatter.kinds[at]]
        own = np.sqrt(1 - SAME_JOB) * generator.standard_normal(draws) + share * of_job[:, task.job]
        drawn = scatter.units[at] * np.exp(mean + spread * own) / SLOT_H
        takes[:, at] = drawn if hours.middle_h > 0 else float(task.slots)
        arrives = scatter.arrives[at]
        if arrives is None:
            ready[:, at] = float(task.ready)
        else:
            shares = np.interp(generator.random(draws), LATE_AT, late or USUAL_LATE)
            ready[:, at] = np.maximum(problem.axis.after_days(arrives + shares * scatter.lead_days[at]), 0.0)
    return Drawn(takes, ready)


def _mean_and_scatter(hours: PlannedHours, draws: int, generator: Generator) -> tuple[Floats, Floats]:
    n = hours.n
    if n < 2:
        return np.full(draws, hours.log_mean), np.full(draws, hours.log_scatter)
    spread = hours.log_scatter * np.sqrt((n - 1) / generator.chisquare(n - 1, draws))
    return hours.log_mean + spread * generator.standard_normal(draws) / np.sqrt(n), spread


def ends_of_jobs(problem: CalendarProblem, laid: Laid, drawn: Drawn) -> Floats:
    """Return when each job is done in each draw, people taking what is ready in the order of the plan.

    Parameters
    ----------
    problem : CalendarProblem
        Tasks, people, machines.
    laid : Laid
        The calendar.
    drawn : Drawn
        Hours and first days. [quarters]

    Returns
    -------
    ndarray
        Shape (draws, jobs). [quarters] By definition of keeping to the plan.
    """
    rank = np.zeros(len(problem.tasks))
    who = np.full(len(problem.tasks), -1)
    for one in laid.placed:
        rank[one.task] = one.start
        who[one.task] = -1 if one.person is None else one.person
    course = run_shop(problem, rank, drawn, who)
    ends = np.zeros((len(course.ends), len(problem.jobs)))
    for job in range(len(problem.jobs)):
        own = problem.ends_of(job)
        if own:
            ends[:, job] = course.ends[:, own].max(axis=1)
    return ends


def how_sure(problem: CalendarProblem, ends: Floats) -> tuple[Sure, ...]:
    """Say how sure the date of each job is.

    Parameters
    ----------
    problem : CalendarProblem
        Promises.
    ends : ndarray
        When each job was done in each draw, shape (draws, jobs). [quarters]

    Returns
    -------
    tuple of Sure
        For each job in turn. By definition; quantiles between draws as they lie.
    """
    sure = []
    for at, job in enumerate(problem.jobs):
        own = ends[:, at]
        kept = None if job.promised is None else float(np.mean(own <= job.promised + 1e-9))
        sure.append(Sure(kept, float(np.quantile(own, OFFERED_SHARE, method="higher")), float(np.median(own))))
    return tuple(sure)
