"""What a fixed cut with a fixed shim gives, depending on where the cutter was set to nought."""

from dataclasses import dataclass
from enum import StrEnum
from statistics import fmean

from vallostasis.core.counterbore.cut_plan import SeatLimits, check_inputs
from vallostasis.core.uncertainty.decision import ROUNDING


class Verdict(StrEnum):
    """How a fixed cut comes out."""

    IN = "in limits"
    BELOW = "below minimum"
    ABOVE = "above maximum"


@dataclass(frozen=True, slots=True)
class FixedCut:
    """What "cut so much, fit that shim" gives, counted from one reference on the ledge. [m]"""

    counted_from: str
    protrusion_m: float
    least_cut_m: float
    verdict: Verdict


def fixed_cut_outcomes(
    depths_m: tuple[float, ...],
    flange_m: float,
    between_m: float,
    cut_m: float,
    shim_m: float,
    limits: SeatLimits,
) -> tuple[FixedCut, ...]:
    """Say what a fixed cut and a fixed shim give, depending on where the cutter was zeroed.

    Parameters
    ----------
    depths_m, flange_m, between_m, limits
        As in plan_cut. [m]
    cut_m, shim_m : float
        The cut below the reference, and the shim fitted. [m]

    Returns
    -------
    tuple of FixedCut
        Counted from the shallowest, the mean and the deepest reading. [m]

    Raises
    ------
    OutOfDomain
        If there is no depth reading or a value is not finite.

    Notes
    -----
    "Cut 29, fit 30" gains its one thou only when the cutter was zeroed on the high spot.
    Common practice, no published source.
    """
    check_inputs(depths_m, flange_m, between_m, (shim_m,), limits)
    references = {"shallowest": min(depths_m), "mean": fmean(depths_m), "deepest": max(depths_m)}
    outcomes = []
    for name, reference in references.items():
        depth = reference + cut_m
        protrusion = flange_m + shim_m - between_m - depth
        verdict = Verdict.IN
        if protrusion < limits.least_m - ROUNDING:
            verdict = Verdict.BELOW
        elif protrusion > limits.greatest_m + ROUNDING:
            verdict = Verdict.ABOVE
        outcomes.append(FixedCut(name, protrusion, depth - max(depths_m), verdict))
    return tuple(outcomes)
