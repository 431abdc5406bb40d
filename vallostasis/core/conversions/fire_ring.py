"""A fire ring between liner and head: how far the stack crushes it, and how the studs that do it stretch.

References
----------
.. [1] Hooke: a stud under F stretches by F·L/(E·A) over its clamped length. J. E. Shigley, bolted joints (from memory).
"""

from dataclasses import dataclass
from math import pi

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.uncertainty.budget import Estimate, Stated, exactly, stated, weighted

# Steel of studs. [Pa] From memory of handbook tables.
STUD_MODULUS_PA = 207e9
# A stud is looked at by what it loses when the stack settles by so much. [m]
SETTLES_M = 10e-6


@dataclass(frozen=True, slots=True)
class RingStack:
    """What a fire ring lies in: its free thickness, gasket as clamped, grooves in liner and head. [m]"""

    ring_m: float
    gasket_m: float
    liner_groove_m: float = 0.0
    head_groove_m: float = 0.0


def crush_of_ring(stack: RingStack, height: Estimate, coverage_factor: float) -> Stated:
    """Return by how much a ring is crushed under the head. [m]

    Parameters
    ----------
    stack : RingStack
        Ring, gasket, grooves. [m]
    height : Estimate
        How high the liner stands over the deck, positive when proud. [m]
    coverage_factor : float
        k of its ±.

    Returns
    -------
    Stated
        Free thickness less the room between liner and head: gasket as clamped − height + both grooves. [m]

    Raises
    ------
    OutOfDomain
        If ring or gasket have no thickness.

    Notes
    -----
    By definition; sizes of ring, gasket and grooves are taken as on the card.
    """
    sizes = {"fire_ring": stack.ring_m, "gasket_clamped": stack.gasket_m}
    require_finite(**sizes)
    require_not_negative(liner_groove=stack.liner_groove_m, head_groove=stack.head_groove_m)
    for name, size in sizes.items():
        if size <= 0:
            raise OutOfDomain("a thickness above nought is needed", name)
    room = stack.gasket_m + stack.liner_groove_m + stack.head_groove_m
    return stated("crush of the fire ring", weighted(((1.0, exactly(stack.ring_m - room)), (1.0, height))),
                  coverage_factor)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Stud:
    """A stud of the head: diameter that carries, length, what it clamps, what of it stays in the nut. [m], [N]"""

    diameter_m: float
    clamped_m: float
    force_n: float
    length_m: float | None = None


@dataclass(frozen=True, slots=True)
class StudPull:
    """What a stud does when it is tight. [m], [N], [Pa]

    ``lost_n`` is what it loses when the stack settles by SETTLES_M, ``in_block_m`` the thread that is left for the
    block once a nut of its own diameter is on; None where its length is not known.
    """

    stretch_m: float
    stress_pa: float
    lost_n: float
    in_block_m: float | None


def stud_pull(stud: Stud) -> StudPull:
    """Tighten a stud.

    Parameters
    ----------
    stud : Stud
        The stud. [m], [N]

    Returns
    -------
    StudPull
        Stretch, stress, what settling costs, thread left for the block. [m], [N], [Pa]

    Raises
    ------
    OutOfDomain
        If it has no diameter, or clamps nothing.

    Notes
    -----
    F·L/(E·A), Hooke [1]_ of the module; a nut as high as the diameter: common practice.
    """
    require_finite(stud_kn=stud.force_n)
    require_not_negative(stud_kn=stud.force_n)
    for name, size in (("stud_diameter", stud.diameter_m), ("stud_clamped", stud.clamped_m)):
        if size <= 0:
            raise OutOfDomain("a size above nought is needed", name)
    section = pi / 4 * stud.diameter_m**2
    stiffness = STUD_MODULUS_PA * section / stud.clamped_m
    left = None if stud.length_m is None else stud.length_m - stud.clamped_m - stud.diameter_m
    return StudPull(stud.force_n / stiffness, stud.force_n / section, stiffness * SETTLES_M, left)
