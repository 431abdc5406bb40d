"""The cross-hatch that stroke and speed leave on a wall.

References
----------
.. [1] Included angle = 2·atan(axial speed / peripheral speed): closed form, measured across the bore's circumference.
"""

from dataclasses import dataclass
from math import atan, degrees, pi, radians, tan

from vallostasis.core.errors import OutOfDomain, require_finite


@dataclass(frozen=True, slots=True)
class Hatch:
    """Speeds [m/min] and angles [deg] of a hone; ``for_45`` is how many double strokes a minute give 45°."""

    around_m_min: float
    along_m_min: float
    included_deg: float
    middle_deg: float
    for_45: float


def cycles_for(angle_deg: float, bore_m: float, rpm: float, stroke_m: float) -> float:
    """Return how many double strokes a minute [1/min] of a stroke in [m] give an included angle.

    Closed form [1]_ of the module.
    """
    return pi * bore_m * rpm * tan(radians(angle_deg / 2)) / (2 * stroke_m)


def hatch_of(bore_m: float, rpm: float, stroke_m: float, cycles_per_min: float) -> Hatch:
    """Return the cross-hatch of a hone.

    Parameters
    ----------
    bore_m, stroke_m : float
        Diameter, and how far the stones move one way. [m]
    rpm, cycles_per_min : float
        Turns, and double strokes, a minute.

    Returns
    -------
    Hatch
        At constant stroke speed; ``middle_deg`` at mid stroke where a crank drives it, π/2 as fast there.

    Raises
    ------
    OutOfDomain
        If one of them is not above nought.

    Notes
    -----
    2·atan(v_axial / v_surface), closed form [1]_ of the module.
    """
    asked = {"bore_m": bore_m, "rpm": rpm, "stroke_m": stroke_m, "cycles_per_min": cycles_per_min}
    require_finite(**asked)
    for name, value in asked.items():
        if value <= 0:
            raise OutOfDomain("a figure above nought is needed", name)
    around, along = pi * bore_m * rpm, 2 * stroke_m * cycles_per_min
    return Hatch(around, along, degrees(2 * atan(along / around)),
                 degrees(2 * atan(pi * stroke_m * cycles_per_min / around)),
                 cycles_for(45.0, bore_m, rpm, stroke_m))  # fmt: skip
