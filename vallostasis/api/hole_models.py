"""One hole as it goes over the wire: marks, rules, parts, need."""

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel, Field

from vallostasis.api.trail import PhraseView
from vallostasis.core.counterbore.ledge_report import LedgeReport
from vallostasis.core.hole_now import HoleNow, hole_now
from vallostasis.core.needs import Action, Need
from vallostasis.core.operations.catalogue import operation_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Cut, FittedShim, Hole, Liner, Quantity
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State


class RuleView(BaseModel):
    """One rule of the card held against one value. [m]"""

    rule: str
    kind: RuleKind
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
            kind=rule.kind,
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
    past: bool = Field(False, description="It stood before something was done that makes it to be read again.")


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
    deepest_hour: float | None = Field(description="Null where scatter alone would show as much.")
    proud_hours: list[float] = Field(description="Higher than all others say: a burr, or dirt.")
    says: str = Field(description="What the depths leave open, in words.")
    left_m: float | None = Field(description="Ledge left at its deepest reading. [m]")
    left_expanded_m: float | None


class NeedView(BaseModel):
    """What a hole needs next."""

    action: Action
    sentence: PhraseView
    detail: PhraseView
    hours: list[float]
    liner_mark: str
    quantity: Quantity | None = Field(description="The survey to read.")
    part: str
    operation: str = Field(description="What of the work it belongs to; empty where nothing is needed.")

    @classmethod
    def of(cls, need: Need) -> "NeedView":
        """Show a need."""
        return cls(
            action=need.action,
            sentence=PhraseView.of(need.sentence),
            detail=PhraseView.of(need.detail),
            hours=list(need.hours),
            liner_mark=need.liner_mark,
            quantity=need.quantity,
            part=need.part,
            operation="" if need.operation is None else operation_of(need.operation).title,
        )


class PartsView(BaseModel):
    """What the parts of a hole are and what they predict. [m]"""

    flange_m: float | None
    ledge_m: float | None = Field(description="Depth of the plane the flange rests on. [m]")
    ledge_expanded_m: float | None
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
    doubt: str = Field(description="A part that was read on a zero found moved; no cut is planned on it.")


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
    high_to_low_expanded_m: float | None
    clustered: PhraseView | None = Field(description="What positions that lie close together cost.")
    rules: list[RuleView]
    parts: PartsView
    liner: Liner | None
    as_found: bool = Field(description="Nothing was done to it since the engine came in: the liner in it is unknown.")
    fitting_id: UUID | None
    fitted_at: datetime | None
    shims: list[FittedShim]
    set_id: UUID | None
    last_cut: Cut | None
    expected_m: float | None = Field(description="Protrusion expected after a cut, while nothing is read. [m]")
    expected_expanded_m: float | None
    need: NeedView


def hole_view(facts: JobFacts, hole: Hole) -> HoleView:
    """Show one hole."""
    now = hole_now(facts, hole)
    fitting = now.fitting
    return HoleView(
        hole_id=hole.hole_id,
        number=hole.number,
        state=now.state,
        reason=now.reason,
        reopened=now.reopened,
        missing_hours=list(now.missing_hours),
        unreadable=[UnreadableHour(hour=hour, reason=reason) for hour, reason in now.unreadable],
        least_m=now.limits.least_m,
        greatest_m=now.limits.greatest_m,
        with_shim=now.with_shim,
        marks=marks_of(now),
        mean_m=None if now.mean is None else now.mean.value_m,
        mean_expanded_m=None if now.mean is None else now.mean.expanded_m,
        variation_m=None if now.variation is None else now.variation.value_m,
        variation_expanded_m=None if now.variation is None else now.variation.expanded_m,
        high_side_hour=now.high_side_hour,
        high_to_low_m=None if now.tilt is None else now.tilt.stated.value_m,
        high_to_low_expanded_m=None if now.tilt is None else now.tilt.stated.expanded_m,
        clustered=None if now.clustered is None else PhraseView.of(now.clustered),
        rules=[RuleView.of(rule) for rule in now.rules],
        parts=_parts_view(now),
        as_found=facts.is_as_found(hole.hole_id),
        liner=None if fitting is None else facts.liner(fitting.liner_id),
        fitting_id=None if fitting is None else fitting.fitting_id,
        fitted_at=None if fitting is None else fitting.fitted_at,
        shims=[] if fitting is None else list(facts.shims_of(fitting.fitting_id)),
        set_id=None if now.newest_set is None else now.newest_set.reading_set_id,
        last_cut=facts.last_cut(hole.hole_id),
        expected_m=None if now.expected is None else now.expected.value_m,
        expected_expanded_m=None if now.expected is None else now.expected.expanded_m,
        need=NeedView.of(now.need),
    )


def marks_of(now: HoleNow) -> list[Mark]:
    """Show the mean at each clock position with its decision; without limits nothing speaks against it."""
    return [
        Mark(
            hour=row.place.hour,
            mean_m=row.stated.value_m,
            expanded_m=row.stated.expanded_m,
            count=len(row.readings),
            state=row.state or State.IN,
        )
        for row in now.survey.read
        if row.place.hour is not None and row.stated is not None
    ] + [
        Mark(hour=row.place.hour, mean_m=row.stated.value_m, expanded_m=row.stated.expanded_m,
             count=len(row.readings), state=State.READ_AGAIN, past=True)
        for row in now.survey.past
        if row.place.hour is not None and row.stated is not None
    ]  # fmt: skip


def _parts_view(now: HoleNow) -> PartsView:
    parts, residual, report = now.parts, now.residual, now.ledge
    worn = () if report is None else report.worn_hours
    prediction = None if parts.prediction is None else parts.prediction.stated
    return PartsView(
        flange_m=None if parts.flange is None else parts.flange.size_m,
        ledge_m=None if parts.ledge is None else parts.ledge.depth_m,
        ledge_expanded_m=None if parts.ledge is None else parts.ledge.depth.expanded_m,
        ledge_depths=[
            DepthMark(hour=row.place.hour, depth_m=row.stated.value_m, expanded_m=row.stated.expanded_m,
                      worn=row.place.hour in worn)
            for row in now.depths.read
            if row.place.hour is not None and row.stated is not None
        ],
        ledge=None if report is None else _ledge_view(report),
        least_depth_m=now.depth_window[0],
        greatest_depth_m=now.depth_window[1],
        planes_differ=parts.ledge is not None and parts.ledge.planes_differ,
        between_m=sum(part.size_m for part in parts.between),
        predicted_m=None if prediction is None else prediction.value_m,
        predicted_expanded_m=None if prediction is None else prediction.expanded_m,
        residual_m=None if residual is None else residual.residual_m,
        residual_expanded_m=None if residual is None else residual.expanded_m,
        agrees=None if residual is None else residual.agrees,
        missing=list(parts.missing),
        doubt=parts.doubt,
    )  # fmt: skip


def _ledge_view(report: LedgeReport) -> LedgeView:
    return LedgeView(
        squareness_m=report.squareness.value_m,
        squareness_expanded_m=report.squareness.expanded_m,
        deepest_hour=report.deepest_hour,
        proud_hours=list(report.proud_hours),
        says=report.says,
        left_m=None if report.left is None else report.left.value_m,
        left_expanded_m=None if report.left is None else report.left.expanded_m,
    )
