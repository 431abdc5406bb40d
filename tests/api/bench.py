"""What a bench sends: small helpers over the HTTP API."""

from dataclasses import dataclass
from typing import Any
from uuid import uuid4

import psycopg
from fastapi.testclient import TestClient
from httpx2 import Response

from vallostasis.store import jobs

# Everything that is looked at before a liner goes in.
READY = ["clean and dry", "lead-in and seals", "marked, right way round"]


def job_called(client: TestClient, name: str | None) -> str:
    """Id of the job of that name, of the first where none is named, as the store has it: the floor is no detour."""
    with psycopg.connect(client.app.state.settings.dsn) as conn:  # type: ignore[attr-defined]
        return next(str(one.job_id) for one in jobs.list_jobs(conn) if name in (None, one.name))


@dataclass
class Bench:
    """One person at one job."""

    client: TestClient
    job_id: str
    person_id: str

    @classmethod
    def at_demo(cls, client: TestClient) -> "Bench":
        job = job_called(client, None)
        person = next(p for p in client.get("/api/people").json() if p["name"] == "Wren")
        return cls(client, job, person["person_id"])

    def block(self) -> dict[str, Any]:
        answer: dict[str, Any] = self.client.get(f"/api/jobs/{self.job_id}/block").json()
        return answer

    def hole(self, number: int) -> dict[str, Any]:
        return next(hole for hole in self.block()["holes"] if hole["number"] == number)

    def reading(self, text: str, **fields: Any) -> dict[str, Any]:
        body = {"reading_id": str(uuid4()), "quantity": "protrusion", "text": text, "bare_unit": "0.01 mm",
                "person_id": self.person_id}  # fmt: skip
        return {**body, **fields}

    def take(self, text: str, **fields: Any) -> Response:
        return self.client.post(f"/api/jobs/{self.job_id}/readings", json=self.reading(text, **fields))

    def tape_url(self, event: int) -> str:
        return f"/api/jobs/{self.job_id}/tape/{event}/strikes"

    def undo_step(self, name: str = "Wren") -> dict[str, Any] | None:
        """What Undo would take back next for somebody."""
        return next((one for one in self.block()["undo"] if one["by"] == name), None)

    def undo(self) -> str:
        """Take it back; returns what it was in words."""
        step = self.undo_step()
        assert step is not None
        body = {"event": step["event"], "person_id": self.person_id}
        answer = self.client.post(f"/api/jobs/{self.job_id}/undo", json=body)
        assert answer.status_code == 201, answer.text
        return str(answer.json()["words"])


def field_of(response: Response) -> str:
    return str(response.json()["problems"][0]["field"])


def assert_refusal_shape(response: Response) -> None:
    body = response.json()
    assert set(body) == {"code", "message", "problems", "suggestions"}, body
    assert body["message"]
    for problem in body["problems"]:
        assert set(problem) == {"field", "message"}
        assert problem["message"]
