"""The tape as it goes over the wire: readings, cuts and fittings in the order recorded."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID

from pydantic import BaseModel

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.measuring.pattern import place_words
from vallostasis.core.notes import PhotoMark
from vallostasis.core.records import Quantity, Setup


@dataclass(frozen=True, slots=True)
class ReadingRow:
    """One reading on the tape. There are thousands: a plain dataclass is made ten times faster than a model.

    ``value_um`` is the size: the reading and what its gauge was zeroed on. [µm]
    """

    reading_id: UUID
    set_id: UUID
    quantity: Quantity
    hole: int | None
    liner_mark: str
    land: str
    part: str
    place: str
    hour: float | None
    value_um: Decimal
    typed: str
    typed_unit: str
    taken_at: datetime
    taken_by: str
    struck: bool
    strike_reason: str
    event: int


class DoneRow(BaseModel):
    """A cut or fitting on the tape."""

    row_id: UUID
    kind: str
    hole: int
    words: str
    done_at: datetime
    done_by: str
    struck: bool
    event: int


class NoteRow(BaseModel):
    """A note on a reading; its photo is at /api/notes/{note_id}/photo."""

    note_id: UUID
    reading_id: UUID
    words: str
    has_photo: bool
    photo_here: bool
    marks: list[PhotoMark]
    made_at: datetime
    made_by: str
    struck: bool
    event: int


def note_rows(facts: JobFacts) -> list[NoteRow]:
    """Show all notes of a job in the order written."""
    return [
        NoteRow(
            note_id=note.note_id,
            reading_id=note.reading_id,
            words=note.words,
            has_photo=note.photo_sha256 != "",
            photo_here=note.photo_here,
            marks=list(note.marks),
            made_at=note.made_at,
            made_by=note.made_by,
            struck=note.note_id in facts.struck,
            event=note.event,
        )
        for note in facts.notes
    ]


def reading_rows(facts: JobFacts) -> list[ReadingRow]:
    """Show all readings of a job in the order taken."""
    holes = {hole.hole_id: hole.number for hole in facts.holes}
    fittings = {f.fitting_id: (holes[f.hole_id], facts.liner(f.liner_id).mark) for f in facts.fittings}
    marks = {liner.liner_id: liner.mark for liner in facts.liners}
    setups = {setup.setup_id: setup for setup in facts.setups}
    parts = {s.reading_set_id: s.part for s in facts.sets}
    of_set: dict[UUID, tuple[int | None, str, Setup]] = {}
    for s in facts.sets:
        if s.fitting_id is not None:
            hole, mark = fittings[s.fitting_id]
            of_set[s.reading_set_id] = (hole, mark, setups[s.setup_id])
        elif s.hole_id is not None:
            of_set[s.reading_set_id] = (holes[s.hole_id], "", setups[s.setup_id])
        else:
            mark = "" if s.liner_id is None else marks[s.liner_id]
            of_set[s.reading_set_id] = (None, mark, setups[s.setup_id])
    rows = []
    for reading in facts.readings:
        number, mark, setup = of_set[reading.reading_set_id]
        strike = facts.struck.get(reading.reading_id)
        rows.append(
            ReadingRow(
                reading_id=reading.reading_id,
                set_id=reading.reading_set_id,
                quantity=setup.quantity,
                hole=number,
                liner_mark=mark,
                land=setup.land,
                part=parts[reading.reading_set_id],
                place="" if reading.hour is not None else place_words(reading.place),
                hour=reading.hour,
                value_um=reading.value_um + setup.zero_um if setup.zero_um else reading.value_um,
                typed=reading.typed,
                typed_unit=reading.typed_unit,
                taken_at=reading.taken_at,
                taken_by=reading.taken_by,
                struck=strike is not None,
                strike_reason="" if strike is None else strike.reason,
                event=reading.event,
            )
        )
    return rows


def done_rows(facts: JobFacts) -> list[DoneRow]:
    """Show cuts and fittings in the order recorded."""
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    rows = [
        DoneRow(
            row_id=cut.cut_id,
            kind="cut",
            hole=numbers[cut.hole_id],
            words=f"cut to {cut.typed}",
            done_at=cut.cut_at,
            done_by=cut.cut_by,
            struck=cut.cut_id in facts.struck,
            event=cut.event,
        )
        for cut in facts.cuts
    ]
    for fitting in facts.fittings:
        shims = " + ".join(shim.typed for shim in facts.shims_of(fitting.fitting_id))
        words = f"{facts.liner(fitting.liner_id).mark} fitted" + (f" on {shims} shim" if shims else "")
        rows.append(
            DoneRow(
                row_id=fitting.fitting_id,
                kind="fitting",
                hole=numbers[fitting.hole_id],
                words=words,
                done_at=fitting.fitted_at,
                done_by=fitting.fitted_by,
                struck=fitting.fitting_id in facts.struck,
                event=fitting.event,
            )
        )
    return sorted(rows, key=lambda row: row.event)
