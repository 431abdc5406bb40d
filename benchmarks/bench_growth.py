"""Reading one block while the store grows from a thousand readings to a million, and with --deep to ten millions.

All the others are of other jobs.

Every job holds about a thousand readings in sets of two dozen, as a block read all round a few times does. The block
is read anew: its revision is moved on before, so that nothing known of it helps. Turn about with it the block is asked
for as it is known, which costs the same whatever the store holds: the ratio of the two does not depend on how fast the
machine happens to be while one size or another is measured.
"""

import http.client
import os
import shutil
import time
from statistics import median
from typing import Any

import psycopg

from benchmarks.workshop import bench_jobs, database, figure, served_apart

OF_A_SET = 24
SETS_OF_A_JOB = 42
SIZES = (1_000, 10_000, 100_000, 1_000_000)
DEEPEST = 10_000_000
# A reading takes some 300 bytes with its indexes; as much again is written on the way, and given back in the end.
BYTES_OF_A_READING = 800
ROUNDS = 120
AIM = 1.2

Connection = psycopg.Connection[Any]

READ_OWN = """
    INSERT INTO reading (reading_id, reading_set_id, hour, value_um, typed, typed_unit, taken_by)
    SELECT gen_random_uuid(), s.reading_set_id, 6, 85, '8.5', '0.01 mm', s.opened_by
      FROM generate_series(1, %(each)s::int), reading_set s
"""
# Other jobs are only there to be passed by: their sets borrow setup, gauge and fitting of the first.
ADD_OTHERS = """
    WITH pattern AS (SELECT * FROM reading_set LIMIT 1),
         others AS (INSERT INTO job (number, name)
                    SELECT 'G-' || n, 'Other ' || n FROM generate_series(%(first)s::int, %(last)s::int) n
                    RETURNING job_id),
         sets AS (INSERT INTO reading_set (job_id, setup_id, gauge_version_id, fitting_id, opened_by)
                  SELECT others.job_id, setup_id, gauge_version_id, fitting_id, opened_by
                    FROM others, pattern, generate_series(1, %(sets)s::int)
                  RETURNING reading_set_id, opened_by)
    INSERT INTO reading (reading_id, reading_set_id, hour, value_um, typed, typed_unit, taken_by)
    SELECT gen_random_uuid(), reading_set_id, 6, 85, '8.5', '0.01 mm', opened_by
      FROM sets, generate_series(1, %(each)s::int)
"""


def _sizes() -> tuple[int, ...]:
    if not os.environ.get("VALLO_DEEP"):
        return SIZES
    free, wanted = shutil.disk_usage("/tmp").free, DEEPEST * BYTES_OF_A_READING
    if free < wanted:
        raise RuntimeError(f"{DEEPEST:,} readings want {wanted / 1e9:.0f} GB in /tmp, {free / 1e9:.0f} are free.")
    return (*SIZES, DEEPEST)


def run() -> dict[str, dict[str, Any]]:
    sizes = _sizes()
    with database() as dsn:
        own = bench_jobs(dsn, 1)[0]
        with psycopg.connect(dsn, autocommit=True) as conn, served_apart(dsn) as server:
            conn.execute(READ_OWN, {"each": OF_A_SET * SETS_OF_A_JOB // 6})
            jobs = 1
            times: dict[int, tuple[float, float]] = {}
            for size in sizes:
                wanted = size // 1_000
                if wanted > jobs:
                    many = {"first": jobs + 1, "last": wanted, "sets": SETS_OF_A_JOB, "each": OF_A_SET}
                    conn.execute(ADD_OTHERS, many)
                    jobs = wanted
                # As autovacuum does by itself.
                conn.execute("VACUUM ANALYZE")
                times[size] = _read(conn, server.port, own["job_id"])
    figures = {
        f"block read anew, {size:,} readings in the store": figure(1000 * anew, "ms")
        for size, (anew, _) in times.items()
    }
    ratios = {size: anew / known for size, (anew, known) in times.items()}
    flat = max(ratios.values()) / ratios[sizes[0]]
    return {**figures, "block read anew / known, greatest / with 1,000": figure(flat, "×", AIM, digits=2)}


def _read(conn: Connection, port: int, job_id: str) -> tuple[float, float]:
    """Seconds for the block read anew, and as it is known; the first rounds warm the server up."""
    connection = http.client.HTTPConnection("127.0.0.1", port)

    def block() -> float:
        began = time.perf_counter()
        connection.request("GET", f"/api/jobs/{job_id}/block")
        answer = connection.getresponse()
        answer.read()
        if answer.status != 200:
            raise RuntimeError(f"the block was not read: {answer.status}")
        return time.perf_counter() - began

    anew, known = [], []
    for _ in range(ROUNDS):
        conn.execute("UPDATE revision SET stamp = gen_random_uuid() WHERE of_id = %s", (job_id,))
        anew.append(block())
        known.append(block())
    return median(anew[ROUNDS // 5 :]), median(known[ROUNDS // 5 :])
