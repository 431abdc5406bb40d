"""A liner going in: sums that can be done by hand, and laws."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.insertion import Insertion, hand_depth, insert, profile_over, stiffens_at
from vallostasis.core.fits.thick_walled import Elastic, Rings, press_force, pressed

IRON = Elastic(110e9, 0.26)
RINGS = Rings(0.100, 0.104, 0.125, IRON, Elastic(105e9, 0.26))
LENGTH, N = 0.15, 60
EVEN = np.full(N + 1, 0.104)


def test_an_even_press_ends_at_the_force_of_one_ring_and_rises_straight() -> None:
    """μ·p·π·d·L at home, half of it half-way, half of that times the way as work. Closed form."""
    going = insert(RINGS, EVEN, EVEN - 25.4e-6, LENGTH, 0.12)
    home = float(press_force(pressed(RINGS, 25.4e-6).pressure_pa, 0.104, LENGTH, 0.12))
    assert float(going.greatest_n) == pytest.approx(home)
    assert going.force_n[N // 2] == pytest.approx(home / 2)
    assert float(going.work_j) == pytest.approx(home * LENGTH / 2)
    assert stiffens_at(going) == ()


def test_hands_stop_where_the_force_is_their_push() -> None:
    going = insert(RINGS, EVEN, EVEN - 25.4e-6, LENGTH, 0.12)
    home = float(going.greatest_n)
    assert float(hand_depth(going, home / 4)) == pytest.approx(LENGTH / 4)
    assert float(hand_depth(going, home * 2)) == pytest.approx(LENGTH), "a liner that drops in goes all the way"
    assert float(hand_depth(going, 0.0)) == 0.0


def test_the_foot_meets_the_top_of_the_hole_first() -> None:
    """A thick foot grips at once, a thick top only near home: the same metal, two ways in."""
    thick = np.linspace(0, 20e-6, N + 1)
    foot = insert(RINGS, 0.104 + thick, EVEN, LENGTH, 0.1)
    top = insert(RINGS, 0.104 + thick[::-1], EVEN, LENGTH, 0.1)
    assert foot.force_n[-1] == pytest.approx(top.force_n[-1], rel=1e-9)
    assert foot.force_n[N // 4] > 3 * top.force_n[N // 4]
    tight_top = EVEN - np.linspace(20e-6, 0, N + 1)
    assert (
        insert(RINGS, EVEN, tight_top, LENGTH, 0.1).force_n[5]
        > insert(RINGS, EVEN, tight_top[::-1], LENGTH, 0.1).force_n[5]
    )


def test_a_tapered_foot_touches_nothing() -> None:
    going = insert(RINGS, EVEN, EVEN - 20e-6, LENGTH, 0.1, lead_in_m=0.03)
    assert going.force_n[: N // 5].max() == 0.0
    whole = insert(RINGS, EVEN, EVEN - 20e-6, LENGTH, 0.1)
    assert going.force_n[-1] == pytest.approx(whole.force_n[-1] * 0.8, rel=0.02)


def test_where_it_stiffens_is_told() -> None:
    """A hole that is 20 µm tighter in its lower half."""
    bore = EVEN - np.where(np.arange(N + 1) < N // 2, 5e-6, 25e-6)
    going = insert(RINGS, EVEN, bore, LENGTH, 0.1)
    assert any(abs(at - LENGTH / 2) < LENGTH / 8 for at in stiffens_at(going))


@given(
    st.lists(st.floats(-20e-6, 40e-6), min_size=3, max_size=8),
    st.lists(st.floats(-20e-6, 40e-6), min_size=3, max_size=8),
    st.floats(0, 20e-6),
    st.floats(0.02, 0.3),
)
def test_more_press_or_friction_never_lowers_force_and_work_is_its_integral(
    liner: list[float], bore: list[float], more: float, friction: float
) -> None:
    def over(values: list[float]) -> np.ndarray:
        return profile_over(np.linspace(0.01, 0.14, len(values)).tolist(), 0.104 + np.array(values), LENGTH, N)

    one = insert(RINGS, over(liner), over(bore), LENGTH, friction)
    harder = insert(RINGS, over(liner) + more, over(bore), LENGTH, friction * 1.1)
    assert (harder.force_n >= one.force_n - 1e-9).all()
    assert float(one.work_j) == pytest.approx(float(np.trapezoid(one.force_n, one.depths_m)))
    assert float(hand_depth(harder, 250.0)) <= float(hand_depth(one, 250.0)) + 1e-12


def test_profiles_are_straight_between_levels_and_go_on_beyond_them() -> None:
    found = profile_over([0.02, 0.10], np.array([1.0, 2.0]), 0.12, 12)
    assert found[0] == found[2] == 1.0
    assert found[6] == pytest.approx(1.5)
    assert found[12] == 2.0
    assert (profile_over([0.05], np.array([3.0]), 0.12, 4) == 3.0).all()


def test_profiles_of_different_steps_are_refused() -> None:
    with pytest.raises(OutOfDomain):
        insert(RINGS, EVEN, EVEN[:-1], LENGTH, 0.1)


def test_a_band_of_draws_is_the_draws_one_by_one() -> None:
    rng = np.random.default_rng(1)
    liner, bore = 0.104 + rng.normal(0, 5e-6, (5, N + 1)), 0.104 - rng.uniform(0, 20e-6, (5, N + 1))
    friction = rng.uniform(0.05, 0.2, 5)
    together = insert(RINGS, liner, bore, LENGTH, friction)
    pushes = rng.uniform(100, 400, 5)
    for at in range(5):
        alone = insert(RINGS, liner[at], bore[at], LENGTH, float(friction[at]))
        assert together.force_n[at] == pytest.approx(alone.force_n)
        one = Insertion(together.depths_m, together.force_n[at])
        assert float(hand_depth(together, pushes)[at]) == pytest.approx(float(hand_depth(one, pushes[at])))
