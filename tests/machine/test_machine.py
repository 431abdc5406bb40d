"""The launcher on this machine: a private PostgreSQL that starts, stops and keeps what was acknowledged."""

import contextlib
import os
import re
import signal
import socket
import subprocess
import sys
import time
from pathlib import Path
from typing import Any
from uuid import uuid4

import httpx2
import psycopg
import pytest

from tests.conftest import kill_and_wait
from tests.machine.conftest import START_SECONDS, start_demo, wait_for
from tests.ports import free_ports
from vallostasis.machine import client, packages
from vallostasis.machine.postgres import MachineError, PrivateCluster, only_one, server_programs
from vallostasis.store.database import migration_scripts

ASK_AGAIN_SECONDS = 0.1


def test_a_cluster_keeps_what_was_written_and_survives_being_killed(folder: Path) -> None:
    cluster = PrivateCluster(folder)
    with psycopg.connect(cluster.start()) as conn:
        conn.execute("CREATE TABLE kept (value int)")
        conn.execute("INSERT INTO kept VALUES (5)")
    kill_and_wait(int((cluster.data / "postmaster.pid").read_text().splitlines()[0]))
    try:
        with psycopg.connect(PrivateCluster(folder).start()) as conn:
            assert conn.execute("SELECT value FROM kept").fetchone() == (5,)
    finally:
        cluster.stop()
    assert cluster._running_port() is None


def test_starting_twice_finds_the_running_server(folder: Path) -> None:
    cluster = PrivateCluster(folder, durable=False)
    try:
        assert cluster.start() == PrivateCluster(folder, durable=False).start()
    finally:
        cluster.stop()


def test_a_cluster_wants_a_password_and_listens_on_loopback_only(folder: Path) -> None:
    cluster = PrivateCluster(folder, durable=False)
    try:
        dsn = cluster.start()
        with psycopg.connect(dsn) as conn:
            assert conn.execute("SHOW listen_addresses").fetchone() == ("127.0.0.1",)
        with pytest.raises(psycopg.OperationalError, match="password"):
            psycopg.connect(re.sub(r"password=\S+", "password=guess", dsn))
    finally:
        cluster.stop()


def test_a_data_folder_serves_one_at_a_time(folder: Path) -> None:
    with only_one(folder), pytest.raises(MachineError, match=r"Another \./vallo uses"), only_one(folder):
        pass
    with only_one(folder):
        pass


def test_what_is_missing_is_named_with_the_command_that_brings_it(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(os, "geteuid", lambda: 1000)
    with pytest.raises(MachineError, match=r"Missing: no-such-package.*apt-get install no-such-package"):
        packages.ensure_debian_packages({"no-such-package": "/no/such/file"})
    packages.ensure_debian_packages({"bash": "/bin/bash"})


def test_a_step_that_fails_shows_the_end_of_what_it_said() -> None:
    with pytest.raises(MachineError, match="trying failed:\nbecause"):
        packages.run([sys.executable, "-c", "print('because'); raise SystemExit(3)"], "trying")


def test_the_newest_server_is_found() -> None:
    assert (server_programs() / "initdb").exists()


def test_a_stale_client_is_found_file_by_file(tmp_path: Path) -> None:
    for name, text in (("a", "same"), ("b", "same"), ("a", "same")):
        (tmp_path / name).mkdir(exist_ok=True)
        (tmp_path / name / "one.ts").write_text(text)
    assert client.differing_files(tmp_path / "a", tmp_path / "b") == []
    (tmp_path / "a" / "one.ts").write_text("changed")
    (tmp_path / "b" / "two.ts").write_text("left over")
    assert client.differing_files(tmp_path / "a", tmp_path / "b") == ["one.ts", "two.ts"]


def _health(port: int) -> dict[str, object]:
    health: dict[str, object] = httpx2.get(f"http://127.0.0.1:{port}/healthz", timeout=START_SECONDS).json()
    return health


def _postgres_runs(folder: Path) -> bool:
    return PrivateCluster(folder)._running_port() is not None


def _twin(port: int) -> str:
    """Address of the job whose second hole is honed."""
    job = next(strip["job"]["job_id"] for strip in _jobs(port) if strip["job"]["name"] == "Narrow-boat Brindle")
    return f"http://127.0.0.1:{port}/api/jobs/{job}"


def _hone_a_round(port: int) -> str:
    """A round of the hone, begun and stopped after 17 double strokes; returns its id."""
    people = httpx2.get(f"http://127.0.0.1:{port}/api/people", timeout=START_SECONDS).json()
    round_id, who = str(uuid4()), {"person_id": people[0]["person_id"]}
    rounds = _twin(port) + "/honing/2/rounds"
    begun = {"round_id": round_id, "stage": "fine", "hold_reason": "a test", **who}
    assert httpx2.post(rounds, json=begun, timeout=START_SECONDS).status_code == 201
    stop = {"hone_mark_id": str(uuid4()), "strokes": 17, **who}
    assert httpx2.post(f"{rounds}/{round_id}/stop", json=stop, timeout=START_SECONDS).status_code == 201
    return round_id


def _jobs(port: int) -> list[dict[str, Any]]:
    jobs: list[dict[str, Any]] = httpx2.get(f"http://127.0.0.1:{port}/api/jobs", timeout=START_SECONDS).json()
    return jobs


def test_it_serves_through_kills_of_database_and_application_and_stops_with_its_database(demo_folder: Path) -> None:
    """One machine from its first start to its last stop: each start of it costs as much as all that is asked."""
    port = free_ports()
    process = start_demo(demo_folder, port)
    wait_for(port, process)
    health = _health(port)
    assert (health["database"], health["schema_version"]) == ("up", len(migration_scripts()))
    assert [strip["job"]["name"] for strip in _jobs(port)] == [
        "Ferry Lanthorn",
        "Ferry Lanthorn, starboard",
        "Sawmill Hauler",
        "Pump No. 4",
        "Narrow-boat Quillet",
        "Winding Engine Hob",
        "Narrow-boat Brindle",
        "Hill Tractor Marram",
        "Hill Tractor Sedge",
        "Winding Engine Tamsin",
    ]
    _kill_database_and_wait(demo_folder, port, process)
    round_id = _hone_a_round(port)
    first = _jobs(port)
    process.kill()
    process.communicate()
    again = start_demo(demo_folder, port)
    wait_for(port, again)
    assert _jobs(port) == first
    # Killed between a round and its reading: the round and its strokes stand, and the bore is to be read.
    honed = httpx2.get(_twin(port) + "/honing/2", timeout=START_SECONDS).json()
    assert (honed["made"][-1]["round_id"], honed["made"][-1]["strokes"]) == (round_id, 17)
    assert honed["state"] == "measure"
    _stop(demo_folder, port, again, signal.SIGINT)


def _kill_database_and_wait(folder: Path, port: int, process: subprocess.Popen[str]) -> None:
    """Kill the database under a demo, which brings it back and finds its lost connections by itself."""
    kill_and_wait(int((folder / "pg" / "postmaster.pid").read_text().splitlines()[0]))
    # It may be back before anybody asks.
    deadline = time.monotonic() + START_SECONDS
    while _health(port)["database"] != "up" and time.monotonic() < deadline:
        with contextlib.suppress(subprocess.TimeoutExpired):
            process.wait(ASK_AGAIN_SECONDS)
    assert _health(port)["database"] == "up"


def _stop(folder: Path, port: int, process: subprocess.Popen[str], how: signal.Signals) -> None:
    link = httpx2.get(f"http://127.0.0.1:{port}/api/gauge-links", timeout=START_SECONDS).json()[0]
    gauge_port = int(link["url"].rpartition(":")[2])
    process.send_signal(how)
    said, _ = process.communicate(timeout=START_SECONDS)
    assert process.returncode == 0, said
    assert "Traceback" not in said
    assert not _postgres_runs(folder)
    with pytest.raises(ConnectionRefusedError, match="refused"):
        socket.create_connection(("127.0.0.1", gauge_port))


def test_a_taken_port_is_said_and_nothing_is_started(folder: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        process = start_demo(folder, taken.getsockname()[1])
        said, _ = process.communicate(timeout=START_SECONDS)
    assert process.returncode == 1
    assert "is taken: stop what uses it, or choose another with --port" in said
    assert not folder.exists()


def test_any_other_postgresql_can_be_used(folder: Path, demo_dsn: str) -> None:
    port = free_ports()
    process = start_demo(folder, port, VALLO_DSN=demo_dsn)
    wait_for(port, process)
    process.terminate()
    process.communicate(timeout=START_SECONDS)
    assert not folder.exists()
    with psycopg.connect(demo_dsn) as conn:
        assert conn.execute("SELECT name FROM job").fetchone() == ("Ferry Lanthorn",)
    away = start_demo(folder, port, VALLO_DSN="host=127.0.0.1 port=1 connect_timeout=1")
    said, _ = away.communicate(timeout=START_SECONDS)
    assert away.returncode == 1
    assert "The database cannot be reached" in said
