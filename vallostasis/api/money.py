"""The estimate of a job: drafted, written, answered, held against what it took; prices of parts, how one reckons."""

from datetime import UTC, date, datetime
from decimal import Decimal
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool

from vallostasis.api.deps import Conn, LongText, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.money_models import BillView, MoneyRulesView, MoneyView, PartPriceView
from vallostasis.api.readings import Done
from vallostasis.core.records.estimates import Answered, MoneyRules, Rounding, Sheet
from vallostasis.core.records.route_marks import Bill
from vallostasis.services import money, money_out
from vallostasis.store import money as money_rows

router = APIRouter(prefix="/api", tags=["money"], responses=ERROR_RESPONSES)

Amount = Annotated[Decimal, Field(ge=0, le=10**8, max_digits=11, decimal_places=2)]
Percent = Annotated[Decimal, Field(ge=0, le=100, max_digits=6, decimal_places=3)]


@router.get("/jobs/{job_id}/money")
def read_money(job_id: UUID, conn: Conn) -> MoneyView:
    """The estimate as the job drafts it now, every one that was written, and how the agreed one stands."""
    return MoneyView.of(money.money_now(conn, job_id, datetime.now(UTC)))


class EstimateLineBody(BaseModel):
    """One line as typed: money of a part, or hours of work; its key says what of the job it stands for."""

    sheet: Sheet
    key: ShortText = ""
    words: Annotated[ShortText, Field(min_length=1)]
    low: Amount
    worst: Amount
    tax_percent: Percent


class EstimateBody(BaseModel):
    """An estimate as it goes to the owner; the client makes the id."""

    estimate_id: UUID
    lines: Annotated[list[EstimateLineBody], Field(max_length=120)]
    words: LongText = ""
    person_id: UUID


@router.post("/jobs/{job_id}/estimates", status_code=201)
def write_estimate(job_id: UUID, body: EstimateBody, conn: Conn) -> Done:
    """Write an estimate down."""
    lines = [money.LineTyped(**one.model_dump()) for one in body.lines]
    money.write_estimate(conn, job_id, body.estimate_id, lines, body.words, body.person_id)
    return Done(job_id=job_id)


class EstimateAnswerBody(BaseModel):
    """What the owner said to an estimate."""

    answer: Answered
    said: ShortText
    way: ShortText = ""
    on: date
    words: LongText = ""
    person_id: UUID


@router.post("/jobs/{job_id}/estimates/{estimate_id}/answer", status_code=201)
def answer_estimate(job_id: UUID, estimate_id: UUID, body: EstimateAnswerBody, conn: Conn) -> Done:
    """Write down what the owner said."""
    said = money.Said(body.answer, body.said, body.way, body.on, body.words)
    money.answer_estimate(conn, job_id, estimate_id, said, body.person_id)
    return Done(job_id=job_id)


class DeclineBody(BaseModel):
    """What else could have been done and was not wanted, and why."""

    what: Annotated[ShortText, Field(min_length=1)]
    reason: LongText
    person_id: UUID


@router.post("/jobs/{job_id}/declined", status_code=201)
def decline(job_id: UUID, body: DeclineBody, conn: Conn) -> Done:
    """Write down what was declined."""
    money.decline(conn, job_id, body.what, body.reason, body.person_id)
    return Done(job_id=job_id)


class PartCostBody(BaseModel):
    """What a part really cost; the client makes the id."""

    part_cost_id: UUID
    key: ShortText = ""
    words: Annotated[ShortText, Field(min_length=1)]
    money: Amount
    bill: Bill = Bill.AGREED
    person_id: UUID


@router.post("/jobs/{job_id}/part-costs", status_code=201)
def pay_part(job_id: UUID, body: PartCostBody, conn: Conn) -> Done:
    """Write down what a part cost."""
    paid = money.PaidFor(body.part_cost_id, body.key, body.words, body.money, body.bill)
    money.pay_part(conn, job_id, paid, body.person_id)
    return Done(job_id=job_id)


@router.get("/jobs/{job_id}/estimates/{estimate_id}.pdf", response_class=Response,
            responses={200: {"content": {"application/pdf": {}}}})  # fmt: skip
async def read_estimate_pdf(job_id: UUID, estimate_id: UUID, request: Request) -> Response:
    """An estimate as a PDF of two sheets, to send to the owner."""
    html = await run_in_threadpool(_page, request, job_id, estimate_id)
    content = await request.app.state.printer.print_pdf(html, request.is_disconnected)
    header = 'attachment; filename="estimate.pdf"'
    return Response(content, media_type="application/pdf", headers={"content-disposition": header})


def _page(request: Request, job_id: UUID, estimate_id: UUID) -> str:
    with request.app.state.pool.connection() as conn:
        return money_out.estimate_page(conn, job_id, estimate_id)


@router.get("/jobs/{job_id}/bill")
def read_bill(job_id: UUID, conn: Conn) -> BillView:
    """The bill as it stands: what was used and found, tax apart, and the credit against what was agreed."""
    return BillView.of(*money_out.bill_now(conn, job_id, datetime.now(UTC)))


class PartPriceBody(BaseModel):
    """What a part costs as a rule, and how many days it takes to come."""

    name: Name
    money: Amount
    days: Annotated[int, Field(ge=0, le=1000)]
    person_id: UUID


@router.get("/part-prices")
def list_part_prices(conn: Conn) -> list[PartPriceView]:
    """What parts cost, by name."""
    return [PartPriceView.of(one) for one in money_rows.list_part_prices(conn)]


@router.post("/part-prices", status_code=201)
def set_part_price(body: PartPriceBody, conn: Conn) -> list[PartPriceView]:
    """Set what a part costs."""
    money_rows.set_part_price(conn, body.name, body.money, body.days, body.person_id)
    return list_part_prices(conn)


class MoneyRulesBody(BaseModel):
    """How the shop reckons."""

    tax_percent: Percent
    rounding: Rounding
    returns_percent: Percent
    person_id: UUID


@router.get("/money-rules")
def read_money_rules(conn: Conn) -> MoneyRulesView:
    """How the shop reckons: tax, rounding, what comes back."""
    return MoneyRulesView.of(money_rows.money_rules(conn))


@router.post("/money-rules", status_code=201)
def set_money_rules(body: MoneyRulesBody, conn: Conn) -> MoneyRulesView:
    """Set how the shop reckons."""
    money_rows.set_money_rules(conn, MoneyRules(body.tax_percent, body.rounding, body.returns_percent), body.person_id)
    return read_money_rules(conn)
