"""Who goes where: liners in holes as read, the best arrangement, what limits it, and the tray list once chosen."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.core.in_turn import Reached
from vallostasis.core.matching.chosen import ChosenMatching, StepKind
from vallostasis.core.matching.of_job import BlockMatching, MatchedHole, MatchWishes
from vallostasis.core.matching.problem import LENGTHS, Goal
from vallostasis.core.matching.ways import Stands
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import matching
from vallostasis.services.matching import MatchingNow

router = APIRouter(prefix="/api/jobs/{job_id}/matching", tags=["matching"], responses=ERROR_RESPONSES)


class StandsView(BaseModel):
    """How a liner would stand in a hole, and whether that is in. [m]"""

    liner: str
    value: StatedView
    state: State
    honing_m: float = Field(description="Metal to come off the diameter first; for a dry sleeve.")

    @classmethod
    def of(cls, one: Stands) -> "StandsView":
        """Show it."""
        return cls(liner=one.liner, value=StatedView.of(one.value), state=one.state, honing_m=one.honing_m)


class MatchedHoleView(BaseModel):
    """A hole: every liner in it, the one in it now, the one that goes there, and how that stands then. [m]

    ``state`` is null where the hole is cut first: nothing is known until its ledge is read.
    """

    hole: int
    ways: list[StandsView]
    now: str | None
    then: str
    locked: bool
    shim_m: float | None
    cut_m: float | None = Field(description="What comes off the highest spot of its ledge.")
    ledge_m: float | None
    stands: StatedView
    state: State | None
    chance: float
    least_m: float
    greatest_m: float

    @classmethod
    def of(cls, one: MatchedHole, found: BlockMatching, ledges: dict[int, float]) -> "MatchedHoleView":
        """Show it."""
        way = next(way for way in one.ways if way.liner == one.then)
        cut = None if one.cut is None else one.cut.cut
        limits = None if cut is None or found.table.cutting is None else found.table.cutting.rules.limits
        return cls(
            hole=one.hole, ways=[StandsView.of(way) for way in one.ways], now=one.now, then=one.then,
            locked=one.locked, shim_m=one.shim_m, cut_m=None if cut is None else cut.from_touch_off_m,
            ledge_m=ledges.get(one.hole), stands=StatedView.of(one.stands), state=one.state, chance=one.chance,
            least_m=way.least_m if limits is None else limits.least_m,
            greatest_m=way.greatest_m if limits is None else limits.greatest_m,
        )  # fmt: skip


class GoalView(BaseModel):
    """One goal, in its order: what it comes to, and whether nothing better exists. [m] where it is a length."""

    goal: Goal
    is_length: bool
    then: float
    proven: bool

    @classmethod
    def of(cls, one: Reached[Goal]) -> "GoalView":
        """Show it."""
        is_length = one.what in LENGTHS
        return cls(goal=one.what, is_length=is_length, proven=one.proven,
                   then=one.value * 1e-9 if is_length else float(one.value))  # fmt: skip


class MoveView(BaseModel):
    """A liner from a hole or the bench to a hole or the bench."""

    liner: str
    from_hole: int | None
    to_hole: int | None


class TrayStepView(BaseModel):
    """A step of the tray list: what is done with which liner at which hole, whether it is, whether it can be now."""

    kind: StepKind
    hole: int
    hole_id: UUID
    liner: str
    done: bool
    ready: bool


class ChosenMatchingView(BaseModel):
    """The matching that was chosen last, by whom and when, and its steps."""

    chosen_at: datetime
    chosen_by: str
    steps: list[TrayStepView]
    is_done: bool

    @classmethod
    def of(cls, chosen: ChosenMatching, now: MatchingNow) -> "ChosenMatchingView":
        """Show it."""
        ids = {hole.number: hole.hole_id for hole in now.facts.holes}
        steps = [TrayStepView(kind=one.kind, hole=one.hole, hole_id=ids[one.hole], liner=one.liner, done=one.done,
                              ready=one.ready) for one in chosen.steps]  # fmt: skip
        return cls(chosen_at=chosen.rows[0].chosen_at, chosen_by=chosen.rows[0].chosen_by, steps=steps,
                   is_done=chosen.is_done)  # fmt: skip


class MatchingView(BaseModel):
    """Who goes where; ``why_not`` alone where nothing can be matched yet. [m]

    ``of`` is what is matched, protrusion or press; ``by_exchange`` how many holes exchanges alone leave outside, of
    ``orders`` orders of the liners; ``proof`` why, ``helps`` the smallest things that would, ``locks`` what the locked
    liners cost.
    """

    why_not: str
    of: str
    holes: list[MatchedHoleView]
    flanges_m: dict[str, float] = Field(description="Flange of each liner by its mark.")
    grades: dict[str, str] = Field(description="Letters stamped on a part, by its key, such as hole-2 and liner-A.")
    goals: list[GoalView]
    moves: list[MoveView]
    missing: list[str]
    chance: float = Field(description="That every hole and every rule between holes truly passes.")
    by_exchange: int
    orders: int
    proof: list[str]
    helps: list[str]
    locks: str
    why_no_cut: str
    chosen: ChosenMatchingView | None

    @classmethod
    def of_now(cls, now: MatchingNow) -> "MatchingView":
        """Show it."""
        chosen = None if now.chosen is None else ChosenMatchingView.of(now.chosen, now)
        found = now.found
        if isinstance(found, str):
            return cls(why_not=found, of="", holes=[], flanges_m={}, grades={}, goals=[],
                       moves=[], missing=[], chance=0.0,
                       by_exchange=0, orders=0, proof=[], helps=[], locks="", why_no_cut="", chosen=chosen)  # fmt: skip
        ledges = now.ledges_m
        return cls(
            why_not="", of=found.table.of, holes=[MatchedHoleView.of(one, found, ledges) for one in found.holes],
            flanges_m=now.flanges_m, grades=found.table.grades,
            goals=[GoalView.of(one) for one in found.matched.reached],
            moves=[MoveView(liner=one.liner, from_hole=one.from_hole, to_hole=one.to_hole) for one in found.moves],
            missing=list(found.table.missing), chance=found.chance,
            by_exchange=now.limits.outside, orders=now.limits.orders,
            proof=list(now.limits.proof), helps=list(now.limits.helps), locks=now.limits.locks,
            why_no_cut=found.table.why_no_cut, chosen=chosen,
        )  # fmt: skip


class ChooseMatchingBody(BaseModel):
    """The arrangement that is chosen: as it was wished, and the liner of each hole in turn as it was seen."""

    locked: Annotated[list[int], Field(max_length=24)] = []
    goals: Annotated[list[Goal], Field(max_length=len(Goal))] = []
    cuts: bool = True
    order: Annotated[list[Annotated[str, Field(max_length=80)]], Field(max_length=24)]
    person_id: UUID


@router.get("")
def read_matching(
    job_id: UUID,
    conn: Conn,
    locked: Annotated[list[int] | None, Query(max_length=24, description="Holes whose liner stays.")] = None,
    goals: Annotated[
        list[Goal] | None, Query(max_length=len(Goal), description="What is made small, in order.")
    ] = None,
    cuts: Annotated[bool, Query(description="Whether holes may be cut and shimmed.")] = True,
) -> MatchingView:
    """Match the liners of a job to its holes, one goal after the other, each proven or with what is known of it."""
    wishes = MatchWishes(frozenset(locked or ()), tuple(goals or ()), cuts)
    return MatchingView.of_now(matching.matching_now(conn, job_id, wishes))


@router.post("", status_code=201)
def choose_matching(job_id: UUID, body: ChooseMatchingBody, conn: Conn) -> Done:
    """Choose an arrangement; it is refused where it is not the one that was seen."""
    wishes = MatchWishes(frozenset(body.locked), tuple(body.goals), body.cuts)
    matching.choose_matching(conn, job_id, wishes, tuple(body.order), body.person_id)
    return Done(job_id=job_id)
