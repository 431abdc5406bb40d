"""The uncertainty budget behind every ±: source by source, own or shared, combined and expanded.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2 combined standard uncertainty, 4.3.7 rectangular inputs, G.4.1 effective degrees of
   freedom (Welch and Satterthwaite).
.. [2] JCGM 101:2008, Supplement 1: propagation of distributions using a Monte Carlo method.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from enum import StrEnum
from math import hypot, inf, isinf, sqrt

import numpy as np
from scipy import special

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.measuring.temperature import REFERENCE_C, Body, to_20c
from vallostasis.core.measuring.uncertainty import ReadingTrust, rectangular

MONTE_CARLO_DRAWS = 200_000
# Probability that k = 2 covers for a normal distribution.
TWO_SIGMA = 0.9545


class Shape(StrEnum):
    """How the values of a source are spread."""

    NORMAL = "normal"
    RECTANGULAR = "rectangular"


@dataclass(frozen=True, slots=True)
class Source:
    """One source: its own standard uncertainty, and what it makes of the result.

    ``standard`` is in the unit named (m, K, 1/K), ``sensitivity`` turns it into metres. ``shared`` sources are common
    to every reading of one set: no mean makes them smaller, differences cancel them. ``freedom`` is the number of
    degrees of freedom behind a spread found from few repeats.
    """

    name: str
    standard: float
    unit: str = "m"
    sensitivity: float = 1.0
    shared: bool = False
    shape: Shape = Shape.NORMAL
    freedom: float = inf
    basis: str = ""

    @property
    def contribution_m(self) -> float:
        """Standard uncertainty that it brings to the result. [m]"""
        return abs(self.sensitivity) * self.standard


@dataclass(frozen=True, slots=True)
class Budget:
    """Every source of one value, its combined and its expanded uncertainty. [m]

    ``coverage`` is the factor that was used: the card's k, widened by Student's t where the degrees of freedom are few.
    """

    what: str
    sources: tuple[Source, ...]
    standard_m: float
    coverage: float
    freedom: float

    @property
    def expanded_m(self) -> float:
        """Expanded uncertainty. [m]"""
        return self.coverage * self.standard_m

    def share(self, source: Source) -> float:
        """Share of a source in the variance. [1]"""
        return 0.0 if self.standard_m == 0 else (source.contribution_m / self.standard_m) ** 2


def combine(what: str, sources: Iterable[Source], coverage_factor: float = 2.0) -> Budget:
    """Combine independent sources.

    Parameters
    ----------
    what : str
        The value that the budget is of.
    sources : iterable of Source
        Independent of each other.
    coverage_factor : float
        k of U = k·u for many degrees of freedom.

    Returns
    -------
    Budget
        Root of the sum of squares; k widened by t(ν)/t(∞) for the effective degrees of freedom ν.

    Raises
    ------
    OutOfDomain
        If a source is negative or not finite.

    Notes
    -----
    u² = Σ(c·u_i)²; ν = u⁴ / Σ((c·u_i)⁴/ν_i), GUM 5.1.2 and G.4.1 [1]_ of the module.
    """
    listed = tuple(sources)
    for source in listed:
        require_finite(**{source.name: source.sensitivity})
        require_not_negative(**{source.name: source.standard})
    standard = hypot(*(source.contribution_m for source in listed)) if listed else 0.0
    freedom = effective_freedom(listed, standard)
    return Budget(what, listed, standard, coverage_factor * student_widening(freedom), freedom)


def effective_freedom(sources: Iterable[Source], standard_m: float) -> float:
    """Effective degrees of freedom of a standard uncertainty [m], by Welch and Satterthwaite."""
    few = sum((s.contribution_m**4 / s.freedom for s in sources if not isinf(s.freedom)), 0.0)
    return inf if few == 0 or standard_m == 0 else standard_m**4 / few


def student_widening(freedom: float) -> float:
    """How much wider than normal an interval must be for few degrees of freedom: t(ν)/t(∞) at 95.45 %. [1]

    Raises
    ------
    OutOfDomain
        If there is not one degree of freedom.
    """
    if isinf(freedom):
        return 1.0
    if not freedom >= 1 - 1e-9:
        raise OutOfDomain(f"a spread needs two readings, there are {freedom:g} degrees of freedom", "freedom")
    beyond = (1 + TWO_SIGMA) / 2
    return float(special.stdtrit(freedom, beyond) / special.ndtri(beyond))


def mean_of(budget: Budget, readings: int, coverage_factor: float = 2.0) -> Budget:
    """Budget of the mean of readings of one set: own sources shrink with √n, shared ones do not.

    Raises
    ------
    OutOfDomain
        If there is no reading.
    """
    if readings < 1:
        raise OutOfDomain("a mean needs at least one reading", "readings")
    shrunk = (s if s.shared else replace(s, sensitivity=s.sensitivity / sqrt(readings)) for s in budget.sources)
    return combine(f"mean of {readings}", shrunk, coverage_factor)


def difference_of(what: str, one: Budget, other: Budget, same_zero: bool, coverage_factor: float = 2.0) -> Budget:
    """Budget of a difference of two values: what they share cancels where they come from one zero. [m]"""
    sources = []
    for side, budget in (("first", one), ("second", other)):
        for source in budget.sources:
            if not (same_zero and source.shared):
                sources.append(replace(source, name=f"{source.name}, {side}"))
    return combine(what, sources, coverage_factor)


def trust_of(budget: Budget) -> ReadingTrust:
    """A reading's own and shared standard uncertainty, as the rules use them. [m]"""
    own = [source.contribution_m for source in budget.sources if not source.shared]
    shared = [source.contribution_m for source in budget.sources if source.shared]
    return ReadingTrust(hypot(*own) if own else 0.0, hypot(*shared) if shared else 0.0)


@dataclass(frozen=True, slots=True)
class Known:
    """A quantity and its standard uncertainty, in one unit."""

    value: float
    standard: float = 0.0


@dataclass(frozen=True, slots=True)
class GaugeSources:
    """What a gauge brings to a reading: step [m], repeatability [m] and from how many repeats it is known.

    ``step_at_zero`` counts the step a second time, for the zero.
    """

    step_m: float
    repeatability_m: float
    freedom: float = inf
    step_at_zero: bool = True


@dataclass(frozen=True, slots=True)
class SizeInputs:
    """Everything that a size read as a deviation from a master depends on. [m], [°C], [1/K]"""

    set_size_m: Known
    deviation_m: float
    master_c: Known
    master_alpha: Known
    part_c: Known
    part_alpha: Known
    correction_m: Known = Known(0.0)

    def size_at_20c_m(self) -> float:
        """Size at 20 °C. [m]"""
        master = Body(self.master_c.value, self.master_alpha.value)
        part = Body(self.part_c.value, self.part_alpha.value)
        return to_20c(self.set_size_m.value, self.deviation_m + self.correction_m.value, master, part).size_m


def size_budget(what: str, inputs: SizeInputs, gauge: GaugeSources, coverage_factor: float = 2.0) -> Budget:
    """Budget of a size at 20 °C that was read as a deviation from a set size.

    Parameters
    ----------
    what : str
        The value.
    inputs : SizeInputs
        Set size, deviation, temperatures and expansions with their standard uncertainties.
    gauge : GaugeSources
        Step and repeatability.
    coverage_factor : float
        k.

    Returns
    -------
    Budget
        Sources with their sensitivities, own ones first.

    Raises
    ------
    OutOfDomain
        If an uncertainty is negative or an input is not finite.

    Notes
    -----
    First-order propagation of D20 = (M·(1 + α_m(T_m − 20)) + d)/(1 + α(T − 20)), GUM 5.1.2 [1]_ of the module.
    """
    size = inputs.size_at_20c_m()
    master_k, part_k = inputs.master_c.value - REFERENCE_C, inputs.part_c.value - REFERENCE_C
    grown = 1 + inputs.part_alpha.value * part_k
    set_size = inputs.set_size_m.value
    one = 1 / grown
    step = rectangular(gauge.step_m / 2)
    flat = Shape.RECTANGULAR
    sources = [
        Source("graduation at the reading", step, "m", one, shape=flat, basis="step / √12"),
        Source("repeatability", gauge.repeatability_m, "m", one, freedom=gauge.freedom, basis="spread of repeats"),
    ]
    if gauge.step_at_zero:
        sources.append(Source("graduation at the zero", step, "m", one, True, flat, basis="step / √12"))
    sources += [
        Source("setting master", inputs.set_size_m.standard, "m", (1 + inputs.master_alpha.value * master_k) / grown,
               True, basis="its certificate"),
        Source("zero correction", inputs.correction_m.standard, "m", one, True, basis="re-zero check"),
        Source("temperature of the master", inputs.master_c.standard, "K", set_size * inputs.master_alpha.value / grown,
               True),
        Source("expansion of the master", inputs.master_alpha.standard, "1/K", set_size * master_k / grown, True),
        Source("temperature of the part", inputs.part_c.standard, "K", -size * inputs.part_alpha.value / grown, True),
        Source("expansion of the part", inputs.part_alpha.standard, "1/K", -size * part_k / grown, True),
    ]  # fmt: skip
    return combine(what, sources, coverage_factor)


def monte_carlo_half_width(inputs: SizeInputs, gauge: GaugeSources, seed: int = 1) -> float:
    """Half width of the 95 % interval of a size at 20 °C by propagating the distributions themselves. [m]

    Notes
    -----
    Rectangular inputs are drawn rectangular, so that the result differs from k·u where one of them leads; half of the
    distance between the 2.5 % and 97.5 % quantiles of 200,000 draws, JCGM 101 [2]_ of the module.
    """
    rng = np.random.default_rng(seed)

    def draw(known: Known) -> np.ndarray:
        return rng.normal(known.value, known.standard, MONTE_CARLO_DRAWS)

    half = gauge.step_m / 2
    deviation = inputs.deviation_m + rng.uniform(-half, half, MONTE_CARLO_DRAWS)
    if gauge.step_at_zero:
        deviation += rng.uniform(-half, half, MONTE_CARLO_DRAWS)
    spread = gauge.repeatability_m
    own = rng.normal(0, 1, MONTE_CARLO_DRAWS) if isinf(gauge.freedom) else rng.standard_t(
        max(1.0, gauge.freedom), MONTE_CARLO_DRAWS)  # fmt: skip
    deviation += spread * own + draw(inputs.correction_m)
    warm = draw(inputs.set_size_m) * (1 + draw(inputs.master_alpha) * (draw(inputs.master_c) - REFERENCE_C))
    size = (warm + deviation) / (1 + draw(inputs.part_alpha) * (draw(inputs.part_c) - REFERENCE_C))
    low, high = np.quantile(size, (0.025, 0.975))
    return float(high - low) / 2


def monte_carlo_of(budget: Budget, seed: int = 1) -> float:
    """Half width of the 95 % interval of a value that is the sum of its sources, each drawn by its own shape. [m]

    Notes
    -----
    JCGM 101 [2]_ of the module; for values that are linear in their sources.
    """
    rng = np.random.default_rng(seed)
    total = np.zeros(MONTE_CARLO_DRAWS)
    for source in budget.sources:
        width = source.contribution_m
        if source.shape is Shape.RECTANGULAR:
            total += rng.uniform(-width * sqrt(3), width * sqrt(3), MONTE_CARLO_DRAWS)
        else:
            total += rng.normal(0, width, MONTE_CARLO_DRAWS)
    low, high = np.quantile(total, (0.025, 0.975))
    return float(high - low) / 2
