"""The OpenAPI document as the client is made of it.

That it is the application's own is held by ./vallo test, once: making it takes an application three seconds.
"""

import json
from collections.abc import Iterator
from typing import Any

from vallostasis.machine.client import OPENAPI


def operations() -> Iterator[tuple[str, str, dict[str, Any]]]:
    """Every method and address that is answered, with what is said of it."""
    for path, methods in json.loads(OPENAPI.read_text(encoding="utf-8"))["paths"].items():
        for method, operation in methods.items():
            yield method, path, operation
