"""In, out or cannot tell: a value with its uncertainty against two limits.

References
----------
.. [1] ISO 14253-1, Geometrical product specifications: Decision rules for verifying conformity or
   nonconformity with specifications. The 2017 edition allows nearer 1.65 u for a one-sided
   decision (from memory); this house decides with U = k·u and k = 2 unless the card says otherwise.
"""

from dataclasses import dataclass
from enum import StrEnum
from math import hypot, inf
from statistics import NormalDist

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.trail import Kind, Step, Term
from vallostasis.core.uncertainty.budget import Stated

ISO_14253 = "ISO 14253-1: proven in, proven out, or the limit lies inside ±U"


class State(StrEnum):
    """What can be said of a value, a rule or a hole."""

    IN = "in"
    OUT = "out"
    CANNOT_TELL = "cannot tell"
    NOT_MEASURED = "not measured"
    READ_AGAIN = "read again"


# Sums of a few decimals in floats differ by less; no gauge reads a picometre.
ROUNDING = 1e-12


@dataclass(frozen=True, slots=True)
class Decision:
    """The answer by the card's rule, and what the uncertainty alone allows to be said."""

    state: State
    guarded: State


class RuleKind(StrEnum):
    """What a rule of the card is about."""

    READING = "reading"
    VARIATION = "variation round"
    NEIGHBOUR = "difference to neighbour"
    HEAD_AVERAGE = "average under one head"
    PARTS = "parts against reading"
    OUT_OF_ROUND = "out of round"
    TAPER = "taper"
    FLATNESS = "flatness"


class Side(StrEnum):
    """Which limit a value is beyond, or too near to."""

    LEAST = "least"
    GREATEST = "greatest"


@dataclass(frozen=True, slots=True)
class RuleResult:
    """One rule held against one value. [m]

    ``quantity`` is what is read where the rule is about readings; ``readings`` how many stand at each place.
    """

    kind: RuleKind
    where: str
    stated: Stated
    least_m: float | None
    greatest_m: float | None
    decision: Decision
    quantity: Quantity | None = None
    readings: int = 1
    hour: float | None = None

    @property
    def rule(self) -> str:
        """Its name in words: that of what is read, else its kind."""
        return self.kind.value if self.quantity is None else self.quantity.value

    @property
    def value_m(self) -> float:
        """The value that is held against the limits. [m]"""
        return self.stated.value_m

    @property
    def expanded_m(self) -> float:
        """Its expanded uncertainty. [m]"""
        return self.stated.expanded_m

    @property
    def side(self) -> Side | None:
        """The limit it is beyond, or nearest to; None where it has none. House rule."""
        beyond = {
            Side.LEAST: -inf if self.least_m is None else self.least_m - self.value_m,
            Side.GREATEST: -inf if self.greatest_m is None else self.value_m - self.greatest_m,
        }
        side = max(beyond, key=lambda one: beyond[one])
        return None if beyond[side] == -inf else side

    @property
    def words(self) -> str:
        """How it stands to its limit."""
        if self.kind is RuleKind.PARTS:
            return "parts and reading disagree"
        if self.decision.state is State.CANNOT_TELL:
            return f"too near the {self.side} to tell"
        return f"{'below' if self.side is Side.LEAST else 'above'} {self.side}"


def judge(
    kind: RuleKind,
    where: str,
    value: Stated,
    limits: tuple[float | None, float | None],
    acceptance: Acceptance,
    quantity: Quantity | None = None,
    readings: int = 1,
    hour: float | None = None,
) -> RuleResult:
    """Hold a stated value against its limits as one rule. [m]"""
    decision = decide(value.value_m, value.expanded_m, *limits, acceptance)
    return RuleResult(kind, where, value, *limits, decision, quantity, readings, hour)


@dataclass(frozen=True, slots=True)
class Standing:
    """What decides the state of a hole, a part or a position, in words where it is not a rule.

    ``reopened`` where what was read does not count any more, ``disturbed`` where something was done since that makes it
    to be read again, ``doubt`` where a zero is in doubt, ``missing`` places that nobody read, ``unreadable`` places
    that cannot be read, with the reason.
    """

    rules: tuple[RuleResult, ...]
    reopened: str = ""
    disturbed: str = ""
    doubt: str = ""
    missing: str = ""
    relative: str = ""
    unreadable: tuple[str, ...] = ()
    no_limits: str = ""


def state_of(standing: Standing) -> tuple[State, str]:
    """Decide what can be said, and why: one rule for positions, parts and holes.

    Notes
    -----
    What does not count any more comes first, then what was disturbed since it was read, then a zero in doubt or parts
    and reading that disagree, then a rule that is out, then what is missing, then what cannot be told, then in.
    House rule.
    """
    rules = standing.rules
    disagree = [one for one in rules if one.kind is RuleKind.PARTS and one.decision.state is not State.IN]
    out = [one for one in rules if one.decision.state is State.OUT]
    unsure = [one for one in rules if one.decision.state is State.CANNOT_TELL]
    for applies, state, reason in (
        (standing.reopened, State.NOT_MEASURED, standing.reopened),
        (standing.disturbed, State.READ_AGAIN, standing.disturbed),
        (standing.doubt, State.CANNOT_TELL, standing.doubt),
        (disagree, State.CANNOT_TELL, reason_of(disagree)),
        (out, State.OUT, reason_of(out)),
        (standing.missing, State.NOT_MEASURED, standing.missing),
        (standing.relative, State.CANNOT_TELL, standing.relative),
        (unsure, State.CANNOT_TELL, reason_of(unsure)),
        (standing.unreadable, State.CANNOT_TELL, "; ".join(standing.unreadable)),
        (not rules and standing.no_limits, State.IN, standing.no_limits),
    ):
        if applies:
            return state, reason
    if all(one.decision.guarded is State.IN for one in rules):
        return State.IN, "every rule of the card is met beyond the uncertainty"
    return State.IN, "accepted by the value; not every rule is proven beyond the uncertainty"


def reason_of(rules: list[RuleResult]) -> str:
    """Say which rules failed and where, single readings grouped by side."""
    said: list[str] = []
    singles = [one for one in rules if one.kind is RuleKind.READING]
    for words in dict.fromkeys(one.words for one in singles):
        where = [one.where for one in singles if one.words == words and one.where]
        listed = ", ".join(where[:_MOST_NAMED]) + (" and more" if len(where) > _MOST_NAMED else "")
        said.append(f"{words} at {listed}" if where else words)
    for one in rules:
        if one.kind is RuleKind.PARTS:
            said.append(one.words)
        elif one.kind is not RuleKind.READING:
            said.append(f"{one.rule}{f' ({one.where})' if one.where else ''} {one.words}")
    return "; ".join(said)


# So many places are named one by one in a sentence.
_MOST_NAMED = 4


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
    what: str,
    value_m: float,
    expanded_m: float,
    least_m: float | None,
    greatest_m: float | None,
    kind: Kind = "small",
) -> Step:
    """Write a decision out as one line of arithmetic. [m]"""
    limits = [
        Term(name, limit, kind) for name, limit in (("least", least_m), ("greatest", greatest_m)) if limit is not None
    ]
    formula = {
        ("least", "greatest"): "in: least + U ≤ value ≤ greatest − U",
        ("greatest",): "in: value ≤ greatest − U",
        ("least",): "in: value ≥ least + U",
        (): "no limit",
    }[tuple(term.symbol for term in limits)]
    terms = (Term("value", value_m, kind), Term("U", expanded_m, "within"), *limits)
    return Step(what, formula, terms, Term("value", value_m, kind), ISO_14253)


def repeats_to_settle(value: Stated, limit_m: float, have: int = 1, most: int = 20) -> int | None:
    """How many readings at each place would move the limit out of ±U if the value stays.

    Parameters
    ----------
    value : Stated
        The value with its budget. [m]
    limit_m : float
        The limit it is too near to. [m]
    have : int
        Readings that stand at each place now.
    most : int
        Where this many do not settle it, no number will.

    Returns
    -------
    int or None
        Readings in all at each place, at least one more than there are; None where repeats cannot settle it.

    Raises
    ------
    OutOfDomain
        If an input is not finite.

    Notes
    -----
    Smallest n with |value − limit| > k·√(u²·have/n + z²) + what is added as it is; what readings share does not shrink.
    GUM 4.2.3.
    """
    require_finite(value=value.value_m, limit=limit_m)
    distance, budget = abs(value.value_m - limit_m), value.budget
    own, shared = budget.part_m(shared=False), budget.part_m(shared=True)
    fixed = sum(bound.half_width_m for bound in budget.bounds)
    for readings in range(have + 1, most + 1):
        if distance > budget.coverage * hypot(own * (have / readings) ** 0.5, shared) + fixed:
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
        Good up to a tenth of the window on either side (window to ±U five to one), marginal up to a quarter (two to
        one), beyond that more than half of the window can never be proven in.

    Raises
    ------
    OutOfDomain
        If U is negative or the window is not open.

    Notes
    -----
    Common practice, no published source.
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
    Definition of the normal distribution.
    """
    require_not_negative(standard_uncertainty=standard_m)
    if standard_m == 0:
        return 1.0 if least_m <= value_m <= greatest_m else 0.0
    spread = NormalDist(value_m, standard_m)
    return spread.cdf(greatest_m) - spread.cdf(least_m)
