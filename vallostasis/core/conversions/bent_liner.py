"""What it does to a liner that its two registers do not lie in one line.

References
----------
.. [1] S. Timoshenko, beam with shear: two ends held square and set off by δ carry
   F = δ / (L³/12EI + L/κGA), M = F·L/2 (from memory).
.. [2] G. R. Cowper, The Shear Coefficient in Timoshenko's Beam Theory, J. Appl. Mech. 33 (1966): a thin-walled round
   tube has κ = 2(1+ν)/(4+3ν) (from memory).
"""

from dataclasses import dataclass
from math import pi

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.fits.thick_walled import Elastic


@dataclass(frozen=True, slots=True)
class Tube:
    """A liner between its registers: inside, outside, free length between them [m], and what it is made of."""

    inside_m: float
    outside_m: float
    between_m: float
    made_of: Elastic


@dataclass(frozen=True, slots=True)
class Bent:
    """A liner held square in two registers that are off by ``off_m``: side force, moment, stress. [m], [N], [N·m], [Pa]

    ``leans`` is the angle at which it stands instead where the registers let it. [rad]
    """

    off_m: float
    force_n: float
    moment_nm: float
    stress_pa: float
    leans: float


def shear_coefficient(poisson: float) -> float:
    """Share of a round tube's section that carries shear in a beam. [1] Cowper [2]_ of the module."""
    return 2 * (1 + poisson) / (4 + 3 * poisson)


def bent_by(tube: Tube, off_m: float) -> Bent:
    """Bend a liner by what its registers are off.

    Parameters
    ----------
    tube : Tube
        The liner between them. [m]
    off_m : float
        How far their middles stand apart, across, beyond what the fits leave free. [m]

    Returns
    -------
    Bent
        Both ends held square: the most it can be. It leans by off/L where nothing holds it square. [N], [Pa]

    Raises
    ------
    OutOfDomain
        If the tube is none.

    Notes
    -----
    A liner is as short as it is wide, so shear carries most of it: Timoshenko [1]_ of the module.
    """
    require_finite(off_m=off_m)
    require_not_negative(inside_m=tube.inside_m, off_m=off_m)
    if not tube.outside_m > tube.inside_m:
        raise OutOfDomain("the liner's inside must be smaller than its outside", "liner_inside")
    if not tube.between_m > 0:
        raise OutOfDomain("the lower register lies below the upper one", "lower_register")
    stiff = tube.made_of
    second = pi / 64 * (tube.outside_m**4 - tube.inside_m**4)
    section = pi / 4 * (tube.outside_m**2 - tube.inside_m**2)
    shear = stiff.modulus_pa / (2 * (1 + stiff.poisson))
    gives = tube.between_m**3 / (12 * stiff.modulus_pa * second) + tube.between_m / (
        shear_coefficient(stiff.poisson) * shear * section
    )
    force = off_m / gives
    moment = force * tube.between_m / 2
    return Bent(off_m, force, moment, moment * tube.outside_m / 2 / second, off_m / tube.between_m)
