"""What a gauge brings to a reading, against the GUM and against drawn readings.

JCGM 100:2008 (GUM): 4.3.7 gives a/√3 for a rectangle of half width a; F.2.2.1 gives 0.29·δx for the
resolution of an indicating device.
"""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.uncertainty.budget import Estimate, difference_of, estimate, mean_of
from vallostasis.core.uncertainty.half_widths import rectangular
from vallostasis.core.uncertainty.reading_errors import GaugeSources, ReadOf, gauge_errors

positive = st.floats(1e-9, 1e-3)
# Standard deviation of 40 000 draws is itself uncertain to 1/√(2·40 000) = 0.35 %; five times that.
DRAWS, DRAWN = 40_000, 0.018


def _reading(gauge: GaugeSources, number: int, zero: str = "zero", person: str = "Wren") -> Estimate:
    return estimate(0.0, gauge_errors(gauge, ReadOf(number, "gauge", zero, "set", person)))


def test_resolution_as_in_the_gum() -> None:
    # F.2.2.1: u = 0.29 δx, two digits printed; a zero is a reading too.
    assert _reading(GaugeSources(1e-6, 0.0, has_zero=False), 1).standard_m == pytest.approx(0.29e-6, abs=0.005e-6)
    assert _reading(GaugeSources(1e-6, 0.0), 1).standard_m == pytest.approx(2**0.5 * 0.2887e-6, abs=0.001e-6)
    assert rectangular(3e-6) == pytest.approx(3e-6 / np.sqrt(3))


def _drawn(step: float, scatter: float, positions: int) -> np.ndarray:
    """Readings from one zero each row: errors of their own, those of the zero and of the person shared."""
    rng = np.random.default_rng(1)

    def shown(size: tuple[int, int]) -> np.ndarray:
        return rng.normal(0, scatter, size) + rng.uniform(-step / 2, step / 2, size)

    return shown((DRAWS, positions)) + shown((DRAWS, 1)) + rng.normal(0, 3e-6, (DRAWS, 1))


def test_a_mean_keeps_zero_and_person_and_a_difference_loses_them() -> None:
    gauge = GaugeSources(5e-6, 2e-6, people_m=3e-6)
    drawn = _drawn(5e-6, 2e-6, 4)
    readings = [_reading(gauge, number) for number in range(4)]
    assert mean_of(readings).standard_m == pytest.approx(drawn.mean(axis=1).std(), rel=DRAWN)
    difference = (drawn[:, 0] - drawn[:, 1]).std()
    assert difference_of(readings[0], readings[1]).standard_m == pytest.approx(difference, rel=DRAWN)
    apart = (drawn[:, 0] - drawn[::-1][:, 1]).std()
    another = _reading(gauge, 9, "another zero", "Ines")
    assert difference_of(readings[0], another).standard_m == pytest.approx(apart, rel=DRAWN)


@given(step=positive, scatter=positive, n=st.integers(1, 50))
def test_more_readings_never_make_it_worse_and_never_beat_the_zero(step: float, scatter: float, n: int) -> None:
    """GUM 4.2.3: a mean shrinks with √n, what its readings share does not."""
    gauge = GaugeSources(step, scatter)
    few, more = (mean_of([_reading(gauge, number) for number in range(count)]).standard_m for count in (n, n + 1))
    zero = np.hypot(step / 12**0.5, scatter)
    assert zero * (1 - 1e-9) <= more <= few


def test_negative_widths_are_refused() -> None:
    with pytest.raises(OutOfDomain, match="negative"):
        rectangular(-1.0)
