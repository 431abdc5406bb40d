"""At the door in a browser: a customer's link, signing in by name, what is the owner's."""

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import screen, serving
from tests.ports import free_ports
from vallostasis.machine.addresses import reached_at

SENTENCE = "nine tenths on a warm morning"


@pytest.fixture
def port(demo_dsn: str) -> Iterator[int]:
    """The port of an application that the whole network reaches."""
    port = free_ports(host="0.0.0.0")
    with serving(demo_dsn, "0.0.0.0", port):
        yield port


def _proof_of_the_ferry(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Ferry Lanthorn", exact=True).click()
    page.get_by_role("link", name="Proof", exact=True).click()
    expect(page.get_by_role("heading", level=1, name="Proof sheet")).to_be_visible()


def test_a_customer_reads_one_proof_by_a_link_and_nothing_else(browser: Browser, port: int) -> None:
    network = reached_at("0.0.0.0", port)[0]
    with screen(browser, f"http://127.0.0.1:{port}") as owner, screen(browser, network) as customer:
        _proof_of_the_ferry(owner)
        owner.get_by_role("button", name="Link for the customer").click()
        form = owner.get_by_role("region", name="A link for the customer")
        expect(form.get_by_label("For", exact=True)).to_have_value("Basin Ferry Trust")
        form.get_by_label("Good for").fill("0")
        form.get_by_role("button", name="Make the link").click()
        expect(form.get_by_text("This must be at least 1.")).to_be_visible()
        form.get_by_label("Good for").fill("7")
        form.get_by_role("button", name="Make the link").click()
        token = owner.locator("[data-link]").inner_text().partition("#")[2]
        customer.goto(f"/read#{token}")
        expect(customer.get_by_role("heading", name="Proof of job 26-031, Ferry Lanthorn")).to_be_visible()
        expect(customer.frame_locator("iframe").get_by_role("heading", name="Proof of the job")).to_be_visible()
        # The key stands in the address no longer; wherever else the address leads, the proof is read.
        expect(customer).to_have_url(re.compile("/read$"))
        customer.goto("/")
        expect(customer.get_by_role("heading", name="Proof of job 26-031, Ferry Lanthorn")).to_be_visible()
        owner.goto("/shop")
        owner.get_by_role("region", name="Links of customers").get_by_role("button", name="End it").click()
        expect(owner.get_by_role("region", name="Links of customers")).to_have_count(0)
        customer.reload()
        expect(customer.get_by_text("The link has ended")).to_be_visible()


def test_from_the_first_password_on_whoever_comes_in_says_who_it_is(browser: Browser, address: str) -> None:
    with screen(browser, address) as owner, screen(browser, address) as bench:
        owner.goto("/shop")
        form = owner.get_by_role("region", name="Signing in")
        for person, role in (("Ines", "owner"), ("Wren", "machinist")):
            form.get_by_label("Password of").select_option(label=person)
            form.get_by_label("as", exact=True).select_option(role)
            form.get_by_label("Password, a sentence").fill(f"{SENTENCE}, {role}")
            form.get_by_role("button", name="Set the password").click()
            expect(form.get_by_text(person).locator("visible=true").first).to_be_visible()
            expect(form.get_by_label("Password, a sentence")).to_have_value("")
        bench.goto("/cards")
        expect(bench.get_by_role("heading", name="Who is it?")).to_be_visible()
        bench.get_by_label("Name", exact=True).select_option(label="Wren")
        bench.get_by_label("Password", exact=True).fill("not that one")
        bench.keyboard.press("Enter")
        expect(bench.get_by_text("Name and password do not go together.")).to_be_visible()
        bench.get_by_label("Password", exact=True).fill(f"{SENTENCE}, machinist")
        bench.keyboard.press("Enter")
        # Signed in, it is where it was going, under Wren's name; what is the owner's is not shown.
        expect(bench).to_have_url(re.compile(r"^[^?]*/cards$"))
        bench.goto("/shop")
        expect(bench.get_by_role("heading", name="Your password")).to_be_visible()
        expect(bench.get_by_role("region", name="Signing in")).to_have_count(0)
        bench.get_by_role("button", name="Wren", exact=True).click()
        bench.get_by_role("menuitem", name="Sign out").click()
        expect(bench.get_by_role("heading", name="Who is it?")).to_be_visible()
