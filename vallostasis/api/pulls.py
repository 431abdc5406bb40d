"""Pulling a liner in, live; and the pullers and presses of the shop."""

from datetime import UTC, datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.fit_models import GoingInView
from vallostasis.api.readings import Done
from vallostasis.api.trail import PhraseView
from vallostasis.core.fits.going_in import GoingIn, expected_way_in
from vallostasis.core.fits.pull import STUCK, PullNow, PullState, expected_at, next_call, next_stiffer, pulls_of
from vallostasis.core.fits.pull_curve import CurveSays, curve_of
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.fit_terms import StopRule
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.pulls import FIRST, PullMarkKind, Slides, ToolKind
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.core.shapes.clock import hour_name
from vallostasis.services import pulls
from vallostasis.store import press_tools

router = APIRouter(prefix="/api", tags=["fits"], responses=ERROR_RESPONSES)

Name = Annotated[str, Field(max_length=60)]


class PullBody(BaseModel):
    """A pull to begin. The client makes the id."""

    pull_id: UUID
    liner_mark: Name
    tool: Name
    slides: Slides = Slides.OILED
    stop: StopRule = StopRule.AT_CONTACT
    cranks: Name = ""
    watches: Name = ""
    from_depth: LengthText = Field("", description="Flange to ledge; the liner's length where not said.")
    bare_unit: Unit = "mm"
    hold_reason: ShortText = ""
    person_id: UUID


class PullMarkBody(BaseModel):
    """Something looked at, measured or felt on a pull."""

    pull_mark_id: UUID
    kind: PullMarkKind
    depth: LengthText = ""
    force_kn: Annotated[str, Field(max_length=20)] = ""
    words: ShortText = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    turn: Annotated[int | None, Field(ge=1, le=5000, description="Which turn a tap ends, by its number.")] = None
    person_id: UUID


class UndoMarkBody(BaseModel):
    """The last thing noted, which was not so."""

    pull_mark_id: UUID
    person_id: UUID


class HomeBody(BaseModel):
    """A liner that is home."""

    person_id: UUID


class PullMarkView(BaseModel):
    """Something noted of a pull: how far the flange was from its ledge then. [m], [N]"""

    pull_mark_id: UUID
    kind: PullMarkKind
    to_go_m: float
    force_n: float | None
    typed: str
    words: str
    noted_at: datetime
    noted_by: str


class ExpectedView(BaseModel):
    """Force expected at a place. [m], [N]"""

    to_go_m: float
    low_n: float
    middle_n: float
    high_n: float


class CurveView(BaseModel):
    """One thing that a pull says."""

    says: CurveSays
    words: PhraseView


class CheckView(BaseModel):
    """Something looked at before the first turn."""

    kind: PullMarkKind
    done_by: str


class PullView(BaseModel):
    """A pull as it stands. Lengths in m, forces in N."""

    pull_id: UUID
    liner: str
    tool: str
    capacity_n: float | None
    turn_m: float | None
    from_m: float
    slides: Slides
    stop: StopRule
    cranks: str
    watches: str
    state: PullState
    to_go_m: float
    within_m: float
    turns: int
    began_at: datetime
    checks: list[CheckView]
    marks: list[PullMarkView]
    feel: PullMarkKind | None
    expected: ExpectedView | None
    ahead: ExpectedView | None = Field(description="At the next call, or where it stiffens next.")
    stiffens_at_m: float | None
    call: str
    call_at_m: float | None
    over_capacity: bool
    curve: list[CurveView]


class PullPageView(BaseModel):
    """Everything that the screen of a pull shows."""

    hole: int
    pull: PullView | None
    is_home: bool
    liner: str | None
    length_m: float | None
    going_in: GoingInView | None
    front: str
    stop: StopRule
    dwell_kn: float | None
    dwell_min: float | None
    cautions: list[str]
    stuck: list[str]
    others: list[int] = Field(description="The holes of the block, in their order.")
    now: datetime


@router.get("/jobs/{job_id}/pulls/{hole}")
def read_pull(job_id: UUID, hole: int, conn: Conn) -> PullPageView:
    """The pull of a hole as it stands, with what is expected of it."""
    facts, found = pulls.pull_facts(conn, job_id, hole)
    return _page(facts, found)


def _page(facts: JobFacts, hole: Hole) -> PullPageView:
    known = pulls_of(facts, hole)
    now = known[-1] if known else None
    fitting = facts.present_fitting(hole.hole_id)
    if now is not None and now.state is PullState.OUT:
        now = None
    liner = None if now is None else facts.liner(now.pull.liner_id).mark
    going = None if liner is None else expected_way_in(facts, hole, liner)
    fits = facts.card.fits
    return PullPageView(
        hole=hole.number, pull=None if now is None else _view(facts, now, going), is_home=fitting is not None,
        liner=liner, length_m=None if going is None else float(going.depths_m[-1]), going_in=GoingInView.of(going),
        front=f"{hour_name(12.0)}: {facts.card.layout.twelve_o_clock}", stop=fits.stop, dwell_kn=fits.dwell_kn,
        dwell_min=fits.dwell_min, cautions=list(OPERATIONS[Operation.FIT].caution), stuck=list(STUCK),
        others=[one.number for one in facts.holes], now=datetime.now(UTC),
    )  # fmt: skip


def _expected(going: GoingIn | None, to_go_m: float) -> ExpectedView | None:
    if going is None:
        return None
    one = expected_at(going, to_go_m)
    return ExpectedView(to_go_m=one.to_go_m, low_n=one.low_n, middle_n=one.middle_n, high_n=one.high_n)


def _view(facts: JobFacts, now: PullNow, going: GoingIn | None) -> PullView:
    pull, to_go = now.pull, metres(now.to_go_um)
    call = next_call(now.to_go_um)
    stiffer = None if going is None else next_stiffer(going, to_go)
    expected = _expected(going, to_go)
    ahead_at = stiffer if stiffer is not None else (None if call is None else metres(call[1]))
    by = {one.kind: one.noted_by for one in now.marks}
    capacity = None if pull.capacity_kn is None else float(pull.capacity_kn) * 1000
    return PullView(
        pull_id=pull.pull_id, liner=facts.liner(pull.liner_id).mark, tool=pull.tool, capacity_n=capacity,
        turn_m=None if pull.turn_um is None else metres(pull.turn_um), from_m=metres(pull.from_um), slides=pull.slides,
        stop=pull.stop, cranks=pull.cranks, watches=pull.watches, state=now.state, to_go_m=to_go,
        within_m=metres(now.within_um), turns=now.turns,
        began_at=pull.began_at,
        checks=[CheckView(kind=one, done_by=by.get(one, "")) for one in FIRST],
        marks=[PullMarkView(pull_mark_id=one.mark.pull_mark_id, kind=one.mark.kind, to_go_m=metres(one.to_go_um),
                            force_n=None if one.mark.force_kn is None else float(one.mark.force_kn) * 1000,
                            typed=one.mark.typed, words=one.mark.words, noted_at=one.mark.noted_at,
                            noted_by=one.mark.noted_by) for one in now.points],
        feel=None if now.feel is None else now.feel.kind, expected=expected,
        ahead=None if ahead_at is None else _expected(going, ahead_at), stiffens_at_m=stiffer,
        call="" if call is None else call[0], call_at_m=None if call is None else metres(call[1]),
        over_capacity=bool(capacity and going is not None and going.greatest.high > capacity),
        curve=[CurveView(says=one.says, words=PhraseView.of(one.words)) for one in curve_of(now, going)],
    )  # fmt: skip


@router.post("/jobs/{job_id}/pulls/{hole}", status_code=201)
def begin_pull(job_id: UUID, hole: int, body: PullBody, conn: Conn) -> PullPageView:
    """Begin a pull; 409 where one is under way, a liner is in, or hold points stand before it."""
    ask = pulls.PullBegun(hole=hole, **body.model_dump(exclude={"person_id"}))
    pulls.begin_pull(conn, job_id, ask, body.person_id)
    return read_pull(job_id, hole, conn)


@router.post("/jobs/{job_id}/pulls/{hole}/{pull_id}/marks", status_code=201)
def note_on_pull(job_id: UUID, hole: int, pull_id: UUID, body: PullMarkBody, conn: Conn) -> PullPageView:
    """Write down what was looked at, measured or felt."""
    noted = pulls.PullNoted(**body.model_dump(exclude={"person_id"}))
    pulls.note_on_pull(conn, job_id, pull_id, noted, body.person_id)
    return read_pull(job_id, hole, conn)


@router.post("/jobs/{job_id}/pulls/{hole}/{pull_id}/undo", status_code=201)
def undo_pull_mark(job_id: UUID, hole: int, pull_id: UUID, body: UndoMarkBody, conn: Conn) -> PullPageView:
    """Strike the last thing noted of a pull."""
    pulls.undo_pull_mark(conn, job_id, pull_id, body.pull_mark_id, body.person_id)
    return read_pull(job_id, hole, conn)


@router.post("/jobs/{job_id}/pulls/{hole}/{pull_id}/home", status_code=201)
def bring_home(job_id: UUID, hole: int, pull_id: UUID, body: HomeBody, conn: Conn) -> Done:
    """End a pull at home: it is recorded as a fitting."""
    pulls.bring_home(conn, job_id, pull_id, body.person_id)
    return Done(job_id=job_id)


class PressToolBody(BaseModel):
    """A puller or press of the shop."""

    name: Annotated[str, Field(min_length=1, max_length=60)]
    kind: ToolKind
    capacity_kn: Annotated[float, Field(gt=0, le=5000, allow_inf_nan=False)]
    turn: LengthText = Field("", description="What one turn takes it in, in mm.")
    force_shown: bool = False
    note: ShortText = ""
    person_id: UUID


class PressToolView(BaseModel):
    """A puller or press as it is now. [N], [m]"""

    name: str
    kind: ToolKind
    capacity_n: float
    turn_m: float | None
    force_shown: bool
    note: str
    saved_by: str


@router.get("/press-tools")
def list_press_tools(conn: Conn) -> list[PressToolView]:
    """The pullers and presses of the shop."""
    return [
        PressToolView(name=one.name, kind=one.kind, capacity_n=float(one.capacity_kn) * 1000,
                      turn_m=None if one.turn_um is None else metres(one.turn_um), force_shown=one.force_shown,
                      note=one.note, saved_by=one.saved_by)
        for one in press_tools.list_press_tools(conn)
    ]  # fmt: skip


@router.post("/press-tools", status_code=201)
def save_press_tool(body: PressToolBody, conn: Conn) -> list[PressToolView]:
    """Save a puller or press; a known name gets new figures."""
    pulls.save_press_tool(conn, pulls.ToolTyped(**body.model_dump(exclude={"person_id"})), body.person_id)
    return list_press_tools(conn)
