"""Backups taken while readings stream in, brought back elsewhere, and databases that are not ours."""

import json
import zipfile
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import psycopg
import pytest
from psycopg.conninfo import make_conninfo

from tests.api.bench import Bench
from tests.conftest import as_application, at_this_machine
from vallostasis.machine.dump import DUMP, MANIFEST, read_manifest
from vallostasis.machine.postgres import APPLICATION_USER, MachineError, PrivateCluster
from vallostasis.services import proof
from vallostasis.services.backups import (
    ENDING,
    LEAST_FREE_BYTES,
    Schedule,
    back_up_when_due,
    backups_now,
    bring_back,
    differences,
    list_backups,
    make_backup,
)
from vallostasis.settings import Settings
from vallostasis.store import jobs
from vallostasis.store.application_user import grant_application
from vallostasis.store.database import NotOurs, migrate, newest_schema
from vallostasis.store.security_log import list_security_events

NOW = datetime(2026, 11, 29, 18, 0, tzinfo=UTC)


@pytest.fixture
def elsewhere(folder: Path) -> Iterator[str]:
    """Another machine's database, with nothing in it."""
    cluster = PrivateCluster(folder, durable=False)
    try:
        yield cluster.start()
    finally:
        cluster.stop()


def _jobs_as_files(dsn: str) -> list[dict[str, object]]:
    with psycopg.connect(dsn, options="-c timezone=UTC") as conn:
        documents = [json.loads(proof.job_as_json(conn, job.job_id)) for job in jobs.list_jobs(conn)]
    return [{name: part for name, part in one.items() if name != "written_at"} for one in documents]


def test_everything_comes_back_on_another_machine(demo_dsn: str, elsewhere: str, tmp_path: Path) -> None:
    file = tmp_path / f"today{ENDING}"
    with at_this_machine(Settings(dsn=demo_dsn)) as client:
        bench = Bench.at_demo(client)
        assert bench.take("8.8", hole=1, hour=12.0, read_before="repeat").status_code == 201
        # What is recorded while it is written is not in it, and breaks nothing.
        made = make_backup(demo_dsn, file)
        before = _jobs_as_files(demo_dsn)
        assert bench.take("8.9", hole=1, hour=12.0, read_before="repeat").status_code == 201
    assert made["jobs"]
    assert made["schema"] == newest_schema()
    bring_back(elsewhere, file, tmp_path)
    assert _jobs_as_files(elsewhere) == before
    with psycopg.connect(elsewhere) as conn:
        (noted,) = list_security_events(conn, 9)
    assert (noted.kind, file.name in noted.words) == ("restored", True)
    # Nothing is lost of what stands outside jobs, and it can be worked on.
    with psycopg.connect(elsewhere) as conn:
        grant_application(conn, APPLICATION_USER, "own")
    own = make_conninfo(elsewhere, user=APPLICATION_USER, password="own")
    with at_this_machine(Settings(dsn=own)) as client:
        assert Bench.at_demo(client).take("8.9", hole=1, hour=12.0, read_before="repeat").status_code == 201
    with pytest.raises(MachineError, match="There is a store here already"):
        bring_back(elsewhere, file, tmp_path)


def test_a_backup_that_is_none_or_damaged_or_newer_is_refused(demo_dsn: str, empty_dsn: str, tmp_path: Path) -> None:
    file = tmp_path / "b"
    make_backup(demo_dsn, file)
    assert oct(file.stat().st_mode)[-3:] == "600"
    (tmp_path / "none").write_text("no backup")
    with pytest.raises(MachineError, match=r"is no backup of \./vallo backup"):
        read_manifest(tmp_path / "none")
    spoilt = bytearray(file.read_bytes())
    spoilt[len(spoilt) // 2] ^= 1
    (tmp_path / "spoilt").write_bytes(spoilt)
    with pytest.raises(MachineError, match="damaged"):
        bring_back(empty_dsn, tmp_path / "spoilt", tmp_path)
    with zipfile.ZipFile(tmp_path / "newer", "w") as packed:
        packed.writestr(MANIFEST, json.dumps({"schema": newest_schema() + 1, "version": "9", "rows": {}, "jobs": {}}))
        packed.writestr(DUMP, b"")
    with pytest.raises(MachineError, match="made by a newer version"):
        bring_back(empty_dsn, tmp_path / "newer", tmp_path)
    assert sorted(one.name for one in tmp_path.iterdir()) == ["b", "newer", "none", "spoilt"]


def test_what_does_not_come_back_is_named() -> None:
    job = {"number": "26-031", "entries": 3, "head": "a"}
    backed_up = {"rows": {"reading": 5, "cut": 1}, "jobs": {"j": job}}
    assert differences(backed_up, backed_up) == []
    spoilt = {"rows": {"reading": 4, "cut": 1}, "jobs": {"j": {**job, "head": "b"}}}
    assert differences(backed_up, spoilt) == ["reading has 4 rows of 5", "job 26-031 is not as it was"]


def test_backups_are_written_as_they_fall_due_and_the_oldest_go(empty_dsn: str, tmp_path: Path) -> None:
    schedule = Schedule(tmp_path / "backups", timedelta(hours=24), 2)
    assert backups_now(schedule, NOW).warnings[0] == "there is no backup yet"
    now = datetime.now(UTC)
    first = back_up_when_due(empty_dsn, schedule, now)
    assert first is not None
    assert back_up_when_due(empty_dsn, schedule, now + timedelta(hours=23)) is None
    for days in (1, 2, 3):
        assert back_up_when_due(empty_dsn, schedule, now + timedelta(days=days, minutes=1)) is not None
    kept = list_backups(schedule.folder)
    assert len(kept) == 2
    assert first not in kept
    assert backups_now(schedule, now + timedelta(days=9)).warnings[0].startswith("the newest backup is 216 hours old")
    assert LEAST_FREE_BYTES > 0


def test_a_database_of_something_else_or_of_a_newer_version_is_left_alone(empty_dsn: str, elsewhere: str) -> None:
    with psycopg.connect(elsewhere) as conn:
        conn.execute("CREATE TABLE somebodys (id int)")
        with pytest.raises(NotOurs, match="tables of something else"):
            migrate(conn)
    with psycopg.connect(empty_dsn) as conn:
        conn.execute("INSERT INTO schema_migration (number) VALUES (%(next)s)", {"next": newest_schema() + 1})
        with pytest.raises(NotOurs, match="made by a newer version"):
            migrate(conn)


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE reading SET value_um = 0",
        "DELETE FROM reading",
        "TRUNCATE reading CASCADE",
        "ALTER TABLE reading DISABLE TRIGGER ALL",
        "DROP TABLE reading CASCADE",
        "SET session_replication_role = replica",
        "CREATE TABLE public.mine (id int)",
        "UPDATE chain_link SET sha256 = ''",
        "UPDATE gauge SET name = 'x'",
    ],
)
def test_the_user_that_serves_can_change_nothing_that_was_recorded(demo_dsn: str, statement: str) -> None:
    with psycopg.connect(as_application(demo_dsn)) as conn:
        assert conn.execute("SELECT usesuper FROM pg_user WHERE usename = current_user").fetchone() == (False,)
        with pytest.raises((psycopg.errors.InsufficientPrivilege, psycopg.errors.IntegrityConstraintViolation)):
            conn.execute(statement)
