"""What one device may keep open: a head that never comes, a body that trickles, too many connections and streams."""

import asyncio
import contextlib
import socket
import threading
from collections.abc import Iterator

import pytest

from tests.alone import run_alone
from vallostasis.api.guards import BodyLimit
from vallostasis.machine.bounded_protocol import BoundedProtocol
from vallostasis.machine.serving import Server
from vallostasis.main import create_app
from vallostasis.services.change_feed import MOST_OF_ONE_DEVICE, ChangeFeed
from vallostasis.settings import Settings

PATIENCE_S = 60


@pytest.fixture
def port(empty_dsn: str) -> Iterator[int]:
    server = Server(create_app(Settings(dsn=empty_dsn)), host="127.0.0.1", port=0, log_level="critical")
    thread = threading.Thread(target=server.run)
    thread.start()
    while not server.started:
        thread.join(0.02)
    try:
        yield server.port
    finally:
        server.should_exit = True
        thread.join()


def _ask(port: int, request: bytes) -> socket.socket:
    line = socket.create_connection(("127.0.0.1", port), timeout=PATIENCE_S)
    line.sendall(request)
    return line


def _all_of(line: socket.socket) -> bytes:
    """What comes until the other end hangs up."""
    said = b""
    with line, contextlib.suppress(ConnectionResetError):
        while some := line.recv(4096):
            said += some
    return said


WHOLE = b"GET /healthz HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n"


def test_no_header_says_what_serves(port: int) -> None:
    said = _all_of(_ask(port, WHOLE))
    assert said.startswith(b"HTTP/1.1 200")
    assert b"\r\nserver:" not in said.lower()


@pytest.mark.parametrize("begun", [b"", b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: "])
def test_a_head_that_does_not_come_is_hung_up_on(port: int, begun: bytes, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(BoundedProtocol, "HEAD_WITHIN_S", 0.2)
    assert _all_of(_ask(port, begun)) == b""
    assert _all_of(_ask(port, WHOLE)).startswith(b"HTTP/1.1 200")


def test_a_body_that_trickles_is_refused(port: int, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(BodyLimit, "WITHIN_S", 0.2)
    head = b"POST /api/people HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 40\r\n"
    said = _all_of(_ask(port, head + b"Connection: close\r\n\r\n{"))
    assert said.startswith(b"HTTP/1.1 408")
    assert b'"code":"too slow"' in said


def test_a_device_has_so_many_connections_and_no_more(port: int, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(BoundedProtocol, "MOST_OF_ONE_DEVICE", 3)
    held = [_ask(port, b"GET / HTTP/1.1\r\n") for _ in range(3)]
    assert _all_of(_ask(port, WHOLE)) == b""
    for line in held:
        line.close()
    while not (said := _all_of(_ask(port, WHOLE))):
        pass
    assert said.startswith(b"HTTP/1.1 200")


def test_of_one_device_the_newest_streams_stay_open(empty_dsn: str) -> None:
    async def run() -> tuple[list[bool], int]:
        feed = ChangeFeed(empty_dsn)
        feed.open()
        ended = []

        async def listen(at: int) -> None:
            async for _ in feed.changes("phone"):
                pass
            ended.append(at)

        screens = []
        for at in range(MOST_OF_ONE_DEVICE + 2):
            screens.append(asyncio.create_task(listen(at)))
            await asyncio.sleep(0)
        await asyncio.wait(screens, return_when=asyncio.FIRST_COMPLETED)
        while len(ended) < 2:
            await asyncio.sleep(0)
        first = sorted(ended)
        feed.close()
        await asyncio.gather(*screens)
        return first == [0, 1], len(ended)

    assert run_alone(run()) == (True, MOST_OF_ONE_DEVICE + 2)
