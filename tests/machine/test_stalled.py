"""A database that is stopped in its tracks, or in somebody's way: told apart, and nobody waits for ever."""

import os
import signal
from collections.abc import Iterator
from pathlib import Path

import psycopg
import pytest
from fastapi.testclient import TestClient

from tests.conftest import at_this_machine
from vallostasis.api.errors import STANDING_WORDS
from vallostasis.machine.postgres import PrivateCluster
from vallostasis.settings import Settings
from vallostasis.store.database import bounds, migrate
from vallostasis.store.watch import Standing, standing_of


@pytest.fixture
def cluster(folder: Path) -> Iterator[tuple[PrivateCluster, str]]:
    """A database of its own, which may be stopped."""
    own = PrivateCluster(folder, durable=False)
    dsn = own.start()
    with psycopg.connect(dsn) as conn:
        migrate(conn)
    try:
        yield own, dsn
    finally:
        own.stop()


def _processes(own: PrivateCluster) -> list[int]:
    """The server and every process of it."""
    server = int((own.data / "postmaster.pid").read_text().splitlines()[0])
    children = Path(f"/proc/{server}/task/{server}/children").read_text().split()
    return [server, *map(int, children)]


def _send(own: PrivateCluster, what: signal.Signals) -> None:
    for process in _processes(own):
        os.kill(process, what)


def _health(client: TestClient) -> str:
    return str(client.get("/healthz").json()["database"])


def test_a_stalled_server_answers_503_and_serves_again(cluster: tuple[PrivateCluster, str]) -> None:
    own, dsn = cluster
    with at_this_machine(Settings(dsn=dsn, database_patience_s=4)) as client:
        assert client.get("/api/jobs").status_code == 200
        _send(own, signal.SIGSTOP)
        try:
            # A connection of the pool that answered a moment ago hangs; without the watch this would never return.
            stalled = client.get("/api/jobs")
            assert stalled.status_code == 503
            assert stalled.json()["message"] == STANDING_WORDS[Standing.UNREACHABLE]
            posted = client.post("/api/people", json={"name": "Ada"})
            assert (posted.status_code, posted.json()["code"]) == (503, "unavailable")
            assert _health(client) == Standing.UNREACHABLE
        finally:
            _send(own, signal.SIGCONT)
        while _health(client) != Standing.UP:
            pass
        assert client.post("/api/people", json={"name": "Ada"}).status_code == 201


def test_a_stopped_server_and_one_that_is_in_the_way_have_words_of_their_own(
    cluster: tuple[PrivateCluster, str],
) -> None:
    own, dsn = cluster
    with at_this_machine(Settings(dsn=dsn, database_patience_s=1)) as client:
        with psycopg.connect(dsn) as other:
            other.execute("LOCK TABLE person IN ACCESS EXCLUSIVE MODE")
            busy = client.get("/api/people")
        assert busy.json()["message"] == STANDING_WORDS[Standing.BUSY]
        own.stop()
        assert client.get("/api/people").json()["message"] in (
            STANDING_WORDS[Standing.STOPPED],
            # The first to find out holds a connection that was lost without a word.
            STANDING_WORDS[Standing.UNREACHABLE],
        )
        while _health(client) != Standing.STOPPED:
            pass
        assert client.get("/api/people").json()["message"] == STANDING_WORDS[Standing.STOPPED]


@pytest.mark.parametrize(
    ("error", "standing"),
    [
        # Names of the states are those of PostgreSQL's manual, appendix A: 53100, 57014, 55P03, 57P01, 57P03.
        (psycopg.errors.DiskFull("could not extend file"), Standing.FULL),
        (psycopg.errors.QueryCanceled("canceling statement due to statement timeout"), Standing.BUSY),
        (psycopg.errors.LockNotAvailable("lock timeout"), Standing.BUSY),
        (psycopg.errors.TooManyConnections("too many clients already"), Standing.BUSY),
        (psycopg.errors.AdminShutdown("terminating connection"), Standing.STOPPED),
        (psycopg.errors.CannotConnectNow("the database system is starting up"), Standing.STOPPED),
        (psycopg.OperationalError("connection refused"), Standing.STOPPED),
        (psycopg.OperationalError("could not write: No space left on device"), Standing.FULL),
        (psycopg.OperationalError("server closed the connection unexpectedly"), Standing.UNREACHABLE),
    ],
)
def test_what_is_the_matter_is_told_from_the_error(error: psycopg.Error, standing: Standing) -> None:
    assert standing_of(error) is standing
    assert len(set(STANDING_WORDS.values())) == len(Standing)


def test_every_statement_has_its_bounds(cluster: tuple[PrivateCluster, str]) -> None:
    _, dsn = cluster
    with psycopg.connect(dsn, options=bounds(5.0)) as conn:
        settings = dict(conn.execute("SELECT name, setting FROM pg_settings WHERE name LIKE '%timeout'").fetchall())
    assert (settings["statement_timeout"], settings["lock_timeout"]) == ("30000", "20000")
    assert settings["idle_in_transaction_session_timeout"] == "120000"
