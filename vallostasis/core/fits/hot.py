"""A fit at temperature: liner and block each at their own, where the press vanishes, and how heights go.

References
----------
.. [1] ISO 1:2022, standard reference temperature 20 °C; free uniform expansion with a mean coefficient.
"""

from dataclasses import dataclass

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.records.temperatures import REFERENCE_C


@dataclass(frozen=True, slots=True)
class Grows:
    """How liner and block grow with temperature. [1/K]"""

    liner_per_k: float
    block_per_k: float


def press_at(press_m: float, fit_m: float, grows: Grows, liner_c: float, block_c: float,
             reference_c: float = REFERENCE_C) -> float:  # fmt: skip
    """Return the press with liner and block at temperatures of their own.

    Parameters
    ----------
    press_m : float
        Diametral press at the reference temperature, negative for a clearance. [m]
    fit_m : float
        Outside of the liner there. [m]
    grows : Grows
        Expansions.
    liner_c, block_c, reference_c : float
        Temperatures, and that of the sizes. [°C]

    Returns
    -------
    float
        Free sizes: liner d·(1 + α·ΔT) less hole (d − δ)·(1 + α·ΔT). [m] ISO 1 [1]_ of the module.
    """
    require_finite(interference=press_m, fit=fit_m, liner_c=liner_c, block_c=block_c)
    liner = fit_m * (1 + grows.liner_per_k * (liner_c - reference_c))
    return liner - (fit_m - press_m) * (1 + grows.block_per_k * (block_c - reference_c))


def vanishes_at(press_m: float, fit_m: float, grows: Grows, liner_hotter_k: float = 0.0,
                reference_c: float = REFERENCE_C) -> float | None:  # fmt: skip
    """Return the temperature of the block at which nothing of a press is left. [°C]

    Parameters
    ----------
    press_m, fit_m : float
        Press at the reference temperature and outside of the liner. [m]
    grows : Grows
        Expansions.
    liner_hotter_k : float
        How much hotter than the block the liner is. [K]
    reference_c : float
        Temperature of the sizes. [°C]

    Returns
    -------
    float or None
        None where heat does not loosen it: the block grows no more than the liner. ISO 1 [1]_ of the module.
    """
    if fit_m <= 0:
        raise OutOfDomain("a fit has a diameter above nought", "liner_od_m")
    loosens = (fit_m - press_m) * grows.block_per_k - fit_m * grows.liner_per_k
    if loosens <= 0:
        return None
    return reference_c + (press_m + fit_m * grows.liner_per_k * liner_hotter_k) / loosens


def height_change(stands_m: float, grows: Grows, liner_c: float, block_c: float) -> float:
    """Return how much higher a liner stands hot than at 20 °C. [m]

    It stands on a seat so far below the deck; between the two the block grows by its own, the liner by its own
    expansion: negative where an iron liner sinks in aluminium. ISO 1 [1]_ of the module.
    """
    return stands_m * (grows.liner_per_k * (liner_c - REFERENCE_C) - grows.block_per_k * (block_c - REFERENCE_C))


def gap_change(pitch_m: float, outside_m: float, grows: Grows, liner_c: float, block_c: float) -> float:
    """Return how much a gap between neighbouring sleeves opens hot. [m]

    The pitch grows with the block, both halves with the liners. ISO 1 [1]_ of the module.
    """
    return pitch_m * grows.block_per_k * (block_c - REFERENCE_C) - outside_m * grows.liner_per_k * (
        liner_c - REFERENCE_C
    )
