"""A demo as the launcher leaves it, loaded once; every test that only needs it there gets a copy of its folder."""

import os
import signal
import subprocess
import sys
import tempfile
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest

from tests.conftest import made_once
from tests.ports import DEVICES, free_ports
from vallostasis.machine import packages

# Patience, not a speed: a machine that does something else besides takes so long to load the demo.
START_SECONDS = 240


def start_demo(folder: Path, port: int, **environment: str) -> subprocess.Popen[str]:
    """Start the launcher as a user does."""
    command = [sys.executable, "-m", "vallostasis.cli", "demo", "--port", str(port)]
    return subprocess.Popen(
        [*command, "--gauge-port", str(free_ports(DEVICES))],
        env={**os.environ, "VALLO_DATA": str(folder), "VALLO_DATABASE_PATIENCE_S": "5", **environment},
        cwd=packages.ROOT, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True,
    )  # fmt: skip


def wait_for(port: int, process: subprocess.Popen[str]) -> None:
    """Wait until it prints its address: asking it all the time would take the processor that it starts on."""
    assert process.stdout is not None
    too_late = threading.Timer(START_SECONDS, process.kill)
    too_late.start()
    said = []
    for line in process.stdout:
        said.append(line)
        if f"http://127.0.0.1:{port}/" in line:
            too_late.cancel()
            return
    raise AssertionError("".join(said))


@pytest.fixture
def folder() -> Iterator[Path]:
    """A data folder where the postgres user may enter when the tests run as root."""
    with tempfile.TemporaryDirectory(prefix="vallo-machine-", dir="/tmp", ignore_cleanup_errors=True) as name:
        Path(name).chmod(0o755)
        yield Path(name) / "data"


def _started_on_nothing(folder: Path) -> None:
    """A demo loads, serves, and is told to stop."""
    port = free_ports()
    process = start_demo(folder, port)
    wait_for(port, process)
    process.send_signal(signal.SIGTERM)
    said, _ = process.communicate(timeout=START_SECONDS)
    assert process.returncode == 0, said


@pytest.fixture(scope="session")
def loaded() -> Path:
    """The folder of a demo that was started on nothing, loaded, and stopped."""
    return made_once("loaded", _started_on_nothing)


@pytest.fixture
def demo_folder(folder: Path, loaded: Path) -> Path:
    """A copy of it, whose files belong to whom they belonged."""
    subprocess.run(["cp", "-a", str(loaded), str(folder)], check=True)
    return folder
