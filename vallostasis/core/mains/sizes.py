"""Each main bore in its directions: how it stands to both limits, and what the work has changed of it.

A main that is small takes the oil clearance, and is honed; one that is big has lost the crush of its shells, and no
hone brings metal back: half a thou of the one is not half a thou of the other. Common practice, no published source.

References
----------
.. [1] JCGM 100:2008 (GUM), F.1.2.3: what two readings of one gauge share cancels in their difference.
"""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.features.parts import Part, parts_of
from vallostasis.core.features.plan import pattern_of
from vallostasis.core.operations.catalogue import operation_of
from vallostasis.core.operations.disturbances import Doing, disturbed_by, doings_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, ReadingSet
from vallostasis.core.surveys.derived import DerivedKind, worst
from vallostasis.core.surveys.places import PlaceRead, places_of, sets_of_part
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Stated, difference_of, stated
from vallostasis.core.uncertainty.decision import RuleKind, State

UPRIGHT_DEG = 90.0


class Lies(StrEnum):
    """How a main bore stands to its limits."""

    IN = "in"
    SMALL = "small"
    BIG = "big"
    OUT_OF_ROUND = "out of round"
    CANNOT_TELL = "cannot tell"
    NOT_MEASURED = "not measured"
    READ_AGAIN = "read again"


@dataclass(frozen=True, slots=True)
class Direction:
    """One direction of a main bore: its size [m], before the work where it was read then, and what changed of it.

    ``axis_deg`` counts from the joint of the cap: 90 is upright.
    """

    axis_deg: float
    now: Stated | None
    before: Stated | None
    change: Stated | None

    @property
    def has_moved(self) -> bool:
        """Whether the work has moved it by more than the ± of the difference. House rule."""
        return self.change is not None and abs(self.change.value_m) > self.change.expanded_m


@dataclass(frozen=True, slots=True)
class MainNow:
    """One main bore now. [m]

    ``small_m`` is how far its tightest direction lies below the least, ``big_m`` the widest above the greatest; nought
    where they do not. ``between`` is what was done between both readings.
    """

    part: Part
    survey: Survey
    lies: Lies
    directions: tuple[Direction, ...]
    least_m: float | None
    greatest_m: float | None
    small_m: float
    big_m: float
    out_of_round: Stated | None
    between: tuple[Doing, ...]
    says: Phrase | None

    @property
    def tightest_m(self) -> float | None:
        """Its tightest direction, which is what it is read against. [m] Least of what was read."""
        return min((one.now.value_m for one in self.directions if one.now is not None), default=None)


def mains_of(facts: JobFacts) -> tuple[MainNow, ...]:
    """Return every main bore of a job, from the front. [m] As the module says."""
    return tuple(_main(facts, part) for part in parts_of(facts, Quantity.MAIN_BORE))


def _main(facts: JobFacts, part: Part) -> MainNow:
    survey, k = survey_of(facts, Quantity.MAIN_BORE, part), facts.card.coverage_factor
    before_set = _set_before(facts, part, survey.reading_set)
    before = {one.place.axis_deg: one for one in _places(facts, part, before_set) if one.estimate is not None}
    rows = []
    for row in survey.places:
        was = before.get(row.place.axis_deg)
        change = None
        if was is not None and was.estimate is not None and row.estimate is not None:
            change = stated("change", difference_of(row.estimate, was.estimate), k)
        rows.append(
            Direction(float(row.place.axis_deg or 0.0), row.stated, None if was is None else was.stated, change)
        )
    limits = next(((rule.least_m, rule.greatest_m) for rule in survey.rules if rule.quantity is not None), (None, None))
    read = [one.now.value_m for one in rows if one.now is not None]
    small = max(0.0, limits[0] - min(read)) if read and limits[0] is not None else 0.0
    big = max(0.0, max(read) - limits[1]) if read and limits[1] is not None else 0.0
    oval = worst(survey.derived, DerivedKind.OUT_OF_ROUND)
    lies = _lies(survey, small, big)
    between = _between(facts, before_set, survey.reading_set)
    return MainNow(part, survey, lies, tuple(rows), *limits, small, big, None if oval is None else oval.stated, between,
                   _says(lies, small, big, rows))  # fmt: skip


def _lies(survey: Survey, small_m: float, big_m: float) -> Lies:
    if survey.state is not State.OUT:
        return Lies(survey.state.value)
    out = [rule for rule in survey.rules if rule.decision.state is State.OUT]
    if any(rule.least_m is not None and rule.value_m < rule.least_m for rule in out) and small_m > 0:
        return Lies.SMALL
    readings = any(rule.kind is RuleKind.READING for rule in out)
    return Lies.BIG if big_m > 0 and readings else Lies.OUT_OF_ROUND


def _says(lies: Lies, small_m: float, big_m: float, rows: list[Direction]) -> Phrase | None:
    """Say what small or big means; the ± is that of the direction which is."""
    read = [one.now for one in rows if one.now is not None]
    if lies is Lies.SMALL:
        u = Term("u", min(read, key=lambda one: one.value_m).expanded_m, "within")
        return Phrase("{s} ±{u} below the low limit: the oil clearance is less by as much. A hone takes it out.",
                      (Term("s", small_m), u))  # fmt: skip
    if lies is Lies.BIG:
        u = Term("u", max(read, key=lambda one: one.value_m).expanded_m, "within")
        return Phrase("{b} ±{u} above the high limit: the shells have lost as much of their crush, and no hone brings "
                      "it back. The cap is cut first, or the block is agreed anew.", (Term("b", big_m), u))  # fmt: skip
    return None


def _set_before(facts: JobFacts, part: Part, now: ReadingSet | None) -> ReadingSet | None:
    """The newest set that something was done to the block after; where nothing is read now, the one before that."""
    disturbed = [one for one in sets_of_part(facts, Quantity.MAIN_BORE, part)
                 if facts.standing_readings(one) and disturbed_by(facts, Quantity.MAIN_BORE, (), one) is not None
                 and (now is None or one.event < now.event)]  # fmt: skip
    return disturbed[-1] if disturbed else None


def _places(facts: JobFacts, part: Part, reading_set: ReadingSet | None) -> tuple[PlaceRead, ...]:
    if reading_set is None:
        return ()
    return places_of(facts, Quantity.MAIN_BORE, part, pattern_of(facts.card, Quantity.MAIN_BORE)[0], reading_set)


def _between(facts: JobFacts, before: ReadingSet | None, now: ReadingSet | None) -> tuple[Doing, ...]:
    if before is None:
        return ()
    first = min(reading.taken_at for reading in facts.standing_readings(before))
    taken = [] if now is None else [reading.taken_at for reading in facts.standing_readings(now)]
    disturbing = [one for one in doings_of(facts) if one.at > first and (not taken or one.at <= min(taken))]
    return tuple(one for one in disturbing if _moves_mains(one))


def _moves_mains(doing: Doing) -> bool:
    return any(Quantity.MAIN_BORE in one.quantities for one in operation_of(doing.operation).disturbs)
