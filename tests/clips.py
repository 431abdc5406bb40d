"""Two simulated thermometers clipped to a block in its oven and to a liner in its cold, on the line protocol of gauges.

The block is two kelvin colder than is planned, the liner two warmer.
"""

import contextlib
import threading
from collections.abc import Callable, Iterator
from typing import Any

from tests.ports import free_ports
from vallostasis.devices.simulated_gauge import SimulatedThermometer


@contextlib.contextmanager
def clips(post: Callable[[str, dict[str, Any]], int], block_c: float = 80.0, liner_c: float = -18.0) -> Iterator[None]:
    """Open them, and set them up where thermometers are; ``post`` sends a body and returns the status."""
    port = free_ports(2)
    made = [SimulatedThermometer(port, block_c - 2, 21.0, 1, off_k=-2.0, rests=True),
            SimulatedThermometer(port + 1, liner_c + 2, 21.0, 2, off_k=2.0, rests=True)]  # fmt: skip
    for place, (one, name, lies_on) in enumerate(
        zip(made, ("Oven clip", "Liner clip"), ("block", "liner"), strict=True)
    ):
        threading.Thread(target=one.serve_forever, daemon=True).start()
        body = {"name": name, "lies_on": lies_on, "url": f"socket://127.0.0.1:{port + place}", "simulated": True}
        assert post("/api/thermometers", body) == 201
    try:
        yield
    finally:
        for one in made:
            one.shutdown()
            one.server_close()
