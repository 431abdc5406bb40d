"""Work on what may cost anything in a child that can be stopped: bounded, and gone with whoever asked."""

import asyncio
import contextlib
import os
import resource
import sys
from collections.abc import Awaitable, Callable, Mapping
from dataclasses import dataclass
from enum import StrEnum

LOOK_EVERY_S = 0.25


class Why(StrEnum):
    """Why a child did not finish."""

    NOBODY_WAITS = "nobody waits for it any more"
    TOO_LONG = "it took too long"
    TOO_MUCH = "it needed more time or memory than it may take"


class Stopped(Exception):
    """A child did not finish its work."""

    def __init__(self, why: Why) -> None:
        super().__init__(why.value)
        self.why = why


@dataclass(frozen=True, slots=True)
class Bounds:
    """How much a child may take: seconds on the clock, seconds of processor, bytes of memory."""

    seconds: float
    processor_seconds: int
    memory_bytes: int


async def work_in_child(
    module: str,
    content: bytes,
    bounds: Bounds,
    is_gone: Callable[[], Awaitable[bool]],
    arguments: tuple[str, ...] = (),
    environment: Mapping[str, str] | None = None,
) -> bytes:
    """Hand something to a module run as a program, and return what it writes.

    Raises
    ------
    Stopped
        If it took more than it may, failed, or nobody waits for it.
    """
    if await is_gone():
        raise Stopped(Why.NOBODY_WAITS)
    child = await asyncio.create_subprocess_exec(
        sys.executable, "-m", module, str(bounds.processor_seconds), str(bounds.memory_bytes), *arguments,
        env={**os.environ, **(environment or {})},
        stdin=asyncio.subprocess.PIPE, stdout=asyncio.subprocess.PIPE, stderr=asyncio.subprocess.DEVNULL,
    )  # fmt: skip
    try:
        return await _finish(child, content, bounds.seconds, is_gone)
    finally:
        with contextlib.suppress(ProcessLookupError):
            child.kill()
        await child.wait()


async def _finish(
    child: asyncio.subprocess.Process, content: bytes, seconds: float, is_gone: Callable[[], Awaitable[bool]]
) -> bytes:
    working = asyncio.create_task(child.communicate(content))
    try:
        for _ in range(round(seconds / LOOK_EVERY_S)):
            done, _waiting = await asyncio.wait({working}, timeout=LOOK_EVERY_S)
            if done:
                break
            if await is_gone():
                raise Stopped(Why.NOBODY_WAITS)
    finally:
        if not working.done():
            working.cancel()
    if working.cancelled() or not working.done():
        raise Stopped(Why.TOO_LONG)
    written, _ = working.result()
    if child.returncode != 0 or not written:
        raise Stopped(Why.TOO_MUCH)
    return written


def keep_within_bounds() -> None:
    """Keep to the seconds of processor and bytes of memory that this program was started with."""
    most_seconds, most_bytes = (int(bound) for bound in sys.argv[1:3])
    resource.setrlimit(resource.RLIMIT_CPU, (most_seconds, most_seconds))
    resource.setrlimit(resource.RLIMIT_AS, (most_bytes, most_bytes))
