"""One hole as it goes over the wire: marks, rules, parts, need."""

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel, Field

from vallostasis.api.trail import PhraseView
from vallostasis.core.counterbore.hole_plan import depth_window, expected_after_cut
from vallostasis.core.counterbore.ledge_report import LedgeReport, report_ledge
from vallostasis.core.job_facts import JobFacts
from vallostasis.core.measuring.clock import hour_of_angle
from vallostasis.core.measuring.decision import RuleResult, State
from vallostasis.core.measuring.uncertainty import standard_of_mean
from vallostasis.core.measuring.values import trust_of_set
from vallostasis.core.needs import Action, Need
from vallostasis.core.protrusion.measured import (
    hole_parts,
    measured_hole,
    readings_by_hour,
)
from vallostasis.core.protrusion.rules import HoleJudgement, MeasuredHole
from vallostasis.core.records import Cut, FittedShim, Hole, Liner


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
    """Ledge depth from the deck at one clock position; worn when it lies deeper than the plane beyond U. [m]"""

    hour: float
    depth_m: float
    expanded_m: float
    worn: bool


class LedgeView(BaseModel):
    """What the depths of a ledge say together. [m]"""

    squareness_m: float = Field(description="High to low of the fitted plane. [m]")
    squareness_expanded_m: float
    deepest_hour: float
    left_m: float | None = Field(description="Ledge left at its deepest reading. [m]")
    left_expanded_m: float | None


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
    ledge: LedgeView | None = Field(description="Null with fewer than three positions.")
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


class UnreadableHour(BaseModel):
    """A required position that cannot be read, and why."""

    hour: float
    reason: str


class HoleView(BaseModel):
    """One hole as it stands now."""

    hole_id: UUID
    number: int
    state: State
    reason: str
    reopened: str
    missing_hours: list[float]
    unreadable: list[UnreadableHour]
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
        unreadable=[UnreadableHour(hour=hour, reason=reason) for hour, reason in measured.unreadable],
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
    report = report_ledge(facts, hole)
    worn = () if report is None else report.worn_hours
    trust = None if depth_set is None else trust_of_set(facts, depth_set)
    return PartsView(
        flange_m=None if parts.flange is None else parts.flange.size_m,
        ledge_m=None if parts.ledge is None else parts.ledge.depth_m,
        ledge_depths=[
            DepthMark(
                hour=depth.hour,
                depth_m=depth.mean_m,
                expanded_m=0.0 if trust is None else k * standard_of_mean(trust, len(depth.values_m)),
                worn=depth.hour in worn,
            )
            for depth in depths
        ],
        ledge=None if report is None else _ledge_view(report, k),
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


def _ledge_view(report: LedgeReport, k: float) -> LedgeView:
    left = report.left
    return LedgeView(
        squareness_m=report.squareness_m,
        squareness_expanded_m=report.squareness_expanded_m,
        deepest_hour=report.deepest_hour,
        left_m=None if left is None else left.size_m,
        left_expanded_m=None if left is None else k * left.standard_m,
    )
