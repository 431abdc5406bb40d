"""What a block needs: the needs of its holes by operation, in the order of the work."""

from dataclasses import dataclass

from vallostasis.core.hole_now import hole_now
from vallostasis.core.needs import Need
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.route_marks import Operation


@dataclass(frozen=True, slots=True)
class HoleNeed:
    """What one hole needs."""

    hole: int
    need: Need


@dataclass(frozen=True, slots=True)
class BlockNeed:
    """One operation that is due, and the holes it is due for, in the order of the block."""

    operation: Operation
    holes: tuple[HoleNeed, ...]


@once
def needs_of_block(facts: JobFacts) -> tuple[BlockNeed, ...]:
    """Return what is due on a block, operation after operation. House rule: the order of the work."""
    needs = [HoleNeed(hole.number, hole_now(facts, hole).need) for hole in facts.holes]
    due = ((operation, tuple(one for one in needs if one.need.operation is operation)) for operation in Operation)
    return tuple(BlockNeed(operation, holes) for operation, holes in due if holes)
