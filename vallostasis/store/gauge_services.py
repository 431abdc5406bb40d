"""What was done to gauges."""

from datetime import date
from uuid import UUID

from vallostasis.core.records.gauges import GaugeService
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all


def list_services(conn: Conn) -> tuple[GaugeService, ...]:
    """Return everything that was done to gauges, newest first."""
    query = """
        SELECT s.gauge_service_id, s.gauge_id, s.kind, s.words, s.done_on, s.noted_at, p.name AS noted_by, s.event
          FROM gauge_service s JOIN person p ON p.person_id = s.noted_by
         ORDER BY s.done_on DESC, s.event DESC
    """
    return fetch_all(conn, GaugeService, query)


def add_service(conn: Conn, gauge_id: UUID, kind: str, words: str, done_on: date, by: UUID) -> None:
    """Record what was done to a gauge."""
    conn.execute(
        """
        INSERT INTO gauge_service (gauge_id, kind, words, done_on, noted_by)
        VALUES (%(gauge_id)s, %(kind)s, %(words)s, %(done_on)s, %(by)s)
        """,
        {"gauge_id": gauge_id, "kind": kind, "words": words, "done_on": done_on, "by": by},
    )
    announce(conn, None)
