"""The database itself refuses to change or remove what was recorded."""

import psycopg
import pytest

from vallostasis.store.database import migrate, migration_scripts
from vallostasis.store.rows import Conn

# Everything is a fact; applied migrations, stamps of revisions and when a device was last seen are bookkeeping.
NOT_FACTS = {"schema_migration", "revision", "device_seen"}


def _tables(conn: Conn) -> list[str]:
    rows = conn.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1").fetchall()
    return [str(row[0]) for row in rows if row[0] not in NOT_FACTS]


def test_no_row_of_any_table_can_be_changed_removed_or_emptied(demo: Conn) -> None:
    checked = 0
    for table in _tables(demo):
        row = demo.execute(f"SELECT * FROM {table} LIMIT 1")
        column = row.description[0].name if row.description else ""
        for statement in (
            f"UPDATE {table} SET {column} = {column}",
            f"DELETE FROM {table}",
            f"TRUNCATE {table} CASCADE",
        ):
            if row.rowcount == 0 and not statement.startswith("TRUNCATE"):
                continue
            with pytest.raises(psycopg.errors.IntegrityConstraintViolation, match="append-only"), demo.transaction():
                demo.execute(statement)
            checked += 1
    assert checked > 40


def test_migrating_again_changes_nothing(demo: Conn) -> None:
    newest = max(number for number, _ in migration_scripts())
    assert migrate(demo) == newest
    assert migrate(demo) == newest


@pytest.mark.parametrize(
    ("statement", "constraint"),
    [
        ("INSERT INTO person (name) VALUES ('')", "check"),
        ("INSERT INTO person (name) VALUES ('Wren')", "unique"),
        (
            "INSERT INTO strike (job_id, struck, reason, made_by) "
            "SELECT job_id, true, '', (SELECT person_id FROM person LIMIT 1) FROM job",
            "check",
        ),
    ],
)
def test_nonsense_is_refused_by_the_schema_too(demo: Conn, statement: str, constraint: str) -> None:
    with pytest.raises(psycopg.errors.IntegrityError, match=constraint):
        demo.execute(statement)
