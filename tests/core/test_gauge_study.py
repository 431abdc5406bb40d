"""The gauge study beside statsmodels' analysis of variance, and laws of a balanced study."""

import warnings
from math import sqrt

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import integrate, stats

with warnings.catch_warnings():
    # What the package imports warns on its own account.
    warnings.simplefilter("ignore")
    import pandas
    from statsmodels.formula.api import ols
    from statsmodels.stats.anova import anova_lm

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.gauges.average_and_range import range_factor
from vallostasis.core.gauges.gauge_study import blind_order, study_gauge
from vallostasis.core.uncertainty.decision import Capability

Table = list[list[list[float]]]


def _readings(seed: int, parts: int, people: int, trials: int, interaction: float = 0.5) -> Table:
    rng = np.random.default_rng(seed)
    truth = rng.normal(0, 10, parts)
    bias = rng.normal(0, 1.5, people)
    both = rng.normal(0, interaction, (parts, people))
    noise = rng.normal(0, 1, (parts, people, trials))
    table: Table = (truth[:, None, None] + bias[None, :, None] + both[:, :, None] + noise).tolist()
    return table


def _statsmodels(table: Table) -> pandas.DataFrame:
    rows = [
        {"y": value, "part": p, "person": o}
        for p, people in enumerate(table)
        for o, trials in enumerate(people)
        for value in trials
    ]
    return anova_lm(ols("y ~ C(part) * C(person)", pandas.DataFrame(rows)).fit(), typ=2)


@settings(max_examples=20)
@given(seed=st.integers(0, 10**6), parts=st.integers(2, 10), people=st.integers(2, 4), trials=st.integers(2, 4))
def test_the_analysis_is_that_of_statsmodels(seed: int, parts: int, people: int, trials: int) -> None:
    table = _readings(seed, parts, people, trials)
    theirs, ours = _statsmodels(table), study_gauge(table, None)
    rows = ["C(part)", "C(person)", "C(part):C(person)", "Residual"]
    # Their sums run over a design matrix: rounding of a few hundred readings of size ten.
    assert ours.anova.squares_m2 == pytest.approx([theirs.loc[row, "sum_sq"] for row in rows], rel=1e-6, abs=1e-9)
    assert list(ours.anova.freedom) == [int(theirs.loc[row, "df"]) for row in rows]
    assert ours.anova.interaction_p == pytest.approx(theirs.loc[rows[2], "PR(>F)"], rel=1e-6, abs=1e-9)


def test_components_follow_from_the_expected_mean_squares() -> None:
    """Two parts, two people, two trials by hand: MS_e 0.5, nothing between people."""
    study = study_gauge([[[1, 2], [1, 2]], [[11, 12], [11, 12]]], tolerance_m=60)
    assert study.anova.squares_m2 == pytest.approx((200, 0, 0, 2))
    assert study.full.repeatability_m == pytest.approx(sqrt(0.5))
    assert study.full.reproducibility_m == 0
    # (MS_p − MS_po)/(o·r) = 200/4
    assert study.full.part_m == pytest.approx(sqrt(50))
    assert study.full.percent_of_tolerance == pytest.approx(600 * sqrt(0.5) / 60)
    assert study.full.categories == 14
    # Merged: (0 + 2)/5
    assert study.pooled.repeatability_m == pytest.approx(sqrt(0.4))
    assert study.holds is study.pooled


@pytest.mark.parametrize(
    ("tolerance", "capability"),
    # Six times √0.5 is 4.24: 7, 21 and 42 per cent. Ten and thirty are common practice, no published source.
    [(60, Capability.GOOD), (20, Capability.MARGINAL), (10, Capability.WRONG_TOOL)],
)
def test_a_gauge_is_judged_by_its_share_of_the_tolerance(tolerance: float, capability: Capability) -> None:
    assert study_gauge([[[1, 2], [1, 2]], [[11, 12], [11, 12]]], tolerance).full.capability is capability


def test_without_a_tolerance_a_gauge_is_judged_by_its_share_of_all_spread() -> None:
    # √0.5 against √50: a tenth of it and a hair less of the whole.
    assert study_gauge([[[1, 2], [1, 2]], [[11, 12], [11, 12]]], None).full.capability is Capability.GOOD
    assert study_gauge([[[1, 2], [1, 2]], [[3, 4], [3, 4]]], None).full.capability is Capability.WRONG_TOOL


def test_an_interaction_that_a_range_study_would_hide_is_kept() -> None:
    rng = np.random.default_rng(7)
    both = rng.normal(0, 6, (8, 3))
    table = (rng.normal(0, 5, (8, 1, 1)) + both[:, :, None] + rng.normal(0, 0.3, (8, 3, 3))).tolist()
    study = study_gauge(table, 60.0)
    assert study.holds is study.full
    assert study.full.reproducibility_m > 10 * study.full.repeatability_m


@given(seed=st.integers(0, 10**6), factor=st.floats(0.1, 100), by=st.floats(-1000, 1000))
def test_units_and_a_common_shift_change_nothing_but_the_scale(seed: int, factor: float, by: float) -> None:
    table = _readings(seed, 5, 3, 2)
    scaled = [[[value * factor + by for value in trials] for trials in people] for people in table]
    one, other = study_gauge(table, 50.0), study_gauge(scaled, 50.0 * factor)
    assert other.full.gauge_m == pytest.approx(one.full.gauge_m * factor, rel=1e-6)
    assert other.full.percent_of_total == pytest.approx(one.full.percent_of_total, rel=1e-6)
    assert other.full.percent_of_tolerance == pytest.approx(one.full.percent_of_tolerance, rel=1e-6)
    assert other.anova.interaction_p == pytest.approx(one.anova.interaction_p, rel=1e-5, abs=1e-9)


@given(parts=st.integers(2, 20), people=st.integers(2, 6), trials=st.integers(2, 10), seed=st.integers(0, 2**31 - 1))
def test_the_blind_order_reads_every_cell_once_round_by_round(parts: int, people: int, trials: int, seed: int) -> None:
    order = blind_order(parts, people, trials, seed)
    assert sorted(order) == [(p, o, t) for p in range(parts) for o in range(people) for t in range(trials)]
    assert [trial for _, _, trial in order] == sorted(trial for _, _, trial in order)
    assert order == blind_order(parts, people, trials, seed)


@pytest.mark.parametrize(
    ("table", "tolerance", "why"),
    [
        ([[[1, 2], [3]], [[1, 2], [3, 4]]], None, "same number of times"),
        ([[[1, 2]], [[3, 4]]], None, "at least two parts"),
        ([[[1], [2]], [[3], [4]]], None, "at least two parts"),
        ([[[1, 2], [3, np.nan]], [[1, 2], [3, 4]]], None, "finite"),
        ([[[1, 2], [3, 4]], [[1, 2], [3, 4]]], 0.0, "wider than nothing"),
        ([], None, "same number of times"),
    ],
)
def test_what_is_no_study_is_refused(table: Table, tolerance: float | None, why: str) -> None:
    with pytest.raises(OutOfDomain, match=why):
        study_gauge(table, tolerance)


@pytest.mark.parametrize(
    ("values", "d2", "d2_of_one"),
    # Factors d2 and d2* (one range) of printed tables of average and range, A. J. Duncan, from memory.
    [(2, 1.128, 1.414), (3, 1.693, 1.912), (4, 2.059, 2.239), (5, 2.326, 2.481), (6, 2.534, 2.673), (10, 3.078, 3.179)],
)
def test_the_factors_of_ranges_are_those_of_the_tables(values: int, d2: float, d2_of_one: float) -> None:
    # Three decimals are printed.
    assert range_factor(values, 30) == pytest.approx(d2, abs=5.1e-4)
    assert range_factor(values, 1) == pytest.approx(d2_of_one, abs=5.1e-4)


@pytest.mark.parametrize("values", [2, 3, 7, 20])
def test_the_mean_range_is_that_of_the_studentized_range(values: int) -> None:
    """SciPy's studentized range with a known sigma is the range of normal values."""
    of_range = stats.studentized_range(values, np.inf)
    mean, _ = integrate.quad(of_range.sf, 0, np.inf)
    # The quadrature over SciPy's own quadrature keeps six figures.
    assert range_factor(values, 30) == pytest.approx(mean, rel=1e-6)


def test_averages_and_ranges_do_not_see_the_interaction() -> None:
    """The same people and parts with and without an interaction that averages out over parts and over people."""
    rng = np.random.default_rng(3)
    plain = rng.normal(0, 5, (6, 1, 1)) + np.array([0.0, 1.0, 2.0])[None, :, None] + rng.normal(0, 0.3, (6, 3, 3))
    twist = np.outer([8, -8, 8, -8, 8, -8], [1, -1, 0])[:, :, None]
    straight, twisted = study_gauge(plain.tolist(), None), study_gauge((plain + twist).tolist(), None)
    assert twisted.ranges.gauge_m == pytest.approx(straight.ranges.gauge_m)
    assert twisted.full.gauge_m > 5 * straight.full.gauge_m


def test_where_nothing_interacts_both_ways_agree() -> None:
    """Of 200 studies without interaction both ways find the repeatability that was put in, one sigma of 1.0."""
    studies = [study_gauge(_readings(seed, 10, 3, 3, interaction=0.0), None) for seed in range(200)]
    # The mean of 200 with 60 degrees of freedom each: standard error 1/√(2·60·200) = 0.0065, five of them.
    assert np.sqrt(np.mean([s.full.repeatability_m**2 for s in studies])) == pytest.approx(1.0, abs=0.033)
    assert np.mean([s.ranges.repeatability_m for s in studies]) == pytest.approx(1.0, abs=0.033)
