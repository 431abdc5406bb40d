"""The connection pool and the migrations, numbered SQL files applied in order."""

import time
from importlib.resources import files
from typing import Any
from weakref import WeakKeyDictionary

from psycopg import Connection
from psycopg.rows import TupleRow
from psycopg_pool import AsyncConnectionPool, ConnectionPool

from vallostasis.store.rows import AsyncConn, Conn
from vallostasis.store.watch import note_connection

# Two processes that start at once must not migrate at once. Any fixed number will do.
MIGRATION_LOCK = 8_420_001


# A statement outside a transaction is one of its own; everything else opens one.
# Nothing a screen asks takes half a minute. Who waits for a lock waits for one writer, who may be solving for seconds.
STATEMENT_S, IDLE_S = 30, 120
LOCK_PATIENCES = 4


def bounds(patience_s: float) -> str:
    """Options of a connection: how long a statement, a wait for a lock and an open transaction may take."""
    lock_s = LOCK_PATIENCES * patience_s
    return (f"-c statement_timeout={max(STATEMENT_S, lock_s + 10):.0f}s -c lock_timeout={lock_s:.0f}s "
            f"-c idle_in_transaction_session_timeout={IDLE_S}s")  # fmt: skip


def _connection(patience_s: float) -> dict[str, Any]:
    return {
        "options": f"-c timezone=UTC {bounds(patience_s)}",
        "autocommit": True,
        "connect_timeout": 4,
        "keepalives_idle": 10,
        "keepalives_interval": 5,
        "keepalives_count": 3,
        "tcp_user_timeout": 5_000,
    }


# A connection used a moment ago is taken to live; one that rested is asked first, the server may have gone since.
RESTED_S = 1.0
_used_at: "WeakKeyDictionary[Conn | AsyncConn, float]" = WeakKeyDictionary()


def _note_use(conn: Conn | AsyncConn) -> None:
    _used_at[conn] = time.monotonic()


def _note_new(conn: Conn) -> None:
    note_connection(conn)


async def _note_async_new(conn: AsyncConn) -> None:
    note_connection(conn)


def _rested(conn: Conn | AsyncConn) -> bool:
    return time.monotonic() - _used_at.get(conn, 0.0) > RESTED_S


def _check_if_rested(conn: Conn) -> None:
    if _rested(conn):
        ConnectionPool.check_connection(conn)


async def _note_async_use(conn: AsyncConn) -> None:
    _note_use(conn)


async def _check_async_if_rested(conn: AsyncConn) -> None:
    if _rested(conn):
        await AsyncConnectionPool.check_connection(conn)


def async_pool(dsn: str, patience_s: float, largest: int = 6) -> AsyncConnectionPool[AsyncConn]:
    """Build the pool for readings that are appended without a thread; whoever runs the loop opens it."""
    return AsyncConnectionPool(
        dsn,
        min_size=1,
        max_size=largest,
        timeout=patience_s,
        kwargs=_connection(patience_s),
        configure=_note_async_new,
        check=_check_async_if_rested,
        reset=_note_async_use,
        open=False,
    )


def open_pool(dsn: str, patience_s: float, largest: int = 12) -> ConnectionPool[Connection[TupleRow]]:
    """Open a pool of connections; connections are made in the background, so a dead server does not stop the start."""
    return ConnectionPool(
        dsn,
        min_size=1,
        max_size=largest,
        timeout=patience_s,
        kwargs=_connection(patience_s),
        configure=_note_new,
        check=_check_if_rested,
        reset=_note_use,
        open=True,
    )


def migration_scripts() -> list[tuple[int, str]]:
    """Numbers and texts of all migrations, in order."""
    folder = files("vallostasis.store") / "migrations"
    scripts = sorted(entry.name for entry in folder.iterdir() if entry.name.endswith(".sql"))
    return [(int(name.split("_")[0]), (folder / name).read_text(encoding="utf-8")) for name in scripts]


def newest_schema() -> int:
    """Number of the newest migration that this version has."""
    return max(number for number, _ in migration_scripts())


class NotOurs(Exception):
    """A database that this version must not touch; the text says why, and what to do."""


def _tables(conn: Connection[TupleRow]) -> set[str]:
    rows = conn.execute("SELECT tablename FROM pg_tables WHERE schemaname = current_schema()")
    return {str(row[0]) for row in rows}


def is_empty(conn: Connection[TupleRow]) -> bool:
    """Whether a database holds no table at all."""
    return not _tables(conn)


def refuse_what_is_not_ours(conn: Connection[TupleRow]) -> None:
    """Raise NotOurs for a database with tables of something else, or of a newer version."""
    tables = _tables(conn)
    if tables and not {"schema_migration", "reading_set"} <= tables:
        raise NotOurs(
            "This database holds tables of something else: name another one by VALLO_DSN, or make an empty one."
        )
    newest = newest_schema()
    present = schema_version(conn) if tables else 0
    if present > newest:
        raise NotOurs(
            f"This database was made by a newer version (schema {present}, this one knows {newest}): start that one."
        )


def migrate(conn: Connection[TupleRow]) -> int:
    """Apply every migration that is not applied yet; return the schema version reached."""
    with conn.transaction():
        conn.execute("SELECT pg_advisory_xact_lock(%(lock)s)", {"lock": MIGRATION_LOCK})
        refuse_what_is_not_ours(conn)
        if not is_empty(conn) and schema_version(conn) == newest_schema():
            # Whoever serves a shop of several may read and add, and make no table.
            return newest_schema()
        conn.execute(
            """
            CREATE TABLE IF NOT EXISTS schema_migration (
                number      int PRIMARY KEY,
                applied_at  timestamptz NOT NULL DEFAULT now()
            )
            """
        )
        present = schema_version(conn)
        for number, script in migration_scripts():
            if number > present:
                conn.execute(script)
                conn.execute("INSERT INTO schema_migration (number) VALUES (%(number)s)", {"number": number})
                present = number
    return present


def schema_version(conn: Connection[TupleRow]) -> int:
    """Number of the newest migration applied."""
    row = conn.execute("SELECT coalesce(max(number), 0) FROM schema_migration").fetchone()
    return int(row[0]) if row else 0
