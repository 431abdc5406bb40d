"""From a reading sent to one process to its event at a screen of another, both on one database."""

import http.client
import json
import time
from statistics import median, quantiles
from typing import Any
from uuid import uuid4

from benchmarks.workshop import Served, bench_jobs, database, figure, served_apart

CHANGES = 60
AIM_MS = 1000.0


def run() -> dict[str, dict[str, Any]]:
    with database(durable=True) as dsn:
        job = bench_jobs(dsn, 1)[0]
        with served_apart(dsn) as first, served_apart(dsn) as second:
            times = _times(first, second, job)
    return {
        "reading sent to one process, event from another, p50": figure(1000 * median(times), "ms"),
        "reading sent to one process, event from another, p95": figure(1000 * quantiles(times, n=20)[-1], "ms", AIM_MS),
    }


def _times(first: Served, second: Served, job: dict[str, str]) -> list[float]:
    screen = http.client.HTTPConnection("127.0.0.1", second.port)
    screen.request("GET", "/api/changes")
    events = screen.getresponse()
    _next_event(events, "beat")
    bench = http.client.HTTPConnection("127.0.0.1", first.port)
    times = []
    for _ in range(CHANGES):
        body = {"reading_id": str(uuid4()), "quantity": "protrusion", "hole": 1, "hour": 6, "text": "8.5",
                "bare_unit": "0.01 mm", "read_before": "repeat", "person_id": job["person_id"]}  # fmt: skip
        began = time.perf_counter()
        bench.request("POST", f"/api/jobs/{job['job_id']}/readings", json.dumps(body),
                      {"content-type": "application/json"})  # fmt: skip
        answer = bench.getresponse()
        answer.read()
        if answer.status != 201:
            raise RuntimeError(f"not taken: {answer.status}")
        _next_event(events, job["job_id"])
        times.append(time.perf_counter() - began)
    return times


def _next_event(events: http.client.HTTPResponse, wanted: str) -> None:
    """Read the stream up to the end of the event that names what is wanted."""
    found = False
    while True:
        line = events.readline().decode().strip()
        found = found or wanted in line
        if found and not line:
            return
