"""A bore that fits its piston: cold, running, and what is read while both are warm.

References
----------
.. [1] ISO 1: sizes hold at 20 °C; D(T) = D20·(1 + α·(T − 20)).
"""

from dataclasses import dataclass
from math import pi

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative

REFERENCE_C = 20.0
CUBIC_INCH_M3 = 0.0254**3


@dataclass(frozen=True, slots=True)
class Warm:
    """A size as it was read: at which temperature, and by how much it grows. [m], [°C], [1/K]"""

    read_m: float
    celsius: float
    per_k: float

    def at(self, celsius: float) -> float:
        """Its size at a temperature. [m] ISO 1 [1]_ of the module."""
        return (
            self.read_m / (1 + self.per_k * (self.celsius - REFERENCE_C)) * (1 + self.per_k * (celsius - REFERENCE_C))
        )


def clearance_of(bore: Warm, piston: Warm, bore_c: float = REFERENCE_C, piston_c: float = REFERENCE_C) -> float:
    """Return the clearance of a piston on the diameter with both at their own temperatures. [m]

    Negative where it seizes. ISO 1 [1]_ of the module.
    """
    require_finite(bore_measured_m=bore.read_m, piston_measured_m=piston.read_m, bore_c=bore_c, piston_c=piston_c)
    for name, one in (("bore_measured_m", bore), ("piston_measured_m", piston)):
        if one.read_m <= 0:
            raise OutOfDomain("a size above nought is needed", name)
    return bore.at(bore_c) - piston.at(piston_c)


def finish_size(piston: Warm, clearance_m: float, bore_per_k: float, work_c: float) -> tuple[float, float]:
    """Return the bore that a measured piston asks for at 20 °C, and what a gauge true at 20 °C reads at the work's. [m]

    Piston at 20 °C plus the clearance wanted; grown to the block's temperature. ISO 1 [1]_ of the module.
    """
    require_finite(clearance_20C_m=clearance_m, work_at_c=work_c)
    cold = piston.at(REFERENCE_C) + clearance_m
    return cold, cold * (1 + bore_per_k * (work_c - REFERENCE_C))


def cold_clearance(piston_m: float, running_m: float, bore: tuple[float, float], piston: tuple[float, float]) -> float:
    """Return the clearance at 20 °C that leaves another as both run.

    Parameters
    ----------
    piston_m : float
        The piston at 20 °C. [m]
    running_m : float
        The clearance wanted on the diameter as both run. [m]
    bore, piston : tuple of float
        Temperature at work and linear expansion of each. [°C], [1/K]

    Returns
    -------
    float
        On the diameter. [m] Solved from D(T) of ISO 1 [1]_ of the module.
    """
    grown = [1 + per_k * (celsius - REFERENCE_C) for celsius, per_k in (bore, piston)]
    return (piston_m * grown[1] + running_m) / grown[0] - piston_m


def swept_volume_m3(cylinders: int, bore_m: float, stroke_m: float) -> float:
    """Return the swept volume of an engine of bore and stroke in [m], n·π/4·B²·S. [m³] By definition."""
    require_not_negative(bore_m=bore_m, stroke_m=stroke_m)
    return cylinders * pi / 4 * bore_m**2 * stroke_m
