"""From a symptom to what may be behind it, and what to measure first. Common practice, no published source."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.features.parts import parts_of
from vallostasis.core.findings.kinds import FORMS
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import FindingKind
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE, CONSTRUCTIONS_WITH_PROTRUSION

# A leak-down from here on is looked into. [%]
LEAKS_PERCENT = Decimal(20)


@dataclass(frozen=True, slots=True)
class Suspect:
    """Something that may be behind a symptom, how it would show, and the features that settle it, in that order."""

    what: str
    shows: str
    quantities: tuple[Quantity, ...]


@dataclass(frozen=True, slots=True)
class Symptom:
    """A symptom, the words by which it is known in a complaint or a finding, and its suspects, the likeliest first."""

    name: str
    known_by: tuple[str, ...]
    suspects: tuple[Suspect, ...]


_Q = Quantity
_LOW = Suspect("a liner that stands low", "carbon or coolant tracks over its fire ring", (_Q.PROTRUSION,))
_LEDGE = Suspect("a ledge that is worn or not square", "depth differs round the clock", (_Q.COUNTERBORE_DEPTH,))
_DECK = Suspect("a deck that is not flat", "gasket printed on one side only", (_Q.DECK_FLATNESS,))
_WORN = Suspect("a bore worn at the top of ring travel", "a ridge, bright above it", (_Q.LINER_BORE, _Q.BLOCK_BORE))
_RINGS = Suspect("rings that lost their spring, or gaps too wide", "free gap small, ring gap large", (_Q.RING_GAP,))
_TIGHT = Suspect("too little clearance", "scuffed all round", (_Q.PISTON_CLEARANCE, _Q.PISTON_SKIRT))
_EGG = Suspect("a bore squeezed oval", "scuffed on one axis", (_Q.LINER_BORE, _Q.BLOCK_BORE))
_MAINS = Suspect("main bores out of line", "bearings wiped on one side", (_Q.MAIN_BORE,))
_SEALS = Suspect("lower seals, or a pitted seal land", "coolant below the liner", (_Q.BLOCK_BORE, _Q.LINER_OUTSIDE))
_GAP = Suspect("neighbours that push on each other", "oval along the crank, hot", (_Q.NEIGHBOUR_GAP,))

SYMPTOMS: tuple[Symptom, ...] = (
    Symptom("coolant lost between head and block",
            ("between head and block", "loses coolant", "lost between head", "coolant passing", "into the coolant"),
            (_LOW, _LEDGE, _DECK)),
    Symptom("coolant in the oil", ("in the oil", "oil is grey", "milky"), (_SEALS, _LOW)),
    Symptom("burnt fire ring", ("burnt fire ring", "burnt through", "carbon passing"), (_LOW, _DECK, _LEDGE)),
    Symptom("no power", ("no power", "low on one hole", "hard to start"), (_WORN, _RINGS)),
    Symptom("smoke", ("smoke", "blue under load", "burns oil"), (_WORN, _RINGS, _EGG)),
    Symptom("scuffed piston", ("scuff", "seized"), (_EGG, _TIGHT, _GAP, _MAINS)),
    Symptom("knock when cold", ("knock", "rattle", "slap"), (_TIGHT, _WORN)),
    Symptom("bearing wiped", ("bearing", "crank"), (_MAINS,)),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class SuspectNow:
    """A suspect of a job: which features settle it here, and how many of their parts were begun."""

    what: str
    shows: str
    quantities: tuple[Quantity, ...]
    begun: int
    of: int


@dataclass(frozen=True, slots=True)
class SuspectsOf:
    """What a symptom leads to suspect: where it was told, and what to measure first."""

    symptom: str
    told: str
    holes: tuple[int, ...]
    suspects: tuple[SuspectNow, ...]


def suspects_of(facts: JobFacts) -> tuple[SuspectsOf, ...]:
    """Return what complaint and findings lead to suspect, the likeliest first.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    tuple of SuspectsOf
        One for each symptom that is told of; features that this construction does not have are left out.
        Common practice, no published source.
    """
    said = list(_said(facts))
    found = []
    for symptom in SYMPTOMS:
        hits = [(told, hole) for told, text, hole in said if any(word in text for word in symptom.known_by)]
        if hits:
            holes = tuple(sorted({hole for _, hole in hits if hole is not None}))
            suspects = tuple(one for suspect in symptom.suspects if (one := _suspect_now(facts, suspect)).quantities)
            found.append(SuspectsOf(symptom.name, hits[0][0], holes, suspects))
    return tuple(found)


def _said(facts: JobFacts) -> Iterator[tuple[str, str, int | None]]:
    """Yield everything said of the engine: where it was told, the text to look in, the hole it is of."""
    yield "complaint", facts.job.complaint.casefold(), None
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    for one in facts.standing(facts.findings):
        hole = None if one.hole_id is None else numbers[one.hole_id]
        if one.word and one.word == FORMS[one.kind].sound:
            continue
        yield one.kind.value, f"{one.word} {one.words}".casefold(), hole
        if one.kind is FindingKind.LEAK_DOWN and one.figure is not None and one.figure >= LEAKS_PERCENT:
            yield one.kind.value, "no power", hole


def _suspect_now(facts: JobFacts, suspect: Suspect) -> SuspectNow:
    asked = tuple(one for one in suspect.quantities if _is_here(facts, one))
    parts = [(one, part) for one in asked for part in parts_of(facts, one)]
    targets = {one: [(s.fitting_id, s.hole_id, s.liner_id, s.part) for s in facts.sets_of(one)] for one in asked}
    begun = sum(
        part.target is not None
        and (part.target.fitting_id, part.target.hole_id, part.target.liner_id, part.target.part) in targets[one]
        for one, part in parts
    )
    return SuspectNow(suspect.what, suspect.shows, asked, begun, len(parts))


def _is_here(facts: JobFacts, quantity: Quantity) -> bool:
    construction = facts.card.construction
    if quantity is Quantity.PROTRUSION:
        return construction in CONSTRUCTIONS_WITH_PROTRUSION
    if quantity is Quantity.COUNTERBORE_DEPTH:
        return construction in CONSTRUCTIONS_WITH_LEDGE
    return construction not in feature_of(quantity).not_in and bool(parts_of(facts, quantity))
