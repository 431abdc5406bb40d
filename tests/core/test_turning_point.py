"""Rocking: a thousand streams of a tilted chord with noise and drop-outs; the truth is known, the tilt exact."""

from math import cos, pi, sin

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.gauges.turning_point import least_of_rocks, turning_point

STREAMS = 1000
# A gauge of 2.5 µm step and 1.8 µm repeatability: its stated expanded uncertainty of one reading. [m]
STATED_M = 2 * (2 * (2.5e-6**2 / 12) + 1.8e-6**2) ** 0.5


def _stream(rng: np.random.Generator, bore_m: float, dropped: float) -> tuple[list[float], list[float]]:
    """Chord of a cylinder at a tilt φ: D / cos φ, a few rocks of uneven speed and width, noise of the gauge."""
    seconds, rate = rng.uniform(2.5, 5), 30
    times = np.arange(0, seconds, 1 / rate)
    speed, width, start = rng.uniform(0.4, 0.9), rng.uniform(0.018, 0.035), rng.uniform(0, 1)
    tilt = width * np.sin(2 * pi * (speed * times + start)) + rng.uniform(-0.003, 0.003)
    shown = bore_m / np.cos(tilt) - bore_m + rng.normal(0, 0.9e-6, len(times))
    shown = np.round(shown / 0.25e-6) * 0.25e-6
    kept = rng.random(len(times)) >= dropped
    return times[kept].tolist(), shown[kept].tolist()


def test_the_turning_point_is_within_the_stated_uncertainty() -> None:
    rng = np.random.default_rng(20261126)
    within, told, bias = 0, 0, []
    for _ in range(STREAMS):
        found = turning_point(*_stream(rng, rng.uniform(0.08, 0.16), rng.choice([0.0, 0.1, 0.25])))
        if found is None:
            continue
        told += 1
        bias.append(found.value_m)
        within += abs(found.value_m) <= STATED_M
    assert within >= 0.95 * STREAMS
    assert told >= 0.99 * STREAMS
    # Neither as low as the least value of the noise nor as high as the mean of the rock.
    assert abs(float(np.mean(bias))) < 0.5e-6


@given(height=st.floats(-1e-4, 1e-4), bend=st.floats(1e-4, 1e-2), at=st.floats(0.3, 0.7))
def test_a_parabola_gives_its_own_bottom(height: float, bend: float, at: float) -> None:
    times = np.linspace(0, 1, 61)
    values = height + bend * (times - at) ** 2
    rise = float(min(values[0], values[-1]) - height) / 3
    found = turning_point(times.tolist(), values.tolist(), rise)
    assert found is not None
    assert found.value_m == pytest.approx(height, abs=1e-9)
    assert found.spread_m == 0


def test_a_gauge_that_never_turned_gives_nothing() -> None:
    falling = [(1e-4 - 1e-6 * i) for i in range(80)]
    assert turning_point([i / 30 for i in range(80)], falling) is None
    assert turning_point([], []) is None
    assert turning_point([0, 1, 2], [5e-5, 0, 5e-5]) is None, "three points make no local fit"
    with pytest.raises(OutOfDomain, match="do not fit"):
        turning_point([0, 1], [0.0])


def test_several_rocks_give_their_median_and_spread() -> None:
    times = [i / 60 for i in range(300)]
    heights = (0.0, 2e-6, 1e-6, 9e-6, 1e-6)
    values = [heights[i // 60] + 3e-5 * (1 - cos(2 * pi * (i % 60 - 30) / 60)) for i in range(300)]
    found = turning_point(times, values)
    assert found is not None
    assert len(found.turning_points_m) == 5
    assert found.value_m == pytest.approx(1e-6, abs=0.3e-6)
    assert found.spread_m == pytest.approx(9e-6, abs=0.6e-6)


@given(st.lists(st.floats(-1e-3, 1e-3), min_size=1, max_size=8))
def test_of_rocks_read_by_eye_the_smallest_is_taken(rocks: list[float]) -> None:
    """Common practice, no published source: a gauge that stands askew reads large."""
    assert least_of_rocks(rocks) == min(rocks)
    assert least_of_rocks([*rocks, max(rocks) + sin(1)]) == min(rocks)


def test_no_rock_is_no_size() -> None:
    with pytest.raises(OutOfDomain, match="at least once"):
        least_of_rocks([])
