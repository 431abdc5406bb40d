"""A liner pressed into its boss: two thick-walled rings, slice by slice.

References
----------
.. [1] G. Lamé and B. Clapeyron, 1833; S. Timoshenko, Strength of Materials, Part II, thick-walled cylinders and
   built-up cylinders (from memory).
.. [2] J. E. Shigley, Mechanical Engineering Design, press and shrink fits (from memory).
.. [3] DIN 7190-1, Interference fits: flattening of the roughness, 0.8·(Rz_i + Rz_o) (from memory).
"""

from dataclasses import dataclass
from enum import StrEnum
from math import pi

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative

Array = NDArray[np.float64]
# Share of the summed roughness that a press flattens [1]; DIN 7190-1, from memory.
FLATTENED = 0.8


class Ends(StrEnum):
    """What is taken of the ends of the rings."""

    FREE = "plane stress"
    HELD = "plane strain"
    BONDED = "bonded ends"


@dataclass(frozen=True, slots=True)
class Elastic:
    """How stiff a material is: Young's modulus [Pa] and Poisson's ratio [1]."""

    modulus_pa: float
    poisson: float


@dataclass(frozen=True, slots=True)
class Rings:
    """Inside of the liner, the fit, outside of the boss taken as a ring [m], and what the two are made of.

    Raises
    ------
    OutOfDomain
        If the diameters do not grow from inside to outside, or a material is none.
    """

    inside_m: float
    fit_m: float
    outside_m: float
    liner: Elastic
    boss: Elastic

    def __post_init__(self) -> None:
        """Refuse what is no pair of rings."""
        require_finite(liner_id_m=self.inside_m, liner_od_m=self.fit_m, boss_od_m=self.outside_m)
        require_not_negative(liner_id_m=self.inside_m)
        if self.inside_m >= self.fit_m:
            raise OutOfDomain("the liner's inside must be smaller than its outside", "liner_id_m")
        if self.fit_m >= self.outside_m:
            raise OutOfDomain("the boss must be larger than the liner's outside", "boss_od_m")
        for name, one in (("liner", self.liner), ("block", self.boss)):
            if not one.modulus_pa > 0 or not -1 < one.poisson < 0.5:
                raise OutOfDomain("a modulus above nought and Poisson's ratio below one half are needed", name)

    @property
    def liner_hoop(self) -> float:
        """Hoop at the liner's outside for each unit of pressure, squeezed positive. [1] Lamé [1]_ of the module."""
        return (self.fit_m**2 + self.inside_m**2) / (self.fit_m**2 - self.inside_m**2)

    @property
    def boss_hoop(self) -> float:
        """Hoop at the bore of the boss for each unit of pressure. [1] Lamé [1]_ of the module."""
        return (self.outside_m**2 + self.fit_m**2) / (self.outside_m**2 - self.fit_m**2)

    def axial_strain(self, ends: Ends) -> float:
        """Strain along the axis that both rings share, for each unit of pressure. [1/Pa]

        Nought where the ends are held; where they are bonded so much that no force is left along the axis. Closed form.
        """
        if ends is not Ends.BONDED:
            return 0.0
        inner, outer = self.fit_m**2 - self.inside_m**2, self.outside_m**2 - self.fit_m**2
        stiff = inner * self.liner.modulus_pa + outer * self.boss.modulus_pa
        return 2 * self.fit_m**2 * (self.liner.poisson - self.boss.poisson) / stiff

    def give(self, ends: Ends = Ends.FREE) -> float:
        """How much the two walls give way together for each unit of pressure, as a share of the fit. [1/Pa]

        Lamé [1]_ of the module; Hooke's law with the stress along the axis that the ends leave.
        """
        strain = self.axial_strain(ends)
        liner, boss = self.liner, self.boss
        if ends is Ends.FREE:
            return (self.boss_hoop + boss.poisson) / boss.modulus_pa + (
                self.liner_hoop - liner.poisson
            ) / liner.modulus_pa
        outer = ((1 - boss.poisson**2) * self.boss_hoop + boss.poisson * (1 + boss.poisson)) / boss.modulus_pa
        inner = ((1 - liner.poisson**2) * self.liner_hoop - liner.poisson * (1 + liner.poisson)) / liner.modulus_pa
        return outer - boss.poisson * strain + inner + liner.poisson * strain


@dataclass(frozen=True, slots=True)
class Pressed:
    """What a press does. Stresses in Pa, squeezed negative; changes of diameter in m, positive as named.

    Every array has the shape of the interference it was asked for.
    """

    pressure_pa: Array
    hoop_liner_bore_pa: Array
    hoop_liner_outside_pa: Array
    hoop_boss_bore_pa: Array
    hoop_boss_outside_pa: Array
    close_in_m: Array
    liner_shrinks_m: Array
    boss_bore_grows_m: Array
    boss_grows_m: Array


def pressed(rings: Rings, interference_m: ArrayLike, ends: Ends = Ends.FREE) -> Pressed:
    """Press a liner in.

    Parameters
    ----------
    rings : Rings
        Both walls.
    interference_m : array_like
        Diametral, positive for a press; a clearance presses nothing. [m]
    ends : Ends
        What is taken of the ends; the close-in of the other two follows from the pressure and the strain along them.

    Returns
    -------
    Pressed
        With free ends every change of a diameter is exact; see Notes for the others.

    Notes
    -----
    p = δ / (d·give); hoop and growth by Lamé [1]_ of the module, Shigley [2]_. Uniform contact, elastic walls; the boss
    of a block is no ring: plane stress, plane strain and bonded ends differ by some hundredths in pressure.
    """
    press = np.maximum(np.asarray(interference_m, dtype=np.float64), 0.0)
    if not np.isfinite(press).all():
        raise OutOfDomain("an interference that nobody measured presses nothing: measure it", "interference_m")
    inside, fit, outside = rings.inside_m, rings.fit_m, rings.outside_m
    p = press / (fit * rings.give(ends))
    in_bore = -2 * p * fit**2 / (fit**2 - inside**2)
    out_boss = 2 * p * fit**2 / (outside**2 - fit**2)
    strain = rings.axial_strain(ends) * p
    liner, boss = rings.liner, rings.boss
    flat = ends is Ends.FREE
    # Along the axis: nothing where the ends are free, else what holds them.
    along_liner = 0.0 if flat else liner.modulus_pa * strain + liner.poisson * in_bore
    along_boss = 0.0 if flat else boss.modulus_pa * strain + boss.poisson * out_boss
    liner_od = -p * rings.liner_hoop
    boss_bore = p * rings.boss_hoop
    return Pressed(
        pressure_pa=p,
        hoop_liner_bore_pa=in_bore,
        hoop_liner_outside_pa=liner_od,
        hoop_boss_bore_pa=boss_bore,
        hoop_boss_outside_pa=out_boss,
        close_in_m=-inside * (in_bore - liner.poisson * along_liner) / liner.modulus_pa,
        liner_shrinks_m=-fit * (liner_od + liner.poisson * (p - along_liner)) / liner.modulus_pa,
        boss_bore_grows_m=fit * (boss_bore + boss.poisson * (p - along_boss)) / boss.modulus_pa,
        boss_grows_m=outside * (out_boss - boss.poisson * along_boss) / boss.modulus_pa,
    )


def von_mises(radial_pa: ArrayLike, hoop_pa: ArrayLike) -> Array:
    """Von Mises stress of a wall with free ends. [Pa] Definition, with no stress along the axis."""
    radial, hoop = np.asarray(radial_pa, dtype=np.float64), np.asarray(hoop_pa, dtype=np.float64)
    return np.asarray(np.sqrt(hoop**2 - hoop * radial + radial**2), dtype=np.float64)


def close_in_share(rings: Rings) -> float:
    """Close-in of the liner's bore as a share of the interference. [1] Lamé [1]_ of the module, free ends."""
    return float(pressed(rings, rings.fit_m * 1e-4).close_in_m) / (rings.fit_m * 1e-4)


def lost_to_roughness(bore_rz_m: float, liner_rz_m: float) -> float:
    """Interference lost to the peaks that a press flattens, on the diameter. [m] DIN 7190-1 [3]_ of the module."""
    require_not_negative(bore_rz_m=bore_rz_m, liner_rz_m=liner_rz_m)
    return FLATTENED * (bore_rz_m + liner_rz_m)


def press_force(pressure_pa: ArrayLike, fit_m: float, length_m: ArrayLike, friction: ArrayLike) -> Array:
    """Force that slides a liner over slices of so much pressure. [N]

    Parameters
    ----------
    pressure_pa, length_m, friction : array_like
        Pressure [Pa], length [m] and coefficient of friction [1] of every slice; shapes that broadcast.
    fit_m : float
        Diameter of the fit. [m]

    Returns
    -------
    array
        μ·p·π·d·Δz of every slice. Shigley [2]_ of the module; Coulomb's law.
    """
    return np.asarray(np.asarray(friction) * np.asarray(pressure_pa) * pi * fit_m * np.asarray(length_m), dtype=float)
