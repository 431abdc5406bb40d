"""Gauge studies: the plan, who takes part, and every reading."""

from dataclasses import asdict, dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.gauges import StudyPlan, StudyReading
from vallostasis.core.records.rows import Person
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all, fetch_one, fetch_value

COLUMNS = """
    s.gauge_study_id, s.gauge_id, s.gauge_version_id, s.what, s.tolerance_um, s.tolerance_typed, s.parts, s.trials,
    s.seed, s.planned_at, p.name AS planned_by, s.event
"""
FROM = "gauge_study s JOIN person p ON p.person_id = s.planned_by"


@dataclass(frozen=True, slots=True)
class NewStudy:
    """A study to plan: the gauge, what is read with it against which tolerance [µm], and how often."""

    gauge_id: UUID
    gauge_version_id: UUID
    what: str
    tolerance_um: Decimal | None
    tolerance_typed: str
    parts: int
    trials: int
    seed: int


@dataclass(frozen=True, slots=True)
class NewStudyReading:
    """A reading of a study: which part, whose turn, which time. [µm]"""

    gauge_study_reading_id: UUID
    gauge_study_id: UUID
    part: int
    place: int
    trial: int
    value_um: Decimal
    typed: str
    typed_unit: str


def list_studies(conn: Conn) -> tuple[StudyPlan, ...]:
    """Return every study, newest first."""
    return fetch_all(conn, StudyPlan, f"SELECT {COLUMNS} FROM {FROM} ORDER BY s.event DESC")


def get_study(conn: Conn, gauge_study_id: UUID) -> StudyPlan:
    """Return one study; raise NotFound if there is none with that id."""
    query = f"SELECT {COLUMNS} FROM {FROM} WHERE s.gauge_study_id = %(id)s"
    return fetch_one(conn, StudyPlan, query, {"id": gauge_study_id}, "gauge study")


def lock_study(conn: Conn, gauge_study_id: UUID) -> StudyPlan:
    """Hold a study until the transaction ends; raise NotFound if there is none with that id."""
    conn.execute("SELECT 1 FROM gauge_study WHERE gauge_study_id = %(id)s FOR UPDATE", {"id": gauge_study_id})
    return get_study(conn, gauge_study_id)


def add_study(conn: Conn, new: NewStudy, people: list[UUID], by: UUID) -> UUID:
    """Plan a study with the people who take part, in order."""
    query = """
        INSERT INTO gauge_study (gauge_id, gauge_version_id, what, tolerance_um, tolerance_typed, parts, trials, seed,
                                 planned_by)
        VALUES (%(gauge_id)s, %(gauge_version_id)s, %(what)s, %(tolerance_um)s, %(tolerance_typed)s, %(parts)s,
                %(trials)s, %(seed)s, %(by)s)
        RETURNING gauge_study_id
    """
    study_id = UUID(str(fetch_value(conn, query, {**asdict(new), "by": by})))
    for place, person_id in enumerate(people):
        conn.execute(
            """
            INSERT INTO gauge_study_person (gauge_study_id, place, person_id)
            VALUES (%(study_id)s, %(place)s, %(person_id)s)
            """,
            {"study_id": study_id, "place": place, "person_id": person_id},
        )
    announce(conn, None)
    return study_id


def list_study_people(conn: Conn, gauge_study_id: UUID) -> tuple[Person, ...]:
    """Return who takes part, by place."""
    query = """
        SELECT p.person_id, p.name FROM gauge_study_person s JOIN person p USING (person_id)
         WHERE s.gauge_study_id = %(id)s ORDER BY s.place
    """
    return fetch_all(conn, Person, query, {"id": gauge_study_id})


def list_study_readings(conn: Conn, gauge_study_id: UUID) -> tuple[StudyReading, ...]:
    """Return the reading that holds of every cell, oldest first."""
    query = """
        SELECT * FROM (
            SELECT DISTINCT ON (part, place, trial)
                   gauge_study_reading_id, part, place, trial, value_um, typed, typed_unit, taken_at, event
              FROM gauge_study_reading
             WHERE gauge_study_id = %(id)s
             ORDER BY part, place, trial, event DESC) newest
         ORDER BY event
    """
    return fetch_all(conn, StudyReading, query, {"id": gauge_study_id})


def add_study_reading(conn: Conn, new: NewStudyReading) -> None:
    """Append a reading; sending it again under its id adds nothing."""
    conn.execute(
        """
        INSERT INTO gauge_study_reading (gauge_study_reading_id, gauge_study_id, part, place, trial, value_um, typed,
                                         typed_unit)
        VALUES (%(gauge_study_reading_id)s, %(gauge_study_id)s, %(part)s, %(place)s, %(trial)s, %(value_um)s, %(typed)s,
                %(typed_unit)s)
        ON CONFLICT (gauge_study_reading_id) DO NOTHING
        """,
        asdict(new),
    )
    announce(conn, None)
