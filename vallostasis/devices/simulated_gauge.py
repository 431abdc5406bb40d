"""A depth gauge that is not there: streams the hidden truth of a block plus noise over TCP.

Lines out, ten a second, as a real gauge with a cable sends them: ``+0.0320 mm``. Lines in place the
tip: ``at 5 6h protrusion L6`` with, where the hole was cut, ``cut 8898 shim 100`` in µm. Lines
``unit inch``, ``unit mm``, ``hush`` and ``talk`` play the mishaps of a bench.
"""

import contextlib
import random
import re
import socket
import socketserver
import threading
from collections.abc import Callable
from dataclasses import dataclass

LINES_A_SECOND = 10
_PLACE = re.compile(
    r"at (?P<hole>\d{1,2}) (?P<hour>\d{1,2}(?:\.\d+)?)h (?P<quantity>protrusion|depth)(?: (?P<liner>\S{1,20}))?"
    r"(?: cut (?P<cut>\d{1,6}(?:\.\d+)?))?(?: shim (?P<shim>\d{1,6}(?:\.\d+)?))?"
)


@dataclass(frozen=True, slots=True)
class Tip:
    """Where the tip stands, and what was done to the hole since it was found. [h], [µm]"""

    hole: int
    hour: float
    quantity: str
    liner: str
    cut_um: float | None
    shim_um: float


Truth = Callable[[Tip], float]


def parse_tip(line: str) -> Tip | None:
    """Read a line that places the tip; None for any other line."""
    match = _PLACE.fullmatch(line.strip())
    if match is None:
        return None
    cut = match["cut"]
    return Tip(int(match["hole"]), float(match["hour"]), match["quantity"], match["liner"] or "",
               None if cut is None else float(cut), float(match["shim"] or 0))  # fmt: skip


class SimulatedGauge(socketserver.ThreadingTCPServer):
    """Serves one gauge on loopback; every connection sees the same tip."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, port: int, truth: Truth, noise_um: float, step_um: float, seed: int) -> None:
        super().__init__(("127.0.0.1", port), _Line)
        self._truth = truth
        self._noise_um = noise_um
        self._step_um = step_um
        self._random = random.Random(seed)
        self._lock = threading.Lock()
        self.tip: Tip | None = None
        self.unit = "mm"
        self.hushed = False
        self.stopping = threading.Event()

    def hear(self, line: str) -> None:
        """Take a line in."""
        word = line.strip()
        with self._lock:
            if word in ("hush", "talk"):
                self.hushed = word == "hush"
            elif word in ("unit mm", "unit inch"):
                self.unit = word.split()[1]
            else:
                self.tip = parse_tip(word) or self.tip

    def say(self) -> str | None:
        """The next line out; None while hushed."""
        with self._lock:
            if self.hushed:
                return None
            truth = 0.0 if self.tip is None else self._truth(self.tip)
            noisy = truth + self._random.gauss(0, self._noise_um)
            shown = round(noisy / self._step_um) * self._step_um
            return f"{shown / 1000:+.4f} mm" if self.unit == "mm" else f"{shown / 25400:+.5f} in"

    def server_close(self) -> None:
        """Hang up on everybody."""
        self.stopping.set()
        super().server_close()


class _Line(socketserver.StreamRequestHandler):
    """One connection: a thread that listens, and a pace at which it speaks."""

    server: SimulatedGauge

    def handle(self) -> None:
        """Speak until either side hangs up."""
        threading.Thread(target=self._listen, daemon=True).start()
        while not self.server.stopping.wait(1 / LINES_A_SECOND):
            line = self.server.say()
            if line is None:
                continue
            try:
                self.wfile.write(f"{line}\r\n".encode())
            except OSError:
                break
        # Hanging up here wakes the thread that listens; it holds the line open otherwise.
        with contextlib.suppress(OSError):
            self.connection.shutdown(socket.SHUT_RDWR)

    def _listen(self) -> None:
        try:
            for line in self.rfile:
                self.server.hear(line.decode("ascii", errors="replace"))
        except OSError:
            return
