"""What the depths of a ledge say, against drawn readings and plain arithmetic."""

from math import cos, radians

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.facts import Story
from vallostasis.core.counterbore.ledge_report import LedgeReport, ledge_left, report_ledge
from vallostasis.core.records.rows import Quantity
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.shapes.plane import fit_plane
from vallostasis.core.uncertainty.budget import Budget, Stated

EIGHT = (12.0, 1.5, 3.0, 4.5, 6.0, 7.5, 9.0, 10.5)


def _report(*depths_um: float, hours: tuple[float, ...] = (12.0, 3.0, 6.0, 9.0)) -> LedgeReport | None:
    story = Story()
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, depths_um, hours=hours)
    return report_ledge(story.facts(), story.hole_rows[0])


def test_a_tilted_ledge_is_out_of_square_by_its_high_to_low() -> None:
    report = _report(8800, 8810, 8820, 8810)
    assert report is not None
    assert report.squareness.value_m == pytest.approx(20e-6)
    assert report.deepest_hour == pytest.approx(6)
    assert report.worn_hours == ()


@given(worn=st.integers(0, 7), depth_um=st.integers(25, 200))
def test_a_spot_worn_deeper_than_the_plane_is_named(worn: int, depth_um: int) -> None:
    depths = [8800.0] * 8
    depths[worn] += depth_um
    report = _report(*depths, hours=EIGHT)
    assert report is not None
    assert report.worn_hours == (EIGHT[worn],), "and not its neighbours or its opposite"
    assert report.proud_hours == ()
    assert not report.uneven


@given(tilt=st.floats(0, 200), towards=st.sampled_from(EIGHT))
def test_tilt_alone_is_never_called_worn(tilt: float, towards: float) -> None:
    turned = [radians(angle_of_hour(hour) - angle_of_hour(towards)) for hour in EIGHT]
    report = _report(*(round(8800 + tilt / 2 * cos(angle), 3) for angle in turned), hours=EIGHT)
    assert report is not None
    assert report.worn_hours == ()
    # Depths are told to the nanometre.
    assert report.squareness.value_m == pytest.approx(tilt * 1e-6, abs=2e-9)


def test_two_positions_leave_squareness_open() -> None:
    assert _report(8800, 8820, hours=(12.0, 6.0)) is None
    assert report_ledge(Story().facts(), Story().hole_rows[0]) is None


@given(burr=st.integers(0, 7), height_um=st.integers(30, 200))
def test_a_burr_is_named_and_wears_nobody(burr: int, height_um: int) -> None:
    depths = [8800.0] * 8
    depths[burr] -= height_um
    report = _report(*depths, hours=EIGHT)
    assert report is not None
    assert report.proud_hours == (EIGHT[burr],)
    assert report.worn_hours == ()


@pytest.mark.parametrize("deep", range(4))
def test_four_positions_cannot_tell_a_worn_spot_from_a_saddle(deep: int) -> None:
    """Four readings less three of a plane leave one number: a spot of 40 and a saddle of 10 look alike."""
    depths = [8800.0] * 4
    depths[deep] += 40
    report = _report(*depths)
    assert report is not None
    assert report.worn_hours == ()
    assert report.uneven
    assert "cannot tell one worn spot from a saddle" in report.says
    flat = _report(8800, 8801, 8800, 8799)
    assert flat is not None
    assert flat.says == ""


def test_two_worn_spots_are_found_one_after_the_other() -> None:
    depths = [8800.0, 8900.0, 8800.0, 8800.0, 8850.0, 8800.0, 8800.0, 8800.0]
    report = _report(*depths, hours=EIGHT)
    assert report is not None
    assert set(report.worn_hours) == {EIGHT[1], EIGHT[4]}


def test_squareness_covers_what_is_drawn_far_from_square_and_near_it() -> None:
    story = Story()
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8800.0,) * 8, hours=EIGHT)
    report = report_ledge(story.facts(), story.hole_rows[0])
    assert report is not None
    # Graduation 2, repeatability 2.5 µm: the zero cancels (GUM F.2.2.1, 4.3.7).
    u = np.hypot(2e-6 / 12**0.5, 2.5e-6)
    rng = np.random.default_rng(3)
    angles = [angle_of_hour(hour) for hour in EIGHT]
    for tilt, least, greatest in ((100e-6, 0.95, 1.0), (0.0, 0.94, 0.97)):
        truth = tilt * np.cos(np.radians(angles))
        drawn = np.array([fit_plane(angles, truth + rng.normal(0, u, 8)).high_to_low_m for _ in range(4000)])
        share = float(np.mean(np.abs(drawn - 2 * tilt) <= report.squareness.expanded_m))
        assert least <= share <= greatest
    # Mean of a Rayleigh distribution: √(π/2) of the standard deviation of one direction.
    assert report.squareness.budget.bias_m == pytest.approx(2 * np.sqrt(np.pi / 2) * u * np.sqrt(2 / 8), rel=1e-6)


def test_what_is_left_is_counted_at_the_deepest_reading() -> None:
    # The card: 6.0 mm of ledge at 8.815 mm; at 8.872 mm there are 57 µm less.
    report = _report(8848, 8858, 8872, 8858)
    assert report is not None
    assert report.left is not None
    assert report.left.value_m == pytest.approx(6.0e-3 - 57e-6)
    left = ledge_left(Story().card, Stated(8.815e-3, Budget("depth", (), 0.0, 2.0, 0.0)), "left")
    assert left is not None
    assert left.value_m == pytest.approx(6.0e-3)
