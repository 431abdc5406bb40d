"""Boring a hole: the size its piston asks for, the passes as they add up, the next cut."""

from datetime import datetime
from decimal import Decimal
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn, LengthText, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import PhraseView
from vallostasis.core.boring.ledger import DEEPEST_UM, LAST_UM, Ledger
from vallostasis.core.boring.made_to_bore import MadeToBore
from vallostasis.core.boring.setting import SettingNow, setting_now
from vallostasis.core.boring.target import BoreTarget
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.records.bar_settings import BoreDatum
from vallostasis.core.records.boring_passes import PassKind
from vallostasis.core.trail import Phrase
from vallostasis.services import boring

router = APIRouter(prefix="/api/jobs/{job_id}/boring", tags=["boring"], responses=ERROR_RESPONSES)

Micrometres = Annotated[Decimal, Query(gt=0, le=5_000, allow_inf_nan=False, description="[µm]")]
Celsius = Annotated[float, Query(ge=-60, le=900, allow_inf_nan=False, description="[°C]")]


class RoundSizeView(BaseModel):
    """A step of the ladder near the target, and what it would leave. [m]"""

    typed: str
    size_m: float
    leaves: StatedView
    is_inside: bool


class BoreTargetView(BaseModel):
    """What a bore is finished to at 20 °C, and bored to before the hone. [m], [°C]"""

    piston: StatedView
    clearance_m: float
    least_m: float | None
    greatest_m: float | None
    source: str
    finished: StatedView
    hone_stock_m: float
    bored: StatedView
    work_c: float | None
    reads_large_m: float | None
    bore_c: float
    piston_c: float
    hot_m: float
    runs_with_m: float | None = Field(description="The clearance that the card wants as it runs.")
    near: RoundSizeView | None
    cautions: list[str]

    @classmethod
    def of(cls, one: BoreTarget | Phrase) -> "BoreTargetView | None":
        """Show a target; None where none is named."""
        if isinstance(one, Phrase):
            return None
        near = one.near
        return cls(
            piston=StatedView.of(one.piston), clearance_m=one.clearance_m, least_m=one.least_m,
            greatest_m=one.greatest_m, source=one.source, finished=StatedView.of(one.finished),
            hone_stock_m=one.hone_stock_m, bored=StatedView.of(one.bored), work_c=one.work_c,
            reads_large_m=one.reads_large_m, bore_c=one.bore_c, piston_c=one.piston_c, hot_m=one.hot_m,
            runs_with_m=one.runs_with_m,
            near=None if near is None else RoundSizeView(typed=near.step.oversize.typed, size_m=near.size_m,
                                                         leaves=StatedView.of(near.leaves), is_inside=near.is_inside),
            cautions=list(one.cautions),
        )  # fmt: skip


class MadeToBoreView(BaseModel):
    """A bore to a decided step, its piston made to it. [m]"""

    nominal_m: float
    over_m: float
    finished_m: float
    stock_m: float
    bored_m: float
    is_honed: bool

    @classmethod
    def of(cls, one: BoreTarget | MadeToBore | Phrase) -> "MadeToBoreView | None":
        """Show a decided step; None where a piston decides."""
        if not isinstance(one, MadeToBore):
            return None
        return cls(nominal_m=one.nominal_m, over_m=one.over_m, finished_m=one.finished_m, stock_m=one.stock_m,
                   bored_m=one.bored_m, is_honed=one.is_honed)  # fmt: skip


class LedgerRowView(BaseModel):
    """One pass in its place. [m]"""

    kind: PassKind
    dial_m: float
    cut_m: float = Field(description="Twice the dial: what it is on the diameter.")
    before_m: float | None
    expected_m: float | None
    measured_m: float | None
    off_m: float | None
    at_m: float | None
    minutes: float | None
    words: str
    passed_at: datetime
    passed_by: str


class SpringView(BaseModel):
    """What a tool makes of its dial: measured over twice the dial."""

    ratio: float
    within: float
    passes: int


class LedgerView(BaseModel):
    """The passes of one hole. [m], [min]"""

    start: StatedView | None
    start_at: str
    rows: list[LedgerRowView]
    spring: SpringView | None
    present_m: float | None
    within_m: float
    is_read: bool
    to_go_m: float | None
    passes_left: int | None
    equal_m: float | None
    last_m: float | None
    next_dial_m: float | None
    minutes: float | None
    asks: list[PhraseView]

    @classmethod
    def of(cls, one: Ledger) -> "LedgerView":
        """Show a ledger."""
        return cls(
            start=StatedView.maybe(one.start), start_at=one.start_at,
            rows=[LedgerRowView(kind=row.made.kind, dial_m=metres(row.made.dial_um), cut_m=2 * metres(row.made.dial_um),
                                before_m=row.before_m, expected_m=row.expected_m, measured_m=row.measured_m,
                                off_m=row.off_m, at_m=None if row.made.at_um is None else metres(row.made.at_um),
                                minutes=None if row.made.minutes is None else float(row.made.minutes),
                                words=row.made.words, passed_at=row.made.passed_at, passed_by=row.made.passed_by)
                  for row in one.rows],
            spring=None if one.spring is None else SpringView(ratio=one.spring.ratio, within=one.spring.within,
                                                              passes=one.spring.passes),
            present_m=one.present_m, within_m=one.within_m, is_read=one.is_read, to_go_m=one.to_go_m,
            passes_left=None if one.next is None else one.next.total,
            equal_m=None if one.next is None else float(one.next.equal_um) / 1e6,
            last_m=None if one.next is None else float(one.next.finish_um) / 1e6,
            next_dial_m=one.next_dial_m, minutes=one.minutes, asks=[PhraseView.of(said) for said in one.asks],
        )  # fmt: skip


class SettingView(BaseModel):
    """How the bar of a hole was set last. [m], [h]"""

    datum: BoreDatum
    gaps_m: list[float] = Field(description="At 12, 3, 6 and 9 h; empty where nobody felt them.")
    offset: StatedView | None
    move_hour: float | None
    to_hole: int | None
    apart_m: float | None
    off_drawing_m: float | None
    level: str
    not_to_cut: str
    words: str
    set_at: datetime
    set_by: str
    says: list[PhraseView]

    @classmethod
    def of(cls, one: SettingNow | None) -> "SettingView | None":
        """Show a setting."""
        if one is None:
            return None
        made = one.setting
        gaps = (made.gap_12_um, made.gap_3_um, made.gap_6_um, made.gap_9_um)
        return cls(datum=made.datum, gaps_m=[metres(gap) for gap in gaps if gap is not None],
                   offset=None if one.centring is None else StatedView.of(one.centring.offset),
                   move_hour=one.move_hour, to_hole=made.to_hole, apart_m=one.apart_m,
                   off_drawing_m=one.off_drawing_m, level=made.level, not_to_cut=made.not_to_cut, words=made.words,
                   set_at=made.set_at, set_by=made.set_by, says=[PhraseView.of(said) for said in one.says])  # fmt: skip


class BarNoteView(BaseModel):
    """What was written of a tool or a set-up as another engine of the same iron was bored."""

    job: str
    hole: int
    of: str
    words: str
    said_at: datetime
    said_by: str


class BoringView(BaseModel):
    """A hole that is bored: its target or why none is named, its passes."""

    hole: int
    holes: list[int]
    target: BoreTargetView | None
    made: MadeToBoreView | None
    refused: PhraseView | None
    ledger: LedgerView
    setting: SettingView | None
    zero_due: str = Field(description="Why probe and zero are to be looked at before the next pass; empty where not.")
    material: str
    notes: list[BarNoteView] = Field(description="What was written of tools and set-ups on such iron in other jobs.")


class SettingBody(BaseModel):
    """How a bar was set; the client makes the id. Gaps at four clock positions, all or none."""

    setting_id: UUID
    datum: BoreDatum = BoreDatum.UNWORN
    gap_12: LengthText = ""
    gap_3: LengthText = ""
    gap_6: LengthText = ""
    gap_9: LengthText = ""
    to_hole: Annotated[int, Field(ge=1, le=16)] | None = None
    apart: LengthText = ""
    level: ShortText = ""
    not_to_cut: ShortText = ""
    words: LongText = ""
    bare_unit: Unit = "thou"
    confirmed: bool = False
    person_id: UUID


class BoredPassBody(BaseModel):
    """A pass that was made; the client makes the id."""

    pass_id: UUID
    kind: PassKind = PassKind.CUT
    dial: LengthText = Field(description="A side; nought for a spring pass.")
    diameter: LengthText = Field("", description="As it was read after the pass.")
    at_depth: LengthText = ""
    minutes: Annotated[str, Field(max_length=20)] = ""
    words: LongText = ""
    bare_unit: Unit = "thou"
    confirmed: bool = False
    hold_reason: ShortText = ""
    person_id: UUID


@router.get("/{hole}")
def read_boring(
    job_id: UUID,
    hole: int,
    conn: Conn,
    deepest_um: Micrometres = DEEPEST_UM,
    last_um: Micrometres = LAST_UM,
    bore_c: Celsius | None = None,
    piston_c: Celsius | None = None,
) -> BoringView:
    """What a hole is bored to, the passes it had, and the next cut; cuts and temperatures as somebody tries them."""
    ask = boring.BoringAsked(deepest_um, last_um, bore_c, piston_c)
    now = boring.boring_now(conn, job_id, hole, ask)
    target, facts = now.target, now.facts
    piston = None if isinstance(target, MadeToBore) else BoreTargetView.of(target)
    return BoringView(hole=now.hole.number, holes=[one.number for one in facts.holes], target=piston,
                      made=MadeToBoreView.of(target),
                      refused=PhraseView.of(target) if isinstance(target, Phrase) else None,
                      ledger=LedgerView.of(now.ledger), setting=SettingView.of(setting_now(facts, now.hole)),
                      zero_due=now.zero_due, material=facts.card.block_material,
                      notes=[BarNoteView.model_validate(one, from_attributes=True) for one in now.notes])  # fmt: skip


@router.post("/{hole}/settings", status_code=201)
def record_bar_setting(job_id: UUID, hole: int, body: SettingBody, conn: Conn) -> BoringView:
    """Write down how a bar was set in a hole."""
    gaps = (body.gap_12, body.gap_3, body.gap_6, body.gap_9)
    typed = body.model_dump(exclude={"person_id", "gap_12", "gap_3", "gap_6", "gap_9"})
    boring.record_setting(conn, job_id, boring.BarSet(hole=hole, gaps=gaps, **typed), body.person_id)
    return read_boring(job_id, hole, conn)


@router.post("/{hole}/passes", status_code=201)
def record_boring_pass(job_id: UUID, hole: int, body: BoredPassBody, conn: Conn) -> BoringView:
    """Write down a pass; 409 where hold points stand before the first one."""
    made = boring.PassMade(hole=hole, **body.model_dump(exclude={"person_id"}))
    boring.record_pass(conn, job_id, made, body.person_id)
    return read_boring(job_id, hole, conn)
