"""Orders of a job: what it needs before it starts, what is on order, out of the house or on loan, due and in."""

from datetime import date, datetime
from decimal import Decimal
from typing import Annotated, Self
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool

from vallostasis.api.deps import Conn, LengthText, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.money import Amount
from vallostasis.api.readings import Done
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.orders.now import OrderNow, OrderState
from vallostasis.core.records.orders import OrderKind, OrderMove, OrderMoveKind
from vallostasis.services import orders, orders_out

router = APIRouter(prefix="/api/jobs/{job_id}", tags=["orders"], responses=ERROR_RESPONSES)


class OrderMoveView(BaseModel):
    """One step of an order. [m]"""

    kind: OrderMoveKind
    due: date | None
    measured_m: float | None
    words: str
    noted_at: datetime
    noted_by: str

    @classmethod
    def of(cls, one: OrderMove) -> Self:
        """Show it."""
        measured = None if one.measured_um is None else metres(one.measured_um)
        return cls(kind=one.kind, due=one.due, measured_m=measured, words=one.words, noted_at=one.noted_at,
                   noted_by=one.noted_by)  # fmt: skip


class OrderView(BaseModel):
    """An order as it stands. [m]"""

    order_id: UUID
    kind: OrderKind
    what: str
    count: int
    whom: str
    words: str
    key: str
    price: Decimal | None
    due: date | None
    first_due: date | None
    wanted_m: float | None
    within_m: float | None
    off_m: float | None = Field(description="Measured less what was ordered. [m]")
    state: OrderState
    is_awaited: bool
    ordered_at: datetime
    ordered_by: str
    moves: list[OrderMoveView]
    can_be: list[OrderMoveKind]

    @classmethod
    def of(cls, one: OrderNow) -> Self:
        """Show it."""
        order = one.order
        return cls(
            order_id=order.order_id, kind=order.kind, what=order.what, count=order.count, whom=order.whom,
            words=order.words, key=order.key, price=order.price, due=one.due, first_due=order.due,
            wanted_m=None if order.wanted_um is None else metres(order.wanted_um),
            within_m=None if order.within_um is None else metres(order.within_um), off_m=one.off_m, state=one.state,
            is_awaited=one.is_awaited, ordered_at=order.ordered_at, ordered_by=order.ordered_by,
            moves=[OrderMoveView.of(move) for move in one.moves], can_be=list(orders.NEXT[order.kind]),
        )  # fmt: skip


@router.get("/orders")
def list_orders(job_id: UUID, conn: Conn) -> list[OrderView]:
    """Every order of a job as it stands."""
    return [OrderView.of(one) for one in orders.orders_now(conn, job_id)]


class OrderBody(BaseModel):
    """An order as typed; the client makes the id. A size goes with its tolerance."""

    order_id: UUID
    kind: OrderKind
    what: Annotated[ShortText, Field(min_length=1)]
    count: Annotated[int, Field(ge=1, le=1000)] = 1
    whom: ShortText = ""
    words: LongText = ""
    key: ShortText = ""
    price: Amount | None = None
    due: date | None = None
    wanted: LengthText = ""
    within: LengthText = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    person_id: UUID


@router.post("/orders", status_code=201)
def place_order(job_id: UUID, body: OrderBody, conn: Conn) -> Done:
    """Write an order down."""
    orders.place_order(conn, job_id, orders.OrderTyped(**body.model_dump(exclude={"person_id"})), body.person_id)
    return Done(job_id=job_id)


class OrderMoveBody(BaseModel):
    """What became of an order; what was paid as it came in."""

    kind: OrderMoveKind
    due: date | None = None
    measured: LengthText = ""
    words: ShortText = ""
    paid: Amount | None = None
    bare_unit: Unit = "mm"
    confirmed: bool = False
    person_id: UUID


@router.post("/orders/{order_id}/moves", status_code=201)
def move_order(job_id: UUID, order_id: UUID, body: OrderMoveBody, conn: Conn) -> Done:
    """Write down what became of an order."""
    typed = orders.MoveTyped(**body.model_dump(exclude={"person_id"}))
    orders.move_order(conn, job_id, order_id, typed, body.person_id)
    return Done(job_id=job_id)


@router.get("/owner.html", response_class=Response, responses={200: {"content": {"text/html": {}}}})
def read_owner_page(job_id: UUID, conn: Conn) -> Response:
    """The page for the owner: where the engine stands, what it waits for, what was found; one file by itself."""
    header = 'attachment; filename="your-engine.html"'
    content = orders_out.owner_page(conn, job_id)
    return Response(content, media_type="text/html; charset=utf-8", headers={"content-disposition": header})


async def _printed(request: Request, job_id: UUID, name: str) -> Response:
    page = orders_out.owner_page if name == "owner" else orders_out.brief_page
    html = await run_in_threadpool(_with_conn, request, page, job_id)
    content = await request.app.state.printer.print_pdf(html, request.is_disconnected)
    header = f'attachment; filename="{name}.pdf"'
    return Response(content, media_type="application/pdf", headers={"content-disposition": header})


def _with_conn(request: Request, page: orders_out.Page, job_id: UUID) -> str:
    with request.app.state.pool.connection() as conn:
        return page(conn, job_id)


@router.get("/owner.pdf", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
async def read_owner_pdf(job_id: UUID, request: Request) -> Response:
    """The page for the owner as PDF."""
    return await _printed(request, job_id, "owner")


@router.get("/brief.pdf", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
async def read_brief_pdf(job_id: UUID, request: Request) -> Response:
    """One page for another shop: what was measured and how, what is asked, what must not be touched."""
    return await _printed(request, job_id, "brief")
