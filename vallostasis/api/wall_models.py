"""Walls as they go over the wire. Lengths in metres, angles in degrees clockwise from the front."""

from datetime import datetime
from math import isnan

from pydantic import BaseModel, Field

from vallostasis.api.findings import FindingView, finding_view
from vallostasis.api.survey_models import DerivedView
from vallostasis.core.bores.decisions import aimed_at
from vallostasis.core.bores.ladder import ladder_of_engine, standard_of
from vallostasis.core.bores.wall import Change, LoadWall, Start, Wall, Wear, deepest_round, greatest_wear, level_means
from vallostasis.core.bores.wall_field import WallField
from vallostasis.core.bores.wall_marks import stripes_beside_gauge, wall_marks
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.surveys.derived import BoreTable
from vallostasis.core.surveys.loads import Held
from vallostasis.core.uncertainty.budget import stated
from vallostasis.core.uncertainty.decision import State


class FieldView(BaseModel):
    """A field over depth and angle; null where nothing was read."""

    depths_m: list[float]
    angles_deg: list[float]
    values_m: list[list[float | None]]
    expanded_m: list[list[float | None]] | None

    @classmethod
    def of(cls, field: WallField | None) -> "FieldView | None":
        """Show a field."""
        if field is None:
            return None
        expanded = None if field.expanded_m is None else _with_blanks(field.expanded_m.tolist())
        return cls(depths_m=field.depths_m.tolist(), angles_deg=field.angles_deg.tolist(),
                   values_m=_with_blanks(field.values_m.tolist()), expanded_m=expanded)  # fmt: skip


def _with_blanks(rows: list[list[float]]) -> list[list[float | None]]:
    """Round to a tenth of a nanometre, which nobody draws, and leave out what was not read."""
    return [[None if isnan(one) else round(one, 10) for one in row] for row in rows]


class WallDot(BaseModel):
    """A reading where it lies on the wall; a diameter lies on two sides."""

    level: str
    depth_m: float
    angle_deg: float
    value_m: float
    expanded_m: float


class CircleLevel(BaseModel):
    """One level as a circle."""

    name: str
    depth_m: float
    mean_m: float
    expanded_m: float
    told: list[DerivedView]


class LoadView(BaseModel):
    """A bore as it was read under one load, or one load less another."""

    name: str = Field(description="How it was held, in words.")
    held: Held | None = Field(description="Null for a change.")
    read_at: datetime | None
    read_by: str
    gauge: str
    why_not: str = Field(description="Why it is not judged; empty where it is.")
    differs: list[str] = Field(description="In which points the plate was not on as in the build.")
    state: State | None
    reason: str
    reference_m: float = Field(description="What the field is drawn against: the nominal, or nought. [m]")
    dots: list[WallDot]
    field: FieldView | None
    circles: list[CircleLevel]
    told: list[DerivedView]
    greatest_m: float | None = None


class StartView(BaseModel):
    """What a bore starts from at one depth."""

    name: str
    depth_m: float
    size_m: float
    expanded_m: float
    in_travel: bool | None
    to_go_m: float | None = Field(description="On the diameter, to the size aimed at; null where there is none. [m]")


class AmountView(BaseModel):
    """A value with its ±."""

    value_m: float
    expanded_m: float


class DeepestView(BaseModel):
    """The deepest wear and where it lies."""

    value_m: float
    expanded_m: float
    depth_m: float
    angle_deg: float


class WearView(BaseModel):
    """How far a bore is worn."""

    unworn_m: float | None
    unworn_expanded_m: float | None
    unworn_at: str
    starts: list[StartView]
    aim: str = Field(description="What there is to go to: the step decided, else the one that is tried first.")
    ridge: AmountView | None
    cone: AmountView | None
    dots: list[WallDot]
    field: FieldView | None
    deepest: DeepestView | None
    round_m: list[float] = Field(description="Deepest wear at every angle of the field.")
    reason: str


class WallMarkView(BaseModel):
    """Something found on the wall, by its letter."""

    letter: str
    finding: FindingView
    angle_deg: float
    until_deg: float
    depth_expanded_m: float | None


class WallView(BaseModel):
    """The wall of one hole as it is known."""

    hole: int
    quantity: Quantity
    quantities: list[Quantity]
    title: str
    bore_m: float
    nominal_m: float | None
    ring_top_m: float | None
    ring_bottom_m: float | None
    thrust_deg: float | None
    twelve_o_clock: str
    loads: list[LoadView]
    changes: list[LoadView]
    judged: str
    stale: list[str]
    wear: WearView
    marks: list[WallMarkView]
    stripes: str = Field(description="What stripes say of the shape beside the gauge; empty where none were drawn.")
    blind: list[str]


def _dots(table: BoreTable, k: float) -> list[WallDot]:
    dots = []
    for depth, name, row in zip(table.depths_m, table.names, table.cells, strict=True):
        for axis, cell in zip(table.axes_deg, row, strict=True):
            if cell is None:
                continue
            shown = stated("", cell, k)
            dots += [
                WallDot(level=name, depth_m=depth, angle_deg=side, value_m=shown.value_m, expanded_m=shown.expanded_m)
                for side in (axis, axis + 180)
            ]
    return dots


def _load_view(facts: JobFacts, one: LoadWall, nominal_m: float) -> LoadView:
    survey, k = one.survey, facts.card.coverage_factor
    readings = [reading for row in survey.read for reading in row.readings]
    newest = max(readings, key=lambda reading: reading.event)
    by_level = {level: [d for d in survey.derived if d.where == level] for level in one.table.names}
    reading_set = survey.reading_set
    assert reading_set is not None
    return LoadView(
        name=one.load or "nobody said how it was held",
        held=one.held,
        read_at=newest.taken_at,
        read_by=newest.taken_by,
        gauge=facts.gauge_version(reading_set.gauge_version_id).name,
        why_not=one.why_not,
        differs=list(one.differs),
        state=survey.state,
        reason=survey.reason,
        reference_m=nominal_m,
        dots=_dots(one.table, k),
        field=FieldView.of(one.field),
        circles=[
            CircleLevel(name=name, depth_m=depth, mean_m=mean.value_m, expanded_m=mean.expanded_m,
                        told=[DerivedView.of(d) for d in by_level[name]])
            for depth, name, mean in ((d, n, stated("", m, k)) for d, n, m in level_means(one.table))
        ],
        told=[DerivedView.of(d) for d in survey.derived if not d.where or d.where not in one.table.names],
    )  # fmt: skip


def _change_view(facts: JobFacts, one: Change) -> LoadView:
    return LoadView(
        name=f"{one.of.load}, less {one.less.load}",
        held=None,
        read_at=None,
        read_by="",
        gauge="",
        why_not="",
        differs=list(one.of.differs),
        state=None,
        reason="" if not one.off_places else f"{one.off_places} readings have no partner at the same place",
        reference_m=0.0,
        dots=_dots(one.table, facts.card.coverage_factor),
        field=FieldView.of(one.field),
        circles=[
            CircleLevel(name=level.name, depth_m=level.depth_m, mean_m=level.size.value_m,
                        expanded_m=level.size.expanded_m, told=[DerivedView.of(d) for d in level.lobes])
            for level in one.levels
        ],
        told=[],
        greatest_m=one.greatest_m,
    )  # fmt: skip


def _wear_view(facts: JobFacts, wear: Wear, hole: Hole) -> WearView:
    aim, finish_m = _aim(facts, hole)
    k, dots = facts.card.coverage_factor, []
    unworn = None if wear.unworn is None else stated("unworn band", wear.unworn, k)
    for row in () if wear.steps is None else wear.steps.read:
        if row.stated is not None and row.place.hour is not None and row.place.level_um is not None:
            dots.append(WallDot(level=row.name, depth_m=float(row.place.level_um) / 1e6,
                                angle_deg=angle_of_hour(row.place.hour), value_m=row.stated.value_m,
                                expanded_m=row.stated.expanded_m))  # fmt: skip
    deepest = None if wear.field is None else greatest_wear(wear.field)
    return WearView(
        unworn_m=None if unworn is None else unworn.value_m,
        unworn_expanded_m=None if unworn is None else unworn.expanded_m,
        unworn_at=wear.unworn_at,
        starts=[_start_view(one, finish_m) for one in wear.starts],
        aim=aim,
        ridge=None if wear.ridge is None else AmountView(value_m=wear.ridge.value_m, expanded_m=wear.ridge.expanded_m),
        cone=None if wear.cone is None else AmountView(value_m=wear.cone.value_m, expanded_m=wear.cone.expanded_m),
        dots=dots,
        field=FieldView.of(wear.field),
        deepest=None if deepest is None else DeepestView(
            value_m=deepest[0], depth_m=deepest[1], angle_deg=deepest[2],
            expanded_m=max((dot.expanded_m for dot in dots), default=0.0)),
        round_m=[] if wear.field is None else deepest_round(wear.field).tolist(),
        reason="" if wear.steps is None else wear.steps.reason,
    )  # fmt: skip


def _aim(facts: JobFacts, hole: Hole) -> tuple[str, float | None]:
    """The size that there is to go to: of the step decided, else of the one that is tried first."""
    decided, tried = aimed_at(facts, hole), ladder_of_engine(facts).try_first
    step = decided or tried
    if step is None:
        return "", None
    word = "decided" if decided is not None else "not decided yet"
    return f"+{step.oversize.typed}, {word}", standard_of(facts) + step.oversize.metres


def _start_view(one: Start, finish_m: float | None) -> StartView:
    return StartView(name=one.name, depth_m=one.depth_m, size_m=one.size.value_m, expanded_m=one.size.expanded_m,
                     in_travel=one.in_travel,
                     to_go_m=None if finish_m is None else finish_m - one.size.value_m)  # fmt: skip


def wall_view(facts: JobFacts, wall: Wall, title: str, quantities: list[Quantity]) -> WallView:
    """Show the wall of a hole."""
    card = facts.card
    sheet = sheet_of(card, wall.quantity)
    nominal = None if sheet is None else sheet.nominal.metres
    reference = card.layout.bore.metres if nominal is None else nominal
    thrust = card.bores.thrust_hour
    return WallView(
        hole=wall.hole.number,
        quantity=wall.quantity,
        quantities=quantities,
        title=title,
        bore_m=card.layout.bore.metres,
        nominal_m=nominal,
        ring_top_m=card.bores.ring_top.metres,
        ring_bottom_m=card.bores.ring_bottom.metres,
        thrust_deg=None if thrust is None else angle_of_hour(thrust),
        twelve_o_clock=card.layout.twelve_o_clock,
        loads=[_load_view(facts, one, reference) for one in wall.loads],
        changes=[_change_view(facts, one) for one in wall.changes],
        judged=wall.judged,
        stale=list(wall.stale),
        wear=_wear_view(facts, wall.wear, wall.hole),
        marks=[
            WallMarkView(letter=one.letter, finding=finding_view(facts, one.finding), angle_deg=one.angle_deg,
                         until_deg=one.until_deg, depth_expanded_m=one.depth_expanded_m)
            for one in wall_marks(facts, wall.hole)
        ],
        stripes=stripes_beside_gauge(facts, wall),
        blind=list(wall.blind),
    )  # fmt: skip
