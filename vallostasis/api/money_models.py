"""The money of a job as it goes over the wire. Amounts are decimals as text, so that no coin is lost on the way."""

from datetime import date, datetime
from decimal import Decimal
from typing import Self
from uuid import UUID

from pydantic import BaseModel, Field

from vallostasis.core.money.bill import Bill as JobBill
from vallostasis.core.money.draft import DraftLine
from vallostasis.core.money.needed import Needed, NeedKind
from vallostasis.core.money.standing import FoundLine, LineNow, Standing, Written
from vallostasis.core.money.sums import Amounts, Totals
from vallostasis.core.records.estimates import Answered, Declined, MoneyRules, PartCost, PartPrice, Rounding, Sheet
from vallostasis.core.records.route_marks import Bill
from vallostasis.services.money import MoneyNow


class AmountsView(BaseModel):
    """At least and at worst."""

    low: Decimal
    worst: Decimal

    @classmethod
    def of(cls, one: Amounts) -> Self:
        """Show it."""
        return cls(low=one.low, worst=one.worst)


class TaxView(BaseModel):
    """The tax of one rate. [%]"""

    percent: Decimal
    amounts: AmountsView


class TotalsView(BaseModel):
    """Sums of both sheets, tax apart; hours [h]."""

    parts: AmountsView
    hours: AmountsView
    labour: AmountsView
    net: AmountsView
    taxes: list[TaxView]
    gross: AmountsView

    @classmethod
    def of(cls, one: Totals) -> Self:
        """Show them."""
        return cls(
            parts=AmountsView.of(one.parts), hours=AmountsView.of(one.hours), labour=AmountsView.of(one.labour),
            net=AmountsView.of(one.net), gross=AmountsView.of(one.gross),
            taxes=[TaxView(percent=tax.percent, amounts=AmountsView.of(tax.amounts)) for tax in one.taxes],
        )  # fmt: skip


class DraftLineView(BaseModel):
    """A line as the job drafts it now, and where its figures come from."""

    sheet: Sheet
    key: str
    words: str
    low: Decimal
    worst: Decimal
    tax_percent: Decimal
    source: str
    unpriced: bool

    @classmethod
    def of(cls, one: DraftLine) -> Self:
        """Show it."""
        return cls(sheet=one.sheet, key=one.key, words=one.words, low=one.low, worst=one.worst,
                   tax_percent=one.tax_percent, source=one.source, unpriced=one.unpriced)  # fmt: skip


class WrittenView(BaseModel):
    """An estimate that was written, with its sums and what the owner said."""

    estimate_id: UUID
    rate: Decimal
    currency: str
    words: str
    drawn_at: datetime
    drawn_by: str
    lines: int
    totals: TotalsView
    answer: Answered | None
    said: str
    way: str
    answered_on: date | None
    answer_words: str
    answer_noted_by: str

    @classmethod
    def of(cls, one: Written) -> Self:
        """Show it."""
        answer = one.answer
        return cls(
            estimate_id=one.estimate.estimate_id, rate=one.estimate.rate, currency=one.estimate.currency,
            words=one.estimate.words, drawn_at=one.estimate.drawn_at, drawn_by=one.estimate.drawn_by,
            lines=len(one.lines), totals=TotalsView.of(one.totals), answer=None if answer is None else answer.answer,
            said="" if answer is None else answer.said, way="" if answer is None else answer.way,
            answered_on=None if answer is None else answer.answered_on,
            answer_words="" if answer is None else answer.words,
            answer_noted_by="" if answer is None else answer.noted_by,
        )  # fmt: skip


class LineNowView(BaseModel):
    """A line of the agreed estimate as it stands: in its own unit (money or hours), and in money."""

    sheet: Sheet
    key: str
    words: str
    low: Decimal
    worst: Decimal
    used: Decimal | None
    worst_money: Decimal
    used_money: Decimal
    off: Decimal
    is_over: bool
    no_clock: bool = Field(description="It is done, and nobody wrote its hours down.")

    @classmethod
    def of(cls, one: LineNow) -> Self:
        """Show it."""
        line = one.line
        return cls(sheet=line.sheet, key=line.key, words=line.words, low=line.low, worst=line.worst, used=one.used,
                   worst_money=one.worst_money, used_money=one.used_money, off=one.off,
                   is_over=one.is_over, no_clock=one.no_clock)  # fmt: skip


class FoundLineView(BaseModel):
    """What is needed beside what was agreed: at worst in its own unit, and in money."""

    sheet: Sheet
    key: str
    words: str
    worst: Decimal
    money: Decimal

    @classmethod
    def of(cls, one: FoundLine) -> Self:
        """Show it."""
        return cls(sheet=one.sheet, key=one.key, words=one.words, worst=one.worst, money=one.money)


class StandingView(BaseModel):
    """How the agreed estimate stands, before tax but for ``tax`` itself."""

    estimate_id: UUID
    lines: list[LineNowView]
    found: list[FoundLineView]
    agreed: Decimal
    low: Decimal
    off: Decimal
    found_money: Decimal
    so_far: Decimal
    at_most: Decimal
    over: Decimal
    is_broken: bool
    tax: Decimal
    credit: Decimal
    hours_agreed: Decimal
    hours_used: Decimal

    @classmethod
    def of(cls, one: Standing) -> Self:
        """Show it."""
        return cls(
            estimate_id=one.written.estimate.estimate_id, lines=[LineNowView.of(line) for line in one.lines],
            found=[FoundLineView.of(line) for line in one.found], agreed=one.agreed, low=one.written.totals.net.low,
            off=one.off, found_money=one.found_money, so_far=one.so_far, at_most=one.at_most, over=one.over,
            is_broken=one.is_broken, tax=one.tax, credit=one.credit, hours_agreed=one.hours_agreed,
            hours_used=one.hours_used,
        )  # fmt: skip


class BillLineView(BaseModel):
    """A line of the bill: money of a part, or hours of work; what it comes to."""

    sheet: Sheet
    words: str
    amount: Decimal
    money: Decimal
    tax_percent: Decimal


class BillView(BaseModel):
    """The bill as it stands, the credit against what was agreed at worst, lines that may still come."""

    currency: str
    rate: Decimal
    lines: list[BillLineView]
    net: Decimal
    taxes: list[TaxView]
    gross: Decimal
    agreed: Decimal
    credit: Decimal
    open_lines: list[str]
    hours_agreed: Decimal
    hours_used: Decimal

    @classmethod
    def of(cls, one: JobBill, standing: Standing) -> Self:
        """Show it."""
        estimate, totals = standing.written.estimate, TotalsView.of(one.totals)
        return cls(
            currency=estimate.currency, rate=estimate.rate,
            lines=[BillLineView(sheet=line.sheet, words=line.words, amount=line.amount, money=line.money,
                                tax_percent=line.tax_percent) for line in one.lines],
            net=totals.net.worst, taxes=totals.taxes, gross=totals.gross.worst, agreed=one.agreed, credit=one.credit,
            open_lines=list(one.open_lines), hours_agreed=standing.hours_agreed, hours_used=standing.hours_used,
        )  # fmt: skip


class JobNeedView(BaseModel):
    """One thing that a job needs."""

    kind: NeedKind
    name: str
    count: int
    spares: int
    holes: list[int]
    why: str
    sure: bool

    @classmethod
    def of(cls, one: Needed) -> Self:
        """Show it."""
        return cls(kind=one.kind, name=one.name, count=one.count, spares=one.spares, holes=list(one.holes),
                   why=one.why, sure=one.sure)  # fmt: skip


class PartPriceView(BaseModel):
    """What a part costs as a rule."""

    name: str
    money: Decimal
    days: int
    set_by: str

    @classmethod
    def of(cls, one: PartPrice) -> Self:
        """Show it."""
        return cls(name=one.name, money=one.money, days=one.days, set_by=one.set_by)


class PartCostView(BaseModel):
    """What a part really cost."""

    part_cost_id: UUID
    key: str
    words: str
    money: Decimal
    bill: Bill
    paid_at: datetime
    paid_by: str

    @classmethod
    def of(cls, one: PartCost) -> Self:
        """Show it."""
        return cls(part_cost_id=one.part_cost_id, key=one.key, words=one.words, money=one.money, bill=one.bill,
                   paid_at=one.paid_at, paid_by=one.paid_by)  # fmt: skip


class DeclinedView(BaseModel):
    """What else could have been done and was not wanted."""

    what: str
    reason: str
    declined_at: datetime
    declined_by: str

    @classmethod
    def of(cls, one: Declined) -> Self:
        """Show it."""
        return cls(what=one.what, reason=one.reason, declined_at=one.declined_at, declined_by=one.declined_by)


class MoneyRulesView(BaseModel):
    """How the shop reckons; ``set_by`` is null while nobody set it."""

    tax_percent: Decimal
    rounding: Rounding
    returns_percent: Decimal
    set_by: str | None

    @classmethod
    def of(cls, one: MoneyRules) -> Self:
        """Show it."""
        return cls(tax_percent=one.tax_percent, rounding=one.rounding, returns_percent=one.returns_percent,
                   set_by=one.set_by)  # fmt: skip


class MoneyView(BaseModel):
    """The money of a job; ``rate`` is null while nobody said what an hour costs."""

    customer: str
    rate: Decimal | None
    currency: str
    rules: MoneyRulesView
    draft: list[DraftLineView]
    totals: TotalsView | None = Field(description="Of the draft; null without a rate.")
    written: list[WrittenView]
    standing: StandingView | None
    message: str = Field(description="What the owner may be told where the estimate is broken.")
    needed: list[JobNeedView]
    costs: list[PartCostView]
    declined: list[DeclinedView]

    @classmethod
    def of(cls, now: MoneyNow) -> Self:
        """Show it."""
        return cls(
            customer=now.facts.job.customer, rate=now.rate, currency=now.currency, rules=MoneyRulesView.of(now.rules),
            draft=[DraftLineView.of(one) for one in now.draft],
            totals=None if now.totals is None else TotalsView.of(now.totals),
            written=[WrittenView.of(one) for one in now.written],
            standing=None if now.standing is None else StandingView.of(now.standing), message=now.message,
            needed=[JobNeedView.of(one) for one in now.needed], costs=[PartCostView.of(one) for one in now.costs],
            declined=[DeclinedView.of(one) for one in now.declined],
        )  # fmt: skip
