"""Printing in a child that can be stopped: the application goes on serving, whatever a page costs."""

import asyncio
import contextlib
import os
import sys
from collections.abc import Awaitable, Callable
from pathlib import Path

# So many pages are printed at once; others wait in turn.
AT_ONCE = 1
# Longer than the child's own bound of processor time: on a loaded machine it waits for its turn. [s]
MOST_SECONDS = 180
# A job of some thousand readings takes ten seconds of processor time and a quarter of a gigabyte.
MOST_PROCESSOR_SECONDS = 120
MOST_BYTES = 2 * 1024**3
LOOK_EVERY_S = 0.25
FONTS = Path(__file__).parent / "fonts" / "fonts.conf"


class NotPrinted(Exception):
    """The page was not printed: the text says why, and what to do."""


class PdfPrinter:
    """Prints one page after the other, each in a process of its own."""

    def __init__(self, most_seconds: float = MOST_SECONDS, most_bytes: int = MOST_BYTES) -> None:
        self._turn = asyncio.Semaphore(AT_ONCE)
        self._most_seconds = most_seconds
        self._bounds = (str(MOST_PROCESSOR_SECONDS), str(most_bytes))

    async def print_pdf(self, html: str, is_gone: Callable[[], Awaitable[bool]]) -> bytes:
        """Print a page; stops at once when whoever asked for it is gone."""
        async with self._turn:
            if await is_gone():
                raise NotPrinted("Nobody waits for it any more.")
            child = await asyncio.create_subprocess_exec(
                sys.executable, "-m", "vallostasis.documents.proof_pdf", *self._bounds,
                env={**os.environ, "FONTCONFIG_FILE": str(FONTS)},
                stdin=asyncio.subprocess.PIPE, stdout=asyncio.subprocess.PIPE, stderr=asyncio.subprocess.DEVNULL,
            )  # fmt: skip
            try:
                return await self._finish(child, html, is_gone)
            finally:
                with contextlib.suppress(ProcessLookupError):
                    child.kill()
                await child.wait()

    async def _finish(
        self, child: asyncio.subprocess.Process, html: str, is_gone: Callable[[], Awaitable[bool]]
    ) -> bytes:
        printing = asyncio.create_task(child.communicate(html.encode()))
        try:
            for _ in range(round(self._most_seconds / LOOK_EVERY_S)):
                done, _waiting = await asyncio.wait({printing}, timeout=LOOK_EVERY_S)
                if done:
                    break
                if await is_gone():
                    raise NotPrinted("Nobody waits for it any more.")
        finally:
            if not printing.done():
                printing.cancel()
        if printing.cancelled() or not printing.done():
            raise NotPrinted("Printing took too long and was stopped: print it from the browser, or save the readings.")
        content, _ = printing.result()
        if child.returncode != 0 or not content:
            raise NotPrinted(
                "Printing needed more time or memory than it may take: print it from the browser, or save the readings."
            )
        return content
