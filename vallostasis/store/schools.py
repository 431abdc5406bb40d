"""The side of each question in dispute that the shop follows for jobs it takes in."""

from uuid import UUID

from vallostasis.core.records.route_marks import ShopSchool
from vallostasis.store.rows import Conn, fetch_all


def list_shop_schools(conn: Conn) -> tuple[ShopSchool, ...]:
    """Return the newest choice of each question the shop chose a side of."""
    query = """
        SELECT DISTINCT ON (s.question) s.question, s.side, s.chosen_at, p.name AS chosen_by
          FROM shop_school s
          JOIN person p ON p.person_id = s.chosen_by
         ORDER BY s.question, s.event DESC
    """
    return fetch_all(conn, ShopSchool, query, {})


def add_shop_school(conn: Conn, question: str, side: str, chosen_by: UUID) -> None:
    """Record the side that the shop follows from now on."""
    conn.execute(
        """
        INSERT INTO shop_school (question, side, chosen_by) VALUES (%(question)s, %(side)s, %(chosen_by)s)
        """,
        {"question": question, "side": side, "chosen_by": chosen_by},
    )
