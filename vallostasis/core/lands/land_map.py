"""Heights of the lands of a make from readings of many liners over all jobs, and old parts against new.

References
----------
.. [1] JCGM 100:2008 (GUM), 4.2.3, 5.1.2 and F.1.2.3: means, differences, and what two readings of a liner share.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean, stdev
from uuid import UUID

from vallostasis.core.lands.populations import Kinds, two_kinds
from vallostasis.core.protrusion.measured import flange_of, flange_part
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, stated

# What is no further apart than that is alike for a seat, where the card says nothing closer. House rule. [m]
ALIKE_M = 10e-6


@dataclass(frozen=True, slots=True)
class LinerRead:
    """One liner of any job with the lands that were read of it; a land that nobody read is not there. [m]"""

    liner_id: UUID
    job_id: UUID
    job: str
    mark: str
    make: str
    batch: str
    lands: dict[str, Estimate]
    first_event: int


@dataclass(frozen=True, slots=True)
class LandOfMake:
    """One land of a make: how it stands to the land that most liners were read on. [m]

    ``reads`` are liner by liner, ``kinds`` is None where they are one kind as far as can be told; on the land itself
    ``reads`` are sizes.
    """

    land: str
    reads: tuple[tuple[LinerRead, Stated], ...]
    mean_m: float
    deviation_m: float | None
    kinds: Kinds | None


@dataclass(frozen=True, slots=True)
class LandMap:
    """The lands of a make: the one the others are counted from, each land, and what is to be noticed."""

    make: str
    reference: str
    lands: tuple[LandOfMake, ...]
    liners: tuple[LinerRead, ...]
    notices: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class LandCompared:
    """A land of an old and a new part; ``alike`` is None where it is not known. [m]"""

    land: str
    old: Stated | None
    new: Stated | None
    difference: Stated | None
    alike: bool | None


@once
def liners_read(facts: JobFacts) -> tuple[LinerRead, ...]:
    """Return the liners of a job with the lands that were read of them, doubtful readings left out. [m] GUM 4.2.3."""
    lands = sorted({facts.setup(one.setup_id).land for one in facts.sets_of(Quantity.FLANGE_THICKNESS)})
    found = []
    for liner in facts.liners:
        known = {}
        for land in lands:
            part = flange_part(facts, liner, land)
            if part is not None and not flange_of(facts, liner, land).doubt:
                known[land] = part.estimate
        if known:
            events = [one.event for one in facts.sets_of(Quantity.FLANGE_THICKNESS) if one.liner_id == liner.liner_id]
            found.append(LinerRead(liner.liner_id, facts.job.job_id, facts.job.name, liner.mark, liner.make,
                                   liner.batch, known, min(events, default=0)))  # fmt: skip
    return tuple(found)


def land_map(liners: Sequence[LinerRead], make: str, k: float = 2.0) -> LandMap:
    """Lay the lands of a make side by side.

    Parameters
    ----------
    liners : sequence of LinerRead
        Of all jobs.
    make : str
        As it is written on them.
    k : float
        Coverage factor.

    Returns
    -------
    LandMap
        Each land over the one that most liners were read on: a difference on the same liner, in which what both
        readings share cancels, [1]_ of the module. [m]
    """
    mine = tuple(one for one in liners if one.make == make)
    names = sorted({land for one in mine for land in one.lands})
    if not names:
        return LandMap(make, "", (), (), ())
    reference = max(names, key=lambda land: sum(land in one.lands for one in mine))
    lands = tuple(_land(mine, land, reference, k) for land in [reference, *(one for one in names if one != reference)])
    return LandMap(make, reference, lands, mine, tuple(note for one in lands for note in _notices(one, reference)))


def _land(liners: Sequence[LinerRead], land: str, reference: str, k: float) -> LandOfMake:
    reads = []
    for one in liners:
        if land not in one.lands or reference not in one.lands:
            continue
        own = one.lands[land]
        over = own if land == reference else difference_of(own, one.lands[reference])
        reads.append((one, stated(f"{land} of {one.mark}", over, k)))
    values = [value.value_m for _, value in reads]
    kinds = two_kinds(values, [max(value.expanded_m / k, 1e-9) for _, value in reads])
    return LandOfMake(land, tuple(reads), fmean(values) if values else 0.0,
                      stdev(values) if len(values) > 1 else None, kinds)  # fmt: skip


def _notices(one: LandOfMake, reference: str) -> list[str]:
    """What is to be noticed of a land: two kinds, and what tells them apart. House rule."""
    if one.kinds is None:
        return []
    groups = [[one.reads[at][0] for at in places] for places in (one.kinds.lower, one.kinds.upper)]
    over = "" if one.land == reference else f" over the {reference}"
    told = _told_apart(groups)
    return [f"The {one.land}{over} comes in two heights, {round(one.kinds.apart_m * 1e6)} µm apart: "
            f"{_named(groups[0])} and {_named(groups[1])}{told}."]  # fmt: skip


def _named(liners: Sequence[LinerRead]) -> str:
    return ", ".join(one.mark for one in liners)


def _told_apart(groups: list[list[LinerRead]]) -> str:
    """By what the two can be told before they are read: their batch, else when they came. House rule."""
    batches = [{one.batch for one in group} for group in groups]
    if batches[0].isdisjoint(batches[1]) and "" not in batches[0] | batches[1]:
        return f"; by batch {', '.join(sorted(batches[0]))} against {', '.join(sorted(batches[1]))}"
    last, first = max(one.first_event for one in groups[0]), min(one.first_event for one in groups[1])
    if last < first or max(one.first_event for one in groups[1]) < min(one.first_event for one in groups[0]):
        return "; one came after the other: a running change"
    return ""


def compared(old: LinerRead, new: LinerRead, lands: Sequence[str], k: float = 2.0) -> tuple[LandCompared, ...]:
    """Hold an old part against a new one on every land that matters.

    Parameters
    ----------
    old, new : LinerRead
        The two parts.
    lands : sequence of str
        Every land that is known of either make or card.
    k : float
        Coverage factor.

    Returns
    -------
    tuple of LandCompared
        A land that is not read on both stays unknown: nobody may say that they are identical. [m] A difference, [1]_
        of the module; alike where it is within its own ± and that is no wider than the house rule.
    """
    found = []
    for land in sorted({*lands, *old.lands, *new.lands}):
        a, b = old.lands.get(land), new.lands.get(land)
        known = [None if one is None else stated(f"{land}", one, k) for one in (a, b)]
        if a is None or b is None:
            found.append(LandCompared(land, known[0], known[1], None, None))
            continue
        off = stated(f"{land}, new less old", difference_of(b, a), k)
        alike = None if off.expanded_m > ALIKE_M else abs(off.value_m) <= max(off.expanded_m, 0.0)
        if alike is None and abs(off.value_m) > off.expanded_m:
            alike = False
        found.append(LandCompared(land, known[0], known[1], off, alike))
    return tuple(found)


def verdict(rows: Sequence[LandCompared]) -> str:
    """Say what may be claimed of two parts. House rule: identical only where every land was read on both."""
    differ = [one.land for one in rows if one.alike is False]
    unknown = [one.land for one in rows if one.alike is None]
    if differ:
        return f"They differ on the {', '.join(differ)}."
    if unknown:
        return f"Not known on the {', '.join(unknown)}: nobody can call them identical."
    return "Alike on every land, within what is read."
