"""What the proof says of fits: the press that was read, the pull, what the bore says since, who did it."""

from dataclasses import dataclass

from vallostasis.core.fits.after import After, after_of
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.fits.pull import PullNow, pulls_of
from vallostasis.core.fits.seated import SeatCheck, seat_checks
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.spec_card import UNLINED


@dataclass(frozen=True, slots=True)
class ProofFit:
    """A hole whose liner is in, with the press it met where both were read, the pull on record, and what came of it."""

    number: int
    liner: str
    fit: Fit | None
    pull: PullNow | None
    after: After | None
    seat: tuple[SeatCheck, ...]


def proof_fits(facts: JobFacts) -> tuple[ProofFit, ...]:
    """Collect every hole whose liner was measured before it went in, or was pulled in on record."""
    if facts.card.construction in UNLINED:
        return ()
    found = []
    for hole in facts.holes:
        fitting = facts.present_fitting(hole.hole_id)
        if fitting is None:
            continue
        mark = facts.liner(fitting.liner_id).mark
        fit, pulls = fit_of(facts, hole, mark), pulls_of(facts, hole)
        known = fit if isinstance(fit, Fit) else None
        if known is not None or pulls:
            found.append(ProofFit(hole.number, mark, known, pulls[-1] if pulls else None, after_of(facts, hole),
                                  seat_checks(facts, hole)))  # fmt: skip
    return tuple(found)
