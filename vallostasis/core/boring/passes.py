"""How many passes a bore takes, each with its cut, and how long one lasts. Exact decimals in µm on the diameter.

References
----------
.. [1] Time = length / (feed · speed): closed form; the way back is not counted.
"""

from dataclasses import dataclass
from decimal import ROUND_CEILING, Decimal

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative


@dataclass(frozen=True, slots=True)
class PassPlan:
    """Passes from a size to another, all on the diameter. [µm]

    ``rough`` equal cuts and one finish pass; ``equal_um`` is one of the rough ones, ``finish_um`` the last.
    """

    to_go_um: Decimal
    rough: int
    equal_um: Decimal
    finish_um: Decimal

    @property
    def total(self) -> int:
        """All passes, the finish pass counted."""
        return self.rough + (1 if self.to_go_um > 0 else 0)

    @property
    def dials_um(self) -> tuple[Decimal, ...]:
        """What the dial is advanced for each, a side: half of it. [µm] By definition."""
        cuts = [self.equal_um / 2] * self.rough
        return tuple([*cuts, self.finish_um / 2] if self.to_go_um > 0 else cuts)


def plan_passes(start_um: Decimal, finish_um: Decimal, most_a_side_um: Decimal, last_um: Decimal) -> PassPlan:
    """Split what is to go into equal cuts and a finish pass.

    Parameters
    ----------
    start_um, finish_um : Decimal
        Diameter now, and wanted. [µm]
    most_a_side_um : Decimal
        The deepest cut, on the radius: it counts twice. [µm]
    last_um : Decimal
        What the finish pass takes, on the diameter. [µm]

    Returns
    -------
    PassPlan
        Where no more is to go than the finish pass takes, it takes all. [µm]

    Raises
    ------
    OutOfDomain
        If a bore is to become smaller, or a cut is not above nought.

    Notes
    -----
    ⌈(to go − last) / (2 · deepest)⌉ equal cuts, so that the last can be corrected. Common practice, no published
    source.
    """
    to_go = finish_um - start_um
    if to_go < 0:
        raise OutOfDomain("boring makes a bore larger: the finished size lies below the present one",
                          "finish_diameter_m")  # fmt: skip
    if most_a_side_um <= 0:
        raise OutOfDomain("the deepest cut is above nought", "max_depth_of_cut_on_radius_m")
    if last_um < 0:
        raise OutOfDomain("the finish pass takes nought or more", "finish_pass_on_diameter_m")
    if to_go <= last_um:
        return PassPlan(to_go, 0, Decimal(0), to_go)
    rough = int(((to_go - last_um) / (2 * most_a_side_um)).to_integral_value(ROUND_CEILING))
    return PassPlan(to_go, rough, (to_go - last_um) / rough, last_um)


def pass_time_s(length_m: float, overrun_m: float, feed_m: float, rpm: float) -> float:
    """Return how long one pass of a boring bar takes. [s]

    Parameters
    ----------
    length_m, overrun_m : float
        Length of the bore, and how far the bar runs on. [m]
    feed_m : float
        Feed a turn. [m]
    rpm : float
        Turns a minute.

    Returns
    -------
    float
        (length + overrun) / (feed · speed), closed form [1]_ of the module. [s]

    Raises
    ------
    OutOfDomain
        If feed or speed are not above nought.
    """
    require_finite(feed_per_rev_m=feed_m, rpm=rpm)
    require_not_negative(length_m=length_m, overrun_m=overrun_m)
    for name, value in (("feed_per_rev_m", feed_m), ("rpm", rpm)):
        if value <= 0:
            raise OutOfDomain("a figure above nought is needed", name)
    return (length_m + overrun_m) / (feed_m * rpm) * 60
