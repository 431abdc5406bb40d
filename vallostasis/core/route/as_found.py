"""What a card asks to be read before anything is done to an engine, and what of it was never read nor waived."""

from dataclasses import dataclass

from vallostasis.core.features.catalogue import PartKind, feature_of
from vallostasis.core.features.parts import Part, parts_of
from vallostasis.core.features.plan import pattern_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Place, Quantity, ReadingSet
from vallostasis.core.records.spec_card import (
    CONSTRUCTIONS_WITH_LEDGE,
    CONSTRUCTIONS_WITH_PROTRUSION,
    SpecCard,
    sheet_of,
)

# Features of an engine as it comes in; the others are of new parts, or of what is done later. Common practice.
AS_FOUND = (Quantity.BLOCK_BORE, Quantity.LINER_BORE, Quantity.MAIN_BORE, Quantity.DECK_FLATNESS,
            Quantity.COUNTERBORE_DIAMETER, Quantity.NEIGHBOUR_GAP, Quantity.NEIGHBOUR_STEP)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Unread:
    """A feature of a part that the card asks for and nobody read in full."""

    quantity: Quantity
    part: str
    title: str


def asked_as_found(card: SpecCard) -> tuple[Quantity, ...]:
    """Return the features that a card asks to be read as found. Common practice, no published source."""
    asked = []
    if card.construction in CONSTRUCTIONS_WITH_PROTRUSION:
        asked.append(Quantity.PROTRUSION)
    if card.construction in CONSTRUCTIONS_WITH_LEDGE:
        asked.append(Quantity.COUNTERBORE_DEPTH)
    on_card = (one for one in AS_FOUND if sheet_of(card, one) is not None)
    return (*asked, *(one for one in on_card if card.construction not in feature_of(one).not_in))


@once
def as_found_left(facts: JobFacts) -> tuple[Unread, ...]:
    """Return what the card asks for as found that was never read in full, and is not waived by name. House rule."""
    left = []
    for quantity in asked_as_found(facts.card):
        for part in parts_of(facts, quantity):
            waived = (quantity, part.key) in facts.standing_waivers
            if not waived and not was_read(facts, quantity, part):
                left.append(Unread(quantity, part.key, part.title))
    return tuple(left)


def was_read(facts: JobFacts, quantity: Quantity, part: Part) -> bool:
    """Whether a feature of a part was ever read in full: what is cut later was still read before. House rule."""
    places = set(pattern_of(facts.card, quantity)[0].places)
    unreadable = {one.place for one in facts.standing(facts.unreadables) if one.quantity is quantity and one.unreadable}
    for one in facts.sets_of(quantity):
        if not _is_of(facts, quantity, one, part):
            continue
        read = {reading.place for reading in facts.standing_readings(one)}
        if places - unreadable <= read or (places == {Place()} and read):
            return True
    return False


def _is_of(facts: JobFacts, quantity: Quantity, reading_set: ReadingSet, part: Part) -> bool:
    kind = feature_of(quantity).part
    if kind in (PartKind.HOLE, PartKind.FITTING):
        hole = facts.hole_numbered(part.hole or 0)
        fitted = {one.fitting_id for one in facts.fittings if hole is not None and one.hole_id == hole.hole_id}
        return (hole is not None and reading_set.hole_id == hole.hole_id) or reading_set.fitting_id in fitted
    return part.target is not None and (reading_set.part, reading_set.liner_id) == (
        part.target.part,
        part.target.liner_id,
    )
