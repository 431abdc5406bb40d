"""The shelf of shims, and the order list of a job."""

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool

from vallostasis.api.deps import Conn, LengthText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.records.shelf import ShimLot, ShimMoveKind
from vallostasis.services import shelf
from vallostasis.store import shelf as shelf_rows

router = APIRouter(prefix="/api", tags=["counterbore"], responses=ERROR_RESPONSES)

Count = Annotated[int, Field(ge=1, le=10_000)]


class LotBody(BaseModel):
    """A lot of shims as typed; the client makes the id."""

    shim_lot_id: UUID
    size: LengthText
    count: Annotated[int, Field(ge=0, le=10_000)]
    measured: LengthText = ""
    lot: ShortText = ""
    price: LengthText = ""
    outside: LengthText = Field("", description="Outside diameter.")
    side_up: Literal["bevel down", "bevel up", "no bevel"] = "bevel down"
    bare_unit: Unit = "mm"
    confirmed: bool = False
    person_id: UUID


class ShimMoveBody(BaseModel):
    """What is done with shims of a lot; the client makes the id."""

    shim_move_id: UUID
    shim_lot_id: UUID
    kind: ShimMoveKind
    count: Count
    job_id: UUID | None = None
    words: ShortText = ""
    person_id: UUID


class ShimLotView(BaseModel):
    """A lot as it stands. [m]"""

    shim_lot_id: UUID
    size_m: float
    typed: str
    measured_m: float | None
    lot: str
    price: float | None
    outside_m: float | None
    side_up: str
    on_shelf: int
    reserved: int
    reserved_here: int
    ordered: int

    @classmethod
    def of(cls, one: ShimLot) -> "ShimLotView":
        """Show a lot."""
        return cls(
            shim_lot_id=one.shim_lot_id,
            size_m=metres(one.size_um),
            typed=one.typed,
            measured_m=None if one.measured_um is None else metres(one.measured_um),
            lot=one.lot,
            price=None if one.price is None else float(one.price),
            outside_m=None if one.outside_um is None else metres(one.outside_um),
            side_up=one.side_up,
            on_shelf=one.on_shelf,
            reserved=one.reserved_here + one.reserved_elsewhere,
            reserved_here=one.reserved_here,
            ordered=one.ordered,
        )


@router.get("/shelf")
def list_shelf(conn: Conn, job_id: UUID | None = None) -> list[ShimLotView]:
    """Every lot of shims, by size, as it stands for a job."""
    return [ShimLotView.of(one) for one in shelf_rows.list_lots(conn, job_id)]


@router.post("/shelf/lots", status_code=201)
def put_on_shelf(body: LotBody, conn: Conn) -> list[ShimLotView]:
    """Put a lot of shims on the shelf."""
    shelf.put_on_shelf(conn, shelf.LotTyped(**body.model_dump(exclude={"person_id"})), body.person_id)
    return list_shelf(conn)


@router.post("/shelf/moves", status_code=201)
def move_shims(body: ShimMoveBody, conn: Conn) -> list[ShimLotView]:
    """Reserve shims for a job, release them, order, take in or scrap them."""
    shelf.move_shims(conn, shelf_rows.NewMove(**body.model_dump(exclude={"person_id"})), body.person_id)
    return list_shelf(conn, body.job_id)


def _file(content: bytes, media_type: str, name: str) -> Response:
    return Response(content, media_type=media_type, headers={"content-disposition": f'attachment; filename="{name}"'})


class OrderHold(BaseModel):
    """Why no shims are ordered for a job yet; empty where they may be."""

    why_not: str


@router.get("/jobs/{job_id}/shim-order")
def read_order_hold(job_id: UUID, conn: Conn) -> OrderHold:
    """Say whether shims may be ordered: not for a hole whose parts and reading disagree for no known reason."""
    return OrderHold(why_not=shelf.why_no_order(conn, job_id))


@router.get("/jobs/{job_id}/shim-order.csv", response_class=Response,
            responses={200: {"content": {"text/csv": {}}}})  # fmt: skip
def read_shim_order_csv(job_id: UUID, conn: Conn) -> Response:
    """Order list of a job's shims as CSV, with spares."""
    return _file(shelf.order_as_csv(conn, job_id).encode(), "text/csv; charset=utf-8", "shims-to-order.csv")


@router.get("/jobs/{job_id}/shim-order.pdf", response_class=Response,
            responses={200: {"content": {"application/pdf": {}}}})  # fmt: skip
async def read_shim_order_pdf(job_id: UUID, request: Request) -> Response:
    """Order list of a job's shims as PDF."""
    html = await run_in_threadpool(_page, request, job_id)
    content = await request.app.state.printer.print_pdf(html, request.is_disconnected)
    return _file(content, "application/pdf", "shims-to-order.pdf")


def _page(request: Request, job_id: UUID) -> str:
    with request.app.state.pool.connection() as conn:
        return shelf.order_as_html(conn, job_id)
