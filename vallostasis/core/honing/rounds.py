"""The rounds of a job as they were made, what each took by the readings before and after it, and what that teaches.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: the mean of places that were read both times.
"""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.bores.wall import part_of_bore
from vallostasis.core.features.plan import pattern_of
from vallostasis.core.honing.rate import Rate, rate_of
from vallostasis.core.records.honing import HoneAim, HoneMark, HoneMarkKind, HoneMethod, HoneRound
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Place, Quantity
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.places import places_of, sets_of_part
from vallostasis.core.uncertainty.budget import Estimate, difference_of, mean_of, stated, value_of

_NEVER = 1 << 62


@dataclass(frozen=True, slots=True)
class RoundMade:
    """One round that stands. [m]

    ``stopped`` is None while it turns. ``before_m`` and ``after_m`` are mean diameters of the places that were read
    both before and after it, None where they were not; ``noise_m`` is how far their difference repeats.
    """

    begun: HoneRound
    stopped: HoneMark | None
    before_m: float | None
    after_m: float | None
    noise_m: float = 0.0

    @property
    def strokes(self) -> int | None:
        """Its double strokes; None while it turns."""
        return None if self.stopped is None else self.stopped.strokes

    @property
    def taken_m(self) -> float | None:
        """What it took on the diameter. [m] By definition."""
        return None if self.before_m is None or self.after_m is None else self.after_m - self.before_m


def bore_of(facts: JobFacts, aim: HoneAim) -> Quantity:
    """Return which bore is honed: the block's to a sleeve, else the one a piston runs in. By construction."""
    return Quantity.BLOCK_BORE if aim is HoneAim.SLEEVE else running_bore(facts.card)


@once
def rounds_of(facts: JobFacts, hole: Hole, aim: HoneAim) -> tuple[RoundMade, ...]:
    """Return the rounds of a hole, oldest first. GUM 5.1.2 [1]_ of the module. [m]"""
    begun = [one for one in facts.standing(facts.hone_rounds) if one.hole_id == hole.hole_id and one.aim is aim]
    stops = {one.round_id: one for one in facts.standing(facts.hone_marks) if one.kind is HoneMarkKind.STOPPED}
    read = sets_read(facts, hole, bore_of(facts, aim))
    found = []
    for at, one in enumerate(begun):
        stopped = stops.get(one.round_id)
        since = 0 if at == 0 else _end(begun[at - 1], stops)
        until = begun[at + 1].event if at + 1 < len(begun) else _NEVER
        before = _newest(read, since, one.event)
        after = {} if stopped is None else _newest(read, stopped.event, until)
        both = sorted(before.keys() & after.keys(), key=str)
        if not both:
            found.append(RoundMade(one, stopped, None, None))
            continue
        was, now = (mean_of([sizes[place] for place in both]) for sizes in (before, after))
        noise = stated("taken", difference_of(now, was)).budget.part_m(shared=False)
        found.append(RoundMade(one, stopped, value_of(was), value_of(now), noise))
    return tuple(found)


def _end(begun: HoneRound, stops: dict[UUID, HoneMark]) -> int:
    stopped = stops.get(begun.round_id)
    return begun.event if stopped is None else stopped.event


@once
def sets_read(facts: JobFacts, hole: Hole, quantity: Quantity) -> list[tuple[int, dict[Place, Estimate]]]:
    """Return sizes of every set of a bore, with the event of its newest reading, oldest first. [m] GUM 5.1.2."""
    part, (pattern, _) = part_of_bore(facts, hole, quantity), pattern_of(facts.card, quantity)
    found = []
    for reading_set in sets_of_part(facts, quantity, part):
        places = places_of(facts, quantity, part, pattern, reading_set)
        sizes = {one.place: one.estimate for one in places if one.estimate is not None}
        if sizes:
            found.append((max(row.event for one in places for row in one.readings), sizes))
    return found


def _newest(read: list[tuple[int, dict[Place, Estimate]]], since: int, until: int) -> dict[Place, Estimate]:
    """The newest set between two events."""
    return next((sizes for event, sizes in reversed(read) if since < event < until), {})


def open_round(facts: JobFacts, hole: Hole, aim: HoneAim) -> RoundMade | None:
    """Return the round that turns in a hole; None where none does. House rule: one at a time."""
    made = rounds_of(facts, hole, aim)
    return made[-1] if made and made[-1].stopped is None else None


def learned_rate(facts: JobFacts, aim: HoneAim, grit: int, method: HoneMethod) -> Rate | None:
    """Return what a stroke takes, learned from every hole of the job with the same stones, wet or dry as asked.

    Material and size of the bores of one job are the same. None where no round was read before and after. [m]
    Student's t of `rate`.
    """
    made = [
        one
        for hole in facts.holes
        for one in rounds_of(facts, hole, aim)
        if one.begun.grit == grit and one.begun.method is method and one.taken_m is not None and one.strokes
    ]
    made.sort(key=lambda one: one.begun.event)
    return rate_of([one.taken_m or 0.0 for one in made], [float(one.strokes or 0) for one in made],
                   [one.noise_m for one in made])  # fmt: skip
