"""What changed, whoever changed it, handed to every open screen of this application."""

import asyncio
import contextlib
import threading
from collections import deque
from collections.abc import AsyncIterator, Iterator
from dataclasses import dataclass
from uuid import UUID

from vallostasis.store.changes import listen

# A screen hears at least this often that the link stands. [s]
BEAT_S = 5.0
MOST_OF_ONE_DEVICE = 24


@dataclass(frozen=True, slots=True)
class Change:
    """A job that changed; None where everything may have changed."""

    job_id: UUID | None


class _Closed:
    """The feed ends."""


Heard = asyncio.Queue[Change | _Closed]


class ChangeFeed:
    """One listener at the database for all screens that are open at this application."""

    def __init__(self, dsn: str) -> None:
        self._dsn = dsn
        self._stopping = threading.Event()
        self._standing = threading.Event()
        self._lock = threading.Lock()
        self._of: dict[str, deque[tuple[asyncio.AbstractEventLoop, Heard]]] = {}
        self._screens: set[tuple[asyncio.AbstractEventLoop, Heard]] = set()
        self._listener = threading.Thread(target=self._listen, name="change feed", daemon=True)

    def open(self) -> None:
        """Begin to listen."""
        self._listener.start()

    def close(self) -> None:
        """End every screen's stream and stop listening; closing twice does no harm."""
        self._stopping.set()
        self._tell(_Closed())

    def _listen(self) -> None:
        listen(self._dsn, self._hear, self._standing.clear, self._stopping)

    def _hear(self, job_id: UUID | None) -> None:
        self._standing.set()
        self._tell(Change(job_id))

    def _tell(self, what: Change | _Closed) -> None:
        with self._lock:
            for loop, heard in self._screens:
                # A loop that ended took its screen with it.
                with contextlib.suppress(RuntimeError):
                    loop.call_soon_threadsafe(heard.put_nowait, what)

    @contextlib.contextmanager
    def _screen(self, of: str) -> Iterator[Heard]:
        screen = (asyncio.get_running_loop(), Heard())
        with self._lock:
            self._screens.add(screen)
            mine = self._of.setdefault(of, deque())
            mine.append(screen)
            oldest = mine.popleft() if len(mine) > MOST_OF_ONE_DEVICE else None
        if oldest is not None:
            # Its page asks again where it is still open.
            oldest[0].call_soon_threadsafe(oldest[1].put_nowait, _Closed())
        try:
            yield screen[1]
        finally:
            with self._lock:
                self._screens.discard(screen)
                with contextlib.suppress(ValueError):
                    self._of[of].remove(screen)
                if not self._of[of]:
                    del self._of[of]

    async def changes(self, of: str = "") -> AsyncIterator[Change | None]:
        """Yield every change from now on, and None as a beat while nothing changes and the database answers.

        Of one device the newest so many streams stay open.
        """
        with self._screen(of) as heard:
            if self._standing.is_set():
                yield None
            while not self._stopping.is_set():
                try:
                    what = await asyncio.wait_for(heard.get(), BEAT_S)
                except TimeoutError:
                    if self._standing.is_set():
                        yield None
                    continue
                if isinstance(what, _Closed):
                    return
                yield what
