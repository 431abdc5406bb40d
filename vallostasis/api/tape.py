"""The tape: striking and restoring what stands on it, and taking back the newest step."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.services import tape

router = APIRouter(prefix="/api", tags=["tape"], responses=ERROR_RESPONSES)

LARGEST_EVENT = 2**62
Event = Annotated[int, Path(ge=0, le=LARGEST_EVENT, description="Number under which it was recorded.")]


class StrikeBody(BaseModel):
    """Strike out, or restore."""

    struck: bool
    reason: ShortText = ""
    person_id: UUID


class UndoBody(BaseModel):
    """The step that is to be taken back, as it was named before."""

    event: int = Field(ge=0, le=LARGEST_EVENT, description="Newest event of the step.")
    person_id: UUID


class Undone(BaseModel):
    """What was taken back."""

    words: str


@router.post("/jobs/{job_id}/tape/{event}/strikes", status_code=201)
def strike(job_id: UUID, event: Event, body: StrikeBody, conn: Conn) -> Done:
    """Strike out or restore anything on the tape; nothing is ever erased."""
    tape.strike(conn, job_id, event, body.struck, body.reason, body.person_id)
    return Done(job_id=job_id)


@router.post("/jobs/{job_id}/undo", status_code=201)
def undo(job_id: UUID, body: UndoBody, conn: Conn) -> Undone:
    """Take back the newest step of a person; 409 where another came after the one that was named."""
    return Undone(words=tape.undo(conn, job_id, body.event, body.person_id).words)
