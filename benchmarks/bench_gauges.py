"""What a line that floods costs: processor time of all that listens, against the time that passes."""

import contextlib
import resource
import socket
import subprocess
import sys
import time
from typing import Any

from benchmarks.workshop import figure
from vallostasis.devices.gauge_link import GaugeLink, LinkSettings, LinkState

AIM_SHARE = 0.1
LISTENED_S = 4.0
# In a process of its own, so that what it costs to flood is not counted.
FLOOD = """
import socket
with socket.create_server(("127.0.0.1", 0)) as server:
    print(server.getsockname()[1], flush=True)
    line, _ = server.accept()
    try:
        while True:
            line.sendall(b"1.234 mm\\n" * 1000)
    except OSError:
        pass
"""


def _processor_s() -> float:
    usage = resource.getrusage(resource.RUSAGE_SELF)
    return usage.ru_utime + usage.ru_stime


def run() -> dict[str, dict[str, Any]]:
    with subprocess.Popen([sys.executable, "-c", FLOOD], stdout=subprocess.PIPE, text=True) as flood:
        assert flood.stdout is not None
        port = int(flood.stdout.readline())
        link = GaugeLink(LinkSettings(f"socket://127.0.0.1:{port}", "{value} {unit}", "mm", simulated=False))
        link.open()
        while link.now().state is not LinkState.LIVE:
            time.sleep(0.01)
        before, began = _processor_s(), time.monotonic()
        time.sleep(LISTENED_S)
        share = (_processor_s() - before) / (time.monotonic() - began)
        link.close()
        with contextlib.suppress(socket.error):
            flood.kill()
    return {"processor taken by a gauge that floods": figure(share, "of one", AIM_SHARE, 3)}
