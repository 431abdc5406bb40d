"""Passes of the shop's own runs: how many a hole takes and how long each is, from which the hours of a hole follow.

Common practice, no published source.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import log, sqrt
from statistics import median, quantiles

from vallostasis.core.counterbore.learned import HoleCut
from vallostasis.core.cut_runs.own_runs import finished_runs
from vallostasis.core.hours.learned import ENOUGH, LEAST_SCATTER, PlannedHours, by_passes
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation

# Centring, torque and the first touch at one hole. [h] Common practice, no published source.
SETUP_OF_HOLE_H = 0.25
# From so many passes on their time is known. House rule.
ENOUGH_PASSES = 12


@dataclass(frozen=True, slots=True)
class PassLog:
    """Passes of one kind of work: how long each was [h], and how many each hole took [1]."""

    hours: tuple[float, ...]
    passes: tuple[float, ...]


def cut_passes(jobs: Iterable[JobFacts]) -> PassLog:
    """Return the passes of every finished run of the counterbore cutter. [h] By definition."""
    found = [(run.count, taught) for facts in jobs for _, run, taught in finished_runs(facts)]
    return log_of_runs([taught for _, taught in found], [count for count, _ in found])


def log_of_runs(taught: Sequence[HoleCut], counts: Sequence[int]) -> PassLog:
    """Return the log of runs that taught something. [h]

    Parameters
    ----------
    taught : sequence of HoleCut
        With the times of their passes [s].
    counts : sequence of int
        How many passes each run had. [1]

    Returns
    -------
    PassLog
        Times in hours. By definition.
    """
    times = tuple(seconds / 3600 for one in taught for seconds in one.pass_s)
    return PassLog(times, tuple(float(one) for one in counts))


def bore_passes(jobs: Iterable[JobFacts]) -> PassLog:
    """Return the passes of the boring bar that were timed, and how many each bored hole took. [h] By definition."""
    times: list[float] = []
    counts: list[float] = []
    for facts in jobs:
        standing = facts.standing(facts.boring_passes)
        times += [float(one.minutes) / 60 for one in standing if one.minutes is not None and one.minutes > 0]
        holes = [one.hole_id for one in standing]
        counts += [float(holes.count(one)) for one in dict.fromkeys(holes)]
    return PassLog(tuple(times), tuple(counts))


def hours_of_hole(passes: PassLog) -> PlannedHours | None:
    """Return the hours of one hole from passes: how many it takes, times one, and what a hole takes before the first.

    Parameters
    ----------
    passes : PassLog
        Of the shop's own runs. [h]

    Returns
    -------
    PlannedHours or None
        None while they are fewer than twelve. House rule.
    """
    if len(passes.hours) < ENOUGH_PASSES or not passes.passes:
        return None
    return by_passes(median(passes.passes), _a_pass(passes.hours), SETUP_OF_HOLE_H)


def _a_pass(hours: Sequence[float]) -> PlannedHours:
    low, middle, high = quantiles(hours, n=4, method="inclusive")
    logs = [log(one) for one in hours]
    mean = sum(logs) / len(logs)
    scatter = sqrt(sum((one - mean) ** 2 for one in logs) / (len(logs) - 1))
    return PlannedHours(low, middle, high, len(hours), mean, max(scatter, LEAST_SCATTER))


def with_passes(
    learned: dict[Operation, PlannedHours], passes: dict[Operation, PassLog]
) -> dict[Operation, PlannedHours]:
    """Let passes say the hours of an operation that was not logged often enough as a whole. House rule of five."""
    found = dict(learned)
    for operation, log_ in passes.items():
        hours = hours_of_hole(log_)
        if hours is not None and found[operation].n < ENOUGH:
            found[operation] = hours
    return found
