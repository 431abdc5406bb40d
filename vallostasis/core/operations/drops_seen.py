"""What drops on record show of heat and soak: when the block was hot, and that it came down to the room again.

Common practice, no published source.
"""

from vallostasis.core.records.heat_runs import FELT, HeatMark, HeatMarkKind, HeatRun
from vallostasis.core.records.job_facts import JobFacts

# Cold is within so much of the room. [K] Common practice, no published source.
COLD_WITHIN_K = 5.0


def _marks(facts: JobFacts, run: HeatRun) -> list[HeatMark]:
    return [one for one in facts.standing(facts.heat_marks) if one.heat_run_id == run.heat_run_id]


def _over_room_k(run: HeatRun, marks: list[HeatMark], read: HeatMark | None) -> float:
    """How far a block is from the room; as it was planned where nobody read it. [K]"""
    rooms = [one.celsius for one in marks if one.kind is HeatMarkKind.ROOM_READ and one.celsius is not None]
    block_c = run.block_c if read is None or read.celsius is None else read.celsius
    return float(block_c) - float(rooms[-1] if rooms else run.air_c)


def _block_read(marks: list[HeatMark]) -> list[HeatMark]:
    return [one for one in marks if one.kind is HeatMarkKind.BLOCK_READ and one.celsius is not None]


def heated_for_drops(facts: JobFacts) -> tuple[HeatMark, ...]:
    """Return every moment at which a liner came out of the cold for a block that was hot. Common practice."""
    found = []
    for run in facts.standing(facts.heat_runs):
        marks = _marks(facts, run)
        out = next((one for one in marks if one.kind is HeatMarkKind.OUT), None)
        before = [one for one in _block_read(marks) if out is not None and one.noted_at <= out.noted_at]
        if out is not None and _over_room_k(run, marks, before[-1] if before else None) > COLD_WITHIN_K:
            found.append(out)
    return tuple(found)


def warm_block_of(facts: JobFacts) -> HeatMark | None:
    """Return the newest reading of a block that was warm in a drop. [°C] Common practice."""
    found = []
    for run in facts.standing(facts.heat_runs):
        marks = _marks(facts, run)
        if any(one.kind is HeatMarkKind.OUT for one in marks):
            found += [one for one in _block_read(marks) if _over_room_k(run, marks, one) > COLD_WITHIN_K]
    return max(found, key=lambda one: one.event, default=None)


def cold_again_of(facts: JobFacts) -> HeatMark | None:
    """Return the reading that shows the block within 5 K of the room after the last drop. Common practice.

    None where no liner dropped, or the block of one of them was not read as cold since.
    """
    last = None
    for run in facts.standing(facts.heat_runs):
        marks = _marks(facts, run)
        home = next((one for one in marks if one.kind in FELT), None)
        if home is None:
            continue
        since = [one for one in _block_read(marks) if one.noted_at > home.noted_at]
        if not since or abs(_over_room_k(run, marks, since[-1])) > COLD_WITHIN_K:
            return None
        last = since[-1]
    return last
