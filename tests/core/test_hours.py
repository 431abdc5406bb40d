"""Hours learned from the shop's own log: against NumPy's quantiles, SciPy's distributions, and hidden truths."""

import math

import numpy as np
import pytest
from scipy import stats

from tests.core.test_calendar import axis
from vallostasis.core.calendar.chances import Scatter, draw, late_days
from vallostasis.core.calendar.problem import CalendarProblem, JobToPlan, Person, Task
from vallostasis.core.counterbore.learned import HoleCut
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.hours.learned import SpentHours, by_passes, learn_hours, usual, worst_of
from vallostasis.core.hours.of_passes import PassLog, hours_of_hole, log_of_runs
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.route_marks import Operation

LOGGED = (1.5, 2.0, 1.75, 2.5, 3.0, 2.25)


def test_before_five_are_logged_common_practice_stands() -> None:
    learned = learn_hours([SpentHours(Operation.WASH, 9.0, 1)] * 4)
    assert learned[Operation.WASH] == usual(OPERATIONS[Operation.WASH].hours)
    assert learned[Operation.WASH].n == 0


def test_from_five_on_median_and_quartiles_are_those_of_the_log() -> None:
    """Quantiles by NumPy."""
    learned = learn_hours([SpentHours(Operation.HONE, 4 * one, 4) for one in LOGGED])[Operation.HONE]
    assert (learned.low_h, learned.middle_h, learned.high_h) == pytest.approx(np.quantile(LOGGED, (0.25, 0.5, 0.75)))
    assert learned.n == 6
    assert learned.log_scatter == pytest.approx(np.std(np.log(LOGGED), ddof=1))


def test_usual_quartiles_are_those_of_the_distribution_that_is_drawn() -> None:
    """Quartiles by SciPy's lognormal."""
    hours = usual(2.0)
    own = stats.lognorm(hours.log_scatter, scale=math.exp(hours.log_mean))
    assert own.ppf(0.75) / own.ppf(0.25) == pytest.approx(hours.high_h / hours.low_h)
    assert worst_of(hours) == pytest.approx(own.ppf(0.9), rel=1e-9)
    assert worst_of(usual(0.0)) == 0.0


def test_a_log_without_work_teaches_nothing_and_nonsense_is_refused() -> None:
    assert learn_hours([SpentHours(Operation.HONE, 0.0, 1)] * 9)[Operation.HONE].n == 0
    with pytest.raises(OutOfDomain, match="hours are none or more"):
        learn_hours([SpentHours(Operation.HONE, -1.0, 1)])


def test_passes_times_a_pass_and_the_set_up() -> None:
    """29 passes of 40 s after a quarter of an hour: by hand 0.25 + 29 × 40/3600 h."""
    found = hours_of_hole(PassLog((40 / 3600,) * 12, (29.0, 28.0, 30.0)))
    assert found is not None
    assert found.middle_h == pytest.approx(0.25 + 29 * 40 / 3600)
    assert found.n == 12
    assert hours_of_hole(PassLog((40 / 3600,) * 11, (29.0,))) is None
    more = by_passes(58, usual(40 / 3600), 0.25)
    assert more.low_h < more.middle_h < more.high_h


def test_times_of_passes_become_hours() -> None:
    """Thirty-six seconds are a hundredth of an hour."""
    found = log_of_runs([HoleCut(2.0, 50e-6, 0.0, (36.0, 72.0)), HoleCut(1.0, 25e-6, 0.0)], [2, 1])
    assert found.hours == pytest.approx((0.01, 0.02)) and found.passes == (2.0, 1.0)


def test_hours_drawn_from_few_spread_as_the_next_one_does() -> None:
    """The next of a normal sample of n lies as Student's t with n − 1, wider by √(1 + 1/n): SciPy's t."""
    learned = learn_hours([SpentHours(Operation.HONE, one, 1) for one in LOGGED])[Operation.HONE]
    problem = CalendarProblem(axis(), (JobToPlan("one"),), (Person("one"),), (Task(0, "hone", 8, (0,)),))
    drawn = draw(problem, Scatter([learned], [1.0], ["hone"], [None], [0.0]), draws=40_000)
    logs = (np.log(drawn.takes[:, 0] / 4) - learned.log_mean) / (learned.log_scatter * math.sqrt(1 + 1 / learned.n))
    for share in (0.1, 0.5, 0.9):
        assert np.mean(logs <= stats.t(learned.n - 1).ppf(share)) == pytest.approx(share, abs=0.01)


def test_parts_come_as_late_as_they_did() -> None:
    """Quantiles by NumPy; before five nothing is known."""
    assert late_days([0.1] * 4) is None
    shares = [0.0, 0.1, 0.2, 0.3, 0.4, 0.5]
    assert late_days(shares) == pytest.approx(tuple(np.quantile(shares, (0, 0.5, 0.75, 0.9, 1))))


def test_draws_of_a_job_go_together_and_those_of_two_do_not() -> None:
    """Rank correlation by SciPy: that of a bivariate normal with a share of 0.2, 6/π·asin(0.1)."""
    hours = usual(2.0)
    tasks = tuple(Task(job, f"{job}", 8, (0,)) for job in (0, 0, 1))
    problem = CalendarProblem(axis(), (JobToPlan("one"), JobToPlan("two")), (Person("one"),), tasks)
    scatter = Scatter([hours] * 3, [1.0] * 3, ["a", "b", "c"], [None] * 3, [0.0] * 3)
    takes = draw(problem, scatter, draws=20_000).takes
    same = stats.spearmanr(takes[:, 0], takes[:, 1]).statistic
    assert same == pytest.approx(6 / math.pi * math.asin(0.1), abs=0.02)
    assert stats.spearmanr(takes[:, 0], takes[:, 2]).statistic == pytest.approx(0, abs=0.02)


def test_every_task_has_its_hours() -> None:
    problem = CalendarProblem(axis(), (JobToPlan("one"),), (Person("one"),), (Task(0, "hone", 8, (0,)),))
    with pytest.raises(OutOfDomain, match="every task has its hours"):
        draw(problem, Scatter([], [], [], [], []))
