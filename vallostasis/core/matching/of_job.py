"""Who goes where on the block of a job: the best arrangement of its liners, the moves to it, how likely it passes.

What is wished of an arrangement is common practice, no published source.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from vallostasis.core.block_plans.chance import inside_together
from vallostasis.core.block_plans.problem import Choice, nanometres
from vallostasis.core.matching.problem import Goal, HeadWindow, Matching, Rows, ShimSize
from vallostasis.core.matching.solver import Matched, match
from vallostasis.core.matching.ways import PRESS, PROTRUSION, Stands, Ways, ways_of
from vallostasis.core.protrusion.measured import rule_book
from vallostasis.core.protrusion.rules import RuleBook
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, mean_of, stated
from vallostasis.core.uncertainty.decision import State
from vallostasis.core.uncertainty.monte_carlo import DRAWS, draw_jointly

# What is made small where nothing else is wished, by what the liners come to.
USUAL: dict[str, tuple[Goal, ...]] = {
    PROTRUSION: (Goal.OUTSIDE, Goal.RULES, Goal.CUTS, Goal.ORDERS, Goal.MOVES, Goal.ADJACENT, Goal.SPREAD, Goal.PRICE),
    PRESS: (Goal.OUTSIDE, Goal.HONING, Goal.SPREAD, Goal.MOVES),
}


@dataclass(frozen=True, slots=True)
class MatchWishes:
    """Holes whose liner stays, the goals in their order, and whether holes may be cut and shimmed."""

    locked: frozenset[int] = frozenset()
    goals: tuple[Goal, ...] = ()
    cuts: bool = True


@dataclass(frozen=True, slots=True)
class MatchedHole:
    """A hole: every liner in it, the one in it now and the one that goes there, cut for it or not; how it stands then.

    ``state`` is None where it is cut first: nothing is known until its ledge is read; ``chance`` is that it is in. [m]
    """

    hole: int
    ways: tuple[Stands, ...]
    now: str | None
    then: str
    locked: bool
    cut: Choice | None
    stands: Stated
    state: State | None
    chance: float

    @property
    def shim_m(self) -> float | None:
        """The shim it is cut for; None where it is not cut. [m]"""
        return None if self.cut is None or self.cut.cut is None else self.cut.cut.shim_m


@dataclass(frozen=True, slots=True)
class Move:
    """One step of the tray list: a liner from a hole or the bench, None, to a hole or the bench, None."""

    liner: str
    from_hole: int | None
    to_hole: int | None


@dataclass(frozen=True, slots=True)
class BlockMatching:
    """The best arrangement of a block: every goal, its moves, the chance that all of it passes, and its problem.

    ``unlocked`` is what every goal came to if no liner were locked.
    """

    table: Ways
    problem: Matching
    holes: tuple[MatchedHole, ...]
    matched: Matched
    moves: tuple[Move, ...]
    chance: float
    unlocked: Matched | None

    @property
    def order(self) -> tuple[str, ...]:
        """Liner of each hole in turn."""
        return tuple(one.then for one in self.holes)


def matching_of(facts: JobFacts, wishes: MatchWishes = MatchWishes()) -> BlockMatching | str:
    """Match the liners of a job to its holes.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    wishes : MatchWishes
        What was decided before.

    Returns
    -------
    BlockMatching or str
        Or why nothing can be matched yet. Sum of the stack by parts as read; house rule. [m]
    """
    table = ways_of(facts)
    if isinstance(table, str):
        return table
    book = rule_book(facts.card)
    goals = goals_in_order(wishes.goals, usual_goals(table))
    with_cuts = problem_of(table, book, wishes.locked)
    problem = with_cuts
    if not wishes.cuts or table.cutting is None:
        problem = replace(with_cuts, target_nm=None, shims=(), cut_on=())
        goals = tuple(one for one in goals if one not in (Goal.CUTS, Goal.ORDERS, Goal.PRICE))
    found = match(problem, goals)
    unlocked = match(replace(problem, locked=()), goals) if any(problem.locked) else None
    chances, chance = _chances(table, book, found)
    holes = tuple(_hole(table, problem, found, at, chances[at]) for at in problem.holes)
    return BlockMatching(table, problem, holes, found, moves_of(holes), chance, unlocked)


def usual_goals(table: Ways) -> tuple[Goal, ...]:
    """Return what is made small where nothing else is wished; letters come right after what is in. House rule.

    Size grades are read before anything is honed: once it is, a better match is spent.
    """
    usual = USUAL[table.of]
    if not table.graded:
        return usual
    at = usual.index(Goal.MOVES)
    return (*usual[:at], Goal.GRADES, *usual[at:]) if table.of == PROTRUSION else (usual[0], Goal.GRADES, *usual[1:])


def goals_in_order(wished: tuple[Goal, ...], usual: tuple[Goal, ...]) -> tuple[Goal, ...]:
    """Return the goals as they were wished, and those that were not named: what is in first, cuts right after it.

    Nobody who put evenness first while nothing was cut wanted a cut for it. House rule.
    """
    named = [one for one in wished if one in usual]
    if not named:
        return usual
    if Goal.OUTSIDE not in named:
        named.insert(0, Goal.OUTSIDE)
    cuts = [one for one in (Goal.CUTS, Goal.ORDERS) if one in usual and one not in named]
    after = named.index(Goal.OUTSIDE) + 1
    named[after:after] = cuts
    return (*named, *(one for one in usual if one not in named))


def problem_of(table: Ways, book: RuleBook, locked: frozenset[int]) -> Matching:
    """Turn what was read into whole nanometres, limits between holes drawn in by their ±. [m] House rule."""
    holes, marks = table.holes, [one.mark for one in table.liners]
    places = {hole.number: at for at, hole in enumerate(holes)}
    heads = book.heads or (tuple(hole.number for hole in holes),)
    is_press, shims = table.of == PRESS, () if table.cutting is None else table.cutting.shims
    return Matching(
        (0,) * len(holes), (0,) * len(marks), 0, 0, () if is_press else rows_beside(heads, places),
        target_nm=None if table.cutting is None else nanometres(table.cutting.rules.limits.target_m),
        present=tuple(None if one is None or one not in marks else marks.index(one) for one in table.now),
        locked=tuple(hole.number in locked for hole in holes),
        heights_nm=tuple(tuple(nanometres(one.value.value_m) for one in row) for row in table.rows),
        outside=tuple(tuple(one.state is not State.IN for one in row) for row in table.rows),
        honing_nm=tuple(tuple(nanometres(one.honing_m) for one in row) for row in table.rows) if is_press else (),
        unlike=tuple(tuple(table.unlike(hole, liner) for liner in table.liners) for hole in holes)
        if table.graded else (),
        shims=tuple(ShimSize(one.stock, one.price) for one in shims),
        cut_on=_cut_on(table) if shims else (),
        neighbour_nm=None if is_press else _neighbour_nm(table, book),
        heads=() if is_press else _heads(table, book, places),
    )  # fmt: skip


def _cut_on(table: Ways) -> Rows[tuple[int, ...]]:
    return tuple(tuple(tuple(way.shim for way in one.cuts if way.shim is not None) for one in row)
                 for row in table.rows)  # fmt: skip


def rows_beside(heads: tuple[tuple[int, ...], ...], places: dict[int, int]) -> Rows[int]:
    """Rows of holes beside each other: where one is left out, those beyond it are no neighbours. By definition."""
    rows: list[list[int]] = []
    for head in heads:
        rows.append([])
        for number in head:
            if number in places:
                rows[-1].append(places[number])
            else:
                rows.append([])
    return tuple(tuple(row) for row in rows if row)


def _samples(row: Sequence[Stands]) -> list[Estimate]:
    """What a hole can stand as: left as it is, and cut, one of each."""
    cuts = [way.protrusion for one in row for way in one.cuts[:1] if way.protrusion is not None]
    return [row[0].estimate, row[-1].estimate, *cuts[:1]]


def _neighbour_nm(table: Ways, book: RuleBook) -> int | None:
    """The most that two neighbours may differ by, drawn in by the greatest ± of a difference. [nm] ISO 14253-1."""
    limit = book.limits.neighbour_m
    if limit is None:
        return None
    guard = 0.0
    if book.acceptance is Acceptance.GUARDED:
        some = [_samples(row) for row in table.rows]
        guard = max((stated("difference", difference_of(a, b), book.coverage_factor).expanded_m
                     for one, other in pairwise(some) for a in one for b in other),
                    default=0.0)  # fmt: skip
    return max(0, nanometres(limit - guard))


def _heads(table: Ways, book: RuleBook, places: dict[int, int]) -> tuple[HeadWindow, ...]:
    """Averages under heads whose holes are all matched, drawn in by the ± of the average. [nm] ISO 14253-1."""
    least, greatest = book.limits.head_least_m, book.limits.head_greatest_m
    if least is None and greatest is None:
        return ()
    found = []
    for head in book.heads:
        if not all(number in places for number in head):
            continue
        under = tuple(places[number] for number in head)
        average = mean_of([table.rows[at][0].estimate for at in under])
        guarded = book.acceptance is Acceptance.GUARDED
        guard = stated("head average", average, book.coverage_factor).expanded_m if guarded else 0.0
        low = -1.0 if least is None else least + guard
        high = 1.0 if greatest is None else greatest - guard
        found.append(HeadWindow(under, nanometres(low), nanometres(high)))
    return tuple(found)


def _cut_of(table: Ways, found: Matched, at: int) -> Choice | None:
    if not found.cut[at]:
        return None
    stands = table.rows[at][found.liners[at]]
    return next(way for way in stands.cuts if way.shim == found.on_shim[at])


def _hole(table: Ways, problem: Matching, found: Matched, at: int, chance: float) -> MatchedHole:
    stands, cut = table.rows[at][found.liners[at]], _cut_of(table, found, at)
    plan = None if cut is None else cut.cut
    return MatchedHole(
        table.holes[at].number, table.rows[at], table.now[at], stands.liner, problem.locked[at], cut,
        stands.value if plan is None else plan.by_stop, stands.state if plan is None else None, chance,
    )  # fmt: skip


def _chances(table: Ways, book: RuleBook, found: Matched) -> tuple[tuple[float, ...], float]:
    """How likely each hole, and all of them with what holds between them, are truly in. [1] JCGM 101, drawn jointly."""
    carried, windows = [], {}
    for at, hole in enumerate(table.holes):
        stands, cut = table.rows[at][found.liners[at]], _cut_of(table, found, at)
        carried.append(stands.estimate if cut is None or cut.cut is None else cut.cut.by_stop_estimate)
        limits = None if cut is None or table.cutting is None else table.cutting.rules.limits
        windows[hole.number] = (stands.least_m, stands.greatest_m) if limits is None else (
            limits.least_m, limits.greatest_m)  # fmt: skip
    book = replace(book, heads=()) if table.of == PRESS else book
    return chances_of([hole.number for hole in table.holes], carried, windows, book)


def chances_of(
    holes: Sequence[int], heights: Sequence[Estimate], windows: dict[int, tuple[float, float]], book: RuleBook
) -> tuple[tuple[float, ...], float]:
    """Say how likely each hole, and all of them with what holds between them, are truly in.

    Parameters
    ----------
    holes : sequence of int
        Their numbers.
    heights : sequence of Estimate
        How each stands, with every error that it carries. [m]
    windows : dict of int to tuple
        Least and greatest height by hole. [m]
    book : RuleBook
        What holds between holes. [m]

    Returns
    -------
    tuple of tuple and float
        JCGM 101:2008: every named error drawn once for all that carry it.
    """
    drawn = draw_jointly(heights, DRAWS)
    column = {number: drawn[:, at] for at, number in enumerate(holes)}
    inside, every = inside_together(book.heads, book.limits, column, windows, set(column))
    return tuple(float(np.mean(inside[number])) for number in holes), float(np.mean(every))


def moves_of(holes: Sequence[MatchedHole]) -> tuple[Move, ...]:
    """Return the moves in an order in which each hole is empty before a liner goes in: first out, then in. By hand."""
    changed = [one for one in holes if one.now != one.then]
    at_home = {one.now: one.hole for one in holes if one.now is not None}
    placed = {one.then for one in holes}
    out = [Move(one.now, one.hole, None) for one in changed if one.now is not None and one.now not in placed]
    into = [Move(one.then, at_home.get(one.then), one.hole) for one in changed]
    return (*out, *into)
