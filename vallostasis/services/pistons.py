"""Pistons in their holes: the match sheet, and marks written down."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.notation.lengths import Unit
from vallostasis.core.pistons.match import Matched, matches_of
from vallostasis.core.pistons.order import OrderSheet, order_sheet
from vallostasis.core.records.piston_matches import PinStyle, PistonRun
from vallostasis.documents.part_order import Agreed, part_order_html
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import Refused
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_bore_facts import NewPistonMatch
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class MatchTyped:
    """A piston in its hole, as it was typed."""

    match_id: UUID
    mark: str
    faces: str
    run: PistonRun
    pin: PinStyle
    words: str = ""


def match_sheet(conn: Conn, job_id: UUID) -> tuple[Matched, ...]:
    """Return the match sheet of a job."""
    return matches_of(load_job_facts(conn, job_id))


def order_of(conn: Conn, job_id: UUID, number: int) -> OrderSheet:
    """Return what is ordered to a bore."""
    facts = load_job_facts(conn, job_id)
    return order_sheet(facts, known_hole(facts, number))


def order_as_html(conn: Conn, job_id: UUID, number: int, agreed: Agreed, unit: Unit) -> str:
    """What is ordered to a bore, as a page from which the PDF is printed."""
    facts = load_job_facts(conn, job_id)
    sheet = order_sheet(facts, known_hole(facts, number))
    return part_order_html(f"Job {facts.job.number}, {facts.job.name}", facts.card.engine, sheet, agreed, unit)


def record_match(conn: Conn, job_id: UUID, number: int, typed: MatchTyped, by: UUID) -> None:
    """Write down which piston runs in a hole; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.match_id == typed.match_id for one in facts.piston_matches):
        return
    hole = known_hole(facts, number)
    if not typed.mark.strip():
        raise Refused("Mark the piston, and type what stands on it now: an unmarked piston goes to another hole.",
                      "mark")  # fmt: skip
    if not typed.faces.strip():
        raise Refused("Say which way it faces, such as arrow to the front.", "faces")
    record_fact(conn, NewPistonMatch(typed.match_id, job_id, hole.hole_id, typed.mark.strip(), typed.faces.strip(),
                                     typed.run, typed.pin, typed.words.strip()), by)  # fmt: skip
