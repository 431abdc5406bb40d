"""Fits as they stand: one liner in one hole, and all holes for the Fit lens."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.fits.fit import Fit, FitRefused, fit_of, liners_for, shown_liners
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Liner, Quantity
from vallostasis.core.trail import Phrase
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class FitAsked:
    """The fit that is asked for: which liner, by which school, where it is not what the job says."""

    hole: int
    liner: str | None = None
    school: str | None = None


def fit_now(conn: Conn, job_id: UUID, ask: FitAsked) -> tuple[JobFacts, Fit | FitRefused, tuple[Liner, ...]]:
    """Return the fit of a hole and a liner, and the liners that may go into that hole."""
    facts = lined(load_job_facts(conn, job_id))
    hole = known_hole(facts, ask.hole)
    offered = liners_for(facts, hole)
    if ask.liner is not None and all(one.mark != ask.liner for one in facts.liners):
        raise Refused(f"No liner of this job is marked {ask.liner}: choose one it has.", "liner")
    found = ask.liner or (offered[0].mark if offered else None)
    if found is None:
        return facts, no_liner(hole), offered
    return facts, fit_of(facts, hole, found, ask.school), offered


def fits_now(conn: Conn, job_id: UUID) -> tuple[JobFacts, tuple[Fit | FitRefused, ...]]:
    """Return the fit of every hole with its own liner, or the one that was tried in it."""
    facts = lined(load_job_facts(conn, job_id))
    shown = shown_liners(facts)
    found = [fit_of(facts, hole, shown[hole.number].mark) if hole.number in shown else no_liner(hole)
             for hole in facts.holes]  # fmt: skip
    return facts, tuple(found)


def no_liner(hole: Hole) -> FitRefused:
    """A hole without a liner that could go into it."""
    return FitRefused(hole, None, Phrase("No liner of this job is free: add the one that is to go in."))


def lined(facts: JobFacts) -> JobFacts:
    """Return the facts of a job whose engine has liners; refuse any other."""
    if facts.card.construction in feature_of(Quantity.LINER_OUTSIDE).not_in:
        raise Refused(f"An engine with {facts.card.construction.value} has no liners to fit.", "job_id")
    return facts
