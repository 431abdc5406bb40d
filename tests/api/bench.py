"""What a bench sends: small helpers over the HTTP API."""

from dataclasses import dataclass
from typing import Any
from uuid import uuid4

from fastapi.testclient import TestClient
from httpx2 import Response

# Everything that is looked at before a liner goes in.
READY = ["clean and dry", "lead-in and seals", "marked, right way round"]


@dataclass
class Bench:
    """One person at one job."""

    client: TestClient
    job_id: str
    person_id: str

    @classmethod
    def at_demo(cls, client: TestClient) -> "Bench":
        job = client.get("/api/jobs").json()[0]["job"]["job_id"]
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
