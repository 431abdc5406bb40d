"""A rubber ring in its groove between liner and block: how much it is squeezed, and how full its groove is.

References
----------
.. [1] Constant volume of a torus, Pappus: V = π²·W²·(d + W)/4 with the inside d and the section W.
.. [2] Handbook curve of how a stretched ring thins, by its stretch in per cent, from memory.
"""

from dataclasses import dataclass
from math import pi

from scipy import optimize

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.records.conversion_terms import GrooveIn

# Where the handbook curve changes its formula. [%] From memory.
CURVE_CHANGES_AT = 3.0


@dataclass(frozen=True, slots=True)
class Gland:
    """A groove, the face it works against, and its ring; diameters, width and section. [m]

    ``groove_m`` is the diameter of the groove's floor, ``block_bore_m`` and ``liner_od_m`` are the faces.
    """

    groove_in: GrooveIn
    block_bore_m: float
    liner_od_m: float
    groove_m: float
    groove_width_m: float
    ring_inside_m: float
    ring_section_m: float


@dataclass(frozen=True, slots=True)
class Sealing:
    """What becomes of a ring. [m], shares [1]

    ``stretch`` is by how much its inside is stretched, or, in a groove of the block, its outside pressed together;
    ``squeeze_least`` and ``squeeze_greatest`` hold when liner and block stand apart by the eccentricity.
    """

    depth_m: float
    stretch: float
    section_m: float
    section_by_curve_m: float | None
    squeeze: float
    squeeze_of_free_section: float
    squeeze_least: float
    squeeze_greatest: float
    squeeze_m: float
    fill: float
    fill_hot: float

    @property
    def is_overfull_hot(self) -> bool:
        """Whether the ring has no room left when it is hot and swollen. By definition."""
        return self.fill_hot > 1


def sealing_of(gland: Gland, eccentricity_m: float = 0.0, swell: float = 0.0, rubber_alpha: float = 1.6e-4,
               warmer_k: float = 0.0) -> Sealing:  # fmt: skip
    """Put a ring into its groove and the liner into the block.

    Parameters
    ----------
    gland : Gland
        Groove, faces, ring. [m]
    eccentricity_m : float
        How far the middles of liner and block stand apart. [m]
    swell : float
        Share of its volume by which the rubber swells. [1]
    rubber_alpha : float
        Expansion of the rubber along a line. [1/K]
    warmer_k : float
        How much warmer it runs. [K]

    Returns
    -------
    Sealing
        Squeeze and fill as shares. [1]

    Raises
    ------
    OutOfDomain
        If a size is not above nought, or the groove has no depth.

    Notes
    -----
    The stretched section keeps the ring's volume [1]_; beside it the handbook curve [2]_ of the module.
    """
    sizes = {"block_bore_m": gland.block_bore_m, "liner_od_m": gland.liner_od_m, "groove_diameter_m": gland.groove_m,
             "groove_width_m": gland.groove_width_m, "ring_id_m": gland.ring_inside_m,
             "ring_section_m": gland.ring_section_m}  # fmt: skip
    require_finite(swell_fraction=swell, rubber_alpha=rubber_alpha, temperature_rise_k=warmer_k, **sizes)
    require_not_negative(eccentricity_m=eccentricity_m)
    for name, size in sizes.items():
        if size <= 0:
            raise OutOfDomain("a size above nought is needed", name)
    in_liner = gland.groove_in is GrooveIn.LINER
    depth = (gland.block_bore_m - gland.groove_m if in_liner else gland.groove_m - gland.liner_od_m) / 2
    if depth <= 0:
        raise OutOfDomain("the groove has no depth: its floor lies beyond the face it seals against",
                          "groove_diameter_m")  # fmt: skip
    free = gland.ring_section_m
    outside = gland.ring_inside_m + 2 * free
    stretch = gland.groove_m / gland.ring_inside_m - 1 if in_liner else (outside - gland.groove_m) / outside
    section = _section(gland, in_liner)
    fill = pi / 4 * section**2 / (depth * gland.groove_width_m)
    return Sealing(
        depth_m=depth, stretch=stretch, section_m=section,
        section_by_curve_m=free * (1 - thinning(stretch)) if in_liner and stretch >= 0 else None,
        squeeze=1 - depth / section, squeeze_of_free_section=1 - depth / free,
        squeeze_least=1 - (depth + eccentricity_m) / section, squeeze_greatest=1 - (depth - eccentricity_m) / section,
        squeeze_m=section - depth, fill=fill, fill_hot=fill * (1 + swell) * (1 + 3 * rubber_alpha * warmer_k),
    )  # fmt: skip


def _section(gland: Gland, in_liner: bool) -> float:
    """Section of the ring once its inside lies on the groove, or its outside in it; volume stays. [m]"""
    volume = gland.ring_section_m**2 * (gland.ring_inside_m + gland.ring_section_m)
    side = 1.0 if in_liner else -1.0
    # In a groove of the block the volume has its greatest where the section is two thirds of the diameter.
    most = 4 * gland.ring_section_m if in_liner else 2 * gland.groove_m / 3
    if most**2 * (gland.groove_m + side * most) < volume:
        raise OutOfDomain("the ring does not go into its groove", "ring_id_m")

    def too_much(section: float) -> float:
        return section**2 * (gland.groove_m + side * section) - volume

    return float(optimize.brentq(too_much, 0.0, most, xtol=1e-12))


def thinning(stretch: float) -> float:
    """Share by which the section of a ring thins when it is stretched by a share of its inside. [1]

    Handbook curve [2]_ of the module, from memory.
    """
    s = stretch * 100
    if s <= CURVE_CHANGES_AT:
        return max(0.0, -0.005 + 1.19 * s - 0.19 * s**2 - 0.001 * s**3 + 0.008 * s**4) / 100
    return (0.56 + 0.59 * s - 0.0046 * s**2) / 100
