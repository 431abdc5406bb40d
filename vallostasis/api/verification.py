"""Holding a file, a printed proof or a head that stands on one against what is recorded."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, File, Request, UploadFile
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, ShortText, in_transaction
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.services import chain
from vallostasis.services.chain import Held

router = APIRouter(prefix="/api/verifications", tags=["verification"], responses=ERROR_RESPONSES)


class HeldView(BaseModel):
    """Whether it stands, of which job it is, and what was found, in words."""

    stands: bool
    job_id: UUID | None
    words: list[str]

    @classmethod
    def of(cls, held: Held) -> "HeldView":
        """Show it."""
        return cls(stands=held.stands, job_id=held.job_id, words=list(held.words))


class OnRecordView(BaseModel):
    """A proof that went out, or a job that came from a file."""

    went_out: bool
    job_id: UUID
    number: str
    name: str
    at: datetime
    by: str
    sha256: str
    words: str


MOST_ON_RECORD = 60


class HeadBody(BaseModel):
    """A head as it stands on a proof, or as a camera read its picture."""

    head: ShortText = Field(description="64 figures and letters, in groups or not, or the whole line of the picture.")


@router.post("")
async def hold_file(
    request: Request,
    file: Annotated[UploadFile, File(description="A proof as PDF, or a job as JSON or ZIP.")],
) -> HeldView:
    """Hold a file against what is recorded; nothing of it is kept."""
    content = await file.read()
    if content.startswith(b"%PDF-"):
        return HeldView.of(await in_transaction(request, chain.hold_pdf, content))
    read = await request.app.state.reader.job(content, request.is_disconnected)
    return HeldView.of(await in_transaction(request, chain.hold_job, read))


@router.get("")
def list_on_record(conn: Conn) -> list[OnRecordView]:
    """Proofs that went out and jobs that came from files, the newest first."""
    return [OnRecordView.model_validate(one, from_attributes=True) for one in chain.on_record(conn, MOST_ON_RECORD)]


@router.post("/head")
def hold_head(body: HeadBody, conn: Conn) -> HeldView:
    """Hold the head of a job's chain, as printed, against what is recorded."""
    return HeldView.of(chain.hold_head(conn, body.head))
