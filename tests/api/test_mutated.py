"""Requests changed at random: whatever comes, it is answered or refused in the one shape, never with a 500."""

import json
import random
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, assert_refusal_shape
from tests.api.test_all_endpoints import NASTY, _examples, _leaves, _with
from tests.deep import DEEP

SEED = 21
# Deep, 50,000 in all.
REQUESTS = 2_500 if DEEP else 30
SHARES = 20 if DEEP else 6
# What JSON says that its neighbours mean otherwise, numbers above all.
ODD = [*NASTY, -0.0, 1e-320, 5e-324, 1e22, 2**53 + 1, "-0", "0" * 400, "9" * 30, "1e-400", " ", "\t", "­", "‮", "ﬁ",
       "𝟎", "½½", "--5", "5..5", "NaN", "Infinity", [[]], {"": None}, [None] * 50]  # fmt: skip


def _changed(chance: random.Random, body: Any) -> bytes:
    """A body with one to four leaves changed, fields taken out or put in, or its very text spoilt."""
    for _ in range(chance.randint(1, 4)):
        paths = list(_leaves(body))
        if not paths:
            break
        body = _with(body, chance.choice(paths), chance.choice(ODD))
    if isinstance(body, dict) and chance.random() < 0.3:
        body = {name: value for name, value in body.items() if chance.random() < 0.8} | {"unasked": chance.choice(ODD)}
    text = json.dumps(body).encode()
    if chance.random() < 0.1:
        at = chance.randrange(len(text) + 1)
        text = text[:at] + bytes(chance.randrange(256) for _ in range(chance.randint(1, 5))) + text[at + 1 :]
    return text


@pytest.mark.parametrize("share", range(SHARES))
def test_no_changed_request_breaks_an_endpoint(client: TestClient, share: int) -> None:
    chance = random.Random(SEED * 1_000 + share)
    examples = _examples(Bench.at_demo(client))[share::SHARES]
    for _ in range(REQUESTS):
        url, body = chance.choice(examples)
        content = _changed(chance, body)
        answer = client.post(url, content=content, headers={"content-type": "application/json"})
        assert answer.status_code < 500 or answer.status_code == 503, (url, content[:400], answer.text)
        if answer.status_code >= 400:
            assert_refusal_shape(answer)
