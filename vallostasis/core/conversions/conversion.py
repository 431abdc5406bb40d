"""A conversion as it stands: every hole with what its card wants of it, and the cut of the deck that ends it."""

from dataclasses import dataclass, fields

from vallostasis.core.conversions.decking import Decking, LeftProud, decking_of, is_left_proud
from vallostasis.core.conversions.fire_ring import StudPull
from vallostasis.core.conversions.inserts import InsertFit, insert_fit
from vallostasis.core.conversions.registers import RegisterLine, register_line
from vallostasis.core.conversions.stack import (
    CompoundNow,
    ReliefNow,
    RingNow,
    SealNow,
    compound_of_hole,
    relief_of_hole,
    ring_of_hole,
    seals_of_hole,
    studs_of,
)
from vallostasis.core.fits.fit import Fit, FitRefused, fit_of, shown_liners
from vallostasis.core.records.conversion_terms import ConversionTerms
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Liner
from vallostasis.core.records.spec_card import UNLINED
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State

_NOTHING = ConversionTerms()


@dataclass(frozen=True, slots=True)
class HoleConversion:
    """What a conversion asks of one hole; None where the card has no such thing."""

    hole: Hole
    liner: str | None
    proud: LeftProud | None
    register: RegisterLine | None
    insert: InsertFit | Phrase | None
    ring: RingNow | Phrase | None
    relief: ReliefNow | Phrase | None
    seals: tuple[SealNow, ...]
    compound: CompoundNow | None


@dataclass(frozen=True, slots=True)
class Conversion:
    """A block to be converted: its holes, its deck, its studs, and the order of the work."""

    holes: tuple[HoleConversion, ...]
    decking: Decking | None
    studs: StudPull | Phrase | None
    order: tuple[Phrase, ...]


def is_converted(facts: JobFacts) -> bool:
    """Whether card or job know of a conversion of an engine with liners. House rule."""
    if facts.card.construction in UNLINED:
        return False
    return facts.card.conversion != _NOTHING or is_left_proud(facts)


@once
def conversion_of(facts: JobFacts) -> Conversion:
    """Work out a conversion from everything recorded. [m]

    House rule: every part stands for itself, and what one is missing holds no other back.
    """
    decking = decking_of(facts) if is_left_proud(facts) else None
    shown = shown_liners(facts)
    holes = tuple(_of_hole(facts, hole, shown.get(hole.number), decking) for hole in facts.holes)
    return Conversion(holes, decking, studs_of(facts), _order(facts, holes, decking))


def _of_hole(facts: JobFacts, hole: Hole, liner: Liner | None, decking: Decking | None) -> HoleConversion:
    terms = facts.card.conversion
    mark = None if liner is None else liner.mark
    fit: Fit | FitRefused = (fit_of(facts, hole, mark) if mark is not None
                             else FitRefused(hole, None, Phrase("No liner of this job is free.")))  # fmt: skip
    has_registers = terms.lower_register.length is not None or terms.off_line.length is not None
    has_insert = any(getattr(terms.insert_press, one.name).length is not None for one in fields(terms.insert_press))
    return HoleConversion(
        hole, mark,
        None if decking is None else next(row for row in decking.rows if row.hole == hole),
        register_line(facts, hole, fit) if has_registers else None,
        insert_fit(facts, hole) if has_insert else None,
        ring_of_hole(facts, hole), relief_of_hole(facts, hole), seals_of_hole(facts, hole),
        compound_of_hole(facts, hole, fit),
    )  # fmt: skip


def _order(facts: JobFacts, holes: tuple[HoleConversion, ...], decking: Decking | None) -> tuple[Phrase, ...]:
    """What comes before what, with the holes that are not there yet. Common practice, no published source."""
    lines = []
    if any(one.register is not None for one in holes):
        lines.append(_line("Sweep the registers", [one.hole.number for one in holes if one.register is not None
                                                   and one.register.state is not State.IN]))  # fmt: skip
    if any(one.insert is not None for one in holes):
        lines.append(_line("Press the inserts in", [one.hole.number for one in holes if one.insert is not None
                                                    and not (isinstance(one.insert, InsertFit)
                                                             and one.insert.state is State.IN)]))  # fmt: skip
    if any(isinstance(one.relief, ReliefNow) and (one.relief.towards.is_needed or one.relief.away.is_needed)
           for one in holes):  # fmt: skip
        lines.append(Phrase("Relieve the liners’ feet before they go in: chips of it end in the crankcase else"))
    fitted = [one.hole.number for one in holes if facts.present_fitting(one.hole.hole_id) is None]
    lines.append(_line("Fit the liners, seals greased, in their order", fitted))
    if decking is not None:
        if any(one.compound is not None and one.compound.cures_until is not None for one in holes):
            lines.append(Phrase("Let the compound cure: the cutter would move a liner before"))
        lines.append(_line("Read how proud they stand", [row.hole.number for row in decking.rows
                                                         if row.state is not State.IN]))  # fmt: skip
        lines.append(Phrase("Deck: it is marked as done" if decking.decked_at else "Deck them all in one setting"))
    if any(one.ring is not None for one in holes):
        lines.append(Phrase("Read the protrusion again before the fire rings go on"))
    return tuple(lines)


def _line(what: str, open_holes: list[int]) -> Phrase:
    if not open_holes:
        return Phrase(f"{what}: done")
    named = ", ".join(str(one) for one in open_holes)
    return Phrase(f"{what}: {'hole' if len(open_holes) == 1 else 'holes'} {named} to come")
