"""What a bore is honed to: its measured piston and clearance, or its measured sleeve and the press that is wanted.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: the part as it was read, clearance or press as wanted.
"""

from dataclasses import dataclass

from vallostasis.core.boring.target import BoreTarget, target_of
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.fit import shown_liners
from vallostasis.core.fits.wanted import wanted_of
from vallostasis.core.records.honing import HoneAim
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, Stated, exactly, mean_of, stated, weighted


@dataclass(frozen=True, slots=True)
class HoneTarget:
    """The size that a bore is honed to at 20 °C. [m]

    ``part`` is the piston or the outside of the sleeve, ``more_m`` what the bore has more than it: a clearance, or a
    press with its sign. ``limits_m`` are the least and the greatest that may be left to the aim: below the least it is
    too large. ``piston`` is the whole target where a piston runs in it.
    """

    aim: HoneAim
    quantity: Quantity
    part_name: str
    part: Stated
    more_m: float
    wanted: Estimate
    finished: Stated
    limits_m: tuple[float, float]
    source: str
    piston: BoreTarget | None


def hone_target(facts: JobFacts, hole: Hole, aim: HoneAim) -> HoneTarget | Phrase:
    """Return what a hole is honed to.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    aim : HoneAim
        A piston that runs in it, or a sleeve that is pressed into it.

    Returns
    -------
    HoneTarget or Phrase
        Why there is none: the part is measured, never guessed. GUM 5.1.2 [1]_ of the module. [m]
    """
    return _to_sleeve(facts, hole) if aim is HoneAim.SLEEVE else _to_piston(facts, hole)


def _to_piston(facts: JobFacts, hole: Hole) -> HoneTarget | Phrase:
    found = target_of(facts, hole)
    if isinstance(found, Phrase):
        return found
    assert found.least_m is not None and found.greatest_m is not None
    limits = (found.clearance_m - found.greatest_m, found.clearance_m - found.least_m)
    return HoneTarget(HoneAim.PISTON, running_bore(facts.card), f"piston {hole.number}", found.piston,
                      found.clearance_m, found.wanted, found.finished, limits, found.source, found)  # fmt: skip


def _to_sleeve(facts: JobFacts, hole: Hole) -> HoneTarget | Phrase:
    """Mean outside of the sleeve less the press. [m] GUM 5.1.2 [1]_ of the module."""
    liner, press = shown_liners(facts).get(hole.number), wanted_of(facts)
    if press is None or press.aim_m is None or press.least_m is None or press.greatest_m is None:
        return Phrase("The card says no press of the sleeve: write least and greatest on it, then a size follows.")
    if liner is None:
        return Phrase("No sleeve is there for this hole: take one in and measure its outside.")
    part = part_with_key(facts, Quantity.LINER_OUTSIDE, f"liner-{liner.mark}")
    survey = None if part is None else survey_of(facts, Quantity.LINER_OUTSIDE, part)
    if survey is None or survey.relative or survey.missing or not survey.estimates:
        return Phrase("The outside of the sleeve is not measured everywhere: {w} of press are wanted on what it is, "
                      "not on what its box says.", (Term("w", press.aim_m),))  # fmt: skip
    outside = mean_of(survey.estimates)
    k = facts.card.coverage_factor
    wanted = weighted(((1.0, outside), (1.0, exactly(-press.aim_m))))
    limits = (press.least_m - press.aim_m, press.greatest_m - press.aim_m)
    return HoneTarget(HoneAim.SLEEVE, Quantity.BLOCK_BORE, f"liner {liner.mark}", stated("outside", outside, k),
                      -press.aim_m, wanted, stated("finished bore", wanted, k), limits, press.source,
                      None)  # fmt: skip
