"""Sums of a conversion by themselves: seal, rod, bent liner, fire ring, stud."""

from math import pi, sqrt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import integrate, optimize

from vallostasis.core.conversions.bent_liner import Tube, bent_by, shear_coefficient
from vallostasis.core.conversions.fire_ring import (
    SETTLES_M,
    STUD_MODULUS_PA,
    RingStack,
    Stud,
    crush_of_ring,
    stud_pull,
)
from vallostasis.core.conversions.rod_sweep import Rod, reach_of_rod, relief_of_foot
from vallostasis.core.conversions.seal_gland import Gland, sealing_of, thinning
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.thick_walled import Elastic
from vallostasis.core.records.conversion_terms import GrooveIn
from vallostasis.core.uncertainty.budget import exactly

LINER_GROOVE = Gland(GrooveIn.LINER, 0.1200, 0.1199, 0.1124, 0.0070, 0.1097, 0.00533)
BLOCK_GROOVE = Gland(GrooveIn.BLOCK, 0.1200, 0.1199, 0.1280, 0.0070, 0.1185, 0.00533)


def _volume(inside: float, section: float) -> float:
    """Volume of a torus by turning its circle, ring by ring: an integral, not the formula."""
    radius, middle = section / 2, (inside + section) / 2
    return float(integrate.quad(lambda x: 2 * pi * (middle + x) * 2 * sqrt(max(0.0, radius**2 - x**2)),
                                -radius, radius)[0])  # fmt: skip


@pytest.mark.parametrize("gland", [LINER_GROOVE, BLOCK_GROOVE])
def test_a_stretched_ring_keeps_its_volume(gland: Gland) -> None:
    """Against the volume integrated by SciPy."""
    now = sealing_of(gland)
    inside = gland.groove_m if gland.groove_in is GrooveIn.LINER else gland.groove_m - 2 * now.section_m
    assert _volume(inside, now.section_m) == pytest.approx(_volume(gland.ring_inside_m, gland.ring_section_m), rel=1e-6)


def test_squeeze_and_fill_of_a_ring_in_the_liner() -> None:
    """Worked by hand: (120 − 112.4)/2 = 3.8 mm deep; 112.4/109.7 − 1 stretched; areas by the circle."""
    now = sealing_of(LINER_GROOVE, 50e-6, 0.10, 1.6e-4, 80.0)
    assert now.depth_m == pytest.approx(3.8e-3)
    assert now.stretch == pytest.approx(2.7 / 109.7)
    assert now.squeeze == pytest.approx(1 - 3.8e-3 / now.section_m)
    assert now.squeeze_of_free_section == pytest.approx(1.53 / 5.33)
    assert now.squeeze_least < now.squeeze < now.squeeze_greatest
    assert now.squeeze_greatest - now.squeeze_least == pytest.approx(100e-6 / now.section_m)
    assert now.fill == pytest.approx(pi / 4 * now.section_m**2 / (3.8e-3 * 7e-3))
    # Swollen by a tenth, and three times its expansion along a line over 80 K: 1.1 · 1.0384.
    assert now.fill_hot == pytest.approx(now.fill * 1.1 * 1.0384)
    assert not now.is_overfull_hot
    assert sealing_of(LINER_GROOVE, swell=0.25).is_overfull_hot


def test_a_ring_in_the_block_is_pressed_together_and_seals_on_the_liner() -> None:
    now = sealing_of(BLOCK_GROOVE)
    assert now.depth_m == pytest.approx((0.1280 - 0.1199) / 2)
    outside = 0.1185 + 2 * 0.00533
    assert now.stretch == pytest.approx((outside - 0.1280) / outside)
    assert now.section_m > 0.00533, "pressed together it gets thicker"
    assert now.section_by_curve_m is None, "the curve is of stretched rings"


def test_how_a_stretched_ring_thins_by_the_handbook() -> None:
    """Handbook table, from memory: 1.7 % thinner at 2 % stretch, 2.5 % at 3 %, 3.4 % at 5 %, 6.0 % at 10 %."""
    assert [round(thinning(stretch) * 100, 1) for stretch in (0.02, 0.03, 0.05, 0.10)] == [1.7, 2.5, 3.4, 6.0]
    assert thinning(0.0) == 0.0
    now = sealing_of(LINER_GROOVE)
    assert now.section_by_curve_m == pytest.approx(0.00533 * (1 - thinning(now.stretch)))
    # Curve and constant volume tell the same to a hundredth.
    assert now.section_by_curve_m == pytest.approx(now.section_m, rel=0.012)


@pytest.mark.parametrize(
    ("gland", "field"),
    [
        (Gland(GrooveIn.LINER, 0.1200, 0.1199, 0.1210, 0.007, 0.11, 0.005), "groove_diameter_m"),
        (Gland(GrooveIn.LINER, 0.1200, 0.1199, 0.1124, 0.0, 0.11, 0.005), "groove_width_m"),
        (Gland(GrooveIn.BLOCK, 0.0200, 0.0100, 0.0300, 0.007, 0.30, 0.025), "ring_id_m"),
    ],
)
def test_what_is_no_gland_is_refused_at_its_field(gland: Gland, field: str) -> None:
    with pytest.raises(OutOfDomain) as refused:
        sealing_of(gland)
    assert refused.value.quantity == field


@given(st.floats(0.0, 1e-4), st.floats(0.0, 1e-4))
def test_a_deeper_groove_squeezes_less(one: float, more: float) -> None:
    def squeeze(deeper: float) -> float:
        return sealing_of(Gland(GrooveIn.LINER, 0.12 + deeper, 0.1199, 0.1124, 0.007, 0.1097, 0.00533)).squeeze

    assert squeeze(one + more) <= squeeze(one) + 1e-12


ROD = Rod(0.054, 0.178, 0.028, 0.079, 0.005)


def _edge(turn: float, height: float, side: float, rod: Rod) -> float:
    """Reach of one crank position, by vectors: distance of the shank's edge and of the big end's round. [m]"""
    pin = np.array([rod.offset_m + rod.crank_m * np.sin(turn), rod.crank_m * np.cos(turn)])
    eye = np.array([0.0, pin[1] + sqrt(rod.length_m**2 - pin[0] ** 2)])
    along = (eye - pin) / np.linalg.norm(eye - pin)
    across = np.array([along[1], -along[0]])
    reaches = [-np.inf]
    if pin[1] <= height <= eye[1]:
        # The line of the shank moved by half its width across itself, where it meets the height.
        at = pin + side * across * rod.width_m / 2
        reaches.append(side * (at[0] + along[0] / along[1] * (height - at[1])))
    rise = abs(height - pin[1])
    if rise <= rod.big_end_m / 2:
        reaches.append(side * pin[0] + sqrt((rod.big_end_m / 2) ** 2 - rise**2))
    return float(max(reaches))


@pytest.mark.parametrize("height", [0.060, 0.075, 0.082, 0.110, 0.150])
@pytest.mark.parametrize("side", [1.0, -1.0])
def test_the_reach_of_a_rod_is_that_of_its_edges_turn_by_turn(height: float, side: float) -> None:
    """Against vectors of every position, the greatest found by SciPy to a nanometre."""
    coarse = max(np.linspace(0, 2 * pi, 3601), key=lambda turn: _edge(turn, height, side, ROD))
    best = optimize.minimize_scalar(lambda turn: -_edge(turn, height, side, ROD), method="bounded",
                                    bounds=(coarse - 2e-3, coarse + 2e-3), options={"xatol": 1e-10})  # fmt: skip
    towards, away = reach_of_rod(ROD, np.array([height]))
    assert (towards if side > 0 else away)[0] == pytest.approx(-best.fun, abs=2e-6)


def test_a_rod_without_end_reaches_crank_offset_and_half_its_width() -> None:
    """Closed form: the shank stands upright over the pin, R + e + w/2 at its far turn."""
    endless = Rod(0.054, 1e5, 0.028, 0.0, 0.005)
    towards, away = reach_of_rod(endless, np.array([0.060]))
    assert towards[0] == pytest.approx(0.054 + 0.005 + 0.014, abs=1e-6)
    assert away[0] == pytest.approx(0.054 - 0.005 + 0.014, abs=1e-6)


def test_an_offset_the_other_way_changes_the_sides() -> None:
    heights = np.linspace(0.05, 0.2, 7)
    there = reach_of_rod(ROD, heights)
    back = reach_of_rod(Rod(ROD.crank_m, ROD.length_m, ROD.width_m, ROD.big_end_m, -ROD.offset_m), heights)
    assert there[0] == pytest.approx(back[1], abs=1e-9)
    assert there[1] == pytest.approx(back[0], abs=1e-9)


def test_relief_is_cut_on_the_offset_side_only_and_only_as_high_as_it_must() -> None:
    towards, away = relief_of_foot(ROD, 0.0813, 0.1016, 0.0015, 0.269)
    assert towards.is_needed
    assert not away.is_needed
    assert (away.deep_m, away.high_m) == (0.0, 0.0)
    assert towards.deep_m == pytest.approx(towards.reach_m + 0.0015 - 0.0508)
    assert towards.clear_m == pytest.approx(0.0508 - towards.reach_m)
    # Just there the rod keeps its distance: what it reaches plus what is kept is the wall.
    reach = reach_of_rod(ROD, np.array([0.0813 + towards.high_m]))[0][0]
    assert reach + 0.0015 == pytest.approx(0.0508, abs=5e-6)
    # A liner that ends higher needs none.
    assert not any(one.is_needed for one in relief_of_foot(ROD, 0.150, 0.1016, 0.0015, 0.269))


@pytest.mark.parametrize(
    ("rod", "foot", "inside", "field"),
    [
        (Rod(0.054, 0.055, 0.028, 0.079, 0.005), 0.08, 0.1, "rod_length"),
        (ROD, 0.3, 0.1, "liner_length"),
        (ROD, 0.08, 0.0, "liner_inside"),
    ],
)
def test_a_rod_that_cannot_turn_is_refused(rod: Rod, foot: float, inside: float, field: str) -> None:
    with pytest.raises(OutOfDomain) as refused:
        relief_of_foot(rod, foot, inside, 0.001, 0.269)
    assert refused.value.quantity == field


IRON = Elastic(110e9, 0.26)


def test_a_bent_liner_as_a_beam_with_shear_solved_by_scipy() -> None:
    """Timoshenko's four equations with both ends held square, one set off, by SciPy's boundary-value solver."""
    tube, off = Tube(0.1016, 0.1143, 0.117, IRON), 50e-6
    second = pi / 64 * (tube.outside_m**4 - tube.inside_m**4)
    stiff = IRON.modulus_pa * second
    section = pi / 4 * (tube.outside_m**2 - tube.inside_m**2)
    # Cowper's coefficient of a thin round tube, ν 0.26: 2.52/4.78.
    shear = 2.52 / 4.78 * IRON.modulus_pa / 2.52 * section

    def slopes(_x: np.ndarray, y: np.ndarray) -> np.ndarray:
        _w, turn, moment, force = y
        return np.vstack([turn + force / shear, moment / stiff, -force, np.zeros_like(force)])

    def ends(a: np.ndarray, b: np.ndarray) -> np.ndarray:
        return np.array([a[0] * 1e6, a[1] * 1e3, b[0] * 1e6 - off * 1e6, b[1] * 1e3])

    x = np.linspace(0, tube.between_m, 11)
    solved = integrate.solve_bvp(slopes, ends, x, np.zeros((4, x.size)), tol=1e-10)
    assert solved.success
    bent = bent_by(tube, off)
    assert bent.force_n == pytest.approx(abs(solved.y[3][0]), rel=1e-6)
    assert bent.moment_nm == pytest.approx(abs(solved.y[2][0]), rel=1e-6)
    assert bent.stress_pa == pytest.approx(bent.moment_nm * tube.outside_m / 2 / second)
    assert bent.leans == pytest.approx(off / 0.117)


def test_a_long_thin_tube_bends_as_a_beam_without_shear() -> None:
    """Handbook: F = 12·E·I·δ/L³, M = 6·E·I·δ/L² of a beam held square at both ends."""
    tube = Tube(0.018, 0.020, 4.0, IRON)
    second = pi / 64 * (0.020**4 - 0.018**4)
    bent = bent_by(tube, 1e-3)
    assert bent.force_n == pytest.approx(12 * 110e9 * second * 1e-3 / 64, rel=1e-3)
    assert bent.moment_nm == pytest.approx(6 * 110e9 * second * 1e-3 / 16, rel=1e-3)
    assert shear_coefficient(0.3) == pytest.approx(2.6 / 4.9)


def test_nothing_off_bends_nothing_and_what_is_no_tube_is_refused() -> None:
    assert bent_by(Tube(0.1, 0.11, 0.1, IRON), 0.0).force_n == 0.0
    for tube, field in ((Tube(0.11, 0.10, 0.1, IRON), "liner_inside"), (Tube(0.1, 0.11, 0.0, IRON), "lower_register")):
        with pytest.raises(OutOfDomain) as refused:
            bent_by(tube, 1e-6)
        assert refused.value.quantity == field


def test_a_fire_ring_is_crushed_by_what_the_stack_leaves_no_room_for() -> None:
    """By hand: 1.40 free; 1.20 gasket − 0.05 proud + 0.10 groove = 1.25 of room; 0.15 crushed."""
    stack = RingStack(1.40e-3, 1.20e-3, 0.04e-3, 0.06e-3)
    crush = crush_of_ring(stack, exactly(0.05e-3, 4e-6, "height"), 2.0)
    assert crush.value_m == pytest.approx(0.15e-3)
    assert crush.expanded_m == pytest.approx(8e-6)
    assert crush_of_ring(stack, exactly(-0.05e-3), 2.0).value_m == pytest.approx(0.05e-3)
    for wrong, field in ((RingStack(0.0, 1e-3), "fire_ring"), (RingStack(1e-3, 0.0), "gasket_clamped")):
        with pytest.raises(OutOfDomain) as refused:
            crush_of_ring(wrong, exactly(0.0), 2.0)
        assert refused.value.quantity == field


def test_a_stud_stretches_by_hooke_and_loses_by_its_stiffness() -> None:
    """Handbook: 207 GPa, 100 mm² over 207 mm carry 50 kN with 0.5 mm of stretch: σ = 500 MPa, k = 100 kN/mm."""
    diameter = sqrt(100e-6 * 4 / pi)
    assert STUD_MODULUS_PA == 207e9
    pull = stud_pull(Stud(diameter, 0.207, 50e3, 0.250))
    assert pull.stretch_m == pytest.approx(0.5e-3)
    assert pull.stress_pa == pytest.approx(500e6)
    assert pull.lost_n == pytest.approx(100e3 / 1e-3 * SETTLES_M)
    assert pull.in_block_m == pytest.approx(0.250 - 0.207 - diameter)
    assert stud_pull(Stud(diameter, 0.207, 50e3)).in_block_m is None
    with pytest.raises(OutOfDomain):
        stud_pull(Stud(0.0, 0.2, 1e3))
