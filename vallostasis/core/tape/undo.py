"""What Undo takes back next: the newest step of a person that still holds, everything it did at once.

One step records all its rows at one time: a correction strikes the first reading and takes the second, a moved
zero corrects many sets. What Undo itself did is no step, and neither is what came with taking the job in.
"""

from collections.abc import Hashable, Iterable
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Reading, Strike
from vallostasis.core.tape.fact_kinds import NEVER_STRUCK, TapeKind
from vallostasis.core.tape.tape import TapeRow, reading_row, tape_of, where_words
from vallostasis.core.tape.whereabouts import Whereabouts


@dataclass(frozen=True, slots=True)
class Reversal:
    """One thing to strike, or to restore, so that a step is taken back."""

    row: UUID | int
    kind: TapeKind
    struck: bool


@dataclass(frozen=True, slots=True)
class UndoStep:
    """A step that can be taken back: whose, its newest event, what it was in words, where, and how."""

    by: str
    event: int
    words: str
    where: Whereabouts
    reversals: tuple[Reversal, ...]


@dataclass(frozen=True, slots=True)
class _Done:
    """One row of a step, or one strike."""

    event: int
    by: str
    at: Hashable
    made: TapeRow | Reading | None
    strike: Strike | None


@once
def undo_steps(facts: JobFacts) -> dict[str, UndoStep]:
    """Return for everybody who recorded something the step that Undo takes back next. House rule."""
    taken_in = facts.cards_chosen[0].chosen_at if facts.cards_chosen else None
    rows = {row.row: row for row in tape_of(facts)}
    done = sorted(_everything(facts, rows.values(), taken_in), key=lambda one: one.event, reverse=True)
    steps: dict[str, UndoStep] = {}
    for one in done:
        if one.by in steps or not _holds(facts, one):
            continue
        together = [other for other in done if (other.by, other.at) == (one.by, one.at)]
        steps[one.by] = _step(facts, rows, [other for other in together if _holds(facts, other)])
    return steps


def _everything(facts: JobFacts, rows: Iterable[TapeRow], taken_in: datetime | None) -> Iterable[_Done]:
    for row in rows:
        # A set goes with the reading that opened it.
        if row.kind not in (TapeKind.SET, *NEVER_STRUCK) and row.recorded_at != taken_in:
            yield _Done(row.event, row.recorded_by, row.recorded_at, row, None)
    for reading in facts.readings:
        at = ("alone", reading.event) if reading.recorded_at is None else reading.recorded_at
        if at != taken_in:
            yield _Done(reading.event, _recorded_by(facts, reading), at, reading, None)
    for strike in facts.strikes:
        if not strike.undoes and strike.made_at != taken_in:
            yield _Done(strike.event, strike.made_by, strike.made_at, None, strike)


def _recorded_by(facts: JobFacts, reading: Reading) -> str:
    """Who wrote a reading down: whoever opened its set in the same step, as an import does for what others took."""
    reading_set = facts.reading_set(reading.reading_set_id)
    return reading_set.opened_by if reading.recorded_at == reading_set.opened_at else reading.taken_by


def _holds(facts: JobFacts, one: _Done) -> bool:
    if one.strike is not None:
        row = one.strike.row
        return row is not None and facts.newest_strikes.get(row) is one.strike
    if isinstance(one.made, Reading):
        return one.made.reading_id not in facts.struck
    return one.made is not None and one.made.strike is None


def _step(facts: JobFacts, rows: dict[UUID | int, TapeRow], together: list[_Done]) -> UndoStep:
    made = [one.made if isinstance(one.made, TapeRow) else reading_row(facts, one.made) for one in together if one.made]
    strikes = [one.strike for one in together if one.strike is not None]
    struck = [_struck_row(facts, rows, strike) for strike in strikes]
    reversals = [Reversal(row.row, row.kind, True) for row in made]
    reversals += [Reversal(row.row, row.kind, False) for row, was in zip(struck, strikes, strict=True) if was.struck]
    reversals += [Reversal(row.row, row.kind, True) for row, was in zip(struck, strikes, strict=True) if not was.struck]
    restored = {one.row for one in reversals if not one.struck}
    reversals += [Reversal(one, TapeKind.SET, True) for one in _emptied_sets(facts, made, restored)]
    first = (made or struck)[0]
    everywhere = {row.where for row in (made or struck)}
    where = first.where if len(everywhere) == 1 else Whereabouts()
    return UndoStep(together[0].by, together[0].event, _words(made, struck, strikes, where), where, tuple(reversals))


def _struck_row(facts: JobFacts, rows: dict[UUID | int, TapeRow], strike: Strike) -> TapeRow:
    row = strike.row
    assert row is not None
    if row in rows:
        return rows[row]
    reading = facts.reading(row) if isinstance(row, UUID) else None
    assert reading is not None
    return reading_row(facts, reading)


def _emptied_sets(facts: JobFacts, made: list[TapeRow], restored: set[UUID | int]) -> list[int]:
    """Sets that hold nothing once these readings are struck: the one before is in force again."""
    going = {row.row for row in made if row.kind is TapeKind.READING}
    emptied = []
    for set_id in {reading.reading_set_id for row in going if (reading := _reading(facts, row)) is not None}:
        reading_set = facts.reading_set(set_id)
        comes_back = any(one.reading_id in restored for one in facts.readings_by_set[set_id])
        if not comes_back and all(one.reading_id in going for one in facts.standing_readings(reading_set)):
            emptied.append(reading_set.event)
    return sorted(emptied)


def _reading(facts: JobFacts, row: UUID | int) -> Reading | None:
    return facts.reading(row) if isinstance(row, UUID) else None


def _words(made: list[TapeRow], struck: list[TapeRow], strikes: list[Strike], where: Whereabouts) -> str:
    at = where_words(where)
    if made:
        what = made[0].words if len(made) == 1 else _counted(made)
        back = f", bringing back {_named(struck)}" if struck else ""
        return f"{at}: {what}{back}" if at else f"{what}{back}"
    verb = "the striking of" if strikes[0].struck else "the restoring of"
    return f"{verb} {_named(struck)}" + (f" at {at}" if at else "")


def _named(rows: list[TapeRow]) -> str:
    return rows[0].words if len(rows) == 1 else _counted(rows)


def _counted(rows: list[TapeRow]) -> str:
    kinds = list(dict.fromkeys(row.kind for row in rows))
    parts = []
    for kind in kinds:
        count = sum(row.kind is kind for row in rows)
        article = "an" if kind.value[0] in "aeiou" else "a"
        parts.append(f"{count} {kind.value}s" if count > 1 else f"{article} {kind.value}")
    return " and ".join(parts)
