"""Sums of an estimate or a bill: exact in the smallest coin, tax rounded once for each of its rates."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from decimal import ROUND_DOWN, ROUND_HALF_EVEN, ROUND_HALF_UP, Decimal

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.estimates import Rounding, Sheet

COIN = Decimal("0.01")
NOTHING = Decimal(0)
_MODES = {Rounding.HALF_UP: ROUND_HALF_UP, Rounding.HALF_EVEN: ROUND_HALF_EVEN, Rounding.DOWN: ROUND_DOWN}


@dataclass(frozen=True, slots=True)
class Line:
    """One line of a sheet: money of a part or hours of work, at least and at worst, its tax in per cent."""

    sheet: Sheet
    low: Decimal
    worst: Decimal
    tax_percent: Decimal


@dataclass(frozen=True, slots=True)
class Amounts:
    """One amount at least and at worst."""

    low: Decimal
    worst: Decimal


@dataclass(frozen=True, slots=True)
class TaxOf:
    """The tax of one rate. [%]"""

    percent: Decimal
    amounts: Amounts


@dataclass(frozen=True, slots=True)
class Totals:
    """Sums of both sheets, tax apart: parts, hours, their money, all without tax, each tax, all with it."""

    parts: Amounts
    hours: Amounts
    labour: Amounts
    net: Amounts
    taxes: tuple[TaxOf, ...]
    gross: Amounts


def to_coin(amount: Decimal, rounding: Rounding) -> Decimal:
    """Round an amount to the smallest coin, as the shop's rule has it. By definition of the rule."""
    return amount.quantize(COIN, _MODES[rounding])


def money_of(line: Line, rate: Decimal, rounding: Rounding) -> Amounts:
    """Return what a line costs: a part its money, work its hours times what an hour costs, to the smallest coin.

    Parameters
    ----------
    line : Line
        Money, or hours [h].
    rate : Decimal
        What an hour costs.
    rounding : Rounding
        The rule.

    Returns
    -------
    Amounts
        By definition: each line is rounded once, so that the sheet adds up as it is printed.

    Raises
    ------
    OutOfDomain
        If a line is below nought, or its worst below its least.
    """
    if line.low < 0 or line.worst < line.low:
        raise OutOfDomain("a line is nought or more, at worst no less than at least", "worst")
    each = rate if line.sheet is Sheet.LABOUR else Decimal(1)
    return Amounts(to_coin(line.low * each, rounding), to_coin(line.worst * each, rounding))


def totals_of(lines: Sequence[Line], rate: Decimal, rounding: Rounding) -> Totals:
    """Add up both sheets.

    Parameters
    ----------
    lines : sequence of Line
        Of both sheets.
    rate : Decimal
        What an hour costs.
    rounding : Rounding
        The rule: for each line, and once for the tax of each rate.

    Returns
    -------
    Totals
        Exact decimals. By definition.
    """
    priced = [(one, money_of(one, rate, rounding)) for one in lines]
    parts = _sum(money for one, money in priced if one.sheet is Sheet.PARTS)
    labour = _sum(money for one, money in priced if one.sheet is Sheet.LABOUR)
    hours = _sum(Amounts(one.low, one.worst) for one in lines if one.sheet is Sheet.LABOUR)
    net = _sum((parts, labour))
    taxes = []
    for percent in sorted({one.tax_percent for one in lines}):
        base = _sum(money for one, money in priced if one.tax_percent == percent)
        taxes.append(TaxOf(percent, Amounts(*(to_coin(amount * percent / 100, rounding)
                                              for amount in (base.low, base.worst)))))  # fmt: skip
    return Totals(parts, hours, labour, net, tuple(taxes), _sum((net, *(one.amounts for one in taxes))))


def _sum(amounts: Iterable[Amounts]) -> Amounts:
    every = list(amounts)
    return Amounts(sum((one.low for one in every), NOTHING), sum((one.worst for one in every), NOTHING))


def quarters_up(hours: float) -> Decimal:
    """Return hours as they are written down: in quarters, rounded up. [h] Common practice, no published source."""
    quarters = Decimal(str(round(hours * 4, 6))).to_integral_value(rounding="ROUND_CEILING")
    return quarters / 4
