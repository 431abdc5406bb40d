"""The calendar over HTTP, as the demo shop has it: promises, a late part, pins, absences, visits, iCalendar."""

from datetime import UTC, date, datetime, timedelta
from itertools import pairwise
from typing import Any
from uuid import uuid4
from zoneinfo import ZoneInfo

import icalendar
from fastapi.testclient import TestClient

from tests.api.bench import field_of, job_called

LONDON = ZoneInfo("Europe/London")


def who(client: TestClient, name: str = "Ines") -> dict[str, str]:
    return {"person_id": next(one["person_id"] for one in client.get("/api/people").json() if one["name"] == name)}


def calendar(client: TestClient) -> dict[str, Any]:
    found: dict[str, Any] = client.get("/api/calendar").json()
    return found


def of(found: dict[str, Any], name: str) -> dict[str, Any]:
    return next(one for one in found["jobs"] if one["name"] == name)


def a_weekday(days: int) -> date:
    day = datetime.now(LONDON).date() + timedelta(days=days)
    return day + timedelta(days=(7 - day.weekday()) % 7 if day.weekday() > 4 else 0)


def test_every_open_job_is_laid_out_within_the_shops_hours(client: TestClient) -> None:
    found = calendar(client)
    assert found["zone"] == "Europe/London" and found["week_h"] == 40
    assert {"Ferry Lanthorn", "Sawmill Hauler", "Pump No. 4"} <= {one["name"] for one in found["jobs"]}
    for job in found["jobs"]:
        for bar in job["bars"]:
            start = datetime.fromisoformat(bar["start"]).astimezone(LONDON)
            assert start.weekday() < 5 and 8 <= start.hour < 17 and start.hour != 12
            assert bar["person"] in found["people"]
    # One block stands at one place: nothing of a job overlaps, but for what is talked over.
    for job in found["jobs"]:
        spans = sorted((one["start"], one["end"]) for one in job["bars"] if "decide" not in one["operations"])
        assert all(first[1] <= second[0] for first, second in pairwise(spans))


def test_the_late_liners_break_the_promise_of_the_hauler(client: TestClient) -> None:
    hauler = of(calendar(client), "Sawmill Hauler")
    late = next(one for one in hauler["waits"] if "liners" in one["words"])
    assert late["expected"] > late["first_expected"]
    assert hauler["holds"] is False and hauler["late_days"] >= 1 and hauler["kept"] < 0.5
    fits = next(one for one in hauler["bars"] if "fit-prep" in one["operations"])
    assert fits["start"][:10] >= late["expected"]
    assert hauler["offered"] >= hauler["ready"][:10]


def test_a_later_part_is_shown_before_it_is_accepted(client: TestClient) -> None:
    before = of(calendar(client), "Sawmill Hauler")
    wait = next(one for one in before["waits"] if "liners" in one["words"])
    later = (date.fromisoformat(wait["expected"]) + timedelta(days=14)).isoformat()
    tried = client.post("/api/calendar/tried", json={
        "job_id": before["job_id"], "wait_id": wait["wait_id"], "expected": later}).json()  # fmt: skip
    moved = next(one for one in tried["moved"] if one["name"] == "Sawmill Hauler")
    assert moved["days"] == 10
    assert "four liners" in tried["message"] and "Nothing is charged for waiting" in tried["message"]
    # Nothing is recorded until it is accepted.
    assert of(calendar(client), "Sawmill Hauler")["ready"] == before["ready"]
    path = f"/api/jobs/{before['job_id']}/route/waits/{wait['wait_id']}/moved"
    assert client.post(path, json={"expected": later, "words": "the mould broke", **who(client)}).status_code == 201
    after = of(calendar(client), "Sawmill Hauler")
    assert after["ready"] == moved["ready_after"]
    promise = {"promised": after["offered"], "told": tried["message"], **who(client)}
    assert client.post(f"/api/jobs/{before['job_id']}/promises", json=promise).status_code == 201
    kept = of(calendar(client), "Sawmill Hauler")
    assert kept["holds"] is True and kept["kept"] >= 0.9
    words = [one["words"] for one in client.get(f"/api/jobs/{before['job_id']}/block").json()["tape"]]
    assert any(one.startswith("promised for") for one in words) and any("expected" in one for one in words)


def test_what_is_moved_is_asked_for_with_care(client: TestClient) -> None:
    job = job_called(client, "Sawmill Hauler")
    path = f"/api/jobs/{job}/route/waits/{uuid4()}/moved"
    assert field_of(client.post(path, json={"expected": None, **who(client)})) == "wait_id"
    wait = next(one for one in of(calendar(client), "Sawmill Hauler")["waits"] if "liners" in one["words"])
    path = f"/api/jobs/{job}/route/waits/{wait['wait_id']}/moved"
    assert field_of(client.post(path, json={"expected": "2020-01-01", **who(client)})) == "expected"
    assert field_of(client.post(f"/api/jobs/{job}/promises", json={"promised": None, **who(client)})) == "told"
    early = {"promised": "2020-01-01", **who(client)}
    assert field_of(client.post(f"/api/jobs/{job}/promises", json=early)) == "promised"


def test_a_pin_holds_until_it_is_taken_away(client: TestClient) -> None:
    job = job_called(client, "Winding Engine Tamsin")
    day = a_weekday(7).isoformat()
    body = {"operation": "wash", "starts_at": f"{day}T10:00", "person": "Tobiah", **who(client)}
    assert client.post(f"/api/jobs/{job}/pins", json=body).status_code == 201
    wash = next(one for one in of(calendar(client), "Winding Engine Tamsin")["bars"] if one["operations"] == ["wash"])
    assert wash["start"].startswith(f"{day}T10:00") and wash["person"] == "Tobiah" and wash["pinned"]
    assert client.post(f"/api/jobs/{job}/pins", json={"operation": "wash", **who(client)}).status_code == 201
    wash = next(one for one in of(calendar(client), "Winding Engine Tamsin")["bars"] if one["operations"] == ["wash"])
    assert not wash["pinned"] and not wash["start"].startswith(f"{day}T10:00")


def test_pins_that_cannot_be_are_refused_at_their_field(client: TestClient) -> None:
    job = job_called(client, "Winding Engine Tamsin")

    def refused(**body: str) -> str:
        return field_of(client.post(f"/api/jobs/{job}/pins", json={**body, **who(client)}))

    assert refused(operation="wash", starts_at="2020-01-01T08:00") == "starts_at"
    assert refused(operation="wash", person="Nobody") == "person"
    assert refused(operation="deck") == "operation"
    # Sunday night is no working time: two that are pinned to one moment do not go together either.
    day = a_weekday(7).isoformat()
    for operation in ("wash", "prove"):
        body = {"operation": operation, "starts_at": f"{day}T10:00", "person": "Tobiah", **who(client)}
        assert client.post(f"/api/jobs/{job}/pins", json=body).status_code == 201
    # The calendar is still shown, without them, and says so.
    found = calendar(client)
    assert "take a pin away" in found["alarms"][0] and found["alarms"][0].startswith("Laid out without pins")
    assert not any(bar["pinned"] for job in found["jobs"] for bar in job["bars"])


def test_absences_machines_and_a_visit(client: TestClient) -> None:
    before = client.get("/api/shop-time").json()
    assert {one["what"] for one in before["away"]} == {"Wren", "hone", ""}
    day = a_weekday(1)
    away = {"away_id": str(uuid4()), "what": "Tobiah", "starts": f"{day}T00:00",
            "ends": f"{day + timedelta(days=20)}T00:00", "words": "walking", **who(client)}  # fmt: skip
    assert client.post("/api/shop-time/away", json=away).status_code == 201
    bars = [bar for job in calendar(client)["jobs"] for bar in job["bars"] if bar["person"] == "Tobiah"]
    assert not [one for one in bars if day.isoformat() <= one["start"][:10] < (day + timedelta(days=20)).isoformat()]
    back = client.post(f"/api/shop-time/away/{away['away_id']}/back", json=who(client))
    assert len(back.json()["away"]) == len(before["away"])
    assert field_of(client.post(f"/api/shop-time/away/{uuid4()}/back", json=who(client))) == "away_id"
    assert field_of(client.post(f"/api/shop-time/visits/{uuid4()}/back", json=who(client))) == "visit_id"
    for wrong in ({"what": "Nobody"}, {"ends": f"{day - timedelta(days=3)}T00:00"}):
        answer = client.post("/api/shop-time/away", json={**away, "away_id": str(uuid4()), **wrong})
        assert field_of(answer) == next(iter(wrong))
    assert client.post("/api/shop-time/machines", json={"machine": "hone", "count": 2, **who(client)}).json()[
        "machines"]["hone"] == 2  # fmt: skip


def test_a_visitor_does_what_he_comes_for_when_he_is_there(client: TestClient) -> None:
    job, day = job_called(client, "Ferry Lanthorn, starboard"), a_weekday(7)
    visit = {"visit_id": str(uuid4()), "name": "Osk of the travelling cutter", "job_id": job, "operations": ["cut"],
             "starts_at": f"{day}T09:00", "ends_at": f"{day}T16:00", "needs": ["block on its stand", "light"],
             **who(client)}  # fmt: skip
    assert client.post("/api/shop-time/visits", json=visit).status_code == 201
    found = calendar(client)
    cut = next(one for one in of(found, "Ferry Lanthorn, starboard")["bars"] if one["operations"] == ["cut"])
    assert cut["person"] == "Osk of the travelling cutter" and cut["start"] >= f"{day}T09:00"
    own = next(one for one in found["visits"] if one["name"] == "Osk of the travelling cutter")
    assert own["does"] == ["Cut counterbores"] and own["not_ready"] == [] and "light" in own["needs"]
    assert field_of(client.post("/api/shop-time/visits", json={**visit, "operations": []})) == "operations"


def test_hours_of_the_shop_are_refused_where_they_cannot_be(client: TestClient) -> None:
    week = [[[480, 720]]] * 5 + [[], []]
    body = {"zone": "Europe/London", "week": week, **who(client)}
    assert client.post("/api/shop-time/hours", json=body).json()["hours"]["week"][0] == [[480, 720]]
    assert calendar(client)["week_h"] == 20
    assert field_of(client.post("/api/shop-time/hours", json={**body, "zone": "Narnia/Lamp"})) == "zone"
    for wrong in ([[]] * 7, [[[720, 480]]] * 7, [[[480, 720], [600, 900]]] * 7):
        assert field_of(client.post("/api/shop-time/hours", json={**body, "week": wrong})) == "week"


def test_the_calendar_file_says_the_same_times(client: TestClient) -> None:
    """Read by the general-purpose parser icalendar."""
    found = calendar(client)
    bars = {(one["start"], one["end"]) for job in found["jobs"] for one in job["bars"] if one["person"] == "Tobiah"}
    file = icalendar.Calendar.from_ical(client.get("/api/calendar.ics", params={"person": "Tobiah"}).content)
    events = [one for one in file.walk("VEVENT") if "reminder" not in str(one["uid"])]
    times = {(one.decoded("dtstart"), one.decoded("dtend")) for one in events}
    assert {(datetime.fromisoformat(a), datetime.fromisoformat(b)) for a, b in bars} <= times
    assert all(start.tzinfo is not None for start, _ in times)
    whole = icalendar.Calendar.from_ical(client.get("/api/calendar.ics").content)
    said = [str(one["summary"]) for one in whole.walk("VEVENT")]
    assert any(one.endswith(": promised") for one in said)
    hone = icalendar.Calendar.from_ical(client.get("/api/calendar.ics", params={"machine": "hone"}).content)
    assert len(hone.walk("VEVENT")) == sum(one["machine"] == "hone" for job in found["jobs"] for one in job["bars"])
    assert field_of(client.get("/api/calendar.ics", params={"person": "Nobody"})) == "person"


def test_work_that_no_clock_ran_for_is_counted_once(client: TestClient) -> None:
    job = job_called(client, "Hill Tractor Marram")
    started = datetime.now(UTC) - timedelta(days=2, hours=3)
    body = {"operation": "decide", "started": started.isoformat(), "hours": 1.5, "bill": "goodwill", **who(client)}
    assert client.post(f"/api/jobs/{job}/route/worked", json=body).status_code == 201
    hours = client.get(f"/api/jobs/{job}/hours").json()
    decide = next(one for one in hours["operations"] if one["operation"] == "decide")
    assert decide["goodwill_h"] == 1.5 and hours["goodwill_h"] == 1.5
    assert field_of(client.post(f"/api/jobs/{job}/route/worked", json=body)) == "started"
    soon = {**body, "started": (datetime.now(UTC) - timedelta(hours=1)).isoformat()}
    assert field_of(client.post(f"/api/jobs/{job}/route/worked", json=soon)) == "started"
    long_ago = {**body, "started": (datetime.now(UTC) - timedelta(days=500)).isoformat()}
    assert field_of(client.post(f"/api/jobs/{job}/route/worked", json=long_ago)) == "started"


def test_hours_come_from_the_log_of_the_shop(client: TestClient) -> None:
    """The demo's people took engines in seven times: from five on their median stands."""
    hours = client.get(f"/api/jobs/{job_called(client, 'Ferry Lanthorn')}/hours").json()
    taken = next(one for one in hours["operations"] if one["operation"] == "take-in")
    assert taken["learned_from"] >= 5 and taken["low_h"] <= taken["middle_h"] <= taken["high_h"] <= taken["worst_h"]
    cut = next(one for one in hours["operations"] if one["operation"] == "cut")
    assert cut["learned_from"] > 12
    assert hours["anomalies_min"] > 0
    wash = next(one for one in hours["operations"] if one["operation"] == "wash")
    assert wash["learned_from"] == 0


def test_a_clock_that_runs_is_told_where_it_runs(client: TestClient) -> None:
    job = job_called(client, "Ferry Lanthorn")
    body = {"operation": "cut", "running": True, "bill": "chargeable beside it", **who(client, "Wren")}
    assert client.post(f"/api/jobs/{job}/route/clock", json=body).status_code == 201
    running = client.get(f"/api/jobs/{job}/hours/running").json()
    assert [(one["by"], one["operation"], one["bill"]) for one in running] == [("Wren", "cut", "chargeable beside it")]
