"""Honing a hole: what is left, when to stop and measure, what comes, the stroke, the rounds that were made."""

from datetime import UTC, datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.boring import BoreTargetView
from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn, LengthText, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import PhraseView
from vallostasis.core.honing.now import HoneNow, HoneState, LevelLeft, RoundAhead
from vallostasis.core.honing.rate import Rate, StrokesToGo
from vallostasis.core.honing.rounds import RoundMade
from vallostasis.core.honing.target import HoneTarget
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.records.honing import HoneAim, HoneDrive, HoneMethod, HoneSetting, HoneStage
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.surveys.loads import Held, held
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import honing

router = APIRouter(prefix="/api/jobs/{job_id}/honing", tags=["honing"], responses=ERROR_RESPONSES)


class HoneTargetView(BaseModel):
    """What a bore is honed to at 20 °C. [m]"""

    part: str
    part_size: StatedView
    more_m: float
    finished: StatedView
    source: str
    piston: BoreTargetView | None

    @classmethod
    def of(cls, one: HoneTarget | Phrase) -> "HoneTargetView | None":
        """Show a target; None where none is named."""
        if isinstance(one, Phrase):
            return None
        return cls(part=one.part_name, part_size=StatedView.of(one.part), more_m=one.more_m,
                   finished=StatedView.of(one.finished), source=one.source,
                   piston=None if one.piston is None else BoreTargetView.of(one.piston))  # fmt: skip


class HoneSettingView(BaseModel):
    """How a hole is honed, and the stroke and cross-hatch that follow. [m], [1/min], [deg]"""

    method: HoneMethod
    drive: HoneDrive
    rough_grit: int
    fine_grit: int
    fine_stock_m: float
    brush_stock_m: float
    length_m: float
    stone_m: float
    below_m: float | None
    turns: float
    strokes: float
    wanted_deg: float
    hatch_deg: float | None
    stroke_m: float | None
    above_out_m: float | None
    below_out_m: float | None
    stop_m: float | None
    words: str
    set_by: str

    @classmethod
    def of(cls, now: HoneNow) -> "HoneSettingView | None":
        """Show how a hole is honed; None where nobody said."""
        one: HoneSetting | None = now.setting
        if one is None:
            return None
        stroke = now.stroke
        return cls(
            method=one.method, drive=one.drive, rough_grit=one.rough_grit, fine_grit=one.fine_grit,
            fine_stock_m=metres(one.fine_stock_um), brush_stock_m=metres(one.brush_stock_um),
            length_m=metres(one.length_um), stone_m=metres(one.stone_um),
            below_m=None if one.below_um is None else metres(one.below_um), turns=float(one.turns),
            strokes=float(one.strokes), wanted_deg=float(one.angle_deg),
            hatch_deg=None if now.hatch is None else now.hatch.included_deg,
            stroke_m=None if stroke is None else stroke.stroke_m,
            above_out_m=None if stroke is None else stroke.above_m,
            below_out_m=None if stroke is None else stroke.below_m, stop_m=None if stroke is None else stroke.stop_m,
            words=one.words, set_by=one.set_by,
        )  # fmt: skip


class LevelLeftView(BaseModel):
    """What one level has left. [m]"""

    name: str
    depth_m: float
    left: StatedView
    state: State
    more_strokes: int

    @classmethod
    def of(cls, one: LevelLeft) -> "LevelLeftView":
        """Show a level."""
        return cls(name=one.name, depth_m=one.depth_m, left=StatedView.of(one.left), state=one.rule.decision.state,
                   more_strokes=one.more_strokes)  # fmt: skip


class RateView(BaseModel):
    """What a double stroke takes, and within how much one more round lies. [m]"""

    per_stroke_m: float
    within_m: float | None
    rounds: int

    @classmethod
    def of(cls, one: Rate | None) -> "RateView | None":
        """Show a rate."""
        if one is None:
            return None
        return cls(per_stroke_m=one.per_stroke_m, within_m=one.within_m if one.is_learned else None, rounds=one.rounds)


class StrokesToGoView(BaseModel):
    """A band of nine in ten: its fast edge, its middle, its slow edge."""

    fast: float
    middle: float
    slow: float | None

    @classmethod
    def of(cls, one: StrokesToGo | None) -> "StrokesToGoView | None":
        """Show a band."""
        return None if one is None else cls(fast=one.fast, middle=one.middle, slow=one.slow)


class RoundMadeView(BaseModel):
    """A round that was made. [m]"""

    round_id: UUID
    stage: HoneStage
    grit: int
    method: HoneMethod
    strokes: int | None
    before_m: float | None
    after_m: float | None
    begun_at: datetime
    begun_by: str

    @classmethod
    def of(cls, one: RoundMade) -> "RoundMadeView":
        """Show a round."""
        return cls(round_id=one.begun.round_id, stage=one.begun.stage, grit=one.begun.grit, method=one.begun.method,
                   strokes=one.strokes, before_m=one.before_m, after_m=one.after_m, begun_at=one.begun.begun_at,
                   begun_by=one.begun.begun_by)  # fmt: skip


class RoundAheadView(BaseModel):
    """A round that is to come: what is left before it, after it, by its edges. [m]"""

    stage: HoneStage
    strokes: int
    before_m: float
    after_m: float | None
    fast_m: float | None
    slow_m: float | None

    @classmethod
    def of(cls, one: RoundAhead) -> "RoundAheadView":
        """Show a round to come."""
        return cls(stage=one.stage, strokes=one.strokes, before_m=one.before_m, after_m=one.after_m, fast_m=one.fast_m,
                   slow_m=one.slow_m)  # fmt: skip


class HoneView(BaseModel):
    """A hole that is honed. [m], [min]"""

    hole: int
    holes: list[int]
    aim: HoneAim
    quantity: Quantity
    state: HoneState
    target: HoneTargetView | None
    refused: PhraseView | None
    setting: HoneSettingView | None
    part_key: str
    clamped: bool = Field(description="The bore is read clamped, as things are chosen now.")
    usual_length_m: float = Field(description="Length of the bore by its lowest level, where nobody set it yet.")
    left: StatedView | None
    levels: list[LevelLeftView]
    stage: HoneStage | None
    round_of_stage: int
    stage_end_m: float
    rate: RateView | None
    stop: int
    to_stage_end: StrokesToGoView | None
    turning: RoundMadeView | None
    made: list[RoundMadeView]
    ahead: list[RoundAheadView]
    minutes: StrokesToGoView | None
    says: list[PhraseView]
    cautions: list[str]
    now: datetime = Field(description="The server's clock, against which a turning round is counted.")

    @classmethod
    def of(cls, facts: JobFacts, one: HoneNow) -> "HoneView":
        """Show where a hone stands."""
        turning = None if one.turning is None else RoundMadeView.of(one.turning)
        before = [made for made in one.made if made.begun.stage is one.stage and made.stopped is not None]
        setup = facts.present_setup(one.survey.feature.quantity)
        lowest = max((metres(level.depth_um) for level in one.survey.pattern.levels), default=0.0)
        return cls(
            hole=one.hole.number, holes=[hole.number for hole in facts.holes], aim=one.aim,
            quantity=one.survey.feature.quantity, state=one.state, target=HoneTargetView.of(one.target),
            refused=PhraseView.of(one.target) if isinstance(one.target, Phrase) else None,
            setting=HoneSettingView.of(one), part_key=one.survey.part.key,
            clamped=setup is not None and held(setup.load) is Held.CLAMPED, usual_length_m=lowest,
            left=StatedView.maybe(one.left),
            levels=[LevelLeftView.of(level) for level in one.levels], stage=one.stage, round_of_stage=len(before) + 1,
            stage_end_m=one.stage_end_m, rate=RateView.of(one.rate), stop=one.stop,
            to_stage_end=StrokesToGoView.of(one.to_stage_end), turning=turning,
            made=[RoundMadeView.of(made) for made in one.made], ahead=[RoundAheadView.of(to) for to in one.ahead],
            minutes=StrokesToGoView.of(one.minutes), says=[PhraseView.of(said) for said in one.says],
            cautions=list(one.cautions), now=datetime.now(UTC),
        )  # fmt: skip


class HoneSettingBody(BaseModel):
    """How a hole is honed; the client makes the id."""

    setting_id: UUID
    aim: HoneAim = HoneAim.PISTON
    method: HoneMethod = HoneMethod.OIL
    drive: HoneDrive = HoneDrive.MACHINE
    rough_grit: Annotated[int, Field(ge=0, le=10_000)] = 70
    fine_grit: Annotated[int, Field(ge=0, le=10_000)] = 220
    fine_stock: LengthText = Field(description="On the diameter: what the rough stones leave for the fine ones.")
    brush_stock: LengthText = Field("", description="What the fine stones leave for a brush; empty without one.")
    length: LengthText
    stone: LengthText
    below: LengthText = Field("", description="How far the stones may run out below; empty where nothing stands there.")
    turns: Annotated[str, Field(max_length=20)]
    strokes: Annotated[str, Field(max_length=20)] = ""
    angle: Annotated[str, Field(max_length=20)] = ""
    words: LongText = ""
    bare_unit: Unit = "thou"
    confirmed: bool = False
    person_id: UUID


class RoundBody(BaseModel):
    """A round that begins; the client makes the id."""

    round_id: UUID
    aim: HoneAim = HoneAim.PISTON
    stage: HoneStage
    hold_reason: ShortText = ""
    person_id: UUID


class RoundStopBody(BaseModel):
    """A round that was stopped; the client makes the id."""

    hone_mark_id: UUID
    strokes: Annotated[int, Field(ge=0, le=100_000)]
    person_id: UUID


class RoundNoteBody(BaseModel):
    """The stones were cleaned; the client makes the id."""

    hone_mark_id: UUID
    words: LongText = ""
    person_id: UUID


@router.get("/{hole}")
def read_honing(job_id: UUID, hole: int, conn: Conn, aim: HoneAim = HoneAim.PISTON) -> HoneView:
    """Where the honing of a hole stands."""
    return HoneView.of(*honing.honing_now(conn, job_id, hole, aim))


@router.post("/{hole}/settings", status_code=201)
def set_hone(job_id: UUID, hole: int, body: HoneSettingBody, conn: Conn) -> HoneView:
    """Write down how a hole is honed: other holes begin with the same."""
    made = honing.HoneSet(hole=hole, **body.model_dump(exclude={"person_id"}))
    honing.record_hone_setting(conn, job_id, made, body.person_id)
    return read_honing(job_id, hole, conn, body.aim)


@router.post("/{hole}/rounds", status_code=201)
def begin_hone_round(job_id: UUID, hole: int, body: RoundBody, conn: Conn) -> HoneView:
    """Begin a round; 409 where hold points stand before the first one, or another turns."""
    honing.begin_round(conn, job_id, hole, body.aim, body.stage, body.round_id, body.hold_reason, body.person_id)
    return read_honing(job_id, hole, conn, body.aim)


@router.post("/{hole}/rounds/{round_id}/stop", status_code=201)
def stop_hone_round(job_id: UUID, hole: int, round_id: UUID, body: RoundStopBody, conn: Conn) -> HoneView:
    """Stop a round: the bore is read next."""
    honing.stop_round(conn, job_id, hole, round_id, body.hone_mark_id, body.strokes, body.person_id)
    return read_honing(job_id, hole, conn, honing.aim_of_round(conn, job_id, round_id))


@router.post("/{hole}/rounds/{round_id}/notes", status_code=201)
def note_on_hone_round(job_id: UUID, hole: int, round_id: UUID, body: RoundNoteBody, conn: Conn) -> HoneView:
    """Write down that the stones were cleaned."""
    honing.note_on_round(conn, job_id, hole, round_id, body.hone_mark_id, body.words, body.person_id)
    return read_honing(job_id, hole, conn, honing.aim_of_round(conn, job_id, round_id))
