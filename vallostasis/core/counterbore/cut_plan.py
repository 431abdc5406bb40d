"""Cut plan of one hole: how deep to cut, which shim to fit, or why it cannot be done.

The ledge is faced square to the deck at one depth; the thinnest stocked shim for which that cut
cleans up the worn ledge everywhere and leaves enough of it is chosen. The target is never moved
to save a shim.
"""

from dataclasses import dataclass
from decimal import Decimal
from math import hypot
from statistics import fmean
from typing import Literal

from vallostasis.core.counterbore.passes import Passes, count_passes
from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.lengths import micrometres
from vallostasis.core.measuring.decision import ROUNDING, chance_inside
from vallostasis.core.measuring.uncertainty import rectangular
from vallostasis.core.trail import Step, Term


@dataclass(frozen=True, slots=True)
class SeatLimits:
    """What the cut must keep to. [m]

    ``ledge_at_nominal_m`` is the ledge left at ``counterbore_nominal_m``; greater depth takes from it.
    """

    least_m: float
    greatest_m: float
    target_m: float
    cleanup_m: float
    greatest_depth_m: float | None = None


@dataclass(frozen=True, slots=True)
class CutterTrust:
    """How truly the cutter stops: ± half widths. [m], [1]"""

    graduation_m: float
    stop_accuracy_m: float
    graduation_error: float


@dataclass(frozen=True, slots=True)
class StackTrust:
    """Standard uncertainties of the parts, and of a depth measured after the cut. [m]"""

    flange_m: float
    shim_m: float
    depth_m: float


@dataclass(frozen=True, slots=True)
class CutPlan:
    """A cut that can be made. Lengths in m, depths from the deck downwards."""

    shim_m: float
    depth_m: float
    cuts_m: tuple[float, ...]
    from_touch_off_m: float
    protrusion_m: float
    passes: Passes
    without_part_pass_m: float
    by_stop_standard_m: float
    by_gauge_standard_m: float
    chance_by_stop: float
    trail: tuple[Step, ...]


@dataclass(frozen=True, slots=True)
class TriedShim:
    """A size that does not do: what falls short, what it would be, what is needed. [m]"""

    shim_m: float
    what: Literal["clean-up at the deepest spot", "depth that the ledge allows"]
    value_m: float
    needed_m: float


@dataclass(frozen=True, slots=True)
class CutRefusal:
    """Why no cut and shim can be planned, size by size."""

    reason: str
    tried: tuple[TriedShim, ...]


@dataclass(frozen=True, slots=True)
class FixedCut:
    """What "cut so much, fit that shim" gives, counted from one reference on the ledge. [m]"""

    counted_from: str
    protrusion_m: float
    least_cut_m: float
    verdict: str


def plan_cut(
    depths_m: tuple[float, ...],
    flange_m: float,
    between_m: float,
    shims_m: tuple[float, ...],
    limits: SeatLimits,
    cutter: CutterTrust,
    trust: StackTrust,
) -> CutPlan | CutRefusal:
    """Choose depth and shim for one hole.

    Parameters
    ----------
    depths_m : tuple of float
        Present depths of the ledge, one for each position. [m]
    flange_m : float
        Flange thickness at the land on which protrusion is read. [m]
    between_m : float
        What lies between deck and measuring face. [m]
    shims_m : tuple of float
        Thicknesses that can be had, in any order. [m]
    limits : SeatLimits
        With-shim window, target, clean-up and greatest depth. [m]
    cutter, trust : CutterTrust, StackTrust
        How truly the cutter stops and the parts are known. [m]

    Returns
    -------
    CutPlan or CutRefusal
        The thinnest shim for which every position is cut by at least the clean-up and the depth is
        not exceeded; otherwise the reason for each size.

    Raises
    ------
    OutOfDomain
        If there is no depth reading, a value is not finite, or the target lies outside the window.

    Notes
    -----
    Required depth D = f + s − t − P*; cut at a position = D − present depth there; setting from
    touch-off = D − least present depth. The stop's accuracy and the error of the graduations are
    taken as rectangular half widths (GUM 4.3.7).
    """
    _check(depths_m, flange_m, between_m, shims_m, limits)
    if not shims_m:
        return CutRefusal("No shim can be had: enter stock on the spec card or order shims.", ())
    tried: list[TriedShim] = []
    for shim in sorted(set(shims_m)):
        depth = flange_m + shim - between_m - limits.target_m
        least_cut = depth - max(depths_m)
        if least_cut < limits.cleanup_m - ROUNDING:
            tried.append(TriedShim(shim, "clean-up at the deepest spot", least_cut, limits.cleanup_m))
            continue
        if limits.greatest_depth_m is not None and depth > limits.greatest_depth_m + ROUNDING:
            tried.append(TriedShim(shim, "depth that the ledge allows", depth, limits.greatest_depth_m))
            continue
        return _plan(shim, depth, depths_m, flange_m, between_m, limits, cutter, trust)
    return CutRefusal(_why_none(tried), tuple(tried))


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
    """
    _check(depths_m, flange_m, between_m, (shim_m,), limits)
    references = {"shallowest": min(depths_m), "mean": fmean(depths_m), "deepest": max(depths_m)}
    outcomes = []
    for name, reference in references.items():
        depth = reference + cut_m
        protrusion = flange_m + shim_m - between_m - depth
        verdict = "in limits"
        if protrusion < limits.least_m - ROUNDING:
            verdict = "below minimum"
        elif protrusion > limits.greatest_m + ROUNDING:
            verdict = "above maximum"
        outcomes.append(FixedCut(name, protrusion, depth - max(depths_m), verdict))
    return tuple(outcomes)


def by_stop_standard(cut_m: float, cutter: CutterTrust, trust: StackTrust) -> float:
    """Standard uncertainty of the protrusion while only the stop says how deep the cut is. [m]

    Raises
    ------
    OutOfDomain
        If an input is negative or not finite.
    """
    require_not_negative(cut=cut_m)
    return hypot(
        rectangular(cutter.stop_accuracy_m),
        rectangular(cutter.graduation_error * cut_m),
        trust.flange_m,
        trust.shim_m,
    )


def _check(
    depths_m: tuple[float, ...], flange_m: float, between_m: float, shims_m: tuple[float, ...], limits: SeatLimits
) -> None:
    if not depths_m:
        raise OutOfDomain("measure the counterbore depth first", "depths_m")
    for depth in depths_m:
        require_finite(depth=depth)
    for shim in shims_m:
        require_finite(shim=shim)
    require_finite(flange=flange_m, between=between_m, target=limits.target_m)
    require_not_negative(cleanup=limits.cleanup_m)
    if not limits.least_m <= limits.target_m <= limits.greatest_m:
        raise OutOfDomain("the target lies outside the with-shim window: correct the card", "target_m")


def _plan(
    shim: float, depth: float, depths_m: tuple[float, ...], flange_m: float, between_m: float,
    limits: SeatLimits, cutter: CutterTrust, trust: StackTrust,
) -> CutPlan:  # fmt: skip
    cuts = tuple(depth - present for present in depths_m)
    touch_off = max(cuts)
    passes = count_passes(micrometres(touch_off), micrometres(cutter.graduation_m))
    by_stop = by_stop_standard(touch_off, cutter, trust)
    protrusion = flange_m + shim - between_m - depth
    return CutPlan(
        shim_m=shim,
        depth_m=depth,
        cuts_m=cuts,
        from_touch_off_m=touch_off,
        protrusion_m=protrusion,
        passes=passes,
        without_part_pass_m=protrusion + float(passes.rest_um / Decimal(1_000_000)),
        by_stop_standard_m=by_stop,
        by_gauge_standard_m=hypot(trust.flange_m, trust.shim_m, trust.depth_m),
        chance_by_stop=chance_inside(protrusion, by_stop, limits.least_m, limits.greatest_m),
        trail=_trail(shim, depth, depths_m, flange_m, between_m, limits, cuts),
    )


def _trail(
    shim: float, depth: float, depths_m: tuple[float, ...], flange_m: float, between_m: float,
    limits: SeatLimits, cuts: tuple[float, ...],
) -> tuple[Step, ...]:  # fmt: skip
    return (
        Step("Depth of the new ledge from the deck", "D = f + s − t − P*",
             (Term("f", flange_m, "size", "flange"), Term("s", shim, "size", "shim"),
              Term("t", between_m, "size", "between deck and measuring face"),
              Term("P*", limits.target_m, "small", "target with shim")),
             Term("D", depth, "size"), "sum of the stack"),
        Step("Cut at the deepest spot, against the clean-up needed", "cut = D − deepest ≥ clean-up",
             (Term("D", depth, "size"), Term("deepest", max(depths_m), "size"),
              Term("clean-up", limits.cleanup_m, "small")),
             Term("cut", min(cuts), "small"), "clean-up from the card"),
        Step("Setting from touch-off on the highest spot", "a = D − highest",
             (Term("D", depth, "size"), Term("highest", min(depths_m), "size")),
             Term("a", max(cuts), "small"), "cut counted from the highest point of the ledge"),
    )  # fmt: skip


def _why_none(tried: list[TriedShim]) -> str:
    if all(shim.what == "clean-up at the deepest spot" for shim in tried):
        return "No shim that can be had is thick enough to let the cut clean up the ledge."
    return "No shim lets the cut clean up the ledge and leave enough of it: consider a repair insert."
