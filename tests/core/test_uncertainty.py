"""Trust in readings, against the GUM and against drawn readings.

JCGM 100:2008 (GUM): 4.3.7 gives a/√3 for a rectangle of half width a; F.2.2.1 gives 0.29·δx for the
resolution of an indicating device.
"""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.measuring.uncertainty import (
    ReadingTrust,
    rectangular,
    standard_of_difference,
    standard_of_mean,
    trust_of_reading,
)

positive = st.floats(0, 1e-3)
# Standard deviation of 40 000 draws is itself uncertain to 1/√(2·40 000) = 0.35 %; five times that.
DRAWS, DRAWN = 40_000, 0.018


def test_resolution_as_in_the_gum() -> None:
    # F.2.2.1: u = 0.29 δx, two digits printed.
    assert trust_of_reading(1e-6, 0.0).random_m == pytest.approx(0.29e-6, abs=0.005e-6)
    assert rectangular(3e-6) == pytest.approx(3e-6 / np.sqrt(3))


def _drawn(trust: ReadingTrust, positions: int) -> np.ndarray:
    """Readings from one zero each row: own error for each, zero error shared."""
    rng = np.random.default_rng(1)
    return rng.normal(0, trust.random_m, (DRAWS, positions)) + rng.normal(0, trust.zero_m, (DRAWS, 1))


def test_mean_keeps_the_shared_part_and_difference_loses_it() -> None:
    trust = ReadingTrust(3e-6, 2e-6)
    drawn = _drawn(trust, 4)
    assert standard_of_mean(trust, 4) == pytest.approx(drawn.mean(axis=1).std(), rel=DRAWN)
    difference = (drawn[:, 0] - drawn[:, 1]).std()
    assert standard_of_difference(trust, 1, trust, 1, same_zero=True) == pytest.approx(difference, rel=DRAWN)
    other = _drawn(trust, 4)[::-1]
    apart = (drawn[:, 0] - other[:, 1]).std()
    assert standard_of_difference(trust, 1, trust, 1, same_zero=False) == pytest.approx(apart, rel=DRAWN)


@given(resolution=positive, repeatability=positive, n=st.integers(1, 50))
def test_more_readings_never_make_it_worse_and_never_beat_the_zero(
    resolution: float, repeatability: float, n: int
) -> None:
    trust = trust_of_reading(resolution, repeatability)
    assert trust.zero_m <= standard_of_mean(trust, n + 1) <= standard_of_mean(trust, n)


@given(first=positive, second=positive)
def test_a_difference_does_not_care_which_comes_first(first: float, second: float) -> None:
    a, b = ReadingTrust(first, 1e-6), ReadingTrust(second, 2e-6)
    assert standard_of_difference(a, 2, b, 3, same_zero=False) == standard_of_difference(b, 3, a, 2, same_zero=False)


def test_nothing_read_and_negative_values_are_refused() -> None:
    with pytest.raises(OutOfDomain, match="at least one reading"):
        standard_of_mean(ReadingTrust(1e-6, 0), 0)
    with pytest.raises(OutOfDomain, match="either side"):
        standard_of_difference(ReadingTrust(1e-6, 0), 0, ReadingTrust(1e-6, 0), 1, same_zero=True)
    with pytest.raises(OutOfDomain, match="negative"):
        rectangular(-1.0)
