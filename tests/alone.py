"""Waiting for something asynchronous wherever it is asked for: the browser of a worker keeps a loop running."""

import asyncio
from collections.abc import Coroutine
from concurrent.futures import ThreadPoolExecutor
from typing import Any, TypeVar

Answer = TypeVar("Answer")


def run_alone(work: Coroutine[Any, Any, Answer]) -> Answer:
    """Run it to its end in a thread, and a loop, of its own."""
    with ThreadPoolExecutor(1) as pool:
        return pool.submit(asyncio.run, work).result()
