"""Ovality from a few axes: fitted by numpy's FFT beside it, shares by sampling every direction, odd lobes cancel."""

from math import cos, radians

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.clock import turned
from vallostasis.core.shapes.ovality import (
    cannot_see,
    different_axes,
    fit_ellipse,
    share_guaranteed,
    share_seen,
)

MICRON = 1e-6
axes_lists = st.lists(st.floats(0, 179.5), min_size=3, max_size=9).filter(lambda axes: different_axes(axes) >= 3)


def _diameter(axis_deg: float, a2_m: float, phi2_deg: float) -> float:
    return 0.1 + a2_m * cos(2 * radians(axis_deg - phi2_deg))


@given(axes=st.integers(6, 24), a2=st.floats(0, 40e-6), phi=st.floats(0, 179))
def test_evenly_spaced_axes_give_what_the_fourier_transform_gives(axes: int, a2: float, phi: float) -> None:
    """NumPy's FFT is the second way: over half a turn order 1 of the samples is order 2 of the bore."""
    angles = [180 * i / axes for i in range(axes)]
    diameters = np.array([_diameter(axis, a2, phi) for axis in angles])
    spectrum = np.fft.rfft(diameters) / axes
    found = fit_ellipse(angles, diameters)
    assert found.mean_m == pytest.approx(spectrum[0].real, abs=1e-12)
    assert found.a2_m == pytest.approx(2 * abs(spectrum[1]), abs=1e-12)
    assert found.ovality_m == 2 * found.a2_m


@given(axes=axes_lists, a2=st.floats(1e-6, 40e-6), phi=st.floats(0, 179))
def test_an_ellipse_comes_back_from_any_three_axes(axes: list[float], a2: float, phi: float) -> None:
    found = fit_ellipse(axes, [_diameter(axis, a2, phi) for axis in axes])
    # Axes a degree apart magnify rounding of a tenth of a metre in floats by their bad footing.
    assert found.rms_residual_m < 1e-9
    for axis in (0.0, 37.0, 90.0, 141.0):
        if different_axes([*axes, axis]) == different_axes(axes):
            shape = found.mean_m + found.a2_m * cos(2 * radians(axis - found.phi2_deg))
            assert shape == pytest.approx(_diameter(axis, a2, phi), abs=5e-8)


def test_four_axes_cannot_place_four_lobes_and_five_can() -> None:
    """Order 4 turned by 22.5° is nought at 0, 45, 90 and 135: closed form."""
    shape = lambda axis: 0.1 + 5e-6 * cos(4 * radians(axis - 22.5))  # noqa: E731
    four = [0.0, 45.0, 90.0, 135.0]
    assert fit_ellipse(four, [shape(axis) for axis in four]).a4_m is None
    five = [0.0, 36.0, 72.0, 108.0, 144.0]
    placed = fit_ellipse(five, [shape(axis) for axis in five])
    assert placed.a4_m == pytest.approx(5e-6, abs=1e-12)
    assert placed.phi4_deg == pytest.approx(22.5, abs=1e-6)


@given(lobes=st.sampled_from([3, 5, 7]), axis=st.floats(0, 179), size=st.floats(1e-6, 50e-6))
def test_odd_lobes_read_round_on_a_two_point_gauge(lobes: int, axis: float, size: float) -> None:
    """The diameter is the sum of opposite radii, and an odd cosine changes its sign there."""
    radius = lambda angle: 0.05 + size * cos(lobes * radians(angle))  # noqa: E731
    assert radius(axis) + radius(axis + 180) == pytest.approx(0.1, abs=1e-12)


@pytest.mark.parametrize(
    ("axes", "share"),
    # Closed forms; 0/45/90: 1/2, three at 60°: 3/4 as range over 2·A2, four at 45°: 1/√2.
    [((0, 90), 0.0), ((0, 45, 90), 0.5), ((0, 60, 120), 0.75), ((0, 45, 90, 135), 2**-0.5)],
)
def test_share_that_is_sure_to_show(axes: tuple[float, ...], share: float) -> None:
    assert share_guaranteed(axes) == pytest.approx(share, abs=1e-9)


@given(axes=st.lists(st.floats(0, 179), min_size=2, max_size=8))
def test_the_sure_share_is_the_least_over_every_direction(axes: list[float]) -> None:
    least = min(share_seen(axes, direction) for direction in np.linspace(0, 180, 721))
    sure = share_guaranteed(axes)
    assert sure <= least + 1e-9
    # Between two of 721 directions a share can fall by no more than the slope of a sine allows.
    assert sure >= least - 2 * radians(180 / 720)


@pytest.mark.parametrize(("phi", "share"), [(0, 1.0), (10, 0.9397), (20, 0.7660), (30, 0.5), (45, 0.0)])
def test_share_seen_on_two_axes(phi: float, share: float) -> None:
    """|cos 2φ|: closed form."""
    assert share_seen((0, 90), phi) == pytest.approx(share, abs=5e-5)


@pytest.mark.parametrize(
    ("axes", "count"),
    [((0, 180), 1), ((0.4, 179.7), 1), ((0, 1.5), 2), ((10, 100, 190, 280), 2), ((0, 90, 179.2), 2), ((0, 60, 120), 3)],
)
def test_an_axis_and_its_opposite_are_one(axes: tuple[float, ...], count: int) -> None:
    assert different_axes(axes) == count


def test_a_share_is_sure_where_two_differences_are_equal_and_opposite() -> None:
    """On 0, 45 and 90° an oval at φ shows the greatest of |2cos 2φ|, |cos 2φ − sin 2φ|, |cos 2φ + sin 2φ|, halved.

    Least where cos 2φ is nought, a half; closed form. Uneven axes the same by a fine grid.
    """
    assert share_guaranteed((0, 45, 90)) == pytest.approx(0.5)
    for axes in ((0.0, 20.0, 70.0), (0.0, 50.0, 100.0), (5.0, 35.0, 120.0, 150.0)):
        grid = min(share_seen(axes, float(direction)) for direction in np.linspace(0, 180, 36001))
        assert share_guaranteed(axes) == pytest.approx(grid, abs=2e-4)


def test_too_few_axes_are_refused_and_said() -> None:
    with pytest.raises(OutOfDomain, match="three different axes"):
        fit_ellipse([0, 180, 90], [0.1, 0.1, 0.1])
    with pytest.raises(OutOfDomain, match="do not fit"):
        fit_ellipse([0, 60, 120], [0.1, 0.1])
    with pytest.raises(OutOfDomain, match="nothing is seen"):
        share_seen((), 0)
    assert any("Two axes bound nothing" in words for words in cannot_see((0, 90), 5))
    assert any("71 %" in words for words in cannot_see((0, 45, 90, 135), 5))
    assert any("Five axes tell them apart" in words for words in cannot_see((0, 45, 90, 135), 5))
    assert any("side by side" in words for words in cannot_see((0, 30, 60, 90, 120, 150), 5))
    # Four lobes of 20 on three axes pass for an oval of 40: what is taken for granted is said, not "all of it".
    assert not any("all of it" in words for words in cannot_see((0, 45, 90), 5))
    assert any("Fewer than three levels" in words for words in cannot_see((0, 60, 120), 2))
    assert all(
        any("three, five and seven lobes" in words for words in cannot_see(axes, 5)) for axes in ((0,), (0, 60, 120))
    )


def test_four_lobes_pass_for_an_oval_on_three_axes() -> None:
    """Closed form: 10·cos 4θ at 0, 45 and 90° is +10, -10, +10: the ellipse through them is one of 40 at 135 + 90°."""
    found = fit_ellipse([0.0, 45.0, 90.0], [0.1 + one * 1e-6 for one in (10, -10, 10)])
    assert found.ovality_m == pytest.approx(40e-6)
    assert found.a4_m is None


@given(tiny=st.floats(-1e-18, 1e-18))
def test_a_direction_never_reaches_its_own_period(tiny: float) -> None:
    """In floats the remainder of -1e-17 by 180 is 180 itself."""
    assert 0 <= fit_ellipse([0.0, 60.0, 120.0], [0.1001, 0.1 + tiny, 0.1]).phi2_deg < 180
    assert turned(-1e-17, 180) == 0
    assert turned(-30, 360) == 330
