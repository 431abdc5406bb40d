"""Gauge studies: planning, blind capture, analysis, and taking the result over."""

from datetime import datetime
from decimal import Decimal
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, Name
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.gauge_links import Board, GaugeTold
from vallostasis.core.gauges.average_and_range import AverageAndRange
from vallostasis.core.gauges.gauge_study import Components
from vallostasis.core.gauges.turning_point import is_rocked
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.rows import Person
from vallostasis.core.uncertainty.decision import Capability
from vallostasis.services import gauge_links, gauge_studies
from vallostasis.services.gauge_studies import StudyNow, table_of

router = APIRouter(prefix="/api/gauge-studies", tags=["gauge studies"], responses=ERROR_RESPONSES)


class StudyBody(BaseModel):
    """A study to plan: parts × people × trials."""

    gauge_id: UUID
    what: Name = Field(description="What the gauge decides, such as protrusion of the Fennick.")
    tolerance: LengthText = Field("", description="Width of the window it decides on; empty for none.")
    bare_unit: Unit = "µm"
    parts: int = Field(ge=2, le=20)
    trials: int = Field(ge=2, le=10)
    people: Annotated[list[UUID], Field(max_length=12)]
    confirmed: bool = Field(False, description="Take lengths that look like a slip as typed.")
    person_id: UUID


class StudyPlanned(BaseModel):
    """The study that was planned."""

    gauge_study_id: UUID


class Cell(BaseModel):
    """One reading of a study: part, person and trial, each from 0."""

    part: int = Field(ge=0, le=19)
    place: int = Field(ge=0, le=5, description="Which of the people, from 0.")
    trial: int = Field(ge=0, le=9)


class StudyReadingBody(Cell):
    """A reading of a study as typed. The client makes the id."""

    reading_id: UUID
    text: LengthText
    bare_unit: Unit
    confirmed: bool = Field(False, description="The question about it was answered: as typed.")


class StudyTipBody(BaseModel):
    """The part that the gauge is held to."""

    part: int = Field(ge=0, le=19)


class AdoptBody(BaseModel):
    """Who takes the result over."""

    person_id: UUID


class ComponentsView(BaseModel):
    """Standard deviations of one model [m] and what they mean."""

    repeatability_m: float
    reproducibility_m: float
    gauge_m: float
    part_m: float
    total_m: float
    percent_of_total: float
    percent_of_tolerance: float | None
    categories: int | None
    capability: Capability

    @classmethod
    def of(cls, one: Components) -> "ComponentsView":
        """Show a model."""
        return cls(
            repeatability_m=one.repeatability_m,
            reproducibility_m=one.reproducibility_m,
            gauge_m=one.gauge_m,
            part_m=one.part_m,
            total_m=one.total_m,
            percent_of_total=one.percent_of_total,
            percent_of_tolerance=one.percent_of_tolerance,
            categories=one.categories,
            capability=one.capability,
        )


class RangesView(BaseModel):
    """Standard deviations by averages and ranges [m], and the gauge's share of all spread [%]."""

    repeatability_m: float
    reproducibility_m: float
    gauge_m: float
    part_m: float
    percent_of_total: float

    @classmethod
    def of(cls, one: AverageAndRange) -> "RangesView":
        """Show what averages and ranges say."""
        return cls(
            repeatability_m=one.repeatability_m,
            reproducibility_m=one.reproducibility_m,
            gauge_m=one.gauge_m,
            part_m=one.part_m,
            percent_of_total=one.percent_of_total,
        )


class StudyResult(BaseModel):
    """The analysis: both models, which one holds, and the readings it rests on. [m]"""

    full: ComponentsView
    pooled: ComponentsView
    ranges: RangesView = Field(description="The older way, which cannot see the interaction.")
    full_holds: bool
    interaction_p: float | None
    squares_m2: list[float]
    freedom: list[int]
    readings_m: list[list[list[float]]] = Field(description="readings[part][person][trial]")


class StudyView(BaseModel):
    """A study as it stands. While it runs no reading is shown: it is read blind."""

    gauge_study_id: UUID
    gauge: GaugeVersion
    what: str
    tolerance_um: Decimal | None
    tolerance_typed: str
    parts: int
    trials: int
    people: list[Person]
    planned_at: datetime
    planned_by: str
    read: int
    of: int
    next_cell: Cell | None
    last_cell: Cell | None
    result: StudyResult | None
    adopted: bool
    gauge_is_rocked: bool = Field(description="Its size is taken at the turning point of a rock.")
    reads_sizes: bool = Field(description="A bare number is a whole size, in inch or mm; else a small length.")


def study_view(now: StudyNow) -> StudyView:
    """Show a study."""
    plan = now.plan
    last = now.readings[-1] if now.readings else None
    return StudyView(
        gauge_study_id=plan.gauge_study_id,
        gauge=now.gauge,
        what=plan.what,
        tolerance_um=plan.tolerance_um,
        tolerance_typed=plan.tolerance_typed,
        parts=plan.parts,
        trials=plan.trials,
        people=list(now.people),
        planned_at=plan.planned_at,
        planned_by=plan.planned_by,
        read=len(now.readings),
        of=len(now.order),
        next_cell=None if now.next_cell is None else _cell(now.next_cell),
        last_cell=None if last is None else Cell(part=last.part, place=last.place, trial=last.trial),
        result=_result(now),
        adopted=now.adopted,
        gauge_is_rocked=is_rocked(now.gauge.kind),
        reads_sizes=now.gauge.reads_sizes,
    )


def _cell(cell: tuple[int, int, int]) -> Cell:
    part, place, trial = cell
    return Cell(part=part, place=place, trial=trial)


def _result(now: StudyNow) -> StudyResult | None:
    study = now.study
    if study is None:
        return None
    return StudyResult(
        full=ComponentsView.of(study.full),
        pooled=ComponentsView.of(study.pooled),
        ranges=RangesView.of(study.ranges),
        full_holds=study.holds is study.full,
        interaction_p=study.anova.interaction_p,
        squares_m2=list(study.anova.squares_m2),
        freedom=list(study.anova.freedom),
        readings_m=table_of(now.plan, len(now.people), now.readings),
    )


@router.get("")
def list_gauge_studies(conn: Conn) -> list[StudyView]:
    """Return every study, newest first."""
    return [study_view(now) for now in gauge_studies.list_studies(conn)]


@router.post("", status_code=201)
def plan_gauge_study(body: StudyBody, conn: Conn) -> StudyPlanned:
    """Plan a study of a gauge."""
    ask = gauge_studies.StudyToPlan(**body.model_dump(exclude={"person_id"}))
    return StudyPlanned(gauge_study_id=gauge_studies.plan_study(conn, ask, body.person_id))


@router.get("/{gauge_study_id}")
def read_gauge_study(gauge_study_id: UUID, conn: Conn) -> StudyView:
    """Return one study as it stands: whose turn it is, or the analysis once every part is read."""
    return study_view(gauge_studies.study_now(conn, gauge_study_id))


@router.post("/{gauge_study_id}/readings", status_code=201)
def take_study_reading(gauge_study_id: UUID, body: StudyReadingBody, conn: Conn) -> StudyView:
    """Append a reading; one read before may be read again, the newest holds."""
    cell = (body.part, body.place, body.trial)
    gauge_studies.take_study_reading(
        conn, gauge_study_id, body.reading_id, cell, body.text, body.bare_unit, body.confirmed
    )
    return study_view(gauge_studies.study_now(conn, gauge_study_id))


@router.post("/{gauge_study_id}/tip")
def place_study_tip(gauge_study_id: UUID, body: StudyTipBody, conn: Conn, board: Board) -> GaugeTold:
    """Tell a simulated gauge which part it is held to; a real one is held by hand."""
    return GaugeTold(gauge_id=gauge_links.place_study_tip(conn, board, gauge_study_id, body.part))


@router.post("/{gauge_study_id}/adoption", status_code=201)
def adopt_gauge_study(gauge_study_id: UUID, body: AdoptBody, conn: Conn) -> GaugeVersion:
    """Make what the study found the repeatability of the gauge, in a new version."""
    return gauge_studies.adopt_study(conn, gauge_study_id, body.person_id)
