"""The bill of a job: what was used of the estimate, what was found, tax apart, the credit against what was agreed."""

from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.money.standing import MORE, Standing
from vallostasis.core.money.sums import NOTHING, Line, Totals, totals_of
from vallostasis.core.records.estimates import Sheet


@dataclass(frozen=True, slots=True)
class BillLine:
    """A line of the bill: what was done or put in, how much in its own unit, what it comes to, its tax in per cent."""

    sheet: Sheet
    words: str
    amount: Decimal
    money: Decimal
    tax_percent: Decimal


@dataclass(frozen=True, slots=True)
class Bill:
    """The bill as it stands; ``open_lines`` are those that may still come, ``credit`` what the owner does not pay."""

    lines: tuple[BillLine, ...]
    totals: Totals
    agreed: Decimal
    credit: Decimal
    open_lines: tuple[str, ...]


def bill_of(standing: Standing) -> Bill:
    """Work the bill out.

    Parameters
    ----------
    standing : Standing
        How the agreed estimate stands.

    Returns
    -------
    Bill
        What was used of each line and what was found beside them; the credit is what was agreed at worst less that.
        By definition. What was used beyond a line's worst stands in that line.
    """
    lines = [
        BillLine(one.line.sheet, one.line.words, one.used, one.used_money, one.line.tax_percent)
        for one in standing.lines
        if one.used is not None and one.used_money > 0
    ]
    lines += [
        BillLine(one.sheet, one.words, one.worst, one.money, one.tax_percent)
        for one in standing.found
        if one.is_paid and not one.words.startswith(MORE)
    ]
    still_open = (
        *(
            one.line.words
            for one in standing.lines
            if not (one.is_over or one.no_clock) and one.worst_money > 0 and one.used is None
        ),
        *(f"no hours on the clock: {one.line.words}" for one in standing.lines if one.no_clock),
        *(one.words for one in standing.found if not one.is_paid and not one.words.startswith(MORE)),
    )
    priced = [Line(Sheet.PARTS, one.money, one.money, one.tax_percent) for one in lines]
    totals = totals_of(priced, NOTHING, standing.written.estimate.rounding)
    credit = max(standing.agreed - totals.net.worst, NOTHING)
    return Bill(tuple(lines), totals, standing.agreed, credit, still_open)
