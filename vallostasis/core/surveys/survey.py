"""What stands of one feature on one part now: place by place, its form, its rules, what is missing.

Everything that is read is a survey, round the clock, by level and axis, on a grid or at one place. Rules between holes
are protrusion/rules.

References
----------
.. [1] JCGM 100:2008 (GUM), 4.2.3 and 5.1.2: a mean and its uncertainty.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np

from vallostasis.core.features.catalogue import Feature, PatternKind, feature_of
from vallostasis.core.features.parts import Part, holes_of
from vallostasis.core.features.pattern import Pattern
from vallostasis.core.features.plan import pattern_of
from vallostasis.core.gauges.circumstances import RELATIVE
from vallostasis.core.notation.lengths import both_depth, metres
from vallostasis.core.operations.disturbances import Doing, disturbed_by, why_disturbed
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Place, Quantity, Reading, ReadingSet
from vallostasis.core.records.values import is_relative
from vallostasis.core.shapes.bore_form import BoreForm, bore_form
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.shapes.flatness import Flatness, flatness_of_grid
from vallostasis.core.shapes.plane import PlaneFit, different_positions, fit_plane
from vallostasis.core.surveys.derived import (
    BoreTable,
    Derived,
    DerivedKind,
    centre_of,
    flatness_of,
    of_a_bore,
    round_the_clock,
    worst,
)
from vallostasis.core.surveys.loads import held_otherwise, running_bore
from vallostasis.core.surveys.places import (
    MOVED_ZERO,
    STRAIGHTEDGE,
    PlaceRead,
    limits_of,
    newest_set,
    places_of,
    sets_of_part,
    why_reopened,
)
from vallostasis.core.surveys.set_budget import (
    estimate_of_reading,
    size_inputs,
    temperature_key,
    with_a_thermometer,
)
from vallostasis.core.surveys.stripes import stripes_left
from vallostasis.core.uncertainty.budget import Budget, Estimate, Stated, mean_of, stated
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, Standing, State, judge, state_of
from vallostasis.core.uncertainty.extremes import range_of


@dataclass(frozen=True, slots=True)
class Survey:
    """One feature on one part, as it stands now; lengths in m.

    ``disturbed`` is what was done since it was read, ``past`` what stood at its places before that, or before it was
    re-opened: no results any more, and still to be read. ``budget`` is that of one reading, ``thermometer`` what it
    would be, had temperatures been taken.
    """

    feature: Feature
    part: Part
    pattern: Pattern
    pattern_on_card: bool
    reading_set: ReadingSet | None
    places: tuple[PlaceRead, ...]
    at_20c: bool
    relative: bool
    reopened: str
    disturbed: Doing | None
    past: tuple[PlaceRead, ...]
    form: BoreForm | None
    flatness: Flatness | None
    plane: PlaneFit | None
    budget: Budget | None
    thermometer: Budget | None
    derived: tuple[Derived, ...]
    standing: Standing
    state: State
    reason: str

    @property
    def rules(self) -> tuple[RuleResult, ...]:
        """The rules of the card that it is held against by itself."""
        return self.standing.rules

    @property
    def missing(self) -> tuple[PlaceRead, ...]:
        """Places of the pattern that nobody read and nobody called unreadable."""
        return tuple(one for one in self.places if one.on_pattern and not one.readings and not one.unreadable)

    @property
    def missing_hours(self) -> tuple[float, ...]:
        """Clock positions that nobody read and nobody called unreadable. [h]"""
        return tuple(row.place.hour for row in self.missing if row.place.hour is not None)

    @property
    def read(self) -> tuple[PlaceRead, ...]:
        """Places that were read."""
        return tuple(one for one in self.places if one.estimate is not None)

    @property
    def estimates(self) -> list[Estimate]:
        """Their estimates, place by place. [m]"""
        return [one.estimate for one in self.places if one.estimate is not None]

    @property
    def angles_deg(self) -> list[float]:
        """Directions of the clock positions that were read. [deg]"""
        return [angle_of_hour(one.place.hour) for one in self.read if one.place.hour is not None]

    def level_name(self, place: Place) -> str:
        """Name of the level a diameter was read at, as its form is told by it."""
        names = {level.depth_um: level.name for level in self.pattern.levels if level.name}
        return "" if place.level_um is None else _level_name(place.level_um, names)

    @property
    def doubt(self) -> str:
        """Why its readings are doubtful; empty where they are not."""
        return MOVED_ZERO if any(row.doubtful for row in self.places) else ""

    def one_of(self, kind: DerivedKind) -> Derived | None:
        """Return what was worked out of a kind, the first where there are several."""
        return next((one for one in self.derived if one.kind is kind), None)


@once
def survey_of(facts: JobFacts, quantity: Quantity, part: Part, land: str = "") -> Survey:
    """Work out what stands of a feature on a part; ``land`` is that of a flange thickness, empty for the one in use."""
    newest = newest_set(facts, quantity, part, land)
    reopened = "" if newest is None else why_reopened(facts, newest)
    return _survey_of_set(facts, quantity, part, newest, reopened)


@once
def surveys_by_load(facts: JobFacts, quantity: Quantity, part: Part) -> tuple[Survey, ...]:
    """Work out what stands of a feature on a part under every load that it was read under, the newest last."""
    newest: dict[str, ReadingSet] = {}
    for one in sets_of_part(facts, quantity, part):
        if facts.standing_readings(one):
            load = facts.setup(one.setup_id).load
            newest.pop(load, None)
            newest[load] = one
    return tuple(_survey_of_set(facts, quantity, part, one, "") for one in newest.values())


def _survey_of_set(facts: JobFacts, quantity: Quantity, part: Part, newest: ReadingSet | None, reopened: str) -> Survey:
    feature = feature_of(quantity)
    pattern, on_card = pattern_of(facts.card, quantity)
    disturbed = None if newest is None or reopened else disturbed_by(facts, quantity, holes_of(part), newest)
    reading_set = None if reopened or disturbed else newest
    past = () if reading_set is newest else places_of(facts, quantity, part, pattern, newest)
    places = places_of(facts, quantity, part, pattern, reading_set)
    relative = reading_set is not None and is_relative(facts, reading_set)
    form, flatness = _form(feature, places) if not relative else None, _flatness(facts, reading_set, places)
    derived = tuple(_derived(facts, feature, pattern, places, flatness))
    otherwise = "" if reading_set is None else held_otherwise(facts, reading_set)
    stripes = stripes_left(facts, part.hole) if quantity is running_bore(facts.card) and reading_set else ""
    rules = () if relative or otherwise else tuple(_rules(facts, quantity, part, places, derived))
    standing = Standing(
        rules,
        reopened=reopened if part.target is not None else part.why_not,
        disturbed="" if disturbed is None else why_disturbed(disturbed, quantity),
        doubt=MOVED_ZERO if any(row.doubtful for row in places) else "",
        missing=_missing_words(feature, places),
        relative=RELATIVE if relative else otherwise or stripes,
        unreadable=tuple(f"{row.name} cannot be read: {row.unreadable}" for row in places if row.unreadable),
        no_limits="every place is read; the card sets no limit for it",
    )
    first = next((row.readings[0] for row in places if row.readings), None)
    at_20c = reading_set is not None and feature.is_diameter and size_inputs(
        facts, reading_set, temperature_key(quantity, part.key), 0.1) is not None  # fmt: skip
    budget = None if first is None else _one_reading(facts, quantity, part, first)
    thermometer = None
    if reading_set is not None and first is not None and not at_20c:
        thermometer = with_a_thermometer(facts, reading_set, first)
    plane = _plane(places)
    state, reason = state_of(standing)
    return Survey(feature, part, pattern, on_card, reading_set, places, at_20c, relative, reopened, disturbed,
                  past, form, flatness, plane, budget, thermometer, derived, standing, state, reason)  # fmt: skip


def _one_reading(facts: JobFacts, quantity: Quantity, part: Part, reading: Reading) -> Budget:
    one = estimate_of_reading(facts, reading, temperature_key(quantity, part.key))
    return stated(f"one reading of the {quantity.value}", one, facts.card.coverage_factor).budget


def centre_of_set(facts: JobFacts, reading_set: ReadingSet) -> Estimate | None:
    """Centre of one set round the clock, whether it counts now or not; None where nothing of it stands. [m]

    Least squares; GUM 5.1.2.
    """
    by_hour: dict[float, list[Estimate]] = {}
    for reading in facts.standing_readings(reading_set):
        if reading.hour is not None:
            by_hour.setdefault(reading.hour, []).append(estimate_of_reading(facts, reading, ""))
    if not by_hour:
        return None
    return centre_of([mean_of(one) for one in by_hour.values()], [angle_of_hour(hour) for hour in by_hour])


def mean_of_set(facts: JobFacts, reading_set: ReadingSet) -> Stated | None:
    """Return the centre of one set with the budget of its ±; None where nothing of it stands. [m] GUM 6.2.1."""
    centre = centre_of_set(facts, reading_set)
    return None if centre is None else stated("mean", centre, facts.card.coverage_factor)


def _missing_words(feature: Feature, places: tuple[PlaceRead, ...]) -> str:
    asked = (row for row in places if row.on_pattern and not row.unreadable)
    missing = [row.name or "the reading" for row in asked if not row.readings]
    if not missing:
        return ""
    if feature.pattern is PatternKind.CLOCK:
        return f"{', '.join(missing)} {'is' if len(missing) == 1 else 'are'} missing: read it"
    return f"{len(missing)} of {len(places)} places are missing"


def _plane(places: tuple[PlaceRead, ...]) -> PlaneFit | None:
    read = [(row.place.hour, row.value_m) for row in places if row.place.hour is not None]
    known = [(angle_of_hour(hour), value) for hour, value in read if hour is not None and value is not None]
    angles = np.array([angle for angle, _ in known])
    if different_positions(angles) < 3:
        return None
    return fit_plane(angles, [value for _, value in known])


def bore_table(pattern: Pattern, places: tuple[PlaceRead, ...]) -> BoreTable | None:
    """Lay what was read out by level and axis; None where nothing was. [m] By its places."""
    cells = {
        (row.place.level_um, row.place.axis_deg): row
        for row in places
        if row.place.level_um is not None and row.place.axis_deg is not None
    }
    if not any(row.estimate is not None for row in cells.values()):
        return None
    depths = sorted({depth for depth, _ in cells if depth is not None})
    axes = sorted({axis for _, axis in cells if axis is not None})
    table = tuple(
        tuple(row.estimate if (row := cells.get((depth, axis))) is not None else None for axis in axes)
        for depth in depths
    )
    names = {level.depth_um: level.name for level in pattern.levels if level.name}
    return BoreTable(
        table,
        tuple(axes),
        tuple(metres(depth) for depth in depths),
        tuple(_level_name(depth, names) for depth in depths),
        min((len(row.readings) for row in cells.values() if row.readings), default=1),
    )


def _level_name(depth_um: Decimal, names: Mapping[Decimal, str]) -> str:
    """Name of a level; its depth where it has none, or where two bear one name."""
    twice = len(set(names.values())) < len(names)
    return both_depth(depth_um) if twice or depth_um not in names else names[depth_um]


def _form(feature: Feature, places: tuple[PlaceRead, ...]) -> BoreForm | None:
    if feature.pattern is not PatternKind.LEVELS_AND_AXES or not any(row.value_m is not None for row in places):
        return None
    depths = sorted({row.place.level_um for row in places if row.place.level_um is not None})
    axes = sorted({row.place.axis_deg for row in places if row.place.axis_deg is not None})
    table = np.full((len(depths), len(axes)), np.nan)
    for row in places:
        if row.value_m is not None and row.place.level_um is not None and row.place.axis_deg is not None:
            table[depths.index(row.place.level_um), axes.index(row.place.axis_deg)] = row.value_m
    return bore_form(table, axes, [metres(depth) for depth in depths])


def _flatness(facts: JobFacts, reading_set: ReadingSet | None, places: tuple[PlaceRead, ...]) -> Flatness | None:
    if reading_set is None or facts.setup(reading_set.setup_id).quantity is not Quantity.DECK_FLATNESS:
        return None
    if facts.setup(reading_set.setup_id).method == STRAIGHTEDGE:
        return None
    read = [row for row in places if row.value_m is not None and row.place.along_um is not None]
    along = [metres(row.place.along_um) for row in read if row.place.along_um is not None]
    across = [metres(row.place.across_um) for row in read if row.place.across_um is not None]
    if len(read) < 4 or len(set(along)) < 2 or len(set(across)) < 2:
        return None
    return flatness_of_grid(along, across, [row.value_m or 0.0 for row in read])


def _repeats(places: Sequence[PlaceRead]) -> int:
    return min((len(row.readings) for row in places if row.readings), default=1)


def _derived(
    facts: JobFacts, feature: Feature, pattern: Pattern, places: tuple[PlaceRead, ...], flatness: Flatness | None
) -> Iterator[Derived]:
    """What is worked out from the readings, each with its ±."""
    k, read = facts.card.coverage_factor, [row for row in places if row.estimate is not None]
    estimates = [row.estimate for row in read if row.estimate is not None]
    if not estimates:
        return
    table = bore_table(pattern, places) if feature.pattern is PatternKind.LEVELS_AND_AXES else None
    if table is not None:
        yield from of_a_bore(table, k)
        return
    if flatness is not None:
        yield flatness_of(flatness.flatness_m, estimates, k)
        return
    repeats = _repeats(read)
    if feature.pattern is PatternKind.CLOCK:
        angles = [angle_of_hour(row.place.hour) for row in read if row.place.hour is not None]
        yield from round_the_clock(estimates, angles, repeats, k)
        return
    yield Derived(DerivedKind.MEAN, "", stated("mean", mean_of(estimates), k), repeats)
    if len(estimates) > 1:
        yield Derived(DerivedKind.VARIATION, "", range_of("variation", estimates, k), repeats)


def _rules(
    facts: JobFacts,
    quantity: Quantity,
    part: Part,
    places: tuple[PlaceRead, ...],
    derived: tuple[Derived, ...],
) -> Iterator[RuleResult]:
    limits, acceptance = limits_of(facts, quantity, part), facts.card.acceptance
    yield from (row.rule for row in places if row.rule is not None)
    for one in derived:
        if one.kind is DerivedKind.FLATNESS and limits.greatest_m is not None:
            yield judge(RuleKind.FLATNESS, "", one.stated, (None, limits.greatest_m), acceptance,
                        readings=one.readings)  # fmt: skip
        if one.kind is DerivedKind.VARIATION and limits.variation_m is not None:
            yield judge(RuleKind.VARIATION, _from_to(places), one.stated, (None, limits.variation_m), acceptance,
                        readings=one.readings)  # fmt: skip
    for kind, rule, limit in (
        (DerivedKind.OUT_OF_ROUND, RuleKind.OUT_OF_ROUND, limits.out_of_round_m),
        (DerivedKind.TAPER, RuleKind.TAPER, limits.taper_m),
    ):
        greatest = None if limit is None else worst(derived, kind)
        if greatest is not None:
            yield judge(rule, greatest.where, greatest.stated, (None, limit), acceptance, readings=greatest.readings)


def _from_to(places: tuple[PlaceRead, ...]) -> str:
    read = [(row.value_m, row.name) for row in places if row.value_m is not None]
    return f"{max(read)[1]} to {min(read)[1]}"
