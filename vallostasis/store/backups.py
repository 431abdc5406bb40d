"""What a backup is made of and held against: one moment of the database, and the rows of every table then."""

import contextlib
from collections.abc import Iterator

import psycopg
from psycopg import sql

from vallostasis.store.rows import Conn, fetch_value

IN_UTC = "-c timezone=UTC"


@contextlib.contextmanager
def at_one_moment(dsn: str) -> Iterator[tuple[Conn, str]]:
    """Show the database as it stands now, whatever is recorded meanwhile; others see the same by the name given."""
    with psycopg.connect(dsn, options=IN_UTC) as conn:
        conn.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ, READ ONLY")
        yield conn, str(fetch_value(conn, "SELECT pg_export_snapshot()"))


@contextlib.contextmanager
def connected(dsn: str) -> Iterator[Conn]:
    """Connect for as long as it takes."""
    with psycopg.connect(dsn, options=IN_UTC) as conn:
        yield conn


def count_rows(conn: Conn) -> dict[str, int]:
    """Count the rows of every table."""
    tables = conn.execute("SELECT tablename FROM pg_tables WHERE schemaname = current_schema() ORDER BY 1").fetchall()
    return {
        table: int(fetch_value(conn, sql.SQL("SELECT count(*) FROM {}").format(sql.Identifier(table)).as_string(conn)))
        for (table,) in tables
    }
