"""One gauge on a line: a thread that keeps the connection, reads lines, and knows the last value.

Real gauges and the simulated one are read the same way, by any address that pyserial opens:
``/dev/ttyUSB0`` for a cable, ``socket://127.0.0.1:8430`` for a line over TCP. The thread survives
death and return of the gauge; what is wrong is a state with a sentence, never a silent gap.
"""

import contextlib
import re
import select
import socket
import threading
import time
from collections import deque
from collections.abc import Callable, Generator, Sequence
from concurrent.futures import Executor, Future
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Literal, TypeVar

import serial

from vallostasis.core.errors import NotationError
from vallostasis.core.notation.gauge_line import (
    GaugeValue,
    ThermometerValue,
    WrongUnit,
    compile_pattern,
    read_gauge_line,
    read_thermometer_line,
)
from vallostasis.core.notation.lengths import Unit
from vallostasis.devices.targets import PRIVATE, Network, networks, refuse_outside

BAUD = 9600
# A gauge that streams is silent when this long nothing came. [s]
SILENT_AFTER_S = 1.5
RECONNECT_S = 0.3
READ_TIMEOUT_S = 0.2
# The other end of a line over TCP may be gone without having hung up: dial again. [s]
DIAL_AGAIN_AFTER_S = 5.0
# A gauge says some ten bytes thirty times a second. Whatever floods the line is read at most so much at a time.
CHUNK_BYTES = 4096
FLOOD_PAUSE_S = 0.1
ALLOWED = networks(PRIVATE)
# A minute of a gauge that speaks thirty times a second.
STREAM_VALUES = 1800
Outcome = TypeVar("Outcome")
# What is done a turn at a time, and what comes of it.
Turns = Generator[None, None, Outcome]
_ADDRESS = re.compile(r"socket://[A-Za-z0-9.\-]{1,60}:\d{1,5}|/dev/tty[A-Za-z0-9]{1,20}|COM\d{1,3}")


class LinkState(StrEnum):
    """How a gauge link stands."""

    CONNECTING = "connecting"
    LIVE = "live"
    SILENT = "silent"
    LOST = "lost"
    NOT_UNDERSTOOD = "not understood"
    WRONG_UNIT = "wrong unit"


@dataclass(frozen=True, slots=True)
class LinkSettings:
    """Where a gauge sends its lines and how they are written."""

    url: str
    line_pattern: str
    unit: Unit | Literal["°C"]
    simulated: bool


@dataclass(frozen=True, slots=True)
class LinkNow:
    """State of a link with a sentence, the last value understood, and how old it is. [s]"""

    state: LinkState
    message: str
    value: GaugeValue | None
    age_s: float | None
    warmth: ThermometerValue | None = None


def _hang_up(dialled: "Future[serial.Serial]") -> None:
    if dialled.exception() is None:
        dialled.result().close()


def is_gauge_address(url: str) -> bool:
    """Whether an address is one of a cable or of a line over TCP; nothing else is opened."""
    return _ADDRESS.fullmatch(url) is not None


class GaugeLink:
    """Keeps one gauge connected until it is closed."""

    def __init__(
        self,
        settings: LinkSettings,
        clock: Callable[[], float] = time.monotonic,
        allowed: Sequence[Network] = ALLOWED,
    ) -> None:
        self.settings = settings
        self._allowed = allowed
        self._pattern = compile_pattern(settings.line_pattern)
        self._clock = clock
        self._lock = threading.Lock()
        self._now = LinkNow(LinkState.CONNECTING, f"connecting to {settings.url}", None, None)
        self._value_at = 0.0
        self._stream: deque[tuple[float, GaugeValue]] = deque(maxlen=STREAM_VALUES)
        self._port: serial.Serial | None = None
        self._closed = threading.Event()
        self._thread = threading.Thread(target=self._run, name=f"gauge {settings.url}", daemon=True)

    def open(self) -> None:
        """Start reading."""
        self._thread.start()

    def stop(self) -> None:
        """Stop reading as soon as the line lets go."""
        self._closed.set()

    def close(self) -> None:
        """Stop reading and hang up."""
        self.stop()
        if self._thread.is_alive():
            self._thread.join(timeout=5)

    def now(self) -> LinkNow:
        """State and last value; a streaming gauge that has said nothing for a while is silent."""
        with self._lock:
            nothing = self._now.value is None and self._now.warmth is None
            age = None if nothing else self._clock() - self._value_at
            now = replace(self._now, age_s=age)
        if now.state is LinkState.LIVE and age is not None and age > SILENT_AFTER_S:
            return replace(now, state=LinkState.SILENT, message="The gauge sends nothing: is it on, is its cable in?")
        return now

    def values_since(self, seconds: float) -> list[tuple[float, GaugeValue]]:
        """Return what came during the last seconds, each with when it came on the link's own clock. [s]"""
        with self._lock:
            after = self._clock() - seconds
            return [(at, value) for at, value in self._stream if at >= after]

    def place_tip(self, line: str) -> None:
        """Tell a simulated gauge where its tip stands; a real one is placed by hand."""
        with self._lock:
            port = self._port
        if self.settings.simulated and port is not None:
            try:
                port.write(f"{line}\n".encode())
            except (serial.SerialException, OSError):
                self._say(LinkState.LOST, "The gauge hung up.")

    def _run(self) -> None:
        for _ in self.turns(READ_TIMEOUT_S):
            pass

    def turns(self, patience_s: float, aside: Executor | None = None) -> Turns[None]:
        """Dial, read and dial again, a turn at a time, each waiting for the line no longer than this. [s]

        A thread of its own lets each turn wait; where many links share a thread none does, and dialling is done aside.
        """
        while not self._closed.is_set():
            try:
                refuse_outside(self.settings.url, self._allowed)
                with (yield from self._dialled(patience_s, aside)) as port:
                    with self._lock:
                        self._port = port
                    # pyserial leaves the socket of a line open when its other end hung up first.
                    with getattr(port, "_socket", None) or contextlib.nullcontext():
                        yield from self._read_lines(port, patience_s)
            except (serial.SerialException, OSError, ValueError) as error:
                self._say(LinkState.LOST, f"No gauge at {self.settings.url}: {error}")
            with self._lock:
                self._port = None
            yield from self._pause(RECONNECT_S, patience_s)

    def _dialled(self, patience_s: float, aside: Executor | None) -> Turns[serial.Serial]:
        if aside is None:
            return serial.serial_for_url(self.settings.url, baudrate=BAUD, timeout=patience_s)
        dialling = aside.submit(serial.serial_for_url, self.settings.url, baudrate=BAUD, timeout=patience_s)
        try:
            while not dialling.done():
                yield
        except GeneratorExit:
            # Nobody waits for it any more: it hangs up as soon as it is through.
            dialling.add_done_callback(_hang_up)
            raise
        return dialling.result()

    def _pause(self, seconds: float, patience_s: float) -> Turns[None]:
        until = self._clock() + seconds
        while not self._closed.is_set() and self._clock() < until:
            if patience_s > 0:
                self._closed.wait(seconds)
            yield

    def _read_lines(self, port: serial.Serial, patience_s: float) -> Turns[None]:
        pending = b""
        heard_at = self._clock()
        while not self._closed.is_set():
            came = self._some(port, patience_s)
            if len(came) >= CHUNK_BYTES:
                # No gauge says as much: it is heard now and then, and its line stays full.
                yield from self._pause(FLOOD_PAUSE_S, patience_s)
            heard_at = self._clock() if came else heard_at
            if self.settings.url.startswith("socket:") and self._clock() - heard_at > DIAL_AGAIN_AFTER_S:
                return
            pending += came
            *lines, pending = pending[-CHUNK_BYTES:].replace(b"\r", b"\n").split(b"\n")
            for line in lines:
                if line.strip():
                    self._take(line.decode("ascii", errors="replace").strip())
            yield

    @staticmethod
    def _some(port: serial.Serial, patience_s: float) -> bytes:
        """What came, at once where there is something: a line over TCP is not read byte by byte."""
        line: socket.socket | None = getattr(port, "_socket", None)
        if line is None:
            came: bytes = port.read(min(CHUNK_BYTES, max(1, port.in_waiting)))
            return came
        # Unlike select, poll knows no bound on how many files a process has open.
        ready = select.poll()
        ready.register(line, select.POLLIN)
        if not ready.poll(patience_s * 1000):
            return b""
        came = line.recv(CHUNK_BYTES)
        if not came:
            raise serial.SerialException("it hung up")
        return came

    def _take(self, line: str) -> None:
        unit = self.settings.unit
        try:
            if unit == "°C":
                self._heard(LinkNow(LinkState.LIVE, "", None, None, read_thermometer_line(line, self._pattern)))
            else:
                self._heard(LinkNow(LinkState.LIVE, "", read_gauge_line(line, self._pattern, unit), None))
        except WrongUnit as wrong:
            self._say(LinkState.WRONG_UNIT, str(wrong))
        except NotationError as strange:
            self._say(LinkState.NOT_UNDERSTOOD, str(strange))

    def _heard(self, now: LinkNow) -> None:
        with self._lock:
            self._value_at, self._now = self._clock(), now
            if now.value is not None:
                self._stream.append((self._value_at, now.value))

    def _say(self, state: LinkState, message: str) -> None:
        with self._lock:
            self._now = replace(self._now, state=state, message=message)
