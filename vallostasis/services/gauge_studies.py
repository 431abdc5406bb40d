"""Gauge studies: planned, read blind in random order, analysed, and taken over by the gauge."""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from random import SystemRandom
from uuid import UUID

from vallostasis.core.features.usual_lengths import STUDIED_WINDOW
from vallostasis.core.gauges.gauge_study import GaugeStudy, blind_order, study_gauge
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange, as_entered, parse_length
from vallostasis.core.records.gauges import GaugeVersion, StudyPlan, StudyReading
from vallostasis.core.records.rows import Person
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.shop import sheet_of_gauge
from vallostasis.store import gauge_services, gauge_studies, gauges, people
from vallostasis.store.rows import Conn

FEWEST_PEOPLE, MOST_PEOPLE = 2, 6
# Parts of one study are of one kind: no reading lies this far from all others. [µm] Common practice.
FAR_UM = Decimal(500)


@dataclass(frozen=True, slots=True)
class StudyToPlan:
    """What a study is to be: the tolerance as typed, empty where there is none."""

    gauge_id: UUID
    what: str
    tolerance: str
    bare_unit: Unit
    parts: int
    trials: int
    people: list[UUID]
    confirmed: bool = False


@dataclass(frozen=True, slots=True)
class StudyNow:
    """A study as it stands: who takes part, what is read, whose turn it is, and the analysis once it is complete."""

    plan: StudyPlan
    gauge: GaugeVersion
    people: tuple[Person, ...]
    readings: tuple[StudyReading, ...]
    order: tuple[tuple[int, int, int], ...]
    next_cell: tuple[int, int, int] | None
    study: GaugeStudy | None
    adopted: bool


def plan_study(conn: Conn, ask: StudyToPlan, by: UUID) -> UUID:
    """Plan a study of a gauge."""
    gauge = gauges.get_gauge(conn, ask.gauge_id)
    if len(set(ask.people)) != len(ask.people) or not FEWEST_PEOPLE <= len(ask.people) <= MOST_PEOPLE:
        raise Refused(f"A study compares {FEWEST_PEOPLE} to {MOST_PEOPLE} people: choose each once.", "people")
    known = {person.person_id for person in people.list_people(conn)}
    if not set(ask.people) <= known:
        raise Refused("Somebody in the list is not in the shop.", "people")
    tolerance_um, typed = None, ""
    if ask.tolerance.strip():
        parsed = read_usual("tolerance", ask.tolerance, ask.bare_unit, STUDIED_WINDOW, ask.confirmed)
        tolerance_um, typed = parsed.value_um, as_entered(parsed.typed, parsed.unit)
        if tolerance_um <= 0:
            raise Refused("A tolerance is the width of a window: type it above zero.", "tolerance")
    seed = SystemRandom().randrange(2**31)
    new = gauge_studies.NewStudy(gauge.gauge_id, gauge.gauge_version_id, ask.what, tolerance_um, typed, ask.parts,
                                 ask.trials, seed)  # fmt: skip
    return gauge_studies.add_study(conn, new, ask.people, by)


def list_studies(conn: Conn) -> list[StudyNow]:
    """Return every study as it stands, newest first."""
    return [_now(conn, plan) for plan in gauge_studies.list_studies(conn)]


def study_now(conn: Conn, gauge_study_id: UUID) -> StudyNow:
    """Return one study as it stands."""
    return _now(conn, gauge_studies.get_study(conn, gauge_study_id))


def _now(conn: Conn, plan: StudyPlan) -> StudyNow:
    who = gauge_studies.list_study_people(conn, plan.gauge_study_id)
    readings = gauge_studies.list_study_readings(conn, plan.gauge_study_id)
    order = blind_order(plan.parts, len(who), plan.trials, plan.seed)
    read = {(one.part, one.place, one.trial) for one in readings}
    next_cell = next((cell for cell in order if cell not in read), None)
    study = None if next_cell is not None else study_gauge(table_of(plan, len(who), readings), _tolerance_m(plan))
    gauge = gauges.get_gauge(conn, plan.gauge_id)
    return StudyNow(plan, gauge, who, readings, order, next_cell, study,
                    gauge.gauge_study_id == plan.gauge_study_id)  # fmt: skip


def _tolerance_m(plan: StudyPlan) -> float | None:
    return None if plan.tolerance_um is None else float(plan.tolerance_um) / 1e6


def table_of(plan: StudyPlan, people_count: int, readings: tuple[StudyReading, ...]) -> list[list[list[float]]]:
    """Readings as a table of part, person and trial; cells not read yet are left out. [m]"""
    by_cell = {(one.part, one.place, one.trial): float(one.value_um) / 1e6 for one in readings}
    return [
        [
            [by_cell[part, place, trial] for trial in range(plan.trials) if (part, place, trial) in by_cell]
            for place in range(people_count)
        ]
        for part in range(plan.parts)
    ]


def take_study_reading(
    conn: Conn,
    gauge_study_id: UUID,
    reading_id: UUID,
    cell: tuple[int, int, int],
    text: str,
    bare_unit: Unit,
    confirmed: bool = False,
) -> None:
    """Append a reading of a study: the one whose turn it is, or one read before that is read again.

    One that lies far from all the others is asked about: it may have been typed in another unit.
    """
    plan = gauge_studies.lock_study(conn, gauge_study_id)
    now = _now(conn, plan)
    if any(one.gauge_study_reading_id == reading_id for one in now.readings):
        return
    read = {(one.part, one.place, one.trial) for one in now.readings}
    if cell != now.next_cell and cell not in read:
        raise Refused("It is another part's turn: look at the study again.", "part", RefusalCode.STALE)
    if now.adopted:
        raise Refused("The gauge has taken this study over: plan a new one to read again.", "part")
    others = [one.value_um for one in now.readings]
    expected = ExpectedRange(min(others) - FAR_UM, max(others) + FAR_UM) if others else None
    parsed = parse_length(text, bare_unit, expected, confirmed)
    new = gauge_studies.NewStudyReading(reading_id, gauge_study_id, *cell, parsed.value_um, parsed.typed, parsed.unit)
    gauge_studies.add_study_reading(conn, new)


def adopt_study(conn: Conn, gauge_study_id: UUID, by: UUID) -> GaugeVersion:
    """Make what a study found the repeatability of its gauge, and what people add, in a new version."""
    plan = gauge_studies.lock_study(conn, gauge_study_id)
    now = _now(conn, plan)
    if now.study is None:
        raise Refused("The study is not complete: read the parts that are left first.", "gauge_study_id")
    if now.adopted:
        raise Refused("The gauge has taken this study over already.", "gauge_study_id")
    gauges.lock_gauge(conn, plan.gauge_id)
    newest = gauges.get_gauge(conn, plan.gauge_id)
    sheet = sheet_of_gauge(newest, now.study.adopted, gauge_study_id)
    gauges.add_gauge_version(conn, plan.gauge_id, newest.version + 1, sheet)
    words = (
        f"repeatability {sheet.repeatability_um.normalize():f} µm, between people "
        f"{sheet.reproducibility_um.normalize():f} µm from a study of {plan.parts} parts: {plan.what}"
    )
    gauge_services.add_service(conn, plan.gauge_id, "studied", words, date.today(), by)
    return gauges.get_gauge(conn, plan.gauge_id)
