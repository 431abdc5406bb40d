"""Is a liner seated? What is looked at once it is home, and whether somebody did.

All of it is common practice, no published source: four points, a feeler that enters nowhere, the step to its
neighbours, a second press, the mark of its hole.
"""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from vallostasis.core.fits.pull import PullNow, PullState, pulls_of
from vallostasis.core.protrusion.measured import judge_job, protrusion_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.pulls import PullMark, PullMarkKind
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION
from vallostasis.core.uncertainty.decision import RuleKind, State


class SeatLook(StrEnum):
    """What is looked at."""

    ROUND = "read at its clock positions"
    FEELER = "feeler under the flange"
    NEIGHBOURS = "step to its neighbours"
    SECOND_PRESS = "pressed a second time"
    LABEL = "marked for its hole"


@dataclass(frozen=True, slots=True)
class SeatCheck:
    """One look: how it stands, in words, and by whom and when where somebody wrote it down."""

    look: SeatLook
    state: State
    words: str
    by: str = ""
    at: datetime | None = None
    marked_by: tuple[PullMarkKind, ...] = ()


def seat_checks(facts: JobFacts, hole: Hole) -> tuple[SeatCheck, ...]:
    """Return what is looked at of a liner that is home; none while it is not. House rule.

    Marks of its pull hold feeler, second press and label; readings hold the others. [m]
    """
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is None:
        return ()
    pull = home_pull(facts, hole)
    found = list[SeatCheck]()
    if facts.card.construction in CONSTRUCTIONS_WITH_PROTRUSION:
        survey = protrusion_of(facts, hole)
        whole = bool(survey.read) and not survey.missing
        words = f"{len(survey.read)} of {len(survey.read) + len(survey.missing)} read" if survey.read else "not read"
        found.append(SeatCheck(SeatLook.ROUND, State.IN if whole else State.NOT_MEASURED, words))
        beside = [one for row in judge_job(facts).holes if row.hole == hole.number
                  for one in row.rules if one.kind is RuleKind.NEIGHBOUR]  # fmt: skip
        worst = next((one for one in beside if one.decision.state is not State.IN), beside[0] if beside else None)
        found.append(SeatCheck(SeatLook.NEIGHBOURS, State.NOT_MEASURED if worst is None else worst.decision.state,
                               "no neighbour read" if worst is None else f"against {worst.where}"))  # fmt: skip
    if pull is not None:
        found += [
            _by_mark(SeatLook.FEELER, pull, PullMarkKind.FEELER_NOWHERE, PullMarkKind.FEELER_ENTERS),
            _by_mark(SeatLook.SECOND_PRESS, pull, PullMarkKind.SECOND_STILL, PullMarkKind.SECOND_MOVED),
            _by_mark(SeatLook.LABEL, pull, PullMarkKind.LABELLED),
        ]
    return tuple(found)


def home_pull(facts: JobFacts, hole: Hole) -> PullNow | None:
    """Return the pull by which the liner of a hole came home; None where none is on record. By its marks."""
    pulls = pulls_of(facts, hole)
    return pulls[-1] if pulls and pulls[-1].state is PullState.HOME else None


def _by_mark(look: SeatLook, pull: PullNow, good: PullMarkKind, bad: PullMarkKind | None = None) -> SeatCheck:
    kinds = (good,) if bad is None else (good, bad)
    mark: PullMark | None = next((one for one in reversed(pull.marks) if one.kind in kinds), None)
    if mark is None:
        return SeatCheck(look, State.NOT_MEASURED, "not looked at", marked_by=kinds)
    words = mark.words or mark.kind.value
    return SeatCheck(look, State.IN if mark.kind is good else State.OUT, words, mark.noted_by, mark.noted_at, kinds)
