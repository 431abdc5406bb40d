"""What somebody tries on a fit: friction, push, the press aimed at, hot temperatures, a drop, against reading it.

The first look works everything out, as after a reading; what is tried afterwards answers within a picture.
"""

import time
from statistics import median
from typing import Any

import psycopg
from fastapi.testclient import TestClient

from benchmarks.workshop import database, figure
from vallostasis.main import create_app
from vallostasis.services.demo_loading import load_demo
from vallostasis.settings import Settings

TRIES = 40
# A picture of a screen at 60 a second. [ms]
PICTURE_MS = 16.0


def run() -> dict[str, dict[str, Any]]:
    with database() as dsn:
        with psycopg.connect(dsn) as conn:
            load_demo(conn)
            row = conn.execute("SELECT job_id FROM job WHERE name = 'Narrow-boat Brindle'").fetchone()
        assert row is not None
        with TestClient(create_app(Settings(dsn=dsn)), base_url="http://127.0.0.1", client=("127.0.0.1", 1)) as client:
            return _figures(client, f"/api/jobs/{row[0]}")


def _figures(client: TestClient, job: str) -> dict[str, dict[str, Any]]:
    kinds = {
        "nothing: people of the shop": lambda _: "/api/people",
        "friction tried": lambda at: f"{job}/fits/1?oiled={0.05 + at * 1e-3}",
        "press aimed at tried": lambda at: f"{job}/fits/1?aim_m={8e-6 + at * 1e-7}",
        "temperatures tried": lambda at: f"{job}/hot-fits/1?block_c={60 + at}&liner_c=120",
        "drop window tried": lambda at: f"{job}/heat/1?block_c={60 + at}",
    }
    first = _took(client, f"{job}/fits/1")
    times: dict[str, list[float]] = {kind: [] for kind in kinds}
    for at in range(TRIES):
        for kind, path in kinds.items():
            times[kind].append(_took(client, path(at)))
    nothing = median(times["nothing: people of the shop"])
    figures: dict[str, dict[str, Any]] = {}
    for kind in list(kinds)[1:]:
        tried = median(times[kind])
        figures[f"fit, {kind}"] = figure(tried, "ms", PICTURE_MS)
        figures[f"fit, {kind}, against nothing"] = figure(tried / nothing, "times")
    figures["fit, first look against friction tried"] = figure(first / median(times["friction tried"]), "times")
    return figures


def _took(client: TestClient, path: str) -> float:
    began = time.perf_counter()
    answer = client.get(path)
    took = 1000 * (time.perf_counter() - began)
    assert answer.status_code == 200, answer.text
    return took
