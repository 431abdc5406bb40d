"""Files that would fill the memory, run on for ever or that nobody waits for: read in a child, within bounds."""

import io
import json
import resource
import subprocess
import sys
import zipfile
from collections.abc import Awaitable, Callable
from typing import Any

import openpyxl
import pytest

from tests.alone import run_alone
from vallostasis.documents.child import Bounds
from vallostasis.documents.file_reader import BOUNDS, FileReader
from vallostasis.documents.not_read import NotRead
from vallostasis.documents.readings_table import MOST_COLUMNS, MOST_ROWS, read_table

TABLE = b"hole,clock_h,repeat,reading\n1,6,1,85\n"


async def _here() -> bool:
    return False


async def _gone() -> bool:
    return True


def _table(content: bytes, bounds: Bounds = BOUNDS, is_gone: Callable[[], Awaitable[bool]] = _here) -> Any:
    return run_alone(FileReader(bounds).table(content, is_gone))


def _workbook(sheet: str, strings: str = "") -> bytes:
    """A workbook with a sheet and shared strings written by hand."""
    book = openpyxl.Workbook()
    book.worksheets[0].append(["x"])
    plain = io.BytesIO()
    book.save(plain)
    out = io.BytesIO()
    with zipfile.ZipFile(plain) as parts, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as spoilt:
        for name in parts.namelist():
            content = parts.read(name)
            if name == "xl/worksheets/sheet1.xml":
                content = sheet.encode()
            if name == "xl/sharedStrings.xml" and strings:
                content = strings.encode()
            spoilt.writestr(name, content)
    return out.getvalue()


NAMESPACE = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"'
HEAD = "".join(f'<c t="inlineStr"><is><t>{name}</t></is></c>' for name in ("hole", "reading"))


def _sheet(rows: str) -> str:
    return f"<worksheet {NAMESPACE}><sheetData><row>{HEAD}</row>{rows}</sheetData></worksheet>"


def test_a_child_that_reads_a_job_brings_in_no_numerical_library() -> None:
    """Whoever brings in a job waits for its child: bringing in scipy takes as long again as all the rest."""
    program = "import sys, vallostasis.documents.job_on_file; print(*sorted({'numpy', 'scipy'} & sys.modules.keys()))"
    assert subprocess.run([sys.executable, "-c", program], capture_output=True, text=True, check=True).stdout == "\n"


def test_what_is_read_in_a_child_is_what_is_read_here() -> None:
    assert _table(TABLE) == read_table(TABLE)
    with pytest.raises(NotRead, match="The file is empty"):
        _table(b"")


@pytest.mark.parametrize(
    ("content", "words"),
    [
        # A few kilobytes each that unpack to hundreds of megabytes of cells.
        (_workbook(_sheet("<row>" + "<c><v>1</v></c>" * 300_000 + "</row>")), f"more than {MOST_COLUMNS} columns"),
        (_workbook(_sheet("<row><c><v>1</v></c></row>" * 400_000)), f"split it into files of {MOST_ROWS}"),
        (_workbook(_sheet("<row><c><v>1</v></c></row>" * 4_000_000)), "too large when unpacked"),
        (_workbook(_sheet(f'<row><c t="inlineStr"><is><t>{"x" * 9_000_000}</t></is></c></row>')), "characters"),
        (b"hole,reading" + b",x" * 2_000_000 + b"\n1,2\n", f"more than {MOST_COLUMNS} columns"),
        (b"hole,reading\n" + b'1,"' + b"x" * 100_000 + b'"\n', "more than 2000 characters"),
    ],
)
def test_a_bomb_is_refused_with_what_to_do(content: bytes, words: str) -> None:
    assert len(content) < 5_000_000
    # A third of what one of these took before it was bounded. [bytes]
    within = Bounds(60, 40, 400 * 1024**2)
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    with pytest.raises(NotRead, match=words):
        _table(content, within)
    # Nothing of it comes into this process: its peak grows by less than 30 MB. [kB]
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before < 30_000


def test_a_file_that_needs_more_than_it_may_take_is_stopped() -> None:
    with pytest.raises(NotRead, match="more time or memory"):
        _table(TABLE, Bounds(60, 40, 30 * 1024**2))
    with pytest.raises(NotRead, match="took too long"):
        _table(TABLE, Bounds(0, 40, 1024**3))
    with pytest.raises(NotRead, match="given up"):
        _table(TABLE, is_gone=_gone)


@pytest.mark.parametrize(
    "content", [b"[" * 4_000_000, b'{"a":' * 500_000, json.dumps([[]] * 600_000).encode(), b"{" + b" " * 4_000_000]
)
def test_a_job_file_that_is_all_brackets_is_refused(content: bytes) -> None:
    with pytest.raises(NotRead, match="no job file"):
        run_alone(FileReader().job(content, _here))
