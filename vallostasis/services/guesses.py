"""Wrong codes and passwords of the last ten minutes: whoever guesses is let try no more, and all together few."""

import threading
import time
from collections import deque
from collections.abc import Callable
from datetime import timedelta

REMEMBERED_FOR = timedelta(minutes=10)


class Guesses:
    """Counts what was wrong, by address or name."""

    OF_ONE, OF_ALL = 5, 40

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
        self._lock = threading.Lock()
        self._wrong: deque[tuple[float, str]] = deque()

    def may(self, of: str) -> bool:
        """Whether somebody may try once more."""
        with self._lock:
            while self._wrong and self._wrong[0][0] < self._clock() - REMEMBERED_FOR.total_seconds():
                self._wrong.popleft()
            mine = sum(where == of for _, where in self._wrong)
            return mine < self.OF_ONE and len(self._wrong) < self.OF_ALL

    def wrong(self, of: str) -> None:
        """Count one that was wrong."""
        with self._lock:
            self._wrong.append((self._clock(), of))
