"""Causes weighed by how well they explain the residuals of all holes, and the check that would tell most a minute.

References
----------
.. [1] G. Schwarz, Estimating the dimension of a model, Ann. Statist. 6 (1978) 461: half ln n for every number fitted.
.. [2] D. V. Lindley, On a measure of the information provided by an experiment, Ann. Math. Statist. 27 (1956) 986.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations
from math import log, pi

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import lsq_linear
from scipy.special import logsumexp
from scipy.stats import norm

from vallostasis.core.causes.table import CAUSES, CHECKS, Cause, Check, Pattern
from vallostasis.core.errors import OutOfDomain

# Below so many joint standard uncertainties nothing is claimed. House rule.
CLAIMED = 3.0
# So many of the likeliest are also tried in pairs: two things at once happen. House rule.
PAIRED = 4
# Points on which what a check may read is added up. House rule.
POINTS = 400


@dataclass(frozen=True, slots=True)
class Residuals:
    """Residuals of holes along a block with their joint covariance, the makes of their liners, their shims. [m]"""

    holes: tuple[int, ...]
    values_m: tuple[float, ...]
    covariance: NDArray[np.float64]
    makes: tuple[str, ...]
    shims_m: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Explained:
    """One way to explain the residuals: causes at work, where, by how much, and how likely among all. [m], [1]"""

    causes: tuple[str, ...]
    where: tuple[tuple[int, ...], ...]
    effects_m: tuple[float, ...]
    weight: float

    @property
    def name(self) -> str:
        """Its causes together."""
        return " and ".join(self.causes)


@dataclass(frozen=True, slots=True)
class NextCheck:
    """A check, at which holes, what it would tell in bits a minute, and what the weights would be after. [m], [1]"""

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


@dataclass(frozen=True, slots=True)
class Finding:
    """What a check read at some holes. [m]"""

    check: str
    where: tuple[int, ...]
    value_m: float


@dataclass(frozen=True, slots=True)
class _Candidate:
    """One cause at one place, as a column of the model, with the share of its prior."""

    cause: Cause
    where: tuple[int, ...]
    column: NDArray[np.float64]
    low_m: float
    high_m: float
    prior: float


def check_residuals(residuals: Residuals) -> None:
    """Refuse what cannot be weighed.

    Raises
    ------
    OutOfDomain
        If there is no hole, the lengths differ, or the covariance is none.
    """
    count = len(residuals.holes)
    if count < 2:
        raise OutOfDomain("a pattern takes two holes at least", "holes")
    if residuals.covariance.shape != (count, count) or np.linalg.eigvalsh(residuals.covariance).min() <= 0:
        raise OutOfDomain("the uncertainties of the holes make no covariance: each needs some of its own", "holes")


def far_off(residuals: Residuals) -> float:
    """Return how many joint standard uncertainties the residuals are from nought in the worst direction of all. [1]

    The greatest single one, or their weighted mean: GUM 5.2.2.
    """
    own = np.abs(residuals.values_m) / np.sqrt(np.diag(residuals.covariance))
    inverse = np.linalg.inv(residuals.covariance)
    mean_u = 1 / np.sqrt(inverse.sum())
    mean = float(inverse.sum(axis=0) @ np.array(residuals.values_m)) * mean_u**2
    return float(max(own.max(), abs(mean) / mean_u))


def weigh(
    residuals: Residuals, findings: Sequence[Finding] = (), causes: Sequence[Cause] = CAUSES,
    checks: Sequence[Check] = CHECKS,
) -> tuple[Explained, ...]:  # fmt: skip
    """Weigh causes by how well they explain the residuals of all holes.

    Parameters
    ----------
    residuals : Residuals
        As read less as the parts say. [m]
    findings : sequence of Finding
        What checks have read since. [m]
    causes, checks : sequence
        What is known.

    Returns
    -------
    tuple of Explained
        The likeliest first, their weights summing to one.

    Raises
    ------
    OutOfDomain
        If there is no pattern to be seen, or a finding names no check.

    Notes
    -----
    Each cause is r = Xβ + ε with the joint covariance of the readings and β within the bounds of the cause; its score
    is the greatest log-likelihood less half ln n for every number fitted [1]_ plus the log of its prior, shared evenly
    among the places where it could be; weights are exp(score), normalised; the likeliest are also tried in pairs.
    """
    check_residuals(residuals)
    known = {one.name: one for one in checks}
    if any(one.check not in known for one in findings):
        raise OutOfDomain("a finding names a check that is not in the table", "findings")
    singles: list[tuple[_Candidate, ...]] = [(one,) for one in _candidates(residuals, causes)]
    scored = [(group, *_fit(residuals, group)) for group in singles]
    best = sorted((one for one in scored if one[0][0].cause.pattern is not Pattern.NONE), key=lambda one: -one[2])
    for a, b in combinations(best[:PAIRED], 2):
        group = (*a[0], *b[0])
        if a[0][0].cause is not b[0][0].cause or a[0][0].where != b[0][0].where:
            scored.append((group, *_fit(residuals, group)))
    scores = [score + sum(_log_likelihood(known[one.check], one, group, effects) for one in findings)
              for group, effects, score in scored]  # fmt: skip
    weights = np.exp(np.array(scores) - logsumexp(scores))
    found = [
        Explained(
            tuple(one.cause.name for one in group), tuple(one.where for one in group), tuple(effects), float(weight)
        )
        for (group, effects, _), weight in zip(scored, weights, strict=True)
    ]
    return tuple(sorted(found, key=lambda one: -one.weight))


def _candidates(residuals: Residuals, causes: Sequence[Cause]) -> list[_Candidate]:
    count, holes = len(residuals.holes), residuals.holes
    along = np.linspace(-1.0, 1.0, count)
    found = []
    for cause in causes:
        places: list[tuple[tuple[int, ...], NDArray[np.float64], float, float]] = []
        if cause.pattern is Pattern.NONE:
            places = [((), np.zeros(count), 0.0, 0.0)]
        elif cause.pattern is Pattern.ALL:
            places = [(holes, np.ones(count), cause.low_m, cause.high_m)]
        elif cause.pattern is Pattern.SLOPE:
            places = [(holes, along, cause.low_m, cause.high_m)]
        elif cause.pattern is Pattern.BOW:
            places = [(holes, 1 - along**2, cause.low_m, cause.high_m)]
        elif cause.pattern is Pattern.MAKE:
            for make in sorted({one for one in residuals.makes if one}):
                column = np.array([float(one == make) for one in residuals.makes])
                where = tuple(hole for hole, is_in in zip(holes, column, strict=True) if is_in)
                places.append((where, column, cause.low_m, cause.high_m))
        else:
            for at, hole in enumerate(holes):
                column = np.eye(count)[at]
                if cause.pattern is Pattern.SHIMMED and residuals.shims_m[at] <= 0:
                    continue
                shims = residuals.shims_m[at]
                low, high = (-shims, -shims) if cause.pattern is Pattern.SHIMMED else (cause.low_m, cause.high_m)
                places.append(((hole,), column, low, high))
        found += [_Candidate(cause, *place, cause.prior / len(places)) for place in places]
    return found


def _fit(residuals: Residuals, group: tuple[_Candidate, ...]) -> tuple[tuple[float, ...], float]:
    """Effects within their bounds, and the score. Least squares whitened by the covariance; [1]_ of the module."""
    half = np.linalg.cholesky(residuals.covariance)
    whitened = np.linalg.solve(half, np.array(residuals.values_m))
    fitted = [one for one in group if one.low_m < one.high_m]
    fixed = sum((one.column * one.low_m for one in group if one.low_m == one.high_m), np.zeros(len(residuals.holes)))
    rest = whitened - np.linalg.solve(half, fixed)
    effects: list[float] = []
    if fitted:
        design = np.linalg.solve(half, np.column_stack([one.column for one in fitted]))
        bounds = ([one.low_m for one in fitted], [one.high_m for one in fitted])
        # Metres are tiny for the solver's own tolerances: micrometres are not.
        solved = lsq_linear(design * 1e-6, rest, (np.array(bounds[0]) * 1e6, np.array(bounds[1]) * 1e6))
        effects = [float(one) * 1e-6 for one in solved.x]
        rest = rest - design @ np.array(effects)
    likelihood = -0.5 * float(rest @ rest) - float(np.log(np.diag(half)).sum()) - len(rest) / 2 * log(2 * pi)
    score = likelihood - len(fitted) / 2 * log(len(rest)) + sum(log(one.prior) for one in group)
    values = iter(effects)
    return tuple(next(values) if one.low_m < one.high_m else one.low_m for one in group), score


def _expected(check: Check, where: tuple[int, ...], one: Explained) -> float:
    """What a check reads at some holes if an explanation holds: the effect of what it finds there, else nothing. [m]"""
    return sum((effect for name, place, effect in zip(one.causes, one.where, one.effects_m, strict=True)
                if name in check.finds and set(where) <= set(place)), 0.0)  # fmt: skip


def _log_likelihood(check: Check, finding: Finding, group: tuple[_Candidate, ...], effects: tuple[float, ...]) -> float:
    one = Explained(tuple(each.cause.name for each in group), tuple(each.where for each in group), effects, 0.0)
    return float(norm.logpdf(finding.value_m, _expected(check, finding.where, one), check.standard_m))


def next_check(
    explained: Sequence[Explained], checks: Sequence[Check] = CHECKS, done: Sequence[Finding] = ()
) -> NextCheck | None:
    """Propose the check that tells most about the causes in a minute.

    Parameters
    ----------
    explained : sequence of Explained
        As weighed.
    checks : sequence of Check
        What can be done.
    done : sequence of Finding
        What was done already: nothing is proposed twice at one place.

    Returns
    -------
    NextCheck or None
        None where no check would tell a hundredth of a bit.

    Notes
    -----
    The expected drop of the entropy of the weights [2]_ over what the check may read, a mixture of normal laws added up
    on an even grid, divided by its minutes.
    """
    places = {place for one in explained for place in one.where if place}
    told = [
        found
        for check in checks
        for where in sorted(places)
        if not any(one.check == check.name and one.where == where for one in done)
        and (found := _told(check, where, explained)) is not None
    ]
    best = max(told, key=lambda one: one.bits_a_minute, default=None)
    return None if best is None or best.bits < 0.01 else best


def _entropy(weights: NDArray[np.float64]) -> NDArray[np.float64]:
    """Entropy of weights along the first axis. [bit] Shannon, by definition."""
    safe = np.where(weights > 0, weights, 1.0)
    total: NDArray[np.float64] = -(weights * np.log2(safe)).sum(axis=0)
    return total


def _told(check: Check, where: tuple[int, ...], explained: Sequence[Explained]) -> NextCheck | None:
    weights = np.array([one.weight for one in explained])
    means = np.array([_expected(check, where, one) for one in explained])
    if not np.any(means):
        return None
    width = 6 * check.standard_m
    grid = np.linspace(means.min() - width, means.max() + width, POINTS)
    density = norm.pdf(grid[None, :], means[:, None], check.standard_m) * weights[:, None]
    total = density.sum(axis=0)
    after = density / np.where(total > 0, total, 1.0)
    spent = total / total.sum()
    bits = float(_entropy(weights) - (_entropy(after) * spent).sum())
    expected = float(means[np.argmax(np.where(means != 0.0, weights, -1.0))])
    likely = [norm.pdf(value, means, check.standard_m) * weights for value in (expected, 0.0)]
    if_found, if_not = (tuple(map(float, one / one.sum())) if one.sum() > 0 else () for one in likely)
    return NextCheck(check, where, bits, expected, if_found, if_not)
