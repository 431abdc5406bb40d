"""The swap table of a job: every fitting that was ever read, less its shims, and what was left out and why."""

from dataclasses import dataclass

from vallostasis.core.matching.swap_table import Exchange, FittingRead, SwapTable, next_exchange, swap_table
from vallostasis.core.matching.ways import liner_in
from vallostasis.core.protrusion.measured import shim_part
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Fitting, Hole, Quantity
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION
from vallostasis.core.surveys.survey import centre_of_set
from vallostasis.core.uncertainty.budget import Stated, stated, weighted


@dataclass(frozen=True, slots=True)
class FittingOnRecord:
    """One fitting that was read: hole and liner by their names in the table, its reading, whether it is in now. [m]"""

    hole: str
    liner: str
    read: Stated
    shims_m: float
    is_in: bool


@dataclass(frozen=True, slots=True)
class SwapsOfJob:
    """The swap table of a job, what it rests on, what was left out, and the exchange that would tell most. [m]"""

    fittings: tuple[FittingOnRecord, ...]
    table: SwapTable
    left_out: tuple[str, ...]
    proposed: Exchange | None


def swaps_of(facts: JobFacts) -> SwapsOfJob | str:
    """Tell holes from liners by every fitting of a job that was read.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    SwapsOfJob or str
        Or why there is none. A hole that was cut is another hole from then on; a reading over another land than the
        card's is left out: it tells of the lip. House rule. [m]
    """
    card = facts.card
    if card.construction not in CONSTRUCTIONS_WITH_PROTRUSION:
        return f"A {card.construction.value} has no protrusion: there is nothing to exchange liners for."
    read, fittings, left_out = [], [], []
    for hole in facts.holes:
        for fitting in facts.standing_fittings(hole.hole_id):
            found = _read_of(facts, hole, fitting)
            if isinstance(found, str):
                left_out += [found] if found else []
                continue
            one, on_record = found
            read.append(one)
            fittings.append(on_record)
    if not read:
        return "No fitted liner was read yet: read the protrusion of what is in."
    table = swap_table(read, card.coverage_factor)
    own_u = max(one.height.standard_m for one in read)
    present = {_name(facts, hole, None): mark for hole in facts.holes if (mark := liner_in(facts, hole)) is not None}
    bench = [one.mark for one in facts.liners if facts.hole_of_liner(one.liner_id) is None]
    return SwapsOfJob(tuple(fittings), table, tuple(left_out), next_exchange(read, present, bench, own_u))


def _name(facts: JobFacts, hole: Hole, before_event: int | None) -> str:
    """A hole by its number, and how often it was cut by then."""
    cuts = [one for one in facts.standing_cuts(hole.hole_id) if before_event is None or one.event < before_event]
    again = {0: "", 1: " once cut"}.get(len(cuts), f" cut {len(cuts)} times")
    return f"{hole.number}{again}"


def _read_of(facts: JobFacts, hole: Hole, fitting: Fitting) -> tuple[FittingRead, FittingOnRecord] | str:
    """The newest reading of a fitting, or why it does not count; empty where it was not read."""
    land, mark = facts.card.measuring.land, facts.liner(fitting.liner_id).mark
    sets = [one for one in facts.sets_of(Quantity.PROTRUSION) if one.fitting_id == fitting.fitting_id
            and facts.standing_readings(one)]  # fmt: skip
    if not sets:
        return ""
    there = [one for one in sets if facts.setup(one.setup_id).land == land]
    if not there:
        return f"{mark} in {hole.number}: read over the {facts.setup(sets[-1].setup_id).land}, not the {land}"
    centre = centre_of_set(facts, there[-1])
    if centre is None:
        return ""
    shims = [shim_part(one) for one in facts.shims_of(fitting.fitting_id)]
    height = weighted([(1.0, centre), *((-1.0, one.estimate) for one in shims)])
    name = _name(facts, hole, fitting.event)
    now = facts.present_fitting(hole.hole_id)
    is_in = now is not None and now.fitting_id == fitting.fitting_id
    value = stated("as read", centre, facts.card.coverage_factor)
    return FittingRead(name, mark, height), FittingOnRecord(name, mark, value, sum(one.size_m for one in shims), is_in)
