"""Liners left proud on purpose and decked after: how much comes off, and what is left of every flange.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2; the highest of several readings is the one scatter has lifted most:
   uncertainty.extremes.farthest_factor.
"""

from dataclasses import dataclass
from datetime import datetime

from vallostasis.core.features.parts import parts_of
from vallostasis.core.fits.fit import worst_state
from vallostasis.core.operations import schools
from vallostasis.core.operations.disturbances import doings_of
from vallostasis.core.operations.schools import side_of
from vallostasis.core.protrusion.measured import flange_part, protrusion_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.surveys.derived import DerivedKind, worst
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Stated, exactly, stated, value_of, weighted
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, judge
from vallostasis.core.uncertainty.extremes import farthest_factor


@dataclass(frozen=True, slots=True)
class LeftProud:
    """One liner before the deck is cut: how high it stands, whether that is what was wanted. [m]

    ``flange_left`` is what the cut leaves of its flange, None where nobody read the flange.
    """

    hole: Hole
    liner: str | None
    rules: tuple[RuleResult, ...]
    highest: Stated | None
    flange_left: RuleResult | None
    state: State
    reason: str


@dataclass(frozen=True, slots=True)
class Decking:
    """What decking takes: off the highest liner ``skim``, off the deck itself ``clean_up``. [m]

    ``out_of_flat`` is how far the deck is from flat, the worst of its faces, where it was read.
    """

    rows: tuple[LeftProud, ...]
    clean_up_m: float | None
    skim: Stated | None
    highest_hole: int | None
    out_of_flat: Stated | None
    decked_at: datetime | None
    says: tuple[Phrase, ...]


def is_left_proud(facts: JobFacts) -> bool:
    """Whether liners of this job are left proud and decked after. House rule: its school."""
    return side_of(facts, schools.HEIGHT) == schools.LEFT_PROUD


def decked_at(facts: JobFacts) -> datetime | None:
    """When the deck was cut last; None before. By its marks, house rule."""
    return max((one.at for one in doings_of(facts) if one.operation is Operation.DECK), default=None)


def decking_of(facts: JobFacts) -> Decking:
    """Plan the cut that brings liners and deck to one face.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    Decking
        Skim = height of the highest liner + what cleans the deck up. [m]

    Notes
    -----
    The cutter meets the highest liner first and goes on until the deck itself is clean: "a few off" is no figure.
    Common practice, no published source; ± of the highest of several by [1]_ of the module.
    """
    terms = facts.card.conversion
    clean_up = terms.clean_up.metres
    rows = tuple(_left_proud(facts, hole, clean_up) for hole in facts.holes)
    read = [(one, row.hole.number) for row in rows for one in protrusion_of(facts, row.hole).estimates]
    flat = _out_of_flat(facts)
    if not read:
        said = _planned(facts, clean_up)
        return Decking(rows, clean_up, None, None, flat, decked_at(facts), (said,))
    highest, number = max(read, key=lambda one: value_of(one[0]))
    factor = farthest_factor(len(read), facts.card.coverage_factor)
    top = stated("highest liner", highest, factor)
    if clean_up is None:
        words = "Hole {n} stands highest, {p} ±{u}: write on the card what cleans the deck up, then the cut is known."
        said = Phrase(words, (Term("n", number, "count"), Term("p", top.value_m), Term("u", top.expanded_m, "within")))
        return Decking(rows, None, None, number, flat, decked_at(facts), (said,))
    skim = stated("skim", weighted(((1.0, highest), (1.0, exactly(clean_up)))), factor)
    missing = [row.hole.number for row in rows if row.state is State.NOT_MEASURED]
    left = f" {_holes(missing)} not read yet: one of them may stand higher." if missing else ""
    said = Phrase(
        f"Feed down {{s}} ±{{u}} from the highest liner, hole {{n}}: {{p}} proud and {{c}} to clean the deck up.{left}",
        (Term("s", skim.value_m), Term("u", skim.expanded_m, "within"), Term("n", number, "count"),
         Term("p", top.value_m), Term("c", clean_up)),
    )  # fmt: skip
    hollow: tuple[Phrase, ...] = ()
    if flat is not None and flat.value_m > clean_up:
        words = "The deck is {f} ±{w} out of flat: {c} does not clean it up."
        hollow = (Phrase(words, (Term("f", flat.value_m), Term("w", flat.expanded_m, "within"), Term("c", clean_up))),)
    return Decking(rows, clean_up, skim, number, flat, decked_at(facts), (said, *hollow))


def _planned(facts: JobFacts, clean_up_m: float | None) -> Phrase:
    """What will come off liners that nobody read yet, if they stand as wanted."""
    least, greatest = (one.metres for one in (facts.card.conversion.proud_least, facts.card.conversion.proud_greatest))
    if least is None or greatest is None or clean_up_m is None:
        return Phrase("Nobody read how proud the liners stand: what comes off is a sum, never a few.")
    words = "Fitted {l} to {g} proud, {a} to {b} will come off, {c} of it to clean the deck up."
    return Phrase(words, (Term("l", least), Term("g", greatest), Term("a", least + clean_up_m),
                          Term("b", greatest + clean_up_m), Term("c", clean_up_m)))  # fmt: skip


def _out_of_flat(facts: JobFacts) -> Stated | None:
    if not facts.sets_of(Quantity.DECK_FLATNESS):
        return None
    surveys = [survey_of(facts, Quantity.DECK_FLATNESS, part) for part in parts_of(facts, Quantity.DECK_FLATNESS)]
    found = [one for survey in surveys if (one := worst(survey.derived, DerivedKind.FLATNESS)) is not None]
    return max((one.stated for one in found), key=lambda one: one.value_m, default=None)


def _left_proud(facts: JobFacts, hole: Hole, clean_up_m: float | None) -> LeftProud:
    card, terms = facts.card, facts.card.conversion
    fitting = facts.present_fitting(hole.hole_id)
    liner = None if fitting is None else facts.liner(fitting.liner_id)
    survey = protrusion_of(facts, hole)
    if liner is None or not survey.estimates:
        why = "no liner in it" if liner is None else "nobody read how proud it stands"
        return LeftProud(hole, None if liner is None else liner.mark, (), None, None, State.NOT_MEASURED, why)
    window = (terms.proud_least.metres, terms.proud_greatest.metres)
    values = [stated("proud", one, card.coverage_factor) for one in survey.estimates]
    ends = (min(values, key=lambda one: one.value_m), max(values, key=lambda one: one.value_m))
    rules = tuple(judge(RuleKind.READING, f"liner {liner.mark}", one, window, card.acceptance) for one in ends)
    flange = flange_part(facts, liner, card.measuring.land)
    left = None
    if flange is not None and clean_up_m is not None:
        # What the cut takes of a flange is how proud it stands there and what cleans up the deck beside it.
        thin = stated("flange left", weighted(((1.0, flange.estimate), (-1.0, survey.estimates[_at_most(values)]),
                                               (-1.0, exactly(clean_up_m)))), card.coverage_factor)  # fmt: skip
        left = judge(RuleKind.READING, f"liner {liner.mark}", thin, (terms.least_flange.metres, None), card.acceptance)
    if any(row.doubtful for row in survey.places):
        return LeftProud(hole, liner.mark, rules, ends[1], left, State.CANNOT_TELL, "a zero was found moved")
    if survey.missing:
        return LeftProud(hole, liner.mark, rules, ends[1], left, State.NOT_MEASURED,
                         "not read at every clock position")  # fmt: skip
    if window == (None, None):
        return LeftProud(hole, liner.mark, rules, ends[1], left, State.CANNOT_TELL, "the card says no window")
    states = [one.decision.state for one in rules]
    if left is not None and left.least_m is not None:
        states.append(left.decision.state)
    state = worst_state(states)
    return LeftProud(hole, liner.mark, rules, ends[1], left, state, _reason(state, rules, left))


def _at_most(values: list[Stated]) -> int:
    return max(range(len(values)), key=lambda at: values[at].value_m)


def _reason(state: State, rules: tuple[RuleResult, ...], left: RuleResult | None) -> str:
    if state is State.IN:
        return "proud as wanted all round"
    if left is not None and left.decision.state is state and all(one.decision.state is State.IN for one in rules):
        return "the cut leaves too little of its flange" if state is State.OUT else "what is left of its flange is open"
    if state is State.CANNOT_TELL:
        return "too near to its window to tell"
    low = rules[0].least_m is not None and rules[0].value_m < rules[0].least_m
    return "not proud enough: the deck would not clean up round it" if low else "stands higher than wanted"


def _holes(numbers: list[int]) -> str:
    named = ", ".join(str(one) for one in numbers)
    return f"Hole {named} is" if len(numbers) == 1 else f"Holes {named} are"
