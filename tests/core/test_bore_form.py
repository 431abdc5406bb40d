"""Form of a bore from its diameters: by hand on small tables, and laws that hold for every table."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra import numpy as arrays

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.bore_form import bore_form

AXES = (0.0, 45.0, 90.0, 135.0)
tables = arrays.arrays(np.float64, st.tuples(st.integers(3, 7), st.just(4)), elements=st.floats(0.0999, 0.1001))


def _depths(levels: int) -> list[float]:
    return [0.02 + 0.04 * level for level in range(levels)]


def test_a_barrel_by_hand() -> None:
    um = np.array([[2, 4], [9, 10], [14, 15], [10, 8], [3, 2]], dtype=float)
    form = bore_form(0.104 + um * 1e-6, (0, 90), _depths(5))
    assert [level.out_of_round_m for level in form.levels] == pytest.approx([2e-6, 1e-6, 1e-6, 2e-6, 1e-6], abs=1e-12)
    assert form.worst_out_of_round_m == pytest.approx(2e-6, abs=1e-12)
    assert form.taper_per_axis_m == pytest.approx((-1e-6, 2e-6), abs=1e-12)
    assert form.taper_of_mean_m == pytest.approx(0.5e-6, abs=1e-12)
    # 14.5 - (3 + 2.5) / 2
    assert form.barrel_m == pytest.approx(11.75e-6, abs=1e-12)
    assert form.bell_top_m == pytest.approx(-6.5e-6, abs=1e-12)
    assert (form.greatest_m, form.least_m) == pytest.approx((0.104015, 0.104002), abs=1e-12)


@given(table=tables, by=st.floats(-5e-5, 5e-5))
def test_a_larger_bore_has_the_same_form(table: np.ndarray, by: float) -> None:
    depths = _depths(len(table))
    form, moved = bore_form(table, AXES, depths), bore_form(table + by, AXES, depths)
    assert moved.mean_m - form.mean_m == pytest.approx(by, abs=1e-12)
    for name in ("worst_out_of_round_m", "taper_of_mean_m", "fitted_taper_m", "barrel_m", "bell_top_m"):
        assert getattr(moved, name) == pytest.approx(getattr(form, name), abs=1e-11)


@given(table=tables)
def test_upside_down_the_taper_changes_its_sign_and_nothing_else(table: np.ndarray) -> None:
    depths = _depths(len(table))
    form, turned = bore_form(table, AXES, depths), bore_form(table[::-1], AXES, depths)
    assert turned.taper_of_mean_m == pytest.approx(-(form.taper_of_mean_m or 0.0), abs=1e-12)
    assert turned.fitted_taper_m == pytest.approx(-(form.fitted_taper_m or 0.0), abs=1e-11)
    assert turned.barrel_m == pytest.approx(form.barrel_m, abs=1e-12)
    assert turned.bell_top_m == pytest.approx(form.bell_bottom_m, abs=1e-12)
    assert turned.worst_out_of_round_m == form.worst_out_of_round_m


@given(table=tables, slope=st.floats(-1e-3, 1e-3))
def test_a_cone_is_found_as_its_fall_from_top_to_bottom(table: np.ndarray, slope: float) -> None:
    depths = np.array(_depths(len(table)))
    cone = 0.1 - slope * (depths - depths[0])[:, None] * np.ones(4)
    form = bore_form(cone, AXES, depths.tolist())
    fall = slope * (depths[-1] - depths[0])
    assert form.fitted_taper_m == pytest.approx(fall, abs=1e-12)
    assert form.taper_of_mean_m == pytest.approx(fall, abs=1e-12)


def test_what_was_not_read_leaves_a_gap_and_no_number() -> None:
    table = np.full((3, 3), np.nan)
    table[0, 0] = 0.1
    form = bore_form(table, (0, 60, 120), _depths(3))
    assert form.mean_m == 0.1
    assert form.levels[0].out_of_round_m is None
    assert form.levels[1].mean_m is None
    assert (form.taper_of_mean_m, form.fitted_taper_m, form.barrel_m) == (None, None, None)
    table[0, 1:] = 0.1001, 0.1
    assert bore_form(table, (0, 60, 120), _depths(3)).levels[0].ellipse is not None


@pytest.mark.parametrize(
    ("table", "depths", "why"),
    [
        ([[np.nan, np.nan]], [0.01], "nothing was read"),
        ([[0.1, -0.1]], [0.01], "above zero"),
        ([[0.1, np.inf]], [0.01], "above zero"),
        ([[0.1, 0.1], [0.1, 0.1]], [0.02, 0.01], "from the top downwards"),
        ([[0.1, 0.1]], [0.01, 0.02], "a table of"),
    ],
)
def test_a_table_that_is_none_is_refused(table: list[list[float]], depths: list[float], why: str) -> None:
    with pytest.raises(OutOfDomain, match=why):
        bore_form(np.array(table), (0, 90), depths)
