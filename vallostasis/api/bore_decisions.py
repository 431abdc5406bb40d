"""Will it clean up: what each bore needs, the ladder, the wall left, what is decided, what later contradicts it."""

from decimal import Decimal
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.clean_up_models import CleanUpView, clean_up_view
from vallostasis.api.deps import Conn, LengthText, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.findings import ClockHour
from vallostasis.api.readings import Done
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.bore_decisions import BoreChoice, LookOutcome, UseProfile
from vallostasis.services import bore_decisions
from vallostasis.store.job_facts import load_job_facts

router = APIRouter(prefix="/api/jobs/{job_id}", tags=["bores"], responses=ERROR_RESPONSES)


class DecisionBody(BaseModel):
    """What a bore is given; the client makes the id."""

    decision_id: UUID
    hole: int
    choice: BoreChoice
    oversize_um: Annotated[Decimal, Field(gt=0, le=20_000)] | None = None
    move: LengthText = ""
    toward_hour: ClockHour | None = None
    reason: LongText = ""
    concession: LongText = ""
    profile: UseProfile = UseProfile.STOCK
    use_limit: ShortText = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    person_id: UUID


class LookBody(BaseModel):
    """What was seen of a bore after it was cut to its step; the client makes the id."""

    look_id: UUID
    hole: int
    outcome: LookOutcome
    words: LongText = ""
    hour: ClockHour | None = None
    from_depth: LengthText = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    person_id: UUID


@router.get("/clean-up")
def read_clean_up(job_id: UUID, conn: Conn) -> CleanUpView:
    """Hold every bore against the ladder of the card, with what is decided."""
    return clean_up_view(load_job_facts(conn, job_id))


@router.post("/bore-decisions", status_code=201)
def decide_bore(job_id: UUID, body: DecisionBody, conn: Conn) -> Done:
    """Write down what a bore is given, by name."""
    ask = bore_decisions.Decided(**body.model_dump(exclude={"person_id"}))
    bore_decisions.decide_bore(conn, job_id, ask, body.person_id)
    return Done(job_id=job_id)


@router.post("/bore-looks", status_code=201)
def look_at_bore(job_id: UUID, body: LookBody, conn: Conn) -> Done:
    """Write down what was seen of a bore after it was cut to its step."""
    ask = bore_decisions.Looked(**body.model_dump(exclude={"person_id"}))
    bore_decisions.look_at_bore(conn, job_id, ask, body.person_id)
    return Done(job_id=job_id)
