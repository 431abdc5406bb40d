"""Ports for servers of a test that nothing else takes between the asking and the binding."""

import contextlib
import itertools
import os
import socket

DEVICES = 8  # of the demo: three gauges, four thermometers, the switch of the cutter

# Below the kernel's own range (32768 and up on Linux), from which every outgoing connection takes its port:
# one of a run of ports found free there was taken by a browser before the devices had bound it.
LOWEST, PORTS_OF_A_WORKER, WORKERS = 20_000, 600, 20
# Two runs beside each other on one machine begin at different places of the same range.
_turns = itertools.count(os.getpid() * 7)


def free_ports(count: int = 1, host: str = "127.0.0.1") -> int:
    """The first of so many ports beside each other that nobody uses; no other worker of this run is given them."""
    worker = int(os.environ.get("PYTEST_XDIST_WORKER", "gw0").removeprefix("gw")) % WORKERS
    for _ in range(PORTS_OF_A_WORKER // count):
        first = LOWEST + worker * PORTS_OF_A_WORKER + next(_turns) % (PORTS_OF_A_WORKER // count) * count
        with contextlib.ExitStack() as stack:
            try:
                for port in range(first, first + count):
                    stack.enter_context(socket.socket()).bind((host, port))
            except OSError:
                continue
            return first
    raise AssertionError("no free ports beside each other")
