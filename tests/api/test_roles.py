"""Owner, machinist, reader: what each may do; passwords where the shop wants them; links that end."""

import json
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

import psycopg
import pytest
from fastapi.testclient import TestClient

from tests.api.bench import assert_refusal_shape, field_of
from tests.api.document import operations
from tests.conftest import at_this_machine
from vallostasis.api.door import NobodySignsIn
from vallostasis.core.records.roles import Role
from vallostasis.services import guesses, pairing, sign_ins
from vallostasis.settings import Settings
from vallostasis.store.passwords import list_passwords

PHONE = "192.0.2.9"
SENTENCE = "nine tenths on a warm morning"
OTHER = "the second cut is the last one"


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


def _pair(shop: TestClient, phone: TestClient, role: str) -> None:
    code = shop.post("/api/network/codes", json={"role": role}).json()["code"]
    assert phone.post("/api/network/devices", json={"code": code, "device": "Phone"}).status_code == 201


def _job(shop: TestClient, name: str = "Ferry Lanthorn") -> str:
    found = next(one for one in shop.get("/api/jobs").json() if one["job"]["name"] == name)
    return str(found["job"]["job_id"])


def _people(shop: TestClient) -> dict[str, str]:
    return {one["name"]: one["person_id"] for one in shop.get("/api/people").json()}


def _note(job: str, person: str) -> tuple[str, dict[str, Any]]:
    """Something small that is recorded under a name."""
    body = {"quantity": "protrusion", "hole": 5, "hour": 6, "text": "80", "bare_unit": "µm",
            "reading_id": str(uuid4()), "person_id": person, "new_pass": True}  # fmt: skip
    return f"/api/jobs/{job}/readings", body


# What lets others in, or says who came: the owner's, on every way in.
NOBODYS = UUID(int=7)
OWNERS = [
    ("post", "/api/network/codes"),
    ("get", "/api/network/devices"),
    ("get", "/api/network/log"),
    ("get", "/api/network/links"),
    ("post", "/api/network/links"),
    ("post", f"/api/network/links/{NOBODYS}/end"),
    ("post", f"/api/network/devices/{NOBODYS}/sign-out"),
    ("get", "/api/passwords"),
    ("post", "/api/passwords"),
]
LINK = {"job_id": str(NOBODYS), "name": "x", "days": 1, "of": str(NOBODYS), "password": "", "role": "machinist"}


@pytest.mark.parametrize(("method", "path"), OWNERS)
def test_a_machinists_device_does_all_work_but_lets_nobody_in(
    shop: TestClient, phone: TestClient, method: str, path: str
) -> None:
    _pair(shop, phone, "machinist")
    assert phone.get("/api/network").json()["role"] == "machinist"
    body = {"role": "owner"} if path.endswith("/codes") else LINK
    refused = phone.request(method, path, json=None if method == "get" else body)
    assert (refused.status_code, refused.json()["code"]) == (403, "not yours")
    assert_refusal_shape(refused)
    newest = shop.get("/api/network/log").json()[0]
    assert (newest["kind"], newest["address"]) == ("refused", PHONE)
    assert path in newest["words"]
    assert phone.get("/api/jobs").status_code == 200
    path, reading = _note(_job(shop), _people(shop)["Wren"])
    assert phone.post(path, json=reading).status_code == 201


def test_an_owners_device_lets_others_in_and_signs_them_out(shop: TestClient, phone: TestClient, demo_dsn: str) -> None:
    _pair(shop, phone, "owner")
    assert phone.get("/api/network").json()["role"] == "owner"
    with at_this_machine(Settings(dsn=demo_dsn, host="0.0.0.0"), "192.0.2.10") as third:
        _pair(phone, third, "machinist")
        left = next(one for one in phone.get("/api/network/devices").json() if one["role"] == "machinist")
        phone.post(f"/api/network/devices/{left['paired_device_id']}/sign-out")
        assert third.get("/api/jobs").status_code == 401


def test_a_machinist_signs_the_own_device_out(shop: TestClient, phone: TestClient) -> None:
    _pair(shop, phone, "machinist")
    own = phone.get("/api/network").json()["device"]["paired_device_id"]
    assert phone.post(f"/api/network/devices/{own}/sign-out").json() == []
    assert phone.get("/api/jobs").status_code == 401


def test_a_code_cannot_be_made_for_a_reader(shop: TestClient) -> None:
    assert field_of(shop.post("/api/network/codes", json={"role": "reader"})) == "role"


def test_a_link_shows_one_proof_and_nothing_else(shop: TestClient, phone: TestClient) -> None:
    job = _job(shop)
    made = shop.post("/api/network/links", json={"job_id": job, "name": "Harbour board", "days": 7}).json()
    address, token = made["address"].split("#")
    assert address.endswith("/read")
    assert made["qr_svg"].startswith("<svg")
    assert phone.get(f"/api/jobs/{job}/proof.html").status_code == 401
    opened = phone.post("/api/network/readers", json={"token": token})
    assert opened.status_code == 201
    assert "HttpOnly" in opened.headers["set-cookie"]
    assert "SameSite=strict" in opened.headers["set-cookie"]
    reading = phone.get("/api/reading").json()
    assert (reading["job_id"], reading["job_number"], reading["name"]) == (job, "26-031", "Harbour board")
    assert "26-031" in phone.get(f"/api/jobs/{job}/proof.html").text
    network = phone.get("/api/network").json()
    assert (network["role"], network["addresses"], network["sign_in"]) == ("reader", [], [])
    other = _job(shop, "Narrow-boat Quillet")
    tried = 0
    for method, path, _ in operations():
        if not path.startswith("/api") or path in ("/api/network", "/api/network/devices", "/api/network/readers",
                                                   "/api/reading"):  # fmt: skip
            continue
        for of in {job, other}:
            filled = path.replace("{job_id}", of)
            if filled == f"/api/jobs/{job}/proof.html":
                continue
            refused = phone.request(method, filled.replace("{", "").replace("}", ""), json={})
            assert (refused.status_code, refused.json()["code"]) == (403, "not yours"), (method, filled)
            tried += 1
    assert tried >= 200


def test_a_link_ends_by_its_day_or_by_hand(shop: TestClient, phone: TestClient, demo_dsn: str) -> None:
    job = _job(shop)
    made = shop.post("/api/network/links", json={"job_id": job, "name": "Harbour board", "days": 7}).json()
    token = made["address"].split("#")[1]
    days = datetime.fromisoformat(made["link"]["expires_at"]) - datetime.now(UTC)
    assert timedelta(days=6, hours=23) < days < timedelta(days=7)
    phone.post("/api/network/readers", json={"token": token})
    assert [one["name"] for one in shop.get("/api/network/links").json()] == ["Harbour board"]
    assert shop.post(f"/api/network/links/{made['link']['reader_link_id']}/end").json() == []
    assert phone.get(f"/api/jobs/{job}/proof.html").status_code == 401
    assert phone.post("/api/network/readers", json={"token": token}).status_code == 401
    # One whose day has come, as if it had been made a week ago.
    late = shop.post("/api/network/links", json={"job_id": job, "name": "Late", "days": 1}).json()
    with psycopg.connect(demo_dsn) as conn:
        conn.execute("ALTER TABLE reader_link DISABLE TRIGGER append_only")
        conn.execute("UPDATE reader_link SET expires_at = now() WHERE name = 'Late'")
    assert phone.post("/api/network/readers", json={"token": late["address"].split("#")[1]}).status_code == 401


def test_a_shop_of_one_on_loopback_gives_no_links(demo_dsn: str) -> None:
    with at_this_machine(Settings(dsn=demo_dsn)) as client:
        refused = client.post("/api/network/links", json={"job_id": _job(client), "name": "Harbour", "days": 7})
        assert refused.status_code == 422
        assert "--host 0.0.0.0" in refused.json()["message"]
        assert client.get("/api/network").json()["role"] == "owner"


def _set(client: TestClient, of: str, role: str, password: str) -> Any:
    return client.post("/api/passwords", json={"of": of, "role": role, "password": password})


def test_from_the_first_password_on_whoever_comes_in_signs_in(shop: TestClient, demo_dsn: str) -> None:
    people, job = _people(shop), _job(shop)
    # The first one of all is an owner's, whoever wants it otherwise.
    assert field_of(_set(shop, people["Wren"], "machinist", SENTENCE)) == "role"
    assert _set(shop, people["Ines"], "owner", SENTENCE).status_code == 200
    # Whoever set it goes on; another browser of the same machine is asked.
    assert shop.get("/api/network").json()["person"]["name"] == "Ines"
    assert _set(shop, people["Wren"], "machinist", OTHER).status_code == 200
    with at_this_machine(Settings(dsn=demo_dsn, host="0.0.0.0")) as bench:
        refused = bench.get("/api/jobs")
        assert (refused.status_code, refused.json()["code"]) == (401, "not signed in")
        assert_refusal_shape(refused)
        network = bench.get("/api/network").json()
        assert [one["name"] for one in network["sign_in"]] == ["Ines", "Wren"]
        assert (network["role"], network["person"]) == (None, None)
        signed = bench.post("/api/sign-in", json={"of": people["Wren"], "password": OTHER})
        assert signed.json() == {"name": "Wren"}
        assert bench.get("/api/network").json()["role"] == "machinist"
        # At the machine itself too a machinist lets nobody in.
        assert bench.post("/api/network/codes").status_code == 403
        path, own = _note(job, people["Wren"])
        assert bench.post(path, json=own).status_code == 201
        # Nobody records under another name.
        for name in ("Ines", "Tobiah"):
            path, others = _note(job, people[name])
            refused = bench.post(path, json=others)
            assert (refused.status_code, refused.json()["code"]) == (403, "not yours")
            assert "Wren is signed in" in refused.json()["message"]
        # However it says that it is written.
        for kind in (
            "application/json",
            "Application/JSON; charset=utf-8",
            "application/vnd.shop+json",
            "text/plain",
            "",
        ):
            path, others = _note(job, people["Ines"])
            headers = {"content-type": kind} if kind else {}
            sent = bench.post(path, content=json.dumps(others), headers=headers)
            assert sent.status_code in (403, 422), (kind, sent.text)
            assert bench.post(path, content="{", headers=headers).status_code in (400, 422), kind
        assert bench.get(f"/api/jobs/{job}/proof.pdf", params={"person_id": people["Ines"]}).status_code == 403
        form = {"note_id": str(uuid4()), "person_id": people["Ines"], "words": "x"}
        assert bench.post(f"/api/readings/{uuid4()}/notes", data=form, files={"x": b""}).status_code == 403
        bench.post("/api/sign-out")
        assert bench.get("/api/jobs").status_code == 401


def test_a_wrong_password_lets_nobody_in_and_guessing_ends(shop: TestClient, demo_dsn: str) -> None:
    people = _people(shop)
    _set(shop, people["Ines"], "owner", SENTENCE)
    with at_this_machine(Settings(dsn=demo_dsn, host="0.0.0.0")) as bench:
        words = set()
        for of in (people["Ines"], people["Wren"], str(uuid4())):
            refused = bench.post("/api/sign-in", json={"of": of, "password": "something else entirely"})
            assert refused.status_code == 422
            words.add(refused.json()["message"])
        assert len(words) == 1, "nobody learns who has a password"
        for _ in range(guesses.OF_ONE):
            bench.post("/api/sign-in", json={"of": people["Ines"], "password": "no"})
        right = bench.post("/api/sign-in", json={"of": people["Ines"], "password": SENTENCE})
        assert (right.status_code, right.json()["code"]) == (429, "too often")
    kinds = [one["kind"] for one in shop.get("/api/network/log").json()]
    assert kinds.count("wrong password") == guesses.OF_ONE
    assert "too many passwords" in kinds
    assert "password set" in kinds


@pytest.mark.parametrize(
    ("password", "words"),
    [("short", "10 to 200"), ("aaaaaaaaaaaa", "guessed at once"), ("ines ines ines", "guessed at once")],
)
def test_passwords_that_are_guessed_at_once_are_refused(shop: TestClient, password: str, words: str) -> None:
    refused = _set(shop, _people(shop)["Ines"], "owner", password)
    assert field_of(refused) == "password"
    assert words in refused.json()["message"]


def test_a_password_set_anew_ends_what_was_opened_with_the_old_one(shop: TestClient, demo_dsn: str) -> None:
    people = _people(shop)
    _set(shop, people["Ines"], "owner", SENTENCE)
    _set(shop, people["Wren"], "machinist", OTHER)
    with at_this_machine(Settings(dsn=demo_dsn, host="0.0.0.0")) as bench:
        bench.post("/api/sign-in", json={"of": people["Wren"], "password": OTHER})
        wrong = bench.post("/api/passwords/own", json={"present": "not that one", "password": SENTENCE + "!"})
        assert field_of(wrong) == "present"
        own = bench.post("/api/passwords/own", json={"present": OTHER, "password": OTHER + " of all"})
        assert own.status_code == 200
        assert bench.get("/api/jobs").status_code == 200
        _set(shop, people["Wren"], "machinist", SENTENCE + " of the master")
        assert bench.get("/api/jobs").status_code == 401


def test_the_last_owner_goes_last_and_then_nobody_is_asked(shop: TestClient, demo_dsn: str) -> None:
    people = _people(shop)
    _set(shop, people["Ines"], "owner", SENTENCE)
    _set(shop, people["Wren"], "machinist", OTHER)
    assert field_of(_set(shop, people["Ines"], "owner", "")) == "person_id"
    assert field_of(_set(shop, people["Ines"], "machinist", SENTENCE)) == "role"
    _set(shop, people["Wren"], "machinist", "")
    assert _set(shop, people["Ines"], "owner", "").json() == []
    with at_this_machine(Settings(dsn=demo_dsn)) as bench:
        assert bench.get("/api/jobs").status_code == 200


def test_the_database_keeps_no_password_and_no_token(demo: psycopg.Connection) -> None:
    ines = demo.execute("SELECT person_id FROM person WHERE name = 'Ines'").fetchone()[0]
    sign_ins.set_password(demo, ines, Role.OWNER, SENTENCE)
    token = sign_ins.sign_in(demo, ines, SENTENCE)
    kept = str(demo.execute("SELECT * FROM password, signed_in").fetchall())
    assert SENTENCE not in kept
    assert token not in kept
    # Argon2id by RFC 9106, section 4: 64 MiB, three passes, four lanes.
    assert list_passwords(demo)[0].password_hash.startswith("$argon2id$v=19$m=65536,t=3,p=4$")
    assert sign_ins.signed_in(demo, token).name == "Ines"
    assert sign_ins.signed_in(demo, token[:-1]) is None


def test_a_shift_ends(demo: psycopg.Connection, monkeypatch: pytest.MonkeyPatch) -> None:
    ines = demo.execute("SELECT person_id FROM person WHERE name = 'Ines'").fetchone()[0]
    sign_ins.set_password(demo, ines, Role.OWNER, SENTENCE)
    monkeypatch.setattr(sign_ins, "SIGNED_IN_FOR", timedelta(0))
    assert sign_ins.signed_in(demo, sign_ins.sign_in(demo, ines, SENTENCE)) is None


def test_that_nobody_signs_in_is_remembered_for_a_moment_only(shop: TestClient, demo_dsn: str) -> None:
    now = 0.0
    nobody = NobodySignsIn(lambda: now)
    assert not nobody.is_sure
    nobody.note(is_asked=False)
    assert nobody.is_sure
    now = NobodySignsIn.FOR_S
    assert not nobody.is_sure
    nobody.note(is_asked=False)
    nobody.note(is_asked=True)
    assert not nobody.is_sure
    # Where the password is set it holds at once.
    with at_this_machine(Settings(dsn=demo_dsn, host="0.0.0.0")) as bench:
        assert bench.get("/api/jobs").status_code == 200
        assert _set(bench, _people(bench)["Ines"], "owner", SENTENCE).status_code == 200
        bench.cookies.clear()
        assert bench.get("/api/jobs").status_code == 401


# Through a proxy nobody is the machine itself, and what it says is believed only where the owner named it.
FORWARDED = {"x-forwarded-for": "127.0.0.1"}


def test_through_a_proxy_that_nobody_named_nothing_is_reached(demo_dsn: str) -> None:
    with at_this_machine(Settings(dsn=demo_dsn)) as client:
        for headers in (FORWARDED, {"forwarded": "for=127.0.0.1"}):
            refused = client.get("/api/jobs", headers=headers)
            assert refused.status_code == 403
            assert "VALLO_PROXY_NAME" in refused.json()["message"]


def test_behind_a_proxy_pairing_holds(demo_dsn: str) -> None:
    with at_this_machine(Settings(dsn=demo_dsn, proxy_name="liners.example")) as client:
        headers = {**FORWARDED, "host": "liners.example", "origin": "https://liners.example"}
        assert client.get("/api/jobs", headers=headers).json()["code"] == "not paired"
        assert client.get("/api/jobs", headers={**FORWARDED, "host": "evil.example"}).status_code == 403
        # The machine itself, past the proxy, is let in as ever, and its codes lead to the proxy.
        made = client.post("/api/network/codes").json()
        assert made["address"].startswith("https://liners.example/pair#")
        body = {"code": made["code"], "device": "Phone"}
        assert client.post("/api/network/devices", json=body, headers=headers).status_code == 201
        assert client.get("/api/jobs", headers=headers).status_code == 200


def test_over_tls_a_key_never_goes_out_unencrypted(demo: psycopg.Connection, demo_dsn: str) -> None:
    code = pairing.make_code(demo, Role.OWNER).code
    demo.commit()
    with at_this_machine(Settings(dsn=demo_dsn, host="0.0.0.0"), PHONE) as client:
        client.base_url = client.base_url.copy_with(scheme="https")
        paired = client.post("/api/network/devices", json={"code": code, "device": "Phone"})
        assert "Secure" in paired.headers["set-cookie"]
