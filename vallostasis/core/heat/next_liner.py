"""Which liner goes next with what is left of the heat, and until when.

References
----------
.. [1] Exponential cooling of a lumped block, closed form: until when it is as warm as a liner needs it.
"""

from dataclasses import dataclass
from math import log

from vallostasis.core.fits.fit import Fit, fit_of, shown_liners
from vallostasis.core.heat.live import LiveWindow
from vallostasis.core.heat.planner import HeatFit, heat_fit
from vallostasis.core.heat.run import DropNow
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.thermal.shrink import block_needed

# Kept over what is needed, so that the window lasts while a liner is carried and sinks in. [m] House rule.
KEPT_M = 15e-6


@dataclass(frozen=True, slots=True)
class NextLiner:
    """A hole still to be filled: its liner, how warm it needs the block as it enters, until when the block is. [°C]

    ``until_s`` counts from the moment the present liner left the cold, at which the next one leaves it at the latest;
    None where the block is too cold already or no heat is enough. ``missing`` says what is not known. [s]
    """

    hole: int
    liner: str
    needs_c: float | None
    until_s: float | None
    missing: str


def next_liners(facts: JobFacts, now: DropNow, live: LiveWindow, now_s: float) -> tuple[NextLiner, ...]:
    """Return the holes that are still to be filled, the one whose time runs out first at the head.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    now : DropNow
        The drop that ran or runs.
    live : LiveWindow
        What its thermometers taught of the block.
    now_s : float
        Seconds since its liner left the cold. [s]

    Returns
    -------
    tuple of NextLiner
        By the worst pair of readings, the clearance wanted and a little; cooling in closed form [1]_ of the module.
    """
    liners = shown_liners(facts)
    found = []
    for hole in facts.holes:
        if hole.hole_id == now.run.hole_id or facts.present_fitting(hole.hole_id) is not None:
            continue
        liner = liners.get(hole.number)
        if liner is None:
            continue
        fit = fit_of(facts, hole, liner.mark)
        known = heat_fit(facts, fit) if isinstance(fit, Fit) else None
        if not isinstance(known, HeatFit):
            found.append(NextLiner(hole.number, liner.mark, None, None, "read hole and liner first"))
            continue
        found.append(_until(known, hole.number, liner.mark, now, live, now_s))
    return tuple(sorted(found, key=lambda one: (one.until_s is None, one.until_s or 0.0, one.hole)))


def _until(fit: HeatFit, hole: int, mark: str, now: DropNow, live: LiveWindow, now_s: float) -> NextLiner:
    run = now.run
    needs = block_needed(fit.pair, float(run.wanted_um) * 1e-6 + KEPT_M, float(run.liner_c))
    if needs is None:
        return NextLiner(hole, mark, None, None, "no heat is enough: read hole and liner again")
    start, air = live.spreads.block_c, live.air_c
    if needs <= air:
        return NextLiner(hole, mark, needs, float("inf"), "")
    if start <= needs:
        return NextLiner(hole, mark, needs, None, "")
    # It has to be that warm as the liner enters, so much after it leaves the cold.
    until = live.spreads.block_s * log((start - air) / (needs - air)) - float(run.enter_s) - float(run.home_s)
    return NextLiner(hole, mark, needs, until if until > now_s else None, "")
