"""The card's rules between readings of a block: parts against reading, neighbours, average under a head.

What is judged of one hole by itself is its survey; here the rules between holes are added, and measuring.decision says
what state follows from all of them.
"""

import itertools
from dataclasses import dataclass, replace

from vallostasis.core.protrusion.stack import StackResidual
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, mean_of, stated
from vallostasis.core.uncertainty.decision import Decision, RuleKind, RuleResult, Standing, State, judge, state_of


@dataclass(frozen=True, slots=True)
class BetweenLimits:
    """Limits between holes, None where the card sets none. [m]"""

    neighbour_m: float | None = None
    head_least_m: float | None = None
    head_greatest_m: float | None = None


@dataclass(frozen=True, slots=True)
class RuleBook:
    """How a block is judged: heads by hole number, limits between holes, decision rule."""

    heads: tuple[tuple[int, ...], ...]
    limits: BetweenLimits
    acceptance: Acceptance
    coverage_factor: float


@dataclass(frozen=True, slots=True)
class MeasuredHole:
    """What is known of one hole: what it is by itself, its centre once every position is known, what the parts say.

    ``centre`` is None while a required position is missing. [m]
    """

    hole: int
    standing: Standing
    centre: Estimate | None = None
    residual: StackResidual | None = None


@dataclass(frozen=True, slots=True)
class HoleJudgement:
    """The state of a hole, why, and every rule that led to it."""

    hole: int
    state: State
    reason: str
    rules: tuple[RuleResult, ...]


@dataclass(frozen=True, slots=True)
class HeadAverage:
    """Average protrusion under one head; the result is None until every hole under it is measured. [m]"""

    holes: tuple[int, ...]
    result: RuleResult | None


@dataclass(frozen=True, slots=True)
class BlockJudgement:
    """Every hole, and every head's average."""

    holes: tuple[HoleJudgement, ...]
    heads: tuple[HeadAverage, ...]


def judge_block(holes: tuple[MeasuredHole, ...], book: RuleBook) -> BlockJudgement:
    """Judge every hole of a block.

    Parameters
    ----------
    holes : tuple of MeasuredHole
        One for each hole, in any order.
    book : RuleBook
        The card's heads, limits between holes and decision rule.

    Returns
    -------
    BlockJudgement
        State, reason and rule results of each hole, and each head's average.

    Raises
    ------
    OutOfDomain
        If a value is not finite or limits are crossed.

    Notes
    -----
    Rules between holes wait until both are fully measured; a hole is not held back by a neighbour that is not. What two
    holes share, such as the zero of one gauge, cancels in their difference by itself. House rule.
    """
    by_number = {hole.hole: hole for hole in holes}
    heads = tuple(_head_average([by_number[n] for n in head if n in by_number], book) for head in book.heads)
    between: dict[int, list[RuleResult]] = {hole.hole: [] for hole in holes}
    for average in heads:
        for number in average.holes:
            if average.result is not None:
                between[number].append(average.result)
    for head in book.heads:
        for first, second in itertools.pairwise(head):
            if first in by_number and second in by_number:
                for hole, other in ((first, second), (second, first)):
                    result = neighbour_rule(by_number[hole].centre, by_number[other].centre, other, book)
                    if result is not None:
                        between[hole].append(result)
    return BlockJudgement(tuple(_judge_hole(hole, between[hole.hole]) for hole in holes), heads)


def _judge_hole(hole: MeasuredHole, between: list[RuleResult]) -> HoleJudgement:
    rules = (*hole.standing.rules, *parts_rule(hole.residual), *between)
    state, reason = state_of(replace(hole.standing, rules=rules))
    return HoleJudgement(hole.hole, state, reason, rules)


def parts_rule(residual: StackResidual | None) -> tuple[RuleResult, ...]:
    """A reading that the parts cannot explain leaves the hole undecided, however good it looks."""
    if residual is None:
        return ()
    state = State.IN if residual.agrees else State.CANNOT_TELL
    return (RuleResult(RuleKind.PARTS, "", residual.stated, None, None, Decision(state, state)),)


def neighbour_rule(centre: Estimate | None, other: Estimate | None, number: int, book: RuleBook) -> RuleResult | None:
    """Hold the difference to the neighbour of that number against its limit; None while one is not measured.

    GUM F.1.2.3.
    """
    limit = book.limits.neighbour_m
    if limit is None or centre is None or other is None:
        return None
    apart = stated(f"difference to hole {number}", difference_of(centre, other), book.coverage_factor)
    value = Stated(abs(apart.value_m), apart.budget)
    return judge(RuleKind.NEIGHBOUR, f"hole {number}", value, (None, limit), book.acceptance)


def _head_average(holes: list[MeasuredHole], book: RuleBook) -> HeadAverage:
    numbers = tuple(hole.hole for hole in holes)
    limits = (book.limits.head_least_m, book.limits.head_greatest_m)
    centres = [hole.centre for hole in holes if hole.centre is not None]
    if len(centres) < len(holes) or not holes or limits == (None, None):
        return HeadAverage(numbers, None)
    where = f"holes {', '.join(str(number) for number in numbers)}"
    value = stated("average under one head", mean_of(centres), book.coverage_factor)
    return HeadAverage(numbers, judge(RuleKind.HEAD_AVERAGE, where, value, limits, book.acceptance))
