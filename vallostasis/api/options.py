"""What can be done about a hole that stands too low, side by side, and the price list of the shop."""

from datetime import datetime
from typing import Annotated, Self
from uuid import UUID

from fastapi import APIRouter, Path, Query
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deck import HeightAfterView
from vallostasis.api.deps import Conn, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.core.options.sunk import HoleThen, Option, OptionKind
from vallostasis.core.options.worth import Worth
from vallostasis.core.records.prices import PriceKind, ShopPrice
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import options
from vallostasis.services.options import OptionsNow
from vallostasis.store import prices

router = APIRouter(prefix="/api/jobs/{job_id}/options/{hole}", tags=["matching"], responses=ERROR_RESPONSES)
shop_router = APIRouter(prefix="/api/prices", tags=["shop"], responses=ERROR_RESPONSES)

HoleNumber = Annotated[int, Path(ge=1, le=64)]
Money = Annotated[float, Field(ge=0, le=1e8, allow_inf_nan=False)]


class OptionHoleView(BaseModel):
    """A hole afterwards; ``state`` is null where it is cut first and nobody has read it. [m]"""

    hole: int
    value: StatedView
    state: State | None
    chance: float
    least_m: float
    greatest_m: float

    @classmethod
    def of(cls, one: HoleThen) -> Self:
        """Show it."""
        return cls(hole=one.hole, value=StatedView.of(one.value), state=one.state, chance=one.chance,
                   least_m=one.least_m, greatest_m=one.greatest_m)  # fmt: skip


class OptionOfHole(BaseModel):
    """One thing that can be done about a hole; ``why_not`` says why it cannot be, or cannot be told. [m]"""

    kind: OptionKind
    detail: str
    why_not: str
    holes: list[OptionHoleView]
    chance: float | None = Field(description="That every hole is in, and every rule between them kept.")
    out: int
    unsure: int
    heights: list[HeightAfterView]
    compression: list[float]
    spent_m: float
    skim_m: float
    hours: float
    parts: float | None
    days: float
    money: float | None
    total: float | None = Field(description="With the days that the engine stands still.")
    worth_words: str
    final: str

    @classmethod
    def of(cls, one: Option, worth: Worth | None) -> Self:
        """Show it."""
        return cls(
            kind=one.kind, detail=one.detail, why_not=one.why_not, holes=[OptionHoleView.of(row) for row in one.holes],
            chance=one.chance, out=one.out, unsure=one.unsure,
            heights=[HeightAfterView.of(row) for row in one.dependents[1:]], compression=list(one.compression or ()),
            spent_m=one.spent_m, skim_m=one.skim_m, hours=one.cost.hours, parts=one.cost.parts, days=one.cost.days,
            money=one.cost.money, total=None if worth is None else worth.total,
            worth_words="" if worth is None else worth.words, final=one.final,
        )  # fmt: skip


class LandElsewhere(BaseModel):
    """What the hole would read over another land of its liner. [m]"""

    land: str
    value: StatedView
    state: State


class ChosenOption(BaseModel):
    """What was decided, by whom, when and why."""

    option: str
    reason: str
    worth: float | None
    chosen_at: datetime
    chosen_by: str


class OptionsView(BaseModel):
    """The options of a hole; ``why_no_options`` alone where there are none. ``hold`` bars what is final."""

    why_no_options: str
    land: str
    other_lands: list[LandElsewhere]
    hold: str
    options: list[OptionOfHole]
    suggested: OptionKind | None
    rate: float | None
    currency: str
    chosen: ChosenOption | None

    @classmethod
    def of(cls, now: OptionsNow) -> Self:
        """Show them."""
        rate, found = now.prices.of(PriceKind.HOUR).money, now.found
        chosen = None if now.chosen is None else ChosenOption(
            option=now.chosen.option, reason=now.chosen.reason, chosen_at=now.chosen.chosen_at,
            worth=None if now.chosen.worth is None else float(now.chosen.worth), chosen_by=now.chosen.chosen_by,
        )  # fmt: skip
        money = None if rate is None else float(rate)
        if isinstance(found, str):
            return cls(why_no_options=found, land="", other_lands=[], hold="", options=[], suggested=None, rate=money,
                       currency=now.prices.currency, chosen=chosen)  # fmt: skip
        lands = [LandElsewhere(land=one.land, value=StatedView.of(one.value), state=one.state)
                 for one in found.other_lands]  # fmt: skip
        return cls(
            why_no_options="", land=found.land, other_lands=lands, hold=found.hold,
            options=[OptionOfHole.of(one, now.worth.get(one.kind)) for one in found.options],
            suggested=found.suggested, rate=money, currency=now.prices.currency, chosen=chosen,
        )  # fmt: skip


class ChooseOptionBody(BaseModel):
    """What is decided about a hole and why; the client makes the id."""

    option_choice_id: UUID
    option: OptionKind
    reason: ShortText
    worth: Money | None = None
    person_id: UUID


class PriceView(BaseModel):
    """What one of a kind takes; ``set_by`` is null for a usual number, money null while nobody knows it."""

    kind: PriceKind
    hours: float
    money: float | None
    days: float
    currency: str
    set_by: str | None

    @classmethod
    def of(cls, one: ShopPrice) -> Self:
        """Show it."""
        return cls(kind=one.kind, hours=float(one.hours), money=None if one.money is None else float(one.money),
                   days=float(one.days), currency=one.currency, set_by=one.set_by)  # fmt: skip


class PriceBody(BaseModel):
    """A price of the shop."""

    kind: PriceKind
    hours: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)]
    money: Money | None = None
    days: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)]
    currency: Annotated[str, Field(max_length=8)] = ""
    person_id: UUID


@router.get("")
def read_options(
    job_id: UUID,
    hole: HoleNumber,
    conn: Conn,
    worth: Annotated[float | None, Query(ge=0, le=1e8, allow_inf_nan=False)] = None,
    day_cost: Annotated[float, Query(ge=0, le=1e6, allow_inf_nan=False, description="A day of standing still.")] = 0.0,
) -> OptionsView:
    """Lay side by side what can be done about a hole: every hole afterwards, what moves with it, what it costs."""
    return OptionsView.of(options.options_now(conn, job_id, hole, worth, day_cost))


@router.post("", status_code=201)
def choose_option(job_id: UUID, hole: HoleNumber, body: ChooseOptionBody, conn: Conn) -> Done:
    """Decide what is done about a hole."""
    choice = options.Choose(body.option_choice_id, body.option, body.reason, body.worth)
    options.choose_option(conn, job_id, hole, choice, body.person_id)
    return Done(job_id=job_id)


@shop_router.get("")
def list_prices(conn: Conn) -> list[PriceView]:
    """Return the price list of the shop, the usual numbers where nobody set any."""
    return [PriceView.of(one) for one in prices.price_list(conn).prices]


@shop_router.post("", status_code=201)
def set_price(body: PriceBody, conn: Conn) -> list[PriceView]:
    """Set a price; the list as it is then."""
    options.set_price(conn, body.kind, body.hours, body.money, body.days, body.currency, body.person_id)
    return list_prices(conn)
