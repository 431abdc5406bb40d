"""Centring, passes, time, cross-hatch, clearances, volumes: each against arithmetic or geometry worked another way."""

from decimal import Decimal
from math import atan2, cos, degrees, hypot, pi, radians, sin, sqrt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.boring.centring import centring_of, offset_of_bar
from vallostasis.core.boring.clearances import CUBIC_INCH_M3, Warm, clearance_of, finish_size, swept_volume_m3
from vallostasis.core.boring.hatch import cycles_for, hatch_of
from vallostasis.core.boring.passes import pass_time_s, plan_passes
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.uncertainty.budget import exactly

BORE_M, BAR_M = 0.050, 0.030


def _gap(x: float, y: float, angle_deg: float) -> float:
    """Gap along a ray from the bar's middle to a round bore: the quadratic of a circle, solved."""
    c, s = cos(radians(angle_deg)), sin(radians(angle_deg))
    along = x * c + y * s
    return -along + sqrt(along**2 - (x * x + y * y) + BORE_M**2) - BAR_M


@given(st.floats(-1e-3, 1e-3), st.floats(-1e-3, 1e-3))
def test_four_gaps_of_a_round_hole_say_where_the_bar_stands(x: float, y: float) -> None:
    gaps = [_gap(x, y, angle) for angle in (0, 90, 180, 270)]
    found_x, found_y, move, uneven = offset_of_bar(gaps)
    # Exact along each axis: both roots of a ray and its back sum to twice the way along it.
    assert found_x == pytest.approx(x, abs=1e-9)
    assert found_y == pytest.approx(y, abs=1e-9)
    if hypot(x, y) > 1e-6:
        apart = (move - degrees(atan2(-y, -x))) % 360
        assert min(apart, 360 - apart) == pytest.approx(0, abs=0.01)
    assert abs(uneven) < 25e-6


def test_gaps_carry_the_plus_minus_of_their_blades() -> None:
    gaps = [exactly(one, 10e-6, f"blade {at}") for at, one in enumerate((0.01994, 0.020025, 0.02006, 0.019975))]
    found = centring_of(gaps, 2.0)
    assert (found.x.value_m, found.y.value_m) == (pytest.approx(60e-6), pytest.approx(-25e-6))
    # Half of each of two blades: 10/√2 µm, twice.
    assert found.x.expanded_m == pytest.approx(2 * 10e-6 / sqrt(2))
    assert found.offset.value_m == pytest.approx(65e-6)
    assert found.move_deg == pytest.approx(degrees(atan2(25, -60)) % 360)
    assert found.is_round_enough
    oval = centring_of([exactly(one, 2e-6, f"b{at}") for at, one in enumerate((0.02, 0.0203, 0.02, 0.0203))], 2.0)
    assert not oval.is_round_enough
    assert oval.move_deg is None, "it may stand in the middle"
    for wrong in ([0.1, 0.1, 0.1], [0.1, -0.1, 0.1, 0.1]):
        with pytest.raises(OutOfDomain):
            offset_of_bar(wrong)


def test_a_sleeve_is_bored_in_seven_equal_cuts_and_a_last_one() -> None:
    """By hand: 4.724 to go, 0.120 last; 4.604 in cuts of at most 2 · 0.38 on the diameter is 6.06, so seven."""
    plan = plan_passes(Decimal(101_600), Decimal(106_324), Decimal(380), Decimal(120))
    assert (plan.rough, plan.total, plan.to_go_um) == (7, 8, Decimal(4724))
    assert plan.equal_um == Decimal(4604) / 7
    # Whatever is rounded, the dials add up to half of what is to go.
    assert sum(plan.dials_um) == pytest.approx(Decimal(2362))


def test_what_the_last_cut_takes_alone_is_one_pass() -> None:
    plan = plan_passes(Decimal(100_000), Decimal(100_080), Decimal(250), Decimal(100))
    assert (plan.rough, plan.total, plan.finish_um, plan.dials_um) == (0, 1, Decimal(80), (Decimal(40),))
    done = plan_passes(Decimal(5), Decimal(5), Decimal(250), Decimal(100))
    assert (done.total, done.dials_um) == (0, ())


@given(st.integers(1, 8_000), st.integers(10, 500), st.integers(0, 200))
def test_no_cut_is_deeper_than_allowed_and_all_add_up(to_go: int, deepest: int, last: int) -> None:
    plan = plan_passes(Decimal(100_000), Decimal(100_000 + to_go), Decimal(deepest), Decimal(last))
    assert float(2 * sum(plan.dials_um)) == pytest.approx(to_go)
    assert all(dial <= Decimal(deepest) for dial in plan.dials_um[:-1])
    # One pass fewer would not do.
    if plan.rough > 1:
        assert (to_go - last) / (plan.rough - 1) > 2 * deepest


@pytest.mark.parametrize(
    ("change", "field"),
    [({"finish": 99_000}, "finish_diameter_m"), ({"deepest": 0}, "max_depth_of_cut_on_radius_m"),
     ({"last": -1}, "finish_pass_on_diameter_m")],
)  # fmt: skip
def test_what_cannot_be_bored_is_refused_at_its_field(change: dict[str, int], field: str) -> None:
    asked = {"start": 100_000, "finish": 100_500, "deepest": 200, "last": 50, **change}
    with pytest.raises(OutOfDomain) as refused:
        plan_passes(*(Decimal(one) for one in asked.values()))
    assert refused.value.quantity == field


def test_a_pass_lasts_its_turns() -> None:
    """192 mm at 0.08 mm a turn are 2,400 turns; at 350 a minute 411.4 s."""
    assert pass_time_s(0.180, 0.012, 80e-6, 350) == pytest.approx(2400 / 350 * 60)
    with pytest.raises(OutOfDomain):
        pass_time_s(0.18, 0.012, 0.0, 350)


def test_the_hatch_is_the_angle_of_the_path_of_a_stone() -> None:
    """Drawn: the point of a stone unrolled, its slope against the circumference, both ways."""
    bore, rpm, stroke, cycles = 0.1016, 155.0, 0.1524, 45.0
    t = np.linspace(0, 60 / cycles / 2, 50)
    round_m, along_m = pi * bore * rpm / 60 * t, stroke * t / t[-1]
    slope = degrees(atan2(along_m[-1] - along_m[0], round_m[-1] - round_m[0]))
    now = hatch_of(bore, rpm, stroke, cycles)
    assert now.included_deg == pytest.approx(2 * slope)
    # A crank at mid stroke is π/2 as fast as its mean.
    assert now.middle_deg == pytest.approx(2 * degrees(atan2(pi / 2 * along_m[-1], round_m[-1])))
    assert hatch_of(bore, rpm, stroke, now.for_45).included_deg == pytest.approx(45.0)
    assert cycles_for(now.included_deg, bore, rpm, stroke) == pytest.approx(cycles)
    with pytest.raises(OutOfDomain):
        hatch_of(bore, 0.0, stroke, cycles)


def test_a_clearance_is_told_at_20_degrees_and_as_it_runs() -> None:
    """By hand: bore 100 mm at 110 °C grows 0.099, piston 99.95 at 95 °C grows 0.14243: 0.050 becomes 0.0066."""
    bore, piston = Warm(0.100, 20.0, 11e-6), Warm(0.09995, 20.0, 19e-6)
    assert clearance_of(bore, piston) == pytest.approx(50e-6)
    assert clearance_of(bore, piston, 110.0, 95.0) == pytest.approx(50e-6 + 99e-6 - 142.42875e-6)
    # Read warm, both are first brought to 20 °C.
    warm = Warm(0.100 * (1 + 11e-6 * 6), 26.0, 11e-6)
    assert clearance_of(warm, piston) == pytest.approx(50e-6)
    assert clearance_of(bore, piston, 20.0, 250.0) < 0
    with pytest.raises(OutOfDomain):
        clearance_of(Warm(0.0, 20.0, 11e-6), piston)


def test_the_finished_size_follows_the_piston_and_the_warmth_of_the_block() -> None:
    """Trap of the trade: 10 K on 100 mm of iron read 0.43 thou large."""
    cold, warm = finish_size(Warm(0.09995, 20.0, 19e-6), 50e-6, 11e-6, 30.0)
    assert cold == pytest.approx(0.100)
    assert (warm - cold) / 25.4e-6 == pytest.approx(0.433, abs=0.001)


def test_litres_and_cubic_inches_are_one_number() -> None:
    """Handbook: 4.000 bore by 3.480 stroke, eight cylinders, are 349.85 cubic inches."""
    volume = swept_volume_m3(8, 4.0 * 0.0254, 3.48 * 0.0254)
    assert volume / CUBIC_INCH_M3 == pytest.approx(349.85, abs=0.01)
    assert volume * 1e6 == pytest.approx(349.85 * 16.387064, rel=1e-4)
