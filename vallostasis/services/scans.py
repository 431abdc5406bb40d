"""Bringing a scan in: a look at its file first, then every point at once or none."""

from dataclasses import dataclass
from uuid import UUID

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.bores.scan_columns import ScanKind, ScanLayout, points_of_file, refuse_another_unit
from vallostasis.core.bores.scan_levels import ScanProfile, scan_profile, written
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.demo import scans_play
from vallostasis.devices.simulated_scanner import scan_file
from vallostasis.documents.not_read import NotRead
from vallostasis.documents.number_lines import cells_of, delimiter_of, is_number, lines_of
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import Refused
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import lock_job_facts
from vallostasis.store.new_bore_facts import NewScan
from vallostasis.store.rows import Conn
from vallostasis.store.scan_points import add_points

# So much of a file is looked at for its preview.
PREVIEW_ROWS = 12


@dataclass(frozen=True, slots=True)
class ScanAsk:
    """What is asked with a scan's file."""

    scan_id: UUID
    hole: int
    load: str
    instrument: str
    file_name: str
    layout: ScanLayout


@dataclass(frozen=True, slots=True)
class Preview:
    """The head of a file as it was taken apart, and what it seems to be."""

    delimiter: str
    names: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    layout: ScanLayout


def preview(content: bytes, bore_m: float) -> Preview:
    """Take the head of a file apart and guess what it holds: nothing is kept."""
    lines = [line for line in lines_of(content[:200_000]) if line.strip() and not line.startswith("#")]
    if not lines:
        raise NotRead("The file is empty: choose another.")
    delimiter = delimiter_of(lines[-1] if len(lines) < 3 else lines[2])
    first = cells_of(lines[0], delimiter)
    has_names = not all(is_number(cell) for cell in first)
    rows = tuple(cells_of(line, delimiter) for line in lines[has_names : PREVIEW_ROWS + has_names])
    names = first if has_names else tuple(f"column {at + 1}" for at in range(len(first)))
    if not rows or len(rows[0]) < 3:
        raise NotRead("A scan has three columns or more: angle, level, radius, or x, y, z.")
    return Preview(delimiter, names, rows, _guess(names, rows, bore_m))


def _guess(names: tuple[str, ...], rows: tuple[tuple[str, ...], ...], bore_m: float) -> ScanLayout:
    lower = [name.casefold() for name in names]

    def find(*words: str) -> int | None:
        return next((at for at, name in enumerate(lower) if any(name.startswith(word) for word in words)), None)

    angle, level, radius = find("angle", "theta", "deg"), find("level", "depth", "z", "height"), find("radius", "r")
    x, y, z = find("x"), find("y"), find("z", "depth", "level")
    polar = angle is not None and level is not None and radius is not None
    if not polar and x is not None and y is not None and z is not None:
        kind, columns = ScanKind.CARTESIAN, (x, y, z)
    else:
        kind, columns = ScanKind.POLAR, (angle or 0, 1 if level is None else level, 2 if radius is None else radius)
    unit = _unit_in(names, columns[2] if kind is ScanKind.POLAR else columns[0])
    depth = _unit_in(names, columns[1] if kind is ScanKind.POLAR else columns[2])
    if unit is None:
        at = columns[2] if kind is ScanKind.POLAR else columns[0]
        values = [abs(float(row[at])) for row in rows if len(row) > at and is_number(row[at])]
        size = max(values, default=1.0)
        unit = min(("m", "mm", "µm", "inch"), key=lambda one: abs(_log(size * _METRES[one] * 2 / bore_m)))
    return ScanLayout(kind, columns, unit, depth or ("mm" if unit == "µm" else unit))


_METRES = {"m": 1.0, "mm": 1e-3, "µm": 1e-6, "inch": 25.4e-3}


def _log(ratio: float) -> float:
    return float(np.log(max(ratio, 1e-12)))


def _unit_in(names: tuple[str, ...], at: int) -> str | None:
    words = names[at].casefold().replace("[", " ").replace("(", " ").replace("]", " ").replace(")", " ")
    words = words.replace("_", " ")
    known = {"mm": "mm", "µm": "µm", "um": "µm", "m": "m", "in": "inch", "inch": "inch", "thou": "thou"}
    return next((known[word] for word in words.split() if word in known), None)


def bring_in_scan(conn: Conn, job_id: UUID, ask: ScanAsk, table: NDArray[np.float64], by: UUID) -> int:
    """Bring a scan in, every point or none; again it never doubles it. Return how many points it has."""
    facts = lock_job_facts(conn, job_id)
    if any(one.scan_id == ask.scan_id for one in facts.scans):
        return next(one.points for one in facts.scans if one.scan_id == ask.scan_id)
    hole = known_hole(facts, ask.hole)
    angles, depths, radii, profile = work_out(facts, table, ask.layout)
    add_points(conn, ask.scan_id, angles, depths, radii)
    record_fact(conn, NewScan(ask.scan_id, job_id, hole.hole_id, ask.load, ask.instrument, ask.file_name,
                              ask.layout.words, len(table), written(profile)), by)  # fmt: skip
    return len(table)


def work_out(
    facts: JobFacts, table: NDArray[np.float64], layout: ScanLayout
) -> tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64], ScanProfile]:
    """Turn a table into angles, depths, radii and what its levels hold, or refuse it at the field."""
    try:
        angles, depths, radii = points_of_file(table, layout)
        refuse_another_unit(radii, depths, layout, facts.card.layout.bore.metres)
        return angles, depths, radii, scan_profile(angles, depths, radii)
    except OutOfDomain as error:
        raise Refused(f"{str(error)[:1].upper()}{str(error)[1:]}", error.quantity or "file") from None


def simulated_scan(facts: JobFacts, number: int, clamped: bool) -> str:
    """Write the file that a roundness instrument would, of a bore of an invented job."""
    if not facts.job.invented:
        raise Refused("Only an invented job has a hidden truth to scan: bring in the file of your instrument.", "hole")
    hole = known_hole(facts, number)
    wall = scans_play.wall_of(facts.job.number, facts.card, hole.number, clamped)
    return scan_file(wall, scans_play.levels_of(facts.card), scans_play.STEPS, 100 * hole.number + clamped)
