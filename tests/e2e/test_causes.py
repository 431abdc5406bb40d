"""What does not add up, in the browser: next check, weights move, cause found, case kept; a change of one's own."""

from playwright.sync_api import Page, expect

from tests.e2e.conftest import BlockView

FOUND = "a lip all round it"


def test_from_the_anomaly_to_the_cause_and_its_case(page: Page, block: BlockView) -> None:
    """Hidden truth: the flange in hole 3 was read over its lip; zero and clamp were looked at in vain."""
    block.open(3)
    page.get_by_role("link", name="Cut plan").click()
    page.get_by_role("link", name="What does not add up").click()
    page.get_by_role("group", name="Unit").get_by_role("button", name="µm").click()
    expect(page.get_by_text("Hole 3 stands")).to_be_visible()
    expect(page.get_by_text("Hold: lip under the micrometer was not tested")).to_be_visible()
    tried = page.get_by_role("region", name="What was tried")
    expect(tried).to_contain_text("not the zero of the sled")
    causes = page.get_by_role("table", name="What may be behind it")
    expect(causes.get_by_role("row").nth(1)).to_contain_text("0.8")
    panel = page.get_by_role("region", name="Cheapest check that tells the causes apart")
    expect(panel).to_contain_text("Read a flange of that make on its flat land")
    panel.get_by_role("button", name="Begin this check").click()
    form = page.get_by_role("form", name="What came of it")
    # A slip is told at its field, what was typed stays, and stays over a reload.
    form.get_by_label("What it reads now").fill("a lip")
    form.get_by_label("In words").fill(FOUND)
    form.get_by_role("button", name="Write it down").click()
    expect(form.get_by_label("What it reads now")).to_have_attribute("aria-invalid", "true")
    page.reload()
    expect(form.get_by_label("In words")).to_have_value(FOUND)
    form.get_by_label("What it reads now").fill("-93")
    form.get_by_label("Minutes").fill("3")
    form.get_by_role("button", name="Write it down").click()
    expect(causes.get_by_role("row").nth(1)).to_contain_text("1.00")
    expect(tried).to_contain_text(FOUND)
    expect(page.get_by_text("Hold:")).to_have_count(0)
    case = page.get_by_role("form", name="Keep it as a case")
    expect(case.get_by_label("What it was")).to_have_value("lip under the micrometer")
    case.get_by_label("What to know next time").fill("fine anvil on the flat land")
    case.get_by_role("button", name="Keep it as a case").click()
    expect(page.get_by_role("button", name="Undo: case kept")).to_be_visible()
    expect(page.get_by_text("Kept as a case: lip under the micrometer")).to_be_visible()
    expect(case).to_have_count(0)
    page.get_by_role("link", name="Cases", exact=True).click()
    page.get_by_label("In words").fill("anvil")
    expect(page.get_by_role("article")).to_contain_text("Tried in vain: look at the zero of the gauge again")
    page.get_by_label("In words").fill("crankcase")
    expect(page.get_by_text("No case answers these words.")).to_be_visible()


def test_one_change_at_a_time_and_undo_drops_it(page: Page, block: BlockView) -> None:
    block.open(3)
    page.goto(page.url.split("/protrusion")[0] + "/adds-up")
    page.get_by_role("button", name="Something else is going to be changed").click()
    page.get_by_label("What is changed").fill("the other bridge")
    page.get_by_role("button", name="Begin it").click()
    expect(page.get_by_text("Say what you expect before you look")).to_be_visible()
    page.get_by_label("What is expected").fill("the same")
    page.get_by_role("button", name="Begin it").click()
    expect(page.get_by_role("form", name="What came of it")).to_contain_text("The other bridge")
    expect(page.get_by_role("button", name="Begin this check")).to_have_count(0)
    page.get_by_role("button", name="Undo: tried: the other bridge").click()
    expect(page.get_by_role("button", name="Begin this check")).to_be_visible()


def test_the_shop_adds_a_cause_and_a_check_of_its_own(page: Page, block: BlockView) -> None:
    block.open(3)
    page.goto("/shop/causes")
    cause = page.get_by_role("form", name="A cause of our own")
    cause.get_by_role("button", name="Save the cause").click()
    expect(cause.get_by_text("Give the cause a name.")).to_be_visible()
    cause.get_by_label("Its name").fill("paint on the deck")
    cause.get_by_label("How it shows").fill("low where it was painted")
    cause.get_by_label("Least effect").fill("-60 µm")
    cause.get_by_label("Greatest effect").fill("-20 µm")
    cause.get_by_role("button", name="Save the cause").click()
    expect(page.get_by_role("table", name="Causes")).to_contain_text("paint on the deck")
    check = page.get_by_role("form", name="A check of our own")
    check.get_by_label("What is done").fill("scrape a corner")
    check.get_by_label("Which cause it finds").select_option("paint on the deck")
    check.get_by_label("Which number is typed").fill("how thick it was, as −")
    check.get_by_label("How surely it reads").fill("2 µm")
    check.get_by_role("button", name="Save the check").click()
    expect(page.get_by_role("table", name="Checks")).to_contain_text("scrape a corner")


def test_a_make_is_looked_at_and_an_old_part_held_against_a_new_one(page: Page, block: BlockView) -> None:
    block.open(3)
    page.goto("/shop/lands")
    page.get_by_role("button", name="Pellerby").click()
    expect(page.get_by_text("nobody has read it on a liner of this make")).to_be_visible()
    rows = page.get_by_role("table", name="Land by land")
    page.get_by_label("The new part").select_option(label="L2, Quarnforth · Ferry Lanthorn")
    expect(rows.get_by_role("row", name="flat land")).to_contain_text("differs")
    expect(rows.get_by_role("row", name="lip")).to_contain_text("unknown")
    page.get_by_label("The new part").select_option(label="L3, Pellerby · Ferry Lanthorn")
    expect(page.get_by_text("nobody can call them identical")).to_be_visible()
