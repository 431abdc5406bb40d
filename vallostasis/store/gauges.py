"""Gauges and their versions."""

from dataclasses import asdict, dataclass
from datetime import date
from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.store.changes import announce
from vallostasis.store.revisions import advance_shop
from vallostasis.store.rows import Conn, fetch_all, fetch_one


@dataclass(frozen=True, slots=True)
class GaugeSheet:
    """What is written about a gauge: everything but its name and kind. [µm]"""

    resolution_um: Decimal
    repeatability_um: Decimal
    tip: str
    note: str
    range_from_um: Decimal | None
    range_to_um: Decimal | None
    tip_radius_um: Decimal | None
    calibrated_on: date | None
    due_on: date | None
    owner: str
    master: str
    faults: str
    repeatability_freedom: int | None = None
    gauge_study_id: UUID | None = None
    reproducibility_um: Decimal = Decimal(0)
    reproducibility_freedom: Decimal | None = None


COLUMNS = """
    v.gauge_version_id, v.gauge_id, g.name, g.kind, v.version, v.resolution_um, v.repeatability_um, v.tip, v.note,
    v.range_from_um, v.range_to_um, v.tip_radius_um, v.calibrated_on, v.due_on, v.owner, v.master, v.faults,
    v.repeatability_freedom, v.gauge_study_id, v.reproducibility_um, v.reproducibility_freedom
"""


def list_gauges(conn: Conn) -> tuple[GaugeVersion, ...]:
    """Return the newest version of every gauge, by name."""
    query = f"""
        SELECT DISTINCT ON (g.name) {COLUMNS}
          FROM gauge g JOIN gauge_version v USING (gauge_id)
         ORDER BY g.name, v.version DESC
    """
    return fetch_all(conn, GaugeVersion, query)


def list_gauges_as_added(conn: Conn) -> tuple[GaugeVersion, ...]:
    """Return the newest version of every gauge, the first registered first."""
    newest = {one.gauge_id: one for one in list_gauges(conn)}
    rows = conn.execute("SELECT gauge_id FROM gauge ORDER BY added_at, name").fetchall()
    return tuple(newest[row[0]] for row in rows if row[0] in newest)


def get_gauge(conn: Conn, gauge_id: UUID) -> GaugeVersion:
    """Return the newest version of one gauge; raise NotFound if there is none with that id."""
    query = f"""
        SELECT {COLUMNS}
          FROM gauge g JOIN gauge_version v USING (gauge_id)
         WHERE g.gauge_id = %(gauge_id)s
         ORDER BY v.version DESC LIMIT 1
    """
    return fetch_one(conn, GaugeVersion, query, {"gauge_id": gauge_id}, "gauge")


def add_gauge(conn: Conn, name: str, kind: str) -> UUID:
    """Add a gauge without a version yet; the database refuses a name twice."""
    query = "INSERT INTO gauge (name, kind) VALUES (%(name)s, %(kind)s) RETURNING gauge_id"
    return UUID(str(conn.execute(query, {"name": name, "kind": kind}).fetchone()[0]))  # type: ignore[index]


def lock_gauge(conn: Conn, gauge_id: UUID) -> None:
    """Hold a gauge until the transaction ends, so that two people cannot save its next version at once."""
    conn.execute("SELECT 1 FROM gauge WHERE gauge_id = %(gauge_id)s FOR UPDATE", {"gauge_id": gauge_id})


def add_gauge_version(conn: Conn, gauge_id: UUID, version: int, sheet: GaugeSheet) -> None:
    """Save the next version of a gauge."""
    conn.execute(
        """
        INSERT INTO gauge_version (gauge_id, version, resolution_um, repeatability_um, tip, note, range_from_um,
                                   range_to_um, tip_radius_um, calibrated_on, due_on, owner, master, faults,
                                   repeatability_freedom, gauge_study_id, reproducibility_um,
                                   reproducibility_freedom)
        VALUES (%(gauge_id)s, %(version)s, %(resolution_um)s, %(repeatability_um)s, %(tip)s, %(note)s,
                %(range_from_um)s, %(range_to_um)s, %(tip_radius_um)s, %(calibrated_on)s, %(due_on)s, %(owner)s,
                %(master)s, %(faults)s, %(repeatability_freedom)s, %(gauge_study_id)s, %(reproducibility_um)s,
                %(reproducibility_freedom)s)
        """,
        {"gauge_id": gauge_id, "version": version, **asdict(sheet)},
    )
    advance_shop(conn)
    announce(conn, None)
