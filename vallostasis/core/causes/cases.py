"""Cases that were settled once, found again by how their residuals lie.

References
----------
.. [1] G. Salton, M. J. McGill, Introduction to Modern Information Retrieval (1983): likeness as the cosine between two
   descriptions (from memory).
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from math import cos, radians, sin

import numpy as np

from vallostasis.core.causes.of_job import HoleOff
from vallostasis.core.causes.table import UM
from vallostasis.core.errors import OutOfDomain


@dataclass(frozen=True, slots=True)
class ShapeRow:
    """One residual of a case: its hole, the make in it, where it stands round the hole or along it, its size. [µm]"""

    hole: int
    make: str
    spot: str
    off_um: float


def shape_of(holes: Sequence[HoleOff]) -> tuple[ShapeRow, ...]:
    """Return the residuals of a block as a case keeps them. [µm] By definition."""
    rows = []
    for hole in holes:
        if hole.middle is not None:
            rows.append(ShapeRow(hole.hole, hole.make, "", round(hole.middle.value_m / UM, 1)))
        rows += [ShapeRow(hole.hole, hole.make, one.name, round(one.off.value_m / UM, 1)) for one in hole.spots]
    return tuple(rows)


def shape_as_text(rows: Sequence[ShapeRow]) -> str:
    """Write a shape down, one line for each row. House rule."""
    return "\n".join(f"{one.hole}\t{one.make}\t{one.spot}\t{one.off_um:.1f}" for one in rows)


def shape_from_text(text: str) -> tuple[ShapeRow, ...]:
    """Read a shape that was written down. House rule.

    Raises
    ------
    OutOfDomain
        If a line is none.
    """
    rows = []
    for line in text.splitlines():
        cells = line.split("\t")
        try:
            rows.append(ShapeRow(int(cells[0]), cells[1], cells[2], float(cells[3])))
        except (ValueError, IndexError):
            raise OutOfDomain(f"“{line}” is no residual of a case", "shape") from None
    return tuple(rows)


def likeness(one: Sequence[ShapeRow], other: Sequence[ShapeRow]) -> float:
    """Return how alike two patterns lie on their blocks, whatever their size in holes. [1]

    Cosine between what each pattern is made of, [1]_ of the module: 1 alike, 0 nothing in common.
    """
    a, b = _made_of(one), _made_of(other)
    size = float(np.linalg.norm(a) * np.linalg.norm(b))
    return 0.0 if size == 0 else max(0.0, float(a @ b) / size)


def _made_of(rows: Sequence[ShapeRow]) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
    """What a pattern is made of, as parts of its whole: all alike, by make, single holes up and down, slope, bow, lean.

    Each with its sign, so that what stands low is not like what stands high. Analysis of variance, house rule.
    """
    middles, makes = _middles(rows), {one.hole: one.make for one in rows}
    values = np.array(list(middles.values()), dtype=np.float64)
    if not len(values):
        return np.zeros(7)
    mean = float(np.median(values))
    rest, of_make = values - mean, np.zeros(len(values))
    groups = defaultdict(list)
    for at, hole in enumerate(middles):
        groups[makes[hole]].append(at)
    if len(groups) > 1:
        for places in groups.values():
            if len(places) > 1:
                of_make[places] = np.median(rest[places])
    rest = rest - of_make
    along = np.linspace(-1, 1, len(values)) if len(values) > 1 else np.zeros(1)
    slope = float(rest @ along) / len(values)
    worst = float(rest[np.argmax(np.abs(rest))])
    least = of_make[np.argmax(np.abs(of_make))]
    bow = float(rest @ (1 - along**2 - np.mean(1 - along**2)))
    return np.array([mean, float(least), max(worst, 0.0), min(worst, 0.0), slope, bow / len(values), _lean(rows)])


def _middles(rows: Sequence[ShapeRow]) -> dict[int, float]:
    found: dict[int, list[float]] = defaultdict(list)
    for one in rows:
        if one.spot == "":
            found[one.hole] = [one.off_um]
        elif not any(each.hole == one.hole and each.spot == "" for each in rows):
            found[one.hole].append(one.off_um)
    return {hole: float(np.mean(values)) for hole, values in found.items()}


def _lean(rows: Sequence[ShapeRow]) -> float:
    """How far the hole that leans most leans, middle to high side. [µm] First term of the series round the clock."""
    most = 0.0
    for hole in {one.hole for one in rows}:
        read = [(float(one.spot.removesuffix("h")) * 30.0, one.off_um) for one in rows
                if one.hole == hole and one.spot.removesuffix("h").strip().replace(".", "").isdigit()]  # fmt: skip
        if len(read) >= 3:
            x = 2 * sum(value * cos(radians(angle)) for angle, value in read) / len(read)
            y = 2 * sum(value * sin(radians(angle)) for angle, value in read) / len(read)
            most = max(most, float(np.hypot(x, y)))
    return most
