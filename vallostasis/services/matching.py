"""Who goes where: the liners of a job matched to its holes as somebody wishes it, and chosen by somebody."""

from dataclasses import dataclass
from uuid import UUID, uuid4

from vallostasis.core.matching.chosen import ChosenMatching, chosen_matching
from vallostasis.core.matching.of_job import BlockMatching, MatchWishes, matching_of
from vallostasis.core.matching.words import WhatLimits, what_limits
from vallostasis.core.notation.lengths import micrometres
from vallostasis.core.protrusion.measured import flange_part, ledge_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_cut_facts import NewMatchedPlace
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class MatchingNow:
    """The best arrangement or why there is none, what limits it, and the one that was chosen. [m]"""

    facts: JobFacts
    found: BlockMatching | str
    limits: WhatLimits
    chosen: ChosenMatching | None

    @property
    def flanges_m(self) -> dict[str, float]:
        """Flange of each liner by its mark, where it is matched by one. [m]"""
        if isinstance(self.found, str):
            return {}
        land = self.facts.card.measuring.land
        parts = {one.mark: flange_part(self.facts, one, land) for one in self.found.table.liners}
        return {mark: part.size_m for mark, part in parts.items() if part is not None}

    @property
    def ledges_m(self) -> dict[int, float]:
        """Ledge of each hole, where it was read. [m]"""
        if isinstance(self.found, str):
            return {}
        ledges = {one.number: ledge_of(self.facts, one) for one in self.found.table.holes}
        return {number: ledge.depth_m for number, ledge in ledges.items() if ledge is not None}


def matching_now(conn: Conn, job_id: UUID, wishes: MatchWishes) -> MatchingNow:
    """Match the liners of a job to its holes, or say why nothing can be matched yet."""
    facts = load_job_facts(conn, job_id)
    found = matching_of(facts, wishes)
    limits = WhatLimits() if isinstance(found, str) else what_limits(facts, found)
    return MatchingNow(facts, found, limits, chosen_matching(facts))


def choose_matching(conn: Conn, job_id: UUID, wishes: MatchWishes, order: tuple[str, ...], by: UUID) -> None:
    """Choose the arrangement as it is worked out now, if it is the one that was seen."""
    facts = lock_job_facts(conn, job_id)
    found = matching_of(facts, wishes)
    if isinstance(found, str):
        raise Refused(found, "order")
    if found.order != order:
        raise Refused("Something was read or fitted meanwhile: look at the new order first.", "order",
                      RefusalCode.STALE)  # fmt: skip
    if not found.moves and not any(one.cut for one in found.holes):
        raise Refused("Every liner stays where it is: there is nothing to choose.", "order")
    matching_id = uuid4()
    by_number = {hole.number: hole for hole in facts.holes}
    for one in found.holes:
        liner = next(liner for liner in facts.liners if liner.mark == one.then)
        shim = None if one.shim_m is None else micrometres(one.shim_m)
        record_fact(conn, NewMatchedPlace(job_id, matching_id, by_number[one.hole].hole_id, liner.liner_id, shim), by)
