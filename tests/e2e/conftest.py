"""The real built front end in a headless Chromium, served with a database of its own for each test."""

import contextlib
import os
import re
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from dataclasses import dataclass

import psycopg
import pytest
from fastapi import FastAPI
from playwright.sync_api import Browser, Locator, Page, expect, sync_playwright

from tests.conftest import application
from tests.ports import DEVICES, free_ports
from vallostasis.machine.packages import ROOT
from vallostasis.machine.serving import Server
from vallostasis.services.demo_devices import demo_devices
from vallostasis.services.demo_loading import link_demo_gauge
from vallostasis.settings import Settings

CHROMIUM = "/usr/bin/chromium-headless-shell"
# A loaded two-core machine may take its time; a test that passes never waits for it.
PATIENCE_MS = 60_000
START_SECONDS = 30


# The browser writes every refused or lost request to its console; those answers are what some tests ask for.
_EXPECTED = re.compile("status of 4|ERR_INTERNET_DISCONNECTED")


@contextlib.contextmanager
def serving(dsn: str, host: str = "127.0.0.1", port: int = 0) -> Iterator[str]:
    """The application, on a free port where none is named; gives its address at this machine."""
    with application(Settings(dsn=dsn, host=host)) as app:
        yield from _served(app, host, port)


def _served(app: FastAPI, host: str, port: int) -> Iterator[str]:
    server = Server(app, host=host, port=port, log_level="error")
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    deadline = time.monotonic() + START_SECONDS
    while not server.started and thread.is_alive() and time.monotonic() < deadline:
        thread.join(0.02)
    assert server.started
    try:
        yield f"http://127.0.0.1:{server.port}"
    finally:
        server.should_exit = True
        thread.join()


def tick_ready(form: Locator) -> None:
    """Everything that is looked at before a liner goes in."""
    for box in form.get_by_role("checkbox").all():
        box.check()


def unfold(page: Page, section: str) -> None:
    """Open a part of a spec card that is not asked first."""
    page.locator("summary", has_text=section).click()


@pytest.fixture
def address(demo_dsn: str) -> Iterator[str]:
    with serving(demo_dsn) as address:
        yield address


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        expect.set_options(timeout=PATIENCE_MS)
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox", "--disable-gpu"])
        yield browser
        browser.close()


@contextlib.contextmanager
def screen(browser: Browser, address: str, *, newcomer: bool = False, keeps_pages: bool = False) -> Iterator[Page]:
    """A browser of its own, of somebody who was here before unless a newcomer is asked for.

    It keeps pages for when the link is down only where that is looked at: keeping takes longer than most tests.
    """
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=address, accept_downloads=True,
                                  service_workers="allow" if keeps_pages else "block")  # fmt: skip
    if not newcomer:
        context.add_init_script("try { localStorage.setItem('vallo-welcome', 'done') } catch {}")
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    yield page
    context.close()


@pytest.fixture
def page(browser: Browser, address: str) -> Iterator[Page]:
    """A fresh browser that is nowhere yet: most tests go elsewhere. An error on its console fails the test."""
    with screen(browser, address) as page, _nothing_goes_wrong(page, address):
        yield page


@contextlib.contextmanager
def _nothing_goes_wrong(page: Page, address: str) -> Iterator[None]:
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    page.on("console", lambda m: errors.append(m.text) if m.type == "error" and not _EXPECTED.search(m.text) else None)
    outside: list[str] = []
    page.on("request", lambda r: outside.append(r.url) if not r.url.startswith((address, "data:", "blob:")) else None)
    yield
    assert errors == []
    assert outside == []


def step_on_pedal(page: Page, key: str, taken: str) -> None:
    """Step on the pedal until it takes: where a loaded machine let the gauge fall silent, the screen says so."""
    while True:
        expect(page.get_by_role("button", name="Take", exact=True)).to_be_enabled()
        page.keyboard.press(key)
        said = page.get_by_label("Taken")
        expect(said).to_contain_text(re.compile(f"{re.escape(taken)}|not taken"))
        if "not taken" not in said.inner_text():
            return


@dataclass
class BlockView:
    """The block view as a person sees it."""

    page: Page

    def open(self, hole: int | None = None) -> "BlockView":
        if self.page.url == "about:blank":
            self.page.goto("/")
        self.page.get_by_role("link", name="Ferry Lanthorn", exact=True).click()
        expect(self.page.locator("#entry")).to_be_visible()
        if hole is not None:
            self.type(f"#{hole}")
        return self

    def type(self, text: str) -> None:
        """Type on the line and take it; the line is empty once it is taken."""
        self.page.locator("#entry").fill(text)
        self.page.locator("#entry").press("Enter")
        expect(self.page.locator("#entry")).to_have_value("")

    def expect_state(self, hole: int, state: str) -> None:
        expect(self.page.get_by_role("button", name=f"Hole {hole}: {state}")).to_be_visible()

    def expect_marks(self, hole: int, count: int) -> None:
        ring = self.page.locator(f"[data-hole='{hole}']")
        expect(ring.locator("[data-mark]")).to_have_count(count)


@pytest.fixture
def block(page: Page) -> BlockView:
    return BlockView(page)


@dataclass
class GaugeProcess:
    """The simulated gauge as a process of its own, at a port that stays the same."""

    port: int
    process: subprocess.Popen[str] | None = None

    def start(self) -> None:
        command = [sys.executable, "-m", "vallostasis.cli", "gauge", "--port", str(self.port)]
        self.process = subprocess.Popen(command, cwd=ROOT, stdout=subprocess.PIPE, text=True)
        assert self.process.stdout is not None
        assert "talk at" in self.process.stdout.readline()

    def kill(self) -> None:
        if self.process is not None:
            os.kill(self.process.pid, signal.SIGKILL)
            self.process.communicate()
            self.process = None


@pytest.fixture
def gauge_process(demo_dsn: str) -> Iterator[GaugeProcess]:
    """The devices as a process that can be killed."""
    gauge = GaugeProcess(free_ports(DEVICES))
    with psycopg.connect(demo_dsn) as conn:
        link_demo_gauge(conn, gauge.port)
    gauge.start()
    yield gauge
    with contextlib.suppress(ProcessLookupError):
        gauge.kill()


@pytest.fixture
def gauge(demo_dsn: str) -> Iterator[int]:
    """The devices in this process, which starts them at once; gives the first of their ports."""
    port = free_ports(DEVICES)
    devices = demo_devices(port, seed=3)
    for device in devices:
        threading.Thread(target=device.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True).start()
    with psycopg.connect(demo_dsn) as conn:
        link_demo_gauge(conn, port)
    yield port
    for device in devices:
        device.shutdown()
        device.server_close()
