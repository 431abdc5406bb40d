"""The matching that was chosen, as a tray list: what is drawn, cut, fitted and read, and how far it is done."""

from dataclasses import dataclass
from enum import StrEnum
from uuid import UUID

from vallostasis.core.protrusion.measured import deciding_bore, protrusion_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.matchings import MatchedPlace
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION


class StepKind(StrEnum):
    """What is done at one step of the tray list."""

    DRAW = "draw"
    CUT = "cut"
    FIT = "fit"
    READ = "read"


@dataclass(frozen=True, slots=True)
class TrayStep:
    """One step: a liner and a hole, whether it is done, and whether it can be done now."""

    kind: StepKind
    hole: int
    liner: str
    done: bool
    ready: bool


@dataclass(frozen=True, slots=True)
class ChosenMatching:
    """The matching that holds, by whom and when, and its steps: everything drawn before anything goes in."""

    rows: tuple[MatchedPlace, ...]
    steps: tuple[TrayStep, ...]

    @property
    def is_done(self) -> bool:
        """Whether every liner is where it was to go, and read there."""
        return all(one.done for one in self.steps)


def chosen_matching(facts: JobFacts) -> ChosenMatching | None:
    """Return the matching that was chosen last and stands; None where none was.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    ChosenMatching or None
        A hole that keeps its liner and is not cut has no step; one whose row was struck neither. House rule.
    """
    rows = facts.standing(facts.matched_places)
    if not rows:
        return None
    newest = tuple(one for one in rows if one.matching_id == rows[-1].matching_id)
    holes = {hole.hole_id: hole for hole in facts.holes}
    steps = [step for row in newest for step in _steps(facts, holes[row.hole_id], row)]
    order = list(StepKind)
    return ChosenMatching(newest, tuple(sorted(steps, key=lambda one: order.index(one.kind))))


def _steps(facts: JobFacts, hole: Hole, row: MatchedPlace) -> list[TrayStep]:
    liner, now = facts.liner(row.liner_id), facts.present_fitting(hole.hole_id)
    was = _in_it_then(facts, hole, row)
    number, stays = hole.number, was is not None and was == row.liner_id
    if stays and row.shim_um is None:
        return []
    cut = any(one.event > row.event for one in facts.standing_cuts(hole.hole_id))
    home = now is not None and now.liner_id == row.liner_id and (now.event > row.event)
    steps = []
    if was is not None:
        drawn = now is None or now.event > row.event
        steps.append(TrayStep(StepKind.DRAW, number, facts.liner(was).mark, drawn, now is not None))
    if row.shim_um is not None:
        steps.append(TrayStep(StepKind.CUT, number, liner.mark, cut, not cut))
    free = facts.hole_of_liner(row.liner_id) is None and now is None
    steps.append(TrayStep(StepKind.FIT, number, liner.mark, home, free and (cut or row.shim_um is None)))
    steps.append(TrayStep(StepKind.READ, number, liner.mark, home and _is_read(facts, hole), home))
    return steps


def _in_it_then(facts: JobFacts, hole: Hole, row: MatchedPlace) -> UUID | None:
    """The liner that was in a hole when the matching was chosen."""
    gone = {out.fitting_id for out in facts.fitting_outs if out.event < row.event}
    then = [one for one in facts.standing_fittings(hole.hole_id)
            if one.event < row.event and one.fitting_id not in gone]  # fmt: skip
    return then[-1].liner_id if then else None


def _is_read(facts: JobFacts, hole: Hole) -> bool:
    survey = (protrusion_of if facts.card.construction in CONSTRUCTIONS_WITH_PROTRUSION else deciding_bore)(facts, hole)
    return survey.reading_set is not None and not survey.missing and bool(survey.read)
