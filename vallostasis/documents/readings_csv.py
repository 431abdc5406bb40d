"""All readings of a job as CSV or XLSX: one row each, exact values, struck ones marked."""

import csv
import io
from collections import Counter
from collections.abc import Iterator
from decimal import Decimal
from uuid import UUID

import openpyxl

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place

HEADER = (
    "reading_id", "job", "set", "quantity", "hole", "liner", "land", "datum", "hold_down", "hold_down_torque_nm",
    "clock_h", "repeat", "typed", "typed_unit", "value_um", "zeroed_on", "zero_um", "zero_correction_um",
    "part_temp_c", "gauge", "gauge_version", "taken_by", "taken_at", "struck", "strike_reason",
    "notes", "part", "level_mm", "axis_deg", "along_mm", "across_mm", "load", "method", "setting_master",
    "master_temp_c", "gauge_temp_c",
)  # fmt: skip


def readings_csv(facts: JobFacts) -> str:
    """Write all readings of a job as CSV (RFC 4180), in the order in which they were taken."""
    out = io.StringIO(newline="")
    csv.writer(out).writerows((HEADER, *_rows(facts)))
    return out.getvalue()


def readings_xlsx(facts: JobFacts) -> bytes:
    """Write the same table as a workbook of one sheet; every cell is text, so that no digit is lost."""
    book = openpyxl.Workbook()
    sheet = book.worksheets[0]
    sheet.title = "readings"
    for row in (HEADER, *_rows(facts)):
        sheet.append([str(cell) for cell in row])
    sheet.freeze_panes = "A2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _rows(facts: JobFacts) -> Iterator[tuple[object, ...]]:
    holes = {hole.hole_id: hole.number for hole in facts.holes}
    fittings = {fitting.fitting_id: fitting for fitting in facts.fittings}
    sets = {s.reading_set_id: (number, s) for number, s in enumerate(facts.sets, start=1)}
    taken: Counter[tuple[UUID, Place]] = Counter()
    for reading in facts.readings:
        number, reading_set = sets[reading.reading_set_id]
        setup = facts.setup(reading_set.setup_id)
        gauge = facts.gauge_version(reading_set.gauge_version_id)
        corrections = facts.corrections_of(reading)
        strike = facts.struck.get(reading.reading_id)
        hole_id, liner_id = reading_set.hole_id, reading_set.liner_id
        if reading_set.fitting_id is not None:
            fitting = fittings[reading_set.fitting_id]
            hole_id, liner_id = fitting.hole_id, fitting.liner_id
        taken[reading.reading_set_id, reading.place] += 1
        yield (
            reading.reading_id,
            safe(facts.job.number),
            number,
            setup.quantity.value,
            "" if hole_id is None else holes[hole_id],
            "" if liner_id is None else safe(facts.liner(liner_id).mark),
            safe(setup.land),
            safe(setup.datum),
            safe(setup.hold_down),
            "" if setup.hold_down_torque_nm is None else f"{setup.hold_down_torque_nm.normalize():f}",
            "" if reading.hour is None else f"{reading.hour:g}",
            taken[reading.reading_set_id, reading.place],
            reading.typed,
            reading.typed_unit,
            f"{reading.value_um.normalize():f}",
            setup.zeroed_on.value,
            f"{setup.zero_um.normalize():f}",
            f"{sum((one.correction_um for one in corrections), Decimal(0)).normalize():f}" if corrections else "",
            "" if reading_set.part_temp_c is None else f"{reading_set.part_temp_c.normalize():f}",
            safe(gauge.name),
            gauge.version,
            safe(reading.taken_by),
            reading.taken_at.astimezone().isoformat(),
            "struck" if strike else "",
            safe(strike.reason) if strike else "",
            safe(" / ".join(note.words for note in facts.standing_notes.get(reading.reading_id, ()) if note.words)),
            safe(reading_set.part),
            _mm(reading.level_um),
            "" if reading.axis_deg is None else f"{reading.axis_deg:g}",
            _mm(reading.along_um),
            _mm(reading.across_um),
            safe(setup.load),
            safe(setup.method),
            "" if setup.setting_master_version_id is None else safe(facts.master(setup.setting_master_version_id).name),
            "" if setup.master_temp_c is None else f"{setup.master_temp_c.normalize():f}",
            "" if setup.gauge_temp_c is None else f"{setup.gauge_temp_c.normalize():f}",
        )


def _mm(length_um: Decimal | None) -> str:
    return "" if length_um is None else f"{(length_um / 1000).normalize():f}"


def safe(text: str) -> str:
    """Keep a spreadsheet from taking text for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text
