"""A conversion as it stands."""

from uuid import UUID

from vallostasis.core.conversions.conversion import Conversion, conversion_of, is_converted
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.services.fits import lined
from vallostasis.services.refused import Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def conversion_now(conn: Conn, job_id: UUID) -> tuple[JobFacts, Conversion]:
    """Return what a conversion asks of every hole, and the cut of the deck that ends it."""
    facts = lined(load_job_facts(conn, job_id))
    if not is_converted(facts):
        raise Refused(
            "Neither the card nor the schools of this job know of a conversion: fill in its part of the card, "
            "or choose liners left proud.", "job_id",
        )  # fmt: skip
    return facts, conversion_of(facts)
