"""A reading to take, and what it is of: refused at the field where it belongs nowhere."""

from dataclasses import dataclass, replace
from decimal import Decimal
from uuid import UUID

from vallostasis.core.features.catalogue import PatternKind, feature_of, is_surveyed
from vallostasis.core.features.parts import Part, Target, part_with_key, parts_of
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Liner, Place, Quantity
from vallostasis.services.refused import Refused


@dataclass(frozen=True, slots=True)
class ReadingToTake:
    """What was typed, and where it belongs; ``read_before`` answers the question repeat or correct.

    ``waited_s`` is how long ago it was taken: a bench out of reach sends it when the link returns [s]; ``from_gauge``
    that a gauge sent it, so that no slip of a unit can be in it; ``device`` the screen at which it was taken.
    """

    reading_id: UUID
    quantity: Quantity
    hole: int | None
    hour: float | None
    liner_mark: str
    land: str
    text: str
    bare_unit: Unit
    confirmed: bool
    read_before: str
    new_pass: bool
    part_temp_c: Decimal | None
    waited_s: float = 0.0
    part: str = ""
    level_um: Decimal | None = None
    axis_deg: float | None = None
    along_um: Decimal | None = None
    across_um: Decimal | None = None
    from_gauge: bool = False
    device: str = ""

    @property
    def place(self) -> Place:
        """Where on the part it was read."""
        return Place(self.hour, self.level_um, self.axis_deg, self.along_um, self.across_um)


def target_of(facts: JobFacts, ask: ReadingToTake) -> Target:
    """Return what a reading is of as the job stands now, or refuse at the field."""
    if is_surveyed(ask.quantity):
        _fitting_place(ask)
        liner = known_liner(facts, ask.liner_mark) if feature_of(ask.quantity).asks_liner else None
        return surveyed_target(facts, ask.quantity, ask.part, "" if liner is None else liner.mark)
    if ask.quantity is Quantity.FLANGE_THICKNESS:
        return Target(liner_id=known_liner(facts, ask.liner_mark).liner_id)
    hole = known_hole(facts, ask.hole)
    if ask.hour is None:
        raise Refused("At which clock position? Type it with h, such as 6h.", "hour")
    if ask.quantity is Quantity.COUNTERBORE_DEPTH:
        cut = facts.last_cut(hole.hole_id)
        return Target(hole_id=hole.hole_id, after_cut_id=None if cut is None else cut.cut_id)
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is None:
        raise Refused(f"Hole {hole.number} has no liner: record the fitting first, then read it.", "hole")
    return Target(fitting_id=fitting.fitting_id)


def known_part(facts: JobFacts, quantity: Quantity, key: str) -> Part:
    """Return the part of that key, or refuse."""
    part = part_with_key(facts, quantity, key)
    if part is None:
        names = ", ".join(one.key for one in parts_of(facts, quantity)) or "none yet"
        raise Refused(f"There is no {key} for {quantity.value} in this job: it has {names}.", "part")
    return part


def surveyed_target(facts: JobFacts, quantity: Quantity, key: str, liner_mark: str = "") -> Target:
    """Return what a survey of that part is of, or refuse at the field."""
    part = known_part(facts, quantity, key)
    if part.target is None:
        raise Refused(f"{part.title.capitalize()}: {part.why_not}.", "part")
    return replace(part.target, part=liner_mark) if liner_mark else part.target


def _fitting_place(ask: ReadingToTake) -> None:
    """Refuse a place that is none on such a part."""
    place, kind = ask.place, feature_of(ask.quantity).pattern
    given = {name for name in Place.__slots__ if getattr(place, name) is not None}
    needed = {
        PatternKind.LEVELS_AND_AXES: {"level_um", "axis_deg"},
        PatternKind.LEVELS_AND_CLOCK: {"level_um", "hour"},
        PatternKind.LEVELS: {"level_um"},
        PatternKind.AXES: {"axis_deg"},
        PatternKind.GRID: {"along_um", "across_um"},
        PatternKind.ONCE: set(),
        PatternKind.CLOCK: {"hour"},
    }[kind]
    if given != needed:
        field = next(iter(sorted(needed - given) or sorted(given)))
        raise Refused(f"{ask.quantity.value.capitalize()} is read by {kind.value}: say where.", field)


def known_hole(facts: JobFacts, number: int | None) -> Hole:
    """Return the hole with that number, or refuse at the field."""
    if number is None:
        raise Refused("Which hole? Type its number first.", "hole")
    hole = facts.hole_numbered(number)
    if hole is None:
        numbers = [hole.number for hole in facts.holes]
        raise Refused(f"There is no hole {number}: this block has holes {min(numbers)} to {max(numbers)}.", "hole")
    return hole


def known_liner(facts: JobFacts, mark: str) -> Liner:
    """Return the liner with that mark, or refuse at the field."""
    for liner in facts.liners:
        if liner.mark.casefold() == mark.strip().casefold():
            return liner
    marks = ", ".join(liner.mark for liner in facts.liners) or "none yet"
    if not mark.strip():
        raise Refused(f"Say which liner by its mark: this job has {marks}.", "liner_mark")
    raise Refused(f"There is no liner marked {mark}: this job has {marks}.", "liner_mark")


def known_land(facts: JobFacts, name: str) -> str:
    """Return the card's own name of a land, or refuse at the field."""
    lands = [land.name for land in facts.card.lands]
    for land in lands:
        if land.casefold() == name.casefold():
            return land
    raise Refused(f"The card has no land called {name}: it has {', '.join(lands)}.", "land")
