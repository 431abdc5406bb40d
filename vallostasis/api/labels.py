"""Labels of the parts and holes of a job, as SVG one by one, and as PDF on label stock."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request
from fastapi.responses import Response
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool

from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.documents.labels import LabelSize, label_svg, labels_page, places_on
from vallostasis.machine.addresses import reached_at
from vallostasis.services import labels
from vallostasis.services.labels import LabelOf

router = APIRouter(prefix="/api/jobs/{job_id}/labels", tags=["labels"], responses=ERROR_RESPONSES)

Keys = Annotated[list[str], Query(max_length=200, description="Which; all where none is named.")]


class LabelView(BaseModel):
    """A label that can be printed."""

    of: LabelOf
    key: str
    title: str
    lines: list[str]
    address: str = Field(description="What its code opens.")


class LabelsView(BaseModel):
    """Every label of a job, and the stock it can be printed on."""

    labels: list[LabelView]
    places: dict[LabelSize, int] = Field(description="How many stand on one page.")


def _base(request: Request) -> str:
    """Where another device reaches the application; this machine alone where nobody else is let in."""
    settings = request.app.state.settings
    return reached_at(settings.host, settings.port)[0] if settings.pairing else str(request.base_url)


@router.get("")
def list_labels(job_id: UUID, request: Request, conn: Conn) -> LabelsView:
    """Return the labels of a job."""
    return LabelsView(
        labels=[
            LabelView(of=one.of, key=one.key, title=one.label.title, lines=list(one.label.lines),
                      address=one.label.address)
            for one in labels.labels_of(conn, job_id, _base(request))
        ],
        places={size: places_on(size) for size in LabelSize},
    )  # fmt: skip


@router.get("/one.svg", response_class=Response, responses={200: {"content": {"image/svg+xml": {}}}})
def read_label_svg(
    job_id: UUID, request: Request, conn: Conn, key: str, size: LabelSize = LabelSize.ADDRESS
) -> Response:
    """One label as an SVG in millimetres."""
    one = labels.chosen(labels.labels_of(conn, job_id, _base(request)), [key])[0]
    return Response(label_svg(one.label, size), media_type="image/svg+xml")


@router.get("/all.pdf", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
async def read_labels_pdf(
    job_id: UUID,
    request: Request,
    key: Keys = [],  # noqa: B006
    size: LabelSize = LabelSize.ADDRESS,
    used: Annotated[int, Query(ge=0, le=100, description="Places of the first sheet that are used already.")] = 0,
) -> Response:
    """Labels as PDF: one on each page of a roll, or set out on a sheet."""
    html = await run_in_threadpool(_page, request, job_id, key, size, used)
    content = await request.app.state.printer.print_pdf(html, request.is_disconnected)
    header = 'attachment; filename="labels.pdf"'
    return Response(content, media_type="application/pdf", headers={"content-disposition": header})


def _page(request: Request, job_id: UUID, keys: list[str], size: LabelSize, used: int) -> str:
    with request.app.state.pool.connection() as conn:
        wanted = labels.chosen(labels.labels_of(conn, job_id, _base(request)), keys)
    return labels_page(tuple(one.label for one in wanted), size, used)
