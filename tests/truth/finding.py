"""What the finder makes of hidden blocks: weighed, followed check by check, or checked in an order that is fixed."""

from dataclasses import replace

import numpy as np
from scipy.stats import norm

from tests.truth.hidden_blocks import UM, HiddenBlock
from vallostasis.core.causes.candidates import Spot, height_candidates
from vallostasis.core.causes.next_check import checks_worth
from vallostasis.core.causes.table import HEIGHTS, Check, CheckAt
from vallostasis.core.causes.weigh import CLAIMED, Explained, Finding, Residuals, far_off, weigh

SURE = 0.9


def residuals_of(block: HiddenBlock) -> Residuals:
    last = max(block.holes)
    rows = zip(block.holes, block.angles_deg, strict=True)
    spots = [Spot(int(hole), -1 + 2 * (hole - 1) / (last - 1), angle, block.makes[hole - 1],
                  block.shims_um[hole - 1] * UM) for hole, angle in rows]  # fmt: skip
    return Residuals(block.residuals_um * UM, block.covariance_um2 * UM**2, height_candidates(spots, HEIGHTS.causes))


def weighed(block: HiddenBlock) -> tuple[Explained, ...]:
    """What is said of a block; nothing below what is claimed."""
    residuals = residuals_of(block)
    return weigh(residuals, (), HEIGHTS.checks) if far_off(residuals) >= CLAIMED else ()


def by_cause(explained: tuple[Explained, ...]) -> dict[str, float]:
    """Weights summed over the places and pairs of each cause."""
    found: dict[str, float] = {}
    for one in explained:
        for cause in set(one.causes):
            found[cause] = found.get(cause, 0.0) + one.weight
    return found


def read(block: HiddenBlock, check: Check, where: tuple[int, ...], rng: np.random.Generator) -> Finding:
    """What a check reads on a block: its share of the hidden effect where it is, and its own error."""
    there = check.share(block.fault) * block.effect_um * UM if set(where) <= set(block.where) else 0.0
    return Finding(check.name, where, there + rng.normal(0, check.standard_m))


def _after(explained: tuple[Explained, ...], check: Check, finding: Finding) -> tuple[Explained, ...]:
    """Bayes' rule on the weights as they were."""
    reads = [one.expected(check, finding.where) for one in explained]
    scores = np.array([one.weight for one in explained]) * [norm.pdf(finding.value_m, *one) for one in reads]
    total = scores.sum()
    return explained if total == 0 else tuple(
        replace(one, weight=float(score / total)) for one, score in zip(explained, scores, strict=True))  # fmt: skip


def minutes_following(block: HiddenBlock, explained: tuple[Explained, ...], seed: int) -> tuple[float, str]:
    """Minutes until one cause is sure by the checks that are proposed, and which it is."""
    rng, minutes, done = np.random.default_rng(seed), 0.0, []
    while max(by_cause(explained).values()) < SURE:
        worth = checks_worth(explained, HEIGHTS.checks, done)
        if not worth:
            break
        check = worth[0].check
        done.append(read(block, check, worth[0].where, rng))
        minutes += check.minutes
        explained = _after(explained, check, done[-1])
    weights = by_cause(explained)
    return minutes, max(weights, key=lambda name: weights[name])


def minutes_in_orders(
    block: HiddenBlock, explained: tuple[Explained, ...], orders: list[list[Check]], seed: int
) -> list[float]:  # fmt: skip
    """Minutes until one cause is sure by each order of the checks, each made at the hole that is furthest off."""
    rng, middles = np.random.default_rng(seed), {}
    for hole in set(block.holes):
        middles[hole] = abs(block.residuals_um[block.holes == hole].mean())
    worst = int(max(middles, key=lambda hole: middles[hole]))
    make = tuple(at + 1 for at, one in enumerate(block.makes) if one == block.makes[worst - 1])
    told = {}
    for check in HEIGHTS.checks:
        where = {CheckAt.HOLE: (worst,), CheckAt.BENCH: make, CheckAt.BLOCK: ()}[check.at]
        reads = np.array([one.expected(check, where) for one in explained])
        told[check.name] = norm.logpdf(read(block, check, where, rng).value_m, reads[:, 0], reads[:, 1])
    named = np.array([[name in one.causes for one in explained] for name in by_cause(explained)], dtype=float)
    return [_minutes(order, np.log([max(one.weight, 1e-300) for one in explained]), named, told) for order in orders]


def _minutes(order: list[Check], scores: np.ndarray, named: np.ndarray, told: dict[str, np.ndarray]) -> float:
    minutes = 0.0
    for check in order:
        weights = np.exp(scores - scores.max())
        if (named @ weights).max() >= SURE * weights.sum():
            break
        scores = scores + told[check.name]
        minutes += check.minutes
    return minutes
