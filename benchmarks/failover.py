"""Three applications on a database with a replica: the primary is killed while readings stream in.

Run by itself: ``.vallo/venv/bin/python -m benchmarks.failover``. It needs nothing but loopback, and leaves nothing.
"""

import contextlib
import os
import signal
import tempfile
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any
from uuid import uuid4

import httpx2
import psycopg

from benchmarks.workshop import served_apart
from vallostasis.machine.postgres import PrivateCluster
from vallostasis.machine.replica import READS_ONLY, TAKES_READINGS, Replica, of_both
from vallostasis.services.demo_loading import load_demo
from vallostasis.store.database import migrate

PROCESSES = 3
BEFORE, AFTER = 40, 40
WITHIN_S = 15.0
PATIENCE_S = 120.0
PAUSE_S = 0.05


@dataclass
class Capture:
    """Benches that send reading after reading to any of the processes, each until it is acknowledged."""

    ports: list[int]
    job_id: str
    person_id: str
    acknowledged: list[tuple[float, str]] = field(default_factory=list)
    said: set[str] = field(default_factory=set)
    stopping: threading.Event = field(default_factory=threading.Event)
    changed: threading.Condition = field(default_factory=threading.Condition)

    def run(self, bench: int) -> None:
        """Send until told to stop; each try goes to the next process, as a proxy would send it."""
        turn = bench
        with httpx2.Client(timeout=10) as client:
            while not self.stopping.is_set():
                body: dict[str, Any] = {
                    "reading_id": str(uuid4()), "quantity": "protrusion", "hole": bench + 1, "hour": 6, "text": "8.6",
                    "bare_unit": "0.01 mm", "confirmed": True, "read_before": "repeat", "person_id": self.person_id,
                }  # fmt: skip
                while not self.stopping.is_set():
                    turn += 1
                    if self._sent(client, self.ports[turn % len(self.ports)], body):
                        break
                    self.stopping.wait(PAUSE_S)

    def _sent(self, client: httpx2.Client, port: int, body: dict[str, Any]) -> bool:
        try:
            answer = client.post(f"http://127.0.0.1:{port}/api/jobs/{self.job_id}/readings", json=body)
        except httpx2.TransportError:
            return False
        if answer.status_code != 201:
            with self.changed:
                self.said.add(f"{answer.status_code} {answer.json()['message']}")
            return False
        with self.changed:
            self.acknowledged.append((time.monotonic(), body["reading_id"]))
            self.changed.notify_all()
        return True

    def wait_for_more(self, count: int) -> None:
        """Wait until so many more are acknowledged."""
        with self.changed:
            aim = len(self.acknowledged) + count
            if not self.changed.wait_for(lambda: len(self.acknowledged) >= aim, PATIENCE_S):
                raise TimeoutError(f"{len(self.acknowledged)} of {aim} acknowledged; said: {self.said}")


@dataclass(frozen=True)
class Outcome:
    """What came of it: acknowledged and lost or doubled readings, how long nothing was taken, what was said then."""

    acknowledged: int
    lost: int
    doubled: int
    writes_again_s: float
    said: tuple[str, ...]
    floor_from_replica: bool


def drill(primary: PrivateCluster, replica: Replica, before: int = BEFORE, after: int = AFTER) -> Outcome:
    """Kill a primary that holds the demo under capture, let its replica take over, and count."""
    first = primary.start()
    with contextlib.ExitStack() as stack:
        stack.callback(replica.stop)
        second = replica.follow(primary, first)
        takes, reads = of_both(first, second, TAKES_READINGS), of_both(first, second, READS_ONLY)
        ports = [stack.enter_context(served_apart(takes, reads)).port for _ in range(PROCESSES)]
        with psycopg.connect(second) as conn:
            job = str(conn.execute("SELECT job_id FROM job WHERE number = '26-031'").fetchone()[0])  # type: ignore[index]
            person = str(conn.execute("SELECT person_id FROM person LIMIT 1").fetchone()[0])  # type: ignore[index]
            asked = _floor_asks(conn, ports[0])
        capture = Capture(ports, job, person)
        benches = [threading.Thread(target=capture.run, args=(at,)) for at in range(PROCESSES)]
        for bench in benches:
            bench.start()
        try:
            capture.wait_for_more(before)
            os.kill(int((primary.data / "postmaster.pid").read_text().splitlines()[0]), signal.SIGKILL)
            killed_at = time.monotonic()
            replica.take_over()
            capture.wait_for_more(after)
        finally:
            capture.stopping.set()
            for bench in benches:
                bench.join()
        with psycopg.connect(second) as conn:
            kept = [str(row[0]) for row in conn.execute("SELECT reading_id FROM reading")]
    acknowledged = [one for _, one in capture.acknowledged]
    again = next(at for at, _ in capture.acknowledged if at > killed_at)
    return Outcome(len(acknowledged), len(set(acknowledged) - set(kept)), len(kept) - len(set(kept)),
                   again - killed_at, tuple(sorted(capture.said)), asked)  # fmt: skip


def _floor_asks(at_replica: psycopg.Connection[Any], port: int) -> bool:
    """Whether the floor is read where nothing can be written."""

    def asked() -> int:
        at_replica.rollback()
        row = at_replica.execute("SELECT pg_stat_get_db_xact_commit(oid) FROM pg_database WHERE datname = 'postgres'")
        return int((row.fetchone() or (0,))[0])

    before = asked()
    for _ in range(20):
        httpx2.get(f"http://127.0.0.1:{port}/api/jobs", timeout=30).raise_for_status()
    deadline = time.monotonic() + 10
    while asked() < before + 20 and time.monotonic() < deadline:
        time.sleep(0.2)
    return asked() >= before + 20


def main() -> None:
    """Do it once, and say what came of it."""
    with tempfile.TemporaryDirectory(prefix="vallo-failover-", dir="/tmp", ignore_cleanup_errors=True) as name:
        Path(name).chmod(0o755)
        primary = PrivateCluster(Path(name) / "primary")
        try:
            with psycopg.connect(primary.start()) as conn:
                migrate(conn)
                load_demo(conn)
            found = drill(primary, Replica(Path(name) / "replica"))
        finally:
            primary.stop()
    print(f"{PROCESSES} processes, one replica, the primary killed under capture")
    print(f"  acknowledged {found.acknowledged}, lost {found.lost}, doubled {found.doubled}")
    print(f"  writing again after {found.writes_again_s:.1f} s (at most {WITHIN_S:g} s)")
    print(f"  floor read from the replica: {'yes' if found.floor_from_replica else 'no'}")
    for words in found.said:
        print(f"  said meanwhile: {words}")


if __name__ == "__main__":
    main()
