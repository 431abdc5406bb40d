"""Experiments on record: what they found, whether that still holds, and what has to be looked at before metal or money.

References
----------
.. [1] Common practice, no published source: one change at a time; what all holes share is looked at before any of them.
"""

from dataclasses import dataclass, replace
from typing import Any

from vallostasis.core.causes.bore_table import BORE_CHECKS
from vallostasis.core.causes.of_job import AddsUp, bores_add_up, heights_add_up
from vallostasis.core.causes.table import COMMON, HEIGHTS, Known
from vallostasis.core.causes.weigh import Finding
from vallostasis.core.protrusion.measured import measured_hole
from vallostasis.core.records.experiments import Experiment, ExperimentResult, Matter
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.tape.fact_kinds import FACT_KINDS

# From that weight on a cause is taken for possible, and a common one has to be tested. House rule. [1]
POSSIBLE = 0.05


@dataclass(frozen=True, slots=True)
class Tried:
    """An experiment with what came of it; ``overtaken`` is why its finding counts no longer, empty where it does."""

    experiment: Experiment
    result: ExperimentResult | None
    overtaken: str = ""

    @property
    def finding(self) -> Finding | None:
        """What it tells of the causes; None where it is open, overtaken, or no check that reads a number."""
        one, result = self.experiment, self.result
        if not one.check_name or result is None or result.value_m is None or self.overtaken:
            return None
        return Finding(one.check_name, one.holes, result.value_m)


@dataclass(frozen=True, slots=True)
class Looked:
    """What does not add up of a job with everything that was tried about it.

    ``found`` says why nothing can be told where it is no ``AddsUp``. ``hold`` is why nothing is cut or bought yet.
    """

    found: AddsUp | str
    tried: tuple[Tried, ...]
    open_one: Experiment | None
    hold: str


def as_of(facts: JobFacts, event: int) -> JobFacts:
    """Return a job as it stood when an event was recorded. By definition: rows are only ever added."""
    earlier: dict[str, Any] = {
        kind.rows: tuple(one for one in getattr(facts, kind.rows) if one.event <= event)
        for kind in FACT_KINDS
        if any(getattr(one, "event", event) > event for one in getattr(facts, kind.rows))
    }
    return replace(facts, **earlier) if earlier else facts


def look_at(facts: JobFacts, matter: Matter, known: Known = HEIGHTS) -> Looked:
    """Weigh what may be behind what does not add up, by the readings and by every experiment that still holds.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    matter : Matter
        Heights or bores.
    known : Known
        Causes and checks of heights, the shop's own among them.

    Returns
    -------
    Looked
        What an experiment found counts until what it was about was read otherwise. House rule.
    """
    results = {one.experiment_id: one for one in facts.standing(facts.experiment_results)}
    mine = [one for one in facts.standing(facts.experiments) if one.matter is matter]
    now = _adds_up(facts, matter, (), known)
    tried = tuple(_tried(facts, one, results.get(one.experiment_id), now, known) for one in mine)
    checks = {one.name for one in (BORE_CHECKS if matter is Matter.BORES else known.checks)}
    findings = tuple(one.finding for one in tried if one.finding is not None and one.finding.check in checks)
    found = _adds_up(facts, matter, findings, known)
    begun = next((one for one in facts.standing(facts.experiments) if one.experiment_id not in results), None)
    return Looked(found, tried, begun, "" if isinstance(found, str) else _hold(found, findings, matter, known))


def _adds_up(facts: JobFacts, matter: Matter, findings: tuple[Finding, ...], known: Known) -> AddsUp | str:
    return bores_add_up(facts, findings) if matter is Matter.BORES else heights_add_up(facts, findings, known)


def _tried(
    facts: JobFacts, one: Experiment, result: ExperimentResult | None, now: AddsUp | str, known: Known
) -> Tried:  # fmt: skip
    if result is None or isinstance(now, str):
        return Tried(one, result)
    return Tried(one, result, _overtaken(facts, result.event, one.matter, one.holes, known))


@once
def _overtaken(facts: JobFacts, event: int, matter: Matter, holes: tuple[int, ...], known: Known) -> str:
    """Say what was read otherwise since, of the holes that it was about: without any, of those that were off then."""
    then, now = _adds_up(as_of(facts, event), matter, (), known), _adds_up(facts, matter, (), known)
    if isinstance(then, str) or isinstance(now, str) or then.holes == now.holes:
        return ""
    after = {one.hole: one for one in now.holes}
    for was in then.holes:
        if was.hole not in (holes or [one.hole for one in then.holes if not one.adds_up]):
            continue
        hole = after.get(was.hole)
        if hole is None or was.liner != hole.liner:
            return f"hole {was.hole} holds another liner since, or none"
        pairs = [(was.middle, hole.middle)] if hole.middle is not None else [
            (one.off, other.off) for one, other in zip(was.spots, hole.spots, strict=False)]  # fmt: skip
        for old, new in pairs:
            if old is not None and new is not None and abs(old.value_m - new.value_m) > new.expanded_m:
                return f"hole {hole.hole} was read otherwise since"
    return ""


def _hold(found: AddsUp, findings: tuple[Finding, ...], matter: Matter, known: Known) -> str:
    """Say why nothing may be cut or bought for what does not add up; empty where it may. [1]_ of the module."""
    if matter is Matter.BORES or not found.explained or found.explained[0].where == ((),):
        return ""
    if not findings:
        first = found.checks[0].check.name if found.checks else "read every hole again"
        return f"nothing was looked at yet: {first}"
    common = {one.name for one in known.causes if one.pattern in COMMON}
    made = [known.check(one.check) for one in findings]
    for cause in sorted(common):
        weight = sum(one.weight for one in found.explained if cause in one.causes)
        if weight >= POSSIBLE and not any(one is not None and one.share(cause) for one in made):
            check = next((one.check.name for one in found.checks if one.check.share(cause)), "")
            return f"{cause} was not tested" + (f": {check}" if check else "")
    return ""


@once
def hold_of(facts: JobFacts) -> str:
    """Say why no metal is cut and nothing is bought because of heights that do not add up; empty where they do.

    Common causes first, [1]_ of the module; causes and checks as the product knows them.
    """
    looked = look_at(facts, Matter.HEIGHTS)
    if isinstance(looked.found, str):
        return "land, dirt, shim and zero come first"
    if not looked.found.explained or looked.found.explained[0].where == ((),):
        return "read them once more: they are off by more than their ±, by less than can be told"
    return looked.hold


def why_not_buy(facts: JobFacts, holes: tuple[int, ...]) -> str:
    """Say why nothing is bought yet for some holes: their parts and their reading disagree, and nobody knows why.

    House rule: what is bought for a number that is wrong is bought twice.
    """
    for number in holes:
        hole = facts.hole_numbered(number)
        residual = None if hole is None else measured_hole(facts, hole).residual
        if residual is not None and not residual.agrees and (why := hold_of(facts)):
            return f"Parts and reading of hole {number} disagree: nothing is bought for it yet. First, {why}."
    return ""
