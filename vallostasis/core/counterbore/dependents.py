"""What else moves when the deck is skimmed, or a liner is shimmed: heights of the piston, and compression."""

from dataclasses import dataclass
from math import pi

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.records.spec_card import HeightKind, SpecCard

# What a skim of the deck does to a height, as a sign. Common practice, no published source.
SKIM_SIGN = {HeightKind.STAND_OUT: 1.0, HeightKind.INJECTOR: -1.0, HeightKind.VALVE: -1.0}


@dataclass(frozen=True, slots=True)
class DependentAfter:
    """One height: now, after the skim, its limits, and whether it keeps to them. [m]

    ``by_shim_m`` is what a shim under a liner does to it: nothing, but where it is the protrusion itself.
    """

    name: str
    now_m: float | None
    by_skim_m: float
    by_shim_m: float
    least_m: float | None
    greatest_m: float | None

    @property
    def after_m(self) -> float | None:
        """The height after the skim. [m] Sum."""
        return None if self.now_m is None else self.now_m + self.by_skim_m

    @property
    def keeps(self) -> bool | None:
        """Whether it keeps to its limits after the skim; None where there is no number or no limit. By its limits."""
        after = self.after_m
        if after is None or (self.least_m is None and self.greatest_m is None):
            return None
        above = self.least_m is None or after >= self.least_m
        return above and (self.greatest_m is None or after <= self.greatest_m)


def dependents_of(card: SpecCard, skim_m: float, shim_m: float = 0.0, cut_m: float = 0.0) -> tuple[DependentAfter, ...]:
    """List what a skim of the deck, or a cut with a shim, does to every height that depends on it.

    Parameters
    ----------
    card : SpecCard
        Carries the heights where they are known.
    skim_m : float
        What comes off the deck. [m]
    shim_m, cut_m : float
        Shim under a liner, and what its ledge is cut. [m]

    Returns
    -------
    tuple of DependentAfter
        Protrusion of ledge-seated liners first.

    Raises
    ------
    OutOfDomain
        If a number is not finite.

    Notes
    -----
    Skimmed by x: protrusion and piston stand-out +x, piston to injector and to valve −x. A shim s on a cut of c moves
    the liner alone, by s − c. Geometry; common practice, no published source.
    """
    require_finite(skim=skim_m, shim=shim_m, cut=cut_m)
    limits = card.limits
    first = DependentAfter("liner protrusion", None, skim_m, shim_m - cut_m,
                           limits.least_without_shim.metres, limits.greatest_without_shim.metres)  # fmt: skip
    rows = (
        DependentAfter(one.kind.value, one.present.metres, SKIM_SIGN[one.kind] * skim_m, 0.0, one.least.metres,
                       one.greatest.metres)
        for one in card.heights
    )  # fmt: skip
    return (first, *rows)


def compression_ratio(bore_m: float, stroke_m: float, clearance_volume_m3: float, skim_m: float) -> float:
    """Compression ratio after a skim of the deck whose sealing face follows it.

    Parameters
    ----------
    bore_m, stroke_m : float
        Of one cylinder. [m]
    clearance_volume_m3 : float
        Before the skim. [m³]
    skim_m : float
        What comes off. [m]

    Returns
    -------
    float
        (V_s + V_c)/V_c with V_s = π/4·B²·S and V_c less π/4·B²·x. [1]

    Raises
    ------
    OutOfDomain
        If the skim leaves no clearance volume.

    Notes
    -----
    J. B. Heywood, Internal Combustion Engine Fundamentals, section 2.2, compression ratio (from memory).
    """
    require_finite(bore=bore_m, stroke=stroke_m, clearance=clearance_volume_m3, skim=skim_m)
    area = pi / 4 * bore_m**2
    left = clearance_volume_m3 - area * skim_m
    if left <= 0:
        raise OutOfDomain("the skim leaves no clearance volume: the piston would touch the head", "skim_m")
    return (area * stroke_m + left) / left


def compression_after(card: SpecCard, skim_m: float) -> tuple[float, float] | None:
    """Return the compression ratio before and after a skim [m]; None where the card lacks stroke or volume. [1]

    By ``compression_ratio``: J. B. Heywood, Internal Combustion Engine Fundamentals (from memory).
    """
    stroke, volume = card.stroke.metres, card.clearance_volume_cm3
    if stroke is None or volume is None:
        return None
    bore = card.layout.bore.metres
    return tuple(compression_ratio(bore, stroke, volume * 1e-6, x) for x in (0.0, skim_m))  # type: ignore[return-value]
