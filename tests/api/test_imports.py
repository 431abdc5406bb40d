"""Files over HTTP: their bounds, and nothing breaks whatever is sent."""

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, assert_refusal_shape, field_of
from tests.api.test_all_endpoints import NASTY
from tests.deep import DEEP

CSV = b"hole,clock_h,repeat,reading\n1,6,1,85\n"


def _form(bench: Bench, **changes: Any) -> dict[str, Any]:
    return {"import_id": str(uuid4()), "person_id": bench.person_id, "take": "all or nothing", **changes}


def test_a_table_is_taken_and_a_bad_one_is_not(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    address = f"/api/jobs/{bench.job_id}/imports"
    good = client.post(address, data=_form(bench), files={"file": ("r.csv", CSV)})
    assert good.status_code == 200
    assert good.json() == {
        "rows": [{"number": 2, "where": "1 at 6h", "words": "85", "verdict": "good", "message": ""}],
        "taken": 1,
        "changes": [],
    }
    empty = client.post(address, data=_form(bench), files={"file": ("r.csv", b"")})
    assert empty.status_code == 422
    assert field_of(empty) == "file"


def test_files_have_a_bound_of_their_own(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    tables, jobs = f"/api/jobs/{bench.job_id}/imports", "/api/jobs/imports"
    for address, most, refused in ((tables, 5_000_000, 413), (jobs, 5_000_000, 422), (jobs, 100_000_000, 413)):
        # So many bytes are read, and then looked at; more are not read at all.
        within = client.post(address, data=_form(bench), files={"file": ("r.csv", b"x" * most)})
        assert within.status_code == 422, address
        beyond = client.post(address, data=_form(bench), files={"file": ("r.csv", b"x" * (most + 100_000))})
        assert beyond.status_code == refused
        assert field_of(beyond) == "file"
        assert f"larger than {most // 1_000_000} MB" in beyond.json()["message"]
    assert client.post("/api/people", json={"name": "x" * 60_000}).status_code == 413


@pytest.mark.parametrize("address", ["/api/jobs/{job}/imports", "/api/jobs/imports"])
def test_whatever_is_sent_as_a_form_breaks_nothing(client: TestClient, address: str) -> None:
    bench = Bench.at_demo(client)
    url = address.replace("{job}", bench.job_id)
    fields = [*_form(bench), "quantity", "small_unit", "as_written", "as_copy", "number"]
    for at, field in enumerate(fields):
        for value in NASTY if DEEP else NASTY[at % 3 :: 3]:
            text = "" if value is None else str(value)
            answer = client.post(url, data=_form(bench, **{field: text}), files={"file": ("r.csv", CSV)})
            assert answer.status_code < 500, (field, value, answer.text)
            if answer.status_code >= 400:
                assert_refusal_shape(answer)
    for content in (b"", b"\x00", b"\xff\xfe\x00", b"PK\x03\x04", b"{", b"[" * 100_000, b"1,2\n" * 100, b'"'):
        answer = client.post(url, data=_form(bench), files={"file": ("f", content)})
        assert answer.status_code == 422, content[:10]
        assert_refusal_shape(answer)
    for body in (b"", b"no form", b"--x\r\n\r\n"):
        answer = client.post(url, content=body, headers={"content-type": "multipart/form-data; boundary=x"})
        assert answer.status_code in (400, 422)
        assert_refusal_shape(answer)
