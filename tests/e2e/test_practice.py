"""The practice bench in a browser: by keys alone, by pointer, on a phone, against the clock, on paper."""

import re
from typing import Any
from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from tests.core.practice.players_of_fits import drop
from vallostasis.core.practice.catalogue import BY_NAME
from vallostasis.core.practice.rocking import ROCKING


def begin(page: Page, exercise: str, seed: int) -> str:
    """An exercise that somebody has begun; gives its address."""
    person = page.request.get("/api/people").json()[0]["person_id"]
    body = {"attempt_id": str(uuid4()), "exercise": exercise, "seed": seed, "person_id": person}
    answer = page.request.post("/api/practice/attempts", data=body)
    assert answer.ok, answer.text()
    return f"/practice/{body['attempt_id']}"


def score(page: Page) -> str:
    return page.get_by_role("region", name="Score").locator("caption").inner_text()


def test_a_bore_is_rocked_by_keys_alone(page: Page) -> None:
    """From the list to the truth without a pointer; the needle turns back where the gauge stands square."""
    page.goto("/practice")
    expect(page.get_by_role("heading", name="Every mistake once, where it costs nothing")).to_be_visible()
    page.get_by_label("Number of an exercise").fill("12")
    page.get_by_role("button", name="Begin Rock a bore gauge").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1, name="Rock a bore gauge")).to_be_visible()
    truth = ROCKING.truth(12)
    page.get_by_role("button", name="Look at the ring").press("Enter")
    expect(page.get_by_text("On the ring the dial shows")).to_be_visible()
    square = truth.square_deg("middle", 45)
    form = page.get_by_role("form", name="Set it there")
    form.get_by_label("Axis").select_option("45")
    form.get_by_role("button").press("Enter")
    dial = page.get_by_role("img", name=re.compile("Dial in .* middle, axis 45°"))
    expect(dial).to_be_visible()
    page.evaluate("document.activeElement.blur()")
    for _ in range(round((square + 4) * 10)):
        page.keyboard.press("ArrowRight")
    slide = page.get_by_label("Tilt")
    expect(slide).to_have_value(f"{square:g}")
    # Where it stands square the needle has gone back to its least; from there on it comes up again.
    # The needle follows the hand: what it shows on the way there is not yet what it shows there.
    expect(dial).to_have_attribute("aria-label", re.compile("going back, at rest"))
    page.keyboard.press("Space")
    read = page.get_by_text("two-point, middle, 45°: the dial showed")
    expect(read).to_be_visible()
    page.reload()
    expect(read).to_be_visible()
    answer = page.get_by_role("form", name="That is the bore")
    nm = {"Mean at the middle": truth.mean_nm[1], "Out of round": truth.oval_nm[1],
          "Mean at the top": truth.mean_nm[0] - truth.mean_nm[2]}  # fmt: skip
    for label, value in nm.items():
        answer.get_by_label(label).fill(f"{value / 1000:.3f} µm")
    answer.get_by_label("Widest").fill("north")
    answer.get_by_label("On three points").select_option(truth.lobed)
    answer.get_by_role("button").press("Enter")
    expect(answer.get_by_text("Type a number here.")).to_be_visible()
    expect(answer.get_by_label("Mean at the middle")).to_have_value(re.compile("µm"))
    answer.get_by_label("Widest").fill(str(truth.axis_deg))
    answer.get_by_role("button").press("Enter")
    expect(page.get_by_role("region", name="The truth")).to_be_visible()
    assert "70 of 70" in score(page)
    page.get_by_role("button", name="your moves").press("Enter")
    expect(read).to_be_visible()


def test_a_mistake_is_named_at_the_end_and_comes_next(page: Page) -> None:
    page.goto(begin(page, "rock-a-bore-gauge", 4))
    answer = page.get_by_role("form", name="That is the bore")
    for label in ("Mean at the middle", "Out of round", "Widest", "Mean at the top"):
        answer.get_by_label(label).fill("0")
    answer.get_by_role("button", name="That is the bore").click()
    # Whether there are lobes is chosen, not left as it lies there.
    expect(answer.get_by_text("Choose one of: none, three lobes.")).to_be_visible()
    answer.get_by_label("On three points").select_option("none")
    answer.get_by_role("button", name="That is the bore").click()
    traps = page.get_by_role("region", name="Traps")
    expect(traps.get_by_text("Two axes that miss an oval at 45°")).to_be_visible()
    expect(traps.get_by_text("these are differences, no sizes")).to_be_visible()
    following = page.get_by_role("region", name="Next")
    expect(following.get_by_text("missed last time")).to_be_visible()
    following.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("region", name="What you do")).to_be_visible()
    expect(page.get_by_role("region", name="Score")).to_have_count(0)


def test_a_finger_rocks_the_gauge_on_a_phone(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(begin(page, "rock-a-bore-gauge", 12))
    page.get_by_role("form", name="Set it there").get_by_role("button").click()
    slide = page.get_by_label("Tilt")
    expect(slide).to_have_value("-4")
    stage = page.locator(".touch-none")
    stage.scroll_into_view_if_needed()
    box = stage.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 20, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.up()
    expect(slide).to_have_value(re.compile(r"^-?0(\.[0-2])?$"))
    page.get_by_role("button", name="Take what it shows").click()
    expect(page.get_by_text("the dial showed")).to_be_visible()


def _make_ready(page: Page) -> None:
    for name in ("Measure hole and liner", "Mark front and hole", "Lay out hoist", "Grease the seals"):
        page.get_by_role("button", name=name).click()
        expect(page.get_by_role("button", name=name)).to_have_count(0)


def test_the_clearance_shrinks_while_the_clock_runs_and_can_be_held(page: Page) -> None:
    page.goto(begin(page, "heat-and-chill", 3))
    heat = page.get_by_role("form", name="Heat and chill")
    # What can hurt somebody is said at once; what would have been a warning is not.
    expect(heat.get_by_text("Local rules and licensed practice come first.")).to_be_visible()
    _make_ready(page)
    heat.get_by_label("Block").fill("100")
    heat.get_by_label("Bagged").select_option("yes")
    heat.get_by_role("button").click()
    clock = page.get_by_role("timer")
    expect(clock).to_be_visible()
    expect(clock).not_to_have_text("0 s")
    page.get_by_role("button", name="Hold the clock").click()
    held = clock.inner_text()
    drawn = page.get_by_role("img", name=re.compile("Room round the liner"))
    room = drawn.get_attribute("aria-label") or ""
    page.get_by_role("button", name="Let the clock run").click()
    expect(clock).not_to_have_text(held)
    expect(page.get_by_role("img", name=re.compile("Room round the liner"))).not_to_have_attribute(
        "aria-label", room or ""
    )
    down = page.get_by_role("form", name="Let it down")
    down.get_by_label("Square").select_option("with guide bars")
    down.get_by_role("button").click()
    expect(page.get_by_text("it dropped by its own weight")).to_be_visible()
    expect(clock).to_have_count(0)


def _type(page: Page, name: str, given: dict[str, Any]) -> None:
    person = page.request.get("/api/people").json()[0]["person_id"]
    typed = {key: str(value) for key, value in given.items()}
    body = {"name": name, "given": typed, "at_s": 30, "person_id": person}
    address = page.url.rsplit("/", 1)[1]
    now = page.request.get(f"/api/practice/attempts/{address}").json()
    answer = page.request.post(
        f"/api/practice/attempts/{address}/moves", data={**body, "place": now["moves"], "at_s": 30}
    )
    assert answer.ok, answer.text()


def test_the_word_practice_stands_on_every_screen_and_print(page: Page) -> None:
    page.goto(begin(page, "heat-and-chill", 3))
    truth = BY_NAME["heat-and-chill"].truth(3)
    for move in drop(truth)[:-1]:
        _type(page, move.name, dict(move.given))
    page.reload()
    expect(page.get_by_text("PRACTICE", exact=True)).to_be_visible()
    page.get_by_role("textbox", name="Height").fill(f"{truth.height_nm / 1000:.3f} µm")
    page.get_by_role("button", name="That is its height").click()
    expect(page.get_by_text("Down by its own weight, seated, and read cold.")).to_be_visible()
    assert "70 of 70" in score(page)
    page.emulate_media(media="print")
    expect(page.get_by_text("PRACTICE", exact=True)).to_be_visible()
    expect(page.get_by_text("generated, apart from jobs")).to_be_visible()
    expect(page.get_by_role("region", name="Score")).to_be_visible()
    page.emulate_media(media="screen")
    page.goto("/practice")
    expect(page.get_by_text("PRACTICE", exact=True)).to_be_visible()
    expect(page.get_by_text("best 70 of 70")).to_be_visible()


def test_what_was_typed_stays_while_the_link_is_down(page: Page) -> None:
    page.goto(begin(page, "read-dials", 3))
    size = page.get_by_label("The size")
    size.fill("90.12 mm")
    page.context.set_offline(True)
    page.get_by_role("button", name="Next").click()
    expect(page.get_by_role("alert")).to_contain_text("cannot be reached")
    expect(size).to_have_value("90.12 mm")
    page.context.set_offline(False)
    page.get_by_role("button", name="Next").click()
    expect(page.get_by_text("2 of 5.")).to_be_visible()
    expect(size).to_have_value("")


def test_a_shop_writes_an_exercise_from_a_past_job_without_its_names(page: Page) -> None:
    page.goto("/practice")
    page.get_by_text("Write an exercise from a past job").click()
    page.get_by_label("Job", exact=True).select_option(label="Ferry Lanthorn")
    page.get_by_label("What it is called").fill("Heights of the Lanthorn")
    page.get_by_label("The task").fill("Say of three holes how they stand.")
    page.get_by_label("What stands there afterwards").fill("At a limit the ± decides.")
    keep = page.get_by_role("button", name="Keep this exercise")
    keep.click()
    expect(page.get_by_text("is a name of that job: say it without names.").first).to_be_visible()
    page.get_by_label("What it is called").fill("Heights at a limit")
    keep.click()
    row = page.get_by_role("article", name="Heights at a limit")
    expect(row).to_be_visible()
    row.get_by_role("button").click()
    expect(page.get_by_role("heading", level=1, name="Heights at a limit")).to_be_visible()
    expect(page.get_by_role("main")).not_to_contain_text("Lanthorn")


@pytest.mark.parametrize("exercise", ["sequence", "clean-up"])
def test_a_round_of_it_works_from_begin_to_end(page: Page, exercise: str) -> None:
    page.goto(begin(page, exercise, 2))
    if exercise == "sequence":
        for _ in range(11):
            step = page.get_by_label("Step")
            step.select_option(index=1)
            chosen = step.input_value()
            page.get_by_role("button", name="Comes next").click()
            expect(
                page.locator("main li", has_text=chosen).or_(page.get_by_role("region", name="Score")).first
            ).to_be_visible()
    else:
        page.get_by_role("form", name="Look at it").get_by_role("button").click()
        expect(page.get_by_text("deepest on one side").last).to_be_visible()
        page.get_by_role("button", name="All six are done").click()
    expect(page.get_by_role("region", name="Score")).to_be_visible()
