"""By screen reader alone: the keyboard, the accessibility tree, what is announced; nothing is clicked or looked at."""

import re

from playwright.sync_api import Page, expect

# What a screen reader would say by itself: whatever changes inside a live region.
LISTEN = """
window.announced = []
new MutationObserver((changes) => {
  for (const change of changes) {
    const at = change.target instanceof Element ? change.target : change.target.parentElement
    const region = at?.closest('[role=status], [role=alert], [aria-live=polite]')
    const alert = [...change.addedNodes].find((one) => one instanceof Element && one.matches?.('[role=alert]'))
    const words = (alert ?? region)?.textContent.trim().replace(/\\s+/g, ' ')
    if (words && window.announced.at(-1) !== words) window.announced.push(words)
  }
}).observe(document, { subtree: true, childList: true, characterData: true })
"""
MOST_TABS = 90


def _focused(page: Page) -> str:
    return page.locator(":focus").aria_snapshot()


def _tab_to(page: Page, name: str, key: str = "Tab") -> None:
    """Walk on until what has the focus is called so."""
    for _ in range(MOST_TABS):
        page.keyboard.press(key)
        if page.locator(":focus").count() and name in _focused(page):
            return
    raise AssertionError(f"{name} is not reached by {key}")


def _hear(page: Page, words: str) -> None:
    page.wait_for_function("(words) => window.announced.some((one) => one.includes(words))", arg=words)
    page.evaluate("window.announced.length = 0")


def _read(page: Page, text: str) -> None:
    page.keyboard.type(text)
    page.keyboard.press("Enter")


def test_a_whole_block_is_read_judged_and_proved_by_screen_reader_alone(page: Page) -> None:
    page.add_init_script(LISTEN)
    page.goto("/")
    expect(page.get_by_role("heading", level=1)).to_have_text("Engines on the floor")
    expect(page.get_by_role("link", name="Ferry Lanthorn", exact=True)).to_be_visible()
    _tab_to(page, "Skip to the work")
    page.keyboard.press("Enter")
    assert page.evaluate("document.activeElement.tagName") == "MAIN"
    _tab_to(page, 'link "Ferry Lanthorn"')
    page.keyboard.press("Enter")
    expect(page).to_have_title(re.compile(r"^Protrusion.* · Ferry Lanthorn · Vallostasis$"))
    expect(page.get_by_role("heading", level=1)).to_have_text("Ferry Lanthorn")
    # Focus stands at the work that opened, and the field is called by what is read.
    page.wait_for_function("document.querySelector('main').contains(document.activeElement)")
    _tab_to(page, 'textbox "Protrusion"')

    for hole in range(1, 7):
        _read(page, f"{hole} 12h 9.1")
        _hear(page, "was read before")
        _tab_to(page, "A new pass")
        page.keyboard.press("Enter")
        _hear(page, f"taken: hole {hole} at 12h, 9.1")
        _tab_to(page, 'textbox "Protrusion"')
        for hour, text in ((3, "9.2"), (6, "nine point zero"), (9, "9.1")):
            # What describes the field says where it goes.
            expect(page.locator("#entry-echo")).to_contain_text(f"hole {hole} at {hour}h")
            _read(page, text)
            _hear(page, f"taken: hole {hole} at {hour}h")
        expect(page.get_by_role("button", name=re.compile(f"Hole {hole}: (in|cannot tell)"))).to_be_visible()

    # A wrong entry is said and stays in the field; Undo says what it takes back, and that it did.
    _read(page, "hello")
    _hear(page, "not understood")
    expect(page.get_by_role("textbox", name="Protrusion")).to_have_value("hello")
    page.keyboard.press("Control+a")
    page.keyboard.press("Delete")
    _tab_to(page, 'button "Undo: ')
    page.keyboard.press("Enter")
    _hear(page, "undone:")
    expect(page.get_by_role("button", name="Hole 6: not measured")).to_be_visible()
    _tab_to(page, 'textbox "Protrusion"', "Shift+Tab")
    _read(page, "6 9h 9.1")
    _hear(page, "taken: hole 6 at 9h")

    _tab_to(page, 'link "Proof"', "Shift+Tab")
    page.keyboard.press("Enter")
    expect(page).to_have_title("Proof · Ferry Lanthorn · Vallostasis")
    page.wait_for_function("document.querySelector('main')?.contains(document.activeElement)")
    frame = page.frame_locator("iframe[title='Proof sheet']")
    expect(frame.get_by_role("heading", name="Hole 1: in")).to_be_visible()


def test_everything_aloud_says_value_verdict_and_what_is_next(page: Page) -> None:
    """The browser's own voices are replaced by an ear; a voice that is lent by a service is never used."""
    page.add_init_script("""
      window.heard = []
      const voice = (name, localService) => ({ name, lang: 'en-GB', localService })
      Object.defineProperty(window, 'speechSynthesis', { value: {
        getVoices: () => [voice('lent', false), voice('own', true)],
        cancel: () => undefined,
        speak: (said) => window.heard.push([said.voice?.name, said.text]),
      } })
      window.SpeechSynthesisUtterance = class { constructor(text) { this.text = text } }
    """)
    strips = page.request.get("/api/jobs").json()
    job = next(strip["job"]["job_id"] for strip in strips if strip["job"]["name"] == "Ferry Lanthorn")
    page.goto(f"/jobs/{job}/bench/protrusion/5")
    page.get_by_label("told back by").select_option("aloud")
    page.get_by_role("button", name=re.compile("anew")).first.click()
    expect(page.get_by_role("heading", name="Hole 1 at 12 h")).to_be_visible()
    for text, verdict in (("8.8", "in"), ("13.5", "out")):
        page.get_by_label("Type a reading").fill(text)
        page.get_by_label("Type a reading").press("Enter")
        page.wait_for_function("(verdict) => window.heard.some(([, text]) => text === verdict)", arg=verdict)
    heard = page.evaluate("window.heard")
    assert {name for name, _ in heard} == {"own"}
    said = [text for _, text in heard]
    first = said.index("in")
    assert "88" in said[first - 1] or "8.8" in said[first - 1]
    assert said[first + 1] == "next, hole 1 at 3"
