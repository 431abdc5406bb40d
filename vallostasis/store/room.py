"""How warm the shop is taken to be where nobody took a temperature."""

from decimal import Decimal
from uuid import UUID

from psycopg.rows import class_row

from vallostasis.core.records.temperatures import RoomAssumed
from vallostasis.store.changes import announce
from vallostasis.store.revisions import advance_shop
from vallostasis.store.rows import Conn


def get_room(conn: Conn) -> RoomAssumed:
    """Return what was written down last, else what is common practice."""
    query = "SELECT mean_c, standard_k FROM room_assumed ORDER BY event DESC LIMIT 1"
    with conn.cursor(row_factory=class_row(RoomAssumed)) as cursor:
        return cursor.execute(query).fetchone() or RoomAssumed()


def add_room(conn: Conn, mean_c: Decimal, standard_k: Decimal, by: UUID) -> None:
    """Write down what holds from now on."""
    conn.execute(
        "INSERT INTO room_assumed (mean_c, standard_k, saved_by) VALUES (%(mean_c)s, %(standard_k)s, %(by)s)",
        {"mean_c": mean_c, "standard_k": standard_k, "by": by},
    )
    advance_shop(conn)
    announce(conn, None)
