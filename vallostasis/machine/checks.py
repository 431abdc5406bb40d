"""Every check of ./vallo test, one after the other, and the benchmarks of ./vallo bench."""

import importlib
import subprocess
import sys
import time
from pathlib import Path
from typing import Any

from vallostasis.machine.packages import ROOT, WEB, node_environment, say

PROGRAMS = Path(sys.executable).parent
# Tests mostly wait for a database or a browser: two at a time keep two cores only half busy.
WORKERS = 3
# Branches of the core that its own tests reach. Counting them takes as long again as the tests.
LEAST_COVERED_PERCENT = 95


def run_all(*, deep: bool = False) -> int:
    """Run every check; return 0 when all pass. The tests come last, so that their count closes the output.

    Deep, the net of hidden truths draws thousands of readings for each case instead of hundreds, and every change
    of a list is tried on the core to see whether its tests notice; the branches that its tests reach are counted.
    """
    environment = node_environment()
    if deep:
        environment["VALLO_DEEP"] = "1"
    steps: list[tuple[str, list[str], Path]] = [
        ("style", [str(PROGRAMS / "ruff"), "check", "."], ROOT),
        ("formatting", [str(PROGRAMS / "ruff"), "format", "--check", "."], ROOT),
        ("types", [str(PROGRAMS / "mypy")], ROOT),
        ("layers", [str(PROGRAMS / "lint-imports")], ROOT),
        ("front end: client is up to date", [sys.executable, "-m", "vallostasis.machine.client"], ROOT),
        ("front end: types", ["npm", "run", "types"], WEB),
        ("front end: style", ["npm", "run", "lint"], WEB),
        ("front end: formatting", ["npm", "run", "format"], WEB),
        ("front end: tests", ["npm", "run", "test"], WEB),
        ("tests", [str(PROGRAMS / "pytest"), "-n", str(WORKERS), "--dist", "worksteal"], ROOT),
    ]
    if deep:
        core = [str(PROGRAMS / "pytest"), "-n", str(WORKERS), "tests/core", "--cov=vallostasis.core", "--cov-branch",
                "--cov-report=term:skip-covered", f"--cov-fail-under={LEAST_COVERED_PERCENT}"]  # fmt: skip
        steps.insert(-1, ("tests of the core reach its branches", core, ROOT))
        steps.insert(-1, ("changes of the core are noticed", [sys.executable, "-m", "tests.mutations.run"], ROOT))
    failed = []
    for name, command, folder in steps:
        began = time.monotonic()
        print(f"== {name}", flush=True)
        done = subprocess.run(command, cwd=folder, env=environment)
        if done.returncode != 0:
            failed.append(name)
        print(f"   {'failed' if done.returncode else 'passed'} in {time.monotonic() - began:.0f} s", flush=True)
    if failed:
        print(f"FAILED: {', '.join(failed)}", flush=True)
    return 1 if failed else 0


def run_benchmarks() -> dict[str, dict[str, Any]]:
    """Run every benchmark of the folder benchmarks and collect its figures."""
    figures: dict[str, dict[str, Any]] = {}
    # The benchmarks are a package of the repository, not of the application.
    sys.path.insert(0, str(ROOT))
    for path in sorted((ROOT / "benchmarks").glob("bench_*.py")):
        say(f"running {path.stem}")
        module = importlib.import_module(f"benchmarks.{path.stem}")
        figures.update(module.run())
    return figures
