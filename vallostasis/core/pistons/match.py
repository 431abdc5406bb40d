"""A piston in its hole: clearance by sizes and by feeler, which have to agree; its mark; whether it may be called in.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2 and F.1.2.3: bore less skirt, and what the two methods are apart.
.. [2] ISO 14253-1: a clearance is in once limits and ± say so.
"""

from collections import Counter
from dataclasses import dataclass, replace

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.pistons.frozen import gap_by_growth, gaps_of, passed_by_name, running, why_not_frozen
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.piston_matches import PistonMatch
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, mean_of, stated, value_of
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, judge

# Axis across the pin, on which a skirt is largest and guided. [deg]
ACROSS_DEG = 90.0
# A piston that hangs free is touched by a blade on one side only. Common practice.
HANGS_FREE = "hanging free"


@dataclass(frozen=True, slots=True)
class Matched:
    """One hole and its piston. [m]

    ``by_sizes`` is bore less skirt, ``by_feeler`` what a blade found, None where either was not read; ``apart`` what
    they differ by. ``unfrozen`` says why the bore is not frozen yet.
    """

    hole: Hole
    bore: Stated | None
    skirt: Stated | None
    crown_less_m: float | None
    limits_m: tuple[float | None, float | None]
    by_sizes: RuleResult | None
    by_feeler: RuleResult | None
    method: str
    apart: Stated | None
    match: PistonMatch | None
    unfrozen: str
    passed: bool
    gaps: Survey | None
    state: State
    says: tuple[Phrase, ...]

    @property
    def agree(self) -> bool | None:
        """Whether both methods agree within their joint ±; None where one is missing. GUM 5.1.2 [1]_ of the module."""
        return None if self.apart is None else abs(self.apart.value_m) <= self.apart.expanded_m


def matches_of(facts: JobFacts) -> tuple[Matched, ...]:
    """Return the match sheet of a job, hole by hole. GUM 5.1.2 [1]_, ISO 14253-1 [2]_ of the module. [m]"""
    marks = Counter(one.mark.casefold() for hole in facts.holes if (one := match_of(facts, hole)) is not None)
    return tuple(_matched(facts, hole, marks) for hole in facts.holes)


def match_of(facts: JobFacts, hole: Hole) -> PistonMatch | None:
    """Return how the piston of a hole was marked last; None where nobody did. By its newest row."""
    found = [one for one in facts.standing(facts.piston_matches) if one.hole_id == hole.hole_id]
    return found[-1] if found else None


def _matched(facts: JobFacts, hole: Hole, marks: Counter[str]) -> Matched:
    bore, skirt = running(facts, hole), _survey(facts, Quantity.PISTON_SKIRT, hole)
    feeler = _survey(facts, Quantity.PISTON_CLEARANCE, hole)
    sheet = sheet_of(facts.card, Quantity.PISTON_CLEARANCE)
    limits = (None, None) if sheet is None else (sheet.least.metres, sheet.greatest.metres)
    k, acceptance = facts.card.coverage_factor, facts.card.acceptance
    found_bore = _across(bore)
    found_skirt = None if skirt is None or skirt.relative else _widest(skirt)
    sizes = feeler_rule = apart = None
    if found_bore is not None and found_skirt is not None:
        less = difference_of(found_bore, found_skirt)
        sizes = judge(RuleKind.READING, "bore less skirt", stated("bore less skirt", less, k), limits, acceptance)
    blade = None if feeler is None or feeler.disturbed is not None or not feeler.read else feeler.read[0].estimate
    if blade is not None:
        feeler_rule = judge(RuleKind.READING, "feeler", stated("feeler", blade, k), limits, acceptance)
    if blade is not None and found_bore is not None and found_skirt is not None:
        apart = stated("feeler against sizes", difference_of(blade, difference_of(found_bore, found_skirt)), k)
    setup = None if feeler is None or feeler.reading_set is None else facts.setup(feeler.reading_set.setup_id)
    method = "" if setup is None else setup.method
    match = match_of(facts, hole)
    gaps = gaps_of(facts, hole)
    crown = _survey(facts, Quantity.PISTON_CROWN, hole)
    crown_less = None
    if crown is not None and crown.form is not None and found_skirt is not None:
        crown_less = value_of(found_skirt) - crown.form.greatest_m
    one = Matched(hole, None if found_bore is None else stated("bore", found_bore, k),
                  None if found_skirt is None else stated("skirt", found_skirt, k), crown_less, limits, sizes,
                  feeler_rule, method, apart, match, why_not_frozen(facts, hole), passed_by_name(facts, hole), gaps,
                  State.NOT_MEASURED, ())  # fmt: skip
    return replace(one, state=_state(one, bore, marks), says=tuple(_says(facts, one, marks)))


def _survey(facts: JobFacts, quantity: Quantity, hole: Hole) -> Survey | None:
    part = part_with_key(facts, quantity, f"piston-{hole.number}")
    return None if part is None else survey_of(facts, quantity, part)


def _across(bore: Survey) -> Estimate | None:
    """Mean diameter across the block, where a piston is guided; of all axes where that one was not read. [m]"""
    if bore.relative or bore.disturbed is not None or not bore.estimates:
        return None
    across = [row.estimate for row in bore.read if row.place.axis_deg == ACROSS_DEG and row.estimate is not None]
    return mean_of(across or bore.estimates)


def _widest(skirt: Survey) -> Estimate | None:
    """The skirt where it is largest, across its pin; nothing where that was not read. [m]"""
    across = [row.estimate for row in skirt.read if row.place.axis_deg == ACROSS_DEG and row.estimate is not None]
    return max(across, key=value_of, default=None)


def _state(one: Matched, bore: Survey, marks: Counter[str]) -> State:
    """In once both methods are inside and agree, the part is marked and nothing more is taken off. House rule."""
    rules = [rule.decision.state for rule in (one.by_sizes, one.by_feeler) if rule is not None]
    if bore.disturbed is not None:
        return State.READ_AGAIN
    if State.OUT in rules:
        return State.OUT
    if one.by_sizes is None:
        return State.NOT_MEASURED
    twice = one.match is not None and marks[one.match.mark.casefold()] > 1
    if one.agree is False or State.CANNOT_TELL in rules or None in one.limits_m or twice or bore.doubt:
        return State.CANNOT_TELL
    return State.NOT_MEASURED if one.match is None or one.by_feeler is None else State.IN


def _says(facts: JobFacts, one: Matched, marks: Counter[str]) -> list[Phrase]:
    """What is to be known of a match. Common practice, no published source."""
    said = []
    if one.apart is not None and one.agree is False:
        off = abs(one.apart.value_m)
        less = one.apart.value_m < 0
        how = ("The piston was not against the other wall, or hung free: press it there and read again" if less
               else "Read bore and skirt again, and the blade without force")  # fmt: skip
        said.append(Phrase(f"The blade found {{o}} {'less' if less else 'more'} than bore less skirt, beyond ±{{U}}: a "
                           f"question, no average. {how}.",
                           (Term("o", off), Term("U", one.apart.expanded_m, "within"))))  # fmt: skip
    elif HANGS_FREE in one.method:
        said.append(Phrase("The blade stood beside a piston that hung free: it finds only part of the gap."))
    if one.match is not None and marks[one.match.mark.casefold()] > 1:
        said.append(Phrase(f"The mark {one.match.mark} stands on two pistons: a fitted piston stays with its hole."))
    if one.crown_less_m is not None and one.crown_less_m <= 0:
        said.append(Phrase("The crown is no smaller than the skirt, by {c}: it runs hotter and would seize.",
                           (Term("c", -one.crown_less_m),)))  # fmt: skip
    growth = gap_by_growth(facts, one.hole)
    if growth is not None:
        said.append(growth)
    return said
