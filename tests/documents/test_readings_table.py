"""Tables of readings as people and spreadsheets write them."""

import csv
import io
import zipfile

import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.documents.readings_table import MOST_ROWS, NotATable, read_table

TEXT = st.text(st.characters(exclude_categories=["C", "Z"]), min_size=1, max_size=12).filter(lambda t: t[0] != "'")


def _workbook(rows: list[list[object]]) -> bytes:
    book = openpyxl.Workbook()
    for row in rows:
        book.worksheets[0].append(row)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


@pytest.mark.parametrize("delimiter", [",", ";", "\t"])
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "cp1252"])
@pytest.mark.parametrize("end", ["\n", "\r\n"])
def test_delimiters_encodings_and_line_ends_make_no_difference(delimiter: str, encoding: str, end: str) -> None:
    lines = [
        ["Hole", "Clock (h)", "Repeat", "Reading", "Unit"],
        ["5", "6", "1", "85", "µm"],
        [],
        ["5", "6", "2", "86", "µm"],
    ]
    content = end.join(delimiter.join(cells) for cells in lines).encode(encoding)
    rows = read_table(content)
    assert [(row.number, row["hole"], row["clock"], row["repeat"], row["reading"], row["unit"]) for row in rows] == [
        (2, "5", "6", "1", "85", "µm"),
        (4, "5", "6", "2", "86", "µm"),
    ]


def test_a_workbook_is_read_as_its_numbers_stand() -> None:
    rows = read_table(
        _workbook([["hole", "position", "value"], [5, 10.5, 0.085], [None, None, None], [6, 3, "1 1/2 thou"]])
    )
    assert [(row.number, row["hole"], row["clock"], row["reading"]) for row in rows] == [
        (2, "5", "10.5", "0.085"),
        (4, "6", "3", "1 1/2 thou"),
    ]


@given(st.lists(st.tuples(TEXT, TEXT), min_size=1, max_size=20))
def test_what_is_written_is_read(cells: list[tuple[str, str]]) -> None:
    out = io.StringIO(newline="")
    csv.writer(out).writerows([("hole", "reading"), *cells])
    assert [(row["hole"], row["reading"]) for row in read_table(out.getvalue().encode())] == cells


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "The file is empty"),
        (b"\n\n", "The file is empty"),
        (b"hole,reading\n", "no readings below it"),
        (b"a,b\n1,2\n", "names no column for reading and hole or liner or part; it names a, b"),
        (b"hole,cyl,reading\n1,1,2\n", "Two columns are both read as"),
        (b"hole\x00", "neither CSV nor XLSX"),
        (b"PK\x03\x04nonsense", "The workbook cannot be read"),
        (b'hole,reading\n"' + b"x" * 200_000 + b'",1\n', "Row 2 cannot be read as CSV"),
        (b"hole,reading\n" + b"1,2\n" * (MOST_ROWS + 1), "split it into files of 20000 at most"),
    ],
)
def test_what_is_no_table_is_refused_with_what_to_do(content: bytes, words: str) -> None:
    with pytest.raises(NotATable, match=words.replace("(", r"\(")):
        read_table(content)


def test_a_workbook_that_unpacks_without_end_is_refused() -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as parts:
        parts.writestr("xl/worksheets/sheet1.xml", b"0" * 100_000_001)
    with pytest.raises(NotATable, match="too large when unpacked"):
        read_table(out.getvalue())
