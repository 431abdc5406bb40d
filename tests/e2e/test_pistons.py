"""The match sheet in the browser: a piston read by two methods that disagree, read again, marked; phone, keyboard."""

from uuid import uuid4

from playwright.sync_api import Page, expect

from tests.e2e.test_honing import _job


def _feeler(page: Page, job: str, text: str, read_before: str = "") -> None:
    """Somebody reads the clearance with a blade at the bench."""
    who = next(one for one in page.request.get("/api/people").json() if one["name"] == "Wren")["person_id"]
    blades = next(one for one in page.request.get("/api/gauges").json() if one["name"] == "Feeler blades")
    setup = {"quantity": "piston clearance", "gauge_id": blades["gauge_id"], "zeroed_on": "datum", "person_id": who,
             "method": "feeler, piston against the other wall"}  # fmt: skip
    if not read_before:
        assert page.request.post(f"/api/jobs/{job}/setups", data=setup).status == 201
    body = {"reading_id": str(uuid4()), "quantity": "piston clearance", "part": "piston-2", "text": text,
            "bare_unit": "thou", "confirmed": True, "read_before": read_before, "person_id": who}  # fmt: skip
    assert page.request.post(f"/api/jobs/{job}/readings", data=body).status == 201


def test_two_methods_that_disagree_are_a_question_until_it_is_read_again(demo_dsn: str, page: Page) -> None:
    job = _job(demo_dsn, "Narrow-boat Brindle")
    page.goto(f"/jobs/{job}/pistons")
    row = page.get_by_role("region", name="Hole 2")
    expect(row).to_contain_text("not read")
    _feeler(page, job, "3")
    expect(row).to_contain_text("a question, no average")
    expect(row).to_contain_text("The piston was not against the other wall")
    _feeler(page, job, "6", "correct")
    expect(row).to_contain_text("they agree")
    expect(row).to_contain_text("not marked yet")
    row.get_by_role("button", name="Mark it").press("Enter")
    form = row.get_by_role("form", name="Piston of hole 2")
    form.get_by_label("Mark on the piston").fill("2F")
    form.get_by_role("button", name="Write it down").click()
    expect(form.get_by_text("Say which way it faces").first).to_be_visible()
    expect(form.get_by_label("Mark on the piston")).to_have_value("2F")
    form.get_by_label("Which way it faces").fill("arrow to the flywheel")
    form.get_by_label("Which way it faces").press("Enter")
    expect(row).to_contain_text("faces arrow to the flywheel")
    expect(row.get_by_text("in", exact=True)).to_be_visible()
    expect(row).to_contain_text("the bore is frozen")
    page.reload()
    expect(row).to_contain_text("2F")


def test_the_sheet_fits_a_phone(demo_dsn: str, page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"/jobs/{_job(demo_dsn, 'Narrow-boat Brindle')}/pistons")
    expect(page.get_by_role("region", name="Hole 1")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
