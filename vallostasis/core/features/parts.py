"""Which parts of a job a feature is read on, and what a set of readings belongs to."""

import itertools
from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.features.catalogue import PartKind, feature_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity, ReadingSet
from vallostasis.core.records.spec_card import bank_rows


@dataclass(frozen=True, slots=True)
class Target:
    """What a reading is of: a fitting, a hole since its last cut, a liner, or a part by name."""

    fitting_id: UUID | None = None
    hole_id: UUID | None = None
    after_cut_id: UUID | None = None
    liner_id: UUID | None = None
    part: str = ""


@dataclass(frozen=True, slots=True)
class Part:
    """One part that a feature is read on; ``target`` is None where it cannot be read yet, with the reason.

    ``key`` names it in an address: hole-2, liner-L5, piston-2, main-3, deck-A, gap-1-2.
    """

    key: str
    title: str
    target: Target | None
    why_not: str = ""
    hole: int | None = None


def parts_of(facts: JobFacts, quantity: Quantity) -> tuple[Part, ...]:
    """Return every part of the job that a feature is read on, in the order of the block."""
    kind = feature_of(quantity).part
    if kind is PartKind.LINER:
        return tuple(
            Part(f"liner-{liner.mark}", f"liner {liner.mark}", Target(liner_id=liner.liner_id))
            for liner in facts.liners
        )
    if kind is PartKind.MAIN:
        return tuple(_named("main", "main bore", str(n)) for n in range(1, facts.card.main_bores + 1))
    if kind is PartKind.DECK:
        banks = ("A", "B") if len(bank_rows(facts.card.layout)) == 2 else ("",)
        return tuple(_named("deck", "deck", bank) for bank in banks)
    if kind is PartKind.GAP:
        pairs = [pair for row in bank_rows(facts.card.layout) for pair in itertools.pairwise(row)]
        return tuple(_named("gap", "gap between", f"{min(pair)}-{max(pair)}") for pair in sorted(pairs, key=min))
    if kind is PartKind.PISTON:
        return tuple(_named("piston", "piston", str(hole.number)) for hole in facts.holes)
    return tuple(_of_hole(facts, hole, kind, quantity) for hole in facts.holes)


def _named(what: str, title: str, name: str) -> Part:
    key = f"{what}-{name}" if name else what
    hole = int(name) if what == "piston" else None
    return Part(key, f"{title} {name}".strip(), Target(part=key), hole=hole)


def _of_hole(facts: JobFacts, hole: Hole, kind: PartKind, quantity: Quantity) -> Part:
    key, title = f"hole-{hole.number}", f"hole {hole.number}"
    fitting = facts.present_fitting(hole.hole_id)
    if kind is PartKind.HOLE:
        cut = facts.last_cut(hole.hole_id)
        after = cut.cut_id if cut is not None and feature_of(quantity).after_cut else None
        return Part(key, title, Target(hole_id=hole.hole_id, after_cut_id=after), hole=hole.number)
    if fitting is None:
        return Part(key, title, None, "no liner is fitted: record the fitting first", hole.number)
    mark = facts.liner(fitting.liner_id).mark
    return Part(key, f"{title}, liner {mark}", Target(fitting_id=fitting.fitting_id), hole=hole.number)


def part_with_key(facts: JobFacts, quantity: Quantity, key: str) -> Part | None:
    """Return the part of that key, or None."""
    return next((part for part in parts_of(facts, quantity) if part.key.casefold() == key.casefold()), None)


def holes_of(part: Part) -> tuple[int, ...]:
    """Return the holes a part belongs to: a gap lies between two, a deck belongs to none. House rule: by its key."""
    if part.hole is not None:
        return (part.hole,)
    what, _, rest = part.key.partition("-")
    return tuple(int(number) for number in rest.split("-")) if what == "gap" else ()


def target_of_set(reading_set: ReadingSet) -> Target:
    """Return what a set is of."""
    return Target(
        reading_set.fitting_id, reading_set.hole_id, reading_set.after_cut_id, reading_set.liner_id, reading_set.part
    )
