"""Setting masters read with gauges, here and in other shops."""

from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.gauges import MasterReading
from vallostasis.store.changes import announce
from vallostasis.store.revisions import advance_shop
from vallostasis.store.rows import Conn, fetch_all


def list_master_readings(conn: Conn) -> tuple[MasterReading, ...]:
    """Return every reading of a master, oldest first."""
    query = """
        SELECT r.master_reading_id, m.setting_master_id, v.gauge_id, r.gauge_version_id, r.shop, r.value_um,
               r.value_um - m.size_um AS off_um, r.typed, r.taken_at, p.name AS taken_by, r.event
          FROM master_reading r
          JOIN setting_master_version m USING (setting_master_version_id)
          JOIN gauge_version v USING (gauge_version_id)
          JOIN person p ON p.person_id = r.taken_by
         ORDER BY r.event
    """
    return fetch_all(conn, MasterReading, query)


def add_master_reading(
    conn: Conn,
    reading_id: UUID,
    master_version_id: UUID,
    gauge_version_id: UUID,
    shop: str,
    value_um: Decimal,
    typed: str,
    by: UUID,
) -> None:
    """Record what a gauge showed on a master; sending it again under its id adds nothing."""
    conn.execute(
        """
        INSERT INTO master_reading (master_reading_id, setting_master_version_id, gauge_version_id, shop, value_um,
                                    typed, taken_by)
        VALUES (%(reading_id)s, %(master)s, %(gauge)s, %(shop)s, %(value_um)s, %(typed)s, %(by)s)
        ON CONFLICT (master_reading_id) DO NOTHING
        """,
        {
            "reading_id": reading_id,
            "master": master_version_id,
            "gauge": gauge_version_id,
            "shop": shop,
            "value_um": value_um,
            "typed": typed,
            "by": by,
        },
    )
    advance_shop(conn)
    announce(conn, None)
