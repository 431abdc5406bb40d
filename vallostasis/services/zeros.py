"""Zeros that moved: corrections, the look that finds them, and places that cannot be read."""

from dataclasses import asdict
from uuid import UUID

from vallostasis.core.features.plan import pattern_of
from vallostasis.core.features.usual_lengths import ZERO_MOVED
from vallostasis.core.gauges.zero_checks import Doubt, Drift, look_standard_um, open_doubts, shift_for, zero_holds
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import as_entered, parse_length
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.surveys.places import unreadable_places
from vallostasis.services.reading_target import known_part, surveyed_target
from vallostasis.services.refused import Refused
from vallostasis.store import jobs
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_facts import NewCorrection, NewStrike, NewUnreadable, NewZeroCheck
from vallostasis.store.rows import Conn


def correct_zero(conn: Conn, job_id: UUID, set_id: UUID, text: str, bare_unit: Unit, reason: str, by: UUID) -> None:
    """Record that the zero of a set was found moved: added to all its readings, as uncertain as the gauge's step."""
    jobs.lock_job(conn, job_id)
    facts = load_job_facts(conn, job_id)
    reading_set = next((s for s in facts.sets if s.reading_set_id == set_id), None)
    if reading_set is None:
        raise Refused("There is no such set in this job.", "reading_set_id")
    parsed = parse_length(text, bare_unit, ZERO_MOVED, confirmed=False)
    gauge = facts.gauge_version(reading_set.gauge_version_id)
    new = NewCorrection(set_id, parsed.value_um, look_standard_um(gauge), parsed.typed, reason)
    record_fact(conn, new, by)


def check_zero(conn: Conn, job_id: UUID, quantity: Quantity, text: str, bare_unit: Unit, by: UUID) -> bool:
    """Record a look at the zero of a feature's gauge; return whether it still stands."""
    facts = lock_job_facts(conn, job_id)
    setup = facts.present_setup(quantity)
    if setup is None:
        raise Refused(f"Choose the gauge for {quantity.value} first.", "quantity")
    parsed = parse_length(text, bare_unit, ZERO_MOVED, confirmed=False)
    typed = as_entered(parsed.typed, parsed.unit)
    record_fact(conn, NewZeroCheck(job_id, setup.setup_id, parsed.value_um, typed), by)
    return zero_holds(parsed.value_um, facts.newest_gauge(setup.gauge_id))


def settle_doubt(conn: Conn, job_id: UUID, zero_check_id: UUID, how: str, drift: Drift, by: UUID) -> int:
    """Correct every reading that a moved zero made doubtful, or strike them; return how many."""
    facts = lock_job_facts(conn, job_id)
    doubt = next((one for one in open_doubts(facts) if one.check.zero_check_id == zero_check_id), None)
    if doubt is None:
        raise Refused("Nothing is doubtful because of that look at the zero, or not any more.", "zero_check_id")
    if how == "strike":
        for reading_id in doubt.reading_ids:
            reason = f"zero found moved by {doubt.check.typed}"
            record_fact(conn, NewStrike(job_id, True, reason, reading_id=reading_id), by)
    else:
        _correct(conn, doubt, drift, facts.newest_gauge(doubt.setup.gauge_id), by)
    return len(doubt.reading_ids)


def _correct(conn: Conn, doubt: Doubt, drift: Drift, gauge: GaugeVersion, by: UUID) -> None:
    shift = shift_for(doubt.check.moved_um, drift, gauge)
    for reading_set in doubt.sets:
        new = NewCorrection(
            reading_set.reading_set_id,
            shift.correction_um,
            shift.standard_um,
            f"{shift.correction_um.normalize():f} µm",
            f"zero found moved by {doubt.check.typed}, {drift.value}",
            doubt.since_event,
            doubt.check.event,
        )
        record_fact(conn, new, by)


def mark_place_unreadable(
    conn: Conn, job_id: UUID, quantity: Quantity, key: str, place: Place, unreadable: bool, reason: str, by: UUID
) -> None:
    """Record that a place of a part cannot be read, or can be again."""
    facts = lock_job_facts(conn, job_id)
    target = surveyed_target(facts, quantity, key)
    if unreadable and not reason.strip():
        raise Refused("Why can it not be read? Type the reason, such as a stud or a port in the way.", "reason")
    if place not in pattern_of(facts.card, quantity)[0].places:
        raise Refused("Nothing asks for this place: simply leave it out.", "place")
    said = unreadable_places(facts, quantity, known_part(facts, quantity, key))
    if (place in said) is unreadable and said.get(place, "") == reason.strip():
        raise Refused("It is said already." if unreadable else "Nothing was said about it.", "place")
    where = {
        "fitting_id": target.fitting_id,
        "hole_id": target.hole_id,
        "liner_id": target.liner_id,
        "part": target.part,
        **asdict(place),
    }
    record_fact(conn, NewUnreadable(job_id, quantity, unreadable, reason.strip(), **where), by)
