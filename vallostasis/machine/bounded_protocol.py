"""What one device may keep open: so many connections, and so long for the head of a request."""

import asyncio
from collections import Counter
from typing import ClassVar

from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol


class BoundedProtocol(HttpToolsProtocol):
    """A connection that is closed when its request does not come, or where its device has too many."""

    # A browser opens six; a bench has several pages, and a proxy speaks for many.
    MOST_OF_ONE_DEVICE: ClassVar[int] = 100
    HEAD_WITHIN_S: ClassVar[float] = 10.0
    _open: ClassVar[Counter[str]] = Counter()

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        """Count it; wait for its first head."""
        super().connection_made(transport)
        self._late: asyncio.TimerHandle | None = None
        self._of = self.client[0] if self.client else ""
        self._open[self._of] += 1
        if self._open[self._of] > self.MOST_OF_ONE_DEVICE:
            transport.abort()
        else:
            self._wait_for_the_head()

    def connection_lost(self, exc: Exception | None) -> None:
        """Count it no more."""
        self._head_is_here()
        self._open[self._of] -= 1
        if self._open[self._of] <= 0:
            del self._open[self._of]
        super().connection_lost(exc)

    def on_message_begin(self) -> None:
        """A next request begins: its head too has to come in time."""
        super().on_message_begin()
        self._wait_for_the_head()

    def on_headers_complete(self) -> None:
        """The head is here."""
        self._head_is_here()
        super().on_headers_complete()

    def _wait_for_the_head(self) -> None:
        self._head_is_here()
        self._late = self.loop.call_later(self.HEAD_WITHIN_S, self.transport.abort)

    def _head_is_here(self) -> None:
        if self._late is not None:
            self._late.cancel()
            self._late = None
