"""The tape of a job: everything recorded about it, in the order recorded, each thing with where it belongs."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Reading, Strike
from vallostasis.core.tape.fact_kinds import FACT_KINDS, READINGS, FactKind, OnTape, TapeKind
from vallostasis.core.tape.whereabouts import Whereabouts


@dataclass(frozen=True, slots=True)
class TapeRow:
    """One thing recorded; ``row`` is what a strike names it by, ``strike`` the one that holds where it is struck."""

    event: int
    row: UUID | int
    kind: TapeKind
    where: Whereabouts
    words: str
    recorded_at: datetime
    recorded_by: str
    strike: Strike | None


def tape_of(facts: JobFacts) -> tuple[TapeRow, ...]:
    """Return everything recorded about a job but its readings, oldest first. House rule."""
    rows = [
        _row(facts, kind, kind.on_tape, fact)
        for kind in FACT_KINDS
        if kind.on_tape is not None and kind is not READINGS
        for fact in getattr(facts, kind.rows)
    ]
    return tuple(sorted((row for row in rows if row.words), key=lambda row: row.event))


def reading_row(facts: JobFacts, reading: Reading) -> TapeRow:
    """Return a reading as it stands on the tape."""
    assert READINGS.on_tape is not None
    return _row(facts, READINGS, READINGS.on_tape, reading)


def _row(facts: JobFacts, kind: FactKind, on_tape: OnTape, fact: Any) -> TapeRow:  # noqa: ANN401
    row = kind.row_of(fact)
    strike = facts.struck.get(row) if isinstance(row, UUID) else facts.struck_events.get(row)
    where, words = on_tape.where(facts, fact), on_tape.words(facts, fact)
    return TapeRow(fact.event, row, on_tape.kind, where, words, *kind.recorded(fact), strike)


def where_words(where: Whereabouts) -> str:
    """Name a place of the block the way the shop does; empty for what holds for the job."""
    if where.hole is not None and where.part in ("", f"hole-{where.hole}"):
        return f"hole {where.hole}"
    return where.part.replace("-", " ", 1)
