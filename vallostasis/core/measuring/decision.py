"""In, out or cannot tell: a value with its uncertainty against two limits.

References
----------
.. [1] ISO 14253-1, Geometrical product specifications: Decision rules for verifying conformity or
   nonconformity with specifications. The 2017 edition allows nearer 1.65 u for a one-sided
   decision (from memory); this house decides with U = k·u and k = 2 unless the card says otherwise.
"""

from dataclasses import dataclass
from enum import StrEnum
from math import hypot, inf, sqrt
from statistics import NormalDist

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.trail import Step, Term

ISO_14253 = "ISO 14253-1: proven in, proven out, or the limit lies inside ±U"


class State(StrEnum):
    """What can be said of a value, a rule or a hole."""

    IN = "in"
    OUT = "out"
    CANNOT_TELL = "cannot tell"
    NOT_MEASURED = "not measured"


class Acceptance(StrEnum):
    """Decision rule of a card: proof beyond the uncertainty, or simple acceptance by the value."""

    GUARDED = "guarded"
    SIMPLE = "simple"


# Sums of a few decimals in floats differ by less; no gauge reads a picometre.
ROUNDING = 1e-12


@dataclass(frozen=True, slots=True)
class Decision:
    """The answer by the card's rule, and what the uncertainty alone allows to be said."""

    state: State
    guarded: State


@dataclass(frozen=True, slots=True)
class RuleResult:
    """One rule held against one value. [m]"""

    rule: str
    where: str
    value_m: float
    expanded_m: float
    least_m: float | None
    greatest_m: float | None
    decision: Decision


def decide(
    value_m: float,
    expanded_m: float,
    least_m: float | None,
    greatest_m: float | None,
    acceptance: Acceptance = Acceptance.GUARDED,
) -> Decision:
    """Decide one value against its limits.

    Parameters
    ----------
    value_m : float
        The measured or predicted value. [m]
    expanded_m : float
        Its expanded uncertainty U. [m]
    least_m, greatest_m : float or None
        Limits, either may be absent. [m]
    acceptance : Acceptance
        The card's rule.

    Returns
    -------
    Decision
        ``in`` if least + U ≤ value ≤ greatest − U, ``out`` if value < least − U or
        value > greatest + U, else ``cannot tell``; under simple acceptance the value alone
        decides and ``guarded`` still says what is proven.

    Raises
    ------
    OutOfDomain
        If the value is not finite, U is negative, or the limits are crossed.
    """
    require_finite(value=value_m)
    require_not_negative(expanded_uncertainty=expanded_m)
    low = -inf if least_m is None else least_m
    high = inf if greatest_m is None else greatest_m
    if low > high:
        raise OutOfDomain(f"least limit {low} m lies above greatest limit {high} m", "limits")
    guarded = _against(value_m, expanded_m, low, high)
    if acceptance is Acceptance.GUARDED:
        return Decision(guarded, guarded)
    return Decision(_against(value_m, 0.0, low, high), guarded)


def _against(value: float, expanded: float, low: float, high: float) -> State:
    if low + expanded - ROUNDING <= value <= high - expanded + ROUNDING:
        return State.IN
    if value < low - expanded - ROUNDING or value > high + expanded + ROUNDING:
        return State.OUT
    return State.CANNOT_TELL


def decision_step(
    what: str, value_m: float, expanded_m: float, least_m: float | None, greatest_m: float | None
) -> Step:
    """Write a decision out as one line of arithmetic. [m]"""
    limits = [Term(name, limit) for name, limit in (("least", least_m), ("greatest", greatest_m)) if limit is not None]
    formula = {
        ("least", "greatest"): "in: least + U ≤ value ≤ greatest − U",
        ("greatest",): "in: value ≤ greatest − U",
        ("least",): "in: value ≥ least + U",
        (): "no limit",
    }[tuple(term.symbol for term in limits)]
    terms = (Term("value", value_m), Term("U", expanded_m, "within"), *limits)
    return Step(what, formula, terms, Term("value", value_m), ISO_14253)


def repeats_to_settle(
    value_m: float, limit_m: float, random_m: float, zero_m: float, coverage_factor: float, most: int = 20
) -> int | None:
    """Say how many readings at one place would lift a value clear of a limit.

    Parameters
    ----------
    value_m, limit_m : float
        The value as read so far, and the limit it stands too near to. [m]
    random_m, zero_m : float
        Own and shared standard uncertainty of one reading. [m]
    coverage_factor : float
        k of U = k·u.
    most : int
        More readings than this are not worth proposing.

    Returns
    -------
    int or None
        Readings in all, if their mean stays where it is; None when no number of them will do and a
        finer gauge is needed.

    Raises
    ------
    OutOfDomain
        If an input is negative or not finite.

    Notes
    -----
    Smallest n with |value − limit| > k·√(u²/n + z²). The shared part does not shrink.
    """
    require_finite(value=value_m, limit=limit_m)
    require_not_negative(random=random_m, zero=zero_m, coverage_factor=coverage_factor)
    distance = abs(value_m - limit_m)
    for readings in range(1, most + 1):
        if distance > coverage_factor * hypot(random_m / sqrt(readings), zero_m):
            return readings
    return None


class Capability(StrEnum):
    """Whether a gauge can decide on a window at all."""

    GOOD = "good"
    MARGINAL = "marginal"
    WRONG_TOOL = "wrong tool"


def gauge_capability(expanded_m: float, least_m: float, greatest_m: float) -> Capability:
    """Judge a gauge against the window it has to decide on.

    Parameters
    ----------
    expanded_m : float
        Expanded uncertainty of one reading. [m]
    least_m, greatest_m : float
        The window. [m]

    Returns
    -------
    Capability
        Good up to a tenth of the window on either side, marginal up to a quarter, beyond that more
        than half of the window can never be proven in.

    Raises
    ------
    OutOfDomain
        If U is negative or the window is not open.

    Notes
    -----
    The ten-to-one and four-to-one rules: common practice, no published source.
    """
    require_not_negative(expanded_uncertainty=expanded_m)
    window = greatest_m - least_m
    if not window > 0:
        raise OutOfDomain(f"a window needs least {least_m} m below greatest {greatest_m} m", "limits")
    # Float noise of a quotient of decimals, far below any gauge.
    share = expanded_m / window - 1e-9
    if share <= 0.1:
        return Capability.GOOD
    return Capability.MARGINAL if share <= 0.25 else Capability.WRONG_TOOL


def chance_inside(value_m: float, standard_m: float, least_m: float, greatest_m: float) -> float:
    """Probability that a normally spread value lands between two limits.

    Parameters
    ----------
    value_m, standard_m : float
        Expected value and its standard uncertainty. [m]
    least_m, greatest_m : float
        Limits. [m]

    Returns
    -------
    float
        Probability, 0 to 1. [1]

    Raises
    ------
    OutOfDomain
        If the standard uncertainty is negative.

    Notes
    -----
    Difference of two normal distribution functions; a rectangular stop error is thereby
    treated as normal with the same standard deviation.
    """
    require_not_negative(standard_uncertainty=standard_m)
    if standard_m == 0:
        return 1.0 if least_m <= value_m <= greatest_m else 0.0
    spread = NormalDist(value_m, standard_m)
    return spread.cdf(greatest_m) - spread.cdf(least_m)
