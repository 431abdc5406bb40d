"""A block of 16 holes with 2,000 readings, verdicts included, through the API against bare SQL plus JSON.

Both run in one process on one server, turn and turn about; the ratio of their medians is the figure.
"""

import http.client
import json
import time
from collections.abc import Callable
from statistics import median
from typing import Any
from uuid import UUID

import orjson
import psycopg
from psycopg.rows import dict_row

from benchmarks.workshop import READINGS, database, large_job, served

ROUNDS = 25
AIM = 2.0

# The columns that the tape shows of every reading.
BARE_SQL = """
    SELECT r.reading_id, r.reading_set_id AS set_id, s.quantity, h.number AS hole, l.mark AS liner_mark, s.land,
           r.hour::float8, r.value_um::text AS value_um, r.typed, r.typed_unit, r.taken_at, p.name AS taken_by,
           coalesce(k.struck, false) AS struck, coalesce(k.reason, '') AS strike_reason, r.event
      FROM reading r
      JOIN reading_set rs USING (reading_set_id)
      JOIN setup s USING (setup_id)
      JOIN person p ON p.person_id = r.taken_by
      LEFT JOIN fitting f ON f.fitting_id = rs.fitting_id
      LEFT JOIN hole h ON h.hole_id = coalesce(rs.hole_id, f.hole_id)
      LEFT JOIN liner l ON l.liner_id = coalesce(rs.liner_id, f.liner_id)
      LEFT JOIN LATERAL (
           SELECT struck, reason FROM strike WHERE strike.reading_id = r.reading_id ORDER BY event DESC LIMIT 1
      ) k ON true
     WHERE rs.job_id = %(job_id)s
     ORDER BY r.event
"""


def _seconds(work: Callable[[], Any]) -> float:
    began = time.perf_counter()
    work()
    return time.perf_counter() - began


def run() -> dict[str, dict[str, Any]]:
    with database() as dsn:
        job_id = large_job(dsn)
        with psycopg.connect(dsn, row_factory=dict_row) as conn, served(dsn) as port:
            connection = http.client.HTTPConnection("127.0.0.1", port)
            bare, api = _compare(conn, connection, job_id)
    ratio = api / bare
    return {
        "block of 16 holes, 2,000 readings: API / bare SQL": _figure(f"{ratio:.2f}", "×", f"≤ {AIM:g}", ratio <= AIM),
        "the same through the API": _figure(f"{1000 * api:.1f}", "ms", "none", True),
        "the same by bare SQL and JSON": _figure(f"{1000 * bare:.1f}", "ms", "none", True),
    }


def _compare(
    conn: "psycopg.Connection[dict[str, Any]]", connection: http.client.HTTPConnection, job_id: UUID
) -> tuple[float, float]:
    def by_sql() -> bytes:
        return orjson.dumps(conn.execute(BARE_SQL, {"job_id": job_id}).fetchall())

    def by_api() -> bytes:
        connection.request("GET", f"/api/jobs/{job_id}/block")
        return connection.getresponse().read()

    assert len(json.loads(by_sql())) == READINGS
    block = json.loads(by_api())
    assert len(block["readings"]) == READINGS
    assert all(hole["state"] == "in" for hole in block["holes"])
    bare, api = [], []
    for _ in range(ROUNDS):
        bare.append(_seconds(by_sql))
        api.append(_seconds(by_api))
    return median(bare), median(api)


def _figure(value: str, unit: str, aim: str, ok: bool) -> dict[str, Any]:
    return {"value": float(value), "unit": unit, "aim": aim, "ok": ok}
