"""Readings: the one thing recorded so often that it has statements of its own."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.rows import Place, Quantity, Reading
from vallostasis.store.changes import CHANNEL
from vallostasis.store.revisions import SHOP, Revision
from vallostasis.store.rows import AsyncConn, Conn, fetch_value


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
    device: str = ""
    from_gauge: bool = False


def last_gauge_chosen(conn: Conn, quantity: Quantity) -> UUID | None:
    """Return the gauge that was chosen last for a quantity, in whichever job; None where none ever was."""
    query = "SELECT gauge_id FROM setup WHERE quantity = %(quantity)s ORDER BY event DESC LIMIT 1"
    gauge_id = fetch_value(conn, query, {"quantity": quantity.value})
    return None if gauge_id is None else UUID(str(gauge_id))


INTO_READING = """
    INSERT INTO reading (reading_id, reading_set_id, hour, level_um, axis_deg, along_um, across_um, value_um, typed,
                         typed_unit, taken_at, taken_by, device, from_gauge)
"""
NEW_ROW = """
    %(reading_id)s, %(reading_set_id)s, %(hour)s, %(level_um)s, %(axis_deg)s, %(along_um)s, %(across_um)s, %(value_um)s,
    %(typed)s, %(typed_unit)s, coalesce(%(taken_at)s, now() - %(taken_ago)s), %(taken_by)s, %(device)s,
    %(from_gauge)s
"""
ADD_READING = f"{INTO_READING} VALUES ({NEW_ROW})"
# In the order of the type's fields. Nobody's name is found only where nobody has that id: the row itself is refused.
AS_RECORDED = """
    reading_id, reading_set_id, hour::float8, value_um, typed, typed_unit, taken_at,
    (SELECT name FROM person WHERE person_id = taken_by), event, level_um, axis_deg::float8, along_um, across_um,
    recorded_at, device, from_gauge
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
        "device": new.device,
        "from_gauge": new.from_gauge,
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
        RETURNING job.stamp, pg_notify({CHANNEL}, %(job)s)
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
    }
    row = await (await conn.execute(ADD_READING_AT, params)).fetchone()
    return None if row is None else Added(Reading(*row[:-1]), Revision(row[-1], at.shop))


def add_readings(conn: Conn, rows: list[tuple[NewReading, UUID]]) -> None:
    """Append many readings in order, each with who took it."""
    with conn.cursor() as cursor:
        cursor.executemany(ADD_READING, [_row(new, taken_by) for new, taken_by in rows])
