"""Devices on the shop's network: nobody gets in unpaired, a code is good once, signing out is at once."""

from collections.abc import Iterator, MutableMapping
from datetime import timedelta
from typing import Any

import psycopg
import pytest
from fastapi.testclient import TestClient

from tests.alone import run_alone
from tests.api.bench import assert_refusal_shape, field_of
from tests.conftest import at_this_machine
from vallostasis.services import guesses, pairing
from vallostasis.settings import Settings, is_loopback

PHONE = "192.0.2.9"
OPEN_TO_ALL = {"/api/network", "/api/network/devices", "/api/network/readers"}


@pytest.fixture
def shop(demo_dsn: str) -> Iterator[TestClient]:
    """The machine itself, serving the whole network."""
    with at_this_machine(Settings(dsn=demo_dsn, host="0.0.0.0")) as client:
        yield client


@pytest.fixture
def phone(demo_dsn: str) -> Iterator[TestClient]:
    """A device of the network, at a second process on the same database."""
    with at_this_machine(Settings(dsn=demo_dsn, host="0.0.0.0"), PHONE) as client:
        yield client


def _pair(shop: TestClient, phone: TestClient) -> dict[str, str]:
    code = shop.post("/api/network/codes").json()["code"]
    answer = phone.post("/api/network/devices", json={"code": code.lower().replace("-", " "), "device": "Bench phone"})
    assert answer.status_code == 201, answer.text
    device: dict[str, str] = answer.json()
    return device


def test_nothing_is_reached_unpaired_from_the_network(phone: TestClient) -> None:
    tried = 0
    for path, methods in phone.get("/openapi.json").json()["paths"].items():
        for method in methods:
            if path in OPEN_TO_ALL or not path.startswith("/api"):
                continue
            refused = phone.request(method, path.replace("{", "").replace("}", ""), json={})
            assert refused.status_code == 401, (method, path, refused.text)
            assert refused.json()["code"] == "not paired"
            assert_refusal_shape(refused)
            tried += 1
    assert tried >= 30
    # Only a paired device may see who is let in; pairing itself is the one thing open.
    network = phone.get("/api/network").json()
    assert network == {"open": True, "at_this_machine": False, "device": None, "addresses": [], "fingerprint": "",
                       "role": None, "sign_in": [], "person": None}  # fmt: skip


def test_the_machine_itself_needs_no_pairing(shop: TestClient) -> None:
    assert shop.get("/api/jobs").status_code == 200
    network = shop.get("/api/network").json()
    assert network["at_this_machine"] is True
    assert all(address.startswith("http://") and "127.0.0.1" not in address for address in network["addresses"])
    assert network["addresses"]


def test_a_code_lets_one_device_in_once(shop: TestClient, phone: TestClient) -> None:
    made = shop.post("/api/network/codes").json()
    assert made["address"].endswith(f"/pair#{made['code']}")
    assert made["qr_svg"].startswith("<svg")
    body = {"code": made["code"], "device": "Bench phone"}
    answer = phone.post("/api/network/devices", json=body)
    assert answer.status_code == 201
    cookie = answer.headers["set-cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=strict" in cookie
    assert phone.get("/api/jobs").status_code == 200
    again = phone.post("/api/network/devices", json=body)
    assert again.status_code == 422
    assert field_of(again) == "code"


def test_signing_out_is_at_once_and_from_any_screen(shop: TestClient, phone: TestClient) -> None:
    device = _pair(shop, phone)
    assert phone.get("/api/network").json()["device"]["name"] == "Bench phone"
    left = shop.post(f"/api/network/devices/{device['paired_device_id']}/sign-out").json()
    assert left == []
    assert phone.get("/api/jobs").status_code == 401
    device = _pair(shop, phone)
    assert phone.post(f"/api/network/devices/{device['paired_device_id']}/sign-out").status_code == 200
    assert phone.get("/api/jobs").status_code == 401


def test_codes_and_sessions_run_out(demo: psycopg.Connection, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(pairing, "CODE_GOOD_FOR", timedelta(seconds=0))
    with pytest.raises(pairing.Refused, match="runs out after ten minutes"):
        pairing.open_session(demo, pairing.make_code(demo).code, "Late")
    monkeypatch.setattr(pairing, "CODE_GOOD_FOR", timedelta(minutes=1))
    monkeypatch.setattr(pairing, "SESSION_GOOD_FOR", timedelta(seconds=0))
    session = pairing.open_session(demo, pairing.make_code(demo).code, "Short")
    assert pairing.device_of(demo, session.token) is None


def test_the_database_keeps_no_secret(demo: psycopg.Connection) -> None:
    code = pairing.make_code(demo).code
    session = pairing.open_session(demo, code, "Phone")
    kept = str(demo.execute("SELECT * FROM pairing_code, paired_device").fetchall())
    assert session.token not in kept
    assert code.replace("-", "") not in kept


@pytest.mark.parametrize(
    "headers",
    [
        {"host": "evil.example"},
        {"host": "127.0.0.1.evil.example:8420"},
        {"origin": "http://evil.example"},
        {"origin": "null"},
        {"host": ""},
    ],
)
def test_another_site_cannot_make_a_browser_send_for_it(client: TestClient, headers: dict[str, str]) -> None:
    refused = client.get("/api/jobs", headers=headers)
    assert refused.status_code == 403
    assert_refusal_shape(refused)


@pytest.mark.parametrize("host", ["127.0.0.1:8420", "localhost", "[::1]:8420", "192.0.2.2"])
def test_its_own_names_are_let_through(client: TestClient, host: str) -> None:
    assert client.get("/api/jobs", headers={"host": host, "origin": f"http://{host}"}).status_code == 200


def test_pairing_goes_with_every_address_but_loopback() -> None:
    for host in ("127.0.0.1", "localhost", "::1", "127.8.8.8", "::ffff:127.0.0.1"):
        assert is_loopback(host), host
        assert not Settings(host=host).pairing
    for host in ("0.0.0.0", "::", "192.0.2.2", "workshop", "fd00::2", ""):
        assert not is_loopback(host), host
        assert Settings(host=host).pairing


def test_whoever_is_not_paired_is_told_so_before_a_body_is_read(phone: TestClient) -> None:
    scope = {"type": "http", "http_version": "1.1", "method": "POST", "scheme": "http", "path": "/api/jobs/imports",
             "raw_path": b"/api/jobs/imports", "query_string": b"", "root_path": "", "client": (PHONE, 50_000),
             "server": ("127.0.0.1", 80), "headers": [(b"host", b"127.0.0.1")]}  # fmt: skip
    said: list[MutableMapping[str, Any]] = []

    async def never() -> MutableMapping[str, Any]:
        raise AssertionError("the body was asked for")

    async def hear(message: MutableMapping[str, Any]) -> None:
        said.append(message)

    run_alone(phone.app(scope, never, hear))
    assert said[0]["status"] == 401
    assert b'"not paired"' in said[1]["body"]


def test_whoever_guesses_codes_is_let_try_no_more(shop: TestClient, phone: TestClient) -> None:
    for _ in range(guesses.OF_ONE):
        assert phone.post("/api/network/devices", json={"code": "AAAA-2222", "device": "Guess"}).status_code == 422
    code = shop.post("/api/network/codes").json()["code"]
    refused = phone.post("/api/network/devices", json={"code": code, "device": "Guess"})
    assert (refused.status_code, refused.json()["code"]) == (429, "too often")
    assert_refusal_shape(refused)


def test_what_happens_at_the_door_is_on_record(shop: TestClient, phone: TestClient) -> None:
    device = _pair(shop, phone)
    shop.post(f"/api/network/devices/{device['paired_device_id']}/sign-out")
    for _ in range(guesses.OF_ONE):
        phone.post("/api/network/devices", json={"code": "AAAA-2222", "device": "Guess"})
    assert phone.get("/api/network/log").status_code == 401
    log = [(one["kind"], one["address"]) for one in shop.get("/api/network/log").json()]
    assert log == [
        ("too many codes", PHONE),
        *[("wrong code", PHONE)] * guesses.OF_ONE,
        ("signed out", "127.0.0.1"),
        ("paired", PHONE),
        ("code made", "127.0.0.1"),
    ]


def _wrong(conn: psycopg.Connection, of: str, minutes_ago: float, kind: str = "wrong code", words: str = "x") -> None:
    conn.execute("INSERT INTO security_event (kind, words, address, at) VALUES (%s, %s, %s, now() - %s)",
                 (kind, words, of, timedelta(minutes=minutes_ago)))  # fmt: skip


def test_guesses_are_forgotten_after_ten_minutes_and_all_together_are_few(demo: psycopg.Connection) -> None:
    for _ in range(guesses.OF_ONE - 1):
        _wrong(demo, "a", 9)
    _wrong(demo, "a", 11)
    assert guesses.may_try_a_key(demo, "a")
    _wrong(demo, "a", 9, "wrong link")
    assert (guesses.may_try_a_key(demo, "a"), guesses.may_try_a_key(demo, "b")) == (False, True)
    for number in range(guesses.OF_ALL):
        _wrong(demo, str(number), 1)
    assert not guesses.may_try_a_key(demo, "nobody yet")


def test_passwords_are_guessed_at_few_times_by_a_device_and_of_a_person(demo: psycopg.Connection) -> None:
    for at in range(guesses.OF_ONE):
        _wrong(demo, f"device {at}", 1, "wrong password", "Ines")
        _wrong(demo, "bench", 1, "wrong password", f"person {at}")
    assert not guesses.may_try_a_password(demo, "another device", "Ines")
    assert not guesses.may_try_a_password(demo, "bench", "somebody else")
    assert guesses.may_try_a_password(demo, "another device", "Wren")
    # Guessing at passwords keeps nobody from pairing a device, and codes nobody from signing in.
    assert guesses.may_try_a_key(demo, "bench")


def test_of_codes_that_nobody_used_the_newest_three_stay_open(demo: psycopg.Connection) -> None:
    codes = [pairing.make_code(demo).code]
    for _ in range(3):
        # Within one transaction the database's clock stands.
        demo.commit()
        codes.append(pairing.make_code(demo).code)
    with pytest.raises(pairing.Refused, match="runs out after ten minutes"):
        pairing.open_session(demo, codes[0], "Oldest")
    assert pairing.open_session(demo, codes[1], "Third").device.name == "Third"


def test_a_device_that_nobody_used_for_a_week_is_let_in_no_longer(demo: psycopg.Connection) -> None:
    session = pairing.open_session(demo, pairing.make_code(demo).code, "Drawer")
    assert pairing.device_of(demo, session.token) is not None
    seen = {"id": session.device.paired_device_id}
    demo.execute("UPDATE device_seen SET seen_at = now() - interval '6 days' WHERE paired_device_id = %(id)s", seen)
    assert pairing.device_of(demo, session.token) is not None
    # That it asked counts as use.
    (age,) = demo.execute("SELECT now() - seen_at FROM device_seen WHERE paired_device_id = %(id)s", seen).fetchone()
    assert age < timedelta(minutes=1)
    demo.execute("UPDATE device_seen SET seen_at = now() - interval '8 days' WHERE paired_device_id = %(id)s", seen)
    assert pairing.device_of(demo, session.token) is None


def test_answers_of_a_job_are_kept_by_no_browser(shop: TestClient) -> None:
    assert shop.get("/api/jobs").headers["cache-control"] == "no-store"
    assert shop.get("/api/nothing").headers["cache-control"] == "no-store"
    assert shop.get("/").headers["cache-control"] == "no-cache"
