"""What the proof says of fits: the press that was read, the pull, what the bore says since, who did it."""

from dataclasses import dataclass

from vallostasis.core.fits.after import After, after_of
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.fits.pull import PullNow, pulls_of
from vallostasis.core.fits.seated import SeatCheck, seat_checks
from vallostasis.core.heat.after import Heights, heights_of
from vallostasis.core.heat.felt import Felt, felt_of
from vallostasis.core.heat.live import live_window
from vallostasis.core.heat.planner import HeatFit, heat_fit
from vallostasis.core.heat.run import drops_of
from vallostasis.core.records.heat_runs import HeatRun
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import UNLINED


@dataclass(frozen=True, slots=True)
class ProofDrop:
    """A liner that was dropped hot and cold: temperatures as both came out [°C], how it went, what was expected."""

    run: HeatRun
    block_c: float
    liner_c: float
    felt: Felt | None
    heights: Heights


@dataclass(frozen=True, slots=True)
class ProofFit:
    """A hole whose liner is in, with the press it met where both were read, the pull on record, and what came of it."""

    number: int
    liner: str
    fit: Fit | None
    pull: PullNow | None
    drop: ProofDrop | None
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
        drop = _drop(facts, hole, known)
        if known is not None or pulls or drop is not None:
            found.append(ProofFit(hole.number, mark, known, pulls[-1] if pulls else None, drop, after_of(facts, hole),
                                  seat_checks(facts, hole)))  # fmt: skip
    return tuple(found)


def _drop(facts: JobFacts, hole: Hole, known: Fit | None) -> ProofDrop | None:
    """The drop that brought the liner of a hole home, worked out with all that was read of it."""
    drops = [one for one in drops_of(facts, hole) if one.home is not None]
    fit = None if known is None else heat_fit(facts, known)
    if not drops or not isinstance(fit, HeatFit):
        return None
    now = drops[-1]
    live = live_window(fit, now, 0.0)
    return ProofDrop(now.run, live.spreads.block_c, live.spreads.liner_c, felt_of(now, live),
                     heights_of(facts, now, live.air_c))  # fmt: skip
