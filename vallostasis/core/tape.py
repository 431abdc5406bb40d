"""The tape of a job: everything recorded about it, in the order recorded, each thing with where it belongs."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from uuid import UUID

from vallostasis.core.job_facts import JobFacts, once
from vallostasis.core.lengths import both_temperatures
from vallostasis.core.measuring.pattern import place_words
from vallostasis.core.notation import as_entered
from vallostasis.core.records import Cut, Fitting, Quantity, Reading, ReadingSet, Setup, Strike, ZeroedOn


class TapeKind(StrEnum):
    """What stands on the tape."""

    READING = "reading"
    CUT = "cut"
    FITTING = "fitting"
    NOTE = "note"
    SETUP = "set-up"
    SET = "set"
    ZERO_LOOK = "zero look"
    ZERO_CORRECTION = "zero correction"
    TEMPERATURE = "temperature"
    UNREADABLE = "cannot be read"
    LETTERS = "letters"
    DRAWN = "liner drawn"
    STAGE = "stage"
    CARD = "card"


@dataclass(frozen=True, slots=True)
class Whereabouts:
    """What of the block something belongs to: a hole, a part by its key, or neither where it holds for the job."""

    hole: int | None = None
    part: str = ""


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
    rows = (*_cuts_and_fittings(facts), *_circumstances(facts), *_zeros(facts), *_said(facts), *_job_wide(facts))
    return tuple(sorted(rows, key=lambda row: row.event))


def reading_row(facts: JobFacts, reading: Reading) -> TapeRow:
    """Return a reading as it stands on the tape."""
    reading_set = facts.reading_set(reading.reading_set_id)
    quantity = facts.setup(reading_set.setup_id).quantity
    what = "" if quantity is Quantity.PROTRUSION else quantity.value
    words = " ".join(
        part for part in (what, place_words(reading.place), as_entered(reading.typed, reading.typed_unit)) if part
    )
    return TapeRow(reading.event, reading.reading_id, TapeKind.READING, whereabouts_of_set(facts, reading_set), words,
                   reading.recorded_at or reading.taken_at, reading.taken_by,
                   facts.struck.get(reading.reading_id))  # fmt: skip


@once
def whereabouts_of_set(facts: JobFacts, reading_set: ReadingSet) -> Whereabouts:
    """Return what a set was read on: a fitting and a hole stand in a hole, a liner on the bench is a part."""
    return _whereabouts(facts, reading_set.fitting_id, reading_set.hole_id, reading_set.liner_id, reading_set.part)


def _whereabouts(
    facts: JobFacts, fitting_id: UUID | None, hole_id: UUID | None, liner_id: UUID | None, part: str
) -> Whereabouts:
    if fitting_id is not None:
        hole_id = next(one.hole_id for one in facts.fittings if one.fitting_id == fitting_id)
    if hole_id is not None:
        number = next(hole.number for hole in facts.holes if hole.hole_id == hole_id)
        return Whereabouts(number, f"hole-{number}")
    if liner_id is not None:
        return Whereabouts(part=f"liner-{facts.liner(liner_id).mark}")
    return Whereabouts(part=part)


def _cuts_and_fittings(facts: JobFacts) -> Iterator[TapeRow]:
    def row(one: Cut | Fitting, row_id: UUID, kind: TapeKind, words: str, at: datetime, by: str) -> TapeRow:
        where = _whereabouts(facts, None, one.hole_id, None, "")
        return TapeRow(one.event, row_id, kind, where, words, at, by, facts.struck.get(row_id))

    for cut in facts.cuts:
        yield row(cut, cut.cut_id, TapeKind.CUT, f"cut to {cut.typed}", cut.cut_at, cut.cut_by)
    for fitting in facts.fittings:
        shims = " + ".join(shim.typed for shim in facts.shims_of(fitting.fitting_id))
        words = f"{facts.liner(fitting.liner_id).mark} fitted" + (f" on {shims} shim" if shims else "")
        yield row(fitting, fitting.fitting_id, TapeKind.FITTING, words, fitting.fitted_at, fitting.fitted_by)
    for out in facts.fitting_outs:
        if out.because_cut_id is None and out.because_fitting_id is None:
            mark = facts.liner(next(one.liner_id for one in facts.fittings if one.fitting_id == out.fitting_id)).mark
            yield _by_event(facts, TapeKind.DRAWN, out.event, _whereabouts(facts, out.fitting_id, None, None, ""),
                            f"{mark} drawn", out.out_at, out.out_by)  # fmt: skip


def _by_event(
    facts: JobFacts, kind: TapeKind, event: int, where: Whereabouts, words: str, at: datetime, by: str
) -> TapeRow:
    return TapeRow(event, event, kind, where, words, at, by, facts.struck_events.get(event))


def _circumstances(facts: JobFacts) -> Iterator[TapeRow]:
    for setup in facts.setups:
        yield _by_event(facts, TapeKind.SETUP, setup.event, Whereabouts(), setup_words(facts, setup), setup.chosen_at,
                        setup.chosen_by)  # fmt: skip
    for one in facts.sets:
        where, quantity = whereabouts_of_set(facts, one), facts.setup(one.setup_id).quantity
        yield _by_event(facts, TapeKind.SET, one.event, where, f"set of {quantity.value} opened", one.opened_at,
                        one.opened_by)  # fmt: skip
    for taken in facts.temperatures:
        body = taken.part or {"part": "block"}.get(taken.body, taken.body)
        words, strike = f"{body} at {both_temperatures(float(taken.celsius))}", facts.struck.get(taken.temperature_id)
        yield TapeRow(taken.event, taken.temperature_id, TapeKind.TEMPERATURE, _of_key(taken.part), words,
                      taken.taken_at, taken.taken_by, strike)  # fmt: skip


def setup_words(facts: JobFacts, setup: Setup) -> str:
    """Say how something is read: with which gauge, zeroed on what, where, clamped how."""
    zero = "" if setup.zeroed_on is ZeroedOn.DATUM else f"zeroed on the {setup.zeroed_on.value} {setup.zero_typed}"
    how = (facts.newest_gauge(setup.gauge_id).name, zero, setup.land, setup.hold_down, setup.load, setup.method)
    return f"{setup.quantity.value} with {', '.join(part.strip() for part in how if part.strip())}"


def _zeros(facts: JobFacts) -> Iterator[TapeRow]:
    for look in facts.zero_checks:
        of = facts.setup(look.setup_id).quantity.value
        words = f"zero of {of} looked at: {look.typed}"
        yield _by_event(facts, TapeKind.ZERO_LOOK, look.event, Whereabouts(), words, look.checked_at, look.checked_by)
    for one in facts.corrections:
        reading_set = facts.reading_set(one.reading_set_id)
        of = facts.setup(reading_set.setup_id).quantity.value
        words = f"zero of {of} corrected by {as_entered(one.typed, 'µm')}" + (f": {one.reason}" if one.reason else "")
        yield _by_event(facts, TapeKind.ZERO_CORRECTION, one.event, whereabouts_of_set(facts, reading_set), words,
                        one.made_at, one.made_by)  # fmt: skip


def _said(facts: JobFacts) -> Iterator[TapeRow]:
    for one in facts.unreadables:
        place = place_words(one.place)
        words = f"{one.quantity.value} {place} " + (
            f"cannot be read: {one.reason}" if one.unreadable else "can be read again"
        )
        where = _whereabouts(facts, one.fitting_id, one.hole_id, one.liner_id, one.part)
        yield _by_event(facts, TapeKind.UNREADABLE, one.event, where, words, one.made_at, one.made_by)
    for stamp in facts.stamps:
        words = f"letters {stamp.letters}" if stamp.letters else "letters taken off"
        yield _by_event(facts, TapeKind.LETTERS, stamp.event, _of_key(stamp.part), words, stamp.made_at, stamp.made_by)
    for note in facts.notes:
        reading = facts.reading(note.reading_id)
        where = Whereabouts() if reading is None else reading_row(facts, reading).where
        words = "note: " + (note.words or "a photo")
        yield TapeRow(note.event, note.note_id, TapeKind.NOTE, where, words, note.made_at, note.made_by,
                      facts.struck.get(note.note_id))  # fmt: skip


def _job_wide(facts: JobFacts) -> Iterator[TapeRow]:
    names = {stage.stage_id: stage.name for stage in facts.stages}
    for mark in facts.stage_marks:
        words = f"{names[mark.stage_id]} {'done' if mark.done else 'open again'}"
        yield _by_event(facts, TapeKind.STAGE, mark.event, Whereabouts(), words, mark.marked_at, mark.marked_by)
    for choice in facts.cards_chosen:
        words = f"judged by {choice.name}, version {choice.version}" + (f": {choice.reason}" if choice.reason else "")
        yield _by_event(facts, TapeKind.CARD, choice.event, Whereabouts(), words, choice.chosen_at, choice.chosen_by)


def _of_key(key: str) -> Whereabouts:
    """Where a part of that key lies: one named after a hole lies in it."""
    what, _, number = key.partition("-")
    return Whereabouts(int(number) if what in ("hole", "piston") and number.isdigit() else None, key)


def where_words(where: Whereabouts) -> str:
    """Name a place of the block the way the shop does; empty for what holds for the job."""
    if where.hole is not None and where.part in ("", f"hole-{where.hole}"):
        return f"hole {where.hole}"
    return where.part.replace("-", " ", 1)
