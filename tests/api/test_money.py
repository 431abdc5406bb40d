"""Estimates, orders and bills over HTTP, as the demo shop has them."""

from datetime import date, timedelta
from decimal import Decimal
from io import BytesIO
from typing import Any
from uuid import uuid4

import pypdf
from fastapi.testclient import TestClient

from tests.api.bench import field_of, job_called
from tests.api.test_calendar import who

D = Decimal


def money(client: TestClient, job: str) -> dict[str, Any]:
    found: dict[str, Any] = client.get(f"/api/jobs/{job}/money").json()
    return found


def lines_of(found: dict[str, Any]) -> list[dict[str, Any]]:
    keys = ("sheet", "key", "words", "low", "worst", "tax_percent")
    return [{key: one[key] for key in keys} for one in found["draft"]]


def test_an_estimate_is_drafted_written_agreed_and_printed(client: TestClient) -> None:
    job = job_called(client, "Hill Tractor Marram")
    drafted = money(client, job)
    assert drafted["standing"] is None and drafted["written"] == []
    net = drafted["totals"]["net"]
    parts = sum(D(one["worst"]) for one in drafted["draft"] if one["sheet"] == "parts")
    hours = sum(D(one["worst"]) for one in drafted["draft"] if one["sheet"] != "parts")
    assert D(net["worst"]) == parts + hours * D(drafted["rate"])
    estimate_id = str(uuid4())
    body = {"estimate_id": estimate_id, "lines": lines_of(drafted), "words": "Worst case.", **who(client)}
    for _ in range(2):
        assert client.post(f"/api/jobs/{job}/estimates", json=body).status_code == 201
    written = money(client, job)["written"]
    assert [one["answer"] for one in written] == [None] and written[0]["totals"]["net"] == net
    said = {
        "answer": "agreed",
        "said": "Fellgate Farm",
        "way": "by phone",
        "on": date.today().isoformat(),
        **who(client),
    }
    assert client.post(f"/api/jobs/{job}/estimates/{estimate_id}/answer", json=said).status_code == 201
    standing = money(client, job)["standing"]
    assert D(standing["agreed"]) == D(net["worst"]) and not standing["is_broken"]
    pdf = client.get(f"/api/jobs/{job}/estimates/{estimate_id}.pdf")
    text = " ".join(page.extract_text() for page in pypdf.PdfReader(BytesIO(pdf.content)).pages)
    assert f"{D(net['worst']):,.2f}" in text and "Labour with machining" in text and "Agreed by Fellgate Farm" in text


def test_what_cannot_be_written_is_refused_at_its_field(client: TestClient) -> None:
    job = job_called(client, "Hill Tractor Marram")
    lines = lines_of(money(client, job))

    def refused(**more: Any) -> str:
        body = {"estimate_id": str(uuid4()), "lines": lines, **who(client), **more}
        return field_of(client.post(f"/api/jobs/{job}/estimates", json=body))

    assert refused(lines=[]) == "lines"
    assert refused(lines=[{**lines[0], "low": "9000"}, *lines[1:]]) == "lines.0.worst"
    assert refused(lines=[lines[0], lines[0]]) == "lines"
    assert refused(lines=[{**lines[0], "worst": "1.234"}]) == "lines.0.worst"
    answer = {"answer": "agreed", "said": "somebody", "on": "2026-01-01", **who(client)}
    assert field_of(client.post(f"/api/jobs/{job}/estimates/{uuid4()}/answer", json=answer)) == "estimate_id"
    ferry = job_called(client, "Ferry Lanthorn")
    path = f"/api/jobs/{ferry}/estimates/{money(client, ferry)['standing']['estimate_id']}/answer"
    assert field_of(client.post(path, json={**answer, "said": " "})) == "said"
    later = (date.today() + timedelta(days=3)).isoformat()
    assert field_of(client.post(path, json={**answer, "on": later})) == "on"
    assert field_of(client.post(path, json={**answer, "answer": "refused"})) == "words"
    assert (
        field_of(client.post(f"/api/jobs/{job}/declined", json={"what": "sleeves", "reason": " ", **who(client)}))
        == "reason"
    )
    assert client.get(f"/api/jobs/{job}/estimates/{uuid4()}.pdf").status_code == 409
    assert field_of(client.get(f"/api/jobs/{job}/bill")) == "estimate_id"


def test_a_bore_that_did_not_clean_up_breaks_the_estimate_and_holds_the_next_cut(client: TestClient) -> None:
    job = job_called(client, "Hill Tractor Sedge")
    found = money(client, job)
    standing = found["standing"]
    assert standing["is_broken"] and D(standing["over"]) > 0
    assert D(standing["at_most"]) == D(standing["agreed"]) - D(standing["off"]) + D(standing["found_money"])
    assert {one["words"].split(",")[0] for one in standing["found"]} >= {
        "4 × Piston and rings",
        "Bore 4 on to the next step",
    }
    old = next(one for one in standing["lines"] if "Piston and rings" in one["words"])
    assert D(old["off"]) == D(old["worst_money"]), "pistons of the first step go back"
    assert "does not clean up" in found["message"] and "We go on when you say so" in found["message"]
    route = client.get(f"/api/jobs/{job}/route").json()
    held = {one["hold"]: one["missing"] for one in route["holds"] if one["before"] == "bore"}
    assert "did not clean up since the estimate was agreed" in held["estimate"]
    # Agreed anew, it holds no more, and stands again.
    estimate_id = str(uuid4())
    body = {"estimate_id": estimate_id, "lines": lines_of(found), **who(client)}
    assert client.post(f"/api/jobs/{job}/estimates", json=body).status_code == 201
    said = {"answer": "agreed", "said": "Jorun Aske", "on": date.today().isoformat(), **who(client)}
    assert client.post(f"/api/jobs/{job}/estimates/{estimate_id}/answer", json=said).status_code == 201
    assert not money(client, job)["standing"]["is_broken"]
    route = client.get(f"/api/jobs/{job}/route").json()
    assert "estimate" not in {one["hold"] for one in route["holds"] if one["missing"]}


def test_the_job_that_went_home_has_its_credit(client: TestClient) -> None:
    job = job_called(client, "Winding Engine Hob")
    bill = client.get(f"/api/jobs/{job}/bill").json()
    assert bill["open_lines"] == [] and D(bill["credit"]) > 0
    assert D(bill["net"]) == sum(D(one["money"]) for one in bill["lines"])
    assert D(bill["net"]) + D(bill["credit"]) == D(bill["agreed"])
    assert D(bill["gross"]) == D(bill["net"]) + sum(D(one["amounts"]["worst"]) for one in bill["taxes"])
    assert "Winding Engine Hob" not in {one["name"] for one in client.get("/api/calendar").json()["jobs"]}


def test_parts_that_were_paid_stand_in_their_line(client: TestClient) -> None:
    job = job_called(client, "Ferry Lanthorn")
    before = money(client, job)
    gaskets = next(one for one in before["standing"]["lines"] if one["words"] == "Gasket set")
    assert D(gaskets["used"]) == D("81.90") and D(gaskets["off"]) == D("4.50")
    cost = {
        "part_cost_id": str(uuid4()),
        "words": "Paint",
        "money": "12.50",
        "bill": "chargeable beside it",
        **who(client),
    }
    for _ in range(2):
        assert client.post(f"/api/jobs/{job}/part-costs", json=cost).status_code == 201
    after = money(client, job)["standing"]
    assert D(after["found_money"]) - D(before["standing"]["found_money"]) == D("12.50")


def test_an_order_is_waited_for_measured_and_paid(client: TestClient) -> None:
    job = job_called(client, "Narrow-boat Quillet")
    due = (date.today() + timedelta(days=9)).isoformat()
    order = {"order_id": str(uuid4()), "kind": "made to size", "what": "Two pistons", "whom": "Hallam Foundry",
             "due": due,
             "wanted": "3.520 in", "within": "0.001 in", "words": "ring lands as sample", **who(client)}  # fmt: skip
    for _ in range(2):
        assert client.post(f"/api/jobs/{job}/orders", json=order).status_code == 201
    found = client.get(f"/api/jobs/{job}/orders").json()
    assert [(one["what"], one["state"]) for one in found] == [("Two pistons", "on order")]
    waits = client.get(f"/api/jobs/{job}/route").json()["waits"]
    assert any(one["words"] == "Two pistons from Hallam Foundry" and one["expected"] == due for one in waits)
    path = f"/api/jobs/{job}/orders/{order['order_id']}/moves"
    later = (date.today() + timedelta(days=19)).isoformat()
    assert client.post(path, json={"kind": "said to come", "due": later, **who(client)}).status_code == 201
    waits = client.get(f"/api/jobs/{job}/route").json()["waits"]
    assert next(one for one in waits if one["words"].startswith("Two pistons"))["expected"] == later
    assert client.post(path, json={"kind": "in", "paid": "310", **who(client)}).status_code == 201
    assert client.get(f"/api/jobs/{job}/orders").json()[0]["state"] == "in, to be measured"
    assert D(money(client, job)["costs"][0]["money"]) == 310
    waits = client.get(f"/api/jobs/{job}/route").json()["waits"]
    assert next(one for one in waits if one["words"].startswith("Two pistons"))["ended"] is not None
    assert client.post(path, json={"kind": "measured", "measured": "3.5222 in", **who(client)}).status_code == 201
    assert client.get(f"/api/jobs/{job}/orders").json()[0]["state"] == "in, not as ordered"
    assert field_of(client.post(path, json={"kind": "sent back", **who(client)})) == "words"
    brief = client.get(f"/api/jobs/{job}/brief.pdf")
    text = " ".join(page.extract_text() for page in pypdf.PdfReader(BytesIO(brief.content)).pages)
    assert "Two pistons" in text and "ring lands as sample" in text and "Ask before you cut" in text


def test_orders_are_asked_for_with_care(client: TestClient) -> None:
    job = job_called(client, "Narrow-boat Quillet")
    base = {"kind": "part", "what": "Rings", **who(client)}

    def refused(**more: Any) -> str:
        return field_of(client.post(f"/api/jobs/{job}/orders", json={"order_id": str(uuid4()), **base, **more}))

    assert refused(due="2020-01-01") == "due"
    assert refused(wanted="90 mm") == "within"
    assert refused(wanted="wide", within="0.1 mm") == "wanted"
    loan = {"order_id": str(uuid4()), **base, "kind": "loan"}
    assert client.post(f"/api/jobs/{job}/orders", json=loan).status_code == 201
    path = f"/api/jobs/{job}/orders/{loan['order_id']}/moves"
    assert field_of(client.post(path, json={"kind": "in", **who(client)})) == "kind"
    assert client.post(path, json={"kind": "given back", **who(client)}).status_code == 201
    part = {"order_id": str(uuid4()), **base}
    assert client.post(f"/api/jobs/{job}/orders", json=part).status_code == 201
    path = f"/api/jobs/{job}/orders/{part['order_id']}/moves"
    assert field_of(client.post(path, json={"kind": "measured", "measured": "90 mm", **who(client)})) == "measured"
    assert (
        field_of(client.post(f"/api/jobs/{job}/orders/{uuid4()}/moves", json={"kind": "in", **who(client)}))
        == "order_id"
    )


def test_the_page_for_the_owner_stands_by_itself_in_plain_words(client: TestClient) -> None:
    page = client.get(f"/api/jobs/{job_called(client, 'Pump No. 4')}/owner.html").text
    assert "Pump No. 4" in page and "It waits for" in page and "What was found" in page
    assert "src=" not in page and "href=" not in page, "it needs nothing else"
    assert "disagree" not in page and "±" not in page
    pdf = client.get(f"/api/jobs/{job_called(client, 'Pump No. 4')}/owner.pdf")
    assert pdf.content.startswith(b"%PDF")


def test_prices_and_rules_are_the_shops_own(client: TestClient) -> None:
    price = {"name": "Gasket set", "money": "99.95", "days": 8, **who(client)}
    listed = client.post("/api/part-prices", json=price).json()
    assert [one["money"] for one in listed if one["name"] == "Gasket set"] == ["99.95"]
    draft = money(client, job_called(client, "Hill Tractor Marram"))["draft"]
    assert next(one for one in draft if one["words"] == "Gasket set")["worst"] == "99.95"
    rules = {"tax_percent": "7", "rounding": "half a cent to the even one", "returns_percent": "5", **who(client)}
    assert client.post("/api/money-rules", json=rules).json()["tax_percent"] == "7"
    assert money(client, job_called(client, "Hill Tractor Marram"))["totals"]["taxes"][0]["percent"] == "7"
