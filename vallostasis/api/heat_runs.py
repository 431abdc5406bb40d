"""A drop, live: begun, moments, feels, temperatures and heights on record; the window as it moves."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import AwareDatetime, BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.gauge_links import Board
from vallostasis.api.heat import WindowView
from vallostasis.api.trail import PhraseView
from vallostasis.core.fits.fit import liners_for, shown_liners
from vallostasis.core.heat.after import Heights, HoldDown, Settles
from vallostasis.core.heat.felt import Felt
from vallostasis.core.heat.live import LiveWindow
from vallostasis.core.heat.plan import Tried
from vallostasis.core.heat.planner import Drops
from vallostasis.core.heat.run import STUCK, DropNow, DropState
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.heat_runs import READY, TEMPERATURES, HeatMarkKind
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.shapes.clock import hour_name
from vallostasis.services import heat_runs

router = APIRouter(prefix="/api/jobs/{job_id}/heat/{hole}/run", tags=["heat"], responses=ERROR_RESPONSES)

Name = Annotated[str, Field(max_length=60)]


def _between(least: float, most: float) -> object:
    return Field(ge=least, le=most, allow_inf_nan=False)


class DropBody(BaseModel):
    """A drop to begin, as it was tried. The client makes the id. [°C], [m], [s], [kg]"""

    heat_run_id: UUID
    liner_mark: Name
    block_c: Annotated[float, _between(-30, 220)]
    liner_c: Annotated[float, _between(-196, 60)]
    wanted_m: Annotated[float, _between(1e-6, 1e-3)]
    air_c: Annotated[float, _between(-20, 50)]
    humidity: Annotated[float, _between(0.02, 1)]
    enter_s: Annotated[float, _between(1, 900)]
    home_s: Annotated[float, _between(0, 300)]
    block_kg: Annotated[float, _between(1, 5000)]
    pocket_wet: bool = False
    greased: bool = False
    drops: Name = ""
    calls: Name = ""
    hold_reason: ShortText = ""
    person_id: UUID


class DropMarkBody(BaseModel):
    """Something looked at, done, felt or read on a drop."""

    heat_mark_id: UUID
    kind: HeatMarkKind
    celsius: Annotated[str, Field(max_length=20)] = ""
    height: LengthText = ""
    words: ShortText = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    at: AwareDatetime | None = Field(None, description="When it was, by this server's clock; the link may be slow.")
    person_id: UUID


class ThermometersBody(BaseModel):
    """Somebody at the drop whose thermometers are to be written down."""

    person_id: UUID


class DropMarkView(BaseModel):
    """Something noted of a drop, and how long after leaving the cold. [s]"""

    heat_mark_id: UUID
    kind: HeatMarkKind
    seconds: float | None
    typed: str
    words: str
    noted_at: datetime
    noted_by: str


class WarmthReadView(BaseModel):
    """A temperature against seconds out of the cold. [s], [°C]"""

    seconds: float
    celsius: float


class DropStepView(BaseModel):
    """A step of the run sheet: when it is due and when it was done, counted from leaving the cold. [s]"""

    kind: HeatMarkKind
    due_s: float
    done_s: float | None


class DropCheckView(BaseModel):
    """Something looked at before anything is hot or cold."""

    kind: HeatMarkKind
    done_by: str


class LearnedView(BaseModel):
    """What thermometers taught: temperatures as both came out with their ±, and as they are now. [°C], [K], [s]"""

    air_c: float
    liner_c: float
    liner_within_k: float
    liner_planned_c: float
    liner_reads: int
    liner_now_c: float | None
    block_c: float
    block_within_k: float
    block_planned_c: float
    block_reads: int
    block_now_c: float


class FeltView(BaseModel):
    """What hands felt against what was expected. [m], [s]"""

    kind: HeatMarkKind
    at_s: float
    low_m: float
    likely_m: float
    high_m: float
    expected: Drops
    is_harder: bool
    says: PhraseView
    looks: list[str]

    @classmethod
    def of(cls, one: Felt) -> "FeltView":
        """Show it."""
        return cls(kind=one.kind, at_s=one.at_s, low_m=one.clear[0], likely_m=one.clear[1], high_m=one.clear[2],
                   expected=one.expected, is_harder=one.is_harder, says=PhraseView.of(one.says),
                   looks=list(one.looks))  # fmt: skip


class HoldDownView(BaseModel):
    """How long it is held down: until when, counted from leaving the cold. [°C], [s]"""

    block_c: float
    air_c: float
    until_s: float
    reads: int
    is_cold: bool

    @classmethod
    def of(cls, one: HoldDown) -> "HoldDownView":
        """Show it."""
        return cls.model_validate(one, from_attributes=True)


class HeightsView(BaseModel):
    """Heights at one place after a drop, and what they say. [m]"""

    warm_m: float | None
    cold_m: float | None
    again_m: float | None
    grew_m: float | None
    lifted_m: float | None
    pressed_m: float | None
    within_m: float
    settles: Settles
    says: PhraseView

    @classmethod
    def of(cls, one: Heights) -> "HeightsView":
        """Show them."""
        return cls(warm_m=one.warm_m, cold_m=one.cold_m, again_m=one.again_m, grew_m=one.grew_m, lifted_m=one.lifted_m,
                   pressed_m=one.pressed_m, within_m=one.within_m, settles=one.settles,
                   says=PhraseView.of(one.says))  # fmt: skip


class DropView(BaseModel):
    """A drop as it stands. [°C], [m], [s]"""

    heat_run_id: UUID
    liner: str
    state: DropState
    goes_on: bool
    block_c: float
    liner_c: float
    wanted_m: float
    enter_s: float
    home_s: float
    drops: str
    calls: str
    out_at: datetime | None
    entered_s: float | None
    home: HeatMarkKind | None
    home_s_after_out: float | None
    checks: list[DropCheckView]
    next_step: HeatMarkKind | None
    sheet: list[DropStepView]
    marks: list[DropMarkView]
    liner_reads: list[WarmthReadView]
    block_reads: list[WarmthReadView]
    window: WindowView | None
    learned: LearnedView | None
    felt: FeltView | None
    hold: HoldDownView | None
    heights: HeightsView | None


class NextLinerView(BaseModel):
    """A hole still to be filled: how warm it needs the block [°C], and until when the next liner comes out [s]."""

    hole: int
    liner: str
    needs_c: float | None
    until_s: float | None = Field(description="From now; null where the block is too cold already.")
    is_open: bool = Field(description="Whether it drops into a block at room temperature, at any time.")
    missing: str


class TrayView(BaseModel):
    """Which liner goes to which hole, marked before anything is hot."""

    hole: int
    liner: str
    is_in: bool


class DropPageView(BaseModel):
    """Everything that the screen of a drop shows."""

    hole: int
    now: datetime
    is_filled: bool
    drop: DropView | None
    others: list[NextLinerView]
    tray: list[TrayView]
    offered: list[str]
    front: str
    cautions: list[str]
    stuck: list[str]


def _learned(live: LiveWindow, now: DropNow, page: heat_runs.DropPage) -> LearnedView:
    spreads, in_air = live.spreads, now.entered_at is None
    assert page.fit is not None
    return LearnedView(
        air_c=live.air_c, liner_c=spreads.liner_c, liner_within_k=2 * spreads.liner_off_k,
        liner_planned_c=live.planned.liner_c, liner_reads=live.liner_reads,
        liner_now_c=live.liner_c(page.fit.sizes, page.now_s) if in_air else None, block_c=spreads.block_c,
        block_within_k=2 * spreads.block_off_k, block_planned_c=live.planned.block_c, block_reads=live.block_reads,
        block_now_c=live.block_c(page.now_s),
    )  # fmt: skip


def _drop(page: heat_runs.DropPage, now: DropNow) -> DropView:
    run, out = now.run, now.out_at is not None
    by = {one.kind: one.noted_by for one in now.marks}

    def reads(kind: HeatMarkKind) -> list[WarmthReadView]:
        return [WarmthReadView(seconds=one.seconds, celsius=one.celsius) for one in now.warmths(kind)]

    return DropView(
        heat_run_id=run.heat_run_id, liner=page.facts.liner(run.liner_id).mark, state=now.state, goes_on=now.goes_on,
        block_c=float(run.block_c), liner_c=float(run.liner_c), wanted_m=metres(run.wanted_um),
        enter_s=float(run.enter_s), home_s=float(run.home_s), drops=run.drops, calls=run.calls, out_at=now.out_at,
        entered_s=None if now.entered_at is None else now.seconds(now.entered_at),
        home=None if now.home is None else now.home.kind,
        home_s_after_out=None if now.home is None else now.seconds(now.home.noted_at),
        checks=[DropCheckView(kind=one, done_by=by.get(one, "")) for one in READY],
        next_step=now.next_step if out and now.entered_at is None else None,
        sheet=[DropStepView.model_validate(one, from_attributes=True) for one in page.sheet],
        marks=[DropMarkView(heat_mark_id=one.heat_mark_id, kind=one.kind, typed=one.typed, words=one.words,
                            seconds=now.seconds(one.noted_at) if out else None, noted_at=one.noted_at,
                            noted_by=one.noted_by) for one in now.marks if one.kind not in TEMPERATURES],
        liner_reads=reads(HeatMarkKind.LINER_READ), block_reads=reads(HeatMarkKind.BLOCK_READ),
        window=None if page.live is None else WindowView.of(page.live.window),
        learned=None if page.live is None else _learned(page.live, now, page),
        felt=None if page.felt is None else FeltView.of(page.felt),
        hold=None if page.hold is None else HoldDownView.of(page.hold),
        heights=None if page.heights is None else HeightsView.of(page.heights),
    )  # fmt: skip


@router.get("")
def read_drop(job_id: UUID, hole: int, conn: Conn) -> DropPageView:
    """The drop of a hole as it stands, its window worked out anew with all that was read."""
    page = heat_runs.drop_page(conn, job_id, hole)
    facts, heat = page.facts, OPERATIONS[Operation.HEAT]
    liners = shown_liners(facts)
    return DropPageView(
        hole=page.hole.number, now=page.at, is_filled=facts.present_fitting(page.hole.hole_id) is not None,
        drop=None if page.now is None else _drop(page, page.now),
        others=[
            NextLinerView(hole=one.hole, liner=one.liner, needs_c=one.needs_c, missing=one.missing,
                          until_s=None if one.until_s in (None, float("inf")) else one.until_s - page.now_s,
                          is_open=one.until_s == float("inf"))
            for one in page.others
        ],
        tray=[TrayView(hole=one.number, liner=liners[one.number].mark,
                       is_in=facts.present_fitting(one.hole_id) is not None)
              for one in facts.holes if one.number in liners],
        offered=[one.mark for one in liners_for(facts, page.hole)],
        front=f"{hour_name(12.0)}: {facts.card.layout.twelve_o_clock}", cautions=list(heat.caution), stuck=list(STUCK),
    )  # fmt: skip


@router.post("", status_code=201)
def begin_drop(job_id: UUID, hole: int, body: DropBody, conn: Conn, board: Board) -> DropPageView:
    """Begin a drop; 409 where one is under way, a liner is in, or hold points stand before it."""
    tried = Tried(body.block_c, body.liner_c, body.wanted_m, body.air_c, body.humidity, body.enter_s, body.home_s,
                  body.block_kg, True, body.pocket_wet)  # fmt: skip
    ask = heat_runs.DropBegun(body.heat_run_id, hole, body.liner_mark, tried, body.greased, body.drops, body.calls,
                              body.hold_reason)  # fmt: skip
    heat_runs.begin_drop(conn, board, job_id, ask, body.person_id)
    return read_drop(job_id, hole, conn)


@router.post("/{heat_run_id}/marks", status_code=201)
def note_on_drop(job_id: UUID, hole: int, heat_run_id: UUID, body: DropMarkBody, conn: Conn,
                 board: Board) -> DropPageView:  # fmt: skip
    """Write down a moment, a feel, a temperature or a height of a drop."""
    noted = heat_runs.DropNoted(**body.model_dump(exclude={"person_id"}))
    heat_runs.note_on_drop(conn, board, job_id, heat_run_id, noted, body.person_id)
    return read_drop(job_id, hole, conn)


@router.post("/{heat_run_id}/temperatures", status_code=201)
def take_drop_temperatures(job_id: UUID, hole: int, heat_run_id: UUID, body: ThermometersBody, conn: Conn,
                           board: Board) -> DropPageView:  # fmt: skip
    """Write down what the thermometers of block, liner and room say now, where it is time for it."""
    heat_runs.take_temperatures(conn, board, job_id, heat_run_id, body.person_id)
    return read_drop(job_id, hole, conn)
