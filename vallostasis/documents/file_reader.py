"""Tables, jobs, scans and probed points of others: taken apart in a child, which no file stops or fills."""

import asyncio
import pickle
from collections.abc import Awaitable, Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vallostasis.documents.child import Bounds, Stopped, Why, work_in_child
from vallostasis.documents.job_on_file import JobOnFile, read_job, refuse_at_a_look
from vallostasis.documents.not_read import NotRead
from vallostasis.documents.probe_file import ProbedPoint, read_probe
from vallostasis.documents.readings_table import TableRow, read_table
from vallostasis.documents.scan_file import read_scan

# So many files are read at once; others wait in turn.
AT_ONCE = 2
BOUNDS = Bounds(seconds=90, processor_seconds=40, memory_bytes=1024**3)
WORDS = {
    Why.NOBODY_WAITS: "Reading the file was given up: nothing was taken from it.",
    Why.TOO_LONG: "Reading the file took too long and was stopped: split it, or save it anew.",
    Why.TOO_MUCH: "The file needs more time or memory than it may take: split it, or save it anew.",
}
IsGone = Callable[[], Awaitable[bool]]


class FileReader:
    """Reads one or two files at a time, each in a process of its own; stops at once when whoever asked is gone."""

    def __init__(self, bounds: Bounds = BOUNDS) -> None:
        self._turn = asyncio.Semaphore(AT_ONCE)
        self._bounds = bounds

    async def table(self, content: bytes, is_gone: IsGone) -> tuple[TableRow, ...]:
        """Read a table of readings."""
        rows: tuple[TableRow, ...] = await self._read(read_table, content, is_gone)
        return rows

    async def job(self, content: bytes, is_gone: IsGone) -> JobOnFile:
        """Read a job's file."""
        refuse_at_a_look(content)
        job: JobOnFile = await self._read(read_job, content, is_gone)
        return job

    async def scan(self, content: bytes, is_gone: IsGone) -> NDArray[np.float64]:
        """Read the columns of a scan."""
        columns: NDArray[np.float64] = await self._read(read_scan, content, is_gone)
        return columns

    async def probe(self, content: bytes, is_gone: IsGone) -> tuple[ProbedPoint, ...]:
        """Read what a probe touched."""
        points: tuple[ProbedPoint, ...] = await self._read(read_probe, content, is_gone)
        return points

    async def _read(self, read: Callable[[bytes], Any], content: bytes, is_gone: IsGone) -> Any:  # noqa: ANN401
        async with self._turn:
            try:
                written = await work_in_child(
                    "vallostasis.documents.read_in_child", content, self._bounds, is_gone,
                    arguments=(read.__module__, read.__name__),
                )  # fmt: skip
            except Stopped as stopped:
                raise NotRead(WORDS[stopped.why]) from None
        # What the child wrote is our own: it holds what our own function made of the file.
        answer = pickle.loads(written)
        if isinstance(answer, NotRead):
            raise answer
        return answer
