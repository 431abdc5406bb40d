"""Reading rows straight into the core's types."""

from typing import Any, TypeVar

from psycopg import AsyncConnection, Connection
from psycopg.rows import TupleRow, class_row

Row = TypeVar("Row")
Conn = Connection[TupleRow]
# For the one thing done so often that a thread for each would be felt: appending a reading.
AsyncConn = AsyncConnection[TupleRow]


class NotFound(Exception):
    """There is no row with that id."""

    def __init__(self, what: str, row_id: object) -> None:
        super().__init__(f"There is no {what} with the id {row_id}.")
        self.what = what


def fetch_all(conn: Conn, row_type: type[Row], query: str, params: dict[str, Any] | None = None) -> tuple[Row, ...]:
    """Run one statement and return its rows as objects of one type."""
    with conn.cursor(row_factory=class_row(row_type)) as cursor:
        return tuple(cursor.execute(query, params).fetchall())


def fetch_one(conn: Conn, row_type: type[Row], query: str, params: dict[str, Any], what: str) -> Row:
    """Run one statement and return its single row; raise NotFound when there is none."""
    rows = fetch_all(conn, row_type, query, params)
    if not rows:
        raise NotFound(what, next(iter(params.values()), ""))
    return rows[0]


def fetch_value(conn: Conn, query: str, params: dict[str, Any] | None = None) -> Any:  # noqa: ANN401
    """Run one statement and return the first column of its first row, or None."""
    row = conn.execute(query, params).fetchone()
    return None if row is None else row[0]
