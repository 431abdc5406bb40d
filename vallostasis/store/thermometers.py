"""Thermometers that talk."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all


@dataclass(frozen=True, slots=True)
class ThermometerRow:
    """Where a thermometer talks, how its lines are written, and whether it lies on the part or in the room."""

    thermometer_id: UUID
    name: str
    lies_on: str
    url: str
    line_pattern: str
    simulated: bool


def list_thermometers(conn: Conn) -> tuple[ThermometerRow, ...]:
    """Return the newest row of every thermometer, by name."""
    query = """
        SELECT DISTINCT ON (name) thermometer_id, name, lies_on, url, line_pattern, simulated
          FROM thermometer ORDER BY name, event DESC
    """
    return fetch_all(conn, ThermometerRow, query)


def add_thermometer(conn: Conn, name: str, lies_on: str, url: str, line_pattern: str, simulated: bool) -> None:
    """Set a thermometer up, or set it up anew under its name."""
    conn.execute(
        """
        INSERT INTO thermometer (name, lies_on, url, line_pattern, simulated)
        VALUES (%(name)s, %(lies_on)s, %(url)s, %(line_pattern)s, %(simulated)s)
        """,
        {"name": name, "lies_on": lies_on, "url": url, "line_pattern": line_pattern, "simulated": simulated},
    )
    announce(conn, None)
