"""What is ordered to a measured bore: piston, rings, a sleeve, each with the room that its limits leave the maker.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: a size that is ordered is what was read, less what is wanted, within its ±.
"""

from dataclasses import dataclass

from vallostasis.core.bores.decisions import decision_of
from vallostasis.core.bores.wall import part_of_bore
from vallostasis.core.boring.made_to_bore import MadeToBore, made_to_bore
from vallostasis.core.fits.wanted import wanted_of
from vallostasis.core.pistons.frozen import running
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import stated, value_of


@dataclass(frozen=True, slots=True)
class Ordered:
    """One thing to order: between which sizes, of what, and how that comes about. [m]

    ``least_m`` and ``greatest_m`` are None where ``why_not`` says why no size is named.
    """

    what: str
    least_m: float | None
    greatest_m: float | None
    material: str
    says: tuple[Phrase, ...]
    why_not: Phrase | None = None


@dataclass(frozen=True, slots=True)
class OrderSheet:
    """What a hole needs made to it, and in how many weeks where its ladder says so."""

    hole: Hole
    ordered: tuple[Ordered, ...]
    weeks: float | None


@dataclass(frozen=True, slots=True)
class _Bore:
    """Where a bore lies for sure, or is to lie: a size ordered to it fits at either end. [m]"""

    least_m: float
    greatest_m: float
    is_read: bool


def order_sheet(facts: JobFacts, hole: Hole) -> OrderSheet:
    """Return what is ordered to a bore.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    OrderSheet
        A piston keeps its least clearance in the least of the bore and its greatest in the greatest, each by the ± of
        the reading: GUM 5.1.2 [1]_ of the module. [m]
    """
    made, decided = made_to_bore(facts, hole), decision_of(facts, hole)
    bore = _bore_of(facts, running(facts, hole), made)
    steps = facts.card.bores.ladder
    over = None if decided is None else decided.oversize_um
    weeks = next((one.weeks for one in steps if over is not None and one.oversize.um == over), None)
    ordered = [_piston(facts, bore), _rings(facts, bore)]
    sleeve = _sleeve(facts, hole)
    return OrderSheet(hole, (*ordered, sleeve) if sleeve is not None else tuple(ordered), weeks)


def _bore_of(facts: JobFacts, survey: Survey, made: MadeToBore | None) -> _Bore | Phrase:
    if survey.disturbed is not None or survey.relative or survey.missing or not survey.estimates or survey.doubt:
        if made is not None:
            return _Bore(made.finished_m, made.finished_m, is_read=False)
        return Phrase("The bore is not read all over as it is now: read it, then a size follows.")
    k = facts.card.coverage_factor
    ends = [
        stated("bore", one, k) for one in (min(survey.estimates, key=value_of), max(survey.estimates, key=value_of))
    ]
    found = _Bore(ends[0].value_m - ends[0].expanded_m, ends[1].value_m + ends[1].expanded_m, is_read=True)
    # A step that was decided and not bored yet is ordered to, not the worn bore that is there now.
    if made is not None and made.finished_m > found.greatest_m:
        return _Bore(made.finished_m, made.finished_m, is_read=False)
    return found


def _piston(facts: JobFacts, bore: _Bore | Phrase) -> Ordered:
    material = facts.card.piston_material
    if isinstance(bore, Phrase):
        return Ordered("piston, skirt across the pin", None, None, material, (), bore)
    sheet = sheet_of(facts.card, Quantity.PISTON_CLEARANCE)
    least, greatest = (None, None) if sheet is None else (sheet.least.metres, sheet.greatest.metres)
    if least is None or greatest is None:
        why = Phrase("The card says no clearance of the piston: write least and greatest on it.")
        return Ordered("piston, skirt across the pin", None, None, material, (_of(bore),), why)
    small, large = bore.greatest_m - greatest, bore.least_m - least
    if small > large:
        why = Phrase("Between its least and its greatest, with the ± of both, the bore spends {s} of the {w} that the "
                     "card leaves: make it true before a piston is made to it.",
                     (Term("s", bore.greatest_m - bore.least_m), Term("w", greatest - least)))  # fmt: skip
        return Ordered("piston, skirt across the pin", None, None, material, (_of(bore),), why)
    says = (_of(bore), Phrase("It leaves {a} to {b} on the diameter.", (Term("a", least), Term("b", greatest))))
    return Ordered("piston, skirt across the pin", small, large, material, says)


def _of(bore: _Bore) -> Phrase:
    if bore.is_read:
        return Phrase("The bore lies between {a} and {b} for sure.",
                      (Term("a", bore.least_m, "size"), Term("b", bore.greatest_m, "size")))  # fmt: skip
    return Phrase("To the step that was decided, {s}: finish it to the bore once that is read.",
                  (Term("s", bore.greatest_m, "size"),))  # fmt: skip


def _rings(facts: JobFacts, bore: _Bore | Phrase) -> Ordered:
    """Rings are cast to the bore; their gap is wanted in its least. By definition."""
    if isinstance(bore, Phrase):
        return Ordered("rings, for a bore of", None, None, "cast iron", (), bore)
    sheet = sheet_of(facts.card, Quantity.RING_GAP)
    says = []
    if sheet is not None and sheet.least.metres is not None:
        says.append(Phrase("Gap at least {g}, in the least of the bore.", (Term("g", sheet.least.metres),)))
    return Ordered("rings, for a bore of", bore.least_m, bore.greatest_m, "cast iron", tuple(says))


def _sleeve(facts: JobFacts, hole: Hole) -> Ordered | None:
    """The outside of a sleeve by the press that is wanted in the bore of the block; None where no sleeve is fitted."""
    if running_bore(facts.card) is Quantity.BLOCK_BORE:
        return None
    wanted = wanted_of(facts)
    least, greatest = (None, None) if wanted is None else (wanted.least_m, wanted.greatest_m)
    if least is None or greatest is None:
        return None
    what, material = "sleeve, outside", facts.card.liner_material
    survey = survey_of(facts, Quantity.BLOCK_BORE, part_of_bore(facts, hole, Quantity.BLOCK_BORE))
    bore = _bore_of(facts, survey, None)
    if isinstance(bore, Phrase):
        return Ordered(what, None, None, material, (), bore)
    small, large = bore.greatest_m + least, bore.least_m + greatest
    if small > large:
        why = Phrase("The bore of the block is not true enough for the press that is wanted: it spends {s} of {w}.",
                     (Term("s", bore.greatest_m - bore.least_m), Term("w", greatest - least)))  # fmt: skip
        return Ordered(what, None, None, material, (_of(bore),), why)
    press = Phrase("It is pressed by {a} to {b}.", (Term("a", least), Term("b", greatest)))
    return Ordered(what, small, large, material, (_of(bore), press))
