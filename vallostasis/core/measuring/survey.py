"""What stands of one feature on one part now: place by place, its form, its rules, what is missing."""

from collections.abc import Iterator
from dataclasses import dataclass
from statistics import fmean

import numpy as np

from vallostasis.core.bores.survey import BoreForm, bore_form
from vallostasis.core.job_facts import JobFacts, once
from vallostasis.core.lengths import metres
from vallostasis.core.measuring.budget import Budget, difference_of, mean_of
from vallostasis.core.measuring.circumstances import RELATIVE
from vallostasis.core.measuring.decision import RuleResult, State, decide
from vallostasis.core.measuring.features import Feature, PatternKind, feature_of
from vallostasis.core.measuring.flatness import Flatness, flatness_of_grid
from vallostasis.core.measuring.parts import Part, target_of_set
from vallostasis.core.measuring.pattern import Pattern
from vallostasis.core.measuring.plan import pattern_of
from vallostasis.core.measuring.set_budget import budget_of_set, size_inputs, temperature_key
from vallostasis.core.measuring.values import is_relative, value_used_um
from vallostasis.core.measuring.zero_checks import doubtful_readings
from vallostasis.core.records import Place, Quantity, Reading, ReadingSet
from vallostasis.core.spec_card import FeatureSheet, sheet_of

STRAIGHTEDGE = "straightedge and feeler"
INDICATOR = "indicator grid"


@dataclass(frozen=True, slots=True)
class PlaceRead:
    """One place: its standing readings, and the size they stand for, brought to 20 °C where temperatures are known."""

    place: Place
    name: str
    readings: tuple[Reading, ...]
    value_m: float | None
    as_read_m: float | None
    expanded_m: float | None
    unreadable: str
    doubtful: bool
    on_pattern: bool
    state: State | None = None


@dataclass(frozen=True, slots=True)
class Survey:
    """One feature on one part, as it stands now; lengths in m."""

    feature: Feature
    part: Part
    pattern: Pattern
    pattern_on_card: bool
    reading_set: ReadingSet | None
    places: tuple[PlaceRead, ...]
    at_20c: bool
    relative: bool
    form: BoreForm | None
    flatness: Flatness | None
    budget: Budget | None
    derived: tuple[Budget, ...]
    rules: tuple[RuleResult, ...]
    state: State
    reason: str

    @property
    def missing(self) -> tuple[PlaceRead, ...]:
        """Places of the pattern that nobody read and nobody called unreadable."""
        return tuple(one for one in self.places if one.on_pattern and not one.readings and not one.unreadable)


def newest_set(facts: JobFacts, quantity: Quantity, part: Part) -> ReadingSet | None:
    """Return the set that stands for a feature of a part: its newest, if read as things are read now."""
    sets = [s for s in facts.sets_of(quantity) if part.target is not None and _is_of(s, part, quantity)]
    if not sets:
        return None
    present, then = facts.present_setup(quantity), facts.setup(sets[-1].setup_id)
    if present is not None and present.circumstances() != then.circumstances():
        return None
    return sets[-1]


def _is_of(reading_set: ReadingSet, part: Part, quantity: Quantity) -> bool:
    target = target_of_set(reading_set)
    if quantity is Quantity.TRIAL_FIT and part.target is not None:
        return target.hole_id == part.target.hole_id
    return target == part.target


@once
def survey_of(facts: JobFacts, quantity: Quantity, part: Part) -> Survey:
    """Work out what stands of a feature on a part."""
    feature, sheet = feature_of(quantity), sheet_of(facts.card, quantity)
    pattern, on_card = pattern_of(facts.card, quantity)
    reading_set = newest_set(facts, quantity, part)
    read = _readings_by_place(facts, reading_set)
    unreadable = _unreadable_places(facts, quantity, part)
    places = [*pattern.places, *(place for place in read if place not in pattern.places)]
    budget = None if reading_set is None else _budget(facts, reading_set, quantity, part, read)
    rows = tuple(
        _place_read(facts, reading_set, part, pattern, place, read.get(place, []), unreadable, budget, sheet)
        for place in places
    )
    relative = reading_set is not None and is_relative(facts, reading_set)
    form = _form(feature, pattern, rows) if not relative else None
    flatness = _flatness(facts, reading_set, rows)
    derived = _derived(budget, feature, rows, facts.card.coverage_factor)
    rules = tuple(_rules(facts, sheet, rows, form, flatness, budget, derived, relative))
    at_20c = reading_set is not None and feature.is_diameter and size_inputs(
        facts, reading_set, temperature_key(quantity, part.key), 0.1) is not None  # fmt: skip
    state, reason = _state(rows, rules, relative, part)
    return Survey(feature, part, pattern, on_card, reading_set, rows, at_20c, relative, form, flatness, budget, derived,
                  rules, state, reason)  # fmt: skip


def _readings_by_place(facts: JobFacts, reading_set: ReadingSet | None) -> dict[Place, list[Reading]]:
    by_place: dict[Place, list[Reading]] = {}
    if reading_set is not None:
        for reading in facts.standing_readings(reading_set):
            by_place.setdefault(reading.place, []).append(reading)
    return by_place


def _unreadable_places(facts: JobFacts, quantity: Quantity, part: Part) -> dict[Place, str]:
    said: dict[Place, str] = {}
    target = part.target
    for one in facts.unreadables:
        if one.quantity is not quantity or target is None:
            continue
        if (one.fitting_id, one.hole_id, one.liner_id, one.part) == (
            target.fitting_id, target.hole_id, target.liner_id, target.part
        ):  # fmt: skip
            said[one.place] = one.reason if one.unreadable else ""
    return {place: reason for place, reason in said.items() if reason}


def _budget(
    facts: JobFacts, reading_set: ReadingSet, quantity: Quantity, part: Part, read: dict[Place, list[Reading]]
) -> Budget:
    zero = facts.setup(reading_set.setup_id).zero_um
    every = [metres(value_used_um(facts, reading_set, one) - zero) for readings in read.values() for one in readings]
    # One budget for the set: to second order it does not matter at which of its readings it is worked out.
    deviation = round(fmean(every), 6) if every else 0.0
    return budget_of_set(facts, reading_set, temperature_key(quantity, part.key), deviation)


def _place_read(
    facts: JobFacts,
    reading_set: ReadingSet | None,
    part: Part,
    pattern: Pattern,
    place: Place,
    readings: list[Reading],
    unreadable: dict[Place, str],
    budget: Budget | None,
    sheet: FeatureSheet | None,
) -> PlaceRead:
    name, on_pattern = pattern.name_of(place), place in pattern.places
    if reading_set is None or budget is None or not readings:
        return PlaceRead(place, name, (), None, None, None, unreadable.get(place, ""), False, on_pattern)
    as_read = fmean(metres(value_used_um(facts, reading_set, one)) for one in readings)
    doubtful = any(one.reading_id in doubtful_readings(facts) for one in readings)
    setup = facts.setup(reading_set.setup_id)
    value = as_read
    if feature_of(setup.quantity).is_diameter and not is_relative(facts, reading_set):
        inputs = size_inputs(facts, reading_set, temperature_key(setup.quantity, part.key),
                             as_read - metres(setup.zero_um))  # fmt: skip
        value = as_read if inputs is None else inputs.size_at_20c_m()
    expanded = mean_of(budget, len(readings), facts.card.coverage_factor).expanded_m
    state = None
    if sheet is not None and not is_relative(facts, reading_set) and (sheet.least.length or sheet.greatest.length):
        limits = sheet.least.metres, sheet.greatest.metres
        state = decide(value, expanded, *limits, facts.card.acceptance).state
    return PlaceRead(place, name, tuple(readings), value, as_read, expanded, "", doubtful, on_pattern, state)


def _form(feature: Feature, pattern: Pattern, rows: tuple[PlaceRead, ...]) -> BoreForm | None:
    if feature.pattern is not PatternKind.LEVELS_AND_AXES or not any(row.value_m is not None for row in rows):
        return None
    depths = sorted({row.place.level_um for row in rows if row.place.level_um is not None})
    axes = sorted({row.place.axis_deg for row in rows if row.place.axis_deg is not None})
    table = np.full((len(depths), len(axes)), np.nan)
    for row in rows:
        if row.value_m is not None and row.place.level_um is not None and row.place.axis_deg is not None:
            table[depths.index(row.place.level_um), axes.index(row.place.axis_deg)] = row.value_m
    return bore_form(table, axes, [metres(depth) for depth in depths])


def _flatness(facts: JobFacts, reading_set: ReadingSet | None, rows: tuple[PlaceRead, ...]) -> Flatness | None:
    if reading_set is None or facts.setup(reading_set.setup_id).quantity is not Quantity.DECK_FLATNESS:
        return None
    if facts.setup(reading_set.setup_id).method == STRAIGHTEDGE:
        return None
    read = [row for row in rows if row.value_m is not None and row.place.along_um is not None]
    along = [metres(row.place.along_um) for row in read if row.place.along_um is not None]
    across = [metres(row.place.across_um) for row in read if row.place.across_um is not None]
    if len(read) < 4 or len(set(along)) < 2 or len(set(across)) < 2:
        return None
    return flatness_of_grid(along, across, [row.value_m or 0.0 for row in read])


def _derived(budget: Budget | None, feature: Feature, rows: tuple[PlaceRead, ...], k: float) -> tuple[Budget, ...]:
    """Budgets of what is worked out from the readings."""
    if budget is None:
        return ()
    count = sum(len(row.readings) for row in rows)
    found = [mean_of(budget, count, k)] if count > 1 else []
    if feature.pattern is PatternKind.LEVELS_AND_AXES:
        found.append(difference_of("out of round", budget, budget, same_zero=True, coverage_factor=k))
        axes = max(1, len({row.place.axis_deg for row in rows if row.readings}))
        level = mean_of(budget, axes, k)
        found.append(difference_of("taper", level, level, same_zero=True, coverage_factor=k))
    elif count > 1:
        found.append(difference_of("variation", budget, budget, same_zero=True, coverage_factor=k))
    return tuple(found)


def _rules(
    facts: JobFacts,
    sheet: FeatureSheet | None,
    rows: tuple[PlaceRead, ...],
    form: BoreForm | None,
    flatness: Flatness | None,
    budget: Budget | None,
    derived: tuple[Budget, ...],
    relative: bool,
) -> Iterator[RuleResult]:
    if sheet is None or budget is None:
        return
    acceptance, least, greatest = facts.card.acceptance, sheet.least.metres, sheet.greatest.metres
    expanded_of = {one.what: one.expanded_m for one in derived}
    if flatness is not None:
        width = expanded_of.get("variation", budget.expanded_m)
        decision = decide(flatness.flatness_m, width, None, greatest, acceptance)
        yield RuleResult("flatness", "", flatness.flatness_m, width, None, greatest, decision)
    elif not relative and (least is not None or greatest is not None):
        for row in rows:
            if row.value_m is not None and row.expanded_m is not None:
                decision = decide(row.value_m, row.expanded_m, least, greatest, acceptance)
                yield RuleResult(sheet.quantity.value, row.name, row.value_m, row.expanded_m, least, greatest, decision)
    if form is None:
        return
    for rule, value, limit in (("out of round", form.worst_out_of_round_m, sheet.out_of_round.metres),
                               ("taper", form.taper_of_mean_m, sheet.taper.metres)):  # fmt: skip
        if value is not None and limit is not None:
            width = expanded_of[rule]
            yield RuleResult(rule, "", abs(value), width, None, limit, decide(abs(value), width, None, limit,
                                                                              acceptance))  # fmt: skip


def _state(rows: tuple[PlaceRead, ...], rules: tuple[RuleResult, ...], relative: bool, part: Part) -> tuple[State, str]:
    if part.target is None:
        return State.NOT_MEASURED, part.why_not
    if any(row.doubtful for row in rows):
        return State.CANNOT_TELL, "the zero was found moved after it was read: correct the readings or strike them"
    out = [rule for rule in rules if rule.decision.state is State.OUT]
    if out:
        return State.OUT, _worst(out)
    missing = [row.name or "the reading" for row in rows if row.on_pattern and not row.readings and not row.unreadable]
    if missing:
        return State.NOT_MEASURED, f"{len(missing)} of {len(rows)} places are missing"
    if relative:
        return State.CANNOT_TELL, RELATIVE
    unsure = [rule for rule in rules if rule.decision.state is State.CANNOT_TELL]
    if unsure:
        return State.CANNOT_TELL, _worst(unsure)
    unreadable = [f"{row.name} cannot be read: {row.unreadable}" for row in rows if row.unreadable]
    if unreadable:
        return State.CANNOT_TELL, "; ".join(unreadable)
    if not rules:
        return State.IN, "every place is read; the card sets no limit for it"
    return State.IN, "every limit of the card is met beyond the uncertainty"


def _worst(rules: list[RuleResult]) -> str:
    words = []
    for name in dict.fromkeys(rule.rule for rule in rules):
        where = [rule.where for rule in rules if rule.rule == name and rule.where]
        one = next(rule for rule in rules if rule.rule == name)
        low = one.least_m is not None and one.value_m < one.least_m + one.expanded_m
        side = "below least" if low else "above greatest"
        if one.decision.state is State.CANNOT_TELL:
            side = f"too near the {side.split()[1]} to tell"
        words.append(f"{name} {side}{f' at {where[0]}' if where else ''}{' and more' if len(where) > 1 else ''}")
    return "; ".join(words)
