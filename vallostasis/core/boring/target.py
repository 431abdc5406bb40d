"""The size of a bore from the piston that goes into it: never a round number, and nothing while nobody read the piston.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: piston as read, clearance as wanted.
.. [2] ISO 1: what is read while the block is warm, and clearances as it runs.
"""

from dataclasses import dataclass

from vallostasis.core.boring.clearances import REFERENCE_C, Warm, clearance_of, cold_clearance
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import LadderStep, sheet_of
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.set_budget import standing_temperatures
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.thermal.expansion import expansion_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, Stated, exactly, stated, value_of, weighted

# Axis across the pin, on which a skirt is largest. [deg]
ACROSS_DEG = 90.0
# A round size is named where the target lies this near to it. [m] House rule.
NEAR_ROUND_M = 0.15e-3


@dataclass(frozen=True, slots=True)
class RoundSize:
    """A step of the ladder near the target: what it would leave, and whether that is inside what is wanted. [m]"""

    step: LadderStep
    size_m: float
    leaves: Stated
    is_inside: bool


@dataclass(frozen=True, slots=True)
class BoreTarget:
    """What a bore is finished to at 20 °C, and bored to before the hone. [m], [°C]

    ``reads_large_m`` is by how much more a gauge true at 20 °C reads while the block is at ``work_c``; ``hot_m`` the
    clearance as it runs, ``runs_with_m`` what the card wants then, ``wanted`` the finished size before its ± is worked
    out.
    """

    hole: Hole
    piston: Stated
    wanted: Estimate
    clearance_m: float
    least_m: float | None
    greatest_m: float | None
    source: str
    finished: Stated
    hone_stock_m: float
    bored: Stated
    work_c: float | None
    reads_large_m: float | None
    bore_c: float
    piston_c: float
    hot_m: float
    runs_with_m: float | None
    near: RoundSize | None
    cautions: tuple[str, ...]


def target_of(
    facts: JobFacts, hole: Hole, bore_c: float | None = None, piston_c: float | None = None
) -> BoreTarget | Phrase:
    """Return the size that the piston of a hole asks for.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    bore_c, piston_c : float or None
        How warm both run, None as the card says; as cold as they are read where it says nothing. [°C]

    Returns
    -------
    BoreTarget or Phrase
        Why no size is named: the piston is measured, never guessed.

    Notes
    -----
    Skirt across the pin where it is largest, at 20 °C, plus the middle of the clearance that the card wants; where the
    card wants one as it runs, that decides: GUM 5.1.2 [1]_, ISO 1 [2]_ of the module. [m]
    """
    card = facts.card
    wanted, runs = sheet_of(card, Quantity.PISTON_CLEARANCE), card.bores.runs_with
    bore_runs, piston_runs = (REFERENCE_C if one is None else one
                              for one in (card.bores.bore_runs_c, card.bores.piston_runs_c))  # fmt: skip
    least = None if wanted is None else wanted.least.metres
    greatest = None if wanted is None else wanted.greatest.metres
    if wanted is None or least is None or greatest is None:
        return Phrase("The card says no clearance of the piston: write least and greatest on it, then a size follows.")
    clearance = (least + greatest) / 2
    part = part_with_key(facts, Quantity.PISTON_SKIRT, f"piston-{hole.number}")
    assert part is not None
    survey = survey_of(facts, Quantity.PISTON_SKIRT, part)
    across = [one.estimate for one in survey.read if one.place.axis_deg == ACROSS_DEG and one.estimate is not None]
    if not across or survey.relative:
        return _refused(facts, hole, clearance)
    piston = max(across, key=value_of)
    block, metal = (expansion_of(one, facts.materials) for one in (card.block_material, card.piston_material))
    window, source = (least, greatest), wanted.least.source
    if runs.metres is not None:
        clearance = cold_clearance(value_of(piston), runs.metres, (bore_runs, block), (piston_runs, metal))
        source = runs.source
        if not window[0] <= clearance <= window[1]:
            return _by_habit(runs.metres, clearance, window)
    bore_c, piston_c = (bore_runs if bore_c is None else bore_c), (piston_runs if piston_c is None else piston_c)
    k, stock = card.coverage_factor, card.bores.hone_stock.metres or 0.0
    size = weighted(((1.0, piston), (1.0, exactly(clearance))))
    finished = stated("finished bore", size, k)
    bored = stated("bored", weighted(((1.0, piston), (1.0, exactly(clearance - stock)))), k)
    warm = standing_temperatures(facts, "part", "")
    work_c = float(warm[-1].celsius) if warm else None
    hot = clearance_of(Warm(finished.value_m, REFERENCE_C, block), Warm(value_of(piston), REFERENCE_C, metal), bore_c,
                       piston_c)  # fmt: skip
    return BoreTarget(
        hole, stated("piston", piston, k), size, clearance, least, greatest, source, finished, stock,
        bored, work_c, None if work_c is None else finished.value_m * block * (work_c - REFERENCE_C), bore_c,
        piston_c, hot, runs.metres, _near(facts, finished, value_of(piston), window),
        _cautions(facts, survey, hot),
    )  # fmt: skip


def _by_habit(runs_m: float, cold_m: float, window: tuple[float, float]) -> Phrase:
    """By the habit of another kind of engine a piston that runs hot seizes: nobody bores to either. [m]"""
    return Phrase("As it runs, {r} asks for {c} cold, and the card allows {a} to {b}: one of the two is wrong for this "
                  "engine. Put it right on the card, then a size follows.",
                  (Term("r", runs_m), Term("c", cold_m), Term("a", window[0]), Term("b", window[1])))  # fmt: skip


def _refused(facts: JobFacts, hole: Hole, clearance_m: float) -> Phrase:
    """Say that nobody read the piston, with the sum that a round step would make of the one in the book. [m]"""
    card = facts.card
    start = f"Nobody measured piston {hole.number} across its skirt: no size is bored to before."
    sheet, bore = sheet_of(card, Quantity.PISTON_SKIRT), sheet_of(card, running_bore(card))
    drawn = None if sheet is None else sheet.nominal.metres
    nominal = None if bore is None else bore.nominal.metres
    if drawn is None or nominal is None or not card.bores.ladder:
        return Phrase(start)
    # A piston in the book that is larger than the bore is one of an oversize already.
    overs = [float(one.oversize.um) / 1e6 for one in card.bores.ladder]
    over = overs[0] if drawn < nominal else next((one for one in overs if nominal + one > drawn), overs[-1])
    book = drawn + over if drawn < nominal else drawn
    return Phrase(
        f"{start} The round {{r}} less a piston of the book, {{p}}, would leave {{c}} where {{w}} are wanted, if the "
        "piston were as in the book.",
        (Term("r", nominal + over, "size"), Term("p", book, "size"), Term("c", nominal + over - book),
         Term("w", clearance_m)),
    )  # fmt: skip


def _near(facts: JobFacts, finished: Stated, piston_m: float, window: tuple[float, float]) -> RoundSize | None:
    """The step of the ladder nearest to a target, where it lies near. [m] By definition of its clearance."""
    bore = sheet_of(facts.card, running_bore(facts.card))
    nominal = None if bore is None else bore.nominal.metres
    if nominal is None:
        return None
    sizes = [(nominal + float(step.oversize.um) / 1e6, step) for step in facts.card.bores.ladder]
    near = [(abs(size - finished.value_m), size, step) for size, step in sizes]
    if not near or min(near, key=lambda one: one[0])[0] > NEAR_ROUND_M:
        return None
    _, size, step = min(near, key=lambda one: one[0])
    leaves = Stated(size - piston_m, finished.budget)
    return RoundSize(step, size, leaves, window[0] <= leaves.value_m <= window[1])


def _cautions(facts: JobFacts, survey: Survey, hot_m: float) -> tuple[str, ...]:
    """What speaks against trusting the size as it stands. Common practice, no published source."""
    found = []
    if survey.doubt:
        found.append(f"The piston stands in doubt: {survey.doubt}.")
    if survey.disturbed is not None or survey.missing:
        found.append("The piston was not read everywhere, or not since something was done to it.")
    setup = None if survey.reading_set is None else facts.setup(survey.reading_set.setup_id)
    if setup is not None and "used" in setup.load:
        found.append("The piston is used: a skirt that has run may have collapsed.")
    if setup is not None and "collapsed" in setup.load:
        found.append("The skirt may have collapsed: another piston, or its own maker, decides.")
    if hot_m < 0:
        found.append("With bore and piston as warm as that it seizes: more clearance cold, or a look at both figures.")
    return tuple(found)
