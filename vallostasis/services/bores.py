"""The bores of a block, all holes at once, as the Bore lens shows them."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.bores.needs import need_of_survey
from vallostasis.core.features.parts import parts_of
from vallostasis.core.fits.interference import InterferenceToCome, interference_to_come
from vallostasis.core.lenses import bores_of
from vallostasis.core.needs import Need
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.services.refused import Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class BoreNow:
    """One bore as it stands: its survey, the press of each liner that was read, and what it needs."""

    survey: Survey
    interference: tuple[InterferenceToCome, ...]
    need: Need


def bores_now(conn: Conn, job_id: UUID, quantity: Quantity) -> tuple[JobFacts, tuple[BoreNow, ...]]:
    """Load a job and return a bore of every hole."""
    facts = load_job_facts(conn, job_id)
    offered = bores_of(facts.card)
    if quantity not in offered:
        names = " or ".join(one.value for one in offered)
        raise Refused(f"A block with {facts.card.construction.value} is looked at by its {names}.", "quantity")
    surveys = [survey_of(facts, quantity, part) for part in parts_of(facts, quantity)]
    bores = (BoreNow(one, interference_to_come(facts, one), need_of_survey(one, one.state)) for one in surveys)
    return facts, tuple(bores)
