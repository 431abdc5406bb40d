"""The uncertainty budget behind every ±: error by error, own or shared, combined and expanded.

Every value is an ``Estimate``: a number and the errors that it carries, each error by name. What two values share is
the same error in both, so it cancels in their difference and is not made smaller by their mean; nobody has to say
where. An estimate that is shown or judged is ``Stated``: finished with its ``Budget``, the only source of a ±.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2 combined standard uncertainty, 4.3.7 rectangular inputs, F.1.2.3 correlated inputs,
   G.4.1 effective degrees of freedom (Welch and Satterthwaite).
"""

from collections import defaultdict
from collections.abc import Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from math import hypot, inf, isinf, sqrt

from scipy import special

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative

# Probability that k = 2 covers for a normal distribution.
TWO_SIGMA = 0.9545


class Shape(StrEnum):
    """How the values of a source are spread."""

    NORMAL = "normal"
    RECTANGULAR = "rectangular"


@dataclass(frozen=True, slots=True)
class Source:
    """One error: its own standard uncertainty, and what it makes of the result.

    ``standard`` is in the unit named (m, K, 1/K), ``sensitivity`` turns it into metres. ``error`` names it: two
    sources of one name are one error and add before they are squared; without a name it is an error of its own.
    ``shared`` ones are common to several readings. ``freedom`` is the number of degrees of freedom behind a spread
    found from few repeats, ``spread`` names that estimate: errors of one spread stand and fall with it together.
    """

    name: str
    standard: float
    unit: str = "m"
    sensitivity: float = 1.0
    shared: bool = False
    shape: Shape = Shape.NORMAL
    freedom: float = inf
    basis: str = ""
    error: Hashable = None
    spread: Hashable = None

    @property
    def contribution_m(self) -> float:
        """Standard uncertainty that it brings to the result. [m] GUM 5.1.3."""
        return abs(self.sensitivity) * self.standard


@dataclass(frozen=True, slots=True)
class Bound:
    """What a value may be off by at the most in a way that is no scatter; added to U as it is. [m]"""

    name: str
    half_width_m: float


@dataclass(frozen=True, slots=True)
class Budget:
    """Every source of one value, its combined and its expanded uncertainty. [m]

    ``coverage`` is the factor that was used: the card's k, widened by Student's t where the degrees of freedom are
    few and by what the value is: a range or an amplitude picks the readings that are farthest off. ``bias_m`` is what
    such a value shows on the average where there is nothing to be found.
    """

    what: str
    errors: tuple[tuple[Source, float], ...]
    standard_m: float
    coverage: float
    freedom: float
    bounds: tuple[Bound, ...] = ()
    bias_m: float = 0.0

    @property
    def sources(self) -> tuple[Source, ...]:
        """Every error with what it makes of this value."""
        return tuple(_times(source, weight) for source, weight in self.errors)

    def part_m(self, *, shared: bool) -> float:
        """Standard uncertainty of what readings share, or of what each has of its own. [m]"""
        return _root_of_squares((source, weight) for source, weight in self.errors if source.shared is shared)

    @property
    def expanded_m(self) -> float:
        """Expanded uncertainty. [m] GUM 6.2.1; bounds are a house rule."""
        return self.coverage * self.standard_m + sum(bound.half_width_m for bound in self.bounds)

    def share(self, source: Source) -> float:
        """Share of a source in the variance. [1] GUM 5.1.3."""
        return 0.0 if self.standard_m == 0 else (source.contribution_m / self.standard_m) ** 2

    @property
    def lines(self) -> tuple[Source, ...]:
        """The sources as they are read out, the greatest first: errors alike but for their place are one line."""
        groups: dict[tuple[str, str, str], list[Source]] = defaultdict(list)
        for source in self.sources:
            if source.contribution_m > 0:
                groups[source.name, source.unit, source.basis].append(source)
        joined = [_joined(group) for group in groups.values()]
        return tuple(sorted(joined, key=lambda one: -one.contribution_m))


def _joined(group: Sequence[Source]) -> Source:
    first = group[0]
    if len(group) == 1:
        return first
    total = hypot(*(one.contribution_m for one in group))
    return replace(first, sensitivity=total / first.standard)


def combine(
    what: str,
    sources: Iterable[Source],
    coverage_factor: float = 2.0,
    bounds: tuple[Bound, ...] = (),
    bias_m: float = 0.0,
) -> Budget:
    """Combine sources, those of one error first.

    Parameters
    ----------
    what : str
        The value that the budget is of.
    sources : iterable of Source
        Independent of each other but for those of one error.
    coverage_factor : float
        k of U = k·u for many degrees of freedom.
    bounds : tuple of Bound
        What is added to U as it is. [m]
    bias_m : float
        What the value shows where there is nothing to be found. [m]

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
    u² = Σ(c·u_i)² over errors, those of one name added first; ν = u⁴ / Σ(V_j²/ν_j), V_j the variance that rests on one
    estimate j of a spread. GUM 5.1.2, F.1.2.3 and G.4.1 [1]_ of the module.
    """
    named: dict[Hashable, tuple[Source, float]] = {}
    for number, source in enumerate(sources):
        require_finite(**{source.name: source.sensitivity})
        require_not_negative(**{source.name: source.standard})
        key = ("unnamed", number) if source.error is None else source.error
        known = named.get(key)
        weight = 1.0 if known is None or not known[0].sensitivity else source.sensitivity / known[0].sensitivity
        named[key] = (source, 1.0) if known is None else (known[0], known[1] + weight)
    return _combined(what, tuple(named.values()), coverage_factor, bounds, bias_m)


def _combined(
    what: str,
    errors: tuple[tuple[Source, float], ...],
    coverage_factor: float,
    bounds: tuple[Bound, ...] = (),
    bias_m: float = 0.0,
) -> Budget:
    standard = _root_of_squares(errors)
    freedom = effective_freedom(errors, standard)
    return Budget(what, errors, standard, coverage_factor * student_widening(freedom), freedom, bounds, bias_m)


def _root_of_squares(errors: Iterable[tuple[Source, float]]) -> float:
    return sqrt(sum((source.sensitivity * source.standard * weight) ** 2 for source, weight in errors))


def _times(source: Source, weight: float) -> Source:
    return Source(source.name, source.standard, source.unit, source.sensitivity * weight, source.shared, source.shape,
                  source.freedom, source.basis, source.error, source.spread)  # fmt: skip


def effective_freedom(errors: Iterable[tuple[Source, float]], standard_m: float) -> float:
    """Effective degrees of freedom of a standard uncertainty [m], by Welch and Satterthwaite.

    Notes
    -----
    Readings that rest on one estimate of a spread are wrong together: their variances add before they are divided by
    its degrees of freedom. GUM G.4.1 [1]_ of the module, with the sum taken over estimates.
    """
    resting: dict[Hashable, list[float]] = {}
    for number, (source, weight) in enumerate(errors):
        if source.freedom != inf:
            key = ("unnamed", number) if source.spread is None else source.spread
            variance, freedom = resting.get(key, (0.0, source.freedom))
            resting[key] = [variance + (weight * source.contribution_m) ** 2, min(freedom, source.freedom)]
    few = sum(variance**2 / freedom for variance, freedom in resting.values())
    return inf if few == 0 or standard_m == 0 else standard_m**4 / few


def student_widening(freedom: float) -> float:
    """How much wider than normal an interval must be for few degrees of freedom: t(ν)/t(∞) at 95.45 %. [1]

    Raises
    ------
    OutOfDomain
        If there is not one degree of freedom.

    Notes
    -----
    GUM G.3.2 and table G.2.
    """
    if isinf(freedom):
        return 1.0
    if not freedom >= 1 - 1e-9:
        raise OutOfDomain(f"a spread needs two readings, there are {freedom:g} degrees of freedom", "freedom")
    beyond = (1 + TWO_SIGMA) / 2
    return float(special.stdtrit(freedom, beyond) / special.ndtri(beyond))


@dataclass(frozen=True, slots=True)
class Move:
    """A reading on a zero that moved by ``moved_m`` somewhere between two looks, taken at ``order``.

    ``zero`` are the errors of the zero it was set on, ``look`` those of the look that found it moved.
    """

    check: Hashable
    moved_m: float
    order: int
    zero: tuple[Source, ...]
    look: tuple[Source, ...]
    weight: float = 1.0


@dataclass(frozen=True, slots=True)
class Estimate:
    """A value and every error it carries, each with its weight; moves are not taken off yet. [m]"""

    value_m: float
    errors: Mapping[Hashable, tuple[Source, float]] = field(default_factory=dict)
    moves: tuple[Move, ...] = ()

    @property
    def standard_m(self) -> float:
        """Combined standard uncertainty of its errors alone. [m]"""
        return _root_of_squares(self.errors.values())


def estimate(value_m: float, sources: Iterable[Source], moves: tuple[Move, ...] = ()) -> Estimate:
    """Make an estimate of a value and its sources, each of which names its error. [m]"""
    return Estimate(value_m, {source.error: (source, 1.0) for source in sources if source.standard > 0}, moves)


def exactly(value_m: float, standard_m: float = 0.0, name: str = "", error: Hashable = None) -> Estimate:
    """Make an estimate of one number with one error of its own. [m]"""
    require_finite(**{name or "value": value_m})
    require_not_negative(**{f"u of {name or 'value'}": standard_m})
    own = Source(name, standard_m, error=(name, value_m) if error is None else error)
    return estimate(value_m, (own,))


def weighted(parts: Iterable[tuple[float, Estimate]]) -> Estimate:
    """Add estimates, each with its weight: errors that they share add before they are squared.

    Notes
    -----
    y = Σ w_i·x_i, exact for any correlation that comes from errors in common; GUM 5.1.2 and F.1.2.3 [1]_ of the module.
    """
    value, moves = 0.0, []
    errors: dict[Hashable, tuple[Source, float]] = {}
    for weight, one in parts:
        value += weight * one.value_m
        for name, (source, own_weight) in one.errors.items():
            known = errors.get(name)
            errors[name] = (source, weight * own_weight if known is None else known[1] + weight * own_weight)
        moves += [replace(move, weight=weight * move.weight) for move in one.moves]
    return Estimate(value, errors, tuple(moves))


def mean_of(estimates: Sequence[Estimate]) -> Estimate:
    """Mean of estimates: what each has of its own shrinks, what they share does not.

    Raises
    ------
    OutOfDomain
        If there is none.

    GUM 4.2.3 and F.1.2.3.
    """
    if not estimates:
        raise OutOfDomain("a mean needs at least one reading", "readings")
    if len(estimates) == 1:
        return estimates[0]
    return weighted((1 / len(estimates), one) for one in estimates)


def difference_of(one: Estimate, other: Estimate) -> Estimate:
    """Difference of two estimates: what they share cancels. GUM F.1.2.3."""
    return weighted(((1.0, one), (-1.0, other)))


@dataclass(frozen=True, slots=True)
class Stated:
    """A value as it is shown and judged, with the budget of its ±. [m]"""

    value_m: float
    budget: Budget

    @property
    def expanded_m(self) -> float:
        """Expanded uncertainty. [m] GUM 6.2.1; bounds are a house rule."""
        return self.budget.expanded_m

    @property
    def standard_m(self) -> float:
        """Standard uncertainty of its errors, bounds left out. [m]"""
        return self.budget.standard_m


def stated(what: str, one: Estimate, coverage_factor: float = 2.0, bias_m: float = 0.0) -> Stated:
    """Finish an estimate: take half of every move off, combine its errors, expand them.

    Parameters
    ----------
    what : str
        What it is called in its budget.
    one : Estimate
        The value. [m]
    coverage_factor : float
        k of U = k·u.
    bias_m : float
        What the value shows where there is nothing to be found. [m]

    Returns
    -------
    Stated
        Value and budget. [m]

    Notes
    -----
    A zero that moved by m at an unknown moment shifts every reading after it: of Σ w_i·x_i, taken in the order i, the
    shift is m times one of the sums of the weights from some reading on. Half way between the least and the greatest
    of those sums is taken off, half of what lies between them is added to U as it is: a jump is no distribution, m/√12
    in squares covers it in fewer than 95 of 100 cases. A gradual drift lies between the jumps. For one reading that
    is m/2 and ±|m|/2, for the difference of a later and an earlier reading the same, for two on one side nothing.
    House rule; the errors of zero and look follow from what is taken off.
    """
    value, errors, bounds = one.value_m, dict(one.errors), []
    by_check: dict[Hashable, list[Move]] = defaultdict(list)
    for move in one.moves:
        by_check[move.check].append(move)
    for moves in by_check.values():
        low, high, total = _sums_of(moves)
        value -= (low + high) / 2 * moves[0].moved_m
        left = max(low, high, key=lambda one: (total - one) ** 2 + one**2)
        for source in (*moves[0].zero, *moves[0].look):
            known = errors.get(source.error)
            errors[source.error] = (source, -left if known is None else known[1] - left)
        if high > low:
            bounds.append(Bound("zero moved somewhere between two looks", (high - low) / 2 * abs(moves[0].moved_m)))
    listed = tuple(one for one in errors.values() if one[1] != 0.0)
    return Stated(value, _combined(what, listed, coverage_factor, tuple(bounds), bias_m))


def value_of(one: Estimate) -> float:
    """Value of an estimate, half of every move taken off as stated does; quicker where no ± is asked for. [m]

    House rule of stated.
    """
    if not one.moves:
        return one.value_m
    return stated("", one).value_m


def _sums_of(moves: Sequence[Move]) -> tuple[float, float, float]:
    """Least and greatest share of a move that a sum of readings may carry, and the sum of their weights. [1]"""
    sums, total = [0.0], 0.0
    for move in sorted(moves, key=lambda one: -one.order):
        total += move.weight
        # Weights that cancel leave float noise of their size.
        sums.append(0.0 if abs(total) < 1e-12 else total)
    return min(sums), max(sums), sums[-1]
