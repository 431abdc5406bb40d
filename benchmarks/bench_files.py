"""Files of others at their bounds: how long they take to read, and how much memory their child needs at most."""

import asyncio
import json
import resource
import time
from collections.abc import Awaitable, Callable
from typing import Any

import psycopg

from benchmarks.workshop import database, figure, large_job
from vallostasis.documents.file_reader import BOUNDS, FileReader
from vallostasis.documents.job_on_file import LARGEST_JSON_BYTES
from vallostasis.documents.readings_table import MOST_ROWS
from vallostasis.services import proof
from vallostasis.services.chain import links_now

AIM_TABLE_S, AIM_JOB_S, AIM_CHAIN = 20.0, 30.0, 1.0
AIM_BYTES = BOUNDS.memory_bytes


async def _here() -> bool:
    return False


def _timed(read: Callable[[], Awaitable[object]]) -> float:
    began = time.perf_counter()

    async def all_of_it() -> None:
        await read()

    asyncio.run(all_of_it())
    return time.perf_counter() - began


def _peak_bytes() -> int:
    """The most that any child took so far; on Linux in units of 1,024 bytes."""
    return resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss * 1024


def _table() -> bytes:
    rows = (f"{1 + at % 16},{1 + at % 12},{1 + at // 192},8.{at % 1000:03d},mm,a remark of some length" for at in
            range(MOST_ROWS))  # fmt: skip
    return "\n".join(("hole,clock_h,repeat,reading,unit,remark", *rows)).encode()


def _job_of(content: bytes) -> bytes:
    """A job file filled up to its bound with readings of its own."""
    document = json.loads(content)
    own = document["facts"]["readings"]
    many = own * (LARGEST_JSON_BYTES // len(content) + 2)
    while True:
        document["facts"]["readings"] = many
        full = json.dumps(document, indent=1).encode()
        if len(full) <= LARGEST_JSON_BYTES:
            return full
        many = many[: len(many) * 19 // 20]


def run() -> dict[str, dict[str, Any]]:
    with database() as dsn:
        job = large_job(dsn)
        with psycopg.connect(dsn, options="-c timezone=UTC") as conn:
            content = proof.job_as_json(conn, job)
            began = time.perf_counter()
            links_now(conn, job)
            chained = time.perf_counter() - began
    full = _job_of(content)
    assert len(full) <= LARGEST_JSON_BYTES
    reader = FileReader()
    table_s = _timed(lambda: reader.table(_table(), _here))
    after_table = _peak_bytes()
    job_s = _timed(lambda: reader.job(full, _here))
    return {
        f"table of {MOST_ROWS} rows read in a child": figure(table_s, "s", AIM_TABLE_S),
        "most memory of that child": figure(after_table / 1e6, "MB", AIM_BYTES / 1e6, 0),
        "job file of 5 MB read in a child": figure(job_s, "s", AIM_JOB_S),
        "most memory of that child, job": figure(_peak_bytes() / 1e6, "MB", AIM_BYTES / 1e6, 0),
        "chain of 2,000 readings, from the tables": figure(chained, "s", AIM_CHAIN, 2),
    }
