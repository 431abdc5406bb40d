"""How far stones run out of a bore at both ends, and the stroke that follows.

References
----------
.. [1] Stroke = bore + overrun at both ends - stone: closed form.
"""

from dataclasses import dataclass

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative

# A stone runs out of a bore by this share of its length. [1] Common practice, no published source.
SHARE_OUT = 1 / 3


@dataclass(frozen=True, slots=True)
class StrokePlan:
    """A stroke, and how far the stones run out above and below. [m]

    ``stop_m`` is how far above what stands below the stop block ends, None where nothing stands there.
    """

    stroke_m: float
    above_m: float
    below_m: float
    stop_m: float | None


def plan_stroke(bore_m: float, stone_m: float, free_below_m: float | None) -> StrokePlan:
    """Plan the stroke of a hone.

    Parameters
    ----------
    bore_m, stone_m : float
        Length of the bore and of the stones. [m]
    free_below_m : float or None
        How far stones may run out below before they touch what stands there, None where nothing does. [m]

    Returns
    -------
    StrokePlan
        Overrun of a third of the stone at both ends; as much above as below where something stops it below, so that
        neither end is worn more. Closed form [1]_ of the module. [m]

    Raises
    ------
    OutOfDomain
        If a length is not above nought, or the stones are longer than bore and overrun together.
    """
    require_finite(bore_m=bore_m, stone_m=stone_m)
    for name, value in (("bore_m", bore_m), ("stone_m", stone_m)):
        if value <= 0:
            raise OutOfDomain("a length above nought is needed", name)
    out = stone_m * SHARE_OUT
    if free_below_m is not None:
        require_not_negative(free_below_m=free_below_m)
        out = min(out, free_below_m)
    stroke = bore_m + 2 * out - stone_m
    if stroke <= 0:
        raise OutOfDomain("the stones are too long for this bore: take shorter ones", "stone_m")
    return StrokePlan(stroke, out, out, None if free_below_m is None else free_below_m - out)
