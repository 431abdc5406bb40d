"""The plan of a block by each of three rules, with everything it leads to: what each hole gets, and what stays open."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import groupby

from vallostasis.core.block_plans.chance import BlockChance, chance_of
from vallostasis.core.block_plans.problem import (
    BlockProblem,
    Choice,
    HoleToPlan,
    LockKind,
    apart_m,
    nanometres,
    neighbours_of,
)
from vallostasis.core.block_plans.solver import Solved, solve_best, solve_given, solve_one_depth
from vallostasis.core.counterbore.cut_plan import landed
from vallostasis.core.counterbore.passes import Passes
from vallostasis.core.in_turn import Reached
from vallostasis.core.uncertainty.decision import State

# Setting up at a hole and proving its ledge, and one pass with its reset. Common practice, no published source. [h]
HOURS_A_HOLE = 0.6
HOURS_A_PASS = 1 / 60


class PlanRule(StrEnum):
    """Which holes of a block are cut. Common practice, no published source."""

    ONLY_OUTSIDE = "only those outside"
    BEST = "best"
    ONE_DEPTH = "all to one depth"


@dataclass(frozen=True, slots=True)
class HoleInPlan:
    """What a plan does to one hole, whether it is in then, and the chance that its cut lands inside by the stop.

    ``place`` is its turn in the order of cutting, ``why_open`` what keeps it from being in.
    """

    hole: HoleToPlan
    choice: Choice
    chance: float | None
    why_open: str
    place: int | None

    @property
    def passes(self) -> Passes | None:
        """Passes of its cut."""
        return None if self.choice.cut is None else self.choice.cut.passes


@dataclass(frozen=True, slots=True)
class ShimUse:
    """Shims of one size that a plan needs: how many, from the shelf and to order. [m]"""

    size_m: float
    count: int
    to_order: int
    price: int


@dataclass(frozen=True, slots=True)
class BlockPlan:
    """The plan of a block by one rule. Lengths in m, prices in hundredths of the currency."""

    rule: PlanRule
    holes: tuple[HoleInPlan, ...]
    aims: tuple[Reached[str], ...]
    chance: BlockChance
    greatest_apart_m: float | None
    ledge_spent_m: float
    shims: tuple[ShimUse, ...]
    depth_m: float | None

    @property
    def order(self) -> tuple[int, ...]:
        """Holes in the order of cutting."""
        turns = sorted((one for one in self.holes if one.place is not None), key=lambda one: one.place or 0)
        return tuple(one.hole.hole for one in turns)

    @property
    def passes(self) -> int:
        """Passes of all cuts, a part pass counted as one."""
        found = [one.passes for one in self.holes if one.passes is not None]
        return sum(one.whole + (one.rest_um > 0) for one in found)

    @property
    def price(self) -> int:
        """What the shims cost together."""
        return sum(one.price for one in self.shims)

    @property
    def open_holes(self) -> tuple[HoleInPlan, ...]:
        """Holes that are not in after the plan."""
        return tuple(one for one in self.holes if one.why_open)

    @property
    def proven_best(self) -> bool:
        """Whether no plan by this rule is better."""
        return all(aim.proven for aim in self.aims)


def hours_of(plan: BlockPlan, hours_a_pass: float = HOURS_A_PASS) -> float:
    """Hours that the cuts of a plan take. [h] Set-up and proof of each hole and its passes; common practice."""
    return len(plan.order) * HOURS_A_HOLE + plan.passes * hours_a_pass


def plan_block(
    problem: BlockProblem,
    rule: PlanRule,
    obstructed: frozenset[int] = frozenset(),
    undecided_too: bool = False,
) -> BlockPlan:
    """Plan the cut of a block by one rule.

    Parameters
    ----------
    problem : BlockProblem
        Holes, shims, rules and cutter. [m]
    rule : PlanRule
        Which holes are cut.
    obstructed : frozenset of int
        Holes where the handle does not go all round: none of them is cut first.
    undecided_too : bool
        Whether *only those outside* takes those that cannot be told as well.

    Returns
    -------
    BlockPlan
        What is done to every hole, and what follows. [m]

    Raises
    ------
    OutOfDomain
        From the plans of single holes.

    Notes
    -----
    House rule; the aims stand with ``block_solver``.
    """
    depth_m = None
    if rule is PlanRule.BEST:
        solved = solve_best(problem)
    elif rule is PlanRule.ONE_DEPTH:
        solved, depth_m = solve_one_depth(problem)
    else:
        solved = solve_given(problem, [_is_outside(hole, undecided_too) for hole in problem.holes])
    limits, k = problem.rules.limits, problem.rules.coverage_factor
    ways = [way if way.cut is None else replace(way, cut=landed(way.cut, limits, k)) for way in solved.choices]
    solved = replace(solved, choices=tuple(ways))
    chance = chance_of(problem, solved.choices)
    order = cutting_order(problem.holes, solved.choices, obstructed)
    holes = tuple(
        HoleInPlan(hole, way, chance.holes.get(hole.hole), _what_keeps(problem, solved, at),
                   order.index(hole.hole) + 1 if hole.hole in order else None)
        for at, (hole, way) in enumerate(zip(problem.holes, solved.choices, strict=True))
    )  # fmt: skip
    return BlockPlan(
        rule,
        holes,
        solved.aims,
        chance,
        _greatest_apart_m(problem, solved.choices),
        sum(way.cut.from_touch_off_m for way in solved.choices if way.cut is not None),
        _shims(problem, solved.choices),
        depth_m,
    )


def _is_outside(hole: HoleToPlan, undecided_too: bool) -> bool:
    if hole.lock is LockKind.CUT:
        return True
    return hole.state is State.OUT or (undecided_too and hole.state is State.CANNOT_TELL)


def cutting_order(
    holes: Sequence[HoleToPlan], choices: Sequence[Choice], obstructed: frozenset[int]
) -> tuple[int, ...]:
    """Return the holes that are cut in the order in which they are.

    Parameters
    ----------
    holes, choices : sequence
        The holes of a block, and what is done to each in turn.
    obstructed : frozenset of int
        Holes where the handle does not go all round.

    Returns
    -------
    tuple of int
        Where the handle goes round comes first; then the setting that is kept longest, then the deepest cut.

    Notes
    -----
    The first hole is one with room for the handle, a set-up is kept for all holes of one depth, the worst comes first:
    common practice, no published source.
    """
    cut = [(hole.hole, way.cut) for hole, way in zip(holes, choices, strict=True) if way.cut is not None]
    of_depth = Counter(nanometres(plan.depth_m) for _, plan in cut)

    def turn(one: tuple[int, object]) -> tuple[bool, int, int, float, int]:
        number = one[0]
        plan = dict(cut)[number]
        depth = nanometres(plan.depth_m)
        return number in obstructed, -of_depth[depth], -depth, -plan.from_touch_off_m, number

    return tuple(number for number, _ in sorted(cut, key=turn))


def _what_keeps(problem: BlockProblem, solved: Solved, at: int) -> str:
    """Say what keeps a hole from being in after the plan; empty where it is."""
    if not solved.open[at]:
        return ""
    hole, way = problem.holes[at], solved.choices[at]
    if way.cut is None and hole.state is not State.IN:
        locked = "left as it was decided: " if hole.lock is LockKind.LEAVE else ""
        why_not = f" It cannot be cut: {hole.why_not}" if hole.why_not else ""
        return f"{locked}{hole.reason or hole.state.value}.{why_not}".replace("..", ".")
    if way.open:
        return "once measured it is too near a limit to tell, or outside"
    place = {one.hole: number for number, one in enumerate(problem.holes)}
    for pair in neighbours_of(problem.rules.heads):
        if hole.hole in pair and all(number in place for number in pair):
            other = pair[0] if pair[1] == hole.hole else pair[1]
            if not apart_m(problem.rules, way.protrusion, solved.choices[place[other]].protrusion)[1]:
                return f"the difference to hole {other} is too much, or too near to tell"
    return "the average under its head is outside, or too near to tell"


def _greatest_apart_m(problem: BlockProblem, choices: Sequence[Choice]) -> float | None:
    by_number = {hole.hole: way.height_nm for hole, way in zip(problem.holes, choices, strict=True)}
    found = []
    for one, other in neighbours_of(problem.rules.heads):
        first, second = by_number.get(one), by_number.get(other)
        if first is not None and second is not None:
            found.append(abs(first - second) / 1e9)
    return max(found, default=None)


def _shims(problem: BlockProblem, choices: Sequence[Choice]) -> tuple[ShimUse, ...]:
    taken = sorted(way.shim for way in choices if way.shim is not None)
    uses = []
    for at, group in groupby(taken):
        shim, count = problem.shims[at], len(list(group))
        uses.append(ShimUse(shim.size_m, count, max(0, count - shim.stock), count * shim.price))
    return tuple(uses)
