"""Printing a proof of 2,000 readings, and reading the block meanwhile, against reading it while nothing is printed."""

import threading
import time
import urllib.request
from statistics import median
from typing import Any

import psycopg

from benchmarks.workshop import Served, database, figure, large_job, served_apart
from vallostasis.store import people

AIM_SECONDS = 10
AIM_RATIO = 2.0
READS = 12


def run() -> dict[str, dict[str, Any]]:
    with database() as dsn:
        job = large_job(dsn)
        with psycopg.connect(dsn) as conn:
            who = people.list_people(conn)[0].person_id
        with served_apart(dsn) as server:
            block, sheet = f"/api/jobs/{job}/block", f"/api/jobs/{job}/proof.pdf?person_id={who}"
            _seconds(server, block)
            alone = [_seconds(server, block) for _ in range(READS)]
            took: list[float] = []
            printing = threading.Thread(target=lambda: took.append(_seconds(server, sheet)))
            printing.start()
            meanwhile = []
            while printing.is_alive():
                meanwhile.append(_seconds(server, block))
            printing.join()
    return {
        "proof of 2,000 readings as PDF": figure(took[0], "s", AIM_SECONDS),
        "block read while it is printed": figure(median(meanwhile) / median(alone), "×", AIM_RATIO),
    }


def _seconds(server: Served, address: str) -> float:
    started = time.perf_counter()
    with urllib.request.urlopen(f"http://127.0.0.1:{server.port}{address}") as answer:
        assert answer.read()
    return time.perf_counter() - started
