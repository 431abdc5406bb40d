"""What a probe touched, as its machine wrote it: lines of deck or the number of a bore, then x, y, z."""

import math
from dataclasses import dataclass

from vallostasis.documents.not_read import NotRead
from vallostasis.documents.number_lines import cells_of, lines_of

MOST_POINTS = 20_000


@dataclass(frozen=True, slots=True)
class ProbedPoint:
    """One line: its number in the file, the bore (0 is the deck), and x, y, z in the unit of the file."""

    line: int
    part: int
    xyz: tuple[float, float, float]


def read_probe(content: bytes) -> tuple[ProbedPoint, ...]:
    """Read every line of a file; a head and comments are passed over.

    Raises
    ------
    NotRead
        If it is no text, empty or too long, or a line is not understood.
    """
    points = list[ProbedPoint]()
    for number, line in enumerate(lines_of(content), start=1):
        cells = cells_of(line, ",")
        if not line.strip() or line.startswith("#") or cells[:1] == ("part",):
            continue
        points.append(_point(number, cells))
        if len(points) > MOST_POINTS:
            raise NotRead(f"The file holds more than {MOST_POINTS:,} points: leave some out.")
    if not points:
        raise NotRead("The file is empty: it holds lines of deck or bore, x, y, z.")
    return tuple(points)


def _point(number: int, cells: tuple[str, ...]) -> ProbedPoint:
    try:
        part = 0 if cells[0].casefold() == "deck" else int(cells[0])
        x, y, z = (float(one) for one in cells[1:4])
    except (ValueError, IndexError):
        raise NotRead(
            f"Line {number} is not understood: it holds deck or the number of a bore, then x, y, z."
        ) from None
    if not all(math.isfinite(one) for one in (x, y, z)):
        raise NotRead(f"Line {number} lacks a number.")
    return ProbedPoint(number, part, (x, y, z))
