"""Devices on the shop's network: nobody gets in unpaired, a code is good once, signing out is at once."""

from collections.abc import Iterator
from datetime import timedelta

import psycopg
import pytest
from fastapi.testclient import TestClient

from tests.api.bench import assert_refusal_shape, field_of
from tests.conftest import at_this_machine
from vallostasis.services import pairing
from vallostasis.settings import Settings, is_loopback

PHONE = "192.0.2.9"
OPEN_TO_ALL = {"/api/network", "/api/network/devices"}


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
    assert network == {"open": True, "at_this_machine": False, "device": None, "addresses": []}


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
