"""Temperatures: the soak timer against Newton's law solved by SciPy, materials by name."""

from datetime import UTC, datetime
from decimal import Decimal
from uuid import uuid4

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.temperatures import Material
from vallostasis.core.thermal.expansion import (
    SOAKED_WITHIN_K,
    Body,
    expansion_of,
    known_expansion,
    soak_from_readings,
    to_20c,
    warm_effect_m,
)


@given(tau=st.floats(300, 20_000), start=st.floats(30, 90), room=st.floats(5, 25))
def test_the_soak_timer_finds_when_newtons_law_comes_home(tau: float, start: float, room: float) -> None:
    """SciPy integrates dT/dt = −(T − room)/τ beside it, to the moment it is within half a kelvin."""
    within = lambda t, y: abs(y[0] - room) - SOAKED_WITHIN_K  # noqa: E731
    solved = solve_ivp(lambda t, y: -(y - room) / tau, (0, 12 * tau), [start], events=within, rtol=1e-9, atol=1e-9,
                       dense_output=True)  # fmt: skip
    home = float(solved.t_events[0][0])
    times = [0.0, home * 0.1, home * 0.25]
    soak = soak_from_readings(times, [float(solved.sol(t)[0]) for t in times], room)
    assert soak is not None
    assert soak.time_constant_s == pytest.approx(tau, rel=1e-4)
    assert soak.seconds_left == pytest.approx(home - times[-1], rel=1e-3)


def test_where_nothing_can_be_told_nothing_is() -> None:
    assert soak_from_readings([0], [40], 20) is None
    assert soak_from_readings([0, 60], [40, 45], 20) is None, "it warms away from the room"
    assert soak_from_readings([], [], 20) is None
    # Probes that stand still but for their last digit: no iron block takes longer than days (common practice).
    assert soak_from_readings([0, 600, 1200], [23.5, 23.5, 23.4999999], 21) is None
    assert soak_from_readings([0, 3600], [23.5, 23.4], 21) is not None
    done = soak_from_readings([0, 600], [22, 20.2], 20)
    assert done is not None
    assert done.seconds_left == 0
    with pytest.raises(OutOfDomain, match="do not fit"):
        soak_from_readings([0, 1], [20], 20)


def test_materials_are_found_by_the_words_of_the_card() -> None:
    assert expansion_of("grey iron") == expansion_of("centrifugally cast iron") == 10.5e-6
    assert expansion_of("aluminium") == expansion_of("Aluminum, sand cast") == expansion_of("light alloy")
    assert expansion_of("ductile iron") != expansion_of("grey iron")
    # A liner's alloy iron is iron, and a bearing's aluminium bronze is bronze (from memory: 16 to 18 millionths).
    assert expansion_of("centrifugally cast alloy iron") == expansion_of("alloyed cast iron") == 10.5e-6
    assert expansion_of("alloy steel") == 11.5e-6
    assert expansion_of("aluminium bronze") == 18.0e-6
    assert known_expansion("plasma coating") is None
    assert expansion_of("plasma coating") == 10.5e-6
    own = Material(uuid4(), "Grey iron", Decimal("0.0000112"), None, "a book", datetime.now(UTC), "Ines", 1)
    assert expansion_of("grey iron", (own,)) == pytest.approx(11.2e-6)
    assert expansion_of("white iron", (own,)) == 10.5e-6


@given(size=st.floats(0.01, 0.5), c=st.floats(-20, 80), alpha=st.floats(5e-6, 25e-6))
def test_the_warm_effect_is_what_20c_takes_off(size: float, c: float, alpha: float) -> None:
    effect = warm_effect_m(size, Body(c, alpha))
    at = to_20c(size * (1 + alpha * (c - 20)), 0.0, Body(20, 0), Body(c, alpha))
    assert at.size_m == pytest.approx(size, rel=1e-12)
    assert -at.correction_m == pytest.approx(effect, rel=1e-9, abs=1e-18)


def test_a_size_that_cannot_be_is_refused() -> None:
    with pytest.raises(OutOfDomain, match="finite"):
        to_20c(np.nan, 0.0, Body(20, 1e-5), Body(20, 1e-5))
    with pytest.raises(OutOfDomain, match="shrink to nothing"):
        to_20c(0.1, 0.0, Body(20, 1e-5), Body(-1e6, 1e-5))
