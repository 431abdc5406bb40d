"""A V8 in the browser: its card drawn while it is typed, its block measured by keyboard."""

import re
from uuid import uuid4

from playwright.sync_api import Page, expect

from tests.api.bench import READY
from tests.e2e.conftest import BlockView


def test_a_card_turns_into_a_v_with_a_live_drawing(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Spec cards").click()
    page.get_by_role("link", name=re.compile("^Fennick 6W, wet liners")).click()
    drawing = page.get_by_role("img", name="Numbering of the holes")
    expect(drawing.locator("circle.fill-sheet")).to_have_count(6)
    page.get_by_label("Holes stand").select_option("V")
    page.get_by_label("Holes", exact=True).fill("8")
    page.get_by_label("Banks").fill("1 3 5 7 / 2 4 6 8")
    expect(drawing).to_contain_text("bank B")
    expect(drawing.locator("circle.fill-sheet")).to_have_count(8)
    page.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_label("Heads")).to_have_attribute("aria-invalid", "true")
    expect(page.get_by_label("Bank angle")).to_have_attribute("aria-invalid", "true")
    page.get_by_label("Heads").fill("1 3 5 7 / 2 4 6 8")
    page.get_by_label("Bank angle").fill("60")
    page.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_role("status")).to_contain_text("Saved as version 2")


def _v8_job(page: Page) -> str:
    """A V8 on the floor with its liners fitted, by the same API the browser uses."""
    api = page.request
    person = api.get("/api/people").json()[0]["person_id"]
    cards = api.get("/api/spec-cards").json()
    listed = next(one["version"]["spec_card_id"] for one in cards if one["engine"] == "Fennick 6W")
    card = api.get(f"/api/spec-cards/{listed}").json()["cards"][0]
    banks = [[1, 3, 5, 7], [2, 4, 6, 8]]
    card["layout"].update(arrangement="V", holes=8, banks=banks, heads=banks, bank_angle_deg=60)
    made = api.post("/api/spec-cards", data={"card": {**card, "name": "V8"}, "person_id": person}).json()
    new = {"number": "V-8", "name": "Sawmill", "spec_card_id": made["spec_card_id"], "person_id": person}
    job = str(api.post("/api/jobs", data=new).json()["job_id"])
    for hole in api.get(f"/api/jobs/{job}/block").json()["holes"]:
        mark = f"V{hole['number']}"
        api.post(f"/api/jobs/{job}/liners", data={"mark": mark})
        fitted = {"fitting_id": str(uuid4()), "liner_mark": mark, "ready": READY, "person_id": person}
        api.post(f"/api/holes/{hole['hole_id']}/fittings", data=fitted)
    return job


def test_a_v8_is_measured_by_keyboard(page: Page, block: BlockView) -> None:
    page.goto(f"/jobs/{_v8_job(page)}/protrusion")
    expect(page.locator("#entry")).to_be_visible()
    expect(page.get_by_label("Block on its deck")).to_contain_text("bank A")
    for hole in range(1, 9):
        page.keyboard.type(f"{hole} 12h 8.{hole}")
        page.keyboard.press("Enter")
        expect(page.locator("#entry")).to_have_value("")
        for tenth in (1, 2, 3):
            page.keyboard.type(f"8.{tenth}")
            page.keyboard.press("Enter")
            expect(page.locator("#entry")).to_have_value("")
        block.expect_state(hole, "in")
        block.expect_marks(hole, 4)
    for button in page.get_by_role("button", name=re.compile("^Hole")).all():
        expect(button).to_be_in_viewport()
