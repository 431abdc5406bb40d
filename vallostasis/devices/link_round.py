"""One thread for many slow lines: thermometers are asked in turn, and one that is dialled holds up no other."""

import threading
from concurrent.futures import ThreadPoolExecutor

from vallostasis.devices.gauge_link import GaugeLink, Turns

# A thermometer speaks once a second or less. [s]
ROUND_EVERY_S = 0.1


class LinkRound:
    """Keeps any number of links connected from a single thread; those that are stopped fall out of the round."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._turns: list[Turns[None]] = []
        self._closed = threading.Event()
        self._dialling = ThreadPoolExecutor(1, "dial a thermometer")
        self._thread: threading.Thread | None = None

    def take_in(self, link: GaugeLink) -> None:
        """Read this link too from now on."""
        with self._lock:
            self._turns.append(link.turns(0.0, self._dialling))
            if self._thread is None:
                self._thread = threading.Thread(target=self._go_round, name="thermometers", daemon=True)
                self._thread.start()

    def close(self) -> None:
        """Hang up everywhere."""
        self._closed.set()
        if self._thread is not None:
            self._thread.join(timeout=5)
        self._dialling.shutdown(wait=False)

    def _go_round(self) -> None:
        while not self._closed.wait(ROUND_EVERY_S):
            with self._lock:
                now = list(self._turns)
            ended = [one for one in now if next(one, now) is now]
            if ended:
                with self._lock:
                    self._turns = [one for one in self._turns if one not in ended]
        for one in self._turns:
            one.close()
