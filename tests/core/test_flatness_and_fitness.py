"""Flatness beside SciPy's least squares; which gauge is fit for what: common practice, no published source."""

from dataclasses import replace
from datetime import date
from decimal import Decimal
from uuid import uuid4

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import least_squares

from tests.core.card import twin_card
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.shapes.flatness import flatness_of_grid
from vallostasis.core.surveys.fitness import decisions_of, fit_for, gauges_for, what_would_settle
from vallostasis.core.uncertainty.budget import Source, estimate, stated
from vallostasis.core.uncertainty.decision import Capability, RuleKind, judge

TODAY = date(2026, 11, 26)
heights = st.lists(st.floats(-1e-4, 1e-4), min_size=9, max_size=9)
ALONG = [x for _ in range(3) for x in (0.0, 0.15, 0.3)]
ACROSS = [y for y in (-0.08, 0.0, 0.08) for _ in range(3)]


@given(heights)
def test_flatness_is_the_range_about_the_least_squares_plane(z: list[float]) -> None:
    fit = least_squares(lambda p: p[0] + p[1] * np.array(ALONG) + p[2] * np.array(ACROSS) - z, (0, 0, 0), xtol=1e-15,
                        ftol=1e-15, gtol=1e-15)  # fmt: skip
    assert flatness_of_grid(ALONG, ACROSS, z).flatness_m == pytest.approx(float(np.ptp(fit.fun)), abs=1e-11)


@given(heights, st.floats(-1e-3, 1e-3), st.floats(-1e-3, 1e-3), st.floats(-1e-3, 1e-3))
def test_a_block_that_stands_askew_is_as_flat_as_before(z: list[float], up: float, dx: float, dy: float) -> None:
    tilted = [one + up + dx * x + dy * y for one, x, y in zip(z, ALONG, ACROSS, strict=True)]
    one, other = flatness_of_grid(ALONG, ACROSS, z), flatness_of_grid(ALONG, ACROSS, tilted)
    assert other.flatness_m == pytest.approx(one.flatness_m, abs=1e-11)
    assert other.fall_along - one.fall_along == pytest.approx(dx, abs=1e-10)


def test_too_few_points_are_no_face() -> None:
    with pytest.raises(OutOfDomain, match="always flat"):
        flatness_of_grid([0, 1, 2], [0, 1, 0], [0, 0, 0])
    with pytest.raises(OutOfDomain, match="one line"):
        flatness_of_grid([0, 1, 2, 3], [0, 0, 0, 0], [0, 0, 0, 0])
    with pytest.raises(OutOfDomain, match="every point"):
        flatness_of_grid([0, 1], [0], [0])


CARD = twin_card()
FINE = GaugeVersion(uuid4(), uuid4(), "Fine", "bore gauge", 1, Decimal(1), Decimal("0.5"), "", "")


def _fit(name: str, gauge: GaugeVersion) -> Capability | None:
    asked = next(one for one in decisions_of(CARD) if one.name == name)
    found = fit_for(asked, gauge, 2.0, TODAY)
    return None if found is None else found.capability


def test_a_thou_instrument_on_a_two_thou_window_is_the_wrong_tool() -> None:
    """The bore's window is 2 thou; a division of a thou alone makes ±0.8 thou: beyond a quarter of it."""
    coarse = replace(FINE, resolution_um=Decimal("25.4"), repeatability_um=Decimal(8))
    assert _fit("block bore", coarse) is Capability.WRONG_TOOL
    assert _fit("block bore", FINE) is Capability.GOOD
    assert _fit("block bore", replace(FINE, repeatability_um=Decimal(3))) is Capability.MARGINAL


def test_a_gauge_is_asked_only_what_it_is_made_for() -> None:
    assert _fit("liner outside", FINE) is None
    assert _fit("block bore", replace(FINE, kind="micrometer")) is None
    assert _fit("block bore", replace(FINE, kind="something else")) is Capability.GOOD
    short = replace(FINE, range_from_um=Decimal(10_000), range_to_um=Decimal(60_000))
    assert _fit("block bore", short) is None
    assert _fit("main bore", replace(short, range_to_um=Decimal(70_000))) is Capability.GOOD


def test_the_gauges_made_for_a_feature_come_finest_first() -> None:
    dull = replace(FINE, name="Dull", repeatability_um=Decimal(9))
    sled = replace(FINE, name="Sled", kind="depth gauge")
    short = replace(FINE, name="Short", range_from_um=Decimal(10_000), range_to_um=Decimal(60_000))
    cabinet = (dull, sled, short, FINE)
    assert [one.name for one in gauges_for(CARD, Quantity.BLOCK_BORE, cabinet)] == ["Fine", "Dull"]
    assert [one.name for one in gauges_for(CARD, Quantity.DECK_FLATNESS, cabinet)] == ["Sled"]


def test_what_speaks_against_a_gauge_is_said_with_its_fitness() -> None:
    asked = next(one for one in decisions_of(CARD) if one.name == "block bore")
    worn = replace(FINE, due_on=date(2020, 1, 1), faults="worn flat")
    found = fit_for(asked, worn, 2.0, TODAY)
    assert found is not None
    assert found.against == "overdue for calibration; worn flat"


def _rule(value_m: float, kind: RuleKind = RuleKind.READING, readings: int = 1):
    sources = (Source("own", 2e-6, error="own"), Source("zero", 0.2e-6, shared=True, error="zero"))
    value = stated("bore", estimate(value_m, sources))
    return judge(kind, "top, 0°", value, (0.126975, 0.127025), Acceptance.GUARDED, Quantity.BLOCK_BORE, readings)


def test_what_would_settle_an_undecided_rule() -> None:
    cabinet = (FINE, replace(FINE, name="Dull", repeatability_um=Decimal(9)))
    (settling,) = what_would_settle((_rule(0.127022),), Quantity.BLOCK_BORE, cabinet, 2.0)
    # 3 µm from the limit: 2·√(4/n + 0.04) < 3 from n = 2 on (GUM 4.2.3); of the gauges only one reads within 3 µm.
    assert settling.readings == 2
    assert settling.gauges == ("Fine",)
    assert what_would_settle((_rule(0.127),), Quantity.BLOCK_BORE, (), 2.0) == ()
    (own,) = what_would_settle((_rule(0.127022, readings=2),), Quantity.BLOCK_BORE, cabinet, 2.0)
    # Two stand already and give ±4: 2·√(4·2/n + 0.04) < 3 from n = 4 on.
    assert own.readings == 4
