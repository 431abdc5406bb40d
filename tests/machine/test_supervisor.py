"""A program that crashes is started again; one that ends, or says what is in the way, is not."""

import signal
import subprocess
import sys
from pathlib import Path

import pytest

from vallostasis.machine.supervisor import keep_running


def _program(folder: Path, body: str) -> list[str]:
    """A program that notes each of its lives in a file."""
    lives = folder / "lives"
    text = f"import os, sys\nopen({str(lives)!r}, 'a').write('x')\ncount = len(open({str(lives)!r}).read())\n{body}"
    return [sys.executable, "-c", text, "--supervise"]


@pytest.mark.parametrize(
    ("body", "lives", "ended"),
    [
        ("sys.exit(0)", 1, 0),
        ("sys.exit(1)", 1, 1),
        # Killed twice, then it ends.
        ("os.kill(os.getpid(), 9) if count < 3 else sys.exit(0)", 3, 0),
        ("os.abort() if count < 2 else sys.exit(0)", 2, 0),
        ("sys.exit(2 if '--supervise' in sys.argv else 0)", 1, 0),
    ],
)
def test_it_runs_until_it_ends(tmp_path: Path, body: str, lives: int, ended: int) -> None:
    before = [signal.getsignal(one) for one in (signal.SIGTERM, signal.SIGINT)]
    try:
        assert keep_running(_program(tmp_path, body), first_pause_s=0.01) == ended
    finally:
        for one, handler in zip((signal.SIGTERM, signal.SIGINT), before, strict=True):
            signal.signal(one, handler)
    assert (tmp_path / "lives").read_text() == "x" * lives


def test_told_to_stop_it_tells_the_program(tmp_path: Path) -> None:
    body = "import signal; signal.signal(15, lambda *_: sys.exit(0)); print('up', flush=True); signal.pause()"
    program = _program(tmp_path, body)
    code = f"import sys; from vallostasis.machine import supervisor; sys.exit(supervisor.keep_running({program!r}))"
    with subprocess.Popen([sys.executable, "-c", code], stdout=subprocess.PIPE, text=True) as outer:
        assert outer.stdout is not None
        assert outer.stdout.readline() == "up\n"
        outer.terminate()
        assert outer.wait(60) == 0
    assert (tmp_path / "lives").read_text() == "x"
