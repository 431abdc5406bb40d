"""The shelf of shims: lots, and what was done with them."""

from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.shelf import ShimLot, ShimMoveKind
from vallostasis.store.changes import announce
from vallostasis.store.revisions import advance_shop
from vallostasis.store.rows import Conn, fetch_all

# A shim that was used for a fitting which is struck lies on the shelf again.
LOTS = """
    WITH standing AS (
        SELECT m.shim_lot_id, m.kind, m.count, m.job_id
          FROM shim_move m
         WHERE NOT coalesce((SELECT s.struck FROM strike s WHERE s.fitting_id = m.fitting_id
                              ORDER BY s.event DESC LIMIT 1), false)
    ), moved AS (
        SELECT shim_lot_id,
               coalesce(sum(count) FILTER (WHERE kind = 'arrived'), 0) AS arrived,
               coalesce(sum(count) FILTER (WHERE kind IN ('used', 'scrapped')), 0) AS gone,
               coalesce(sum(count) FILTER (WHERE kind = 'ordered'), 0) AS ordered
          FROM standing GROUP BY shim_lot_id
    ), kept AS (
        SELECT shim_lot_id, job_id,
               greatest(0, coalesce(sum(count) FILTER (WHERE kind = 'reserved'), 0)
                           - coalesce(sum(count) FILTER (WHERE kind IN ('released', 'used')), 0)) AS reserved
          FROM standing WHERE job_id IS NOT NULL GROUP BY shim_lot_id, job_id
    )
    SELECT l.shim_lot_id, l.size_um, l.typed, l.measured_um, l.lot, l.price, l.outside_um, l.side_up,
           (l.count + coalesce(m.arrived, 0) - coalesce(m.gone, 0))::int AS on_shelf,
           coalesce((SELECT sum(k.reserved) FROM kept k
                      WHERE k.shim_lot_id = l.shim_lot_id AND k.job_id = %(job_id)s), 0)::int AS reserved_here,
           coalesce((SELECT sum(k.reserved) FROM kept k
                      WHERE k.shim_lot_id = l.shim_lot_id AND k.job_id IS DISTINCT FROM %(job_id)s), 0)::int
               AS reserved_elsewhere,
           greatest(0, coalesce(m.ordered, 0) - coalesce(m.arrived, 0))::int AS ordered
      FROM shim_lot l LEFT JOIN moved m USING (shim_lot_id)
     ORDER BY l.size_um, l.event
"""


@dataclass(frozen=True, slots=True)
class NewLot:
    """A lot as it came; its id was made by the client."""

    shim_lot_id: UUID
    size_um: Decimal
    typed: str
    measured_um: Decimal | None
    lot: str
    price: Decimal | None
    outside_um: Decimal | None
    side_up: str
    count: int


@dataclass(frozen=True, slots=True)
class NewMove:
    """Something done with shims of a lot; its id was made by the client."""

    shim_move_id: UUID
    shim_lot_id: UUID
    kind: ShimMoveKind
    count: int
    job_id: UUID | None = None
    fitting_id: UUID | None = None
    words: str = ""


def list_lots(conn: Conn, job_id: UUID | None = None) -> tuple[ShimLot, ...]:
    """Return every lot by size, as it stands for a job."""
    return fetch_all(conn, ShimLot, LOTS, {"job_id": job_id})


def add_lot(conn: Conn, new: NewLot, by: UUID) -> None:
    """Put a lot on the shelf; sending it again never doubles it."""
    conn.execute(
        """
        INSERT INTO shim_lot (shim_lot_id, size_um, typed, measured_um, lot, price, outside_um, side_up, count,
                              noted_by)
        VALUES (%(shim_lot_id)s, %(size_um)s, %(typed)s, %(measured_um)s, %(lot)s, %(price)s, %(outside_um)s,
                %(side_up)s, %(count)s, %(by)s)
            ON CONFLICT (shim_lot_id) DO NOTHING
        """,
        {"shim_lot_id": new.shim_lot_id, "size_um": new.size_um, "typed": new.typed, "measured_um": new.measured_um,
         "lot": new.lot, "price": new.price, "outside_um": new.outside_um, "side_up": new.side_up, "count": new.count,
         "by": by},
    )  # fmt: skip
    advance_shop(conn)
    announce(conn, None)


def add_move(conn: Conn, new: NewMove, by: UUID) -> None:
    """Write down what is done with shims; sending it again never doubles it."""
    conn.execute(
        """
        INSERT INTO shim_move (shim_move_id, shim_lot_id, kind, count, job_id, fitting_id, words, noted_by)
        VALUES (%(shim_move_id)s, %(shim_lot_id)s, %(kind)s, %(count)s, %(job_id)s, %(fitting_id)s, %(words)s, %(by)s)
            ON CONFLICT (shim_move_id) DO NOTHING
        """,
        {"shim_move_id": new.shim_move_id, "shim_lot_id": new.shim_lot_id, "kind": new.kind, "count": new.count,
         "job_id": new.job_id, "fitting_id": new.fitting_id, "words": new.words, "by": by},
    )  # fmt: skip
    advance_shop(conn)
    announce(conn, None)
