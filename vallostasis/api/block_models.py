"""The block as it goes over the wire: every hole with its marks, rules, parts and need."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID

from pydantic import BaseModel, Field

from vallostasis.api.trail import PhraseView
from vallostasis.core.counterbore.hole_plan import depth_window, expected_after_cut
from vallostasis.core.job_facts import JobFacts
from vallostasis.core.lengths import Unit
from vallostasis.core.measuring.clock import hour_of_angle
from vallostasis.core.measuring.decision import Capability, State, gauge_capability
from vallostasis.core.needs import Action, Need
from vallostasis.core.protrusion.measured import (
    flange_part,
    hole_parts,
    limits_for,
    measured_hole,
    readings_by_hour,
    trust_of_gauge,
)
from vallostasis.core.protrusion.rules import BlockJudgement, HeadAverage, HoleJudgement, MeasuredHole, RuleResult
from vallostasis.core.records import CardVersion, Cut, FittedShim, GaugeVersion, Hole, Job, Liner, Quantity, Setup
from vallostasis.core.spec_card import CardUnit, SpecCard
from vallostasis.services.block import BlockNow
from vallostasis.services.jobs import what_stage_waits_for


class RuleView(BaseModel):
    """One rule of the card held against one value. [m]"""

    rule: str
    where: str
    value_m: float
    expanded_m: float
    least_m: float | None
    greatest_m: float | None
    state: State
    guarded: State = Field(description="What can be said beyond the uncertainty, whatever the card accepts.")

    @classmethod
    def of(cls, rule: RuleResult) -> "RuleView":
        """Show a rule result."""
        return cls(
            rule=rule.rule,
            where=rule.where,
            value_m=rule.value_m,
            expanded_m=rule.expanded_m,
            least_m=rule.least_m,
            greatest_m=rule.greatest_m,
            state=rule.decision.state,
            guarded=rule.decision.guarded,
        )


class Mark(BaseModel):
    """Mean of the readings at one clock position, and what it decides."""

    hour: float
    mean_m: float
    expanded_m: float
    count: int
    state: State


class DepthMark(BaseModel):
    """Ledge depth from the deck at one clock position. [m]"""

    hour: float
    depth_m: float


class NeedView(BaseModel):
    """What a hole needs next."""

    action: Action
    sentence: PhraseView
    detail: PhraseView
    hours: list[float]
    liner_mark: str

    @classmethod
    def of(cls, need: Need) -> "NeedView":
        """Show a need."""
        return cls(
            action=need.action,
            sentence=PhraseView.of(need.sentence),
            detail=PhraseView.of(need.detail),
            hours=list(need.hours),
            liner_mark=need.liner_mark,
        )


class PartsView(BaseModel):
    """What the parts of a hole are and what they predict. [m]"""

    flange_m: float | None
    ledge_m: float | None = Field(description="Depth of the plane the flange rests on. [m]")
    ledge_depths: list[DepthMark]
    least_depth_m: float | None = Field(description="Ledge depth at which the liner stands at its greatest. [m]")
    greatest_depth_m: float | None = Field(description="Ledge depth at which the liner stands at its least. [m]")
    planes_differ: bool = Field(description="Fitted and supporting plane of the ledge differ by more than U.")
    between_m: float
    predicted_m: float | None
    predicted_expanded_m: float | None
    residual_m: float | None = Field(description="Measured less predicted. [m]")
    residual_expanded_m: float | None
    agrees: bool | None
    missing: list[str]


class HoleView(BaseModel):
    """One hole as it stands now."""

    hole_id: UUID
    number: int
    state: State
    reason: str
    reopened: str
    missing_hours: list[float]
    least_m: float | None
    greatest_m: float | None
    with_shim: bool
    marks: list[Mark]
    mean_m: float | None
    mean_expanded_m: float | None
    variation_m: float | None
    variation_expanded_m: float | None
    high_side_hour: float | None
    high_to_low_m: float | None
    rules: list[RuleView]
    parts: PartsView
    liner: Liner | None
    fitting_id: UUID | None
    fitted_at: datetime | None
    shims: list[FittedShim]
    set_id: UUID | None
    last_cut: Cut | None
    expected_m: float | None = Field(description="Protrusion expected after a cut, while nothing is read. [m]")
    expected_expanded_m: float | None
    need: NeedView


class HeadView(BaseModel):
    """One head: its holes, and the average under it where the card asks for one."""

    holes: list[int]
    rule: RuleView | None


@dataclass(frozen=True, slots=True)
class ReadingRow:
    """One reading on the tape. There are thousands: a plain dataclass is made ten times faster than a model."""

    reading_id: UUID
    set_id: UUID
    quantity: Quantity
    hole: int | None
    liner_mark: str
    land: str
    hour: float | None
    value_um: Decimal
    typed: str
    typed_unit: str
    taken_at: datetime
    taken_by: str
    struck: bool
    strike_reason: str
    event: int


class DoneRow(BaseModel):
    """A cut or fitting on the tape."""

    row_id: UUID
    kind: str
    hole: int
    words: str
    done_at: datetime
    done_by: str
    struck: bool
    event: int


class StageView(BaseModel):
    """One stage of the route."""

    stage_id: UUID
    name: str
    planned_hours: Decimal
    done: bool
    waits_for: str


class SetupView(BaseModel):
    """Gauge, land, datum and clamp for one quantity, and whether the gauge is fit for the card's window."""

    quantity: Quantity
    gauge: GaugeVersion
    land: str
    datum: str
    hold_down: str
    hold_down_torque_nm: Decimal | None
    shared_zero: bool
    bare_unit: Unit
    expanded_m: float = Field(description="Expanded uncertainty of one reading. [m]")
    capability: Capability | None
    cautions: list[str]


class CardView(BaseModel):
    """What the block view needs of the spec card."""

    version: CardVersion
    newest_version: int
    name: str
    engine: str
    unit: CardUnit
    construction: str
    holes: int
    heads: list[list[int]]
    numbering: str
    twelve_o_clock: str
    bore_pitch_m: float
    bore_m: float
    required_hours: list[float]
    land: str
    lands: list[tuple[str, float, str]]
    between: list[tuple[str, float]]
    variation_m: float | None
    neighbour_m: float | None
    least_without_m: float | None
    greatest_without_m: float | None
    least_with_m: float | None
    greatest_with_m: float | None
    coverage_factor: float


class BlockView(BaseModel):
    """A job's block with everything the screen shows of it."""

    job: Job
    card: CardView
    stages: list[StageView]
    holes: list[HoleView]
    heads: list[HeadView]
    liners: list["LinerView"]
    setups: list[SetupView]
    readings: list[ReadingRow]
    done: list[DoneRow]
    event: int = Field(description="The newest thing recorded; grows with every change.")


class LandThickness(BaseModel):
    """Flange thickness of a liner at one land: mean of its newest set. [m]"""

    land: str
    thickness_m: float | None
    expanded_m: float | None


class LinerView(BaseModel):
    """A liner of the job: where it is, and its flange thickness at each land."""

    liner: Liner
    hole: int | None
    flange: list[LandThickness]


def block_view(now: BlockNow, newest_card_version: int) -> BlockView:
    """Show a block."""
    facts = now.facts
    pairs = zip(facts.holes, now.judgement.holes, strict=True)
    return BlockView(
        job=facts.job,
        card=card_view(facts, newest_card_version),
        stages=stage_views(facts, now.judgement),
        holes=[hole_view(facts, hole, judged, now.needs[hole.number]) for hole, judged in pairs],
        heads=[_head_view(head) for head in now.judgement.heads],
        liners=[liner_view(facts, liner) for liner in facts.liners],
        setups=[
            setup_view(facts, setup) for quantity in Quantity if (setup := facts.present_setup(quantity)) is not None
        ],
        readings=reading_rows(facts),
        done=done_rows(facts),
        event=facts.newest_event,
    )


def stage_views(facts: JobFacts, judgement: BlockJudgement) -> list[StageView]:
    """Show the route of a job."""
    return [
        StageView(
            stage_id=stage.stage_id,
            name=stage.name,
            planned_hours=stage.planned_hours,
            done=stage.done,
            waits_for="" if stage.done else what_stage_waits_for(stage.name, judgement),
        )
        for stage in facts.stages
    ]


def card_view(facts: JobFacts, newest_version: int) -> CardView:
    """Show what the block needs of its card."""
    card = facts.card
    without, with_shim = limits_for(card, False), limits_for(card, True)
    return CardView(
        version=facts.card_version,
        newest_version=newest_version,
        name=card.name,
        engine=card.engine,
        unit=card.unit,
        construction=card.construction.value,
        holes=card.layout.holes,
        heads=[list(head) for head in card.layout.heads],
        numbering=card.layout.numbering,
        twelve_o_clock=card.layout.twelve_o_clock,
        bore_pitch_m=card.layout.bore_pitch.metres,
        bore_m=card.layout.bore.metres,
        required_hours=list(card.measuring.required_hours),
        land=card.measuring.land,
        lands=[(land.name, land.raised.metres, land.note) for land in card.lands],
        between=[(part.name, part.thickness.metres) for part in card.measuring.between],
        variation_m=without.variation_m,
        neighbour_m=without.neighbour_m,
        least_without_m=without.least_m,
        greatest_without_m=without.greatest_m,
        least_with_m=with_shim.least_m,
        greatest_with_m=with_shim.greatest_m,
        coverage_factor=card.coverage_factor,
    )


def hole_view(facts: JobFacts, hole: Hole, judged: HoleJudgement, need: Need) -> HoleView:
    """Show one hole."""
    measured = measured_hole(facts, hole)
    fitting = facts.present_fitting(hole.hole_id)
    reading_set = None if fitting is None else facts.newest_protrusion_set(fitting.fitting_id)
    expected = None if judged.mean_m is not None else expected_after_cut(facts, hole)
    variation = next((rule for rule in judged.rules if rule.rule == "variation round"), None)
    k = facts.card.coverage_factor
    return HoleView(
        hole_id=hole.hole_id,
        number=hole.number,
        state=judged.state,
        reason=judged.reason,
        reopened=measured.reopened,
        missing_hours=list(judged.missing_hours),
        least_m=measured.limits.least_m,
        greatest_m=measured.limits.greatest_m,
        with_shim=fitting is not None and bool(facts.shims_of(fitting.fitting_id)),
        marks=marks_of(measured, judged),
        mean_m=judged.mean_m,
        mean_expanded_m=judged.mean_expanded_m,
        variation_m=judged.variation_m,
        variation_expanded_m=None if variation is None else variation.expanded_m,
        high_side_hour=None if judged.plane is None else hour_of_angle(judged.plane.high_side_deg),
        high_to_low_m=None if judged.plane is None else judged.plane.high_to_low_m,
        rules=[RuleView.of(rule) for rule in judged.rules],
        parts=_parts_view(facts, hole),
        liner=None if fitting is None else facts.liner(fitting.liner_id),
        fitting_id=None if fitting is None else fitting.fitting_id,
        fitted_at=None if fitting is None else fitting.fitted_at,
        shims=[] if fitting is None else list(facts.shims_of(fitting.fitting_id)),
        set_id=None if reading_set is None else reading_set.reading_set_id,
        last_cut=facts.last_cut(hole.hole_id),
        expected_m=None if expected is None else expected[0],
        expected_expanded_m=None if expected is None else k * expected[1],
        need=NeedView.of(need),
    )


def marks_of(measured: MeasuredHole, judged: HoleJudgement) -> list[Mark]:
    """Show the mean at each clock position with its decision."""
    singles = [rule for rule in judged.rules if rule.rule == "protrusion"]
    return [
        Mark(
            hour=reading.hour,
            mean_m=reading.mean_m,
            expanded_m=rule.expanded_m,
            count=len(reading.values_m),
            state=rule.decision.state,
        )
        for reading, rule in zip(measured.readings, singles, strict=True)
    ]


def _parts_view(facts: JobFacts, hole: Hole) -> PartsView:
    parts = hole_parts(facts, hole)
    residual = measured_hole(facts, hole).residual
    depth_set = facts.newest_depth_set(hole.hole_id)
    depths = () if depth_set is None else readings_by_hour(facts, depth_set)
    least_depth, greatest_depth = depth_window(facts, hole)
    k = facts.card.coverage_factor
    return PartsView(
        flange_m=None if parts.flange is None else parts.flange.size_m,
        ledge_m=None if parts.ledge is None else parts.ledge.depth_m,
        ledge_depths=[DepthMark(hour=depth.hour, depth_m=depth.mean_m) for depth in depths],
        least_depth_m=least_depth,
        greatest_depth_m=greatest_depth,
        planes_differ=parts.ledge is not None and parts.ledge.planes_differ,
        between_m=sum(part.size_m for part in parts.between),
        predicted_m=None if parts.prediction is None else parts.prediction.protrusion_m,
        predicted_expanded_m=None if parts.prediction is None else k * parts.prediction.standard_m,
        residual_m=None if residual is None else residual.residual_m,
        residual_expanded_m=None if residual is None else residual.expanded_m,
        agrees=None if residual is None else residual.agrees,
        missing=list(parts.missing),
    )


def _head_view(head: HeadAverage) -> HeadView:
    return HeadView(holes=list(head.holes), rule=None if head.result is None else RuleView.of(head.result))


def liner_view(facts: JobFacts, liner: Liner) -> LinerView:
    """Show a liner."""
    hole = facts.hole_of_liner(liner.liner_id)
    flange = []
    for land in facts.card.lands:
        part = flange_part(facts, liner, land.name)
        flange.append(
            LandThickness(
                land=land.name,
                thickness_m=None if part is None else part.size_m,
                expanded_m=None if part is None else facts.card.coverage_factor * part.standard_m,
            )
        )
    return LinerView(liner=liner, hole=None if hole is None else hole.number, flange=flange)


def bare_unit_of(quantity: Quantity, card: SpecCard) -> Unit:
    """Unit that a bare number takes when a quantity is read for a card."""
    if quantity is Quantity.PROTRUSION:
        return "0.01 mm" if card.unit is CardUnit.MM else "thou"
    return "mm" if card.unit is CardUnit.MM else "inch"


def setup_view(facts: JobFacts, setup: Setup) -> SetupView:
    """Show how a quantity is read now, with what to mind."""
    gauge = max((g for g in facts.gauge_versions if g.gauge_id == setup.gauge_id), key=lambda g: g.version)
    trust = trust_of_gauge(gauge)
    expanded = facts.card.coverage_factor * float((trust.random_m**2 + trust.zero_m**2) ** 0.5)
    limits = limits_for(facts.card, False)
    capability = None
    if setup.quantity is Quantity.PROTRUSION and limits.least_m is not None and limits.greatest_m is not None:
        capability = gauge_capability(expanded, limits.least_m, limits.greatest_m)
    return SetupView(
        quantity=setup.quantity,
        gauge=gauge,
        land=setup.land,
        datum=setup.datum,
        hold_down=setup.hold_down,
        hold_down_torque_nm=setup.hold_down_torque_nm,
        shared_zero=setup.shared_zero,
        bare_unit=bare_unit_of(setup.quantity, facts.card),
        expanded_m=expanded,
        capability=capability,
        cautions=_cautions(facts, setup),
    )


def _cautions(facts: JobFacts, setup: Setup) -> list[str]:
    """Say where the setup departs from the card: readings taken so cannot be held against its limits."""
    if setup.quantity is not Quantity.PROTRUSION:
        return []
    measuring = facts.card.measuring
    cautions = []
    if setup.land != measuring.land:
        cautions.append(f"The card's limits are for the {measuring.land}, not the {setup.land}.")
    if setup.hold_down != measuring.hold_down:
        cautions.append(f"The card holds the liner down with {measuring.hold_down or 'nothing'}.")
    if setup.datum != measuring.datum:
        cautions.append(f"The card measures from {measuring.datum}.")
    return cautions


def reading_rows(facts: JobFacts) -> list[ReadingRow]:
    """Show all readings of a job in the order taken."""
    holes = {hole.hole_id: hole.number for hole in facts.holes}
    fittings = {f.fitting_id: (holes[f.hole_id], facts.liner(f.liner_id).mark) for f in facts.fittings}
    marks = {liner.liner_id: liner.mark for liner in facts.liners}
    setups = {setup.setup_id: setup for setup in facts.setups}
    of_set: dict[UUID, tuple[int | None, str, Setup]] = {}
    for s in facts.sets:
        if s.fitting_id is not None:
            hole, mark = fittings[s.fitting_id]
            of_set[s.reading_set_id] = (hole, mark, setups[s.setup_id])
        elif s.hole_id is not None:
            of_set[s.reading_set_id] = (holes[s.hole_id], "", setups[s.setup_id])
        elif s.liner_id is not None:
            of_set[s.reading_set_id] = (None, marks[s.liner_id], setups[s.setup_id])
    rows = []
    for reading in facts.readings:
        number, mark, setup = of_set[reading.reading_set_id]
        strike = facts.struck.get(reading.reading_id)
        rows.append(
            ReadingRow(
                reading_id=reading.reading_id,
                set_id=reading.reading_set_id,
                quantity=setup.quantity,
                hole=number,
                liner_mark=mark,
                land=setup.land,
                hour=reading.hour,
                value_um=reading.value_um,
                typed=reading.typed,
                typed_unit=reading.typed_unit,
                taken_at=reading.taken_at,
                taken_by=reading.taken_by,
                struck=strike is not None,
                strike_reason="" if strike is None else strike.reason,
                event=reading.event,
            )
        )
    return rows


def done_rows(facts: JobFacts) -> list[DoneRow]:
    """Show cuts and fittings in the order recorded."""
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    rows = [
        DoneRow(
            row_id=cut.cut_id,
            kind="cut",
            hole=numbers[cut.hole_id],
            words=f"cut to {cut.typed}",
            done_at=cut.cut_at,
            done_by=cut.cut_by,
            struck=cut.cut_id in facts.struck,
            event=cut.event,
        )
        for cut in facts.cuts
    ]
    for fitting in facts.fittings:
        shims = " + ".join(shim.typed for shim in facts.shims_of(fitting.fitting_id))
        words = f"{facts.liner(fitting.liner_id).mark} fitted" + (f" on {shims} shim" if shims else "")
        rows.append(
            DoneRow(
                row_id=fitting.fitting_id,
                kind="fitting",
                hole=numbers[fitting.hole_id],
                words=words,
                done_at=fitting.fitted_at,
                done_by=fitting.fitted_by,
                struck=fitting.fitting_id in facts.struck,
                event=fitting.event,
            )
        )
    return sorted(rows, key=lambda row: row.event)
