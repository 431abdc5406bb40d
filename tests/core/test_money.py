"""Sums of estimates and bills against exact fractions; how an agreed estimate stands, by hand. Common practice."""

from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal
from fractions import Fraction
from uuid import UUID, uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.facts import WHEN, Story
from tests.core.test_calendar_of_jobs import NOW, _clock
from tests.core.test_route import story_of
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.hours.learned import learn_hours
from vallostasis.core.money.bill import bill_of
from vallostasis.core.money.draft import DraftLine, draft_of, key_of_part, key_of_work
from vallostasis.core.money.needed import NeedKind, needed_for
from vallostasis.core.money.standing import Standing, agreed_of, message_of, standing_of, written_of
from vallostasis.core.money.sums import Amounts, Line, money_of, quarters_up, to_coin, totals_of
from vallostasis.core.money.worth import buy_tool, make_or_buy, returns_in_price
from vallostasis.core.orders.now import OrderState, orders_of
from vallostasis.core.records.estimates import (
    Answered,
    Estimate,
    EstimateAnswer,
    EstimateLine,
    MoneyRules,
    PartCost,
    PartPrice,
    Rounding,
    Sheet,
)
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.orders import Order, OrderKind, OrderMove, OrderMoveKind
from vallostasis.core.records.prices import PriceList
from vallostasis.core.records.route_marks import Bill, Operation
from vallostasis.core.records.spec_card import Construction
from vallostasis.core.route.broken_estimate import broken_by

O = Operation  # noqa: E741
D = Decimal
BY = "Ines"
TAX = D(20)
CENTS = st.decimals(0, 10_000, places=2)
HALF = Fraction(1, 2)


def lines(draw_rates: tuple[str, ...] = ("0", "7", "20")) -> st.SearchStrategy[list[Line]]:
    def line(sheet: Sheet, low: D, more: D, percent: str) -> Line:
        return Line(sheet, low, low + more, D(percent))

    one = st.builds(line, st.sampled_from(Sheet), CENTS, CENTS, st.sampled_from(draw_rates))
    return st.lists(one, max_size=12)


def cents(amount: Fraction, rounding: Rounding) -> Fraction:
    """Whole cents of a fraction by each rule: floor arithmetic of the test's own."""
    whole, rest = divmod(amount * 100, 1)
    up = {Rounding.HALF_UP: rest >= HALF, Rounding.DOWN: False,
          Rounding.HALF_EVEN: rest > HALF or (rest == HALF and whole % 2 == 1)}  # fmt: skip
    return Fraction(int(whole) + up[rounding], 100)


@given(lines(), CENTS, st.sampled_from(Rounding))
def test_sums_equal_exact_fractions_and_tax_is_rounded_once_for_each_rate(
    every: list[Line], rate: D, rounding: Rounding
) -> None:
    """By Python's fractions, which round nothing."""
    totals = totals_of(every, rate, rounding)
    each = [Fraction(rate) if one.sheet is Sheet.LABOUR else Fraction(1) for one in every]
    worst = [cents(Fraction(one.worst) * per, rounding) for one, per in zip(every, each, strict=True)]
    low = [cents(Fraction(one.low) * per, rounding) for one, per in zip(every, each, strict=True)]
    assert Fraction(totals.net.worst) == sum(worst)
    assert Fraction(totals.net.low) == sum(low)
    taxes = Fraction(0)
    for percent in {one.tax_percent for one in every}:
        base = sum((money for one, money in zip(every, worst, strict=True) if one.tax_percent == percent), Fraction(0))
        own = next(one for one in totals.taxes if one.percent == percent)
        assert Fraction(own.amounts.worst) == cents(base * Fraction(percent) / 100, rounding)
        taxes += Fraction(own.amounts.worst)
    assert Fraction(totals.gross.worst) == sum(worst) + taxes
    assert totals.parts.worst + totals.labour.worst == totals.net.worst
    assert totals.hours.worst == sum((one.worst for one in every if one.sheet is Sheet.LABOUR), D(0))


def test_the_estimate_of_a_four_cylinder_rebuild() -> None:
    """1500 + 600 to 700 + 40 h at 80, or 50 h: 5300 to 6200. Common practice, no published source."""
    sheet = [Line(Sheet.PARTS, D(1500), D(1500), TAX), Line(Sheet.PARTS, D(600), D(700), TAX),
             Line(Sheet.LABOUR, D(40), D(50), TAX)]  # fmt: skip
    totals = totals_of(sheet, D(80), Rounding.HALF_UP)
    assert (totals.net.low, totals.net.worst) == (5300, 6200)
    assert (totals.gross.low, totals.gross.worst) == (6360, 7440)
    forty = totals_of([*sheet[:2], Line(Sheet.LABOUR, D(40), D(40), TAX)], D(80), Rounding.HALF_UP)
    assert forty.net == Amounts(D(5300), D(5400))


@pytest.mark.parametrize(
    ("rounding", "amount", "coin"),
    [
        (Rounding.HALF_UP, "0.125", "0.13"),
        (Rounding.HALF_EVEN, "0.125", "0.12"),
        (Rounding.HALF_EVEN, "0.135", "0.14"),
        (Rounding.DOWN, "0.139", "0.13"),
    ],
)
def test_the_rule_of_rounding_is_a_setting(rounding: Rounding, amount: str, coin: str) -> None:
    assert to_coin(D(amount), rounding) == D(coin)


def test_a_line_is_refused_that_is_worse_at_least_than_at_worst() -> None:
    with pytest.raises(OutOfDomain, match="no less than at least"):
        money_of(Line(Sheet.PARTS, D(2), D(1), TAX), D(1), Rounding.HALF_UP)
    with pytest.raises(OutOfDomain, match="nought or more"):
        money_of(Line(Sheet.PARTS, D(-1), D(1), TAX), D(1), Rounding.HALF_UP)


@pytest.mark.parametrize(
    ("hours", "written"), [(0.0, "0"), (0.01, "0.25"), (0.25, "0.25"), (1.9, "2"), (2.0000001, "2")]
)
def test_hours_are_written_in_quarters_rounded_up(hours: float, written: str) -> None:
    assert quarters_up(hours) == D(written)


# -- an agreed estimate -----------------------------------------------------------------------------------------------


def estimate(story: Story, *rows: tuple[Sheet, str, str, str], rate: str = "60", said: str = "the owner") -> UUID:
    estimate_id = uuid4()
    story._add("estimates", Estimate(estimate_id, D(rate), "€", Rounding.HALF_UP, "", WHEN, BY, story._next()))
    for place, (sheet, key, low, worst) in enumerate(rows):
        story._add("estimate_lines", EstimateLine(estimate_id, place, sheet, key, key, D(low), D(worst), TAX))
    if said:
        answer(story, estimate_id, Answered.AGREED)
    return estimate_id


def answer(story: Story, estimate_id: UUID, said: Answered) -> None:
    story._add("estimate_answers", EstimateAnswer(estimate_id, said, "the owner", "by phone", date(2026, 1, 2), "",
                                                  WHEN, BY, story._next()))  # fmt: skip


def paid(story: Story, key: str, amount: str, bill: Bill = Bill.AGREED) -> None:
    story._add("part_costs", PartCost(uuid4(), key, key, D(amount), bill, WHEN, BY, story._next()))


def drafted(*rows: tuple[Sheet, str, str]) -> tuple[DraftLine, ...]:
    return tuple(DraftLine(sheet, key, key, D(0), D(worst), TAX, "") for sheet, key, worst in rows)


AGREE, WASH, GASKETS = key_of_work(O.DECIDE), key_of_work(O.WASH), key_of_part("Gasket set")


def standing(story: Story, draft: tuple[DraftLine, ...]) -> Standing:
    found = standing_of(story.facts(), draft, NOW)
    assert found is not None
    return found


def two_sheets() -> Story:
    """Agreeing at two to three hours, wash at two to four, gaskets at 80 to 90."""
    story = story_of(Construction.WET_TOP_FLANGE, holes=1)
    estimate(story, (Sheet.LABOUR, AGREE, "2", "3"), (Sheet.LABOUR, WASH, "2", "4"), (Sheet.PARTS, GASKETS, "80", "90"))
    return story


ALL_THREE = drafted((Sheet.LABOUR, AGREE, "3"), (Sheet.LABOUR, WASH, "4"), (Sheet.PARTS, GASKETS, "90"))


def test_nothing_stands_before_it_is_agreed() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    assert standing_of(story.facts(), (), NOW) is None
    open_ = estimate(story, (Sheet.PARTS, GASKETS, "1", "2"), said="")
    assert standing_of(story.facts(), (), NOW) is None and written_of(story.facts())[0].answer is None
    answer(story, open_, Answered.REFUSED)
    assert agreed_of(story.facts()) is None
    answer(story, open_, Answered.AGREED)
    assert agreed_of(story.facts()) is not None


def test_what_is_not_used_is_taken_off_once_the_work_is_done() -> None:
    """Seven hours at 60 and 90 for gaskets are 510. Agreeing took two of three hours: 60 off, once it is done."""
    story = two_sheets()
    _clock(story, O.DECIDE, WHEN, 2.0)
    before = standing(story, ALL_THREE)
    assert (before.agreed, before.off, before.at_most, before.so_far) == (510, 0, 510, 120)
    story.mark(O.DECIDE)
    after = standing(story, ALL_THREE)
    assert (after.off, after.at_most, after.credit) == (60, 450, 60)
    assert after.tax == 90 and not after.is_broken
    assert (after.hours_agreed, after.hours_used) == (7, 2)


def test_hours_are_on_the_bill_in_quarters_and_goodwill_is_not() -> None:
    story = two_sheets()
    _clock(story, O.DECIDE, WHEN, 2.1)
    _clock(story, O.DECIDE, WHEN + timedelta(hours=4), 5.0, Bill.GOODWILL)
    story.mark(O.DECIDE)
    found = standing(story, ALL_THREE)
    assert found.hours_used == D("2.25") and found.off == 45


def test_work_that_is_done_but_on_no_clock_is_not_given_away() -> None:
    story = two_sheets()
    story.mark(O.DECIDE)
    found = standing(story, ALL_THREE)
    assert found.off == 0 and found.lines[0].no_clock
    assert f"no hours on the clock: {AGREE}" in bill_of(found).open_lines


def test_a_part_that_cost_less_takes_the_rest_off_and_one_that_cost_more_is_found() -> None:
    story = two_sheets()
    paid(story, GASKETS, "81.90")
    assert standing(story, ALL_THREE).off == D("8.10")
    paid(story, GASKETS, "20")
    found = standing(story, ALL_THREE)
    assert found.off == 0 and found.found_money == D("11.90") and found.is_broken and found.over == D("11.90")
    bill = bill_of(found)
    assert [one.money for one in bill.lines] == [D("101.90")]


def test_what_the_job_needs_beside_it_breaks_it_and_what_it_no_longer_needs_pays_for_that() -> None:
    """Gaskets for 90 are not needed any more, a liner for 148 is: 58 over."""
    story = two_sheets()
    draft = drafted((Sheet.LABOUR, AGREE, "3"), (Sheet.LABOUR, WASH, "4"), (Sheet.PARTS, key_of_part("Liner"), "148"))
    found = standing(story, draft)
    assert (found.off, found.found_money, found.at_most, found.over) == (90, 148, 568, 58)
    assert found.is_broken and found.tax == D("113.60")
    message = message_of(story.facts(), found, "bore 3 did not clean up")
    assert "bore 3 did not clean up" in message and "58.00 over the 510.00 agreed" in message
    assert "part: liner 148.00" in message and "say so" in message


def test_parts_paid_beside_the_agreement_stand_on_the_bill_once() -> None:
    story = two_sheets()
    paid(story, "own: paint", "12.50", Bill.CHARGEABLE)
    paid(story, "own: rags", "3.00", Bill.GOODWILL)
    found = standing(story, ALL_THREE)
    assert found.found_money == D("12.50")
    bill = bill_of(found)
    assert [(one.words, one.money) for one in bill.lines] == [("own: paint", D("12.50"))]
    assert bill.totals.gross.worst == D("15.00") and bill.credit == D("497.50")
    assert WASH in bill.open_lines


def test_a_part_that_was_found_and_then_paid_counts_what_was_paid() -> None:
    story = two_sheets()
    liner = key_of_part("Liner")
    draft = (*ALL_THREE, *drafted((Sheet.PARTS, liner, "148")))
    assert standing(story, draft).found_money == 148
    paid(story, liner, "139")
    assert standing(story, draft).found_money == 139


def test_what_is_chargeable_beside_a_line_is_found_whatever_line_it_is_of() -> None:
    story = two_sheets()
    paid(story, GASKETS, "80")
    paid(story, GASKETS, "10", Bill.CHARGEABLE)
    found = standing(story, ALL_THREE)
    assert (found.off, found.found_money) == (10, 10)


def test_when_the_engine_goes_home_all_that_was_not_used_is_credited() -> None:
    story = two_sheets()
    _clock(story, O.DECIDE, WHEN, 2.0)
    story.mark(O.RELEASE)
    found = standing(story, drafted((Sheet.PARTS, key_of_part("Liner"), "148")))
    assert (found.off, found.found_money, found.credit) == (390, 0, 390)
    bill = bill_of(found)
    assert bill.open_lines == () and bill.totals.net.worst == 120 and bill.credit == 390


def test_the_newest_agreement_holds() -> None:
    story = two_sheets()
    estimate(story, (Sheet.PARTS, GASKETS, "80", "95"))
    found = agreed_of(story.facts())
    assert found is not None and found.totals.net.worst == 95


# -- the draft --------------------------------------------------------------------------------------------------------


def _draft(facts: JobFacts) -> dict[str, DraftLine]:
    prices = [PartPrice("Gasket set", D("86.40"), 6, WHEN, BY), PartPrice("Liner seal set", D("9.20"), 5, WHEN, BY)]
    rules = MoneyRules(TAX)
    return {one.key: one for one in draft_of(facts, learn_hours([]), prices, PriceList(), rules)}


def test_a_job_drafts_its_own_estimate() -> None:
    """Cleaning is planned at three hours: 2.4 at its lower quartile, nine of ten stay below 5.1; in quarters up."""
    draft = _draft(story_of(Construction.WET_TOP_FLANGE, holes=2).facts())
    clean = draft[key_of_work(O.CLEAN)]
    assert (clean.low, clean.worst, clean.source) == (D("2.5"), D("5.25"), "common practice")
    ready = draft[key_of_work(O.FIT_PREP)]
    assert (ready.low, ready.worst) == (D("0.5"), D("1.25")), "0.48 h and 1.02 h of two holes"
    assert key_of_work(O.ORDER) not in draft and key_of_work(O.SOAK) not in draft
    assert draft[GASKETS].worst == D("86.40") and not draft[GASKETS].unpriced
    seals = draft[key_of_part("Liner seal set")]
    assert seals.worst == 3 * D("9.20") and seals.words == "3 × Liner seal set"
    assert draft[key_of_part("Liner")].unpriced and draft[key_of_part("Liner")].worst == 0
    assert all(one.low <= one.worst for one in draft.values())


def test_tools_are_needed_and_stand_on_no_estimate() -> None:
    facts = story_of(Construction.PARENT_BORE, holes=2).facts()
    needed = {one.name: one for one in needed_for(facts)}
    assert needed["Torque plate with its bolts and gasket"].kind is NeedKind.TOOL
    assert needed["Piston and rings"].count == 2 and needed["Boring inserts"].kind is NeedKind.USED_UP
    assert not any(key.startswith("part: torque plate") for key in _draft(facts))
    kinds = [one.kind for one in needed_for(facts)]
    assert kinds == sorted(kinds, key=list(NeedKind).index)


# -- orders -----------------------------------------------------------------------------------------------------------

TODAY = NOW.date()


def _order(story: Story, kind: OrderKind = OrderKind.PART, due: int | None = 5, wanted: str | None = None) -> UUID:
    order_id = uuid4()
    day = None if due is None else TODAY + timedelta(days=due)
    size = None if wanted is None else D(wanted)
    story._add("orders", Order(order_id, kind, "rings", 1, "a foundry", "", "", None, day, size, wanted or "",
                               None if size is None else D(50), None, WHEN, BY, story._next()))  # fmt: skip
    return order_id


def _move(story: Story, order: UUID, kind: OrderMoveKind, due: int | None = None, measured: str | None = None) -> None:
    day = None if due is None else TODAY + timedelta(days=due)
    story._add("order_moves", OrderMove(order, kind, day, None if measured is None else D(measured), "", "", WHEN, BY,
                                        story._next()))  # fmt: skip


def _state(story: Story) -> OrderState:
    return orders_of(story.facts(), TODAY)[-1].state


@pytest.mark.parametrize(
    ("measured", "state"),
    [
        ("102640", OrderState.RIGHT),
        ("102650", OrderState.RIGHT),
        ("102650.1", OrderState.WRONG),
        ("102549", OrderState.WRONG),
    ],
)
def test_what_comes_in_is_measured_against_what_was_ordered(measured: str, state: OrderState) -> None:
    story = story_of(Construction.PARENT_BORE)
    order = _order(story, OrderKind.MADE, wanted="102600")
    assert _state(story) is OrderState.ON_ORDER
    _move(story, order, OrderMoveKind.IN)
    assert _state(story) is OrderState.TO_MEASURE
    _move(story, order, OrderMoveKind.MEASURED, measured=measured)
    assert _state(story) is state
    off = orders_of(story.facts(), TODAY)[-1].off_m
    assert off == pytest.approx((float(measured) - 102600) * 1e-6)


def test_an_order_is_late_after_its_day_and_not_after_another_was_said() -> None:
    story = story_of(Construction.PARENT_BORE)
    order = _order(story, due=-1)
    assert _state(story) is OrderState.LATE
    _move(story, order, OrderMoveKind.SAID, due=3)
    assert _state(story) is OrderState.ON_ORDER and orders_of(story.facts(), TODAY)[-1].is_awaited
    _move(story, order, OrderMoveKind.IN)
    assert _state(story) is OrderState.RIGHT and not orders_of(story.facts(), TODAY)[-1].is_awaited


def test_a_loan_goes_back_by_its_day() -> None:
    story = story_of(Construction.PARENT_BORE)
    order = _order(story, OrderKind.LOAN, due=0)
    assert _state(story) is OrderState.LENT
    later = orders_of(story.facts(), TODAY + timedelta(days=1))[-1]
    assert later.state is OrderState.LATE
    _move(story, order, OrderMoveKind.RETURNED)
    assert _state(story) is OrderState.RETURNED


# -- judgements -------------------------------------------------------------------------------------------------------


def test_one_return_for_six_good_jobs_is_one_of_seven() -> None:
    """1/7 of jobs, at 700 a return 100 in each price. Common practice, no published source."""
    found = returns_in_price(6, 1, D(900), D(700))
    assert Fraction(found.share).limit_denominator(1000) == Fraction(1, 7)
    assert round(found.expected, 9) == 100 and round(found.price, 9) == 1000
    with pytest.raises(OutOfDomain, match="how many jobs"):
        returns_in_price(0, 0, D(1), D(1))
    with pytest.raises(OutOfDomain, match="nought or more"):
        returns_in_price(1, 0, D(-1), D(1))


def test_making_pays_from_so_many_pieces_on() -> None:
    """Set-up 2 h and half an hour each at 60, 10 of material: 40 a piece after 120; bought at 70: from four on."""
    four = make_or_buy(4, D("0.5"), D(2), D(60), D(10), D(70))
    assert (four.make, four.buy, four.from_pieces) == (280, 280, 4)
    assert make_or_buy(5, D("0.5"), D(2), D(60), D(10), D(70)).words.startswith("Make")
    assert make_or_buy(3, D("0.5"), D(2), D(60), D(10), D(70)).words.startswith("Buy: making pays from 4")
    assert make_or_buy(3, D(1), D(2), D(60), D(10), D(70)).from_pieces is None
    with pytest.raises(OutOfDomain, match="how many pieces"):
        make_or_buy(0, D(1), D(1), D(1), D(1), D(1))
    with pytest.raises(OutOfDomain, match="nought or more"):
        make_or_buy(1, D(-1), D(1), D(1), D(1), D(1))


def test_a_tool_is_bought_when_it_is_paid_back_in_sight() -> None:
    """600 for what saves 90 a job is paid back after seven; with three jobs a year in 2.3 years."""
    found = buy_tool(D(600), D(120), D(30), D(3))
    assert (found.saved_a_job, found.jobs_to_pay) == (90, 7) and found.words.startswith("Buy it: paid back after 7")
    assert buy_tool(D(600), D(120), D(30), D(1)).words.startswith("Borrow it")
    assert buy_tool(D(600), D(120), D(30), D(0)).words.endswith("none more is in sight.")
    assert buy_tool(D(600), D(30), D(30), D(3)).jobs_to_pay is None
    with pytest.raises(OutOfDomain, match="nought or more"):
        buy_tool(D(-1), D(1), D(1), D(1))


def test_a_finding_after_the_agreement_holds_the_next_cut() -> None:
    story = two_sheets()
    assert broken_by(story.facts()) == ""
    assert broken_by(replace(story.facts(), estimate_answers=())) == ""
