"""Blocks with a hidden fault, made by code of the tests alone: what the finder of causes is held against.

How often each fault is met is a fact of the trade that both have (common practice, no published source); how large it
is, how it looks and what else is wrong with a block is drawn here, without the finder's table of patterns.
"""

from dataclasses import dataclass

import numpy as np

UM = 1e-6
HOURS_DEG = (0.0, 90.0, 180.0, 270.0)
# So many of some hundred blocks have which fault.
MET = {
    "nothing but scatter": 40, "lip under the micrometer": 11, "lip under the indicator": 6,
    "zero of the gauge moved": 7, "clamp too light, seal pushing back": 5, "parts warm when they were read": 2,
    "burr, dirt or compound under the flange": 8, "liner lifted after it was pressed": 3,
    "ledge read on a burr, or sunk between the spots": 6, "wrong liner written down": 3, "shim counted, not there": 2,
    "flange not square to its liner": 2, "ledge not square where it was not read": 2,
    "dirt on one side under the flange": 3, "deck sloped under the gauge": 2, "deck bowed under the gauge": 2,
}  # fmt: skip
# What residuals alone cannot tell from one another: only a check can.
LOOK_ALIKES = (
    {"zero of the gauge moved", "clamp too light, seal pushing back", "parts warm when they were read"},
    {"burr, dirt or compound under the flange", "liner lifted after it was pressed", "wrong liner written down"},
    {"ledge read on a burr, or sunk between the spots", "wrong liner written down", "shim counted, not there"},
    {"flange not square to its liner", "ledge not square where it was not read"},
)


@dataclass(frozen=True)
class HiddenBlock:
    """Readings of a block, what they share, and the truth: which fault, in which holes, how large in joint u."""

    holes: np.ndarray
    angles_deg: np.ndarray
    makes: tuple[str, ...]
    shims_um: tuple[float, ...]
    residuals_um: np.ndarray
    covariance_um2: np.ndarray
    fault: str
    where: tuple[int, ...]
    effect_um: float
    sigmas: float


def any_fault(rng: np.random.Generator) -> str:
    """A fault as often as it is met."""
    return str(rng.choice(list(MET), p=np.array(list(MET.values())) / sum(MET.values())))


def alike(one: str, other: str) -> bool:
    """Whether two faults are one to the residuals."""
    return one == other or any({one, other} <= group for group in LOOK_ALIKES)


def hidden_block(rng: np.random.Generator, fault: str) -> HiddenBlock:
    """Holes in line read at four positions, two makes; own, hole and block errors, and a bit that nobody models.

    Not modelled by the finder: Student noise on top of the stated one, a slight unevenness of every seat, a small drift
    of the gauge from the first hole to the last.
    """
    count = int(rng.integers(5, 9))
    makes = np.array(["Pellerby"] * count)
    makes[rng.choice(count, size=int(rng.integers(2, count - 1)), replace=False)] = "Quarnforth"
    shims = np.where(rng.random(count) < 0.35, rng.choice([50.0, 100.0, 150.0], count), 0.0)
    own, of_hole, of_block = rng.uniform(2, 4), rng.uniform(1.5, 3.5), rng.uniform(0, 2)
    at = np.repeat(np.arange(count), 4)
    round_ = np.tile(np.radians(HOURS_DEG), count)
    off = rng.normal(0, own, 4 * count) + rng.normal(0, of_hole, count)[at] + rng.normal(0, of_block)
    off = (
        off
        + 0.4 * rng.standard_t(5, 4 * count)
        + (0.8 * rng.normal(0, 1, count))[at] * np.cos(round_ - rng.uniform(0, 6))
    )
    off = off + np.linspace(-0.5, 0.5, count)[at] * rng.normal(0, 1)
    truth, where, effect = _fault(rng, fault, count, makes, shims, at, round_)
    same = at[:, None] == at[None, :]
    covariance = np.eye(4 * count) * own**2 + same * of_hole**2 + of_block**2
    sigmas = float(np.linalg.norm(np.linalg.solve(np.linalg.cholesky(covariance), truth)))
    return HiddenBlock(at + 1, np.degrees(round_), tuple(makes), tuple(shims), off + truth, covariance, fault, where,
                       effect, sigmas)  # fmt: skip


def _fault(
    rng: np.random.Generator, fault: str, count: int, makes: np.ndarray, shims: np.ndarray, at: np.ndarray,
    round_: np.ndarray,
) -> tuple[np.ndarray, tuple[int, ...], float]:  # fmt: skip
    hole, every = int(rng.integers(count)), tuple(range(1, count + 1))
    sign = rng.choice([-1.0, 1.0])
    here = (at == hole).astype(float)
    if fault == "nothing but scatter":
        return np.zeros(4 * count), (), 0.0
    if fault.startswith("lip"):
        make = rng.choice(["Pellerby", "Quarnforth"])
        size = rng.triangular(20, 60, 300) * (-1 if "micrometer" in fault else 1)
        return size * (makes[at] == make), tuple(int(one) + 1 for one in np.flatnonzero(makes == make)), size
    whole = {"zero of the gauge moved": sign * rng.triangular(2, 20, 150), "parts warm when they were read":
             sign * rng.uniform(2, 40), "clamp too light, seal pushing back": rng.triangular(5, 25, 120)}  # fmt: skip
    if fault in whole:
        return np.full(4 * count, whole[fault]), every, float(whole[fault])
    if fault.startswith("deck"):
        size, along = sign * rng.uniform(4, 100), np.linspace(-1, 1, count)[at]
        return size * (along if "sloped" in fault else 1 - along**2), every, size
    if fault == "shim counted, not there":
        if not shims.any():
            shims[hole] = 100.0
        hole = int(rng.choice(np.flatnonzero(shims)))
        return -shims[hole] * (at == hole), (hole + 1,), float(-shims[hole])
    one = {"burr, dirt or compound under the flange": rng.triangular(5, 25, 200), "liner lifted after it was pressed":
           rng.triangular(10, 30, 150), "ledge read on a burr, or sunk between the spots": -rng.triangular(5, 25, 200),
           "wrong liner written down": sign * rng.uniform(0, 250)}  # fmt: skip
    if fault in one:
        return one[fault] * here, (hole + 1,), float(one[fault])
    high = rng.uniform(0, 2 * np.pi)
    if fault == "dirt on one side under the flange":
        size = rng.triangular(5, 20, 100)
        return here * size * (1 + rng.uniform(0.8, 1.0) * np.cos(round_ - high)), (hole + 1,), size
    size = rng.triangular(8, 20, 120)
    return here * size * np.cos(round_ - high), (hole + 1,), size
