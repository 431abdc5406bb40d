"""Causes weighed by how well they explain all residuals together, and by what checks have found since.

References
----------
.. [1] G. Schwarz, Estimating the dimension of a model, Ann. Statist. 6 (1978) 461: half ln n for every number fitted.
.. [2] JCGM 100:2008 (GUM), 5.2.2: uncertainties that share errors join with their covariance.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from math import atan2, degrees, hypot, log, pi, sqrt

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import solve_triangular
from scipy.optimize import lsq_linear
from scipy.special import logsumexp

from vallostasis.core.causes.candidates import Candidate
from vallostasis.core.causes.table import Check
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.clock import turned
from vallostasis.core.uncertainty.normal import log_normal_density

Array = NDArray[np.float64]

# Below so many joint standard uncertainties nothing is claimed. House rule.
CLAIMED = 3.0
# So many of the likeliest are also tried in pairs: two things at once happen. House rule.
PAIRED = 4
# Metres are tiny for the solver's own tolerances: micrometres are not.
_UM = 1e-6


@dataclass(frozen=True, slots=True)
class Residuals:
    """Residuals with their joint covariance, and every cause that could be behind them. [m], [m²]"""

    values_m: Array
    covariance: Array
    candidates: tuple[Candidate, ...]


@dataclass(frozen=True, slots=True)
class Explained:
    """One way to explain the residuals: causes at work, where, by how much, and how likely among all. [m], [deg], [1]

    ``u_m`` is how well the residuals tell each effect; ``high_sides_deg`` is None where an effect has no direction.
    """

    causes: tuple[str, ...]
    where: tuple[tuple[int, ...], ...]
    effects_m: tuple[float, ...]
    u_m: tuple[float, ...]
    high_sides_deg: tuple[float | None, ...]
    words: tuple[str, ...]
    weight: float
    fitted_m: Array

    @property
    def name(self) -> str:
        """Its causes together."""
        return " and ".join(self.causes)

    def expected(self, check: Check, where: tuple[int, ...]) -> tuple[float, float]:
        """Return what a check would read at some holes if this holds, and how surely that is known. [m]

        Its share of the effect of every cause it finds there, nought for all others. By definition.
        """
        rows = zip(self.causes, self.where, self.effects_m, self.u_m, strict=True)
        told = [(check.share(cause), effect, u) for cause, place, effect, u in rows if set(where) <= set(place)]
        within = sqrt(sum((share * u) ** 2 for share, _, u in told) + check.standard_m**2)
        return sum((share * effect for share, effect, _ in told), 0.0), within


@dataclass(frozen=True, slots=True)
class Finding:
    """What a check read at some holes; none where it was made once for the whole block. [m]"""

    check: str
    where: tuple[int, ...]
    value_m: float


def far_off(residuals: Residuals) -> float:
    """Return how many joint standard uncertainties the residuals are off, by the pattern that shows most. [1]

    Each single reading, and each cause where it could be: the fitted effect over its own uncertainty, [2]_.
    """
    whitened, half = _whitened(residuals)
    own = np.abs(residuals.values_m) / np.sqrt(np.diag(residuals.covariance))
    most = float(own.max())
    for one in residuals.candidates:
        if one.columns.shape[1] == 0:
            continue
        design, _ = np.linalg.qr(solve_triangular(half, one.columns, lower=True))
        # A direction of one effect is as far off as one number; each more of them may be that by chance.
        most = max(most, float(np.linalg.norm(design.T @ whitened)) / sqrt(one.columns.shape[1]))
    return most


def weigh(residuals: Residuals, findings: Sequence[Finding], checks: Sequence[Check]) -> tuple[Explained, ...]:
    """Weigh causes by how well they explain all residuals, and by what checks found.

    Parameters
    ----------
    residuals : Residuals
        As read less as they ought to be. [m]
    findings : sequence of Finding
        What checks have read since. [m]
    checks : sequence of Check
        What those would show for each cause.

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
    among the places where it could be, plus the log-likelihood of every finding; weights are exp(score), normalised;
    the likeliest are also tried in pairs.
    """
    known = {one.name: one for one in checks}
    if any(one.check not in known for one in findings):
        raise OutOfDomain("a finding names a check that is not in the table", "findings")
    whitened, half = _whitened(residuals)
    scored = [_score(whitened, half, (one,), findings, known) for one in residuals.candidates]
    order = sorted(range(len(scored)), key=lambda at: -scored[at][1])
    best = [residuals.candidates[at] for at in order if residuals.candidates[at].where][:PAIRED]
    for a, b in combinations(best, 2):
        if (a.cause, a.where) != (b.cause, b.where):
            scored.append(_score(whitened, half, (a, b), findings, known))
    scores = np.array([score for _, score in scored])
    weights = np.exp(scores - logsumexp(scores))
    found = [replace(one, weight=float(weight)) for (one, _), weight in zip(scored, weights, strict=True)]
    return tuple(sorted(found, key=lambda one: -one.weight))


def _whitened(residuals: Residuals) -> tuple[Array, Array]:
    """Residuals freed of what they share, and the factor that frees them. Cholesky, from memory."""
    count = len(residuals.values_m)
    if count < 2:
        raise OutOfDomain("a pattern takes two readings at least", "holes")
    if residuals.covariance.shape != (count, count) or np.linalg.eigvalsh(residuals.covariance).min() <= 0:
        raise OutOfDomain("the uncertainties of the holes make no covariance: each needs some of its own", "holes")
    half: Array = np.asarray(np.linalg.cholesky(residuals.covariance), dtype=np.float64)
    whitened: Array = solve_triangular(half, residuals.values_m, lower=True)
    return whitened, half


def _score(
    whitened: Array, half: Array, group: tuple[Candidate, ...], findings: Sequence[Finding], known: dict[str, Check]
) -> tuple[Explained, float]:
    """Fit a group of causes within their bounds, and score it; [1]_ of the module."""
    columns = np.column_stack([one.columns for one in group])
    low = np.array([value for one in group for value in one.low_m])
    high = np.array([value for one in group for value in one.high_m])
    design, open_ = solve_triangular(half, columns, lower=True), low < high
    effects, rest = low.copy(), whitened - design[:, ~open_] @ low[~open_]
    u = np.zeros(len(low))
    if open_.any():
        inside = design[:, open_] * _UM
        effects[open_], spread = _within(inside, rest, low[open_] / _UM, high[open_] / _UM)
        rest = rest - design[:, open_] @ effects[open_]
        u[open_] = spread
    likelihood = -0.5 * float(rest @ rest) - float(np.log(np.diag(half)).sum()) - len(rest) / 2 * log(2 * pi)
    score = likelihood - int(open_.sum()) / 2 * log(len(rest)) + sum(log(one.prior) for one in group)
    told = _told(group, effects, u, columns)
    for one in findings:
        expected, within = told.expected(known[one.check], one.where)
        score += log_normal_density(one.value_m, expected, within)
    return told, score


def _within(design: Array, rest: Array, low: Array, high: Array) -> tuple[Array, Array]:
    """Effects within their bounds by least squares, and how surely each is told. [m] Normal equations, from memory.

    A single one that lies outside stops at its bound; only several at once need the solver.
    """
    spread = np.linalg.pinv(design.T @ design)
    free = spread @ (design.T @ rest)
    if len(free) == 1:
        free = np.clip(free, low, high)
    elif np.any(free < low) or np.any(free > high):
        free = lsq_linear(design, rest, (low, high)).x
    return free * _UM, np.sqrt(np.diag(spread)) * _UM


def _told(group: tuple[Candidate, ...], effects: Array, u: Array, columns: Array) -> Explained:
    """Say what a group comes to: one effect for each cause, with the side that is high where it leans. Geometry."""
    own, within, sides, at = [], [], [], 0
    for one in group:
        here = effects[at : at + one.columns.shape[1]]
        leans = len(here) > 1 and not one.each
        middle = float(here.mean()) if one.each else float(here[0]) if len(here) else 0.0
        own.append(hypot(here[-2], here[-1]) if one.amplitude else middle)
        within.append(float(u[at]) if len(here) else 0.0)
        sides.append(turned(round(degrees(atan2(here[-1], here[-2])), 9), 360.0) if leans else None)
        at += len(here)
    return Explained(
        tuple(one.cause for one in group), tuple(one.where for one in group), tuple(own), tuple(within), tuple(sides),
        tuple(one.words for one in group), 0.0, columns @ effects,
    )  # fmt: skip
