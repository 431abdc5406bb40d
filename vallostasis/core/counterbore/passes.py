"""Counting the passes of a cutter in exact decimals: floats find a pass too many."""

from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.errors import OutOfDomain


@dataclass(frozen=True, slots=True)
class Passes:
    """Whole graduations and the part pass that is left. [µm]"""

    whole: int
    rest_um: Decimal


def count_passes(cut_um: Decimal, graduation_um: Decimal) -> Passes:
    """Split a cut into whole graduations and a last part pass.

    Parameters
    ----------
    cut_um, graduation_um : Decimal
        Depth to cut from the highest spot, and one graduation. [µm]

    Returns
    -------
    Passes
        8.15 thou at 1 thou a graduation is 8 passes and 0.15 thou.

    Raises
    ------
    OutOfDomain
        If the cut is negative or the graduation is not positive.

    Notes
    -----
    Exact decimal division: in floats (0.357 − 0.351)/0.001 rounds up to 7 passes instead of 6.
    """
    if cut_um < 0:
        raise OutOfDomain(f"a cut cannot be negative, it is {cut_um} µm", "cut_um")
    if graduation_um <= 0:
        raise OutOfDomain(f"a graduation must be positive, it is {graduation_um} µm", "graduation_um")
    return Passes(int(cut_um // graduation_um), cut_um % graduation_um)
