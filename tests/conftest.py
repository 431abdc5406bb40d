"""One private PostgreSQL for the whole run; every test gets its own database, copied from a template."""
# ruff: noqa: E402 (what is said first counts for what is brought in after it)

import os

# As the launcher does, before anything brings in NumPy.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import gc

# Nothing of what is brought in goes again: looking through it while it grows costs a sixth of the start of each worker.
gc.disable()

import contextlib
import fcntl
import itertools
import select
import shutil
import signal
import subprocess
import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path
from uuid import UUID

import hypothesis
import psycopg
import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from psycopg import sql
from psycopg.conninfo import conninfo_to_dict, make_conninfo

from vallostasis.core.calendar import plan
from vallostasis.machine.postgres import APPLICATION_USER, MachineError, PrivateCluster
from vallostasis.main import create_app
from vallostasis.services.demo_loading import load_demo
from vallostasis.settings import Settings
from vallostasis.store import jobs, known_jobs, people
from vallostasis.store.application_user import grant_application
from vallostasis.store.database import migrate
from vallostasis.store.rows import Conn

# No timed assertions: a loaded machine may take its time over an example.
hypothesis.settings.register_profile("patient", deadline=None, suppress_health_check=[hypothesis.HealthCheck.too_slow])
hypothesis.settings.load_profile("patient")


# A copy of the demo is known as its template was: what was worked out of it once serves every test of a worker.
known_jobs.MOST_REVISIONS = 12

# The calendars of the demo are proven or as good within a second; what more search finds is for ./vallo bench.
plan.FULL_S, plan.CHANGED_S = 1.0, 0.5

# A machine with more to do than it has processors keeps a request waiting; what is asked of a dead server says its own.
os.environ.setdefault("VALLO_DATABASE_PATIENCE_S", "60")


def pytest_collection_finish() -> None:
    """Everything there is by now is left out of every collection: else that costs a twentieth of the whole run."""
    gc.freeze()
    gc.set_threshold(20_000, 20, 50)
    gc.enable()


_numbers = itertools.count(1)
MEMORY = Path("/dev/shm")
FOLDER_PREFIX = "vallo-test-"
PLENTY_BYTES = 2 * 1024**3


def _folder_for_cluster() -> Path:
    """Memory where there is plenty of it: nothing of this cluster is to be kept, and a database is copied each test.

    Else /tmp: either may be entered by the postgres user when the tests run as root.
    """
    in_memory = MEMORY.is_dir() and os.access(MEMORY, os.W_OK) and shutil.disk_usage(MEMORY).free > PLENTY_BYTES
    return MEMORY if in_memory else Path("/tmp")


def _clear_left_over(within: Path) -> None:
    """A run that was killed leaves its cluster behind: the folder bears the number of the process that made it."""
    for folder in within.glob(f"{FOLDER_PREFIX}*-*"):
        if not Path(f"/proc/{folder.name.split('-')[2]}").exists():
            # Another worker may be clearing it at the same time.
            with contextlib.suppress(MachineError, OSError):
                PrivateCluster(folder / "cluster").stop()
            shutil.rmtree(folder, ignore_errors=True)


def kill_and_wait(pid: int) -> None:
    """Kill a process without mercy and wait until it is gone."""
    process = os.pidfd_open(pid)
    try:
        signal.pidfd_send_signal(process, signal.SIGKILL)
        select.select([process], [], [])
    finally:
        os.close(process)


def _folder_of_run() -> Path:
    """What all workers of a run share: it bears the number of the process that they are children of."""
    is_worker = "PYTEST_XDIST_WORKER" in os.environ
    return _folder_for_cluster() / f"{FOLDER_PREFIX}{os.getppid() if is_worker else os.getpid()}-once"


def made_once(name: str, make: Callable[[Path], None]) -> Path:
    """Return a folder that whichever worker needs it first makes for all of them."""
    folder = _folder_of_run()
    folder.mkdir(mode=0o755, exist_ok=True)
    with (folder / f"{name}.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not (folder / f"{name}.made").exists():
            make(folder / name)
            (folder / f"{name}.made").touch()
    return folder / name


# What takes long by itself comes first, so that no worker is left alone with it in the end.
MACHINE, TRUTH, SCREENS = "tests/machine/", "tests/truth/", "tests/e2e/"


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Deal the tests to the workers: long ones first, files whole, each kind in its order."""
    workers = int(os.environ.get("PYTEST_XDIST_WORKER_COUNT", "1"))
    kinds = itertools.groupby(sorted(items, key=_kind), _kind)
    files = {kind: [list(of_file) for _, of_file in itertools.groupby(some, lambda item: item.path)]
             for kind, some in kinds}  # fmt: skip
    hands: list[list[pytest.Item]] = [[] for _ in range(workers)]
    # One begins with the machine, whose tests ask for templates first; while it makes them the others need none.
    for of_file in files.pop(MACHINE, []):
        hands[0] += of_file
    for at, of_file in enumerate(files.pop(TRUTH, [])):
        hands[1 + at % (workers - 1) if workers > 1 else 0] += of_file
    for at, of_file in enumerate(files.pop(SCREENS, [])):
        hands[-1 - at % workers] += of_file
    # The workers are given the same number each, in this order; whoever is done takes from the end of another's.
    most = [(len(items) + at) // workers for at in range(workers)]
    for item in itertools.chain.from_iterable(itertools.chain.from_iterable(files.values())):
        max(zip(most, hands, strict=True), key=lambda one: one[0] - len(one[1]))[1].append(item)
    items[:] = itertools.chain.from_iterable(hands)


def _kind(item: pytest.Item) -> str:
    return next((kind for kind in (MACHINE, TRUTH, SCREENS) if item.nodeid.startswith(kind)), "tests/short/")


def pytest_sessionfinish() -> None:
    """Whoever the workers are children of clears what they shared."""
    # What was forgotten is found in one look; pytest looks five times over through all there is.
    gc.collect()
    gc.freeze()
    if "PYTEST_XDIST_WORKER" not in os.environ:
        shutil.rmtree(_folder_of_run(), ignore_errors=True)


def _with_templates(folder: Path) -> None:
    """A cluster with an empty store and one with the demo jobs, to be copied."""
    cluster = PrivateCluster(folder, durable=False)
    server = cluster.start()
    # That a password is wanted is held at clusters of their own; here it would be proven ten thousand times.
    (cluster.data / "pg_hba.conf").write_text("host all all 127.0.0.1/32 trust\n", encoding="utf-8")
    try:
        with psycopg.connect(_make_database(server, "empty_template", "template1")) as conn:
            migrate(conn)
            # What is granted goes along with every copy.
            grant_application(conn, APPLICATION_USER, PASSWORD_OF_TESTS)
        with psycopg.connect(_make_database(server, "demo_template", "empty_template")) as conn:
            load_demo(conn)
    finally:
        cluster.stop()


@pytest.fixture(scope="session")
def server() -> Iterator[str]:
    within = _folder_for_cluster()
    _clear_left_over(within)
    prefix = f"{FOLDER_PREFIX}{os.getpid()}-"
    with tempfile.TemporaryDirectory(prefix=prefix, dir=within, ignore_cleanup_errors=True) as folder:
        Path(folder).chmod(0o755)
        made = made_once("cluster", _with_templates)
        subprocess.run(["cp", "-a", str(made), f"{folder}/cluster"], check=True)
        cluster = PrivateCluster(Path(folder) / "cluster", durable=False)
        try:
            yield cluster.start()
        finally:
            cluster.stop()


def _make_database(server: str, name: str, template: str) -> str:
    with psycopg.connect(server, autocommit=True) as conn:
        while _used:
            conn.execute(sql.SQL("DROP DATABASE {} WITH (FORCE)").format(sql.Identifier(_used.pop())))
        create = sql.SQL("CREATE DATABASE {} TEMPLATE {} STRATEGY file_copy")
        conn.execute(create.format(sql.Identifier(name), sql.Identifier(template)))
    return make_conninfo(server, dbname=name)


# Databases that no test uses any more, dropped when the next one is made: a server waits a tenth of a second for
# connections that were closed just now.
_used: list[str] = []


@contextlib.contextmanager
def _copy(server: str, template: str) -> Iterator[str]:
    """One more database like the template; none has the name of another."""
    name = f"{template}_{next(_numbers)}"
    yield _make_database(server, name, template)
    _used.append(name)


@pytest.fixture(scope="session")
def empty_template() -> str:
    return "empty_template"


@pytest.fixture(scope="session")
def demo_template() -> str:
    return "demo_template"


def copy_of_demo(server: str, demo_template: str) -> contextlib.AbstractContextManager[str]:
    """One more database with the demo jobs."""
    return _copy(server, demo_template)


@pytest.fixture
def empty_dsn(server: str, empty_template: str) -> Iterator[str]:
    with _copy(server, empty_template) as dsn:
        yield dsn


@pytest.fixture
def demo_dsn(server: str, demo_template: str) -> Iterator[str]:
    with _copy(server, demo_template) as dsn:
        yield dsn


@pytest.fixture
def demo(demo_dsn: str) -> Iterator[Conn]:
    """A connection to a store with the demo job."""
    with psycopg.connect(demo_dsn) as conn:
        yield conn


@pytest.fixture
def demo_job(demo: Conn) -> UUID:
    return jobs.list_jobs(demo)[0].job_id


@pytest.fixture
def wren(demo: Conn) -> UUID:
    return next(person.person_id for person in people.list_people(demo) if person.name == "Wren")


PASSWORD_OF_TESTS = "of tests"


def as_application(dsn: str) -> str:
    """How an application reaches a copy of a template: as the user that it serves as, which owns nothing."""
    named = conninfo_to_dict(dsn)
    if not str(named.get("dbname")).startswith(("empty_template_", "demo_template_")):
        return dsn
    return make_conninfo(dsn, user=APPLICATION_USER, password=PASSWORD_OF_TESTS)


# Applications that no test uses now: an application works out its addresses with the first request, and then has them.
_resting: dict[str, list[FastAPI]] = {}


@contextlib.contextmanager
def application(settings: Settings) -> Iterator[FastAPI]:
    """An application with these settings, one that rests where there is one: it starts and stops with each test."""
    resting = _resting.setdefault(settings.model_dump_json(exclude={"dsn"}), [])
    app = resting.pop() if resting else create_app(settings)
    app.state.settings = settings.model_copy(update={"dsn": as_application(settings.dsn)})
    yield app
    resting.append(app)


@contextlib.contextmanager
def at_this_machine(settings: Settings, peer: str = "127.0.0.1") -> Iterator[TestClient]:
    """A client over loopback, or at a peer; an exception inside the application is an answer, not a test error."""
    with (
        application(settings) as app,
        TestClient(app, "http://127.0.0.1", raise_server_exceptions=False, client=(peer, 50_000)) as client,
    ):
        yield client


@pytest.fixture
def client(demo_dsn: str) -> Iterator[TestClient]:
    """The application on a store with the demo job."""
    with at_this_machine(Settings(dsn=demo_dsn)) as client:
        yield client


@pytest.fixture
def empty_client(empty_dsn: str) -> Iterator[TestClient]:
    with at_this_machine(Settings(dsn=empty_dsn)) as client:
        yield client
