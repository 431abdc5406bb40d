"""The tape as it goes over the wire: readings, notes and everything else in the order recorded."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import NamedTuple
from uuid import UUID

from pydantic import BaseModel

from vallostasis.core.features.pattern import place_words
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.notes import PhotoMark
from vallostasis.core.records.rows import Quantity, Reading, ReadingSet, Setup
from vallostasis.core.tape.clock import against_the_clock
from vallostasis.core.tape.fact_kinds import TapeKind
from vallostasis.core.tape.tape import tape_of
from vallostasis.core.tape.undo import undo_steps


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
    taken_with: str
    struck: bool
    struck_by: str
    strike_reason: str
    clock_went_back: bool
    event: int


class TapeLine(BaseModel):
    """Anything else on the tape: a cut, a set-up, a look at the zero, a temperature."""

    event: int
    kind: TapeKind
    hole: int | None
    part: str
    words: str
    recorded_at: datetime
    recorded_by: str
    struck: bool
    struck_by: str
    strike_reason: str
    clock_went_back: bool


class UndoView(BaseModel):
    """What Undo takes back next for one person."""

    by: str
    event: int
    words: str
    hole: int | None
    part: str


class NoteRow(BaseModel):
    """A note on a reading; its photo is at /api/notes/{note_id}/photo."""

    note_id: UUID
    reading_id: UUID | None
    finding_id: UUID | None
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
            finding_id=note.finding_id,
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
    sets, went_back = _sets_by_id(facts), against_the_clock(facts)
    return [_reading_row(facts, reading, sets[reading.reading_set_id], reading.event in went_back)
            for reading in facts.readings]  # fmt: skip


class _SetNamed(NamedTuple):
    """What a set of readings is of, and how it was read."""

    hole: int | None
    mark: str
    part: str
    setup: Setup


def _sets_by_id(facts: JobFacts) -> dict[UUID, _SetNamed]:
    holes = {hole.hole_id: hole.number for hole in facts.holes}
    fittings = {f.fitting_id: (holes[f.hole_id], facts.liner(f.liner_id).mark) for f in facts.fittings}
    marks = {liner.liner_id: liner.mark for liner in facts.liners}
    setups = {setup.setup_id: setup for setup in facts.setups}

    def of(one: ReadingSet) -> tuple[int | None, str]:
        if one.fitting_id is not None:
            return fittings[one.fitting_id]
        if one.hole_id is not None:
            return holes[one.hole_id], ""
        return None, "" if one.liner_id is None else marks[one.liner_id]

    return {one.reading_set_id: _SetNamed(*of(one), one.part, setups[one.setup_id]) for one in facts.sets}


def _reading_row(facts: JobFacts, reading: Reading, named: _SetNamed, went_back: bool) -> ReadingRow:
    strike, setup = facts.struck.get(reading.reading_id), named.setup
    return ReadingRow(
        reading_id=reading.reading_id,
        set_id=reading.reading_set_id,
        quantity=setup.quantity,
        hole=named.hole,
        liner_mark=named.mark,
        land=setup.land,
        part=named.part,
        place="" if reading.hour is not None else place_words(reading.place),
        hour=reading.hour,
        value_um=reading.value_um + setup.zero_um if setup.zero_um else reading.value_um,
        typed=reading.typed,
        typed_unit=reading.typed_unit,
        taken_at=reading.taken_at,
        taken_by=reading.taken_by,
        taken_with=reading.taken_with,
        struck=strike is not None,
        struck_by="" if strike is None else strike.made_by,
        strike_reason="" if strike is None else strike.reason,
        clock_went_back=went_back,
        event=reading.event,
    )


def tape_lines(facts: JobFacts) -> list[TapeLine]:
    """Show everything but readings and notes in the order recorded."""
    return [
        TapeLine(
            event=row.event,
            kind=row.kind,
            hole=row.where.hole,
            part=row.where.part,
            words=row.words,
            recorded_at=row.recorded_at,
            recorded_by=row.recorded_by,
            struck=row.strike is not None,
            struck_by="" if row.strike is None else row.strike.made_by,
            strike_reason="" if row.strike is None else row.strike.reason,
            clock_went_back=row.event in against_the_clock(facts),
        )
        for row in tape_of(facts)
        if row.kind is not TapeKind.NOTE
    ]


def undo_views(facts: JobFacts) -> list[UndoView]:
    """Show for everybody what Undo takes back next."""
    return [
        UndoView(by=one.by, event=one.event, words=one.words, hole=one.where.hole, part=one.where.part)
        for one in undo_steps(facts).values()
    ]
