"""Surveys: features of a job, one survey, its budgets, temperatures, letters, and looks at the zero."""

from decimal import Decimal
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field, StringConstraints

from vallostasis.api.budget_models import BudgetView
from vallostasis.api.deps import Conn, LengthText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.survey_models import FeaturesView, PlaceView, SurveyView, feature_view, survey_view
from vallostasis.api.trail import StepView
from vallostasis.api.why_models import RuleWhy, SurveyWhyView
from vallostasis.core.gauges.zero_checks import Drift
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.rows import Quantity
from vallostasis.core.surveys.why import limits_of_survey
from vallostasis.services import surveys, zeros

router = APIRouter(prefix="/api", tags=["surveys"], responses=ERROR_RESPONSES)

PartKey = Annotated[str, Path(min_length=1, max_length=40, examples=["hole-1", "liner-L5", "deck"])]


class PlaceUnreadableBody(BaseModel):
    """A place of a part that cannot be read, or can be again."""

    place: PlaceView
    unreadable: bool
    reason: ShortText = ""
    person_id: UUID


class ZeroCheckBody(BaseModel):
    """What the gauge shows now on what it was zeroed on; 0 when the zero stands."""

    quantity: Quantity
    text: LengthText
    bare_unit: Unit
    person_id: UUID


class ZeroChecked(BaseModel):
    """Whether the zero stands."""

    holds: bool


class SettleBody(BaseModel):
    """Correct or strike every reading that a moved zero made doubtful."""

    how: Literal["correct", "strike"]
    drift: Drift = Drift.SOMEWHERE
    person_id: UUID


class Settled(BaseModel):
    """How many readings were settled."""

    readings: int


class TemperatureBody(BaseModel):
    """How warm something is: °C, or °F where it says so. The client makes the id."""

    temperature_id: UUID
    body: Literal["part", "room"]
    part: ShortText = ""
    text: LengthText
    confirmed: bool = Field(False, description="Take a temperature that is unlikely while measuring as typed.")
    person_id: UUID


class TemperatureTaken(BaseModel):
    """The temperature as it was understood. [°C]"""

    celsius: Decimal


class StampBody(BaseModel):
    """Class or grade letters found on a part."""

    letters: Annotated[str, StringConstraints(strip_whitespace=True, max_length=20, pattern=r"^[^\x00-\x1f\x7f]*$")]
    person_id: UUID


class Noted(BaseModel):
    """It is recorded."""

    job_id: UUID


@router.get("/jobs/{job_id}/features")
def list_features(job_id: UUID, conn: Conn) -> FeaturesView:
    """Every feature of the job that is surveyed, and how it stands on every part."""
    facts, features = surveys.features_of_job(conn, job_id)
    return FeaturesView(features=[feature_view(facts, one) for one in features])


@router.get("/jobs/{job_id}/surveys/{quantity}/{part}")
def read_survey(job_id: UUID, quantity: Quantity, part: PartKey, conn: Conn) -> SurveyView:
    """One feature on one part, place by place, with its form and what would settle it."""
    return survey_view(surveys.survey_now(conn, job_id, quantity, part))


@router.get("/jobs/{job_id}/gauges-for/{quantity}")
def list_suited_gauges(job_id: UUID, quantity: Quantity, conn: Conn) -> list[UUID]:
    """Gauges of the cabinet that are made for a feature of this job, the finest first."""
    return list(surveys.suited_gauges(conn, job_id, quantity))


@router.get("/jobs/{job_id}/surveys/{quantity}/{part}/why")
def read_survey_why(job_id: UUID, quantity: Quantity, part: PartKey, conn: Conn) -> SurveyWhyView:
    """Open the state of one survey into its arithmetic, with limits and sources."""
    why = surveys.why_of_survey(conn, job_id, quantity, part)
    survey, card = why.survey, why.facts.card
    return SurveyWhyView(
        title=f"{quantity.value.capitalize()}, {survey.part.title}",
        state=survey.state.value,
        reason=survey.reason,
        how=why.how,
        rules=[RuleWhy.of(rule, limits_of_survey(card, quantity, rule.kind)) for rule in survey.rules],
        steps=[StepView.of(step) for step in why.steps],
    )


@router.get("/jobs/{job_id}/surveys/{quantity}/{part}/budgets")
def read_budgets(job_id: UUID, quantity: Quantity, part: PartKey, conn: Conn, land: ShortText = "") -> list[BudgetView]:
    """Open the ± of a survey, source by source; of a flange at a land, by default the one in use."""
    found = surveys.budgets_of_survey(conn, job_id, quantity, part, land)
    return [BudgetView.of(one.budget, one.monte_carlo_m) for one in found]


@router.get("/holes/{hole_id}/budgets")
def read_hole_budgets(hole_id: UUID, conn: Conn) -> list[BudgetView]:
    """Open the ± of a hole's protrusion, source by source."""
    found = surveys.budgets_of_protrusion(conn, hole_id)
    return [BudgetView.of(one.budget, one.monte_carlo_m) for one in found]


@router.post("/jobs/{job_id}/surveys/{quantity}/{part}/unreadable", status_code=201)
def mark_place_unreadable(
    job_id: UUID, quantity: Quantity, part: PartKey, body: PlaceUnreadableBody, conn: Conn
) -> Noted:
    """Say that a place cannot be read; the part is then undecided, not unmeasured."""
    zeros.mark_place_unreadable(conn, job_id, quantity, part, body.place.place(), body.unreadable, body.reason,
                                body.person_id)  # fmt: skip
    return Noted(job_id=job_id)


@router.post("/jobs/{job_id}/surveys/{quantity}/{part}/stamps", status_code=201)
def stamp_part(job_id: UUID, quantity: Quantity, part: PartKey, body: StampBody, conn: Conn) -> Noted:
    """Record the class or grade letters on a part."""
    surveys.stamp_part(conn, job_id, quantity, part, body.letters, body.person_id)
    return Noted(job_id=job_id)


@router.post("/jobs/{job_id}/zero-checks", status_code=201)
def check_zero(job_id: UUID, body: ZeroCheckBody, conn: Conn) -> ZeroChecked:
    """Record a look at the zero; a moved one makes readings since the last good look doubtful."""
    return ZeroChecked(holds=zeros.check_zero(conn, job_id, body.quantity, body.text, body.bare_unit, body.person_id))


@router.post("/jobs/{job_id}/zero-checks/{zero_check_id}/settle", status_code=201)
def settle_doubt(job_id: UUID, zero_check_id: UUID, body: SettleBody, conn: Conn) -> Settled:
    """Correct every reading that a moved zero made doubtful, or strike them."""
    count = zeros.settle_doubt(conn, job_id, zero_check_id, body.how, body.drift, body.person_id)
    return Settled(readings=count)


@router.post("/jobs/{job_id}/temperatures", status_code=201)
def take_temperature(job_id: UUID, body: TemperatureBody, conn: Conn) -> TemperatureTaken:
    """Record how warm the block, a loose part or the room is."""
    celsius = surveys.take_temperature(conn, job_id, body.temperature_id, body.body, body.part, body.text,
                                       body.person_id, body.confirmed)  # fmt: skip
    return TemperatureTaken(celsius=celsius)
