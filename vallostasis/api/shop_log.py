"""What the shop learned from its own jobs; the life of a block; jobs found by words; money judged without a job."""

from datetime import UTC, datetime
from decimal import Decimal
from typing import Annotated, Self
from uuid import UUID

from fastapi import APIRouter, Query
from fastapi.responses import Response
from pydantic import BaseModel, Field

from vallostasis.api.deps import ReadConn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.money.worth import BuyTool, MakeOrBuy, ReturnsInPrice, buy_tool, make_or_buy, returns_in_price
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.route_marks import WaitCause
from vallostasis.core.shop_log.learned import FirstStep, FitReached, JobHours, Opening, StoneRate
from vallostasis.core.shop_log.search import JobFound
from vallostasis.services import shop_log

router = APIRouter(prefix="/api", tags=["shop log"], responses=ERROR_RESPONSES)

Words = Annotated[str, Query(max_length=120, pattern=r"^[^\x00-\x1f\x7f]*$")]


class ShopLearnedView(BaseModel):
    """What all jobs teach: hours [h], days waited [d], bores, stones and fits [m]."""

    hours: list[JobHours]
    waited_d: dict[WaitCause, float]
    first_step: FirstStep
    rates: list[StoneRate]
    fits: list[FitReached]
    returns_percent: Decimal


@router.get("/learned")
def read_learned(conn: ReadConn) -> ShopLearnedView:
    """Hours against estimates, causes of waiting, first steps, stones, fits aimed and reached."""
    found, rules = shop_log.learned_now(conn, datetime.now(UTC))
    return ShopLearnedView(hours=list(found.hours), waited_d=found.waited_d, first_step=found.first_step,
                       rates=list(found.rates), fits=list(found.fits),
                       returns_percent=rules.returns_percent)  # fmt: skip


@router.get("/learned.csv", response_class=Response, responses={200: {"content": {"text/csv": {}}}})
def read_learned_csv(conn: ReadConn) -> Response:
    """The same as CSV."""
    content = shop_log.learned_table(conn, datetime.now(UTC))
    header = 'attachment; filename="what-the-shop-learned.csv"'
    return Response(content.encode(), media_type="text/csv; charset=utf-8", headers={"content-disposition": header})


class OpeningView(BaseModel):
    """One time a block was opened; steps and cuts by hole. [m]"""

    job_id: UUID
    number: str
    name: str
    opened_at: datetime
    complaint: str
    steps: list[tuple[int, str, float | None]]
    cuts: list[tuple[int, float]]

    @classmethod
    def of(cls, one: Opening) -> Self:
        """Show it."""
        return cls(job_id=UUID(one.job_id), number=one.number, name=one.name, opened_at=one.opened_at,
                   complaint=one.complaint, cuts=[(hole, metres(depth)) for hole, depth in one.cuts],
                   steps=[(hole, choice, None if step is None else metres(step))
                          for hole, choice, step in one.steps])  # fmt: skip


@router.get("/blocks")
def read_life(conn: ReadConn, serial: Words) -> list[OpeningView]:
    """Every opening of a block, by the number stamped on it."""
    return [OpeningView.of(one) for one in shop_log.block_life(conn, serial)]


class JobFoundView(BaseModel):
    """A job that answers words, with the lines that do."""

    job_id: UUID
    number: str
    name: str
    serial: str
    lines: list[str]

    @classmethod
    def of(cls, one: JobFound) -> Self:
        """Show it."""
        job = one.facts.job
        return cls(job_id=job.job_id, number=job.number, name=job.name, serial=job.serial, lines=list(one.lines))


@router.get("/jobs-found")
def find_jobs(conn: ReadConn, words: Words) -> list[JobFoundView]:
    """Jobs found by symptom, construction, fit, what was odd, leads followed in vain."""
    return [JobFoundView.of(one) for one in shop_log.jobs_found(conn, words)]


Amount = Annotated[Decimal, Query(ge=0, le=10**8)]
Count = Annotated[int, Query(ge=0, le=100_000)]


@router.get("/compute/money/returns", tags=["compute"])
def compute_returns(good: Count, returned: Count, cost: Amount, cost_of_return: Amount) -> ReturnsInPrice:
    """What work that comes back costs inside each price."""
    return returns_in_price(good, returned, cost, cost_of_return)


@router.get("/compute/money/make-or-buy", tags=["compute"])
def compute_make_or_buy(
    pieces: Count, hours_each: Amount, setup_h: Amount, rate: Amount, material: Amount, price: Amount
) -> MakeOrBuy:
    """Making against buying for so many pieces."""
    return make_or_buy(pieces, hours_each, setup_h, rate, material, price)


class BuyToolView(BaseModel):
    """A tool bought against going without."""

    saved_a_job: Decimal
    jobs_to_pay: int | None
    words: str = Field(description="What to do, and why.")

    @classmethod
    def of(cls, one: BuyTool) -> Self:
        """Show it."""
        return cls(saved_a_job=one.saved_a_job, jobs_to_pay=one.jobs_to_pay, words=one.words)


@router.get("/compute/money/tool", tags=["compute"])
def compute_tool(price: Amount, without: Amount, with_it: Amount, jobs_a_year: Amount) -> BuyToolView:
    """A tool bought against going without."""
    return BuyToolView.of(buy_tool(price, without, with_it, jobs_a_year))
