"""Readings pasted as text: columns from a spreadsheet, or lines of a message. House rules.

A text is taken apart into holes, clock positions and what was read there; the numbers themselves are left as they
stand, for the notation to read and to ask about.
"""

import re
from dataclasses import dataclass

from vallostasis.core.notation.spoken import said_in_digits

MOST_LINES = 500
_HOUR = r"(?P<hour>\d{1,2}(?:[.]5|:30)?)\s*(?:h|o\s*['’]?\s*clock|uhr)\b"
_CLOCK = re.compile(_HOUR, re.IGNORECASE)
_HOLE = re.compile(
    r"^\W*(?:hole|cylinder|cyl|no|number|#)\W*\s*(?P<hole>\d{1,2})\b\s*(?:at\b|:|-|=|,)?\s*(?P<rest>.*)$"
    rf"|^\W*(?P<bare>\d{{1,2}})\s+(?P<after>{_HOUR.replace('hour', 'next')}.*)$",
    re.IGNORECASE,
)
_VALUES = re.compile(r"\s*[;|]\s*|\s{2,}|,\s+|(?<=\d)\s+(?=[-+−]?\d)")
_NUMBERED = re.compile(r"^(?:hole|cylinder|cyl|no\.?|#)?\s*(?P<hole>\d{1,2})$", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class PastedReading:
    """What a line says was read at a hole and a clock position [h]; the text as it stands."""

    hole: int
    hour: float
    text: str


@dataclass(frozen=True, slots=True)
class PastedLine:
    """A line that is not understood, counted from 1, and why."""

    line: int
    text: str
    why: str


@dataclass(frozen=True, slots=True)
class Pasted:
    """Readings with their places; columns without headings; lines that are neither."""

    readings: tuple[PastedReading, ...]
    table: tuple[tuple[str, ...], ...]
    not_understood: tuple[PastedLine, ...]


class _NotRead(Exception):
    """Why a line cannot be read."""


def read_pasted(text: str, holes: tuple[int, ...], hours: tuple[float, ...]) -> Pasted:
    """Take a pasted text apart.

    Parameters
    ----------
    text : str
        Columns parted by tabs or semicolons, with or without headings, or lines such as ``5 6h 1.6``,
        ``hole 5 at 6 o'clock: 1.6``, ``hole 5: 12h 1.5, 3h 1.6``, ``hole 5: 1.5 1.6 1.4 1.5``.
    holes : tuple of int
        Holes of the block.
    hours : tuple of float
        Clock positions in the order in which values without one are taken. [h]

    Returns
    -------
    Pasted
        What was found; nothing of the text is left out unsaid.
    """
    readings: list[PastedReading] = []
    table: list[tuple[str, ...]] = []
    missed: list[PastedLine] = []
    heading: list[float | None] | None = None
    hole: int | None = None
    for number, line in enumerate(text.splitlines(), 1):
        if not line.strip():
            continue
        try:
            columns = _columns(line)
            if columns is not None:
                found = _heading(columns)
                if found is not None:
                    heading = found
                elif heading is not None:
                    readings += _row(columns, heading, holes)
                else:
                    table.append(tuple(columns))
                continue
            hole, found_here = _line(line, hole, holes, hours)
            readings += found_here
        except _NotRead as why:
            missed.append(PastedLine(number, line.strip()[:80], str(why)))
    return Pasted(tuple(readings), tuple(table), tuple(missed))


def _columns(line: str) -> list[str] | None:
    """Split a line at its tabs or semicolons; None where it has none, or where it is a line of words."""
    for mark in ("\t", ";"):
        if mark in line and not re.match(r"\s*(?:hole|cyl)\w*\s*\d+\s*:", line, re.IGNORECASE):
            return [cell.strip() for cell in line.strip("\r\n").split(mark)]
    return None


def _heading(columns: list[str]) -> list[float | None] | None:
    """Return the clock position of each column where a line is a heading; None where it is none."""
    clocks = [_CLOCK.fullmatch(cell) for cell in columns]
    if not any(clocks):
        named = columns[0].lower() in ("hole", "cylinder", "cyl")
        if not named or not all(cell.isdigit() and 0 < int(cell) <= 12 for cell in columns[1:]):
            return None
        return [None, *(float(cell) for cell in columns[1:])]
    return [None if clock is None else _hour(clock["hour"]) for clock in clocks]


def _row(columns: list[str], heading: list[float | None], holes: tuple[int, ...]) -> list[PastedReading]:
    named = _NUMBERED.match(columns[0])
    if named is None:
        raise _NotRead("its first column names no hole")
    hole = _known(int(named["hole"]), holes)
    if any(columns[len(heading) :]):
        raise _NotRead("it has more columns than the heading")
    return [
        PastedReading(hole, hour, cell)
        for cell, hour in zip(columns, heading, strict=False)
        if hour is not None and cell not in ("", "-", "–")
    ]


def _line(
    line: str, present: int | None, holes: tuple[int, ...], hours: tuple[float, ...]
) -> tuple[int | None, list[PastedReading]]:
    """Read a line of a message; a hole that was named holds for the lines below it."""
    text = said_in_digits(line.strip())
    named = _HOLE.match(text)
    hole = present
    if named is not None:
        hole = _known(int(named["hole"] or named["bare"]), holes)
        text = named["rest"] if named["hole"] else named["after"]
    clocks = list(_CLOCK.finditer(text))
    if not clocks and named is None:
        raise _NotRead("it names no hole and no clock position")
    if hole is None:
        raise _NotRead("no hole is named here or above")
    if not clocks:
        return hole, _in_order(hole, text, hours)
    ends = [clock.start() for clock in clocks[1:]] + [len(text)]
    found = [(_hour(clock["hour"]), _value(text[clock.end() : end])) for clock, end in zip(clocks, ends, strict=True)]
    if any(value == "" for _, value in found):
        raise _NotRead("a clock position stands there without a number")
    return hole, [PastedReading(hole, hour, value) for hour, value in found]


def _in_order(hole: int, text: str, hours: tuple[float, ...]) -> list[PastedReading]:
    """Values without a clock position are those of the card's positions, where there is one for each."""
    if not text.strip():
        return []
    values = [_value(part) for part in _VALUES.split(text.strip()) if part.strip()]
    if len(values) != len(hours):
        raise _NotRead(f"{len(values)} numbers without a clock position, where {len(hours)} are read")
    return [PastedReading(hole, hour, value) for hour, value in zip(hours, values, strict=True)]


def _value(text: str) -> str:
    return text.strip().strip(",;:=|").strip()


def _hour(text: str) -> float:
    hour = float(text.replace(":30", ".5"))
    if not 0 < hour <= 12:
        raise _NotRead(f"there is no {text} h on the clock")
    return hour


def _known(hole: int, holes: tuple[int, ...]) -> int:
    if hole not in holes:
        raise _NotRead(f"there is no hole {hole}")
    return hole
