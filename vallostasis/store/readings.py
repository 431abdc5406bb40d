"""Setups, sets, readings, strikes and zero corrections."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from decimal import Decimal
from typing import Any
from uuid import UUID

from psycopg.rows import args_row

from vallostasis.core.records import (
    Quantity,
    Reading,
    ReadingSet,
    Setup,
    Strike,
    Unreadable,
    ZeroCorrection,
    ZeroedOn,
)
from vallostasis.store.changes import CHANNEL
from vallostasis.store.revisions import SHOP, Revision
from vallostasis.store.rows import AsyncConn, Conn, fetch_all, fetch_value


@dataclass(frozen=True, slots=True)
class NewSetup:
    """Gauge, its zero, land, datum and clamp to read with from now on."""

    job_id: UUID
    quantity: Quantity
    gauge_id: UUID
    land: str
    datum: str
    hold_down: str
    hold_down_torque_nm: Decimal | None
    shared_zero: bool
    zeroed_on: ZeroedOn = ZeroedOn.DATUM
    zero_um: Decimal = Decimal(0)
    zero_typed: str = ""


@dataclass(frozen=True, slots=True)
class NewSet:
    """A pass of readings to open: of a fitting, of a hole's ledge since a cut, or of a liner."""

    job_id: UUID
    setup_id: UUID
    gauge_version_id: UUID
    fitting_id: UUID | None = None
    hole_id: UUID | None = None
    after_cut_id: UUID | None = None
    liner_id: UUID | None = None
    part_temp_c: Decimal | None = None


@dataclass(frozen=True, slots=True)
class NewReading:
    """A reading to append; its id was made by the client so that sending it again never doubles it."""

    reading_id: UUID
    reading_set_id: UUID
    hour: float | None
    value_um: Decimal
    typed: str
    typed_unit: str
    taken_ago: timedelta = timedelta(0)
    taken_at: datetime | None = None


def list_setups(conn: Conn, job_id: UUID) -> tuple[Setup, ...]:
    """Return all setups of a job, oldest first."""
    query = """
        SELECT s.setup_id, s.quantity, s.gauge_id, s.land, s.datum, s.hold_down, s.hold_down_torque_nm,
               s.shared_zero, s.chosen_at, p.name AS chosen_by, s.event, s.zeroed_on, s.zero_um, s.zero_typed
          FROM setup s JOIN person p ON p.person_id = s.chosen_by
         WHERE s.job_id = %(job_id)s
         ORDER BY s.event
    """
    with conn.cursor() as cursor:
        rows = cursor.execute(query, {"job_id": job_id}).fetchall()
    return tuple(Setup(*_typed(row)) for row in rows)


def _typed(row: tuple[Any, ...]) -> tuple[Any, ...]:
    setup_id, quantity, *others, zeroed_on, zero_um, zero_typed = row
    return (setup_id, Quantity(quantity), *others, ZeroedOn(zeroed_on), zero_um, zero_typed)


def add_setup(conn: Conn, new: NewSetup, chosen_by: UUID) -> UUID:
    """Record a setup; it holds until a newer one for the same quantity."""
    query = """
        INSERT INTO setup (job_id, quantity, gauge_id, land, datum, hold_down, hold_down_torque_nm, shared_zero,
                           chosen_by, zeroed_on, zero_um, zero_typed)
        VALUES (%(job_id)s, %(quantity)s, %(gauge_id)s, %(land)s, %(datum)s, %(hold_down)s, %(torque)s,
                %(shared_zero)s, %(chosen_by)s, %(zeroed_on)s, %(zero_um)s, %(zero_typed)s)
        RETURNING setup_id
    """
    params = {
        "job_id": new.job_id,
        "quantity": new.quantity.value,
        "gauge_id": new.gauge_id,
        "land": new.land,
        "datum": new.datum,
        "hold_down": new.hold_down,
        "torque": new.hold_down_torque_nm,
        "shared_zero": new.shared_zero,
        "chosen_by": chosen_by,
        "zeroed_on": new.zeroed_on.value,
        "zero_um": new.zero_um,
        "zero_typed": new.zero_typed,
    }
    return UUID(str(fetch_value(conn, query, params)))


def list_sets(conn: Conn, job_id: UUID) -> tuple[ReadingSet, ...]:
    """Return all sets of a job, oldest first."""
    query = """
        SELECT s.reading_set_id, s.setup_id, s.gauge_version_id, s.fitting_id, s.hole_id, s.after_cut_id, s.liner_id,
               s.part_temp_c, s.opened_at, p.name AS opened_by, s.event
          FROM reading_set s JOIN person p ON p.person_id = s.opened_by
         WHERE s.job_id = %(job_id)s
         ORDER BY s.event
    """
    return fetch_all(conn, ReadingSet, query, {"job_id": job_id})


def add_set(conn: Conn, new: NewSet, opened_by: UUID) -> UUID:
    """Open a set."""
    query = """
        INSERT INTO reading_set (job_id, setup_id, gauge_version_id, fitting_id, hole_id, after_cut_id, liner_id,
                                 part_temp_c, opened_by)
        VALUES (%(job_id)s, %(setup_id)s, %(gauge_version_id)s, %(fitting_id)s, %(hole_id)s, %(after_cut_id)s,
                %(liner_id)s, %(part_temp_c)s, %(opened_by)s)
        RETURNING reading_set_id
    """
    params = {
        "job_id": new.job_id,
        "setup_id": new.setup_id,
        "gauge_version_id": new.gauge_version_id,
        "fitting_id": new.fitting_id,
        "hole_id": new.hole_id,
        "after_cut_id": new.after_cut_id,
        "liner_id": new.liner_id,
        "part_temp_c": new.part_temp_c,
        "opened_by": opened_by,
    }
    return UUID(str(fetch_value(conn, query, params)))


READING_COLUMNS = """
    r.reading_id, r.reading_set_id, r.hour::float8 AS hour, r.value_um, r.typed, r.typed_unit, r.taken_at,
    p.name AS taken_by, r.event
"""
READING_FROM = "reading r JOIN reading_set s USING (reading_set_id) JOIN person p ON p.person_id = r.taken_by"


def list_readings(conn: Conn, job_id: UUID) -> tuple[Reading, ...]:
    """Return all readings of a job, struck ones too, oldest first."""
    query = f"SELECT {READING_COLUMNS} FROM {READING_FROM} WHERE s.job_id = %(job_id)s ORDER BY r.event"
    # Thousands of rows: by position, the columns stand in the order of the type's fields.
    with conn.cursor(row_factory=args_row(Reading)) as cursor:
        return tuple(cursor.execute(query, {"job_id": job_id}).fetchall())


ADD_READING = """
    INSERT INTO reading (reading_id, reading_set_id, hour, value_um, typed, typed_unit, taken_at, taken_by)
    VALUES (%(reading_id)s, %(reading_set_id)s, %(hour)s, %(value_um)s, %(typed)s, %(typed_unit)s,
            coalesce(%(taken_at)s, now() - %(taken_ago)s), %(taken_by)s)
"""


def _row(new: NewReading, taken_by: UUID) -> dict[str, object]:
    return {
        "reading_id": new.reading_id,
        "reading_set_id": new.reading_set_id,
        "hour": new.hour,
        "value_um": new.value_um,
        "typed": new.typed,
        "typed_unit": new.typed_unit,
        "taken_ago": new.taken_ago,
        "taken_at": new.taken_at,
        "taken_by": taken_by,
    }


# Nobody's name is found only where nobody has that id: then the row itself is refused.
ADD_AND_RETURN_READING = f"""
    {ADD_READING}
    ON CONFLICT (reading_id) DO NOTHING
    RETURNING reading_id, reading_set_id, hour::float8, value_um, typed, typed_unit, taken_at,
              (SELECT name FROM person WHERE person_id = taken_by), event
"""


def add_reading(conn: Conn, new: NewReading, taken_by: UUID) -> Reading | None:
    """Append one reading and return it as recorded; None when its id was used before."""
    row = conn.execute(ADD_AND_RETURN_READING, _row(new, taken_by)).fetchone()
    return None if row is None else Reading(*row)


ADD_READING_AT = """
    WITH advanced AS (
        UPDATE revision job SET before = job.stamp, stamp = gen_random_uuid()
          FROM revision shop
         WHERE job.of_id = %(job_id)s AND job.stamp = %(job_stamp)s
           AND shop.of_id = %(shop)s AND shop.stamp = %(shop_stamp)s
        RETURNING job.stamp, pg_notify(%(channel)s, %(job)s)
    )
    INSERT INTO reading (reading_id, reading_set_id, hour, value_um, typed, typed_unit, taken_at, taken_by)
    SELECT %(reading_id)s, %(reading_set_id)s, %(hour)s, %(value_um)s, %(typed)s, %(typed_unit)s,
           coalesce(%(taken_at)s, now() - %(taken_ago)s), %(taken_by)s
      FROM advanced
        ON CONFLICT (reading_id) DO NOTHING
    RETURNING reading_id, reading_set_id, hour::float8, value_um, typed, typed_unit, taken_at,
              (SELECT name FROM person WHERE person_id = taken_by), event, (SELECT stamp FROM advanced)
"""


@dataclass(frozen=True, slots=True)
class Added:
    """A reading as recorded, and the revision its job stands at with it."""

    reading: Reading
    revision: Revision


async def add_reading_at(conn: AsyncConn, job_id: UUID, at: Revision, new: NewReading, taken_by: UUID) -> Added | None:
    """Append one reading if the job still stands at a revision, all in one statement; None when it does not."""
    params = {
        **_row(new, taken_by),
        "job_id": job_id,
        "job": str(job_id),
        "job_stamp": at.job,
        "shop": SHOP,
        "shop_stamp": at.shop,
        "channel": CHANNEL,
    }
    row = await (await conn.execute(ADD_READING_AT, params)).fetchone()
    return None if row is None else Added(Reading(*row[:-1]), Revision(row[-1], at.shop))


def add_readings(conn: Conn, rows: list[tuple[NewReading, UUID]]) -> None:
    """Append many readings in order, each with who took it."""
    with conn.cursor() as cursor:
        cursor.executemany(ADD_READING, [_row(new, taken_by) for new, taken_by in rows])


def list_strikes(conn: Conn, job_id: UUID) -> tuple[Strike, ...]:
    """Return all strikes and un-strikes of a job, oldest first."""
    query = """
        SELECT k.reading_id, k.cut_id, k.fitting_id, k.struck, k.reason, k.made_at, p.name AS made_by, k.event,
               k.note_id
          FROM strike k JOIN person p ON p.person_id = k.made_by
         WHERE k.job_id = %(job_id)s
         ORDER BY k.event
    """
    return fetch_all(conn, Strike, query, {"job_id": job_id})


def add_strike(
    conn: Conn,
    job_id: UUID,
    struck: bool,
    reason: str,
    made_by: UUID,
    *,
    reading_id: UUID | None = None,
    cut_id: UUID | None = None,
    fitting_id: UUID | None = None,
    note_id: UUID | None = None,
) -> None:
    """Strike out or restore one reading, cut, fitting or note."""
    conn.execute(
        """
        INSERT INTO strike (job_id, reading_id, cut_id, fitting_id, note_id, struck, reason, made_by)
        VALUES (%(job_id)s, %(reading_id)s, %(cut_id)s, %(fitting_id)s, %(note_id)s, %(struck)s, %(reason)s,
                %(made_by)s)
        """,
        {
            "job_id": job_id,
            "reading_id": reading_id,
            "cut_id": cut_id,
            "fitting_id": fitting_id,
            "note_id": note_id,
            "struck": struck,
            "reason": reason,
            "made_by": made_by,
        },
    )


def list_corrections(conn: Conn, job_id: UUID) -> tuple[ZeroCorrection, ...]:
    """Return all zero corrections of a job, oldest first."""
    query = """
        SELECT z.reading_set_id, z.correction_um, z.standard_um, z.typed, z.reason, z.made_at, p.name AS made_by,
               z.event
          FROM zero_correction z
          JOIN reading_set s USING (reading_set_id)
          JOIN person p ON p.person_id = z.made_by
         WHERE s.job_id = %(job_id)s
         ORDER BY z.event
    """
    return fetch_all(conn, ZeroCorrection, query, {"job_id": job_id})


def add_correction(
    conn: Conn, reading_set_id: UUID, correction_um: Decimal, standard_um: Decimal, typed: str, reason: str, by: UUID
) -> None:
    """Record that the zero of a set was found moved."""
    conn.execute(
        """
        INSERT INTO zero_correction (reading_set_id, correction_um, standard_um, typed, reason, made_by)
        VALUES (%(reading_set_id)s, %(correction_um)s, %(standard_um)s, %(typed)s, %(reason)s, %(made_by)s)
        """,
        {
            "reading_set_id": reading_set_id,
            "correction_um": correction_um,
            "standard_um": standard_um,
            "typed": typed,
            "reason": reason,
            "made_by": by,
        },
    )


def list_unreadables(conn: Conn, job_id: UUID) -> tuple[Unreadable, ...]:
    """Return everything said about positions that cannot be read, oldest first."""
    query = """
        SELECT u.fitting_id, u.hour::float8 AS hour, u.unreadable, u.reason, u.made_at, p.name AS made_by, u.event
          FROM unreadable u JOIN person p ON p.person_id = u.made_by
         WHERE u.job_id = %(job_id)s
         ORDER BY u.event
    """
    return fetch_all(conn, Unreadable, query, {"job_id": job_id})


def add_unreadable(
    conn: Conn, job_id: UUID, fitting_id: UUID, hour: float, unreadable: bool, reason: str, by: UUID
) -> None:
    """Record that a position cannot be read, or that it can be again."""
    conn.execute(
        """
        INSERT INTO unreadable (job_id, fitting_id, hour, unreadable, reason, made_by)
        VALUES (%(job_id)s, %(fitting_id)s, %(hour)s, %(unreadable)s, %(reason)s, %(made_by)s)
        """,
        {
            "job_id": job_id,
            "fitting_id": fitting_id,
            "hour": hour,
            "unreadable": unreadable,
            "reason": reason,
            "made_by": by,
        },
    )
