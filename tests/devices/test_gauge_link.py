"""A gauge link against the simulated gauge: live, silent, wrong unit, dead and back again."""

import contextlib
import socketserver
import threading
import time
from collections.abc import Callable, Iterator
from typing import Any
from uuid import UUID, uuid4

import pytest

from vallostasis.demo import ferry_lanthorn as ferry
from vallostasis.devices.gauge_link import (
    GaugeLink,
    LinkNow,
    LinkSettings,
    LinkState,
    is_gauge_address,
)
from vallostasis.devices.link_board import LinkBoard
from vallostasis.devices.simulated_gauge import SimulatedGauge, SimulatedThermometer, Tip, parse_tip
from vallostasis.devices.targets import PRIVATE, NotAllowed, networks, refuse_outside
from vallostasis.services.demo_devices import standing_truth_um

PATIENCE_S = 20


def _serve(port: int = 0) -> SimulatedGauge:
    gauge = SimulatedGauge(port, standing_truth_um, noise_um=0.5, step_um=2, seed=1)
    threading.Thread(target=gauge.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True).start()
    return gauge


@pytest.fixture
def gauge() -> Iterator[SimulatedGauge]:
    gauge = _serve()
    yield gauge
    gauge.shutdown()
    gauge.server_close()


def _settings(gauge: SimulatedGauge, **other: str) -> LinkSettings:
    fields = {"url": f"socket://127.0.0.1:{gauge.server_address[1]}", "line_pattern": "{value} {unit}", "unit": "mm",
              **other}  # fmt: skip
    return LinkSettings(**fields, simulated=True)  # type: ignore[arg-type]


@pytest.fixture
def link(gauge: SimulatedGauge) -> Iterator[GaugeLink]:
    link = GaugeLink(_settings(gauge))
    link.open()
    yield link
    link.close()


def _until(link: GaugeLink, wanted: Callable[[LinkNow], bool]) -> LinkNow:
    deadline = time.monotonic() + PATIENCE_S
    pause = threading.Event()
    while time.monotonic() < deadline:
        now = link.now()
        if wanted(now):
            return now
        pause.wait(0.02)
    raise AssertionError(link.now())


def _live(now: LinkNow) -> bool:
    return now.state is LinkState.LIVE


def test_the_tip_reads_the_hidden_truth_where_it_is_placed(gauge: SimulatedGauge, link: GaugeLink) -> None:
    _until(link, _live)
    link.place_tip("at 5 6h protrusion L6")
    truth = ferry.BLOCK.standing_um(5, 6, True, "L6", None, 0)
    now = _until(link, lambda now: now.value is not None and abs(float(now.value.value_um) - truth) < 6)
    assert now.value is not None
    assert now.value.value_um % 2 == 0, "rounded to the step of the gauge"
    # Cut to 8.898 with a 100 µm shim: flange 8.900 + 0.100 - 8.898, and what the cutter stopped short.
    link.place_tip("at 5 6h protrusion L6 cut 8898 shim 100")
    _until(link, lambda now: now.value is not None and abs(float(now.value.value_um) - 105) < 6)


def test_a_silent_line_is_noticed_and_heard_again(gauge: SimulatedGauge, link: GaugeLink) -> None:
    _until(link, _live)
    gauge.hear("hush")
    silent = _until(link, lambda now: now.state is LinkState.SILENT)
    assert "sends nothing" in silent.message
    gauge.hear("talk")
    _until(link, _live)


def test_the_unit_key_is_noticed(gauge: SimulatedGauge, link: GaugeLink) -> None:
    _until(link, _live)
    gauge.hear("unit inch")
    wrong = _until(link, lambda now: now.state is LinkState.WRONG_UNIT)
    assert "press its unit key" in wrong.message
    gauge.hear("unit mm")
    _until(link, _live)


def test_a_pattern_that_does_not_fit_is_said_with_the_line(gauge: SimulatedGauge) -> None:
    link = GaugeLink(_settings(gauge, line_pattern="01A{value}"))
    link.open()
    try:
        now = _until(link, lambda now: now.state is LinkState.NOT_UNDERSTOOD)
        assert "does not fit its line pattern" in now.message
    finally:
        link.close()


def test_it_survives_death_and_return_of_the_gauge(gauge: SimulatedGauge, link: GaugeLink) -> None:
    _until(link, _live)
    port = gauge.server_address[1]
    gauge.shutdown()
    gauge.server_close()
    _until(link, lambda now: now.state in (LinkState.LOST, LinkState.SILENT))
    again = _serve(port)
    try:
        _until(link, _live)
    finally:
        again.shutdown()
        again.server_close()


def test_a_board_keeps_one_link_for_a_gauge_and_follows_its_settings(gauge: SimulatedGauge) -> None:
    board = LinkBoard()
    from uuid import uuid4

    gauge_id = uuid4()
    try:
        assert board.now(gauge_id) is None
        board.set_up(gauge_id, _settings(gauge))
        first = board._links[gauge_id]
        board.set_up(gauge_id, _settings(gauge))
        assert board._links[gauge_id] is first
        board.set_up(gauge_id, _settings(gauge, line_pattern="{value}{unit}"))
        assert board._links[gauge_id] is not first
        # Nobody waited for it: it hangs up by itself.
        first._thread.join(PATIENCE_S)
        assert not first._thread.is_alive()
    finally:
        board.close()
    assert board.now(gauge_id) is None


@pytest.mark.parametrize(
    ("line", "tip"),
    [
        ("at 5 6h protrusion L6", Tip(5, 6.0, "protrusion", "L6", None, 0.0)),
        ("at 5 10.5h depth cut 8898", Tip(5, 10.5, "depth", "", 8898.0, 0.0)),
        ("at 1 12h protrusion L1 cut 8898 shim 100", Tip(1, 12.0, "protrusion", "L1", 8898.0, 100.0)),
        ("at five", None),
        ("", None),
    ],
)
def test_lines_that_place_the_tip(line: str, tip: Tip | None) -> None:
    assert parse_tip(line) == tip


@pytest.mark.parametrize("url", ["socket://127.0.0.1:8430", "/dev/ttyUSB0", "COM3"])
def test_cables_and_lines_are_addresses(url: str) -> None:
    assert is_gauge_address(url)


@pytest.mark.parametrize(
    "url", ["", "/etc/passwd", "/dev/sda", "spy:///dev/ttyUSB0?file=/tmp/x", "socket://a b:1", "loop://"]
)
def test_nothing_else_is_opened(url: str) -> None:
    assert not is_gauge_address(url)


class _Flood(socketserver.BaseRequestHandler):
    """Says as much as its line takes."""

    def handle(self) -> None:
        with contextlib.suppress(OSError):
            while True:
                self.request.sendall(b"1.234 mm\n" * 1000)


def test_a_flood_is_heard_now_and_then_and_its_last_value_is_known() -> None:
    """What it costs is measured by ./vallo bench."""
    with socketserver.ThreadingTCPServer(("127.0.0.1", 0), _Flood) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        link = GaugeLink(LinkSettings(f"socket://127.0.0.1:{server.server_address[1]}", "{value} {unit}", "mm", True))
        link.open()
        now = _until(link, _live)
        link.close()
        server.shutdown()
    assert now.value is not None
    assert now.value.value_um == 1234


@pytest.mark.parametrize(
    ("url", "allowed"),
    [
        ("socket://127.0.0.1:9", True),
        ("socket://192.168.1.7:9", True),
        ("socket://10.1.2.3:9", True),
        ("/dev/ttyUSB0", True),
        # 192.0.2.0/24 and 198.51.100.0/24 are for documentation, RFC 5737; 172.32.0.0 is no private address.
        ("socket://192.0.2.1:9", False),
        ("socket://172.32.0.1:9", False),
        ("socket://198.51.100.7:443", False),
    ],
)
def test_a_gauge_is_in_the_networks_that_the_owner_allows(url: str, allowed: bool) -> None:
    if allowed:
        refuse_outside(url, networks(PRIVATE))
        return
    with pytest.raises(NotAllowed, match="VALLO_GAUGE_NETWORKS"):
        refuse_outside(url, networks(PRIVATE))
    refuse_outside(url, networks([*PRIVATE, "0.0.0.0/0"]))


def test_a_line_that_leads_outside_is_said_so_and_never_dialled() -> None:
    link = GaugeLink(LinkSettings("socket://192.0.2.1:9", "{value}", "mm", simulated=False))
    link.open()
    assert "VALLO_GAUGE_NETWORKS" in _until(link, lambda now: now.state is LinkState.LOST).message
    link.close()


class Counting(SimulatedThermometer):
    """A thermometer that knows how many read it."""

    readers = 0

    def finish_request(self, request: Any, client_address: Any) -> None:
        """One more, until it hangs up."""
        self.readers += 1
        try:
            super().finish_request(request, client_address)
        finally:
            self.readers -= 1


@pytest.fixture
def thermometers() -> Iterator[list[Counting]]:
    served = [Counting(0, 24.0 + at, 24.0 + at, at) for at in range(4)]
    for one in served:
        threading.Thread(target=one.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True).start()
    yield served
    for one in served:
        one.shutdown()
        one.server_close()


def _until_board(wanted: Callable[[], bool]) -> None:
    deadline = time.monotonic() + PATIENCE_S
    while not wanted():
        assert time.monotonic() < deadline
        threading.Event().wait(0.02)


def test_all_thermometers_share_one_thread_and_one_that_is_dead_holds_up_no_other(
    thermometers: list[Counting],
) -> None:
    board, ids = LinkBoard(), [uuid4() for _ in thermometers]
    dead = uuid4()
    # Nobody listens at the port for discarding, RFC 863.
    board.set_up(dead, LinkSettings("socket://127.0.0.1:9", "{value} {unit}", "°C", simulated=False))
    for one, served in zip(ids, thermometers, strict=True):
        board.set_up(one, _settings(served, unit="°C"))

    def celsius(one: UUID) -> float | None:
        now = board.now(one)
        return None if now is None or now.warmth is None else float(now.warmth.celsius)

    _until_board(lambda: all(celsius(one) is not None for one in ids))
    assert [celsius(one) for one in ids] == pytest.approx([24.0, 25.0, 26.0, 27.0], abs=0.3)
    names = [thread.name for thread in threading.enumerate()]
    assert names.count("thermometers") == 1
    assert not [name for name in names if name.startswith("gauge ")]
    lost = board.now(dead)
    assert lost is not None and lost.state is LinkState.LOST
    board.place_tip(ids[0], "rests 100")
    _until_board(lambda: (celsius(ids[0]) or 0) > 90)
    board.close()
    assert "thermometers" not in [thread.name for thread in threading.enumerate()]


def test_thermometers_that_are_set_up_no_more_are_hung_up_on(thermometers: list[Counting]) -> None:
    board, known, gone = LinkBoard(), uuid4(), uuid4()
    for one, served in zip((known, gone), thermometers[:2], strict=True):
        board.set_up(one, _settings(served, unit="°C"))

    def readers() -> list[int]:
        return [served.readers for served in thermometers[:2]]

    _until_board(lambda: readers() == [1, 1])
    board.keep_thermometers({known})
    assert board.now(gone) is None
    _until_board(lambda: readers() == [1, 0])
    board.close()
    _until_board(lambda: readers() == [0, 0])
