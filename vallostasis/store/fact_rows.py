"""Facts that are kept alike: read, recorded and taken over by statements made from the description of their kind.

A column is called as the field it fills. Who recorded a row is kept as a reference to a person and read as a name.
"""

import functools
from collections.abc import Callable, Iterable, Mapping
from dataclasses import fields
from enum import StrEnum
from typing import Any, ClassVar, Protocol, get_type_hints
from uuid import UUID

from psycopg.rows import args_row

from vallostasis.core.tape.fact_kinds import KIND_OF_ROWS, FactKind, Owner
from vallostasis.store.rows import Conn

HOLES_OF_JOB = "SELECT hole_id FROM hole JOIN block USING (block_id) WHERE job_id = %(job_id)s"
SETS_OF_JOB = "SELECT reading_set_id FROM reading_set WHERE job_id = %(job_id)s"
OF_JOB = {
    Owner.JOB: "t.job_id = %(job_id)s",
    Owner.HOLE: f"t.hole_id IN ({HOLES_OF_JOB})",
    Owner.FITTING: f"t.fitting_id IN (SELECT fitting_id FROM fitting WHERE hole_id IN ({HOLES_OF_JOB}))",
    Owner.SET: f"t.reading_set_id IN ({SETS_OF_JOB})",
}
# The rest stand in the order in which they were recorded.
ORDER = {
    "liners": "length(t.mark), t.mark",
    "fitting_shims": "t.fitting_id, t.place",
    "estimate_lines": "t.estimate_id, t.place",
}


class NewFact(Protocol):
    """A row to record: what the database does not add itself, each field called as its column."""

    rows: ClassVar[str]
    __dataclass_fields__: ClassVar[dict[str, Any]]


@functools.cache
def statement_to_read(kind: FactKind, later: bool = False) -> str:
    """Return the statement that reads all rows of a kind of one job, or those after an event."""
    hints = get_type_hints(kind.row_type)

    def column(name: str) -> str:
        if name == kind.who:
            return f"p.name AS {name}"
        return f"t.{name}::float8 AS {name}" if hints[name] in (float, float | None) else f"t.{name}"

    columns = ", ".join(column(one.name) for one in fields(kind.row_type))
    person = f"JOIN person p ON p.person_id = t.{kind.who}" if kind.who else ""
    order = ORDER.get(kind.rows, "t.event")
    which = f"{OF_JOB[kind.owner]} AND t.event > %(since)s" if later else OF_JOB[kind.owner]
    return f"SELECT {columns} FROM {kind.kept_as} t {person} WHERE {which} ORDER BY {order}"


@functools.cache
def _row_maker(kind: FactKind) -> Callable[..., Any]:
    """How a row of the store becomes one of its type: by position, and words of a list as that list has them."""
    hints = get_type_hints(kind.row_type)
    places = [(place, hints[one.name]) for place, one in enumerate(fields(kind.row_type))]
    listed = [(place, hint) for place, hint in places if isinstance(hint, type) and issubclass(hint, StrEnum)]
    if not listed:
        return kind.row_type

    def make(*values: Any) -> Any:  # noqa: ANN401
        row = list(values)
        for place, words in listed:
            row[place] = words(row[place])
        return kind.row_type(*row)

    return make


@functools.cache
def _statement_to_count(kinds: tuple[FactKind, ...]) -> str:
    """Return the one statement that counts the rows of each kind and names the last of them."""
    return " UNION ALL ".join(
        f"SELECT '{kind.rows}', count(*), max(t.event) FROM {kind.kept_as} t WHERE {OF_JOB[kind.owner]}"
        for kind in kinds
    )


def _has_event(kind: FactKind) -> bool:
    return any(one.name == "event" for one in fields(kind.row_type))


def list_changed_facts(
    conn: Conn, kinds: Iterable[str], job_id: UUID, earlier: Mapping[str, tuple[Any, ...]]
) -> dict[str, tuple[Any, ...]]:
    """Return the rows of several kinds of a job, reading only what is not as it was earlier.

    Rows are only ever added, and no two of a database have the same event: where a kind has as many rows as before
    and the same one last, it has the same rows; where it has more, those before the last are the same, unless their
    number says otherwise. What was earlier must have been read from this very database.
    """
    wanted = [KIND_OF_ROWS[rows] for rows in kinds]
    counted = conn.execute(_statement_to_count(tuple(filter(_has_event, wanted))), {"job_id": job_id})
    ends: dict[str, tuple[int, int | None]] = {rows: (count, last) for rows, count, last in counted.fetchall()}
    same: dict[str, tuple[Any, ...]] = {}
    since: dict[str, int] = {}
    for rows, end in ends.items():
        before = earlier[rows]
        last = max((row.event for row in before), default=None)
        if end == (len(before), last):
            same[rows] = before
        elif last is not None and rows not in ORDER:
            since[rows] = last
    read = list_all_facts(conn, [kind.rows for kind in wanted if kind.rows not in same], job_id, since)
    known = same | read | {rows: earlier[rows] + read[rows] for rows in since}
    short = [rows for rows in since if len(known[rows]) != ends[rows][0]]
    return known | list_all_facts(conn, short, job_id) if short else known


def list_facts(conn: Conn, rows: str, job_id: UUID) -> tuple[Any, ...]:
    """Return the rows of one kind of a job, oldest first."""
    return list_all_facts(conn, (rows,), job_id)[rows]


def list_all_facts(
    conn: Conn, kinds: Iterable[str], job_id: UUID, since: Mapping[str, int] | None = None
) -> dict[str, tuple[Any, ...]]:
    """Return the rows of several kinds of a job, each oldest first: all are asked for before one is waited for.

    Of kinds with an event in ``since`` only the rows after it.
    """
    after = since or {}
    with conn.pipeline():
        asked = {}
        for rows in kinds:
            kind = KIND_OF_ROWS[rows]
            cursor = conn.cursor(row_factory=args_row(_row_maker(kind)))
            statement = statement_to_read(kind, later=rows in after)
            asked[rows] = cursor.execute(statement, {"job_id": job_id, "since": after.get(rows)})
        return {rows: tuple(cursor.fetchall()) for rows, cursor in asked.items()}


def _statement_to_add(table: str, columns: Iterable[str]) -> str:
    names = list(columns)
    return f"INSERT INTO {table} ({', '.join(names)}) VALUES ({', '.join(f'%({name})s' for name in names)})"


def record_fact(conn: Conn, new: NewFact, by: UUID | None = None) -> None:
    """Record one row; when it was recorded, and its number, the database says itself."""
    kind = KIND_OF_ROWS[new.rows]
    values = {one.name: getattr(new, one.name) for one in fields(new)}
    if kind.who:
        values[kind.who] = by
    conn.execute(_statement_to_add(kind.kept_as, values), values)


def statement_to_take_over(kind: FactKind) -> str:
    """Return the statement that writes a row of a kind as it was recorded elsewhere, with its own time and number."""
    columns = [one.name for one in fields(kind.row_type)]
    return _statement_to_add(kind.kept_as, [*columns, "job_id"] if kind.owner is Owner.JOB else columns)
