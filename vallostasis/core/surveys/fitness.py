"""Which gauge is fit for which decision of a card, and what would settle a reading that is undecided."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from vallostasis.core.features.catalogue import GAUGE_WORDS, feature_of
from vallostasis.core.gauges.circumstances import overdue
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, Setup
from vallostasis.core.records.spec_card import Limit, SpecCard, sheet_of
from vallostasis.core.surveys.places import protrusion_limits
from vallostasis.core.surveys.set_budget import budget_of_gauge, reading_of_gauge
from vallostasis.core.uncertainty.budget import Budget, difference_of, stated
from vallostasis.core.uncertainty.decision import (
    Capability,
    RuleKind,
    RuleResult,
    State,
    gauge_capability,
    repeats_to_settle,
)


@dataclass(frozen=True, slots=True)
class DecisionAsked:
    """One thing a card decides: a window, or a difference that must stay below a limit. [m]"""

    name: str
    quantity: Quantity
    least_m: float
    greatest_m: float
    is_difference: bool
    nominal_um: Decimal | None = None


@dataclass(frozen=True, slots=True)
class GaugeFit:
    """How fit a gauge is for a decision, with its expanded uncertainty [m] and what speaks against it."""

    gauge: GaugeVersion
    expanded_m: float
    capability: Capability
    against: str


def decisions_of(card: SpecCard) -> tuple[DecisionAsked, ...]:
    """List what a card decides by measuring."""
    limits, asked = card.limits, []
    pairs = (
        ("protrusion without shim", limits.least_without_shim, limits.greatest_without_shim),
        ("protrusion with shim", limits.least_with_shim, limits.greatest_with_shim),
    )
    for name, least, greatest in pairs:
        asked += _window(name, Quantity.PROTRUSION, least, greatest, Decimal(0))
    asked += _difference("variation round one liner", Quantity.PROTRUSION, limits.variation_round, Decimal(0))
    asked += _difference("difference between neighbours", Quantity.PROTRUSION, limits.neighbour_difference, Decimal(0))
    for sheet in card.features:
        nominal = None if sheet.nominal.length is None else sheet.nominal.length.um
        asked += _window(sheet.quantity.value, sheet.quantity, sheet.least, sheet.greatest, nominal)
        asked += _difference(f"{sheet.quantity.value}: out of round", sheet.quantity, sheet.out_of_round, nominal)
        asked += _difference(f"{sheet.quantity.value}: taper", sheet.quantity, sheet.taper, nominal)
    return tuple(asked)


def _window(
    name: str, quantity: Quantity, least: Limit, greatest: Limit, nominal: Decimal | None
) -> list[DecisionAsked]:
    low, high = least.metres, greatest.metres
    # What a feeler reads begins at nought.
    if high is not None and low is None and "feeler" in feature_of(quantity).gauges:
        return [DecisionAsked(name, quantity, 0.0, high, False, nominal)] if high > 0 else []
    if low is None or high is None or high <= low:
        return []
    return [DecisionAsked(name, quantity, low, high, False, nominal)]


def _difference(name: str, quantity: Quantity, limit: Limit, nominal: Decimal | None) -> list[DecisionAsked]:
    width = limit.metres
    return [] if width is None or width <= 0 else [DecisionAsked(name, quantity, 0.0, width, True, nominal)]


def expanded_for(asked: DecisionAsked, gauge: GaugeVersion, coverage_factor: float) -> float:
    """Expanded uncertainty with which a gauge decides: of one reading, or of the difference of two. [m]"""
    return _budget_for(gauge, asked.is_difference, coverage_factor).expanded_m


def _budget_for(gauge: GaugeVersion, is_difference: bool, coverage_factor: float) -> Budget:
    if not is_difference:
        return budget_of_gauge(gauge, coverage_factor)
    apart = difference_of(reading_of_gauge(gauge, "one"), reading_of_gauge(gauge, "other"))
    return stated("difference of two readings", apart, coverage_factor).budget


def capability_of_setup(facts: JobFacts, setup: Setup) -> tuple[Budget, Capability | None]:
    """Budget of one reading of the gauge in use, and whether it is fit for the card's protrusion window."""
    budget = budget_of_gauge(facts.newest_gauge(setup.gauge_id), facts.card.coverage_factor)
    limits = protrusion_limits(facts.card, False)
    if setup.quantity is not Quantity.PROTRUSION or limits.least_m is None or limits.greatest_m is None:
        return budget, None
    return budget, gauge_capability(budget.expanded_m, limits.least_m, limits.greatest_m)


def fit_for(asked: DecisionAsked, gauge: GaugeVersion, coverage_factor: float, today: date) -> GaugeFit | None:
    """Judge a gauge for a decision; None where it is not made for it.

    Notes
    -----
    The rule is that of gauge_capability: an instrument of one thou on a window of three proves nothing.
    """
    if not made_for(gauge, asked.quantity, asked.nominal_um):
        return None
    expanded = expanded_for(asked, gauge, coverage_factor)
    against = []
    if overdue(gauge, today):
        against.append("overdue for calibration")
    if gauge.faults:
        against.append(gauge.faults)
    capability = gauge_capability(expanded, asked.least_m, asked.greatest_m)
    return GaugeFit(gauge, expanded, capability, "; ".join(against))


def made_for(gauge: GaugeVersion, quantity: Quantity, nominal_um: Decimal | None = None) -> bool:
    """Whether kind and range of a gauge suit what is read; an unknown kind or range rules nothing out. [µm]"""
    kind = gauge.kind.casefold()
    known = [word for word in GAUGE_WORDS if word in kind]
    if known and not any(word in feature_of(quantity).gauges for word in known):
        return False
    if gauge.range_from_um is None or gauge.range_to_um is None or nominal_um is None:
        return True
    # A bore gauge's range is that of the bores it enters; a depth gauge's that of its spindle.
    return gauge.range_from_um <= nominal_um <= gauge.range_to_um


def gauges_for(card: SpecCard, quantity: Quantity, cabinet: Iterable[GaugeVersion]) -> tuple[GaugeVersion, ...]:
    """Return the gauges that are made for a feature of a card, the finest first."""
    sheet = sheet_of(card, quantity)
    nominal = None if sheet is None or sheet.nominal.length is None else sheet.nominal.length.um
    suited = (gauge for gauge in cabinet if made_for(gauge, quantity, nominal))
    return tuple(sorted(suited, key=lambda gauge: _budget_for(gauge, True, 1.0).expanded_m))


@dataclass(frozen=True, slots=True)
class Settling:
    """What would settle an undecided rule: readings in all at one place, or gauges that would do."""

    rule: str
    where: str
    readings: int | None
    gauges: tuple[str, ...]


# What these are about is a difference: what the readings share cancels.
_DIFFERENCES = (RuleKind.OUT_OF_ROUND, RuleKind.TAPER, RuleKind.VARIATION, RuleKind.NEIGHBOUR, RuleKind.FLATNESS)


def what_would_settle(
    rules: Iterable[RuleResult], quantity: Quantity, gauges: Iterable[GaugeVersion], coverage_factor: float
) -> tuple[Settling, ...]:
    """Say for each undecided rule how many readings, or which gauge of the cabinet, would settle it.

    GUM 4.2.3 by repeats_to_settle; the choice of gauges is a house rule.
    """
    cabinet = [one for one in gauges if made_for(one, quantity) and not one.faults]
    found = []
    for rule in rules:
        limit = nearest_limit(rule)
        if rule.decision.guarded is not State.CANNOT_TELL or limit is None:
            continue
        readings = repeats_to_settle(rule.stated, limit, rule.readings)
        difference = rule.kind in _DIFFERENCES
        # A gauge of the same kind in its place: what picks the readings farthest off widens it as it does this one.
        wide = rule.stated.budget.coverage / coverage_factor if difference else 1.0
        finer = tuple(
            gauge.name
            for gauge in cabinet
            if wide * _budget_for(gauge, difference, coverage_factor).expanded_m < abs(rule.value_m - limit)
        )
        found.append(Settling(rule.rule, rule.where, readings, finer))
    return tuple(found)


def nearest_limit(rule: RuleResult) -> float | None:
    """The limit that a rule's value is nearest to; None where it has none. [m] By definition."""
    limits = [one for one in (rule.least_m, rule.greatest_m) if one is not None]
    return min(limits, key=lambda one: abs(rule.value_m - one), default=None)
