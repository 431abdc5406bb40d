"""What of the money leaves the house: the estimate as a page, the bill with its credit."""

from datetime import datetime
from uuid import UUID

from vallostasis.core.money.bill import Bill, bill_of
from vallostasis.core.money.standing import Standing, estimate_with
from vallostasis.documents.estimate import EstimatePage, estimate_html
from vallostasis.services.money import money_now
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def estimate_page(conn: Conn, job_id: UUID, estimate_id: UUID) -> str:
    """Return an estimate as a page of two sheets."""
    facts = load_job_facts(conn, job_id)
    written = estimate_with(facts, estimate_id)
    if written is None:
        raise Refused("That estimate is not there any more: look again.", "estimate_id", RefusalCode.STALE)
    declined = tuple((one.what, one.reason) for one in facts.standing(facts.declined))
    return estimate_html(EstimatePage(facts.job, facts.card.engine, written, declined))


def bill_now(conn: Conn, job_id: UUID, now: datetime) -> tuple[Bill, Standing]:
    """Work the bill of a job out as it stands, with how its estimate stands."""
    standing = money_now(conn, job_id, now).standing
    if standing is None:
        raise Refused("Nothing was agreed on this job yet: write an estimate and have it agreed first.", "estimate_id")
    return bill_of(standing), standing
