"""Where a part was read: which set counts, what stands at each place, and the limits it is held against."""

from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.features.catalogue import PatternKind, feature_of
from vallostasis.core.features.parts import Part, target_of_set
from vallostasis.core.features.pattern import Pattern
from vallostasis.core.gauges.zero_checks import doubtful_readings
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place, Quantity, Reading, ReadingSet, ZeroedOn
from vallostasis.core.records.spec_card import FeatureSheet, SpecCard, sheet_of
from vallostasis.core.records.values import is_relative, value_used_um
from vallostasis.core.surveys.loads import held_otherwise
from vallostasis.core.surveys.set_budget import estimate_of_reading, temperature_key
from vallostasis.core.uncertainty.budget import Estimate, Stated, mean_of, stated
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, judge

STRAIGHTEDGE = "straightedge and feeler"
INDICATOR = "indicator grid"
MOVED_ZERO = "the zero was found moved after it was read: correct the readings or strike them"
_CIRCUMSTANCES = ("quantity", "gauge", "land", "datum", "hold-down", "hold-down torque", "load", "method")


@dataclass(frozen=True, slots=True)
class PlaceRead:
    """One place: its standing readings, and the size they stand for, brought to 20 °C where temperatures are known.

    ``rule`` is that of the card's limits for a single reading, None where there are none.
    """

    place: Place
    name: str
    readings: tuple[Reading, ...] = ()
    estimate: Estimate | None = None
    stated: Stated | None = None
    as_read_m: float | None = None
    unreadable: str = ""
    doubtful: bool = False
    on_pattern: bool = True
    rule: RuleResult | None = None

    @property
    def value_m(self) -> float | None:
        """Its size; None where nothing was read. [m]"""
        return None if self.stated is None else self.stated.value_m

    @property
    def expanded_m(self) -> float | None:
        """Expanded uncertainty of its size. [m]"""
        return None if self.stated is None else self.stated.expanded_m

    @property
    def state(self) -> State | None:
        """What its limits decide."""
        return None if self.rule is None else self.rule.decision.state


@dataclass(frozen=True, slots=True)
class ReadingLimits:
    """Limits that single readings of a feature are held against, and what holds between them. [m]"""

    least_m: float | None = None
    greatest_m: float | None = None
    variation_m: float | None = None
    out_of_round_m: float | None = None
    taper_m: float | None = None


def limits_of(facts: JobFacts, quantity: Quantity, part: Part) -> ReadingLimits:
    """Limits of a card for what is read on a part; with a shim in the fitting its own."""
    if quantity is Quantity.PROTRUSION:
        fitting = None if part.target is None else part.target.fitting_id
        return protrusion_limits(facts.card, fitting is not None and bool(facts.shims_of(fitting)))
    sheet: FeatureSheet | None = sheet_of(facts.card, quantity)
    # The limit of a line is for all of it together: one reading from a bar says nothing.
    if sheet is None or quantity is Quantity.MAIN_LINE:
        return ReadingLimits()
    return ReadingLimits(sheet.least.metres, sheet.greatest.metres, None, sheet.out_of_round.metres, sheet.taper.metres)


def protrusion_limits(card: SpecCard, with_shim: bool) -> ReadingLimits:
    """Limits of protrusion with or without a shim. [m]"""
    limits = card.limits
    least = limits.least_with_shim if with_shim else limits.least_without_shim
    greatest = limits.greatest_with_shim if with_shim else limits.greatest_without_shim
    return ReadingLimits(least.metres, greatest.metres, limits.variation_round.metres)


def newest_set(facts: JobFacts, quantity: Quantity, part: Part, land: str = "") -> ReadingSet | None:
    """Return the newest set of a feature of a part; of a flange the newest at a land that has a standing reading."""
    if part.target is None:
        return None
    sets = sets_of_part(facts, quantity, part)
    if quantity is Quantity.FLANGE_THICKNESS:
        at = land or _present_land(facts)
        sets = [s for s in sets if facts.setup(s.setup_id).land == at and facts.standing_readings(s)]
    return sets[-1] if sets else None


def sets_of_part(facts: JobFacts, quantity: Quantity, part: Part) -> list[ReadingSet]:
    """Return the sets of a feature of a part that were not closed, oldest first; none where it cannot be read."""
    return [] if part.target is None else [s for s in facts.sets_of(quantity) if _is_of(s, part, quantity)]


def _present_land(facts: JobFacts) -> str:
    setup = facts.present_setup(Quantity.FLANGE_THICKNESS)
    return facts.card.measuring.land if setup is None or not setup.land else setup.land


def _is_of(reading_set: ReadingSet, part: Part, quantity: Quantity) -> bool:
    target = target_of_set(reading_set)
    if feature_of(quantity).asks_liner and part.target is not None:
        return target.hole_id == part.target.hole_id
    return target == part.target


def why_reopened(facts: JobFacts, reading_set: ReadingSet) -> str:
    """Say why readings of a set do not count; empty when they do."""
    setup = facts.setup(reading_set.setup_id)
    quantity = setup.quantity
    if feature_of(quantity).stays:
        return ""
    if quantity is Quantity.PROTRUSION and setup.zeroed_on is ZeroedOn.PART:
        return "zeroed on the part itself, differences only: zero the gauge on the datum and read it again"
    present = facts.present_setup(quantity)
    if present is not None and present.circumstances() != setup.circumstances():
        pairs = zip(_CIRCUMSTANCES, setup.circumstances(), present.circumstances(), strict=True)
        changed = " and ".join(name for name, then, now in pairs if then != now)
        return f"{changed} changed since it was read: read it again"
    if quantity is Quantity.PROTRUSION and setup.land != facts.card.measuring.land:
        return f"read on the {setup.land}, the card's limits are for the {facts.card.measuring.land}: read it there"
    if spacer_changed(facts, reading_set):
        return "what lies between deck and measuring face changed on the card since it was read: read it again"
    return ""


def spacer_changed(facts: JobFacts, reading_set: ReadingSet) -> bool:
    """Whether the card that held when protrusion was read had another spacer or gasket than now. House rule."""
    if facts.setup(reading_set.setup_id).quantity is not Quantity.PROTRUSION:
        return False
    then = [one for one in facts.cards_chosen if one.event < reading_set.event and one.event not in facts.struck_events]
    now_um = sum((part.thickness.um for part in facts.card.measuring.between), Decimal(0))
    return bool(then) and then[-1].between_um != now_um


def places_of(
    facts: JobFacts, quantity: Quantity, part: Part, pattern: Pattern, reading_set: ReadingSet | None
) -> tuple[PlaceRead, ...]:
    """Work out what stands at every place that is asked for or was read."""
    by_place: dict[Place, list[Reading]] = {}
    if reading_set is not None:
        for reading in facts.standing_readings(reading_set):
            by_place.setdefault(reading.place, []).append(reading)
    unreadable = unreadable_places(facts, quantity, part)
    once_only = feature_of(quantity).pattern is PatternKind.ONCE
    if once_only and Place() not in by_place and by_place:
        # What has one place has it wherever it was said to stand.
        by_place = {Place(): [one for readings in by_place.values() for one in readings]}
    asked = set(pattern.places)
    off_pattern = sorted((place for place in by_place if place not in asked), key=_in_order)
    rows = (
        _place_read(facts, quantity, part, pattern, place, on_pattern, by_place.get(place, []),
                    unreadable.get(place, ""))
        for on_pattern, places in ((True, pattern.places), (False, off_pattern))
        for place in places
    )  # fmt: skip
    return (
        tuple(sorted(rows, key=lambda row: (row.place.hour or 0) % 12))
        if pattern.hours and not pattern.levels
        else tuple(rows)
    )


def _in_order(place: Place) -> tuple[float, ...]:
    return (place.hour or 0, float(place.level_um or 0), place.axis_deg or 0, float(place.across_um or 0),
            float(place.along_um or 0))  # fmt: skip


def unreadable_places(facts: JobFacts, quantity: Quantity, part: Part) -> dict[Place, str]:
    """Places of a part that cannot be read now, with the reason."""
    said: dict[Place, str] = {}
    target = part.target
    for one in facts.standing(facts.unreadables):
        if one.quantity is not quantity or target is None:
            continue
        if (one.fitting_id, one.hole_id, one.liner_id, one.part) == (
            target.fitting_id, target.hole_id, target.liner_id, target.part
        ):  # fmt: skip
            said[one.place] = one.reason if one.unreadable else ""
    return {place: reason for place, reason in said.items() if reason}


def _place_read(
    facts: JobFacts, quantity: Quantity, part: Part, pattern: Pattern, place: Place, on_pattern: bool,
    readings: list[Reading], unreadable: str,
) -> PlaceRead:  # fmt: skip
    name = pattern.name_of(place)
    if not readings:
        return PlaceRead(place, name, unreadable=unreadable, on_pattern=on_pattern)
    key, k = temperature_key(quantity, part.key), facts.card.coverage_factor
    value = mean_of([estimate_of_reading(facts, one, key) for one in readings])
    shown = stated(f"{quantity.value} {name}".strip(), value, k)
    reading_set = facts.reading_set(readings[0].reading_set_id)
    as_read = sum(metres(value_used_um(facts, reading_set, one)) for one in readings) / len(readings)
    doubtful = any(one.reading_id in doubtful_readings(facts) for one in readings)
    limits, rule = limits_of(facts, quantity, part), None
    limited = limits.least_m is not None or limits.greatest_m is not None
    is_flatness = quantity is Quantity.DECK_FLATNESS and facts.setup(reading_set.setup_id).method != STRAIGHTEDGE
    comparable = not is_relative(facts, reading_set) and not held_otherwise(facts, reading_set)
    if limited and comparable and not is_flatness:
        rule = judge(RuleKind.READING, name, shown, (limits.least_m, limits.greatest_m), facts.card.acceptance,
                     quantity, len(readings), place.hour)  # fmt: skip
    return PlaceRead(place, name, tuple(readings), value, shown, as_read, "", doubtful, on_pattern, rule)
