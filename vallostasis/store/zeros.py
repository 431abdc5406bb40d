"""Zero corrections, the looks at a zero that ask for them, and places that cannot be read."""

from dataclasses import dataclass
from decimal import Decimal
from typing import Any
from uuid import UUID

from psycopg.rows import args_row

from vallostasis.core.measuring.parts import Target
from vallostasis.core.records import Place, Quantity, Unreadable, ZeroCheck, ZeroCorrection
from vallostasis.store.rows import Conn, fetch_all

# Place of that column in what list_unreadables asks for.
QUANTITY = 7


@dataclass(frozen=True, slots=True)
class NewCorrection:
    """A zero found moved: what is added to every reading of a set, or to those between two events. [µm]"""

    reading_set_id: UUID
    correction_um: Decimal
    standard_um: Decimal
    typed: str
    reason: str
    after_event: int | None = None
    until_event: int | None = None


def list_corrections(conn: Conn, job_id: UUID) -> tuple[ZeroCorrection, ...]:
    """Return all zero corrections of a job, oldest first."""
    query = """
        SELECT z.reading_set_id, z.correction_um, z.standard_um, z.typed, z.reason, z.made_at, p.name AS made_by,
               z.event, z.after_event, z.until_event
          FROM zero_correction z
          JOIN reading_set s USING (reading_set_id)
          JOIN person p ON p.person_id = z.made_by
         WHERE s.job_id = %(job_id)s
         ORDER BY z.event
    """
    return fetch_all(conn, ZeroCorrection, query, {"job_id": job_id})


def add_correction(conn: Conn, new: NewCorrection, by: UUID) -> None:
    """Record that the zero of a set was found moved."""
    conn.execute(
        """
        INSERT INTO zero_correction (reading_set_id, correction_um, standard_um, typed, reason, after_event,
                                     until_event, made_by)
        VALUES (%(reading_set_id)s, %(correction_um)s, %(standard_um)s, %(typed)s, %(reason)s, %(after_event)s,
                %(until_event)s, %(made_by)s)
        """,
        {name: getattr(new, name) for name in NewCorrection.__slots__} | {"made_by": by},
    )


def list_zero_checks(conn: Conn, job_id: UUID) -> tuple[ZeroCheck, ...]:
    """Return every look at a zero of a job, oldest first."""
    query = """
        SELECT z.zero_check_id, z.setup_id, z.moved_um, z.typed, z.checked_at, p.name AS checked_by, z.event
          FROM zero_check z JOIN person p ON p.person_id = z.checked_by
         WHERE z.job_id = %(job_id)s
         ORDER BY z.event
    """
    return fetch_all(conn, ZeroCheck, query, {"job_id": job_id})


def add_zero_check(conn: Conn, job_id: UUID, setup_id: UUID, moved_um: Decimal, typed: str, by: UUID) -> None:
    """Record a look at the zero of a setup."""
    conn.execute(
        """
        INSERT INTO zero_check (job_id, setup_id, moved_um, typed, checked_by)
        VALUES (%(job_id)s, %(setup_id)s, %(moved_um)s, %(typed)s, %(by)s)
        """,
        {"job_id": job_id, "setup_id": setup_id, "moved_um": moved_um, "typed": typed, "by": by},
    )


def _unreadable(*row: Any) -> Unreadable:  # noqa: ANN401
    values = list(row)
    values[QUANTITY] = Quantity(values[QUANTITY])
    return Unreadable(*values)


def list_unreadables(conn: Conn, job_id: UUID) -> tuple[Unreadable, ...]:
    """Return everything said about places that cannot be read, oldest first."""
    query = """
        SELECT u.fitting_id, u.hour::float8 AS hour, u.unreadable, u.reason, u.made_at, p.name AS made_by, u.event,
               u.quantity, u.hole_id, u.liner_id, u.part, u.level_um, u.axis_deg::float8, u.along_um, u.across_um
          FROM unreadable u JOIN person p ON p.person_id = u.made_by
         WHERE u.job_id = %(job_id)s
         ORDER BY u.event
    """
    with conn.cursor(row_factory=args_row(_unreadable)) as cursor:
        return tuple(cursor.execute(query, {"job_id": job_id}).fetchall())


def add_unreadable(
    conn: Conn, job_id: UUID, quantity: Quantity, target: Target, place: Place, unreadable: bool, reason: str, by: UUID
) -> None:
    """Record that a place of a feature cannot be read, or that it can be again."""
    conn.execute(
        """
        INSERT INTO unreadable (job_id, quantity, fitting_id, hole_id, liner_id, part, hour, level_um, axis_deg,
                                along_um, across_um, unreadable, reason, made_by)
        VALUES (%(job_id)s, %(quantity)s, %(fitting_id)s, %(hole_id)s, %(liner_id)s, %(part)s, %(hour)s, %(level_um)s,
                %(axis_deg)s, %(along_um)s, %(across_um)s, %(unreadable)s, %(reason)s, %(made_by)s)
        """,
        {
            "job_id": job_id,
            "quantity": quantity.value,
            "fitting_id": target.fitting_id,
            "hole_id": target.hole_id,
            "liner_id": target.liner_id,
            "part": target.part,
            **{name: getattr(place, name) for name in Place.__slots__},
            "unreadable": unreadable,
            "reason": reason,
            "made_by": by,
        },
    )
