"""Several shops in one database: each has a schema and two users of its own, and sees nothing of another."""

import re
import secrets
from dataclasses import dataclass

from psycopg import sql
from psycopg.conninfo import make_conninfo

from vallostasis.store.application_user import grant_application
from vallostasis.store.database import migrate
from vallostasis.store.rows import Conn, fetch_value

# Names of PostgreSQL end after 63 bytes, and the users' are longer by what they are.
NAME = re.compile(r"[a-z][a-z0-9_]{0,39}")


@dataclass(frozen=True, slots=True)
class ShopApart:
    """A shop's schema; how it is reached is told once, when it is made."""

    schema: str
    is_new: bool
    dsn: str


def bring_shop_up(conn: Conn, name: str, dsn: str) -> ShopApart:
    """Make the schema of a shop where there is none, and bring it up to this version.

    Parameters
    ----------
    conn : Conn
        As somebody who may make users and schemas.
    name : str
        Small letters, digits and _, at most 40: the shop's schema is called so, after ``shop_``.
    dsn : str
        How that somebody reaches the database; the shop reaches it so too, as a user of its own.

    Raises
    ------
    ValueError
        If the name cannot be one.
    """
    if NAME.fullmatch(name) is None:
        raise ValueError(f"{name} is no name of a shop: small letters, digits and _, at most 40, no digit first.")
    schema, owner, user = f"shop_{name}", f"shop_{name}_owner", f"shop_{name}_app"
    is_new = fetch_value(conn, "SELECT to_regnamespace(%(schema)s)", {"schema": schema}) is None
    password = secrets.token_urlsafe(24)
    if is_new:
        conn.execute(sql.SQL("CREATE ROLE {} NOLOGIN").format(sql.Identifier(owner)))
        # Whoever makes the schema has to be able to act as its owner; a superuser is anyway.
        conn.execute(sql.SQL("GRANT {} TO CURRENT_USER").format(sql.Identifier(owner)))
        conn.execute(sql.SQL("CREATE SCHEMA {} AUTHORIZATION {}").format(sql.Identifier(schema), sql.Identifier(owner)))
    _look_only_at(conn, schema)
    conn.execute(sql.SQL("SET ROLE {}").format(sql.Identifier(owner)))
    migrate(conn)
    conn.execute("RESET ROLE")
    grant_application(conn, user, password if is_new else None)
    if is_new:
        database = str(fetch_value(conn, "SELECT current_database()"))
        conn.execute(sql.SQL("ALTER ROLE {} IN DATABASE {} SET search_path = {}").format(
            sql.Identifier(user), sql.Identifier(database), sql.Identifier(schema)))  # fmt: skip
    conn.execute("RESET search_path")
    return ShopApart(schema, is_new, make_conninfo(dsn, user=user, password=password) if is_new else "")


def _look_only_at(conn: Conn, schema: str) -> None:
    conn.execute(sql.SQL("SET search_path = {}").format(sql.Identifier(schema)))
