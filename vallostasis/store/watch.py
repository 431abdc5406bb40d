"""How the database stands, asked every second; where it stalls, whoever waits for it is let go.

A server that is stopped in its tracks answers nothing and hangs up on nobody: a request would wait for it for ever. So
one connection asks it all the time, and where no answer comes, the sockets of all others are shut.
"""

import contextlib
import os
import socket
import threading
import weakref
from collections.abc import Callable
from enum import StrEnum

import psycopg

from vallostasis.store.rows import AsyncConn, Conn

ASK_EVERY_S = 1.0
# An answer to nothing at all may take this share of a request's patience before the server is taken to have stalled:
# whoever waits is told within his patience. A machine that does something else besides has a longer one.
SHARE_OF_PATIENCE = 0.5


class Standing(StrEnum):
    """How the database stands."""

    UP = "up"
    BUSY = "busy"
    FULL = "full"
    STOPPED = "stopped"
    UNREACHABLE = "unreachable"


# PostgreSQL's manual, appendix A: disk full; a query canceled, a lock not to be had; classes 53 and 57.
_DISK_FULL = "53100"
_BUSY = ("57014", "55P03")
_SHORT_OF_SOMETHING = "53"
_SOMEBODY_INTERVENED = "57"


def standing_of(error: BaseException) -> Standing:
    """Tell from an error what is the matter with the database."""
    code = getattr(error, "sqlstate", None) or ""
    if code == _DISK_FULL:
        return Standing.FULL
    if code in _BUSY or code.startswith(_SHORT_OF_SOMETHING):
        return Standing.BUSY
    if code.startswith(_SOMEBODY_INTERVENED):
        return Standing.STOPPED
    words = str(error).casefold()
    if "no space left" in words:
        return Standing.FULL
    if "connection refused" in words or "starting up" in words or "shutting down" in words:
        return Standing.STOPPED
    return Standing.UNREACHABLE


_open: "weakref.WeakSet[Conn | AsyncConn]" = weakref.WeakSet()
_lock = threading.Lock()


def note_connection(conn: Conn | AsyncConn) -> None:
    """Let a connection go where its server stalls."""
    with _lock:
        _open.add(conn)


def _let_go(dsn_of: str) -> None:
    """Shut the sockets of all connections to a server: whoever waits on one is told that it is lost."""
    with _lock:
        waiting = list(_open)
    for conn in waiting:
        with contextlib.suppress(psycopg.Error, OSError, ValueError):
            if _where(conn.info.dsn) == dsn_of:
                _shut(conn.fileno())


def _shut(descriptor: int) -> None:
    with socket.socket(fileno=os.dup(descriptor)) as same:
        same.shutdown(socket.SHUT_RDWR)


def _where(dsn: str) -> str:
    named = psycopg.conninfo.conninfo_to_dict(dsn)
    return f"{named.get('host')}:{named.get('port')}/{named.get('dbname')}"


class DatabaseWatch:
    """Asks the database every second, in a thread of its own."""

    def __init__(self, dsn: str, patience_s: float) -> None:
        self._dsn = dsn
        self._patience_s = SHARE_OF_PATIENCE * patience_s
        self._standing = Standing.UP
        self._stopping = threading.Event()
        self._answered = threading.Event()
        self._asks = threading.Thread(target=self._ask, name="database watch", daemon=True)
        self._looks = threading.Thread(target=self._look, name="database patience", daemon=True)
        self._descriptor: int | None = None

    @property
    def standing(self) -> Standing:
        """How it stood when it was asked last."""
        return self._standing

    def open(self) -> None:
        """Begin to ask."""
        self._asks.start()
        self._looks.start()

    def close(self) -> None:
        """Ask no more."""
        self._stopping.set()
        self._answered.set()

    def _ask(self) -> None:
        while not self._stopping.is_set():
            try:
                with psycopg.connect(self._dsn, autocommit=True, connect_timeout=2) as conn:
                    self._descriptor = conn.fileno()
                    self._keep_asking(conn.execute)
            except (psycopg.Error, OSError) as error:
                self._standing = standing_of(error)
                self._answered.set()
            finally:
                self._descriptor = None
            self._stopping.wait(ASK_EVERY_S)

    def _keep_asking(self, ask: Callable[[str], object]) -> None:
        while not self._stopping.is_set():
            ask("SELECT 1")
            self._standing = Standing.UP
            self._answered.set()
            self._stopping.wait(ASK_EVERY_S)

    def _look(self) -> None:
        """Where no answer comes in time, let go whoever waits, the one that asks too."""
        while not self._stopping.is_set():
            if self._answered.wait(self._patience_s + ASK_EVERY_S):
                self._answered.clear()
                continue
            if self._stopping.is_set():
                return
            self._standing = Standing.UNREACHABLE
            _let_go(_where(self._dsn))
            if (descriptor := self._descriptor) is not None:
                with contextlib.suppress(OSError):
                    _shut(descriptor)
