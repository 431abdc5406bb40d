"""Three-way decisions, against the rule of ISO 14253-1 and SciPy's normal distribution."""

from math import hypot, sqrt

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.stats import norm

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.uncertainty.budget import Source, estimate, stated
from vallostasis.core.uncertainty.decision import (
    Capability,
    State,
    chance_inside,
    decide,
    gauge_capability,
    repeats_to_settle,
)

UM = 1e-6
lengths = st.integers(-300, 300)


# ISO 14253-1: conformity is proven inside the limits reduced by U, nonconformity outside them enlarged by U.
@pytest.mark.parametrize(
    ("value", "state"),
    [(44.9, State.OUT), (45.1, State.CANNOT_TELL), (50, State.CANNOT_TELL), (54.9, State.CANNOT_TELL),
     (55, State.IN), (90, State.IN), (120, State.IN), (120.1, State.CANNOT_TELL), (130.1, State.OUT)],
)  # fmt: skip
def test_zones_of_a_window_of_50_to_125_with_u_5(value: float, state: State) -> None:
    assert decide(value * UM, 5 * UM, 50 * UM, 125 * UM).state is state


@given(value=lengths, expanded=st.integers(0, 40), least=lengths, width=st.integers(0, 200))
def test_in_and_out_are_proofs(value: int, expanded: int, least: int, width: int) -> None:
    """Whatever the true value within ±U, a proven answer holds for it."""
    state = decide(value * UM, expanded * UM, least * UM, (least + width) * UM).state
    inside = [least <= true <= least + width for true in (value - expanded, value + expanded)]
    if state is State.IN:
        assert all(inside)
    if state is State.OUT:
        assert value + expanded < least or value - expanded > least + width
    if state is State.CANNOT_TELL:
        assert not all(inside)


@given(value=lengths, expanded=st.integers(0, 40), least=lengths, width=st.integers(0, 200))
def test_a_finer_gauge_never_takes_a_proof_back(value: int, expanded: int, least: int, width: int) -> None:
    limits = least * UM, (least + width) * UM
    coarse = decide(value * UM, (expanded + 3) * UM, *limits).state
    if coarse is not State.CANNOT_TELL:
        assert decide(value * UM, expanded * UM, *limits).state is coarse


@given(value=lengths, expanded=st.integers(0, 40), least=lengths)
def test_upper_and_lower_limit_mirror_each_other(value: int, expanded: int, least: int) -> None:
    below = decide(value * UM, expanded * UM, least * UM, None).state
    above = decide(-value * UM, expanded * UM, None, -least * UM).state
    assert below is above


def test_simple_acceptance_answers_but_keeps_saying_what_is_proven() -> None:
    decision = decide(52 * UM, 5 * UM, 50 * UM, 125 * UM, Acceptance.SIMPLE)
    assert decision.state is State.IN
    assert decision.guarded is State.CANNOT_TELL


@given(value=st.floats(-200, 200), sigma=st.floats(0.1, 100), least=st.floats(-200, 200), width=st.floats(0, 200))
def test_chance_agrees_with_scipy(value: float, sigma: float, least: float, width: float) -> None:
    expected = norm.cdf(least + width, value, sigma) - norm.cdf(least, value, sigma)
    assert chance_inside(value * UM, sigma * UM, least * UM, (least + width) * UM) == pytest.approx(expected, abs=1e-9)


@given(distance=st.floats(0.1, 30), random=st.floats(0.1, 10), zero=st.floats(0, 5))
def test_the_proposed_number_of_readings_is_the_smallest_that_settles(
    distance: float, random: float, zero: float
) -> None:
    settles = lambda n: distance > 2 * hypot(random / sqrt(n), zero)  # noqa: E731
    own = Source("own", random * UM, error="own")
    shared = Source("zero", zero * UM, shared=True, error="zero")
    n = repeats_to_settle(stated("one", estimate(distance * UM, (own, shared))), 0.0)
    if n is None:
        assert not settles(20)
    else:
        assume(abs(distance - 2 * hypot(random / sqrt(n), zero)) > 1e-9)
        assert settles(n)
        assert n == 2 or not settles(n - 1)


def test_readings_that_stand_already_count() -> None:
    """Three stand and give 4 µm (GUM 4.2.3): 2.5 µm away from a limit eight in all settle it, not eight more."""
    mean = stated("mean of 3", estimate(2.5e-6, (Source("own", 2e-6, error="own"),)))
    assert repeats_to_settle(mean, 0.0, have=3) == 8


# Common practice, no published source: ±1 thou on a window of 3 is the wrong tool.
@pytest.mark.parametrize(
    ("expanded", "capability"), [(0.3, Capability.GOOD), (0.7, Capability.MARGINAL), (1.0, Capability.WRONG_TOOL)]
)
def test_gauge_against_a_window_of_three_thou(expanded: float, capability: Capability) -> None:
    assert gauge_capability(expanded * 25.4 * UM, 0, 3 * 25.4 * UM) is capability


def test_impossible_questions_are_refused() -> None:
    with pytest.raises(OutOfDomain, match="least limit"):
        decide(0.0, 0.0, 2 * UM, 1 * UM)
    with pytest.raises(OutOfDomain, match="negative"):
        decide(0.0, -1.0, None, None)
    with pytest.raises(OutOfDomain, match="window"):
        gauge_capability(1 * UM, 5 * UM, 5 * UM)
