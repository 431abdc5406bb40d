"""Proof sheet, CSV and job file."""

from enum import StrEnum
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Query, Request
from fastapi.responses import HTMLResponse, Response

from vallostasis.api.deps import Conn, in_transaction
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.notation.lengths import Unit
from vallostasis.documents.job_file import job_file_schema
from vallostasis.services import chain, proof

router = APIRouter(prefix="/api", tags=["documents"], responses=ERROR_RESPONSES)


class ProofUnit(StrEnum):
    """Unit of the small lengths on a proof; sizes follow: µm with mm, thou with inch."""

    UM = "um"
    THOU = "thou"


UNITS: dict[ProofUnit, Unit] = {ProofUnit.UM: "µm", ProofUnit.THOU: "thou"}


def _file(content: bytes, media_type: str, name: str) -> Response:
    return Response(content, media_type=media_type, headers={"content-disposition": f'attachment; filename="{name}"'})


@router.get("/jobs/{job_id}/proof.html", response_class=HTMLResponse)
def read_proof_html(job_id: UUID, conn: Conn, unit: ProofUnit = ProofUnit.UM) -> str:
    """Proof sheet as one HTML page."""
    return proof.proof_html(conn, job_id, UNITS[unit])


@router.get("/jobs/{job_id}/proof.pdf", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
async def read_proof_pdf(
    job_id: UUID,
    request: Request,
    person_id: Annotated[UUID, Query(description="Who prints it: a proof that goes out is on record.")],
    unit: ProofUnit = ProofUnit.UM,
) -> Response:
    """Proof sheet as PDF, from the same template; printing stops when the request is given up."""
    # The connection is given back before the page is printed.
    html, at = await in_transaction(request, proof.proof_sheet, job_id, UNITS[unit])
    content = await request.app.state.printer.print_pdf(html, request.is_disconnected)
    await in_transaction(request, chain.note_printing, job_id, content, at, person_id)
    return _file(content, "application/pdf", "proof.pdf")


@router.get("/jobs/{job_id}/holes/{hole}/label.html", response_class=HTMLResponse)
def read_liner_label(job_id: UUID, hole: int, conn: Conn, unit: ProofUnit = ProofUnit.UM) -> str:
    """Label of the liner in a hole, to be printed; 409 while none is in it."""
    return proof.liner_label(conn, job_id, hole, UNITS[unit])


@router.get("/jobs/{job_id}/readings.csv", response_class=Response, responses={200: {"content": {"text/csv": {}}}})
def read_readings_csv(job_id: UUID, conn: Conn) -> Response:
    """All readings of a job, struck ones marked."""
    return _file(proof.readings_as_csv(conn, job_id).encode(), "text/csv; charset=utf-8", "readings.csv")


XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@router.get("/jobs/{job_id}/readings.xlsx", response_class=Response, responses={200: {"content": {XLSX: {}}}})
def read_readings_xlsx(job_id: UUID, conn: Conn) -> Response:
    """All readings of a job as a workbook, the same table as the CSV."""
    return _file(proof.readings_as_xlsx(conn, job_id), XLSX, "readings.xlsx")


@router.get("/jobs/{job_id}/job.json", response_class=Response, responses={200: {"content": {"application/json": {}}}})
def read_job_json(job_id: UUID, conn: Conn) -> Response:
    """Whole job as JSON; its schema is at /api/schemas/job.json."""
    return _file(proof.job_as_json(conn, job_id), "application/json", "job.json")


@router.get("/jobs/{job_id}/job.zip", response_class=Response, responses={200: {"content": {"application/zip": {}}}})
def read_job_archive(job_id: UUID, conn: Conn) -> Response:
    """Whole job with its photos: the JSON, and each photo as it was taken."""
    return _file(proof.job_as_archive(conn, job_id), "application/zip", "job.zip")


@router.get("/schemas/job.json")
def read_job_schema() -> dict[str, Any]:
    """JSON Schema of a job file."""
    return job_file_schema()
