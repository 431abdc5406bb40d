"""What the depths of a ledge say, against drawn readings and plain arithmetic."""

from math import cos, radians

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.facts import Story
from vallostasis.core.counterbore.ledge_report import LedgeReport, ledge_left, report_ledge
from vallostasis.core.measuring.clock import angle_of_hour
from vallostasis.core.measuring.values import trust_of_set
from vallostasis.core.protrusion.plane import fit_plane
from vallostasis.core.records import Quantity

EIGHT = (12.0, 1.5, 3.0, 4.5, 6.0, 7.5, 9.0, 10.5)


def _report(*depths_um: float, hours: tuple[float, ...] = (12.0, 3.0, 6.0, 9.0)) -> LedgeReport | None:
    story = Story()
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, depths_um, hours=hours)
    return report_ledge(story.facts(), story.hole_rows[0])


def test_a_tilted_ledge_is_out_of_square_by_its_high_to_low() -> None:
    report = _report(8800, 8810, 8820, 8810)
    assert report is not None
    assert report.squareness_m == pytest.approx(20e-6)
    assert report.deepest_hour == pytest.approx(6)
    assert report.worn_hours == ()


@given(worn=st.integers(0, 7), depth_um=st.integers(25, 200))
def test_a_spot_worn_deeper_than_the_plane_is_named(worn: int, depth_um: int) -> None:
    depths = [8800.0] * 8
    depths[worn] += depth_um
    report = _report(*depths, hours=EIGHT)
    assert report is not None
    assert EIGHT[worn] in report.worn_hours


@given(tilt=st.floats(0, 200), towards=st.sampled_from(EIGHT))
def test_tilt_alone_is_never_called_worn(tilt: float, towards: float) -> None:
    turned = [radians(angle_of_hour(hour) - angle_of_hour(towards)) for hour in EIGHT]
    report = _report(*(round(8800 + tilt / 2 * cos(angle), 3) for angle in turned), hours=EIGHT)
    assert report is not None
    assert report.worn_hours == ()
    # Depths are told to the nanometre.
    assert report.squareness_m == pytest.approx(tilt * 1e-6, abs=2e-9)


def test_two_positions_leave_squareness_open() -> None:
    assert _report(8800, 8820, hours=(12.0, 6.0)) is None
    assert report_ledge(Story().facts(), Story().hole_rows[0]) is None


def test_uncertainty_of_squareness_is_that_of_drawn_readings() -> None:
    story = Story()
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8800.0,) * 8, hours=EIGHT)
    facts = story.facts()
    report = report_ledge(facts, story.hole_rows[0])
    assert report is not None
    u = trust_of_set(facts, facts.sets[0]).random_m
    rng = np.random.default_rng(3)
    angles = [angle_of_hour(hour) for hour in EIGHT]
    tilted = 100e-6 * np.cos(np.radians(angles))
    drawn = [fit_plane(angles, tilted + rng.normal(0, u, 8)).high_to_low_m for _ in range(4000)]
    # Standard deviation of 4000 draws is uncertain to 1/√8000 = 1.1 %; five times that.
    assert report.squareness_expanded_m == pytest.approx(2 * np.std(drawn), rel=0.056)


def test_what_is_left_is_counted_at_the_deepest_reading() -> None:
    # The demo's card: 6.0 mm of ledge at 8.815 mm; at 8.872 mm there are 57 µm less.
    report = _report(8848, 8858, 8872, 8858)
    assert report is not None
    assert report.left is not None
    assert report.left.size_m == pytest.approx(6.0e-3 - 57e-6)
    left = ledge_left(Story().card, 8.815e-3, 0.0)
    assert left is not None
    assert left.size_m == pytest.approx(6.0e-3)
