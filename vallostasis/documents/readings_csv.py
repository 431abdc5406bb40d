"""All readings of a job as CSV or XLSX: one row each, exact values, struck ones marked."""

import csv
import io
from collections import Counter
from collections.abc import Iterator
from decimal import Decimal
from uuid import UUID

import openpyxl

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place, Reading, ReadingSet, Setup
from vallostasis.documents.cells import safe

HEADER = (
    "reading_id", "job", "set", "quantity", "hole", "liner", "land", "datum", "hold_down", "hold_down_torque_nm",
    "clock_h", "repeat", "typed", "typed_unit", "value_um", "zeroed_on", "zero_um", "zero_correction_um",
    "part_temp_c", "gauge", "gauge_version", "taken_by", "taken_at", "struck", "strike_reason",
    "notes", "part", "level_mm", "axis_deg", "along_mm", "across_mm", "load", "method", "setting_master",
    "master_temp_c", "gauge_temp_c", "device", "from_gauge",
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
    sets = {s.reading_set_id: (number, s) for number, s in enumerate(facts.sets, start=1)}
    taken: Counter[tuple[UUID, Place]] = Counter()
    for reading in facts.readings:
        number, reading_set = sets[reading.reading_set_id]
        taken[reading.reading_set_id, reading.place] += 1
        repeat = taken[reading.reading_set_id, reading.place]
        yield (
            reading.reading_id,
            safe(facts.job.number),
            number,
            *_of_set(facts, reading_set),
            *_of_reading(facts, reading, reading_set, repeat),
            *_of_strike_and_notes(facts, reading),
            *_of_place(reading, reading_set),
            *_of_setup(facts, facts.setup(reading_set.setup_id)),
            safe(reading.device),
            "yes" if reading.from_gauge else "",
        )


def _of_set(facts: JobFacts, reading_set: ReadingSet) -> tuple[object, ...]:
    setup = facts.setup(reading_set.setup_id)
    hole_id, liner_id = reading_set.hole_id, reading_set.liner_id
    if reading_set.fitting_id is not None:
        fitting = next(one for one in facts.fittings if one.fitting_id == reading_set.fitting_id)
        hole_id, liner_id = fitting.hole_id, fitting.liner_id
    return (
        setup.quantity.value,
        "" if hole_id is None else next(hole.number for hole in facts.holes if hole.hole_id == hole_id),
        "" if liner_id is None else safe(facts.liner(liner_id).mark),
        safe(setup.land),
        safe(setup.datum),
        safe(setup.hold_down),
        _plain(setup.hold_down_torque_nm),
    )


def _of_reading(facts: JobFacts, reading: Reading, reading_set: ReadingSet, repeat: int) -> tuple[object, ...]:
    setup, gauge = facts.setup(reading_set.setup_id), facts.gauge_version(reading_set.gauge_version_id)
    corrections = facts.corrections_of(reading)
    return (
        "" if reading.hour is None else f"{reading.hour:g}",
        repeat,
        safe(reading.typed),
        reading.typed_unit,
        _plain(reading.value_um),
        setup.zeroed_on.value,
        _plain(setup.zero_um),
        _plain(sum((one.correction_um for one in corrections), Decimal(0))) if corrections else "",
        _plain(reading_set.part_temp_c),
        safe(gauge.name),
        gauge.version,
        safe(reading.taken_by),
        reading.taken_at.astimezone().isoformat(),
    )


def _of_strike_and_notes(facts: JobFacts, reading: Reading) -> tuple[str, ...]:
    strike = facts.struck.get(reading.reading_id)
    notes = facts.standing_notes.get(reading.reading_id, ())
    return (
        "struck" if strike else "",
        safe(strike.reason) if strike else "",
        safe(" / ".join(note.words for note in notes if note.words)),
    )


def _of_place(reading: Reading, reading_set: ReadingSet) -> tuple[str, ...]:
    axis = "" if reading.axis_deg is None else f"{reading.axis_deg:g}"
    return (safe(reading_set.part), _mm(reading.level_um), axis, _mm(reading.along_um), _mm(reading.across_um))


def _of_setup(facts: JobFacts, setup: Setup) -> tuple[str, ...]:
    master_id = setup.setting_master_version_id
    return (
        safe(setup.load),
        safe(setup.method),
        "" if master_id is None else safe(facts.master(master_id).name),
        _plain(setup.master_temp_c),
        _plain(setup.gauge_temp_c),
    )


def _plain(number: Decimal | None) -> str:
    return "" if number is None else f"{number.normalize():f}"


def _mm(length_um: Decimal | None) -> str:
    return "" if length_um is None else f"{(length_um / 1000).normalize():f}"
