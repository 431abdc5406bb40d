"""Every kind of fact a job is made of: whose it is, how it is named on the tape, and what a strike names it by.

One description each, from which loading, the job file, taking a job in, striking and the tape follow. A new kind is its
row type, a field of ``JobFacts``, its description here, and its table.
"""

from collections.abc import Callable
from dataclasses import dataclass, fields
from datetime import datetime
from enum import StrEnum
from typing import Any
from uuid import UUID

from vallostasis.core.features.pattern import place_words
from vallostasis.core.notation.lengths import both_size, both_temperatures
from vallostasis.core.notation.typed_lengths import as_entered
from vallostasis.core.operations.catalogue import operation_of
from vallostasis.core.records.block_plans import PlannedHole
from vallostasis.core.records.cards_chosen import CardChosen
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.notes import ReadingNote
from vallostasis.core.records.once import once
from vallostasis.core.records.preparation import Inspection, PrepKind, PrepStep
from vallostasis.core.records.route_marks import (
    ClockMark,
    Finding,
    HoldPass,
    OperationMark,
    SchoolChoice,
    Wait,
    WaitEnd,
    Waiver,
)
from vallostasis.core.records.rows import (
    Cut,
    FittedShim,
    Fitting,
    FittingOut,
    Hole,
    Liner,
    Quantity,
    Reading,
    ReadingSet,
    Setup,
    Stamp,
    Strike,
    Unreadable,
    ZeroCheck,
    ZeroCorrection,
    ZeroedOn,
)
from vallostasis.core.records.temperatures import Temperature


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
    CARD = "card"
    OPERATION = "operation"
    CLOCK = "clock"
    WAIT = "wait"
    WAIT_END = "wait ended"
    HOLD_POINT = "hold point"
    SCHOOL = "school"
    FINDING = "finding"
    WAIVER = "waiver"
    PREPARED = "prepared"
    INSPECTION = "inspection"
    PLAN = "plan of the block"


class Owner(StrEnum):
    """What of a job a row belongs to."""

    JOB = "job"
    HOLE = "hole"
    FITTING = "fitting"
    SET = "set"
    READING = "reading"


@dataclass(frozen=True, slots=True)
class Whereabouts:
    """What of the block something belongs to: a hole, a part by its key, or neither where it holds for the job."""

    hole: int | None = None
    part: str = ""


@dataclass(frozen=True, slots=True)
class OnTape:
    """How a row stands on the tape: its kind, its words (none where it is no line of its own) and where it belongs."""

    kind: TapeKind
    words: Callable[[JobFacts, Any], str]
    where: Callable[[JobFacts, Any], Whereabouts]


@dataclass(frozen=True, slots=True)
class FactKind:
    """One kind of fact: where its rows stand in ``JobFacts``, what they belong to, the name they are kept under.

    ``struck_by`` is the id by which a strike names a row; one without is named by its event.
    """

    rows: str
    row_type: type
    kept_as: str
    owner: Owner
    on_tape: OnTape | None = None
    struck_by: str = ""

    @property
    def who(self) -> str:
        """Which of its fields says who recorded a row; empty where none does. House rule: the one ending in _by."""
        return next((one.name for one in fields(self.row_type) if one.name.endswith("_by")), "")

    def row_of(self, fact: Any) -> UUID | int:  # noqa: ANN401
        """Return what a strike names a row by. House rule."""
        row: UUID | int = getattr(fact, self.struck_by or "event")
        return row

    def words_of(self, facts: JobFacts, fact: Any) -> str:  # noqa: ANN401
        """Return how a row is called on the tape; nothing where it is no line of it. House rule."""
        return "" if self.on_tape is None else self.on_tape.words(facts, fact)

    def recorded(self, fact: Any) -> tuple[datetime, str]:  # noqa: ANN401
        """Return when a row was recorded, and by whom. House rule: the time stands beside the name."""
        own_time = getattr(fact, "recorded_at", None)
        return own_time or getattr(fact, f"{self.who.removesuffix('_by')}_at"), getattr(fact, self.who)


def _job_wide(_facts: JobFacts, _fact: object) -> Whereabouts:
    return Whereabouts()


@once
def whereabouts_of_set(facts: JobFacts, reading_set: ReadingSet) -> Whereabouts:
    """Return what a set was read on: a fitting and a hole stand in a hole, a liner on the bench is a part."""
    return _where_read(facts, reading_set)


def _where_read(facts: JobFacts, fact: ReadingSet | Unreadable) -> Whereabouts:
    hole_id = fact.hole_id
    if fact.fitting_id is not None:
        hole_id = next(one.hole_id for one in facts.fittings if one.fitting_id == fact.fitting_id)
    if hole_id is not None:
        return _hole_with(facts, hole_id)
    if fact.liner_id is not None:
        return Whereabouts(part=f"liner-{facts.liner(fact.liner_id).mark}")
    return Whereabouts(part=fact.part)


def _hole_with(facts: JobFacts, hole_id: UUID) -> Whereabouts:
    number = next(hole.number for hole in facts.holes if hole.hole_id == hole_id)
    return Whereabouts(number, f"hole-{number}")


def _in_its_hole(facts: JobFacts, fact: Cut | Fitting | PlannedHole) -> Whereabouts:
    return _hole_with(facts, fact.hole_id)


def _where_it_was_fitted(facts: JobFacts, out: FittingOut) -> Whereabouts:
    return _in_its_hole(facts, next(one for one in facts.fittings if one.fitting_id == out.fitting_id))


def _where_its_set_was_read(facts: JobFacts, fact: Reading | ZeroCorrection) -> Whereabouts:
    return whereabouts_of_set(facts, facts.reading_set(fact.reading_set_id))


def _on_its_part(_facts: JobFacts, fact: Temperature | Stamp) -> Whereabouts:
    return _on_a_part(fact.part)


def _on_a_part(key: str) -> Whereabouts:
    """Where a part of that key lies: one named after a hole lies in it."""
    what, _, number = key.partition("-")
    return Whereabouts(int(number) if what in ("hole", "piston") and number.isdigit() else None, key)


def _where_its_reading_is(facts: JobFacts, note: ReadingNote) -> Whereabouts:
    if note.finding_id is not None:
        return _where_on_the_route(facts, next(one for one in facts.findings if one.finding_id == note.finding_id))
    reading = None if note.reading_id is None else facts.reading(note.reading_id)
    return Whereabouts() if reading is None else _where_its_set_was_read(facts, reading)


def _reading_words(facts: JobFacts, reading: Reading) -> str:
    quantity = facts.setup(facts.reading_set(reading.reading_set_id).setup_id).quantity
    what = "" if quantity is Quantity.PROTRUSION else quantity.value
    said = (what, place_words(reading.place), as_entered(reading.typed, reading.typed_unit))
    return " ".join(part for part in said if part)


def _cut_words(_facts: JobFacts, cut: Cut) -> str:
    return f"cut to {cut.typed}"


def _fitting_words(facts: JobFacts, fitting: Fitting) -> str:
    shims = " + ".join(shim.typed for shim in facts.shims_of(fitting.fitting_id))
    return f"{facts.liner(fitting.liner_id).mark} fitted" + (f" on {shims} shim" if shims else "")


def _drawn_words(facts: JobFacts, out: FittingOut) -> str:
    """A liner that came out for a cut or another liner is no line beside theirs."""
    if out.because_cut_id is not None or out.because_fitting_id is not None:
        return ""
    fitting = next(one for one in facts.fittings if one.fitting_id == out.fitting_id)
    return f"{facts.liner(fitting.liner_id).mark} drawn"


def _setup_words(facts: JobFacts, setup: Setup) -> str:
    """Say how something is read: with which gauge, zeroed on what, where, clamped how."""
    zero = "" if setup.zeroed_on is ZeroedOn.DATUM else f"zeroed on the {setup.zeroed_on.value} {setup.zero_typed}"
    how = (facts.newest_gauge(setup.gauge_id).name, zero, setup.land, setup.hold_down, setup.load, setup.method)
    return f"{setup.quantity.value} with {', '.join(part.strip() for part in how if part.strip())}"


def _set_words(facts: JobFacts, reading_set: ReadingSet) -> str:
    return f"set of {facts.setup(reading_set.setup_id).quantity.value} opened"


def _temperature_words(_facts: JobFacts, taken: Temperature) -> str:
    body = taken.part or {"part": "block"}.get(taken.body, taken.body)
    return f"{body} at {both_temperatures(float(taken.celsius))}"


def _look_words(facts: JobFacts, look: ZeroCheck) -> str:
    return f"zero of {facts.setup(look.setup_id).quantity.value} looked at: {look.typed}"


def _correction_words(facts: JobFacts, correction: ZeroCorrection) -> str:
    of = facts.setup(facts.reading_set(correction.reading_set_id).setup_id).quantity.value
    why = f": {correction.reason}" if correction.reason else ""
    return f"zero of {of} corrected by {as_entered(correction.typed, 'µm')}{why}"


def _unreadable_words(_facts: JobFacts, said: Unreadable) -> str:
    what = f"cannot be read: {said.reason}" if said.unreadable else "can be read again"
    return f"{said.quantity.value} {place_words(said.place)} {what}"


def _letters_words(_facts: JobFacts, stamp: Stamp) -> str:
    return f"letters {stamp.letters}" if stamp.letters else "letters taken off"


def _note_words(_facts: JobFacts, note: ReadingNote) -> str:
    return "note: " + (note.words or "a photo")


def _card_words(_facts: JobFacts, choice: CardChosen) -> str:
    return f"judged by {choice.name}, version {choice.version}" + (f": {choice.reason}" if choice.reason else "")


def _where_on_the_route(
    facts: JobFacts, fact: OperationMark | ClockMark | Wait | HoldPass | Finding | Inspection
) -> Whereabouts:
    return Whereabouts() if fact.hole_id is None else _hole_with(facts, fact.hole_id)


def _where_its_wait_is(facts: JobFacts, end: WaitEnd) -> Whereabouts:
    return _where_on_the_route(facts, next(one for one in facts.waits if one.wait_id == end.wait_id))


def _where_it_is_waived(_facts: JobFacts, waiver: Waiver) -> Whereabouts:
    return _on_a_part(waiver.part)


def _operation_words(_facts: JobFacts, mark: OperationMark) -> str:
    return _with(f"{operation_of(mark.operation).title}: {mark.kind.value}", mark.words)


def _clock_words(_facts: JobFacts, mark: ClockMark) -> str:
    return f"clock {'started' if mark.running else 'stopped'}: {operation_of(mark.operation).title}"


def _wait_words(_facts: JobFacts, wait: Wait) -> str:
    return f"{operation_of(wait.operation).title} waits for {wait.cause.value}: {wait.words}"


def _wait_end_words(facts: JobFacts, end: WaitEnd) -> str:
    wait = next(one for one in facts.waits if one.wait_id == end.wait_id)
    return _with(f"no longer waits for {wait.cause.value}: {wait.words}", end.words)


def _hold_words(_facts: JobFacts, passed: HoldPass) -> str:
    return f"hold point passed, {passed.hold.value}: {passed.reason}"


def _school_words(_facts: JobFacts, choice: SchoolChoice) -> str:
    return _with(f"school, {choice.question}: {choice.side}", choice.reason)


def _finding_words(_facts: JobFacts, finding: Finding) -> str:
    return _with(f"found, {finding.kind.value}: {finding.part} {finding.word} {finding.typed}".strip(), finding.words)


def _waiver_words(_facts: JobFacts, waiver: Waiver) -> str:
    return f"{waiver.quantity.value} {'is not read' if waiver.waived else 'is to be read after all'}: {waiver.reason}"


def _prepared_words(_facts: JobFacts, step: PrepStep) -> str:
    where = {PrepKind.SCRAPED: "with the", PrepKind.PLUGS_IN: "of the", PrepKind.PLUGS_OUT: "of the"}.get(step.kind, "")
    return _with(f"{step.count} {step.kind.value} {where} {step.place}".strip(), step.words)


def _planned_words(_facts: JobFacts, planned: PlannedHole) -> str:
    if planned.depth_um is None or planned.shim_um is None:
        return f"planned by “{planned.rule}”: left as it is"
    return f"planned by “{planned.rule}”: cut to {both_size(planned.depth_um)}, {both_size(planned.shim_um)} shim"


def _inspection_words(_facts: JobFacts, look: Inspection) -> str:
    return _with(f"{look.kind.value}: {look.outcome.value} {look.typed}".strip(), look.words)


def _with(said: str, more: str) -> str:
    return f"{said}, {more}" if more else said


# In the order in which rows refer to each other: what stands first needs nothing that stands later.
FACT_KINDS = (
    FactKind("cards_chosen", CardChosen, "job_card", Owner.JOB, OnTape(TapeKind.CARD, _card_words, _job_wide)),
    FactKind("holes", Hole, "hole", Owner.JOB),
    FactKind("liners", Liner, "liner", Owner.JOB),
    FactKind("fittings", Fitting, "fitting", Owner.HOLE, OnTape(TapeKind.FITTING, _fitting_words, _in_its_hole),
             struck_by="fitting_id"),
    FactKind("fitting_shims", FittedShim, "fitting_shim", Owner.FITTING),
    FactKind("cuts", Cut, "cut", Owner.HOLE, OnTape(TapeKind.CUT, _cut_words, _in_its_hole), struck_by="cut_id"),
    FactKind("fitting_outs", FittingOut, "fitting_out", Owner.FITTING,
             OnTape(TapeKind.DRAWN, _drawn_words, _where_it_was_fitted)),
    FactKind("setups", Setup, "setup", Owner.JOB, OnTape(TapeKind.SETUP, _setup_words, _job_wide)),
    FactKind("sets", ReadingSet, "reading_set", Owner.JOB, OnTape(TapeKind.SET, _set_words, whereabouts_of_set)),
    FactKind("readings", Reading, "reading", Owner.SET,
             OnTape(TapeKind.READING, _reading_words, _where_its_set_was_read), struck_by="reading_id"),
    FactKind("findings", Finding, "finding", Owner.JOB, OnTape(TapeKind.FINDING, _finding_words, _where_on_the_route)),
    FactKind("notes", ReadingNote, "reading_note", Owner.READING,
             OnTape(TapeKind.NOTE, _note_words, _where_its_reading_is), struck_by="note_id"),
    FactKind("temperatures", Temperature, "temperature", Owner.JOB,
             OnTape(TapeKind.TEMPERATURE, _temperature_words, _on_its_part), struck_by="temperature_id"),
    FactKind("strikes", Strike, "strike", Owner.JOB),
    FactKind("corrections", ZeroCorrection, "zero_correction", Owner.SET,
             OnTape(TapeKind.ZERO_CORRECTION, _correction_words, _where_its_set_was_read)),
    FactKind("zero_checks", ZeroCheck, "zero_check", Owner.JOB, OnTape(TapeKind.ZERO_LOOK, _look_words, _job_wide)),
    FactKind("stamps", Stamp, "stamp", Owner.JOB, OnTape(TapeKind.LETTERS, _letters_words, _on_its_part)),
    FactKind("unreadables", Unreadable, "unreadable", Owner.JOB,
             OnTape(TapeKind.UNREADABLE, _unreadable_words, _where_read)),
    FactKind("operation_marks", OperationMark, "operation_mark", Owner.JOB,
             OnTape(TapeKind.OPERATION, _operation_words, _where_on_the_route)),
    FactKind("clock_marks", ClockMark, "clock_mark", Owner.JOB,
             OnTape(TapeKind.CLOCK, _clock_words, _where_on_the_route)),
    FactKind("waits", Wait, "wait", Owner.JOB, OnTape(TapeKind.WAIT, _wait_words, _where_on_the_route)),
    FactKind("wait_ends", WaitEnd, "wait_end", Owner.JOB, 
             OnTape(TapeKind.WAIT_END, _wait_end_words, _where_its_wait_is)),
    FactKind("hold_passes", HoldPass, "hold_pass", Owner.JOB,
             OnTape(TapeKind.HOLD_POINT, _hold_words, _where_on_the_route)),
    FactKind("school_choices", SchoolChoice, "school_choice", Owner.JOB,
             OnTape(TapeKind.SCHOOL, _school_words, _job_wide)),
    FactKind("planned_holes", PlannedHole, "planned_hole", Owner.JOB,
             OnTape(TapeKind.PLAN, _planned_words, _in_its_hole)),
    FactKind("prep_steps", PrepStep, "prep_step", Owner.JOB,
             OnTape(TapeKind.PREPARED, _prepared_words, _job_wide)),
    FactKind("inspections", Inspection, "inspection", Owner.JOB,
             OnTape(TapeKind.INSPECTION, _inspection_words, _where_on_the_route)),
    FactKind("waivers", Waiver, "waiver", Owner.JOB, OnTape(TapeKind.WAIVER, _waiver_words, _where_it_is_waived)),
)  # fmt: skip

KIND_OF_ROWS = {kind.rows: kind for kind in FACT_KINDS}
READINGS = KIND_OF_ROWS["readings"]
# What a strike names by an id of its own; everything else on the tape is named by its event.
STRUCK_BY = {kind.on_tape.kind: kind.struck_by for kind in FACT_KINDS if kind.on_tape and kind.struck_by}
# Kinds whose rows carry an event number.
EVENTFUL = tuple(kind.rows for kind in FACT_KINDS if any(one.name == "event" for one in fields(kind.row_type)))


def newest_event(facts: JobFacts) -> int:
    """Return the number of the newest thing recorded; it grows with every change to the job. House rule."""
    return max((rows[-1].event for name in EVENTFUL if (rows := getattr(facts, name))), default=0)
