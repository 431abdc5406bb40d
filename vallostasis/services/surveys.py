"""Surveys: every feature of a job, part by part, as it stands now."""

from dataclasses import dataclass
from datetime import UTC, datetime
from decimal import Decimal
from uuid import UUID

from vallostasis.core.features.catalogue import Feature, feature_of
from vallostasis.core.features.parts import Part, part_with_key, parts_of
from vallostasis.core.features.pattern import Pattern
from vallostasis.core.features.plan import pattern_of, surveyed_features
from vallostasis.core.fits.interference import InterferenceToCome, interference_to_come
from vallostasis.core.gauges.circumstances import how_read
from vallostasis.core.gauges.turning_point import is_rocked
from vallostasis.core.gauges.zero_checks import Doubt, is_zero_looked_at, open_doubts
from vallostasis.core.hole_now import budgets_of_hole
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.temperatures import Temperature
from vallostasis.core.subjects import cross_checks
from vallostasis.core.surveys.fitness import Settling, gauges_for, what_would_settle
from vallostasis.core.surveys.set_budget import (
    TEMPERATURE_HOLDS,
    gauge_sources,
    material_of,
    part_temperature,
    size_inputs,
    standing_temperatures,
    temperature_key,
)
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.surveys.why import explain_survey
from vallostasis.core.thermal.expansion import Body, Soak, expansion_of, soak_from_readings, warm_effect_m
from vallostasis.core.trail import Phrase, Step
from vallostasis.core.uncertainty.budget import Budget
from vallostasis.core.uncertainty.monte_carlo import monte_carlo_half_width, monte_carlo_of
from vallostasis.services.reading_target import known_part
from vallostasis.services.refused import Refused
from vallostasis.services.temperatures import read_temperature
from vallostasis.store import gauges, jobs
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_facts import NewStamp, NewTemperature
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class FeatureNow:
    """One feature of a job: its pattern, and its survey on every part."""

    feature: Feature
    pattern: Pattern
    pattern_on_card: bool
    surveys: tuple[Survey, ...]


@dataclass(frozen=True, slots=True)
class Warmth:
    """How warm part, gauge, master and room are, what that does to a size [m], and when the part is soaked.

    ``readings_c`` is what counts for the readings that stand; ``part_c`` what was taken of the part lately, else that.
    """

    part_c: Decimal | None
    readings_c: Decimal | None
    gauge_c: Decimal | None
    master_c: Decimal | None
    room_c: Decimal | None
    effect_m: float | None
    soak: Soak | None
    taken: tuple[Temperature, ...]


@dataclass(frozen=True, slots=True)
class SurveyNow:
    """A survey with everything that is shown beside it."""

    facts: JobFacts
    survey: Survey
    settling: tuple[Settling, ...]
    doubts: tuple[Doubt, ...]
    warmth: Warmth
    stamp: str
    interference: tuple[InterferenceToCome, ...]
    suited: tuple[UUID, ...]
    gauge_has_zero: bool
    gauge_is_rocked: bool
    zero_is_looked_at: bool
    cross_checks: tuple[Phrase, ...]


def features_of_job(conn: Conn, job_id: UUID) -> tuple[JobFacts, tuple[FeatureNow, ...]]:
    """Load a job and return every feature that its card can have measured place by place."""
    facts = load_job_facts(conn, job_id)
    found = []
    for quantity in surveyed_features(facts.card):
        pattern, on_card = pattern_of(facts.card, quantity)
        surveys = tuple(survey_of(facts, quantity, part) for part in parts_of(facts, quantity))
        found.append(FeatureNow(feature_of(quantity), pattern, on_card, surveys))
    return facts, tuple(found)


def survey_now(conn: Conn, job_id: UUID, quantity: Quantity, key: str) -> SurveyNow:
    """Load a job and return one survey."""
    facts = load_job_facts(conn, job_id)
    part = known_part(facts, quantity, key)
    survey = survey_of(facts, quantity, part)
    cabinet = gauges.list_gauges(conn)
    settling: tuple[Settling, ...] = ()
    if survey.budget is not None:
        settling = what_would_settle(survey.rules, quantity, cabinet, facts.card.coverage_factor)
    doubts = tuple(doubt for doubt in open_doubts(facts) if doubt.setup.quantity is quantity)
    setup = facts.present_setup(quantity)
    letters = [one.letters for one in facts.standing(facts.stamps) if one.part == stamp_key(part)]
    return SurveyNow(
        facts,
        survey,
        settling,
        doubts,
        _warmth(facts, quantity, part, survey),
        letters[-1] if letters else "",
        interference_to_come(facts, survey),
        tuple(gauge.gauge_id for gauge in gauges_for(facts.card, quantity, cabinet)),
        setup is not None and facts.newest_gauge(setup.gauge_id).has_zero,
        setup is not None and is_rocked(facts.newest_gauge(setup.gauge_id).kind),
        survey.reading_set is None or is_zero_looked_at(facts, survey.reading_set),
        cross_checks(facts, survey),
    )


def suited_gauges(conn: Conn, job_id: UUID, quantity: Quantity) -> tuple[UUID, ...]:
    """Return the gauges of the cabinet that are made for a feature, the finest first."""
    card = load_job_facts(conn, job_id).card
    return tuple(gauge.gauge_id for gauge in gauges_for(card, quantity, gauges.list_gauges(conn)))


def stamp_key(part: Part) -> str:
    """Under which name the letters of a part are kept: a hole and its bore bear the same."""
    return part.key


def _warmth(facts: JobFacts, quantity: Quantity, part: Part, survey: Survey) -> Warmth:
    key = temperature_key(quantity, part.key)
    now = datetime.now(UTC)
    of_part = _lately(standing_temperatures(facts, "part", key), now)
    room = _lately(standing_temperatures(facts, "room"), now)
    setup = facts.present_setup(quantity)
    readings_c = None if survey.reading_set is None else part_temperature(facts, survey.reading_set, key)
    part_c = of_part[-1].celsius if of_part else readings_c
    return Warmth(
        part_c,
        readings_c,
        None if setup is None else setup.gauge_temp_c,
        None if setup is None else setup.master_temp_c,
        room[-1].celsius if room else None,
        _effect_of(facts, survey, part_c),
        _soaking(of_part, room, now),
        tuple(of_part),
    )


def _effect_of(facts: JobFacts, survey: Survey, part_c: Decimal | None) -> float | None:
    """How much larger a diameter reads as warm as it is. [m]"""
    quantity = survey.feature.quantity
    if part_c is None or not feature_of(quantity).is_diameter:
        return None
    size = survey.form.mean_m if survey.form is not None else facts.card.layout.bore.metres
    alpha = expansion_of(material_of(facts.card, quantity), facts.materials)
    return warm_effect_m(size, Body(float(part_c), alpha))


def _soaking(of_part: list[Temperature], room: list[Temperature], now: datetime) -> Soak | None:
    """How long a part still soaks; what has passed since the last look has passed for the part too."""
    if not room or not of_part:
        return None
    times = [(one.taken_at - of_part[0].taken_at).total_seconds() for one in of_part]
    soak = soak_from_readings(times, [float(one.celsius) for one in of_part], float(room[-1].celsius))
    if soak is None:
        return None
    since = (now - of_part[-1].taken_at).total_seconds()
    return Soak(soak.time_constant_s, max(0.0, soak.seconds_left - max(0.0, since)))


def _lately(taken: list[Temperature], now: datetime) -> list[Temperature]:
    """Temperatures that tell of now, and of how it came to be so warm."""
    return [one for one in taken if now - one.taken_at <= TEMPERATURE_HOLDS]


@dataclass(frozen=True, slots=True)
class SurveyWhy:
    """One survey with the arithmetic behind its state, and how it was read."""

    facts: JobFacts
    survey: Survey
    steps: tuple[Step, ...]
    how: str


def why_of_survey(conn: Conn, job_id: UUID, quantity: Quantity, key: str) -> SurveyWhy:
    """Open the state of one survey into its arithmetic."""
    facts = load_job_facts(conn, job_id)
    survey = survey_of(facts, quantity, known_part(facts, quantity, key))
    how = "" if survey.reading_set is None else how_read(facts, survey.reading_set, at_20c=survey.at_20c)
    return SurveyWhy(facts, survey, explain_survey(survey), how)


@dataclass(frozen=True, slots=True)
class BudgetShown:
    """A budget, and half the 95 % interval that its distributions give when they are drawn. [m]"""

    budget: Budget
    monte_carlo_m: float


def budgets_of_survey(conn: Conn, job_id: UUID, quantity: Quantity, key: str, land: str = "") -> list[BudgetShown]:
    """Open the ± of a survey: one reading, and what is worked out from the readings."""
    facts = load_job_facts(conn, job_id)
    survey = survey_of(facts, quantity, known_part(facts, quantity, key), land)
    if survey.budget is None or survey.reading_set is None:
        return []
    fits = [level.stated.budget for one in interference_to_come(facts, survey) for level in one.levels]
    every = (survey.budget, *(one.stated.budget for one in survey.derived), *fits)
    shown = [BudgetShown(one, monte_carlo_of(one)) for one in every]
    if survey.at_20c:
        gauge = gauge_sources(facts.gauge_version(survey.reading_set.gauge_version_id))
        values = [row.as_read_m for row in survey.places if row.as_read_m is not None]
        zero = float(facts.setup(survey.reading_set.setup_id).zero_um) / 1e6
        inputs = size_inputs(facts, survey.reading_set, temperature_key(quantity, survey.part.key), values[0] - zero)
        if inputs is not None:
            shown[0] = BudgetShown(survey.budget, monte_carlo_half_width(inputs, gauge))
    return shown


def budgets_of_protrusion(conn: Conn, hole_id: UUID) -> list[BudgetShown]:
    """Open the ± of a hole's protrusion: one reading, the mean, the variation, the difference to a neighbour."""
    facts = load_job_facts(conn, jobs.job_of_hole(conn, hole_id))
    hole: Hole = next(one for one in facts.holes if one.hole_id == hole_id)
    return [BudgetShown(one, monte_carlo_of(one)) for one in budgets_of_hole(facts, hole)]


def take_temperature(
    conn: Conn, job_id: UUID, temperature_id: UUID, body: str, part: str, text: str, by: UUID, confirmed: bool = True
) -> Decimal:
    """Record how warm the block, a loose part or the room is; ``text`` is in °C, or in °F where it says so."""
    facts = lock_job_facts(conn, job_id)
    key = _loose_part(facts, part) if body == "part" and part else ""
    celsius = read_temperature(text, confirmed=confirmed)
    if all(one.temperature_id != temperature_id for one in facts.temperatures):
        record_fact(conn, NewTemperature(temperature_id, job_id, body, key, celsius, text.strip()), by)
    return celsius


def _loose_part(facts: JobFacts, key: str) -> str:
    """Return the key of a liner or piston that has a temperature of its own, or refuse."""
    for quantity in (Quantity.LINER_OUTSIDE, Quantity.PISTON_SKIRT):
        part = part_with_key(facts, quantity, key)
        if part is not None:
            return part.key
    raise Refused(f"{key} has no temperature of its own: leave this empty for the block.", "part")


def stamp_part(conn: Conn, job_id: UUID, quantity: Quantity, key: str, letters: str, by: UUID) -> None:
    """Record the class or grade letters on a part."""
    facts = lock_job_facts(conn, job_id)
    record_fact(conn, NewStamp(job_id, stamp_key(known_part(facts, quantity, key)), letters.strip()), by)
