"""Setups, sets, readings, strikes and zero corrections."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from decimal import Decimal
from typing import Any
from uuid import UUID

from psycopg.rows import args_row

from vallostasis.core.records import (
    Place,
    Quantity,
    Reading,
    ReadingSet,
    Setup,
    Strike,
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
    hold_down_torque_nm: Decimal | None = None
    shared_zero: bool = True
    zeroed_on: ZeroedOn = ZeroedOn.DATUM
    zero_um: Decimal = Decimal(0)
    zero_typed: str = ""
    load: str = ""
    method: str = ""
    setting_master_version_id: UUID | None = None
    master_temp_c: Decimal | None = None
    gauge_temp_c: Decimal | None = None
    corrects: UUID | None = None


@dataclass(frozen=True, slots=True)
class NewSet:
    """A pass of readings to open: of a fitting, of a hole since a cut, of a liner, or of a part by name."""

    job_id: UUID
    setup_id: UUID
    gauge_version_id: UUID
    fitting_id: UUID | None = None
    hole_id: UUID | None = None
    after_cut_id: UUID | None = None
    liner_id: UUID | None = None
    part_temp_c: Decimal | None = None
    part: str = ""


@dataclass(frozen=True, slots=True)
class NewReading:
    """A reading to append; its id was made by the client so that sending it again never doubles it."""

    reading_id: UUID
    reading_set_id: UUID
    value_um: Decimal
    typed: str
    typed_unit: str
    taken_ago: timedelta = timedelta(0)
    taken_at: datetime | None = None
    place: Place = Place()


# Place of that column in what list_setups asks for.
ZEROED_ON = 11


def list_setups(conn: Conn, job_id: UUID) -> tuple[Setup, ...]:
    """Return all setups of a job, oldest first."""
    query = """
        SELECT s.setup_id, s.quantity, s.gauge_id, s.land, s.datum, s.hold_down, s.hold_down_torque_nm,
               s.shared_zero, s.chosen_at, p.name AS chosen_by, s.event, s.zeroed_on, s.zero_um, s.zero_typed,
               s.load, s.method, s.setting_master_version_id, s.master_temp_c, s.gauge_temp_c, s.corrects
          FROM setup s JOIN person p ON p.person_id = s.chosen_by
         WHERE s.job_id = %(job_id)s
         ORDER BY s.event
    """
    with conn.cursor() as cursor:
        rows = cursor.execute(query, {"job_id": job_id}).fetchall()
    return tuple(Setup(*_typed(row)) for row in rows)


def _typed(row: tuple[Any, ...]) -> tuple[Any, ...]:
    setup_id, quantity, *others = row[:ZEROED_ON]
    return (setup_id, Quantity(quantity), *others, ZeroedOn(row[ZEROED_ON]), *row[ZEROED_ON + 1 :])


def add_setup(conn: Conn, new: NewSetup, chosen_by: UUID) -> UUID:
    """Record a setup; it holds until a newer one for the same quantity."""
    query = """
        INSERT INTO setup (job_id, quantity, gauge_id, land, datum, hold_down, hold_down_torque_nm, shared_zero,
                           chosen_by, zeroed_on, zero_um, zero_typed, load, method, setting_master_version_id,
                           master_temp_c, gauge_temp_c, corrects)
        VALUES (%(job_id)s, %(quantity)s, %(gauge_id)s, %(land)s, %(datum)s, %(hold_down)s, %(torque)s,
                %(shared_zero)s, %(chosen_by)s, %(zeroed_on)s, %(zero_um)s, %(zero_typed)s, %(load)s,
                %(method)s, %(master)s, %(master_temp_c)s, %(gauge_temp_c)s, %(corrects)s)
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
        "load": new.load,
        "method": new.method,
        "master": new.setting_master_version_id,
        "master_temp_c": new.master_temp_c,
        "gauge_temp_c": new.gauge_temp_c,
        "corrects": new.corrects,
    }
    return UUID(str(fetch_value(conn, query, params)))


def last_gauge_chosen(conn: Conn, quantity: Quantity) -> UUID | None:
    """Return the gauge that was chosen last for a quantity, in whichever job; None where none ever was."""
    query = "SELECT gauge_id FROM setup WHERE quantity = %(quantity)s ORDER BY event DESC LIMIT 1"
    gauge_id = fetch_value(conn, query, {"quantity": quantity.value})
    return None if gauge_id is None else UUID(str(gauge_id))


def list_sets(conn: Conn, job_id: UUID) -> tuple[ReadingSet, ...]:
    """Return all sets of a job, oldest first."""
    query = """
        SELECT s.reading_set_id, s.setup_id, s.gauge_version_id, s.fitting_id, s.hole_id, s.after_cut_id, s.liner_id,
               s.part_temp_c, s.opened_at, p.name AS opened_by, s.event, s.part
          FROM reading_set s JOIN person p ON p.person_id = s.opened_by
         WHERE s.job_id = %(job_id)s
         ORDER BY s.event
    """
    return fetch_all(conn, ReadingSet, query, {"job_id": job_id})


def add_set(conn: Conn, new: NewSet, opened_by: UUID) -> UUID:
    """Open a set."""
    query = """
        INSERT INTO reading_set (job_id, setup_id, gauge_version_id, fitting_id, hole_id, after_cut_id, liner_id,
                                 part_temp_c, part, opened_by)
        VALUES (%(job_id)s, %(setup_id)s, %(gauge_version_id)s, %(fitting_id)s, %(hole_id)s, %(after_cut_id)s,
                %(liner_id)s, %(part_temp_c)s, %(part)s, %(opened_by)s)
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
        "part": new.part,
        "opened_by": opened_by,
    }
    return UUID(str(fetch_value(conn, query, params)))


READING_COLUMNS = """
    r.reading_id, r.reading_set_id, r.hour::float8 AS hour, r.value_um, r.typed, r.typed_unit, r.taken_at,
    p.name AS taken_by, r.event, r.level_um, r.axis_deg::float8 AS axis_deg, r.along_um, r.across_um, r.recorded_at
"""
READING_FROM = "reading r JOIN reading_set s USING (reading_set_id) JOIN person p ON p.person_id = r.taken_by"


def list_readings(conn: Conn, job_id: UUID) -> tuple[Reading, ...]:
    """Return all readings of a job, struck ones too, oldest first."""
    query = f"SELECT {READING_COLUMNS} FROM {READING_FROM} WHERE s.job_id = %(job_id)s ORDER BY r.event"
    # Thousands of rows: by position, the columns stand in the order of the type's fields.
    with conn.cursor(row_factory=args_row(Reading)) as cursor:
        return tuple(cursor.execute(query, {"job_id": job_id}).fetchall())


INTO_READING = """
    INSERT INTO reading (reading_id, reading_set_id, hour, level_um, axis_deg, along_um, across_um, value_um, typed,
                         typed_unit, taken_at, taken_by)
"""
NEW_ROW = """
    %(reading_id)s, %(reading_set_id)s, %(hour)s, %(level_um)s, %(axis_deg)s, %(along_um)s, %(across_um)s, %(value_um)s,
    %(typed)s, %(typed_unit)s, coalesce(%(taken_at)s, now() - %(taken_ago)s), %(taken_by)s
"""
ADD_READING = f"{INTO_READING} VALUES ({NEW_ROW})"
# In the order of the type's fields. Nobody's name is found only where nobody has that id: the row itself is refused.
AS_RECORDED = """
    reading_id, reading_set_id, hour::float8, value_um, typed, typed_unit, taken_at,
    (SELECT name FROM person WHERE person_id = taken_by), event, level_um, axis_deg::float8, along_um, across_um,
    recorded_at
"""


def _row(new: NewReading, taken_by: UUID) -> dict[str, object]:
    return {
        "reading_id": new.reading_id,
        "reading_set_id": new.reading_set_id,
        "hour": new.place.hour,
        "level_um": new.place.level_um,
        "axis_deg": new.place.axis_deg,
        "along_um": new.place.along_um,
        "across_um": new.place.across_um,
        "value_um": new.value_um,
        "typed": new.typed,
        "typed_unit": new.typed_unit,
        "taken_ago": new.taken_ago,
        "taken_at": new.taken_at,
        "taken_by": taken_by,
    }


ADD_AND_RETURN_READING = f"{ADD_READING} ON CONFLICT (reading_id) DO NOTHING RETURNING {AS_RECORDED}"
TAKEN_BEFORE = """
    SELECT max(least(r.taken_at, now()))
      FROM reading r JOIN reading_set s USING (reading_set_id)
     WHERE r.taken_by = %(taken_by)s
       AND s.job_id = (SELECT job_id FROM reading_set WHERE reading_set_id = %(reading_set_id)s)
"""


def add_reading(conn: Conn, new: NewReading, taken_by: UUID) -> Reading | None:
    """Append one reading and return it as recorded; None when its id was used before.

    What waited is sent in the order in which it was taken, but some of it travels longer: it is never given a time
    before that of what the same person took before it.
    """
    params = _row(new, taken_by)
    if new.taken_ago:
        params["taken_at"] = fetch_value(conn, f"SELECT greatest(now() - %(taken_ago)s, ({TAKEN_BEFORE}))", params)
    row = conn.execute(ADD_AND_RETURN_READING, params).fetchone()
    return None if row is None else Reading(*row)


ADD_READING_AT = f"""
    WITH advanced AS (
        UPDATE revision job SET before = job.stamp, stamp = gen_random_uuid()
          FROM revision shop
         WHERE job.of_id = %(job_id)s AND job.stamp = %(job_stamp)s
           AND shop.of_id = %(shop)s AND shop.stamp = %(shop_stamp)s
        RETURNING job.stamp, pg_notify(%(channel)s, %(job)s)
    )
    {INTO_READING}
    SELECT {NEW_ROW}
      FROM advanced
        ON CONFLICT (reading_id) DO NOTHING
    RETURNING {AS_RECORDED}, (SELECT stamp FROM advanced)
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
               k.note_id, k.temperature_id, k.of_event, k.undoes
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
    temperature_id: UUID | None = None,
    of_event: int | None = None,
    undoes: bool = False,
) -> None:
    """Strike out or restore one thing recorded: named by its id, or by its event where it is of another kind."""
    conn.execute(
        """
        INSERT INTO strike (job_id, reading_id, cut_id, fitting_id, note_id, temperature_id, of_event, struck, reason,
                            undoes, made_by)
        VALUES (%(job_id)s, %(reading_id)s, %(cut_id)s, %(fitting_id)s, %(note_id)s, %(temperature_id)s, %(of_event)s,
                %(struck)s, %(reason)s, %(undoes)s, %(made_by)s)
        """,
        {
            "job_id": job_id,
            "reading_id": reading_id,
            "cut_id": cut_id,
            "fitting_id": fitting_id,
            "note_id": note_id,
            "temperature_id": temperature_id,
            "of_event": of_event,
            "undoes": undoes,
            "struck": struck,
            "reason": reason,
            "made_by": made_by,
        },
    )
