"""What an engine displaces, in cubic centimetres and cubic inches from one number, and the bore that a volume wants."""

from dataclasses import dataclass
from math import pi, sqrt

from vallostasis.core.boring.clearances import CUBIC_INCH_M3, swept_volume_m3
from vallostasis.core.errors import OutOfDomain, require_finite


@dataclass(frozen=True, slots=True)
class Swept:
    """A swept volume, said in both units from one number. [m³]"""

    volume_m3: float

    @property
    def cm3(self) -> float:
        """In cubic centimetres. By definition."""
        return self.volume_m3 * 1e6

    @property
    def cubic_inches(self) -> float:
        """In cubic inches. By definition: an inch is 25.4 mm."""
        return self.volume_m3 / CUBIC_INCH_M3


@dataclass(frozen=True, slots=True)
class BoreForVolume:
    """The bore that a volume wants, how much larger than now, and the wall that it leaves. [m]

    ``wall_m`` is None where no wall is known; ``per_cent`` how much of the volume comes from it.
    """

    bore_m: float
    growth_m: float
    wall_m: float | None
    per_cent: float


def swept(cylinders: int, bore_m: float, stroke_m: float) -> Swept:
    """Return what an engine of bore and stroke in [m] displaces. [m³] n·π/4·B²·S, by definition."""
    return Swept(swept_volume_m3(cylinders, bore_m, stroke_m))


def bore_for_volume(
    cylinders: int, wanted_m3: float, bore_m: float, stroke_m: float, wall_m: float | None = None
) -> BoreForVolume:
    """Return the bore that a wanted volume asks for.

    Parameters
    ----------
    cylinders : int
        How many. [1]
    wanted_m3 : float
        Swept volume of the whole engine. [m³]
    bore_m, stroke_m : float
        Bore now, and stroke. [m]
    wall_m : float or None
        Wall a side now, None where it is not known. [m]

    Returns
    -------
    BoreForVolume
        B = √(4V/(nπS)); the wall loses half of the growth. [m]

    Raises
    ------
    OutOfDomain
        If a number is not above nought.

    Notes
    -----
    By definition of the swept volume; wall left as wall − growth/2, common practice.
    """
    require_finite(wanted_m3=wanted_m3, bore_m=bore_m, stroke_m=stroke_m)
    for name, one in (("cylinders", cylinders), ("wanted_m3", wanted_m3), ("bore_m", bore_m), ("stroke_m", stroke_m)):
        if one <= 0:
            raise OutOfDomain("a number above nought is needed", name)
    wanted = sqrt(4 * wanted_m3 / (cylinders * pi * stroke_m))
    growth = wanted - bore_m
    return BoreForVolume(wanted, growth, None if wall_m is None else wall_m - growth / 2,
                         100 * (wanted_m3 / swept_volume_m3(cylinders, bore_m, stroke_m) - 1))  # fmt: skip
