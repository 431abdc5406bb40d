"""The price list of the shop."""

from dataclasses import replace
from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.prices import USUAL, PriceKind, PriceList, ShopPrice
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all


def price_list(conn: Conn) -> PriceList:
    """Return the newest price of each kind, the usual one where nobody set any."""
    query = """
        SELECT DISTINCT ON (s.kind) s.kind, s.hours, s.money, s.days, s.currency, s.set_at, p.name AS set_by
          FROM shop_price s JOIN person p ON p.person_id = s.set_by
         ORDER BY s.kind, s.event DESC
    """
    rows = fetch_all(conn, ShopPrice, query)
    newest = {PriceKind(one.kind): replace(one, kind=PriceKind(one.kind)) for one in rows}
    return PriceList(tuple(newest.get(one.kind, one) for one in USUAL))


def set_price(
    conn: Conn, kind: PriceKind, hours: Decimal, money: Decimal | None, days: Decimal, currency: str, by: UUID
) -> None:
    """Save a price; it takes the place of the one before."""
    conn.execute(
        """
        INSERT INTO shop_price (kind, hours, money, days, currency, set_by)
        VALUES (%(kind)s, %(hours)s, %(money)s, %(days)s, %(currency)s, %(by)s)
        """,
        {"kind": kind, "hours": hours, "money": money, "days": days, "currency": currency, "by": by},
    )
    announce(conn, None)
