"""On the shop's network: pairing a device, the link cut and back, two benches that see each other."""

import re
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import BlockView, screen, serving
from tests.ports import free_ports
from vallostasis.machine.addresses import reached_at


class Wire:
    """The application at a port that stays the same, which can be cut off and brought back."""

    def __init__(self, dsn: str, host: str = "127.0.0.1") -> None:
        self.dsn, self.host, self.port = dsn, host, free_ports(host="0.0.0.0")
        self._running = ExitStack()

    def up(self) -> "Wire":
        self._running.enter_context(serving(self.dsn, self.host, self.port))
        return self

    def cut(self) -> None:
        self._running.close()
        self._running = ExitStack()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    @property
    def network_address(self) -> str:
        return reached_at(self.host, self.port)[0]


@pytest.fixture
def wire(demo_dsn: str) -> Iterator[Wire]:
    wire = Wire(demo_dsn).up()
    yield wire
    wire.cut()


@contextmanager
def _screen(browser: Browser, address: str) -> Iterator[Page]:
    with screen(browser, address, keeps_pages=True) as page:
        page.goto("/")
        yield page


def _open_bench(page: Page) -> None:
    page.get_by_role("link", name="Ferry Lanthorn", exact=True).click()
    expect(page.locator("#entry")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("b")
    expect(page.get_by_role("region", name="Now")).to_be_visible()


def _type_at_bench(page: Page, hole: int, hour: int, text: str) -> None:
    expect(page.get_by_role("heading", name=f"Hole {hole} at {hour} h")).to_be_visible()
    page.get_by_label("Type a reading").fill(text)
    page.get_by_label("Type a reading").press("Enter")
    expect(page.get_by_label("Type a reading")).to_have_value("")


def test_readings_wait_while_the_link_is_down_also_over_a_reload(browser: Browser, wire: Wire) -> None:
    with _screen(browser, wire.address) as page:
        _open_bench(page)
        page.get_by_role("button", name="Measure the whole block anew, zero the gauge first").click()
        _type_at_bench(page, 1, 12, "8.1")
        # The worker keeps the pages once it has all of them; only then may the link go.
        page.evaluate("navigator.serviceWorker.ready")
        wire.cut()
        expect(page.get_by_label("Link")).to_contain_text("Out of reach")
        _type_at_bench(page, 1, 3, "8.2")
        _type_at_bench(page, 1, 6, "8.3")
        expect(page.locator("[data-waiting]")).to_have_count(2)
        # What waits can be taken back before it was ever recorded.
        _type_at_bench(page, 1, 9, "9.9")
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("[data-waiting]")).to_have_count(2)
        # It is to be read again in this pass: the bench stands there, also after a reload.
        expect(page.get_by_role("heading", name="Hole 1 at 9 h")).to_be_visible()
        page.reload()
        expect(page.get_by_role("heading", name="Hole 1 at 9 h")).to_be_visible()
        expect(page.locator("[data-waiting]")).to_have_text(["1·6h 8.3", "1·3h 8.2"][::-1])
        _type_at_bench(page, 1, 9, "8.4")
        _type_at_bench(page, 2, 12, "7.7")
        expect(page.get_by_label("Taken")).to_contain_text("7.7, waiting for the link")
        wire.up()
        expect(page.get_by_label("Link")).to_have_count(0)
        expect(page.get_by_label("Taken")).to_contain_text("7.7, sent")
        block = page.request.get(f"/api/jobs/{page.url.split('/jobs/')[1].split('/')[0]}/block").json()
    taken = [(row["hole"], row["hour"], row["typed"]) for row in block["readings"]][-5:]
    assert taken == [(1, 12, "8.1"), (1, 3, "8.2"), (1, 6, "8.3"), (1, 9, "8.4"), (2, 12, "7.7")]
    # The waiting ones went into the same new pass, and carry the time at which they were taken.
    rows = block["readings"][-5:]
    assert len({row["set_id"] for row in rows[:4]}) == 1
    assert [row["taken_at"] for row in rows] == sorted(row["taken_at"] for row in rows)


def test_a_question_about_a_waiting_reading_holds_the_rest_back(browser: Browser, wire: Wire) -> None:
    with _screen(browser, wire.address) as page:
        block = BlockView(page).open(1)
        wire.cut()
        expect(page.get_by_label("Link")).to_contain_text("Out of reach")
        block.type("1 12h 8.5")
        block.type("1 4.5h 8.6")
        expect(page.locator("[data-waiting]")).to_have_count(2)
        wire.up()
        link = page.get_by_label("Link")
        expect(link).to_contain_text("Hole 1 at 12h was read before")
        expect(page.locator("[data-waiting]")).to_have_count(2)
        link.get_by_role("button", name="Correct it: strike the first").click()
        expect(link).to_have_count(0)
        page.get_by_role("button", name="Tape").click()
        tape = page.get_by_role("region", name="Tape").get_by_role("listitem")
        expect(tape.nth(0)).to_contain_text("8.6")
        expect(tape.nth(1)).to_contain_text("8.5")


def test_two_benches_see_each_other_through_two_applications(browser: Browser, wire: Wire) -> None:
    with (
        serving(wire.dsn) as other,
        _screen(browser, wire.address) as first,
        _screen(browser, other) as second,
    ):
        here, there = BlockView(first).open(1), BlockView(second).open(1)
        here.type("1 4.5h 8.6")
        there.expect_marks(1, 5)
        there.type("1 7.5h 8.7")
        here.expect_marks(1, 6)
        # A wait that one of them ends is gone from the rule of both.
        expect(first.get_by_label("Route")).to_contain_text("waits: Wren for the cutter")
        second.get_by_label("Route").get_by_role("link", name=re.compile("Cut")).click()
        second.get_by_role("button", name="It is here").click()
        expect(first.get_by_label("Route")).not_to_contain_text("waits")


def test_a_device_is_let_in_by_a_code_and_signed_out(browser: Browser, demo_dsn: str) -> None:
    wire = Wire(demo_dsn, "0.0.0.0").up()
    try:
        with _screen(browser, wire.address) as machine, _screen(browser, wire.network_address) as phone:
            expect(phone.get_by_role("heading", name="Let this device in")).to_be_visible()
            # It is let in by a code: nobody tells it to wait for the link.
            expect(phone.get_by_label("Link")).to_have_count(0)
            machine.goto("/shop")
            machine.get_by_role("button", name="Let a device in").click()
            code = machine.locator("[data-code]").inner_text()
            phone.get_by_label("Code").fill("2222-2222")
            phone.get_by_role("button", name="Let it in").click()
            expect(phone.get_by_text("That code lets nobody in")).to_be_visible()
            phone.get_by_label("Code").fill(code)
            phone.get_by_label("Name of this device").fill("Tablet at the mill")
            phone.get_by_role("button", name="Let it in").click()
            # Over plain http the page has no worker and no id maker of its own: readings are taken all the same.
            BlockView(phone).open(1).type("1 4.5h 8.6")
            BlockView(phone).expect_marks(1, 5)
            expect(machine.get_by_text("Tablet at the mill")).to_be_visible()
            machine.get_by_role("button", name="Sign out").click()
            expect(machine.get_by_text("No other device is let in.")).to_be_visible()
            # It is told so by itself, and not to wait for the link.
            expect(phone.get_by_role("heading", name="Let this device in")).to_be_visible()
    finally:
        wire.cut()


def test_without_a_worker_the_page_says_not_to_reload(browser: Browser, demo_dsn: str) -> None:
    wire = Wire(demo_dsn, "0.0.0.0").up()
    try:
        with _screen(browser, wire.address) as machine, _screen(browser, wire.network_address) as phone:
            made = machine.request.post("/api/network/codes").json()
            phone.goto(f"/pair#{made['code']}")
            phone.get_by_role("button", name="Let it in").click()
            expect(phone.get_by_role("link", name="Ferry Lanthorn", exact=True)).to_be_visible()
            wire.cut()
            expect(phone.get_by_label("Link")).to_contain_text("Do not reload or close this page")
    finally:
        wire.cut()
