"""Every view by day and after dark, on a phone, enlarged, at a desk: no fault by axe, nothing too small or too wide."""

from typing import Any
from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from tests.core.practice.all_players import PLAYERS
from tests.core.practice.players import typed
from vallostasis.core.practice.catalogue import BY_NAME
from vallostasis.machine.packages import WEB

AXE = (WEB / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")
# WCAG 2.2 at level AA, as axe-core tags its rules.
RUN_AXE = """
async (ground) => {
  // In the other ground nothing but colours differs.
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']
  const found = await axe.run(document, {
    runOnly: ground === 'light' ? { type: 'tag', values: tags } : ['color-contrast', 'link-in-text-block'],
    iframes: false,
  })
  return found.violations.map((v) => ({
    rule: v.id, impact: v.impact, where: v.nodes.map((n) => `${n.target.join(' ')}: ${n.failureSummary}`).slice(0, 5),
  }))
}
"""
# A phone, a window enlarged to 200 %, a desk: width and height.
SIZES = ((390, 844), (640, 400), (1280, 800))
LEAST_TEXT_PX = 12
SETTLED = """
async () => {
  await document.fonts.ready
  await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
}
"""
# What is too small to be read, as it is drawn, and whether the page is wider than the screen.
MEASURE = """
(least) => {
  const found = []
  const page = document.documentElement
  if (page.scrollWidth > window.innerWidth) found.push(`the page is ${page.scrollWidth} wide`)
  // On a phone a drawing is drawn anew: none is moved along in its frame.
  if (window.innerWidth < 640)
    for (const svg of document.querySelectorAll('svg'))
      if (svg.style.minWidth && svg.getBoundingClientRect().width > svg.parentElement.clientWidth + 2)
        found.push(`a drawing is wider than its frame: ${svg.getAttribute('aria-label') ?? ''}`)
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  for (let node = texts.nextNode(); node; node = texts.nextNode()) {
    const holder = node.parentElement
    if (!node.textContent.trim() || holder.closest('.sr-only, option, title, desc, script, style')) continue
    const style = getComputedStyle(holder)
    const box = holder.getBoundingClientRect()
    if (style.visibility === 'hidden' || box.width < 2 || box.height < 2) continue
    const drawn = holder instanceof SVGElement ? holder.getScreenCTM() : null
    const size = parseFloat(style.fontSize) * (drawn ? Math.hypot(drawn.a, drawn.b) : 1)
    if (size < least - 0.05) found.push(`${size.toFixed(1)} px: ${node.textContent.trim().slice(0, 40)}`)
  }
  return found
}
"""
# Where each view is, and what shows that it is all there.
JOB_VIEWS = {
    "block": ("protrusion/5", "#entry"),
    "counterbore": ("counterbore/5", "#entry"),
    "tape": ("protrusion/5?open=tape", "[aria-label=Tape]"),
    "why": ("protrusion/5?open=why", "aside h3"),
    "setup": ("protrusion/5?open=setup", "[role=dialog] form"),
    "bench": ("bench/protrusion/5", "[data-live]"),
    "cut plan": ("cut/5", "main form"),
    "prepare": ("prepare", "main form"),
    "block plan": ("cut-plan", "main table"),
    "matching": ("matching", "main table"),
    "swaps": ("swaps", "main table"),
    "options": ("options/5", "main table"),
    "adds up": ("adds-up", "main table"),
    "hours": ("time", "main table"),
    "money": ("money", "main table"),
    "bill": ("bill", "main dl"),
    "parts": ("parts", "main form"),
    "run": ("cut-run/6", "main h1"),
    "liners": ("liners", "main table"),
    "card of the job": ("card", "main form, main table, main select"),
    "ledges at once": ("grid", "[data-cell]"),
    "fits at once": ("grid?of=fits", "main h1"),
    "labels": ("labels", "main img"),
    "import": ("import", "main form, main input"),
    "proof": ("proof", "main iframe"),
    "measuring": ("measure", "section[aria-label='Which gauge for what'] table"),
    "bore survey": ("measure/block bore/hole-2", "[aria-label='So far'] dl"),
    "moved zero": ("measure/liner outside/liner-Q2", "[role=alert] button"),
    "deck grid": ("measure/deck flatness/deck", "svg[aria-label='The deck and its grid'] text"),
    "trial fit": ("measure/trial fit/hole-1", "[data-live]"),
    "fit": ("press-fit/1", "[aria-label='The fit down its depth'] svg"),
    "hot hold": ("hot-fit/2", "[aria-label='Moments of running'] table"),
    "drop window": ("heat/2", "[aria-label='Drop window'] svg"),
    "temperatures": ("heat/2?view=ways", "main table"),
    "seals in heat": ("heat/2?view=seals", "main ol li"),
    "water and air": ("heat/2?view=air", "[aria-label='Air of the room'] svg"),
    "drop": ("heat/2/run", "[aria-label='Clock']"),
    "drop to begin": ("heat/4/run", "main h1"),
    "boring": ("boring/3", "[aria-label=Passes] table"),
    "hone": ("honing/2", "[aria-label='Stock left'] svg"),
    "pistons": ("pistons", "main section"),
    "plate": ("plate", "main table"),
    "mains": ("mains", "main section"),
    "deck": ("deck", "main table"),
    "conversion": ("conversion/3", "[aria-label='The section'] svg"),
}
OF_THE_BLOCK = tuple(JOB_VIEWS)[:26]
SHOP_VIEWS = {
    "calendar": ("/calendar", "main svg text"),
    "calendar by machine": ("/calendar?by=machine", "main svg text"),
    "hours of the shop": ("/shop/time", "main form"),
    "prices": ("/shop/prices", "main table"),
    "learned": ("/shop/learned", "main svg"),
    "reckon": ("/shop/reckon", "main form"),
    "lands": ("/shop/lands", "main section svg"),
    "cases": ("/shop/cases", "main input"),
    "causes and checks": ("/shop/causes", "main table"),
    "floor": ("/", "main article"),
    "take in": ("/jobs/new", "main form"),
    "bring in": ("/jobs/import", "main form, main input"),
    "cards": ("/cards", "main li"),
    "new card": ("/cards/new", "main form"),
    "shop": ("/shop", "main table"),
    "cabinet": ("/shop/cabinet", "main table"),
    "studies": ("/shop/studies", "main form"),
    "record": ("/shop/record", "main input"),
    "cutters": ("/shop/cutters", "main article"),
    "shelf": ("/shop/shelf", "main table"),
    "fixtures": ("/shop/fixtures", "main table"),
    "practice": ("/practice", "main article"),
    "pair": ("/pair", "main"),
    "sign in": ("/sign-in", "main h1"),
    "read by a link": ("/read", "main h1"),
    "nowhere": ("/nowhere", "main"),
}


def _faults(page: Page, ground: str) -> list[dict[str, Any]]:
    page.evaluate(f"document.documentElement.dataset.ground = '{ground}'")
    found: list[dict[str, Any]] = page.evaluate(RUN_AXE, ground)
    return found


# As a link of the application does it: loading all of it anew for each view takes as long as looking at it.
FOLLOW = """
(path) => {
  history.pushState(null, '', path)
  dispatchEvent(new PopStateEvent('popstate', { state: null }))
}
"""


def _follow(page: Page, path: str, there: str) -> None:
    """Go to a view, and wait until what shows that it is all there is there."""
    if page.url == "about:blank":
        page.goto(path)
    else:
        # What shows that the last view is there must not be taken for this one: another comes in between.
        between = page.get_by_role("heading", level=1, name="Let this device in")
        page.evaluate(FOLLOW, "/pair")
        expect(between).to_be_visible()
        page.evaluate(FOLLOW, path)
        if path != "/pair":
            expect(between).to_have_count(0)
    expect(page.locator(there).first).to_be_visible()


def _expect_no_fault(page: Page) -> None:
    """Nothing at all by axe in both grounds; at every size no text too small, no page wider than the screen."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    for ground in ("light", "dark"):
        assert _faults(page, ground) == [], f"{page.url} {ground}"
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        # The page lays itself out anew, and so do its drawings.
        page.evaluate(SETTLED)
        assert page.evaluate(MEASURE, LEAST_TEXT_PX) == [], f"{page.url} at {width} x {height}"


def test_no_fault_on_any_view_of_the_shop(page: Page) -> None:
    for path, there in SHOP_VIEWS.values():
        _follow(page, path, there)
        _expect_no_fault(page)


@pytest.mark.parametrize(
    ("name", "views"),
    [
        ("Ferry Lanthorn", OF_THE_BLOCK),
        ("Ferry Lanthorn, starboard", ("run", "cut plan", "deck")),
        ("Sawmill Hauler", ("block", "counterbore", "bench")),
        ("Narrow-boat Quillet", ("measuring", "bore survey", "moved zero", "deck grid", "trial fit")),
        ("Narrow-boat Brindle", ("fit", "hone", "pistons", "mains")),
        (
            "Pump No. 4",
            (
                "hot hold",
                "conversion",
                "drop window",
                "temperatures",
                "seals in heat",
                "water and air",
                "drop",
                "drop to begin",
            ),
        ),
        ("Hill Tractor Marram", ("boring", "plate")),
    ],
)
def test_no_fault_on_any_view_of_a_job(page: Page, name: str, views: tuple[str, ...]) -> None:
    strips = page.request.get("/api/jobs").json()
    job = next(strip["job"]["job_id"] for strip in strips if strip["job"]["name"] == name)
    for view in views:
        path, there = JOB_VIEWS[view]
        _follow(page, f"/jobs/{job}/{path}", there)
        _expect_no_fault(page)


@pytest.mark.parametrize(
    "names",
    [
        ("rock-a-bore-gauge", "read-dials", "low-liner-detective", "counterbore-cutter"),
        ("heat-and-chill", "press-it-home", "hone-to-size", "sequence"),
    ],
)
def test_no_fault_on_an_exercise_or_its_end(page: Page, names: tuple[str, ...]) -> None:
    person = page.request.get("/api/people").json()[0]["person_id"]
    for name in names:
        exercise = BY_NAME[name]
        truth = exercise.truth(3)
        player = next(one for one in PLAYERS if one.exercise is exercise and one.trap)
        moves = player.play(truth)
        attempt = str(uuid4())
        body = {"attempt_id": attempt, "exercise": name, "seed": 3, "person_id": person}
        assert page.request.post("/api/practice/attempts", data=body).ok
        for place, move in enumerate(moves):
            if place == len(moves) - 1:
                page.goto(f"/practice/{attempt}")
                expect(page.get_by_role("region", name="What you do")).to_be_visible()
                _expect_no_fault(page)
            given = typed(exercise.position(truth, moves[:place]), move)
            body = {"place": place, "name": move.name, "given": given, "at_s": move.at_s, "person_id": person}
            assert page.request.post(f"/api/practice/attempts/{attempt}/moves", data=body).ok
        page.goto(f"/practice/{attempt}")
        expect(page.get_by_role("region", name="Traps")).to_be_visible()
        _expect_no_fault(page)


def test_no_fault_in_the_list_of_keys(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Keys").click()
    expect(page.get_by_role("heading", name="Keys")).to_be_visible()
    _expect_no_fault(page)


def test_axe_does_find_what_is_wrong(page: Page) -> None:
    page.goto("/")
    page.evaluate(AXE)
    page.locator("main").evaluate("main => main.insertAdjacentHTML('beforeend', '<img src=\"/icon.svg\">')")
    assert [fault["rule"] for fault in _faults(page, "light")] == ["image-alt"]
