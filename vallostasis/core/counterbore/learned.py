"""What the shop's own runs teach about a cutter: µm per graduation, setting error, time of a pass, with n and ±."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import sqrt
from statistics import median, quantiles, stdev

import numpy as np
from scipy import special

from vallostasis.core.counterbore.cut_plan import CutterTrust
from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.uncertainty.budget import TWO_SIGMA

# From so many holes on the shop's own figure replaces that of the card. House rule.
ENOUGH_HOLES = 5


@dataclass(frozen=True, slots=True)
class HoleCut:
    """One finished run: passes counted, change of depth by the gauge, how far it ended from what was set, its times.

    Passes [1], lengths [m], times of single passes [s].
    """

    passes: float
    change_m: float
    off_m: float
    pass_s: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Learned:
    """A figure with its ± and how many it stands on."""

    value: float
    within: float
    n: int

    @property
    def is_enough(self) -> bool:
        """Whether it replaces that of the card. House rule: from five holes on."""
        return self.n >= ENOUGH_HOLES


@dataclass(frozen=True, slots=True)
class LearnedCutter:
    """What runs of one cutter in one material teach; None where they are too few for it. [m], [s]

    ``setting_m`` is the standard deviation of the end from what was set, ``setting_prediction_m`` the ± of the next
    one; ``pass_low_s`` and ``pass_high_s`` are the quartiles.
    """

    graduation_m: Learned | None
    setting_m: Learned | None
    setting_prediction_m: float | None
    pass_s: Learned | None
    pass_low_s: float | None
    pass_high_s: float | None


def as_learned(marked: CutterTrust, learned: LearnedCutter) -> CutterTrust:
    """Let what was learned replace what is marked, each figure from five holes on.

    Parameters
    ----------
    marked : CutterTrust
        As the card has it. [m]
    learned : LearnedCutter
        As own runs taught.

    Returns
    -------
    CutterTrust
        Half widths: a ± that is two standard uncertainties is √3/2 of its half width. [m] GUM 4.3.7.
    """
    graduation, setting = learned.graduation_m, learned.setting_m
    if graduation is not None and graduation.is_enough:
        share = graduation.within / graduation.value * sqrt(3) / 2
        marked = replace(marked, graduation_m=graduation.value, graduation_error=share)
    if setting is not None and setting.is_enough and learned.setting_prediction_m is not None:
        marked = replace(marked, stop_accuracy_m=learned.setting_prediction_m * sqrt(3) / 2)
    return marked


def student(freedom: float) -> float:
    """Factor of a two-sided 95.45 % interval with so many degrees of freedom. [1] GUM G.3.2 and table G.2."""
    return float(special.stdtrit(freedom, (1 + TWO_SIGMA) / 2))


def learn(holes: Sequence[HoleCut]) -> LearnedCutter:
    """Learn from finished runs.

    Parameters
    ----------
    holes : sequence of HoleCut
        Of one cutter, in one material.

    Returns
    -------
    LearnedCutter
        Depth of a graduation, setting error, time of a pass.

    Raises
    ------
    OutOfDomain
        If a number is not finite, or a run has no passes.

    Notes
    -----
    Graduation: regression of the change on the passes through the origin, b = Σxy/Σx², s² = Σ(y − bx)²/(n − 1),
    u(b) = s/√Σx², with Student's t for n − 1. N. R. Draper, H. Smith, Applied Regression Analysis, section on the line
    through the origin (from memory). Setting: standard deviation with n − 1; ± of the next one t·s·√(1 + 1/n). Time:
    median and quartiles of all passes.
    """
    for one in holes:
        require_finite(passes=one.passes, change=one.change_m, off=one.off_m)
        if one.passes <= 0:
            raise OutOfDomain("a run without passes teaches nothing", "passes")
    x = np.array([one.passes for one in holes], dtype=np.float64)
    y = np.array([one.change_m for one in holes], dtype=np.float64)
    n = len(holes)
    graduation = setting = prediction = None
    if n >= 2:
        slope = float(x @ y / (x @ x))
        scatter = float(np.sqrt(np.sum((y - slope * x) ** 2) / (n - 1)))
        graduation = Learned(slope, student(n - 1) * scatter / float(np.sqrt(x @ x)), n)
        off = [one.off_m for one in holes]
        setting = Learned(stdev(off), stdev(off) / (2 * (n - 1)) ** 0.5, n)
        prediction = student(n - 1) * setting.value * (1 + 1 / n) ** 0.5
    times = [seconds for one in holes for seconds in one.pass_s]
    low = high = None
    if len(times) >= 2:
        low, _, high = quantiles(times, n=4)
    spread = 0.0 if low is None or high is None else (high - low) / 2
    a_pass = Learned(median(times), spread, sum(bool(one.pass_s) for one in holes)) if times else None
    return LearnedCutter(graduation, setting, prediction, a_pass, low, high)
