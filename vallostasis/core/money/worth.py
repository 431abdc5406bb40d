"""Judgements about money: returns inside the price, making or buying, a tool bought or borrowed."""

from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction
from math import ceil

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.money.sums import NOTHING


@dataclass(frozen=True, slots=True)
class ReturnsInPrice:
    """What work that comes back costs inside each price: share of jobs, expected cost of one, price that bears it."""

    share: Decimal
    expected: Decimal
    price: Decimal


def returns_in_price(good: int, returned: int, cost: Decimal, cost_of_return: Decimal) -> ReturnsInPrice:
    """Say what returns cost inside a price.

    Parameters
    ----------
    good, returned : int
        Jobs that stayed away, and jobs that came back: one return for six good ones is one of seven. [1]
    cost : Decimal
        What a job costs to do.
    cost_of_return : Decimal
        What one that comes back costs.

    Returns
    -------
    ReturnsInPrice
        Share = returned/(good + returned); the price bears share × cost of a return. By definition.

    Raises
    ------
    OutOfDomain
        If there are no jobs, or a number is below nought.
    """
    if good < 0 or returned < 0 or good + returned == 0:
        raise OutOfDomain("say how many jobs stayed away and how many came back", "good")
    if cost < 0 or cost_of_return < 0:
        raise OutOfDomain("a cost is nought or more", "cost")
    share = Decimal(returned) / Decimal(good + returned)
    expected = share * cost_of_return
    return ReturnsInPrice(share, expected, cost + expected)


@dataclass(frozen=True, slots=True)
class MakeOrBuy:
    """Making against buying for so many pieces: what each costs, from how many on making is cheaper, and what to do."""

    make: Decimal
    buy: Decimal
    from_pieces: int | None
    words: str


def make_or_buy(pieces: int, hours_each: Decimal, setup_h: Decimal, rate: Decimal, material: Decimal, price: Decimal,
) -> MakeOrBuy:  # fmt: skip
    """Hold own hours against a quoted price.

    Parameters
    ----------
    pieces : int
        How many are wanted. [1]
    hours_each, setup_h : Decimal
        Of each piece, and before the first. [h]
    rate, material, price : Decimal
        What an hour costs, what the material of a piece costs, and a piece that is bought.

    Returns
    -------
    MakeOrBuy
        Make = set-up × rate + pieces × (hours × rate + material). By definition.

    Raises
    ------
    OutOfDomain
        If nothing is wanted, or a number is below nought.
    """
    if pieces < 1:
        raise OutOfDomain("say how many pieces are wanted", "pieces")
    if min(hours_each, setup_h, rate, material, price) < 0:
        raise OutOfDomain("hours and money are nought or more", "hours_each")
    each = hours_each * rate + material
    make, buy = setup_h * rate + pieces * each, pieces * price
    saved = price - each
    from_pieces = None if saved <= 0 else max(1, ceil(Fraction(setup_h * rate) / Fraction(saved)))
    if from_pieces is None:
        words = "Buy: a piece made here costs no less than one bought, however many there are."
    elif make < buy:
        words = f"Make: cheaper from {from_pieces} on, by {buy - make:,.2f} for {pieces}."
    else:
        words = f"Buy: making pays from {from_pieces} on, here it costs {make - buy:,.2f} more."
    return MakeOrBuy(make, buy, from_pieces, words)


@dataclass(frozen=True, slots=True)
class BuyTool:
    """A tool bought against going without: what it costs a job, when it is paid back, and what to do."""

    saved_a_job: Decimal
    jobs_to_pay: int | None
    words: str


def buy_tool(price: Decimal, without: Decimal, with_it: Decimal, jobs_a_year: Decimal) -> BuyTool:
    """Hold the price of a tool against this job and those expected.

    Parameters
    ----------
    price : Decimal
        Of the tool.
    without, with_it : Decimal
        What a job costs without it (borrowed, sent out, longer), and with it.
    jobs_a_year : Decimal
        How many such jobs are expected. [1/a]

    Returns
    -------
    BuyTool
        Paid back after price/(without − with it) jobs. By definition; three years are as long as a shop waits: house
        rule.

    Raises
    ------
    OutOfDomain
        If a number is below nought.
    """
    if min(price, without, with_it, jobs_a_year) < 0:
        raise OutOfDomain("money and jobs are nought or more", "price")
    saved = without - with_it
    if saved <= NOTHING:
        return BuyTool(saved, None, "Do not buy it: a job costs no less with it.")
    jobs = ceil(Fraction(price) / Fraction(saved))
    if jobs_a_year <= 0:
        return BuyTool(
            saved, jobs, f"Borrow it or send the work out: it pays after {jobs} jobs, and none more is in sight."
        )
    years = Decimal(jobs) / jobs_a_year
    words = (f"Buy it: paid back after {jobs} job{'s' if jobs != 1 else ''}, {years:.1f} years." if years <= 3 else
             f"Borrow it or send the work out: paid back only after {jobs} jobs, {years:.0f} years.")  # fmt: skip
    return BuyTool(saved, jobs, words)
