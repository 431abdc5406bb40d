"""Taking a job in, and the floor with all jobs."""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from uuid import UUID

from vallostasis.core.floor import FloorNow, floor_of, is_away, may_be_filed
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Job, Liner, Quantity
from vallostasis.core.records.spec_card import hole_numbers
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.route import follow_the_shop
from vallostasis.store import gauges, jobs, readings, spec_cards
from vallostasis.store.fact_rows import list_facts, record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_calendar_facts import NewFiling
from vallostasis.store.new_facts import NewCardChosen, NewLiner, NewSetup
from vallostasis.store.rows import Conn

DEPTH_LAND = "ledge"


@dataclass(frozen=True, slots=True)
class FloorJob:
    """One job as a strip on the floor."""

    facts: JobFacts
    now: FloorNow


def list_floor(conn: Conn, today: date, away: bool = False) -> list[FloorJob]:
    """Return every job that stands on the floor, or every one that was put away, with what is said of it."""
    loaded = [load_job_facts(conn, job.job_id) for job in _wanted(conn, away)]
    return [FloorJob(facts, floor_of(facts, today)) for facts in loaded]


def _wanted(conn: Conn, away: bool) -> list[Job]:
    filed = jobs.list_filed(conn)
    return [job for job in jobs.list_jobs(conn) if (job.job_id in filed) == away]


def file_job(conn: Conn, job_id: UUID, away: bool, words: str, by: UUID) -> None:
    """Put a job away, off the floor, or bring it back; one that was not released needs a reason."""
    facts = lock_job_facts(conn, job_id)
    if is_away(facts) == away:
        return
    missing = may_be_filed(facts)
    if away and missing and not words.strip():
        raise Refused(f"{facts.job.name} is not done, {missing}. Say why it is put away all the same.", "words")
    record_fact(conn, NewFiling(job_id, away, words.strip()), by)


def take_in_job(conn: Conn, new: jobs.NewJob, spec_card_id: UUID, taken_by: UUID) -> UUID:
    """Take an engine in: job, block and holes as the newest version of its card says, the schools as the shop does."""
    versions = spec_cards.list_versions(conn, spec_card_id)
    if not versions:
        raise Refused("Choose the spec card this engine is measured to.", "spec_card_id")
    if any(job.number.casefold() == new.number.casefold() for job in jobs.list_jobs(conn)):
        raise Refused(f"Job number {new.number} is taken: give this job another.", "number", RefusalCode.TAKEN)
    version, card = versions[0]
    job_id = jobs.add_job(conn, new)
    jobs.add_holes(conn, job_id, hole_numbers(card))
    record_fact(conn, NewCardChosen(job_id, version.spec_card_version_id), taken_by)
    _first_setups(conn, job_id, taken_by)
    follow_the_shop(conn, load_job_facts(conn, job_id), taken_by)
    return job_id


def _first_setups(conn: Conn, job_id: UUID, by: UUID) -> None:
    """Start from the card's own circumstances and the gauge in use, else the first that was registered of a kind.

    One that was registered later is chosen by somebody, never by itself.
    """
    _, card = spec_cards.get_version(conn, jobs.present_card_version(conn, job_id))
    cabinet = gauges.list_gauges(conn)
    for quantity, kind in GAUGE_KINDS.items():
        in_use = readings.last_gauge_chosen(conn, quantity)
        gauge = next((one for one in cabinet if one.gauge_id == in_use), None)
        gauge = gauge or next((one for one in gauges.list_gauges_as_added(conn) if one.kind == kind), None)
        if gauge is None:
            continue
        measuring = card.measuring
        protrusion = quantity is Quantity.PROTRUSION
        new = NewSetup(
            job_id=job_id,
            quantity=quantity,
            gauge_id=gauge.gauge_id,
            land=DEPTH_LAND if quantity is Quantity.COUNTERBORE_DEPTH else measuring.land,
            datum="" if quantity is Quantity.FLANGE_THICKNESS else measuring.datum,
            hold_down=measuring.hold_down if protrusion else "",
            hold_down_torque_nm=Decimal(str(measuring.hold_down_torque_nm))
            if protrusion and measuring.hold_down_torque_nm is not None
            else None,
            shared_zero=protrusion,
        )
        record_fact(conn, new, by)


GAUGE_KINDS: dict[Quantity, str] = {
    Quantity.PROTRUSION: "depth gauge",
    Quantity.COUNTERBORE_DEPTH: "depth gauge",
    Quantity.FLANGE_THICKNESS: "micrometer",
}


def add_liner(conn: Conn, job_id: UUID, mark: str, make: str, batch: str) -> Liner:
    """Add a liner to a job."""
    jobs.lock_job(conn, job_id)
    if any(liner.mark.casefold() == mark.casefold() for liner in list_facts(conn, "liners", job_id)):
        raise Refused(f"There is a liner marked {mark}: mark this one differently.", "mark", RefusalCode.TAKEN)
    new = NewLiner(job_id, mark, make, batch)
    record_fact(conn, new)
    return Liner(new.liner_id, mark, make, batch)
