"""What parts cost as a rule, and how the shop reckons."""

from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.estimates import MoneyRules, PartPrice, Rounding
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all


def list_part_prices(conn: Conn) -> tuple[PartPrice, ...]:
    """Return the newest price of every part, by name."""
    query = """
        SELECT DISTINCT ON (lower(s.name)) s.name, s.money, s.days, s.set_at, p.name AS set_by
          FROM part_price s JOIN person p ON p.person_id = s.set_by
         ORDER BY lower(s.name), s.event DESC
    """
    return fetch_all(conn, PartPrice, query)


def set_part_price(conn: Conn, name: str, money: Decimal, days: int, by: UUID) -> None:
    """Save what a part costs and how long it takes to come."""
    conn.execute(
        "INSERT INTO part_price (name, money, days, set_by) VALUES (%(name)s, %(money)s, %(days)s, %(by)s)",
        {"name": name, "money": money, "days": days, "by": by},
    )
    announce(conn, None)


def money_rules(conn: Conn) -> MoneyRules:
    """Return how the shop reckons, as it was set last."""
    row = conn.execute(
        """
        SELECT m.tax_percent, m.rounding, m.returns_percent, p.name
          FROM money_rules m JOIN person p ON p.person_id = m.set_by
         ORDER BY m.event DESC LIMIT 1
        """
    ).fetchone()
    return MoneyRules() if row is None else MoneyRules(row[0], Rounding(row[1]), row[2], row[3])


def set_money_rules(conn: Conn, rules: MoneyRules, by: UUID) -> None:
    """Save how the shop reckons."""
    conn.execute(
        """
        INSERT INTO money_rules (tax_percent, rounding, returns_percent, set_by)
        VALUES (%(tax_percent)s, %(rounding)s, %(returns_percent)s, %(by)s)
        """,
        {"tax_percent": rules.tax_percent, "rounding": rules.rounding, "returns_percent": rules.returns_percent,
         "by": by},
    )  # fmt: skip
    announce(conn, None)
