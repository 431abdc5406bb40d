"""Killed without mercy while readings stream in: every acknowledged one is kept, none is there twice."""

import multiprocessing
import random
import signal
import threading
import time
from collections.abc import Iterator
from dataclasses import dataclass, field
from multiprocessing.process import BaseProcess
from pathlib import Path
from typing import Any
from uuid import uuid4

import httpx2
import psycopg
import pytest

from tests.conftest import kill_and_wait
from tests.deep import DEEP
from tests.ports import free_ports
from vallostasis.core.records.cut_runs import CHECKS
from vallostasis.machine.postgres import MachineError, PrivateCluster
from vallostasis.machine.serving import Server
from vallostasis.main import create_app
from vallostasis.services.backups import bring_back, make_backup
from vallostasis.settings import Settings

SEED = 20_251
APP_KILLS, DATABASE_KILLS = (30, 10) if DEEP else (4, 2)
# A kill comes after so many more acknowledgements, at random, while both benches have a request under way.
MOST_BETWEEN_KILLS = 5
BENCHES = 2
PATIENCE_SECONDS = 120
# As the application has it for a user.
PATIENCE_OF_APP_S = 5.0
ASK_AGAIN_SECONDS = 0.02

# A process that has read the application's code already starts each of its forty lives in no time.
LIVES = multiprocessing.get_context("forkserver")
LIVES.set_forkserver_preload(["tests.machine.test_kills", "vallostasis.main", "vallostasis.machine.serving"])


def serve(dsn: str, port: int) -> None:
    """One life of the application, in a process of its own."""
    Server(
        create_app(Settings(dsn=dsn, database_patience_s=PATIENCE_OF_APP_S)),
        host="127.0.0.1",
        port=port,
        log_level="critical",
    ).run()


@dataclass
class Machine:
    """A durable database and the application as a process of its own, both at ports that stay the same."""

    cluster: PrivateCluster
    dsn: str
    port: int
    process: BaseProcess | None = None

    def start_app(self) -> None:
        self.process = LIVES.Process(target=serve, args=(self.dsn, self.port), daemon=True)
        self.process.start()

    def kill_app(self) -> None:
        assert self.process is not None
        self.process.kill()
        self.process.join(PATIENCE_SECONDS)
        assert self.process.exitcode == -signal.SIGKILL

    def kill_database(self) -> None:
        kill_and_wait(int((self.cluster.data / "postmaster.pid").read_text().splitlines()[0]))

    def start_database(self) -> None:
        """Start it at its port again, once the last of the old server's processes is gone."""
        port = int(psycopg.conninfo.conninfo_to_dict(self.dsn)["port"] or 0)
        deadline = time.monotonic() + PATIENCE_SECONDS
        while True:
            try:
                self.cluster.start(port)
                return
            except MachineError:
                if time.monotonic() > deadline:
                    raise


@dataclass
class Benches:
    """People who send reading after reading, each again and again under its own id until it is acknowledged."""

    machine: Machine
    job_id: str
    person_id: str
    acknowledged: list[str] = field(default_factory=list)
    passes: list[str] = field(default_factory=list)
    stopping: threading.Event = field(default_factory=threading.Event)
    changed: threading.Condition = field(default_factory=threading.Condition)
    refused: list[str] = field(default_factory=list)

    def run(self, hole: int) -> None:
        with httpx2.Client(timeout=10) as client:
            while not self.stopping.is_set():
                self._send_until_acknowledged(client, hole)

    def cut(self, hole_id: str, run_id: str) -> None:
        """End pass after pass of a run, each tap under its own id until it is acknowledged."""
        number = 0
        with httpx2.Client(timeout=10) as client:
            while not self.stopping.is_set():
                number += 1
                body = {"pass_id": str(uuid4()), "number": number, "person_id": self.person_id}
                if self._post_until_acknowledged(client, f"holes/{hole_id}/cut-runs/{run_id}/passes", body):
                    self.passes.append(body["pass_id"])

    def _send_until_acknowledged(self, client: httpx2.Client, hole: int) -> None:
        reading_id = str(uuid4())
        body: dict[str, Any] = {
            "reading_id": reading_id, "quantity": "protrusion", "hole": hole, "hour": 6, "text": "8.6",
            "bare_unit": "0.01 mm", "confirmed": True, "read_before": "repeat", "person_id": self.person_id,
        }  # fmt: skip
        if not self._post_until_acknowledged(client, f"jobs/{self.job_id}/readings", body):
            return
        with self.changed:
            self.acknowledged.append(reading_id)
            self.changed.notify_all()

    def _post_until_acknowledged(self, client: httpx2.Client, path: str, body: dict[str, Any]) -> bool:
        url = f"http://127.0.0.1:{self.machine.port}/api/{path}"
        while True:
            try:
                status = client.post(url, json=body).status_code
            except httpx2.TransportError:
                status = 503
            if status == 201:
                return True
            if status != 503:
                self.refused.append(f"{status} {path}")
                return False
            # Asking without a pause would take the processor that the next life starts on.
            self.stopping.wait(ASK_AGAIN_SECONDS)

    def wait_for_more(self, count: int) -> None:
        with self.changed:
            aim = len(self.acknowledged) + count
            assert self.changed.wait_for(lambda: len(self.acknowledged) >= aim, PATIENCE_SECONDS)


@pytest.fixture
def machine(demo_folder: Path) -> Iterator[Machine]:
    cluster = PrivateCluster(demo_folder)
    machine = Machine(cluster, cluster.start(), free_ports())
    machine.start_app()
    yield machine
    machine.kill_app()
    cluster.stop()


def _begin_deep_run(machine: Machine, job_id: str, person_id: str) -> tuple[str, str]:
    """A run with more passes than the kills leave time for."""
    base, run_id = f"http://127.0.0.1:{machine.port}/api", str(uuid4())
    deadline = time.monotonic() + PATIENCE_SECONDS
    with httpx2.Client(timeout=10) as client:
        while True:
            try:
                block = client.get(f"{base}/jobs/{job_id}/block").json()
                break
            except httpx2.TransportError:
                assert time.monotonic() < deadline
                threading.Event().wait(ASK_AGAIN_SECONDS)
        hole_id = next(hole["hole_id"] for hole in block["holes"] if hole["number"] == 5)
        who = {"person_id": person_id}
        run = {"run_id": run_id, "depth": "50 mm", "shim": "0.5 mm", "hold_reason": "a test", **who}
        assert client.post(f"{base}/holes/{hole_id}/cut-runs", json=run).status_code == 201
        for kind in CHECKS:
            mark = {"run_mark_id": str(uuid4()), "kind": kind, **who}
            assert client.post(f"{base}/holes/{hole_id}/cut-runs/{run_id}/marks", json=mark).status_code == 201
    return hole_id, run_id


def _readings_in(backup: Path, folder: Path) -> set[str]:
    """What a backup holds, brought back on another machine."""
    cluster = PrivateCluster(folder / "elsewhere", durable=False)
    try:
        dsn = cluster.start()
        bring_back(dsn, backup, folder)
        with psycopg.connect(dsn) as conn:
            return {str(row[0]) for row in conn.execute("SELECT reading_id FROM reading")}
    finally:
        cluster.stop()


def test_every_acknowledged_reading_survives_and_none_is_doubled(machine: Machine, folder: Path) -> None:
    with psycopg.connect(machine.dsn) as conn:
        job = conn.execute("SELECT job_id FROM job WHERE number = '26-031'").fetchone()
        person = conn.execute("SELECT person_id FROM person LIMIT 1").fetchone()
        before = {str(row[0]) for row in conn.execute("SELECT reading_id FROM reading")}
    assert job is not None
    assert person is not None
    benches = Benches(machine, str(job[0]), str(person[0]))
    hole_id, run_id = _begin_deep_run(machine, str(job[0]), str(person[0]))
    threads = [threading.Thread(target=benches.run, args=(hole,), daemon=True) for hole in range(1, BENCHES + 1)]
    threads.append(threading.Thread(target=benches.cut, args=(hole_id, run_id), daemon=True))
    for thread in threads:
        thread.start()
    chance = random.Random(SEED)
    kills = ["app"] * APP_KILLS + ["database"] * DATABASE_KILLS
    chance.shuffle(kills)
    backed_up = acknowledged_by_then = None
    for number, kill in enumerate(kills):
        if number == len(kills) // 2:
            # In the middle of it, while both benches go on.
            acknowledged_by_then = set(benches.acknowledged)
            backed_up = folder / "middle.vallo-backup"
            make_backup(machine.dsn, backed_up)
        benches.wait_for_more(chance.randint(1, MOST_BETWEEN_KILLS))
        if kill == "app":
            machine.kill_app()
            machine.start_app()
        else:
            machine.kill_database()
            machine.start_database()
    benches.wait_for_more(BENCHES * 2)
    benches.stopping.set()
    for thread in threads:
        thread.join(PATIENCE_SECONDS)
    assert benches.refused == []
    with psycopg.connect(machine.dsn) as conn:
        kept = [str(row[0]) for row in conn.execute("SELECT reading_id FROM reading")]
        counted = conn.execute(
            "SELECT pass_id, number FROM run_pass WHERE run_id = %(run)s ORDER BY event", {"run": run_id}
        ).fetchall()
    # The count is what was acknowledged: no pass is lost, and none is there twice.
    assert [str(row[0]) for row in counted] == benches.passes
    assert [row[1] for row in counted] == list(range(1, len(benches.passes) + 1))
    assert len(benches.passes) >= APP_KILLS
    new = [reading_id for reading_id in kept if reading_id not in before]
    assert sorted(new) == sorted(benches.acknowledged)
    assert backed_up is not None
    assert acknowledged_by_then is not None
    brought_back = _readings_in(backed_up, folder)
    assert before | acknowledged_by_then <= brought_back <= set(kept)
