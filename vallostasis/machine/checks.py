"""Every check of ./vallo test, one after the other, and the benchmarks of ./vallo bench."""

import importlib
import os
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any, NamedTuple

from vallostasis.machine.packages import ROOT, WEB, node_environment, say

PROGRAMS = Path(sys.executable).parent
# Tests mostly wait for a database or a browser: three at a time leave a third of two cores idle.
WORKERS = 4
# Branches of the core that its own tests reach. Counting them takes as long again as the tests.
LEAST_COVERED_PERCENT = 95


class Step(NamedTuple):
    """One check: what it is called, what is run, and where."""

    name: str
    command: list[str]
    folder: Path


def run_all(*, deep: bool = False) -> int:
    """Run every check; return 0 when all pass. The tests come last, so that their count closes the output.

    Deep, the net of hidden truths draws thousands of readings for each case instead of hundreds, and every change
    of a list is tried on the core to see whether its tests notice; the branches that its tests reach are counted.
    """
    environment = node_environment()
    # What one process has compiled of the tests, the next four need not compile again.
    environment.pop("PYTHONDONTWRITEBYTECODE", None)
    if deep:
        environment["VALLO_DEEP"] = "1"
    steps = [
        Step("style", [str(PROGRAMS / "ruff"), "check", "."], ROOT),
        Step("formatting", [str(PROGRAMS / "ruff"), "format", "--check", "."], ROOT),
        Step("types", [str(PROGRAMS / "mypy")], ROOT),
        Step("layers", [str(PROGRAMS / "lint-imports")], ROOT),
        Step("front end: client is up to date", [sys.executable, "-m", "vallostasis.machine.client"], ROOT),
        Step("front end: types", ["npm", "run", "types"], WEB),
        Step("front end: style", ["npm", "run", "lint"], WEB),
        Step("front end: formatting", ["npm", "run", "format"], WEB),
        Step("front end: tests", ["npm", "run", "test"], WEB),
        Step("tests can be collected", [str(PROGRAMS / "pytest"), "--collect-only", "-qq"], ROOT),
        Step("tests", [str(PROGRAMS / "pytest"), "-n", str(WORKERS), "--dist", "worksteal"], ROOT),
    ]
    if deep:
        core = [str(PROGRAMS / "pytest"), "-n", str(WORKERS), "tests/core", "--cov=vallostasis.core", "--cov-branch",
                "--cov-report=term:skip-covered", f"--cov-fail-under={LEAST_COVERED_PERCENT}"]  # fmt: skip
        steps.insert(-1, Step("tests of the core reach its branches", core, ROOT))
        steps.insert(-1, Step("changes of the core are noticed", [sys.executable, "-m", "tests.mutations.run"], ROOT))
    # What keeps both cores busy by itself.
    alone = 3 if deep else 1
    failed = _side_by_side(steps[: len(steps) - alone], environment)
    for step in steps[len(steps) - alone :]:
        began = time.monotonic()
        print(f"== {step.name}", flush=True)
        done = subprocess.run(step.command, cwd=step.folder, env=environment)
        failed += _told(step, done.returncode, time.monotonic() - began)
    if failed:
        print(f"FAILED: {', '.join(failed)}", flush=True)
    return 1 if failed else 0


def _side_by_side(steps: list[Step], environment: dict[str, str]) -> list[str]:
    """Run steps that use one core each, two at a time; what each says comes out whole."""

    def run(step: Step) -> tuple[Step, subprocess.CompletedProcess[str], float]:
        began = time.monotonic()
        done = subprocess.run(step.command, cwd=step.folder, env=environment, stdout=subprocess.PIPE,
                              stderr=subprocess.STDOUT, text=True)  # fmt: skip
        return step, done, time.monotonic() - began

    failed = []
    with ThreadPoolExecutor(2) as pool:
        for step, done, seconds in pool.map(run, steps):
            print(f"== {step.name}\n{done.stdout}", end="", flush=True)
            failed += _told(step, done.returncode, seconds)
    return failed


def _told(step: Step, returncode: int, seconds: float) -> list[str]:
    print(f"   {'failed' if returncode else 'passed'} in {seconds:.0f} s", flush=True)
    return [step.name] if returncode else []


def run_benchmarks(*, deep: bool) -> dict[str, dict[str, Any]]:
    """Run every benchmark of the folder benchmarks and collect its figures; deep ones take longer, and room."""
    if deep:
        os.environ["VALLO_DEEP"] = "1"
    figures: dict[str, dict[str, Any]] = {}
    # The benchmarks are a package of the repository, not of the application.
    sys.path.insert(0, str(ROOT))
    for path in sorted((ROOT / "benchmarks").glob("bench_*.py")):
        say(f"running {path.stem}")
        module = importlib.import_module(f"benchmarks.{path.stem}")
        figures.update(module.run())
    return figures
