"""What the cut of a whole block is decided from: holes, shims, rules, and every way in which a hole can be left or cut.

Whether a hole is in is judged as it will be once its ledge is measured; what two holes share cancels between them.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import pairwise

from vallostasis.core.counterbore.cut_plan import CutParts, CutPlan, CutterTrust, SeatLimits, cut_to
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.protrusion.rules import BetweenLimits
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.uncertainty.budget import Estimate, difference_of, mean_of, stated, value_of
from vallostasis.core.uncertainty.decision import ROUNDING, State, decide

NANOMETRES = 1e9


def nanometres(value_m: float) -> int:
    """A length as the solver counts it. [m] Rounded to whole nanometres; house rule."""
    return round(value_m * NANOMETRES)


class LockKind(StrEnum):
    """What somebody decided of a hole before the plan is made."""

    FREE = "free"
    LEAVE = "leave it"
    CUT = "cut it"


@dataclass(frozen=True, slots=True)
class HoleToPlan:
    """One hole: as it stands, what a cut of it is planned from, and what was decided of it. [m]

    ``now`` is its protrusion as read, ``state`` what the card says of it by itself. ``parts`` is None where it cannot
    be cut, with the reason.
    """

    hole: int
    now: Estimate | None
    state: State
    reason: str
    parts: CutParts | None
    why_not: str
    target_m: float
    lock: LockKind = LockKind.FREE
    lock_shim_m: float | None = None


@dataclass(frozen=True, slots=True)
class ShimStock:
    """A shim size: how many lie on the shelf, and what one costs, in hundredths of the currency. [m]"""

    size_m: float
    stock: int
    price: int = 0


@dataclass(frozen=True, slots=True)
class BlockRules:
    """What every hole keeps to, and what holds between holes under one head. [m]"""

    heads: tuple[tuple[int, ...], ...]
    limits: SeatLimits
    neighbour_m: float | None = None
    head_least_m: float | None = None
    head_greatest_m: float | None = None
    acceptance: Acceptance = Acceptance.GUARDED
    coverage_factor: float = 2.0

    @property
    def between(self) -> BetweenLimits:
        """What holds between holes, without the rest."""
        return BetweenLimits(self.neighbour_m, self.head_least_m, self.head_greatest_m)


@dataclass(frozen=True, slots=True)
class BlockProblem:
    """Everything that the plan of a block is made from; shims beyond the shelf only where they may be ordered."""

    holes: tuple[HoleToPlan, ...]
    shims: tuple[ShimStock, ...]
    rules: BlockRules
    cutter: CutterTrust
    may_order: bool = False


def check_problem(problem: BlockProblem) -> None:
    """Refuse what no block can be.

    Raises
    ------
    OutOfDomain
        Naming a hole that is there twice, a head over a hole that is not there, or an aim outside the window. [m]
    """
    numbers = [one.hole for one in problem.holes]
    if len(set(numbers)) != len(numbers):
        raise OutOfDomain("each hole is named once", "holes")
    under = [number for head in problem.rules.heads for number in head]
    if len(set(under)) != len(under) or not set(under) <= set(numbers):
        raise OutOfDomain("each hole stands under one head, and every head over holes that are there", "heads")
    limits = problem.rules.limits
    for one in problem.holes:
        if not limits.least_m <= one.target_m <= limits.greatest_m:
            raise OutOfDomain(f"the aim of hole {one.hole} lies outside the window with a shim", "target_m")


@dataclass(frozen=True, slots=True)
class Choice:
    """One way to deal with a hole: left as it is, or cut to a depth for a shim; ``open`` where it is not in then.

    ``unwanted`` where it was decided otherwise: it is taken only where nothing else can be.
    """

    cut: CutPlan | None
    shim: int | None
    open: bool
    protrusion: Estimate | None
    unwanted: bool = False

    @property
    def spent_nm(self) -> int:
        """Metal taken off the highest spot of the ledge. [nm]"""
        return 0 if self.cut is None else nanometres(self.cut.from_touch_off_m)

    @property
    def height_nm(self) -> int | None:
        """Protrusion; None where it is not known. [nm]"""
        return None if self.protrusion is None else nanometres(value_of(self.protrusion))


def leave(hole: HoleToPlan) -> Choice:
    """Return the hole as it stands. By its state."""
    return Choice(None, None, hole.state is not State.IN, hole.now)


def own_depth_m(problem: BlockProblem, hole: HoleToPlan, parts: CutParts, at: int) -> float:
    """Depth at which a hole stands at its own target on a shim, f + s − t − P*. [m] Common practice."""
    return parts.flange_m + problem.shims[at].size_m - parts.between_m - hole.target_m


def cut_with(
    problem: BlockProblem, hole: HoleToPlan, at: int, depth_m: float | None = None, as_it_is: bool = False
) -> Choice | None:
    """Return a hole cut for a shim of the list, to its own depth or to another one; None where that cannot be.

    Parameters
    ----------
    problem : BlockProblem
        Limits, shims and cutter.
    hole : HoleToPlan
        The hole.
    at : int
        Place of the shim in the list.
    depth_m : float or None
        Depth from the deck that is set for all; None for the depth of the hole's own target. [m]
    as_it_is : bool
        Whether clean-up and ledge are looked at elsewhere.

    Returns
    -------
    Choice or None
        None where the ledge would not clean up, a pit be left, or too little ledge.

    Notes
    -----
    In, where its protrusion keeps to the window with a shim, guarded by U once the ledge is measured. House rule.
    """
    parts, limits = hole.parts, problem.rules.limits
    if parts is None:
        return None
    depth = own_depth_m(problem, hole, parts, at) if depth_m is None else depth_m
    too_shallow = depth < least_depth_m(problem, parts) - ROUNDING
    too_deep = limits.greatest_depth_m is not None and depth > limits.greatest_depth_m + ROUNDING
    if (too_shallow or too_deep) and not as_it_is:
        return None
    plan = cut_to(problem.shims[at].size_m, depth, parts, limits, problem.cutter, problem.rules.coverage_factor)
    low, high = window_of(problem.rules, plan)
    inside = low - ROUNDING <= plan.by_gauge.value_m <= high + ROUNDING
    return Choice(plan, at, not inside, plan.by_gauge_estimate)


def window_of(rules: BlockRules, plan: CutPlan) -> tuple[float, float]:
    """Window that a protrusion keeps to to be in once the ledge is measured. [m] Guarded by U: ISO 14253-1."""
    guard = plan.by_gauge.expanded_m if rules.acceptance is Acceptance.GUARDED else 0.0
    return rules.limits.least_m + guard, rules.limits.greatest_m - guard


def least_depth_m(problem: BlockProblem, parts: CutParts) -> float:
    """Depth at which a ledge is clean all round and no pit is left. [m] As in ``plan_cut``; common practice."""
    clean = max(parts.depths_m) + problem.rules.limits.cleanup_m
    return max(clean, *parts.pits_m) if parts.pits_m else clean


def choices_of(problem: BlockProblem, hole: HoleToPlan) -> tuple[Choice, ...]:
    """Return every way to deal with a hole that its lock leaves, to the depth of its own target. House rule."""
    cuts = [one for at in range(len(problem.shims)) if (one := cut_with(problem, hole, at)) is not None]
    if hole.lock_shim_m is not None:
        cuts = [one for one in cuts if one.shim is not None and problem.shims[one.shim].size_m == hole.lock_shim_m]
    if hole.lock is LockKind.LEAVE:
        return (leave(hole),)
    return (replace(leave(hole), unwanted=hole.lock is LockKind.CUT), *cuts)


def neighbours_of(heads: tuple[tuple[int, ...], ...]) -> Iterator[tuple[int, int]]:
    """Pairs of holes beside each other under one head."""
    for head in heads:
        yield from pairwise(head)


def apart_m(rules: BlockRules, one: Estimate | None, other: Estimate | None) -> tuple[float, bool]:
    """Difference of two neighbours and whether it keeps to the card; nought and true while one is not known. [m]

    Guarded by the joint U: GUM F.1.2.3.
    """
    if rules.neighbour_m is None or one is None or other is None:
        return 0.0, True
    found = stated("difference of neighbours", difference_of(one, other), rules.coverage_factor)
    decision = decide(abs(found.value_m), found.expanded_m, None, rules.neighbour_m, rules.acceptance)
    return found.value_m, decision.state is State.IN


def guard_m(rules: BlockRules, difference: Estimate) -> float:
    """What a limit of a difference is drawn in by: its U, nothing where the value decides. [m] ISO 14253-1."""
    if rules.acceptance is not Acceptance.GUARDED:
        return 0.0
    return stated("difference of neighbours", difference, rules.coverage_factor).expanded_m


def head_window(rules: BlockRules, choices: list[tuple[Choice, ...]]) -> tuple[float, float] | None:
    """Return what the average under a head keeps to: its limits drawn in by U; None where the card sets none. [m]

    Notes
    -----
    U of the average with every hole cut, or with every hole left, the greater of the two: house rule.
    """
    if rules.head_least_m is None and rules.head_greatest_m is None:
        return None
    guard = 0.0
    if rules.acceptance is Acceptance.GUARDED:
        for pick in (0, -1):
            known = [ways[pick].protrusion for ways in choices]
            found = [one for one in known if one is not None]
            if len(found) == len(choices):
                guard = max(guard, stated("head average", mean_of(found), rules.coverage_factor).expanded_m)
    low = -1.0 if rules.head_least_m is None else rules.head_least_m + guard
    high = 1.0 if rules.head_greatest_m is None else rules.head_greatest_m - guard
    return low, high
