"""Bringing readings and whole jobs in from files."""

import hashlib
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, File, Form, Request, UploadFile
from pydantic import BaseModel

from vallostasis.api.deps import Conn, ShortText, in_transaction
from vallostasis.api.door import address_of, by_whom
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.rows import Quantity
from vallostasis.services import job_import, reading_import
from vallostasis.services.block import ChangedState
from vallostasis.services.job_import import JobBroughtIn, JobWish
from vallostasis.services.reading_import import ImportWish, Take, Verdict
from vallostasis.store import security_log
from vallostasis.store.security_log import SecurityKind

router = APIRouter(prefix="/api", tags=["imports"], responses=ERROR_RESPONSES)


class ImportedRow(BaseModel):
    """One row of the file: where it belongs, what it says, and why it is not taken where it is not."""

    number: int
    where: str
    words: str
    verdict: Verdict
    message: str


class ImportedReadings(BaseModel):
    """Every row of the file, how many readings were recorded, and which states the good rows change."""

    rows: list[ImportedRow]
    taken: int
    changes: list[ChangedState]


@router.post("/jobs/{job_id}/imports")
async def import_readings(
    job_id: UUID,
    request: Request,
    file: Annotated[UploadFile, File(description="CSV or XLSX with a head; 5 MB at most.")],
    import_id: Annotated[UUID, Form(description="Made once for a file: sending it again doubles nothing.")],
    person_id: Annotated[UUID, Form()],
    take: Annotated[Take, Form()] = Take.ONLY_CHECK,
    quantity: Annotated[Quantity, Form(description="Where the file has no such column.")] = Quantity.PROTRUSION,
    small_unit: Annotated[Unit, Form(description="Of a protrusion without a unit.")] = "µm",
    size_unit: Annotated[Unit, Form(description="Of a depth or thickness without a unit.")] = "mm",
    as_written: Annotated[bool, Form(description="Take readings that look like a slip as they are written.")] = False,
) -> ImportedReadings:
    """Check the rows of a table, or record them: each target gets a pass of its own."""
    wish = ImportWish(import_id, take, quantity, small_unit, size_unit, as_written)
    table = await request.app.state.reader.table(await file.read(), request.is_disconnected)
    report = await in_transaction(request, reading_import.import_readings, job_id, table, wish, person_id)
    rows = [
        ImportedRow(number=r.number, where=r.where, words=r.words, verdict=r.verdict, message=r.message)
        for r in report.rows
    ]
    return ImportedReadings(rows=rows, taken=report.taken, changes=list(report.changes))


class JobBroughtInView(BaseModel):
    """The job as it is here now; what of the file is not as it seems stands in words, and on the job's tape."""

    job_id: UUID
    number: str
    marked: list[str]


@router.post("/jobs/imports", status_code=201)
async def import_job(
    request: Request,
    file: Annotated[UploadFile, File(description="A job's JSON, 5 MB, or ZIP with photos, 100 MB at most.")],
    person_id: Annotated[UUID, Form(description="Who brings it in.")],
    as_copy: Annotated[bool, Form(description="Bring it in beside the one that is here.")] = False,
    number: Annotated[ShortText, Form(max_length=30, description="Job number to give it; its own when empty.")] = "",
    without_photos: Annotated[bool, Form(description="Leave photos behind that are not in the file.")] = False,
) -> JobBroughtInView:
    """Bring a whole job in from its file; 409 when it is here already and shall be no copy."""
    content = await file.read()
    read = await request.app.state.reader.job(content, request.is_disconnected)
    name = "".join(sign for sign in (file.filename or "") if sign.isprintable())[:120]
    wish = JobWish(name, hashlib.sha256(content).hexdigest(), as_copy, number, without_photos)

    def bring_in(conn: Conn) -> JobBroughtIn:
        brought = job_import.import_job(conn, read, wish, person_id)
        words = f"job {brought.number} from {name or 'a file'}, at {by_whom(request)}"
        security_log.note(conn, SecurityKind.BROUGHT_IN, words, address_of(request))
        return brought

    brought = await in_transaction(request, bring_in)
    return JobBroughtInView(job_id=brought.job_id, number=brought.number, marked=list(brought.marked))
