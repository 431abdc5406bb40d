"""The shop's own time: hours, absences, machines, visits."""

from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from vallostasis.core.calendar.open_time import USUAL_HOURS, OpenHours
from vallostasis.core.records.calendar import AwaySpan, Machine, Visit
from vallostasis.core.records.route_marks import Operation
from vallostasis.store.changes import announce
from vallostasis.store.revisions import advance_shop
from vallostasis.store.rows import Conn, fetch_all

Week = tuple[tuple[tuple[int, int], ...], ...]


def _changed(conn: Conn) -> None:
    """Whatever was laid out with the hours of before is laid out anew."""
    advance_shop(conn)
    announce(conn, None)


def open_hours(conn: Conn) -> OpenHours:
    """Return the hours of the shop as they were set last, the usual ones where nobody set any."""
    row = conn.execute("SELECT zone, week FROM shop_hours ORDER BY event DESC LIMIT 1").fetchone()
    if row is None:
        return USUAL_HOURS
    zone, week = row
    return OpenHours(zone, tuple(tuple((opens, shuts) for opens, shuts in day) for day in week))


def set_open_hours(conn: Conn, zone: str, week: Week, by: UUID) -> None:
    """Save the hours of the shop; they take the place of those before."""
    conn.execute(
        "INSERT INTO shop_hours (zone, week, set_by) VALUES (%(zone)s, %(week)s, %(by)s)",
        {"zone": zone, "week": Jsonb(week), "by": by},
    )
    _changed(conn)


def list_away(conn: Conn) -> tuple[AwaySpan, ...]:
    """Return every absence that was not taken back, soonest first; that of the whole shop has no name."""
    query = """
        SELECT a.away_id, a.what, a.starts_at, a.ends_at, a.words
          FROM away a
         WHERE NOT EXISTS (SELECT FROM taken_back t WHERE t.away_id = a.away_id)
         ORDER BY a.starts_at, a.event
    """
    return fetch_all(conn, AwaySpan, query)


def add_away(conn: Conn, away: AwaySpan, by: UUID) -> None:
    """Write down an absence; sending it again never doubles it."""
    conn.execute(
        """
        INSERT INTO away (away_id, what, starts_at, ends_at, words, noted_by)
        VALUES (%(away_id)s, %(what)s, %(starts_at)s, %(ends_at)s, %(words)s, %(by)s)
            ON CONFLICT (away_id) DO NOTHING
        """,
        {"away_id": away.away_id, "what": away.what, "starts_at": away.starts_at, "ends_at": away.ends_at,
         "words": away.words, "by": by},
    )  # fmt: skip
    _changed(conn)


def list_machines(conn: Conn) -> dict[Machine, int]:
    """Return how many there are of each kind of machine, as it was set last; one where nobody said."""
    query = "SELECT DISTINCT ON (machine) machine, count FROM shop_machine ORDER BY machine, event DESC"
    counts = {str(machine): int(count) for machine, count in conn.execute(query).fetchall()}
    return {one: counts.get(one.value, 1) for one in Machine}


def set_machine(conn: Conn, machine: Machine, count: int, by: UUID) -> None:
    """Save how many there are of a kind of machine."""
    conn.execute(
        "INSERT INTO shop_machine (machine, count, set_by) VALUES (%(machine)s, %(count)s, %(by)s)",
        {"machine": machine, "count": count, "by": by},
    )
    _changed(conn)


def list_visits(conn: Conn, since: datetime) -> tuple[Visit, ...]:
    """Return visits that end after a moment and were not taken back, soonest first."""
    query = """
        SELECT v.visit_id, v.name, v.job_id, v.operations, v.starts_at, v.ends_at, v.needs
          FROM visit v
         WHERE v.ends_at > %(since)s AND NOT EXISTS (SELECT FROM taken_back t WHERE t.visit_id = v.visit_id)
         ORDER BY v.starts_at, v.event
    """
    return tuple(_visit(row) for row in conn.execute(query, {"since": since}).fetchall())


def _visit(row: tuple[Any, ...]) -> Visit:
    visit_id, name, job_id, operations, starts_at, ends_at, needs = row
    does = tuple(Operation(one) for one in operations)
    return Visit(visit_id, name, job_id, does, starts_at, ends_at, tuple(needs))


def add_visit(conn: Conn, visit: Visit, by: UUID) -> None:
    """Write down a visit; sending it again never doubles it."""
    conn.execute(
        """
        INSERT INTO visit (visit_id, name, job_id, operations, starts_at, ends_at, needs, noted_by)
        VALUES (%(visit_id)s, %(name)s, %(job_id)s, %(operations)s, %(starts_at)s, %(ends_at)s, %(needs)s, %(by)s)
            ON CONFLICT (visit_id) DO NOTHING
        """,
        {"visit_id": visit.visit_id, "name": visit.name, "job_id": visit.job_id,
         "operations": [one.value for one in visit.operations], "starts_at": visit.starts_at,
         "ends_at": visit.ends_at, "needs": list(visit.needs), "by": by},
    )  # fmt: skip
    _changed(conn)


def take_back(conn: Conn, away_id: UUID | None, visit_id: UUID | None, by: UUID) -> None:
    """Take back an absence or a visit that does not come about."""
    conn.execute(
        "INSERT INTO taken_back (away_id, visit_id, noted_by) VALUES (%(away_id)s, %(visit_id)s, %(by)s)",
        {"away_id": away_id, "visit_id": visit_id, "by": by},
    )
    _changed(conn)
