"""Devices that are not there: each streams a hidden truth plus noise over TCP.

Lines out as a real gauge with a cable sends them: ``+0.0320 mm``. Lines in place the tip: ``at 5 6h protrusion L6``
with, where the hole was cut, ``cut 8898 shim 100`` in µm, or ``survey 26-057 block-bore hole-2 level 15240 axis 45
zero 127000``. Lines ``unit inch``, ``unit mm``, ``hush``, ``talk``, ``drop 0.2`` (share of lines lost) and ``drift 3``
(µm a minute) play the mishaps of a bench. A bore gauge is rocked by itself, so that its values run through turning
points.
"""

import contextlib
import random
import re
import socket
import socketserver
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from math import exp, pi, sin

from vallostasis.core.gauges.turning_point import chord_at_tilt

# In a line that places the tip this stands where else a job's number stands: a part of a gauge study.
STUDY = "study"
LINES_A_SECOND = 10
# A hand rocks a bore gauge about this often, and tilts it this far. [Hz], [rad]
ROCKS_A_SECOND = 0.7
ROCK_TILT = 0.022
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


@dataclass(frozen=True, slots=True)
class SurveyTip:
    """Where a tip stands on a surveyed part: job, feature, part, place, and the size the gauge shows as nought. [µm]"""

    job: str
    quantity: str
    part: str
    level_um: float | None
    axis_deg: float | None
    along_um: float | None
    across_um: float | None
    zero_um: float


SurveyTruth = Callable[[SurveyTip], float | None]


def parse_survey_tip(line: str) -> SurveyTip | None:
    """Read a line that places a tip on a surveyed part; None for any other line."""
    words = line.strip().split()
    if len(words) < 4 or words[0] != "survey" or len(words) % 2:
        return None
    try:
        told = {words[at]: float(words[at + 1]) for at in range(4, len(words), 2)}
    except ValueError:
        return None
    return SurveyTip(words[1], words[2], words[3], told.get("level"), told.get("axis"), told.get("along"),
                     told.get("across"), told.get("zero", 0.0))  # fmt: skip


def parse_tip(line: str) -> Tip | None:
    """Read a line that places the tip; None for any other line."""
    match = _PLACE.fullmatch(line.strip())
    if match is None:
        return None
    cut = match["cut"]
    return Tip(int(match["hole"]), float(match["hour"]), match["quantity"], match["liner"] or "",
               None if cut is None else float(cut), float(match["shim"] or 0))  # fmt: skip


@dataclass(frozen=True, slots=True)
class Manner:
    """How a device speaks: noise and step [µm], lines a second, and whether it is rocked."""

    noise_um: float
    step_um: float
    lines_a_second: float = LINES_A_SECOND
    rocked: bool = False


class SimulatedGauge(socketserver.ThreadingTCPServer):
    """Serves one gauge on loopback; every connection sees the same tip."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(
        self,
        port: int,
        truth: Truth,
        noise_um: float,
        step_um: float,
        seed: int,
        survey_truth: SurveyTruth = lambda tip: None,
        manner: Manner | None = None,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        # Asked for by server_close, also where the port is taken and nothing else is there yet.
        self.stopping = threading.Event()
        super().__init__(("127.0.0.1", port), _Line)
        self._truth = truth
        self._survey_truth = survey_truth
        self.manner = manner or Manner(noise_um, step_um)
        self._random = random.Random(seed)
        self._lock = threading.Lock()
        self._clock = clock
        self._started = clock()
        self.tip: Tip | None = None
        self.survey_tip: SurveyTip | None = None
        self.unit = "mm"
        self.hushed = False
        self.dropped = 0.0
        self.drift_um_a_minute = 0.0

    def hear(self, line: str) -> None:
        """Take a line in."""
        word = line.strip()
        with self._lock:
            if word in ("hush", "talk"):
                self.hushed = word == "hush"
            elif word in ("unit mm", "unit inch"):
                self.unit = word.split()[1]
            elif match := re.fullmatch(r"(drop|drift) (-?\d{1,4}(?:\.\d+)?)", word):
                self._play(match[1], float(match[2]))
            elif survey := parse_survey_tip(word):
                self.tip, self.survey_tip = None, survey
            elif tip := parse_tip(word):
                self.tip, self.survey_tip = tip, None

    def _play(self, mishap: str, how_much: float) -> None:
        if mishap == "drop":
            self.dropped = min(1.0, max(0.0, how_much))
        else:
            self.drift_um_a_minute, self._started = how_much, self._clock()

    def _stands_at(self) -> float:
        """What a perfect gauge would show where the tip stands. [µm]"""
        if self.survey_tip is not None:
            found = self._survey_truth(self.survey_tip)
            size = self.survey_tip.zero_um if found is None else found
            return size - self.survey_tip.zero_um
        return 0.0 if self.tip is None else self._truth(self.tip)

    def shown_um(self) -> float:
        """What the gauge shows now: truth, tilt of a rock, drift and noise, rounded to its step. [µm]"""
        now = self._clock() - self._started
        value = self._stands_at() + self.drift_um_a_minute * now / 60
        if self.manner.rocked and self.survey_tip is not None:
            tilt = ROCK_TILT * sin(2 * pi * ROCKS_A_SECOND * now)
            size_um = self.survey_tip.zero_um or 100_000.0
            value += chord_at_tilt(size_um, tilt) - size_um
        noisy = value + self._random.gauss(0, self.manner.noise_um)
        return round(noisy / self.manner.step_um) * self.manner.step_um

    def say(self) -> str | None:
        """The next line out; None while hushed, or when the line is lost."""
        with self._lock:
            if self.hushed or self._random.random() < self.dropped:
                return None
            shown = self.shown_um()
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
        while not self.server.stopping.wait(1 / self.server.manner.lines_a_second):
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
        except (OSError, ValueError):
            # Hung up, or closed by the other thread while it was read.
            return


_RESTS = re.compile(r"(?P<what>rests|leaves) (?P<celsius>-?\d{1,3}(?:\.\d+)?)(?: over (?P<over>\d{1,6}(?:\.\d+)?))?")


class SimulatedThermometer(SimulatedGauge):
    """A thermometer on a face: a temperature that creeps towards the room's. [°C]

    ``rests -18`` puts what it is clipped to in the cold or an oven, ``leaves -18 over 210`` takes it out into the room,
    with the time constant that somebody expects [s]; what is hidden is how far off both are: ``off_k``, ``slower``.
    """

    def __init__(
        self, port: int, starts_c: float, room_c: float, seed: int, settles_s: float = 1800.0, off_k: float = 0.0,
        slower: float = 1.0, rests: bool = False, clock: Callable[[], float] = time.monotonic,
    ) -> None:  # fmt: skip
        super().__init__(port, lambda tip: 0.0, 0.0, 1.0, seed, manner=Manner(0.0, 1.0, 2), clock=clock)
        self._starts_c, self._room_c, self._settles_s = starts_c, room_c, settles_s
        self._off_k, self._slower, self._rests = off_k, slower, rests
        self.unit = "C"

    def hear(self, line: str) -> None:
        """Take a line in: besides the mishaps, the key for Fahrenheit, and what it is clipped to rests or leaves."""
        if line.strip() in ("unit C", "unit F"):
            self.unit = line.strip()[-1]
        elif match := _RESTS.fullmatch(line.strip()):
            with self._lock:
                self._starts_c, self._rests = float(match["celsius"]) + self._off_k, match["what"] == "rests"
                self._settles_s = max(1.0, float(match["over"] or 1800.0)) * self._slower
                self._started = self._clock()
        else:
            super().hear(line)

    def say(self) -> str | None:
        """The next line out."""
        with self._lock:
            if self.hushed or self._random.random() < self.dropped:
                return None
            gone = 0.0 if self._rests else 1 - exp(-(self._clock() - self._started) / self._settles_s)
            celsius = self._starts_c + (self._room_c - self._starts_c) * gone + self._random.gauss(0, 0.04)
            shown = celsius if self.unit == "C" else celsius * 9 / 5 + 32
            return f"{shown:.1f} {self.unit}"
