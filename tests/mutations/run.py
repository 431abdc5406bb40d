"""Try every change of the list on a copy of the core and see whether tests/core notices: python -m tests.mutations.run

A change that is not noticed is printed; fewer than nine of ten noticed is a failure.
"""

import os
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from tests.mutations.changes import CHANGES

ROOT = Path(__file__).resolve().parents[2]
WORKERS = 2
LEAST_NOTICED = 0.9
# Notation and gauge studies have nothing to do with what is changed here; left out, a try takes half the time.
FAR_FROM_IT = ("test_notation.py", "test_notation_fuzz.py", "test_gauge_study.py", "test_turning_point.py",
               "test_gauge_line.py", "test_entry_line.py")  # fmt: skip


def _noticed(number: int) -> bool:
    file, old, new = CHANGES[number]
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder)
        for part in ("vallostasis", "tests"):
            shutil.copytree(ROOT / part, copy / part, ignore=shutil.ignore_patterns("__pycache__"))
        shutil.copy(ROOT / "pyproject.toml", copy)
        # The fixtures of the whole suite start a database; the core needs none.
        (copy / "tests" / "conftest.py").unlink()
        path = copy / "vallostasis" / "core" / file
        text = path.read_text()
        if text.count(old) != 1:
            raise SystemExit(f"change {number}: {old!r} stands {text.count(old)} times in {file}")
        path.write_text(text.replace(old, new))
        environment = {**os.environ, "PYTHONPATH": folder, "VALLO_FEW_EXAMPLES": "1"}
        skipped = [f"--ignore=tests/core/{name}" for name in FAR_FROM_IT]
        command = [sys.executable, "-m", "pytest", "tests/core", "-x", "-q", "-p", "no:cacheprovider", *skipped]
        done = subprocess.run(command, cwd=copy, env=environment, capture_output=True, text=True)
        return done.returncode != 0


def main() -> int:
    wanted = [int(one) for one in sys.argv[1:]] or list(range(len(CHANGES)))
    with ThreadPoolExecutor(WORKERS) as pool:
        found = list(pool.map(_noticed, wanted))
    for number, seen in zip(wanted, found, strict=True):
        if not seen:
            file, old, new = CHANGES[number]
            print(f"not noticed {number}: {file}: {old!r} → {new!r}")
    share = sum(found) / len(found)
    print(f"{sum(found)} of {len(found)} changes of the core are noticed by tests/core alone")
    return 0 if share >= LEAST_NOTICED else 1


if __name__ == "__main__":
    sys.exit(main())
