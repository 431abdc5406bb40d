"""The pullers and presses of the shop."""

from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.pulls import PressTool, ToolKind
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all


def list_press_tools(conn: Conn) -> tuple[PressTool, ...]:
    """Return every puller and press as it is now, by name."""
    query = """
        SELECT DISTINCT ON (lower(t.name)) t.name, t.kind, t.capacity_kn, t.turn_um, t.force_shown, t.note, t.saved_at,
               p.name AS saved_by
          FROM press_tool t JOIN person p ON p.person_id = t.saved_by
         ORDER BY lower(t.name), t.event DESC
    """
    return fetch_all(conn, PressTool, query)


def add_press_tool(
    conn: Conn,
    name: str,
    kind: ToolKind,
    capacity_kn: Decimal,
    turn_um: Decimal | None,
    force_shown: bool,
    note: str,
    by: UUID,
) -> None:
    """Save a puller or press; under a name that is known it takes the place of the one before."""
    conn.execute(
        """
        INSERT INTO press_tool (name, kind, capacity_kn, turn_um, force_shown, note, saved_by)
        VALUES (%(name)s, %(kind)s, %(capacity_kn)s, %(turn_um)s, %(force_shown)s, %(note)s, %(by)s)
        """,
        {"name": name, "kind": kind, "capacity_kn": capacity_kn, "turn_um": turn_um, "force_shown": force_shown,
         "note": note, "by": by},
    )  # fmt: skip
    announce(conn, None)
