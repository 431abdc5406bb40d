"""A conversion: left proud and decked, registers in line, inserts, relief, fire ring, seals, compound, hole by hole."""

from datetime import datetime
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.hole_models import RuleView
from vallostasis.api.trail import PhraseView
from vallostasis.core.conversions.bent_liner import Bent
from vallostasis.core.conversions.conversion import HoleConversion
from vallostasis.core.conversions.decking import Decking, LeftProud
from vallostasis.core.conversions.fire_ring import SETTLES_M, StudPull
from vallostasis.core.conversions.inserts import InsertFit
from vallostasis.core.conversions.registers import RegisterLine
from vallostasis.core.conversions.rod_sweep import Relief
from vallostasis.core.conversions.stack import CompoundNow, ReliefNow, RingNow, SealNow
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import conversions

router = APIRouter(prefix="/api/jobs/{job_id}/conversion", tags=["conversions"], responses=ERROR_RESPONSES)


class LeftProudView(BaseModel):
    """How proud one liner stands before the deck is cut."""

    rules: list[RuleView] = Field(description="Its lowest and its highest reading.")
    highest: StatedView | None
    flange_left: RuleView | None
    state: State
    reason: str

    @classmethod
    def of(cls, one: LeftProud) -> "LeftProudView":
        """Show a liner that is left proud."""
        return cls(rules=[RuleView.of(rule) for rule in one.rules], highest=StatedView.maybe(one.highest),
                   flange_left=None if one.flange_left is None else RuleView.of(one.flange_left), state=one.state,
                   reason=one.reason)  # fmt: skip


class BentView(BaseModel):
    """A liner held square in registers that are off. [m], [N], [Pa], [rad]"""

    off_m: float
    force_n: float
    stress_pa: float
    leans: float

    @classmethod
    def of(cls, one: Bent | None) -> "BentView | None":
        """Show a bent liner."""
        if one is None:
            return None
        return cls(off_m=one.off_m, force_n=one.force_n, stress_pa=one.stress_pa, leans=one.leans)


class RegisterView(BaseModel):
    """Whether both registers of a hole lie in one line."""

    rule: RuleView | None
    hour: float | None
    within_deg: float | None
    slack_m: float | None
    bent: BentView | None
    bent_most: BentView | None
    strength_pa: float | None
    after: StatedView | None = Field(description="Out of round of the bore with the liner in.")
    state: State
    says: PhraseView

    @classmethod
    def of(cls, one: RegisterLine) -> "RegisterView":
        """Show a line of registers."""
        return cls(rule=None if one.rule is None else RuleView.of(one.rule), hour=one.hour, within_deg=one.within_deg,
                   slack_m=one.slack_m, bent=BentView.of(one.bent), bent_most=BentView.of(one.bent_most),
                   strength_pa=one.strength_pa, after=None if one.after is None else StatedView.of(one.after.stated),
                   state=one.state, says=PhraseView.of(one.says))  # fmt: skip


class InsertView(BaseModel):
    """The press of an insert in its pocket. [Pa], [m]"""

    says: PhraseView
    state: State
    levels: list[RuleView]
    pressure_pa: float | None
    hoop_block_pa: float | None
    closes_in_m: float | None

    @classmethod
    def of(cls, one: InsertFit | Phrase) -> "InsertView":
        """Show an insert, or what is missing."""
        if isinstance(one, Phrase):
            return cls(says=PhraseView.of(one), state=State.NOT_MEASURED, levels=[], pressure_pa=None,
                       hoop_block_pa=None, closes_in_m=None)  # fmt: skip
        return cls(says=PhraseView.of(one.says), state=one.state, levels=[RuleView.of(row.rule) for row in one.levels],
                   pressure_pa=one.pressure_pa, hoop_block_pa=one.hoop_block_pa,
                   closes_in_m=one.closes_in_m)  # fmt: skip


class RingView(BaseModel):
    """The fire ring of a hole."""

    missing: PhraseView | None
    height_m: float | None
    known_by: str
    crush: RuleView | None

    @classmethod
    def of(cls, one: RingNow | Phrase) -> "RingView":
        """Show a fire ring, or what is missing."""
        if isinstance(one, Phrase):
            return cls(missing=PhraseView.of(one), height_m=None, known_by="", crush=None)
        return cls(missing=None, height_m=one.height_m, known_by=one.known_by, crush=RuleView.of(one.crush))


class ReliefSideView(BaseModel):
    """One side of a liner's foot. [m]"""

    reach_m: float
    clear_m: float
    deep_m: float
    high_m: float

    @classmethod
    def of(cls, one: Relief) -> "ReliefSideView":
        """Show one side."""
        return cls(reach_m=one.reach_m, clear_m=one.clear_m, deep_m=one.deep_m, high_m=one.high_m)


class ReliefView(BaseModel):
    """What is relieved at the foot of a liner."""

    missing: PhraseView | None
    towards_hour: float | None
    towards: ReliefSideView | None
    away: ReliefSideView | None
    foot_m: float | None = Field(description="Height above the axis of the crank.")

    @classmethod
    def of(cls, one: ReliefNow | Phrase) -> "ReliefView":
        """Show a relief, or what is missing."""
        if isinstance(one, Phrase):
            return cls(missing=PhraseView.of(one), towards_hour=None, towards=None, away=None, foot_m=None)
        return cls(missing=None, towards_hour=one.towards_hour, towards=ReliefSideView.of(one.towards),
                   away=ReliefSideView.of(one.away), foot_m=one.foot_m)  # fmt: skip


class SealView(BaseModel):
    """One seal in its groove; shares of one."""

    name: str
    groove_in: str
    material: str
    grease: str
    bore_known_by: str
    squeeze: float | None
    squeeze_least: float | None
    squeeze_greatest: float | None
    stretch: float | None
    fill: float | None
    fill_hot: float | None
    against: list[str]

    @classmethod
    def of(cls, one: SealNow) -> "SealView":
        """Show a seal."""
        now = one.sealing
        return cls(name=one.ring.name, groove_in=one.ring.groove_in, material=one.ring.material, grease=one.ring.grease,
                   bore_known_by=one.bore_known_by, squeeze=None if now is None else now.squeeze,
                   squeeze_least=None if now is None else now.squeeze_least,
                   squeeze_greatest=None if now is None else now.squeeze_greatest,
                   stretch=None if now is None else now.stretch, fill=None if now is None else now.fill,
                   fill_hot=None if now is None else now.fill_hot, against=list(one.against))  # fmt: skip


class CompoundView(BaseModel):
    """Compound of a hole. [m³]"""

    says: PhraseView
    gap: RuleView | None
    fills_m3: float | None
    cures_until: datetime | None

    @classmethod
    def of(cls, one: CompoundNow) -> "CompoundView":
        """Show what compound has to do."""
        return cls(says=PhraseView.of(one.says), gap=None if one.gap is None else RuleView.of(one.gap),
                   fills_m3=one.fills_m3, cures_until=one.cures_until)  # fmt: skip


class HoleConversionView(BaseModel):
    """What a conversion asks of one hole."""

    hole: int
    liner: str | None
    is_home: bool
    proud: LeftProudView | None
    register_line: RegisterView | None
    insert: InsertView | None
    ring: RingView | None
    relief: ReliefView | None
    seals: list[SealView]
    compound: CompoundView | None

    @classmethod
    def of(cls, facts: JobFacts, one: HoleConversion) -> "HoleConversionView":
        """Show one hole."""
        return cls(
            hole=one.hole.number, liner=one.liner, is_home=facts.present_fitting(one.hole.hole_id) is not None,
            proud=None if one.proud is None else LeftProudView.of(one.proud),
            register_line=None if one.register is None else RegisterView.of(one.register),
            insert=None if one.insert is None else InsertView.of(one.insert),
            ring=None if one.ring is None else RingView.of(one.ring),
            relief=None if one.relief is None else ReliefView.of(one.relief),
            seals=[SealView.of(seal) for seal in one.seals],
            compound=None if one.compound is None else CompoundView.of(one.compound),
        )  # fmt: skip


class DeckingView(BaseModel):
    """The cut that brings liners and deck to one face."""

    clean_up_m: float | None
    skim: StatedView | None
    highest_hole: int | None
    out_of_flat: StatedView | None
    decked_at: datetime | None
    says: list[PhraseView]

    @classmethod
    def of(cls, one: Decking | None) -> "DeckingView | None":
        """Show the cut of the deck."""
        if one is None:
            return None
        return cls(clean_up_m=one.clean_up_m, skim=StatedView.maybe(one.skim), highest_hole=one.highest_hole,
                   out_of_flat=StatedView.maybe(one.out_of_flat), decked_at=one.decked_at,
                   says=[PhraseView.of(said) for said in one.says])  # fmt: skip


class StudsView(BaseModel):
    """What the studs of a head do when tight. [m], [Pa], [N]"""

    missing: PhraseView | None
    stretch_m: float
    stress_pa: float
    lost_n: float
    settles_m: float
    in_block_m: float | None
    least_in_block_m: float | None

    @classmethod
    def of(cls, one: StudPull | Phrase | None, least_m: float | None) -> "StudsView | None":
        """Show the studs, or what is missing."""
        if one is None:
            return None
        if isinstance(one, Phrase):
            return cls(missing=PhraseView.of(one), stretch_m=0.0, stress_pa=0.0, lost_n=0.0, settles_m=SETTLES_M,
                       in_block_m=None, least_in_block_m=least_m)  # fmt: skip
        return cls(missing=None, stretch_m=one.stretch_m, stress_pa=one.stress_pa, lost_n=one.lost_n,
                   settles_m=SETTLES_M, in_block_m=one.in_block_m, least_in_block_m=least_m)  # fmt: skip


class ConversionView(BaseModel):
    """A block to be converted."""

    holes: list[HoleConversionView]
    decking: DeckingView | None
    studs: StudsView | None
    order: list[PhraseView]


@router.get("")
def read_conversion(job_id: UUID, conn: Conn) -> ConversionView:
    """What a conversion asks of every hole, the cut of the deck that ends it, and what comes before what."""
    facts, now = conversions.conversion_now(conn, job_id)
    return ConversionView(
        holes=[HoleConversionView.of(facts, one) for one in now.holes], decking=DeckingView.of(now.decking),
        studs=StudsView.of(now.studs, facts.card.conversion.stud_thread.metres),
        order=[PhraseView.of(one) for one in now.order],
    )  # fmt: skip
