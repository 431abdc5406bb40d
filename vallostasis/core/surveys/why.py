"""The arithmetic behind what is said of one feature on one part, line by line, and the limits it is held against."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import FeatureSheet, Limit, SpecCard, sheet_of, typed_with_unit
from vallostasis.core.surveys.places import PlaceRead
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.trail import Kind, Step, Term
from vallostasis.core.uncertainty.budget import Budget
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, Side, State, decision_step

GUM = "JCGM 100:2008 (GUM), 4.3.7 and 5.1.2"


@dataclass(frozen=True, slots=True)
class LimitUsed:
    """A limit that a rule was held against, with where it comes from. [m]"""

    name: str
    value_m: float
    typed: str
    source: str
    status: str


def limits_told(named: Iterable[tuple[str, Limit]], card: SpecCard, *, is_size: bool = False) -> tuple[LimitUsed, ...]:
    """Limits that the card sets, as typed and with their sources. By definition of the units."""
    return tuple(
        LimitUsed(name, limit.length.metres, typed_with_unit(limit.length, card.unit, is_size=is_size), limit.source,
                  limit.status.value)
        for name, limit in named
        if limit.length is not None
    )  # fmt: skip


def limits_of_survey(card: SpecCard, quantity: Quantity, kind: RuleKind) -> tuple[LimitUsed, ...]:
    """Limits behind one kind of rule of a feature, with their sources. As the card says."""
    sheet = sheet_of(card, quantity)
    if sheet is None:
        return ()
    is_size = kind is RuleKind.READING and feature_of(quantity).is_size
    return limits_told(_named_limits(sheet, kind), card, is_size=is_size)


def _named_limits(sheet: FeatureSheet, kind: RuleKind) -> tuple[tuple[str, Limit], ...]:
    of_readings = ((f"least {sheet.quantity.value}", sheet.least), (f"greatest {sheet.quantity.value}", sheet.greatest))
    return {
        RuleKind.READING: of_readings,
        RuleKind.OUT_OF_ROUND: (("greatest out of round", sheet.out_of_round),),
        RuleKind.TAPER: (("greatest taper", sheet.taper),),
        RuleKind.FLATNESS: (("flat within", sheet.greatest),),
    }.get(kind, ())


def explain_survey(survey: Survey) -> tuple[Step, ...]:
    """Write out the arithmetic behind the state of a survey.

    Parameters
    ----------
    survey : Survey
        A feature on a part as it stands.

    Returns
    -------
    tuple of Step
        Trust in one reading; the readings nearest to their limits and every one that is not in; then out of round,
        taper, variation and flatness, each as a difference of what was read, with its decision. Lengths in m.

    Notes
    -----
    Each step names its own source, else it is common practice.
    """
    if survey.budget is None:
        return ()
    steps = [trust_step(survey.budget)]
    readings = [row for row in survey.places if row.rule is not None]
    for row in _worth_telling(readings):
        steps += _reading_steps(row, survey)
    for rule in survey.rules:
        if rule.kind is not RuleKind.READING:
            steps += [*_difference_steps(rule, survey), rule_step(rule)]
    return tuple(steps)


def trust_step(budget: Budget) -> Step:
    """Write a budget out as one line of arithmetic. GUM 4.3.7 and 5.1.2."""
    terms = [Term("k", budget.coverage, "count")]
    terms += [Term(f"u{place}", one.contribution_m, note=one.name) for place, one in enumerate(budget.lines, 1)]
    terms += [Term(f"b{place}", one.half_width_m, note=one.name) for place, one in enumerate(budget.bounds, 1)]
    squares = " + ".join(f"u{place}²" for place, _ in enumerate(budget.lines, 1))
    added = "".join(f" + b{place}" for place, _ in enumerate(budget.bounds, 1))
    return Step("Uncertainty of one reading, error by error", f"U = k·√({squares}){added}", tuple(terms),
                Term("U", budget.expanded_m, "within"), GUM)  # fmt: skip


def rule_step(rule: RuleResult, kind: Kind = "small") -> Step:
    """Write one rule's decision out as one line of arithmetic. ISO 14253-1."""
    where = f" {'at ' if rule.kind is RuleKind.READING else ''}{rule.where}" if rule.where else ""
    what = f"{rule.rule.capitalize()}{where}: {rule.decision.state.value}"
    return decision_step(what, rule.value_m, rule.expanded_m, rule.least_m, rule.greatest_m, kind)


def _margin_m(rule: RuleResult) -> float:
    return min(
        rule.value_m - rule.least_m if rule.least_m is not None else float("inf"),
        rule.greatest_m - rule.value_m if rule.greatest_m is not None else float("inf"),
    )


def _worth_telling(rows: list[PlaceRead]) -> list[PlaceRead]:
    """Every reading that is not in, and the one nearest to each limit; in the order they were asked for."""
    told = [row for row in rows if row.state is not State.IN]
    for side in Side:
        near = [row for row in rows if row.rule is not None and row.rule.side is side]
        told += sorted(near, key=lambda row: _margin_m(row.rule) if row.rule else 0.0)[:1]
    return [row for row in rows if row in told]


def _reading_steps(row: PlaceRead, survey: Survey) -> Iterator[Step]:
    if row.rule is None or row.value_m is None:
        return
    kind: Kind = "size" if survey.feature.is_size else "small"
    if row.as_read_m is not None and abs(row.value_m - row.as_read_m) > 1e-12:
        terms = (Term("as read", row.as_read_m, kind, _repeats(row)), Term("c", row.value_m - row.as_read_m))
        yield Step(f"{row.name.capitalize()}: brought to 20 °C", "D = as read + c", terms, Term("D", row.value_m, kind),
                   "c: length × expansion × (20 °C − temperature), part against gauge")  # fmt: skip
    yield rule_step(row.rule, kind)


def _repeats(row: PlaceRead) -> str:
    return f"mean of {len(row.readings)}" if len(row.readings) > 1 else ""


def _difference_steps(rule: RuleResult, survey: Survey) -> Iterator[Step]:
    """Write out the readings whose greatest less least a rule is about."""
    if rule.kind is RuleKind.FLATNESS:
        if survey.flatness is not None:
            off = survey.flatness.off_plane_m
            yield Step("Flatness: heights above the plane through them", "flatness = highest − lowest",
                       (Term("highest", max(off)), Term("lowest", min(off))),
                       Term("flatness", survey.flatness.flatness_m), "least-squares plane")  # fmt: skip
        return
    rows = [row for row in survey.read if _is_of(row, rule, survey)]
    values = [row.value_m for row in rows if row.value_m is not None]
    if len(values) < 2:
        return
    kind: Kind = "size" if survey.feature.is_size else "small"
    terms = tuple(
        Term(row.name, row.value_m, kind, _repeats(row))
        for row in rows
        if row.value_m is not None and row.value_m in (max(values), min(values))
    )
    yield Step(f"{rule.rule.capitalize()} {rule.where}".strip() + f", of {len(values)} readings",
               "difference = greatest − least", terms, Term("difference", max(values) - min(values)))  # fmt: skip


def _is_of(row: PlaceRead, rule: RuleResult, survey: Survey) -> bool:
    """Whether a place belongs to the level or the axis whose form a rule is about."""
    if rule.kind is RuleKind.TAPER:
        return row.place.axis_deg is not None and f"{row.place.axis_deg:g}°" == rule.where
    if rule.kind is RuleKind.OUT_OF_ROUND:
        return survey.level_name(row.place) == rule.where
    return True
