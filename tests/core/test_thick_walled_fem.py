"""Both rings of a press as finite elements: the same plane-stress model by another way, within a hundredth.

Reference: scikit-fem, an axisymmetric elastic ring with free ends, solved for its radial displacement under pressure.
"""

from math import pi

import numpy as np
import pytest
from skfem import (
    Basis,
    BilinearForm,
    ElementQuad2,
    ElementVector,
    FacetBasis,
    LinearForm,
    MeshQuad,
    condense,
    solve,
)

from vallostasis.core.fits.thick_walled import Elastic, Rings, pressed

LINER, BOSS = Elastic(110e9, 0.26), Elastic(71e9, 0.33)
RINGS = Rings(0.0965, 0.104, 0.125, LINER, BOSS)
INTERFERENCE_M = 40e-6
# A slice as thin as a wall is thick: its ends are free, so that it is in plane stress.
SLICE_M, ACROSS, UP = 0.002, 24, 4


def _ring(inner_m: float, outer_m: float, made_of: Elastic, at_m: float) -> dict[str, float]:
    """What a pressure of 1 Pa on one face does: radial displacement of both faces [m/Pa], hoop at the faces [1]."""
    mesh = MeshQuad.init_tensor(np.linspace(inner_m, outer_m, ACROSS + 1), np.linspace(0, SLICE_M, UP + 1))
    element = ElementVector(ElementQuad2())
    basis = Basis(mesh, element)
    e, nu = made_of.modulus_pa, made_of.poisson
    lame, shear = e * nu / ((1 + nu) * (1 - 2 * nu)), e / (2 * (1 + nu))

    @BilinearForm
    def stiffness(u, v, w):
        r = w.x[0]
        strain = (u.grad[0, 0], u[0] / r, u.grad[1, 1], u.grad[0, 1] + u.grad[1, 0])
        tried = (v.grad[0, 0], v[0] / r, v.grad[1, 1], v.grad[0, 1] + v.grad[1, 0])
        volume = (strain[0] + strain[1] + strain[2]) * (tried[0] + tried[1] + tried[2])
        normal = sum(a * b for a, b in zip(strain[:3], tried[:3], strict=True))
        return 2 * pi * r * (lame * volume + 2 * shear * normal + shear * strain[3] * tried[3])

    faces = mesh.facets_satisfying(lambda x: np.isclose(x[0], at_m), boundaries_only=True)
    # Pressure pushes into the ring: outwards on its bore, inwards on its outside.
    push = 1.0 if at_m == inner_m else -1.0

    @LinearForm
    def pressure(v, w):
        return 2 * pi * w.x[0] * push * v[0]

    matrix, load = stiffness.assemble(basis), pressure.assemble(FacetBasis(mesh, element, facets=faces))
    held = basis.get_dofs(lambda x: np.isclose(x[1], 0.0)).all("u^2")
    moved = solve(*condense(matrix, load, D=held))
    probe = {}
    for name, r in (("inner", inner_m), ("outer", outer_m)):
        at = np.array([[r], [SLICE_M / 2]])
        probe[name] = float((basis.probes(at) @ moved)[0])
    return probe


def test_pressure_close_in_and_growth_are_those_of_finite_elements() -> None:
    liner = _ring(RINGS.inside_m / 2, RINGS.fit_m / 2, LINER, RINGS.fit_m / 2)
    boss = _ring(RINGS.fit_m / 2, RINGS.outside_m / 2, BOSS, RINGS.fit_m / 2)
    # Both faces move until they share half of the interference a side.
    pressure = INTERFERENCE_M / 2 / (boss["inner"] - liner["outer"])
    found = pressed(RINGS, INTERFERENCE_M)
    assert float(found.pressure_pa) == pytest.approx(pressure, rel=0.01)
    assert float(found.close_in_m) == pytest.approx(-2 * liner["inner"] * pressure, rel=0.01)
    assert float(found.liner_shrinks_m) == pytest.approx(-2 * liner["outer"] * pressure, rel=0.01)
    assert float(found.boss_bore_grows_m) == pytest.approx(2 * boss["inner"] * pressure, rel=0.01)
    assert float(found.boss_grows_m) == pytest.approx(2 * boss["outer"] * pressure, rel=0.01)
    # By definition a strain is a displacement over its radius: what hoop does of it follows from both faces.
    assert float(found.hoop_liner_bore_pa) == pytest.approx(
        LINER.modulus_pa * 2 * liner["inner"] * pressure / RINGS.inside_m, rel=0.01
    )
