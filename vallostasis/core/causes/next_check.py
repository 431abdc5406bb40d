"""The check that tells most about the causes in a minute.

References
----------
.. [1] D. V. Lindley, On a measure of the information provided by an experiment, Ann. Math. Statist. 27 (1956) 986.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.causes.table import Check, CheckAt
from vallostasis.core.causes.weigh import Explained, Finding
from vallostasis.core.uncertainty.normal import normal_density

Array = NDArray[np.float64]

# Points on which what a check may read is added up. House rule.
POINTS = 400
# What is less likely than that moves no check. House rule. [1]
NEGLIGIBLE = 1e-5
# A check that tells less is not worth the walk. House rule. [bit]
LEAST_BITS = 0.01


@dataclass(frozen=True, slots=True)
class NextCheck:
    """A check, at which holes, what it would tell in bits, and what the weights would be after. [m], [1]

    ``if_found`` are the weights if it reads what the likeliest cause it could find would show, ``if_not`` if it reads
    nought: in the order of what was explained.
    """

    check: Check
    where: tuple[int, ...]
    bits: float
    expected_m: float
    if_found: tuple[float, ...]
    if_not: tuple[float, ...]

    @property
    def bits_a_minute(self) -> float:
        """What it tells for its time. By definition."""
        return self.bits / self.check.minutes


def checks_worth(
    explained: Sequence[Explained],
    checks: Sequence[Check],
    done: Sequence[Finding] = (),
    on_bench: Sequence[tuple[int, ...]] | None = None,
) -> tuple[NextCheck, ...]:
    """Return every check that would tell something, the one that tells most a minute first.

    Parameters
    ----------
    explained : sequence of Explained
        As weighed.
    checks : sequence of Check
        What can be done.
    done : sequence of Finding
        What was done already: nothing is proposed twice at one place.
    on_bench : sequence of tuple of int or None
        Holes of each make of which a liner lies on the bench; None where all do.

    Returns
    -------
    tuple of NextCheck
        Of holes where a check would read the same, the first.

    Notes
    -----
    The expected drop of the entropy of the weights [1]_ over what the check may read, a mixture of normal laws added up
    on an even grid, divided by its minutes.
    """
    likely = np.array([one.weight > NEGLIGIBLE for one in explained])
    told, seen = [], set()
    for check in checks:
        for where in _places(check, explained, on_bench):
            if any(one.check == check.name and one.where == where for one in done):
                continue
            reads = np.array([one.expected(check, where) for one in explained])
            same = (check.name, *np.round(reads[likely, 0] * 1e9).tolist())
            if same in seen or not np.any(reads[likely, 0]):
                continue
            seen.add(same)
            found = _worth(check, where, explained, reads)
            if found.bits >= LEAST_BITS:
                told.append(found)
    return tuple(sorted(told, key=lambda one: -one.bits_a_minute))


def _places(
    check: Check, explained: Sequence[Explained], on_bench: Sequence[tuple[int, ...]] | None
) -> Iterator[tuple[int, ...]]:
    """Where a check could be made for what it finds: the block, a make on the bench, one hole after the other."""
    if check.at is CheckAt.BLOCK:
        yield ()
        return
    found = {place for one in explained if one.weight > NEGLIGIBLE
             for cause, place in zip(one.causes, one.where, strict=True) if check.share(cause)}  # fmt: skip
    if check.at is CheckAt.BENCH:
        yield from sorted(place for place in found if on_bench is None or place in on_bench)
    else:
        yield from ((hole,) for hole in sorted({hole for place in found for hole in place}))


def entropy(weights: Array) -> Array:
    """Return the entropy of weights along the first axis. [bit] C. E. Shannon (1948), by definition."""
    safe = np.where(weights > 0, weights, 1.0)
    total: Array = -(weights * np.log2(safe)).sum(axis=0)
    return total


def _worth(check: Check, where: tuple[int, ...], explained: Sequence[Explained], reads: Array) -> NextCheck:
    weights, means, within = np.array([one.weight for one in explained]), reads[:, 0], reads[:, 1]
    some = weights > NEGLIGIBLE
    width = 6 * within[some].max()
    grid = np.linspace(means[some].min() - width, means[some].max() + width, POINTS)
    density = normal_density(grid[None, :], means[some, None], within[some, None]) * weights[some, None]
    total = density.sum(axis=0)
    after = density / np.where(total > 0, total, 1.0)
    spent = total / total.sum()
    bits = float(entropy(weights[some] / weights[some].sum()) - (entropy(after) * spent).sum())
    expected = float(means[np.argmax(np.where(means != 0.0, weights, -1.0))])
    likely = [normal_density(value, means, within) * weights for value in (expected, 0.0)]
    if_found, if_not = (tuple(map(float, one / one.sum())) if one.sum() > 0 else () for one in likely)
    return NextCheck(check, where, bits, expected, if_found, if_not)
