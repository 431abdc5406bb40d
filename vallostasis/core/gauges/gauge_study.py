"""The gauge study: how much of what is read is the gauge, the person, and the part.

References
----------
.. [1] R. K. Burdick, C. M. Borror, D. C. Montgomery, Design and Analysis of Gauge R&R Studies (SIAM, 2005): balanced
   two-factor crossed random model with interaction (from memory).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import floor, hypot, sqrt

import numpy as np
from numpy.typing import NDArray
from scipy import special

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.gauges.average_and_range import AverageAndRange, average_and_range
from vallostasis.core.uncertainty.decision import Capability

# Study spread of the shares of a tolerance: ± 3 sigma.
STUDY_SIGMAS = 6.0
# Interaction that is not significant at this level is merged with the error. Common practice.
POOL_ABOVE_P = 0.25
# Share that a gauge may take to be good, and to be marginal. [%] Common practice, no published source.
GOOD_PERCENT, MARGINAL_PERCENT = 10.0, 30.0
# Categories that parts can be told apart into: 1.41 · part / gauge.
CATEGORY_FACTOR = 1.41


@dataclass(frozen=True, slots=True)
class Anova:
    """Sums of squares [m²] and degrees of freedom of parts, people, interaction and error."""

    squares_m2: tuple[float, float, float, float]
    freedom: tuple[int, int, int, int]
    interaction_p: float | None

    @property
    def mean_squares_m2(self) -> tuple[float, ...]:
        """Sums of squares over degrees of freedom; nought where there is no freedom. [m²]

        By definition of a mean square.
        """
        return tuple(s / f if f else 0.0 for s, f in zip(self.squares_m2, self.freedom, strict=True))


@dataclass(frozen=True, slots=True)
class Components:
    """Standard deviations of one model, and what they mean for a tolerance. [m]"""

    repeatability_m: float
    reproducibility_m: float
    part_m: float
    repeatability_freedom: int
    tolerance_m: float | None

    @property
    def gauge_m(self) -> float:
        """Repeatability and reproducibility together. [m] GUM 5.1.2."""
        return hypot(self.repeatability_m, self.reproducibility_m)

    @property
    def total_m(self) -> float:
        """Everything. [m] GUM 5.1.2."""
        return hypot(self.gauge_m, self.part_m)

    @property
    def percent_of_total(self) -> float:
        """Gauge over everything. [%] Common practice of gauge studies."""
        return 100 * self.gauge_m / self.total_m if self.total_m else 0.0

    @property
    def percent_of_tolerance(self) -> float | None:
        """Six sigma of the gauge over the tolerance. [%] Common practice of gauge studies."""
        return None if self.tolerance_m is None else 100 * STUDY_SIGMAS * self.gauge_m / self.tolerance_m

    @property
    def capability(self) -> Capability:
        """How fit the gauge is: by its share of the tolerance, of all spread where no tolerance is known."""
        percent = self.percent_of_total if self.percent_of_tolerance is None else self.percent_of_tolerance
        if percent <= GOOD_PERCENT:
            return Capability.GOOD
        return Capability.MARGINAL if percent <= MARGINAL_PERCENT else Capability.WRONG_TOOL

    @property
    def categories(self) -> int | None:
        """How many classes of parts the gauge tells apart; None when the gauge shows no spread at all.

        Common practice of gauge studies.
        """
        return floor(CATEGORY_FACTOR * self.part_m / self.gauge_m) if self.gauge_m else None


@dataclass(frozen=True, slots=True)
class Adopted:
    """What a gauge takes over from a study: the scatter of one hand, and what hands differ by. [m]"""

    repeatability_m: float
    repeatability_freedom: int
    reproducibility_m: float
    reproducibility_freedom: float


@dataclass(frozen=True, slots=True)
class GaugeStudy:
    """Analysis of variance, the model with interaction, the one that merges it with the error, and the older way."""

    anova: Anova
    full: Components
    pooled: Components
    ranges: AverageAndRange

    @property
    def holds(self) -> Components:
        """The model to go by: with interaction unless it is far from significant."""
        p = self.anova.interaction_p
        return self.pooled if p is not None and p > POOL_ABOVE_P else self.full

    @property
    def adopted(self) -> Adopted:
        """What belongs to every reading that somebody takes with the gauge.

        Notes
        -----
        Reproducibility is a sum of mean squares: σ²_o + σ²_po = (MS_o + (p − 1)·MS_po − p·MS_e)/(p·r); its degrees of
        freedom by Welch and Satterthwaite, GUM G.4.1 and [1]_ of the module, at least one and at most those of the
        people. Without interaction it is (MS_o − MS_e)/(p·r).
        """
        holds, anova = self.holds, self.anova
        ms_person, ms_both, ms_error = anova.mean_squares_m2[1:]
        parts = anova.freedom[0] + 1
        shares = [(ms_person, anova.freedom[1]), ((parts - 1) * ms_both, anova.freedom[2]),
                  (parts * ms_error, anova.freedom[3])]  # fmt: skip
        if holds is self.pooled:
            shares = [(ms_person, anova.freedom[1]), (holds.repeatability_m**2, holds.repeatability_freedom)]
        total = shares[0][0] + sum(one for one, _ in shares[1:-1]) - shares[-1][0]
        spread = sum(one**2 / freedom for one, freedom in shares)
        freedom = total**2 / spread if spread > 0 and total > 0 else 1.0
        people = float(anova.freedom[1])
        return Adopted(holds.repeatability_m, holds.repeatability_freedom, holds.reproducibility_m,
                       min(max(freedom, 1.0), people))  # fmt: skip


def study_gauge(readings_m: Sequence[Sequence[Sequence[float]]], tolerance_m: float | None) -> GaugeStudy:
    """Analyse a balanced crossed study.

    Parameters
    ----------
    readings_m : nested sequence, shape (parts, people, trials)
        Every person reads every part the same number of times. [m]
    tolerance_m : float or None
        Width of the window that the gauge decides on. [m]

    Returns
    -------
    GaugeStudy
        Negative components are set to nought.

    Raises
    ------
    OutOfDomain
        If the study is not balanced, has fewer than two parts, people or trials, or its tolerance is not above zero.

    Notes
    -----
    σ²_e = MS_e; σ²_po = (MS_po − MS_e)/r; σ²_o = (MS_o − MS_po)/(p·r); σ²_p = (MS_p − MS_po)/(o·r). Reproducibility is
    √(σ²_o + σ²_po). Pooled: MS_po and MS_e are merged.
    [1]_ of the module.
    """
    table = _table(readings_m)
    if tolerance_m is not None and not tolerance_m > 0:
        raise OutOfDomain("a tolerance is wider than nothing", "tolerance_m")
    anova = _anova(table)
    parts, people, trials = table.shape
    ms_part, ms_person, ms_both, ms_error = anova.mean_squares_m2
    both = max(0.0, (ms_both - ms_error) / trials)
    person = max(0.0, (ms_person - ms_both) / (parts * trials))
    full = Components(
        sqrt(ms_error), sqrt(person + both), sqrt(max(0.0, (ms_part - ms_both) / (people * trials))),
        anova.freedom[3], tolerance_m,
    )  # fmt: skip
    merged = anova.freedom[2] + anova.freedom[3]
    ms_pooled = (anova.squares_m2[2] + anova.squares_m2[3]) / merged
    pooled = Components(
        sqrt(ms_pooled),
        sqrt(max(0.0, (ms_person - ms_pooled) / (parts * trials))),
        sqrt(max(0.0, (ms_part - ms_pooled) / (people * trials))),
        merged,
        tolerance_m,
    )
    return GaugeStudy(anova, full, pooled, average_and_range(table))


def _table(readings_m: Sequence[Sequence[Sequence[float]]]) -> NDArray[np.float64]:
    trials = {len(trial) for part in readings_m for trial in part}
    people = {len(part) for part in readings_m}
    if len(trials) != 1 or len(people) != 1:
        raise OutOfDomain("every person reads every part the same number of times: something is missing", "readings")
    table = np.array(readings_m, dtype=np.float64)
    if min(table.shape) < 2:
        raise OutOfDomain("a study needs at least two parts, two people and two trials", "readings")
    if not np.isfinite(table).all():
        raise OutOfDomain("every reading of a study is a finite number", "readings")
    return table


def _anova(table: NDArray[np.float64]) -> Anova:
    parts, people, trials = table.shape
    grand = table.mean()
    part = people * trials * ((table.mean(axis=(1, 2)) - grand) ** 2).sum()
    person = parts * trials * ((table.mean(axis=(0, 2)) - grand) ** 2).sum()
    cells = table.mean(axis=2)
    both = trials * (
        (cells - table.mean(axis=(1, 2))[:, None] - table.mean(axis=(0, 2))[None, :] + grand) ** 2
    ).sum()  # fmt: skip
    error = ((table - cells[:, :, None]) ** 2).sum()
    freedom = (parts - 1, people - 1, (parts - 1) * (people - 1), parts * people * (trials - 1))
    p = None
    if error > 0:
        p = float(special.fdtrc(freedom[2], freedom[3], (both / freedom[2]) / (error / freedom[3])))
    return Anova((float(part), float(person), float(both), float(error)), freedom, p)


def blind_order(parts: int, people: int, trials: int, seed: int) -> tuple[tuple[int, int, int], ...]:
    """Order in which a study is read: (part, person, trial), each from 0.

    Whole rounds one after the other, so that a study broken off early is still balanced; within a round the people
    take turns and the parts come in random order, another one for each person.
    """
    rng = np.random.default_rng(seed)
    return tuple(
        (int(part), person, trial)
        for trial in range(trials)
        for person in range(people)
        for part in rng.permutation(parts)
    )
