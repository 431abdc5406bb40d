"""Main bores: three directions before and after, their line, and whether they are align-honed."""

from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import PhraseView
from vallostasis.core.mains.align import Align, AlignDecision
from vallostasis.core.mains.line import MainLine, OffLine
from vallostasis.core.mains.sizes import Direction, Lies, MainNow
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import mains

router = APIRouter(prefix="/api/jobs/{job_id}/mains", tags=["mains"], responses=ERROR_RESPONSES)


class DirectionView(BaseModel):
    """One direction of a main bore, now and before the work. [m], [deg]"""

    axis_deg: float = Field(description="From the joint of the cap: 90 is upright.")
    now: StatedView | None
    before: StatedView | None
    change: StatedView | None
    has_moved: bool

    @classmethod
    def of(cls, one: Direction) -> "DirectionView":
        """Show a direction."""
        return cls(axis_deg=one.axis_deg, now=StatedView.maybe(one.now), before=StatedView.maybe(one.before),
                   change=StatedView.maybe(one.change), has_moved=one.has_moved)  # fmt: skip


class MainView(BaseModel):
    """One main bore. [m]"""

    part: str
    title: str
    lies: Lies
    reason: str
    directions: list[DirectionView]
    least_m: float | None
    greatest_m: float | None
    out_of_round: StatedView | None
    between: list[str] = Field(description="What was done to the block between both readings.")
    says: PhraseView | None

    @classmethod
    def of(cls, one: MainNow) -> "MainView":
        """Show a main bore."""
        return cls(
            part=one.part.key, title=one.part.title, lies=one.lies, reason=one.survey.reason,
            directions=[DirectionView.of(row) for row in one.directions], least_m=one.least_m,
            greatest_m=one.greatest_m, out_of_round=StatedView.maybe(one.out_of_round),
            between=list(dict.fromkeys(doing.words for doing in one.between)),
            says=None if one.says is None else PhraseView.of(one.says),
        )  # fmt: skip


class OffLineView(BaseModel):
    """One main bore against the line through the ends. [m], [h]"""

    part: str
    upright: StatedView
    across: StatedView
    off: StatedView
    hour: float | None
    state: State
    moved: StatedView | None
    upright_was: StatedView | None
    across_was: StatedView | None

    @classmethod
    def of(cls, one: OffLine) -> "OffLineView":
        """Show a bore of the line."""
        return cls(part=one.part.key, upright=StatedView.of(one.upright), across=StatedView.of(one.across),
                   off=StatedView.of(one.off), hour=one.hour, state=one.rule.decision.state,
                   moved=StatedView.maybe(one.moved), upright_was=StatedView.maybe(one.upright_was),
                   across_was=StatedView.maybe(one.across_was))  # fmt: skip


class MainLineView(BaseModel):
    """The line of the mains. [m]"""

    rows: list[OffLineView]
    within_m: float | None
    missing: list[str]
    state: State
    says: PhraseView

    @classmethod
    def of(cls, one: MainLine) -> "MainLineView":
        """Show the line."""
        return cls(rows=[OffLineView.of(row) for row in one.rows], within_m=one.within_m,
                   missing=[part.key for part in one.missing], state=one.state,
                   says=PhraseView.of(one.says))  # fmt: skip


class AlignView(BaseModel):
    """Whether the mains are align-honed, and why. [m]"""

    what: Align
    reasons: list[PhraseView]
    open_points: list[PhraseView]
    take_m: float | None
    brings: PhraseView | None

    @classmethod
    def of(cls, one: AlignDecision) -> "AlignView":
        """Show the decision."""
        return cls(what=one.what, reasons=[PhraseView.of(said) for said in one.reasons],
                   open_points=[PhraseView.of(said) for said in one.open_points], take_m=one.take_m,
                   brings=None if one.brings is None else PhraseView.of(one.brings))  # fmt: skip


class MainsView(BaseModel):
    """The main bores of a job."""

    mains: list[MainView]
    line: MainLineView
    decision: AlignView
    caution: list[str]


@router.get("")
def read_mains(job_id: UUID, conn: Conn) -> MainsView:
    """Return the main bores of a job."""
    now = mains.mains_now(conn, job_id)
    return MainsView(mains=[MainView.of(one) for one in now.mains], line=MainLineView.of(now.line),
                     decision=AlignView.of(now.decision),
                     caution=list(OPERATIONS[Operation.ALIGN].caution))  # fmt: skip
