"""Appending a reading at 1, 8 and 32 benches, against an empty endpoint of the same server plus a bare insert.

The server is a process of its own on a durable PostgreSQL; every bench is a thread with a connection of its own
that sends one reading after the other to its own job. What is compared runs turn and turn about.
"""

import http.client
import itertools
import json
import threading
import time
from collections.abc import Callable
from statistics import median, quantiles
from typing import Any
from uuid import uuid4

import psycopg

from benchmarks.workshop import HOLES_OF_A_BENCH, Served, bench_jobs, database, figure, served_apart

BENCHES = (1, 8, 32)
AIM_AT = 8
AIM = 1.5
# So many of each kind are timed, in so many turns.
EACH = 480
TURNS = 4

INSERT = """
    INSERT INTO reading (reading_id, reading_set_id, hour, value_um, typed, typed_unit, taken_by)
    VALUES (%(reading_id)s, %(reading_set_id)s, 6, 85, '8.5', '0.01 mm', %(taken_by)s)
"""


def run() -> dict[str, dict[str, Any]]:
    figures: dict[str, dict[str, Any]] = {}
    with database(durable=True) as dsn:
        jobs = bench_jobs(dsn, max(BENCHES))
        with served_apart(dsn) as server:
            for benches in BENCHES:
                figures.update(_at(benches, server, dsn, jobs))
    return figures


def _at(benches: int, server: Served, dsn: str, jobs: list[dict[str, str]]) -> dict[str, dict[str, Any]]:
    kinds: dict[str, Callable[[int], Callable[[], None]]] = {
        "append": lambda bench: _appends(server, jobs[bench]),
        "empty": lambda _: _empties(server),
        "insert": lambda bench: _inserts(dsn, jobs[bench]),
    }
    times: dict[str, list[float]] = {kind: [] for kind in kinds}
    workers = {kind: [make(bench) for bench in range(benches)] for kind, make in kinds.items()}
    for _ in range(TURNS):
        for kind in kinds:
            times[kind] += _together(workers[kind], EACH // TURNS // benches)
    p50 = {kind: 1000 * median(taken) for kind, taken in times.items()}
    p95 = 1000 * quantiles(times["append"], n=20)[-1]
    ratio = p50["append"] / (p50["empty"] + p50["insert"])
    what = f"{benches} bench{'es' if benches > 1 else ''}"
    aimed = benches == AIM_AT
    return {
        f"append at {what}, p50": figure(p50["append"], "ms"),
        f"append at {what}, p95": figure(p95, "ms"),
        f"append at {what} / (empty + bare insert)": figure(ratio, "×", AIM if aimed else None, digits=2),
        f"append at {what} / bare insert": figure(p50["append"] / p50["insert"], "×", digits=2),
    }


def _together(workers: list[Callable[[], None]], count: int) -> list[float]:
    """Let all benches work at once; how long each piece of work took. [s]"""
    times: list[float] = []
    start = threading.Barrier(len(workers))

    def work(once: Callable[[], None]) -> None:
        start.wait()
        for _ in range(count):
            began = time.perf_counter()
            once()
            times.append(time.perf_counter() - began)

    threads = [threading.Thread(target=work, args=(once,)) for once in workers]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return times


def _appends(server: Served, job: dict[str, str]) -> Callable[[], None]:
    connection = http.client.HTTPConnection("127.0.0.1", server.port)
    places = itertools.cycle(itertools.product(range(1, HOLES_OF_A_BENCH + 1), (12, 3, 6, 9)))
    body = {"quantity": "protrusion", "text": "8.5", "bare_unit": "0.01 mm", "read_before": "repeat",
            "person_id": job["person_id"]}  # fmt: skip

    def once() -> None:
        hole, hour = next(places)
        reading = {"reading_id": str(uuid4()), "hole": hole, "hour": hour, **body}
        _ask(connection, "POST", f"/api/jobs/{job['job_id']}/readings", reading, 201)

    return once


def _empties(server: Served) -> Callable[[], None]:
    connection = http.client.HTTPConnection("127.0.0.1", server.port)
    return lambda: _ask(connection, "POST", "/empty", {}, 200)


def _ask(connection: http.client.HTTPConnection, method: str, path: str, body: dict[str, Any], wanted: int) -> None:
    connection.request(method, path, json.dumps(body), {"content-type": "application/json"})
    answer = connection.getresponse()
    content = answer.read()
    if answer.status != wanted:
        raise RuntimeError(f"{path}: {answer.status} {content[:300]!r}")


def _inserts(dsn: str, job: dict[str, str]) -> Callable[[], None]:
    conn = psycopg.connect(dsn)

    def once() -> None:
        with conn.transaction():
            conn.execute(INSERT, {"reading_id": uuid4(), "reading_set_id": job["set_id"], "taken_by": job["person_id"]})

    return once
