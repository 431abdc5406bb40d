"""The wall of a hole as it is known now."""

from uuid import UUID

from vallostasis.core.bores.wall import Wall, wall_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import UNLINED
from vallostasis.core.surveys.loads import running_bore
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def wall_now(
    conn: Conn, job_id: UUID, number: int, of: Quantity | None, with_expanded: bool
) -> tuple[JobFacts, Wall, str, list[Quantity]]:
    """Return the wall of a hole, its title, and the bores that the hole has."""
    facts = load_job_facts(conn, job_id)
    hole = known_hole(facts, number)
    quantities = [Quantity.BLOCK_BORE] if facts.card.construction in UNLINED else [Quantity.LINER_BORE,
                                                                                    Quantity.BLOCK_BORE]  # fmt: skip
    quantity = of or _with_readings(facts, quantities)
    if quantity not in quantities:
        names = " and ".join(one.value for one in quantities)
        raise Refused(f"A hole of this block has a {names}: choose one of them.", "of")
    wall = wall_of(facts, hole, quantity, with_expanded)
    what = "parent bore" if facts.card.construction in UNLINED else quantity.value
    return facts, wall, f"hole {hole.number}, {what}", quantities


def _with_readings(facts: JobFacts, quantities: list[Quantity]) -> Quantity:
    """The bore that runs; the other where only that was read."""
    running = running_bore(facts.card)
    if facts.sets_of(running):
        return running
    return next((one for one in quantities if facts.sets_of(one)), running)
