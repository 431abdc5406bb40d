"""A scan's file as an instrument wrote it: columns of numbers below a head, read whole or not at all."""

import io
import itertools
import re

import numpy as np
from numpy.typing import NDArray

from vallostasis.documents.not_read import NotRead
from vallostasis.documents.number_lines import cells_of, delimiter_of, is_number

LARGEST_BYTES = 80_000_000
MOST_POINTS = 1_000_000


def read_scan(content: bytes) -> NDArray[np.float64]:
    """Read every row of a file as numbers; a head and comments are passed over.

    Raises
    ------
    NotRead
        If it is too large, empty, or a row lacks a number or holds words.
    """
    if len(content) > LARGEST_BYTES:
        raise NotRead(f"The file is larger than {LARGEST_BYTES // 1_000_000} MB: leave points out.")
    head = content[:4000].decode("utf-8-sig", "replace").splitlines()
    if not head:
        raise NotRead("The file is empty: choose another.")
    delimiter, skip = _below_the_head(head)
    try:
        table = np.loadtxt(io.BytesIO(content), delimiter=None if delimiter == " " else delimiter, skiprows=skip,
                           comments="#", ndmin=2)  # fmt: skip
    except ValueError as error:
        where = _line_of(content, skip, str(error))
        raise NotRead(f"Line{where} of the file lacks a number, or holds words: put it right in the file.") from None
    if len(table) > MOST_POINTS:
        raise NotRead(f"The file holds more than {MOST_POINTS:,} points: leave some out.")
    if table.shape[1] < 3:
        raise NotRead("A scan has three columns or more: angle, level, radius, or x, y, z.")
    return np.asarray(table, dtype=np.float64)


def _below_the_head(head: list[str]) -> tuple[str, int]:
    """What parts the columns, and how many lines stand above the first row of numbers."""
    told = [line for line in head if line.strip() and not line.startswith("#")]
    delimiter = delimiter_of(told[2] if len(told) > 2 else told[-1]) if told else ","
    for skip, line in enumerate(head):
        cells = cells_of(line, delimiter) if line.strip() else ()
        if not line.startswith("#") and line.strip() and all(is_number(cell) for cell in cells):
            return delimiter, skip
    return delimiter, len(head)


def _line_of(content: bytes, skip: int, error: str) -> str:
    """Number of the line that numpy complains of: it counts rows of numbers only, words from 0 and columns from 1."""
    place = re.search(r"row (\d+)", error)
    if place is None:
        return ""
    row = int(place.group(1)) - error.startswith("the number of columns")
    lines = enumerate(content.splitlines()[skip:], start=skip + 1)
    of_numbers = (number for number, line in lines if line.strip() and not line.startswith(b"#"))
    return f" {next(itertools.islice(of_numbers, row, None), '')}".rstrip()
