"""Where of the block each kind of fact belongs."""

from dataclasses import dataclass
from typing import Protocol
from uuid import UUID

from vallostasis.core.records.block_plans import PlannedHole
from vallostasis.core.records.calendar import WaitMoved
from vallostasis.core.records.cut_runs import CutRun, RunMark, RunPass
from vallostasis.core.records.experiments import Experiment, ExperimentResult
from vallostasis.core.records.heat_runs import HeatMark, HeatRun
from vallostasis.core.records.honing import HoneMark, HoneRound
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.matchings import MatchedPlace
from vallostasis.core.records.notes import ReadingNote
from vallostasis.core.records.once import once
from vallostasis.core.records.piston_matches import PistonMatch
from vallostasis.core.records.preparation import Inspection
from vallostasis.core.records.prices import OptionChoice
from vallostasis.core.records.pulls import Pull, PullMark
from vallostasis.core.records.route_marks import (
    ClockMark,
    Finding,
    HoldPass,
    OperationMark,
    Wait,
    WaitEnd,
    Waiver,
)
from vallostasis.core.records.rows import (
    Cut,
    Fitting,
    FittingOut,
    Reading,
    ReadingSet,
    Stamp,
    Unreadable,
    ZeroCorrection,
)
from vallostasis.core.records.temperatures import Temperature


class OfHole(Protocol):
    """What belongs to one hole."""

    @property
    def hole_id(self) -> UUID:
        """The hole."""


@dataclass(frozen=True, slots=True)
class Whereabouts:
    """What of the block something belongs to: a hole, a part by its key, or neither where it holds for the job."""

    hole: int | None = None
    part: str = ""


def job_wide(_facts: JobFacts, _fact: object) -> Whereabouts:
    """Where it belongs."""
    return Whereabouts()


@once
def whereabouts_of_set(facts: JobFacts, reading_set: ReadingSet) -> Whereabouts:
    """Return what a set was read on: a fitting and a hole stand in a hole, a liner on the bench is a part."""
    return where_read(facts, reading_set)


def where_read(facts: JobFacts, fact: ReadingSet | Unreadable) -> Whereabouts:
    """Where it belongs."""
    hole_id = fact.hole_id
    if fact.fitting_id is not None:
        hole_id = next(one.hole_id for one in facts.fittings if one.fitting_id == fact.fitting_id)
    if hole_id is not None:
        return hole_with(facts, hole_id)
    if fact.liner_id is not None:
        return Whereabouts(part=f"liner-{facts.liner(fact.liner_id).mark}")
    return Whereabouts(part=fact.part)


def hole_with(facts: JobFacts, hole_id: UUID) -> Whereabouts:
    """Where it belongs."""
    number = next(hole.number for hole in facts.holes if hole.hole_id == hole_id)
    return Whereabouts(number, f"hole-{number}")


def in_its_hole(
    facts: JobFacts,
    fact: Cut | Fitting | PlannedHole | MatchedPlace | OptionChoice | CutRun | Pull | HeatRun | HoneRound | PistonMatch,
) -> Whereabouts:
    """Where it belongs."""
    return hole_with(facts, fact.hole_id)


def where_it_was_fitted(facts: JobFacts, out: FittingOut) -> Whereabouts:
    """Where it belongs."""
    return in_its_hole(facts, next(one for one in facts.fittings if one.fitting_id == out.fitting_id))


def where_its_set_was_read(facts: JobFacts, fact: Reading | ZeroCorrection) -> Whereabouts:
    """Where it belongs."""
    return whereabouts_of_set(facts, facts.reading_set(fact.reading_set_id))


def on_its_part(_facts: JobFacts, fact: Temperature | Stamp) -> Whereabouts:
    """Where it belongs."""
    return on_a_part(fact.part)


def on_a_part(key: str) -> Whereabouts:
    """Where a part of that key lies: one named after a hole lies in it."""
    what, _, number = key.partition("-")
    return Whereabouts(int(number) if what in ("hole", "piston") and number.isdigit() else None, key)


def where_its_reading_is(facts: JobFacts, note: ReadingNote) -> Whereabouts:
    """Where it belongs."""
    if note.finding_id is not None:
        return where_on_the_route(facts, next(one for one in facts.findings if one.finding_id == note.finding_id))
    reading = None if note.reading_id is None else facts.reading(note.reading_id)
    return Whereabouts() if reading is None else where_its_set_was_read(facts, reading)


def where_on_the_route(
    facts: JobFacts, fact: OperationMark | ClockMark | Wait | HoldPass | Finding | Inspection
) -> Whereabouts:
    """Where it belongs."""
    return Whereabouts() if fact.hole_id is None else hole_with(facts, fact.hole_id)


def where_its_wait_is(facts: JobFacts, end: WaitEnd) -> Whereabouts:
    """Where it belongs."""
    return where_on_the_route(facts, next(one for one in facts.waits if one.wait_id == end.wait_id))


def where_it_moves(facts: JobFacts, moved: WaitMoved) -> Whereabouts:
    """Where it belongs."""
    return where_on_the_route(facts, next(one for one in facts.waits if one.wait_id == moved.wait_id))


def where_it_was_tried(facts: JobFacts, one: Experiment) -> Whereabouts:
    """Where it belongs: in its hole where it was made at one."""
    hole = facts.hole_numbered(one.holes[0]) if len(one.holes) == 1 else None
    return Whereabouts() if hole is None else hole_with(facts, hole.hole_id)


def where_its_experiment_was(facts: JobFacts, result: ExperimentResult) -> Whereabouts:
    """Where it belongs."""
    return where_it_was_tried(facts, next(one for one in facts.experiments
                                          if one.experiment_id == result.experiment_id))  # fmt: skip


def where_it_is_waived(_facts: JobFacts, waiver: Waiver) -> Whereabouts:
    """Where it belongs."""
    return on_a_part(waiver.part)


def where_its_run_is(facts: JobFacts, fact: RunPass | RunMark) -> Whereabouts:
    """Where it belongs."""
    return in_its_hole(facts, next(one for one in facts.cut_runs if one.run_id == fact.run_id))


def where_its_round_is(facts: JobFacts, mark: HoneMark) -> Whereabouts:
    """Where it belongs."""
    return in_its_hole(facts, next(one for one in facts.hone_rounds if one.round_id == mark.round_id))


def where_its_pull_is(facts: JobFacts, mark: PullMark) -> Whereabouts:
    """Where it belongs."""
    return in_its_hole(facts, next(one for one in facts.pulls if one.pull_id == mark.pull_id))


def where_its_drop_is(facts: JobFacts, mark: HeatMark) -> Whereabouts:
    """Where it belongs."""
    return in_its_hole(facts, next(one for one in facts.heat_runs if one.heat_run_id == mark.heat_run_id))
