"""What was done to an engine when, and which results it left to be read again.

An operation done after a result that it disturbs, by its own time, makes that result to be read again. House rule.
"""

from collections import defaultdict
from dataclasses import dataclass
from datetime import datetime

from vallostasis.core.clamping.progress import tightenings_of
from vallostasis.core.notation.lengths import both_temperatures
from vallostasis.core.operations.catalogue import OPERATIONS, Disturbance, operation_of
from vallostasis.core.operations.drops_seen import cold_again_of, heated_for_drops
from vallostasis.core.records.clamping import Clamp
from vallostasis.core.records.honing import HoneAim, HoneMarkKind
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.route_marks import MarkKind, Operation
from vallostasis.core.records.rows import Quantity, ReadingSet

# Read while the block is warm, sizes and heights are those of another temperature: what is read cold counts.
WARM_READ = (Quantity.PROTRUSION, Quantity.LINER_BORE, Quantity.BLOCK_BORE, Quantity.MAIN_BORE)


@dataclass(frozen=True, slots=True)
class Doing:
    """An operation that was done: to which hole, or to the block where that is None, when and by whom."""

    operation: Operation
    hole: int | None
    at: datetime
    by: str

    @property
    def words(self) -> str:
        """Say what was done."""
        title = operation_of(self.operation).title
        where = "" if self.hole is None else f", hole {self.hole}"
        return f"{title[0].lower()}{title[1:]}{where}"


@once
def doings_of(facts: JobFacts) -> tuple[Doing, ...]:
    """Return everything that was done and stands, oldest first: cuts, fittings, passes, rounds, and marks."""
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    found = [
        Doing(Operation.CUT, numbers[cut.hole_id], cut.cut_at, cut.cut_by)
        for cut in facts.cuts
        if cut.cut_id not in facts.struck
    ]
    found += [
        Doing(Operation.FIT, numbers[one.hole_id], one.fitted_at, one.fitted_by)
        for one in facts.fittings
        if one.fitting_id not in facts.struck and not facts.came_with_engine(one)
    ]
    # A pass of the bar makes another bore of it, whether or not somebody marks the boring as done.
    found += [Doing(Operation.BORE, numbers[one.hole_id], one.passed_at, one.passed_by)
              for one in facts.standing(facts.boring_passes)]  # fmt: skip
    found += [Doing(Operation.CAPS, None, one.at, one.by)
              for one in tightenings_of(facts, Clamp.CAPS) if one.is_tight and one.at is not None]  # fmt: skip
    rounds = {one.round_id: one for one in facts.standing(facts.hone_rounds)}
    found += [
        Doing(Operation.HONE_BLOCK if begun.aim is HoneAim.SLEEVE else Operation.HONE, numbers[begun.hole_id],
              one.noted_at, one.noted_by)
        for one in facts.standing(facts.hone_marks)
        if one.kind is HoneMarkKind.STOPPED and (begun := rounds.get(one.round_id)) is not None
    ]  # fmt: skip
    found += [
        Doing(mark.operation, None if mark.hole_id is None else numbers[mark.hole_id], mark.done_at, mark.marked_by)
        for mark in facts.standing(facts.operation_marks)
        if mark.kind is MarkKind.DONE
    ]
    found += [Doing(Operation.HEAT, None, one.noted_at, one.noted_by) for one in heated_for_drops(facts)]
    cold = cold_again_of(facts)
    if cold is not None:
        found.append(Doing(Operation.SOAK, None, cold.noted_at, cold.noted_by))
    return tuple(sorted(found, key=lambda one: (one.at, one.operation, one.hole or 0, one.by)))


@once
def _disturbing(facts: JobFacts) -> dict[Quantity, list[tuple[Doing, Disturbance]]]:
    by_quantity: dict[Quantity, list[tuple[Doing, Disturbance]]] = defaultdict(list)
    for doing in doings_of(facts):
        for disturbance in OPERATIONS[doing.operation].disturbs:
            for quantity in disturbance.quantities:
                by_quantity[quantity].append((doing, disturbance))
    return by_quantity


def disturbed_by(facts: JobFacts, quantity: Quantity, holes: tuple[int, ...], reading_set: ReadingSet) -> Doing | None:
    """Say what was done to the block after a set was read, and made it to be read again; None where nothing was.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    quantity : Quantity
        What the set is of.
    holes : tuple of int
        The holes it belongs to; none where it belongs to the block.
    reading_set : ReadingSet
        The set. Its first standing reading decides: what was read in part before is no result of now.

    Returns
    -------
    Doing or None
        The newest one. House rule.
    """
    disturbing = _disturbing(facts).get(quantity, ())
    if not disturbing and not _was_heated(facts):
        return None
    readings = facts.standing_readings(reading_set)
    if not readings:
        return None
    first = min(reading.taken_at for reading in readings)
    load = facts.setup(reading_set.setup_id).load
    found = [
        doing
        for doing, how in disturbing
        if doing.at > first
        and not (how.spares and how.spares in load)
        and not (how.own_hole and doing.hole is not None and holes and doing.hole not in holes)
    ]
    warm = read_warm(facts, quantity, first)
    return max((*found, *(() if warm is None else (warm,))), key=lambda one: one.at, default=None)


def _was_heated(facts: JobFacts) -> bool:
    return any(one.operation is Operation.HEAT for one in doings_of(facts))


def read_warm(facts: JobFacts, quantity: Quantity, at: datetime) -> Doing | None:
    """Say by which heating a reading was taken warm; None where it was not, or the block had come down by then."""
    if quantity not in WARM_READ:
        return None
    heated = [one for one in doings_of(facts) if one.operation is Operation.HEAT and one.at <= at]
    if not heated:
        return None
    cooled = [one for one in doings_of(facts) if one.operation is Operation.SOAK and heated[-1].at <= one.at <= at]
    return None if cooled else heated[-1]


def why_disturbed(doing: Doing, quantity: Quantity) -> str:
    """Say in words why something has to be read again."""
    if doing.operation is Operation.HEAT and quantity in WARM_READ:
        return "read while the block was warm: read it again once it is down to the room"
    return f"{doing.words} since it was read: read it again"


def warmth_words(block_c: float, room_c: float) -> str:
    """Say how far a block is from the room. [°C]"""
    return f"the block is at {both_temperatures(block_c)}, the room at {both_temperatures(room_c)}"
