"""Playing the invented shop's money into the store: prices, estimates, orders, a broken estimate, a job with credit."""

from collections.abc import Callable
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from uuid import UUID, uuid4

from vallostasis.core.hours.learned import learn_hours
from vallostasis.core.money.draft import draft_of, key_of_part
from vallostasis.core.records.bore_decisions import BoreChoice, LookOutcome, UseProfile
from vallostasis.core.records.estimates import Answered, MoneyRules
from vallostasis.core.records.orders import OrderMoveKind
from vallostasis.core.records.route_marks import Bill, MarkKind, Operation
from vallostasis.core.route.plan import plan_of
from vallostasis.demo import shop_money as play
from vallostasis.demo.hidden_truth import DemoJob
from vallostasis.services import bore_decisions, money, orders, route
from vallostasis.services.route import AtOperation
from vallostasis.store import jobs, prices
from vallostasis.store import money as money_rows
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

People = dict[str, UUID]
LoadJob = Callable[[Conn, DemoJob, People], UUID]


def load_prices(conn: Conn, people: People) -> None:
    """Load what parts cost and how the shop reckons."""
    for name, price, days in play.PART_PRICES:
        money_rows.set_part_price(conn, name, Decimal(price), days, people["Ines"])
    money_rows.set_money_rules(conn, MoneyRules(play.TAX, returns_percent=Decimal(5)), people["Ines"])


def load_money(conn: Conn, people: People) -> None:
    """Load what was agreed, paid and ordered on the invented jobs."""
    by_number = {one.number: one.job_id for one in jobs.list_jobs(conn)}
    for agreed in play.AGREED:
        job_id = by_number[agreed.number]
        agree(conn, job_id, people["Ines"], agreed.said, agreed.way)
        for words, paid in agreed.paid:
            cost = money.PaidFor(uuid4(), key_of_part(words), words, Decimal(paid), Bill.AGREED)
            money.pay_part(conn, job_id, cost, people["Ines"])
        for what, reason in agreed.declined:
            money.decline(conn, job_id, what, reason, people["Ines"])
    for one in play.ORDERS:
        _order(conn, by_number[one.number], people["Ines"], one)


def agree(conn: Conn, job_id: UUID, by: UUID, said: str, way: str) -> None:
    """Write the estimate down as the job drafts it, and that it was agreed."""
    # Common practice: what the shop's own log says is another number by the time it is looked at.
    draft = draft_of(load_job_facts(conn, job_id), learn_hours([]), money_rows.list_part_prices(conn),
                     prices.price_list(conn), money_rows.money_rules(conn))  # fmt: skip
    lines = [money.LineTyped(one.sheet, one.key, one.words, one.low, one.worst, one.tax_percent) for one in draft]
    estimate_id = uuid4()
    money.write_estimate(conn, job_id, estimate_id, lines, "", by)
    answer = money.Said(Answered.AGREED, said, way, datetime.now(UTC).date(), "")
    money.answer_estimate(conn, job_id, estimate_id, answer, by)


def _order(conn: Conn, job_id: UUID, by: UUID, one: play.OrderPlay) -> None:
    order_id, today = uuid4(), datetime.now(UTC).date()
    due = max(today + timedelta(days=one.due_in), today)
    typed = orders.OrderTyped(order_id, one.kind, one.what, 1, one.whom, one.words, key_of_part(one.what),
                              Decimal(one.price) if one.price else None, due, one.wanted, one.within, "mm",
                              True)  # fmt: skip
    orders.place_order(conn, job_id, typed, by)
    if one.measured:
        for kind, measured in ((OrderMoveKind.IN, ""), (OrderMoveKind.MEASURED, one.measured)):
            moved = orders.MoveTyped(kind, None, measured, "", None, "mm", True)
            orders.move_order(conn, job_id, order_id, moved, by)


def break_estimate(conn: Conn, people: People, load_job: LoadJob) -> None:
    """A tractor agreed at the first oversize: the third bore keeps a dark patch, and all four go to the next."""
    job_id = load_job(conn, play.broken_job(), people)
    ladder = load_job_facts(conn, job_id).card.bores.ladder
    _decide(conn, job_id, people, ladder[0].oversize.um, "a third of the wear is on one side")
    agree(conn, job_id, people["Wren"], "Jorun Aske", "by phone")
    look = bore_decisions.Looked(uuid4(), 3, LookOutcome.DARK, "a third of the wall untouched", 6.0, "40 mm")
    bore_decisions.look_at_bore(conn, job_id, look, people["Wren"])


def _decide(conn: Conn, job_id: UUID, people: People, step: Decimal, reason: str) -> None:
    for hole in load_job_facts(conn, job_id).holes:
        decided = bore_decisions.Decided(uuid4(), hole.number, BoreChoice.OVERSIZE, step, "", None, reason, "",
                                         UseProfile.STOCK, "")  # fmt: skip
        bore_decisions.decide_bore(conn, job_id, decided, people["Wren"])


def send_home(conn: Conn, people: People, load_job: LoadJob, day: date) -> None:
    """A small engine that is done: its hours stayed below what was agreed, and the rest is credited."""
    job_id = load_job(conn, play.done_job(), people)
    agree(conn, job_id, people["Ines"], "Slate quarry trust", "by letter")
    began = datetime.combine(day, datetime.min.time(), UTC) + timedelta(hours=8)
    on_route = {leg.operation for leg in plan_of(load_job_facts(conn, job_id))}
    for place, (operation, who, hours) in enumerate(play.DONE_HOURS):
        if operation in on_route:
            then = route.WorkedThen(AtOperation(operation), began + timedelta(days=place % 4), hours, Bill.AGREED)
            route.note_worked(conn, job_id, then, people[who])
    route.mark_operation(conn, job_id, AtOperation(Operation.RELEASE), MarkKind.DONE, people["Ines"], "to the van",
                         hold_reason="seen together on the stand")  # fmt: skip
