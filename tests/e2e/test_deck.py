"""The deck plan and the mains in the browser: an aim chosen by keyboard, a wrong entry, a trial; both on a phone."""

from playwright.sync_api import Page, expect

from tests.e2e.test_honing import _job


def test_an_aim_is_chosen_by_keyboard_and_a_cut_is_tried(demo_dsn: str, page: Page) -> None:
    page.goto(f"/jobs/{_job(demo_dsn, 'Ferry Lanthorn')}/deck")
    does = page.get_by_role("region", name="What it does")
    page.get_by_role("button", name="leave it").press("Enter")
    expect(does).to_contain_text("Something goes out")
    expect(does).to_contain_text("below least")
    form = page.get_by_role("form", name="Try")
    form.get_by_label("Take off").fill("a few")
    form.get_by_label("Take off").press("Enter")
    expect(form.get_by_label("Take off")).to_have_attribute("aria-invalid", "true")
    expect(form.get_by_label("Take off")).to_have_value("a few")
    form.get_by_label("Take off").fill("0.1 mm")
    form.get_by_label("A volume wanted").fill("12 l")
    form.get_by_label("A volume wanted").press("Enter")
    expect(page.get_by_role("button", name="take what is typed")).to_have_attribute("aria-pressed", "true")
    expect(does).to_contain_text("above greatest")
    expect(page.get_by_text("The volume wants a bore of")).to_be_visible()


def test_deck_and_mains_fit_a_phone(demo_dsn: str, page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    for name, view, there in (
        ("Sawmill Hauler", "deck", "make both halves alike"),
        ("Narrow-boat Brindle", "mains", "Align-hone them"),
    ):
        page.goto(f"/jobs/{_job(demo_dsn, name)}/{view}")
        expect(page.get_by_text(there).first).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth") <= 390
