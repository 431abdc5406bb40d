"""How materials expand, as the shop wrote it down."""

from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.temperatures import Material
from vallostasis.store.changes import announce
from vallostasis.store.revisions import advance_shop
from vallostasis.store.rows import Conn, fetch_all


def list_materials(conn: Conn) -> tuple[Material, ...]:
    """Return the newest row of every material, by name."""
    query = """
        SELECT DISTINCT ON (lower(m.name))
               m.material_id, m.name, m.alpha_per_k, m.hottest_c, m.source, m.saved_at, p.name AS saved_by, m.event
          FROM material m JOIN person p ON p.person_id = m.saved_by
         ORDER BY lower(m.name), m.event DESC
    """
    return fetch_all(conn, Material, query)


def add_material(conn: Conn, name: str, alpha_per_k: Decimal, hottest_c: Decimal | None, source: str, by: UUID) -> None:
    """Write down how a material expands; it holds until it is written down anew."""
    conn.execute(
        """
        INSERT INTO material (name, alpha_per_k, hottest_c, source, saved_by)
        VALUES (%(name)s, %(alpha)s, %(hottest_c)s, %(source)s, %(by)s)
        """,
        {"name": name, "alpha": alpha_per_k, "hottest_c": hottest_c, "source": source, "by": by},
    )
    advance_shop(conn)
    announce(conn, None)
