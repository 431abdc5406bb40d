"""Telling every running application what changed, through the database they share."""

import threading
from collections.abc import Callable
from uuid import UUID

import psycopg
from psycopg import sql

from vallostasis.store.rows import Conn, fetch_value

# Drawn for each shop when its schema is made: a name that nobody guesses.
CHANNEL = "(SELECT channel FROM change_channel)"
# How often a listener looks whether it is to stop, and how long it waits before it tries a lost database again. [s]
PATIENCE_S = 0.5


def announce(conn: Conn, job_id: UUID | None) -> None:
    """Tell all listeners, once this transaction is committed, that a job changed; None for what all jobs share."""
    conn.execute(f"SELECT pg_notify({CHANNEL}, %(what)s)", {"what": "" if job_id is None else str(job_id)})


def listen(dsn: str, heard: Callable[[UUID | None], None], lost: Callable[[], None], stopping: threading.Event) -> None:
    """Call ``heard`` for every change until told to stop, and ``lost`` while the database is away.

    Once it is back everything may have changed.
    """
    while not stopping.is_set():
        try:
            with psycopg.connect(dsn, autocommit=True) as conn:
                channel = fetch_value(conn, f"SELECT {CHANNEL}")
                conn.execute(sql.SQL("LISTEN {}").format(sql.Identifier(channel)))
                heard(None)
                while not stopping.is_set():
                    for notice in conn.notifies(timeout=PATIENCE_S):
                        heard(UUID(notice.payload) if notice.payload else None)
        except psycopg.Error:
            lost()
            stopping.wait(PATIENCE_S)
