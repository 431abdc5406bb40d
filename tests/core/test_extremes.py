"""Values that pick the farthest: against SciPy's distributions, closed forms, and drawn errors."""

from math import degrees, pi, sqrt

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import integrate, stats

from tests.deep import DEEP
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.uncertainty.budget import Estimate, Source, estimate, exactly
from vallostasis.core.uncertainty.extremes import (
    amplitude_bias,
    amplitude_factor,
    amplitude_of,
    direction_within,
    farthest_factor,
    range_factor,
    range_of,
)

CHANCE = float(2 * stats.norm.cdf(2) - 1)
MICRON = 1e-6


def _chance_within(radius: float, one: float, other: float) -> float:
    """Chance that two independent normal errors lie within a circle, by integrating along the first. SciPy."""

    def across(x: float) -> float:
        return float(stats.norm.pdf(x, scale=one) * (2 * stats.norm.cdf(sqrt(max(radius**2 - x**2, 0)) / other) - 1))

    return float(integrate.quad(across, -radius, radius, epsabs=1e-10)[0])


@settings(max_examples=100 if DEEP else 25)
@given(one=st.floats(0.5, 5), other=st.floats(0.5, 5))
def test_the_circle_of_an_amplitude_holds_both_errors(one: float, other: float) -> None:
    radius = amplitude_factor(np.diag([one**2, other**2]), 2.0)
    # The ratio of the two is kept to three decimals.
    assert _chance_within(radius, one, other) == pytest.approx(CHANCE, abs=2e-4)


def test_alike_in_every_direction_it_is_rayleighs_and_in_one_it_is_k() -> None:
    assert amplitude_factor(np.eye(2), 2.0) == pytest.approx(sqrt(stats.chi2.ppf(CHANCE, 2)), rel=1e-6)
    assert amplitude_factor(np.diag([1.0, 0.0]), 2.0) == pytest.approx(2.0, abs=1e-3)
    assert amplitude_factor(np.zeros((2, 2)), 2.0) == 0.0
    # Means of the Rayleigh and of the half-normal distribution, closed forms.
    assert amplitude_bias(np.diag([4.0, 4.0])) == pytest.approx(2 * sqrt(pi / 2))
    assert amplitude_bias(np.diag([0.0, 9.0])) == pytest.approx(3 * sqrt(2 / pi), rel=3e-4)


def test_covariance_turns_the_ellipse_and_nothing_else() -> None:
    turned = np.array([[2.5, 1.5], [1.5, 2.5]])
    assert amplitude_factor(turned, 2.0) == pytest.approx(amplitude_factor(np.diag([4.0, 1.0]), 2.0))
    assert amplitude_bias(turned) == pytest.approx(amplitude_bias(np.diag([4.0, 1.0])))


@pytest.mark.parametrize("points", [1, 2, 4, 9])
def test_the_farthest_of_several_errors(points: int) -> None:
    factor = farthest_factor(points, 2.0)
    assert (2 * stats.norm.cdf(factor) - 1) ** points == pytest.approx(CHANCE)


def _alike(value: float, name: str, standard: float = MICRON) -> Estimate:
    return exactly(value, standard, name)


def test_high_to_low_is_twice_the_length_and_so_is_its_budget() -> None:
    parts = (_alike(3 * MICRON, "b"), _alike(4 * MICRON, "c"))
    found = amplitude_of("high to low", parts, 2.0, 2.0)
    assert found.value_m == pytest.approx(10 * MICRON)
    assert found.expanded_m == pytest.approx(2 * sqrt(stats.chi2.ppf(CHANCE, 2)) * MICRON, rel=1e-6)
    assert found.budget.bias_m == pytest.approx(2 * sqrt(pi / 2) * MICRON)
    assert found.budget.standard_m == pytest.approx(2 * MICRON)


def test_a_direction_is_known_as_far_as_its_circle_is_seen() -> None:
    radius = sqrt(stats.chi2.ppf(CHANCE, 2))
    within = direction_within((_alike(30 * MICRON, "b"), _alike(40 * MICRON, "c")), 2.0)
    assert within is not None
    assert degrees(within) == pytest.approx(degrees(np.arcsin(radius / 50)))
    assert direction_within((_alike(1 * MICRON, "b"), _alike(1 * MICRON, "c")), 2.0) is None


def test_few_repeats_widen_a_range_and_an_amplitude_as_they_do_one_reading() -> None:
    """Student's t over normal, at what k = 2 covers: nine degrees of freedom."""
    wider = float(stats.t.ppf((1 + CHANCE) / 2, 9) / 2)

    def few(name: str, value: float) -> Estimate:
        return estimate(value, (Source("repeatability", MICRON, freedom=9, error=name, spread="study"),))

    places = [few(str(at), at * MICRON) for at in range(4)]
    spread = range_of("round", places, 2.0)
    assert spread.value_m == pytest.approx(3 * MICRON)
    q = float(stats.studentized_range.ppf(CHANCE, 4, np.inf))
    assert spread.expanded_m == pytest.approx(q * wider * MICRON, rel=5e-3)
    parts = (few("b", 30 * MICRON), few("c", 40 * MICRON))
    within = direction_within(parts, 2.0)
    assert within is not None
    assert 50 * np.sin(within) == pytest.approx(sqrt(stats.chi2.ppf(CHANCE, 2)) * wider, rel=5e-3)


def test_the_place_known_least_well_sets_the_width_of_a_range() -> None:
    well = [_alike(at * MICRON, str(at)) for at in range(3)]
    badly = exactly(9 * MICRON, 3 * MICRON, "bad")
    found = range_of("round", [*well, badly], 2.0)
    # Two places apart: √(3² + 1²), at q/√2 of that.
    q = float(stats.studentized_range.ppf(CHANCE, 4, np.inf))
    assert found.value_m == pytest.approx(9 * MICRON)
    assert found.expanded_m == pytest.approx(q / sqrt(2) * sqrt(10) * MICRON, rel=2e-4)


def test_one_reading_is_no_range() -> None:
    with pytest.raises(OutOfDomain, match="two readings"):
        range_of("round", [_alike(0.0, "a")], 2.0)
    with pytest.raises(OutOfDomain, match="two readings"):
        range_factor(1, 2.0)
    with pytest.raises(OutOfDomain, match="two readings"):
        range_factor(4, 2.0, 0)
