"""A table of readings from a CSV or XLSX file: rows of text under known columns, whoever wrote them."""

import csv
import io
import re
import zipfile
from dataclasses import dataclass
from datetime import datetime
from xml.etree.ElementTree import ParseError

import openpyxl
from openpyxl.utils.exceptions import InvalidFileException

from vallostasis.documents.cells import unmarked
from vallostasis.documents.not_read import NotRead

MOST_ROWS = 20_000
# An XLSX file is compressed; unpacked it may not take more than this.
LARGEST_UNPACKED_BYTES = 25_000_000
MOST_COLUMNS = 80
LONGEST_CELL = 2_000

# Heads of a column as people write them, and as our own export writes them.
COLUMNS: dict[str, tuple[str, ...]] = {
    "reading_id": ("reading_id", "id"),
    "set": ("set", "pass"),
    "quantity": ("quantity", "what", "measured"),
    "hole": ("hole", "cylinder", "cyl", "hole_no"),
    "liner": ("liner", "liner_mark", "mark"),
    "land": ("land",),
    "datum": ("datum",),
    "hold_down": ("hold_down", "clamp"),
    "hold_down_torque_nm": ("hold_down_torque_nm",),
    "clock": ("clock_h", "clock", "hour", "position", "at"),
    "repeat": ("repeat", "rep", "n"),
    "reading": ("typed", "reading", "value"),
    "unit": ("typed_unit", "unit", "units"),
    "value_um": ("value_um",),
    "zero_correction": ("zero_correction_um",),
    "zeroed_on": ("zeroed_on", "zero_reference"),
    "zero_um": ("zero_um",),
    "part_temp_c": ("part_temp_c", "temp_c", "temperature_c"),
    "gauge": ("gauge",),
    "taken_by": ("taken_by", "by", "read_by", "who"),
    "taken_at": ("taken_at", "when", "date"),
    "struck": ("struck",),
    "strike_reason": ("strike_reason", "reason"),
    "part": ("part",),
    "level_mm": ("level_mm", "depth_mm", "height_mm"),
    "axis_deg": ("axis_deg", "axis"),
    "along_mm": ("along_mm",),
    "across_mm": ("across_mm",),
    "load": ("load",),
    "method": ("method",),
}
_COLUMN_OF = {head: column for column, heads in COLUMNS.items() for head in heads}
NEEDED = ("reading", "hole or liner or part")


class NotATable(NotRead):
    """The file is no table of readings; the text says what to do."""


@dataclass(frozen=True, slots=True)
class TableRow:
    """One row: its number in the file, counted as a spreadsheet counts, and its text by column."""

    number: int
    cells: dict[str, str]

    def __getitem__(self, column: str) -> str:
        """Text of a column, empty where there is none."""
        return self.cells.get(column, "")


def read_table(content: bytes) -> tuple[TableRow, ...]:
    """Read a file as a table of readings.

    Raises
    ------
    NotATable
        If it is neither CSV nor XLSX, lacks a column that is needed, or has no or too many rows.
    """
    lines = _xlsx_lines(content) if content[:4] == b"PK\x03\x04" else _csv_lines(content)
    lines = [(number, cells) for number, cells in lines if any(cells)]
    if not lines:
        raise NotATable("The file is empty: it needs a head with the names of its columns, and a row for each reading.")
    _refuse_too_much(lines)
    columns = _columns(lines[0][1])
    if len(lines) == 1:
        raise NotATable("The file has a head and no readings below it.")
    if len(lines) - 1 > MOST_ROWS:
        raise NotATable(f"The file has {len(lines) - 1} rows: split it into files of {MOST_ROWS} at most.")
    return tuple(
        TableRow(number, {column: unmarked(cells[place]) for place, column in columns.items() if place < len(cells)})
        for number, cells in lines[1:]
    )


def _refuse_too_much(lines: list[tuple[int, list[str]]]) -> None:
    for number, cells in lines:
        # A workbook pads its rows with empty cells.
        if any(cells[MOST_COLUMNS:]):
            raise NotATable(f"Row {number} has more than {MOST_COLUMNS} columns: keep those of the readings.")
        if any(len(cell) > LONGEST_CELL for cell in cells):
            raise NotATable(f"A cell of row {number} holds more than {LONGEST_CELL} characters: shorten it.")


def _columns(head: list[str]) -> dict[int, str]:
    columns: dict[int, str] = {}
    for place, name in enumerate(head):
        column = _COLUMN_OF.get(re.sub(r"[^a-z0-9]+", "_", name.casefold()).strip("_"))
        if column is not None and column in columns.values():
            raise NotATable(f"Two columns are both read as “{column}”: keep the one that counts.")
        if column is not None:
            columns[place] = column
    found = set(columns.values())
    missing = [name for name in NEEDED if not found & set(name.split(" or "))]
    if missing:
        raise NotATable(
            f"The head names no column for {' and '.join(missing)}; it names {', '.join(filter(None, head))}. "
            "Columns are: hole, clock_h, repeat, reading, unit; liner for flange thickness; part, level_mm and "
            "axis_deg for a bore."
        )
    return columns


def _csv_lines(content: bytes) -> list[tuple[int, list[str]]]:
    if b"\x00" in content:
        raise NotATable("That is neither CSV nor XLSX: save the table as one of these.")
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        # What spreadsheets of Western Europe write when they do not write UTF-8; every byte but five means a letter.
        text = content.decode("cp1252", errors="replace")
    head = text.lstrip().partition("\n")[0]
    delimiter = max(",;\t", key=head.count)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    lines = []
    try:
        for cells in reader:
            lines.append((reader.line_num, cells))
            if len(lines) > MOST_ROWS + 1:
                break
    except csv.Error as error:
        raise NotATable(f"Row {reader.line_num} cannot be read as CSV: {error}.") from None
    return lines


def _xlsx_lines(content: bytes) -> list[tuple[int, list[str]]]:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as parts:
            if sum(part.file_size for part in parts.infolist()) > LARGEST_UNPACKED_BYTES:
                raise NotATable("The workbook is too large when unpacked: keep one sheet with the readings.")
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, data_only=True)
        # One row and one column more than may be: what is too much is found without reading all of it.
        rows = book.worksheets[0].iter_rows(values_only=True, max_row=MOST_ROWS + 2, max_col=MOST_COLUMNS + 1)
        return [(number, [_cell_text(value) for value in row]) for number, row in enumerate(rows, start=1)]
    except (InvalidFileException, zipfile.BadZipFile, ParseError, KeyError, IndexError, ValueError, OSError) as error:
        raise NotATable(f"The workbook cannot be read ({error}): save it anew as XLSX, or as CSV.") from None


def _cell_text(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, datetime):
        return value.isoformat()
    if isinstance(value, float):
        return f"{value:.12g}"
    return str(value).strip()
