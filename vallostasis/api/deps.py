"""What endpoints ask for: one connection with one transaction, and typed text."""

from collections.abc import Callable, Iterator
from typing import Annotated, Concatenate, ParamSpec, TypeVar

from fastapi import Depends, Request
from psycopg import Connection
from psycopg.rows import TupleRow
from pydantic import StringConstraints
from starlette.concurrency import run_in_threadpool

Asked = ParamSpec("Asked")
Answer = TypeVar("Answer")


def _transaction(request: Request) -> Iterator[Connection[TupleRow]]:
    """Open one transaction; it is committed before the answer goes out, so a failed commit is no 200."""
    with request.app.state.pool.connection() as conn, conn.transaction():
        yield conn


async def in_transaction(
    request: Request, work: Callable[Concatenate[Connection[TupleRow], Asked], Answer], *asked: Asked.args,
    **named: Asked.kwargs,
) -> Answer:  # fmt: skip
    """Do work at the database in a thread, as one transaction; for endpoints that wait for something else first."""

    def whole() -> Answer:
        with request.app.state.pool.connection() as conn, conn.transaction():
            return work(conn, *asked, **named)

    return await run_in_threadpool(whole)


def _reading(request: Request) -> Iterator[Connection[TupleRow]]:
    """Open one transaction that reads, at a replica where there is one."""
    with request.app.state.read_pool.connection() as conn, conn.transaction():
        yield conn


Conn = Annotated[Connection[TupleRow], Depends(_transaction, scope="function")]
# For what sums up many jobs and writes nothing.
ReadConn = Annotated[Connection[TupleRow], Depends(_reading, scope="function")]


# Printable text only: control characters, NUL above all, cannot be kept or shown.
_PRINTABLE = r"^[^\x00-\x1f\x7f]*$"
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60, pattern=_PRINTABLE)]
ShortText = Annotated[str, StringConstraints(strip_whitespace=True, max_length=120, pattern=_PRINTABLE)]
LongText = Annotated[
    str, StringConstraints(strip_whitespace=True, max_length=600, pattern=r"^[^\x00-\x09\x0b-\x1f\x7f]*$")
]
LengthText = Annotated[str, StringConstraints(max_length=60, pattern=_PRINTABLE)]
