"""Several shops in one database: nothing of one is seen, changed or heard by another."""

import threading
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path
from uuid import UUID, uuid4

import psycopg
import pytest
from psycopg.conninfo import make_conninfo

from tests.conftest import at_this_machine
from tests.store.test_append_only import NOT_FACTS
from vallostasis.demo import ferry_lanthorn as ferry
from vallostasis.machine.postgres import MachineError
from vallostasis.services import jobs, shop, spec_cards
from vallostasis.services.backups import bring_back, make_backup
from vallostasis.services.shops_apart import bring_shop_up
from vallostasis.settings import Settings
from vallostasis.store import jobs as job_rows
from vallostasis.store.changes import announce, listen
from vallostasis.store.database import newest_schema, schema_version

PATIENCE_S = 60


def _dsn_told(said: str) -> str:
    return said.partition("VALLO_DSN='")[2].rstrip("'")


@pytest.fixture
def database(server: str) -> Iterator[str]:
    """A database that nothing is in, as its administrator reaches it."""
    name = f"shops_{uuid4().hex[:8]}"
    with psycopg.connect(server, autocommit=True) as conn:
        conn.execute(f"CREATE DATABASE {name}")
    yield make_conninfo(server, dbname=name)
    with psycopg.connect(server, autocommit=True) as conn:
        conn.execute(f"DROP DATABASE {name} WITH (FORCE)")


@pytest.fixture
def shops(database: str) -> tuple[tuple[str, str], tuple[str, str]]:
    """Two shops: their schemas, and how each is reached. Users are the whole server's: each test has others."""
    names = [f"{word}_{uuid4().hex[:6]}" for word in ("north", "south")]
    north, south = ((f"shop_{name}", _dsn_told(bring_shop_up(database, name))) for name in names)
    return north, south


def _take_in(dsn: str, number: str) -> UUID:
    with psycopg.connect(dsn) as conn:
        person = shop.add_person(conn, "Wren").person_id
        card = spec_cards.add_card(conn, ferry.spec_card(), person)
        return jobs.take_in_job(conn, job_rows.NewJob(number, f"Block {number}", "", "", ""), card, person)


def test_each_sees_its_own_jobs_over_the_application(shops: tuple[tuple[str, str], tuple[str, str]]) -> None:
    (_, north), (_, south) = shops
    jobs_of = {dsn: _take_in(dsn, number) for dsn, number in ((north, "N-1"), (south, "S-1"))}
    for own, other in ((north, south), (south, north)):
        with at_this_machine(Settings(dsn=own)) as client:
            assert [one["job"]["job_id"] for one in client.get("/api/jobs").json()] == [str(jobs_of[own])]
            assert client.get(f"/api/jobs/{jobs_of[other]}/block").status_code == 404
            assert client.get("/healthz").json()["schema_version"] == newest_schema()


def test_nothing_of_another_is_reached_by_sql(shops: tuple[tuple[str, str], tuple[str, str]]) -> None:
    (schema, north), (_, south) = shops
    _take_in(north, "N-1")
    with psycopg.connect(north) as conn:
        tables = [str(row[0]) for row in conn.execute(
            "SELECT tablename FROM pg_tables WHERE schemaname = current_schema()")]  # fmt: skip
    assert len(tables) > 60
    with psycopg.connect(south, autocommit=True) as conn:
        for table in tables:
            for tried in (f"SELECT * FROM {schema}.{table}", f"INSERT INTO {schema}.{table} DEFAULT VALUES"):
                with pytest.raises(psycopg.errors.InsufficientPrivilege):
                    conn.execute(tried)
        for tried in (f"SET ROLE {schema}_owner", f"SET ROLE {schema}_app", "CREATE TABLE mine (a int)",
                      "CREATE SCHEMA mine"):  # fmt: skip
            with pytest.raises(psycopg.errors.InsufficientPrivilege):
                conn.execute(tried)
        conn.execute(f"SET search_path = {schema}")
        with pytest.raises(psycopg.errors.UndefinedTable):
            conn.execute("SELECT * FROM job")


def test_in_its_own_too_it_reads_and_adds_and_owns_nothing(shops: tuple[tuple[str, str], tuple[str, str]]) -> None:
    (_, north), _ = shops
    _take_in(north, "N-1")
    with psycopg.connect(north, autocommit=True) as conn:
        owned = conn.execute("SELECT count(*) FROM pg_tables WHERE tableowner = current_user").fetchone()
        assert owned == (0,)
        for tried in ("ALTER TABLE job DISABLE TRIGGER ALL", "DROP TABLE reading", "TRUNCATE job", "DELETE FROM job"):
            with pytest.raises(psycopg.errors.InsufficientPrivilege):
                conn.execute(tried)
    assert "change_channel" not in NOT_FACTS


def test_a_change_is_heard_in_its_own_shop_only(shops: tuple[tuple[str, str], tuple[str, str]]) -> None:
    (_, north), (_, south) = shops
    heard: dict[str, list[UUID | None]] = {north: [], south: []}
    came, stopping = threading.Condition(), threading.Event()

    def hear_at(dsn: str) -> None:
        def hear(job_id: UUID | None) -> None:
            with came:
                heard[dsn].append(job_id)
                came.notify_all()

        listen(dsn, hear, lambda: None, stopping)

    listeners = [threading.Thread(target=hear_at, args=(dsn,)) for dsn in heard]
    for listener in listeners:
        listener.start()
    try:
        with came:
            assert came.wait_for(lambda: all(heard.values()), PATIENCE_S)
        of = {dsn: uuid4() for dsn in heard}
        for dsn, job_id in of.items():
            with psycopg.connect(dsn) as conn:
                announce(conn, job_id)
        with came:
            assert came.wait_for(lambda: all(of[dsn] in heard[dsn] for dsn in heard), PATIENCE_S)
        assert heard == {dsn: [None, of[dsn]] for dsn in heard}
    finally:
        stopping.set()
        for listener in listeners:
            listener.join()


def test_it_is_brought_up_to_this_version_as_often_as_asked(database: str) -> None:
    name = f"again_{uuid4().hex[:6]}"
    dsn = _dsn_told(bring_shop_up(database, name))
    assert bring_shop_up(database, name) == f"shop_{name} is up to this version."
    with psycopg.connect(dsn) as conn:
        assert schema_version(conn) == newest_schema()


def test_a_shop_is_backed_up_alone_and_brought_back(
    shops: tuple[tuple[str, str], tuple[str, str]], database: str, tmp_path: Path
) -> None:
    (_, north), (_, south) = shops
    for dsn, number in ((north, "N-1"), (south, "S-1")):
        _take_in(dsn, number)
    made = make_backup(north, tmp_path / "north.backup")
    assert made["rows"]["job"] == 1
    assert datetime.fromisoformat(made["made_at"]).astimezone(UTC) <= datetime.now(UTC)
    # A schema that is not empty takes nothing in.
    with pytest.raises(MachineError):
        bring_back(south, tmp_path / "north.backup", tmp_path)


@pytest.mark.parametrize("name", ["North", "1st", "a b", "x" * 41, "", 'a"; DROP SCHEMA public; --'])
def test_what_can_be_no_name_is_refused(database: str, name: str) -> None:
    with pytest.raises(MachineError, match="is no name of a shop"):
        bring_shop_up(database, name)


def test_without_a_database_it_is_said_what_to_name() -> None:
    with pytest.raises(MachineError, match="VALLO_DSN"):
        bring_shop_up("", "north")
