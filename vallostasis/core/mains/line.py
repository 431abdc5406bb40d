"""The line of the main bores: how far each stands off the line through the two ends, upright and across.

References
----------
.. [1] Least squares of first order round the clock: a sweep from e beside the middle of a round wall reads e·cos θ
   (common practice).
.. [2] JCGM 102:2011, Supplement 2 to the GUM, 6.5: coverage of a length in two directions (extremes.amplitude_of).
.. [3] JCGM 100:2008 (GUM), 5.1.2: the line through the ends is a sum of what was read there.
"""

from dataclasses import dataclass
from math import atan2, degrees

import numpy as np

from vallostasis.core.features.parts import Part, parts_of
from vallostasis.core.operations.disturbances import disturbed_by
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.shapes.clock import hour_of_angle
from vallostasis.core.shapes.plane import different_positions, plane_weights
from vallostasis.core.surveys.places import PlaceRead, places_of, sets_of_part
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, stated, value_of, weighted
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, judge
from vallostasis.core.uncertainty.extremes import amplitude_of, direction_within

# Fewer than three bores lie on a line whatever they are.
FEWEST = 3


@dataclass(frozen=True, slots=True)
class Off:
    """Where the middle of one main bore stands: from the bar, upright and across. [m]"""

    upright: Estimate
    across: Estimate


@dataclass(frozen=True, slots=True)
class OffLine:
    """One main bore against the line through the ends. [m]

    ``upright`` is towards 12 h, ``across`` towards 3 h, ``off`` the length of both and ``hour`` its direction, None
    where scatter alone would show as much. ``moved`` is how far it went since it was read before the work,
    ``upright_was`` and ``across_was`` where it stood.
    """

    part: Part
    upright: Stated
    across: Stated
    off: Stated
    hour: float | None
    rule: RuleResult
    moved: Stated | None
    upright_was: Stated | None
    across_was: Stated | None


@dataclass(frozen=True, slots=True)
class MainLine:
    """The line of the mains: every bore of it, the worst, its state, and where bores still have to be swept."""

    rows: tuple[OffLine, ...]
    within_m: float | None
    missing: tuple[Part, ...]
    state: State
    says: Phrase

    @property
    def worst(self) -> OffLine | None:
        """The bore that stands farthest off. [m] Greatest of all."""
        return max(self.rows, key=lambda one: one.off.value_m, default=None)


def line_of(facts: JobFacts) -> MainLine:
    """Return the line of the main bores.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    MainLine
        Offsets from the line through the first and the last bore, bores evenly apart. [m]

    Notes
    -----
    First order of each sweep [1]_, less the line through the ends [3]_, length of both directions [2]_ of the module. A
    bar that sags or stands askew makes a straight line of its own and drops out.
    """
    parts = parts_of(facts, Quantity.MAIN_LINE)
    sheet = sheet_of(facts.card, Quantity.MAIN_LINE)
    within = None if sheet is None else sheet.greatest.metres
    if len(parts) < FEWEST:
        return MainLine((), within, (), State.NOT_MEASURED, Phrase("Two bores always lie in one line."))
    now = [_off(survey_of(facts, Quantity.MAIN_LINE, part).places) for part in parts]
    missing = tuple(part for part, one in zip(parts, now, strict=True) if one is None)
    if missing:
        words = (
            "Sweep main bore {n} from a bar through all of them, at 12, 3, 6 and 9 h: a size says nothing of the line."
        )
        number = int(missing[0].key.rpartition("-")[2])
        return MainLine((), within, missing, State.NOT_MEASURED, Phrase(words, (Term("n", number, "count"),)))
    k = facts.card.coverage_factor
    before = [_before(facts, part) for part in parts]
    line = [_from_ends([one for one in now if one is not None], at) for at in range(len(parts))]
    was = None
    if all(one is not None for one in before):
        was = [_from_ends([one for one in before if one is not None], at) for at in range(len(parts))]
    rows = tuple(
        _row(facts, part, one, None if was is None else was[at], within, k)
        for at, (part, one) in enumerate(zip(parts, line, strict=True))
    )
    doubtful = any(survey_of(facts, Quantity.MAIN_LINE, part).doubt for part in parts)
    state = State.CANNOT_TELL if doubtful else _state(rows, within)
    return MainLine(rows, within, (), state, _says(rows, within))


def _off(places: tuple[PlaceRead, ...]) -> Off | None:
    read = [(row.estimate, row.place.hour) for row in places if row.estimate is not None and row.place.hour is not None]
    # The clock runs from 12 h: upright is the cosine, across to 3 h the sine.
    angles = np.array([hour * 30.0 for _, hour in read])
    if different_positions(angles) < FEWEST:
        return None
    weights = plane_weights(angles)[0]
    upright, across = (
        weighted(zip((float(w) for w in row), (one for one, _ in read), strict=True)) for row in weights[1:3]
    )
    return Off(upright, across)


def _from_ends(found: list[Off], at: int) -> Off:
    share = at / (len(found) - 1)
    first, last = found[0], found[-1]

    def less(here: Estimate, one: Estimate, other: Estimate) -> Estimate:
        return weighted(((1.0, here), (share - 1.0, one), (-share, other)))

    return Off(less(found[at].upright, first.upright, last.upright), less(found[at].across, first.across, last.across))


def _before(facts: JobFacts, part: Part) -> Off | None:
    survey = survey_of(facts, Quantity.MAIN_LINE, part)
    sets = [
        one
        for one in sets_of_part(facts, Quantity.MAIN_LINE, part)
        if facts.standing_readings(one) and disturbed_by(facts, Quantity.MAIN_LINE, (), one) is not None
    ]
    return _off(places_of(facts, Quantity.MAIN_LINE, part, survey.pattern, sets[-1])) if sets else None


def _row(facts: JobFacts, part: Part, one: Off, was: Off | None, within_m: float | None, k: float) -> OffLine:
    off = amplitude_of("off line", (one.upright, one.across), 1.0, k)
    turned = direction_within((one.upright, one.across), k)
    hour = None
    if turned is not None:
        hour = hour_of_angle(degrees(atan2(value_of(one.across), value_of(one.upright))) + 90.0)
    moved = None
    if was is not None:
        parts = (difference_of(one.upright, was.upright), difference_of(one.across, was.across))
        moved = amplitude_of("moved", parts, 1.0, k)
    rule = judge(RuleKind.READING, part.title, off, (None, within_m), facts.card.acceptance)
    stood = (None, None) if was is None else (stated("upright", was.upright, k), stated("across", was.across, k))
    return OffLine(part, stated("upright", one.upright, k), stated("across", one.across, k), off, hour, rule, moved,
                   *stood)  # fmt: skip


def _state(rows: tuple[OffLine, ...], within_m: float | None) -> State:
    if within_m is None:
        return State.CANNOT_TELL
    states = {row.rule.decision.state for row in rows[1:-1]}
    return next((one for one in (State.OUT, State.CANNOT_TELL) if one in states), State.IN)


def _says(rows: tuple[OffLine, ...], within_m: float | None) -> Phrase:
    worst = max(rows[1:-1], key=lambda one: one.off.value_m)
    terms = (Term("n", int(worst.part.key.rpartition("-")[2]), "count"), Term("o", worst.off.value_m),
             Term("u", worst.off.expanded_m, "within"))  # fmt: skip
    if within_m is None:
        return Phrase("Main bore {n} stands {o} ±{u} off the line of the ends; the card does not say how much it may.",
                      terms)  # fmt: skip
    return Phrase("Main bore {n} stands {o} ±{u} off the line of the ends; {w} are allowed.",
                  (*terms, Term("w", within_m)))  # fmt: skip
