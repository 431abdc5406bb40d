"""Printing in a child that can be stopped: the application goes on serving, whatever a page costs."""

import asyncio
from collections.abc import Awaitable, Callable
from pathlib import Path

from vallostasis.documents.child import Bounds, Stopped, Why, work_in_child

# So many pages are printed at once; others wait in turn.
AT_ONCE = 1
# Longer than the child's own bound of processor time: on a loaded machine it waits for its turn. [s]
MOST_SECONDS = 180
# A job of some thousand readings takes ten seconds of processor time and a quarter of a gigabyte.
MOST_PROCESSOR_SECONDS = 120
MOST_BYTES = 2 * 1024**3
FONTS = Path(__file__).parent / "fonts" / "fonts.conf"
INSTEAD = "print it from the browser, or save the readings"
WORDS = {
    Why.NOBODY_WAITS: "Nobody waits for it any more.",
    Why.TOO_LONG: f"Printing took too long and was stopped: {INSTEAD}.",
    Why.TOO_MUCH: f"Printing needed more time or memory than it may take: {INSTEAD}.",
}


class NotPrinted(Exception):
    """The page was not printed: the text says why, and what to do."""


class PdfPrinter:
    """Prints one page after the other, each in a process of its own."""

    def __init__(self, most_seconds: float = MOST_SECONDS, most_bytes: int = MOST_BYTES) -> None:
        self._turn = asyncio.Semaphore(AT_ONCE)
        self._bounds = Bounds(most_seconds, MOST_PROCESSOR_SECONDS, most_bytes)

    async def print_pdf(self, html: str, is_gone: Callable[[], Awaitable[bool]]) -> bytes:
        """Print a page; stops at once when whoever asked for it is gone."""
        async with self._turn:
            try:
                return await work_in_child(
                    "vallostasis.documents.proof_pdf", html.encode(), self._bounds, is_gone,
                    environment={"FONTCONFIG_FILE": str(FONTS)},
                )  # fmt: skip
            except Stopped as stopped:
                raise NotPrinted(WORDS[stopped.why]) from None
