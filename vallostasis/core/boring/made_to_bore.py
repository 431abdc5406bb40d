"""The size of a bore whose piston is made to it: the step that was decided, and nothing less the hone where none comes.

A slow steam cylinder gets its piston and rings cast and turned to the finished bore. Common practice, no published
source.
"""

from dataclasses import dataclass

from vallostasis.core.bores.decisions import decision_of
from vallostasis.core.boring.target import BoreTarget
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.operations import schools
from vallostasis.core.operations.schools import side_of
from vallostasis.core.records.bore_decisions import BoreChoice
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.trail import Phrase


@dataclass(frozen=True, slots=True)
class MadeToBore:
    """A bore to a decided step, its piston made to it. [m]

    ``over_m`` is the step on the nominal; ``stock_m`` what is left for the hone, nought where a bored finish is enough.
    """

    hole: Hole
    nominal_m: float
    over_m: float
    stock_m: float
    is_honed: bool

    @property
    def finished_m(self) -> float:
        """What the piston is turned to. [m] By definition."""
        return self.nominal_m + self.over_m

    @property
    def bored_m(self) -> float:
        """What the bar leaves. [m] By definition."""
        return self.finished_m - self.stock_m


def is_made_to_bore(facts: JobFacts, hole: Hole) -> bool:
    """Whether the piston of a hole is made to its bore: the card knows no piston, and nobody read one. House rule."""
    if any(sheet_of(facts.card, one) is not None for one in (Quantity.PISTON_SKIRT, Quantity.PISTON_CLEARANCE)):
        return False
    part = part_with_key(facts, Quantity.PISTON_SKIRT, f"piston-{hole.number}")
    assert part is not None
    return not survey_of(facts, Quantity.PISTON_SKIRT, part).read


def made_to_bore(facts: JobFacts, hole: Hole) -> MadeToBore | None:
    """Return the size that was decided for a bore whose piston is made to it.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    MadeToBore or None
        None where a piston decides, or nobody decided for a step. [m]

    Notes
    -----
    Nominal of the card plus the step; less the stock of the card where the job hones. Common practice.
    """
    if not is_made_to_bore(facts, hole):
        return None
    decided, sheet = decision_of(facts, hole), sheet_of(facts.card, running_bore(facts.card))
    nominal = None if sheet is None else sheet.nominal.metres
    if decided is None or decided.choice is not BoreChoice.OVERSIZE or decided.oversize_um is None or nominal is None:
        return None
    honed = side_of(facts, schools.FINISH) == schools.HONED
    stock = (facts.card.bores.hone_stock.metres or 0.0) if honed else 0.0
    return MadeToBore(hole, nominal, float(decided.oversize_um) * 1e-6, stock, honed)


def bored_to(target: BoreTarget | MadeToBore | Phrase) -> float | None:
    """Return what the bar leaves by either kind of target; None where none is named. [m] By definition."""
    if isinstance(target, Phrase):
        return None
    return target.bored_m if isinstance(target, MadeToBore) else target.bored.value_m
