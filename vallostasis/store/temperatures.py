"""Temperatures of parts, gauges, masters and the room; letters stamped on parts."""

from decimal import Decimal
from uuid import UUID

from vallostasis.core.measuring.temperature import Temperature
from vallostasis.core.records import Stamp
from vallostasis.store.rows import Conn, fetch_all


def list_temperatures(conn: Conn, job_id: UUID) -> tuple[Temperature, ...]:
    """Return all temperatures of a job, oldest first."""
    query = """
        SELECT t.temperature_id, t.body, t.part, t.celsius, t.typed, t.taken_at, p.name AS taken_by, t.event
          FROM temperature t JOIN person p ON p.person_id = t.taken_by
         WHERE t.job_id = %(job_id)s
         ORDER BY t.event
    """
    return fetch_all(conn, Temperature, query, {"job_id": job_id})


def add_temperature(
    conn: Conn, job_id: UUID, temperature_id: UUID, body: str, part: str, celsius: Decimal, typed: str, by: UUID
) -> None:
    """Record a temperature; sending it again under its id adds nothing."""
    conn.execute(
        """
        INSERT INTO temperature (temperature_id, job_id, body, part, celsius, typed, taken_by)
        VALUES (%(temperature_id)s, %(job_id)s, %(body)s, %(part)s, %(celsius)s, %(typed)s, %(by)s)
        ON CONFLICT (temperature_id) DO NOTHING
        """,
        {
            "temperature_id": temperature_id,
            "job_id": job_id,
            "body": body,
            "part": part,
            "celsius": celsius,
            "typed": typed,
            "by": by,
        },
    )


def list_stamps(conn: Conn, job_id: UUID) -> tuple[Stamp, ...]:
    """Return all letters found stamped on parts of a job, oldest first."""
    query = """
        SELECT s.stamp_id, s.part, s.letters, s.made_at, p.name AS made_by, s.event
          FROM stamp s JOIN person p ON p.person_id = s.made_by
         WHERE s.job_id = %(job_id)s
         ORDER BY s.event
    """
    return fetch_all(conn, Stamp, query, {"job_id": job_id})


def add_stamp(conn: Conn, job_id: UUID, part: str, letters: str, by: UUID) -> None:
    """Record the letters stamped on a part."""
    conn.execute(
        "INSERT INTO stamp (job_id, part, letters, made_by) VALUES (%(job_id)s, %(part)s, %(letters)s, %(by)s)",
        {"job_id": job_id, "part": part, "letters": letters, "by": by},
    )
