"""Where gauges send their lines; the newest row of a gauge holds."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.store.rows import Conn, fetch_all


@dataclass(frozen=True, slots=True)
class GaugeLinkRow:
    """How the lines of one gauge reach the application."""

    gauge_id: UUID
    name: str
    url: str
    line_pattern: str
    unit: str
    simulated: bool


def list_gauge_links(conn: Conn) -> tuple[GaugeLinkRow, ...]:
    """Return the present link of every gauge that has one, by the gauge's name."""
    query = """
        SELECT DISTINCT ON (g.name) g.gauge_id, g.name, k.url, k.line_pattern, k.unit, k.simulated
          FROM gauge_link k JOIN gauge g USING (gauge_id)
         ORDER BY g.name, k.saved_at DESC
    """
    return fetch_all(conn, GaugeLinkRow, query)


def find_gauge_link(conn: Conn, gauge_id: UUID) -> GaugeLinkRow | None:
    """Return the present link of one gauge, or None."""
    return next((row for row in list_gauge_links(conn) if row.gauge_id == gauge_id), None)


def add_gauge_link(conn: Conn, gauge_id: UUID, url: str, line_pattern: str, unit: str, simulated: bool) -> None:
    """Set a gauge's link up anew."""
    conn.execute(
        """
        INSERT INTO gauge_link (gauge_id, url, line_pattern, unit, simulated)
        VALUES (%(gauge_id)s, %(url)s, %(line_pattern)s, %(unit)s, %(simulated)s)
        """,
        {"gauge_id": gauge_id, "url": url, "line_pattern": line_pattern, "unit": unit, "simulated": simulated},
    )
