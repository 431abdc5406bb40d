"""A scan of a million points: brought in against a bare COPY of the same file, and its hole looked at afterwards.

The bare COPY takes the file as it lies, into a table of three columns. Both are done turn about on one durable cluster.
"""

import time
from statistics import median
from typing import Any
from uuid import uuid4

import numpy as np
import psycopg

from benchmarks.workshop import database, figure
from vallostasis.core.bores.ladder import standard_of
from vallostasis.core.bores.scan_columns import ScanKind, ScanLayout
from vallostasis.core.bores.scans import circles_of, field_of_scan, scans_of
from vallostasis.demo import hill_tractor, scans_play
from vallostasis.services import scans
from vallostasis.services.demo_loading import load_demo
from vallostasis.store import people
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.jobs import list_jobs

LEVELS, POINTS = 10, 1_000_000
ROUNDS = 3


def scan_file() -> bytes:
    rng = np.random.default_rng(7)
    wall = scans_play.wall_of(hill_tractor.NUMBER, hill_tractor.spec_card(), 3, False)
    steps = POINTS // LEVELS
    angles = np.arange(steps) * 360.0 / steps
    lines = [b"angle_deg,level_mm,radius_mm\n"]
    for level in range(LEVELS):
        depth = 10_000.0 + level * 15_000.0
        coarse = np.array([wall(depth, np.radians(angle)) for angle in range(361)])
        radii = np.interp(angles, np.arange(361), coarse) + rng.normal(0, 0.3, steps)
        rows = zip(angles, radii, strict=True)
        lines.append("".join(f"{a:.4f},{depth / 1000:.3f},{r / 1000:.6f}\n" for a, r in rows).encode())
    return b"".join(lines)


def run() -> dict[str, dict[str, Any]]:
    content = scan_file()
    bare, ours, view = [], [], []
    with database(durable=True) as dsn, psycopg.connect(dsn) as conn:
        load_demo(conn)
        conn.execute("CREATE TABLE bare_point (a double precision, b double precision, c double precision)")
        conn.commit()
        job = next(one.job_id for one in list_jobs(conn) if one.name == "Hill Tractor Marram")
        by = people.list_people(conn)[0].person_id
        layout = ScanLayout(ScanKind.POLAR, (0, 1, 2), "mm", "mm")
        for _ in range(ROUNDS):
            began = time.perf_counter()
            with conn.cursor() as cursor, cursor.copy("COPY bare_point FROM STDIN (FORMAT CSV, HEADER)") as copy:
                copy.write(content)
            conn.commit()
            bare.append(time.perf_counter() - began)
            began = time.perf_counter()
            ask = scans.ScanAsk(uuid4(), 3, "free, no plate", "bench", "scan.csv", layout)
            scans.bring_in_scan(conn, job, ask, content, by)
            conn.commit()
            ours.append(time.perf_counter() - began)
            began = time.perf_counter()
            facts = load_job_facts(conn, job)
            for one in scans_of(facts, facts.holes[2])[-1:]:
                field_of_scan(one.profile, standard_of(facts), None)
                circles_of(one.profile, None)
            view.append(time.perf_counter() - began)
    return {
        "scan of 10^6 points, over bare COPY": figure(median(ours) / median(bare), "×", 3, 2),
        "scan of 10^6 points, brought in": figure(median(ours), "s"),
        "hole with a scan of 10^6 points, looked at": figure(max(view), "s", 0.5, 3),
    }
