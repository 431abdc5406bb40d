"""Requests made up from the OpenAPI document itself: whatever fits it, or just does not, the answer is never a 5xx."""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import httpx2
import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from hypothesis.strategies import SearchStrategy
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import response_schema_conformance, status_code_conformance

from tests.conftest import copy_of_demo
from tests.deep import DEEP
from tests.e2e.conftest import serving
from vallostasis.machine.client import OPENAPI

# The application runs in this process: its threads draw random numbers of their own while examples are made.
pytestmark = pytest.mark.filterwarnings("ignore:Do not use the .random. module inside strategies")

EXAMPLES = 12 if DEEP else 2
MISFITS = 12 if DEEP else 1
# Printing takes seconds.
FEW = 1
# A stream that never ends: the browser tests listen to it.
ENDLESS = "/api/changes"
PATIENCE_S = 30


@pytest.fixture(scope="module")
def address(server: str, demo_template: str) -> Iterator[str]:
    """One application for all requests: what one of them records, the next ones meet."""
    with copy_of_demo(server, demo_template) as dsn, serving(dsn) as address:
        yield address


@pytest.fixture(scope="module")
def known(address: str) -> dict[str, str]:
    """Ids that exist, so that requests reach what lies behind an id."""

    def get(path: str) -> Any:
        return httpx2.get(address + path, timeout=PATIENCE_S).json()

    job = get("/api/jobs")[0]["job"]["job_id"]
    block = get(f"/api/jobs/{job}/block")
    version = block["card"]["version"]
    return {
        "job_id": job,
        "hole_id": block["holes"][4]["hole_id"],
        "set_id": block["holes"][4]["set_id"],
        "row_id": block["readings"][0]["reading_id"],
        "reading_id": block["readings"][1]["reading_id"],
        "gauge_id": block["setups"][0]["gauge"]["gauge_id"],
        "spec_card_id": version["spec_card_id"],
        "spec_card_version_id": version["spec_card_version_id"],
        "person_id": get("/api/people")[0]["person_id"],
    }


# The document as the front end has it: another check holds it against the application, and making it takes seconds.
OPERATIONS = [
    found.ok()
    for found in schemathesis.openapi.from_dict(json.loads(OPENAPI.read_text())).get_all_operations()
    if found.ok().path != ENDLESS
]


BODIES = [operation for operation in OPERATIONS if operation.body]


@dataclass(frozen=True)
class Sender:
    """Sends made-up requests, with ids that exist where the request names one."""

    address: str
    known: dict[str, str]

    def send(self, case: schemathesis.Case, checks: list[Any]) -> None:
        for name in case.path_parameters or {}:
            if name in self.known:
                case.path_parameters[name] = self.known[name]
        if isinstance(case.body, dict):
            case.body.update({n: self.known[n] for n in case.body if n in self.known and n != "reading_id"})
        response = case.call(base_url=self.address, timeout=PATIENCE_S)
        case.validate_response(response, checks=checks)


@pytest.fixture
def sender(address: str, known: dict[str, str]) -> Sender:
    return Sender(address, known)


def _send_many(sender: Sender, requests: SearchStrategy[schemathesis.Case], count: int, checks: list[Any]) -> None:
    @given(case=requests)
    @settings(max_examples=count, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))
    def send(case: schemathesis.Case) -> None:
        sender.send(case, checks)

    send()


@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda operation: operation.label)
def test_a_request_that_fits_the_document_is_answered_as_it_says(
    operation: schemathesis.APIOperation, sender: Sender
) -> None:
    count = FEW if operation.path.endswith(".pdf") else EXAMPLES
    checks = [not_a_server_error, status_code_conformance, response_schema_conformance]
    _send_many(sender, operation.as_strategy(), count, checks)


@pytest.mark.parametrize("operation", BODIES, ids=lambda operation: operation.label)
def test_a_request_that_does_not_fit_is_no_server_error(operation: schemathesis.APIOperation, sender: Sender) -> None:
    requests = operation.as_strategy(generation_mode=schemathesis.GenerationMode.NEGATIVE)
    _send_many(sender, requests, MISFITS, [not_a_server_error, status_code_conformance])
