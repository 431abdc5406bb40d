"""The normal density against scipy.stats, a general-purpose reference library."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from vallostasis.core.uncertainty.normal import log_normal_density, normal_density

values = st.floats(-1e-3, 1e-3)


@given(values, values, st.floats(1e-7, 1e-4))
def test_the_logarithm_is_that_of_the_library(value: float, mean: float, standard: float) -> None:
    expected = stats.norm.logpdf(value, mean, standard)
    assert log_normal_density(value, mean, standard) == pytest.approx(expected, rel=1e-12, abs=1e-9)


def test_arrays_are_drawn_against_each_other() -> None:
    grid, means, within = np.linspace(-5e-5, 5e-5, 41), np.array([0.0, 2e-5, -1e-5]), np.array([1e-6, 5e-6, 2e-5])
    found = normal_density(grid[None, :], means[:, None], within[:, None])
    assert found.shape == (3, 41)
    assert found == pytest.approx(stats.norm.pdf(grid[None, :], means[:, None], within[:, None]), rel=1e-12)
