"""The tape of a job: striking and restoring anything on it, and taking back the newest step of a person."""

from typing import Any
from uuid import UUID

from vallostasis.core.gauges.zero_checks import drift_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.tape.fact_kinds import NEVER_STRUCK, STRUCK_BY, TapeKind
from vallostasis.core.tape.tape import TapeRow, reading_row, tape_of
from vallostasis.core.tape.undo import Reversal, UndoStep, undo_steps
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import people
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_facts import NewStrike
from vallostasis.store.rows import Conn, NotFound

BUILDS_ON = (TapeKind.CUT, TapeKind.FITTING, TapeKind.DRAWN)


def strike(conn: Conn, job_id: UUID, event: int, struck: bool, reason: str, by: UUID) -> None:
    """Strike out or restore what was recorded with that event; nothing is ever erased."""
    facts = lock_job_facts(conn, job_id)
    row = _row_of(facts, event)
    if (row.strike is not None) is struck:
        raise Refused("It is struck already." if struck else "It is not struck.", "struck")
    _reverse(conn, facts, (Reversal(row.row, row.kind, struck),), reason, by, undoes=False)


def undo(conn: Conn, job_id: UUID, event: int, by: UUID) -> UndoStep:
    """Take back the newest step of a person, if it still is the one that was named; return what it was."""
    facts = lock_job_facts(conn, job_id)
    name = people.get_person(conn, by).name
    step = undo_steps(facts).get(name)
    if step is None:
        raise Refused(f"Nothing that {name} recorded is left to undo.", "event")
    if step.event != event:
        raise Refused(f"Meanwhile something else was recorded last: {step.words}. Undo that?", "event",
                      RefusalCode.STALE)  # fmt: skip
    _reverse(conn, facts, step.reversals, "undone", by, undoes=True)
    return step


def _row_of(facts: JobFacts, event: int) -> TapeRow:
    for reading in facts.readings:
        if reading.event == event:
            return reading_row(facts, reading)
    for row in tape_of(facts):
        if row.event == event:
            return row
    raise NotFound("anything recorded with the number", event)


def _reverse(
    conn: Conn, facts: JobFacts, reversals: tuple[Reversal, ...], reason: str, by: UUID, *, undoes: bool
) -> None:
    for one in reversals:
        _refuse_where_others_rest_on_it(facts, one)
        named: dict[str, Any] = {STRUCK_BY.get(one.kind, "of_event"): one.row}
        record_fact(conn, NewStrike(facts.job.job_id, one.struck, reason, undoes=undoes, **named), by)
    if any(one.kind in BUILDS_ON for one in reversals):
        _no_liner_twice(load_job_facts(conn, facts.job.job_id))


def _refuse_where_others_rest_on_it(facts: JobFacts, reversal: Reversal) -> None:
    kind, row = reversal.kind, reversal.row
    if kind in NEVER_STRUCK:
        raise Refused("That happened, and stays on record: it cannot be struck.", "event")
    if kind in BUILDS_ON and isinstance(row, UUID):
        _only_the_newest(facts, row)
    elif kind is TapeKind.DRAWN and reversal.struck:
        _its_hole_is_open(facts, row)
    elif kind is TapeKind.READING and not reversal.struck:
        _its_set_is_open(facts, row)
    elif kind is TapeKind.CARD and row == facts.cards_chosen[0].event:
        raise Refused("A job is always judged by a card: choose another on the job's card page.", "event")
    elif kind is TapeKind.ZERO_LOOK and reversal.struck:
        _nothing_rests_on_it(facts, row)


def _its_hole_is_open(facts: JobFacts, row: UUID | int) -> None:
    """A liner goes back where it was drawn from as long as nothing else went in there."""
    out = next(one for one in facts.fitting_outs if one.event == row)
    hole_id = next(one.hole_id for one in facts.fittings if one.fitting_id == out.fitting_id)
    if facts.present_fitting(hole_id) is not None:
        number = next(hole.number for hole in facts.holes if hole.hole_id == hole_id)
        raise Refused(f"Another liner was fitted into hole {number} since: strike that first.", "event")


def _its_set_is_open(facts: JobFacts, row: UUID | int) -> None:
    reading = next(one for one in facts.readings if one.reading_id == row)
    if facts.reading_set(reading.reading_set_id).event in facts.struck_events:
        raise Refused("Its set was closed: open that set again on the tape, and its readings are back.", "event")


def _nothing_rests_on_it(facts: JobFacts, row: UUID | int) -> None:
    for one in facts.standing_corrections:
        found = drift_of(facts, one)
        if found is not None and found[0].event == row:
            raise Refused("Readings were corrected by that look: strike the zero correction first.", "event")


def _only_the_newest(facts: JobFacts, row_id: UUID) -> None:
    """Cuts and fittings of a hole build on each other: only the last one standing can be taken back."""
    for hole in facts.holes:
        rows = [(cut.event, cut.cut_id) for cut in facts.cuts if cut.hole_id == hole.hole_id]
        rows += [(f.event, f.fitting_id) for f in facts.fittings if f.hole_id == hole.hole_id]
        if row_id not in [row for _, row in rows]:
            continue
        later = [row for event, row in rows if event > dict((r, e) for e, r in rows)[row_id]]
        if any(row not in facts.struck for row in later):
            raise Refused(f"Something was recorded for hole {hole.number} after it: strike that first.", "event")


def _no_liner_twice(facts: JobFacts) -> None:
    seen: dict[UUID, int] = {}
    for hole in facts.holes:
        fitting = facts.present_fitting(hole.hole_id)
        if fitting is None:
            continue
        if fitting.liner_id in seen:
            mark = facts.liner(fitting.liner_id).mark
            raise Refused(
                f"That would put {mark} into holes {seen[fitting.liner_id]} and {hole.number} at once: "
                "take it out of the other hole first.",
                "event",
            )
        seen[fitting.liner_id] = hole.number
