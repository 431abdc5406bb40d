"""Cut plan of one hole: how deep to cut, which shim to fit, or why it cannot be done.

The ledge is faced square to the deck at one depth; the thinnest stocked shim for which that cut
cleans up the worn ledge everywhere and leaves enough of it is chosen. The target is never moved
to save a shim.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from enum import StrEnum

import numpy as np

from vallostasis.core.counterbore.passes import Passes, count_passes
from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.notation.lengths import micrometres
from vallostasis.core.protrusion.stack import StackPart
from vallostasis.core.trail import Step, Term
from vallostasis.core.uncertainty.budget import Estimate, Shape, Source, Stated, estimate, stated, value_of, weighted
from vallostasis.core.uncertainty.decision import ROUNDING, chance_inside
from vallostasis.core.uncertainty.extremes import farthest_factor, probability_of
from vallostasis.core.uncertainty.half_widths import rectangular
from vallostasis.core.uncertainty.monte_carlo import DRAWS, draw_jointly

# A plan that lands inside less often than this is said to. Common practice, no published source.
LEAST_CHANCE = 0.9
# Name of the one error that every cut of a cutter shares.
GRADUATIONS = ("graduations",)


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
class CutParts:
    """What a cut is planned from: present depths of the ledge, flange, what lies between, and a shim's half width. [m]

    ``after`` is how surely the depth will be known once it is measured after the cut, ``pits_m`` how deep below the
    deck the bottoms of pits on the ledge lie.
    """

    depths: tuple[Estimate, ...]
    flange: StackPart
    between: tuple[StackPart, ...]
    shim_standard_m: float
    after: Estimate
    pits_m: tuple[float, ...] = ()

    @property
    def depths_m(self) -> tuple[float, ...]:
        """Present depths. [m]"""
        return tuple(value_of(one) for one in self.depths)

    @property
    def flange_m(self) -> float:
        """Thickness of the flange. [m]"""
        return self.flange.size_m

    @property
    def between_m(self) -> float:
        """Thickness of all that lies between deck and measuring face. [m]"""
        return sum(one.size_m for one in self.between)

    def shim(self, shim_m: float) -> Estimate:
        """A shim of a size, with what is not known of it. [m]"""
        source = Source("shim", self.shim_standard_m, shape=Shape.RECTANGULAR, basis="nominal size, not measured",
                        error=("planned shim", self.flange.name))  # fmt: skip
        return estimate(shim_m, (source,))


class Caution(StrEnum):
    """What a plan that can be made still has against it."""

    CHANCE = "it lands inside less often than nine times in ten by the stop alone: measure before it is fitted"
    WITHOUT_PART_PASS = "stopped at the last whole pass the liner stands outside the limits: the part pass is needed"
    NEIGHBOUR = "the difference to a neighbour would be more than the card allows"
    NEIGHBOUR_UNSURE = "the difference to a neighbour may be more than the card allows: it is too near to tell"


@dataclass(frozen=True, slots=True)
class CutPlan:
    """A cut that can be made. Lengths in m, depths from the deck downwards.

    ``by_stop`` and ``by_gauge`` state the protrusion: while only the stop says how deep the cut is, and once the depth
    is measured.
    """

    shim_m: float
    depth_m: float
    cuts_m: tuple[float, ...]
    from_touch_off_m: float
    passes: Passes
    without_part_pass_m: float
    by_stop: Stated
    by_stop_estimate: Estimate
    by_gauge: Stated
    by_gauge_estimate: Estimate
    depth_by_stop: Stated
    chance_by_stop: float
    cautions: tuple[Caution, ...]
    trail: tuple[Step, ...]

    @property
    def protrusion_m(self) -> float:
        """Protrusion that the plan aims at. [m]"""
        return self.by_stop.value_m


class Shortfall(StrEnum):
    """What a shim size falls short of."""

    CLEAN_UP = "clean-up at the deepest spot"
    PIT = "depth that takes the deepest pit"
    LEDGE = "depth that the ledge allows"


@dataclass(frozen=True, slots=True)
class TriedShim:
    """A size that does not do: what falls short, what it would be, what is needed. [m]"""

    shim_m: float
    what: Shortfall
    value_m: float
    needed_m: float


@dataclass(frozen=True, slots=True)
class CutRefusal:
    """Why no cut and shim can be planned, size by size."""

    reason: str
    tried: tuple[TriedShim, ...] = ()


def plan_cut(
    parts: CutParts,
    shims_m: tuple[float, ...],
    limits: SeatLimits,
    cutter: CutterTrust,
    coverage_factor: float = 2.0,
) -> CutPlan | CutRefusal:
    """Choose depth and shim for one hole.

    Parameters
    ----------
    parts : CutParts
        What it is planned from. [m]
    shims_m : tuple of float
        Thicknesses that can be had, in any order. [m]
    limits : SeatLimits
        With-shim window, target, clean-up and greatest depth. [m]
    cutter : CutterTrust
        How truly the cutter stops. [m]
    coverage_factor : float
        k.

    Returns
    -------
    CutPlan or CutRefusal
        The thinnest shim for which every position is cut by at least the clean-up, no pit is left and the depth is
        not exceeded; otherwise the reason for each size.

    Raises
    ------
    OutOfDomain
        If there is no depth reading, a value is not finite, or the target lies outside the window.

    Notes
    -----
    Required depth D = f + s − t − P*; cut at a position = D − present depth there; setting from
    touch-off = D − least present depth: common practice, no published source.
    """
    depths_m = parts.depths_m
    check_inputs(depths_m, parts.flange_m, parts.between_m, shims_m, limits)
    if not shims_m:
        return CutRefusal("No shim can be had: enter stock on the spec card or order shims.", ())
    tried: list[TriedShim] = []
    for shim in sorted(set(shims_m)):
        depth = parts.flange_m + shim - parts.between_m - limits.target_m
        least_cut = depth - max(depths_m)
        if least_cut < limits.cleanup_m - ROUNDING:
            tried.append(TriedShim(shim, Shortfall.CLEAN_UP, least_cut, limits.cleanup_m))
            continue
        if parts.pits_m and depth < max(parts.pits_m) - ROUNDING:
            tried.append(TriedShim(shim, Shortfall.PIT, depth, max(parts.pits_m)))
            continue
        if limits.greatest_depth_m is not None and depth > limits.greatest_depth_m + ROUNDING:
            tried.append(TriedShim(shim, Shortfall.LEDGE, depth, limits.greatest_depth_m))
            continue
        return landed(cut_to(shim, depth, parts, limits, cutter, coverage_factor), limits, coverage_factor)
    return CutRefusal(_why_none(tried), tuple(tried))


def depth_by_the_stop(
    depth_m: float, depths: Sequence[Estimate], cutter: CutterTrust, coverage_factor: float
) -> Estimate:
    """Depth that a cut reaches while only the stop says so, with what is not known of it.

    Parameters
    ----------
    depth_m : float
        Depth that the stop was set for, from the deck. [m]
    depths : sequence of Estimate
        Present depths; the cutter is set from the highest of them. [m]
    cutter : CutterTrust
        How truly it stops. [m]
    coverage_factor : float
        k, for which the highest of several readings is taken.

    Returns
    -------
    Estimate
        Depth from the deck. [m]

    Raises
    ------
    OutOfDomain
        If an input is negative or not finite.

    Notes
    -----
    The cutter touches the highest spot and goes on by the setting: an error of the depth read there, the stop's
    accuracy and the graduations' error over the cut, each as a rectangular half width (GUM 4.3.7). Of several readings
    the highest is the one scatter has lifted most: its own part counts by extremes.farthest_factor.
    """
    values = [value_of(one) for one in depths]
    cut = depth_m - min(values)
    touched = depths[values.index(min(values))]
    lifted = farthest_factor(len(values), coverage_factor) / coverage_factor
    errors = {
        name: (source, weight if source.shared else weight * lifted)
        for name, (source, weight) in touched.errors.items()
    }
    # Float noise of a difference that is nought.
    require_not_negative(cut=max(cut, 0.0) if cut > -ROUNDING else cut)
    stop = (
        Source("stop of the cutter", rectangular(cutter.stop_accuracy_m), shape=Shape.RECTANGULAR,
               basis="accuracy on the card", error=("stop", depth_m)),
    )  # fmt: skip
    # What a graduation is off is so in every hole that this cutter cuts, as a share of each cut.
    share = Source("graduations of the cutter", rectangular(cutter.graduation_error), unit="1",
                   shape=Shape.RECTANGULAR, basis="share of the cut", error=GRADUATIONS)  # fmt: skip
    stopped = estimate(0.0, stop)
    if cutter.graduation_error > 0:
        stopped = Estimate(0.0, {**stopped.errors, GRADUATIONS: (share, max(cut, 0.0))})
    # Half of a move of the zero is off what was read there; it is so of what is cut from it.
    from_there = depth_m + touched.value_m - min(values)
    return weighted(((1.0, replace(touched, value_m=from_there, errors=errors)), (1.0, stopped)))


def check_inputs(
    depths_m: tuple[float, ...], flange_m: float, between_m: float, shims_m: tuple[float, ...], limits: SeatLimits
) -> None:
    """Refuse what no cut can be planned from.

    Raises
    ------
    OutOfDomain
        Naming what is missing or cannot be. [m]
    """
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


def cut_to(shim: float, depth: float, parts: CutParts, limits: SeatLimits, cutter: CutterTrust, k: float) -> CutPlan:
    """Say what a cut to a depth with a shim gives, whatever it was aimed at. [m] The sum of the stack; GUM 5.1.2."""
    cuts = tuple(depth - present for present in parts.depths_m)
    touch_off = max(max(cuts), 0.0)
    passes = count_passes(micrometres(touch_off), micrometres(cutter.graduation_m))
    stack = [(1.0, parts.flange.estimate), (1.0, parts.shim(shim)), *((-1.0, one.estimate) for one in parts.between)]
    # A move of the flange gauge's zero is taken off in the depth that was planned: it is stated there.
    at_depth = depth_by_the_stop(depth, parts.depths, cutter, k)
    by_stop = weighted((*stack, (-1.0, at_depth)))
    measured = weighted((*stack, (-1.0, replace(parts.after, value_m=depth))))
    protrusion = stated("protrusion by the stop", by_stop, k)
    without = protrusion.value_m + float(passes.rest_um / Decimal(1_000_000))
    chance = chance_inside(protrusion.value_m, protrusion.standard_m, limits.least_m, limits.greatest_m)
    cautions = [Caution.WITHOUT_PART_PASS] if without > limits.greatest_m + ROUNDING else []
    return CutPlan(
        shim_m=shim,
        depth_m=depth,
        cuts_m=cuts,
        from_touch_off_m=touch_off,
        passes=passes,
        without_part_pass_m=without,
        by_stop=protrusion,
        by_stop_estimate=by_stop,
        by_gauge=stated("protrusion once the ledge is measured", measured, k),
        by_gauge_estimate=measured,
        depth_by_stop=stated("depth by the stop", at_depth, k),
        chance_by_stop=chance,
        cautions=tuple(cautions),
        trail=_trail(shim, depth, parts, limits, cuts),
    )


def landed(plan: CutPlan, limits: SeatLimits, coverage_factor: float) -> CutPlan:
    """Say how far a cut lands from where it is aimed while only the stop says so, by drawing it.

    Parameters
    ----------
    plan : CutPlan
        The cut, its ± as k·u.
    limits : SeatLimits
        The window that it has to land in. [m]
    coverage_factor : float
        k, for whose probability the ± is taken.

    Returns
    -------
    CutPlan
        The same cut with ±, chance and cautions as they were drawn. [m], [1]

    Notes
    -----
    A stop is as good as its ±, no better and no worse, in every place of it: k·u of such errors covers too much, the
    drawn interval as much as it says. JCGM 101:2008, 7.7.
    """
    by_stop, bounds = plan.by_stop, sum(one.half_width_m for one in plan.by_stop.budget.bounds)
    drawn = draw_jointly([plan.by_stop_estimate], DRAWS)[:, 0]
    half = float(np.quantile(np.abs(drawn - by_stop.value_m), probability_of(coverage_factor)))
    coverage = coverage_factor if by_stop.standard_m == 0 else max(0.0, half - bounds) / by_stop.standard_m
    chance = float(np.mean((drawn >= limits.least_m - ROUNDING) & (drawn <= limits.greatest_m + ROUNDING)))
    return replace(
        plan,
        by_stop=replace(by_stop, budget=replace(by_stop.budget, coverage=coverage)),
        chance_by_stop=chance,
        cautions=((Caution.CHANCE,) if chance < LEAST_CHANCE else ()) + plan.cautions,
    )


def _trail(shim: float, depth: float, parts: CutParts, limits: SeatLimits, cuts: tuple[float, ...]) -> tuple[Step, ...]:
    flange_m, between_m, depths_m = parts.flange_m, parts.between_m, parts.depths_m
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
    if all(shim.what is Shortfall.CLEAN_UP for shim in tried):
        return "No shim that can be had is thick enough to let the cut clean up the ledge."
    if all(shim.what in (Shortfall.CLEAN_UP, Shortfall.PIT) for shim in tried):
        return "No shim that can be had is thick enough to let the cut take the pit in the ledge."
    return "No shim lets the cut clean up the ledge and leave enough of it: consider a repair insert."
