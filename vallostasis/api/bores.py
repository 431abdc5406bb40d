"""The bores of a block: the Bore lens."""

from datetime import date
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.hole_models import NeedView
from vallostasis.api.setup_models import SetupView, setup_view
from vallostasis.api.survey_models import SurveyFormView, survey_form_view
from vallostasis.core.records.rows import Quantity
from vallostasis.core.tape.fact_kinds import newest_event
from vallostasis.services.bores import bores_now

router = APIRouter(prefix="/api", tags=["bores"], responses=ERROR_RESPONSES)


class BoreView(BaseModel):
    """The bore of one hole, and what it needs."""

    hole: int
    survey: SurveyFormView
    need: NeedView


class BoresView(BaseModel):
    """A bore of every hole of a block, in the order of the block."""

    quantity: Quantity
    setup: SetupView | None
    bores: list[BoreView]
    event: int = Field(description="The newest thing recorded; grows with every change.")


@router.get("/jobs/{job_id}/bores/{quantity}")
def read_bores(job_id: UUID, quantity: Quantity, conn: Conn) -> BoresView:
    """Every hole's block bore or liner bore: readings by level and axis against the limits, form, what it needs."""
    facts, bores = bores_now(conn, job_id, quantity)
    setup = facts.present_setup(quantity)
    return BoresView(
        quantity=quantity,
        setup=None if setup is None else setup_view(facts, setup, date.today()),
        bores=[
            BoreView(
                hole=one.survey.part.hole or 0,
                survey=survey_form_view(facts, one.survey, one.interference),
                need=NeedView.of(one.need),
            )
            for one in bores
        ],
        event=newest_event(facts),
    )
