"""The plane through readings round a circle, against NumPy's own solvers."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.plane import fit_plane

# Least squares of micrometre values in doubles: a picometre is far above rounding, far below any gauge.
PICOMETRE = 1e-12
lengths = st.floats(-500e-6, 500e-6)


@given(values=st.lists(lengths, min_size=3, max_size=24))
def test_equally_spaced_readings_agree_with_the_discrete_fourier_transform(values: list[float]) -> None:
    # numpy.fft: for equal spacing the plane is the mean and the first harmonic.
    n = len(values)
    plane = fit_plane(np.arange(n) * 360.0 / n, values)
    spectrum = np.fft.rfft(values) / n
    assert plane.mean_m == pytest.approx(spectrum[0].real, abs=PICOMETRE)
    assert plane.b_m == pytest.approx(2 * spectrum[1].real, abs=PICOMETRE)
    assert plane.c_m == pytest.approx(-2 * spectrum[1].imag, abs=PICOMETRE)


@given(mean=lengths, b=lengths, c=lengths, angles=st.sets(st.integers(0, 35), min_size=3, max_size=12))
def test_a_true_plane_is_found_again(mean: float, b: float, c: float, angles: set[int]) -> None:
    theta = np.radians([10.0 * angle for angle in angles])
    plane = fit_plane(np.degrees(theta), mean + b * np.cos(theta) + c * np.sin(theta))
    # Three positions bunched within 20° amplify rounding by their condition number, here below 1e5.
    assert plane.residuals_m == pytest.approx(0.0, abs=PICOMETRE)
    assert (plane.mean_m, plane.b_m, plane.c_m) == pytest.approx((mean, b, c), abs=1e5 * 1e-16)


@given(values=st.lists(lengths, min_size=4, max_size=12), turn=st.floats(0, 360))
def test_turning_the_positions_turns_the_high_side_only(values: list[float], turn: float) -> None:
    angles = np.arange(len(values)) * 360.0 / len(values)
    plane, turned = fit_plane(angles, values), fit_plane(angles + turn, values)
    assert turned.mean_m == pytest.approx(plane.mean_m, abs=PICOMETRE)
    assert turned.high_to_low_m == pytest.approx(plane.high_to_low_m, abs=PICOMETRE)
    if plane.high_to_low_m > 1e-6:
        assert turned.high_side_deg is not None
        assert plane.high_side_deg is not None
        assert 0 <= turned.high_side_deg < 360
        difference = (turned.high_side_deg - plane.high_side_deg - turn + 180) % 360 - 180
        assert difference == pytest.approx(0, abs=1e-3)


@given(values=st.lists(lengths, min_size=4, max_size=12))
def test_nothing_lies_below_the_supporting_plane_and_one_reading_touches_it(values: list[float]) -> None:
    angles = np.arange(len(values)) * 360.0 / len(values)
    plane = fit_plane(angles, values)
    theta = np.radians(angles)
    below = values - (plane.supporting_mean_m + plane.b_m * np.cos(theta) + plane.c_m * np.sin(theta))
    assert below.min() == pytest.approx(0, abs=PICOMETRE)


def test_half_and_whole_tilt_are_told_apart() -> None:
    plane = fit_plane([0, 90, 180, 270], [10e-6, 0, -10e-6, 0])
    assert plane.tilt_amplitude_m == pytest.approx(10e-6)
    assert plane.high_to_low_m == pytest.approx(20e-6)
    assert plane.high_side_deg == pytest.approx(0, abs=1e-9)


def test_a_plane_without_tilt_has_no_high_side() -> None:
    assert fit_plane([0, 90, 180, 270], [10e-6] * 4).high_side_deg is None
    # The remainder of a negative float a hair below nought is the whole turn itself.
    side = fit_plane([0, 90, 180, 270], [10e-6, -1e-22, -10e-6, 1e-22]).high_side_deg
    assert side is not None
    assert 0 <= side < 360


@pytest.mark.parametrize(
    ("angles", "values", "words"),
    [
        ([0, 180], [1e-6, 2e-6], "three different positions"),
        ([0, 0.2, 360.0, 180], [0, 0, 0, 0], "three different positions"),
        ([0, 90, 180], [1e-6, 2e-6], "as many angles"),
        ([0, 90, 180], [1e-6, float("nan"), 0], "finite"),
    ],
)
def test_a_plane_that_is_not_determined_is_refused(angles: list[float], values: list[float], words: str) -> None:
    with pytest.raises(OutOfDomain, match=words):
        fit_plane(angles, values)
