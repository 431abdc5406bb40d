"""How likely a planned cut lands inside while only the stop says how deep it went: hole by hole, and all together.

References
----------
.. [1] JCGM 101:2008, Supplement 1 to the GUM: propagation of distributions using a Monte Carlo method.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.block_plans.problem import BlockProblem, Choice, neighbours_of
from vallostasis.core.protrusion.rules import BetweenLimits
from vallostasis.core.uncertainty.budget import Estimate
from vallostasis.core.uncertainty.monte_carlo import DRAWS, draw_jointly


@dataclass(frozen=True, slots=True)
class BlockChance:
    """Share of cuts that land inside: of each cut hole, and of all with their neighbours; its Monte Carlo error. [1]"""

    holes: dict[int, float]
    all_inside: float
    error: float


def chance_of(problem: BlockProblem, choices: Sequence[Choice], seed: int = 1, draws: int = DRAWS) -> BlockChance:
    """Say how likely the cuts of a plan land inside by the stop alone.

    Parameters
    ----------
    problem : BlockProblem
        Holes and rules. [m]
    choices : sequence of Choice
        What is done to each hole in turn.
    seed, draws : int
        Of the random numbers.

    Returns
    -------
    BlockChance
        A hole is inside where its true protrusion keeps to the window on a shim; all are where every cut hole does and
        so do the differences and averages that a cut hole has a part in. [1]

    Notes
    -----
    Every named error is drawn once for all holes that carry it, so holes cut with one setting, or read on one zero,
    move together: JCGM 101 [1]_ of the module. For holes that share nothing the chance of all is the product.
    """
    limits = problem.rules.limits
    carried = [_by_stop(way) for way in choices]
    known = [at for at, one in enumerate(carried) if one is not None]
    drawn = draw_jointly([one for one in carried if one is not None], draws, seed)
    column = {problem.holes[at].hole: drawn[:, place] for place, at in enumerate(known)}
    cut = {hole.hole for hole, way in zip(problem.holes, choices, strict=True) if way.cut is not None}
    windows = {hole: (limits.least_m, limits.greatest_m) for hole in cut}
    inside, every = inside_together(problem.rules.heads, problem.rules.between, column, windows, cut)
    share = float(np.mean(every)) if cut else 1.0
    return BlockChance(
        {hole: float(np.mean(one)) for hole, one in sorted(inside.items())},
        share,
        sqrt(max(share * (1 - share), 1 / draws) / draws),
    )


def inside_together(
    heads: tuple[tuple[int, ...], ...],
    rules: BetweenLimits,
    column: dict[int, NDArray[np.float64]],
    windows: dict[int, tuple[float, float]],
    touched: set[int],
) -> tuple[dict[int, NDArray[np.bool_]], NDArray[np.bool_]]:
    """Say draw by draw whether each hole keeps to its window, and whether all that is touched keeps to every rule.

    Parameters
    ----------
    heads : tuple of tuple of int
        Holes under each head, neighbours beside each other.
    rules : BetweenLimits
        What holds between holes. [m]
    column : dict of int to array
        True heights that the readings allow, by hole. [m]
    windows : dict of int to tuple
        Least and greatest height of a hole. [m]
    touched : set of int
        Holes whose differences and averages count.

    Returns
    -------
    tuple of dict and array
        JCGM 101 [1]_ of the module.
    """
    inside = {hole: (column[hole] >= low) & (column[hole] <= high) for hole, (low, high) in windows.items()}
    every: NDArray[np.bool_] = np.ones(len(next(iter(column.values()))) if column else 0, dtype=bool)
    for one in inside.values():
        every &= one
    if rules.neighbour_m is not None:
        for one_hole, other in neighbours_of(heads):
            if {one_hole, other} & touched and one_hole in column and other in column:
                every &= np.abs(column[one_hole] - column[other]) <= rules.neighbour_m
    for head in heads:
        if set(head) & touched and all(number in column for number in head):
            average = np.mean([column[number] for number in head], axis=0)
            if rules.head_least_m is not None:
                every &= average >= rules.head_least_m
            if rules.head_greatest_m is not None:
                every &= average <= rules.head_greatest_m
    return inside, every


def _by_stop(way: Choice) -> Estimate | None:
    return way.protrusion if way.cut is None else way.cut.by_stop_estimate
