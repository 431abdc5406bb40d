"""A first visit is shown the invented block; an empty shop says what to do first."""

from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import BlockView, screen, serving


def test_a_first_visit_is_led_to_the_invented_block(browser: Browser, address: str) -> None:
    with screen(browser, address, newcomer=True) as page:
        page.goto("/")
        note = page.get_by_role("region", name="First visit")
        expect(note).to_contain_text("Ferry Lanthorn is invented")
        expect(page.locator("#entry")).to_be_in_viewport()
        # The hole that is out stands open beside the block at once.
        needs = page.get_by_role("region", name="What this hole needs")
        expect(needs).to_contain_text("What hole 5 needs")
        page.get_by_role("button", name="Hole 1: in").click()
        note.get_by_role("link", name="what hole 5 needs").click()
        expect(needs).to_contain_text("What hole 5 needs")
        note.get_by_role("button", name="Put this away").click()
        expect(note).to_have_count(0)
        # From now on the floor is the floor.
        page.get_by_role("link", name="Floor", exact=True).click()
        expect(page.get_by_role("heading", name="Engines on the floor")).to_be_visible()
        page.reload()
        expect(page.get_by_role("link", name="Ferry Lanthorn", exact=True)).to_be_visible()


def test_an_empty_shop_says_what_to_do_first(browser: Browser, empty_dsn: str) -> None:
    with serving(empty_dsn) as address, screen(browser, address, newcomer=True) as page:
        page.goto("/")
        expect(page.get_by_role("main")).to_contain_text("No engine is here yet")
        page.get_by_role("link", name="Spec cards").click()
        expect(page.get_by_role("main")).to_contain_text("No card yet")
        page.get_by_role("link", name="Gauges and people").click()
        main = page.get_by_role("main")
        expect(main).to_contain_text("No gauge yet")
        expect(main).to_contain_text("Nobody is here yet")
        page.goto("/jobs/new")
        expect(page.get_by_role("main")).to_contain_text("spec card")


def test_after_dark_prints_as_ink_on_paper(page: Page, block: BlockView) -> None:
    page.goto("/")
    page.get_by_title("Who is reading").click()
    page.get_by_role("menuitem", name="After dark").click()
    block.open(hole=5)
    ground = "getComputedStyle(document.documentElement).backgroundColor"
    assert page.evaluate(ground) == "rgb(18, 25, 42)"
    page.emulate_media(media="print")
    assert page.evaluate(ground) == "rgb(255, 255, 255)"
    expect(page.get_by_role("heading", name="Ferry Lanthorn")).to_be_visible()
    expect(page.get_by_role("table")).to_be_visible()
    expect(page.get_by_label("What this hole needs")).to_contain_text("fit a")
    # What only works on a screen stays off the paper.
    expect(page.locator("#entry")).to_be_hidden()
    expect(page.get_by_role("button", name="Plan the cut")).to_be_hidden()
    expect(page.get_by_role("navigation", name="Shop")).to_be_hidden()
