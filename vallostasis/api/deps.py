"""What endpoints ask for: one connection with one transaction, and typed text."""

from collections.abc import Iterator
from typing import Annotated

from fastapi import Depends, Request
from psycopg import Connection
from psycopg.rows import TupleRow
from pydantic import StringConstraints


def _transaction(request: Request) -> Iterator[Connection[TupleRow]]:
    """Open one transaction; it is committed before the answer goes out, so a failed commit is no 200."""
    with request.app.state.pool.connection() as conn, conn.transaction():
        yield conn


Conn = Annotated[Connection[TupleRow], Depends(_transaction, scope="function")]


# Printable text only: control characters, NUL above all, cannot be kept or shown.
_PRINTABLE = r"^[^\x00-\x1f\x7f]*$"
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60, pattern=_PRINTABLE)]
ShortText = Annotated[str, StringConstraints(strip_whitespace=True, max_length=120, pattern=_PRINTABLE)]
LongText = Annotated[
    str, StringConstraints(strip_whitespace=True, max_length=600, pattern=r"^[^\x00-\x09\x0b-\x1f\x7f]*$")
]
LengthText = Annotated[str, StringConstraints(max_length=60, pattern=_PRINTABLE)]
