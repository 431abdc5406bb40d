"""What lies between head, liner and block of one hole: fire ring, studs, seals, compound, and the rod below.

Sizes come from the card, heights and bores as they were read. House rule: what is not known is said to be missing.
"""

from dataclasses import dataclass
from datetime import datetime, timedelta
from math import pi

from vallostasis.core.conversions.decking import decked_at, is_left_proud
from vallostasis.core.conversions.fire_ring import RingStack, Stud, StudPull, crush_of_ring, stud_pull
from vallostasis.core.conversions.rod_sweep import Relief, Rod, relief_of_foot
from vallostasis.core.conversions.seal_gland import Gland, Sealing, sealing_of
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.effects import liner_inside_m
from vallostasis.core.fits.fit import Fit, FitRefused
from vallostasis.core.fits.pull import pulls_of
from vallostasis.core.protrusion.measured import protrusion_of
from vallostasis.core.records.conversion_terms import SealRing
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.pulls import PullMarkKind
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.surveys.derived import centre_of
from vallostasis.core.surveys.survey import bore_table, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Stated, exactly, mean_of, value_of
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, judge

# Squeeze that seals at rest without being cut, and the fullest a groove may be when hot. [1] Common practice.
SQUEEZE_FROM, SQUEEZE_TO, FULLEST = 0.10, 0.30, 0.95
# Swelling of rubber in oil and coolant that is reckoned with where nobody said otherwise. [1] Common practice.
SWELLS = 0.10
ROOM_C = 20.0


@dataclass(frozen=True, slots=True)
class RingNow:
    """The fire ring of a hole: how high its liner stands and how that is known, the crush against its window. [m]"""

    height_m: float
    known_by: str
    crush: RuleResult


def ring_of_hole(facts: JobFacts, hole: Hole) -> RingNow | Phrase | None:
    """Return how far the fire ring of a hole is crushed; None where the card has none. [m]

    Read protrusion where it will not be decked any more, else flush as it will be cut. House rule.
    """
    terms = facts.card.conversion
    ring, gasket = terms.fire_ring.metres, terms.gasket_clamped.metres
    if ring is None:
        return None
    if not ring > 0 or gasket is None or not gasket > 0:
        return Phrase("The crush of the fire ring waits for its thickness and the gasket’s when clamped: card.")
    survey = protrusion_of(facts, hole)
    if is_left_proud(facts) and decked_at(facts) is None:
        height, known_by = exactly(0.0), "flush, as it will be decked"
    elif survey.estimates:
        height, known_by = centre_of(survey.estimates, survey.angles_deg), "protrusion as read"
    else:
        return Phrase(f"The crush of the fire ring waits for the protrusion of hole {hole.number}.")
    stack = RingStack(ring, gasket, terms.liner_groove.metres or 0.0, terms.head_groove.metres or 0.0)
    crush = crush_of_ring(stack, height, facts.card.coverage_factor)
    limits = (terms.crush_least.metres, terms.crush_greatest.metres)
    rule = judge(RuleKind.READING, f"fire ring of hole {hole.number}", crush, limits, facts.card.acceptance)
    return RingNow(value_of(height), known_by, rule)


def studs_of(facts: JobFacts) -> StudPull | Phrase | None:
    """Return what the studs of a head do when tight; None where the card has none. [m], [N] Hooke, by definition."""
    terms = facts.card.conversion
    diameter, clamped = terms.stud_diameter.metres, terms.stud_clamped.metres
    if terms.stud_kn is None and diameter is None and clamped is None:
        return None
    if not terms.stud_kn or not diameter or not clamped:
        return Phrase("The stretch of the studs waits for load, diameter and clamped length: card.")
    return stud_pull(Stud(diameter, clamped, terms.stud_kn * 1e3, terms.stud_length.metres))


@dataclass(frozen=True, slots=True)
class SealNow:
    """One ring of a hole, in its order: what becomes of it, and what speaks against it."""

    ring: SealRing
    sealing: Sealing | None
    bore_m: float | None
    bore_known_by: str
    against: tuple[str, ...]


def seals_of_hole(facts: JobFacts, hole: Hole) -> tuple[SealNow, ...]:
    """Return the seals of a hole in their order, each in its groove against the bore as it was read lowest down. [m]

    House rule: the drawn bore where nobody read it.
    """
    rings = facts.card.conversion.seals
    if not rings:
        return ()
    bore, known_by = _lowest(facts, Quantity.BLOCK_BORE, f"hole-{hole.number}")
    fitting = facts.present_fitting(hole.hole_id)
    mark = None if fitting is None else facts.liner(fitting.liner_id).mark
    outside, _ = _lowest(facts, Quantity.LINER_OUTSIDE, f"liner-{mark}")
    warmest = max((max(one.block_c, one.liner_c) for one in facts.card.fits.running), default=None)
    return tuple(_seal(ring, bore, known_by, outside, warmest) for ring in rings)


def _lowest(facts: JobFacts, quantity: Quantity, key: str) -> tuple[float | None, str]:
    part = part_with_key(facts, quantity, key)
    survey = None if part is None else survey_of(facts, quantity, part)
    table = None if survey is None or survey.relative else bore_table(survey.pattern, survey.places)
    rows = [] if table is None else [[one for one in row if one is not None] for row in table.cells]
    if any(rows):
        return value_of(mean_of([row for row in rows if row][-1])), "as read"
    sheet = sheet_of(facts.card, quantity)
    return (None if sheet is None else sheet.nominal.metres), "as drawn"


def _seal(ring: SealRing, bore: float | None, known_by: str, outside: float | None, warmest: float | None) -> SealNow:
    if bore is None:
        return SealNow(ring, None, None, known_by, ("nobody read the bore it seals in, and the card draws none",))
    liner = outside if outside is not None and outside < bore else bore
    gland = Gland(ring.groove_in, bore, liner, ring.groove_diameter.metres, ring.groove_width.metres,
                  ring.inside.metres, ring.section.metres)  # fmt: skip
    hotter = 0.0 if warmest is None else max(0.0, warmest - ROOM_C)
    try:
        sealing = sealing_of(gland, (bore - liner) / 2, SWELLS, warmer_k=hotter)
    except OutOfDomain as error:
        return SealNow(ring, None, bore, known_by, (str(error),))
    against = []
    if sealing.squeeze_least < SQUEEZE_FROM:
        against.append(f"squeezed {sealing.squeeze_least:.0%} at the least: may weep")
    if sealing.squeeze_greatest > SQUEEZE_TO:
        against.append(f"squeezed {sealing.squeeze_greatest:.0%} at the most: may be cut going in")
    if sealing.fill_hot > FULLEST:
        against.append(f"fills {sealing.fill_hot:.0%} of its groove when hot: no room to swell")
    if ring.warmest_c is not None and warmest is not None and warmest > ring.warmest_c:
        against.append(f"bears {ring.warmest_c:g} °C, runs at {warmest:g} °C")
    if not ring.grease.strip():
        against.append("the card names no grease")
    return SealNow(ring, sealing, bore, known_by, tuple(against))


@dataclass(frozen=True, slots=True)
class CompoundNow:
    """Compound of a hole: the gap it has to fill, how much that takes, until when it cures. [m], [m³]"""

    gap: RuleResult | None
    fills_m3: float | None
    cures_until: datetime | None
    says: Phrase


def compound_of_hole(facts: JobFacts, hole: Hole, fit: Fit | FitRefused) -> CompoundNow | None:
    """Return what the compound of a hole has to do; None where the card names none.

    It goes on the liner above its seat, never in the hole. Gap: by definition of clearance, GUM F.1.2.3. [m], [m³]
    """
    terms, fits = facts.card.conversion, facts.card.fits
    if not fits.compound.strip() or fits.compound.casefold().startswith("none"):
        return None
    home = [mark.noted_at for one in pulls_of(facts, hole) for mark in one.marks if mark.kind is PullMarkKind.HOME]
    until = home[-1] + timedelta(hours=fits.compound_cure_h) if home and fits.compound_cure_h else None
    if not isinstance(fit, Fit):
        return CompoundNow(None, None, until, fit.reason)
    widest = fit.least
    clear = -widest.press.value_m
    gap = judge(RuleKind.READING, widest.name, Stated(clear, widest.press.budget), (None, terms.compound_gap.metres),
                facts.card.acceptance)  # fmt: skip
    if clear <= 0:
        said = Phrase("The fit presses all over: a thin film on the liner is enough, more ends under the flange.")
        return CompoundNow(gap, None, until, said)
    band = terms.compound_band.metres
    fills = None if band is None else pi * widest.bore.value_m * band * clear / 2
    said = Phrase("It has to fill {c} ±{u} on the diameter where the fit is loosest",
                  (Term("c", clear), Term("u", widest.press.expanded_m, "within")))  # fmt: skip
    return CompoundNow(gap, fills, until, said)


@dataclass(frozen=True, slots=True)
class ReliefNow:
    """Relief at the foot of a liner towards the side that the crank is offset to, and on the other. [m]"""

    towards_hour: float | None
    towards: Relief
    away: Relief
    foot_m: float


def relief_of_hole(facts: JobFacts, hole: Hole) -> ReliefNow | Phrase | None:
    """Return what is to be relieved at the foot of a liner; None where the card says nothing of the rod. [m]

    Foot: below the deck by the liner's length less how proud it stands now. By definition; rod_sweep.
    """
    card, terms = facts.card, facts.card.conversion
    if terms.rod_length.metres is None and terms.crank_depth.metres is None:
        return None
    crank, rod, width = card.stroke.metres, terms.rod_length.metres, terms.rod_width.metres
    depth, length = terms.crank_depth.metres, card.fits.liner_length.metres
    if crank is None or rod is None or width is None or depth is None or length is None:
        return Phrase("The relief waits for stroke, rod, its width, the crank’s depth and the liner’s length: card.")
    survey = protrusion_of(facts, hole)
    proud = value_of(centre_of(survey.estimates, survey.angles_deg)) if survey.estimates else 0.0
    foot = depth - (length - proud)
    made = Rod(crank / 2, rod, width, terms.big_end.metres or width, terms.crank_offset.metres or 0.0)
    try:
        towards, away = relief_of_foot(made, foot, liner_inside_m(card), terms.rod_clear.metres or 0.0, depth)
    except OutOfDomain as error:
        return Phrase(f"The relief cannot be told: {error}.")
    return ReliefNow(terms.offset_hour, towards, away, foot)
