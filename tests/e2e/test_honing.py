"""A bore honed in the browser: set up, started and stopped by the pedal, read, warm, undone, in; phone."""

import re
from typing import Any
from uuid import uuid4

import psycopg
from playwright.sync_api import Page, expect

from tests.api.test_honing import RING_IN


def _job(dsn: str, name: str) -> str:
    with psycopg.connect(dsn) as conn:
        row = conn.execute("SELECT job_id FROM job WHERE name = %s", (name,)).fetchone()
    assert row is not None
    return str(row[0])


def _read(page: Page, job: str, size_in: float, anew: bool = False) -> None:
    """Somebody reads every place of the bore of hole two at another bench, in a set of its own where asked."""
    who = next(one for one in page.request.get("/api/people").json() if one["name"] == "Wren")
    survey = page.request.get(f"/api/jobs/{job}/surveys/liner bore/hole-2").json()
    for at, row in enumerate(survey["places"]):
        body: dict[str, Any] = {
            "reading_id": str(uuid4()), "quantity": "liner bore", "part": "hole-2", "bare_unit": "thou",
            "text": f"{(size_in - RING_IN) * 1000:.3f}", "person_id": who["person_id"], "confirmed": True,
            "new_pass": anew and at == 0, **row["place"],
        }  # fmt: skip
        assert page.request.post(f"/api/jobs/{job}/readings", data=body).status == 201


def test_to_its_sleeve_by_pedal_from_set_up_to_the_readings(demo_dsn: str, page: Page, gauge: int) -> None:
    """The block bore of the twin, whose gauge talks: one key starts, stops and reads."""
    page.goto(f"/jobs/{_job(demo_dsn, 'Narrow-boat Quillet')}/honing/2/sleeve")
    form = page.get_by_role("form", name="How it is honed")
    form.get_by_label("Length of the stones").fill("12 in")
    form.get_by_label("Free below the bore").fill("0.1 in")
    form.get_by_role("button", name="Keep it").click()
    expect(form.get_by_text("too long for this bore").first).to_be_visible()
    form.get_by_label("Length of the stones").fill("3 in")
    form.get_by_label("Free below the bore").fill("1.6 in")
    form.get_by_role("button", name="Keep it").press("Enter")
    picture = page.get_by_role("img", name="Stones in the bore")
    expect(picture).to_contain_text("stop block")
    expect(picture).to_contain_text("45°")
    size = page.get_by_role("region", name="The size")
    size.get_by_label("bore now").fill("28")
    size.get_by_role("button", name="Take").click()
    expect(size).to_contain_text("bore at 28.0 °C")
    expect(page.get_by_text(re.compile("rate not learned: measure after"))).to_be_visible()
    page.keyboard.press("Space")
    reason = page.get_by_label("Reason to pass it")
    stop = page.get_by_role("button", name="Stopped: measure")
    expect(reason.or_(stop).first).to_be_visible()
    if reason.is_visible():
        reason.fill("a test")
        page.get_by_role("button", name=re.compile("Pass it as")).click()
    expect(stop).to_be_visible()
    page.reload()
    page.get_by_label("or counted").fill("18")
    page.get_by_label("or counted").press("PageDown")
    read = page.get_by_role("region", name="Read the bore")
    expect(read).to_contain_text("0 of 20")
    expect(page.get_by_text("Stopped after 18 double strokes.")).to_be_visible()
    # A gauge that is rocked gives a turning point after its first rock.
    expect(read.get_by_role("status", name="Gauge")).to_contain_text("Turning point")
    page.keyboard.press("F8")
    expect(read).to_contain_text("1 of 20")
    page.get_by_role("button", name="Undo").click()
    expect(read).to_contain_text("0 of 20")
    page.get_by_role("button", name="Undo").click()
    expect(stop).to_be_visible()


def test_rounds_read_in_between_until_it_is_in_and_one_too_many(demo_dsn: str, page: Page) -> None:
    job = _job(demo_dsn, "Narrow-boat Brindle")
    page.goto(f"/jobs/{job}/honing/2")
    left = page.get_by_role("status", name="Left to take")
    expect(page.get_by_text("in: it fits its part")).to_be_visible()
    _read(page, job, 4.7500, anew=True)
    expect(left).to_contain_text("0.5")
    expect(page.get_by_text("from 5 rounds", exact=False)).to_be_visible()
    strokes = page.get_by_role("timer", name="To the stop")
    expect(strokes).not_to_have_text("0:00")
    _round(page)
    _read(page, job, 4.7504)
    # What the fine stones took is brushed once more.
    expect(page.get_by_text("Brush, round 2", exact=True)).to_be_visible()
    _round(page)
    _read(page, job, 4.7505)
    expect(page.get_by_text("in: it fits its part")).to_be_visible()
    _read(page, job, 4.7500, anew=True)
    _round(page)
    _read(page, job, 4.7530)
    expect(page.get_by_text("too large", exact=True)).to_be_visible()
    expect(page.get_by_text("is larger than the greatest by", exact=False).first).to_be_visible()
    expect(page.get_by_role("button", name="Start the stones")).to_have_count(0)


def _round(page: Page) -> None:
    page.get_by_role("button", name="Start the stones").click()
    page.get_by_label("or counted").fill("30")
    page.get_by_role("button", name="Stopped: measure").click()
    expect(page.get_by_role("region", name="Read the bore")).to_be_visible()


def test_on_a_phone_digits_and_key_are_at_hand(demo_dsn: str, page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    job = _job(demo_dsn, "Narrow-boat Brindle")
    page.goto(f"/jobs/{job}/honing/2")
    expect(page.get_by_role("status", name="Left to take")).to_be_visible()
    # Another face is wider until the own one is there.
    assert page.evaluate("document.fonts.ready.then(() => document.documentElement.scrollWidth)") <= 390
    page.goto(f"/jobs/{job}/honing/1")
    expect(page.get_by_role("form", name="How it is honed").or_(page.get_by_role("status")).first).to_be_visible()
    # Another face is wider until the own one is there.
    assert page.evaluate("document.fonts.ready.then(() => document.documentElement.scrollWidth)") <= 390
