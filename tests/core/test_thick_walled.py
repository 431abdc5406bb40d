"""Thick-walled rings against a boundary-value solver, a textbook, and laws that hold for any of them."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import solve_bvp

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.thick_walled import (
    Elastic,
    Ends,
    Rings,
    close_in_share,
    lost_to_roughness,
    press_force,
    pressed,
    von_mises,
)

IRON, BLOCK, ALUMINIUM = Elastic(110e9, 0.26), Elastic(105e9, 0.26), Elastic(71e9, 0.33)
THIN = Rings(0.100, 0.104, 0.125, IRON, BLOCK)


def by_boundary_values(rings: Rings, interference: float, ends: Ends) -> dict[str, float]:
    """Equilibrium of both rings, r·u'' + u' − u/r = 0, solved by scipy's solve_bvp on r stretched to [0, 1] in each.

    Free and stressless on the inner and outer face; at the fit the stresses are equal and the radii differ by δ/2.
    """
    a, b, c = rings.inside_m / 2, rings.fit_m / 2, rings.outside_m / 2

    def moduli(one: Elastic) -> tuple[float, float]:
        if ends is Ends.FREE:
            return one.modulus_pa / (1 - one.poisson**2), one.poisson
        bulk = one.modulus_pa * (1 - one.poisson) / ((1 + one.poisson) * (1 - 2 * one.poisson))
        return bulk, one.poisson / (1 - one.poisson)

    (k1, n1), (k2, n2) = moduli(rings.liner), moduli(rings.boss)
    size = interference / 2

    def slopes(x, y):
        r1, r2 = a + (b - a) * x, b + (c - b) * x
        return np.vstack([(b - a) * y[1], (b - a) * (y[0] / r1**2 - y[1] / r1),
                          (c - b) * y[3], (c - b) * (y[2] / r2**2 - y[3] / r2)])  # fmt: skip

    def radial(k, n, u, du, r):
        return k * (du + n * u / r)

    def faces(left, right):
        return np.array([
            radial(k1, n1, left[0], left[1], a) / k1,
            radial(k2, n2, right[2], right[3], c) / k2,
            (radial(k1, n1, right[0], right[1], b) - radial(k2, n2, left[2], left[3], b)) / k1,
            left[2] - right[0] - 1.0,
        ])  # fmt: skip

    found = solve_bvp(slopes, faces, np.linspace(0, 1, 41), np.ones((4, 41)), tol=1e-10, max_nodes=100_000)
    assert found.success
    left, right = found.sol(0.0) * size, found.sol(1.0) * size
    return {
        "pressure": -radial(k1, n1, right[0], right[1], b),
        "close_in": -2 * left[0],
        "liner_bore": k1 * (left[0] / a + n1 * left[1]),
        "boss_bore": k2 * (left[2] / b + n2 * left[3]),
        "boss_grows": 2 * right[2],
    }


@pytest.mark.parametrize("ends", [Ends.FREE, Ends.HELD])
@pytest.mark.parametrize(
    "rings", [THIN, Rings(0.086, 0.095, 0.108, IRON, ALUMINIUM), Rings(0.09, 0.11, 0.15, IRON, BLOCK)]
)
def test_pressure_stress_and_close_in_are_those_of_a_boundary_value_solver(rings: Rings, ends: Ends) -> None:
    """SciPy solve_bvp on the equations of equilibrium: nothing of Lamé in it."""
    found, want = pressed(rings, 38e-6, ends), by_boundary_values(rings, 38e-6, ends)
    assert float(found.pressure_pa) == pytest.approx(want["pressure"], rel=1e-6)
    assert float(found.close_in_m) == pytest.approx(want["close_in"], rel=1e-6)
    assert float(found.hoop_liner_bore_pa) == pytest.approx(want["liner_bore"], rel=1e-6)
    assert float(found.hoop_boss_bore_pa) == pytest.approx(want["boss_bore"], rel=1e-6)
    assert float(found.boss_grows_m) == pytest.approx(want["boss_grows"], rel=1e-6)


def test_a_built_up_cylinder_of_the_textbook() -> None:
    """Timoshenko, Strength of Materials II, built-up cylinder of 4, 6, 8 in: about 4,050 psi (from memory)."""
    psi = 6894.757293168
    steel = Elastic(30e6 * psi, 0.3)
    found = pressed(Rings(8 * 0.0254, 12 * 0.0254, 16 * 0.0254, steel, steel), 2 * 0.005 * 0.0254)
    assert float(found.pressure_pa) / psi == pytest.approx(4050, rel=1e-3)
    assert float(found.hoop_boss_bore_pa) / psi == pytest.approx(14470, rel=1e-3)
    assert float(found.hoop_liner_bore_pa) / psi == pytest.approx(-14580, rel=1e-3)


def test_close_in_is_no_fixed_share() -> None:
    """Worked beforehand in two ways: 81 % in a 125 mm boss, 96 % in a heavy block, 45 % in thin aluminium."""
    assert close_in_share(THIN) == pytest.approx(0.815, abs=0.005)
    assert close_in_share(Rings(0.100, 0.104, 0.400, IRON, BLOCK)) == pytest.approx(0.96, abs=0.01)
    assert close_in_share(Rings(0.086, 0.095, 0.108, IRON, ALUMINIUM)) == pytest.approx(0.446, abs=0.005)


def test_bonded_ends_leave_no_force_along_the_axis() -> None:
    """Balance of forces: both walls' stress along the axis times its area is nought. Closed form."""
    rings = Rings(0.086, 0.095, 0.108, IRON, ALUMINIUM)
    done, strain = pressed(rings, 40e-6, Ends.BONDED), rings.axial_strain(Ends.BONDED)
    p = float(done.pressure_pa)
    inner = IRON.modulus_pa * strain * p + IRON.poisson * float(done.hoop_liner_bore_pa)
    outer = ALUMINIUM.modulus_pa * strain * p + ALUMINIUM.poisson * float(done.hoop_boss_outside_pa)
    area_in, area_out = rings.fit_m**2 - rings.inside_m**2, rings.outside_m**2 - rings.fit_m**2
    assert inner * area_in + outer * area_out == pytest.approx(0.0, abs=1e-3 * abs(inner * area_in))
    # Plane stress, plane strain and bonded ends differ by 6 to 9 % in pressure.
    free = float(pressed(rings, 40e-6).pressure_pa)
    assert 1.06 < p / free < 1.10
    assert 1.06 < float(pressed(rings, 40e-6, Ends.HELD).pressure_pa) / free < 1.10


sizes = st.floats(0.05, 0.5)
walls = st.floats(0.002, 0.08)
materials = st.builds(Elastic, st.floats(30e9, 230e9), st.floats(0.1, 0.4))


@given(sizes, walls, walls, materials, materials, st.floats(0, 200e-6), st.floats(1.01, 3), st.sampled_from(Ends))
def test_what_the_walls_give_is_the_press_and_more_press_never_lowers_anything(
    inside: float, wall: float, boss: float, liner: Elastic, block: Elastic, press: float, more: float, ends: Ends
) -> None:
    rings = Rings(inside, inside + 2 * wall, inside + 2 * wall + 2 * boss, liner, block)
    done, harder = pressed(rings, press, ends), pressed(rings, press * more, ends)
    assert float(done.liner_shrinks_m + done.boss_bore_grows_m) == pytest.approx(press, rel=1e-9, abs=1e-15)
    for name in ("pressure_pa", "close_in_m", "boss_grows_m", "hoop_boss_bore_pa"):
        assert getattr(harder, name) >= getattr(done, name)
    assert press_force(harder.pressure_pa, rings.fit_m, 0.1, 0.1) >= press_force(
        done.pressure_pa, rings.fit_m, 0.1, 0.1
    )


@given(st.floats(1e-6, 200e-6), st.floats(0.5, 40))
def test_swapping_units_changes_nothing(press: float, unit: float) -> None:
    """In any unit of length, and of stress, the pressure is the same."""
    scaled = Rings(THIN.inside_m * unit, THIN.fit_m * unit, THIN.outside_m * unit, IRON, BLOCK)
    one, other = pressed(THIN, press), pressed(scaled, press * unit)
    assert float(other.pressure_pa) == pytest.approx(float(one.pressure_pa), rel=1e-9)
    assert float(other.close_in_m) == pytest.approx(float(one.close_in_m) * unit, rel=1e-9)


def test_close_in_tells_the_press_back_and_a_clearance_presses_nothing() -> None:
    done = pressed(THIN, 30e-6)
    assert float(done.close_in_m) / close_in_share(THIN) == pytest.approx(30e-6)
    loose = pressed(THIN, -20e-6)
    assert float(loose.pressure_pa) == float(loose.close_in_m) == 0.0


def test_von_mises_by_its_definition() -> None:
    """Pure shear σ, −σ gives √3·σ, one stress alone itself. Definition."""
    assert float(von_mises(100.0, -100.0)) == pytest.approx(100 * 3**0.5)
    assert float(von_mises(0.0, -40.0)) == pytest.approx(40.0)


def test_roughness_takes_four_fifths_of_both_peaks() -> None:
    """DIN 7190-1, 0.8·(Rz_i + Rz_o), from memory."""
    assert lost_to_roughness(6e-6, 4e-6) == pytest.approx(8e-6)


@pytest.mark.parametrize(
    ("sizes", "liner", "field"),
    [
        ((0.104, 0.104, 0.125), IRON, "liner_id_m"),
        ((0.1, 0.125, 0.125), IRON, "boss_od_m"),
        ((0.1, 0.104, 0.125), Elastic(0.0, 0.3), "liner"),
        ((0.1, 0.104, 0.125), Elastic(1e11, 0.5), "liner"),
    ],
)
def test_what_is_no_pair_of_rings_is_refused(sizes: tuple[float, float, float], liner: Elastic, field: str) -> None:
    with pytest.raises(OutOfDomain) as caught:
        Rings(*sizes, liner, BLOCK)
    assert caught.value.quantity == field


def test_a_press_that_nobody_measured_is_refused() -> None:
    with pytest.raises(OutOfDomain, match="measure it"):
        pressed(THIN, float("nan"))
