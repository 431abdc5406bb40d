"""The card's rules applied to the readings of every hole of a block.

Each rule gives its value, its uncertainty and a three-way decision; the hole's state follows from
them: out if any rule is out, else not measured if a required position is missing, else cannot
tell if any rule is or a required position cannot be read, else in.
"""

import itertools
from dataclasses import dataclass, replace
from math import hypot, sqrt
from statistics import fmean

import numpy as np

from vallostasis.core.measuring.clock import angle_of_hour, hour_name
from vallostasis.core.measuring.decision import Acceptance, Decision, RuleResult, State, decide
from vallostasis.core.measuring.uncertainty import (
    ReadingTrust,
    standard_of_difference,
    standard_of_mean,
)
from vallostasis.core.protrusion.plane import PlaneFit, different_positions, fit_plane
from vallostasis.core.protrusion.stack import StackResidual


@dataclass(frozen=True, slots=True)
class ProtrusionLimits:
    """Limits that hold for one hole, None where the card sets none. [m]"""

    least_m: float | None
    greatest_m: float | None
    variation_m: float | None
    neighbour_m: float | None
    head_least_m: float | None
    head_greatest_m: float | None


@dataclass(frozen=True, slots=True)
class RuleBook:
    """How a block is judged: positions, heads by hole number, decision rule."""

    required_hours: tuple[float, ...]
    heads: tuple[tuple[int, ...], ...]
    acceptance: Acceptance
    coverage_factor: float


@dataclass(frozen=True, slots=True)
class HourReadings:
    """All unstruck readings at one clock position of one set. [h], [m]"""

    hour: float
    values_m: tuple[float, ...]

    @property
    def mean_m(self) -> float:
        """Mean of the repeats. [m]"""
        return fmean(self.values_m)


@dataclass(frozen=True, slots=True)
class MeasuredHole:
    """What is known of one hole: its newest set, the limits for its fitting, what the parts predict."""

    hole: int
    limits: ProtrusionLimits
    readings: tuple[HourReadings, ...]
    trust: ReadingTrust
    zero: str
    residual: StackResidual | None = None
    reopened: str = ""
    unreadable: tuple[tuple[float, str], ...] = ()
    doubt: str = ""


@dataclass(frozen=True, slots=True)
class HoleJudgement:
    """The state of a hole and everything that led to it. Lengths in m."""

    hole: int
    state: State
    reason: str
    rules: tuple[RuleResult, ...]
    missing_hours: tuple[float, ...]
    mean_m: float | None
    mean_expanded_m: float | None
    variation_m: float | None
    plane: PlaneFit | None


@dataclass(frozen=True, slots=True)
class HeadAverage:
    """Average protrusion under one head; the value is None until every hole under it is measured. [m]"""

    holes: tuple[int, ...]
    result: RuleResult | None


@dataclass(frozen=True, slots=True)
class BlockJudgement:
    """Every hole, and every head's average."""

    holes: tuple[HoleJudgement, ...]
    heads: tuple[HeadAverage, ...]


def judge_block(holes: tuple[MeasuredHole, ...], book: RuleBook) -> BlockJudgement:
    """Judge every hole of a block.

    Parameters
    ----------
    holes : tuple of MeasuredHole
        One for each hole, in any order.
    book : RuleBook
        The card's positions, heads and decision rule.

    Returns
    -------
    BlockJudgement
        State, reason and rule results of each hole, and each head's average.

    Raises
    ------
    OutOfDomain
        If a value is not finite or limits are crossed.

    Notes
    -----
    The decision is that of measuring.decision. Rules between holes wait until both are fully
    measured; a hole is not held back by a neighbour that is not.
    """
    by_number = {hole.hole: hole for hole in holes}
    heads = tuple(_head_average([by_number[n] for n in head if n in by_number], book) for head in book.heads)
    shared: dict[int, list[RuleResult]] = {hole.hole: [] for hole in holes}
    for average in heads:
        for number in average.holes:
            if average.result is not None:
                shared[number].append(average.result)
    for head in book.heads:
        for first, second in itertools.pairwise(head):
            if first in by_number and second in by_number:
                for hole, other in ((first, second), (second, first)):
                    result = _neighbours(by_number[hole], by_number[other], book)
                    if result is not None:
                        shared[hole].append(result)
    judged = tuple(_judge_hole(hole, tuple(shared[hole.hole]), book) for hole in holes)
    return BlockJudgement(judged, heads)


def _judge_hole(hole: MeasuredHole, shared: tuple[RuleResult, ...], book: RuleBook) -> HoleJudgement:
    missing = _missing(hole, book)
    rules = (*_single_readings(hole, book), *_variation(hole, book), *_stack(hole), *shared)
    state, reason = _state(hole, rules, missing)
    mean = fmean(reading.mean_m for reading in hole.readings) if hole.readings else None
    values = [reading.mean_m for reading in hole.readings]
    return HoleJudgement(
        hole=hole.hole,
        state=state,
        reason=reason,
        rules=rules,
        missing_hours=missing,
        mean_m=mean,
        mean_expanded_m=book.coverage_factor * _standard_of_hole_mean(hole) if values else None,
        variation_m=max(values) - min(values) if len(values) > 1 else None,
        plane=_plane(hole),
    )


def _missing(hole: MeasuredHole, book: RuleBook) -> tuple[float, ...]:
    known = {reading.hour for reading in hole.readings} | {hour for hour, _ in hole.unreadable}
    return tuple(hour for hour in book.required_hours if hour not in known)


def _plane(hole: MeasuredHole) -> PlaneFit | None:
    angles = np.array([angle_of_hour(reading.hour) for reading in hole.readings])
    if different_positions(angles) < 3:
        return None
    return fit_plane(angles, [reading.mean_m for reading in hole.readings])


def _own_share(hole: MeasuredHole) -> float:
    """Own part of the standard uncertainty of the mean over positions, repeats averaged first. [m]"""
    parts = [hole.trust.random_m / sqrt(len(reading.values_m)) for reading in hole.readings]
    return hypot(*parts) / len(parts)


def _standard_of_hole_mean(hole: MeasuredHole) -> float:
    return hypot(_own_share(hole), hole.trust.zero_m)


def _single_readings(hole: MeasuredHole, book: RuleBook) -> tuple[RuleResult, ...]:
    limits = hole.limits
    results = []
    for reading in hole.readings:
        expanded = book.coverage_factor * standard_of_mean(hole.trust, len(reading.values_m))
        decision = decide(reading.mean_m, expanded, limits.least_m, limits.greatest_m, book.acceptance)
        results.append(
            RuleResult("protrusion", hour_name(reading.hour), reading.mean_m, expanded, limits.least_m,
                       limits.greatest_m, decision)
        )  # fmt: skip
    return tuple(results)


def _variation(hole: MeasuredHole, book: RuleBook) -> tuple[RuleResult, ...]:
    if len(hole.readings) < 2 or hole.limits.variation_m is None:
        return ()
    highest = max(hole.readings, key=lambda reading: reading.mean_m)
    lowest = min(hole.readings, key=lambda reading: reading.mean_m)
    standard = standard_of_difference(
        hole.trust, len(highest.values_m), hole.trust, len(lowest.values_m), same_zero=True
    )
    expanded = book.coverage_factor * standard
    value = highest.mean_m - lowest.mean_m
    decision = decide(value, expanded, None, hole.limits.variation_m, book.acceptance)
    where = f"{hour_name(highest.hour)} to {hour_name(lowest.hour)}"
    return (RuleResult("variation round", where, value, expanded, None, hole.limits.variation_m, decision),)


def _stack(hole: MeasuredHole) -> tuple[RuleResult, ...]:
    """A reading that the parts cannot explain leaves the hole undecided, however good it looks."""
    if hole.residual is None:
        return ()
    state = State.IN if hole.residual.agrees else State.CANNOT_TELL
    return (
        RuleResult("parts against reading", "", hole.residual.residual_m, hole.residual.expanded_m, None, None,
                   Decision(state, state)),
    )  # fmt: skip


def _neighbours(hole: MeasuredHole, other: MeasuredHole, book: RuleBook) -> RuleResult | None:
    limit = hole.limits.neighbour_m
    if limit is None or _missing(hole, book) or _missing(other, book) or not (hole.readings and other.readings):
        return None
    value = fmean(r.mean_m for r in hole.readings) - fmean(r.mean_m for r in other.readings)
    standard = standard_of_difference(
        replace(hole.trust, random_m=_own_share(hole)), 1,
        replace(other.trust, random_m=_own_share(other)), 1,
        same_zero=hole.zero == other.zero,
    )  # fmt: skip
    expanded = book.coverage_factor * standard
    decision = decide(abs(value), expanded, None, limit, book.acceptance)
    return RuleResult("difference to neighbour", f"hole {other.hole}", abs(value), expanded, None, limit, decision)


def _head_average(holes: list[MeasuredHole], book: RuleBook) -> HeadAverage:
    numbers = tuple(hole.hole for hole in holes)
    if not holes or any(_missing(hole, book) or not hole.readings for hole in holes):
        return HeadAverage(numbers, None)
    limits = holes[0].limits
    if limits.head_least_m is None and limits.head_greatest_m is None:
        return HeadAverage(numbers, None)
    value = fmean(fmean(r.mean_m for r in hole.readings) for hole in holes)
    own = hypot(*(_own_share(hole) for hole in holes)) / len(holes)
    zeros = {hole.zero: hole.trust.zero_m for hole in holes}
    shares = [zeros[zero] * sum(hole.zero == zero for hole in holes) / len(holes) for zero in zeros]
    expanded = book.coverage_factor * hypot(own, *shares)
    decision = decide(value, expanded, limits.head_least_m, limits.head_greatest_m, book.acceptance)
    where = f"holes {', '.join(str(number) for number in numbers)}"
    return HeadAverage(
        numbers,
        RuleResult("average under one head", where, value, expanded, limits.head_least_m,
                   limits.head_greatest_m, decision),
    )  # fmt: skip


def _state(hole: MeasuredHole, rules: tuple[RuleResult, ...], missing: tuple[float, ...]) -> tuple[State, str]:
    if hole.reopened:
        return State.NOT_MEASURED, hole.reopened
    if hole.doubt:
        return State.CANNOT_TELL, hole.doubt
    out = [rule for rule in rules if rule.decision.state is State.OUT]
    if out:
        return State.OUT, _reason(out)
    if missing:
        hours = ", ".join(hour_name(hour) for hour in missing)
        return State.NOT_MEASURED, f"{hours} {'is' if len(missing) == 1 else 'are'} missing: read it"
    unsure = [rule for rule in rules if rule.decision.state is State.CANNOT_TELL]
    if unsure:
        return State.CANNOT_TELL, _reason(unsure)
    if hole.unreadable:
        return State.CANNOT_TELL, "; ".join(f"{hour_name(hour)} cannot be read: {why}" for hour, why in hole.unreadable)
    return State.IN, "every rule of the card is met beyond the uncertainty" if _proven(rules) else (
        "accepted by the value; not every rule is proven beyond the uncertainty"
    )


def _proven(rules: tuple[RuleResult, ...]) -> bool:
    return all(rule.decision.guarded is State.IN for rule in rules)


def _side(rule: RuleResult) -> str:
    if rule.rule == "parts against reading":
        return "parts and reading disagree"
    if rule.least_m is not None and rule.value_m < rule.least_m + rule.expanded_m:
        beyond, limit = "below", "least"
    else:
        beyond, limit = "above", "greatest"
    if rule.decision.state is State.OUT:
        return f"{beyond} {limit}"
    return f"too near the {limit} to tell"


def _reason(rules: list[RuleResult]) -> str:
    """Say which rule failed and where, single readings grouped by side."""
    parts: list[str] = []
    singles = [rule for rule in rules if rule.rule == "protrusion"]
    for side in dict.fromkeys(_side(rule) for rule in singles):
        parts.append(f"{side} at {', '.join(r.where for r in singles if _side(r) == side)}")
    for rule in rules:
        if rule.rule == "parts against reading":
            parts.append(_side(rule))
        elif rule.rule != "protrusion":
            parts.append(f"{rule.rule} ({rule.where}) {_side(rule)}")
    return "; ".join(parts)
