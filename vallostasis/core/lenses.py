"""Which ways to look at a block its construction offers, in their order, and what those without a view yet wait for."""

from dataclasses import dataclass

from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.features.parts import parts_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import (
    CONSTRUCTIONS_WITH_LEDGE,
    CONSTRUCTIONS_WITH_PROTRUSION,
    UNLINED,
    Construction,
    SpecCard,
)
from vallostasis.core.subjects import LensName
from vallostasis.core.surveys.survey import survey_of

BORE_FIRST = (Construction.DRY_FLANGED, Construction.DRY_PLAIN, Construction.PARENT_BORE, Construction.COATED)
# What a lens holds against each other once it can: features that have to be read for it. Common practice.
HOLDS: dict[LensName, tuple[Quantity, ...]] = {
    LensName.FIT: (Quantity.BLOCK_BORE, Quantity.LINER_OUTSIDE),
    LensName.DISTORTION: (Quantity.LINER_BORE, Quantity.BLOCK_BORE),
    LensName.CLEARANCE: (Quantity.LINER_BORE, Quantity.BLOCK_BORE, Quantity.PISTON_SKIRT),
}


@dataclass(frozen=True, slots=True)
class ReadSoFar:
    """How many parts of a feature are read in full."""

    quantity: Quantity
    read: int
    of: int


@dataclass(frozen=True, slots=True)
class LensNow:
    """A lens of a job: the features it shows, the deciding one first; with nothing to show yet, what is read so far."""

    name: LensName
    quantities: tuple[Quantity, ...]
    waits_for: tuple[ReadSoFar, ...] = ()


def lenses_of(card: SpecCard) -> tuple[LensName, ...]:
    """Return the lenses of a construction, the one a job opens with first. House rule."""
    offered = []
    if card.construction in CONSTRUCTIONS_WITH_PROTRUSION:
        offered.append(LensName.PROTRUSION)
    if card.construction in CONSTRUCTIONS_WITH_LEDGE:
        offered.append(LensName.COUNTERBORE)
    if card.construction not in UNLINED:
        offered.append(LensName.FIT)
    if card.construction in BORE_FIRST:
        offered.insert(0, LensName.BORE)
    else:
        offered.append(LensName.BORE)
    return (*offered, LensName.DISTORTION, LensName.CLEARANCE)


def bores_of(card: SpecCard) -> tuple[Quantity, ...]:
    """Return the bores that a construction has, the one that decides first. Common practice, no published source.

    The block is bored for a dry sleeve; a wet liner is judged by its own bore; without a liner there is but one.
    """
    if card.construction in UNLINED:
        return (Quantity.BLOCK_BORE,)
    both = (Quantity.BLOCK_BORE, Quantity.LINER_BORE)
    return both if card.construction in BORE_FIRST else both[::-1]


def lenses_now(facts: JobFacts) -> tuple[LensNow, ...]:
    """Return the lenses of a job, and of those that hold features against each other how far they are read."""
    found = []
    for name in lenses_of(facts.card):
        if name is LensName.PROTRUSION:
            found.append(LensNow(name, (Quantity.PROTRUSION,)))
        elif name is LensName.COUNTERBORE:
            found.append(LensNow(name, (Quantity.COUNTERBORE_DEPTH,)))
        elif name is LensName.BORE:
            found.append(LensNow(name, bores_of(facts.card)))
        else:
            offered = (one for one in HOLDS[name] if facts.card.construction not in feature_of(one).not_in)
            found.append(LensNow(name, (), tuple(_read_so_far(facts, one) for one in offered)))
    return tuple(found)


def _read_so_far(facts: JobFacts, quantity: Quantity) -> ReadSoFar:
    parts = parts_of(facts, quantity)
    if not facts.sets_of(quantity):
        return ReadSoFar(quantity, 0, len(parts))
    surveys = [survey_of(facts, quantity, part) for part in parts]
    return ReadSoFar(quantity, sum(bool(one.read) and not one.missing for one in surveys), len(parts))
