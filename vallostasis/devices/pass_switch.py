"""A switch at the cutter that ends a pass: a line over cable or TCP that says ``pass`` each time it is pressed.

Whatever else it says, such as ``ready``, shows that the line is alive. Kept connected as a gauge is.
"""

from dataclasses import dataclass, replace

from vallostasis.devices.gauge_link import GaugeLink, LinkNow, LinkSettings, LinkState
from vallostasis.devices.simulated_gauge import Manner, SimulatedGauge

SAYS_PASS = "pass"
PRESS = "press"
# A simulated switch speaks that often, so that a press is heard at once.
LINES_A_SECOND = 10


@dataclass(frozen=True, slots=True)
class SwitchNow:
    """How the line of a switch stands, and how often it was pressed since it was opened."""

    state: LinkState
    message: str
    taps: int


class PassSwitch(GaugeLink):
    """Counts the presses of one switch until it is closed."""

    def __init__(self, url: str, simulated: bool) -> None:
        super().__init__(LinkSettings(url, "{value}", "mm", simulated))
        self._taps = 0

    def _take(self, line: str) -> None:
        with self._lock:
            self._taps += line.strip().casefold().startswith(SAYS_PASS)
        self._heard(LinkNow(LinkState.LIVE, "", None, None))

    def switch_now(self) -> SwitchNow:
        """State of the line, and presses so far."""
        now = self.now()
        with self._lock:
            return SwitchNow(now.state, now.message.replace("gauge", "switch"), self._taps)

    def press(self) -> None:
        """Press a simulated switch; a real one is pressed by hand."""
        self.place_tip(PRESS)


class SimulatedSwitch(SimulatedGauge):
    """A switch that is pressed by being told so."""

    def __init__(self, port: int, seed: int) -> None:
        super().__init__(port, lambda tip: 0.0, 0.0, 1.0, seed, manner=Manner(0.0, 1.0, LINES_A_SECOND))
        self._pressed = 0

    def hear(self, line: str) -> None:
        """Take a line in: besides the mishaps, a press."""
        if line.strip() == PRESS:
            with self._lock:
                self._pressed += 1
        else:
            super().hear(line)

    def say(self) -> str | None:
        """The next line out."""
        with self._lock:
            if self.hushed or self._random.random() < self.dropped:
                return None
            if self._pressed == 0:
                return "ready"
            self._pressed -= 1
            return SAYS_PASS


def is_same(switch: PassSwitch | None, url: str, simulated: bool) -> bool:
    """Whether a switch that is open is the one that is set up."""
    return switch is not None and switch.settings == replace(switch.settings, url=url, simulated=simulated)
