"""What every fitting ever read says of holes and of liners: effects by least squares, and the exchange that tells most.

A reading belongs to a hole and to a liner together; only an exchange tells which of the two it is.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2 and F.1.2.3: what readings share stays shared.
.. [2] K. Chaloner, I. Verdinelli, Bayesian experimental design, Statist. Sci. 10 (1995) 273: the exchange that leaves
   the least sum of variances.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import null_space
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, stated, weighted
from vallostasis.core.uncertainty.decision import ROUNDING

# How much holes or liners of one make differ before anything is read. House rule. [m]
USUAL_SPREAD_M = 100e-6


@dataclass(frozen=True, slots=True)
class FittingRead:
    """A liner read in a hole; a hole that was cut since is another hole. [m]"""

    hole: str
    liner: str
    height: Estimate


@dataclass(frozen=True, slots=True)
class Effect:
    """What a hole or a liner adds to every reading that it has a part in, in its group. [m]"""

    name: str
    group: int
    value: Stated


@dataclass(frozen=True, slots=True)
class LeftOver:
    """What a reading is above its hole and its liner together, and whether that is more than its ±. [m]"""

    hole: str
    liner: str
    value: Stated

    @property
    def fits(self) -> bool:
        """Whether hole and liner explain it. By comparison with U."""
        return abs(self.value.value_m) <= self.value.expanded_m + ROUNDING


@dataclass(frozen=True, slots=True)
class Exchange:
    """Liners that go into holes next, and the ± of a difference of two liners before and after, on average. [m]"""

    puts: tuple[tuple[str, str], ...]
    before_m: float
    after_m: float


@dataclass(frozen=True, slots=True)
class SwapTable:
    """Effects of holes and liners; in each group the effects of its liners sum to nought, which is the free constant.

    Groups have no liner and no hole in common: between them nothing can be told. ``freedom`` counts what is read more
    than it takes.
    """

    holes: tuple[Effect, ...]
    liners: tuple[Effect, ...]
    left_over: tuple[LeftOver, ...]
    groups: int
    freedom: int


def swap_table(read: Sequence[FittingRead], coverage_factor: float = 2.0) -> SwapTable:
    """Tell holes from liners by everything that was read.

    Parameters
    ----------
    read : sequence of FittingRead
        Every fitting with its height. [m]
    coverage_factor : float
        k.

    Returns
    -------
    SwapTable
        P = h + l, least squares with the effects of the liners of a group summing to nought. [m]

    Raises
    ------
    OutOfDomain
        If nothing was read.

    Notes
    -----
    Each effect is a weighted sum of the readings, so that its ± is the joint one: what all of them share, such as a
    zero, moves the holes and no liner, GUM [1]_ of the module.
    """
    if not read:
        raise OutOfDomain("no fitting was read yet", "readings")
    holes, liners = sorted({one.hole for one in read}), sorted({one.liner for one in read})
    group = groups_of(read, holes, liners)
    weights = _weights(read, holes, liners, group)
    heights = [one.height for one in read]
    found = [weighted(zip(map(float, row), heights, strict=True)) for row in weights]
    effects = tuple(Effect(name, int(group[at]), stated(name, found[at], coverage_factor))
                    for at, name in enumerate([*holes, *liners]))  # fmt: skip
    left = tuple(
        LeftOver(one.hole, one.liner, stated("left over", difference_of(one.height, weighted(
            ((1.0, found[holes.index(one.hole)]), (1.0, found[len(holes) + liners.index(one.liner)])))),
            coverage_factor))
        for one in read
    )  # fmt: skip
    groups = int(group.max()) + 1
    freedom = len(read) - (len(holes) + len(liners) - groups)
    return SwapTable(effects[: len(holes)], effects[len(holes) :], left, groups, freedom)


def groups_of(read: Sequence[FittingRead], holes: Sequence[str], liners: Sequence[str]) -> NDArray[np.intp]:
    """Return the group of each hole and each liner: those that readings tie together. Connected parts of a graph."""
    size = len(holes) + len(liners)
    rows = [holes.index(one.hole) for one in read]
    columns = [len(holes) + liners.index(one.liner) for one in read]
    tied = coo_array((np.ones(len(read)), (rows, columns)), shape=(size, size))
    return np.asarray(connected_components(tied, directed=False)[1], dtype=np.intp)


def _design(read: Sequence[FittingRead], holes: Sequence[str], liners: Sequence[str]) -> NDArray[np.float64]:
    design = np.zeros((len(read), len(holes) + len(liners)))
    for row, one in enumerate(read):
        design[row, holes.index(one.hole)] = 1.0
        design[row, len(holes) + liners.index(one.liner)] = 1.0
    return design


def _weights(
    read: Sequence[FittingRead], holes: Sequence[str], liners: Sequence[str], group: NDArray[np.intp]
) -> NDArray[np.float64]:
    """Rows of weights that turn the readings into effects. Least squares within the constraint."""
    size = len(holes) + len(liners)
    sums = np.zeros((int(group.max()) + 1, size))
    for at in range(len(holes), size):
        sums[group[at], at] = 1.0
    within = null_space(sums)
    weights: NDArray[np.float64] = within @ np.linalg.pinv(_design(read, holes, liners) @ within)
    return weights


def next_exchange(
    read: Sequence[FittingRead], present: dict[str, str], bench: Sequence[str], own_u_m: float
) -> Exchange | None:
    """Propose what to exchange next: that which leaves holes and liners best known.

    Parameters
    ----------
    read : sequence of FittingRead
        Every fitting with its height.
    present : dict of str to str
        Liner that is in each hole now.
    bench : sequence of str
        Liners in no hole.
    own_u_m : float
        Standard uncertainty that a reading has for itself. [m]

    Returns
    -------
    Exchange or None
        Two liners exchanged, or one from the bench into a hole; None where there is nothing to exchange. [m]

    Notes
    -----
    The least sum of the variances of the differences between liners [2]_, before anything is read each within the usual
    spread of a make, house rule: so that what nothing ties together yet counts as open, not as infinite.
    """
    holes = sorted({one.hole for one in read} | set(present))
    liners = sorted({one.liner for one in read} | set(present.values()) | set(bench))
    ways: list[tuple[tuple[str, str], ...]] = [
        ((a, present[b]), (b, present[a])) for a, b in combinations(sorted(present), 2)
    ]
    ways += [((hole, liner),) for hole in sorted(present) for liner in sorted(bench)]
    known = {(one.hole, one.liner) for one in read}
    ways = [way for way in ways if not set(way) <= known]
    if not ways or len(liners) < 2:
        return None
    before = _apart_u_m([(one.hole, one.liner) for one in read], holes, liners, own_u_m)

    def after(way: tuple[tuple[str, str], ...]) -> float:
        return _apart_u_m([*((one.hole, one.liner) for one in read), *way], holes, liners, own_u_m)

    # One refit for a liner from the bench, two for an exchange: what is learned is told by the work it takes.
    best = min(ways, key=lambda way: (after(way) ** 2 - before**2) / len(way))
    return Exchange(best, 2 * before, 2 * after(best))


def _apart_u_m(pairs: Sequence[tuple[str, str]], holes: Sequence[str], liners: Sequence[str], own_u_m: float) -> float:
    """Root mean square u of the difference of two liners. [m] Normal equations with a prior, [2]_ of the module."""
    size = len(holes) + len(liners)
    design = np.zeros((len(pairs), size))
    for row, (hole, liner) in enumerate(pairs):
        design[row, holes.index(hole)] = design[row, len(holes) + liners.index(liner)] = 1.0
    precision = np.eye(size) / USUAL_SPREAD_M**2 + design.T @ design / own_u_m**2
    covariance = np.linalg.inv(precision)[len(holes) :, len(holes) :]
    count = len(liners)
    # The mean over all pairs of var(a) + var(b) − 2 cov(a, b).
    mean = 2 * (count * np.trace(covariance) - covariance.sum()) / (count * (count - 1))
    return float(np.sqrt(mean))
