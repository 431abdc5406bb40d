"""All gauge links of one running application, by gauge."""

import threading
from collections.abc import Container, Sequence
from uuid import UUID

from vallostasis.core.notation.gauge_line import GaugeValue
from vallostasis.devices.gauge_link import ALLOWED, GaugeLink, LinkNow, LinkSettings
from vallostasis.devices.link_round import LinkRound
from vallostasis.devices.pass_switch import PassSwitch, is_same
from vallostasis.devices.targets import Network


class LinkBoard:
    """Opens and closes links as they are set up: a thread for each gauge, one for all thermometers."""

    def __init__(self, allowed: Sequence[Network] = ALLOWED) -> None:
        self._allowed = allowed
        self._links: dict[UUID, GaugeLink] = {}
        self._thermometers = LinkRound()
        self._switch: PassSwitch | None = None
        self._lock = threading.Lock()

    def set_up(self, gauge_id: UUID, settings: LinkSettings) -> None:
        """Read a gauge by these settings from now on; the same settings keep the link that is open."""
        with self._lock:
            present = self._links.get(gauge_id)
            if present is not None and present.settings == settings:
                return
            link = GaugeLink(settings, allowed=self._allowed)
            self._links[gauge_id] = link
        if present is not None:
            # It hangs up by itself: whoever changes a link does not wait for it.
            present.stop()
        if settings.unit == "°C":
            self._thermometers.take_in(link)
        else:
            link.open()

    def keep_thermometers(self, known: Container[UUID]) -> None:
        """Hang up on thermometers that are set up no more."""
        with self._lock:
            gone = [one for one, link in self._links.items() if link.settings.unit == "°C" and one not in known]
            links = [self._links.pop(one) for one in gone]
        for link in links:
            link.stop()

    def now(self, gauge_id: UUID) -> LinkNow | None:
        """How a link stands; None where the gauge has none."""
        with self._lock:
            link = self._links.get(gauge_id)
        return None if link is None else link.now()

    def values_since(self, gauge_id: UUID, seconds: float) -> list[tuple[float, GaugeValue]]:
        """Return what a gauge said during the last seconds, each with when it came. [s]"""
        with self._lock:
            link = self._links.get(gauge_id)
        return [] if link is None else link.values_since(seconds)

    def place_tip(self, gauge_id: UUID, line: str) -> None:
        """Tell a simulated gauge where its tip stands."""
        with self._lock:
            link = self._links.get(gauge_id)
        if link is not None:
            link.place_tip(line)

    def switch(self, url: str, simulated: bool) -> PassSwitch:
        """Return the switch at an address, listened to from now on; another one is hung up."""
        with self._lock:
            present = self._switch
            if present is not None and is_same(present, url, simulated):
                return present
            found = self._switch = PassSwitch(url, simulated)
        if present is not None:
            present.close()
        found.open()
        return found

    def close(self) -> None:
        """Hang up everywhere."""
        with self._lock:
            links = list(self._links.values())
            if self._switch is not None:
                links.append(self._switch)
            self._links.clear()
            self._switch = None
        # All are told first: a line that is being dialled lets go only after a while.
        for link in links:
            link.stop()
        self._thermometers.close()
        for link in links:
            link.close()
